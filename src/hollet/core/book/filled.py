"""Every fluid of a build: in, primed, bled, level checked; what went in and came out; air that is
got out cycle by cycle, and when to stop; the rung that it shuts.
"""

from typing import Literal

from hollet.core.book.fluids import empty_fluids
from hollet.core.book.fuel import fuel_items
from hollet.core.book.leaks import leak_places
from hollet.core.entries import (
    AttemptEnded,
    AttemptStarted,
    BleedCycle,
    BookState,
    Decision,
    Entry,
    FluidMoved,
    LevelSaid,
    LookBegun,
    LookEnded,
)
from hollet.core.entries.status import plan_of, status_of
from hollet.core.procedure.closings import fills_of
from hollet.core.procedure.pieces import Fluid, FluidKind
from hollet.core.procedure.words import RUNGS
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.steps.heat import FIRED
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.steps.run import attempts_of
from hollet.core.view import View

__all__ = ["FluidRow", "Mark", "bleeding_of", "fluid_rows"]

Mark = Literal["done", "at", "to come", "none"]
BLED: tuple[FluidKind, ...] = ("coolant", "brake", "clutch")
"""Systems that have to be bled; the others clear themselves or run over."""
PRIMED: dict[FluidKind, str] = {"oil": "crank", "fuel": "fuel_on"}
"""The rung whose passing primes a system."""
FAR = 0.05
"""What amounts in and out may differ by, as a share, before it is asked why (rule of thumb)."""
NOTHING, AIR = 3, 5
"""After so many cycles that bring nothing, or air without less of it, another cycle helps no more:
the leak is looked for, or what is the wrong way round.
"""
CLEAR = 2
"""So many clear cycles, one behind the other, and it is bled."""


class Bleeding(View):
    """Cycles of bleeding a system: how many, what the last ones brought, and what is next."""

    cycles: int
    last: tuple[str, ...]
    words: str
    bled: bool
    stop: bool


class FluidRow(View):
    """One fluid: four places on its way, how much in and out and why they differ, what is wrong,
    which rung it shuts and how many below it are `free`, and what it was last seen dry at.
    """

    fluid: FluidKind
    name: str
    grade: str
    filled: Mark
    primed: Mark
    bled: Mark
    level: Mark
    empty: str | None
    amounts: str
    words: str
    shuts: str
    free: int
    dry_at: str
    bleeding: Bleeding


def fluid_rows(state: BookState) -> tuple[FluidRow, ...]:
    """One row a fluid of the plan whose kind is known, in the plan's order."""
    known: dict[FluidKind, Fluid] = {}
    for fluid in plan_of(state).fluid:
        if fluid.kind is not None:
            known.setdefault(fluid.kind, fluid)
    return tuple(_row(state, kind, fluid) for kind, fluid in known.items())


def _row(state: BookState, kind: FluidKind, fluid: Fluid) -> FluidRow:
    bleeding = bleeding_of(state, kind)
    level, level_words = _level(state, kind)
    filled, empty = _filled(state, fluid)
    amounts, why = _amounts(state, kind, fluid)
    moved = state.each(FluidMoved, "fluid", kind)
    grade = next((e.body.grade for e in reversed(moved) if e.body.grade), "")
    shut = _shuts(state, kind)
    bled: Mark = "none" if kind not in BLED else _bled(bleeding)
    words = "; ".join(w for w in (bleeding.words if bleeding.stop else "", level_words, why) if w)
    return FluidRow(
        fluid=kind,
        name=fluid.name,
        grade=grade,
        filled=filled,
        primed=_primed(state, kind),
        bled=bled,
        level=level,
        empty=empty,
        amounts=amounts,
        words=words,
        shuts=RUNGS[shut].lower() if shut is not None else "none",
        free=list(RUNGS).index(shut) if shut is not None else len(RUNGS),
        dry_at=_dry_at(state, kind),
        bleeding=bleeding,
    )


def _bled(bleeding: Bleeding) -> Mark:
    if bleeding.bled:
        return "done"
    return "at" if bleeding.cycles else "to come"


def bleeding_of(state: BookState, kind: FluidKind) -> Bleeding:
    """How far a system is bled since it was filled last."""
    came = [e.body.came for e in state.each(BleedCycle, "fluid", kind)]
    end = came[-NOTHING:]
    bled = len(came) >= CLEAR and all(c == "clear" for c in came[-CLEAR:])
    stuck = len(end) == NOTHING and all(c == "nothing" for c in end)
    airy = len(came) >= AIR and all(c == "air" for c in came[-AIR:])
    words = "not bled yet"
    if stuck or airy:
        words = "stop bleeding: look for the leak, or for what is the wrong way round"
    elif bled:
        words = f"clear, {len(came)} cycles"
    elif came:
        words = f"{len(came)} cycles, last {came[-1]}"
    return Bleeding(
        cycles=len(came), last=tuple(came[-6:]), words=words, bled=bled, stop=stuck or airy
    )


