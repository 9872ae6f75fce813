"""Valve gear: lift, another rocker ratio, room between piston and valve, push-rod length. Lengths
in mm, angles in deg.

Lever geometry; limits are rules of thumb (2.0 mm intake, 2.5 mm exhaust), the maker's figures win.
"""

from math import cos, radians

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Ratio
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["lift_after_ratio_change", "piston_to_valve", "push_rod_length", "valve_lift"]

RATIOS = (1.0, 2.5)
MOST_CHANGE = 5.0
NOTHING = Quantity(value=0, unit="mm")


def _ratio(i: Input, field: str) -> float:
    found = i.figure(field)
    if not RATIOS[0] <= found <= RATIOS[1]:
        raise Refused(
            "ratio_implausible",
            f"'{field}' is valve lift over cam lift, {RATIOS[0]} to {RATIOS[1]}: is it upside "
            "down?",
            field=field,
        )
    return found


class ValveLift(Input):
    """Lift of the cam, rocker ratio, and lash (0 for hydraulic)."""

    cam_lift: Length = None
    ratio: Ratio = None
    lash: Length = NOTHING


class ValveLiftResult(Result):
    """Lift at the valve."""

    lift: Quantity


@calculation("Valve lift")
def valve_lift(i: ValveLift) -> ValveLiftResult:
    """cam lift x ratio - lash; refuses `ratio_implausible` outside 1.0 to 2.5.

    Example
    -------
    >>> given = {
    ...     "cam_lift": {"value": 7.1, "unit": "mm"},
    ...     "ratio": {"value": 1.5, "unit": "1"},
    ...     "lash": {"value": 0.3, "unit": "mm"},
    ... }
    >>> found = valve_lift(ValveLift.model_validate(given))
    >>> round(found.lift.value, 4), found.lift.unit
    (10.35, 'mm')
    """
    cam, ratio, lash = i.figure("cam_lift"), _ratio(i, "ratio"), i.figure("lash")
    lift = cam * ratio - lash
    return ValveLiftResult(
        lift=in_unit(lift, i.cam_lift.unit if i.cam_lift else "mm"),
        working=(f"{cam:g} × {ratio:g} − {lash:g} = {lift:.3f} mm",),
    )


class LiftAfterRatioChange(Input):
    """Net lift with the old rockers, both ratios, and lash."""

    net_lift: Length = None
    old_ratio: Ratio = None
    new_ratio: Ratio = None
    lash: Length = NOTHING


class LiftAfterRatioChangeResult(Result):
    """Net lift with the new rockers, and what they add."""

    new_lift: Quantity
    change: Quantity


@calculation("Lift with other rockers")
def lift_after_ratio_change(i: LiftAfterRatioChange) -> LiftAfterRatioChangeResult:
    """cam lift = (net + lash) / old ratio; new = cam lift x new ratio - lash; refuses
    `ratio_implausible`.

    Example
    -------
    >>> given = {
    ...     "net_lift": {"value": 10.35, "unit": "mm"},
    ...     "old_ratio": {"value": 1.5, "unit": "1"},
    ...     "new_ratio": {"value": 1.6, "unit": "1"},
    ...     "lash": {"value": 0.3, "unit": "mm"},
    ... }
    >>> found = lift_after_ratio_change(LiftAfterRatioChange.model_validate(given))
    >>> round(found.new_lift.value, 4), found.new_lift.unit
    (11.06, 'mm')
    """
    net, old, new, lash = (
        i.figure("net_lift"),
        _ratio(i, "old_ratio"),
        _ratio(i, "new_ratio"),
        i.figure("lash"),
    )
    cam = (net + lash) / old
    lift, unit = cam * new - lash, i.net_lift.unit if i.net_lift else "mm"
    return LiftAfterRatioChangeResult(
        new_lift=in_unit(lift, unit),
        change=in_unit(lift - net, unit),
        working=(
            f"cam: ({net:g} + {lash:g}) ÷ {old:g} = {cam:.4f} mm",
            f"{cam:.4f} × {new:g} − {lash:g} = {lift:.4f} mm",
        ),
    )


class PistonToValve(Input):
    """Thinnest clay along the cylinder, what the valve moves more at that crank angle, its
    inclination, and the least wanted.
    """

    clay_thickness: Length = None
    extra_lift_at_that_angle: Length = NOTHING
    valve_inclination: Angle = Quantity(value=0, unit="deg")
    limit: Length = None


class PistonToValveResult(Result):
    """Room left, and whether it is enough."""

    clearance: Quantity
    ok: bool


