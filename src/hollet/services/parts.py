"""Parts and orders of a build."""

from pydantic import BaseModel

from hollet.core.book.arrivals import Arrival
from hollet.core.book.needs import arrival_for, need_named
from hollet.core.errors import NotFound
from hollet.core.saying import WantedLine, read_wanted
from hollet.screens.partsdesk import PartsView, parts_view
from hollet.services.workshop import Workshop

__all__ = ["WantedLook", "arrival", "desk", "wanted"]


class WantedLook(BaseModel):
    """What a typed line means."""

    line: WantedLine


def desk(workshop: Workshop, build: str) -> PartsView:
    """The parts desk as it stands today."""
    today = workshop.local().date()
    with workshop.held(build) as state:
        return state.remembered(("parts",), (state.head, today), lambda: parts_view(state, today))


def arrival(workshop: Workshop, build: str, need: str, order: str | None) -> Arrival:
    """How pieces of an order, or off the shelf, are compared."""
    with workshop.held(build) as state:
        if need_named(state, need) is None:
            raise NotFound("part", need)
        return arrival_for(state, need, order)


def wanted(workshop: Workshop, text: str) -> WantedLook:
    """Read a typed line; nothing is written."""
    return WantedLook(line=read_wanted(text, workshop.local().date()))
