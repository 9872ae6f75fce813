"""A page to send to somebody: what it is about, facts under heads, photos; a question or a return
slip.
"""

import io
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any
from xml.sax.saxutils import escape

from PIL import Image as Picture
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Image, Paragraph, SimpleDocTemplate, Spacer

from hollet.exchange.sheets_pdf import CAUTION, fonts, inked, page_head

__all__ = ["LetterPart", "letter_pdf"]

WIDE, _ = A4
MARGIN = 12 * mm
PHOTO_WIDE, PHOTO_HIGH = 120 * mm, 90 * mm
BODY = ParagraphStyle("body", fontName="Recursive-500", fontSize=11, leading=15, spaceAfter=3)
HEAD = ParagraphStyle(
    "head", fontName="Recursive-800", fontSize=13, leading=18, spaceBefore=8, keepWithNext=True
)


@dataclass(frozen=True, slots=True)
class LetterPart:
    """Lines under one head, and photos by their files."""

    head: str
    lines: tuple[str, ...] = ()
    photos: tuple[Path, ...] = ()


def letter_pdf(title: str, about: str, printed: str, parts: Sequence[LetterPart]) -> bytes:
    """An A4 PDF, black on white but for the photos, with the page's number of how many."""
    fonts()
    pages = _built(parts, title, lambda canvas, number: None)[1]

    def furnish(canvas: Canvas, number: int) -> None:
        page_head(canvas, title, about, f"printed {printed}, page {number} of {pages}")
        canvas.setFont("Recursive-500", 9)
        canvas.drawString(MARGIN, MARGIN - 2 * mm, CAUTION)

    return _built(parts, title, furnish)[0]


def _built(
    parts: Sequence[LetterPart], title: str, furnish: Callable[[Canvas, int], None]
) -> tuple[bytes, int]:
    """The pages, and how many there are."""
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out,
        pagesize=A4,
        leftMargin=MARGIN - 6,
        rightMargin=MARGIN - 6,
        topMargin=MARGIN + 18 * mm,
        bottomMargin=MARGIN + 4 * mm,
        title=inked(title),
        invariant=1,
    )

    def page(canvas: Canvas, laid: Any) -> None:
        furnish(canvas, laid.page)

    document.build([item for part in parts for item in _flowed(part)], page, page)
    return out.getvalue(), document.page


def _flowed(part: LetterPart) -> list[Flowable]:
    found: list[Flowable] = [Paragraph(escape(inked(part.head)), HEAD)]
    found += [Paragraph(escape(inked(line)), BODY) for line in part.lines]
    for photo in part.photos:
        with Picture.open(photo) as picture:
            wide, high = picture.size
        scale = min(PHOTO_WIDE / wide, PHOTO_HIGH / high)
        found += [Spacer(1, 4), Image(str(photo), wide * scale, high * scale, hAlign="LEFT")]
    return found
