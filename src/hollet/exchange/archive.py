"""The archive of a build: a zip with `build.json`, `log.jsonl`, its photos and recordings, unpacked
with suspicion.

`log.jsonl` holds one entry a line; its body is the very text that was hashed, so that the chain can
be checked. A photo or a recording is
named by the SHA-256 of its bytes.
"""

import hashlib
import io
import json
import lzma
import re
import zipfile
import zlib
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from hollet.core.errors import Refused

__all__ = ["FIELDS", "FORMAT", "Unpacked", "pack", "unpack"]

FORMAT = "hollet-build-5"
KNOWN_FORMATS = ("hollet-build-1", "hollet-build-2", "hollet-build-3", "hollet-build-4", FORMAT)
FIELDS = (
    "id",
    "chain",
    "seq",
    "time",
    "bench_time",
    "who",
    "kind",
    "version",
    "body",
    "hash",
    "sent",
    "rule",
)
MEMBERS = ("build.json", "log.jsonl")
ENDINGS = {"photos": "jpg", "sounds": "snd", "clips": "vid", "traces": "csv.gz"}
"""The sorts of files beside the log: the folder and the ending of each."""
FILES = {
    sort: re.compile(rf"{sort}/([0-9a-f]{{64}})\.{re.escape(end)}") for sort, end in ENDINGS.items()
}
MOMENT = r"^[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9:.]{8,15}(Z|[+-][0-9]{2}:[0-9]{2})$"
MAX_ZIP = 300_000_000
MAX_UNPACKED = 400_000_000
MAX_RATIO = 200
EPOCH = (1980, 1, 1, 0, 0, 0)
DAMAGED = (
    zipfile.BadZipFile,
    zlib.error,
    lzma.LZMAError,
    EOFError,
    OSError,
    NotImplementedError,
)
"""What a damaged stream, an unknown method or an odd header raises; a locked one a RuntimeError."""


def _moment(text: str) -> str:
    datetime.fromisoformat(text)
    return text


Name = Annotated[str, Field(pattern=r"^[0-9A-Za-z-]{1,64}$")]
Moment = Annotated[str, Field(pattern=MOMENT, max_length=40), AfterValidator(_moment)]


class LineIn(BaseModel):
    """One line of a log as an archive may hold it."""

    model_config = ConfigDict(extra="forbid", strict=True)
    id: Name
    chain: Name
    seq: Annotated[int, Field(ge=1, le=10**9)]
    time: Moment
    bench_time: Moment
    who: Annotated[str, Field(min_length=1, max_length=6, pattern=r"^\p{L}+$")]
    kind: Annotated[str, Field(max_length=40)]
    version: Annotated[int, Field(ge=1, le=99)]
    body: Annotated[str, Field(max_length=20_000_000)]
    hash: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    sent: Annotated[str, Field(pattern=r"^([0-9a-f]{64})?$")] = ""
    rule: Annotated[int, Field(ge=1, le=2)] = 1


@dataclass(frozen=True, slots=True)
class Unpacked:
    """What an archive holds: the build's own facts, its entries as plain dictionaries, and its
    files by sort (photos, sounds, clips, traces) and hash.
    """

    build: dict[str, Any]
    entries: list[dict[str, Any]]
    files: dict[str, dict[str, bytes]]


def pack(
    build: dict[str, Any],
    entries: list[dict[str, Any]],
    files: Mapping[str, Mapping[str, bytes]],
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
        for sort in sorted(files):
            for name in sorted(files[sort]):
                info = zipfile.ZipInfo(f"{sort}/{name}.{ENDINGS[sort]}", EPOCH)
                archive.writestr(info, files[sort][name])
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
                if info.filename not in MEMBERS and not _is_file(info.filename):
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
            files = {
                sort: {
                    found[1]: _file(archive, i, found[1])
                    for i in infos
                    if (found := pattern.fullmatch(i.filename))
                }
                for sort, pattern in FILES.items()
            }
        build = json.loads(texts["build.json"])
        entries = [json.loads(line) for line in texts["log.jsonl"].splitlines()]
    except DAMAGED as error:
        raise _bad("it is not a zip file, or it is damaged") from error
    except (ValueError, RecursionError, RuntimeError) as error:
        raise _bad(f"a part of it cannot be read ({type(error).__name__})") from error
    if not isinstance(build, dict) or build.get("format") not in KNOWN_FORMATS:
        raise _bad(f"build.json must say format {FORMAT}")
    if not entries:
        raise _bad(f"each line of log.jsonl must have {', '.join(FIELDS)}")
    return Unpacked(build, [_line(k, entry) for k, entry in enumerate(entries, 1)], files)


def _is_file(name: str) -> bool:
    return any(pattern.fullmatch(name) for pattern in FILES.values())


def _line(number: int, entry: Any) -> dict[str, Any]:
    """A line with every field as strict as one that was typed."""
    try:
        return LineIn.model_validate(entry).model_dump()
    except ValidationError as error:
        first = error.errors()[0]
        field = ".".join(str(part) for part in first["loc"]) or "line"
        raise _bad(f"line {number} of log.jsonl, '{field}': {first['msg']}") from error


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
