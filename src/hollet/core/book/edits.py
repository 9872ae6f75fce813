"""What a screen sends for each kind of entry: only what the hand decided; `accept` adds the facts."""

from typing import Annotated, Literal

from pydantic import Field

from hollet.core.book.entries import Adapter, Body, Reason, Short, Tightness
from hollet.core.procedure.sheet import BagLine
from hollet.core.procedure.words import Rung

__all__ = ["Edit"]


class StartedEdit(Body):
    """Work on a step begins."""

    kind: Literal["started"]
    step: str


class DoneEdit(Body):
    """A step is done; a reason is needed when it is done before what it waits for."""

    kind: Literal["done"]
    step: str
    reason: Reason | None = None


class ReopenedEdit(Body):
    """A step is reopened."""

    kind: Literal["reopened"]
    step: str
    reason: Reason


class SkippedEdit(Body):
    """A step is passed over, or does not apply."""

    kind: Literal["skipped"]
    step: str
    reason: Reason
    not_applicable: bool = False


class ConfirmedEdit(Body):
    """A precondition or level was seen."""

    kind: Literal["confirmed"]
    step: str
    what: Short


class ReadingEdit(Body):
    """Repeats as typed, the unit shown in the field, the tool; `sure` after an odd figure was asked about."""

    kind: Literal["reading"]
    step: str
    reading: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    unit: Short
    instrument: str
    state: str | None = None
    sure: bool = False


class ConcessionEdit(Body):
    """A result accepted in writing."""

    kind: Literal["concession"]
    step: str
    result: str
    reason: Annotated[str, Field(min_length=10, max_length=1000)]
    name: Short
    licensed: str | None = None
    recheck: str | None = None


class DispositionEdit(Body):
    """Measure again, rework or replace."""

    kind: Literal["disposition"]
    step: str
    result: str
    choice: Literal["measure_again", "rework", "replace"]
    note: str | None = None


class FastenerEdit(Body):
    """A click, a typed value, or a state, on one bolt; `sure` when it was really pulled out of the joint's order."""

    kind: Literal["fastener"]
    step: str
    bolt: Annotated[int, Field(ge=1, le=200)]
    act: Literal["clicked", "read", "state", "marked", "locked"]
    stage: Annotated[int, Field(ge=1, le=8)] | None = None
    typed: str | None = None
    tightness: Tightness | None = None
    note: str | None = None
    sure: bool = False


class LeftOpenEdit(Body):
    """Something left open by hand."""

    kind: Literal["left open"]
    step: str
    item: str
    what: Short
    blocks: Rung = "crank"
    undo: Short = "undo it"


class UndoneEdit(Body):
    """What was left open is undone."""

    kind: Literal["undone"]
    item: str
    note: str | None = None


class BaggedEdit(Body):
    """Fasteners into a bag."""

    kind: Literal["bagged"]
    step: str
    bag: Annotated[int, Field(ge=1, le=9999)]
    lines: Annotated[tuple[BagLine, ...], Field(min_length=1, max_length=40)]
    place: str | None = None


class NoteEdit(Body):
    """Words to the log."""

    kind: Literal["note"]
    step: str | None = None
    text: Annotated[str, Field(min_length=1, max_length=4000)]


class DecisionEdit(Body):
    """A wrench chosen, a bolt passed over, a dry run decided, or a last chance let go."""

    kind: Literal["decision"]
    step: str
    about: Literal["wrench", "pass_over", "dry_run", "last_chance"]
    thing: str | None = None
    done_here: bool = False
    bolt: int | None = None
    stage: int | None = None
    wrench: str | None = None
    adapter: Adapter | None = None
    seconds: Annotated[float, Field(gt=0, le=600)] | None = None
    reason: Reason | None = None


class AttemptStartedEdit(Body):
    """An attempt begins; a reason is needed at a shut rung."""

    kind: Literal["attempt started"]
    step: str
    attempt: Annotated[str, Field(min_length=8, max_length=64)]
    isolated: tuple[Short, ...] = ()
    reason: Reason | None = None


class SampleEdit(Body):
    """One moment as typed: revs, oil pressure, temperature and timing as text with units."""

    t: Annotated[float, Field(ge=0, le=86400)]
    rpm: str | None = None
    oil: str | None = None
    coolant: str | None = None
    timing: str | None = None
    lamp_out: bool = False
    seen: Literal["leak", "fuel leak", "noise", "smoke", "glow"] | None = None


class SamplesEdit(Body):
    """Samples of an attempt."""

    kind: Literal["samples"]
    step: str
    attempt: str
    samples: Annotated[tuple[SampleEdit, ...], Field(min_length=1, max_length=600)]


class AttemptEndedEdit(Body):
    """The key is off."""

    kind: Literal["attempt ended"]
    step: str
    attempt: str
    after_s: Annotated[float, Field(ge=0, le=86400)]
    reason: Reason
    passed: bool = False
    cause: str | None = None
    change: str | None = None


class StrikeEdit(Body):
    """An entry is struck."""

    kind: Literal["strike"]
    entry: str
    reason: Reason


Edit = Annotated[
    StartedEdit | DoneEdit | ReopenedEdit | SkippedEdit | ConfirmedEdit | ReadingEdit | ConcessionEdit | DispositionEdit
    | FastenerEdit | LeftOpenEdit | UndoneEdit | BaggedEdit | NoteEdit | DecisionEdit | AttemptStartedEdit | SamplesEdit
    | AttemptEndedEdit | StrikeEdit,
    Field(discriminator="kind"),
]  # fmt: skip
