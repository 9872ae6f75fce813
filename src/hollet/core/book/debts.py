"""Every fastener that is below its final state: what it waits for, and what closes over it next."""

from collections.abc import Iterator
from typing import Literal

from pydantic import computed_field

from hollet.core.book.passing import unsettled_before
from hollet.core.entries import BookState, Confirmed
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.placing import RANK
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step, blocks_of, is_danger
from hollet.core.steps.bolt import BoltFacts
from hollet.core.steps.tighten import JointFacts, joint_facts
from hollet.core.steps.wrenches import stage_ask
from hollet.core.view import View
from hollet.core.words import capital, counted

__all__ = ["AgainDue", "BoltState", "Debt", "DebtGroup", "Debts", "debts_behind", "debts_of"]

Closing = Literal["cover", "fluid", "rung", "nothing"]
HIDES = ("access closes", "spill")
"""Kinds of reason by which a step that comes later shuts bolts away."""
CLOSES = {
    "power_on": "Power comes on",
    "fuel_on": "Fuel comes on",
    "crank": "The crank turns",
    "fire": "It fires",
    "run_on": "It runs on",
    "gear": "A gear goes in",
    "drive": "The wheels touch the ground",
    "nothing": "Nothing closes over these",
}
"""What shuts a bolt away that no cover and no fluid does, by the first rung that it shuts."""


class BoltState(View):
    """One bolt as a strip draws it; `state` is one word for how it stands."""

    number: int
    state: Literal["final", "stage", "hand", "snug", "loosened", "out", "empty", "unlocked", "held"]
    stage: int
    stages: int
    words: str


class Debt(View):
    """One joint below its final state. `alone`: it waits for the mechanic alone, not for something
    else; `ended`: what it waits for was so, and is so no more.
    """

    joint: str
    name: str
    step: str
    step_number: str
    bolts: tuple[BoltState, ...]
    left: int
    unlocked: int
    next_bolt: int | None
    waits: str
    reason: str
    alone: bool
    ended: str | None
    safety: bool

    @computed_field
    @property
    def size(self) -> str:
        """How many bolts it has, in words."""
        return counted(len(self.bolts), "bolt")


class DebtGroup(View):
    """Joints over which one thing closes next: a step, or a rung; `danger`: nothing lets it close
    over them but the thing itself.
    """

    id: str
    closing: Closing
    title: str
    step: str | None
    danger: bool
    debts: tuple[Debt, ...]

    @computed_field
    @property
    def left(self) -> int:
        """How many bolts are behind it."""
        return sum(debt.left for debt in self.debts)


class AgainDue(View):
    """A joint that is final and is looked at again."""

    joint: str
    name: str
    bolts: int
    step: str
    step_number: str
    title: str


class Debts(View):
    """All of it: the groups in the order in which the build closes over them, what is due again,
    and how many joints are to come that nobody has begun.
    """

    groups: tuple[DebtGroup, ...]
    again: tuple[AgainDue, ...]
    to_come: int
    to_come_bolts: int

    @computed_field
    @property
    def left(self) -> int:
        """How many bolts are not final."""
        return sum(group.left for group in self.groups)

    @computed_field
    @property
    def unlocked(self) -> int:
        """How many have all but their lock or their mark."""
        return sum(debt.unlocked for group in self.groups for debt in group.debts)


def debts_of(state: BookState, now: str) -> Debts:
    """Every joint that is begun and not final, or was passed over, by what closes over it."""
    plan = plan_of(state)
    place = {step.id: k for k, step in enumerate(plan.step)}
    groups: dict[tuple[int, int, str], tuple[DebtGroup, list[Debt]]] = {}
    again: list[AgainDue] = []
    to_come = bolts_to_come = 0
    for joint, step, facts in _tightened(state, plan):
        if facts.begun and facts.final:
            again.extend(_again(state, plan, joint, facts))
            continue
        if not facts.begun and not _passed(state, step):
            if status_of(state, step).status not in SETTLED:
                to_come, bolts_to_come = to_come + 1, bolts_to_come + len(facts.bolts)
            continue
        group, rank = _closes_over(state, plan, step)
        key = (*rank, group.id) if group.step is None else (0, place[group.step], group.id)
        groups.setdefault(key, (group, []))[1].append(_debt(state, joint, step, facts, now))
    return Debts(
        groups=tuple(
            group.model_copy(update={"debts": tuple(found)})
            for _, (group, found) in sorted(groups.items(), key=lambda item: item[0])
        ),
        again=tuple(again),
        to_come=to_come,
        to_come_bolts=bolts_to_come,
    )


def debts_behind(state: BookState, step: Step, now: str) -> DebtGroup | None:
    """What is not final where this step closes over it."""
    plan = plan_of(state)
    hidden = (plan.find_step(x.step) for x in step.after if x.kind in HIDES)
    if not any(other is not None and other.tightens() for other in hidden):
        return None
    return next((g for g in debts_of(state, now).groups if g.step == step.id), None)


def _tightened(state: BookState, plan: Plan) -> Iterator[tuple[Joint, Step, JointFacts]]:
    """Each joint that some step tightens, with the first such step to come, else its first."""
    for joint in plan.joint:
        steps = [step for step in plan.step if joint.id in step.tightens()]
        if steps:
            open_ = [step for step in steps if status_of(state, step).status not in SETTLED]
            yield joint, (open_ or steps)[0], joint_facts(state, joint)


def _passed(state: BookState, step: Step) -> bool:
    """Whether its tightening was passed over, as far as anybody can tell."""
    return status_of(state, step).status in ("done", "skipped", "not_applicable")


