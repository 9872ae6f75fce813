"""What a screen sends for each kind of entry: only what the hand decided; `accept` adds
the facts.
"""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StringConstraints
from pydantic_core import PydanticCustomError

from hollet.core.book.entries import (
    Around,
    BagNumber,
    Body,
    Carried,
    Ground,
    Own,
    PhotoHash,
    Pin,
    Reason,
    Short,
    SupportKind,
    Tightness,
    Wire,
)
from hollet.core.findings import Cleaning, Confidence, Method, Surface
from hollet.core.findings import Disposition as PartChoice
from hollet.core.limits import Safety
from hollet.core.procedure.sheet import BagLine, CaptureKind, Carry, OpenSort
from hollet.core.procedure.stuck import Near, StuckRung
from hollet.core.procedure.words import ReasonKind, Rung

__all__ = ["Edit", "Passing", "is_thin"]


def is_thin(text: str) -> bool:
    """Whether a reason says nothing: under ten characters, or without two different words."""
    words = {word.casefold() for word in text.split() if any(c.isalnum() for c in word)}
    return len(text.strip()) < 10 or len(words) < 2


def _enough(text: str) -> str:
    if is_thin(text):
        raise PydanticCustomError(
            "reason_thin",
            "say why in ten characters or more and two words, or press one of the reasons offered",
        )
    return text.strip()


Passing = Annotated[str, Field(max_length=1000), AfterValidator(_enough)]
"""A reason for passing something: the large keys give it, or words.

Bodies keep what was accepted before (`Reason`).
"""


class StartedEdit(Body):
    """Work on a step begins; with a reason before what it waits for."""

    kind: Literal["started"]
    step: str
    reason: Passing | None = None
    spoken: str | None = None


class DoneEdit(Body):
    """A step is done; a reason is needed when it is done before what it waits for, or in another
    way.
    """

    kind: Literal["done"]
    step: str
    reason: Passing | None = None
    spoken: str | None = None


class HappenedEdit(Body):
    """The step has happened although a danger before it was not dealt with."""

    kind: Literal["happened"]
    step: str


class SaidEdit(Body):
    """A figure that the step asks for."""

    kind: Literal["said"]
    step: str
    figure: str
    typed: Annotated[str, Field(min_length=1, max_length=40)]
    sure: bool = False


class NotThereEdit(Body):
    """The thing is not on this vehicle: its name, and where it was looked for."""

    kind: Literal["not there"]
    step: str
    thing: Short
    looked: Passing


class ReopenedEdit(Body):
    """A step is reopened."""

    kind: Literal["reopened"]
    step: str
    reason: Reason = "looked at again"


class SkippedEdit(Body):
    """A step is passed over, or does not apply."""

    kind: Literal["skipped"]
    step: str
    reason: Passing | None = None
    not_applicable: bool = False
    spoken: str | None = None


class ConfirmedEdit(Body):
    """A precondition or level was seen."""

    kind: Literal["confirmed"]
    step: str
    what: Short


class ReadingEdit(Body):
    """Repeats as typed, the unit shown in the field, the tool; `sure` after an odd figure was asked
    about.
    """

    kind: Literal["reading"]
    step: str
    reading: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    unit: Short
    instrument: str
    state: Annotated[str, Field(max_length=80)] | None = None
    datum: Annotated[str, Field(max_length=80)] | None = None
    sure: bool = False


class ConcessionEdit(Body):
    """A result accepted in writing."""

    kind: Literal["concession"]
    step: str
    result: str
    reason: Annotated[str, Field(min_length=10, max_length=1000)]
    name: Short
    use: Annotated[str, Field(max_length=200)] | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None
    recheck: Annotated[str, Field(max_length=80)] | None = None


class DispositionEdit(Body):
    """Measure again, rework or replace."""

    kind: Literal["disposition"]
    step: str
    result: str
    choice: Literal["measure_again", "rework", "replace"]
    note: str | None = None


