"""The bench of a joint."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.book.passing import reason_keys
from hollet.core.entries import BookState, Key
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import READ_OFF, Joint
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.procedure.pieces import BagLine
from hollet.core.procedure.words import SEATINGS, SIGNS, THREADS, Seating, Sign, ThreadState
from hollet.core.quantities.quantity import decimal_text
from hollet.core.steps.doubted import doubted_bolts
from hollet.core.steps.seating import UNFIT, misfit, seating_of, threads_of
from hollet.core.steps.signs import sign_of
from hollet.core.steps.tighten import JointFacts, joint_facts, joint_in_hand
from hollet.core.steps.wrenches import Setting, can_give, setting_for, stage_ask, wrench_holds
from hollet.core.tightening.generic import NUT_FACTOR
from hollet.core.view import View
from hollet.screens.benches.base import BenchBase
from hollet.screens.benches.group import GroupView, group_view
from hollet.screens.benches.trace import TraceBench, trace_bench

__all__ = ["TightenBench", "tighten_bench"]


class WrenchChoice(View):
    """A wrench for this joint: what to set, and whether it may be used."""

    id: str
    code: str
    name: str
    words: str
    usable: bool
    holds: bool


class CardLine(View):
    """One line of the card of a fastener: what it is about, and the words."""

    about: str
    words: str


class SignView(View):
    """How the bolts of the joint are confirmed, and the ways to say; `unheard`: it is loud, and
    nobody has said another.
    """

    id: Sign
    words: str
    unheard: bool
    ways: dict[Sign, str]


class ThreadsView(View):
    """How the threads are, as it was said last, what is wrong with them, and the choices."""

    words: tuple[str, ...]
    wrong: str | None
    ways: dict[ThreadState, str]


class SeatingView(View):
    """How a wheel's nuts sit, as it was said, what does not belong together, and the choices."""

    words: str | None
    wrong: str | None
    seats: dict[Seating, str]


class TightenBench(View):
    """One bolt at a time; `reads`: its figure is typed, `before`: with the length that it had while
    it was free.
    """

    kind: Literal["tighten"] = "tighten"
    base: BenchBase
    primary: str
    joint: JointFacts
    layout: str
    sides: tuple[str, str] | None
    fastener: str
    treatment: str | None
    source: str | None
    setting: Setting | None
    wrenches: tuple[WrenchChoice, ...]
    wide: str | None
    reads: bool
    before: bool
    bolt_keys: tuple[str, ...]
    doubts: tuple[str, ...]
    group: GroupView | None
    card: tuple[CardLine, ...]
    lengths: tuple[BagLine, ...]
    sign: SignView
    seating: SeatingView | None
    threads: ThreadsView
    trace: TraceBench | None


def tighten_bench(
    state: BookState, step: TightenStep, tools: Sequence[Instrument], base: BenchBase
) -> TightenBench:
    joint = joint_in_hand(state, step)
    assert joint is not None
    facts = joint_facts(state, joint)
    stage = facts.next_stage or max(1, min((b.stage for b in facts.bolts), default=1))
    kind = stage_ask(joint, stage)[0]
    return TightenBench(
        base=base.model_copy(
            update={"seen": max(base.seen, state.seen.get(Key("joint", joint.id), 0))}
        ),
        primary=_pressed(step, joint, facts),
        joint=facts,
        layout=joint.layout.kind,
        sides=joint.sides,
        fastener=joint.fastener,
        treatment=joint.treatment,
        source=joint.source,
        setting=setting_for(joint, facts.next_stage, facts.wrench, facts.adapter)
        if facts.next_stage
        else None,
        wrenches=tuple(
            _choice(joint, stage, facts, tool)
            for tool in tools
            if not tool.retired and can_give(kind, tool)
        ),
        wide=_too_wide(facts) if kind not in READ_OFF else None,
        reads=kind in READ_OFF
        or (facts.wrench is not None and facts.wrench.kind == "indicating wrench"),
        before=kind == "stretch" and not (facts.wrench and facts.wrench.kind == "dial indicator"),
        bolt_keys=reason_keys("bolt"),
        doubts=_doubted(state, joint, tools),
        group=group_view(state, step, tools),
        card=_card(joint),
        lengths=_lengths(joint),
        sign=_sign(state, joint),
        seating=_seating(state, joint),
        threads=_threads(state, joint),
        trace=_trace(state, joint, facts, tools),
    )


def _trace(
    state: BookState, joint: Joint, facts: JointFacts, tools: Sequence[Instrument]
) -> TraceBench | None:
    """Where the wrench in hand speaks for itself, as the shop has it now."""
    named = facts.wrench.id if facts.wrench is not None else None
    wrench = next((t for t in tools if t.id == named and t.device is not None), None)
    return trace_bench(state, joint, facts, wrench.id) if wrench is not None else None


