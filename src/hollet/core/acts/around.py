"""What carries what, how the vehicle stands, a stop, and what it is like round the bench."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.points import forbidden_point
from hollet.core.entries import (
    BookState,
    GoneOn,
    Secured,
    Stopped,
    Supported,
    Surroundings,
    VehicleStands,
)
from hollet.core.entries.around import SupportedSaid
from hollet.core.entries.base import Short
from hollet.core.errors import Conflict, Refused
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured

__all__ = [
    "GoneOnAct",
    "SecuredAct",
    "StoppedAct",
    "SupportedAct",
    "SurroundingsAct",
    "VehicleStandsAct",
]


class SupportedAct(Act[Supported], SupportedSaid):
    """A support in, changed or away."""

    body: ClassVar = Supported
    kind: Literal["supported"]
    padding: Short | None = None
    rated: Annotated[str, Field(max_length=40)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> Supported:
        why = forbidden_point(self.point)
        if why and not self.gone:
            words = f"never under {self.point}: {why}. Choose another place"
            raise Refused("forbidden_point", words, field="point")
        if self.step is not None:
            step_named(state, self.step)
        hangs = self.support_kind == "hook"  # whatever stands under it, it does not stand there
        return self.filled(rated=self._rated(), **({"ground": "unknown"} if hangs else {}))

    def _rated(self) -> Measured | None:
        if not self.rated or not self.rated.strip():
            return None
        rated = measured(self.rated, "mass", "kg", "rated")
        if rated.figure("mass") <= 0:
            words = f"'{self.rated}': what it is rated for is above zero, such as 2000 kg"
            raise Refused("bad_number", words, field="rated")
        return rated


class VehicleStandsAct(Act[VehicleStands], VehicleStands):
    """What the vehicle can do, and where it stands."""

    body: ClassVar = VehicleStands
    kind: Literal["vehicle stands"]

    def accepted(self, state: BookState, hand: Hand) -> VehicleStands:
        return self.filled()


class StoppedAct(Act[Stopped], Stopped):
    """Work stopped at once."""

    body: ClassVar = Stopped
    kind: Literal["stopped"]

    def accepted(self, state: BookState, hand: Hand) -> Stopped:
        return self.filled()


class SecuredAct(Act[Secured], Secured):
    """One thing made safe."""

    body: ClassVar = Secured
    kind: Literal["secured"]

    def accepted(self, state: BookState, hand: Hand) -> Secured:
        return self.filled()


class GoneOnAct(Act[GoneOn], GoneOn):
    """Work goes on."""

    body: ClassVar = GoneOn
    kind: Literal["gone on"]
    note: Annotated[str, Field(max_length=400)] | None = None

    def accepted(self, state: BookState, hand: Hand) -> GoneOn:
        said = state.live("stop")
        if not said or said[-1] == state.newest(GoneOn, "stop"):
            raise Conflict("work is not stopped", reason_code="not_stopped")
        return self.filled()


class SurroundingsAct(Act[Surroundings], Surroundings):
    """What it is like around the bench."""

    body: ClassVar = Surroundings
    kind: Literal["surroundings"]

    def accepted(self, state: BookState, hand: Hand) -> Surroundings:
        return self.filled(around=tuple(dict.fromkeys(self.around)))
