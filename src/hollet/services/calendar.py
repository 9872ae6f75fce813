"""The shop's calendar: written to its own log, and told to every screen."""

from typing import Any

from pydantic import BaseModel

from hollet.core.acts.base import Act
from hollet.core.entries import Line
from hollet.core.errors import Conflict, NotFound
from hollet.services.builds import build_names
from hollet.services.workshop import SHOP, Workshop

__all__ = ["ShopLine", "write_shop"]


class ShopLine(BaseModel):
    """A line of the shop's log as it was written."""

    id: str
    seq: int
    time: str
    who: str
    text: str


def _line(entry: Line) -> ShopLine:
    return ShopLine(
        id=entry.id, seq=entry.seq, time=entry.time, who=entry.who, text=entry.body.line("")
    )


def write_shop(workshop: Workshop, act: Act[Any], *, who: str, entry_id: str) -> ShopLine:
    """Check and append one line of the shop's log; the same id once more gets the first answer.

    Raises
    ------
    Refused, NotFound
        As its act says.
    Conflict
        The id was used for another line.
    """
    with workshop.held(SHOP) as state:
        known = state.entries.get(entry_id)
        body = act.accepted(state, workshop.hand(who))
        build = getattr(body, "build", None)
        if build is not None and build not in build_names(workshop):
            raise NotFound("build", build)
        if known is not None:
            if known.body == body:
                return _line(known)
            raise Conflict(f"line {known.seq} has this id already", reason_code="id_used")
        draft = workshop.draft(SHOP, body, who, entry_id=entry_id)
        entry = workshop.write(SHOP, state, draft)
        return _line(entry)
