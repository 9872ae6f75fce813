"""Labels for bags and wires: 24 a sheet, three across, with a code that opens the bag."""

import io
from collections.abc import Sequence

import segno
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from hollet.exchange.paper import Label
from hollet.exchange.sheets_pdf import fitted, fonts, inked, wrapped

__all__ = ["LABELS_A_SHEET", "labels_pdf"]

WIDE, HIGH = A4
ACROSS, DOWN = 3, 8
LABELS_A_SHEET = ACROSS * DOWN
EDGE = 4.5 * mm
LABEL_W, LABEL_H = (WIDE - 2 * 6 * mm) / ACROSS, (HIGH - 2 * 8 * mm) / DOWN
CODE = 24 * mm
LARGE, SMALL = 11.5, 10
QUIET = 4
"""Light cells round a code, which a reader needs."""


def labels_pdf(title: str, labels: Sequence[Label]) -> bytes:
    """A4 sheets of 24, black on white; each as large as the paper lets it be."""
    fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(inked(title))
    for start in range(0, len(labels), LABELS_A_SHEET):
        for k, label in enumerate(labels[start : start + LABELS_A_SHEET]):
            column, row = k % ACROSS, k // ACROSS
            x = 6 * mm + column * LABEL_W
            y = HIGH - 8 * mm - (row + 1) * LABEL_H
            _label(canvas, label, x, y)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _label(canvas: Canvas, label: Label, x: float, y: float) -> None:
    canvas.setLineWidth(0.3)
    canvas.setDash(2, 3)
    canvas.rect(x, y, LABEL_W, LABEL_H)
    canvas.setDash()
    room = LABEL_W - 2 * EDGE - (CODE if label.address else 0)
    canvas.drawString(x + EDGE, y + LABEL_H - 13 * mm, fitted(canvas, label.mark, 800, 34, room))
    top = y + LABEL_H - 19 * mm
    for line in wrapped(label.what, LARGE, room, "Recursive-800")[:2]:
        canvas.drawString(x + EDGE, top, fitted(canvas, line, 800, LARGE, room))
        top -= 4.6 * mm
    low = y + 6.4 * mm  # below the code
    for line in wrapped(label.lines, SMALL, LABEL_W - 2 * EDGE)[:2]:
        canvas.drawString(x + EDGE, low, fitted(canvas, line, 500, SMALL, LABEL_W - 2 * EDGE))
        low -= 4.2 * mm
    if label.address:
        _code(
            canvas, label.address, x + LABEL_W - EDGE - CODE + 2 * mm, y + LABEL_H - CODE - 2 * mm
        )


def _code(canvas: Canvas, address: str, x: float, y: float) -> None:
    """The code of an address, CODE square, its quiet edge with it."""
    rows = [list(row) for row in segno.make(address, error="m", boost_error=False).matrix]
    cell = CODE / (len(rows) + 2 * QUIET)
    for down, row in enumerate(rows):
        for across, dark in enumerate(row):
            if dark:
                left = x + (across + QUIET) * cell
                low = y + CODE - (down + 1 + QUIET) * cell
                canvas.rect(left, low, cell * 1.02, cell * 1.02, stroke=0, fill=1)
