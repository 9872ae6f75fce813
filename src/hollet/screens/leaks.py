"""Fluids and leaks on one screen: what is under pressure now, each place that leaked, the table."""

from datetime import date

from hollet.core.book.filled import FluidRow, fluid_rows
from hollet.core.book.fuel import Tank, tank_of
from hollet.core.book.leaks import LeakPlace, leak_items, leak_places, open_look
from hollet.core.entries import AttemptStarted, BookState
from hollet.core.entries.status import plan_of
from hollet.core.leaks import LeakJoint, LeakSystem
from hollet.core.procedure.pieces import FluidKind
from hollet.core.procedure.words import RUNGS
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["LeaksView", "leaks_view"]

UNPLACED = "leak:attempt:"


class Looking(View):
    """A look that goes on: since when (UTC), how long it takes before anything is called dry (s),
    and what is under pressure.
    """

    id: str
    fluid: FluidKind
    name: str
    began: str
    hold_s: int
    way: str
    heat: str
    pressure: str
    caution: str
    off: str
    clean: str


class Unplaced(View):
    """A leak seen while it ran, of which nobody has said where: the attempt and its number."""

    attempt: str
    number: int


class LeaksView(View):
    """The title; what is under pressure now; the places; the systems with what is pressed before;
    the table.
    """

    title: str
    looking: tuple[Looking, ...]
    places: tuple[LeakPlace, ...]
    unplaced: tuple[Unplaced, ...]
    rows: tuple[FluidRow, ...]
    tank: Tank | None
    systems: tuple[LeakSystem, ...]
    joints: tuple[LeakJoint, ...]
    rungs: tuple[str, ...]


def leaks_view(state: BookState, today: date) -> LeaksView:
    """Everything about fluids and leaks of a build; the tank where the plan has fuel in it."""
    kinds = list(dict.fromkeys(f.kind for f in plan_of(state).fluid if f.kind is not None))
    systems = tuple(state.lore.system(kind) for kind in kinds)
    looking = tuple(found for s in systems if (found := _looking(state, s)) is not None)
    places = leak_places(state)
    starts = {e.body.attempt: e.body.number for e in state.all(AttemptStarted)}
    tank = tank_of(state, today)
    lost = [i.id.removeprefix(UNPLACED) for i in leak_items(state) if i.id.startswith(UNPLACED)]
    return LeaksView(
        title=_title(places, looking, len(lost)),
        looking=looking,
        places=places,
        unplaced=tuple(Unplaced(attempt=a, number=starts[a]) for a in lost),
        rows=fluid_rows(state),
        tank=tank if "fuel" in kinds or tank.told else None,
        systems=systems,
        joints=state.lore.leak_joint,
        rungs=tuple(name.lower() for name in RUNGS.values()),
    )


def _looking(state: BookState, system: LeakSystem) -> Looking | None:
    begun = open_look(state, system.kind)
    if begun is None:
        return None
    body = begun.body
    return Looking(
        id=begun.id,
        fluid=system.kind,
        name=body.name,
        began=begun.time,
        hold_s=system.hold_s(body.way),
        way=body.way,
        heat=body.heat,
        pressure=f"{body.pressure.value} {body.pressure.unit}" if body.pressure else "",
        caution=system.caution,
        off="Stopped" if body.way == "running" else system.off,
        clean=system.clean,
    )


def _title(places: tuple[LeakPlace, ...], looking: tuple[Looking, ...], lost: int) -> str:
    open_places = [place for place in places if not place.cleared]
    if looking and open_places:
        first = next((p for p in open_places if p.fluid == looking[0].fluid), None)
        if first is not None:
            return f"{first.name}, look {len(first.looks) + 1}: what do you see?"
    if looking:
        return f"{looking[0].name}: what do you see?"
    if lost:
        return "A leak was seen, and nobody has said where"
    if open_places:
        return f"{counted(len(open_places), 'place is', 'places are')} not cleared"
    return "No leak is known" if not places else "Every place that leaked is cleared"
