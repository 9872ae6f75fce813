"""Writing to the log of a build, and reading it."""

import hashlib
import json
from collections.abc import Callable
from itertools import islice
from typing import Any

from pydantic import BaseModel, ConfigDict

from hollet.core.acts.base import Act
from hollet.core.acts.kinds import accept
from hollet.core.entries import BookState, Concession, Done, Key, Line
from hollet.core.errors import Conflict, HolletError, NotFound
from hollet.screens.sentences import LogLine, line_of
from hollet.services.photos import photo_path
from hollet.services.recordings import CLIP, SOUND, path_of
from hollet.services.verifying import changed_past
from hollet.services.workshop import Workshop
from hollet.store.chain import broken_at
from hollet.store.protocols import Books

__all__ = ["LogView", "Sent", "log_of", "stands_on", "write_entry"]


class Sent(BaseModel):
    """What a screen sends with an edit: the id it made, who, its own time, what it had seen of the
    subject, and the one before it in its own queue.
    """

    model_config = ConfigDict(frozen=True)
    id: str
    who: str
    bench_time: str
    seen: int
    after: str | None = None


class LogView(BaseModel):
    """A stretch of the log, newest first, whether the chain holds, and what was `changed` past
    Hollet.
    """

    lines: tuple[LogLine, ...]
    total: int
    struck: int
    whole: bool
    broken_at: int | None
    changed: tuple[str, ...]
    accepted: tuple[LogLine, ...]


def write_entry(workshop: Workshop, build: str, sent: Sent, act: Act[Any]) -> LogLine:
    """Check, append and fold one entry; the same id with the same body gets the first answer again.

    Raises
    ------
    Conflict
        The id was used with another body, or the subject has moved on (with the newer lines).
    Refused, NotFound
        As its `Act` says; a photo or a recording that was not sent before.
    """
    digest = digest_of(build, act)
    with workshop.held(build) as state:
        known = state.entries.get(sent.id)
        if known is not None:
            written_before(workshop, known, digest)
            return line_of(state, known)
        for event in act.sent_events():
            workshop.not_elsewhere(event, build)
        for sort, name in act.files():  # a photo lies on the disk before its entry does
            KEPT[sort](workshop, name)
        try:
            body = accept(state, act, workshop.hand(sent.who, sent.bench_time, sent.seen))
        except HolletError:
            _check_late(state, act, act.concerns(), sent)
            raise
        _check_late(state, act, body.subject(), sent)
        draft = workshop.draft(
            build,
            body,
            sent.who,
            entry_id=sent.id,
            bench_time=sent.bench_time,
            sent=digest,
        )
        written = workshop.write(build, state, draft)
        workshop.spent |= dict.fromkeys(act.sent_events(), build)
        return line_of(state, written)


def digest_of(chain: str, act: Act[Any]) -> str:
    """What was sent to a log, as a hash by which the same is known once more."""
    told = json.dumps([chain, act.model_dump(mode="json")], sort_keys=True)
    return hashlib.sha256(told.encode()).hexdigest()


def written_before(workshop: Workshop, known: Line, digest: str) -> None:
    """Refuse (`Conflict`) an id that was used for something else than what is sent now."""
    with workshop.store.read() as books:
        row = books.log.line(known.id)
    if row is None or row.sent != digest:
        raise Conflict(
            f"line {known.seq} has this id already, with something else in it",
            reason_code="id_used",
        )


KEPT: dict[str, Callable[[Workshop, str], object]] = {
    "photos": photo_path,
    "sounds": lambda workshop, name: path_of(workshop, SOUND, name),
    "clips": lambda workshop, name: path_of(workshop, CLIP, name),
}
"""Where a file that an act speaks of must lie already."""


