"""Shims: what lies in the drawer, and what was put in."""

from typing import Annotated, ClassVar

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Key, Short, StepBody
from hollet.core.instruments import Instrument
from hollet.core.quantities.quantity import Measured, Quantity

__all__ = [
    "KitPiece",
    "KitSaid",
    "PackPut",
    "Pair",
    "PairsTaken",
    "ShimMove",
    "ShimsChanged",
    "ShimsRead",
]


class KitPiece(BaseModel):
    """Like shims: the thickness as typed and in mm, the last digit of what was typed, and how
    many.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    typed: Short
    thickness: Quantity
    last: Quantity
    count: Annotated[int, Field(ge=0, le=99)]


class KitSaid(StepBody):
    """All shims that lie in the drawer for a pack, measured with a tool or as printed on them."""

    called: ClassVar = "kit said"
    looks: ClassVar = True

    pack: str
    name: Short
    pieces: Annotated[tuple[KitPiece, ...], Field(max_length=60)]
    instrument: Instrument | None = None

    def subject(self) -> Key:
        return Key("pack", f"{self.step}/{self.pack}")

    def line(self, title: str) -> str:
        by = f"measured with {self.instrument.code}" if self.instrument else "as printed"
        return f"{self.name}, in the drawer: {_listed(self.pieces)}, {by}"


class PackPut(StepBody):
    """The shims that lie in now, for the readings that they were chosen by; `promised` is what the
    sum then gives.
    """

    called: ClassVar = "pack put"
    touches: ClassVar = True
    is_ground: ClassVar = True

    pack: str
    name: Short
    result: str
    pieces: Annotated[tuple[KitPiece, ...], Field(max_length=8)]
    instrument: Instrument | None = None
    readings: tuple[str, ...]
    promised: str

    def subject(self) -> Key:
        return Key("result", f"{self.step}/{self.result}")

    def also(self) -> tuple[Key, ...]:
        return (Key("pack", f"{self.step}/{self.pack}"),)

    def subjects(self) -> tuple[Key, ...]:
        return (*super().subjects(), Key("ground", self.step))

    def outdated(self) -> str:
        return "shims were put in before it arrived"

    def line(self, title: str) -> str:
        return f"{self.name}: {_listed(self.pieces) or 'none'} in, {self.promised} by the sum"


class ShimsRead(StepBody):
    """How thick the shim of each valve is, the spares in the drawer, and the sizes that can be
    bought; measured with a tool or as printed.
    """

    called: ClassVar = "shims read"
    looks: ClassVar = True

    shims: Annotated[tuple[Measured, ...], Field(min_length=1, max_length=64)]
    spares: Annotated[tuple[Measured, ...], Field(max_length=60)] = ()
    sizes: tuple[Measured, Measured, Measured]
    instrument: Instrument | None = None

    def line(self, title: str) -> str:
        by = self.instrument.code if self.instrument else "as printed"
        spare = f", {len(self.spares)} spare" if self.spares else ""
        return f"{title}: shims {', '.join(m.shown() for m in self.shims)}{spare}, {by}"


class ShimMove(BaseModel):
    """One valve whose shim is changed: from where the new one comes, how thick both are, and the
    lash that is promised, in mm.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    reading: str
    result: str
    name: Short
    source: Short
    old: Quantity
    new: Quantity
    promised: Quantity


class ShimsChanged(StepBody):
    """The shims are changed about: every valve with another one, for the lashes that they were
    chosen by.
    """

    called: ClassVar = "shims changed"
    touches: ClassVar = True
    is_ground: ClassVar = True

    moves: Annotated[tuple[ShimMove, ...], Field(min_length=1, max_length=64)]

    def subjects(self) -> tuple[Key, ...]:
        results = (Key("result", f"{self.step}/{move.result}") for move in self.moves)
        return (*super().subjects(), *results, Key("ground", self.step))

    def outdated(self) -> str:
        return "shims were changed about before it arrived"

    def line(self, title: str) -> str:
        told = ", ".join(
            f"{m.name} {m.old.value} out, {m.new.value} in ({m.source})" for m in self.moves
        )
        return f"{title}: {told}"


class Pair(BaseModel):
    """What goes into what: the result that judges it, the readings of both, and their names."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    result: str
    outer: Short
    inner: str
    inner_name: Short
    readings: tuple[str, ...]


class PairsTaken(StepBody):
    """Like parts matched: each named with what it goes into, by the readings as they stood."""

    called: ClassVar = "pairs taken"
    touches: ClassVar = True
    is_ground: ClassVar = True

    pairs: Annotated[tuple[Pair, ...], Field(min_length=2, max_length=16)]

    def subjects(self) -> tuple[Key, ...]:
        results = (Key("result", f"{self.step}/{pair.result}") for pair in self.pairs)
        return (*super().subjects(), *results)

    def line(self, title: str) -> str:
        return f"{title}: {', '.join(f'{p.inner_name} into {p.outer}' for p in self.pairs)}"


def _listed(pieces: tuple[KitPiece, ...]) -> str:
    return ", ".join(f"{p.count} × {p.typed}" if p.count != 1 else p.typed for p in pieces)
