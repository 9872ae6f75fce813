"""A kit of shims as it is written on paper, and the sums that it makes."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantity, decimal_text
from hollet.core.quantities.units import Unit

__all__ = ["Piece", "read_kit", "sums_of"]

FORM = "write thickness and how many, such as 0.25 x 2, 0.50, 1.00 x 3"
MOST_KINDS = 60
THICKEST_MM = 25.0
"""No shim is thicker; a figure above it was meant in another unit."""


@dataclass(frozen=True, slots=True)
class Piece:
    """Like shims as they were typed: the thickness in mm, what its last digit is worth, and how
    many.
    """

    typed: str
    thickness: Quantity
    last: Quantity
    count: int


def read_kit(text: str, unit: str) -> tuple[Piece, ...]:
    """A kit from a line: thickness, then how many behind an x; commas, semicolons or lines between
    them. A thickness without a unit is in `unit`.

    Raises
    ------
    Refused
        `bad_kit`: empty, a thickness of nothing or of more than 25 mm, one of them twice, a count
        that is none.

    Examples
    --------
    >>> [(p.typed, p.count) for p in read_kit("0.25 x 2, 0.5", "mm")]
    [('0.25', 2), ('0.5', 1)]
    """
    found: dict[str, Piece] = {}
    for part in re.split(r"[;\n]|,(?=\s)|,$", text):
        if part.strip():
            piece = _piece(part.strip(), unit)
            if piece.thickness.value in found:
                words = (
                    f"'{piece.typed}' stands there twice: write it once, with how many there are"
                )
                raise Refused("bad_kit", words, field="typed")
            found[str(piece.thickness.value)] = piece
    if not found:
        raise Refused("bad_kit", f"the kit is empty: {FORM}", field="typed")
    if len(found) > MOST_KINDS:
        words = f"{len(found)} sizes: at most {MOST_KINDS} lie in one drawer"
        raise Refused("bad_kit", words, field="typed")
    return tuple(sorted(found.values(), key=lambda p: float(str(p.thickness.value))))


def _piece(text: str, unit: str) -> Piece:
    counted = re.fullmatch(r"(.+?)\s*[x×*]\s*(\d{1,4})", text)
    typed, count = (counted[1].strip(), int(counted[2])) if counted else (text, 1)
    try:
        read = parse(typed, "length", unit)
    except Refused as refusal:
        raise Refused("bad_kit", f"'{text}': {FORM}", field="typed") from refusal
    thickness = read.nominal
    if thickness is None or read.kind != "single":
        raise Refused("bad_kit", f"'{text}' is no one thickness: {FORM}", field="typed")
    if not 0 < thickness <= THICKEST_MM:
        words = f"'{typed}': a shim is thicker than nothing, and at most {THICKEST_MM:g} mm"
        raise Refused("bad_kit", words, field="typed")
    if not 1 <= count <= 99:
        raise Refused("bad_kit", f"'{text}': 1 to 99 of one size", field="typed")
    return Piece(
        typed,
        Quantity(value=decimal_text(thickness), unit="mm"),
        Quantity(value=decimal_text(_last_digit(typed, read.shown)), unit="mm"),
        count,
    )


def _last_digit(typed: str, unit: Unit | None) -> Fraction:
    """What the last digit of a thickness is worth, in mm: 0.25 has hundredths; a fraction of an
    inch is taken as a tenth of a millimetre.
    """
    figure = re.match(r"\s*\d*[.,]?(\d*)", typed.replace(",", "."))
    if "/" in typed or figure is None:
        return Fraction(1, 10)
    factor = unit.factor if unit is not None else Fraction(1)
    return Fraction(1, 10 ** len(figure[1])) * factor if "." in figure[0] else Fraction(factor)


def sums_of(kit: Mapping[int, int], most: int, upto: int) -> dict[int, tuple[int, ...]]:
    """Every distinct sum up to `upto` of at most `most` pieces of a kit (thickness to count), each
    with the fewest pieces that make it, thinnest first. Bounded knapsack by dynamic programming.

    Examples
    --------
    >>> sums_of({25: 2, 50: 1}, 2, 100)
    {0: (), 25: (25,), 50: (50,), 75: (25, 50)}
    """
    by_pieces: list[dict[int, tuple[int, ...]]] = [{0: ()}, *({} for _ in range(most))]
    for thickness in sorted(kit):
        before = [dict(layer) for layer in by_pieces]
        for pieces, layer in enumerate(before):
            for total, stack in layer.items():
                for more in range(1, min(kit[thickness], most - pieces) + 1):
                    grown = total + more * thickness
                    if grown > upto:
                        break
                    by_pieces[pieces + more].setdefault(grown, (*stack, *[thickness] * more))
    best: dict[int, tuple[int, ...]] = {}
    for layer in by_pieces:
        for total, stack in layer.items():
            best.setdefault(total, stack)
    return dict(sorted(best.items()))
