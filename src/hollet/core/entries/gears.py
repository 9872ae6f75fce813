"""What the paste on the teeth of a gear has shown."""

from typing import Annotated, ClassVar

from pydantic import Field

from hollet.core.entries.base import PhotoHash, StepBody

__all__ = ["PatternSeen"]

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
