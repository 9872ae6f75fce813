"""Builds: made from sheets, listed in the Shop, shown at a bench."""

import json
from collections.abc import Sequence
from dataclasses import replace
from functools import partial

from pydantic import BaseModel

from hollet.core import entries as b
from hollet.core.ageing import with_offers
from hollet.core.book.gates import GATE_LINE, GateAnswer, gate_answers
from hollet.core.book.one_open import OpenItem
from hollet.core.book.open_items import open_items
from hollet.core.entries import Concession
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, NotFound, Unavailable
from hollet.core.procedure.changes import apply
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.drafting import draft
from hollet.core.procedure.planacts import FactAct
from hollet.library.lore import lore
from hollet.screens.bench import Bench, bench_of
from hollet.screens.benches.base import Known
from hollet.screens.frame import BookView, book_view
from hollet.screens.sentences import line_of
from hollet.screens.turned import TurnedView, turned_of
from hollet.services.gear import gear_of
from hollet.services.last_time import last_lines_of
from hollet.services.names import build_rows
from hollet.services.pace import next_time, paces
from hollet.services.sheets import find_sheet
from hollet.services.vehicles import VehicleStanding, vehicle_named, vehicle_of, vehicles
from hollet.services.workshop import Workshop
from hollet.store.records import BuildRecord, PlanRecord, VehicleRecord

__all__ = [
    "BuildCard",
    "GateView",
    "bench",
    "cards",
    "frame",
    "gate",
    "make_build",
    "turned",
]


MINUTE = 16
"""So many letters of a UTC text tell the minute: what only the hour decides (dry, due) is looked at
again each minute.
"""


class BuildCard(BaseModel):
    """One build in the Shop."""

    id: str
    name: str
    vehicle: str
    about: str
    now: str
    frame: BookView
    can: tuple[str, ...]
    bay: str
    clash: str
    broken: int | None = None


class GateView(BaseModel):
    """The ladder: each rung's answer and what is left, in the order to clear."""

    rungs: tuple[GateAnswer, ...]
    nothing: tuple[OpenItem, ...]
    notes: tuple[str, ...]
    line: str


def make_build(
    workshop: Workshop,
    *,
    sheets: Sequence[str],
    name: str,
    vehicle: str,
    about: str,
    who: str,
    build_id: str = "",
    facts: dict[str, str] | None = None,
) -> str:
    """A build with its own copy of the sheets; its first entry carries the whole. All in one
    transaction; the same id and name once more is the same build.

    Raises
    ------
    NotFound, Refused
        No such sheet; the sheets contradict each other; a fact that cannot be.
    """
    found_sheets = [sheet for name in sheets if (sheet := find_sheet(workshop, name)) is not None]
    plan = with_offers(combine_sheets(found_sheets), lore().ageing)
    known = {
        k: v for k, v in _vehicle_facts(workshop, vehicle).items() if k in plan.all_facts()
    } | (facts or {})
    for fact, value in known.items():
        plan = apply(plan, draft(plan, FactAct(act="fact", fact=fact, value=value), set(), who))
    build = build_id or workshop.new_id()
    body = b.PlanEdited(what=f"plan made from {plan.title}"[:200], sheet=plan)
    first = workshop.draft(build, body, who)
    with workshop.store.write() as books:
        known_build = books.builds.get(build)
        if known_build is not None and known_build.name == name:
            return build  # sent again, because its answer was lost
        if known_build is not None:
            raise Conflict("this build is made already", reason_code="id_used")
        found = vehicle_named(books, vehicle) or VehicleRecord(
            workshop.new_id(), vehicle, about, "{}", 1
        )
        books.vehicles.put(replace(found, facts=json.dumps(plan.facts, sort_keys=True)))
        books.builds.put(BuildRecord(build, name, found.id, first.time))
        books.plans.put(PlanRecord(build, plan.model_dump_json(), 1))
        books.log.append(first)
    workshop.tell("", 0)
    return build


def _vehicle_facts(workshop: Workshop, vehicle: str) -> dict[str, str]:
    with workshop.store.read() as books:
        found = vehicle_named(books, vehicle)
        return dict(json.loads(found.facts)) if found else {}


