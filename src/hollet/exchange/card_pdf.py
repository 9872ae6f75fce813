"""The card of a joint, to hang over the work with greasy hands: large figures, one page."""

import io

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from hollet.exchange.paper import CardStage, TorqueCard
from hollet.exchange.sheets_pdf import CAUTION, fitted, fonts, inked, wrapped

__all__ = ["card_pdf"]

WIDE, HIGH = A4
MARGIN = 12 * mm
SPAN = WIDE - 2 * MARGIN
DRAWING = 84 * mm
TABLE = MARGIN + DRAWING + 8 * mm
A_ROW = 24
"""Bolts in one row of boxes; more take a second row."""
ROW = 11 * mm
SMALL = 9.0


def card_pdf(card: TorqueCard) -> bytes:
    """An A4 page, black on white: never two for one joint."""
    fonts()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(inked(card.title))
    y = _head(canvas, card)
    low = min(_drawing(canvas, card, y), _table(canvas, card, y))
    low = _boxes(canvas, card, low - 4 * mm)
    _joints(canvas, card, low - 6 * mm)
    canvas.setFont("Recursive-500", 9)
    canvas.drawString(MARGIN, MARGIN - 4 * mm, CAUTION)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def _head(canvas: Canvas, card: TorqueCard) -> float:
    y = HIGH - MARGIN
    canvas.drawRightString(WIDE - MARGIN, y - 3 * mm, fitted(canvas, card.head, 500, 10, SPAN))
    canvas.setLineWidth(2)
    canvas.line(MARGIN, y - 6 * mm, WIDE - MARGIN, y - 6 * mm)
    canvas.drawString(MARGIN, y - 15 * mm, fitted(canvas, card.title, 800, 20, SPAN))
    y -= 21 * mm
    canvas.setFont("Recursive-500", 12)
    for line in wrapped(card.about, 12, SPAN)[:3]:
        canvas.drawString(MARGIN, y, line)
        y -= 5.5 * mm
    if card.caution:
        lines = wrapped(card.caution, 12, SPAN - 8 * mm)[:3]
        high = 5.5 * mm * len(lines) + 3 * mm
        canvas.setLineWidth(2)
        canvas.rect(MARGIN, y - high + 3 * mm, SPAN, high)
        canvas.setFont("Recursive-800", 12)
        for line in lines:
            canvas.drawString(MARGIN + 4 * mm, y - 2.5 * mm, line)
            y -= 5.5 * mm
        y -= 3 * mm
    return y - 4 * mm


