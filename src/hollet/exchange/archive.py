"""The archive of a build: a zip with `build.json`, `log.jsonl`, its photos and recordings, unpacked
with suspicion.

`log.jsonl` holds one entry a line; its body is the very text that was hashed, so that the chain can
be checked. A photo or a recording is
named by the SHA-256 of its bytes.
"""

import hashlib
import io
import json
import re
import zipfile
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from hollet.core.errors import Refused

__all__ = ["FIELDS", "FORMAT", "Unpacked", "pack", "unpack"]

FORMAT = "hollet-build-3"
KNOWN_FORMATS = ("hollet-build-1", "hollet-build-2", FORMAT)
FIELDS = ("id", "chain", "seq", "time", "bench_time", "who", "kind", "version", "body", "hash")
MEMBERS = ("build.json", "log.jsonl")
PHOTO = re.compile(r"photos/([0-9a-f]{64})\.jpg")
SOUND = re.compile(r"sounds/([0-9a-f]{64})\.snd")
MAX_ZIP = 300_000_000
MAX_UNPACKED = 400_000_000
MAX_RATIO = 200
EPOCH = (1980, 1, 1, 0, 0, 0)


@dataclass(frozen=True, slots=True)
class Unpacked:
    """What an archive holds: the build's own facts, its entries as plain dictionaries, its photos
    and its recordings by hash.
    """

    build: dict[str, Any]
    entries: list[dict[str, Any]]
    photos: dict[str, bytes]
    sounds: dict[str, bytes]


def pack(
    build: dict[str, Any],
    entries: list[dict[str, Any]],
    photos: Mapping[str, bytes],
    sounds: Mapping[str, bytes],
) -> bytes:
    """The archive as bytes; the same content gives the same bytes."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        texts = {
            "build.json": json.dumps(
                {"format": FORMAT, **build}, ensure_ascii=False, sort_keys=True, indent=1
            ),
            "log.jsonl": "".join(
                json.dumps({k: e[k] for k in FIELDS}, ensure_ascii=False, sort_keys=True) + "\n"
                for e in entries
            ),
        }
        for name in MEMBERS:
            info = zipfile.ZipInfo(name, EPOCH)
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, texts[name])
        for photo in sorted(photos):
            archive.writestr(zipfile.ZipInfo(f"photos/{photo}.jpg", EPOCH), photos[photo])
        for sound in sorted(sounds):
            archive.writestr(zipfile.ZipInfo(f"sounds/{sound}.snd", EPOCH), sounds[sound])
    return buffer.getvalue()


def unpack(data: bytes) -> Unpacked:
    """Read an archive without ever writing to disk.

    Raises
    ------
    Refused
        `bad_archive`: no zip, strange paths, a bomb, missing or unreadable parts; in one sentence.
    """
    if len(data) > MAX_ZIP:
        raise _bad(f"the archive is larger than {MAX_ZIP // 1_000_000} MB")
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            infos = archive.infolist()
            for info in infos:
                if (
                    info.filename not in MEMBERS
                    and not PHOTO.fullmatch(info.filename)
                    and not SOUND.fullmatch(info.filename)
                ):
                    raise _bad(
                        f"it holds '{info.filename[:80]}', which does not belong in a build's "
                        "archive"
                    )
            names = [i.filename for i in infos]
            if not set(MEMBERS) <= set(names) or len(set(names)) != len(names):
                raise _bad("it must hold build.json and log.jsonl, and each part once")
            if sum(i.file_size for i in infos) > MAX_UNPACKED or any(
                i.file_size > MAX_UNPACKED or i.file_size > MAX_RATIO * max(i.compress_size, 1000)
                for i in infos
            ):
                raise _bad("it would unpack to far more than a build can hold")
            texts = {
                i.filename: _read(archive, i).decode("utf-8")
                for i in infos
                if i.filename in MEMBERS
            }
            photos = {
                found[1]: _file(archive, i, found[1])
                for i in infos
                if (found := PHOTO.fullmatch(i.filename))
            }
            sounds = {
                found[1]: _file(archive, i, found[1])
                for i in infos
                if (found := SOUND.fullmatch(i.filename))
            }
        build = json.loads(texts["build.json"])
        entries = [json.loads(line) for line in texts["log.jsonl"].splitlines()]
    except zipfile.BadZipFile as error:
        raise _bad("it is not a zip file, or it is damaged") from error
    except (ValueError, RecursionError) as error:
        raise _bad(f"a part of it cannot be read ({type(error).__name__})") from error
    if not isinstance(build, dict) or build.get("format") not in KNOWN_FORMATS:
        raise _bad(f"build.json must say format {FORMAT}")
    if not entries or any(not isinstance(e, dict) or set(e) != set(FIELDS) for e in entries):
        raise _bad(f"each line of log.jsonl must have {', '.join(FIELDS)}")
    return Unpacked(build, entries, photos, sounds)


def _file(archive: zipfile.ZipFile, info: zipfile.ZipInfo, name: str) -> bytes:
    data = _read(archive, info)
    if hashlib.sha256(data).hexdigest() != name:
        raise _bad(
            f"{info.filename.partition('/')[0].removesuffix('s')} {name[:12]} is not what its "
            "name says"
        )
    return data


def _read(archive: zipfile.ZipFile, info: zipfile.ZipInfo) -> bytes:
    with archive.open(info) as member:
        data = member.read(MAX_UNPACKED + 1)
    if len(data) > MAX_UNPACKED:
        raise _bad("it would unpack to far more than a build can hold")
    return data


def _bad(what: str) -> Refused:
    return Refused("bad_archive", f"the archive was not read in: {what}", field="file")
