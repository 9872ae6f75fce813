"""Parts and orders of a build."""

from pydantic import BaseModel

from hollet.core.book.arrivals import Arrival
from hollet.core.book.needs import arrival_for, need_named
from hollet.core.entries import SupplierNoted
from hollet.core.errors import NotFound
from hollet.core.saying import WantedLine, read_wanted
from hollet.screens.partsdesk import PartsView, ShopSays, parts_view
from hollet.services.box import in_the_box
from hollet.services.builds import MINUTE
from hollet.services.workshop import SHOP, Workshop

__all__ = ["WantedLook", "arrival", "desk", "wanted"]


class WantedLook(BaseModel):
    """What a typed line means."""

    line: WantedLine


def desk(workshop: Workshop, build: str) -> PartsView:
    """The parts desk as it stands today."""
    today, now = workshop.local().date(), workshop.now()
    notes, spares = _notes(workshop), in_the_box(workshop)
    tools = tuple(workshop.tools().values())
    says = ShopSays(notes=dict(notes), spares=spares, build=build, tools=tools)
    with workshop.held(build) as state:
        made_of = (state.head, today, now[:MINUTE], notes, spares, workshop.store.version)
        return state.remembered(("parts",), made_of, lambda: parts_view(state, today, now, says))


def _notes(workshop: Workshop) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """The private words on each supplier, by its name in lower case."""
    with workshop.held(SHOP) as shop:
        return tuple(
            (name, tuple(e.body.text for e in shop.each(SupplierNoted, "supplier", name)))
            for name, _ in shop.names("supplier")
        )


def arrival(workshop: Workshop, build: str, need: str, order: str | None) -> Arrival:
    """How pieces of an order, or off the shelf, are compared."""
    with workshop.held(build) as state:
        if need_named(state, need) is None:
            raise NotFound("part", need)
        return arrival_for(state, need, order)


def wanted(workshop: Workshop, text: str) -> WantedLook:
    """Read a typed line; nothing is written."""
    return WantedLook(line=read_wanted(text, workshop.local().date()))
