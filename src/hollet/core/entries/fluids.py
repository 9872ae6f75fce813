"""Fluids and leaks: a look under pressure begun and ended, what was seen at a joint and what was
done about it; cycles of bleeding; levels, and what was poured in or ran out.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import AtStep, Body, Key, Seconds, Short
from hollet.core.leaks import GRADES, Came, Grade, Sure, Way
from hollet.core.procedure.pieces import FluidKind
from hollet.core.quantities.quantity import Measured, decimal_text

__all__ = [
    "BleedCycle",
    "FluidMoved",
    "FuelTold",
    "FuelToldSaid",
    "LeakMended",
    "LeakSeen",
    "LevelSaid",
    "LookBegun",
    "LookEnded",
]


def _shown(figure: Measured) -> str:
    return f"{figure.value} {figure.unit}"


class LookBegun(AtStep):
    """A system is under pressure (`pressed`) or runs, cold or hot (at the `temperature` that was
    read, where no run says so), and is looked at from now on; `seen`: what was seen before.
    """

    called: ClassVar = "look begun"

    fluid: FluidKind
    name: Short
    way: Way
    heat: Literal["cold", "hot"]
    pressure: Measured | None = None
    temperature: Measured | None = None
    seen: tuple[Short, ...] = ()

    def subject(self) -> Key:
        return Key("fluid", self.fluid)

    def line(self, title: str) -> str:
        at = f", {_shown(self.pressure)}" if self.pressure is not None else ""
        how = "running" if self.way == "running" else "under pressure"
        at += f", read at {_shown(self.temperature)}" if self.temperature is not None else ""
        return f"{self.name} {how}, {self.heat}{at}: looked at for leaks"


class LookEnded(AtStep):
    """The pressure is off, after so many seconds; `clean`: nothing else was wet anywhere."""

    called: ClassVar = "look ended"
    never_late: ClassVar = True

    look: str
    fluid: FluidKind
    after_s: Seconds
    clean: bool = False

    def subject(self) -> Key:
        return Key("fluid", self.fluid)

    def line(self, title: str) -> str:
        dry = ", nothing else wet anywhere" if self.clean else ""
        return f"pressure off after {decimal_text(self.after_s, 0)} s{dry}"


class LeakSeen(AtStep):
    """What was seen at one place, in a `look` or in passing, with how it stood there then;
    `attempt`: it is the leak that was seen while that one ran.
    """

    called: ClassVar = "leak seen"
    never_late: ClassVar = True
    tells: ClassVar = True

    place: Annotated[str, Field(max_length=120)]
    name: Short
    fluid: FluidKind
    joint: Annotated[str, Field(max_length=40)]
    grade: Grade
    sure: Sure = "certain"
    drops: Annotated[int, Field(ge=1, le=200)] | None = None
    look: str | None = None
    way: Way = "standing"
    heat: Literal["cold", "hot"] = "cold"
    attempt: str | None = None

    def subject(self) -> Key:
        return Key("leak", self.place)

    def also(self) -> tuple[Key, ...]:
        return (Key("run", self.attempt),) if self.attempt else ()

    def line(self, title: str) -> str:
        count = f", {self.drops} a minute" if self.drops else ""
        doubt = f", {self.sure}" if self.sure != "certain" and self.grade != "dry" else ""
        state = {"standing": "no pressure", "pressed": "under pressure", "running": "running"}
        return f"{self.name}: {GRADES[self.grade]}{count}{doubt} ({state[self.way]}, {self.heat})"


class LeakMended(AtStep):
    """What was done about a leak: nipped up by so much, made anew with what comes apart, another
    part, or only wiped to see.
    """

    called: ClassVar = "leak mended"
    never_late: ClassVar = True
    touches: ClassVar = True
    tells: ClassVar = True

    place: Annotated[str, Field(max_length=120)]
    name: Short
    how: Literal["nipped", "apart", "part", "wiped"]
    turn: Measured | None = None
    words: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("leak", self.place)

    def told(self) -> str:
        """What was done, in two or three words."""
        by = f" by {self.turn.value}°" if self.turn is not None else ""
        return {
            "nipped": f"nipped up{by}",
            "apart": "apart, made anew",
            "part": "another part",
            "wiped": "wiped dry",
        }[self.how]

    def line(self, title: str) -> str:
        return f"{self.name}: {self.told()}" + (f", {self.words}" if self.words else "")


class BleedCycle(AtStep):
    """One cycle of getting the air out of a system: what came, where, and how much."""

    called: ClassVar = "bleed cycle"

    fluid: FluidKind
    name: Short
    came: Came
    where: Annotated[str, Field(max_length=80)] = ""
    amount: Measured | None = None

    def subject(self) -> Key:
        return Key("fluid", self.fluid)

    def line(self, title: str) -> str:
        where = f" at {self.where}" if self.where else ""
        amount = f", {_shown(self.amount)}" if self.amount is not None else ""
        return f"{self.name} bled{where}: {self.came}{amount}"


class LevelSaid(AtStep):
    """A level as it was read, with how the unit stood: off the vehicle on its own base, too."""

    called: ClassVar = "level said"

    fluid: FluidKind
    name: Short
    level: Literal["below", "at", "over"]
    attitude: Literal["level", "nose up", "nose down", "leaning", "on its own base"]
    heat: Literal["cold", "hot"]
    running: bool = False

    def subject(self) -> Key:
        return Key("fluid", self.fluid)

    def line(self, title: str) -> str:
        level = {"below": "below its mark", "at": "at its mark", "over": "runs over"}[self.level]
        run = ", running" if self.running else ""
        return f"{self.name}: {level}, {self.attitude}, {self.heat}{run}"


class FluidMoved(AtStep):
    """What was poured in or came out, by which kind, and what explains the difference."""

    called: ClassVar = "fluid moved"

    fluid: FluidKind
    name: Short
    way: Literal["in", "out"]
    amount: Measured
    grade: Annotated[str, Field(max_length=80)] = ""
    words: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("fluid", self.fluid)

    def line(self, title: str) -> str:
        which = f", {self.grade}" if self.grade else ""
        why = f": {self.words}" if self.words else ""
        return f"{self.name} {self.way}: {_shown(self.amount)}{which}{why}"


class FuelToldSaid(Body):
    """What is in the tank: which fuel, since which day (ISO 8601, nothing where nobody knows), what
    the nose says, what a jar of it on white paper shows, whether it was put in to be stored.
    """

    fuel: Literal["petrol", "diesel", "other"]
    since: Annotated[str, Field(max_length=10)] = ""
    nose: Literal["fresh", "sour", "not smelt"] = "not smelt"
    jar: Literal["clear", "water", "layers", "rust", "not looked at"] = "not looked at"
    storage: bool = False


class FuelTold(FuelToldSaid):
    """The same, as it stands in the log."""

    called: ClassVar = "fuel told"
    tells: ClassVar = True
    begins: ClassVar = False

    def subject(self) -> Key:
        return Key("fluid", "fuel")

    def line(self, title: str) -> str:
        stored = " to be stored" if self.storage else ""
        since = f" since {self.since}" if self.since else ", of unknown age"
        return f"in the tank: {self.fuel}{stored}{since}, {self.nose}, jar {self.jar}"
