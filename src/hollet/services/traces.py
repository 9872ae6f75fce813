"""Traces of pulls: kept as a packed table, named by the hash of their bytes, and read again."""

import csv
import gzip
import io
import zlib

from hollet.core.errors import NotFound, Refused
from hollet.services.workshop import Workshop
from hollet.store import files

__all__ = ["check_trace", "keep_trace", "trace_bytes"]

MOST = 12_000_000
HEAD = ["angle_deg", "torque_Nm"]


def keep_trace(workshop: Workshop, data: bytes) -> str:
    """Keep a trace; it is synced to disk when this returns."""
    check_trace(data)
    return files.keep(workshop.store.folder, data, files.TRACES)


def trace_bytes(workshop: Workshop, name: str) -> bytes:
    """The packed table of a trace; raises NotFound."""
    if not (len(name) == 64 and all(c in "0123456789abcdef" for c in name)):
        raise NotFound("trace", name[:80])
    path = files.path_of(workshop.store.folder, name, files.TRACES)
    if not path.is_file():
        raise NotFound("trace", name)
    return path.read_bytes()


def check_trace(data: bytes) -> None:
    """Refuse (`no_trace`) what is not a table of angles and torques, or unpacks to too much."""
    try:
        with gzip.open(io.BytesIO(data)) as packed:
            text = packed.read(MOST + 1)
        rows = list(csv.reader(text.decode("ascii").splitlines()[1:]))
        good = len(text) <= MOST and rows[:1] == [HEAD] and len(rows) > 1
        good = good and all(len(row) == 2 and all(map(_figure, row)) for row in rows[1:])
    except (OSError, EOFError, zlib.error, UnicodeDecodeError, csv.Error) as error:
        raise _bad() from error
    if not good:
        raise _bad()


def _figure(text: str) -> bool:
    return text.removeprefix("-").replace(".", "", 1).isdigit() and len(text) < 16


def _bad() -> Refused:
    return Refused("no_trace", "this is no trace: a packed table of angle and torque", field="file")
