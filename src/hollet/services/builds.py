"""Builds: made from a sheet, listed in the Shop, shown at a bench, their limits edited."""

import tomllib
from typing import Any

from pydantic import BaseModel
from sqlalchemy import select

from hollet.core.book import entries as b
from hollet.core.book.bench import Bench, BookView, bench_of, book_view
from hollet.core.book.gates import GATE_LINE, GateAnswer, OpenItem, gate_answers, open_items
from hollet.core.book.measure import results_of
from hollet.core.book.sentences import LogLine, line_of
from hollet.core.book.status import plan_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.limits import Limit
from hollet.core.procedure.sheet import MeasureStep, Sheet, read_sheet
from hollet.library.shelf import sheet_names, sheet_text
from hollet.services.workshop import Workshop
from hollet.store import journal
from hollet.store.models import BuildRow, SheetRow, VehicleRow

__all__ = ["BuildCard", "GateView", "LimitRow", "SheetCard", "bench", "cards", "edit_limit", "frame", "gate", "limits", "make_build",
           "parse_sheet", "save_sheet", "sheet_cards"]  # fmt: skip

MAX_SHEET = 1_000_000


class BuildCard(BaseModel):
    """One build in the Shop."""

    id: str
    name: str
    vehicle: str
    about: str
    now: str
    frame: BookView


class SheetCard(BaseModel):
    """A sheet to make a build from."""

    id: str
    title: str
    about: str
    steps: int
    shipped: bool


class GateView(BaseModel):
    """The ladder: each rung's answer and what is left, in the order to clear."""

    rungs: tuple[GateAnswer, ...]
    nothing: tuple[OpenItem, ...]
    notes: tuple[str, ...]
    line: str


class LimitRow(BaseModel):
    """One figure of the limit book."""

    limit: Limit
    words: str
    steps: tuple[str, ...]


def parse_sheet(text: str) -> Sheet:
    """A sheet from TOML text; refused with line, field and what would be right."""
    if len(text.encode()) > MAX_SHEET:
        raise Refused("too_large", f"the sheet is larger than {MAX_SHEET // 1000} kB: a sheet is text, a few hundred lines", field="text")
    try:
        data = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        raise Refused("sheet_mistake", f"not readable as TOML: {error}", field="text") from error
    except RecursionError as error:
        raise Refused("sheet_mistake", "the sheet is nested too deeply", field="text") from error
    return read_sheet(data, text)


def sheet_cards(workshop: Workshop) -> tuple[SheetCard, ...]:
    """Shipped and uploaded sheets."""
    cards = []
    with workshop.database.read() as session:
        own = [(row.id, row.text) for row in session.execute(select(SheetRow)).scalars()]
    for name, text, shipped in [(n, sheet_text(n), True) for n in sheet_names()] + [(i, t, False) for i, t in own]:
        sheet = parse_sheet(text)
        cards.append(SheetCard(id=name, title=sheet.title, about=sheet.about, steps=len(sheet.step), shipped=shipped))
    return tuple(cards)


def save_sheet(workshop: Workshop, text: str) -> SheetCard:
    """Check and keep an uploaded sheet; nothing is kept of one with a mistake."""
    sheet = parse_sheet(text)
    if sheet.id in sheet_names():
        raise Conflict(f"the id '{sheet.id}' belongs to a sheet that ships: give yours another id", reason_code="id_used")
    with workshop.database.write() as session:
        row = session.get(SheetRow, sheet.id)
        if row is None:
            session.add(SheetRow(id=sheet.id, title=sheet.title, text=text, version=1))
        else:
            row.title, row.text, row.version = sheet.title, text, row.version + 1
    return SheetCard(id=sheet.id, title=sheet.title, about=sheet.about, steps=len(sheet.step), shipped=False)


def _sheet(workshop: Workshop, sheet_id: str) -> Sheet:
    if sheet_id in sheet_names():
        return parse_sheet(sheet_text(sheet_id))
    with workshop.database.read() as session:
        row = session.get(SheetRow, sheet_id)
        if row is None:
            raise NotFound("sheet", sheet_id)
        return parse_sheet(row.text)


def make_build(workshop: Workshop, *, sheet: str, name: str, vehicle: str, about: str, who: str, build_id: str = "") -> str:
    """A build with its own copy of the sheet; its first entry carries the whole. All in one transaction."""
    plan = _sheet(workshop, sheet)
    build = build_id or workshop.new_id()
    body = b.PlanEdited(what=f"plan made from the sheet {plan.title}"[:200], sheet=plan)
    draft = workshop.draft(build, "plan edited", body, who)
    with workshop.database.write() as session:
        if session.get(BuildRow, build) is not None:
            raise Conflict("this build is made already", reason_code="id_used")
        found = session.execute(select(VehicleRow).where(VehicleRow.name == vehicle)).scalar_one_or_none()
        if found is None:
            found = VehicleRow(id=workshop.new_id(), name=vehicle, about=about, version=1)
            session.add(found)
            session.flush()
        session.add(BuildRow(id=build, name=name, vehicle=found.id, made=draft.time, plan=plan.model_dump_json(), version=1))
        session.flush()
        journal.append(session, draft)
    workshop.tell("", 0)
    return build


