"""Whole builds out and in, attempts as CSV, and the check of everything."""

import hashlib
import json
import re
from collections.abc import Callable
from datetime import datetime
from typing import Any

from pydantic import ValidationError
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from hollet.core.entries import Body, BookState
from hollet.core.entries.fold import state_after
from hollet.core.entries.kinds import KINDS
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, Refused
from hollet.core.procedure.plan import Plan
from hollet.core.steps.run import attempts_of
from hollet.exchange.archive import FIELDS, pack, unpack
from hollet.exchange.csv import table
from hollet.services.photos import reencode
from hollet.services.sounds import check_sound
from hollet.services.workshop import SHOP, Workshop
from hollet.store import journal
from hollet.store.files import PHOTOS, SOUNDS, keep, path_of
from hollet.store.models import BuildRow, EntryRow, VehicleRow

__all__ = ["attempts_csv", "export_build", "import_build", "verify"]


NAME = re.compile(r"[0-9A-Za-z-]{1,64}")
KEPT = {"photo": PHOTOS, "sound": SOUNDS}
"""Under which key of a body the name of which sort of file stands."""
SHOWN: dict[str, Callable[[Body], str | None]] = {
    PHOTOS: lambda body: body.shown_photo(),
    SOUNDS: lambda body: body.shown_sound(),
}


def export_build(workshop: Workshop, build: str) -> bytes:
    """The archive of a build."""
    with workshop.held(build), workshop.database.read() as session:
        row = session.get(BuildRow, build)
        assert row is not None
        vehicle = session.get(VehicleRow, row.vehicle)
        assert vehicle is not None
        facts = {
            "id": row.id,
            "name": row.name,
            "made": row.made,
            "vehicle": {"id": vehicle.id, "name": vehicle.name, "about": vehicle.about},
        }
        entries = [{key: getattr(e, key) for key in FIELDS} for e in journal.read(session, build)]
    files = {
        sort: {
            name: path.read_bytes()
            for name in sorted(_named(entries, key))
            if (path := path_of(workshop.database.folder, name, sort)).is_file()
        }
        for key, sort in KEPT.items()
    }
    return pack(facts, entries, files[PHOTOS], files[SOUNDS])


def _named(entries: list[dict[str, Any]], key: str) -> set[str]:
    """The photos or recordings that the entries speak of, struck ones too."""
    bodies = (json.loads(e["body"]) for e in entries)
    return {
        body[key] for body in bodies if isinstance(body, dict) and isinstance(body.get(key), str)
    }


def _free_name(session: Session, name: str) -> str:
    """The name, or with a number where another vehicle of the shop has it: two vehicles of one name
    would be taken for one.
    """
    taken = set(session.execute(select(VehicleRow.name)).scalars())
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
    _check_files(unpacked.photos, _named(unpacked.entries, "photo"), "photo", reencode)
    _check_files(unpacked.sounds, _named(unpacked.entries, "sound"), "recording", check_sound)
    with workshop.database.read() as session:
        if session.get(BuildRow, build) is not None:
            raise Conflict(
                "this build is here already: nothing was read in", reason_code="build_here"
            )
    for sort, kept in (
        (PHOTOS, unpacked.photos),
        (SOUNDS, unpacked.sounds),
    ):  # a file lies on the disk before its entry does; a left-over one harms nobody
        for data in kept.values():
            keep(workshop.database.folder, data, sort)
    with workshop.database.write() as session:
        if session.get(BuildRow, build) is not None:
            raise Conflict(
                "this build is here already: nothing was read in", reason_code="build_here"
            )
        vehicle = facts["vehicle"]
        if session.get(VehicleRow, vehicle["id"]) is None:
            session.add(
                VehicleRow(
                    id=vehicle["id"],
                    name=_free_name(session, vehicle["name"]),
                    about=vehicle["about"],
                    version=1,
                    facts=json.dumps(whole.facts, sort_keys=True),
                )
            )
            session.flush()
        session.add(
            BuildRow(
                id=build,
                name=facts["name"],
                vehicle=vehicle["id"],
                made=facts["made"],
                plan=whole.model_dump_json(),
                version=1,
            )
        )
        session.flush()
        if any(journal.row_of(session, row.id) is not None for row in rows):
            raise Conflict(
                "lines of this archive are here already under another build", reason_code="id_used"
            )
        session.add_all(rows)
    workshop.forget(build)
    workshop.tell("", 0)
    return build


