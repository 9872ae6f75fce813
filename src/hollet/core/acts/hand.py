"""Whoever acts on a build: the tools as that hand reads them, and the moment."""

from collections.abc import Mapping
from dataclasses import dataclass

from hollet.core.instruments import Instrument

__all__ = ["Hand"]


@dataclass(frozen=True, slots=True)
class Hand:
    """The tools of the shop by id, as whoever acts reads them, and the moment of acting (UTC, ISO
    8601).
    """

    tools: Mapping[str, Instrument]
    now: str

    @property
    def listed(self) -> tuple[Instrument, ...]:
        """All tools, retired ones too."""
        return tuple(self.tools.values())
