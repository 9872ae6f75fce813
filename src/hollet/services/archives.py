"""Whole builds out and in, and attempts as CSV."""

import json
import re
from collections.abc import Callable
from datetime import datetime
from functools import partial
from typing import Any

from pydantic import ValidationError

from hollet.core.entries import BookState
from hollet.core.entries.fold import state_after
from hollet.core.entries.kinds import KINDS
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, Refused
from hollet.core.steps.run import attempts_of
from hollet.exchange.archive import FIELDS, pack, unpack
from hollet.exchange.csv import table
from hollet.library.lore import lore
from hollet.services.photos import reencode
from hollet.services.recordings import CLIP, SOUND, check
from hollet.services.traces import check_trace
from hollet.services.workshop import Workshop
from hollet.store.chain import broken_at, entry_of
from hollet.store.files import CLIPS, PHOTOS, SOUNDS, TRACES, keep, path_of
from hollet.store.protocols import Books
from hollet.store.records import BuildRecord, Line, PlanRecord, VehicleRecord

__all__ = ["attempts_csv", "export_build", "import_build"]


NAME = re.compile(r"[0-9A-Za-z-]{1,64}")
KEPT: dict[str, tuple[str, str, Callable[[bytes], object]]] = {
    PHOTOS: ("photo", "photo", reencode),
    SOUNDS: ("sound", "recording", partial(check, SOUND)),
    CLIPS: ("clip", "clip", partial(check, CLIP)),
    TRACES: ("traced", "trace", check_trace),
}
"""Of each sort of file: under which key of a body its name stands, what it is called, its check."""


def export_build(workshop: Workshop, build: str) -> bytes:
    """The archive of a build."""
    with workshop.held(build), workshop.store.read() as books:
        row = books.builds.get(build)
        assert row is not None
        vehicle = books.vehicles.get(row.vehicle)
        assert vehicle is not None
        facts = {
            "id": row.id,
            "name": row.name,
            "made": row.made,
            "vehicle": {"id": vehicle.id, "name": vehicle.name, "about": vehicle.about},
        }
        entries = [{key: getattr(e, key) for key in FIELDS} for e in books.log.read(build)]
    files = {
        sort: {
            name: path.read_bytes()
            for name in sorted(_named(entries, key))
            if (path := path_of(workshop.store.folder, name, sort)).is_file()
        }
        for sort, (key, _, _) in KEPT.items()
    }
    return pack(facts, entries, files)


def _named(entries: list[dict[str, Any]], key: str) -> set[str]:
    """The files of a sort that the entries speak of, struck ones too."""
    bodies = (json.loads(e["body"]) for e in entries)
    return {
        body[key] for body in bodies if isinstance(body, dict) and isinstance(body.get(key), str)
    }


def _free_name(books: Books, name: str) -> str:
    """The name, or with a number where another vehicle of the shop has it: two vehicles of one name
    would be taken for one.
    """
    taken = {vehicle.name for vehicle in books.vehicles.all()}
    return next(
        free
        for free in (name, *(f"{name} ({k})" for k in range(2, len(taken) + 3)))
        if free not in taken
    )


def import_build(workshop: Workshop, data: bytes) -> str:
    """Read an archive in; the log arrives byte for byte, the plan is made from it. Nothing is
    written on a mistake.

    Raises
    ------
    Refused
        `bad_archive`: as `exchange.archive.unpack`, or the chain does not hold.
    Conflict
        The build is here already.
    """
    unpacked = unpack(data)
    facts, rows, state = _checked(unpacked.build, unpacked.entries)
    build, whole = str(facts["id"]), state.whole
    assert whole is not None
    for sort, (key, what, checked) in KEPT.items():
        _check_files(unpacked.files[sort], _named(unpacked.entries, key), what, checked)
    with workshop.store.read() as books:
        _not_here(books, build)
    for (
        sort,
        kept,
    ) in (
        unpacked.files.items()
    ):  # a file lies on the disk before its entry does; a left-over one harms nobody
        for data in kept.values():
            keep(workshop.store.folder, data, sort)
    vehicle = facts["vehicle"]
    with workshop.store.write() as books:
        _not_here(books, build)
        if books.vehicles.get(vehicle["id"]) is None:
            name = _free_name(books, vehicle["name"])
            known = json.dumps(whole.facts, sort_keys=True)
            books.vehicles.put(VehicleRecord(vehicle["id"], name, vehicle["about"], known, 1))
        books.builds.put(BuildRecord(build, facts["name"], vehicle["id"], facts["made"]))
        books.plans.put(PlanRecord(build, whole.model_dump_json(), 1))
        books.log.take_in(rows)
    workshop.forget(build)
    workshop.tell("", 0)
    return build


