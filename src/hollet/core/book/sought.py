"""Small things: where each was put by, what is looked for and for how long, what was given up."""

from datetime import datetime

from pydantic import computed_field

from hollet.core.entries import BookState, Entry, PutBy, SearchBegun, SearchEnded
from hollet.core.view import View

__all__ = ["GivenUp", "Kept", "Search", "given_up", "kept_places", "open_search", "searches"]


class Kept(View):
    """A thing, where it lies, and who said so when."""

    thing: str
    what: str
    where: str
    step: str | None
    who: str
    time: str


class Search(View):
    """Something that is looked for: since when, and for how long before a new one is ordered."""

    thing: str
    what: str
    last_seen: str
    limit_min: int
    count: int
    step: str | None
    since: str
    minutes: int

    @computed_field
    @property
    def over(self) -> bool:
        """Whether the time one gave it is used up."""
        return self.minutes >= self.limit_min

    @computed_field
    @property
    def words(self) -> str:
        """How long it is looked for, and of how long."""
        if self.over:
            return f"{self.minutes} min, the {self.limit_min} are over: order a new one?"
        return f"{self.minutes} of {self.limit_min} min"


class GivenUp(View):
    """Something that was not found and is wanted anew, and why."""

    what: str
    count: int
    step: str | None
    why: str


def _lines(state: BookState, thing: str) -> tuple[Entry[SearchBegun] | None, SearchEnded | None]:
    """The newest search of a thing while it goes on, and how the last one ended."""
    begun = state.newest(SearchBegun, "thing", thing)
    ended = state.newest(SearchEnded, "thing", thing)
    kept = state.newest(PutBy, "thing", thing)
    settled = max((e.seq for e in (ended, kept) if e is not None), default=0)
    open_now = begun if begun is not None and begun.seq > settled else None
    given = ended.body if ended is not None and (kept is None or kept.seq < ended.seq) else None
    return open_now, given if open_now is None else None


def kept_places(state: BookState) -> tuple[Kept, ...]:
    """Where each thing lies, by what was said of it last."""
    found = []
    for thing, _ in state.names("thing"):
        put = state.newest(PutBy, "thing", thing)
        ended = state.newest(SearchEnded, "thing", thing)
        entries = [
            (e.seq, e.body.what, where, e)
            for e, where in (
                (put, put.body.where if put is not None else None),
                (ended, ended.body.where if ended is not None else None),
            )
            if e is not None and where
        ]
        if entries and _lines(state, thing)[0] is None:
            _, what, where, entry = max(entries, key=lambda found: found[0])
            if ended is not None and ended.body.where is None and ended.seq > entry.seq:
                continue  # looked for since, and not there
            found.append(
                Kept(
                    thing=thing,
                    what=what,
                    where=where,
                    step=entry.body.step,
                    who=entry.who,
                    time=entry.time,
                )
            )
    return tuple(found)


def open_search(state: BookState, thing: str, now: str) -> Search | None:
    """The search for a thing that goes on at a moment (ISO 8601)."""
    begun = _lines(state, thing)[0]
    if begun is None:
        return None
    body = begun.body
    spent = datetime.fromisoformat(now) - datetime.fromisoformat(begun.time)
    return Search(
        thing=thing,
        what=body.what,
        last_seen=body.last_seen,
        limit_min=body.limit_min,
        count=body.count,
        step=body.step,
        since=begun.time,
        minutes=max(0, int(spent.total_seconds() // 60)),
    )


def searches(state: BookState, now: str) -> tuple[Search, ...]:
    """All searches that go on."""
    found = (open_search(state, thing, now) for thing, _ in state.names("thing"))
    return tuple(search for search in found if search is not None)


def given_up(state: BookState) -> tuple[GivenUp, ...]:
    """What was not found, is wanted anew, and did not turn up since."""
    found = []
    for thing, _ in state.names("thing"):
        ended = _lines(state, thing)[1]
        begun = state.newest(SearchBegun, "thing", thing)
        if ended is None or ended.where or not ended.reorder:
            continue
        instead = f"; instead of it {ended.instead}" if ended.instead else ""
        found.append(
            GivenUp(
                what=ended.what,
                count=begun.body.count if begun is not None else 1,
                step=ended.step or (begun.body.step if begun is not None else None),
                why=f"lost, looked for {ended.minutes} min{instead}",
            )
        )
    return tuple(found)
