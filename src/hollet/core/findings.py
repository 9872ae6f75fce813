"""What is seen on a part: faces, ways of looking, decisions, and what a term of a finding holds.

The terms themselves ship as data (`lore`).

Grades run from 1 to 3. What a term usually means is shop experience, a first guess and never a
proof.
"""

from typing import Literal

from pydantic import BaseModel, ConfigDict, field_validator

__all__ = [
    "CLEANING",
    "CONFIDENCE",
    "DISPOSITIONS",
    "IN_THE_BOX",
    "METHODS",
    "SURFACES",
    "Cleaning",
    "Confidence",
    "Disposition",
    "FindingCode",
    "Method",
    "Surface",
]

Surface = Literal[
    "rolling",
    "teeth",
    "journal",
    "shell",
    "bore",
    "spline",
    "seal",
    "thread",
    "casting",
    "flange",
    "friction",
    "plastic",
    "sliding",
    "fluid",
    "wire",
    "felt",
]
SURFACES: dict[str, str] = {
    "rolling": "rollers, balls, races",
    "teeth": "gear teeth",
    "journal": "shaft journal",
    "shell": "plain bearing",
    "bore": "cylinder or housing bore",
    "spline": "splines",
    "seal": "rubber and lips",
    "thread": "threads",
    "casting": "cast or pressed body",
    "flange": "sealing face",
    "friction": "friction face",
    "plastic": "plastic",
    "sliding": "sliding face, fork, ring",
    "fluid": "oil, fluid, magnet",
    "wire": "wires and pipes",
    "felt": "by hand and ear",
}
IN_THE_BOX = "all that belongs to it"
Disposition = Literal[
    "reuse",
    "clean",
    "rework",
    "replace",
    "replace_open",
    "other_use",
    "watch",
    "deeper",
    "undecided",
]
DISPOSITIONS: dict[str, str] = {
    "reuse": "use it again",
    "clean": "clean and look again",
    "rework": "rework",
    "replace": "replace",
    "replace_open": "replace because it is open",
    "other_use": "keep for another use",
    "watch": "use it and watch",
    "deeper": "look deeper",
    "undecided": "undecided",
}
Cleaning = Literal["as it came", "wiped", "washed", "polished"]
CLEANING: tuple[Cleaning, ...] = ("as it came", "wiped", "washed", "polished")
Confidence = Literal["sure", "likely", "unsure"]
CONFIDENCE: tuple[Confidence, ...] = ("sure", "likely", "unsure")
Method = Literal[
    "eye",
    "lamp from the side",
    "magnifier",
    "fingertip",
    "by hand",
    "tapped",
    "dye",
    "listened",
    "smelt",
    "magnet",
    "magnetic powder",
    "pressure",
    "straight edge",
    "measured",
    "weighed",
]
METHODS: tuple[Method, ...] = (
    "eye",
    "lamp from the side",
    "magnifier",
    "fingertip",
    "by hand",
    "tapped",
    "dye",
    "listened",
    "smelt",
    "magnet",
    "magnetic powder",
    "pressure",
    "straight edge",
    "measured",
    "weighed",
)


class FindingCode(BaseModel):
    """One term: how it looks, what it usually means, what would confirm that, where to look next,
    what is usually done.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    name: str
    looks: str
    means: str
    confirm: str
    next: str
    usual: tuple[Disposition, ...]
    on: tuple[Surface, ...]
    grades: tuple[str, str, str] = ("light", "clear", "heavy")
    bad_from: int | None = 2
    bad_on_safety: int | None = 2

    @field_validator("bad_from", "bad_on_safety", mode="before")
    @classmethod
    def _never(cls, grade: int | None) -> int | None:
        """A sheet of terms writes 0 for a term that is never bad by itself."""
        return grade or None

    def bad(self, grade: int, safety: bool) -> bool:
        """Whether this grade is bad, on a safety-critical part or on another."""
        least = self.bad_on_safety if safety else self.bad_from
        return least is not None and grade >= least