class FindingEdit(Body):
    """What was seen on a face; without a code, nothing was found there."""

    kind: Literal["finding"]
    step: str
    part: Own
    face: Own
    code: Own | None = None
    grade: Annotated[int, Field(ge=1, le=3)] | None = None
    cleaning: Cleaning = "wiped"
    confidence: Confidence = "sure"
    method: Method = "eye"
    words: Annotated[str, Field(max_length=400)] | None = None
    cause: Annotated[str, Field(max_length=200)] | None = None
    photo: PhotoHash | None = None


class FaceAddedEdit(Body):
    """Another face to look at; a part that is not there yet is named."""

    kind: Literal["face added"]
    step: str
    part: Own
    part_name: Short
    face: Own
    face_name: Annotated[str, Field(min_length=1, max_length=24)]
    on: Surface
    safety: Safety | Literal["none"] | None = None


class TracedEdit(Body):
    """What failed, on the trace of this step; nothing takes the trace back."""

    kind: Literal["traced"]
    step: str
    station: Own | None = None


class PartDecidedEdit(Body):
    """What happens to a part, and why."""

    kind: Literal["part decided"]
    step: str
    part: Own
    choice: PartChoice
    reason: Reason
    price: Annotated[float, Field(ge=0, le=1e6)] | None = None
    wrong: Annotated[float, Field(ge=0, le=1e6)] | None = None
    name: Short | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None


class PartRightEdit(Body):
    """What was decided about a part is done."""

    kind: Literal["part put right"]
    step: str
    part: Own
    how: Reason


class LaidBesideEdit(Body):
    """One feature, old against new; what reads alike is the same by itself, a difference may be
    said to do, with the reason.
    """

    kind: Literal["laid beside"]
    step: str
    part: Own
    feature: Annotated[str, Field(min_length=2, max_length=60)]
    old: Annotated[str, Field(min_length=1, max_length=80)]
    new: Annotated[str, Field(min_length=1, max_length=80)]
    same: bool | None = None
    why: Reason | None = None


class CauseEdit(Body):
    """An explanation."""

    kind: Literal["cause"]
    cause: Own
    what: Short
    step: str | None = None


class EvidenceEdit(Body):
    """Something for or against an explanation."""

    kind: Literal["evidence"]
    cause: Own
    sort: Literal["for", "against", "varied", "changed", "maker", "would settle", "settled"]
    text: Annotated[str, Field(min_length=3, max_length=600)]


class AdapterEdit(Body):
    """An adapter as typed: its length (`60 mm`, `2.5 in`) and its angle (`0`)."""

    length: Annotated[str, Field(min_length=1, max_length=40)]
    angle: Annotated[str, Field(min_length=1, max_length=40)] = "0"


class FastenerEdit(Body):
    """A click, a typed value, or a state, on one bolt; `sure` when it was really pulled out of the
    joint's order.

    `as_typed` answers the question about an odd figure. `more`: on an angle stage the figure is
    what was turned on top of what it had.
    """

    kind: Literal["fastener"]
    step: str
    bolt: Annotated[int, Field(ge=1, le=200)]
    act: Literal["clicked", "read", "state", "marked", "locked", "fresh"]
    stage: Annotated[int, Field(ge=1, le=8)] | None = None
    typed: str | None = None
    tightness: Tightness | None = None
    note: str | None = None
    sure: bool = False
    as_typed: bool = False
    more: bool = False


class LeftOpenEdit(Body):
    """Something left open by hand."""

    kind: Literal["left open"]
    step: str
    item: str
    what: Short
    blocks: Rung = "crank"
    undo: Short = "undo it"
    sort: OpenSort = "other"
    where: Short | None = None
    closes_at: str | None = None


class UndoneEdit(Body):
    """What was left open is undone; where it held something up, what carries that now."""

    kind: Literal["undone"]
    item: str
    note: str | None = None
    now_on: Carry | None = None


class BaggedEdit(Body):
    """Fasteners into a bag."""

    kind: Literal["bagged"]
    step: str
    bag: BagNumber
    lines: Annotated[tuple[BagLine, ...], Field(min_length=1, max_length=40)]
    place: Short | None = None


class RemovedEdit(Body):
    """Something came off that no step names; `sure` when it is meant although the same was logged
    just before.
    """

    kind: Literal["removed"]
    removal: Own
    what: Short
    step: str | None = None
    bag: BagNumber | None = None
    lines: Annotated[tuple[BagLine, ...], Field(max_length=40)] = ()
    place: Short | None = None
    on_stand: bool = False
    because: Short | None = None
    reason_kind: ReasonKind | None = None
    sure: bool = False


