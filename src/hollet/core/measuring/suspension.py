"""Suspension: ride heights, the twist left in a bush, and whether it has settled. Lengths in mm,
angles in deg.

Lever geometry, Hooke's law, and workshop practice (roll or drive a short way, wait, measure again).
"""

import itertools
from math import asin, degrees
from typing import Annotated

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths, TorsionalRate
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "bush_windup",
    "ride_height",
    "settled",
]

MOST_OFF_TARGET = 0.3
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
