"""One SQLite file in one folder: opening, migrating, backing up.

WAL, synchronous=FULL, one writer.
"""

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, create_engine, event, text
from sqlalchemy.orm import Session
from sqlalchemy.pool import StaticPool

from hollet.core.errors import Unavailable

__all__ = ["Database"]

KEEP_BACKUPS = 14
FILE = "hollet.sqlite"
SCHEMA = "0004"  # the newest migration, so that an ordinary start need not import alembic (0.2 s)


def _connect(engine: Engine, *, immediate: bool, foreign_keys: bool = True) -> Engine:
    @event.listens_for(engine, "connect")
    def _(connection: Any, _record: Any) -> None:
        connection.isolation_level = None
        pragmas = (
            "journal_mode=WAL",
            "synchronous=FULL",
            "recursive_triggers=ON",
            "busy_timeout=5000",
            f"foreign_keys={'ON' if foreign_keys else 'OFF'}",
        )
        for pragma in pragmas:
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def _(connection: Any) -> None:
        connection.exec_driver_sql("BEGIN IMMEDIATE" if immediate else "BEGIN")

    return engine


class Database:
    """The store of one Hollet. `write` serialises writers; `read` sees the last commit."""

    def __init__(self, folder: Path) -> None:
        """Open (make, migrate) the database in `folder`.

        Raises
        ------
        Unavailable
            The database was made by a newer Hollet, or is damaged.
        """
        folder.mkdir(parents=True, exist_ok=True)
        self.folder = folder
        self.path = folder / FILE
        self._lock = threading.Lock()
        self._closed = False
        self._migrate()
        url = f"sqlite:///{self.path}"
        self._writer = _connect(
            create_engine(url, poolclass=StaticPool, connect_args={"check_same_thread": False}),
            immediate=True,
        )
        self._reader = _connect(create_engine(url), immediate=False)

    @contextmanager
    def write(self) -> Iterator[Session]:
        """One transaction; committed at the end, rolled back on any error."""
        with self._lock:
            if self._closed:
                raise Unavailable("Hollet is stopping: nothing was written", reason_code="stopping")
            with Session(self._writer) as session, session.begin():
                yield session

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session for reading."""
        with Session(self._reader) as session:
            yield session

    def close(self) -> None:
        """Close all connections, after the write under way: SQLite must not lose its connection in
        the middle of one.
        """
        with self._lock:
            self._closed = True
            self._writer.dispose()
        self._reader.dispose()

    def integrity(self) -> str:
        """SQLite's own check: "ok" or what is wrong."""
        with self.read() as session:
            return str(session.execute(text("PRAGMA integrity_check")).scalar())

    def quick_check(self) -> str:
        """The faster check made at each start: "ok" or what is wrong."""
        with self.read() as session:
            return str(session.execute(text("PRAGMA quick_check")).scalar())

    def backup(self, target: Path) -> Path:
        """A consistent copy while Hollet runs."""
        copy(self.path, target)
        return target

    def daily_backup(self, now: datetime) -> Path | None:
        """One copy a day in `backups/`, the newest 14 kept; None when today's is there."""
        folder = self.folder / "backups"
        folder.mkdir(exist_ok=True)
        target = folder / f"{now:%Y-%m-%d}.sqlite"
        if target.exists():
            return None
        copy(self.path, target)
        for old in sorted(folder.glob("????-??-??.sqlite"))[:-KEEP_BACKUPS]:
            old.unlink()
        return target

    def _migrate(self) -> None:
        found = self._revision()
        if found == SCHEMA:
            return
        from alembic import command
        from alembic.config import Config
        from alembic.script import ScriptDirectory

        config = Config()
        config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
        script = ScriptDirectory.from_config(config)
        if found is not None and found not in {
            revision.revision for revision in script.walk_revisions()
        }:
            raise Unavailable(
                f"the database in {self.folder} was made by a newer Hollet (schema {found}, "
                "this one knows "
                f"{SCHEMA}): use that version, or another folder",
                reason_code="newer_database",
            )
        if found is not None:
            copy(self.path, self.folder / f"before-{SCHEMA}.sqlite")
        engine = _connect(
            create_engine(f"sqlite:///{self.path}"), immediate=True, foreign_keys=False
        )
        with engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")
            if connection.exec_driver_sql("PRAGMA foreign_key_check").all():
                raise Unavailable(
                    "the migration would break links between tables: nothing was changed"
                )
        engine.dispose()

    def _revision(self) -> str | None:
        if not self.path.exists():
            return None
        try:
            with closing(sqlite3.connect(self.path)) as connection:
                tables = {
                    row[0]
                    for row in connection.execute(
                        "SELECT name FROM sqlite_master WHERE type='table'"
                    )
                }
                if "alembic_version" not in tables:
                    return None
                row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
                return str(row[0]) if row else None
        except sqlite3.DatabaseError as error:
            raise Unavailable(
                f"{self.path.name} is damaged or no database ({error}): restore a backup with "
                "'hollet restore FILE'",
                reason_code="damaged",
            ) from error


def copy(source: Path, target: Path) -> None:
    """SQLite's online backup of one file to another, whole or not at all."""
    part = target.with_name(target.name + ".part")
    part.unlink(missing_ok=True)
    with closing(sqlite3.connect(source)) as a, closing(sqlite3.connect(part)) as b:
        a.backup(b)
    part.replace(target)
