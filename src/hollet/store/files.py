"""Photos, recordings, clips and traces beside the database, named by the hash of their bytes; on
disk before their entry is.
"""

import hashlib
import os
import re
from pathlib import Path

from hollet.store.troubles import trouble

__all__ = ["CLIPS", "ENDINGS", "PHOTOS", "SOUNDS", "TRACES", "is_kept_file", "keep", "path_of"]

PHOTOS = "photos"
SOUNDS = "sounds"
CLIPS = "clips"
TRACES = "traces"
ENDINGS = {PHOTOS: "jpg", SOUNDS: "snd", CLIPS: "vid", TRACES: "csv.gz"}


def is_kept_file(name: str) -> bool:
    """Whether a path within the data folder is that of a photo, a recording, a clip or a trace."""
    return any(
        re.fullmatch(rf"{sort}/[0-9a-f]{{64}}\.{re.escape(end)}", name)
        for sort, end in ENDINGS.items()
    )


def path_of(folder: Path, name: str, sort: str = PHOTOS) -> Path:
    """Where the file with this hash lies."""
    return folder / sort / f"{name}.{ENDINGS[sort]}"


def keep(folder: Path, data: bytes, sort: str = PHOTOS) -> str:
    """Write the bytes, sync file and folder, and return their SHA-256; the same bytes twice are one
    file.
    """
    name = hashlib.sha256(data).hexdigest()
    target = path_of(folder, name, sort)
    if target.exists():
        return name
    try:
        target.parent.mkdir(exist_ok=True)
    except OSError as error:
        raise trouble(error) from error
    part = target.with_suffix(".part")
    try:
        with part.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        part.replace(target)
        _sync_folder(target.parent)
    except OSError as error:
        raise trouble(error) from error
    finally:
        part.unlink(missing_ok=True)
    return name


def _sync_folder(folder: Path) -> None:
    descriptor = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)
