"""Suspension: ride heights, spacers, sag, torsion-bar splines, the twist left in a bush, fluid
springs. Lengths in mm, angles in deg.

Lever geometry, Hooke's law, and workshop practice (roll or drive a short way, wait, measure again).
"""

import itertools
from math import asin, degrees
from typing import Annotated

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Lengths, Pressure, Ratio, Stiffness, TorsionalRate
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "bush_windup",
    "fluid_spring",
    "ride_height",
    "settled",
    "spring_sag",
    "spring_spacer",
    "torsion_bar_index",
]

MOST_OFF_TARGET = 0.3
MOTION_RATIOS = (0.2, 1.2)
MOST_SPLINES = 200
STEADY = 0.8  # of the step before: what goes on as fast as that has not come to rest


class RideHeight(Input):
    """Wheel centre to arch lip, left and right, and what is allowed; `side_limit` is 10 mm where
    nothing is said.
    """

    left: Length = None
    right: Length = None
    lower_limit: Length = None
    upper_limit: Length = None
    side_limit: Length = Quantity(value=10, unit="mm")


class RideHeightResult(Result):
    """Each side against the middle of the range, and left minus right."""

    left_deviation: Quantity
    right_deviation: Quantity
    side_difference: Quantity
    left_ok: bool
    right_ok: bool
    side_ok: bool


@calculation("Ride height")
def ride_height(i: RideHeight) -> RideHeightResult:
    """Deviation from the middle of the range, and the difference of the sides (10 to 12 mm at most
    by practice).

    Level ground, tyres at pressure, rolled to settle.

    Raises
    ------
    Refused
        `limits_reversed`; `height_implausible` more than 30 % off the target (measured from the
        ground, or a wrong unit).

    Example
    -------
    >>> given = {
    ...     "left": {"value": 352, "unit": "mm"},
    ...     "right": {"value": 364, "unit": "mm"},
    ...     "lower_limit": {"value": 360, "unit": "mm"},
    ...     "upper_limit": {"value": 370, "unit": "mm"},
    ...     "side_limit": {"value": 10, "unit": "mm"},
    ... }
    >>> found = ride_height(RideHeight.model_validate(given))
    >>> round(found.left_deviation.value, 4), found.left_deviation.unit
    (-13.0, 'mm')
    """
    left, right, low, high, most = (
        i.figure(name) for name in ("left", "right", "lower_limit", "upper_limit", "side_limit")
    )
    if low > high:
        raise Refused(
            "limits_reversed", "'lower_limit' must not be above 'upper_limit'", field="lower_limit"
        )
    target = (low + high) / 2
    for name, height in (("left", left), ("right", right)):
        if abs(height - target) > MOST_OFF_TARGET * target:
            raise Refused(
                "height_implausible",
                f"'{name}' lies far from the target of {target:g} mm: measured from the ground, "
                "or a wrong unit?",
                field=name,
            )
    unit = i.left.unit if i.left else "mm"
    return RideHeightResult(
        left_deviation=in_unit(left - target, unit),
        right_deviation=in_unit(right - target, unit),
        side_difference=in_unit(left - right, unit),
        left_ok=round9(low) <= round9(left) <= round9(high),
        right_ok=round9(low) <= round9(right) <= round9(high),
        side_ok=round9(abs(left - right)) <= round9(most),
        working=(
            (
                f"left {left:g} − {target:g} = {left - target:+.1f} mm, right {right:g} − "
                f"{target:g} = {right - target:+.1f} mm"
            ),
            f"left − right = {left - right:+.1f} mm, at most {most:g}",
        ),
    )


class SpringSpacer(Input):
    """Height wanted at the wheel, spring travel per wheel travel, and the rate of the spring."""

    height_change: Length = None
    motion_ratio: Ratio = None
    spring_rate: Stiffness = None


class SpringSpacerResult(Result):
    """Spacer at the spring, and the rate at the wheel."""

    spacer: Quantity
    wheel_rate: Quantity | None = None


