"""Shims: what lies in the drawer, and what was put in."""

from typing import Annotated, ClassVar

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.entries.base import Key, Short, StepBody
from hollet.core.instruments import Instrument
from hollet.core.quantities.quantity import Quantity

__all__ = ["KitPiece", "KitSaid", "PackPut"]


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

    def line(self, title: str) -> str:
        return f"{self.name}: {_listed(self.pieces) or 'none'} in, {self.promised} by the sum"


def _listed(pieces: tuple[KitPiece, ...]) -> str:
    return ", ".join(f"{p.count} × {p.typed}" if p.count != 1 else p.typed for p in pieces)
