"""A pull as it is drawn: the way it goes, the climb it has, and where its sisters went."""

from collections.abc import Sequence
from itertools import accumulate
from statistics import median

from hollet.core.entries import BookState, Fastener
from hollet.core.entries.sent import Trace
from hollet.core.procedure.joints import READ_OFF, Joint
from hollet.core.quantities.quantity import Quantity, decimal_text
from hollet.core.steps.bolt import is_out
from hollet.core.steps.tighten import JointFacts
from hollet.core.steps.wrenches import snug_of, stage_ask
from hollet.core.tightening.pull import BREAKS_LOOSE, OUT, UNSURE, Pull, climbs_of
from hollet.core.tightening.trace import BOTTOMS, WINDOW, YIELDS
from hollet.core.view import View

__all__ = ["PullView", "Sister", "TraceBench", "pull_view", "trace_bench"]

MOST_POINTS = 600
FEWEST_SISTERS = 3
WIDER, AT_LEAST = 1.5, 0.05
"""The slot: the spread of the sisters so much wider, and never less than this share of them."""
LEFT_OVER = 1.2
RUN_DOWN_DEG = 90.0
"""How much is drawn of a stage without an angle, from its snug point on."""
Point = tuple[float, float]


class Sister(View):
    """A bolt of the joint at this stage: the climb it had, or that it waits."""

    bolt: int
    words: str
    out: bool
    done: bool


class TraceBench(View):
    """What a pull is held against: its scales (degrees, N·m), the slot of its sisters, the angle
    asked, and the pull that was sent last.
    """

    tool: str
    bolt: int
    stage: int
    turns: bool
    asked: float
    right: float
    low: float
    top: float
    slot: tuple[tuple[Point, ...], tuple[Point, ...]] | None
    slot_words: str
    yields: float
    bottoms: float
    sisters: tuple[Sister, ...]
    last: "PullView | None"
    last_bolt: int | None
    last_entry: str | None
    last_event: str | None


class PullView(View):
    """A pull: points of degrees from its snug point and N·m, and of degrees and the share of the
    climb; what it shows, with where that begins.
    """

    points: tuple[Point, ...]
    shares: tuple[Point, ...]
    turned: float
    torque: float
    verdict: str
    out: bool
    unsure: bool
    words: str
    evidence: str
    at: Point | None
    had: tuple[Point, Point] | None
    has: tuple[Point, Point] | None


def trace_bench(state: BookState, joint: Joint, facts: JointFacts, tool: str) -> TraceBench | None:
    """What the next pull of a joint is held against; None where no stage is next."""
    stage, bolt = facts.next_stage, facts.next_bolt
    last = _last(state, joint)
    if stage is None or bolt is None:
        stage = len(joint.stage)
        bolt = last[0] if last is not None else 1
    kind, asked, _ = stage_ask(joint, stage)
    if asked is None or kind in READ_OFF:
        return None
    acts = {e.body.bolt: e.body for e in state.each(Fastener, "joint", joint.id)}
    here = {n: b for n, b in acts.items() if b.stage == stage and b.trace is not None}
    good = [b.trace for b in here.values() if b.trace is not None and not is_out(joint, b)]
    snug, held = snug_of(joint, stage)
    turns = kind == "angle"
    right = asked * LEFT_OVER if turns else RUN_DOWN_DEG
    peaks = [float(str(t.peak.value)) for t in good]
    usual = held * 2 if turns else asked
    top = max(peaks) if len(peaks) >= FEWEST_SISTERS else usual
    return TraceBench(
        tool=tool,
        bolt=bolt,
        stage=stage,
        turns=turns,
        asked=asked,
        right=right,
        low=snug * 0.75,
        top=top * 1.15,
        slot=_slot(good),
        slot_words=_slot_words(here, len(good)),
        yields=YIELDS,
        bottoms=BOTTOMS,
        sisters=tuple(_sister(joint, n, here.get(n)) for n in _near(bolt, len(facts.bolts))),
        last=_kept(joint, stage, last[1]) if last is not None else None,
        last_bolt=last[0] if last is not None else None,
        last_entry=last[2] if last is not None else None,
        last_event=last[1].sent.event if last is not None and last[1].sent else None,
    )


def _last(state: BookState, joint: Joint) -> tuple[int, Fastener, str] | None:
    """The newest act on the joint, where a wrench sent it with a trace."""
    newest = state.newest(Fastener, "joint", joint.id)
    if newest is None or newest.body.trace is None:
        return None
    return newest.body.bolt, newest.body, newest.id


def _near(bolt: int, count: int) -> range:
    """Ten bolts about the one in hand."""
    first = max(1, min(bolt - 6, count - 9))
    return range(first, min(count, first + 9) + 1)


def _curve(trace: Trace) -> list[Point]:
    every = float(str(trace.every.value))
    return [(k * every, float(str(t.value))) for k, t in enumerate(trace.curve)]


def _slot(traces: Sequence[Trace]) -> tuple[tuple[Point, ...], tuple[Point, ...]] | None:
    """Between which torques the sisters went, as far as three of them go."""
    if len(traces) < FEWEST_SISTERS:
        return None
    curves = sorted((_curve(t) for t in traces), key=len, reverse=True)
    low: list[Point] = []
    high: list[Point] = []
    for k, (angle, _) in enumerate(curves[FEWEST_SISTERS - 1]):
        there = [curve[k][1] for curve in curves if k < len(curve)]
        middle = (min(there) + max(there)) / 2
        wide = max((max(there) - min(there)) / 2 * WIDER, middle * AT_LEAST)
        low.append((angle, middle - wide))
        high.append((angle, middle + wide))
    return tuple(low), tuple(high)