def _check_late(state: BookState, act: Act[Any], subject: Key, sent: Sent) -> None:
    """Only lines of others make an entry late: what its own queue wrote before it was
    seen by it.
    """
    if act.body.never_late or act.by_device:
        return
    before = state.entries.get(sent.after or "")
    same = (
        before is not None
        and before.who == sent.who.strip().upper()
        and subject in (before.body.subject(), Key("step", before.body.at() or ""))
    )
    seen = max(sent.seen, before.seq) if before is not None and same else sent.seen
    newest = state.seen.get(subject, 0)
    if newest > seen:
        newer = tuple(line_of(state, e).text for e in state.live(*subject) if e.seq > seen)
        count = "1 newer line stands" if len(newer) <= 1 else f"{len(newer)} newer lines stand"
        raise Conflict(
            f"not written: {count} there since this screen looked. Look again",
            reason_code="moved_on",
            newer=newer,
        )


def stands_on(workshop: Workshop, build: str, entry_id: str) -> tuple[str, ...]:
    """What stands on an entry and will count as open when it is struck, in words."""
    with workshop.held(build) as state:
        target = state.entries.get(entry_id)
        if target is None:
            raise NotFound("line", entry_id)
        step = target.body.at() if target.body.is_ground else None
        done = state.each(Done, "step", step) if step is not None else []
        found: list[Line] = [entry for entry in done if entry.seq > target.seq]
        found += [e for e in state.all(Concession) if entry_id in e.body.readings]
        return tuple(line_of(state, e).text for e in sorted(found, key=lambda e: e.seq))


def log_of(
    workshop: Workshop,
    build: str,
    *,
    step: str | None = None,
    kind: str | None = None,
    before: int | None = None,
    limit: int = 200,
) -> LogView:
    """The log, newest first, filtered by step or kind ("struck", "accepted", "left open", or an
    entry kind).
    """
    with workshop.held(build) as state:
        with workshop.store.read() as books:
            broken = _broken(workshop, books, build)
            lines, accepted = state.remembered(
                ("log",),
                (step, kind, before, limit, state.head, workshop.store.version),
                lambda: _lines(state, books, step, kind, before, limit),
            )
        return LogView(
            lines=lines,
            total=len(state.order),
            struck=len(state.struck),
            whole=broken is None,
            broken_at=broken,
            changed=tuple(changed_past(workshop)),
            accepted=accepted,
        )


def _lines(
    state: BookState,
    books: Books,
    step: str | None,
    kind: str | None,
    before: int | None,
    limit: int,
) -> tuple[tuple[LogLine, ...], tuple[LogLine, ...]]:
    """A page of lines, and all that was accepted in writing."""
    newest = (state.entries[i] for i in reversed(state.order))
    wanted = (e for e in newest if before is None or e.seq < before)
    chosen = list(islice((e for e in wanted if _wanted(state, e, step, kind)), limit))
    hashes = books.log.hashes([e.id for e in chosen])
    accepted = state.all(Concession)[::-1]
    return (
        tuple(line_of(state, e, hashes.get(e.id, "")) for e in chosen),
        tuple(line_of(state, e) for e in accepted),
    )


def _broken(workshop: Workshop, books: Books, build: str) -> int | None:
    """The first line at which the chain does not hold, or that is gone from its end; only what is
    new is looked at, once the rest was found whole.
    """
    seq, mark = workshop.verified.get(build, (0, ""))
    if seq and books.log.hash_at(build, seq) != mark:
        return broken_at(books.log.read(build)) or seq
    broken = broken_at(books.log.read(build, after=seq), mark, seq + 1)
    if broken is not None:
        return broken
    head = workshop.verified[build] = books.log.head(build)
    return workshop.cut_at(build, head[0])


FILTERS = {"left open": ("left open", "undone"), "accepted": ("concession",)}
"""Words of the filter that stand for other kinds than the one of that name."""


def _wanted(state: BookState, entry: Line, step: str | None, kind: str | None) -> bool:
    if step is not None and entry.body.at() != step:
        return False
    if kind is None or kind == "all":
        return True
    if kind == "struck":
        return entry.id in state.struck
    return entry.kind in FILTERS.get(kind, (kind,))
