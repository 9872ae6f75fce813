"""What the doors ask for in one go: a thing done, and the screen as it is then."""

from pathlib import Path
from typing import Any

from pydantic import BaseModel

from hollet.core.acts.base import Act
from hollet.core.checking import Standing, standing
from hollet.core.instruments import Instrument
from hollet.screens.bench import Bench
from hollet.screens.sentences import LogLine
from hollet.services import (
    archives,
    builds,
    gear,
    logging,
    readings,
    recordings,
    sheets,
    shop,
    tools,
    vehicles,
    verifying,
)
from hollet.services.builds import BuildCard
from hollet.services.gear import GearView
from hollet.services.logging import Sent
from hollet.services.recordings import Sort
from hollet.services.sheets import SheetCard
from hollet.services.workshop import Workshop

__all__ = [
    "AppendView",
    "ShopView",
    "described",
    "imported",
    "made",
    "paper",
    "recording_of",
    "shop_view",
    "written",
]


class ShopView(BaseModel):
    """The Shop."""

    name: str
    time_zone: str
    currency: str
    version: int
    now: str
    builds: list[BuildCard]
    sheets: list[SheetCard]
    tools: list[Instrument]
    standings: dict[str, Standing]
    gear: list[GearView]
    presets: list[dict[str, Any]]
    unreadable: list[str]
    changed: list[str]


class AppendView(BaseModel):
    """The line as written, and the screen as it is now."""

    line: LogLine
    build: BuildCard
    bench: Bench | None


def shop_view(workshop: Workshop) -> ShopView:
    """All builds, sheets and tools."""
    facts = shop.shop_facts(workshop)
    return ShopView(
        name=facts.name,
        time_zone=facts.time_zone,
        currency=facts.currency,
        version=facts.version,
        now=workshop.now(),
        builds=list(builds.cards(workshop)),
        sheets=list(sheets.sheet_cards(workshop)),
        tools=list(workshop.tools().values()),
        standings={name: standing(tool) for name, tool in workshop.tools().items()},
        gear=list(gear.all_gear(workshop)),
        presets=list(tools.presets()),
        unreadable=list(builds.unreadable(workshop)),
        changed=verifying.changed_past(workshop),
    )


def made(workshop: Workshop, **build: Any) -> BuildCard:
    """A new build, and its frame."""
    return builds.frame(workshop, builds.make_build(workshop, **build))


def imported(workshop: Workshop, data: bytes) -> BuildCard:
    """A build read in from its archive, and its frame."""
    return builds.frame(workshop, archives.import_build(workshop, data))


def described(
    workshop: Workshop, build: str, *, name: str, about: str, was: str, who: str
) -> BuildCard:
    """The vehicle in other words, and the frame with them."""
    vehicles.describe(workshop, build, name=name, about=about, was=was, who=who)
    return builds.frame(workshop, build)


def written(workshop: Workshop, build: str, sent: Sent, act: Act[Any]) -> AppendView:
    """One entry written: its line, and the screen as it is now."""
    line = logging.write_entry(workshop, build, sent, act)
    here = line.step if line.step_number != "no longer in the plan" else None
    bench = builds.bench(workshop, build, here) if here else None
    return AppendView(line=line, build=builds.frame(workshop, build), bench=bench)


def paper(workshop: Workshop, build: str, step: str | None) -> bytes:
    """The measuring sheet to fill in by hand, as PDF."""
    card = builds.frame(workshop, build)
    moment = card.now[:16].replace("T", " ") + " UTC"
    return readings.sheet_pdf(workshop, build, (card.name, card.about), step, moment)


def recording_of(workshop: Workshop, sort: Sort, name: str) -> tuple[Path, str | None]:
    """The file of a recording by its hash, and what it is."""
    path = recordings.path_of(workshop, sort, name)
    with path.open("rb") as file:
        return path, sort.media_type(file.read(16))
