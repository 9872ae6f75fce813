"""What steps are made of: reasons, windows, openings, captures, loads, fluids, fasteners."""

from typing import Annotated, Literal

from pydantic import Field

from hollet.core.arrivals import PartSort
from hollet.core.procedure.facts import Condition
from hollet.core.procedure.words import (
    Carried,
    Id,
    Part,
    ReasonKind,
    ReasonOrigin,
    Rung,
    SupportKind,
    TieKind,
    Words,
)
from hollet.core.safety import Safety

__all__ = [
    "CAPTURE_KINDS",
    "OPEN_SORTS",
    "After",
    "BagLine",
    "BagSpec",
    "Capture",
    "CaptureKind",
    "Carry",
    "Caution",
    "Fluid",
    "FluidKind",
    "LastChance",
    "OneUse",
    "OpenSort",
    "Opens",
    "PartNeed",
    "REASON_TO_SAY",
    "Release",
    "Role",
    "Setting",
    "Stuck",
    "Tie",
]


class After(Part):
    """This step waits for `step`, because; with `if_there` the link counts only where another sheet
    brings that step.

    `assumed`: nobody said why, it only came off in this order. `origin` keeps where a reason came
    from, `said_by` who decided it.
    `how` is what a drying does: dries, cures, cools or soaks.
    `live` is what is dangerous while the other is not done ("the spring is not caught"), `box` what
    is pressed when it was done in
    another way; without them the title and the reason stand in. `lasts` is how long a drying takes,
    such as "12 h".
    """

    step: Id
    because: Words
    kind: ReasonKind = "safety"
    if_there: bool = False
    assumed: bool = False
    origin: ReasonOrigin = "sheet"
    said_by: Annotated[str, Field(max_length=12)] | None = None
    live: Words | None = None
    box: Words | None = None
    lasts: Annotated[str, Field(max_length=20)] | None = None
    how: Literal["dries", "cures", "cools", "soaks"] = "dries"


REASON_TO_SAY = "put in with the part in the hand, nobody has said yet why it comes first"
"""The reason of a step that was put in before the one in hand."""


class LastChance(Part):
    """A thing that nobody reaches once the step is done; `step` is the one that does it, if there
    is one.
    """

    thing: Words
    because: Words
    step: Id | None = None


class Role(Part):
    """One person at a step, and what that person does."""

    role: Words
    does: Words


class OneUse(Part):
    """Fasteners of a joint that go in once and are new each time; without a count, one a bolt."""

    name: Words
    count: Annotated[int, Field(ge=1, le=200)] | None = None
    sort: PartSort = "bolt"


class PartNeed(Part):
    """A new part that the step needs; its sort says how much of it is compared, `feature` what
    else; `final_only`: it is good for one use, and no trial takes it.
    """

    name: Words
    count: Annotated[int, Field(ge=1, le=200)] = 1
    sort: PartSort | None = None
    safety: Safety | None = None
    feature: tuple[Words, ...] = ()
    when: tuple[Condition, ...] = ()
    final_only: bool = False


OpenSort = Literal[
    "disconnected", "tied", "stand_in", "cap", "cover", "block", "open_port", "trial", "other"
]


OPEN_SORTS = {
    "disconnected": "disconnected",
    "tied": "tied up",
    "stand_in": "stand-in bolt or bracket",
    "cap": "capped",
    "cover": "covered",
    "block": "blocked or held",
    "open_port": "open, not covered",
    "trial": "on trial, comes apart again",
    "other": "other",
}


CaptureKind = Literal["photo", "wires", "mark", "index", "length", "reading", "straight_ahead"]


CAPTURE_KINDS = {
    "photo": "photo",
    "wires": "wire by terminal",
    "mark": "witness mark",
    "index": "position of an indexed part",
    "length": "length",
    "reading": "reading",
    "straight_ahead": "straight-ahead mark",
}


class Opens(Part):
    """A temporary state that the step leaves: what, the first rung it blocks, what undoes it, of
    which sort, tucked where, how many of it.
    """

    id: Id
    what: Words
    blocks: Rung
    undo: Words
    open_for: Rung | None = None
    if_left: Words | None = None
    sort: OpenSort = "other"
    where: Words | None = None
    count: Annotated[int, Field(ge=1, le=99)] = 1


class Capture(Part):
    """What must be kept of the state as found before the step destroys it; `within` is how far a
    length may differ at refit.
    """

    id: Id
    what: Words
    kind: CaptureKind
    because: Words
    within: Annotated[str, Field(max_length=40)] | None = None


class Setting(Part):
    """What must not be loosened, what it holds, and where to part things instead."""

    id: Id
    what: Words
    holds: Words
    part_at: Words
    blocks: Rung = "drive"


FluidKind = Literal["oil", "coolant", "fuel", "brake", "clutch", "gear", "axle", "automatic"]


class Fluid(Part):
    """What a system may still hold: of which kind, how much, where it runs out, and whether the
    circuit stays closed.
    """

    id: Id
    name: Words
    runs_out: Words
    kind: FluidKind | None = None
    amount: Annotated[str, Field(max_length=80)] | None = None
    stays_closed: bool = False


class Carry(Part):
    """What carries a body once the step is done: by what, on which points (named or none), at how
    many places.
    """

    body: Carried
    by: SupportKind
    points: Annotated[tuple[Words, ...], Field(max_length=8)] = ()
    count: Annotated[int, Field(ge=1, le=8)] = 1


class Release(Part):
    """What carries a body no longer once the step is done; without `by`, whatever carried it
    before. `free`: nothing is under load after it.
    """

    body: Carried
    by: SupportKind | None = None
    free: bool = False


class Caution(Part):
    """A danger to people: one or two lines, the reason, and what to do."""

    text: Words
    why: Words
    confirm: Words | None = None


class BagLine(Part):
    """Like fasteners of one bag."""

    count: Annotated[int, Field(ge=1, le=500)]
    size: Annotated[str, Field(min_length=1, max_length=40)]
    length: Annotated[str, Field(max_length=20)] | None = None
    holes: Annotated[str, Field(max_length=60)] | None = None
    odd: Annotated[str, Field(max_length=80)] | None = None


class BagSpec(BagLine):
    """Like fasteners that a sheet lets off into a bag, and the joint they go back into; `counted`
    as at a joint.
    """

    joint: Id | None = None
    counted: bool | None = None

    def line(self) -> BagLine:
        """The bag line as it is proposed."""
        return BagLine(**self.model_dump(exclude={"joint", "counted"}))


class Tie(Part):
    """Why nothing parts a tie before its unit moves: it is not there, or it goes with the unit."""

    kind: TieKind
    moves: Carried
    state: Literal["absent", "goes with it"]
    because: Words
    when: tuple[Condition, ...] = ()


class Stuck(Part):
    """A taper, a press fit or a rusted joint: since which step it soaks, or why it does not; what
    may be harmed, what may not, and where one stops.
    """

    thing: Words
    soak: Id | None = None
    no_soak: Words | None = None
    harms: Words
    spares: Words
    stop: Words
