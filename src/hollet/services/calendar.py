"""The shop's calendar: written to its own log, and told to every screen."""

from typing import Any

from pydantic import BaseModel

from hollet.core.acts.base import Act
from hollet.core.entries import Line
from hollet.core.errors import NotFound
from hollet.services.box import still_counted
from hollet.services.logging import digest_of, written_before
from hollet.services.names import build_names
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
        The id was used for another line; a piece goes back into the box that counts as free.
    """
    digest = digest_of(SHOP, act)
    with workshop.held(SHOP) as state:
        known = state.entries.get(entry_id)
    if known is not None:
        written_before(workshop, known, digest)
        return _line(known)
    still_counted(workshop, act)
    with workshop.held(SHOP) as state:
        body = act.accepted(state, workshop.hand(who))
        build = getattr(body, "build", None)
        if build is not None and build not in build_names(workshop):
            raise NotFound("build", build)
        draft = workshop.draft(SHOP, body, who, entry_id=entry_id, sent=digest)
        entry = workshop.write(SHOP, state, draft)
        return _line(entry)
