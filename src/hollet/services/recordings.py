"""Spoken notes and clips in: known by their first bytes, kept as they were recorded."""

from pathlib import Path
from typing import NamedTuple

from pydantic import BaseModel

from hollet.core.errors import NotFound, Refused
from hollet.services.workshop import Workshop
from hollet.store import files

__all__ = [
    "CLIP",
    "SOUND",
    "Sort",
    "StoredClip",
    "StoredSound",
    "check",
    "path_of",
    "store_clip",
    "store_sound",
]


class Sort(NamedTuple):
    """A sort of recording: its folder, what it is called, the most bytes, which bytes stand where
    in a file and what it is then, and what is said to one that is none or too long.
    """

    folder: str
    name: str
    most: int
    kinds: tuple[tuple[int, bytes, str], ...]
    code: str
    right: str
    shorter: str

    def media_type(self, data: bytes) -> str | None:
        """What a recording is, by its first bytes; None for anything else."""
        return next(
            (name for at, mark, name in self.kinds if data[at : at + len(mark)] == mark), None
        )


SOUND = Sort(
    folder=files.SOUNDS,
    name="recording",
    most=12_000_000,
    kinds=(
        (0, b"\x1a\x45\xdf\xa3", "audio/webm"),
        (0, b"OggS", "audio/ogg"),
        (4, b"ftyp", "audio/mp4"),
        (8, b"WAVE", "audio/wav"),
        (0, b"ID3", "audio/mpeg"),
        (0, b"\xff\xfb", "audio/mpeg"),
        (0, b"#!AMR", "audio/amr"),
    ),
    code="no_sound",
    right="take it as WebM, Ogg, M4A, WAV or MP3",
    shorter="say it shorter",
)
CLIP = Sort(
    folder=files.CLIPS,
    name="clip",
    most=80_000_000,  # 20 s of a phone at 32 Mbit/s
    kinds=((0, b"\x1a\x45\xdf\xa3", "video/webm"), (4, b"ftyp", "video/mp4")),
    code="no_clip",
    right="take it as WebM or MP4",
    shorter="take it shorter, 20 s at most, or with a smaller picture",
)


class StoredSound(BaseModel):
    """A spoken note as it is kept: the hash that names it."""

    sound: str


class StoredClip(BaseModel):
    """A clip as it is kept: the hash that names it."""

    clip: str


def check(sort: Sort, data: bytes) -> None:
    """Refuse what is no recording of this sort (`no_sound`, `no_clip`) or too long
    (`too_large`).
    """
    if len(data) > sort.most:
        raise Refused(
            "too_large",
            f"the {sort.name} is larger than {sort.most // 1_000_000} MB: {sort.shorter}",
            field="file",
        )
    if sort.media_type(data) is None:
        raise Refused(
            sort.code, f"this is no {sort.name} that can be played: {sort.right}", field="file"
        )


def store_sound(workshop: Workshop, data: bytes) -> StoredSound:
    """Keep a spoken note; it is synced to disk when this returns.

    Its entry in a log is written apart.
    """
    return StoredSound(sound=_kept(workshop, SOUND, data))


def store_clip(workshop: Workshop, data: bytes) -> StoredClip:
    """Keep a clip, in the same way."""
    return StoredClip(clip=_kept(workshop, CLIP, data))


def _kept(workshop: Workshop, sort: Sort, data: bytes) -> str:
    check(sort, data)
    return files.keep(workshop.store.folder, data, sort.folder)


def path_of(workshop: Workshop, sort: Sort, name: str) -> Path:
    """The file of a recording; raises NotFound."""
    if not (len(name) == 64 and all(c in "0123456789abcdef" for c in name)):
        raise NotFound(sort.name, name[:80])
    path = files.path_of(workshop.store.folder, name, sort.folder)
    if not path.is_file():
        raise NotFound(sort.name, name)
    return path
