"""What an instrument has sent, as it stands beside a figure in the log."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.quantities.quantity import Quantity
from hollet.core.tightening.pull import PullVerdict

__all__ = ["Sent", "Trace"]


class Sent(BaseModel):
    """The event that it was, the device and the code of its tool, when the server heard it (UTC),
    and the line as it came.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    event: Annotated[str, Field(max_length=64)]
    device: Annotated[str, Field(max_length=40)]
    tool: Annotated[str, Field(max_length=40)] = ""
    heard: Annotated[str, Field(max_length=40)]
    raw: Annotated[str, Field(max_length=400)] = ""


class Trace(BaseModel):
    """A pull as it was read then. `at`: where what the verdict says begins, in degrees from the
    snug point; the climb there and the one it had, in N·m by degree; `curve`: the torque at each
    whole `every` degrees.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    verdict: PullVerdict
    at: Quantity | None = None
    climb: Quantity | None = None
    before: Quantity | None = None
    turned: Quantity
    peak: Quantity
    snug: Quantity
    every: Quantity
    curve: Annotated[tuple[Quantity, ...], Field(max_length=200)] = ()
