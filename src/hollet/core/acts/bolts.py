"""A click, a typed figure or a state, on one bolt."""

from typing import Annotated, ClassVar, Literal, NamedTuple

from pydantic import Field

from hollet.core.acts.base import Act, held, step_named
from hollet.core.acts.hand import Hand
from hollet.core.acts.readoff import ReadOff, read_off
from hollet.core.book.complete import obstacles
from hollet.core.entries import BookState, Fastener, StepBody, Tightness
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import READ_OFF, STAGE_DIMENSIONS, Joint
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantity, canonical, decimal_text, quantity_of
from hollet.core.quantities.units import CANONICAL
from hollet.core.slips import SlipCheck, question, slip_check, slip_input
from hollet.core.steps.bolt import BROKEN, EMPTY, OVER, USED, BoltFacts
from hollet.core.steps.groups import place_of
from hollet.core.steps.signs import UNHEARD, JointSign, sign_of
from hollet.core.steps.tighten import JointFacts, joint_facts, joint_in_hand
from hollet.core.steps.wrenches import (
    can_give,
    felt_state,
    lever_of,
    setting_for,
    stage_ask,
    tolerance_of,
    wrench_holds,
)

__all__ = ["FastenerAct", "joint_of"]


LEAST_WORDS = 3
TIGHT = ("snug", "cinched", "torqued")


def joint_of(state: BookState, step: Step, named: str | None = None) -> tuple[Joint, JointFacts]:
    """The joint that a step tightens or takes out, and how it stands: the one that is named, else
    the one in hand; raises NotFound.
    """
    own = (*step.tightens(), *step.takes_out())
    if named is not None and named not in own:
        raise NotFound("joint", named)
    joint = plan_of(state).find_joint(named) if named else joint_in_hand(state, step)
    joint = joint or plan_of(state).find_joint(next(iter(own), None))
    if joint is None:
        raise NotFound("joint", step.id)
    return joint, joint_facts(state, joint)


class _Pull(NamedTuple):
    """What one pull asks for and gives, in the unit of its stage."""

    joint: Joint
    facts: JointFacts
    bolt: BoltFacts
    stage: int
    kind: str
    unit: str
    asked: float
    percent: float
    assumed: bool
    again: bool
    sign: JointSign


