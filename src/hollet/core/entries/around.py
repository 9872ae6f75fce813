"""What carries what, how the vehicle stands, a stop, and what it is like round the bench."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import AtStep, Body, Key, Own, Short, measured_once
from hollet.core.lore import Around
from hollet.core.procedure.words import Carried, Ground, SupportKind
from hollet.core.quantities.quantity import Measured

__all__ = [
    "GoneOn",
    "Secured",
    "Stopped",
    "Supported",
    "SupportedSaid",
    "Surroundings",
    "VehicleStands",
]


class SupportedSaid(AtStep):
    """One support as a hand sets, changes or takes it."""

    support: Own
    support_kind: SupportKind
    carries: Carried
    point: Short
    padding: str | None = None
    ground: Ground = "unknown"
    gone: bool = False

    def subject(self) -> Key:
        return Key("support")


class Supported(SupportedSaid):
    """One support put in, changed or (`gone`) taken away: what it carries, on which point, over
    what padding and ground.
    """

    called: ClassVar = "supported"
    version: ClassVar = 2
    never_late: ClassVar = True

    rated: Measured | None = None

    def moves_load(self) -> bool:
        return True

    def line(self, title: str) -> str:
        what = f"{self.support_kind} under the {self.carries}, {self.point}"
        if self.gone:
            return f"away: {what}"
        ground = f"{self.ground} ground" if self.ground != "unknown" else None
        rated = f"{self.rated.shown()} rated" if self.rated else None
        return ", ".join(t for t in (f"in: {what}", self.padding, ground, rated) if t)

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        kept = {key: value for key, value in body.items() if key != "rated_kg"}
        rated = measured_once(body.get("rated_kg"), "kg")
        return kept | ({"rated": rated} if rated else {})


class VehicleStands(Body):
    """Whether the vehicle rolls, steers, brakes and starts, which bay or lift it occupies, and what
    ground that has.
    """

    called: ClassVar = "vehicle stands"
    never_late: ClassVar = True

    rolls: bool | None = None
    steers: bool | None = None
    brakes: bool | None = None
    starts: bool | None = None
    bay: Annotated[str, Field(max_length=40)] | None = None
    ground: Ground | None = None

    def subject(self) -> Key:
        return Key("vehicle")

    def line(self, title: str) -> str:
        can = ("rolls", self.rolls), ("steers", self.steers), ("brakes", self.brakes)
        said = [
            word if value else f"not {word}"
            for word, value in (*can, ("starts", self.starts))
            if value is not None
        ]
        told = ", ".join(said + ([f"in {self.bay}"] if self.bay else []))
        return f"vehicle: {told or 'nothing said'}"


class Stopped(AtStep):
    """Work stopped at once: why, which way a load was going, who is hurt, what nearly happened, who
    is left.
    """

    called: ClassVar = "stopped"
    touches: ClassVar = True
    never_late: ClassVar = True

    why: Short
    going: Literal["up", "down", "in", "out"] | None = None
    hurt: Annotated[str, Field(max_length=400)] | None = None
    near_miss: Annotated[str, Field(max_length=400)] | None = None
    people_left: Annotated[int, Field(ge=0, le=20)] | None = None

    def subject(self) -> Key:
        return Key("stop")

    def line(self, title: str) -> str:
        going = f"load was going {self.going}" if self.going else None
        hurt = f"hurt: {self.hurt}" if self.hurt else None
        near = f"near miss: {self.near_miss}" if self.near_miss else None
        return ", ".join(text for text in (f"stopped: {self.why}", going, hurt, near) if text)


class Secured(AtStep):
    """One thing of the list of what to make safe is done."""

    called: ClassVar = "secured"
    never_late: ClassVar = True

    item: Annotated[str, Field(min_length=1, max_length=120)]
    what: Short

    def subject(self) -> Key:
        return Key("stop")

    def line(self, title: str) -> str:
        return f"made safe: {self.what}"


class GoneOn(Body):
    """Work goes on after a stop."""

    called: ClassVar = "gone on"
    never_late: ClassVar = True

    note: str | None = None

    def subject(self) -> Key:
        return Key("stop")

    def line(self, title: str) -> str:
        return "gone on" + (f": {self.note}" if self.note else "")


class Surroundings(Body):
    """What it is like around the bench from now on."""

    called: ClassVar = "surroundings"
    never_late: ClassVar = True

    around: Annotated[tuple[Around, ...], Field(max_length=6)]

    def subject(self) -> Key:
        return Key("surroundings")

    def line(self, title: str) -> str:
        return f"around the bench: {', '.join(self.around) or 'nothing special'}"
