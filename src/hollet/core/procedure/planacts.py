"""What a screen asks of a plan: one class an act."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.procedure.words import Hours, Id, Part, ReasonKind, Rung, Stage

__all__ = [
    "AnswerAct",
    "CareAct",
    "CountAct",
    "ExtraAct",
    "FactAct",
    "GenericAct",
    "HiddenAct",
    "JointAct",
    "LimitAct",
    "MoveAct",
    "PartAct",
    "PeopleAct",
    "PlanAct",
    "PutInAct",
    "ReasonAct",
    "RetireAct",
    "SchoolAct",
    "SettleAct",
    "RowAct",
    "ThisFirstAct",
    "WayAct",
]

Text = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]


Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
"""Words that somebody typed: blanks are none."""


Figure = Annotated[str, Field(max_length=40)]


class PlanActBase(Part):
    """What a screen asks of a plan. `guarded`: it is refused where the plan moved on since; a
    figure has a version of its own.
    """

    guarded: ClassVar[bool] = True

    def kept(self) -> bool:
        """Whether it goes into the user's own copy of the sheet too."""
        return False

    def near(self) -> tuple[str, ...]:
        """The steps that it ties something to."""
        return ()


class FactAct(PlanActBase):
    """A fact is known, or is not known after all."""

    act: Literal["fact"]
    fact: Id
    value: Text | None = None


class WayAct(PlanActBase):
    """A way of a school is chosen."""

    act: Literal["way"]
    school: Id
    way: Id


class ExtraAct(PlanActBase):
    """Extra work is wanted, or not."""

    act: Literal["extra"]
    extra: Id
    wanted: bool


class PartAct(PlanActBase):
    """Which kind of a part it is."""

    act: Literal["part"]
    part: Id
    option: Text | None = None


class Before(Part):
    """A step that the new one must come before, and why."""

    step: Id
    because: Said
    kind: ReasonKind = "access closes"


class PutInAct(PlanActBase):
    """A forgotten step: behind which one, before which ones and why; `keep` puts it into the user's
    own copy of the sheet. `blocks` is the rung it shuts, `mends` the finding that it puts right.
    """

    act: Literal["put_in"]
    title: Said
    do: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]
    stage: Stage
    short: Annotated[str, Field(max_length=24)] | None = None
    hours: Hours | None = None
    behind: Id | None = None
    before: tuple[Before, ...] = ()
    after: tuple[Before, ...] = ()
    keep: bool = False
    blocks: Rung | None = None
    mends: Annotated[str, Field(max_length=190)] | None = None

    def kept(self) -> bool:
        return self.keep

    def near(self) -> tuple[str, ...]:
        return tuple(link.step for link in (*self.before, *self.after))


class HiddenAct(PlanActBase):
    """Something hidden at a step that the sheet does not know."""

    act: Literal["hidden"]
    step: Id
    thing: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=300)]


class CareAct(PlanActBase):
    """What a hand says of a step in one line: `orient` (it points one way), `lay` (something is
    laid on, with its open time, and what waits till it has cured), `seat` (it is driven home), or
    `trial` (a dry fit, and what it proves). `sort` is which kind of these.
    """

    act: Literal["care"]
    step: Id
    what: Literal["orient", "lay", "seat", "trial"]
    sort: Annotated[str, Field(max_length=20)] = ""
    says: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=110)]
    where: Annotated[str, StringConstraints(strip_whitespace=True, max_length=110)] = ""
    open: Annotated[str, StringConstraints(strip_whitespace=True, max_length=20)] = ""
    cure: Annotated[str, StringConstraints(strip_whitespace=True, max_length=20)] = ""
    waits: Id | None = None
    second: bool = False


class RowAct(PlanActBase):
    """A part that hangs on the old unit and is in no row yet: what usually becomes of it, and the
    step at which it is final on the new one.
    """

    act: Literal["row"]
    part: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=110)]
    usual: Literal["moved", "renewed", "stays"]
    on_at: Id


