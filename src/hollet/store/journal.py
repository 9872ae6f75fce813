"""The log: two verbs, append and read, and the check of its chain."""

import hashlib
import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from hollet.core.entries import Body, Entry
from hollet.core.entries import Line as BookLine
from hollet.core.entries.kinds import KINDS, lifted
from hollet.core.errors import Conflict
from hollet.store.models import EntryRow

__all__ = [
    "Draft",
    "Line",
    "append",
    "body_text",
    "broken_at",
    "broken_behind",
    "chain_hash",
    "entry_of",
    "hashes_of",
    "head",
    "heads",
    "read",
    "readable",
    "row_of",
]


@dataclass(frozen=True, slots=True)
class Draft:
    """An entry before it has its place in a chain."""

    id: str
    chain: str
    time: str
    bench_time: str
    who: str
    body: Body
    sent: str = ""


@dataclass(slots=True)
class Line:
    """One stored entry, read as plain values: a log of 100,000 is read in one go."""

    id: str
    chain: str
    seq: int
    time: str
    bench_time: str
    who: str
    kind: str
    version: int
    body: str
    hash: str


COLUMNS = tuple(getattr(EntryRow, name) for name in Line.__slots__)


def body_text(body: Body) -> str:
    """The text that is hashed and kept: JSON, sorted keys, numbers as text, what is absent left
    out.
    """
    data = body.model_dump(mode="json", exclude_none=True)
    return json.dumps(_as_text(data), ensure_ascii=False, sort_keys=True, separators=(",", ":"))


def _as_text(value: Any) -> Any:
    if isinstance(value, dict):
        return {key: _as_text(item) for key, item in value.items()}
    if isinstance(value, list):
        return [_as_text(item) for item in value]
    return value if isinstance(value, str | bool) or value is None else repr(value)


def chain_hash(previous: str, row: Line | EntryRow) -> str:
    """SHA-256 over the previous hash and every field of the entry."""
    fields = [
        previous,
        row.id,
        row.chain,
        str(row.seq),
        row.time,
        row.bench_time,
        row.who,
        row.kind,
        str(row.version),
        row.body,
    ]
    return hashlib.sha256(
        json.dumps(fields, ensure_ascii=False, separators=(",", ":")).encode()
    ).hexdigest()


def head(session: Session, chain: str) -> tuple[int, str]:
    """Sequence number and hash of the newest entry, (0, "") for an empty chain."""
    last = session.execute(select(func.max(EntryRow.seq)).where(EntryRow.chain == chain)).scalar()
    if last is None:
        return 0, ""
    found = session.execute(
        select(EntryRow.hash).where(EntryRow.chain == chain, EntryRow.seq == last)
    ).scalar_one()
    return int(last), str(found)


def heads(session: Session) -> dict[str, int]:
    """The newest sequence number of each chain."""
    query = select(EntryRow.chain, func.max(EntryRow.seq)).group_by(EntryRow.chain)
    return {row[0]: row[1] for row in session.execute(query)}


def append(session: Session, draft: Draft, expected: tuple[int, str] | None = None) -> EntryRow:
    """Insert one entry behind the newest of its chain; the caller's transaction makes it last.

    Raises
    ------
    Conflict
        The id is already used, or the chain has moved on since `expected` was read.
    """
    seq, previous = expected or head(session, draft.chain)
    row = EntryRow(
        id=draft.id,
        chain=draft.chain,
        seq=seq + 1,
        time=draft.time,
        bench_time=draft.bench_time,
        who=draft.who,
        kind=draft.body.called,
        version=draft.body.version,
        body=body_text(draft.body),
        sent=draft.sent,
        strikes=draft.body.strikes(),
    )
    row.hash = chain_hash(previous, row)
    try:
        session.add(row)
        session.flush()
    except IntegrityError as error:
        raise Conflict(
            f"the log moved on before line {row.seq} was written, or its id is used already: "
            "look again"
        ) from error
    session.expunge(row)
    return row


def read(session: Session, chain: str, after: int = 0, limit: int | None = None) -> Iterator[Line]:
    """Entries of a chain behind sequence number `after`, in order."""
    query = (
        select(*COLUMNS)
        .where(EntryRow.chain == chain, EntryRow.seq > after)
        .order_by(EntryRow.seq)
        .limit(limit)
    )
    for part in session.execute(query.execution_options(yield_per=2000)).partitions():
        for row in part:
            yield Line(*row)


def entry_of(row: Line | EntryRow) -> BookLine:
    """The entry as the fold takes it."""
    kind = KINDS[row.kind]
    if row.version == kind.version:
        body = kind.model_validate_json(row.body)
    else:
        body = kind.model_validate(lifted(row.kind, row.version, json.loads(row.body)))
    return Entry(row.id, row.seq, row.time, row.bench_time, row.who, body)


def readable(row: Line | EntryRow) -> BookLine | None:
    """The entry, or None where its kind, version or body cannot be read."""
    try:
        return entry_of(row)
    except (KeyError, TypeError, ValueError):  # pydantic's and json's own errors are ValueErrors
        return None


def row_of(session: Session, entry_id: str) -> EntryRow | None:
    """The row with this id, in any chain."""
    return session.get(EntryRow, entry_id)


def hashes_of(session: Session, ids: Sequence[str]) -> dict[str, str]:
    """The marks of some lines."""
    query = select(EntryRow.id, EntryRow.hash).where(EntryRow.id.in_(ids))
    return {row[0]: row[1] for row in session.execute(query)}


def broken_behind(session: Session, chain: str, seq: int, mark: str) -> int | None:
    """The first line at which the chain does not hold, where it held up to line `seq` with `mark`
    before; None where it holds.
    """
    if seq:
        query = select(EntryRow.hash).where(EntryRow.chain == chain, EntryRow.seq == seq)
        if session.execute(query).scalar_one_or_none() != mark:
            return broken_at(read(session, chain))
    return broken_at(read(session, chain, after=seq), mark, seq + 1)


def broken_at(
    rows: Iterator[Line] | Iterator[EntryRow], previous: str = "", expected: int = 1
) -> int | None:
    """The first sequence number at which the chain does not hold, or None."""
    for row in rows:
        if row.seq != expected or row.hash != chain_hash(previous, row):
            return expected
        previous, expected = row.hash, expected + 1
    return None
