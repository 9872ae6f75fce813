"""A flange drawn down evenly: gaps by feeler round about, which bolt is next, how it leans."""

import math

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["flange_even"]

FEWEST = 3


class Gaps(Input):
    """Gaps at points spread evenly round a flange, in their order, each beside the bolt of its
    number; how far apart they may be, and the pitch of the bolts where a turn is to be told.
    """

    gap: Lengths = None
    apart: Length = None
    pitch: Length = None


class Even(Result):
    """Whether it is drawn evenly; the bolt that is next, the largest gap less the smallest, how far
    the flange leans across its circle and towards which bolt it stands open; the turn for the next
    bolt that brings its gap to the mean of the others, where a pitch was given.
    """

    even: bool
    next_bolt: int
    apart: Quantity
    lean: Quantity
    open_at: Quantity
    turn: Quantity | None = None


@calculation("Flange drawn evenly")
def flange_even(i: Gaps) -> Even:
    """The lean is the plane g = a + b cos θ + c sin θ of least squares through the gaps: it is
    2√(b² + c²) across the circle, open towards atan2(c, b), counted in bolts from the first.

    Raises
    ------
    Refused
        `too_few`: fewer than three gaps; `negative_gap`; `not_positive`, `not_a_finite_number`.

    Example
    -------
    >>> found = flange_even(Gaps(gap={"value": [1.0, 0.8, 0.6, 0.8], "unit": "mm"},
    ...     apart={"value": 0.1, "unit": "mm"}, pitch={"value": 1.25, "unit": "mm"}))
    >>> found.even, found.next_bolt, round(found.lean.value, 6), round(found.turn.value, 3)
    (False, 1, 0.4, 76.8)
    """
    gaps = i.figures("gap")
    if len(gaps) < FEWEST:
        words = f"{FEWEST} gaps or more, spread evenly round the flange"
        raise Refused("too_few", words, field="gap")
    if min(gaps) < 0:
        raise Refused("negative_gap", "a gap is zero where it is shut, never less", field="gap")
    allowed = i.positive("apart")
    n, unit = len(gaps), i.gap.unit if i.gap is not None else "mm"
    step = 2 * math.pi / n
    b = 2 / n * math.fsum(g * math.cos(k * step) for k, g in enumerate(gaps))
    c = 2 / n * math.fsum(g * math.sin(k * step) for k, g in enumerate(gaps))
    spread, at = max(gaps) - min(gaps), max(range(n), key=lambda k: gaps[k])
    others = (math.fsum(gaps) - gaps[at]) / (n - 1)
    lean = 2 * math.hypot(b, c)
    towards = (math.atan2(c, b) / step) % n if round9(lean) else 0.0
    turn = None
    if i.pitch is not None:
        turn = Quantity(value=(gaps[at] - others) / i.positive("pitch") * 360, unit="deg")
    even = round9(spread) <= round9(allowed)
    return Even(
        even=even,
        next_bolt=at + 1,
        apart=in_unit(spread, unit),
        lean=in_unit(lean, unit),
        open_at=Quantity(value=towards + 1, unit="1"),
        turn=turn,
        working=(
            f"{max(gaps):g} − {min(gaps):g} = {spread:.3g} mm apart, {allowed:g} allowed",
            f"leans {lean:.3g} mm across, open towards bolt {towards + 1:.1f}",
            "all bolts by the same small turn" if even else f"bolt {at + 1} is next",
        ),
    )
