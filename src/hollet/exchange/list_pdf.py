"""Lists on paper, to tick with a pencil: shopping, the card for today."""

import io
from collections.abc import Sequence

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from hollet.exchange.paper import ListGroup, ListRow
from hollet.exchange.sheets_pdf import CAUTION, fitted, fonts, inked, page_head

__all__ = ["list_pdf"]

WIDE, HIGH = A4
MARGIN = 12 * mm
ROW = 11 * mm
HEAD = 12 * mm
TOP = HIGH - MARGIN - 26 * mm
LINE = WIDE - 2 * MARGIN - 10 * mm
RIGHT = LINE * 0.45


def list_pdf(title: str, about: str, printed: str, groups: Sequence[ListGroup]) -> bytes:
    """An A4 PDF, black on white; a head never stands alone at the foot of a page."""
    fonts()
    out = io.BytesIO()
    pages = _pages(groups)
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(inked(title))
    for number, page in enumerate(pages, start=1):
        page_head(canvas, title, about, f"printed {printed}, page {number} of {len(pages)}")
        y = TOP
        for item in page:
            y = _group(canvas, item, y) if isinstance(item, str) else _row(canvas, item, y)
        canvas.setFont("Recursive-500", 9)
        canvas.drawString(MARGIN, MARGIN - 2 * mm, CAUTION)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _pages(groups: Sequence[ListGroup]) -> list[list[str | ListRow]]:
    pages: list[list[str | ListRow]] = [[]]
    room = full = TOP - MARGIN - 6 * mm
    for group in groups:
        if room < HEAD + ROW and pages[-1]:
            pages.append([])
            room = full
        pages[-1].append(group.title)
        room -= HEAD
        for row in group.rows:
            if room < ROW:
                pages.append([f"{group.title}, goes on"])
                room = full - HEAD
            pages[-1].append(row)
            room -= ROW
    return pages


def _group(canvas: Canvas, title: str, y: float) -> float:
    canvas.drawString(MARGIN, y - 6 * mm, fitted(canvas, title, 800, 13, WIDE - 2 * MARGIN))
    canvas.setLineWidth(1.2)
    canvas.line(MARGIN, y - 9 * mm, WIDE - MARGIN, y - 9 * mm)
    return y - HEAD


def _row(canvas: Canvas, row: ListRow, y: float) -> float:
    left = MARGIN + 10 * mm
    canvas.setLineWidth(1)
    if row.box:
        canvas.rect(MARGIN, y - 6.5 * mm, 6.5 * mm, 6.5 * mm)
    right = fitted(canvas, row.right, 500, 11, RIGHT)
    canvas.drawRightString(WIDE - MARGIN, y - 4 * mm, right)
    taken = canvas.stringWidth(right) + 4 * mm if right else 0
    canvas.drawString(left, y - 4 * mm, fitted(canvas, row.what, 800, 11, LINE - taken))
    canvas.drawString(left, y - 8 * mm, fitted(canvas, row.small, 500, 9, LINE))
    return y - ROW
