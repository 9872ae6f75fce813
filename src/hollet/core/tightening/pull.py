"""One pull of a wrench with an angle sensor: thousands of samples, read as a hand would feel it.

The samples come in time, not in angle: the wrench is set back, stands still, breaks the bolt loose.
Only samples that turned the bolt on count; they are gathered by whole degrees from where the joint
is snug, and their climb is read by the rule of `torque_angle_trace`.
"""

import math
from collections.abc import Sequence
from itertools import accumulate, pairwise
from statistics import median
from typing import Literal, NamedTuple

from hollet.core.tightening.trace import BOTTOMS, WINDOW, YIELDS, climbs, read_climbs

__all__ = [
    "climbs_of",
    "BREAKS_LOOSE",
    "EARLY_TURN",
    "OUT",
    "UNSURE",
    "Pull",
    "PullVerdict",
    "read_pull",
]

PullVerdict = Literal[
    "ok", "yield", "torque_falling", "bottoming", "stick_slip", "early", "gaps", "short"
]
OUT: frozenset[str] = frozenset({"yield", "torque_falling", "bottoming"})
"""What the bolt does not come back from."""
UNSURE: frozenset[str] = frozenset({"stick_slip", "early", "gaps"})
"""What may be friction or a thread, or was not seen whole: nobody can tell what clamps."""
BREAKS_LOOSE = 3
"""Degrees after the snug point that are not judged: the bolt breaks loose there (rule of thumb)."""
RISES = 0.003
"""Share of the torque asked, by degree: a climb, and not the drag of a nut (rule of thumb)."""
LEAST = WINDOW + 3
FELT = 0.1
"""Share of the torque asked from which a turn counts as against resistance."""
EARLY_TURN = 90.0
"""Degrees turned against resistance before the joint is snug: more is a thread that does not run
free (rule of thumb; a nut that locks by itself does so too).
"""
JAG, JAGS = 0.06, 3
"""A drop by this share of the torque, won back, and so many of them: it slips and grips."""


class Pull(NamedTuple):
    """What a pull was: its verdict, where that begins (degrees from the snug point), the climb
    there and the one it had (N·m by degree), how far it turned (degrees), the highest torque; from
    which torque on it was snug, where that was on the wrench's own scale; from which degree on it
    climbs, the torque at each whole degree, and the climbs.
    """

    verdict: PullVerdict
    at: float | None
    climb: float | None
    before: float | None
    turned: float
    peak: float
    snug: float
    snug_at: float | None
    rises: int
    curve: tuple[float, ...]
    slopes: tuple[float, ...]


def read_pull(angle: Sequence[float], torque: Sequence[float], snug: float, asked: float) -> Pull:
    """Read a pull from its samples in the order of time.

    Parameters
    ----------
    angle, torque : sequences of the same length
        Degrees on the wrench's own scale, and N·m.
    snug : float
        N·m from which the joint is snug: what came before is not judged.
    asked : float
        N·m of the stage, or of the one before an angle: what counts as resistance.
    """
    peak = max(torque, default=0.0)
    on = _turned_on(angle, torque)
    begin = next((k for k, (_, t) in enumerate(on) if t >= snug), None)
    if begin is None:
        return Pull("short", None, None, None, 0.0, peak, snug, None, 0, (), ())
    snug_at = on[begin][0]
    curve = _by_degree(on[begin:], snug_at)
    turned = on[-1][0] - snug_at
    slopes, rises = climbs_of(curve, asked)
    verdict, at, climb, before = _judged(slopes, rises)
    if _jags(curve, asked) >= JAGS:
        verdict, at, climb, before = "stick_slip", None, None, None
    elif verdict in ("ok", "short") and _resisted(on[:begin], asked) + rises > EARLY_TURN:
        verdict = "early"
    found = (verdict, at, climb, before, turned, peak, snug, snug_at, rises)
    return Pull(*found, tuple(curve), tuple(slopes))


def _turned_on(angle: Sequence[float], torque: Sequence[float]) -> list[tuple[float, float]]:
    """The samples that turned it further than any before."""
    most = accumulate(angle, max, initial=-math.inf)
    return [(a, t) for a, t, before in zip(angle, torque, most, strict=False) if a > before]


def _by_degree(samples: Sequence[tuple[float, float]], zero: float) -> list[float]:
    """The middle torque in each whole degree from `zero` on, the last one only when it is full; a
    degree that was jumped over lies on the line between its neighbours. The middle one: a wrench
    that is set back winds up again through the same angle.
    """
    parts: dict[int, list[float]] = {}
    for a, t in samples:
        parts.setdefault(int(a - zero), []).append(t)
    full = int(samples[-1][0] - zero)
    middle = {k: median(part) for k, part in parts.items() if k < full or not k}
    found, known = [], sorted(middle)
    for left, right in zip(known, [*known[1:], known[-1] + 1], strict=True):
        low, high = middle[left], middle.get(right, middle[left])
        found += [low + (high - low) * j / (right - left) for j in range(right - left)]
    return found


def climbs_of(curve: Sequence[float], asked: float) -> tuple[list[float], int]:
    """The climb at each degree of a pull (N·m by degree), and from which one on it is judged."""
    slopes = climbs(curve, 1.0)
    return slopes, _rises(slopes, asked)


def _rises(slopes: Sequence[float], asked: float) -> int:
    """From which degree on it climbs, after it has broken loose: a nut that drags is not tight."""
    least = RISES * asked
    steep = (
        k for k in range(BREAKS_LOOSE, len(slopes)) if min(slopes[k : k + 3], default=0) >= least
    )
    return next(steep, len(slopes))


def _judged(
    slopes: Sequence[float], rises: int
) -> tuple[PullVerdict, float | None, float | None, float | None]:
    """The rule of the trace, from where it climbs."""
    judged = slopes[rises:]
    if len(judged) < LEAST - WINDOW + 1:
        return "short", None, None, None
    verdict, at, before = read_climbs(judged, YIELDS, BOTTOMS)
    if at is None:
        return "ok", None, None, None
    centre = float(at + rises + WINDOW // 2)
    return verdict, centre, judged[at], before  # type: ignore[return-value]


def _jags(torques: Sequence[float], asked: float) -> int:
    """How often the torque dropped and was won back; noise at little torque is no drop."""
    top, low, count = 0.0, math.inf, 0
    for t in torques:
        if t >= top:
            count += low < top - JAG * max(top, asked)
            top, low = t, math.inf
        else:
            low = min(low, t)
    return count


def _resisted(samples: Sequence[tuple[float, float]], asked: float) -> float:
    """Degrees turned against resistance, in samples that turned it on."""
    return math.fsum(b - a for (a, _), (b, t) in pairwise(samples) if t >= FELT * asked)
