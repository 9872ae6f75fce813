"""Putting a backup back, with the database before it kept."""

from datetime import datetime
from pathlib import Path

from hollet.core.errors import Refused
from hollet.store.database import FILE, Database, copy

__all__ = ["restore_backup"]


def restore_backup(file: Path, folder: Path, now: datetime) -> Path | None:
    """Check the backup by opening a copy of it, then swap; returns where the old database is kept.

    Raises
    ------
    Refused, Unavailable
        The backup is damaged, no database, or of a newer Hollet; nothing is changed then.
    """
    trial = folder / "restore-trial"
    trial.mkdir(parents=True, exist_ok=True)
    try:
        (trial / FILE).write_bytes(file.read_bytes())
        database = Database(trial)
        state = database.integrity()
        database.close()
        if state != "ok":
            raise Refused("damaged", f"the backup is damaged ({state}): take an older one")
        kept = None
        if (folder / FILE).exists():
            kept = folder / f"before-restore-{now:%Y-%m-%d-%H%M%S}.sqlite"
            copy(folder / FILE, kept)
        for leftover in (folder / f"{FILE}-wal", folder / f"{FILE}-shm"):
            leftover.unlink(missing_ok=True)
        copy(trial / FILE, folder / FILE)
        return kept
    finally:
        for part in trial.iterdir():
            part.unlink()
        trial.rmdir()