class UnbaggedEdit(Body):
    """Fasteners out of a bag: fitted, left out for new ones, or lost."""

    kind: Literal["unbagged"]
    step: str
    bag: BagNumber
    lines: Annotated[tuple[BagLine, ...], Field(min_length=1, max_length=60)]
    how: Literal["fitted", "new", "lost"] = "fitted"


class ReplacedEdit(Body):
    """Lost fasteners replaced."""

    kind: Literal["replaced"]
    bag: BagNumber
    count: Annotated[int, Field(ge=1, le=500)]
    by: Short


class CapturedEdit(Body):
    """The state as found, at a step or of a removal."""

    kind: Literal["captured"]
    capture: Own
    step: str | None = None
    removal: Own | None = None
    what: Short | None = None
    capture_kind: CaptureKind | None = None
    words: Annotated[str, Field(max_length=400)] | None = None
    wires: Annotated[tuple[Wire, ...], Field(max_length=60)] = ()
    strokes: Annotated[int, Field(ge=1, le=20)] | None = None
    factory: bool = False
    place: Short | None = None
    typed: Short | None = None
    photo: PhotoHash | None = None


class ComparedEdit(Body):
    """A capture looked at again; `same` may be left out where strokes or a length say it."""

    kind: Literal["compared"]
    step: str
    capture: Own
    same: bool | None = None
    words: Annotated[str, Field(max_length=400)] | None = None
    strokes: Annotated[int, Field(ge=0, le=20)] | None = None
    typed: Short | None = None


class GuardedEdit(Body):
    """A setting that must not be loosened, found by hand."""

    kind: Literal["guarded"]
    step: str
    setting: Own
    what: Short
    holds: Short
    part_at: Short
    blocks: Rung = "drive"


class DisturbedEdit(Body):
    """A setting was loosened after all."""

    kind: Literal["disturbed"]
    step: str
    setting: Own
    reason: Reason


class SetAnewEdit(Body):
    """A disturbed setting is set again."""

    kind: Literal["set anew"]
    step: str
    setting: Own
    how: Reason


class TriedEdit(Body):
    """One try on a stuck part."""

    kind: Literal["tried"]
    step: str
    part: Short
    rung: StuckRung
    time: Annotated[str, Field(min_length=1, max_length=40)]
    came: bool = False
    near: Annotated[tuple[Near, ...], Field(max_length=7)] = ()
    cleaned: bool = False
    wiped: bool = False
    harmed: Short | None = None


class PhotoEdit(Body):
    """A photo that is stored already, with its pins."""

    kind: Literal["photo"]
    photo: PhotoHash
    width: Annotated[int, Field(ge=1, le=20_000)]
    height: Annotated[int, Field(ge=1, le=20_000)]
    what: Short
    step: str | None = None
    removal: Own | None = None
    pins: Annotated[tuple[Pin, ...], Field(max_length=60)] = ()


class PinnedEdit(Body):
    """The pins of a photo."""

    kind: Literal["pinned"]
    photo: PhotoHash
    pins: Annotated[tuple[Pin, ...], Field(max_length=60)]


class SupportedEdit(Body):
    """A support in, changed or away."""

    kind: Literal["supported"]
    support: Own
    support_kind: SupportKind
    carries: Carried
    point: Short
    padding: Short | None = None
    ground: Ground = "unknown"
    rated: Annotated[str, Field(max_length=40)] | None = None
    step: str | None = None
    gone: bool = False


class VehicleStandsEdit(Body):
    """What the vehicle can do, and where it stands."""

    kind: Literal["vehicle stands"]
    rolls: bool | None = None
    steers: bool | None = None
    brakes: bool | None = None
    starts: bool | None = None
    bay: Annotated[str, Field(max_length=40)] | None = None
    ground: Ground | None = None


class StoppedEdit(Body):
    """Work stopped at once."""

    kind: Literal["stopped"]
    why: Short
    step: str | None = None
    going: Literal["up", "down", "in", "out"] | None = None
    hurt: Annotated[str, Field(max_length=400)] | None = None
    near_miss: Annotated[str, Field(max_length=400)] | None = None
    people_left: Annotated[int, Field(ge=0, le=20)] | None = None


