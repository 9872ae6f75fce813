"""The check of everything: database, chains, photos, plans, and what was changed past Hollet."""

import hashlib
from collections.abc import Callable

from pydantic import ValidationError

from hollet.core.entries import Body, BookState, Note
from hollet.core.entries.fold import state_after
from hollet.core.errors import Unavailable
from hollet.core.instruments import Instrument
from hollet.core.procedure.plan import Plan
from hollet.library.lore import lore
from hollet.services.workshop import SHOP, Workshop
from hollet.store.chain import broken_at, readable
from hollet.store.files import CLIPS, PHOTOS, SOUNDS, TRACES, path_of
from hollet.store.protocols import Books, Doctored

__all__ = ["accept_as_it_is", "changed_past", "verify"]

SHOWN: dict[str, Callable[[Body], str | None]] = {
    PHOTOS: lambda body: body.shown_photo(),
    SOUNDS: lambda body: body.shown_sound(),
    CLIPS: lambda body: body.shown_clip(),
    TRACES: lambda body: body.shown_trace(),
}


def _verified_files(workshop: Workshop, name: str, state: BookState) -> list[str]:
    """A line each on the files of a build: whether each photo, recording, clip and trace lies on
    the disk with the bytes that its name is the hash of.
    """
    lines = []
    for sort, shown in SHOWN.items():
        named = {found for e in state.entries.values() if (found := shown(e.body))}
        paths = {file: path_of(workshop.store.folder, file, sort) for file in sorted(named)}
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


def verify(workshop: Workshop) -> list[str]:
    """Everything that can be checked, in lines; each begins with "ok" or "broken"."""
    faults = workshop.store.faults()
    lines = [f"broken: {fault}" for fault in faults] or ["ok: database"]
    with workshop.store.read() as books:
        lines += _verified_chain(workshop, books, SHOP, "shop")[0]
        builds = books.builds.all()
        for build in builds:
            told, state = _verified_chain(workshop, books, build.id, build.name)
            lines += told
            if state is not None:
                kept = books.plans.get(build.id)
                same = kept is not None and _reads(kept.plan) == state.whole
                lines += _verified_files(workshop, build.name, state)
                words = f"plan of {build.name}, rebuilt from its log"
                lines.append(f"{'ok' if same else 'broken'}: {words}")
        known = {SHOP, *(build.id for build in builds)}
        orphans = [(c, n) for c, n in books.log.heads().items() if c not in known]
    lines += [f"broken: the build of {count} lines is gone ({c})" for c, count in orphans]
    changed = _changed(workshop, plans=True)
    return lines + ([f"broken: {words}" for words in changed] or ["ok: seals"])


def changed_past(workshop: Workshop) -> list[str]:
    """What was changed, taken out or put in past Hollet, a sentence each, the plans left out;
    looked at once a minute, and after each change.
    """
    made_of = (workshop.now()[:16], workshop.store.version)
    return workshop.kept(("changed",), made_of, lambda: _changed(workshop, plans=False))


def _changed(workshop: Workshop, *, plans: bool) -> list[str]:
    torn = workshop.store.doctored(plans=plans)
    if not torn:
        return []
    with workshop.store.read() as books:
        return list(dict.fromkeys(_torn_words(books, one) for one in torn))


NAMES: dict[str, str] = {
    "shop": "what the shop is called",
    "vehicles": "the vehicle",
    "builds": "the name of the build",
    "plans": "the plan of the build",
    "instruments": "the tool",
    "gear": "the tool",
    "devices": "the phone or tablet",
    "sheets": "the sheet",
    "seals": "the list of seals",
}


def _torn_words(books: Books, torn: Doctored) -> str:
    name = _called(books, torn.table, torn.id)
    return f"{NAMES[torn.table]}{f' {name}' if name else ''} {torn.what} past Hollet"


def _called(books: Books, table: str, record_id: str) -> str:
    """What a mechanic calls a record, or its id where it is gone."""
    match table:
        case "vehicles":
            vehicle = books.vehicles.get(record_id)
            return vehicle.name if vehicle is not None else record_id
        case "builds" | "plans":
            build = books.builds.get(record_id)
            return build.name if build is not None else record_id
        case "instruments":
            tool = books.instruments.get(record_id)
            try:
                read = Instrument.model_validate_json(tool.tool) if tool is not None else None
            except ValidationError:
                read = None
            return f"{read.code}, {read.name}" if read is not None else record_id
        case "devices":
            device = books.devices.get(record_id)
            return device.name if device is not None else record_id
    return "" if table == "shop" else record_id


def accept_as_it_is(workshop: Workshop, who: str) -> list[str]:
    """Seal everything as it stands now; the shop's log says who took what.

    The way out where something was changed past Hollet on purpose. A chain whose lines do not fit
    one another stays broken: no seal mends that.
    """
    found = _changed(workshop, plans=True)
    with workshop.store.read() as books:
        for chain, head in books.log.heads().items():
            gone = workshop.cut_at(chain, head)
            if gone is not None:
                found.append(f"the log {chain} ends before line {gone}")
    said = [
        workshop.draft(SHOP, Note(text=f"taken as it is: {words}"[:900]), who) for words in found
    ]
    workshop.store.seal()
    with workshop.store.write() as books:
        for draft in said:
            books.log.append(draft)
    return found


def _reads(plan: str) -> Plan | None:
    try:
        return Plan.model_validate_json(plan)
    except ValidationError:
        return None


def _verified_chain(
    workshop: Workshop, books: Books, chain: str, name: str
) -> tuple[list[str], BookState | None]:
    """A line on a chain; and its state, where every line holds and can be read."""
    broken = broken_at(books.log.read(chain))
    entries = [readable(row) for row in books.log.read(chain)]
    unread = next((k for k, entry in enumerate(entries, 1) if entry is None), None)
    at = min((line for line in (broken, unread) if line is not None), default=None)
    if at is not None:
        return [f"broken: log of {name} at line {at}"], None
    try:
        sealed = workshop.store.sealed(chain) or ((0, "") if not entries else None)
    except Unavailable:
        return [f"broken: log of {name}, its seal was changed"], None
    if sealed is None:
        return [f"broken: log of {name}, its seal is gone"], None
    if sealed[0] > len(entries):
        words = f"it was sealed at line {sealed[0]} and ends at line {len(entries)}"
        return [f"broken: log of {name}, {words}: the rest is gone"], None
    if sealed[0] and books.log.hash_at(chain, sealed[0]) != sealed[1]:
        return [f"broken: log of {name} at line {sealed[0]}: it was written anew"], None
    state = state_after((e for e in entries if e is not None), BookState(lore()))
    return [f"ok: log of {name}, {len(entries)} lines"], state
