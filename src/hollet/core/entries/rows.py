"""What becomes of a part that hangs on the old unit, and where it is tonight."""

from typing import Annotated, ClassVar

from pydantic import Field

from hollet.core.entries.base import Key, Own, Short, StepBody
from hollet.core.procedure.rows import FATES, PLACES, Fate, RowPlace

__all__ = ["RowSaid"]


class RowSaid(StepBody):
    """A row as it stands: its fate and why, where it is."""

    called: ClassVar = "row said"
    touches: ClassVar = True
    tells: ClassVar = True

    row: Own
    part: Short
    fate: Fate
    where: RowPlace
    place: Annotated[str, Field(max_length=120)] = ""
    why: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("row", self.row)

    def line(self, title: str) -> str:
        more = ", ".join(text for text in (self.place, self.why) if text)
        told = f" ({more})" if more else ""
        return f"{self.part}: {FATES[self.fate]}, {PLACES[self.where]}{told}"