class FastenerAct(Act[Fastener], StepBody):
    """A click, a typed value, or a state, on one bolt; `sure` when it was really pulled out of the
    joint's order, or before the place of its group was found: then it is told, and proves nothing.

    `as_typed` answers the question about an odd figure. `more`: on an angle stage the figure is
    what was turned on top of what it had. `free`: the length of the bolt before it was drawn, where
    its stage asks how much longer it gets; `typed` is then its length now.
    """

    body: ClassVar = Fastener
    kind: Literal["fastener"]
    bolt: Annotated[int, Field(ge=1, le=200)]
    act: Literal["clicked", "read", "state", "marked", "locked", "fresh"]
    stage: Annotated[int, Field(ge=1, le=8)] | None = None
    typed: str | None = None
    tightness: Tightness | None = None
    note: str | None = None
    sure: bool = False
    as_typed: bool = False
    more: bool = False
    free: Annotated[str, Field(max_length=40)] | None = None
    joint: Annotated[str, Field(max_length=60)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> Fastener:
        step = step_named(state, self.step)
        joint, facts = joint_of(state, step, self.joint)
        if self.bolt > len(facts.bolts):
            raise NotFound("bolt", str(self.bolt))
        if not (self.act == "state" and self.tightness == "loosened again"):
            _not_held(state, step, hand)
        bolt = facts.bolts[self.bolt - 1]
        if bolt.used and (self.act in ("clicked", "read") or self.tightness in TIGHT):
            raise Refused(
                "one_use",
                f"bolt {bolt.number}: {USED[0].lower()}{USED[1:]}",
                field="bolt",
            )
        self._locks(state, step, joint)
        if self.act in ("marked", "locked"):
            return self._set(joint, bolt)
        if self.act == "fresh":
            return self._fresh(joint, bolt)
        if self.act == "state":
            return self._state(joint, bolt)
        return self._pulled(self._pull(state, joint, facts, bolt, hand.told))

    def _locks(self, state: BookState, step: Step, joint: Joint) -> None:
        """Refuse a lock before its time, unless it is told that it has happened."""
        group = step.locks()
        tight = self.act in ("clicked", "read") or self.tightness in TIGHT
        if group is None or not tight or self.sure:
            return
        missing = place_of(state, group).missing
        if missing:
            words = (
                f"{joint.name}: {missing[0].number} {missing[0].title} first. What is tight now "
                "holds what is still to move"
            )
            raise Refused("place_not_found", words, field="bolt")
        before = joint_in_hand(state, step)
        if before is not None and before.id != joint.id and joint.id in step.tightens():
            order = list(step.tightens())
            if order.index(before.id) < order.index(joint.id):
                words = f"{before.name} is locked before {joint.name}: {group.shut}"
                raise Refused("locked_too_early", words, field="bolt")

    def _plain(self, joint: Joint, tightness: Tightness) -> Fastener:
        return Fastener(
            step=self.step,
            joint=joint.id,
            bolt=self.bolt,
            act=self.act,
            tightness=tightness,
            note=self.note,
        )

    def _set(self, joint: Joint, bolt: BoltFacts) -> Fastener:
        """Its mark or its lock, once it is as tight as it will be."""
        tight = bolt.stage == len(joint.stage) or bolt.tightness in ("snug", "cinched")
        if not tight:
            words = f"bolt {bolt.number} is {bolt.tightness}: to its last stage first, then its "
            raise Refused(
                "not_tight", words + ("mark" if self.act == "marked" else "lock"), field="act"
            )
        return self._plain(joint, "torqued")

    def _fresh(self, joint: Joint, bolt: BoltFacts) -> Fastener:
        if bolt.tightness != "out":
            raise Refused(
                "not_out",
                f"bolt {self.bolt} is {bolt.tightness}: take it out first, then a fresh one goes "
                "in",
                field="act",
            )
        return self._plain(joint, "out")

    def _state(self, joint: Joint, bolt: BoltFacts) -> Fastener:
        if self.tightness is None or self.tightness == "torqued":
            raise Refused(
                "bad_entry",
                "'tightness' must be a state such as snug, cinched or loosened again",
                field="tightness",
            )
        if bolt.over and self.tightness not in ("out", "loosened again"):
            raise _over(joint, bolt)
        if self.tightness == EMPTY and len((self.note or "").strip()) < LEAST_WORDS:
            words = f"bolt {self.bolt}: say what its hole is left empty for"
            raise Refused("no_words", words, field="note")
        return self._plain(joint, self.tightness)

    def _pull(
        self, state: BookState, joint: Joint, facts: JointFacts, bolt: BoltFacts, told: str
    ) -> _Pull:
        """Which stage this is, and whether it is this bolt's turn."""
        stage = self.stage or facts.next_stage or bolt.stage
        again = bolt.stage == stage and bolt.stage > 0
        if bolt.over and (again or not bolt.passed_over):
            raise _over(joint, bolt)
        if not again:
            self._in_turn(facts, bolt, stage)
        kind, asked, _ = stage_ask(joint, stage)
        if asked is None and kind != "feel":
            raise Refused(
                "torque_not_given",
                f"the torque of stage {stage} is not given yet: write it into the limit book first",
                field="stage",
            )
        unit = CANONICAL[STAGE_DIMENSIONS.get(kind, "torque")]
        sign = sign_of(state, joint, told)
        band = tolerance_of(joint, stage)
        return _Pull(joint, facts, bolt, stage, kind, unit, asked or 0.0, *band, again, sign)

    def _in_turn(self, facts: JointFacts, bolt: BoltFacts, stage: int) -> None:
        if facts.next_stage is None:
            waits = facts.waits or "every bolt has its last stage"
            raise Refused("stage_waits", waits, field="stage")
        next_one = self.bolt == facts.next_bolt or (self.sure and bolt.stage == stage - 1)
        if stage != facts.next_stage or not next_one:
            raise Conflict(
                f"bolt {self.bolt} is at stage {bolt.stage}; next is bolt {facts.next_bolt}, "
                f"stage {facts.next_stage}"
            )

    def _pulled(self, pull: _Pull) -> Fastener:
        if pull.kind == "feel":
            return self._felt(pull)
        if pull.kind in READ_OFF:
            return self._read_off(pull)
        turned_on = pull.kind == "angle" and pull.again
        if turned_on and (self.more or pull.bolt.more is not None):
            return self._more(pull)
        if self.act == "clicked":
            return self._clicked(pull)
        wrench = pull.facts.wrench
        if pull.kind == "torque" and (wrench is None or not can_give(pull.kind, wrench)):
            raise Refused("wrench_unfit", "choose the wrench that it was read on", field="wrench")
        self._odd(pull, wrench, pull.asked)
        shows = self._figure(pull)
        ratio = lever_of(wrench, pull.facts.adapter) if pull.kind == "torque" and wrench else 1.0
        set_to = quantity_of(shows, pull.unit) if ratio != 1.0 else None
        return self._torqued(pull, gets=quantity_of(shows / ratio, pull.unit), set_to=set_to)

    def _read_off(self, pull: _Pull) -> Fastener:
        """By its length or by the torque at which it keeps turning."""
        if self.act != "read":
            words = f"stage {pull.stage} {stage_ask(pull.joint, pull.stage)[2]}: read it, type it"
            raise Refused("figure_needed", words, field="typed")
        asked = quantity_of(pull.asked, pull.unit)
        given = ReadOff(pull.kind, self.typed or "", self.free, asked, sure=self.as_typed)
        got = read_off(given, pull.facts.wrench)
        body = self._torqued(pull, gets=got.gets, set_to=got.drawn)
        own = {"wrench": pull.facts.wrench, "free": got.free, "turning": pull.kind == "turning"}
        return body.model_copy(update=own)

    def _felt(self, pull: _Pull) -> Fastener:
        """As tight as its stage asks without a figure, or as loose."""
        state = felt_state(pull.joint, pull.stage)
        if self.act != "clicked" or self.typed is not None or state is None:
            _, _, text = stage_ask(pull.joint, pull.stage)
            words = f"stage {pull.stage} asks for no figure: {text}"
            raise Refused("no_figure", words, field="typed")
        felt = self._plain(pull.joint, state)
        return felt.model_copy(update={"act": "state", "stage": pull.stage})

    def _more(self, pull: _Pull) -> Fastener:
        """Turned on, on top of the angle that it had."""
        had = pull.asked - float(pull.bolt.more or 0)
        turned = self._figure(pull) if self.typed is not None else pull.asked - had
        added, gets = quantity_of(turned, pull.unit), quantity_of(had + turned, pull.unit)
        return self._torqued(pull, gets=gets, added=added)

    def _clicked(self, pull: _Pull) -> Fastener:
        """The wrench clicked where it was to be set, or at the figure at which it really stood."""
        wrench, torque = pull.facts.wrench, pull.kind == "torque"
        setting = setting_for(pull.joint, pull.stage, wrench, pull.facts.adapter)
        if torque and pull.sign.unheard:
            raise Refused("not_heard", f"{pull.joint.name}: {UNHEARD}", field="sign")
        if torque and (setting.set_to is None or setting.gets is None):
            refusal = setting.refusal or "choose a wrench first"
            raise Refused("wrench_unfit", refusal, field="wrench")
        if torque and wrench is not None:
            _wide(wrench, pull)
        set_to, gets = setting.set_to, setting.gets if setting.gets is not None else pull.asked
        if self.typed is not None:
            stood = self._figure(pull)
            self._odd(pull, wrench, setting.set_to or pull.asked)
            ratio = setting.gets / setting.set_to if setting.gets and setting.set_to else 1.0
            set_to, gets = stood if torque else None, stood * ratio
        return self._torqued(
            pull,
            gets=quantity_of(gets, pull.unit),
            set_to=quantity_of(set_to, pull.unit) if set_to is not None else None,
        )

    def _torqued(
        self,
        pull: _Pull,
        *,
        gets: Quantity,
        set_to: Quantity | None = None,
        added: Quantity | None = None,
    ) -> Fastener:
        torque = pull.kind == "torque"
        return Fastener(
            step=self.step,
            joint=pull.joint.id,
            bolt=self.bolt,
            act=self.act,
            tightness="torqued",
            stage=pull.stage,
            asked=quantity_of(pull.asked, pull.unit),
            tolerance_percent=pull.percent,
            tolerance_assumed=pull.assumed,
            set_to=set_to,
            gets=gets,
            added=added,
            sign="read" if self.act == "read" else pull.sign.sign,
            typed=self.typed,
            wrench=pull.facts.wrench if torque else None,
            adapter=pull.facts.adapter if torque else None,
            note=self.note,
        )

    def _figure(self, pull: _Pull) -> float:
        text = self.typed or ""
        parsed = parse(text, pull.kind, pull.unit)
        if parsed.kind != "single" or parsed.nominal is None or parsed.nominal <= 0:
            words = f"'{text}': type one figure above zero, such as 50 Nm"
            raise Refused("bad_number", words, field="typed")
        return float(parsed.nominal)

    def _odd(self, pull: _Pull, wrench: Instrument | None, asked: float) -> None:
        """A question about a torque that the wrench cannot give, or that another unit would
        explain; an angle far from what is asked is asked too.
        """
        typed = self.typed or ""
        if self.as_typed or not typed.strip():
            return
        held_by = wrench if pull.kind == "torque" else None
        check = _check(typed, pull, held_by, asked)
        found = slip_check(check)
        if found.ask and found.slip != "none":
            raise Refused("odd_figure", question(check, found), field="typed")
        if found.ask and held_by is not None:
            read_as = canonical(found.read_as, "torque", "typed")
            if not held_by.covers(read_as):
                raise Refused(
                    "odd_figure",
                    f"{typed}: {held_by.code} gives {held_by.lo} to {held_by.hi} {held_by.unit}. "
                    "Is it right?",
                    field="typed",
                )


def _check(typed: str, pull: _Pull, wrench: Instrument | None, asked: float) -> SlipCheck:
    expected = quantity_of(asked, pull.unit)
    if wrench is not None:
        unset = wrench.model_copy(update={"setting": None})
        asked_of = slip_input(typed, pull.unit, unset, expected, "asked")
        return asked_of.model_copy(update={"resolution": None})
    known = "asked" if pull.kind == "torque" else "roughly"
    return SlipCheck.model_validate(
        {"typed": typed, "unit": pull.unit, "expected": expected, "known": known}
    )


def _wide(wrench: Instrument, pull: _Pull) -> None:
    if not wrench_holds(wrench, pull.percent) and pull.facts.wrench_reason is None:
        raise Refused(
            "wrench_wide",
            f"{wrench.code} holds ±{wrench.mpe_percent} %, the joint asks "
            f"±{decimal_text(pull.percent)} %: another wrench, or go on with a reason",
            field="wrench",
        )


def _not_held(state: BookState, step: Step, hand: Hand) -> None:
    """Refuse whatever is written at a step that waits: dangers always, order until the step is
    begun out of it with a reason.
    """
    for obstacle in obstacles(state, step, hand.listed, hand.now):
        if obstacle.code in ("orient", "last", "laid", "seat", "count"):
            continue  # it is looked at by the end of the step, and needs no free hand before
        if obstacle.by not in ("reason", "nothing") or obstacle.code in ("needed", "must_wait"):
            raise held(step, obstacle, "step")


def _over(joint: Joint, bolt: BoltFacts) -> Refused:
    said = BROKEN if bolt.broken else joint.put_right.over or OVER
    got = f" ({bolt.gets})" if bolt.gets else ""
    why = (
        "does not come back from its last pull" if bolt.broken else f"got more than was asked{got}"
    )
    words = f"bolt {bolt.number} {why}: {said[0].lower()}{said[1:]}"
    return Refused("over", words, field="bolt")
