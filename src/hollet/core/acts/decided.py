"""A choice with its reason: a wrench, a bolt passed over, a dry run, a chance let go."""

from collections.abc import Callable
from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.acts.base import Act, Passing, step_named, tool_of
from hollet.core.acts.bolts import joint_of
from hollet.core.acts.hand import Hand
from hollet.core.entries import Adapter, BookState, Decision, StepBody
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Quantity
from hollet.core.running.watch import DRY_RUN_S, DryRun, dry_run_request
from hollet.core.steps.wrenches import OFFERS, can_give, stage_ask

__all__ = ["AdapterSaid", "DecisionAct"]

LONGEST_ADAPTER_MM = 2000.0


class AdapterSaid(BaseModel):
    """An adapter as typed: its length (`60 mm`, `2.5 in`) and its angle (`0`)."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    length: Annotated[str, Field(min_length=1, max_length=40)]
    angle: Annotated[str, Field(min_length=1, max_length=40)] = "0"

    def parsed(self) -> Adapter | None:
        """With its units; one of no length is none."""
        length = measured(self.length, "length", "mm", "adapter.length")
        angle = measured(self.angle, "angle", "deg", "adapter.angle")
        if not 0 <= length.figure("length") <= LONGEST_ADAPTER_MM:
            words = f"'{self.length}': the length of an adapter is 0 to {LONGEST_ADAPTER_MM:g} mm"
            raise Refused("bad_number", words, field="adapter.length")
        return Adapter(length=length, angle=angle) if length.figure("length") else None


class DecisionAct(Act[Decision], StepBody):
    """A wrench chosen, a bolt passed over, a dry run decided, a last chance or a capture let go, a
    fluid left out.
    """

    body: ClassVar = Decision
    kind: Literal["decision"]
    about: Literal["wrench", "pass_over", "dry_run", "last_chance", "capture", "empty"]
    thing: str | None = None
    done_here: bool = False
    bolt: int | None = None
    stage: int | None = None
    wrench: str | None = None
    adapter: AdapterSaid | None = None
    seconds: Annotated[float, Field(gt=0, le=600)] | None = None
    reason: Passing | None = None

    def accepted(self, state: BookState, hand: Hand) -> Decision:
        step = step_named(state, self.step)
        by: dict[str, Callable[[BookState, Step, Hand], Decision]] = {
            "wrench": self._wrench,
            "pass_over": self._pass_over,
            "dry_run": self._dry_run,
            "last_chance": self._last_chance,
            "capture": self._capture,
            "empty": self._empty,
        }
        return by[self.about](state, step, hand)

    def _because(self, words: str) -> None:
        if self.reason is None:
            raise Refused("no_reason", words, field="reason")

    def _of_thing(self, known: tuple[str, ...], sort: str) -> None:
        if self.thing not in known:
            raise NotFound(sort, str(self.thing))

    def _let_go(self, *, done_here: bool = False) -> Decision:
        return Decision(
            step=self.step,
            about=self.about,
            thing=self.thing,
            done_here=done_here,
            reason=self.reason,
        )

    def _dry_run(self, state: BookState, step: Step, hand: Hand) -> Decision:
        dry_run_request(
            DryRun(
                seconds=Quantity(value=self.seconds, unit="s"),
                accepted=self.reason is not None,
                limit=Quantity(value=DRY_RUN_S, unit="s"),
            )
        )
        return Decision(step=self.step, about="dry_run", seconds=self.seconds, reason=self.reason)

    def _last_chance(self, state: BookState, step: Step, hand: Hand) -> Decision:
        self._of_thing(tuple(chance.thing for chance in step.last_chance), "last chance")
        if not self.done_here:
            self._because("to let a last chance go give the reason")
        return self._let_go(done_here=self.done_here)

    def _capture(self, state: BookState, step: Step, hand: Hand) -> Decision:
        self._of_thing(tuple(capture.id for capture in step.capture), "capture")
        self._because("to go on without it give the reason: the chance is gone after this step")
        return self._let_go()

    def _empty(self, state: BookState, step: Step, hand: Hand) -> Decision:
        self._of_thing(step.drains, "fluid")
        self._because("say why it stays empty")
        return self._let_go()

    def _wrench(self, state: BookState, step: Step, hand: Hand) -> Decision:
        wrench = tool_of(hand, self.wrench or "")
        joint, facts = joint_of(state, step)
        kind = stage_ask(joint, facts.next_stage)[0] if facts.next_stage else "torque"
        if not can_give(kind, wrench):
            words = f"{wrench.code} is a {wrench.kind}, not " + OFFERS.get(kind, "a torque wrench")
            raise Refused("wrench_unfit", words, field="wrench")
        return Decision(
            step=self.step,
            about="wrench",
            joint=joint.id,
            wrench=wrench,
            adapter=self.adapter.parsed() if self.adapter is not None else None,
            reason=self.reason,
        )

    def _pass_over(self, state: BookState, step: Step, hand: Hand) -> Decision:
        joint, _ = joint_of(state, step)
        if self.reason is None or self.bolt is None or self.stage is None:
            words = "to pass over a bolt name the bolt, the stage and the reason"
            raise Refused("no_reason", words, field="reason")
        return Decision(
            step=self.step,
            about="pass_over",
            joint=joint.id,
            bolt=self.bolt,
            stage=self.stage,
            reason=self.reason,
        )
