"""One bolt of a joint: what it went through, how it stands, and what puts it right."""

import math
from collections.abc import Iterable, Set
from typing import NamedTuple

from pydantic import BaseModel, ConfigDict

from hollet.core.entries import Entry, Fastener
from hollet.core.entries.bolts import trace_words
from hollet.core.errors import Refused
from hollet.core.instruments import reading_share, single_reading_U
from hollet.core.limits import Judgement, Limit, judge
from hollet.core.procedure.joints import STAGE_DIMENSIONS, Joint
from hollet.core.quantities.quantity import canonical, decimal_text, round9
from hollet.core.steps.wrenches import felt_state, judge_click, stage_ask, tolerance_of
from hollet.core.tightening.pull import OUT, UNSURE

__all__ = ["LOOSE", "OVER", "BoltFacts", "act_verdict", "advice", "bolt_facts"]

OVER = "Take it out, put a fresh one in its place, and begin again with it at stage 1"
"""What puts a bolt right that got too much, where the sheet does not say."""
EARLY = "Loosen it: it was tight before the place was found. Find the place, then lock it again"
"""What puts a lock right that was pulled too early."""
BROKEN = (
    "Take it out: it does not come back from this. Look at its thread and at the one in the part, "
    "put a fresh one in its place, and begin again with it at stage 1"
)
"""What puts a bolt right whose trace shows that it yields, strips or bottoms, whatever the sheet
says of one that got too much.
"""
USED = "It is for one use and was tightened once: take it out, and put a fresh one in its place"
EMPTY = "left out on purpose"
LOOSE = ("out", "loosened again", "left out on purpose", "by hand")


