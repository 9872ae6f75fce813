"""Tools that do not measure: owned, borrowed, missing, broken or lent; and what the plan may count
on.
"""

from pydantic import BaseModel
from sqlalchemy import select

from hollet.core.entries import GearEdited
from hollet.core.errors import Conflict
from hollet.screens.plandesk import Gear
from hollet.services.workshop import SHOP, Workshop
from hollet.store import journal
from hollet.store.models import GearRow

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
    with workshop.database.read() as session:
        rows = session.execute(select(GearRow).order_by(GearRow.id)).scalars()
        return tuple(
            GearView(
                id=r.id,
                name=r.name,
                state=r.state,
                whose=r.whose,
                back_by=r.back_by,
                version=r.version,
            )
            for r in rows
        )


def edit_gear(workshop: Workshop, edited: GearEdited, *, version: int, who: str) -> GearView:
    """Keep what is said of a tool; `version` is the one that was looked at, 0 for a new one."""
    key = edited.name.strip().casefold()
    draft = workshop.draft(SHOP, edited, who)
    with workshop.database.write() as session:
        row = session.get(GearRow, key)
        if (row.version if row else 0) != version:
            raise Conflict(
                f"{edited.name} was edited by somebody else: look again", reason_code="moved_on"
            )
        if row is None:
            row = GearRow(id=key, name=edited.name.strip(), state=edited.state, version=0)
            session.add(row)
        row.state, row.whose, row.back_by, row.version = (
            edited.state,
            edited.whose,
            edited.back_by,
            version + 1,
        )
        journal.append(session, draft)
        view = GearView(
            id=row.id,
            name=row.name,
            state=row.state,
            whose=row.whose,
            back_by=row.back_by,
            version=row.version,
        )
    workshop.tell("", 0)
    return view


def gear_of(workshop: Workshop) -> Gear:
    """What the shop has, as the plan desk asks for it."""
    kinds = frozenset(tool.kind for tool in workshop.tools().values() if not tool.retired)
    return Gear(tools={g.id: g.state for g in all_gear(workshop)}, instruments=kinds)
