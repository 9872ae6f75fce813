"""The card of a joint, to hang over the work: out of the build and the tools of the shop."""

from collections.abc import Iterable, Sequence

from hollet.core.acts.base import step_named
from hollet.core.checking import standing
from hollet.core.entries import BookState
from hollet.core.entries.bolts import Adapter
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.quantity import decimal_text
from hollet.core.steps.tighten import JointFacts, joint_facts, joint_in_hand
from hollet.core.steps.wrenches import setting_for, stage_ask, tolerance_of, wrench_holds
from hollet.core.words import counted
from hollet.exchange.card_pdf import card_pdf
from hollet.exchange.paper import CardBolt, CardJoint, CardStage, TorqueCard
from hollet.services.names import build_names
from hollet.services.workshop import Workshop

__all__ = ["torque_card"]

MOST_WRENCHES, MOST_JOINTS = 3, 9
PATTERNS = {
    "crosswise": "crosswise from the middle",
    "spiral": "in a spiral from the middle",
    "star": "crosswise",
    "order": "in the order of the numbers",
}
Setup = tuple[Instrument, Adapter | None]


def torque_card(workshop: Workshop, build: str, step: str) -> bytes:
    """An A4 page for the joint in hand at a step, black on white; as PDF.

    Raises
    ------
    NotFound
        The step, or a joint at it.
    """
    tools = [t for t in workshop.tools().values() if not t.retired and "wrench" in t.kind]
    with workshop.held(build) as state:
        here = step_named(state, step)
        joint = joint_in_hand(state, here)
        if joint is None:
            raise NotFound("joint", step)
        printed = workshop.local().strftime("%Y-%m-%d %H:%M")
        head = f"{build_names(workshop)[build]}, step {here.number}, printed {printed}, page 1 of 1"
        return card_pdf(_card(state, here, joint, tools, head))


def _card(
    state: BookState, step: Step, joint: Joint, tools: Sequence[Instrument], head: str
) -> TorqueCard:
    facts = joint_facts(state, joint)
    setups = _setups(joint, facts, tools)
    percent, assumed = tolerance_of(joint)
    return TorqueCard(
        title=f"{joint.name}: {counted(len(facts.bolts), 'bolt')}, {PATTERNS[joint.pattern]}",
        about=_about(joint),
        head=head,
        bolts=tuple(CardBolt(bolt.number, bolt.x, bolt.y) for bolt in facts.bolts),
        is_round=joint.layout.kind == "circle",
        sides=joint.sides,
        columns=tuple(_column(setup) for setup in setups),
        stages=tuple(_stage(joint, number, setups) for number in range(1, len(joint.stage) + 1)),
        notes=tuple(_notes(joint, setups)),
        assumed=(
            *((f"±{decimal_text(percent)} % assumed",) if assumed else ()),
            *(("torque assumed: no source",) if joint.source is None else ()),
            *(("number of bolts assumed: count them",) if not facts.counted else ()),
        ),
        joints=tuple(_beside(state, step, joint, tools)),
        caution=step.caution.text if step.caution is not None else "",
    )


def _about(joint: Joint) -> str:
    rounds = (
        "One group through all its stages before the next"
        if joint.in_turn
        else "Each stage right round before the next one begins"
        if len(joint.stage) > 1
        else ""
    )
    one_use = ", ".join(f"new {use.name}" for use in joint.one_use)
    parts = (
        joint.fastener,
        joint.treatment or "",
        f"for one use: {one_use}" if one_use else "",
        rounds,
        f"the last stage waits: {joint.wait_for}" if joint.wait_for else "",
        f"then {joint.tab}"
        if joint.tab
        else "then a stroke of paint over bolt and part"
        if joint.mark
        else "",
    )
    told = [part[:1].upper() + part[1:] for part in parts if part]
    return ". ".join(told) + "." if told else ""


def _setups(joint: Joint, facts: JointFacts, tools: Sequence[Instrument]) -> tuple[Setup, ...]:
    """The wrench in hand without and with its adapter; where none was chosen, those of the shop
    that hold the tolerance and reach a stage.
    """
    if facts.wrench is not None:
        bare: tuple[Setup, ...] = ((facts.wrench, None),)
        return (*bare, (facts.wrench, facts.adapter)) if facts.adapter is not None else bare
    fit = [
        tool
        for tool in tools
        if wrench_holds(tool, facts.tolerance)
        and standing(tool).sign != "outside"
        and any(_set_to(joint, n, (tool, None)) for n in range(1, len(joint.stage) + 1))
    ]
    return tuple((tool, None) for tool in fit[:MOST_WRENCHES])


def _set_to(joint: Joint, stage: int, setup: Setup) -> str | None:
    setting = setting_for(joint, stage, *setup)
    return setting.figure if setting.refusal is None and setting.set_to is not None else None


def _column(setup: Setup) -> str:
    tool, adapter = setup
    if adapter is None:
        return f"Set {tool.code}"
    length = adapter.length.typed or f"{adapter.length.value} {adapter.length.unit}"
    return f"Set {tool.code}, adapter {length}"


def _stage(joint: Joint, number: int, setups: Sequence[Setup]) -> CardStage:
    kind, _, text = stage_ask(joint, number)
    settings = tuple(_set_to(joint, number, setup) or "-" for setup in setups)
    torque = kind == "torque"
    return CardStage(text, settings if torque else (), torque)


def _notes(joint: Joint, setups: Sequence[Setup]) -> Iterable[str]:
    """The sum behind the last setting, how each wrench stands, and where the figures are from."""
    for tool, adapter in setups:
        if adapter is not None:
            working = (
                setting_for(joint, number, tool, adapter).working
                for number in range(len(joint.stage), 0, -1)
            )
            yield "; ".join(next((lines for lines in working if lines), ()))
    for tool in dict.fromkeys(tool for tool, _ in setups):
        yield f"{tool.code}: {tool.lo} to {tool.hi} {tool.unit}, {standing(tool).words}"
    if joint.source is not None:
        yield joint.source


def _beside(
    state: BookState, step: Step, joint: Joint, tools: Sequence[Instrument]
) -> Iterable[CardJoint]:
    """Other joints tightened in the same stage of the work, in its order."""
    plan = plan_of(state)
    names = [name for s in plan.step if s.stage == step.stage for name in s.tightens()]
    others = [o for name in dict.fromkeys(names) if (o := plan.find_joint(name)) is not None]
    for other in [o for o in others if o.id != joint.id][:MOST_JOINTS]:
        facts = joint_facts(state, other)
        last = len(other.stage)
        setups = _setups(other, facts, tools)
        set_to = next(
            (f"{figure}, {s[0].code}" for s in setups if (figure := _set_to(other, last, s))), "-"
        )
        yield CardJoint(
            name=f"{other.name}, {len(facts.bolts)}",
            gets=", ".join(dict.fromkeys(stage_ask(other, n)[2] for n in range(1, last + 1))),
            set_to=set_to,
            how=_how(other),
            source=other.source or "",
            assumed=other.source is None or not facts.counted,
        )


def _how(joint: Joint) -> str:
    told = (
        ", ".join(f"new {use.name}" for use in joint.one_use),
        joint.treatment or "",
        joint.wait_for or "",
    )
    return ", ".join(part for part in told if part)
