"""Tightening: which bolt is next, what waits to be put right, when the joint is final."""

from collections.abc import Iterable, Sequence

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.entries import (
    Adapter,
    BookState,
    Confirmed,
    Decision,
    Done,
    Entry,
    Fastener,
    Key,
    PlanEdited,
)
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.sheet import Sheet
from hollet.core.steps.bolt import LOOSE, BoltFacts, advice, bolt_facts
from hollet.core.steps.conditions import condition_of, newest_load, recheck_due
from hollet.core.steps.counting import count_of
from hollet.core.steps.groups import group_with, too_early
from hollet.core.steps.seating import misfit
from hollet.core.steps.spent import with_past
from hollet.core.steps.wrenches import ASSUMED_TOLERANCE, stage_ask, stage_figure, tolerance_of

__all__ = ["JointFacts", "StageFacts", "acts_since_out", "joint_facts", "joint_in_hand"]


class StageFacts(BaseModel):
    """One round: what is asked, how many bolts have it."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    number: int
    kind: str
    figure: str
    text: str
    done: int

    @computed_field
    @property
    def turns(self) -> bool:
        """Whether it asks for an angle, not for a torque."""
        return self.kind == "angle"


class JointFacts(BaseModel):
    """The joint as it stands; `ahead` are the bolts of the stage in hand that follow each other
    from here, the next one first. `proves`: what waits is a proof of the group drawn down last.
    `to_lock`: what locks the next bolt, where that alone is left. `counted`: somebody knows that it
    has so many bolts; until then it is not final. `bagged`: as many came off into bags.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    name: str
    bolts: tuple[BoltFacts, ...]
    stages: tuple[StageFacts, ...]
    begun: bool
    final: bool
    next_bolt: int | None = None
    next_stage: int | None = None
    ahead: tuple[int, ...] = ()
    to_mark: bool = False
    to_lock: str | None = None
    waits: str | None = None
    condition: str | None = None
    proves: bool = False
    counted: bool = True
    bagged: int | None = None
    version: int = 1
    final_words: str = ""
    last_bolt: int | None = None
    put_right: tuple[str, ...] = ()
    outside: tuple[int, ...] = ()
    progress: str = ""
    tolerance: float = ASSUMED_TOLERANCE
    tolerance_assumed: bool = True
    wrench: Instrument | None = None
    adapter: Adapter | None = None
    wrench_reason: str | None = None


def joint_facts(state: BookState, joint: Joint) -> JointFacts:
    """The whole joint from the live acts on it; remembered until one is added or struck, or its
    steps move on.
    """
    group = group_with(plan_of(state), joint.id)
    place = (group.hand, *group.set_by) if group is not None else ()
    named = state.remembered(("joint steps",), 0, lambda: _steps_of_joints(plan_of(state)))
    off = state.remembered(("joint off",), 0, lambda: _steps_off(plan_of(state)))
    again = (joint.recheck,) if joint.recheck else ()
    steps = (*named.get(joint.id, ()), *off.get(joint.id, ()), *again, *place)
    fingerprint = (
        state.seen.get(Key("joint", joint.id), 0),
        *(state.seen.get(Key("step", step), 0) for step in steps),
        *(newest_load(state) if joint.wait_for is not None else ()),
    )
    return state.remembered(
        ("joint", joint.id),
        fingerprint,
        lambda: _joint_facts(state, joint, named.get(joint.id, ())),
    )


def joint_in_hand(state: BookState, step: BaseStep) -> Joint | None:
    """The joint of a step that is worked on: of several the first that is not final, in the order
    in which they are locked.
    """
    named = (plan_of(state).find_joint(name) for name in step.tightens())
    joints = [joint for joint in named if joint is not None]
    last = joints[-1] if joints else None
    return next((joint for joint in joints if not joint_facts(state, joint).final), last)


def _steps_of_joints(plan: Sheet) -> dict[str, tuple[str, ...]]:
    """The tightening steps of each joint."""
    found: dict[str, tuple[str, ...]] = {}
    for step in plan.step:
        for joint in step.tightens():
            found[joint] = (*found.get(joint, ()), step.id)
    return found


