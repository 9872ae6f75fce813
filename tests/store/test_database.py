"""The file: opening, migrating, refusing, backing up; and that the log cannot be rewritten."""

import json
import shutil
import sqlite3
import threading
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import text
from sqlalchemy.exc import DatabaseError

from hollet import store
from hollet.core.entries import Note
from hollet.core.errors import Conflict, Unavailable
from hollet.store import journal
from hollet.store.database import FILE, SCHEMA, Database
from hollet.store.models import Base

KEPT = Path(__file__).parent / "schemas"


@pytest.fixture
def database(tmp_path):
    """An empty database."""
    made = Database(tmp_path)
    yield made
    made.close()


def note(words: str, entry_id: str = "a", chain: str = "shop") -> journal.Draft:
    """A draft of a note."""
    return journal.Draft(
        id=entry_id,
        chain=chain,
        time="2026-03-01T08:00:00Z",
        bench_time="2026-03-01T09:00:00+01:00",
        who="MK",
        body=Note(text=words),
    )


def test_pragmas(database):
    """WAL, synchronous FULL, recursive triggers, foreign keys, on readers and the writer."""
    for opened in (database.read, database.write):
        with opened() as session:
            got = {
                name: session.execute(text(f"PRAGMA {name}")).scalar()
                for name in ("journal_mode", "synchronous", "recursive_triggers", "foreign_keys")
            }
        assert got == {
            "journal_mode": "wal",
            "synchronous": 2,
            "recursive_triggers": 1,
            "foreign_keys": 1,
        }


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE entry SET who='XX'",
        "DELETE FROM entry",
        (
            "INSERT OR REPLACE INTO entry SELECT "
            "id,chain,seq,time,bench_time,'XX',kind,version,body,strikes,hash,sent FROM entry"
        ),
        (
            "REPLACE INTO entry SELECT "
            "id,chain,seq,time,bench_time,'XX',kind,version,body,strikes,hash,sent FROM entry"
        ),
    ],
)
def test_log_is_only_added_to(database, statement):
    """UPDATE, DELETE and both forms of REPLACE are refused by the database itself."""
    with database.write() as session:
        journal.append(session, note("x"))
    with pytest.raises(DatabaseError, match="only added to"), database.write() as session:
        session.execute(text(statement))
    with database.read() as session:
        assert [row.who for row in journal.read(session, "shop")] == ["MK"]


def test_tables_match_the_models(database):
    """No drift between migrations and models."""
    with database.write() as session:
        assert (
            compare_metadata(MigrationContext.configure(session.connection()), Base.metadata) == []
        )


def test_schema_is_the_newest_migration():
    """The constant that spares an import names the head of the migrations."""
    config = Config()
    config.set_main_option("script_location", str(Path(store.__file__).parent / "migrations"))
    assert ScriptDirectory.from_config(config).get_current_head() == SCHEMA


def test_triggers_stand_after_migration(database):
    """A migration that lost the triggers would be seen."""
    with database.read() as session:
        names = set(
            session.execute(text("SELECT name FROM sqlite_master WHERE type='trigger'")).scalars()
        )
    assert names == {"entry_no_update", "entry_no_delete"}


@pytest.mark.parametrize("kept", sorted(KEPT.glob("*.sqlite")), ids=lambda p: p.stem)
def test_each_released_schema_opens(kept, tmp_path):
    """A database of each released schema is migrated and keeps its log whole."""
    shutil.copy(kept, tmp_path / FILE)
    database = Database(tmp_path)
    with database.read() as session:
        rows = list(journal.read(session, "shop"))
        assert [journal.entry_of(row).body.text for row in rows] == ["kept from this schema"]
        assert journal.broken_at(iter(rows)) is None
    database.close()


def test_newer_database_is_refused(tmp_path):
    """A newer schema is refused in a sentence, and left alone."""
    Database(tmp_path).close()
    with sqlite3.connect(tmp_path / FILE) as connection:
        connection.execute("UPDATE alembic_version SET version_num='9999'")
    before = (tmp_path / FILE).read_bytes()
    with pytest.raises(Unavailable, match="newer Hollet") as refusal:
        Database(tmp_path)
    assert refusal.value.reason_code == "newer_database"
    assert (tmp_path / FILE).read_bytes() == before


def test_damaged_file_is_refused(tmp_path):
    """What is no database is refused with what to do."""
    (tmp_path / FILE).write_bytes(b"not a database at all, " * 100)
    with pytest.raises(Unavailable, match="restore"):
        Database(tmp_path)


def test_daily_backups(database):
    """One a day, the newest fourteen kept."""
    start = datetime(2026, 3, 1, tzinfo=UTC)
    assert database.daily_backup(start) is not None
    assert database.daily_backup(start) is None
    for day in range(1, 20):
        database.daily_backup(start + timedelta(days=day))
    names = sorted(p.name for p in (database.folder / "backups").iterdir())
    assert len(names) == 14
    assert names[-1] == "2026-03-20"


def test_chain(database):
    """Each entry carries the mark of the one before; a doctored text breaks it."""
    with database.write() as session:
        for number in range(5):
            journal.append(session, note(f"line {number}", str(number)))
    with database.read() as session:
        rows = list(journal.read(session, "shop"))
    assert journal.broken_at(iter(rows)) is None
    assert rows[0].body == '{"text":"line 0"}'
    rows[2].body = '{"text":"line two"}'
    assert journal.broken_at(iter(rows)) == 3
    assert journal.broken_at(iter(rows[1:])) == 1


def test_append_expects_its_place(database):
    """An append behind a head that has moved on, or with a used id, is a conflict and writes
    nothing.
    """
    with database.write() as session:
        journal.append(session, note("x", "a"))
    for draft, expected in ((note("y", "b"), (0, "")), (note("y", "a"), None)):
        with pytest.raises(Conflict), database.write() as session:
            journal.append(session, draft, expected)
    with database.read() as session:
        assert journal.head(session, "shop")[0] == 1
        assert journal.head(session, "nothing") == (0, "")


def test_read_after_and_limit(database):
    """Reading can begin behind a line and end early."""
    with database.write() as session:
        for number in range(6):
            journal.append(session, note(str(number), str(number)))
    with database.read() as session:
        assert [row.seq for row in journal.read(session, "shop", after=2, limit=3)] == [3, 4, 5]


def test_rolled_back_on_error(database):
    """An error inside a transaction leaves nothing half-written."""

    def broken() -> None:
        with database.write() as session:
            journal.append(session, note("x"))
            raise RuntimeError

    with pytest.raises(RuntimeError):
        broken()
    with database.read() as session:
        assert journal.head(session, "shop")[0] == 0


def test_closing_waits_for_the_write_under_way(database):
    """What was begun is whole; what comes later is refused and writes nothing."""
    begun, done = threading.Event(), []

    def slow() -> None:
        with database.write() as session:
            begun.set()
            time.sleep(0.2)
            journal.append(session, note("slow"))
        done.append(True)

    thread = threading.Thread(target=slow)
    thread.start()
    begun.wait()
    database.close()
    thread.join()
    assert done == [True]
    with pytest.raises(Unavailable, match="stopping"), database.write() as session:
        journal.append(session, note("late", "b"))
    again = Database(database.folder)
    with again.read() as session:
        assert [json.loads(row.body)["text"] for row in journal.read(session, "shop")] == ["slow"]
    again.close()
