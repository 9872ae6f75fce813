"""The file: opening, migrating, refusing, backing up; and that the log cannot be rewritten."""

import shutil
import sqlite3
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
from hollet.core.errors import Unavailable
from hollet.store.chain import broken_at, entry_of
from hollet.store.database import FILE, SCHEMA, Database
from hollet.store.models import Base
from tests.store.test_protocols import note

KEPT = Path(__file__).parent / "schemas"


@pytest.fixture
def database(tmp_path):
    """An empty database."""
    made = Database(tmp_path)
    yield made
    made.close()


def test_pragmas(database):
    """WAL, synchronous FULL, recursive triggers, foreign keys, on readers and the writer."""
    for opened in (database.read, database.write):
        with opened() as books:
            got = {
                name: books.session.execute(text(f"PRAGMA {name}")).scalar()
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
            "id,chain,seq,time,bench_time,'XX',kind,version,body,strikes,hash,sent,rule FROM entry"
        ),
        (
            "REPLACE INTO entry SELECT "
            "id,chain,seq,time,bench_time,'XX',kind,version,body,strikes,hash,sent,rule FROM entry"
        ),
    ],
)
def test_log_is_only_added_to(database, statement):
    """UPDATE, DELETE and both forms of REPLACE are refused by the database itself."""
    with database.write() as books:
        books.log.append(note("x"))
    with pytest.raises(DatabaseError, match="only added to"), database.write() as books:
        books.session.execute(text(statement))
    with database.read() as books:
        assert [row.who for row in books.log.read("shop")] == ["MK"]


def test_tables_match_the_models(database):
    """No drift between migrations and models."""
    with database.write() as books:
        context = MigrationContext.configure(books.session.connection())
        assert compare_metadata(context, Base.metadata) == []


def test_schema_is_the_newest_migration():
    """The constant that spares an import names the head of the migrations."""
    config = Config()
    config.set_main_option("script_location", str(Path(store.__file__).parent / "migrations"))
    assert ScriptDirectory.from_config(config).get_current_head() == SCHEMA


def test_triggers_stand_after_migration(database):
    """A migration that lost the triggers would be seen."""
    with database.read() as books:
        names = set(
            books.session.execute(
                text("SELECT name FROM sqlite_master WHERE type='trigger'")
            ).scalars()
        )
    assert names == {"entry_no_update", "entry_no_delete"}


@pytest.mark.parametrize("kept", sorted(KEPT.glob("*.sqlite")), ids=lambda p: p.stem)
def test_each_released_schema_opens(kept, tmp_path):
    """A database of each released schema is migrated and keeps its log whole."""
    shutil.copy(kept, tmp_path / FILE)
    database = Database(tmp_path)
    with database.read() as books:
        rows = list(books.log.read("shop"))
        assert [entry_of(row).body.text for row in rows] == ["kept from this schema"]
        assert broken_at(rows) is None
    assert database.sealed("shop") == (1, rows[0].hash)
    assert database.doctored(plans=True) == []
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