def _slot_words(here: dict[int, Fastener], good: int) -> str:
    if good < FEWEST_SISTERS:
        return "no sisters yet: judged by its own climb alone"
    return f"clear: where {good} bolts of this stage went"


def _sister(joint: Joint, number: int, body: Fastener | None) -> Sister:
    if body is None or body.trace is None:
        return Sister(bolt=number, words="waits", out=False, done=False)
    out = is_out(joint, body)
    climb = body.trace.climb if out else None
    words = decimal_text(float(str(climb.value)), 2) if climb is not None else _mean(body.trace)
    return Sister(bolt=number, words=words, out=out, done=True)


def _mean(trace: Trace) -> str:
    """The climb of a pull over all that was judged, N·m by degree."""
    curve = [p for p in _curve(trace) if p[0] >= BREAKS_LOOSE]
    if len(curve) < 2:
        return "–"
    (a, low), (b, high) = curve[0], curve[-1]
    return decimal_text((high - low) / (b - a), 2)


def pull_view(joint: Joint, stage: int, pull: Pull, raw: tuple[Sequence[float], ...]) -> PullView:
    """A pull that runs, or that was sent just now, from all its samples."""
    zero = pull.snug_at
    angle, torque = raw
    if zero is None:
        now = torque[-1] if torque else 0.0
        return _bare(turned=0.0, torque=now)
    points = _thinned([(a - zero, t) for a, t in zip(angle, torque, strict=True) if a >= zero])
    evidence, at, had, has = _evidence(pull)
    went = pull.verdict if not (joint.to_yield and pull.verdict == "yield") else "ok"
    return PullView(
        points=points,
        shares=_shares(pull),
        turned=pull.turned,
        torque=torque[-1] if torque else 0.0,
        verdict=went,
        out=went in OUT,
        unsure=went in UNSURE,
        words=_told(went, pull.at),
        evidence=evidence,
        at=at,
        had=had,
        has=has,
    )


def _bare(turned: float, torque: float) -> PullView:
    return PullView(
        points=(),
        shares=(),
        turned=turned,
        torque=torque,
        verdict="short",
        out=False,
        unsure=False,
        words="",
        evidence="",
        at=None,
        had=None,
        has=None,
    )


def _kept(joint: Joint, stage: int, body: Fastener) -> PullView:
    """The last pull as its line keeps it."""
    trace = body.trace
    assert trace is not None, "it was chosen because it has one"
    curve = [torque for _, torque in _curve(trace)]
    slopes, rises = climbs_of(curve, snug_of(joint, stage)[1])
    pull = Pull(
        verdict=trace.verdict,
        at=_figure(trace.at),
        climb=_figure(trace.climb),
        before=_figure(trace.before),
        turned=_figure(trace.turned) or 0.0,
        peak=_figure(trace.peak) or 0.0,
        snug=_figure(trace.snug) or 0.0,
        snug_at=0.0,
        rises=rises,
        curve=tuple(curve),
        slopes=tuple(slopes),
    )
    return pull_view(joint, stage, pull, ([float(k) for k in range(len(curve))], curve))


def _figure(quantity: Quantity | None) -> float | None:
    return None if quantity is None else float(str(quantity.value))


def _told(verdict: str, at: float | None) -> str:
    words = {
        "yield": "yields",
        "torque_falling": "its torque falls",
        "bottoming": "climbs steeply",
        "stick_slip": "slips and grips",
        "early": "turns hard before it is snug",
        "gaps": "not seen whole",
    }.get(verdict, "")
    return f"{words} at {at:.0f}°" if words and at is not None else words


def _evidence(
    pull: Pull,
) -> tuple[str, Point | None, tuple[Point, Point] | None, tuple[Point, Point] | None]:
    """The words, the place, and the two lines: the climb it had, and the climb it has."""
    if pull.at is None or pull.climb is None or pull.before is None:
        return "", None, None, None
    torque = pull.curve[min(int(pull.at), len(pull.curve) - 1)]
    on = max(12.0, pull.turned - pull.at)
    at = (pull.at, torque)
    words = (
        f"torque climbs {decimal_text(pull.climb, 2)} N·m a degree, "
        f"it climbed {decimal_text(pull.before, 2)}"
    )
    had = (at, (pull.at + on, torque + on * pull.before))
    has = (at, (pull.at + on, torque + on * pull.climb))
    return words, at, had, has


def _shares(pull: Pull) -> tuple[Point, ...]:
    """Each climb as a share of the steepest before it; of the middle one where it is steeper."""
    judged = list(pull.slopes[pull.rises :])
    most = list(accumulate(judged, max))
    found = []
    for k, slope in enumerate(judged[1:], 1):
        base = most[k - 1] if slope <= most[k - 1] else median(judged[:k])
        if base > 0:
            found.append((float(k + pull.rises + WINDOW // 2), round(slope / base, 3)))
    return _thinned(found)


def _thinned(points: Sequence[Point]) -> tuple[Point, ...]:
    """At most so many points, the lowest and the highest of each stretch kept: a jag stays."""
    if len(points) <= MOST_POINTS:
        return tuple((round(x, 2), round(y, 3)) for x, y in points)
    each = len(points) / (MOST_POINTS / 2)
    found: list[Point] = []
    for k in range(MOST_POINTS // 2):
        part = points[int(k * each) : int((k + 1) * each)]
        found += sorted({min(part, key=lambda p: p[1]), max(part, key=lambda p: p[1])})
    return tuple((round(x, 2), round(y, 3)) for x, y in found)
