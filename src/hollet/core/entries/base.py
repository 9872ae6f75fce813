"""What all entry bodies share: the keys they are filed under, the line they make, what they move.

A kind of entry is one class. A body carries facts: everything that a later edit could change.
"""

from typing import Annotated, Any, ClassVar, Literal, NamedTuple

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.procedure.pieces import BagLine, Carry, Opens, Release
from hollet.core.procedure.plan import Plan

__all__ = [
    "AtStep",
    "BagMove",
    "BagNumber",
    "Body",
    "Key",
    "Money",
    "Own",
    "PhotoHash",
    "Place",
    "Reason",
    "Seconds",
    "Share",
    "Short",
    "Stands",
    "StepBody",
    "Tightness",
    "measured_once",
]

Reason = Annotated[str, Field(min_length=3, max_length=1000)]
Short = Annotated[str, Field(min_length=1, max_length=200)]
PhotoHash = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
Own = Annotated[str, Field(pattern=r"^[0-9a-z][0-9a-z_-]{0,59}$")]
BagNumber = Annotated[int, Field(ge=1, le=9999)]
Share = Annotated[float, Field(json_schema_extra={"figure": "share"})]
Seconds = Annotated[float, Field(json_schema_extra={"figure": "seconds"})]
Money = Annotated[float, Field(json_schema_extra={"figure": "money"})]
"""The only bare figures of a body: a share or percentage, seconds in an attempt, money. All others
are `Measured`.
"""
Tightness = Literal[
    "as found",
    "out",
    "left out on purpose",
    "by hand",
    "snug",
    "cinched",
    "torqued",
    "loosened again",
]
Place = Literal[
    "altered",
    "bag",
    "build",
    "calendar",
    "capture",
    "causes",
    "clip",
    "commitment",
    "complaint",
    "counted",
    "device",
    "earlier",
    "face",
    "gear",
    "ground",
    "helper",
    "fault",
    "fluid",
    "joint",
    "leak",
    "lift",
    "line",
    "load",
    "log",
    "machine",
    "matrix",
    "money",
    "moving",
    "next",
    "need",
    "open",
    "opener",
    "order",
    "outdated",
    "pack",
    "part",
    "photo",
    "plan",
    "question",
    "reading",
    "removal",
    "replaced",
    "result",
    "row",
    "run",
    "said",
    "setting",
    "snag",
    "spare",
    "spoken",
    "step",
    "stop",
    "sum",
    "supplier",
    "support",
    "surroundings",
    "swept",
    "thing",
    "tie",
    "tool",
    "trace",
    "turned",
    "unit",
    "vehicle",
    "visit",
    "wire",
    "worded",
]
"""The sorts of thing that an entry may be about."""


class Key(NamedTuple):
    """What an entry is filed under: a sort of thing, and which one of them."""

    place: Place
    name: str = ""


class BagMove(NamedTuple):
    """Fasteners into a bag (of a step, or of a removal called `what`), or `how` they came out."""

    owner: str
    lines: tuple[BagLine, ...]
    what: str = ""
    place: str | None = None
    how: str | None = None


class Stands(NamedTuple):
    """How a step stands: begun, done, skipped, not_applicable or not_there; why, and what is in
    doubt.
    """

    status: str
    reason: str | None = None
    doubt: str | None = None


class Body(BaseModel):
    """Base of all bodies; frozen, unknown fields refused, no number that is not finite.

    `called` is its word in the log, `version` that of its fields. `never_late`: it tells what
    happened, so that nothing newer makes it wrong. `says`: the last such entry says how its step
    stands; `looks`: somebody looked at a part; `begins`: with it the step is in hand; `touches`: a
    hand was at the engine; `is_ground`: a step that is done later stands on it;
    `tells`: its line is worth reading when the thing goes back; `clocked`: it was written at the
    work itself, so that the time before it was spent on that.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    called: ClassVar[str] = ""
    version: ClassVar[int] = 1
    never_late: ClassVar[bool] = False
    strikable: ClassVar[bool] = True
    says: ClassVar[bool] = False
    looks: ClassVar[bool] = False
    begins: ClassVar[bool] = True
    touches: ClassVar[bool] = False
    is_ground: ClassVar[bool] = False
    tells: ClassVar[bool] = False
    clocked: ClassVar[bool] = True

    def subject(self) -> Key:
        """What the entry is about; lateness is judged by it."""
        step = self.at()
        return Key("step", step) if step else Key("build")

    def at(self) -> str | None:
        """The step at which it was written."""
        return None

    def subjects(self) -> tuple[Key, ...]:
        """All that moves on with this entry: its subject, and its step."""
        own, step = self.subject(), self.at()
        return (own,) if step is None or own == ("step", step) else (own, Key("step", step))

    def also(self) -> tuple[Key, ...]:
        """What else it is filed under, without moving it on."""
        return ()

    def keys(self) -> tuple[Key, ...]:
        """Everything it is filed under, each once."""
        load = (Key("load"),) if self.moves_load() else ()
        return tuple(dict.fromkeys((*self.subjects(), *self.also(), *load)))

    def titled(self) -> Key:
        """The thing whose name its line speaks."""
        return Key("step", self.at() or "")

    def line(self, title: str) -> str:
        """What happened, in one plain sentence; `title` is the name of what `titled` says."""
        raise NotImplementedError(self.called)

    def stands(self) -> Stands:
        """How its step stands after it: in hand, where it says nothing else."""
        return Stands("begun")

    def opened(self) -> tuple[Opens, ...]:
        """What it leaves open."""
        return ()

    def closed(self) -> tuple[str, ...]:
        """Ids of what it closes."""
        return ()

    def carried(self) -> tuple[Carry, ...]:
        """What carries what from now on."""
        return ()

    def released(self) -> tuple[Release, ...]:
        """What carries what no longer."""
        return ()

    def moves_load(self) -> bool:
        """Whether it changes what carries what."""
        return bool(self.carried() or self.released())

    def outdates(self) -> tuple[str, ...]:
        """The steps whose readings and looks count no longer after it."""
        return ()

    def outdated(self) -> str:
        """Why they do not, in words."""
        raise NotImplementedError(self.called)

    def bag_move(self) -> BagMove | None:
        """What it puts into a bag or takes out of one."""
        return None

    def strikes(self) -> str | None:
        """Id of the entry that it strikes."""
        return None

    def plan_after(self, plan: Plan | None) -> Plan | None:
        """The whole plan once this is taken in."""
        return plan

    def shown_photo(self) -> str | None:
        """The photo that its line shows."""
        return None

    def shown_trace(self) -> str | None:
        """The trace that it keeps, by the hash of its file."""
        return None

    def shown_sound(self) -> str | None:
        """The recording that its line plays."""
        return None

    def shown_clip(self) -> str | None:
        """The clip that its line shows."""
        return None

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        """A body of an older `version` in today's form. Old figures keep their unit, and no text
        that was never typed; the stored text stays as it was hashed.
        """
        return body


class StepBody(Body):
    """An entry about one step."""

    step: str

    def at(self) -> str | None:
        return self.step


class AtStep(Body):
    """An entry that may have been written at a step."""

    step: str | None = None

    def at(self) -> str | None:
        return self.step


def measured_once(value: Any, unit: str) -> dict[str, Any] | None:
    """A bare figure of an old line with its unit, as it was kept: nobody knows what was typed."""
    return None if value is None else {"value": str(value), "unit": unit}