@calculation("Piston to valve")
def piston_to_valve(i: PistonToValve) -> PistonToValveResult:
    """clay - extra valve movement x cos(inclination), against 2.0 mm intake or 2.5 mm exhaust
    (rules of thumb).

    With light checking springs the indicator reads along the valve: compare that reading with the
    limit, without this.

    Raises
    ------
    Refused
        `negative_clearance` when valve and piston would meet; `angle_implausible` for an
        inclination of 90 degrees or more.

    Example
    -------
    >>> given = {
    ...     "clay_thickness": {"value": 2.6, "unit": "mm"},
    ...     "extra_lift_at_that_angle": {"value": 0.22, "unit": "mm"},
    ...     "valve_inclination": {"value": 12, "unit": "deg"},
    ...     "limit": {"value": 2, "unit": "mm"},
    ... }
    >>> found = piston_to_valve(PistonToValve.model_validate(given))
    >>> round(found.clearance.value, 4), found.clearance.unit
    (2.3848, 'mm')
    """
    clay, extra, angle, limit = (
        i.figure(name)
        for name in ("clay_thickness", "extra_lift_at_that_angle", "valve_inclination", "limit")
    )
    if not 0 <= angle < 90:
        raise Refused(
            "angle_implausible",
            "'valve_inclination' must lie between 0 and 90°",
            field="valve_inclination",
        )
    room = clay - extra * cos(radians(angle))
    if round9(room) < 0:
        raise Refused(
            "negative_clearance",
            f"the valve would meet the piston by {-room:.2f} mm: do not turn it",
            field="clay_thickness",
        )
    return PistonToValveResult(
        clearance=in_unit(room, i.clay_thickness.unit if i.clay_thickness else "mm"),
        ok=round9(room) >= round9(limit),
        working=(f"{clay:g} − {extra:g} × cos {angle:g}° = {room:.3f} mm, at least {limit:g}",),
    )


class PushRodLength(Input):
    """Length at zero lash, and all that has changed since: milled, gasket, base circle, valve tips,
    preload.
    """

    zero_lash_length: Length = None
    milled: Length = NOTHING
    gasket_thinner_by: Length = NOTHING
    base_circle_radius_reduction: Length = NOTHING
    valve_tip_rise: Length = NOTHING
    rocker_ratio: Ratio = None
    lifter_preload: Length = NOTHING
    angle_to_deck_normal: Angle = Quantity(value=0, unit="deg")


class PushRodLengthResult(Result):
    """The length to order."""

    new_length: Quantity


@calculation("Push-rod length")
def push_rod_length(i: PushRodLength) -> PushRodLengthResult:
    """L - (milled + gasket thinner) cos(angle) + base circle - valve-tip rise / ratio + preload,
    for a fixed rocker pivot.

    Raises
    ------
    Refused
        `change_implausible` when one of the changes is more than 5 mm (thousandths of an inch?);
        `ratio_implausible`.

    Example
    -------
    >>> given = {
    ...     "zero_lash_length": {"value": 198, "unit": "mm"},
    ...     "milled": {"value": 0.5, "unit": "mm"},
    ...     "gasket_thinner_by": {"value": 0, "unit": "mm"},
    ...     "base_circle_radius_reduction": {"value": 0.8, "unit": "mm"},
    ...     "valve_tip_rise": {"value": 0, "unit": "mm"},
    ...     "rocker_ratio": {"value": 1.5, "unit": "1"},
    ...     "lifter_preload": {"value": 0, "unit": "mm"},
    ...     "angle_to_deck_normal": {"value": 8, "unit": "deg"},
    ... }
    >>> found = push_rod_length(PushRodLength.model_validate(given))
    >>> round(found.new_length.value, 4), found.new_length.unit
    (198.3049, 'mm')
    """
    length, ratio, angle = (
        i.figure("zero_lash_length"),
        _ratio(i, "rocker_ratio"),
        i.figure("angle_to_deck_normal"),
    )
    parts = {
        name: i.figure(name)
        for name in (
            "milled",
            "gasket_thinner_by",
            "base_circle_radius_reduction",
            "valve_tip_rise",
            "lifter_preload",
        )
    }
    for name, part in parts.items():
        if abs(part) > MOST_CHANGE:
            raise Refused(
                "change_implausible",
                f"'{name}' is more than {MOST_CHANGE:g} mm: check the unit",
                field=name,
            )
    lower = (parts["milled"] + parts["gasket_thinner_by"]) * cos(radians(angle))
    new = (
        length
        - lower
        + parts["base_circle_radius_reduction"]
        - parts["valve_tip_rise"] / ratio
        + parts["lifter_preload"]
    )
    words = (
        f"{length:g} − {lower:.3f} + {parts['base_circle_radius_reduction']:g} − "
        f"{parts['valve_tip_rise']:g} ÷ {ratio:g} + {parts['lifter_preload']:g} = {new:.3f} mm"
    )
    return PushRodLengthResult(
        new_length=in_unit(new, i.zero_lash_length.unit if i.zero_lash_length else "mm"),
        working=(words,),
    )