@calculation("Spring spacer")
def spring_spacer(i: SpringSpacer) -> SpringSpacerResult:
    """spacer = height change x motion ratio; wheel rate = spring rate x motion ratio squared.

    Raises
    ------
    Refused
        `motion_ratio_out_of_range` outside 0.2 to 1.2 (above it, mostly the inverse ratio).

    Example
    -------
    >>> given = {
    ...     "height_change": {"value": 12, "unit": "mm"},
    ...     "motion_ratio": {"value": 0.62, "unit": "1"},
    ...     "spring_rate": {"value": 60, "unit": "N/mm"},
    ... }
    >>> found = spring_spacer(SpringSpacer.model_validate(given))
    >>> round(found.spacer.value, 4), found.spacer.unit
    (7.44, 'mm')
    """
    change, ratio = i.figure("height_change"), i.figure("motion_ratio")
    if not MOTION_RATIOS[0] <= ratio <= MOTION_RATIOS[1]:
        raise Refused(
            "motion_ratio_out_of_range",
            "'motion_ratio' is spring travel over wheel travel, 0.2 to 1.2: is it upside down?",
            field="motion_ratio",
        )
    lines = [f"{change:g} × {ratio:g} = {change * ratio:.3f} mm"]
    rate: Quantity | None = None
    if i.spring_rate:
        k = i.figure("spring_rate")
        rate = in_unit(k * ratio**2, i.spring_rate.unit)
        lines.append(f"{k:g} × {ratio:g}² = {k * ratio**2:.3f} N/mm at the wheel")
    return SpringSpacerResult(
        spacer=in_unit(change * ratio, i.height_change.unit if i.height_change else "mm"),
        wheel_rate=rate,
        working=tuple(lines),
    )


class SpringSag(Input):
    """Height of the spring under its test load, as specified and as measured, and its rate."""

    specified_height_at_load: Length = None
    measured_height_at_load: Length = None
    spring_rate: Stiffness = None


class SpringSagResult(Result):
    """How much the spring has sat down, which a spacer as thick would restore, and the force it
    lost.
    """

    sag: Quantity
    lost_force: Quantity


@calculation("Spring sag")
def spring_sag(i: SpringSag) -> SpringSagResult:
    """sag = specified - measured height at one load; lost force = rate x sag (Hooke).

    Example
    -------
    >>> given = {
    ...     "specified_height_at_load": {"value": 228, "unit": "mm"},
    ...     "measured_height_at_load": {"value": 217, "unit": "mm"},
    ...     "spring_rate": {"value": 32, "unit": "N/mm"},
    ... }
    >>> found = spring_sag(SpringSag.model_validate(given))
    >>> round(found.sag.value, 4), found.sag.unit
    (11.0, 'mm')
    """
    wanted, found, rate = (
        i.figure("specified_height_at_load"),
        i.figure("measured_height_at_load"),
        i.figure("spring_rate"),
    )
    sag = wanted - found
    return SpringSagResult(
        sag=in_unit(sag, i.specified_height_at_load.unit if i.specified_height_at_load else "mm"),
        lost_force=in_unit(rate * sag, "N"),
        working=(
            f"{wanted:g} − {found:g} = {sag:g} mm",
            f"{rate:g} × {sag:g} = {rate * sag:.1f} N",
        ),
    )


class TorsionBarIndex(Input):
    """Splines at both ends of the bar, and the angle wanted."""

    inner_splines: Annotated[int, Field(ge=2, le=MOST_SPLINES)]
    outer_splines: Annotated[int, Field(ge=2, le=MOST_SPLINES)]
    wanted_angle: Angle = None


class TorsionBarIndexResult(Result):
    """Splines to turn the inner end on and the outer end back (negative: the other way), and the
    angle that gives.
    """

    inner_splines: Quantity
    outer_splines: Quantity
    angle: Quantity


