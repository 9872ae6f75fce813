"""Whoever acts on a build: the tools as that hand reads them, and the moment."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from hollet.core.instruments import Instrument
from hollet.core.sent import SentValue

__all__ = ["SEES_ALL", "Hand"]

SEES_ALL = 10**9


@dataclass(frozen=True, slots=True)
class Hand:
    """The tools of the shop by id, as whoever acts reads them, the moment of acting (UTC, ISO
    8601), and the day that the shop's calendar shows then. What waited in a queue was told at
    `told` (ISO 8601) by somebody who had `seen` the lines up to that one; `who` it was. `sent`:
    what instruments have sent and may be taken, by its event; `live`: what those that speak and are
    at rest read now, by the tool that they are.
    """

    tools: Mapping[str, Instrument]
    now: str
    today: date
    told: str = ""
    seen: int = SEES_ALL
    who: str = ""
    sent: Mapping[str, SentValue] = field(default_factory=dict)
    live: Mapping[str, SentValue] = field(default_factory=dict)

    @property
    def listed(self) -> tuple[Instrument, ...]:
        """All tools, retired ones too."""
        return tuple(self.tools.values())
