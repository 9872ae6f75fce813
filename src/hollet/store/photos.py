"""Photo files beside the database, named by the hash of their bytes; on disk before their entry is."""

import hashlib
import os
from pathlib import Path

__all__ = ["PHOTOS", "keep", "path_of"]

PHOTOS = "photos"


def path_of(folder: Path, photo: str) -> Path:
    """Where the photo with this hash lies."""
    return folder / PHOTOS / f"{photo}.jpg"


def keep(folder: Path, data: bytes) -> str:
    """Write the bytes, sync file and folder, and return their SHA-256; the same bytes twice are one file."""
    photo = hashlib.sha256(data).hexdigest()
    target = path_of(folder, photo)
    target.parent.mkdir(exist_ok=True)
    if target.exists():
        return photo
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
    return photo
