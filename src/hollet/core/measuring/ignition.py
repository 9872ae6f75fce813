"""Ignition timing: advance in all, on the rim of the damper, and top dead centre from a stop. Crank
degrees, before top positive.

Plane geometry. The engine is turned by hand with the plugs out; a vacuum line is taken off and
plugged for the total.
"""

from math import pi, radians, sin

from hollet.core.errors import Refused
from hollet.core.fields import Advance, Angle, Length
from hollet.core.quantities.quantity import Quantity, canonical, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["mechanical_needed", "rim_distance", "tdc_from_stop", "timing_total"]

ADVANCE = "deg BTDC"
SIGNS = {"btdc": 1, "atdc": -1}
LEAST_ARC, MOST_ARC = 10.0, 175.0


def _advance(quantity: Quantity | None, field: str) -> float:
    """A figure in crank degrees, positive before top: `deg BTDC`, `deg ATDC` or a plain angle."""
    if quantity is None or " " not in quantity.unit.strip():
        return canonical(quantity, "angle", field)
    unit, _, side = quantity.unit.strip().rpartition(" ")
    if side.lower() not in SIGNS:
        raise Refused(
            "dimension_mismatch",
            f"'{field}' must be an angle in deg BTDC or deg ATDC (got '{quantity.unit}')",
            field=field,
        )
    return SIGNS[side.lower()] * canonical(
        Quantity(value=quantity.value, unit=unit), "angle", field
    )


class TimingTotal(Input):
    """Timing at idle, what the weights add, what the vacuum adds, and whether the latter two are
    the distributor's own degrees.
    """

    initial: Advance = None
    mechanical: Angle = None
    vacuum: Angle = Quantity(value=0, unit="deg")
    advance_in_distributor_degrees: bool = False


class TimingTotalResult(Result):
    """Total with the vacuum line off, and with it."""

    total_without_vacuum: Quantity
    total_with_vacuum: Quantity


@calculation("Total timing")
def timing_total(i: TimingTotal) -> TimingTotalResult:
    """total = initial + mechanical (+ vacuum at part load); the distributor turns at half speed, so
    its degrees count double.

    Raises
    ------
    Refused
        `advance_negative` when weights or vacuum would take advance away.

    Example
    -------
    >>> given = {
    ...     "initial": {"value": 10, "unit": "deg BTDC"},
    ...     "mechanical": {"value": 11.5, "unit": "deg"},
    ...     "vacuum": {"value": 6, "unit": "deg"},
    ...     "advance_in_distributor_degrees": True,
    ... }
    >>> found = timing_total(TimingTotal.model_validate(given))
    >>> round(found.total_without_vacuum.value, 4), found.total_without_vacuum.unit
    (33.0, 'deg BTDC')
    """
    initial, mechanical, vacuum = (
        _advance(i.initial, "initial"),
        i.figure("mechanical"),
        i.figure("vacuum"),
    )
    for name, advance in (("mechanical", mechanical), ("vacuum", vacuum)):
        if advance < 0:
            raise Refused("advance_negative", f"'{name}' must not be below 0", field=name)
    factor = 2 if i.advance_in_distributor_degrees else 1
    total = initial + factor * mechanical
    return TimingTotalResult(
        total_without_vacuum=Quantity(value=total, unit=ADVANCE),
        total_with_vacuum=Quantity(value=total + factor * vacuum, unit=ADVANCE),
        working=(
            (
                f"{initial:g} + {factor} × {mechanical:g} = {total:g}°, with vacuum + {factor} × "
                f"{vacuum:g} = {total + factor * vacuum:g}°"
            ),
        ),
    )


class MechanicalNeeded(Input):
    """Total wanted and timing at idle."""

    total: Advance = None
    initial: Advance = None


class MechanicalNeededResult(Result):
    """What the weights must add, in crank degrees and in the distributor's own."""

    mechanical: Quantity
    in_distributor: Quantity
    distributor_degrees: Quantity