class ThisFirstAct(PlanActBase):
    """With a part in the hand: it goes in before the step in hand. `off` are steps, done already,
    that come off again for it; why it comes first is asked at the end of the evening.
    """

    act: Literal["this_first"]
    step: Id
    title: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=120)]
    off: Annotated[tuple[Id, ...], Field(max_length=8)] = ()


class OwnWay(Part):
    """A way as the mechanic knows it."""

    name: Text
    does: Said


class SchoolAct(PlanActBase):
    """A question with the ways that the mechanic knows; the one that is gone, and why."""

    act: Literal["school"]
    question: Text
    way: Annotated[tuple[OwnWay, ...], Field(min_length=2, max_length=4)]
    take: Annotated[int, Field(ge=0, le=3)]
    because: Said


class PeopleAct(PlanActBase):
    """Who comes to a step that needs more than one pair of hands; absent is "to be asked"."""

    act: Literal["people"]
    step: Id
    who: Text | None = None


class MoveAct(PlanActBase):
    """A step comes behind another, or first of its stage."""

    act: Literal["move"]
    step: Id
    behind: Id | None = None


class RetireAct(PlanActBase):
    """A step is taken out of the plan, or put back."""

    act: Literal["retire"]
    step: Id
    back: bool = False


class ReasonAct(PlanActBase):
    """A reason is given, changed, or taken away (`because` absent)."""

    act: Literal["reason"]
    step: Id
    waits_for: Id
    because: Said | None = None
    kind: ReasonKind = "access closes"


class LimitAct(PlanActBase):
    """The figures of a limit as edited; `own` marks the mechanic's own choice."""

    guarded: ClassVar[bool] = False

    act: Literal["limit"]
    limit: Id
    version: int
    lo: Figure | None = None
    hi: Figure | None = None
    target: Figure | None = None
    source: Annotated[str, Field(max_length=200)] | None = None
    page: Annotated[str, Field(max_length=40)] | None = None
    own: bool = False
    same_source: bool = False


class AnswerAct(PlanActBase):
    """What another source says of a limit; the one in force stays in force until
    somebody chooses.
    """

    guarded: ClassVar[bool] = False

    act: Literal["answer"]
    limit: Id
    version: int
    lo: Figure | None = None
    hi: Figure | None = None
    target: Figure | None = None
    source: Annotated[str, Field(min_length=1, max_length=200)]
    page: Annotated[str, Field(max_length=40)] | None = None


class SettleAct(PlanActBase):
    """One of the sources is taken (by its place), or the part where all agree."""

    guarded: ClassVar[bool] = False

    act: Literal["settle"]
    limit: Id
    version: int
    take: Annotated[int, Field(ge=0, le=20)] | Literal["both"]


class JointAct(PlanActBase):
    """Stages, tolerance and source of a joint."""

    guarded: ClassVar[bool] = False

    act: Literal["joint"]
    joint: Id
    version: int
    stage: Annotated[tuple[Figure, ...], Field(min_length=1, max_length=8)]
    tolerance: Figure | None = None
    source: Annotated[str, Field(max_length=200)] | None = None
    own: bool = False


class CountAct(PlanActBase):
    """How many bolts a joint has, counted on the vehicle; `sure` after another number than is drawn
    was asked about.
    """

    guarded: ClassVar[bool] = False

    act: Literal["count"]
    joint: Id
    version: int
    bolts: Annotated[int, Field(ge=1, le=192, strict=True)]
    sure: bool = False


class GenericAct(PlanActBase):
    """The one stage of a joint that is not given gets the generic torque of its thread and grade;
    it stays assumed.
    """

    guarded: ClassVar[bool] = False

    act: Literal["generic"]
    joint: Id
    version: int


PlanAct = Annotated[
    FactAct
    | WayAct
    | ExtraAct
    | PartAct
    | PutInAct
    | HiddenAct
    | CareAct
    | RowAct
    | ThisFirstAct
    | SchoolAct
    | PeopleAct
    | MoveAct
    | RetireAct
    | ReasonAct
    | LimitAct
    | AnswerAct
    | SettleAct
    | JointAct
    | CountAct
    | GenericAct,
    Field(discriminator="act"),
]
