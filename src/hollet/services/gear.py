"""Tools that do not measure: owned, borrowed, missing, broken or lent; and what the plan may count
on.
"""

from dataclasses import asdict
from datetime import date

from pydantic import BaseModel

from hollet.core.entries import Entry, GearEdited
from hollet.core.errors import Conflict
from hollet.core.saying import read_day
from hollet.screens.plan_questions import Gear
from hollet.services.workshop import SHOP, Workshop
from hollet.store.records import GearRecord

__all__ = ["GearView", "all_gear", "edit_gear", "gear_of"]


class GearView(BaseModel):
    """One tool with its state."""

    id: str
    name: str
    state: str
    whose: str | None
    back_by: str | None
    version: int
    due: date | None
    a_day: float | None = None
    substitute: str | None = None


def all_gear(workshop: Workshop) -> tuple[GearView, ...]:
    """Every tool that somebody said something about, by name."""

    def read() -> tuple[GearView, ...]:
        with workshop.held(SHOP) as shop, workshop.store.read() as books:
            said = {name: shop.newest(GearEdited, "gear", name) for name, _ in shop.names("gear")}
            return tuple(_view(record, said.get(record.id)) for record in books.gear.all())

    return workshop.kept(("gear",), workshop.store.version, read)


def _view(record: GearRecord, said: Entry[GearEdited] | None) -> GearView:
    more = {"a_day": said.body.a_day, "substitute": said.body.substitute} if said else {}
    return GearView.model_validate({**asdict(record), "due": _day(record.back_by), **more})


def _day(text: str | None) -> date | None:
    """A day that was understood when it was written; words of older lines stay words."""
    try:
        return date.fromisoformat(text or "")
    except ValueError:
        return None


def edit_gear(workshop: Workshop, edited: GearEdited, *, version: int, who: str) -> GearView:
    """Keep what is said of a tool; `version` is the one that was looked at, 0 for a new one.

    The day by which it goes back is kept as a date.

    Raises
    ------
    Refused
        `bad_day`: no day, and what would be one.
    Conflict
        Somebody said something else of it meanwhile.
    """
    key = edited.name.strip().casefold()
    known = next((tool.back_by for tool in all_gear(workshop) if tool.id == key), None)
    if edited.back_by and edited.back_by != known:
        day = read_day(edited.back_by, workshop.local().date(), "back_by", past=True)
        edited = edited.model_copy(update={"back_by": day.isoformat()})
    draft = workshop.draft(SHOP, edited, who)
    with workshop.store.write() as books:
        old = books.gear.get(key)
        if (old.version if old else 0) != version:
            raise Conflict(
                f"{edited.name} was edited by somebody else: look again", reason_code="moved_on"
            )
        name = old.name if old else edited.name.strip()
        kept = GearRecord(key, name, edited.state, edited.whose, edited.back_by, version + 1)
        books.gear.put(kept)
        books.log.append(draft)
    workshop.tell("", 0)
    return next(tool for tool in all_gear(workshop) if tool.id == key)


def gear_of(workshop: Workshop) -> Gear:
    """What the shop has, as the plan desk asks for it."""
    kinds = frozenset(tool.kind for tool in workshop.tools().values() if not tool.retired)
    return Gear(tools={g.id: g.state for g in all_gear(workshop)}, instruments=kinds)
