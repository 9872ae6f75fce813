"""One SQLite file in one folder: opening, migrating, backing up.

WAL, synchronous=FULL, one writer. What it keeps is sealed (`seals`).
"""

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, create_engine, event, text
from sqlalchemy.exc import DatabaseError, OperationalError
from sqlalchemy.orm import Session
from sqlalchemy.pool import StaticPool

from hollet.core.errors import Unavailable
from hollet.store.backups import FILE, daily, keep_beside, write_backup
from hollet.store.lock import FolderLock
from hollet.store.models import Base
from hollet.store.seals import HEADS, Head, SealKey, Torn, head_of, keep_head, key_file
from hollet.store.tables import SqliteBooks
from hollet.store.troubles import trouble

__all__ = ["FILE", "SCHEMA", "Database"]

TRIGGERS = {"entry_no_update", "entry_no_delete"}
"""What keeps the log from being rewritten."""
SCHEMA = "0005"  # the newest migration, so that an ordinary start need not import alembic (0.2 s)


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

    def __init__(self, folder: Path, *, look: bool = False) -> None:
        """Open (make, migrate) the database in `folder` and hold the folder; or only `look` at what
        is there, beside a Hollet that runs on it.

        Raises
        ------
        Unavailable
            The folder cannot be used or is in use, or its database was made by a newer Hollet, or
            is damaged, or (to look at) is not there.
        """
        self.folder = folder
        self.path = folder / FILE
        self._lock = threading.Lock()
        self._closed = False
        self._heads: dict[str, int] | None = None
        self.version = 0
        self.resealed = False
        self._held = None if look else _hold(folder)
        try:
            self._open(look=look)
        except BaseException:
            self._let_go()
            raise

    def _open(self, *, look: bool) -> None:
        if look:
            self._there()
        else:
            self._migrate()
        url = f"sqlite:///{self.path}"
        self._writer = _connect(
            create_engine(url, poolclass=StaticPool, connect_args={"check_same_thread": False}),
            immediate=True,
        )
        self._reader = _connect(create_engine(url), immediate=False)
        self._key = SealKey(key_file())
        if not look and not (self.folder / HEADS).is_dir():
            with self.read() as books:
                self.resealed = books.has_seals()
            self.seal()

    @contextmanager
    def write(self) -> Iterator[SqliteBooks]:
        """One transaction; committed and sealed at the end, rolled back on any error."""
        with self._lock:
            if self._closed:
                raise Unavailable("Hollet is stopping: nothing was written", reason_code="stopping")
            try:
                with Session(self._writer) as session, session.begin():
                    books = SqliteBooks(session)
                    yield books
                    books.seal(self._key)
                    self._first_heads(books)
            except DatabaseError as error:
                raise _named(error) from error
            self.version += bool(books.records)
            self._keep_heads(books)

    def _first_heads(self, books: SqliteBooks) -> None:
        """A new chain has its seal before its first line: later, a seal that is gone was taken."""
        try:
            for chain in books.chains:
                if not (self.folder / HEADS / chain).exists():
                    keep_head(self.folder, self._key, chain, Head(0, ""))
        except OSError as error:
            raise trouble(error) from error

    def _keep_heads(self, books: SqliteBooks) -> None:
        for chain, place in books.chains.items():
            if self._heads is not None:
                self._heads[chain] = place[0]
            # the lines are kept by now: a seal that the disk does not take lies behind, no more
            with suppress(OSError):
                keep_head(self.folder, self._key, chain, Head(*place))

    @contextmanager
    def read(self) -> Iterator[SqliteBooks]:
        """What was last committed."""
        try:
            with Session(self._reader) as session:
                yield SqliteBooks(session)
        except DatabaseError as error:
            raise _named(error) from error

    def heads(self) -> dict[str, int]:
        """The newest line of each chain: counted once, and kept while this one server writes."""
        if self._heads is None:
            with self.read() as books:
                self._heads = books.log.heads()
        return dict(self._heads)

    def sealed(self, chain: str) -> tuple[int, str] | None:
        """Up to which line a chain was sealed."""
        head = head_of(self.folder, self._key, chain)
        return (head.seq, head.hash) if head is not None else None

    def doctored(self, *, plans: bool) -> list[Torn]:
        """Records that were changed past Hollet."""
        with self.read() as books:
            return books.torn(self._key, plans=plans)

    def seal(self) -> None:
        """Seal everything as it stands now."""
        (self.folder / HEADS).mkdir(exist_ok=True)
        with self.write() as books:
            books.touch_all()
            for chain in books.log.heads():
                books.chains[chain] = books.log.head(chain)

    def faults(self) -> list[str]:
        """What is wrong with the file, its tables and the triggers that guard the log."""
        found = [] if self._pragma("integrity_check") == "ok" else ["database file"]
        found += [f"there is no {name}" for name in self._missing_columns()]
        if TRIGGERS - self._triggers():
            found.append("what keeps the log from being rewritten was taken out")
        return found

    def damage(self) -> str:
        """The faster check made at each start."""
        found = self._pragma("quick_check")
        return "" if found == "ok" else found

    def close(self) -> None:
        """Close all connections, after the write under way: SQLite must not lose its connection in
        the middle of one.
        """
        with self._lock:
            self._closed = True
            self._writer.dispose()
        self._reader.dispose()
        self._let_go()

    def _let_go(self) -> None:
        if self._held is not None:
            self._held.release()
            self._held = None

    def _there(self) -> None:
        """Refuse to look at what is not there, or not of this Hollet."""
        if not self.path.is_file():
            raise Unavailable(
                f"there is no Hollet database in {self.folder}: name its folder with --data",
                reason_code="no_database",
            )
        found = self._revision()
        if found != SCHEMA:
            raise Unavailable(
                f"the database in {self.folder} has schema {found}, this Hollet has {SCHEMA}: "
                "start Hollet on it once, then look at it",
                reason_code="other_schema",
            )

    def _pragma(self, name: str) -> str:
        with self.read() as books:
            return str(books.session.execute(text(f"PRAGMA {name}")).scalar())

    def _missing_columns(self) -> list[str]:
        """Columns that the tables must have and have not, as table.column."""
        found = []
        with self.read() as books:
            for table in Base.metadata.sorted_tables:
                rows = books.session.execute(text(f"PRAGMA table_info({table.name})"))
                there = {row[1] for row in rows}
                found += [f"{table.name}.{c.name}" for c in table.columns if c.name not in there]
        return found

    def _triggers(self) -> set[str]:
        """The triggers that stand."""
        with self.read() as books:
            query = text("SELECT name FROM sqlite_master WHERE type='trigger'")
            return set(books.session.execute(query).scalars())

    def backup(self, target: Path) -> Path:
        """The whole data folder as one file, while Hollet runs."""
        return write_backup(self.folder, target)

    def daily_backup(self, now: datetime) -> Path | None:
        """Today's copy in `backups/`; None when it is there."""
        return daily(self.folder, now)

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
            keep_beside(self.folder, f"before-{SCHEMA}")
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


def _named(error: DatabaseError) -> Exception:
    """The store's own troubles by their names; what a statement did wrong stays what it is."""
    return trouble(error) if type(error) in (OperationalError, DatabaseError) else error


def _hold(folder: Path) -> FolderLock:
    """The folder, made where it is not there."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        return FolderLock(folder)
    except OSError as error:
        raise Unavailable(
            f"the folder {folder} cannot be written to ({error.strerror}): give this user the "
            "right to it, or use another folder with --data",
            reason_code="folder_unusable",
        ) from error
