"""Speed: parsing, folding cold and warm, appending to long logs, the state of a build with 5,000 entries."""

import json
from pathlib import Path

import pytest
from pydantic import TypeAdapter

from hollet.core.book.edits import Edit
from hollet.core.book.entries import KINDS
from hollet.core.quantities.parse import parse
from hollet.services import builds
from hollet.services.logging import Sent, write_entry
from hollet.services.workshop import Workshop
from hollet.store import journal
from tests.services.conftest import stock

EDIT: TypeAdapter = TypeAdapter(Edit)
TEXTS = [f"{n / 1000:.3f}{unit}" for n in range(2500) for unit in (" mm", "\"", " thou", " Nm")]


def grown(folder: Path, count: int) -> tuple[Workshop, str]:
    """A workshop whose build has `count` entries: readings, clicks and notes, written past the checks for speed."""
    workshop = Workshop(folder)
    build = stock(workshop)
    tool = workshop.tools()["f1"]
    reading = {"step": "ring", "reading": "ring", "typed": ["0.30"], "unit": "mm", "values": [{"value": "0.30", "unit": "mm"}], "instrument": tool.model_dump(mode="json")}
    bodies = [("reading", KINDS["reading"].model_validate_json(json.dumps(reading))), ("note", KINDS["note"](text="a line", step="bore"))]
    with workshop.database.write() as session:
        place = journal.head(session, build)
        for number in range(count):
            kind, body = bodies[number % 2]
            row = journal.append(session, workshop.draft(build, kind, body, "MK"), place)
            place = (row.seq, row.hash)
    workshop.forget(build)
    return workshop, build


def append(workshop: Workshop, build: str) -> None:
    """One note through the service, acknowledged."""
    sent = Sent(id=workshop.new_id(), who="MK", bench_time="2026-03-01T09:00:00Z", seen=0)
    write_entry(workshop, build, sent, EDIT.validate_python({"kind": "note", "text": "x"}))


def test_parse_ten_thousand(benchmark):
    """10,000 different quantities, nothing remembered."""

    def run() -> None:
        parse.cache_clear()
        for text in TEXTS:
            parse(text)

    benchmark.pedantic(run, rounds=5)


@pytest.mark.parametrize("count", [100, 1_000, 10_000, 100_000])
def test_append(benchmark, tmp_path, count):
    """One entry through the service with fsync, behind a log of `count`."""
    workshop, build = grown(tmp_path, count)
    append(workshop, build)
    benchmark.pedantic(append, (workshop, build), rounds=40)
    workshop.close()


def test_fold_cold_hundred_thousand(benchmark, tmp_path):
    """100,000 entries read and folded from nothing."""
    workshop, build = grown(tmp_path, 100_000)

    def run() -> None:
        workshop.forget(build)
        with workshop.held(build) as state:
            assert state.head == 100_001

    benchmark.pedantic(run, rounds=3)
    workshop.close()


def test_state_of_five_thousand(benchmark, tmp_path):
    """Frame and bench of a build with 5,000 entries, warm, right after an append."""
    workshop, build = grown(tmp_path, 5_000)

    def run() -> None:
        builds.frame(workshop, build)
        builds.bench(workshop, build, "bore")

    run()
    benchmark.pedantic(run, setup=lambda: append(workshop, build), rounds=60)
    workshop.close()