def _steps_off(plan: Sheet) -> dict[str, tuple[str, ...]]:
    """The steps at which each joint comes off."""
    found: dict[str, tuple[str, ...]] = {}
    for step in plan.step:
        for joint in step.takes_out():
            found[joint] = (*found.get(joint, ()), step.id)
    return found


def acts_since_out(state: BookState, joint: Joint) -> tuple[bool, list[Entry[Fastener]]]:
    """Whether the joint was ever taken out, and the acts on its bolts since; or since another
    number was counted: what was bolt 3 of ten is nobody knows which of twelve.
    """
    out = state.newest(Done, "joint", joint.id)
    edits = reversed(state.each(PlanEdited, "plan"))
    drawn = next((e for e in edits if any(c.redrawn() == joint.id for c in e.body.changes)), None)
    since = max((e.seq for e in (out, drawn) if e is not None), default=0)
    acts = state.each(Fastener, "joint", joint.id)
    return out is not None, [act for act in acts if act.seq > since]


def _bolts(state: BookState, joint: Joint) -> tuple[BoltFacts, ...]:
    out, acts = acts_since_out(state, joint)
    every = state.each(Fastener, "joint", joint.id)
    last_out = state.newest(Done, "joint", joint.id)
    decided = state.each(Decision, "joint", joint.id)
    passed = [(d.body.bolt, d.body.stage) for d in decided if d.body.about == "pass_over"]
    places = joint.layout.places()

    def bolt(number: int, place: str) -> BoltFacts:
        own = [act for act in acts if act.body.bolt == number]
        over = frozenset(stage for bolt, stage in passed if bolt == number and stage is not None)
        facts = state.remembered(
            ("bolt", joint.id, str(number)),
            (out, tuple(act.id for act in own), over),
            lambda: bolt_facts(joint, number, (place, places[place]), own, out=out, passed=over),
        )
        mine = [act for act in every if act.body.bolt == number]
        return with_past(joint, facts, mine, last_out.seq if last_out else 0)

    return tuple(bolt(number, place) for number, place in enumerate(joint.sequence(), 1))


def _stages(joint: Joint, bolts: Sequence[BoltFacts]) -> tuple[StageFacts, ...]:
    asks = ((k, *stage_ask(joint, k)) for k in range(1, len(joint.stage) + 1))
    return tuple(
        StageFacts(
            number=k,
            kind=kind,
            figure=stage_figure(kind, asked, text),
            text=text,
            done=sum(bolt.stage >= k for bolt in bolts),
        )
        for k, kind, asked, text in asks
    )


def _between(state: BookState, joint: Joint, facts: JointFacts, steps: Sequence[str]) -> str | None:
    """What is proven once a group is drawn down and before the next is begun, and nobody has seen
    since its last pull.
    """
    if not joint.in_turn or joint.between is None:
        return None
    last = len(joint.stage)
    for group in joint.groups():
        bolts = [facts.bolts[number - 1] for number in group]
        if min(b.stage for b in bolts) < last:
            return None
        words = f"{joint.between} ({' and '.join(b.place for b in bolts)})"
        pulled = max(state.entries[b.entry].seq for b in bolts if b.entry is not None)
        seen = (e for step in steps for e in state.each(Confirmed, "step", step))
        if not any(e.body.what == words and e.seq > pulled for e in seen):
            return words
    return None