def _threads(state: BookState, joint: Joint) -> ThreadsView:
    said = threads_of(state, joint).values()
    wrong = misfit(state, joint) if any(body.threads in UNFIT for body in said) else None
    return ThreadsView(words=tuple(b.line("") for b in said), wrong=wrong, ways=dict(THREADS))


def _seating(state: BookState, joint: Joint) -> SeatingView | None:
    """Asked of a wheel alone."""
    if joint.safety != "wheels":
        return None
    said = seating_of(state, joint)
    return SeatingView(
        words=said.line("") if said is not None else None,
        wrong=misfit(state, joint),
        seats=dict(SEATINGS),
    )


def _sign(state: BookState, joint: Joint) -> SignView:
    found = sign_of(state, joint)
    told = SIGNS[found.sign] + (f", {found.words}" if found.words else "")
    return SignView(id=found.sign, words=told, unheard=found.unheard, ways=dict(SIGNS))


def _card(joint: Joint) -> tuple[CardLine, ...]:
    """What has to be known of these fasteners beside their torque."""
    one_use = ", ".join(
        f"{use.count or len(joint.layout.names())} × {use.name}, new each time"
        for use in joint.one_use
    )
    lines = (
        ("thread", joint.treatment),
        ("oiled", _oiled(joint)),
        ("one use", one_use or None),
        ("heads", joint.heads),
        ("washer", joint.washer),
        ("original", joint.special),
        ("lock", joint.tab),
        ("holds also", joint.holds_also),
    )
    return tuple(CardLine(about=about, words=words) for about, words in lines if words)


def _oiled(joint: Joint) -> str | None:
    """What oil does to a figure that was given for dry threads: the clamp goes with 1/K."""
    if joint.treatment is None or not joint.treatment.casefold().startswith("dry"):
        return None
    more = round((NUT_FACTOR["dry"] / NUT_FACTOR["oiled"] - 1) * 100)
    return f"on oil the same figure clamps about {more} % more (rule of thumb): wipe it dry"


def _lengths(joint: Joint) -> tuple[BagLine, ...]:
    """Like lengths with the holes that they belong into."""
    by_length: dict[str, list[str]] = {}
    for place, length in joint.length.items():
        by_length.setdefault(length, []).append(place)
    size = joint.fastener.split("×")[1].strip().split()[0] if "×" in joint.fastener else "bolt"
    return tuple(
        BagLine(count=len(places), size=size[:40], length=length, holes=" ".join(places)[:60])
        for length, places in by_length.items()
    )


def _choice(joint: Joint, stage: int, facts: JointFacts, tool: Instrument) -> WrenchChoice:
    """What a wrench is set to for this stage, and whether it may be used."""
    setting = setting_for(joint, stage, tool, facts.adapter)
    told = f"set {setting.figure} {setting.unit}, holds ±{tool.mpe_percent} %"
    if setting.turns or setting.reads_off:
        told = "angle" if setting.turns else f"{tool.lo} to {tool.hi} {tool.unit}"
    words = setting.refusal or told
    return WrenchChoice(
        id=tool.id,
        code=tool.code,
        name=tool.name,
        words=words,
        usable=setting.refusal is None,
        holds=wrench_holds(tool, facts.tolerance),
    )


def _too_wide(facts: JointFacts) -> str | None:
    """The wrench in hand scatters more than the joint allows, and nobody said why that will do."""
    wrench = facts.wrench
    if wrench is None or wrench_holds(wrench, facts.tolerance) or facts.wrench_reason is not None:
        return None
    return (
        f"{wrench.code} holds ±{wrench.mpe_percent} %, the joint asks "
        f"±{decimal_text(facts.tolerance)} %"
    )


def _pressed(step: TightenStep, joint: Joint, facts: JointFacts) -> str:
    """What the large button says: how this bolt is confirmed."""
    if facts.next_stage:
        kind, _, text = stage_ask(joint, facts.next_stage)
        told = {"angle": "Turned", "feel": f"Now {text}"}
        if kind in told:
            return "It is so" if text.startswith("till ") else told[kind]
    if facts.to_mark:
        return "Marked"
    if facts.to_lock:
        return "Locked"
    return f"{step.short or step.title}: done" if facts.final else "It clicked"


def _doubted(state: BookState, joint: Joint, tools: Sequence[Instrument]) -> tuple[str, ...]:
    """Bolts pulled with a wrench found wrong since, in one line for each fault."""
    faults: dict[str, list[str]] = {}
    for bolt, words in sorted(doubted_bolts(state, joint, tools).items()):
        faults.setdefault(words, []).append(str(bolt))
    return tuple(
        (
            f"{'Bolt' if len(bolts) == 1 else 'Bolts'} {', '.join(bolts)}: {words}. Pull anew with "
            "a wrench that is good"
        )
        for words, bolts in faults.items()
    )