def _card(workshop: Workshop, row: tuple[str, str, str, str], stands: VehicleStanding) -> BuildCard:
    build, name, vehicle, about = row
    now = workshop.now()
    with workshop.held(build) as state:
        made_of = (state.head, now[:MINUTE])
        return BuildCard(
            id=build,
            name=name,
            vehicle=vehicle,
            about=about,
            now=now,
            frame=state.remembered(("frame",), made_of, lambda: book_view(state, now)),
            broken=state.broken,
            can=stands.can(),
            bay=stands.bay or "",
            clash=stands.clash,
        )


def cards(workshop: Workshop) -> tuple[BuildCard, ...]:
    """All builds that can be shown, the one worked on last first."""
    found = [card for card, _ in _shown(workshop) if card is not None]
    return tuple(
        sorted(found, key=lambda c: c.frame.resume.since if c.frame.resume else "", reverse=True)
    )


def unreadable(workshop: Workshop) -> tuple[str, ...]:
    """Builds that cannot even be shown, a sentence each."""
    return tuple(words for _, words in _shown(workshop) if words)


def _shown(workshop: Workshop) -> list[tuple[BuildCard | None, str]]:
    """Each build's card, or why there is none; made anew when its log, its words or a tool moved
    on, and once an hour for what the hour decides.
    """
    heads, now = workshop.heads(), workshop.now()
    tools = tuple((tool.id, tool.version) for tool in workshop.tools().values())
    found, standing = [], vehicles(workshop)
    for row in build_rows(workshop).values():
        stands = standing[row[2]]
        made_of = (heads.get(row[0], 0), row, stands, tools, now[:13])
        make = partial(_made, workshop, row, stands)
        card, words = workshop.kept(("card", row[0]), made_of, make)
        found.append((card.model_copy(update={"now": now}) if card is not None else None, words))
    return found


def _made(
    workshop: Workshop, row: tuple[str, str, str, str], stands: VehicleStanding
) -> tuple[BuildCard | None, str]:
    try:
        return _card(workshop, row, stands), ""
    except Unavailable as error:
        return None, error.message


def frame(workshop: Workshop, build: str) -> BuildCard:
    """One build with its frame."""
    row = build_rows(workshop).get(build)
    if row is None:
        raise NotFound("build", build)
    return _card(workshop, row, vehicle_of(workshop, row[2]))


def bench(workshop: Workshop, build: str, step: str) -> Bench:
    """The bench of one step; what other builds say is read before this one is held."""
    known = Known(paces(workshop), next_time(workshop), last_lines_of(workshop, build))
    with workshop.held(build) as state:
        found = plan_of(state).find_step(step)
        if found is None:
            raise NotFound("step", step)
        tools, gear, now = tuple(workshop.tools().values()), gear_of(workshop), workshop.now()
        moment = now if found.as_run() is not None else now[:MINUTE]  # a running clock never waits
        made = state.remembered(
            ("bench",),
            (
                step,
                state.head,
                workshop.store.version,
                moment,
                tuple(known.paces.values()),
                known[1:],
            ),
            lambda: bench_of(state, found, tools, gear, now, known),
        )
        return made.model_copy(update={"now": now})


def turned(workshop: Workshop, build: str) -> tuple[TurnedView, ...]:
    """What an old build calls done and the rules of today do not."""
    with workshop.held(build) as state:
        return turned_of(state, tuple(workshop.tools().values()))


def gate(workshop: Workshop, build: str) -> GateView:
    """The ladder of gates with everything open."""
    with workshop.held(build) as state:
        tools = tuple(workshop.tools().values())
        items = open_items(state, tools)
        notes = [
            f"{limit.name}, {limit.words()}: assumed"
            for limit in plan_of(state).limit
            if limit.source is None and limit.given
        ]
        notes += [line_of(state, e).text for e in state.all(Concession)]
        return GateView(
            rungs=gate_answers(state, tools, items),
            nothing=tuple(i for i in items if i.blocks == "nothing"),
            notes=tuple(notes),
            line=GATE_LINE,
        )
