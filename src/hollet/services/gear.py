"""Tools that do not measure: owned, borrowed, missing, broken or lent; and what the plan may count
on.
"""

from dataclasses import asdict

from pydantic import BaseModel

from hollet.core.entries import GearEdited
from hollet.core.errors import Conflict
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


def all_gear(workshop: Workshop) -> tuple[GearView, ...]:
    """Every tool that somebody said something about, by name."""

    def read() -> tuple[GearView, ...]:
        with workshop.store.read() as books:
            return tuple(_view(record) for record in books.gear.all())

    return workshop.kept(("gear",), workshop.store.version, read)


def _view(record: GearRecord) -> GearView:
    return GearView.model_validate(asdict(record))


def edit_gear(workshop: Workshop, edited: GearEdited, *, version: int, who: str) -> GearView:
    """Keep what is said of a tool; `version` is the one that was looked at, 0 for a new one."""
    key = edited.name.strip().casefold()
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
    return _view(kept)


def gear_of(workshop: Workshop) -> Gear:
    """What the shop has, as the plan desk asks for it."""
    kinds = frozenset(tool.kind for tool in workshop.tools().values() if not tool.retired)
    return Gear(tools={g.id: g.state for g in all_gear(workshop)}, instruments=kinds)
