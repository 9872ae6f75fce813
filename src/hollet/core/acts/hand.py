"""Whoever acts on a build: the tools as that hand reads them, and the moment."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from hollet.core.instruments import Instrument

__all__ = ["Hand"]


@dataclass(frozen=True, slots=True)
class Hand:
    """The tools of the shop by id, as whoever acts reads them, the moment of acting (UTC, ISO
    8601), and the day that the shop's calendar shows then.
    """

    tools: Mapping[str, Instrument]
    now: str
    today: date

    @property
    def listed(self) -> tuple[Instrument, ...]:
        """All tools, retired ones too."""
        return tuple(self.tools.values())
