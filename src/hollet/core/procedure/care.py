"""What a hand lays on at a step, and what it seats: sealers and greases with their open time,
seals, bearings and liners.
"""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.procedure.words import Id, Part, Words
from hollet.core.quantities.parse import parse

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["LAID_KINDS", "SEAT_KINDS", "Laid", "LaidKind", "Seat", "SeatKind", "Warm", "care_laws"]

LaidKind = Literal["oil", "grease", "sealer", "locker", "adhesive", "cleaner", "paint"]
LAID_KINDS: dict[LaidKind, str] = {
    "oil": "oil",
    "grease": "grease",
    "sealer": "sealer",
    "locker": "locker",
    "adhesive": "adhesive",
    "cleaner": "cleaner",
    "paint": "paint",
}
SeatKind = Literal["seal", "bearing", "bush", "liner", "race", "plug", "ring"]
SEAT_KINDS: dict[SeatKind, str] = {
    "seal": "seal",
    "bearing": "bearing",
    "bush": "bush",
    "liner": "liner",
    "race": "race",
    "plug": "plug",
    "ring": "ring",
}


class Laid(Part):
    """What is laid on: what, where, how much, what too much of it does; `open` is how long it may
    lie open ("10 min"), a rule of thumb where no `source` says so.
    """

    id: Id
    kind: LaidKind
    what: Annotated[str, Field(min_length=1, max_length=120)]
    where: Words
    how_much: Words | None = None
    too_much: Words | None = None
    open: Annotated[str, Field(max_length=20)] | None = None
    source: Words | None = None

    def open_s(self) -> float | None:
        """How long it may lie open, in seconds."""
        if self.open is None:
            return None
        nominal = parse(self.open, "time", "min").nominal
        return float(nominal) if nominal is not None else None


class Seat(Part):
    """What is driven or pressed home: which way round, by what, how it starts, what tells that it
    is home; `even` is the limit for how far its depths round about may differ.
    """

    id: Id
    kind: SeatKind
    what: Annotated[str, Field(min_length=1, max_length=80)]
    way: Annotated[str, Field(min_length=1, max_length=110)]
    home: Annotated[str, Field(min_length=1, max_length=110)]
    driver: Words | None = None
    start: Words | None = None
    even: Id | None = None

    def boxes(self) -> tuple[str, str]:
        """What is pressed: its way round, and that it is home."""
        return f"{self.what}: {self.way}", f"{self.what} home: {self.home}"


class Warm(Part):
    """What goes on hot, or cold: what, how thick its wall is (a rule of thumb where nobody measured
    it), how hot it may become at most, and what may never be warmed with it.
    """

    id: Id
    what: Annotated[str, Field(min_length=1, max_length=80)]
    by: Literal["oven", "freezer"] = "oven"
    wall: Annotated[str, Field(max_length=20)] = "8 mm"
    most: Annotated[str, Field(max_length=20)]
    never: Words

    def most_c(self) -> float | None:
        """How hot, or cold, it may become, in °C."""
        nominal = parse(self.most, "temperature", "°C").nominal
        return float(nominal) if nominal is not None else None

    def wall_mm(self) -> float | None:
        """Its wall, in mm."""
        nominal = parse(self.wall, "length", "mm").nominal
        return float(nominal) if nominal is not None else None


def care_laws(
    lays: tuple[Laid, ...], seats: tuple[Seat, ...], warms: tuple[Warm, ...], sheet: "Sheet"
) -> Iterator[tuple[str, str]]:
    """Times can be read, and depths are judged by a length."""
    for laid in lays:
        try:
            seconds = laid.open_s()
        except Refused:
            seconds = -1.0
        if laid.open is not None and (seconds is None or seconds <= 0):
            yield "lays", f"'{laid.open}' is no time, such as 10 min"
    for seat in seats:
        limit = sheet.find_limit(seat.even) if seat.even is not None else None
        if seat.even is not None and (limit is None or limit.dimension != "length"):
            yield "seats", f"'{seat.even}' is no limit of a length in this sheet"
    for warm in warms:
        try:
            read = warm.most_c() is not None and (warm.wall_mm() or 0) > 0
        except Refused:
            read = False
        if not read:
            yield "warms", f"'{warm.id}' has no temperature such as 110 °C, or no wall such as 8 mm"