class SecuredEdit(Body):
    """One thing made safe."""

    kind: Literal["secured"]
    item: Annotated[str, Field(min_length=1, max_length=120)]
    what: Short
    step: str | None = None


class GoneOnEdit(Body):
    """Work goes on."""

    kind: Literal["gone on"]
    note: Annotated[str, Field(max_length=400)] | None = None


class SurroundingsEdit(Body):
    """What it is like around the bench."""

    kind: Literal["surroundings"]
    around: Annotated[tuple[Around, ...], Field(max_length=6)]


class NoteEdit(Body):
    """Words to the log."""

    kind: Literal["note"]
    step: str | None = None
    text: Annotated[str, Field(min_length=1, max_length=4000)]


class SpokenEdit(Body):
    """A spoken note; the recording is on the server already."""

    kind: Literal["spoken"]
    step: str | None = None
    sound: PhotoHash


class WordedEdit(Body):
    """What a spoken note says, in words."""

    kind: Literal["worded"]
    spoken: str
    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=4000)]


class DecisionEdit(Body):
    """A wrench chosen, a bolt passed over, a dry run decided, a last chance or a capture let go, a
    fluid left out.
    """

    kind: Literal["decision"]
    step: str
    about: Literal["wrench", "pass_over", "dry_run", "last_chance", "capture", "empty"]
    thing: str | None = None
    done_here: bool = False
    bolt: int | None = None
    stage: int | None = None
    wrench: str | None = None
    adapter: AdapterEdit | None = None
    seconds: Annotated[float, Field(gt=0, le=600)] | None = None
    reason: Passing | None = None


class AttemptStartedEdit(Body):
    """An attempt begins; a reason is needed at a shut rung."""

    kind: Literal["attempt started"]
    step: str
    attempt: Annotated[str, Field(min_length=8, max_length=64)]
    isolated: tuple[Short, ...] = ()
    reason: Passing | None = None


class SampleEdit(Body):
    """One moment as typed: revs, oil pressure, temperature and timing as text with units."""

    t: Annotated[float, Field(ge=0, le=86400)]
    rpm: str | None = None
    oil: str | None = None
    coolant: str | None = None
    timing: str | None = None
    timing_state: Annotated[str, Field(max_length=40)] | None = None
    as_typed: bool = False
    lamp_out: bool = False
    seen: Literal["leak", "fuel leak", "noise", "smoke", "glow", "fire"] | None = None


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
    reason: Reason = "key off"
    passed: bool = False
    cause: str | None = None
    change: str | None = None


class StrikeEdit(Body):
    """An entry is struck."""

    kind: Literal["strike"]
    entry: str
    reason: Reason


Edit = Annotated[
    StartedEdit
    | DoneEdit
    | HappenedEdit
    | SaidEdit
    | NotThereEdit
    | ReopenedEdit
    | SkippedEdit
    | ConfirmedEdit
    | ReadingEdit
    | ConcessionEdit
    | DispositionEdit
    | FastenerEdit
    | LeftOpenEdit
    | UndoneEdit
    | BaggedEdit
    | NoteEdit
    | SpokenEdit
    | WordedEdit
    | DecisionEdit
    | AttemptStartedEdit
    | SamplesEdit
    | AttemptEndedEdit
    | StrikeEdit
    | RemovedEdit
    | UnbaggedEdit
    | ReplacedEdit
    | CapturedEdit
    | ComparedEdit
    | GuardedEdit
    | DisturbedEdit
    | SetAnewEdit
    | TriedEdit
    | PhotoEdit
    | PinnedEdit
    | SupportedEdit
    | VehicleStandsEdit
    | StoppedEdit
    | SecuredEdit
    | GoneOnEdit
    | SurroundingsEdit
    | FindingEdit
    | FaceAddedEdit
    | TracedEdit
    | PartDecidedEdit
    | PartRightEdit
    | LaidBesideEdit
    | CauseEdit
    | EvidenceEdit,
    Field(discriminator="kind"),
]
