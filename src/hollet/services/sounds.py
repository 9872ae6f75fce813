"""Spoken notes in: known by their first bytes, kept as they were recorded."""

from pathlib import Path

from pydantic import BaseModel

from hollet.core.errors import NotFound, Refused
from hollet.services.workshop import Workshop
from hollet.store import files

__all__ = ["MAX_SOUND", "StoredSound", "check_sound", "media_type", "sound_path", "store_sound"]

MAX_SOUND = 12_000_000
KINDS: tuple[tuple[int, bytes, str], ...] = (
    (0, b"\x1a\x45\xdf\xa3", "audio/webm"),
    (0, b"OggS", "audio/ogg"),
    (4, b"ftyp", "audio/mp4"),
    (8, b"WAVE", "audio/wav"),
    (0, b"ID3", "audio/mpeg"),
    (0, b"\xff\xfb", "audio/mpeg"),
    (0, b"#!AMR", "audio/amr"),
)
"""Where in a file which bytes stand, and what it is then."""


class StoredSound(BaseModel):
    """A recording as it is kept: the hash that names it."""

    sound: str


def media_type(data: bytes) -> str | None:
    """What a recording is, by its first bytes; None for anything else."""
    return next((name for at, mark, name in KINDS if data[at : at + len(mark)] == mark), None)


def check_sound(data: bytes) -> None:
    """Refuse what is no recording (`no_sound`) or too long (`too_large`)."""
    if len(data) > MAX_SOUND:
        raise Refused(
            "too_large",
            f"the recording is larger than {MAX_SOUND // 1_000_000} MB: say it shorter",
            field="file",
        )
    if media_type(data) is None:
        raise Refused(
            "no_sound",
            "this is no recording that can be played: take it as WebM, Ogg, M4A, WAV or MP3",
            field="file",
        )


def store_sound(workshop: Workshop, data: bytes) -> StoredSound:
    """Keep a recording; it is synced to disk when this returns.

    Its entry in a log is written apart.
    """
    check_sound(data)
    return StoredSound(sound=files.keep(workshop.store.folder, data, files.SOUNDS))


def sound_path(workshop: Workshop, sound: str) -> Path:
    """The file of a recording; raises NotFound."""
    if not (len(sound) == 64 and all(c in "0123456789abcdef" for c in sound)):
        raise NotFound("recording", sound[:80])
    path = files.path_of(workshop.store.folder, sound, files.SOUNDS)
    if not path.is_file():
        raise NotFound("recording", sound)
    return path