@calculation("Torsion bar, splines to move")
def torsion_bar_index(i: TorsionBarIndex) -> TorsionBarIndexResult:
    """Exact search of n 360 / N1 - m 360 / N2 for the angle nearest to the one wanted; the fewest
    splines among equals.

    Example
    -------
    >>> given = {
    ...     "inner_splines": 24,
    ...     "outer_splines": 25,
    ...     "wanted_angle": {"value": 3, "unit": "deg"},
    ... }
    >>> found = torsion_bar_index(TorsionBarIndex.model_validate(given))
    >>> round(found.inner_splines.value, 4), found.inner_splines.unit
    (5.0, 'splines')
    """
    wanted = i.figure("wanted_angle")
    first, second = 360 / i.inner_splines, 360 / i.outer_splines
    tries = (
        (n, m)
        for n in range(-i.inner_splines, i.inner_splines + 1)
        for m in range(-i.outer_splines, i.outer_splines + 1)
    )
    n, m = min(
        tries,
        key=lambda t: (
            round9(abs(t[0] * first - t[1] * second - wanted)),
            abs(t[0]) + abs(t[1]),
            -t[0],
        ),
    )
    found = n * first - m * second
    return TorsionBarIndexResult(
        inner_splines=Quantity(value=n, unit="splines"),
        outer_splines=Quantity(value=m, unit="splines"),
        angle=in_unit(found, "deg"),
        working=(
            f"{n} × 360° ÷ {i.inner_splines} − {m} × 360° ÷ {i.outer_splines} = {found:.3f}°",
        ),
    )


class BushWindup(Input):
    """Arm length; height of its outer joint above the pivot at ride height and where the bolt is
    tightened; rate of the bush.
    """

    arm_length: Length = None
    z_at_ride_height: Length = None
    z_when_tightened: Length = None
    torsional_rate: TorsionalRate = None


class BushWindupResult(Result):
    """The twist that stays in the rubber at ride height, and the torque of it."""

    windup: Quantity
    torque: Quantity | None = None


@calculation("Bush, twist left in it")
def bush_windup(i: BushWindup) -> BushWindupResult:
    """asin(z ride / R) - asin(z tightened / R), times the rate of the bush; hence tighten at ride
    height.

    Raises
    ------
    Refused
        `height_implausible` when a height is longer than the arm.

    Example
    -------
    >>> given = {
    ...     "arm_length": {"value": 320, "unit": "mm"},
    ...     "z_at_ride_height": {"value": -15, "unit": "mm"},
    ...     "z_when_tightened": {"value": -95, "unit": "mm"},
    ...     "torsional_rate": {"value": 1.1, "unit": "N·m/deg"},
    ... }
    >>> found = bush_windup(BushWindup.model_validate(given))
    >>> round(found.windup.value, 4), found.windup.unit
    (14.5833, 'deg')
    """
    arm, ride, tight = (
        i.figure("arm_length"),
        i.figure("z_at_ride_height"),
        i.figure("z_when_tightened"),
    )
    for name, z in (("z_at_ride_height", ride), ("z_when_tightened", tight)):
        if arm <= 0 or abs(z) > arm:
            raise Refused(
                "height_implausible",
                f"'{name}' must not be more than the length of the arm",
                field=name,
            )
    twist = degrees(asin(ride / arm) - asin(tight / arm))
    torque = in_unit(i.figure("torsional_rate") * twist, "N·m") if i.torsional_rate else None
    return BushWindupResult(
        windup=in_unit(twist, "deg"),
        torque=torque,
        working=(f"asin({ride:g} ÷ {arm:g}) − asin({tight:g} ÷ {arm:g}) = {twist:.2f}°",),
    )


class FluidSpring(Input):
    """Two heights with their pressures, and the height wanted."""

    height_1: Length = None
    pressure_1: Pressure = None
    height_2: Length = None
    pressure_2: Pressure = None
    target_height: Length = None


class FluidSpringResult(Result):
    """Height per pressure (mm per unit of the pressures), and the pressure for the target."""

    slope: Quantity
    pressure: Quantity