def _joint_facts(state: BookState, joint: Joint, steps: tuple[str, ...]) -> JointFacts:
    bolts = _bolts(state, joint)
    begun = any(bolt.tightness not in ("as found", "out") for bolt in bolts)
    stages, waits = _stages(joint, bolts), condition_of(state, joint, steps)
    due, last = recheck_due(state, joint), len(joint.stage) - 1
    group = group_with(plan_of(state), joint.id)

    def with_dues(bolt: BoltFacts) -> BoltFacts:
        if bolt.tightness == "as found":  # not final with the others once one of them is pulled
            return bolt.model_copy(update={"final": bolt.final and not begun})
        held = waits is not None and bolt.stage == last
        early = too_early(state, group, _pulled_by(state, joint, bolt))
        final = bolt.final and not early
        own = {"waits": held, "recheck": due and final, "final": final, "early": early}
        return bolt.model_copy(update=own | ({"todo": "loosen"} if early else {}))

    bolts = tuple(map(with_dues, bolts))
    wrench = _wrench(state, joint, steps)
    percent, assumed = tolerance_of(joint)
    count = count_of(state, joint)
    facts = JointFacts(
        id=joint.id,
        name=joint.name,
        bolts=bolts,
        stages=stages,
        begun=begun,
        final=begun and all(bolt.final for bolt in bolts) and count.known,
        counted=count.known,
        bagged=count.bagged,
        version=joint.version,
        tolerance=percent,
        tolerance_assumed=assumed,
        wrench=wrench.wrench if wrench else None,
        adapter=wrench.adapter if wrench else None,
        wrench_reason=wrench.reason if wrench else None,
        progress=_progress(bolts, stages) + count.words,
        final_words=_final_words(joint, stages),
        condition=waits if min(bolt.stage for bolt in bolts) >= last else None,
        last_bolt=_last_pulled(state, joint),
    )
    wrong = misfit(state, joint)
    if wrong is not None:
        own = {"final": False, "progress": "nut, wheel and centring do not belong together"}
        return facts.model_copy(update=own | _held(joint, facts, (), wrong))
    between = _between(state, joint, facts, steps)
    if between is not None:
        facts = facts.model_copy(update={"condition": between, "proves": True, "final": False})
    return facts if facts.final else facts.model_copy(update=_lead(joint, facts))


def _wrench(state: BookState, joint: Joint, steps: Sequence[str]) -> Decision | None:
    """The wrench that was chosen for the joint; else the one in hand at its step, from the joint of
    the group that was locked before.
    """
    own = state.each(Decision, "joint", joint.id)
    near = [e for step in steps for e in state.each(Decision, "step", step)]
    chosen = (e.body for found in (own, near) for e in reversed(found))
    return next((body for body in chosen if body.about == "wrench"), None)


def _pulled_by(state: BookState, joint: Joint, bolt: BoltFacts) -> Entry[Fastener] | None:
    """The act that left a bolt as it is."""
    acts = state.each(Fastener, "joint", joint.id)
    return next((act for act in acts if act.id == bolt.entry), None)


def _last_pulled(state: BookState, joint: Joint) -> int | None:
    """The bolt pulled last, where it was pulled to a torque: it can be checked with the wrench."""
    pulled = [e.body for e in state.each(Fastener, "joint", joint.id) if e.body.stage]
    if not pulled or stage_ask(joint, pulled[-1].stage or 1)[0] != "torque":
        return None
    return pulled[-1].bolt


def _open(bolt: BoltFacts) -> bool:
    """Whether a bolt waits to be put right or passed over."""
    return bolt.verdict in ("outside", "too_close") and not bolt.passed_over


def _held(joint: Joint, facts: JointFacts, outside: Sequence[int], waits: str) -> dict[str, object]:
    advised = tuple(advice(joint, facts.bolts[number - 1]) for number in outside)
    return {"outside": tuple(outside), "put_right": advised, "waits": waits}


def _filled(bolts: Iterable[BoltFacts]) -> tuple[BoltFacts, ...]:
    """Those whose hole is not left empty for something that is still to come."""
    return tuple(bolt for bolt in bolts if bolt.empty is None)


def _in_hand(joint: Joint, facts: JointFacts) -> tuple[BoltFacts, ...]:
    """The bolts that are drawn down together now: one group, where groups go through all their
    stages in turn; else all of them.
    """
    groups = joint.groups() if joint.in_turn else ()
    of_group = (_filled(facts.bolts[number - 1] for number in group) for group in groups)
    last = len(facts.stages)
    in_hand = next((g for g in of_group if g and min(b.stage for b in g) < last), facts.bolts)
    return _filled(in_hand) or facts.bolts


