"""What the services see of a store, whatever lies behind it: a log, tables, transactions."""

from collections.abc import Iterator, Sequence
from contextlib import AbstractContextManager
from datetime import datetime
from pathlib import Path
from typing import Protocol, TypeVar

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

__all__ = ["Books", "Doctored", "Log", "Store", "Table"]

R = TypeVar("R", bound=Record)


class Log(Protocol):
    """The logs: one chain a build and one for the shop, only ever added to."""

    def head(self, chain: str) -> tuple[int, str]:
        """Sequence number and hash of the newest line, (0, "") for an empty chain."""

    def heads(self) -> dict[str, int]:
        """The newest sequence number of each chain."""

    def append(self, draft: Draft, expected: tuple[int, str] | None = None) -> Line:
        """Put one entry behind the newest of its chain; the transaction makes it last.

        Raises
        ------
        Conflict
            The id is already used, or the chain has moved on since `expected` was read.
        """

    def take_in(self, lines: Sequence[Line]) -> None:
        """Put the whole log of a build in as it came; Conflict where a line's id is used."""

    def read(self, chain: str, after: int = 0, limit: int | None = None) -> Iterator[Line]:
        """Lines of a chain behind sequence number `after`, in order."""

    def line(self, entry_id: str) -> Line | None:
        """The line with this id, in any chain."""

    def hash_at(self, chain: str, seq: int) -> str | None:
        """The hash of one line."""

    def hashes(self, ids: Sequence[str]) -> dict[str, str]:
        """The hashes of some lines by id."""


class Table(Protocol[R]):
    """Records of one sort by id."""

    def get(self, record_id: str | int) -> R | None:
        """The record with this id."""

    def all(self) -> list[R]:
        """Every record, by id."""

    def put(self, record: R) -> None:
        """Keep a record, new or in place of the one with its id."""


class Books(Protocol):
    """What one transaction sees."""

    @property
    def log(self) -> Log: ...
    @property
    def shop(self) -> Table[ShopRecord]: ...
    @property
    def vehicles(self) -> Table[VehicleRecord]: ...
    @property
    def builds(self) -> Table[BuildRecord]: ...
    @property
    def plans(self) -> Table[PlanRecord]: ...
    @property
    def instruments(self) -> Table[InstrumentRecord]: ...
    @property
    def gear(self) -> Table[GearRecord]: ...
    @property
    def devices(self) -> Table[DeviceRecord]: ...
    @property
    def sheets(self) -> Table[SheetRecord]: ...


class Doctored(Protocol):
    """A record that is not as Hollet left it: of which table and id, and what happened to it."""

    @property
    def table(self) -> str: ...
    @property
    def id(self) -> str: ...
    @property
    def what(self) -> str: ...


class Store(Protocol):
    """One store of one Hollet, in a folder that also holds photos, recordings and backups."""

    @property
    def folder(self) -> Path: ...

    @property
    def resealed(self) -> bool:
        """Whether the seals of the logs were gone, and were made anew as it was opened."""

    @property
    def version(self) -> int:
        """How often this process changed records: what was read of them holds while it stands."""

    def write(self) -> AbstractContextManager[Books]:
        """One transaction; kept at the end, undone on any error. Writers wait for one another."""

    def read(self) -> AbstractContextManager[Books]:
        """What was last kept."""

    def heads(self) -> dict[str, int]:
        """The newest sequence number of each chain, as this process wrote them."""

    def close(self) -> None:
        """Let go, after the write under way."""

    def faults(self) -> list[str]:
        """What is wrong with the store itself, a few words each."""

    def damage(self) -> str:
        """What a quick look at start finds damaged, or ""."""

    def sealed(self, chain: str) -> tuple[int, str] | None:
        """Up to which line a chain was sealed, and the hash of that line; None without a seal.

        Raises
        ------
        Unavailable
            `seal_changed`: the seal is not as Hollet left it.
        """

    def doctored(self, *, plans: bool) -> Sequence[Doctored]:
        """Records that were changed, taken out or put in past Hollet; `plans` too, which are long
        and which the log tells anyway.
        """

    def seal(self) -> None:
        """Take everything as it stands now for what Hollet left."""

    def backup(self, target: Path) -> Path:
        """The whole data folder as one file, while Hollet runs."""

    def daily_backup(self, now: datetime) -> Path | None:
        """Today's copy; None when it is there."""
