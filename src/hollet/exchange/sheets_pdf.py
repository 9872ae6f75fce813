"""The measuring sheet on paper: what to read, in which state, with which tool, and empty boxes to
write into at the machine.
"""

import io
from collections.abc import Sequence
from functools import cache
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from hollet.exchange.paper import SheetRow, SheetStep

__all__ = [
    "CAUTION",
    "fitted",
    "fonts",
    "inked",
    "measuring_sheet",
    "page_head",
    "plain",
    "wrapped",
]

FONTS = Path(__file__).parent / "fonts"
WIDE, HIGH = A4
MARGIN = 12 * mm
ROW = 10.5 * mm
FOOT = 20 * mm
LEAST = 7.5
"""The smallest letter on paper, in pt."""
CAUTION = (
    "The vehicle maker's manual, local codes and licensed practice go first. Copy: the log on "
    "the screen is the record."
)
COLUMNS = (
    (0.0, "what"),
    (0.40, "expected"),
    (0.52, "tool"),
    (0.66, "1"),
    (0.775, "2"),
    (0.89, "3"),
)


@cache
def fonts() -> None:
    """The paper fonts, registered once."""
    for weight in (500, 800):
        pdfmetrics.registerFont(
            TTFont(f"Recursive-{weight}", str(FONTS / f"recursive-{weight}.ttf"))
        )


def plain(text: str) -> str:
    """Signs that the paper font lacks, in words."""
    for sign, word in (
        ("Ω", "ohm"),
        ("≤", "at most "),
        ("≥", "at least "),
        ("→", "to"),
        ("″", '"'),
        ("μ", "u"),
        ("µ", "u"),
        ("…", "..."),
    ):
        text = text.replace(sign, word)
    return text


def inked(text: str) -> str:
    """A text with a question mark for every sign that the paper font cannot draw, so that none is
    lost unseen.
    """
    font = pdfmetrics.getFont("Recursive-500")
    assert isinstance(font, TTFont)
    return "".join(c if ord(c) in font.face.charToGlyph else "?" for c in plain(text))


def fitted(canvas: Canvas, text: str, weight: int, size: float, room: float) -> str:
    """The text in the largest size up to `size` (pt) in which it fits into `room` (pt); what does
    not fit even so ends in dots, so that nobody takes it for the whole.
    """
    font, text = f"Recursive-{weight}", inked(text)
    wide = pdfmetrics.stringWidth(text, font, size)
    small = max(LEAST, min(size, size * room / wide)) if wide else size
    canvas.setFont(font, small)
    if pdfmetrics.stringWidth(text, font, small) <= room + 0.1:
        return text
    while text and pdfmetrics.stringWidth(f"{text}...", font, small) > room:
        text = text[:-1]
    return f"{text.rstrip()}..."


def measuring_sheet(build: str, about: str, printed: str, steps: Sequence[SheetStep]) -> bytes:
    """An A4 PDF, black on white, 12 mm margins; no row is ever parted from its boxes.

    Parameters
    ----------
    printed : date and time, as it stands in the head of each page.
    """
    fonts()
    out = io.BytesIO()
    pages = _laid_out(steps)
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(inked(f"Measuring sheet, {build}"))
    for number, page in enumerate(pages, start=1):
        page_head(canvas, build, about, f"printed {printed}, page {number} of {len(pages)}")
        y = HIGH - MARGIN - 24 * mm
        for step, rows, begun in page:
            y = _step(canvas, step, rows, y, begun)
        canvas.setFont("Recursive-500", 9)
        canvas.drawString(MARGIN, MARGIN - 2 * mm, CAUTION)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _laid_out(
    steps: Sequence[SheetStep],
) -> list[list[tuple[SheetStep, tuple[SheetRow, ...], bool]]]:
    """Steps cut into pages: head, then as many rows as fit; whether a part goes on from the page
    before.
    """
    pages: list[list[tuple[SheetStep, tuple[SheetRow, ...], bool]]] = [[]]
    room = full = HIGH - 2 * MARGIN - 24 * mm - FOOT / 2
    for step in steps:
        rows, begun = list(step.rows), False
        while rows:
            head = _head_height(step, begun)
            if room < head + 2 * ROW and pages[-1]:
                pages.append([])
                room = full
            fit = max(1, int((room - head) / ROW))
            part, rows = rows[:fit], rows[fit:]
            pages[-1].append((step, tuple(part), begun))
            room -= head + len(part) * ROW + 4 * mm
            begun = True
    return pages


