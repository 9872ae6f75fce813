"""Last time on this vehicle: what earlier builds measured, kept and accepted, beside today."""

from collections.abc import Mapping, Sequence

from hollet.core.book.last_time import LastLine
from hollet.core.view import View
from hollet.core.words import counted
from hollet.screens.record import RecordView

__all__ = ["LastBuild", "LastRow", "LastView", "last_view"]

TELLING = ("Open", "Accepted in writing", "Not as it left the works", "Looked at again")
"""The sections of an earlier record that the next build begins with."""


class LastRow(View):
    """One figure or mark then, and today's figure where this build has it already."""

    step: str
    at: str
    what: str
    then: str
    words: str
    today: str


class LastBuild(View):
    """One earlier build: how it was closed, what it left, its figures."""

    build: str
    name: str
    title: str
    about: str
    left: tuple[str, ...]
    rows: tuple[LastRow, ...]


class LastView(View):
    """All earlier builds of the vehicle, the newest first."""

    title: str
    builds: tuple[LastBuild, ...]


def last_view(
    vehicle: str,
    earlier: Sequence[tuple[str, str, RecordView, Sequence[LastLine]]],
    today: Mapping[tuple[str, str], str],
) -> LastView:
    """`earlier` are build, name, record and lines; `today` the figures by step and key."""
    builds = tuple(
        LastBuild(
            build=build,
            name=name,
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
        for build, name, record, lines in earlier
    )
    none = f"Nothing was built on {vehicle} before this"
    return LastView(
        title=f"{counted(len(builds), 'build')} before this on {vehicle}" if builds else none,
        builds=builds,
    )


def _row(line: LastLine, today: Mapping[tuple[str, str], str]) -> LastRow:
    then = ", ".join(text for text in (line.figure, line.day) if text)
    now = today.get((line.step, line.key), "")
    return LastRow(
        step=line.step, at=line.at, what=line.what, then=then, words=line.words, today=now
    )
