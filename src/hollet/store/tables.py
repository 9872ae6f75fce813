"""The log and the tables in SQLite, within one session; what was touched is sealed at its end."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, fields
from typing import Any, Generic, TypeVar

from sqlalchemy import Select, Table, bindparam, func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from hollet.core.errors import Conflict
from hollet.store.chain import line_behind, moved_on
from hollet.store.models import (
    Base,
    BuildRow,
    DeviceRow,
    EntryRow,
    GearRow,
    InstrumentRow,
    SealRow,
    SheetRow,
    ShopRow,
    VehicleRow,
)
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
from hollet.store.seals import SealKey, Torn, record_text

__all__ = ["SqliteBooks"]

R = TypeVar("R", bound=Record)
COLUMNS = tuple(getattr(EntryRow, name) for name in Line.__slots__)
COUNT = "count"
"""The seal over how many seals there are."""


class SqliteLog:
    """The chains in the table `entry`."""

    def __init__(self, session: Session, touched: dict[str, tuple[int, str]]) -> None:
        self._session, self._touched = session, touched

    def head(self, chain: str) -> tuple[int, str]:
        newest = select(func.max(EntryRow.seq)).where(EntryRow.chain == chain)
        last = self._session.execute(newest).scalar()
        return (0, "") if last is None else (int(last), self.hash_at(chain, last) or "")

    def heads(self) -> dict[str, int]:
        query = select(EntryRow.chain, func.max(EntryRow.seq)).group_by(EntryRow.chain)
        return {row[0]: row[1] for row in self._session.execute(query)}

    def append(self, draft: Draft, expected: tuple[int, str] | None = None) -> Line:
        line = line_behind(expected or self.head(draft.chain), draft)
        try:
            self._insert([line])
        except IntegrityError as error:
            raise moved_on(line.seq, used=self.hashes([line.id]) != {}) from error
        return line

    def take_in(self, lines: Sequence[Line]) -> None:
        try:
            self._insert(lines)
        except IntegrityError as error:
            raise Conflict(
                "lines of this archive are here already under another build", reason_code="id_used"
            ) from error

    def _insert(self, lines: Sequence[Line]) -> None:
        rows = [{name: getattr(line, name) for name in Line.__slots__} for line in lines]
        self._session.execute(EntryRow.__table__.insert(), rows)  # type: ignore[attr-defined]
        for line in lines:
            self._touched[line.chain] = (line.seq, line.hash)

    def read(self, chain: str, after: int = 0, limit: int | None = None) -> Iterator[Line]:
        query = (
            select(*COLUMNS)
            .where(EntryRow.chain == chain, EntryRow.seq > after)
            .order_by(EntryRow.seq)
            .limit(limit)
        )
        for part in self._session.execute(query.execution_options(yield_per=2000)).partitions():
            for row in part:
                yield Line(*row)

    def line(self, entry_id: str) -> Line | None:
        row = self._session.execute(select(*COLUMNS).where(EntryRow.id == entry_id)).first()
        return Line(*row) if row is not None else None

    def hash_at(self, chain: str, seq: int) -> str | None:
        query = select(EntryRow.hash).where(EntryRow.chain == chain, EntryRow.seq == seq)
        return self._session.execute(query).scalar_one_or_none()

    def hashes(self, ids: Sequence[str]) -> dict[str, str]:
        query = select(EntryRow.id, EntryRow.hash).where(EntryRow.id.in_(ids))
        return {row[0]: row[1] for row in self._session.execute(query)}


@dataclass(frozen=True)
class Sort(Generic[R]):
    """The records of one sort: which columns of which table they are, and the questions asked of
    it, made once.
    """

    name: str
    names: tuple[str, ...]
    made: Callable[..., R]
    table: Table
    one: Select[Any]
    every: Select[Any]


def _sort(name: str, row: type[Base], of: type[R]) -> Sort[R]:
    names, table = tuple(f.name for f in fields(of)), row.metadata.tables[row.__tablename__]
    asked = select(*(table.c[column] for column in names))
    one = asked.where(table.c["id"] == bindparam("id"))
    return Sort(name, names, of, table, one, asked.order_by(table.c["id"]))


SHOP = _sort("shop", ShopRow, ShopRecord)
VEHICLES = _sort("vehicles", VehicleRow, VehicleRecord)
BUILDS = _sort("builds", BuildRow, BuildRecord)
PLANS = _sort("plans", BuildRow, PlanRecord)
INSTRUMENTS = _sort("instruments", InstrumentRow, InstrumentRecord)
GEAR = _sort("gear", GearRow, GearRecord)
DEVICES = _sort("devices", DeviceRow, DeviceRecord)
SHEETS = _sort("sheets", SheetRow, SheetRecord)


class SqliteTable(Generic[R]):
    """The records of one sort within one session."""

    def __init__(self, session: Session, touched: set[tuple[str, str]], sort: Sort[R]) -> None:
        self._session, self._touched, self._sort, self.name = session, touched, sort, sort.name

    def get(self, record_id: str | int) -> R | None:
        row = self._session.execute(self._sort.one, {"id": record_id}).first()
        return self._sort.made(*row) if row is not None else None

    def all(self) -> list[R]:
        return [self._sort.made(*row) for row in self._session.execute(self._sort.every)]

    def put(self, record: R) -> None:
        table = self._sort.table
        values = {name: getattr(record, name) for name in self._sort.names}
        if self.get(record.id) is None:
            self._session.execute(table.insert().values(**values))
        else:
            self._session.execute(table.update().where(table.c["id"] == record.id).values(**values))
        self._touched.add((self.name, str(record.id)))


class SqliteBooks:
    """What one session sees; it knows which chains and records were touched."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.chains: dict[str, tuple[int, str]] = {}
        self.records: set[tuple[str, str]] = set()
        self.log = SqliteLog(session, self.chains)
        made = (session, self.records)
        self.shop = SqliteTable(*made, SHOP)
        self.vehicles = SqliteTable(*made, VEHICLES)
        self.builds = SqliteTable(*made, BUILDS)
        self.plans = SqliteTable(*made, PLANS)
        self.instruments = SqliteTable(*made, INSTRUMENTS)
        self.gear = SqliteTable(*made, GEAR)
        self.devices = SqliteTable(*made, DEVICES)
        self.sheets = SqliteTable(*made, SHEETS)
        self._tables: tuple[SqliteTable[Record], ...] = (
            self.shop,
            self.vehicles,
            self.builds,
            self.plans,
            self.instruments,
            self.gear,
            self.devices,
            self.sheets,
        )  # type: ignore[assignment]

    def touch_all(self) -> None:
        """Everything as it stands now is to be sealed."""
        self.records |= {(table.name, str(r.id)) for table in self._tables for r in table.all()}
        for seal in self.session.execute(select(SealRow)).scalars():
            self.session.delete(seal)
        self.session.flush()

    def has_seals(self) -> bool:
        """Whether anything was ever sealed here."""
        return self.session.execute(select(SealRow.id).limit(1)).first() is not None

    def seal(self, key: SealKey) -> None:
        """Seal the touched records, in this transaction."""
        if not self.records:
            return
        by_name = {table.name: table for table in self._tables}
        for name, record_id in self.records:
            record = by_name[name].get(record_id)
            assert record is not None
            self._put_seal(f"{name}:{record_id}", key.mark(record_text(name, record)))
        count = select(func.count()).select_from(SealRow).where(SealRow.id != COUNT)
        self._put_seal(COUNT, key.mark(f"{self.session.execute(count).scalar()} records"))

    def _put_seal(self, name: str, mark: str) -> None:
        self.session.merge(SealRow(id=name, mark=mark))
        self.session.flush()

    def torn(self, key: SealKey, *, plans: bool) -> list[Torn]:
        """The records that do not fit their seals, and the seals that fit no record; the plans,
        which are long, only when asked for.
        """
        marks = {row.id: row.mark for row in self.session.execute(select(SealRow)).scalars()}
        count = marks.pop(COUNT, "")
        found = []
        if (marks or count) and not key.fits(f"{len(marks)} records", count):
            found.append(Torn("seals", "", "was changed"))
        if not plans:
            marks = {name: mark for name, mark in marks.items() if not name.startswith("plans:")}
        for table in self._tables:
            if table is self.plans and not plans:
                continue
            for record in table.all():
                mark = marks.pop(f"{table.name}:{record.id}", None)
                if mark is None:
                    found.append(Torn(table.name, str(record.id), "was put in"))
                elif not key.fits(record_text(table.name, record), mark):
                    found.append(Torn(table.name, str(record.id), "was changed"))
        gone = (name.partition(":") for name in marks)
        return found + [Torn(table, record_id, "was taken out") for table, _, record_id in gone]
