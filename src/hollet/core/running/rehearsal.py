"""The first start rehearsed: a practice engine with a fault in it, at true speed, and how late the
key was turned back. Nothing of it is a fact about any engine.

A deal follows from its seed alone, so that the same one can be played again and judged anywhere.
"""

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.view import View

__all__ = ["GRACE_S", "Deal", "HandAct", "Played", "Scene", "Tell", "deal", "judge_hand"]

GRACE_S = 1.0
"""How long after it was due a key still counts as in time: an eye and a hand; assumed."""
BEAT_S = 0.1
HEALTHY_EACH = 8
"""One deal in so many has nothing wrong, so that the key is not turned back by habit."""
MODULUS, FACTOR, ADDEND = 2**31, 1103515245, 12345
Sense = Literal["oil", "coolant", "rpm", "lamp", "leak", "ear", "nose"]
COMES_BY_ITSELF: tuple[Sense, ...] = ("ear", "nose")
"""What reaches somebody who looks nowhere."""
Point = tuple[Annotated[float, Field(ge=0)], float]


class Tell(BaseModel):
    """Something that says that it is wrong: when (s), by which sense, in words."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    at_s: Annotated[float, Field(ge=0)]
    sense: Sense
    words: str


class Scene(BaseModel):
    """A first start: its courses as points (s; r/min, bar, °C, lamp 1 or 0), when the key is due
    back (none: nothing is wrong), which gauge says so; a fault that comes later is shifted by up to
    `shifts_s`, a gauge is silent from `silent_s` on. `turns`: what a second costs is counted in
    turns.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: str
    name: str
    intro: str
    limit: str
    right: Sense
    due_s: float | None = None
    ends_s: Annotated[float, Field(gt=0, le=60)]
    shifts_s: Annotated[float, Field(ge=0, le=10)] = 0.0
    silent_s: float | None = None
    turns: bool = False
    rpm: tuple[Point, ...]
    oil: tuple[Point, ...]
    coolant: tuple[Point, ...]
    lamp: tuple[Point, ...]
    advice: str
    cost: str
    tell: tuple[Tell, ...] = ()

    @model_validator(mode="after")
    def _in_order(self) -> "Scene":
        for name in ("rpm", "oil", "coolant", "lamp"):
            times = [t for t, _ in getattr(self, name)]
            if len(times) < 2 or any(a >= b for a, b in pairwise(times)):
                raise ValueError(f"'{self.id}' {name}: two points or more, in order of time")
        if self.due_s is not None and not any(t.at_s <= self.due_s for t in self.tell):
            raise ValueError(f"'{self.id}': nothing tells before the key is due back")
        return self


class Deal(View):
    """A start as it is played: what is seen before, the limit, and its courses each tenth of a
    second; None is a gauge that says nothing; from `wet_s` on it is wet. `tells` are those that
    come by themselves. The fault is not named.
    """

    seed: int
    chosen: bool
    intro: str
    limit: str
    ends_s: float
    beat_s: float
    rpm: tuple[float, ...]
    oil: tuple[float | None, ...]
    coolant: tuple[float, ...]
    lamp: tuple[bool, ...]
    wet_s: float | None
    tells: tuple[Tell, ...]


