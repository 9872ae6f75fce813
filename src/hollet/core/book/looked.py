"""The joints that a step looks at again: what is due, what was found, what the step still lacks."""

from collections.abc import Iterator, Sequence

from hollet.core.book.passing import Obstacle, reason_keys
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.quantity import decimal_text
from hollet.core.steps.looks import LookFacts, looks_of, odometer
from hollet.core.steps.tighten import JointFacts, joint_facts
from hollet.core.steps.wrenches import setting_for, stage_ask, wrench_holds
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["LookJoint", "LookTool", "Looks", "looked_at", "unlooked"]


class LookTool(View):
    """A wrench that reaches the figure and holds as narrowly as asked, and what it is set to."""

    id: str
    code: str
    words: str


class LookJoint(View):
    """One joint to look at again; `by_marks`: it was drawn by an angle, and is not pulled."""

    joint: str
    name: str
    bolts: int
    asked: str
    by_marks: bool
    ready: bool
    waits: str
    tools: tuple[LookTool, ...]
    facts: LookFacts | None


class Looks(View):
    """All joints of a step that looks again, and what the odometer reads."""

    odometer: str
    joints: tuple[LookJoint, ...]


def _joints(state: BookState, step: Step) -> Iterator[Joint]:
    """The joints whose recheck it is, as far as anybody has begun them."""
    for joint in plan_of(state).joint:
        if joint.recheck == step.id and joint_facts(state, joint).begun:
            yield joint


def looked_at(state: BookState, step: Step, tools: Sequence[Instrument], now: str) -> Looks | None:
    """What a bench shows of it; None where the step neither looks at a joint again nor follows a
    drive.
    """
    found = tuple(_joint(state, joint, tools, now) for joint in _joints(state, step))
    if not found and step.vehicle != "driven":
        return None
    reads = odometer(state)
    words = f"{decimal_text(reads, 0)} km" if reads is not None else "not read yet"
    return Looks(odometer=words, joints=found)


def _joint(state: BookState, joint: Joint, tools: Sequence[Instrument], now: str) -> LookJoint:
    facts = joint_facts(state, joint)
    kind, _, text = stage_ask(joint, len(joint.stage))
    ready = facts.begun and facts.final
    return LookJoint(
        joint=joint.id,
        name=joint.name,
        bolts=len(facts.bolts),
        asked=text,
        by_marks=kind != "torque",
        ready=ready,
        waits="" if ready else f"not final: {facts.waits or facts.progress}",
        tools=() if kind != "torque" else tuple(_fitting(joint, facts, tools)),
        facts=looks_of(state, joint, now) if ready else None,
    )


def _fitting(joint: Joint, facts: JointFacts, tools: Sequence[Instrument]) -> Iterator[LookTool]:
    own = facts.wrench.id if facts.wrench is not None else None
    for tool in sorted(tools, key=lambda tool: tool.id != own):
        holds = wrench_holds(tool, facts.tolerance)
        if tool.retired or "wrench" not in tool.kind or not holds:
            continue
        setting = setting_for(joint, len(joint.stage), tool, None)
        if setting.refusal is None:
            words = f"set {setting.figure} {setting.unit}"
            yield LookTool(id=tool.id, code=tool.code, words=words)


def unlooked(state: BookState, step: Step, now: str) -> tuple[Obstacle, ...]:
    """What the step still lacks: a joint that was not looked at as often as its sheet says. Of a
    safety joint no reason passes it.
    """
    found = []
    for joint in _joints(state, step):
        facts = looks_of(state, joint, now)
        if not joint.again or (facts is not None and facts.over):
            continue
        left = counted(facts.of - facts.times, "time") if facts is not None else ""
        then = f": {facts.words}" if facts is not None else ""
        words = f"{joint.name} to be looked at again {left}{then}"
        safe = joint.safety is None
        keys = reason_keys("unfinished") if safe else ()
        by = "reason" if safe else "nothing"
        found.append(Obstacle(code="look", words=words, by=by, keys=keys))
    return tuple(found)
