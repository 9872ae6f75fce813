"""What goes into a bore: ring gaps there and elsewhere, and the room of the piston.

Diameters in mm; geometry of a circle and of an ellipse, and usual engine-machining practice.
"""

from math import pi, sqrt

from hollet.core.errors import Refused
from hollet.core.fields import Length, Ratio
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["piston_clearance", "ring_gap", "ring_gap_minimum", "ring_gap_oval"]


class RingGap(Input):
    """A gap as measured in one diameter, and the diameter in which it is wanted."""

    gap: Length = None
    measured_at_bore: Length = None
    wanted_at_bore: Length = None


class GapResult(Result):
    """The gap."""

    gap: Quantity


@calculation("Ring gap in another diameter")
def ring_gap(i: RingGap) -> GapResult:
    """The ring's own length is constant: gap + π (wanted - measured).

    Raises
    ------
    Refused
        `ring_butts` when no gap is left.

    Example
    -------
    >>> given = {
    ...     "gap": {"value": 0.35, "unit": "mm"},
    ...     "measured_at_bore": {"value": 84, "unit": "mm"},
    ...     "wanted_at_bore": {"value": 84.06, "unit": "mm"},
    ... }
    >>> found = ring_gap(RingGap.model_validate(given))
    >>> round(found.gap.value, 4), found.gap.unit
    (0.5385, 'mm')
    """
    gap, was = i.figure("gap"), i.figure("measured_at_bore")
    return _gap(gap, was, i.figure("wanted_at_bore"), i.gap)


def _gap(gap: float, was: float, wanted: float, given: Quantity | None) -> GapResult:
    found = gap + pi * (wanted - was)
    if round9(found) <= 0:
        raise Refused(
            "ring_butts",
            "the ends of the ring touch: measure in the smallest part of the bore, and file the "
            "ring",
            field="gap",
        )
    words = f"{gap:g} + π × ({wanted:.5f} − {was:g}) = {found:.4f} mm"
    return GapResult(gap=in_unit(found, given.unit if given else "mm"), working=(words,))


class RingGapOval(Input):
    """A gap as measured in a round bore, wanted in an oval one with these two axes."""

    gap: Length = None
    measured_at_bore: Length = None
    thrust: Length = None
    axial: Length = None


@calculation("Ring gap in an oval bore")
def ring_gap_oval(i: RingGapOval) -> GapResult:
    """Perimeter of the ellipse less the ring's length, with Ramanujan's second formula (1914) for
    the perimeter.

    Raises
    ------
    Refused
        `ring_butts` when no gap is left.

    Example
    -------
    >>> given = {
    ...     "gap": {"value": 0.35, "unit": "mm"},
    ...     "measured_at_bore": {"value": 84, "unit": "mm"},
    ...     "thrust": {"value": 84.062, "unit": "mm"},
    ...     "axial": {"value": 84.041, "unit": "mm"},
    ... }
    >>> found = ring_gap_oval(RingGapOval.model_validate(given))
    >>> round(found.gap.value, 4), found.gap.unit
    (0.5118, 'mm')
    """
    gap, was = i.figure("gap"), i.figure("measured_at_bore")
    a, b = i.figure("thrust"), i.figure("axial")
    if a <= 0 or b <= 0:
        raise Refused(
            "not_a_finite_number",
            "'thrust' and 'axial' must be diameters above zero",
            field="thrust",
        )
    h = ((a - b) / (a + b)) ** 2
    mean = (a + b) / 2 * (1 + 3 * h / (10 + sqrt(4 - 3 * h)))
    return _gap(gap, was, mean, i.gap)


class RingGapMinimum(Input):
    """The bore, and the factor per unit of bore."""

    bore: Length = None
    factor: Ratio = Quantity(value=0.004, unit="1")


@calculation("Least ring gap, rule of thumb")
def ring_gap_minimum(i: RingGapMinimum) -> GapResult:
    """Rule of thumb: factor × bore, 0.004 where nothing is said; the ring maker's figure wins.

    Example
    -------
    >>> given = {
    ...     "bore": {"value": 84, "unit": "mm"},
    ...     "factor": {"value": 0.004, "unit": "1"},
    ... }
    >>> found = ring_gap_minimum(RingGapMinimum.model_validate(given))
    >>> round(found.gap.value, 4), found.gap.unit
    (0.336, 'mm')
    """
    bore, factor = i.figure("bore"), i.figure("factor")
    if bore <= 0 or factor <= 0:
        raise Refused("not_a_finite_number", "'bore' and 'factor' must be above zero", field="bore")
    return GapResult(
        gap=in_unit(bore * factor, i.bore.unit if i.bore else "mm"),
        working=(f"{factor:g} × {bore:g} = {bore * factor:.4f} mm, a rule of thumb",),
    )


class PistonClearance(Input):
    """Smallest and largest bore diameter, and the piston at its gauge height, square to the pin."""

    bore_min: Length = None
    bore_max: Length = None
    piston: Length = None


class PistonClearanceResult(Result):
    """Tightest and loosest diametral clearance."""

    min_clearance: Quantity
    max_clearance: Quantity


@calculation("Piston to bore")
def piston_clearance(i: PistonClearance) -> PistonClearanceResult:
    """Diametral clearance: the tightest goes against the lower limit, the loosest against the wear
    limit.

    Raises
    ------
    Refused
        `negative_clearance` when the piston is not smaller than the bore, `limits_reversed`,
        `not_a_finite_number`.

    Example
    -------
    >>> given = {
    ...     "bore_min": {"value": 84.009, "unit": "mm"},
    ...     "bore_max": {"value": 84.062, "unit": "mm"},
    ...     "piston": {"value": 83.965, "unit": "mm"},
    ... }
    >>> found = piston_clearance(PistonClearance.model_validate(given))
    >>> round(found.min_clearance.value, 4), found.min_clearance.unit
    (0.044, 'mm')
    """
    low, high = i.figure("bore_min"), i.figure("bore_max")
    piston = i.figure("piston")
    if low > high:
        raise Refused(
            "limits_reversed", "'bore_min' must not be larger than 'bore_max'", field="bore_min"
        )
    if piston >= low:
        raise Refused(
            "negative_clearance",
            "the piston is not smaller than the bore: wrong piston, wrong unit or wrong "
            "gauge height",
            field="piston",
        )
    unit = i.bore_min.unit if i.bore_min else "mm"
    return PistonClearanceResult(
        min_clearance=in_unit(low - piston, unit),
        max_clearance=in_unit(high - piston, unit),
        working=(
            f"{low:g} − {piston:g} = {low - piston:.4f} mm",
            f"{high:g} − {piston:g} = {high - piston:.4f} mm",
        ),
    )
