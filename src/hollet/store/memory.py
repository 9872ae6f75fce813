"""A store without a database: the same log and tables in plain dictionaries, for tests."""

import copy
import threading
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from pathlib import Path
from typing import Generic, TypeVar

from hollet.core.errors import Conflict, Unavailable
from hollet.store.chain import line_behind, moved_on
from hollet.store.records import (
    BuildRecord,
    DeviceRecord,
    Draft,
    GearRecord,
    InstrumentRecord,
    Line,
    PlanRecord,
    Record,
    SheetRecord,
    ShopRecord,
    VehicleRecord,
)
from hollet.store.seals import Torn

__all__ = ["MemoryStore"]

R = TypeVar("R", bound=Record)


@dataclass
class MemoryLog:
    """The chains as lists."""

    chains: dict[str, list[Line]] = field(default_factory=dict)
    ids: dict[str, Line] = field(default_factory=dict)

    def head(self, chain: str) -> tuple[int, str]:
        lines = self.chains.get(chain)
        return (lines[-1].seq, lines[-1].hash) if lines else (0, "")

    def heads(self) -> dict[str, int]:
        return {chain: lines[-1].seq for chain, lines in self.chains.items() if lines}

    def append(self, draft: Draft, expected: tuple[int, str] | None = None) -> Line:
        newest = self.head(draft.chain)
        if draft.id in self.ids or (expected or newest)[0] != newest[0]:
            raise moved_on(newest[0] + 1, used=draft.id in self.ids)
        line = line_behind(expected or newest, draft)
        self._keep(line)
        return line

    def take_in(self, lines: Sequence[Line]) -> None:
        if any(line.id in self.ids for line in lines):
            raise Conflict(
                "lines of this archive are here already under another build", reason_code="id_used"
            )
        for line in lines:
            self._keep(line)

    def _keep(self, line: Line) -> None:
        self.chains.setdefault(line.chain, []).append(line)
        self.ids[line.id] = line

    def read(self, chain: str, after: int = 0, limit: int | None = None) -> Iterator[Line]:
        wanted = [line for line in self.chains.get(chain, []) if line.seq > after]
        yield from map(copy.copy, wanted[:limit])

    def line(self, entry_id: str) -> Line | None:
        found = self.ids.get(entry_id)
        return copy.copy(found) if found is not None else None

    def hash_at(self, chain: str, seq: int) -> str | None:
        lines = self.chains.get(chain, [])
        return lines[seq - 1].hash if 0 < seq <= len(lines) else None

    def hashes(self, ids: Sequence[str]) -> dict[str, str]:
        return {name: self.ids[name].hash for name in ids if name in self.ids}


@dataclass
class MemoryTable(Generic[R]):
    """Records of one sort by id."""

    records: dict[str | int, R] = field(default_factory=dict)

    def get(self, record_id: str | int) -> R | None:
        return self.records.get(record_id)

    def all(self) -> list[R]:
        return [self.records[name] for name in sorted(self.records)]

    def put(self, record: R) -> None:
        self.records[record.id] = record


@dataclass
class MemoryBooks:
    """Everything that is kept."""

    log: MemoryLog = field(default_factory=MemoryLog)
    shop: MemoryTable[ShopRecord] = field(default_factory=MemoryTable)
    vehicles: MemoryTable[VehicleRecord] = field(default_factory=MemoryTable)
    builds: MemoryTable[BuildRecord] = field(default_factory=MemoryTable)
    plans: MemoryTable[PlanRecord] = field(default_factory=MemoryTable)
    instruments: MemoryTable[InstrumentRecord] = field(default_factory=MemoryTable)
    gear: MemoryTable[GearRecord] = field(default_factory=MemoryTable)
    devices: MemoryTable[DeviceRecord] = field(default_factory=MemoryTable)
    sheets: MemoryTable[SheetRecord] = field(default_factory=MemoryTable)

    def copied(self) -> "MemoryBooks":
        """The same, so that a transaction can be thrown away; lines and records never change."""
        log = MemoryLog({k: list(v) for k, v in self.log.chains.items()}, dict(self.log.ids))
        tables = {
            name: MemoryTable(dict(table.records))
            for name, table in vars(self).items()
            if isinstance(table, MemoryTable)
        }
        return MemoryBooks(log=log, **tables)


class MemoryStore:
    """A store that ends with its process; photos and recordings lie in `folder`."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._books = MemoryBooks()
        self._lock = threading.Lock()
        self._closed = False
        self.version = 0
        self.resealed = False

    @contextmanager
    def write(self) -> Iterator[MemoryBooks]:
        with self._lock:
            if self._closed:
                raise Unavailable("Hollet is stopping: nothing was written", reason_code="stopping")
            books = self._books.copied()
            yield books
            self._books = books
            self.version += 1

    @contextmanager
    def read(self) -> Iterator[MemoryBooks]:
        yield self._books

    def heads(self) -> dict[str, int]:
        return self._books.log.heads()

    def close(self) -> None:
        self._closed = True

    def faults(self) -> list[str]:
        return []

    def damage(self) -> str:
        return ""

    def sealed(self, chain: str) -> tuple[int, str] | None:
        return self._books.log.head(chain)

    def doctored(self, *, plans: bool) -> Sequence[Torn]:
        return ()

    def seal(self) -> None:
        """Nothing lies outside the process."""

    def backup(self, target: Path) -> Path:
        raise Unavailable(f"what lies in memory only cannot be copied to {target}")

    def daily_backup(self, now: datetime) -> Path | None:
        return None