def _check_files(
    found: dict[str, bytes], named: set[str], what: str, check: Callable[[bytes], object]
) -> None:
    """Refuse a file that no line speaks of, and one that is no picture or recording; its bytes are
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
) -> tuple[dict[str, Any], list[EntryRow], BookState]:
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
        rows = [EntryRow(**e, strikes=None, sent="") for e in entries]
        if any(row.chain != build or row.kind not in KINDS for row in rows):
            raise ValueError
        if any(row.version > KINDS[row.kind].version for row in rows):
            raise ValueError
        broken = journal.broken_at(iter(rows))
        if broken is not None:
            raise Refused(
                "bad_archive",
                f"the archive was not read in: its chain breaks at line {broken}",
                field="file",
            )
        folded = [journal.entry_of(row) for row in rows]
        for row, entry in zip(rows, folded, strict=True):
            row.strikes = entry.body.strikes()
        state = state_after(folded)
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


def _verified_files(workshop: Workshop, name: str, state: BookState) -> list[str]:
    """A line each on the photos and recordings of a build: whether each lies on the disk with the
    bytes that its name is the hash of.
    """
    lines = []
    for sort, shown in SHOWN.items():
        named = {found for e in state.entries.values() if (found := shown(e.body))}
        paths = {file: path_of(workshop.database.folder, file, sort) for file in sorted(named)}
        bad = [
            file
            for file, path in paths.items()
            if not path.is_file() or hashlib.sha256(path.read_bytes()).hexdigest() != file
        ]
        if named:
            lines.append(
                (
                    f"broken: {sort} of {name}, {len(bad)} of {len(named)} missing or changed, "
                    f"{bad[0][:12]}"
                )
                if bad
                else f"ok: {sort} of {name}, {len(named)}"
            )
    return lines


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


TRIGGERS = {"entry_no_update", "entry_no_delete"}
"""What keeps the log from being rewritten."""


def verify(workshop: Workshop) -> list[str]:
    """Everything that can be checked, in lines; each begins with "ok" or "broken"."""
    whole = workshop.database.integrity() == "ok"
    lines = [f"{'ok' if whole else 'broken'}: database file"]
    lines += [f"broken: there is no {name}" for name in workshop.database.missing_columns()]
    missing = TRIGGERS - workshop.database.triggers()
    lines += ["broken: what keeps the log from being rewritten was taken out"] if missing else []
    with workshop.database.read() as session:
        lines += _verified_chain(session, SHOP, "shop")[0]
        builds = [(r.id, r.name, r.plan) for r in session.execute(select(BuildRow)).scalars()]
        for chain, name, plan in builds:
            told, state = _verified_chain(session, chain, name)
            lines += told
            if state is not None:
                same = _reads(plan) == state.whole
                lines += _verified_files(workshop, name, state)
                lines.append(f"{'ok' if same else 'broken'}: plan of {name}, rebuilt from its log")
        orphans = _orphans(session, {SHOP, *(chain for chain, _, _ in builds)})
    return lines + [f"broken: the build of {count} lines is gone ({c})" for c, count in orphans]


def _reads(plan: str) -> Plan | None:
    try:
        return Plan.model_validate_json(plan)
    except ValidationError:
        return None


def _verified_chain(session: Session, chain: str, name: str) -> tuple[list[str], BookState | None]:
    """A line on a chain; and its state, where every line holds and can be read."""
    broken = journal.broken_at(journal.read(session, chain))
    entries = [journal.readable(row) for row in journal.read(session, chain)]
    unread = next((k for k, entry in enumerate(entries, 1) if entry is None), None)
    at = min((line for line in (broken, unread) if line is not None), default=None)
    if at is not None:
        return [f"broken: log of {name} at line {at}"], None
    state = state_after(entry for entry in entries if entry is not None)
    return [f"ok: log of {name}, {len(entries)} lines"], state


def _orphans(session: Session, known: set[str]) -> list[tuple[str, int]]:
    """Chains of lines whose build is not there."""
    counted = select(EntryRow.chain, func.count()).group_by(EntryRow.chain)
    return [(row[0], row[1]) for row in session.execute(counted) if row[0] not in known]
