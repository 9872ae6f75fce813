"""Putting a backup back: only a whole one, with the database before it kept."""

import shutil
from datetime import datetime
from pathlib import Path

from hollet.core.errors import HolletError, Refused
from hollet.services.verifying import verify
from hollet.services.workshop import Workshop
from hollet.store.backups import FILE, copy, is_hollet, keep_as_it_is, unfold
from hollet.store.files import ENDINGS
from hollet.store.lock import FolderLock
from hollet.store.seals import HEADS

__all__ = ["restore_backup"]


def restore_backup(file: Path, folder: Path, now: datetime) -> Path | None:
    """Check the whole backup in a folder of its own, then swap; returns where the old database is
    kept.

    Raises
    ------
    Refused, Unavailable
        A Hollet runs on the folder; or the backup is damaged, no whole Hollet database, lacks
        photos, or is of a newer Hollet. Nothing is changed then.
    """
    folder.mkdir(parents=True, exist_ok=True)
    lock = FolderLock(folder)
    trial = folder / "restore-trial"
    shutil.rmtree(trial, ignore_errors=True)
    try:
        unfold(file, trial)
        _with_photos_of(folder, trial)
        _whole(trial)
        return _swap(trial, folder, now)
    finally:
        shutil.rmtree(trial, ignore_errors=True)
        lock.release()


def _with_photos_of(folder: Path, trial: Path) -> None:
    """A bare database of before holds no photos: those that lie here already count."""
    for sort in ENDINGS:
        (trial / sort).mkdir(exist_ok=True)
        for path in (folder / sort).glob("*.*"):
            if not (trial / sort / path.name).exists():
                shutil.copy2(path, trial / sort / path.name)


def _whole(trial: Path) -> None:
    """Refuse what is not a whole Hollet database: schema, integrity, every chain, its photos."""
    if not is_hollet(trial / FILE):
        raise Refused("damaged", "the file is no Hollet database: take another one")
    try:
        workshop = Workshop(trial)
    except HolletError as error:
        raise Refused("damaged", f"the backup cannot be opened: {error.message}") from error
    try:
        broken = [line for line in verify(workshop) if line.startswith("broken")]
    finally:
        workshop.close()
    if broken:
        words = broken[0].removeprefix("broken: ")
        raise Refused("damaged", f"the backup is damaged ({words}): take an older one")


def _swap(trial: Path, folder: Path, now: datetime) -> Path | None:
    kept = None
    if (folder / FILE).exists():
        kept = folder / f"before-restore-{now:%Y-%m-%d-%H%M%S}.sqlite"
        keep_as_it_is(folder / FILE, kept)
    for sort in ENDINGS:
        (folder / sort).mkdir(exist_ok=True)
        for path in (trial / sort).glob("*.*"):
            if not (folder / sort / path.name).exists():
                shutil.copy2(path, folder / sort / path.name)
    for leftover in (folder / f"{FILE}-wal", folder / f"{FILE}-shm"):
        leftover.unlink(missing_ok=True)
    shutil.rmtree(folder / HEADS, ignore_errors=True)
    copy(trial / FILE, folder / FILE)
    shutil.copytree(trial / HEADS, folder / HEADS)
    return kept
