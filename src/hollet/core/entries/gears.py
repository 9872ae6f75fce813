"""What the paste on the teeth of a gear has shown, where its carrier lies, what was changed."""

from typing import Annotated, ClassVar

from pydantic import Field

from hollet.core.entries.base import Key, PhotoHash, Short, StepBody
from hollet.core.instruments import Instrument
from hollet.core.quantities.quantity import Measured, Quantity

__all__ = ["CarrierSet", "PartChanged", "PatternSeen"]

Spot = Annotated[str, Field(max_length=20)]


class PatternSeen(StepBody):
    """Where the paste was worn off on the drive side and on the coast side, what that means, and
    the photo of it.
    """

    called: ClassVar = "pattern seen"
    looks: ClassVar = True
    is_ground: ClassVar = True

    drive_side: Spot
    coast_side: Spot
    action: Annotated[str, Field(max_length=40)]
    words: Annotated[str, Field(max_length=300)]
    photo: PhotoHash | None = None

    def shown_photo(self) -> str | None:
        return self.photo

    def line(self, title: str) -> str:
        drive, coast = (side.replace("_", " and ") for side in (self.drive_side, self.coast_side))
        return f"{title}: drive side {drive}, coast side {coast}. {self.words}"


class CarrierSet(StepBody):
    """The packs of shims that lie at both sides of a carrier now, measured with a tool or as
    printed; with the mean backlash (mm) that was read before, and the steps that are read again.
    """

    called: ClassVar = "carrier set"
    touches: ClassVar = True
    is_ground: ClassVar = True

    near_name: Short
    far_name: Short
    near: Measured
    far: Measured
    instrument: Instrument | None = None
    before: Quantity | None = None
    again: tuple[str, ...] = ()

    def subjects(self) -> tuple[Key, ...]:
        under = dict.fromkeys((self.step, *self.again))
        return (
            *super().subjects(),
            *(Key("outdated", name) for name in self.again),
            *(Key("ground", name) for name in under),
        )

    def outdates(self) -> tuple[str, ...]:
        return self.again

    def outdated(self) -> str:
        return "shims of the carrier were moved since"

    def line(self, title: str) -> str:
        by = self.instrument.code if self.instrument else "as printed"
        return (
            f"{title}: {self.near.shown()} at the {self.near_name}, {self.far.shown()} at the "
            f"{self.far_name}, {by}"
        )


class PartChanged(StepBody):
    """A part was changed, and what had been read with the old one no longer holds."""

    called: ClassVar = "part changed"
    touches: ClassVar = True
    tells: ClassVar = True

    what: Short
    again: tuple[str, ...]

    def subjects(self) -> tuple[Key, ...]:
        return (
            *super().subjects(),
            *(Key("outdated", name) for name in self.again),
            *(Key("ground", name) for name in self.again),
        )

    def outdates(self) -> tuple[str, ...]:
        return self.again

    def outdated(self) -> str:
        return f"{self.what}: changed since"

    def line(self, title: str) -> str:
        return f"changed: {self.what}"
