"""The chain of a log: the text of a body, the hash of a line, and where a chain does not hold."""

import hashlib
import json
from collections.abc import Iterable
from typing import Any

from hollet.core.entries import Body, Entry
from hollet.core.entries import Line as BookLine
from hollet.core.entries.kinds import KINDS, lifted
from hollet.core.errors import Conflict
from hollet.store.records import Draft, Line

__all__ = [
    "RULE",
    "body_text",
    "broken_at",
    "chain_hash",
    "entry_of",
    "line_behind",
    "moved_on",
    "readable",
]

RULE = 2
"""What a new line's hash covers. Rule 1: all but what the client sent and what it strikes; rule 2:
those and the rule too."""


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


def chain_hash(previous: str, line: Line) -> str:
    """SHA-256 over the previous hash and every field of the entry that its rule covers."""
    fields = [
        previous,
        line.id,
        line.chain,
        str(line.seq),
        line.time,
        line.bench_time,
        line.who,
        line.kind,
        str(line.version),
        line.body,
    ]
    if line.rule != 1:
        fields += [line.sent, line.strikes or "", str(line.rule)]
    return hashlib.sha256(
        json.dumps(fields, ensure_ascii=False, separators=(",", ":")).encode()
    ).hexdigest()


def line_behind(place: tuple[int, str], draft: Draft) -> Line:
    """The line that a draft becomes behind the one at `place` (its number and hash)."""
    seq, previous = place
    line = Line(
        id=draft.id,
        chain=draft.chain,
        seq=seq + 1,
        time=draft.time,
        bench_time=draft.bench_time,
        who=draft.who,
        kind=draft.body.called,
        version=draft.body.version,
        body=body_text(draft.body),
        hash="",
        sent=draft.sent,
        strikes=draft.body.strikes(),
        rule=RULE,
    )
    line.hash = chain_hash(previous, line)
    return line


def moved_on(seq: int, *, used: bool) -> Conflict:
    """Why a line was not written: its id is one of a line there is, or its place is taken."""
    if used:
        return Conflict(
            "another line has this id already, perhaps of another build: nothing was written",
            reason_code="id_used",
        )
    return Conflict(f"the log moved on before line {seq} was written: look again")


def entry_of(line: Line) -> BookLine:
    """The entry as the fold takes it."""
    kind = KINDS[line.kind]
    if line.version == kind.version:
        body = kind.model_validate_json(line.body)
    else:
        body = kind.model_validate(lifted(line.kind, line.version, json.loads(line.body)))
    return Entry(line.id, line.seq, line.time, line.bench_time, line.who, body)


def readable(line: Line) -> BookLine | None:
    """The entry, or None where its kind, version or body cannot be read."""
    try:
        return entry_of(line)
    except (KeyError, TypeError, ValueError):  # pydantic's and json's own errors are ValueErrors
        return None


def broken_at(lines: Iterable[Line], previous: str = "", expected: int = 1) -> int | None:
    """The first sequence number at which the chain does not hold, or None."""
    for line in lines:
        if line.seq != expected or line.hash != chain_hash(previous, line):
            return expected
        previous, expected = line.hash, expected + 1
    return None
