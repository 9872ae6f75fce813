"""What is known of leaks: how each system is put under pressure and looked at, how air leaves it,
and how much tightening may do to a joint that leaks.
"""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.procedure.pieces import FluidKind

__all__ = ["GRADES", "Came", "Grade", "LeakJoint", "LeakSystem", "Sure", "Way"]

Grade = Literal["dry", "damp", "drop", "run", "stream"]
GRADES: dict[Grade, str] = {
    "dry": "dry",
    "damp": "damp",
    "drop": "drips",
    "run": "runs",
    "stream": "a stream",
}
"""From nothing to a jet: damp marks a cloth and makes no drop in ten minutes; drops can be counted,
up to 60 a minute; a thread runs down; a stream or mist.
"""
Sure = Literal["certain", "likely", "doubtful"]
Way = Literal["standing", "pressed", "running"]
"""What a look was at: nothing under pressure, put under pressure, or the engine running."""
Came = Literal["air", "foam", "clear", "nothing"]
"""What a cycle of bleeding brought."""


class LeakSystem(BaseModel):
    """One kind of fluid: how it is pressed and for how long it is looked at (s), what is seen
    before, what ends it; and how air is got out of it.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    kind: FluidKind
    press: str
    off: str
    caution: str
    needs: tuple[str, ...]
    pressed_s: Annotated[int, Field(ge=1, le=3600)]
    running_s: Annotated[int, Field(ge=1, le=3600)]
    clean: str
    again: tuple[str, ...]
    before: str
    cycle: str
    air: str
    done: str
    ruins: str
    safe: str | None = None

    def hold_s(self, way: Way) -> int:
        """How long it is looked at before it is called dry, in s."""
        return self.running_s if way == "running" else self.pressed_s


class LeakJoint(BaseModel):
    """A sort of joint: the turn that tightening may use in all (degrees), or `once` and to what, or
    neither: tightening does nothing; and what follows then. Rules of thumb.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: str
    name: str
    most_deg: Annotated[float, Field(gt=0, le=180)] | None = None
    once: str | None = None
    then: str
