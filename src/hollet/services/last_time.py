"""Earlier builds of the same vehicle, or with the same engine or gearbox, as the next one sees
them.
"""

from collections.abc import Iterator

from hollet.core.book.last_time import LastLine, last_lines
from hollet.core.book.units import UnitLine, stamped, units_of
from hollet.core.errors import NotFound
from hollet.screens.last_time import Earlier, LastView, last_view
from hollet.screens.record import record_view
from hollet.services.names import build_rows
from hollet.services.workshop import Workshop

__all__ = ["last_lines_of", "last_time"]


def last_time(workshop: Workshop, build: str) -> LastView:
    """What earlier builds of the vehicle left, beside today; and those of a unit that came from
    another vehicle.
    """
    row = build_rows(workshop).get(build)
    if row is None:
        raise NotFound("build", build)
    _, name, vehicle, _ = row
    today = {(x.step, x.key): x.figure or x.words for x in _lines(workshop, build, name)}
    found = []
    for earlier, called in _earlier(workshop, build):
        found.append(_told(workshop, earlier, called, ""))
    units = _units(workshop, build)
    for earlier, called, by in _of_units(workshop, build, units):
        found.append(_told(workshop, earlier, called, by))
    return last_view(vehicle, units, found, today)


def last_lines_of(workshop: Workshop, build: str) -> tuple[LastLine, ...]:
    """What the benches of a build show of earlier ones: of each thing what was said last."""
    newest: dict[tuple[str, str], LastLine] = {}
    for earlier, called in _earlier(workshop, build):
        for line in _lines(workshop, earlier, called):
            newest.setdefault((line.step, line.key), line)
    return tuple(newest.values())


def _earlier(workshop: Workshop, build: str) -> Iterator[tuple[str, str]]:
    """Builds of the same vehicle that were made before this one, the newest first."""
    rows = list(build_rows(workshop).values())
    own = next((row for row in rows if row[0] == build), None)
    for row in reversed(rows[: rows.index(own)] if own is not None else []):
        if own is not None and row[2].strip().casefold() == own[2].strip().casefold():
            yield row[0], row[1]


def _told(workshop: Workshop, build: str, name: str, by: str) -> Earlier:
    with workshop.held(build) as state:
        record = record_view(state, tuple(workshop.tools().values()), workshop.now())
    return Earlier(build, name, by, record, _lines(workshop, build, name))


def _units(workshop: Workshop, build: str) -> tuple[UnitLine, ...]:
    with workshop.held(build) as state:
        return units_of(state)


def _of_units(
    workshop: Workshop, build: str, units: tuple[UnitLine, ...]
) -> Iterator[tuple[str, str, str]]:
    """Builds of other vehicles that a unit of this one was in before, the newest first, and by
    which unit. Their figures stand at no bench: they may be of what stayed in that vehicle.
    """
    mine = {(unit.sort, stamped(unit.number)) for unit in units}
    rows = list(build_rows(workshop).values())
    own = next(row for row in rows if row[0] == build)
    for row in reversed(rows[: rows.index(own)]):
        if row[2].strip().casefold() == own[2].strip().casefold() or not mine:
            continue
        theirs = _units(workshop, row[0])
        by = [unit for unit in theirs if (unit.sort, stamped(unit.number)) in mine]
        if by:
            yield row[0], row[1], f"{by[0].sort} {by[0].number}, then in {row[2]}"


def _lines(workshop: Workshop, build: str, name: str) -> tuple[LastLine, ...]:
    """What one build says; read again only when its log or the tools of the shop have changed."""

    def read() -> tuple[LastLine, ...]:
        with workshop.held(build) as state:
            return last_lines(state, tuple(workshop.tools().values()), build, name)

    made_of = (workshop.heads().get(build, 0), workshop.store.version)
    return workshop.kept(("last", build), made_of, read)