def _drawing(canvas: Canvas, card: TorqueCard, top: float) -> float:
    """The joint from above, every bolt with its number in the order; how low it goes."""
    xs, ys = [b.x for b in card.bolts], [b.y for b in card.bolts]
    wide, high = max(xs) - min(xs), max(ys) - min(ys)
    room = DRAWING - 20 * mm
    share = room / max(wide, high, 1e-9) if max(wide, high) > 0 else 0.0
    tall = high * share + 20 * mm
    middle = (MARGIN + DRAWING / 2, top - tall / 2)
    centre = ((max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2)
    canvas.setLineWidth(1.6)
    if card.is_round:
        canvas.circle(*middle, min(wide, high) * share / 2 + 9 * mm)
    else:
        canvas.rect(MARGIN + 1 * mm, top - tall, DRAWING - 2 * mm, tall)
    near = _nearest(card, share)
    radius = min(5.5 * mm, near / 2 - 0.6 * mm) if near else 5.5 * mm
    for bolt in card.bolts:
        x = middle[0] + (bolt.x - centre[0]) * share
        y = middle[1] + (bolt.y - centre[1]) * share
        canvas.setFillGray(1)
        canvas.circle(x, y, radius, fill=1)
        canvas.setFillGray(0)
        size = min(14.0, radius * 1.1)
        canvas.setFont("Recursive-800", size)
        canvas.drawCentredString(x, y - size * 0.35, str(bolt.number))
    if card.sides is not None:
        canvas.setFont("Recursive-500", 10)
        canvas.drawString(MARGIN, top - tall - 5 * mm, inked(f"above: {card.sides[0]}"))
        canvas.drawRightString(
            MARGIN + DRAWING, top - tall - 5 * mm, inked(f"below: {card.sides[1]}")
        )
        return top - tall - 8 * mm
    return top - tall - 2 * mm


def _nearest(card: TorqueCard, share: float) -> float:
    """How far apart the two nearest bolts are drawn."""
    apart = [
        ((a.x - b.x) ** 2 + (a.y - b.y) ** 2) ** 0.5 * share
        for k, a in enumerate(card.bolts)
        for b in card.bolts[:k]
    ]
    return min(apart, default=0.0)


def _table(canvas: Canvas, card: TorqueCard, top: float) -> float:
    """What each bolt gets, and what each wrench is set to, in figures that are read from far."""
    room = WIDE - MARGIN - TABLE
    first = 12 * mm
    gets = 26 * mm if card.columns else room - first
    each = (room - first - gets) / max(len(card.columns), 1)
    y = top - 5 * mm
    canvas.drawString(TABLE, y, fitted(canvas, "Stage", 500, 10, first))
    canvas.drawString(TABLE + first, y, fitted(canvas, "Bolt gets", 500, 10, gets))
    for k, name in enumerate(card.columns):
        x = TABLE + first + gets + k * each
        _cell(canvas, name, 500, x, y, each - 2 * mm, 10)
    y -= 3.6 * mm
    canvas.setLineWidth(1.6)
    canvas.line(TABLE, y, WIDE - MARGIN, y)
    for number, stage in enumerate(card.stages, 1):
        y -= 12 * mm
        canvas.setFont("Recursive-800", 14)
        canvas.drawString(TABLE, y + 3 * mm, str(number))
        canvas.drawString(
            TABLE + first, y + 3 * mm, fitted(canvas, stage.gets, 800, 14, gets - 2 * mm)
        )
        _settings(canvas, stage, TABLE + first + gets, y, each)
        canvas.setLineWidth(0.5)
        canvas.line(TABLE, y, WIDE - MARGIN, y)
    y -= 6 * mm
    for note in card.notes:
        canvas.setFont("Recursive-500", 10)
        for line in wrapped(note, 10, room):
            canvas.drawString(TABLE, y, line)
            y -= 4.8 * mm
    for words in card.assumed:
        canvas.setFont("Recursive-800", 11)
        canvas.drawString(TABLE, y, inked(words))
        canvas.setLineWidth(1)
        canvas.setDash(3, 2)
        width = canvas.stringWidth(inked(words), "Recursive-800", 11)
        canvas.line(TABLE, y - 1.2 * mm, TABLE + width, y - 1.2 * mm)
        canvas.setDash()
        y -= 6 * mm
    return y


def _settings(canvas: Canvas, stage: CardStage, x: float, y: float, each: float) -> None:
    if not stage.by_torque:
        canvas.drawString(x, y + 3 * mm, fitted(canvas, "by angle", 500, 12, 3 * each))
        return
    for k, figure in enumerate(stage.settings):
        canvas.drawString(x + k * each, y + 3 * mm, fitted(canvas, figure, 800, 24, each - 2 * mm))


def _cell(
    canvas: Canvas, words: str, weight: int, x: float, y: float, room: float, size: float = 11
) -> None:
    """Words on one line (baseline `y`, pt), or on two small ones where they are too long for it."""
    font, text = f"Recursive-{weight}", inked(words)
    if canvas.stringWidth(text, font, size) <= room:
        canvas.setFont(font, size)
        canvas.drawString(x, y, text)
        return
    first, *rest = wrapped(text, SMALL, room, font)
    canvas.drawString(x, y + (1.8 * mm if rest else 0), fitted(canvas, first, weight, SMALL, room))
    if rest:
        second = fitted(canvas, " ".join(rest), weight, SMALL, room)
        canvas.drawString(x, y - 1.8 * mm, second)


def _boxes(canvas: Canvas, card: TorqueCard, top: float) -> float:
    """A box for each bolt and stage."""
    y, label = top, 20 * mm
    rows = -(-len(card.bolts) // A_ROW)
    each_row = (top - MARGIN - 8 * mm) / rows - 7 * mm
    line = min(8.4 * mm, each_row / len(card.stages))  # as high as the page lets it be
    for start in range(0, len(card.bolts), A_ROW):
        row = card.bolts[start : start + A_ROW]
        each = (SPAN - label) / max(len(row), 8)
        canvas.setLineWidth(1.6)
        canvas.line(MARGIN, y, WIDE - MARGIN, y)
        canvas.setFont("Recursive-500", 10)
        canvas.drawString(MARGIN, y - 5 * mm, "Bolt")
        canvas.setFont("Recursive-800", 12)
        for k, bolt in enumerate(row):
            canvas.drawCentredString(
                MARGIN + label + (k + 0.5) * each, y - 5 * mm, str(bolt.number)
            )
        y -= 7 * mm
        for stage in card.stages:
            canvas.setLineWidth(0.5)
            canvas.line(MARGIN, y, WIDE - MARGIN, y)
            canvas.drawString(MARGIN, y - line * 0.67, fitted(canvas, stage.gets, 800, 11, label))
            for k in range(len(row)):
                x = MARGIN + label + (k + 0.5) * each
                canvas.setLineWidth(1)
                side = min(6 * mm, each - 1.4 * mm, line - 1.4 * mm)
                canvas.rect(x - side / 2, y - line / 2 - side / 2, side, side)
            y -= line
    return y


def _joints(canvas: Canvas, card: TorqueCard, top: float) -> None:
    """The joints beside it, one line each, as far as the page goes; how many more is said."""
    if not card.joints:
        return
    if top < MARGIN + 2 * ROW:
        canvas.setFont("Recursive-500", 9)
        words = f"{len(card.joints)} more joints: their own cards"
        canvas.drawRightString(WIDE - MARGIN, MARGIN, words)
        return
    columns = ((0.0, "Also"), (0.28, "gets"), (0.44, "set"), (0.56, "how"), (0.73, "from"))
    canvas.setLineWidth(1.6)
    canvas.line(MARGIN, top, WIDE - MARGIN, top)
    canvas.setFont("Recursive-500", 10)
    for share, word in columns:
        canvas.drawString(MARGIN + share * SPAN, top - 5 * mm, word)
    y = top - 7 * mm
    fits = max(0, int((y - MARGIN - 8 * mm) // ROW))
    for joint in card.joints[:fits]:
        canvas.setLineWidth(0.5)
        canvas.line(MARGIN, y, WIDE - MARGIN, y)
        source = f"{joint.source} assumed".strip() if joint.assumed else joint.source
        cells = (
            (joint.name, 800, 0.28),
            (joint.gets, 500, 0.16),
            (joint.set_to, 800, 0.12),
            (joint.how, 500, 0.17),
            (source, 800 if joint.assumed else 500, 0.22),
        )
        for (share, _), (words, weight, room) in zip(columns, cells, strict=True):
            x = MARGIN + share * SPAN
            _cell(canvas, words, weight, x, y - 6.5 * mm, room * SPAN - 2 * mm)
        canvas.setLineWidth(1)
        canvas.rect(WIDE - MARGIN - 6 * mm, y - 8.5 * mm, 6 * mm, 6 * mm)
        y -= ROW
    more = len(card.joints) - fits
    if more > 0:
        canvas.setFont("Recursive-500", 10)
        canvas.drawString(MARGIN, y - 4 * mm, f"and {more} more: their own cards")
