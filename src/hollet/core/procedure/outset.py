"""What a plan says before the first spanner: what ties each unit that moves, what carries what
while it does, and which fluid is let out where and comes back where.
"""

from collections.abc import Sequence, Set
from typing import Literal

from hollet.core.procedure.closings import fills_of
from hollet.core.procedure.facts import applies
from hollet.core.procedure.pieces import Fluid, Tie
from hollet.core.procedure.plan import Selection, known_of
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.ties import TIES_OF, carriers_of, movers, untied_by
from hollet.core.procedure.words import TIES, Carried, SupportKind, TieKind
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["CarrierLine", "FluidLine", "Outset", "TieLine", "outset_of"]

BY: dict[SupportKind, str] = {
    "stand": "stands",
    "jack": "a jack",
    "hook": "the hook",
    "cradle": "a cradle",
    "cart": "the cart",
    "wheels": "its wheels",
    "ramp": "ramps",
    "timber": "timber",
    "helper": "helpers' hands",
    "mounts": "its mounts",
}
"""What carries, as it stands in a list."""
TieState = Literal["parted", "to part", "absent", "goes with it", "unknown"]


class TieLine(View):
    """One tie of a unit: the steps that part it, or why none does."""

    name: str
    unit: str
    state: TieState
    words: str
    unknown: bool


class CarrierLine(View):
    """What carries what once a step is done; only what the step changes."""

    number: str
    title: str
    words: str


class FluidLine(View):
    """A fluid: how much of it, where it runs out, the steps that let it out and fill it."""

    name: str
    amount: str | None
    runs_out: str
    out: tuple[str, ...]
    back: tuple[str, ...]
    words: str


class Outset(View):
    """All of it, with its sum in one line."""

    ties: tuple[TieLine, ...]
    carriers: tuple[CarrierLine, ...]
    fluids: tuple[FluidLine, ...]
    unknown: int
    short: str
    words: str


def outset_of(selection: Selection, settled: Set[str]) -> Outset:
    """The ties, carriers and fluids of the steps that apply."""
    units: dict[Carried, None] = {step.moves: None for step in movers(selection.plan) if step.moves}
    ties = tuple(_tie(selection, settled, unit, kind) for unit in units for kind in TIES_OF[unit])
    carriers = _carriers(selection)
    fluids = tuple(_fluid(selection, fluid) for fluid in selection.plan.fluid)
    unknown = sum(tie.unknown for tie in ties)
    told = [
        counted(len(ties), "tie") + (f", {unknown} unknown" if unknown else "") if ties else "",
        f"carried anew at {counted(len(carriers), 'step')}" if carriers else "",
        counted(len(fluids), "fluid") if fluids else "",
    ]
    return Outset(
        ties=ties,
        carriers=carriers,
        fluids=fluids,
        unknown=unknown,
        short=next((part for part in told if part), ""),
        words="; ".join(part for part in told if part),
    )


def _tie(selection: Selection, settled: Set[str], unit: Carried, kind: TieKind) -> TieLine:
    state, words = _tie_state(selection, settled, unit, kind)
    return TieLine(name=TIES[kind], unit=unit, state=state, words=words, unknown=state == "unknown")


def _tie_state(
    selection: Selection, settled: Set[str], unit: Carried, kind: TieKind
) -> tuple[TieState, str]:
    """How a tie stands: parted by a step, there only perhaps, absent, or nobody says."""
    parting = untied_by(selection.plan, kind)
    perhaps = [step for step in parting if step.id in selection.perhaps]
    if perhaps:
        return "unknown", f"{_named(parting)}: {selection.perhaps[perhaps[0].id]}"
    if parting:
        done = all(step.id in settled for step in parting)
        return ("parted" if done else "to part"), _named(parting)
    said = [(tie, _stands(selection, tie)) for tie in selection.plan.tie]
    for tie, stands in said:
        if (tie.kind, tie.moves) == (kind, unit) and stands == "yes":
            return tie.state, tie.because
    gone = [left for left in selection.left_out if kind in left.step.unties]
    if gone:
        return "absent", gone[0].because
    for tie, stands in said:
        if (tie.kind, tie.moves) == (kind, unit) and stands == "unknown":
            return "unknown", f"not known yet: {tie.because}"
    return "unknown", "no step parts it, and nothing says that it is absent"


def _stands(selection: Selection, tie: Tie) -> str:
    return applies(tie.when, known_of(selection.plan)).answer


def _named(steps: Sequence[Step]) -> str:
    return ", ".join(f"{step.number} {step.short or step.title}" for step in steps)


def _carriers(selection: Selection) -> tuple[CarrierLine, ...]:
    before: dict[Carried, tuple[str, ...]] = {}
    lines = []
    for at in carriers_of(selection.plan.step):
        now = {body: tuple(BY[kind] for kind in by) for body, by in at.by.items()}
        changed = [body for body, by in now.items() if by != before.get(body)]
        words = [
            f"{body}: {' and '.join(now[body])}"
            if now[body]
            else f"{body}: nothing carries it"
            if body in at.lost
            else f"{body}: carried with the rest, or free"
            for body in changed
        ]
        before = now
        if words:
            lines.append(
                CarrierLine(number=at.step.number, title=at.step.title, words="; ".join(words))
            )
    return tuple(lines)


def _fluid(selection: Selection, fluid: Fluid) -> FluidLine:
    """Where a fluid is let out and where it comes back; one that nobody lets out is only a warning
    of what the system still holds.
    """
    plan = selection.plan
    out = tuple(step for step in plan.step if fluid.id in step.drains)
    back = fills_of(plan, fluid)
    if fluid.stays_closed:
        words = "stays closed: nothing of it is opened"
    elif not out:
        words = "not let out: it runs where its circuit is opened"
    else:
        words = f"out at {_named(out)}; " + (
            f"back at {_named(back)}" if back else "no step of this plan fills it"
        )
    return FluidLine(
        name=fluid.name,
        amount=fluid.amount,
        runs_out=fluid.runs_out,
        out=tuple(step.number for step in out),
        back=tuple(step.number for step in back),
        words=words,
    )