def _head_height(step: SheetStep, begun: bool) -> float:
    return (
        14 * mm
        if begun
        else (
            16
            + 5 * len(wrapped(step.do, 11))
            + (6 * len(wrapped(step.caution, 11)) if step.caution else 0)
        )
        * mm
    )


def wrapped(
    text: str, size: float, room: float = WIDE - 2 * MARGIN - 8 * mm, font: str = "Recursive-500"
) -> list[str]:
    """Lines of a text that fit between the margins."""
    lines: list[str] = []
    for word in inked(text).split():
        trial = f"{lines[-1]} {word}" if lines else word
        if lines and pdfmetrics.stringWidth(trial, font, size) <= room:
            lines[-1] = trial
        else:
            lines.append(word)
    return lines


def page_head(canvas: Canvas, build: str, about: str, page: str) -> None:
    """The head of a page: of what, about what, printed when and which page."""
    canvas.setFont("Recursive-800", 16)
    canvas.drawString(MARGIN, HIGH - MARGIN - 6 * mm, inked(build)[:60])
    canvas.setFont("Recursive-500", 11)
    canvas.drawString(MARGIN, HIGH - MARGIN - 12 * mm, inked(about)[:90])
    canvas.drawRightString(WIDE - MARGIN, HIGH - MARGIN - 6 * mm, page)
    canvas.setLineWidth(1.5)
    canvas.line(MARGIN, HIGH - MARGIN - 16 * mm, WIDE - MARGIN, HIGH - MARGIN - 16 * mm)


def _step(
    canvas: Canvas, step: SheetStep, rows: Sequence[SheetRow], y: float, begun: bool
) -> float:
    canvas.setFont("Recursive-800", 13)
    canvas.drawString(
        MARGIN, y, inked(f"{step.number} {step.title}{', goes on' if begun else ''}")[:80]
    )
    y -= 6 * mm
    canvas.setFont("Recursive-500", 11)
    if not begun:
        for line in wrapped(step.do, 11):
            canvas.drawString(MARGIN, y, line)
            y -= 5 * mm
        lines = wrapped(step.caution, 11) if step.caution else []
        if lines:
            y -= 2 * mm
            canvas.setLineWidth(1.5)
            canvas.rect(
                MARGIN,
                y - 6 * mm * (len(lines) - 1) - 2 * mm,
                WIDE - 2 * MARGIN,
                6 * mm * len(lines),
            )
            for line in lines:
                canvas.drawString(MARGIN + 3 * mm, y, line)
                y -= 6 * mm
    span = WIDE - 2 * MARGIN
    canvas.setFont("Recursive-500", 9)
    for share, word in COLUMNS:
        canvas.drawString(MARGIN + share * span + 1 * mm, y, word)
    y -= 2 * mm
    for row in rows:
        _row(canvas, row, y, span)
        y -= ROW
    return y - 8 * mm


def _row(canvas: Canvas, row: SheetRow, y: float, span: float) -> None:
    canvas.setLineWidth(0.5)
    canvas.line(MARGIN, y, MARGIN + span, y)
    canvas.setFont("Recursive-800", 11)
    canvas.drawString(MARGIN, y - 4.5 * mm, inked(row.name)[:44])
    canvas.setFont("Recursive-500", 8)
    small = ", ".join(
        text for text in (row.allowed, row.note, f"read: {row.read}" if row.read else "") if text
    )
    canvas.drawString(MARGIN, y - 8.5 * mm, inked(small)[:66])
    canvas.setFont("Recursive-500", 11)
    canvas.drawString(MARGIN + COLUMNS[1][0] * span + 1 * mm, y - 6 * mm, inked(row.expected)[:14])
    canvas.setFont("Recursive-500", 9)
    canvas.drawString(MARGIN + COLUMNS[2][0] * span + 1 * mm, y - 6 * mm, inked(row.tool)[:17])
    canvas.setLineWidth(1)
    for share, _ in COLUMNS[3:]:
        canvas.rect(MARGIN + share * span, y - ROW + 1 * mm, 0.11 * span, ROW - 2 * mm)
