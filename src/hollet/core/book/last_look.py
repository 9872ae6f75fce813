"""Which of several looks at one thing counts: the last by the hour of its bench, and no other once
it was struck.
"""

from collections.abc import Sequence
from datetime import datetime
from typing import TypeVar

from hollet.core.entries import Body, Entry, Line

__all__ = ["is_after", "last_look"]

B = TypeVar("B", bound=Body)


def last_look(looks: Sequence[Entry[B]], struck: Sequence[Entry[B]]) -> Entry[B] | None:
    """The last look by the clock of its bench, so that an older one that waited on a device and
    came late takes nothing back. None where a newer one was struck: it is looked at again.
    """
    last = max(looks, key=lambda look: (_at(look), look.seq), default=None)
    if last is None or any(look.seq > last.seq for look in struck):
        return None
    return last


def is_after(seen: Line, what: Line | None) -> bool:
    """Whether somebody looked after it, by the log and by the clock of the bench too."""
    return what is None or (seen.seq > what.seq and _at(seen) >= _at(what))


def _at(line: Line) -> datetime:
    return datetime.fromisoformat(line.bench_time)
