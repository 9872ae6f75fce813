"""Attempts at a rung: begun, sampled, ended."""

import math
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.acts.base import Act, Passing, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.fuel import fuel_shuts
from hollet.core.book.gates import dry_run_decision, gate_answers
from hollet.core.entries import (
    AttemptEnded,
    AttemptStarted,
    BookState,
    RunSample,
    RunTold,
    Samples,
    StepBody,
)
from hollet.core.entries.base import Reason, Seconds, Short
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.faults import Rhythm
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured, decimal_text
from hollet.core.run_sheet import NAMES, STOPS, WORDS, About, causes_of
from hollet.core.slips import SlipCheck, question, slip_check, slip_input
from hollet.core.steps.attempt import AttemptFacts
from hollet.core.steps.cooling import cool_down
from hollet.core.steps.run import attempt_facts, attempts_of
from hollet.core.steps.starter import burst_limit, cranked_s, rest_of

__all__ = ["AttemptEndedAct", "AttemptStartedAct", "RunToldAct", "SampleSaid", "SamplesAct"]

USUAL_GAUGE_BAR = (0.0, 8.0)
"""Span of an oil pressure gauge where the shop has none: usual for such gauges."""


def _rung(state: BookState, step_id: str) -> RunStep:
    step = step_named(state, step_id)
    run = step.as_run()
    if run is None:
        words = f"{step.number} is not a rung of the first start"
        raise Refused("bad_entry", words, field="step")
    return run


class AttemptStartedAct(Act[AttemptStarted], StepBody):
    """An attempt begins; a reason is needed at a shut rung."""

    body: ClassVar = AttemptStarted
    kind: Literal["attempt started"]
    attempt: Annotated[str, Field(min_length=8, max_length=64)]
    isolated: tuple[Short, ...] = ()
    reason: Passing | None = None

    def accepted(self, state: BookState, hand: Hand) -> AttemptStarted:
        step = _rung(state, self.step)
        earlier = attempts_of(state, step)
        self._after(step, earlier)
        self._cold(state, step, hand)
        limit_s = self._limit(state, step, earlier, hand)
        gate = next(g for g in gate_answers(state, hand.listed) if g.rung == step.rung)
        aged = fuel_shuts(state, step.rung, hand.today)
        shut = gate.reasons if gate.answer == "shut" else (aged,) if aged else ()
        if shut and self.reason is None:
            raise Refused("shut", f"{gate.name} is shut: {shut[0]}", field="reason")
        dry = dry_run_decision(state)
        if gate.answer == "limited" and step.rung == "fire" and dry is not None:
            limit_s = min(limit_s, dry)
        missing = [what for what in step.isolate if what not in self.isolated]
        if missing:
            raise Refused("not_isolated", f"not confirmed: {missing[0]}", field="isolated")
        return self.filled(
            rung=step.rung,
            number=len(state.all(AttemptStarted)) + 1,
            expected=step.expect,
            limit_s=limit_s,
            gate="shut" if shut else gate.answer,
            gate_reasons=shut,
        )

    def _after(self, step: RunStep, earlier: tuple[AttemptFacts, ...]) -> None:
        """The one before is over, and where it was stopped its cause is written."""
        if any(not attempt.ended for attempt in earlier):
            words = "an attempt is still running: turn the key off first"
            raise Conflict(words, reason_code="still_running")
        last = earlier[-1] if earlier else None
        if last is not None and last.stop and not last.cause and step.rung in ("fire", "run_on"):
            raise Refused(
                "no_cause",
                f"attempt {last.number} was stopped: write its cause and what was changed before "
                "firing again",
                field="cause",
            )

    def _cold(self, state: BookState, step: RunStep, hand: Hand) -> None:
        """It has stood and was felt, where it was too hot or ran dry; no reason passes that."""
        cooling = cool_down(state, step, hand.now)
        if cooling is None:
            return
        minutes = decimal_text(math.ceil(cooling.left_s / 60), 0)
        left = f"{minutes} min of standing are left, then " if cooling.left_s > 0 else ""
        raise Refused("cool_down", f"{cooling.why}: {left}press “{cooling.box}”", field="attempt")

    def _limit(
        self, state: BookState, step: RunStep, earlier: tuple[AttemptFacts, ...], hand: Hand
    ) -> float:
        """How long this burst may last, in s; cranking has a total, and rests in between."""
        plan = plan_of(state)
        limit, total = plan.find_limit(step.time_limit), plan.find_limit(step.total_limit)
        seconds = limit.figure("hi") if limit else None
        if seconds is None:
            raise Refused(
                "no_limit",
                "the time allowed is not given yet: enter it in the limit book first",
                field="time_limit",
            )
        most = total.figure("hi") if total else None
        if most is not None and cranked_s(earlier) >= most and self.reason is None:
            raise Refused(
                "look_first",
                f"{decimal_text(most)} s of cranking without oil pressure: stop and look for the "
                "cause; to go on, give a reason",
                field="reason",
            )
        resting = rest_of(state, step, hand.now)
        if resting is not None and self.reason is None:
            assumed = ", assumed" if resting[0].assumed else ""
            raise Refused(
                "rest",
                f"let the starter rest: {resting[1]:.0f} s left of {resting[0].rest_s:g} s"
                f"{assumed}; to go on now, give a reason",
                field="reason",
            )
        return burst_limit(seconds, most, earlier)