@calculation("Mechanical advance needed")
def mechanical_needed(i: MechanicalNeeded) -> MechanicalNeededResult:
    """total - initial, half of it in the distributor; refuses `advance_negative`.

    Example
    -------
    >>> given = {"total": {"value": 34, "unit": "deg"}, "initial": {"value": 10, "unit": "deg"}}
    >>> found = mechanical_needed(MechanicalNeeded.model_validate(given))
    >>> found.mechanical.value, found.in_distributor.value
    (24.0, 12.0)
    """
    total, initial = _advance(i.total, "total"), _advance(i.initial, "initial")
    if total < initial:
        raise Refused(
            "advance_negative",
            "'total' lies below 'initial': the two are swapped, or one is after top",
            field="total",
        )
    return MechanicalNeededResult(
        mechanical=in_unit(total - initial, "deg"),
        in_distributor=in_unit((total - initial) / 2, "deg"),
        distributor_degrees=in_unit((total - initial) / 2, "deg"),
        working=(
            (
                f"{total:g} − {initial:g} = {total - initial:g}°, {(total - initial) / 2:g}° in "
                "the "
                "distributor"
            ),
        ),
    )


class RimDistance(Input):
    """Diameter of the damper and the angle to mark."""

    diameter: Length = None
    angle: Angle = None


class RimDistanceResult(Result):
    """Along the rim with a tape, and straight across with dividers."""

    arc: Quantity
    chord: Quantity


@calculation("Degrees on the rim")
def rim_distance(i: RimDistance) -> RimDistanceResult:
    """arc = pi D angle / 360; chord = D sin(angle / 2); refuses `not_positive` for a diameter that
    is not above zero.

    Example
    -------
    >>> given = {
    ...     "diameter": {"value": 165, "unit": "mm"},
    ...     "angle": {"value": 34, "unit": "deg"},
    ... }
    >>> found = rim_distance(RimDistance.model_validate(given))
    >>> round(found.arc.value, 4), found.arc.unit
    (48.9565, 'mm')
    """
    d, angle = i.positive("diameter"), i.figure("angle")
    arc, chord = pi * d * angle / 360, d * sin(radians(angle) / 2)
    unit = i.diameter.unit if i.diameter else "mm"
    return RimDistanceResult(
        arc=in_unit(arc, unit),
        chord=in_unit(chord, unit),
        working=(
            f"π × {d:g} × {angle:g} ÷ 360 = {arc:.3f} mm",
            f"{d:g} × sin({angle:g}° ÷ 2) = {chord:.3f} mm",
        ),
    )


class TdcFromStop(Input):
    """Degrees on the wheel at which the piston meets the stop, turned one way and the other."""

    mark_1: Angle = None
    mark_2: Angle = None


class TdcFromStopResult(Result):
    """Where top dead centre is on the wheel, and the arc between the marks."""

    tdc: Quantity
    arc: Quantity


@calculation("Top dead centre from a stop")
def tdc_from_stop(i: TdcFromStop) -> TdcFromStopResult:
    """The middle of the shorter arc between the marks (circular mean).

    Raises
    ------
    Refused
        `arc_ambiguous` when the marks lie nearly opposite (top and bottom look alike) or less than
        10 degrees apart.

    Example
    -------
    >>> given = {
    ...     "mark_1": {"value": 22, "unit": "deg"},
    ...     "mark_2": {"value": 326, "unit": "deg"},
    ... }
    >>> found = tdc_from_stop(TdcFromStop.model_validate(given))
    >>> round(found.tdc.value, 4), found.tdc.unit
    (354.0, 'deg')
    """
    first, second = i.figure("mark_1") % 360, i.figure("mark_2") % 360
    signed = (second - first + 180) % 360 - 180
    if not LEAST_ARC <= abs(signed) <= MOST_ARC:
        words = (
            "the marks lie nearly opposite: top and bottom cannot be told apart"
            if abs(signed) > MOST_ARC
            else "the marks lie less than 10° apart: the stop stands too high"
        )
        raise Refused("arc_ambiguous", words, field="mark_2")
    top = (first + signed / 2) % 360
    return TdcFromStopResult(
        tdc=in_unit(top, "deg"),
        arc=in_unit(abs(signed), "deg"),
        working=(f"{first:g}° and {second:g}° are {abs(signed):g}° apart, the middle is {top:g}°",),
    )