def _card(workshop: Workshop, row: tuple[str, str, str, str]) -> BuildCard:
    build, name, vehicle, about = row
    with workshop.held(build) as state:
        return BuildCard(id=build, name=name, vehicle=vehicle, about=about, now=workshop.now(), frame=book_view(state))


def _rows(workshop: Workshop, build: str | None = None) -> list[tuple[str, str, str, str]]:
    query = select(BuildRow.id, BuildRow.name, VehicleRow.name, VehicleRow.about).join(VehicleRow, VehicleRow.id == BuildRow.vehicle)
    query = query.where(BuildRow.id == build) if build else query.order_by(BuildRow.made)
    with workshop.database.read() as session:
        return [(r[0], r[1], r[2], r[3]) for r in session.execute(query)]


def cards(workshop: Workshop) -> tuple[BuildCard, ...]:
    """All builds, the one worked on last first."""
    found = [_card(workshop, row) for row in _rows(workshop)]
    return tuple(sorted(found, key=lambda c: c.frame.resume.since if c.frame.resume else "", reverse=True))


def frame(workshop: Workshop, build: str) -> BuildCard:
    """One build with its frame."""
    rows = _rows(workshop, build)
    if not rows:
        raise NotFound("build", build)
    return _card(workshop, rows[0])


def bench(workshop: Workshop, build: str, step: str) -> Bench:
    """The bench of one step."""
    with workshop.held(build) as state:
        found = plan_of(state).find_step(step)
        if found is None:
            raise NotFound("step", step)
        return bench_of(state, found, tuple(workshop.tools().values()))


def gate(workshop: Workshop, build: str) -> GateView:
    """The ladder of gates with everything open."""
    with workshop.held(build) as state:
        tools = tuple(workshop.tools().values())
        items = open_items(state, tools)
        notes = [f"{limit.name}, {limit.words()}: assumed" for limit in plan_of(state).limit if limit.source is None and limit.given]
        notes += [line_of(state, e).text for e in state.entries.values() if e.kind == "concession" and e.id not in state.struck]
        return GateView(rungs=gate_answers(state, tools, items), nothing=tuple(i for i in items if i.blocks == "nothing"),
                        notes=tuple(notes), line=GATE_LINE)  # fmt: skip


def limits(workshop: Workshop, build: str) -> tuple[LimitRow, ...]:
    """The limit book of a build."""
    with workshop.held(build) as state:
        plan = plan_of(state)
        return tuple(
            LimitRow(limit=limit, words=limit.words(), steps=tuple(s.number for s in plan.step if limit.id in _limits_used(s)))
            for limit in plan.limit
        )


def _limits_used(step: Any) -> set[str]:
    used = {getattr(step, key, None) for key in ("amount", "time_limit", "total_limit", "pressure", "pressure_by", "coolant")}
    return {u for u in used if isinstance(u, str)} | {r.limit for r in getattr(step, "result", ())}


def edit_limit(workshop: Workshop, build: str, limit_id: str, changes: dict[str, str | None], *, version: int, who: str,
               entry_id: str, reason: str | None = None) -> tuple[LogLine, tuple[str, ...]]:  # fmt: skip
    """Edit a limit: plan and entry in one transaction. Returns the line and the verdicts that turned, in words.

    Raises
    ------
    Conflict
        The limit was edited since `version`.
    Refused
        A figure cannot be read, or the lower limit lies above the upper.
    """
    with workshop.held(build) as state:
        plan = plan_of(state)
        before = plan.find_limit(limit_id)
        if before is None:
            raise NotFound("limit", limit_id)
        if entry_id in state.entries:
            return line_of(state, state.entries[entry_id]), ()
        if before.version != version:
            raise Conflict(f"{before.name} was edited by somebody else: {before.words()} now", reason_code="moved_on")
        after = before.model_copy(update={**changes, "version": before.version + 1})
        for key in ("lo", "hi", "target"):
            after.figure(key)
        lo, hi = after.figure("lo"), after.figure("hi")
        if lo is not None and hi is not None and lo > hi:
            raise Refused("limits_reversed", "the lower limit lies above the upper limit", field="lo")
        old = _verdicts(workshop, state)
        body = b.PlanEdited(what=before.name, path=f"limit/{limit_id}", before=before, after=after, reason=reason)
        edited = plan.model_copy(update={"limit": tuple(after if x.id == limit_id else x for x in plan.limit)})
        draft = workshop.draft(build, "plan edited", body, who, entry_id=entry_id)
        entry = workshop.write(build, state, draft, plan=edited.model_dump_json())
        new = _verdicts(workshop, state)
        turned = tuple(f"{name}: {old[name]} became {new[name]}" for name in old if new.get(name) != old[name])
        return line_of(state, entry), turned


def _verdicts(workshop: Workshop, state: Any) -> dict[str, str]:
    words = {"too_close": "too close to call"}
    found = {}
    for step in plan_of(state).step:
        if isinstance(step, MeasureStep):
            for result in results_of(state, step):
                if result.readings:
                    found[f"{step.number} {result.name}"] = words.get(result.judgement.verdict, result.judgement.verdict)
    return found
