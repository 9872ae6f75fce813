"""Looking again at what has run: the odometer, and the bolts of a joint, held or moved."""

from typing import Annotated, ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.acts.base import Act, held, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.book.passing import unsettled_before
from hollet.core.entries import BookState, LookedAgain, MovedBolt, OdometerSaid, StepBody
from hollet.core.entries.base import Body
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import decimal_text, quantity_of
from hollet.core.steps.looks import odometer
from hollet.core.steps.tighten import JointFacts, joint_facts
from hollet.core.steps.wrenches import setting_for, stage_ask, wrench_holds

__all__ = ["LookedAgainAct", "OdometerSaidAct"]


FAR_KM = 10_000
"""More than this between two readings of an odometer is asked about: a digit slips in easily."""


class OdometerSaidAct(Act[OdometerSaid], Body):
    """What it reads now, as typed; `sure` where it reads less than before, or very much more."""

    body: ClassVar = OdometerSaid
    kind: Literal["odometer said"]
    typed: Annotated[str, Field(min_length=1, max_length=20)]
    unit: Literal["km", "mi"] = "km"
    sure: bool = False

    def accepted(self, state: BookState, hand: Hand) -> OdometerSaid:
        value = measured(self.typed, "distance", self.unit, "typed")
        reads, before = value.figure("distance"), odometer(state)
        if not 0 <= reads < 5_000_000:
            words = f"'{self.typed}': an odometer reads nothing like it"
            raise Refused("bad_number", words, field="typed")
        if before is not None and reads < before and not self.sure:
            words = (
                f"{self.typed} {self.unit} is less than the {decimal_text(before, 0)} km that it "
                "read before. Is it right?"
            )
            raise Refused("odd_figure", words, field="typed")
        if before is not None and reads - before > FAR_KM and not self.sure:
            words = (
                f"{decimal_text(reads - before, 0)} km since it was read last, at "
                f"{decimal_text(before, 0)} km. Is it right?"
            )
            raise Refused("odd_figure", words, field="typed")
        return OdometerSaid(value=value)


class MovedSaid(BaseModel):
    """A bolt that moved, and the torque at which it did, as typed; empty where it was not read."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    bolt: Annotated[int, Field(ge=1, le=200)]
    typed: Annotated[str, Field(max_length=20)] = ""

    def measured(self) -> MovedBolt:
        """With its figure."""
        if not self.typed.strip():
            return MovedBolt(bolt=self.bolt)
        found = measured(self.typed, "torque", "N·m", "moved")
        if found.figure("torque") <= 0:
            words = f"bolt {self.bolt}, '{self.typed}': a torque above zero, or nothing"
            raise Refused("bad_number", words, field="moved")
        return MovedBolt(bolt=self.bolt, found=found)


class LookedAgainAct(Act[LookedAgain], StepBody):
    """All held but those that `moved`, which were set again at the same figure with `wrench`; a
    joint drawn by an angle is looked at by its marks, without one.
    """

    body: ClassVar = LookedAgain
    kind: Literal["looked again"]
    joint: Annotated[str, Field(max_length=60)]
    moved: Annotated[tuple[MovedSaid, ...], Field(max_length=200)] = ()
    wrench: Annotated[str, Field(max_length=64)] | None = None
    words: Annotated[str, Field(max_length=300)] = ""

    def accepted(self, state: BookState, hand: Hand) -> LookedAgain:
        step = step_named(state, self.step)
        joint = plan_of(state).find_joint(self.joint)
        if joint is None or joint.recheck != step.id:
            raise NotFound("joint", self.joint)
        facts = joint_facts(state, joint)
        self._ready(state, step, joint, facts, hand)
        kind, asked, _ = stage_ask(joint, len(joint.stage))
        turned = kind != "torque"
        wrench = None if turned else self._wrench(joint, facts, hand)
        moved = tuple(said.measured() for said in self.moved)
        if turned and any(m.found is not None for m in moved):
            words = f"{joint.name}: it is not pulled to a torque again. Say which moved"
            raise Refused("not_pulled", words, field="moved")
        return LookedAgain(
            step=self.step,
            joint=joint.id,
            name=joint.name,
            bolts=len(facts.bolts),
            asked=quantity_of(asked, "N·m") if asked is not None and not turned else None,
            moved=moved,
            wrench=wrench,
            words=self.words.strip(),
        )

    def _ready(
        self, state: BookState, step: Step, joint: Joint, facts: JointFacts, hand: Hand
    ) -> None:
        if not facts.begun or not facts.final:
            words = (
                f"{joint.name}: {facts.waits or 'not final yet'}. It is looked at again once it is"
            )
            raise Refused("not_final", words, field="joint")
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None and waits.by != "reason":
            raise held(step, waits, "step")
        numbers = [said.bolt for said in self.moved]
        wrong = next((n for n in numbers if n > len(facts.bolts) or numbers.count(n) > 1), None)
        if wrong is not None:
            words = f"{joint.name}: bolt {wrong}: its bolts are 1 to {len(facts.bolts)}, each once"
            raise Refused("bad_bolt", words, field="moved")

    def _wrench(self, joint: Joint, facts: JointFacts, hand: Hand) -> Instrument:
        if self.wrench is None:
            raise Refused("no_wrench", f"{joint.name}: say with which wrench", field="wrench")
        tool = tool_of(hand, self.wrench)
        if "wrench" not in tool.kind:
            raise Refused("wrong_tool", f"{tool.code} is no torque wrench", field="wrench")
        setting = setting_for(joint, len(joint.stage), tool, None)
        if setting.refusal is not None:
            raise Refused("wrench_unfit", setting.refusal, field="wrench")
        if not wrench_holds(tool, facts.tolerance):
            words = (
                f"{tool.code} holds ±{tool.mpe_percent} %, the joint asks "
                f"±{decimal_text(facts.tolerance)} %: another wrench"
            )
            raise Refused("wrench_wide", words, field="wrench")
        return tool
