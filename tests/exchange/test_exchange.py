"""Archives unpacked with suspicion; CSV that no spreadsheet runs."""

import hashlib
import io
import json
import zipfile

import pytest

from hollet.core.errors import Refused
from hollet.exchange.archive import FORMAT, MAX_ZIP, pack, unpack
from hollet.exchange.csv import table

ENTRY = {
    "id": "a-1",
    "chain": "b",
    "seq": 1,
    "time": "2026-03-01T08:00:00Z",
    "bench_time": "2026-03-01T09:00:00.250+01:00",
    "who": "MK",
    "kind": "note",
    "version": 1,
    "body": '{"text":"x"}',
    "hash": "0" * 64,
    "sent": "",
    "rule": 2,
}
PHOTO = hashlib.sha256(b"p").hexdigest()


def zipped(**members: str | bytes) -> bytes:
    """A zip with these members; `__` stands for a dot."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in members.items():
            archive.writestr(name.replace("__", "."), content)
    return buffer.getvalue()


BUILD = json.dumps({"format": FORMAT, "id": "b"})
LOG = json.dumps(ENTRY) + "\n"


def test_round_trip():
    """What was packed is unpacked; the same content packs to the same bytes."""
    data = pack(
        {"id": "b", "name": "Ümlaut"},
        [ENTRY, ENTRY],
        {"photos": {PHOTO: b"p"}, "sounds": {PHOTO: b"p"}},
    )
    assert data == pack(
        {"name": "Ümlaut", "id": "b"},
        [ENTRY, ENTRY],
        {"photos": {PHOTO: b"p"}, "sounds": {PHOTO: b"p"}},
    )
    unpacked = unpack(data)
    assert unpacked.build["name"] == "Ümlaut"
    assert unpacked.entries == [ENTRY, ENTRY]
    assert unpacked.files == {
        "photos": {PHOTO: b"p"},
        "sounds": {PHOTO: b"p"},
        "clips": {},
        "traces": {},
    }


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("seq", 1.0),
        ("seq", True),
        ("seq", 0),
        ("version", True),
        ("version", 200),
        ("time", 5),
        ("time", "banana"),
        ("time", "9999-99-99T99:99:99Z"),
        ("bench_time", "2026-03-01"),
        ("who", "M" * 100_000),
        ("who", "M1"),
        ("id", "a/b"),
        ("id", "x" * 100_000),
        ("chain", "../b"),
        ("hash", "0" * 63),
        ("body", None),
    ],
)
def test_each_field_is_as_strict_as_a_typed_one(field, value):
    """An odd type, a time that no clock shows, initials of a hundred thousand letters: refused."""
    with pytest.raises(Refused, match=f"line 1 of log.jsonl, '{field}'"):
        unpack(pack({"id": "b"}, [ENTRY | {field: value}], {}))


def flipped(at: int, *, listed: bool) -> bytes:
    """An archive with a byte changed at an offset from a name: of its stream, or of where it is
    `listed`.
    """
    data = bytearray(zipped(build__json=BUILD, log__jsonl=LOG * 50))
    name = data.rindex(b"log.jsonl") if listed else data.index(b"log.jsonl")
    data[name + at] ^= 0x5F
    return bytes(data)


@pytest.mark.parametrize(
    ("at", "listed"), [(-38, True), (-36, True), (-26, True), (9, False), (12, False), (20, False)]
)
def test_damaged_streams(at, listed):
    """A locked member, an unknown method, a wrong size, a broken stream: one sentence each."""
    with pytest.raises(Refused) as refusal:
        unpack(flipped(at, listed=listed))
    assert refusal.value.reason_code == "bad_archive"


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"no zip", "not a zip"),
        (zipped(build__json=BUILD), "each part once"),
        (zipped(build__json=BUILD, log__jsonl=LOG, **{"../../etc/passwd": "x"}), "does not belong"),
        (zipped(build__json=BUILD, log__jsonl=LOG, **{"/tmp/x": "x"}), "does not belong"),
        (
            zipped(build__json=BUILD, log__jsonl=LOG, **{f"photos/{PHOTO}__jpg": "q"}),
            "not what its name says",
        ),
        (zipped(build__json=BUILD, log__jsonl=LOG, **{"photos/me__jpg": "q"}), "does not belong"),
        (zipped(build__json="{}", log__jsonl=LOG), "must say format"),
        (zipped(build__json="[", log__jsonl=LOG), "cannot be read"),
        (zipped(build__json="[" * 100_000, log__jsonl=LOG), ""),
        (zipped(build__json=BUILD, log__jsonl=b"\xff\xfe"), "cannot be read"),
        (zipped(build__json=BUILD, log__jsonl=""), "each line"),
        (zipped(build__json=BUILD, log__jsonl='{"id": 1}\n'), "line 1 of log.jsonl"),
        (zipped(build__json=BUILD, log__jsonl=b" " * 30_000_000), "far more"),
        (b"P" * (MAX_ZIP + 1), "larger than"),
    ],
    ids=[
        "nozip",
        "missing",
        "climbing",
        "absolute",
        "photo",
        "photo name",
        "format",
        "json",
        "deep",
        "bytes",
        "empty",
        "fields",
        "bomb",
        "large",
    ],
)
def test_bad_archives(data, words):
    """Each trick is refused in one sentence."""
    with pytest.raises(Refused) as refusal:
        unpack(data)
    assert refusal.value.reason_code == "bad_archive"
    assert words in refusal.value.message


def test_cut_short():
    """An archive cut in the middle is refused."""
    with pytest.raises(Refused):
        unpack(pack({"id": "b"}, [ENTRY], {})[:-40])


@pytest.mark.parametrize("cell", ["=1+1", "+cmd", "-2+3", "@x", "\tx"])
def test_cells_are_neutralised(cell):
    """A cell that a spreadsheet would run gets an apostrophe; numbers stay numbers."""
    assert table(["a"], [[cell]]).splitlines()[1].lstrip('"').startswith("'")
    assert table(["a"], [[-2.5]]).splitlines()[1] == "-2.5"
