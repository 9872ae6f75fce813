"""Last time on this vehicle, or with this engine or gearbox: what earlier builds measured, kept and
accepted, beside today.
"""

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from hollet.core.book.last_time import LastLine
from hollet.core.book.units import UnitLine
from hollet.core.view import View
from hollet.core.words import counted
from hollet.screens.record import RecordView

__all__ = ["Earlier", "LastBuild", "LastRow", "LastView", "last_view"]

TELLING = ("Open", "Accepted in writing", "Not as it left the works", "Looked at again")
"""The sections of an earlier record that the next build begins with."""


class Earlier(NamedTuple):
    """One earlier build: by which unit it is known where its vehicle was another, its record and
    its lines.
    """

    build: str
    name: str
    by: str
    record: RecordView
    lines: Sequence[LastLine]


class LastRow(View):
    """One figure or mark then, and today's figure where this build has it already."""

    step: str
    at: str
    what: str
    then: str
    words: str
    today: str


class LastBuild(View):
    """One earlier build: by which unit where its vehicle was another, how it was closed, what it
    left, its figures.
    """

    build: str
    name: str
    by: str
    title: str
    about: str
    left: tuple[str, ...]
    rows: tuple[LastRow, ...]


class LastView(View):
    """All earlier builds of the vehicle, the newest first, then those of its units in other
    vehicles.
    """

    title: str
    units: tuple[UnitLine, ...]
    builds: tuple[LastBuild, ...]


def last_view(
    vehicle: str,
    units: tuple[UnitLine, ...],
    earlier: Sequence[Earlier],
    today: Mapping[tuple[str, str], str],
) -> LastView:
    """`today` are the figures by step and key."""
    builds = tuple(
        LastBuild(
            build=build,
            name=name,
            by=by,
            title=record.title,
            about=record.about,
            left=tuple(
                f"{section.title}: {row.what}" + (f", {row.right}" if row.right else "")
                for section in record.sections
                if section.title in TELLING
                for row in section.rows
            ),
            rows=tuple(_row(line, today) for line in lines),
        )
        for build, name, by, record, lines in earlier
    )
    moved = sum(bool(b.by) for b in builds)
    here, away = len(builds) - moved, f"{counted(moved, 'build')} with a unit of this one elsewhere"
    title = f"{counted(here, 'build')} before this on {vehicle}"
    if not here:
        title = f"Nothing was built on {vehicle} before this"
    return LastView(title=f"{title}, {away}" if moved else title, units=units, builds=builds)


def _row(line: LastLine, today: Mapping[tuple[str, str], str]) -> LastRow:
    then = ", ".join(text for text in (line.figure, line.day) if text)
    now = today.get((line.step, line.key), "")
    return LastRow(
        step=line.step, at=line.at, what=line.what, then=then, words=line.words, today=now
    )