def _lead(joint: Joint, facts: JointFacts) -> dict[str, object]:
    """What comes next on a joint that is not final: the next bolt, or what has to be put right."""
    bolts = facts.bolts
    early = [bolt.number for bolt in bolts if bolt.early]
    if early:
        waits = f"bolt {early[0]} was tight before the place was found: loosen it"
        return _held(joint, facts, early, waits)
    in_hand = _in_hand(joint, facts)
    reached = min(bolt.stage for bolt in in_hand)
    if reached < len(facts.stages):
        return _lead_stage(joint, facts, in_hand, reached)
    outside = [
        b.number
        for b in bolts
        if not b.passed_over and (b.over or (_open(b) and b.stage == max(reached, 1)))
    ]
    if outside:
        waits = f"bolt {outside[0]} waits to be put right or passed over"
        return _held(joint, facts, outside, waits)
    empty = next((b for b in bolts if b.empty is not None), None)
    if empty is not None:
        return _held(joint, facts, (), f"bolt {empty.number} is left empty for {empty.empty}")
    unmarked = next((b.number for b in bolts if joint.mark and not b.marked), None)
    if unmarked is not None:
        return {"next_bolt": unmarked, "to_mark": True}
    unlocked = next((b.number for b in bolts if joint.tab and not b.locked), None)
    if unlocked is not None:
        return {"next_bolt": unlocked, "to_lock": joint.tab}
    if not facts.counted:
        return _held(joint, facts, (), f"{joint.name}: count them before they are called final")
    return {}


def _lead_stage(
    joint: Joint, facts: JointFacts, bolts: Sequence[BoltFacts], reached: int
) -> dict[str, object]:
    """The next bolt of a round; a round begins only when every bolt of the one before is right."""
    stage = reached + 1
    behind = [b for b in bolts if b.stage == reached]
    blocked = [b.number for b in behind if _open(b) and b.stage]
    fresh = [b for b in behind if (b.over or b.used) and b.stage == 0]
    if fresh:  # loosened or taken out, and not replaced yet
        why = "is for one use and had it" if fresh[0].used else "got too much"
        why = "does not come back from its last pull" if fresh[0].broken else why
        waits = f"bolt {fresh[0].number} {why}: a fresh one in its place first"
        return _held(joint, facts, [b.number for b in fresh], waits)
    broken = next((b for b in bolts if b.broken and not b.passed_over), None)
    if broken is not None:
        waits = f"the next waits: bolt {broken.number} {broken.words.removeprefix('outside, ')}"
        return _held(joint, facts, [broken.number], f"{waits}. It comes out first")
    if len(behind) == len(bolts) and blocked:
        waits = f"stage {stage} waits until bolt {blocked[0]} is put right or passed over"
        return _held(joint, facts, blocked, waits)
    if facts.condition and facts.proves:
        return _held(joint, facts, blocked, f"the next waits: {facts.condition}")
    if facts.condition and stage == len(facts.stages):
        return _held(joint, facts, blocked, f"the last stage waits: {facts.condition}")
    live = [b.number for b in bolts if not b.passed_over and (b.over or _open(b))]
    return {
        **_held(joint, facts, live, ""),
        "waits": None,
        "next_bolt": behind[0].number,
        "next_stage": stage,
        "ahead": tuple(b.number for b in behind),
    }


def _final_words(joint: Joint, stages: tuple[StageFacts, ...]) -> str:
    """What is final for this joint, such as "torqued at stage 4 and marked"."""
    words = f"torqued at stage {len(stages)}" if joint.final == "torqued" else joint.final
    return (
        words
        + (" and marked" if joint.mark else "")
        + (f", its lock set ({joint.tab})" if joint.tab else "")
        + (f", {joint.wait_for}" if joint.wait_for else "")
    )


def _progress(bolts: Sequence[BoltFacts], stages: Sequence[StageFacts]) -> str:
    """Such as "5 of 10 at stage 2"."""
    empty = sum(bolt.empty is not None for bolt in bolts)
    left = f", {empty} left empty on purpose" if empty else ""
    highest = max(bolt.stage for bolt in bolts)
    if highest == 0:
        loose = sum(bolt.tightness in LOOSE for bolt in bolts)
        loose_words = f"{loose} of {len(bolts)} loose" if loose else f"{len(bolts)} as found"
        return loose_words + left
    count = sum(bolt.stage == highest for bolt in bolts)
    if count == len(bolts) and highest == len(stages):
        return f"all {count} at stage {highest}, {sum(not b.final for b in bolts)} not final"
    return f"{count} of {len(bolts)} at stage {highest}{left}"