def _filled(state: BookState, fluid: Fluid) -> tuple[Mark, str | None]:
    """Whether it is in, and what it stays empty for."""
    plan = plan_of(state)
    stays = [
        e.body
        for step in plan.step
        if fluid.id in step.drains
        for e in state.each(Decision, "step", step.id)
        if e.body.about == "empty" and e.body.thing == fluid.id
    ]
    fills = fills_of(plan, fluid)
    if any(status_of(state, step).status == "done" for step in fills):
        return "done", None
    if stays:
        return "to come", f"empty on purpose: {stays[-1].reason}"
    if any(empty.fluid == fluid.id for empty in empty_fluids(state)) or fills:
        return "to come", None
    moved = state.each(FluidMoved, "fluid", fluid.kind or "")
    return ("done" if any(e.body.way == "in" for e in moved) else "none"), None


def _primed(state: BookState, kind: FluidKind) -> Mark:
    rung = PRIMED.get(kind)
    runs = [r for s in plan_of(state).step if (r := s.as_run()) is not None and r.rung == rung]
    if rung is None or not runs:
        return "none"
    tries = [a for run in runs for a in attempts_of(state, run)]
    if any(a.passed for a in tries):
        return "done"
    return "at" if tries else "to come"


def _last_run(state: BookState) -> int:
    """The line with which an engine that fired was stopped last."""
    began = {e.body.attempt: e.body.rung for e in state.all(AttemptStarted)}
    ended = [e.seq for e in state.all(AttemptEnded) if began.get(e.body.attempt) in FIRED]
    return max(ended, default=0)


def _level(state: BookState, kind: FluidKind) -> tuple[Mark, str]:
    """A level counts as it was read last, with the unit level, and until it has run since."""
    said: Entry[LevelSaid] | None = next(iter(reversed(state.each(LevelSaid, "fluid", kind))), None)
    if said is None:
        return "to come", ""
    body = said.body
    if body.level == "below" or (body.level == "over" and kind not in ("gear", "axle")):
        return "at", f"level {'below its mark' if body.level == 'below' else 'over its mark'}"
    if body.attitude not in ("level", "on its own base"):
        return "at", f"level read {body.attitude}: read it again, level"
    if said.seq < _last_run(state):
        return "at", "level again: it has run since"
    return "done", ""


def _amounts(state: BookState, kind: FluidKind, fluid: Fluid) -> tuple[str, str]:
    """What is in and came out, in litres, and what is still to be explained."""
    moved = [e.body for e in state.each(FluidMoved, "fluid", kind)]
    fills = (latest(state, step.id) for step in fills_of(plan_of(state), fluid))
    poured = [reading_mean(entry) / 1000 for entry in fills if entry is not None]
    ins = sum([*poured, *(m.amount.figure("volume") / 1000 for m in moved if m.way == "in")])
    outs = sum([m.amount.figure("volume") / 1000 for m in moved if m.way == "out"])
    if not ins and not outs:
        return "", ""
    told = f"{decimal_text(round9(ins))} in"
    if not outs:
        return told, ""
    told += f", {decimal_text(round9(outs))} out"
    why = next((m.words for m in reversed(moved) if m.words), "")
    apart = bool(ins) and abs(ins - outs) > FAR * max(ins, outs)
    return told + (f": {why}" if why else ""), ("say why they differ" if apart and not why else "")


def _shuts(state: BookState, kind: FluidKind) -> str | None:
    """The first rung that it keeps shut, empty, leaking or stale; None where it shuts none."""
    ids = {f.id for f in plan_of(state).fluid if f.kind == kind}
    found = [empty.blocks for empty in empty_fluids(state) if empty.fluid in ids]
    found += [p.blocks for p in leak_places(state) if p.fluid == kind and p.blocks != "nothing"]
    found += [item.blocks for item in fuel_items(state) if kind == "fuel"]
    return next((rung for rung in RUNGS if rung in found), None)


def _dry_at(state: BookState, kind: FluidKind) -> str:
    """What the last look was at that found nothing wet."""
    begun = {e.id: e.body for e in state.each(LookBegun, "fluid", kind)}
    clean = [e for e in state.each(LookEnded, "fluid", kind) if e.body.clean]
    if not clean or clean[-1].body.look not in begun:
        return ""
    look = begun[clean[-1].body.look]
    way = "running" if look.way == "running" else "under pressure"
    return f"seen dry {way}, {look.heat}"
