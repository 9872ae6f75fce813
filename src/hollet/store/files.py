"""Photos and recordings beside the database, named by the hash of their bytes; on disk before their
entry is.
"""

import hashlib
import os
from pathlib import Path

__all__ = ["PHOTOS", "SOUNDS", "keep", "path_of"]

PHOTOS = "photos"
SOUNDS = "sounds"
ENDINGS = {PHOTOS: "jpg", SOUNDS: "snd"}


def path_of(folder: Path, name: str, sort: str = PHOTOS) -> Path:
    """Where the file with this hash lies."""
    return folder / sort / f"{name}.{ENDINGS[sort]}"


def keep(folder: Path, data: bytes, sort: str = PHOTOS) -> str:
    """Write the bytes, sync file and folder, and return their SHA-256; the same bytes twice are one
    file.
    """
    name = hashlib.sha256(data).hexdigest()
    target = path_of(folder, name, sort)
    target.parent.mkdir(exist_ok=True)
    if target.exists():
        return name
    part = target.with_suffix(".part")
    with part.open("wb") as file:
        file.write(data)
        file.flush()
        os.fsync(file.fileno())
    part.replace(target)
    descriptor = os.open(target.parent, os.O_RDONLY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)
    return name
