"""Figures typed, and what is decided about one outside."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.entries import BookState, Concession, Disposition, Reading, StepBody
from hollet.core.entries.base import Short
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.instruments import Instrument, leaf_share, may_give
from hollet.core.limits import Limit
from hollet.core.procedure.results import ReadingSpec
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.when import read_when
from hollet.core.quantities.parse import Parsed
from hollet.core.quantities.quantity import Quantity, decimal_text
from hollet.core.steps.questions import odd_question, pair_question, tool_question
from hollet.core.steps.readings import missed_ground
from hollet.core.steps.results import ResultFacts, result_of
from hollet.core.steps.typed import read_leaves, read_text

__all__ = ["ConcessionAct", "DispositionAct", "ReadingAct"]


class ReadingAct(Act[Reading], StepBody):
    """Repeats as typed, the unit shown in the field, the tool; `sure` after an odd figure was asked
    about.
    """

    body: ClassVar = Reading
    kind: Literal["reading"]
    reading: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    unit: Short
    instrument: str
    state: Annotated[str, Field(max_length=80)] | None = None
    datum: Annotated[str, Field(max_length=80)] | None = None
    sure: bool = False

    def accepted(self, state: BookState, hand: Hand) -> Reading:
        step = step_named(state, self.step)
        spec = step.asked_for(self.reading, plan_of(state))
        if spec is None:
            raise NotFound("reading", self.reading)
        tool = tool_of(hand, self.instrument)
        if not may_give(spec.tool, tool.kind):
            raise Refused(
                "wrong_tool",
                f"{spec.name} is read with a {spec.tool}, not with {tool.code}, a {tool.kind}",
                field="instrument",
            )
        read = _Typed(state, step, spec, tool, self.unit)
        for text in self.typed:
            read.take(text)
        if read.question and not self.sure:
            raise Refused("odd_figure", read.question, field="typed")
        return self.filled(
            values=tuple(read.values),
            no_go=tuple(read.no_go),
            deviation_from=read.setting,
            instrument=tool,
            missed=missed_ground(state, self.step, hand.seen, hand.told),
        )


class _Typed:
    """Repeats of one reading as they are taken in, with the first question that one raises."""

    def __init__(
        self, state: BookState, step: Step, spec: ReadingSpec, tool: Instrument, unit: str
    ) -> None:
        self.state, self.step, self.spec, self.tool, self.unit = state, step, spec, tool, unit
        self.direct = _direct_limit(state, step, spec.id)
        self.values: list[Quantity] = []
        self.no_go: list[Quantity] = []
        self.setting: Quantity | None = None
        self.question = tool_question(tool)

    def take(self, text: str) -> None:
        """One repeat: of a feeler the leaf that goes in, and the one that does not."""
        leaves = self.tool.kind == "feeler"
        parsed = self._leaves(text) if leaves else self._figure(text)
        self.values.append(_as_read(parsed, self.unit))

    def _leaves(self, text: str) -> Parsed:
        leaf, goes, does_not = read_leaves(text, self.unit, self.tool.dimension)
        thicker = does_not.nominal if does_not is not None else None
        leaf_share(
            self.tool, float(goes.nominal or 0), float(thicker) if thicker is not None else None
        )
        if does_not is not None:
            self.no_go.append(_as_read(does_not, self.unit))
        self._ask(leaf)
        return goes

    def _figure(self, text: str) -> Parsed:
        parsed, base = read_text(text, self.tool, self.unit, self.tool.dimension)
        self.setting = base or self.setting
        self._ask(text)
        from_base = float(str(base.value)) if base else 0.0
        value = float(parsed.nominal or 0) + from_base - self.tool.known_offset()
        self.question = self.question or pair_question(self.state, self.step, self.spec.id, value)
        return parsed

    def _ask(self, text: str) -> None:
        self.question = self.question or odd_question(
            self.state, self.step, self.spec, text, self.unit, self.tool, self.direct
        )


def _as_read(parsed: Parsed, unit: str) -> Quantity:
    """A figure as parsed, in its canonical unit."""
    return Quantity(value=decimal_text(parsed.nominal or 0), unit=parsed.unit or unit)


def _direct_limit(state: BookState, step: Step, reading: str) -> Limit | None:
    """The limit that judges the reading by itself."""
    return plan_of(state).find_limit(step.judges_alone(reading))


def _result(state: BookState, step_id: str, result: str, hand: Hand) -> ResultFacts:
    step = step_named(state, step_id)
    spec = next((spec for spec in step.results() if spec.id == result), None)
    if spec is None:
        raise NotFound("result", result)
    return result_of(state, step, spec, hand.listed)


class ConcessionAct(Act[Concession], StepBody):
    """A result accepted in writing."""

    body: ClassVar = Concession
    kind: Literal["concession"]
    result: str
    reason: Annotated[str, Field(min_length=10, max_length=1000)]
    name: Short
    use: Annotated[str, Field(max_length=200)] | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None
    recheck: Annotated[str, Field(max_length=80)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> Concession:
        facts = _result(state, self.step, self.result, hand)
        if facts.judgement.verdict == "inside":
            raise Refused(
                "not_outside",
                f"{facts.name} is inside: there is nothing to accept",
                field="result",
            )
        if facts.chooses:
            words = f"{facts.name}: {facts.judgement.words}. There is no figure yet to accept"
            raise Refused("not_complete", words, field="result")
        if not facts.may_concede:
            raise Refused(
                "never_conceded",
                f"{facts.name}: lifting gear outside its limit is never accepted, it is replaced",
                field="result",
            )
        if not facts.readings:
            raise Refused("not_complete", f"{facts.name} is not read yet", field="result")
        asked = (self.recheck or "").strip()
        when = read_when(asked, hand.today) if asked else None
        return self.filled(
            readings=facts.readings,
            value=facts.judgement.value_text,
            limit=facts.limit,
            recheck_when=when,
        )


class DispositionAct(Act[Disposition], Disposition):
    """Measure again, rework or replace."""

    body: ClassVar = Disposition
    kind: Literal["disposition"]

    def accepted(self, state: BookState, hand: Hand) -> Disposition:
        _result(state, self.step, self.result, hand)
        return self.filled()