@calculation("Fluid spring, pressure for a height")
def fluid_spring(i: FluidSpring) -> FluidSpringResult:
    """h = h1 + s (p - p1) through two calibrations; good only between and close to them, gas
    springs stiffen.

    Raises
    ------
    Refused
        `calibration_bad` when more pressure did not raise it.

    Example
    -------
    >>> given = {
    ...     "height_1": {"value": 338, "unit": "mm"},
    ...     "pressure_1": {"value": 16, "unit": "bar"},
    ...     "height_2": {"value": 361, "unit": "mm"},
    ...     "pressure_2": {"value": 19, "unit": "bar"},
    ...     "target_height": {"value": 355, "unit": "mm"},
    ... }
    >>> found = fluid_spring(FluidSpring.model_validate(given))
    >>> round(found.slope.value, 4), found.slope.unit
    (7.6667, 'mm/bar')
    """
    h1, p1, h2, p2, target = (
        i.figure(name)
        for name in ("height_1", "pressure_1", "height_2", "pressure_2", "target_height")
    )
    if p1 == p2 or (h2 - h1) / (p2 - p1) <= 0:
        raise Refused(
            "calibration_bad",
            "more pressure must give more height: the two calibrations do not show it",
            field="height_2",
        )
    slope, unit = (h2 - h1) / (p2 - p1), i.pressure_1.unit if i.pressure_1 else "kPa"
    pressure = p1 + (target - h1) / slope
    shown = in_unit(pressure, unit)
    per = slope * canonical(Quantity(value=1, unit=unit), "pressure", "pressure_1")
    beyond = (
        ()
        if min(h1, h2) <= target <= max(h1, h2)
        else ("the target lies outside the two calibrations: measure there again",)
    )
    return FluidSpringResult(
        slope=Quantity(value=per, unit=f"mm/{shown.unit}"),
        pressure=shown,
        working=(
            f"slope: {h2 - h1:g} mm for {p2 - p1:g} kPa = {per:.4f} mm/{shown.unit}",
            f"{shown.value:.4f} {shown.unit} for {target:g} mm",
            *beyond,
        ),
    )


class Settled(Input):
    """Heights in the order they were measured, how close they must lie, and for how many readings
    before the last.
    """

    heights: Lengths = None
    tolerance: Length = None
    quiet_steps: Annotated[int, Field(ge=1, le=50)] = 1


class SettledResult(Result):
    """Number of the first reading at which it had settled, 0 for not yet, and whether it has."""

    reading: Quantity
    settled: bool


@calculation("Has it settled?")
def settled(i: Settled) -> SettledResult:
    """The first reading which, with the `quiet_steps` before it, lies within the tolerance, and
    after which none leaves it again; a steady creep never settles.

    Example
    -------
    >>> given = {
    ...     "heights": {"value": [361, 357.5, 356.2, 355.9], "unit": "mm"},
    ...     "tolerance": {"value": 1, "unit": "mm"},
    ...     "quiet_steps": 1,
    ... }
    >>> found = settled(Settled.model_validate(given))
    >>> round(found.reading.value, 4), found.reading.unit
    (4.0, 'number')
    """
    heights, within, quiet = i.figures("heights"), i.figure("tolerance"), i.quiet_steps
    found = next(
        (
            k + 1
            for k in range(quiet, len(heights))
            if _rests(heights[k - quiet :], within) and not _creeps(heights[: k + 1], quiet)
        ),
        0,
    )
    words = (
        f"settled at reading {found}" if found else "not settled yet: roll it, wait, measure again"
    )
    return SettledResult(
        reading=Quantity(value=found, unit="number"), settled=bool(found), working=(words,)
    )


def _rests(heights: list[float], within: float) -> bool:
    return round9(max(heights) - min(heights)) <= round9(within)


def _creeps(heights: list[float], quiet: int) -> bool:
    """Whether the last `quiet` steps go on as fast as the one before them, all one way."""
    steps = [b - a for a, b in itertools.pairwise(heights)]
    last, before = steps[-quiet:], steps[-quiet - 1 : -quiet]
    if not before or any(round9(step * before[0]) <= 0 for step in last):
        return False
    return abs(sum(last)) / quiet >= STEADY * abs(before[0])
