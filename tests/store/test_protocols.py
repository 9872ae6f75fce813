"""One suite for every store: the log, the tables and the transactions, in SQLite and in memory."""

import json
import threading
import time
from dataclasses import replace

import pytest

from hollet.core.entries import Note
from hollet.core.errors import Conflict, Unavailable
from hollet.store.chain import broken_at
from hollet.store.database import Database
from hollet.store.memory import MemoryStore
from hollet.store.records import (
    BuildRecord,
    DeviceRecord,
    Draft,
    GearRecord,
    InstrumentRecord,
    PlanRecord,
    SheetRecord,
    ShopRecord,
    VehicleRecord,
)


@pytest.fixture(params=[Database, MemoryStore], ids=["sqlite", "memory"])
def store(request, tmp_path):
    """An empty store."""
    made = request.param(tmp_path)
    yield made
    made.close()


def note(words: str, entry_id: str = "a", chain: str = "shop", sent: str = "") -> Draft:
    """A draft of a note."""
    return Draft(
        id=entry_id,
        chain=chain,
        time="2026-03-01T08:00:00Z",
        bench_time="2026-03-01T09:00:00+01:00",
        who="MK",
        body=Note(text=words),
        sent=sent,
    )


def test_chain(store):
    """Each entry carries the mark of the one before; a doctored text, what the client sent, what it
    strikes, or its rule breaks it.
    """
    with store.write() as books:
        for number in range(5):
            books.log.append(note(f"line {number}", str(number), sent="digest"))
    with store.read() as books:
        lines = list(books.log.read("shop"))
        assert books.log.line("3") == lines[3]
        assert books.log.line("none") is None
        assert books.log.hash_at("shop", 2) == lines[1].hash
        assert books.log.hash_at("shop", 6) is None
        assert books.log.hashes(["1", "none"]) == {"1": lines[1].hash}
    assert broken_at(lines) is None
    assert lines[0].body == '{"text":"line 0"}'
    for change in (
        {"body": '{"text":"line two"}'},
        {"sent": "other"},
        {"strikes": "0"},
        {"rule": 1},
    ):
        doctored = [replace(line, **change) if line.seq == 3 else line for line in lines]
        assert broken_at(doctored) == 3, change
    assert broken_at(lines[1:]) == 1


def test_old_lines_keep_their_rule(store):
    """A line of before is hashed without what the client sent; it is taken in and goes on."""
    with store.write() as books:
        line = books.log.append(note("x", chain="b"))
    old = replace(line, id="old", chain="c", rule=1)
    old.hash = "0" * 64
    assert broken_at([old]) == 1
    with store.write() as books:
        books.log.take_in([old])
        books.log.append(note("y", "new", chain="c"))
    with store.read() as books:
        assert [row.rule for row in books.log.read("c")] == [1, 2]
        assert books.log.heads() == {"b": 1, "c": 2}


def test_append_expects_its_place(store):
    """An append behind a head that has moved on, or with a used id, is a conflict and writes
    nothing; so is a log of which one line's id is used.
    """
    with store.write() as books:
        first = books.log.append(note("x", "a"))
    for draft, expected in ((note("y", "b"), (0, "")), (note("y", "a"), None)):
        with pytest.raises(Conflict), store.write() as books:
            books.log.append(draft, expected)
    with pytest.raises(Conflict), store.write() as books:
        books.log.take_in([replace(first, id="c", chain="o"), replace(first, chain="o", seq=2)])
    with store.read() as books:
        assert books.log.head("shop") == (1, first.hash)
        assert books.log.head("o") == (0, "")


def test_read_after_and_limit(store):
    """Reading can begin behind a line and end early."""
    with store.write() as books:
        for number in range(6):
            books.log.append(note(str(number), str(number)))
    with store.read() as books:
        assert [row.seq for row in books.log.read("shop", after=2, limit=3)] == [3, 4, 5]


def test_rolled_back_on_error(store):
    """An error inside a transaction leaves nothing half-written, neither line nor record."""

    def broken() -> None:
        with store.write() as books:
            books.log.append(note("x"))
            books.shop.put(ShopRecord(1, "Moss", "UTC", "", 1))
            raise RuntimeError

    with pytest.raises(RuntimeError):
        broken()
    with store.read() as books:
        assert books.log.head("shop")[0] == 0
        assert books.shop.get(1) is None
    assert store.doctored(plans=True) in ([], ())


RECORDS = {
    "shop": ShopRecord(1, "Moss", "Europe/London", "GBP", 1),
    "vehicles": VehicleRecord("v", "Two", "van", "{}", 1),
    "builds": BuildRecord("b", "Job", "v", "2026-03-01T08:00:00Z"),
    "plans": PlanRecord("b", '{"id": "x"}', 1),
    "instruments": InstrumentRecord("m", "{}", 1),
    "gear": GearRecord("hoist", "Hoist", "lent", "Brackwater", None, 1),
    "devices": DeviceRecord("d", "phone", "0" * 64, "2026-03-01T08:00:00Z", None),
    "sheets": SheetRecord("s", "Sheet", 'id = "s"', 1),
}


def test_records(store):
    """Put, got, listed, put anew; a plan beside its build changes the build not at all."""
    with store.write() as books:
        for table, record in RECORDS.items():
            getattr(books, table).put(record)
    with store.write() as books:
        books.vehicles.put(replace(RECORDS["vehicles"], about="a blue van", version=2))
        books.vehicles.put(VehicleRecord("a", "One", "car", "{}", 1))
        books.plans.put(PlanRecord("b", "{}", 2))
    with store.read() as books:
        assert [v.about for v in books.vehicles.all()] == ["car", "a blue van"]
        assert books.plans.get("b") == PlanRecord("b", "{}", 2)
        kept = [name for name in RECORDS if getattr(books, name).get(RECORDS[name].id)]
        assert kept == list(RECORDS)
        assert books.builds.get("b") == RECORDS["builds"]
        assert books.gear.get("none") is None
    assert list(store.doctored(plans=True)) == []


def test_closing_waits_for_the_write_under_way(store):
    """What was begun is whole; what comes later is refused and writes nothing."""
    begun, done = threading.Event(), []

    def slow() -> None:
        with store.write() as books:
            begun.set()
            time.sleep(0.2)
            books.log.append(note("slow"))
        done.append(True)

    thread = threading.Thread(target=slow)
    thread.start()
    begun.wait()
    store.close()
    thread.join()
    assert done == [True]
    with pytest.raises(Unavailable, match="stopping"), store.write() as books:
        books.log.append(note("late", "b"))
    if isinstance(store, Database):
        again = Database(store.folder)
        with again.read() as books:
            assert [json.loads(row.body)["text"] for row in books.log.read("shop")] == ["slow"]
        again.close()
