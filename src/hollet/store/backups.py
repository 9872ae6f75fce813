"""Backups: the database with its photos and recordings.

One file by hand; one folder a day and before each migration, whose photos are links to those that
are kept anyway.
"""

import os
import re
import shutil
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from datetime import datetime
from pathlib import Path

from hollet.core.errors import Refused
from hollet.store.files import ENDINGS, is_kept_file
from hollet.store.seals import HEADS

__all__ = [
    "FILE",
    "copy",
    "daily",
    "is_hollet",
    "keep_as_it_is",
    "keep_beside",
    "unfold",
    "write_backup",
]

FILE = "hollet.sqlite"
KEEP = 14
HEAD = re.compile(rf"{HEADS}/[0-9A-Za-z-]{{1,64}}")
MOST = 20_000_000_000
"""More than so many bytes are no backup of a workshop."""


def copy(source: Path, target: Path) -> None:
    """SQLite's online backup of one file to another, whole or not at all."""
    part = target.with_name(target.name + ".part")
    part.unlink(missing_ok=True)
    try:
        with closing(sqlite3.connect(source)) as a, closing(sqlite3.connect(part)) as b:
            a.backup(b)
        part.replace(target)
    finally:
        part.unlink(missing_ok=True)


def is_hollet(file: Path) -> bool:
    """Whether a file is an SQLite database with a log in it, before anything opens it."""
    wanted = {"alembic_version", "entry", "build", "shop"}
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as connection:
            rows = connection.execute("SELECT name FROM sqlite_master WHERE type='table'")
            return wanted <= {row[0] for row in rows}
    except sqlite3.DatabaseError:
        return False


def keep_as_it_is(source: Path, target: Path) -> None:
    """A copy of a database that is about to be replaced, damaged or not."""
    try:
        copy(source, target)
    except sqlite3.DatabaseError:
        shutil.copy2(source, target)


def _kept(folder: Path) -> list[Path]:
    """The photos and recordings of a data folder."""
    return [path for sort in ENDINGS for path in sorted((folder / sort).glob("*.*"))]


def _heads(folder: Path) -> list[Path]:
    """The sealed heads of its chains. They are copied before the database is, so that they never
    lie before their chains.
    """
    return sorted((folder / HEADS).glob("*"))


def _belongs(name: str) -> bool:
    return name == FILE or is_kept_file(name) or HEAD.fullmatch(name) is not None


def write_backup(folder: Path, target: Path) -> Path:
    """The whole data folder as one file, while Hollet runs; whole or not at all."""
    part = target.with_name(target.name + ".part")
    try:
        with tempfile.TemporaryDirectory(dir=target.parent) as trial:
            heads = {
                path.relative_to(folder).as_posix(): path.read_bytes() for path in _heads(folder)
            }
            copy(folder / FILE, Path(trial) / FILE)
            with zipfile.ZipFile(part, "w", zipfile.ZIP_STORED, allowZip64=True) as archive:
                archive.write(Path(trial) / FILE, FILE, zipfile.ZIP_DEFLATED)
                for name, data in heads.items():
                    archive.writestr(name, data)
                for path in _kept(folder):
                    if is_kept_file(path.relative_to(folder).as_posix()):
                        archive.write(path, path.relative_to(folder).as_posix())
        part.replace(target)
    finally:
        part.unlink(missing_ok=True)
    return target


def keep_beside(folder: Path, name: str) -> Path:
    """A copy inside the data folder: the database copied, photos and recordings linked."""
    target, making = folder / name, folder / f"{name}.making"
    shutil.rmtree(making, ignore_errors=True)
    (making / HEADS).mkdir(parents=True)
    for path in _heads(folder):
        shutil.copy2(path, making / HEADS / path.name)
    for path in _kept(folder):
        linked = making / path.relative_to(folder)
        linked.parent.mkdir(exist_ok=True)
        _link(path, linked)
    copy(folder / FILE, making / FILE)
    shutil.rmtree(target, ignore_errors=True)
    making.rename(target)
    return target


def _link(path: Path, linked: Path) -> None:
    try:
        os.link(path, linked)
    except OSError:  # a file system without links
        shutil.copy2(path, linked)


def daily(folder: Path, now: datetime) -> Path | None:
    """One copy a day in `backups/`, the newest 14 kept; None when today's is there."""
    name = f"backups/{now:%Y-%m-%d}"
    if (folder / name).exists():
        return None
    made = keep_beside(folder, name)
    for old in sorted((folder / "backups").glob("????-??-??"))[:-KEEP]:
        shutil.rmtree(old)
    return made


def unfold(backup: Path, into: Path) -> None:
    """A backup as a data folder: the one file, a folder of one day, or a bare database of before.

    Raises
    ------
    Refused
        `damaged`: it is none of these, or cannot be read.
    """
    into.mkdir(parents=True, exist_ok=True)
    if backup.is_dir():
        if not (backup / FILE).is_file():
            raise Refused("damaged", f"{backup} holds no {FILE}: it is no backup of Hollet")
        for path in (backup / FILE, *_heads(backup), *_kept(backup)):
            target = into / path.relative_to(backup)
            target.parent.mkdir(exist_ok=True)
            shutil.copy2(path, target)
    elif zipfile.is_zipfile(backup):
        _unzip(backup, into)
    else:
        shutil.copy2(backup, into / FILE)


def _unzip(backup: Path, into: Path) -> None:
    try:
        with zipfile.ZipFile(backup) as archive:
            infos = archive.infolist()
            names = [info.filename for info in infos]
            strange = [name for name in names if not _belongs(name)]
            if strange or FILE not in names or sum(info.file_size for info in infos) > MOST:
                raise Refused("damaged", f"{backup.name} is no backup of Hollet")
            for info in infos:
                target = into / info.filename
                target.parent.mkdir(exist_ok=True)
                with archive.open(info) as source, target.open("wb") as file:
                    shutil.copyfileobj(source, file)
    except (zipfile.BadZipFile, OSError, EOFError, NotImplementedError, RuntimeError) as error:
        raise Refused("damaged", f"the backup is damaged ({error}): take an older one") from error
