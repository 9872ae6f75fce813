"""What lies in the box: spares, parts of donors, what was left over (shop log only)."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Own, Short
from hollet.core.entries.parts import Pieces, Price

__all__ = ["SpareKept", "SpareMoved"]

Origin = Literal["spare", "donor", "left over", "taken out"]
SpareNow = Literal["taken for a job", "back in the box", "sold", "given away", "thrown away"]


class SpareKept(Body):
    """Something in the box: what, how many, what it fits, its condition, where it lies, where it
    came from; `build` is the job it was left over from.
    """

    called: ClassVar = "spare kept"

    spare: Own
    name: Short
    count: Pieces = 1
    fits: Annotated[str, Field(max_length=200)] = ""
    condition: Short
    where: Annotated[str, Field(max_length=120)] = ""
    origin: Origin = "spare"
    build: Annotated[str, Field(max_length=64)] | None = None

    def subject(self) -> Key:
        return Key("spare", self.spare)

    def line(self, title: str) -> str:
        fits = f", fits {self.fits}" if self.fits else ""
        where = f", lies {self.where}" if self.where else ""
        what = f"{self.count} × {self.name}, {self.condition}"
        return f"in the box, {self.origin}: {what}{fits}{where}"


class SpareMoved(Body):
    """So many pieces out of the box or back: for which job, or sold for how much."""

    called: ClassVar = "spare moved"

    spare: Own
    name: Short
    count: Pieces
    now: SpareNow
    build: Annotated[str, Field(max_length=64)] | None = None
    build_name: Annotated[str, Field(max_length=200)] = ""
    need: Own | None = None
    money: Price | None = None

    def subject(self) -> Key:
        return Key("spare", self.spare)

    def line(self, title: str) -> str:
        job = f", {self.build_name}" if self.build_name else ""
        money = f", {self.money:.2f}" if self.money is not None else ""
        return f"{self.count} × {self.name}: {self.now}{job}{money}"