class BoltFacts(BaseModel):
    """One fastener: tightness, stage reached, verdict of its latest act, what is set and due;
    `early`: it was tightened before the place of its group was found; `used`: it is for one use,
    and had it; `broken`: its trace shows what it does not come back from; `empty`: what its hole is
    left empty for.

    `over`: it got more than was asked and is not put right yet; `todo` is the next act of putting
    it right (`out`, `fresh`, `again`, `more`),
    `more` what is still to be turned of an angle, in degrees.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    number: int
    place: str
    x: float
    y: float
    tightness: str = "as found"
    stage: int = 0
    stages: tuple[str, ...] = ()
    verdict: str = ""
    over: bool = False
    todo: str | None = None
    more: str | None = None
    gets: str = ""
    words: str = ""
    side: str | None = None
    locked: bool = False
    marked: bool = False
    passed_over: bool = False
    final: bool = False
    waits: bool = False
    recheck: bool = False
    early: bool = False
    used: bool = False
    broken: bool = False
    empty: str | None = None
    entry: str | None = None


def act_verdict(joint: Joint, entry: Entry[Fastener], *, then: bool = False) -> Judgement | None:
    """The verdict on one torqued act, by what its stage asks as it stands now, and by its trace
    where it has one. `then`: by the figure and the tolerance in force when it was done.
    """
    judged = _by_figure(joint, entry, then=then)
    if judged is None:
        return None
    if not then and _turned(joint, entry.body):
        asked = decimal_text(_Asks.of(entry.body).figure)
        words = f"{judged.words}; {asked} was asked then"
        judged = judged.model_copy(update={"words": words})
    return _by_trace(joint, entry.body, judged)


def _turned(joint: Joint, body: Fastener) -> bool:
    """Whether its stage asks another figure now than when it was pulled."""
    if body.asked is None or body.tolerance_percent is None:
        return False
    dimension = {"deg": "angle", "mm": "length"}.get(body.asked.unit, "torque")
    now = _asks_now(joint, body, dimension)
    return now is not None and round9(now.figure) != round9(_Asks.of(body).figure)


def _by_figure(joint: Joint, entry: Entry[Fastener], *, then: bool) -> Judgement | None:
    body, wrench = entry.body, entry.body.wrench
    if body.asked is None or body.gets is None or body.tolerance_percent is None:
        return None
    dimension = {"deg": "angle", "mm": "length"}.get(body.asked.unit, "torque")
    asks = _Asks.of(body) if then else _asks_now(joint, body, dimension)
    gets = canonical(body.gets, dimension, "gets")
    limit = _band(joint, body.asked.unit, dimension, asks or _Asks.of(body))
    if asks is None:
        words = f"its stage asks for something else now: {_stage_words(joint, body)}"
        return judge(gets, None, limit).model_copy(update={"verdict": "too_close", "words": words})
    if body.sign == "felt":  # nobody read it and nothing clicked: it may be right
        words = "by feel: no verdict. With a wrench that is read, or seen, it has one"
        return judge(gets, None, limit).model_copy(update={"verdict": "too_close", "words": words})
    if wrench is None and dimension != "angle":  # nobody knows what it was read on
        words = "no wrench is named: no verdict"
        return judge(gets, None, limit).model_copy(update={"verdict": "too_close", "words": words})
    if wrench is None:
        return judge_click(gets, 0.0, limit, ())
    if not wrench.covers(canonical(body.set_to or body.gets, wrench.dimension, "set_to")):
        words = f"outside the range of {wrench.code}: no verdict"
        return judge(gets, None, limit).model_copy(update={"verdict": "too_close", "words": words})
    if body.act not in ("read", "sent"):
        return judge_click(gets, wrench.permissible(gets), limit, ())
    try:
        big_u = single_reading_U(wrench, reading_share(wrench, [gets]).value)
    except Refused:
        return judge(gets, None, limit)
    # two lengths with one micrometer: each has its own share, whatever cancels between them
    return judge(gets, big_u * math.sqrt(2) if body.free is not None else big_u, limit)


def is_out(joint: Joint, body: Fastener) -> bool:
    """Whether its trace shows what a bolt does not come back from. One that its joint draws to
    yield does as it should, until its torque falls.
    """
    went = body.trace.verdict if body.trace is not None else ""
    return went in OUT and not (joint.to_yield and went == "yield")


def _by_trace(joint: Joint, body: Fastener, judged: Judgement) -> Judgement:
    """What the trace of a pull makes of the verdict of its figure: never better than it was."""
    if body.trace is None:
        return judged
    words = trace_words(body.trace)
    if is_out(joint, body):
        told = {"verdict": "outside", "side": "high", "words": f"outside, {words}"}
        return judged.model_copy(update=told)
    if body.trace.verdict in UNSURE and judged.verdict == "inside":
        words = f"too close to call, {words}: nobody knows what it clamps"
        return judged.model_copy(update={"verdict": "too_close", "words": words})
    return judged


class _Asks(NamedTuple):
    """What is asked of a bolt, in the canonical unit of its act, with its tolerance in percent."""

    figure: float
    percent: float
    assumed: bool

    @classmethod
    def of(cls, body: Fastener) -> "_Asks":
        """As it was when it was pulled."""
        assert body.asked is not None
        assert body.tolerance_percent is not None
        return cls(float(body.asked.value or 0), body.tolerance_percent, body.tolerance_assumed)


def _asks_now(joint: Joint, body: Fastener, dimension: str) -> _Asks | None:
    """What its stage asks as the joint stands now; None where that is no figure of this kind any
    more.
    """
    number = body.stage or 0
    if not 1 <= number <= len(joint.stage):
        return None
    kind, asked, _ = stage_ask(joint, number)
    turning = kind == "turning"
    if asked is None or STAGE_DIMENSIONS.get(kind) != dimension or turning != body.turning:
        return None
    return _Asks(asked, *tolerance_of(joint, number))


def _stage_words(joint: Joint, body: Fastener) -> str:
    number = body.stage or 0
    return stage_ask(joint, number)[2] if 1 <= number <= len(joint.stage) else "no such stage"


def _band(joint: Joint, unit: str, dimension: str, asks: _Asks) -> Limit:
    """The band round what is asked of a bolt."""
    asked, spread = asks.figure, asks.figure * asks.percent / 100
    return Limit(
        id="t",
        name=joint.name,
        dimension=dimension,
        unit=unit,
        lo=decimal_text(round9(asked - spread)),
        hi=decimal_text(round9(asked + spread)),
        target=decimal_text(asked),
        step="0.1",
        source=None if asks.assumed else "sheet",
    )


class _History:
    """What one bolt went through since the joint was taken out last."""

    def __init__(self, joint: Joint, out: bool) -> None:
        self.joint = joint
        self.tightness = "out" if out else "as found"
        self.latest: Entry[Fastener] | None = None
        self.over, self.since = False, 0
        self.broken = False
        self.loosen()

    def loosen(self) -> None:
        """Back to no stage, and neither locked nor marked."""
        self.stage, self.locked, self.marked = 0, False, False
        self.stages: list[str] = []

    def take(self, entry: Entry[Fastener]) -> None:
        """Take in one act."""
        body = entry.body
        if body.act == "fresh":
            self.tightness, self.latest, self.over = "out", entry, False
            self.broken = False
            self.loosen()
        elif body.act in ("marked", "locked"):
            self.marked = self.marked or body.act == "marked"
            self.locked = self.locked or body.act == "locked"
        elif body.tightness == "torqued" and body.stage:
            self.pulled(entry, body.stage)
        elif body.stage:
            self.felt(entry, body.stage)
        else:
            self.tightness, self.latest = body.tightness, entry
            if body.tightness in LOOSE:
                self.loosen()
            if body.tightness == "out" and not self.joint.put_right.fresh and not self.broken:
                self.over = False

    def pulled(self, entry: Entry[Fastener], stage: int) -> None:
        """Pulled to a stage: over, where it got more than was asked. A mark or a lock that was set
        before it turned on is of another place.
        """
        if stage > self.stage:
            self.locked, self.marked = False, False
        self.tightness, self.stage, self.latest = f"torqued stage {stage}", stage, entry
        judged = act_verdict(self.joint, entry, then=True)
        self.stages = [*self.stages[: stage - 1], judged.verdict if judged else "inside"]
        self.broken = self.broken or is_out(self.joint, entry.body)
        high = self.broken or (
            judged is not None and judged.verdict == "outside" and judged.side == "high"
        )
        if high and not self.over:
            self.over, self.since = True, stage

    def felt(self, entry: Entry[Fastener], stage: int) -> None:
        """To a stage that asks for no figure: it is as it was said, and nothing judges it. One that
        asks for a figure by now was not reached by feel: it is led again.
        """
        if stage > len(self.joint.stage) or felt_state(self.joint, stage) is None:
            stage -= 1
        if stage > self.stage:
            self.locked, self.marked = False, False
        self.tightness, self.stage, self.latest = entry.body.tightness, stage, entry
        self.stages = [*self.stages[: stage - 1], "inside"] if stage else []

    def judged(self) -> Judgement | None:
        """The verdict on the latest act, where the bolt is torqued."""
        if self.latest is None or not self.tightness.startswith("torqued"):
            return None
        judged = act_verdict(self.joint, self.latest)
        if judged is not None and judged.verdict == "outside" and judged.side == "high":
            self.over, self.since = True, self.since if self.over else self.stage
        return judged

    def empty(self) -> str | None:
        """What the hole is left empty for."""
        if self.tightness != EMPTY or self.latest is None:
            return None
        return self.latest.body.note or "nobody has said what"

    def passed(self, stages: Set[int]) -> bool:
        """Whether it was passed over at its stage, or since it got too much."""
        return self.stage in stages or (self.over and any(s >= self.since for s in stages))

    def final(self, judged: Judgement | None) -> bool:
        """Whether it has what the joint asks for; one passed over is never final."""
        if self.tightness == "as found":
            return True
        if self.over or (self.joint.mark and not self.marked):
            return False
        if self.joint.tab is not None and not self.locked:
            return False
        good = judged is None or judged.verdict == "inside"
        return {
            "torqued": self.stage == len(self.joint.stage) and good,
            "cinched": self.tightness == "cinched" or (self.stage > 0 and good),
            "snug": self.tightness in ("snug", "cinched") or self.stage > 0,
        }[self.joint.final]


def bolt_facts(
    joint: Joint,
    number: int,
    place: tuple[str, tuple[float, float]],
    acts: Iterable[Entry[Fastener]],
    *,
    out: bool,
    passed: Set[int],
) -> BoltFacts:
    """How a bolt stands after its `acts` since the joint was taken out (`out`), and the stages at
    which it was passed over.
    """
    history = _History(joint, out)
    for entry in acts:
        history.take(entry)
    judged = history.judged()
    todo, more = _todo(history.over, history.tightness, judged)
    name, (x, y) = place
    return BoltFacts(
        number=number,
        place=name,
        x=x,
        y=y,
        tightness=history.tightness,
        stage=history.stage,
        stages=tuple(history.stages),
        verdict=judged.verdict if judged else "",
        gets=judged.value_text if judged else "",
        words=judged.words if judged else "",
        side=judged.side if judged else None,
        locked=history.locked,
        marked=history.marked,
        passed_over=history.passed(passed),
        final=history.final(judged),
        over=history.over,
        broken=history.broken,
        todo=todo,
        more=more,
        entry=history.latest.id if history.latest else None,
        empty=history.empty(),
    )


def _todo(over: bool, tightness: str, judged: Judgement | None) -> tuple[str | None, str | None]:
    """The next act of putting a bolt right: one that got too much goes out, and a fresh one in; one
    that got too little is pulled again, or turned on.
    """
    if over:
        return ("fresh" if tightness == "out" else "out"), None
    if judged is None or judged.verdict not in ("outside", "too_close") or judged.side == "high":
        return ("again" if judged is not None and judged.verdict == "too_close" else None), None
    if judged.unit == "deg" and judged.target is not None and judged.value is not None:
        return "more", decimal_text(round9(judged.target - judged.value))
    return "again", None


def advice(joint: Joint, bolt: BoltFacts) -> str:
    """What puts a bolt right: the angle that is left, else what the sheet says."""
    if bolt.early:
        return EARLY
    if bolt.broken:
        return BROKEN
    if bolt.used:
        return USED
    if bolt.more is not None:
        return f"Turn it {bolt.more}° more, on top of what it has"
    said = joint.put_right.over if bolt.over or bolt.side == "high" else joint.put_right.under
    return (
        said
        or (OVER if bolt.over else None)
        or "The sheet does not say what puts it right: look in the vehicle's manual, or leave it "
        "with a reason"
    )