def _again(state: BookState, plan: Plan, joint: Joint, facts: JointFacts) -> Iterator[AgainDue]:
    step = plan.find_step(joint.recheck)
    if step is not None and any(bolt.recheck for bolt in facts.bolts):
        yield AgainDue(
            joint=joint.id,
            name=joint.name,
            bolts=len(facts.bolts),
            step=step.id,
            step_number=step.number or "",
            title=step.title,
        )


def _closes_over(state: BookState, plan: Plan, step: Step) -> tuple[DebtGroup, tuple[int, int]]:
    """What shuts a step's bolts away next: the first step to come that hides them or pours over
    them, else the first rung that they shut.
    """
    for other in plan.step:
        for link in other.after:
            hides = link.step == step.id and link.kind in HIDES
            if not hides or status_of(state, other).status in SETTLED:
                continue
            fluid = link.kind == "spill"
            after = "goes in over these" if fluid else "nobody reaches these"
            group = DebtGroup(
                id=f"step:{other.id}",
                closing="fluid" if fluid else "cover",
                title=f"{other.number} {other.title}: {after}",
                step=other.id,
                danger=is_danger(plan, link),
                debts=(),
            )
            return group, (0, 0)
    rung = blocks_of(plan, step)
    closing: Closing = "nothing" if rung == "nothing" else "rung"
    group = DebtGroup(
        id=f"rung:{rung}",
        closing=closing,
        title=CLOSES[rung],
        step=None,
        danger=closing == "rung",
        debts=(),
    )
    return group, (1, RANK[rung])


def _debt(state: BookState, joint: Joint, step: Step, facts: JointFacts, now: str) -> Debt:
    bolts = tuple(_bolt(joint, facts, bolt) for bolt in facts.bolts)
    waits, reason, alone = _waits(state, joint, step, facts, now)
    return Debt(
        joint=joint.id,
        name=joint.name,
        step=step.id,
        step_number=step.number or "",
        bolts=bolts,
        left=sum(bolt.state != "final" for bolt in bolts) or len(bolts),
        unlocked=sum(bolt.state == "unlocked" for bolt in bolts),
        next_bolt=facts.next_bolt,
        waits=waits,
        reason=reason,
        alone=alone,
        ended=_ended(state, joint, step),
        safety=joint.safety is not None,
    )


def _waits(
    state: BookState, joint: Joint, step: Step, facts: JointFacts, now: str
) -> tuple[str, str, bool]:
    """What it waits for, more about it, and whether that is the mechanic alone."""
    before = unsettled_before(state, step, now)
    if before:
        return capital(before[0].title or before[0].words), before[0].words, False
    empty = next((bolt for bolt in facts.bolts if bolt.empty is not None), None)
    if empty is not None and all(bolt.final or bolt.empty is not None for bolt in facts.bolts):
        return capital(empty.empty or ""), f"bolt {empty.number} is left empty for it", False
    if facts.condition is not None:
        return capital(facts.condition), "the last stage waits for it", False
    stage = facts.next_stage
    if stage is not None and stage_ask(joint, stage)[0:2] == ("torque", None):
        return "Book figure", f"stage {stage} is not given", False
    if not facts.begun:
        return "You", "passed over: nobody has said that it holds", True
    return "You", _yours(joint, facts), True


def _yours(joint: Joint, facts: JointFacts) -> str:
    """What is left to do by hand."""
    if facts.to_mark:
        return "torqued, not marked"
    if facts.to_lock is not None:
        return f"torqued, not locked: {facts.to_lock}"
    if facts.next_stage is not None:
        return f"stage {facts.next_stage} of {len(facts.stages)}, {_ask(joint, facts.next_stage)}"
    return facts.waits or (f"to {joint.final}" if joint.final != "torqued" else facts.progress)


def _ask(joint: Joint, stage: int) -> str:
    return stage_ask(joint, stage)[2]


def _ended(state: BookState, joint: Joint, step: Step) -> str | None:
    """What a joint waits for that was so once, and by which line it ended."""
    load = state.live("load")
    pressed = [e for e in state.each(Confirmed, "step", step.id) if e.body.what == joint.wait_for]
    if joint.wait_for is None or not pressed or not load or load[-1].seq < pressed[-1].seq:
        return None
    after = next(line for line in load if line.seq > pressed[-1].seq)
    return f"“{joint.wait_for}” was so, till {after.body.line('')}"


def _bolt(joint: Joint, facts: JointFacts, bolt: BoltFacts) -> BoltState:
    state, words = _stands(joint, facts, bolt)
    return BoltState(
        number=bolt.number, state=state, stage=bolt.stage, stages=len(joint.stage), words=words
    )


STATES: dict[str, Literal["hand", "snug", "loosened", "out", "empty"]] = {
    "by hand": "hand",
    "snug": "snug",
    "cinched": "snug",
    "loosened again": "loosened",
    "left out on purpose": "empty",
}


def _stands(
    joint: Joint, facts: JointFacts, bolt: BoltFacts
) -> tuple[
    Literal["final", "stage", "hand", "snug", "loosened", "out", "empty", "unlocked", "held"], str
]:
    if bolt.final and facts.begun:
        return "final", "final"
    if bolt.early or bolt.over or bolt.used or bolt.verdict in ("outside", "too_close"):
        return "held", bolt.words or "to be put right"
    if bolt.stage == len(joint.stage):
        return "unlocked", "torqued, its lock or mark not set"
    if bolt.stage:
        return "stage", f"stage {bolt.stage} of {len(joint.stage)}"
    return STATES.get(bolt.tightness, "out"), bolt.tightness