class HandAct(BaseModel):
    """What the hand did: looked at a gauge, at the lamp or for a leak, or turned the key back, and
    when (s).
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    at_s: Annotated[float, Field(ge=0, le=120)]
    what: Literal["oil", "coolant", "rpm", "lamp", "leak", "key"]


NAMES = {"oil": "oil", "coolant": "coolant", "rpm": "revs", "lamp": "lamp", "leak": "round it"}


class Looked(View):
    """The first look at a gauge, in s."""

    what: str
    at_s: float


class Played(View):
    """How it went: the fault by its name, when the key was due and when it was back; the lateness
    in s (0: in time; None: nothing was due, or it was back before anything told); what was looked
    at first and when, what was missed; what the time cost, and the advice.
    """

    fault: str
    name: str
    title: str
    due_s: float | None
    key_s: float | None
    late_s: float | None
    in_time: bool
    grace_s: float
    looked: tuple[Looked, ...]
    missed: tuple[str, ...]
    tells: tuple[Tell, ...]
    right_at: float | None
    cost: str
    advice: str


def _next(state: int) -> int:
    return (state * FACTOR + ADDEND) % MODULUS


def _scene_of(scenes: tuple[Scene, ...], seed: int, chosen: str | None) -> Scene:
    """The scene of a seed; one that was chosen by name is that one."""
    if chosen is not None:
        return next(scene for scene in scenes if scene.id == chosen)
    first = _next(seed) >> 8
    faults = [scene for scene in scenes if scene.due_s is not None]
    healthy = [scene for scene in scenes if scene.due_s is None]
    if healthy and first % HEALTHY_EACH == 0:
        return healthy[first // HEALTHY_EACH % len(healthy)]
    return faults[first // HEALTHY_EACH % len(faults)]


def _shift(scene: Scene, seed: int) -> float:
    """By how many seconds the fault comes later, in whole beats."""
    share = (_next(_next(seed)) >> 8) % 1000 / 1000
    return round(scene.shifts_s * share / BEAT_S) * BEAT_S


def _at(points: tuple[Point, ...], t: float) -> float:
    if t <= points[0][0]:
        return points[0][1]
    for (a, x), (b, y) in pairwise(points):
        if t <= b:
            return x + (y - x) * (t - a) / (b - a)
    return points[-1][1]


def _shifted(scene: Scene, seed: int) -> Scene:
    """The scene with its fault as late as the seed has it."""
    by = _shift(scene, seed)
    if not by:
        return scene

    def later(points: tuple[Point, ...]) -> tuple[Point, ...]:
        return (points[0], *((t + by, y) for t, y in points[1:]))

    courses: dict[str, tuple[Point, ...]] = {"rpm": scene.rpm, "coolant": scene.coolant}
    moved = {str(name): later(course) for name, course in courses.items() if name == scene.right}
    return scene.model_copy(
        update={
            **moved,
            "due_s": round9((scene.due_s or 0.0) + by),
            "ends_s": round9(scene.ends_s + by),
            "silent_s": round9(scene.silent_s + by) if scene.silent_s is not None else None,
            "tell": tuple(
                tell.model_copy(update={"at_s": round9(tell.at_s + by)}) for tell in scene.tell
            ),
        }
    )


def deal(scenes: tuple[Scene, ...], seed: int, chosen: str | None = None) -> Deal:
    """The start of a seed, as it is played."""
    scene = _shifted(_scene_of(scenes, seed, chosen), seed)
    count = round(scene.ends_s / BEAT_S) + 1
    times = [round9(k * BEAT_S) for k in range(count)]
    noise = _noise(seed, count)
    silent = scene.silent_s
    return Deal(
        seed=seed,
        chosen=chosen is not None,
        intro=scene.intro,
        limit=scene.limit,
        ends_s=scene.ends_s,
        beat_s=BEAT_S,
        rpm=tuple(
            max(0.0, round(_at(scene.rpm, t) + 12 * n, 0))
            for t, n in zip(times, noise, strict=True)
        ),
        oil=tuple(
            None
            if silent is not None and t >= silent
            else max(0.0, round(_at(scene.oil, t) + 0.04 * n, 2))
            for t, n in zip(times, noise, strict=True)
        ),
        coolant=tuple(round(_at(scene.coolant, t), 1) for t in times),
        lamp=tuple(_at(scene.lamp, t) >= 0.5 for t in times),
        wet_s=next((tell.at_s for tell in scene.tell if tell.sense == "leak"), None),
        tells=tuple(tell for tell in scene.tell if tell.sense in COMES_BY_ITSELF),
    )


def _noise(seed: int, count: int) -> list[float]:
    """A needle that is never quite still: -1 to 1, by the seed."""
    state, found = _next(seed), []
    for _ in range(count):
        state = _next(state)
        found.append((state >> 8) % 2001 / 1000 - 1)
    return found


def judge_hand(
    scenes: tuple[Scene, ...], seed: int, chosen: str | None, acts: tuple[HandAct, ...]
) -> Played:
    """How late the key was back, what was looked at and what was missed."""
    scene = _shifted(_scene_of(scenes, seed, chosen), seed)
    key = min((act.at_s for act in acts if act.what == "key"), default=None)
    until = key if key is not None else scene.ends_s
    first: dict[str, float] = {}
    for act in sorted(acts, key=lambda a: a.at_s):
        if act.what != "key" and act.at_s <= until:
            first.setdefault(act.what, act.at_s)
    late = _late(scene, key, until)
    in_time = late is not None and round9(late) <= GRACE_S
    return Played(
        fault=scene.id,
        name=scene.name,
        title=_title(scene, key, late, in_time=in_time),
        due_s=scene.due_s,
        key_s=key,
        late_s=late,
        in_time=in_time or (scene.due_s is None and key is None),
        grace_s=GRACE_S,
        looked=tuple(Looked(what=NAMES[what], at_s=at) for what, at in first.items()),
        missed=_missed(scene, acts, until),
        tells=tuple(tell for tell in scene.tell if tell.at_s <= until),
        right_at=first.get(scene.right),
        cost=_cost(scene, late),
        advice=scene.advice,
    )


def _late(scene: Scene, key: float | None, until: float) -> float | None:
    """How late the key was; None where nothing was due, or nothing had told yet."""
    if scene.due_s is None:
        return None
    told = min(tell.at_s for tell in scene.tell)
    if key is not None and round9(key) < round9(told):
        return None
    return round9(max(0.0, until - scene.due_s))


def _title(scene: Scene, key: float | None, late: float | None, *, in_time: bool) -> str:
    if scene.due_s is None:
        if key is None:
            return "Nothing was wrong, and it ran on"
        return f"Key back at {decimal_text(key, 1)} s: nothing was wrong"
    if late is None:
        return f"Key back at {decimal_text(key or 0.0, 1)} s, before anything told you"
    if key is None:
        return "The key was not turned back"
    if in_time:
        return "Key back in time"
    return f"Key back {decimal_text(late, 1)} s after it was due"


def _missed(scene: Scene, acts: tuple[HandAct, ...], until: float) -> tuple[str, ...]:
    """What was there to be seen and was not looked at: from the moment at which it told to the
    key.
    """
    missed = []
    for tell in scene.tell:
        if tell.at_s > until or tell.sense in COMES_BY_ITSELF:
            continue
        if not any(a.what == tell.sense and tell.at_s <= a.at_s <= until for a in acts):
            missed.append(f"{tell.words}, from {decimal_text(tell.at_s, 1)} s")
    return tuple(missed)


def _cost(scene: Scene, late: float | None) -> str:
    if late is None or late <= 0 or scene.due_s is None:
        return ""
    if not scene.turns:
        return scene.cost
    speed = _at(scene.rpm, scene.due_s)
    turns = speed / 60 * late
    return (
        f"{decimal_text(round(speed, -1), 0)} turns a minute, {decimal_text(turns, 0)} turns in "
        f"{decimal_text(late, 1)} s: {scene.cost}"
    )
