"""A torque over its angle, read: healthy, yielding, stripping, or running up against something."""

import math
from bisect import insort
from collections.abc import Sequence
from itertools import pairwise

from hollet.core.errors import Refused
from hollet.core.fields import Angles, Ratio, Torque, Torques
from hollet.core.quantities.quantity import Quantity
from hollet.core.registry import Input, Result, calculation

__all__ = ["Climb", "climbs", "read_climbs", "torque_angle_trace"]

WINDOW = 5
FIRST_JUDGED = 3
"""Slopes before it: a largest and a median of fewer says nothing."""
YIELDS, BOTTOMS = 0.5, 1.8
EVEN = 0.01
"""Steps of the angle differ by no more than this share of their mean."""


class Trace(Input):
    """Angles, equally spaced and rising, the torque at each, and the torque from which the joint is
    snug: what comes before is not looked at. What follows the end of the pull is cut off first.
    `yields` and `bottoms` are the shares of the climb at which a bolt is said to do so.
    """

    angle: Angles = None
    torque: Torques = None
    snug_torque: Torque = None
    yields: Ratio = Quantity(value=YIELDS, unit="1")
    bottoms: Ratio = Quantity(value=BOTTOMS, unit="1")


class Climb(Result):
    """`ok`, `yield`, `torque_falling` (a stripping thread) or `bottoming` (or a crossed thread);
    the angle at which it begins, the climb there and the climb it had, in N·m by degree.
    """

    verdict: str
    angle: Quantity | None = None
    climb: Quantity | None = None
    climb_before: Quantity | None = None


@calculation("Torque and angle, read")
def torque_angle_trace(i: Trace) -> Climb:
    """Slope by least squares in windows of 5 points, from snug on. From the fourth on: at most half
    the largest so far, it yields, or strips where a slope from there on is negative; at least 1.8
    times the median so far, it bottoms; else it is healthy.

    Raises
    ------
    Refused
        `count_mismatch`, `angles_uneven`, `trace_too_short` (fewer than 8 points from snug on),
        `not_a_finite_number`, `not_positive`.

    Example
    -------
    >>> steps = list(range(0, 65, 5))
    >>> pull = [20 + 0.6 * a if a <= 30 else 38 + 0.1 * (a - 30) for a in steps]
    >>> found = torque_angle_trace(Trace(angle={"value": steps, "unit": "deg"},
    ...     torque={"value": pull, "unit": "N·m"}, snug_torque={"value": 20, "unit": "N·m"}))
    >>> found.verdict, found.angle.value
    ('yield', 35.0)
    """
    angles, torques = i.figures("angle"), i.figures("torque")
    step = _even(angles, torques)
    snug = i.positive("snug_torque")
    begin = next((k for k, torque in enumerate(torques) if torque >= snug), len(torques))
    if len(torques) - begin < WINDOW + FIRST_JUDGED:
        words = (
            f"{WINDOW + FIRST_JUDGED} points from the snug torque on, or more: this trace is too "
            "short to be read"
        )
        raise Refused("trace_too_short", words, field="torque")
    slopes = climbs(torques[begin:], step)
    verdict, at, before = read_climbs(slopes, i.positive("yields"), i.positive("bottoms"))
    if at is None:
        return Climb(verdict=verdict, working=(f"{len(slopes)} slopes, none falls or jumps",))
    centre = angles[begin + at + WINDOW // 2]
    share = slopes[at] / before if before else math.inf
    return Climb(
        verdict=verdict,
        angle=Quantity(value=centre, unit="deg"),
        climb=Quantity(value=slopes[at], unit="1"),
        climb_before=Quantity(value=before, unit="1"),
        working=(
            f"at {centre:g}° it climbs {slopes[at]:.3g} N·m by degree, {share:.2f} of the "
            f"{before:.3g} it had",
        ),
    )


def _even(angles: Sequence[float], torques: Sequence[float]) -> float:
    """The step of the angle, in degrees; refused where it is none, or not the same throughout."""
    if len(angles) != len(torques):
        words = f"{len(angles)} angles and {len(torques)} torques: one torque for each angle"
        raise Refused("count_mismatch", words, field="torque")
    if len(angles) < 2:
        raise Refused("trace_too_short", "a trace has many points", field="angle")
    step = (angles[-1] - angles[0]) / (len(angles) - 1)
    steps = (b - a for a, b in pairwise(angles))
    if step <= 0 or any(abs(s - step) > EVEN * step for s in steps):
        words = "angles rise by the same step from point to point"
        raise Refused("angles_uneven", words, field="angle")
    return step


def climbs(torques: Sequence[float], step: float) -> list[float]:
    """Slope of the least squares line through each 5 points in a row, N·m by degree."""
    return [
        (2 * (torques[k + 4] - torques[k]) + torques[k + 3] - torques[k + 1]) / (10 * step)
        for k in range(len(torques) - WINDOW + 1)
    ]


def read_climbs(
    slopes: Sequence[float], yields: float = YIELDS, bottoms: float = BOTTOMS
) -> tuple[str, int | None, float]:
    """The verdict, the slope at which it begins, and the slope that it is held against."""
    earlier = sorted(slopes[:FIRST_JUDGED])
    for k, slope in enumerate(slopes[FIRST_JUDGED:], FIRST_JUDGED):
        most, middle = earlier[-1], _median(earlier)
        if slope <= yields * most:
            falls = any(later < 0 for later in slopes[k:])
            return ("torque_falling" if falls else "yield"), k, most
        if slope >= bottoms * middle:
            return "bottoming", k, middle
        insort(earlier, slope)
    return "ok", None, 0.0


def _median(ranked: Sequence[float]) -> float:
    half = len(ranked) // 2
    return ranked[half] if len(ranked) % 2 else (ranked[half - 1] + ranked[half]) / 2