class SampleSaid(BaseModel):
    """One moment as typed: revs, oil pressure, temperature and timing as text with units."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    t: Annotated[Seconds, Field(ge=0, le=86400)]
    rpm: str | None = None
    oil: str | None = None
    coolant: str | None = None
    timing: str | None = None
    timing_state: Annotated[str, Field(max_length=40)] | None = None
    as_typed: bool = False
    lamp_out: bool = False
    seen: Literal["leak", "fuel leak", "noise", "smoke", "glow", "fire"] | None = None

    def sample(self, gauge: Instrument | None) -> RunSample:
        """With its figures, and the question that the oil pressure raises."""
        oil = _figure(self.oil, "pressure", gauge.unit if gauge is not None else "bar", "oil")
        asks = oil is not None and not self.as_typed
        return RunSample(
            t=self.t,
            rpm=_figure(self.rpm, "speed", "rpm", "rpm"),
            oil=oil,
            coolant=_figure(self.coolant, "temperature", "°C", "coolant"),
            timing=_figure(self.timing, "angle", "deg", "timing"),
            timing_state=self.timing_state,
            lamp_out=self.lamp_out,
            seen=self.seen,
            asked=_oil_question(self.oil or "", gauge) if asks else None,
        )


def _figure(text: str | None, dimension: str, unit: str, field: str) -> Measured | None:
    if text is None or not text.strip():
        return None
    return measured(text, dimension, unit, f"samples.{field}")


def _gauge(hand: Hand) -> Instrument | None:
    """The pressure gauge of the shop: a bare figure takes its unit."""
    gauges = (tool for tool in hand.listed if tool.kind == "pressure gauge" and not tool.retired)
    return next(gauges, None)


def _oil_question(text: str, gauge: Instrument | None) -> str | None:
    """A question about an oil pressure that the gauge cannot show: a bare figure in another unit, a
    decimal place.
    """
    if gauge is not None:
        asked = slip_input(text, gauge.unit, gauge, None, "roughly")
        check = asked.model_copy(update={"resolution": None, "setting": None, "travel": None})
    else:
        span = [{"value": edge, "unit": "bar"} for edge in USUAL_GAUGE_BAR]
        check = SlipCheck.model_validate({"typed": text, "unit": "bar", "tool_range": span})
    found = slip_check(check)
    return question(check, found) if found.ask else None


def _known(state: BookState, step: RunStep, attempt: str) -> None:
    if all(a.id != attempt for a in attempts_of(state, step)):
        raise NotFound("attempt", attempt)


class SamplesAct(Act[Samples], StepBody):
    """Samples of an attempt."""

    body: ClassVar = Samples
    kind: Literal["samples"]
    attempt: str
    samples: Annotated[tuple[SampleSaid, ...], Field(min_length=1, max_length=600)]

    def accepted(self, state: BookState, hand: Hand) -> Samples:
        _known(state, _rung(state, self.step), self.attempt)
        gauge = _gauge(hand)
        return self.filled(samples=tuple(said.sample(gauge) for said in self.samples))


class RunToldAct(Act[RunTold], StepBody):
    """One row of the run sheet, while it runs or after it."""

    body: ClassVar = RunTold
    kind: Literal["run told"]
    attempt: str
    about: About
    word: Short
    t: Annotated[Seconds, Field(ge=0, le=86400)] | None = None
    rhythm: Rhythm | None = None
    place: Annotated[str, Field(max_length=60)] = ""

    def accepted(self, state: BookState, hand: Hand) -> RunTold:
        _known(state, _rung(state, self.step), self.attempt)
        if self.word not in WORDS[self.about]:
            words = f"'{self.word}': {NAMES[self.about].lower()} is {', '.join(WORDS[self.about])}"
            raise Refused("bad_word", words, field="word")
        if self.word == "heard" and self.rhythm is None:
            words = "say its rhythm: each turn, every second turn, steady, with the wheels, once"
            raise Refused("no_rhythm", words, field="rhythm")
        tree = state.lore.symptom_of(self.about)
        known = tree.cause if tree is not None else ()
        found = causes_of(known, self.about, self.word, self.rhythm, self.place)
        stops = (self.about, self.word) in STOPS or any(cause.act == "stop" for cause in found)
        leads = tuple(f"{cause.what}. {cause.proof}" for cause in found)
        return self.filled(leads=leads, stops=stops)


class AttemptEndedAct(Act[AttemptEnded], AttemptEnded):
    """The key is off."""

    body: ClassVar = AttemptEnded
    kind: Literal["attempt ended"]
    reason: Reason = "key off"

    def accepted(self, state: BookState, hand: Hand) -> AttemptEnded:
        step = _rung(state, self.step)
        _known(state, step, self.attempt)
        facts = attempt_facts(state, step, self.attempt)
        if facts.ended and not (self.cause and self.change):
            words = "the key of this attempt is already off"
            raise Conflict(words, reason_code="already_ended")
        if self.passed:
            self._proven(facts)
        # what was sampled was running
        return self.filled(after_s=max(self.after_s, facts.last_s))

    def _proven(self, facts: AttemptFacts) -> None:
        """
        Raises
        ------
        Refused
            `not_passed`: a stop, a deadline that was missed, too short, nothing seen.
        """
        if max(self.after_s, facts.last_s) < facts.least_s:
            words = (
                f"{decimal_text(self.after_s, 0)} s show nothing of what is to be seen: it passes "
                f"from {decimal_text(facts.least_s, 0)} s on"
            )
            raise Refused("not_passed", words, field="after_s")
        late = any(not d.met and d.at_s < self.after_s for d in facts.deadlines)
        if facts.stop or late:
            raise Refused(
                "not_passed",
                "something asked for was not entered or was over its limit, so this attempt "
                "cannot pass",
                field="passed",
            )
        if not facts.expected_seen:
            raise Refused(
                "not_passed",
                "oil pressure was not entered and the lamp was not seen out: silence is no pass",
                field="passed",
            )