def _not_here(books: Books, build: str) -> None:
    if books.builds.get(build) is not None:
        raise Conflict("this build is here already: nothing was read in", reason_code="build_here")


def _check_files(
    found: dict[str, bytes], named: set[str], what: str, check: Callable[[bytes], object]
) -> None:
    """Refuse a file that no line speaks of, and one that is not of its sort; its bytes are
    never changed, for its name is their hash.
    """
    for name, data in found.items():
        if name not in named:
            raise Refused(
                "bad_archive",
                f"the archive was not read in: no line speaks of the {what} {name[:12]}",
                field="file",
            )
        check(data)


def _checked(
    facts: dict[str, Any], entries: list[dict[str, Any]]
) -> tuple[dict[str, Any], list[Line], BookState]:
    try:
        build, vehicle = facts["id"], facts["vehicle"]
        texts = [
            build,
            facts["name"],
            str(datetime.fromisoformat(facts["made"])),
            vehicle["id"],
            vehicle["name"],
            vehicle["about"],
        ]
        if not all(isinstance(text, str) and 0 < len(text) <= 2000 for text in texts):
            raise ValueError
        if not all(NAME.fullmatch(name) for name in (build, vehicle["id"])):
            raise ValueError
        rows = [Line(**e, strikes=None) for e in entries]
        if any(row.chain != build or row.kind not in KINDS for row in rows):
            raise ValueError
        if any(row.version > KINDS[row.kind].version for row in rows):
            raise ValueError
        folded = [entry_of(row) for row in rows]
        for row, entry in zip(rows, folded, strict=True):
            row.strikes = entry.body.strikes()
        broken = broken_at(rows)
        if broken is not None:
            raise Refused(
                "bad_archive",
                f"the archive was not read in: its chain breaks at line {broken}",
                field="file",
            )
        state = state_after(folded, BookState(lore()))
        if state.plan is None:
            raise ValueError
    except (KeyError, TypeError, ValueError, AttributeError, ValidationError) as error:
        if isinstance(error, Refused):
            raise
        raise Refused(
            "bad_archive",
            "the archive was not read in: its facts or a line are not as a build's must be",
            field="file",
        ) from error
    return facts, rows, state


def attempts_csv(workshop: Workshop, build: str) -> str:
    """All attempts with their samples, one line a sample.

    Assumed limits are marked in the last column.
    """
    head = (
        "attempt",
        "rung",
        "started",
        "who",
        "gate",
        "isolated",
        "after_s",
        "passed",
        "reason",
        "t_s",
        "track",
        "value",
        "unit",
        "assumed",
    )
    with workshop.held(build) as state:
        plan = plan_of(state)
        rows: list[tuple[object, ...]] = []
        for step in (run for s in plan.step if (run := s.as_run()) is not None):
            named = [
                plan.find_limit(n)
                for n in (step.time_limit, step.pressure, step.pressure_by, step.coolant)
                if n
            ]
            assumed = "assumed" if any(x is not None and x.source is None for x in named) else ""
            for a in attempts_of(state, step):
                own = (
                    a.number,
                    a.rung,
                    a.started,
                    a.who,
                    a.gate,
                    "; ".join(a.isolated),
                    a.after_s,
                    a.passed,
                    a.end_reason or a.stop or "",
                )
                points = [
                    (t, track.name, value, track.unit)
                    for track in a.tracks
                    for t, value in track.samples
                ]
                rows += [(*own, *point, assumed) for point in points] or [
                    (*own, "", "", "", "", assumed)
                ]
    return table(head, rows)
