"""The archive of a build: a zip with `build.json` and `log.jsonl`, unpacked with suspicion.

`log.jsonl` holds one entry a line; its body is the very text that was hashed, so that the chain can be checked.
"""

import io
import json
import zipfile
from dataclasses import dataclass
from typing import Any

from hollet.core.errors import Refused

__all__ = ["FIELDS", "FORMAT", "Unpacked", "pack", "unpack"]

FORMAT = "hollet-build-1"
FIELDS = ("id", "chain", "seq", "time", "bench_time", "who", "kind", "version", "body", "hash")
MEMBERS = ("build.json", "log.jsonl")
MAX_ZIP = 50_000_000
MAX_UNPACKED = 400_000_000
MAX_RATIO = 200
EPOCH = (1980, 1, 1, 0, 0, 0)


@dataclass(frozen=True, slots=True)
class Unpacked:
    """What an archive holds: the build's own facts and its entries as plain dictionaries."""

    build: dict[str, Any]
    entries: list[dict[str, Any]]


def pack(build: dict[str, Any], entries: list[dict[str, Any]]) -> bytes:
    """The archive as bytes; the same content gives the same bytes."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        texts = {
            "build.json": json.dumps({"format": FORMAT, **build}, ensure_ascii=False, sort_keys=True, indent=1),
            "log.jsonl": "".join(json.dumps({k: e[k] for k in FIELDS}, ensure_ascii=False, sort_keys=True) + "\n" for e in entries),
        }
        for name in MEMBERS:
            info = zipfile.ZipInfo(name, EPOCH)
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, texts[name])
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
                if info.filename not in MEMBERS:
                    raise _bad(f"it holds '{info.filename[:80]}', which does not belong in a build's archive")
            if len(infos) != len(MEMBERS) or len({i.filename for i in infos}) != len(MEMBERS):
                raise _bad("it must hold build.json and log.jsonl, once each")
            if any(i.file_size > MAX_UNPACKED or i.file_size > MAX_RATIO * max(i.compress_size, 1000) for i in infos):
                raise _bad("it would unpack to far more than a build can hold")
            texts = {i.filename: _text(archive, i) for i in infos}
        build = json.loads(texts["build.json"])
        entries = [json.loads(line) for line in texts["log.jsonl"].splitlines()]
    except zipfile.BadZipFile as error:
        raise _bad("it is not a zip file, or it is damaged") from error
    except (ValueError, RecursionError) as error:
        raise _bad(f"a part of it cannot be read ({type(error).__name__})") from error
    if not isinstance(build, dict) or build.get("format") != FORMAT:
        raise _bad(f"build.json must say format {FORMAT}")
    if not entries or any(not isinstance(e, dict) or set(e) != set(FIELDS) for e in entries):
        raise _bad(f"each line of log.jsonl must have {', '.join(FIELDS)}")
    return Unpacked(build, entries)


def _text(archive: zipfile.ZipFile, info: zipfile.ZipInfo) -> str:
    with archive.open(info) as member:
        data = member.read(MAX_UNPACKED + 1)
    if len(data) > MAX_UNPACKED:
        raise _bad("it would unpack to far more than a build can hold")
    return data.decode("utf-8")


def _bad(what: str) -> Refused:
    return Refused("bad_archive", f"the archive was not read in: {what}", field="file")
