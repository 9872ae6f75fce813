"""What the work was for, and what is left of it: the complaint with its conditions, the same trial
again, snags and the places for which they matter.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import AtStep, Key, Short

__all__ = ["ComplaintSaid", "SnagCleared", "SnagSaid", "TrialDriven"]


class ComplaintSaid(AtStep):
    """What was wrong in the words of whoever drove, and when: at which speed, under which load,
    towing, cold or hot, braking. The same trial answers it.
    """

    called: ClassVar = "complaint said"
    tells: ClassVar = True
    begins: ClassVar = False

    complaint: Annotated[str, Field(min_length=8, max_length=64)]
    words: Annotated[str, Field(min_length=3, max_length=400)]
    speed: Annotated[str, Field(max_length=60)] = ""
    load: Literal["", "empty", "loaded", "towing"] = ""
    heat: Literal["", "cold", "hot"] = ""
    doing: tuple[Literal["braking", "on the throttle", "coasting", "turning", "standing"], ...] = ()

    def subject(self) -> Key:
        return Key("complaint", self.complaint)

    def conditions(self) -> tuple[str, ...]:
        """When it showed, as far as anybody said."""
        said = (self.speed, self.load, self.heat, *self.doing)
        return tuple(part for part in said if part)

    def line(self, title: str) -> str:
        when = ", ".join(self.conditions())
        return f"complaint: {self.words}" + (f" ({when})" if when else "")


class TrialDriven(AtStep):
    """The trial of a complaint once more; `same`: under all its conditions."""

    called: ClassVar = "trial driven"
    never_late: ClassVar = True
    tells: ClassVar = True
    begins: ClassVar = False

    complaint: Annotated[str, Field(min_length=8, max_length=64)]
    found: Literal["gone", "less", "the same", "worse", "something else"]
    same: bool
    words: Annotated[str, Field(max_length=400)] = ""

    def subject(self) -> Key:
        return Key("complaint", self.complaint)

    def line(self, title: str) -> str:
        how = "the same trial" if self.same else "another trial"
        return f"{how}: {self.found}" + (f", {self.words}" if self.words else "")


class SnagSaid(AtStep):
    """Something small that is left, and for which places it matters."""

    called: ClassVar = "snag said"
    tells: ClassVar = True
    begins: ClassVar = False

    snag: Annotated[str, Field(min_length=8, max_length=64)]
    what: Annotated[str, Field(min_length=3, max_length=300)]
    matters: tuple[Literal["paint", "transport", "road", "track"], ...] = ()

    def subject(self) -> Key:
        return Key("snag", self.snag)

    def line(self, title: str) -> str:
        matters = f", matters for {', '.join(self.matters)}" if self.matters else ""
        return f"snag: {self.what}{matters}"


class SnagCleared(AtStep):
    """A snag is put right: how."""

    called: ClassVar = "snag cleared"
    tells: ClassVar = True
    begins: ClassVar = False

    snag: Annotated[str, Field(min_length=8, max_length=64)]
    what: Short
    done: Annotated[str, Field(max_length=300)] = ""

    def subject(self) -> Key:
        return Key("snag", self.snag)

    def line(self, title: str) -> str:
        return f"snag cleared: {self.what}" + (f", {self.done}" if self.done else "")
