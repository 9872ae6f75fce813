"""The kinds of entry that a log holds, and their bodies.

A body carries facts: everything a later edit could change.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.findings import Cleaning, Confidence, Method, Surface
from hollet.core.findings import Disposition as PartChoice
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit, Safety
from hollet.core.procedure.changes import Change
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import BagLine, CaptureKind, Carry, Opens, OpenSort, Release
from hollet.core.procedure.stuck import Near, StuckRung
from hollet.core.procedure.words import Carried, Ground, ReasonKind, Rung, SupportKind
from hollet.core.quantities.quantity import Measured, Quantity

__all__ = [
    "KINDS",
    "VERSIONS",
    "Around",
    "BagNumber",
    "Body",
    "Carried",
    "Entry",
    "Ground",
    "Own",
    "PhotoHash",
    "Pin",
    "SupportKind",
    "Tightness",
    "Wire",
    "lifted",
]

Reason = Annotated[str, Field(min_length=3, max_length=1000)]
Short = Annotated[str, Field(min_length=1, max_length=200)]
PhotoHash = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
Own = Annotated[str, Field(pattern=r"^[0-9a-z][0-9a-z_-]{0,59}$")]
BagNumber = Annotated[int, Field(ge=1, le=9999)]
Share = Annotated[float, Field(json_schema_extra={"figure": "share"})]
Seconds = Annotated[float, Field(json_schema_extra={"figure": "seconds"})]
Money = Annotated[float, Field(json_schema_extra={"figure": "money"})]
"""The only bare figures of a body: a share or percentage, seconds in an attempt, money.

All others are `Measured`.
"""
Around = Literal["wind", "dust", "cold", "damp", "dark", "noise"]
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


class Body(BaseModel):
    """Base of all bodies; frozen, unknown fields refused, no number that is not finite."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def subject(self) -> str:
        """What the entry is about; lateness is judged by subject."""
        step = getattr(self, "step", None)
        return f"step:{step}" if step else "build"


class Turned(Body):
    """A verdict that an edit of the plan turned: which result of which step, what it was, and what
    it became.
    """

    step: str
    result: str
    name: Annotated[str, Field(max_length=400)]
    was: Annotated[str, Field(max_length=40)]
    now: Annotated[str, Field(max_length=40)]


class PlanEdited(Body):
    """The plan was made (`sheet`, whole) or changed (`changes`, each with before and after); with
    the verdicts that this turned.
    """

    what: Short
    sheet: Plan | None = None
    changes: tuple[Change, ...] = ()
    reason: str | None = None
    turned: Annotated[tuple[Turned, ...], Field(max_length=400)] = ()

    def subject(self) -> str:
        return "plan"


class StepBody(Body):
    """An entry about one step."""

    step: str


class Started(StepBody):
    """Work on the step began; `reason` when before what it waits for, `passed` names that."""

    reason: Reason | None = None
    passed: Annotated[tuple[Annotated[str, Field(max_length=800)], ...], Field(max_length=60)] = ()
    spoken: str | None = None


class Done(StepBody):
    """The step is done; with what it opened, closed, carries and lets go, and the joint it took
    out. `reason` when out of order or done in another way.

    `passed` names what the reason passed, in words; lines of before it was kept have none.
    """

    reason: Reason | None = None
    passed: (
        Annotated[tuple[Annotated[str, Field(max_length=800)], ...], Field(max_length=60)] | None
    ) = None
    spoken: str | None = None
    joint: str | None = None
    opens: tuple[Opens, ...] = ()
    closes: tuple[str, ...] = ()
    carries: tuple[Carry, ...] = ()
    releases: tuple[Release, ...] = ()


class Happened(StepBody):
    """The step has happened already although a danger was not dealt with: a fact and no pass.

    `without` names what was not so, in words.
    """

    without: Annotated[
        tuple[Annotated[str, Field(min_length=1, max_length=600)], ...],
        Field(min_length=1, max_length=20),
    ]
    opens: tuple[Opens, ...] = ()
    carries: tuple[Carry, ...] = ()
    releases: tuple[Release, ...] = ()


class Said(StepBody):
    """A figure that the step asks for, as typed, with its value and unit."""

    figure: str
    name: Short
    value: Measured

    def subject(self) -> str:
        return f"said:{self.figure}"


class NotThere(StepBody):
    """The thing a step is about is not on this vehicle: its name, and where it was looked for."""

    thing: Short
    looked: Reason


class Reopened(StepBody):
    """The step counts as not done again."""

    reason: Reason


class Skipped(StepBody):
    """The step is passed over, or does not apply here."""

    reason: Reason
    not_applicable: bool = False
    spoken: str | None = None


class Confirmed(StepBody):
    """A precondition or a level, seen and pressed."""

    what: Short


class Reading(StepBody):
    """Repeats of one reading as typed, the values as parsed, and the tool as it was; of feeler
    leaves `values` go in and `no_go` do not.
    """

    reading: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    unit: str
    values: tuple[Quantity, ...]
    no_go: tuple[Quantity, ...] = ()
    deviation_from: Quantity | None = None
    instrument: Instrument | None = None
    state: str | None = None
    datum: str | None = None
    sure: bool = False

    def subject(self) -> str:
        return f"reading:{self.reading}"


class Concession(StepBody):
    """A value outside its limit accepted in writing; holds for these readings, this limit and their
    values.
    """

    result: str
    readings: tuple[str, ...]
    value: str
    limit: Limit
    reason: Annotated[str, Field(min_length=10, max_length=1000)]
    name: Short
    use: Annotated[str, Field(max_length=200)] | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None
    recheck: Annotated[str, Field(max_length=80)] | None = None

    def subject(self) -> str:
        return f"result:{self.step}/{self.result}"


class Disposition(StepBody):
    """What happens about a result outside: measure again, rework or replace."""

    result: str
    choice: Literal["measure_again", "rework", "replace"]
    note: str | None = None

    def subject(self) -> str:
        return f"result:{self.step}/{self.result}"


class Finding(StepBody):
    """What was seen on one face: a coded term with its grade, or nothing; how clean it was, how
    sure, by which sense.
    """

    part: Own
    part_name: Short
    face: Own
    face_name: Short
    code: Own | None = None
    code_name: Short | None = None
    grade: Annotated[int, Field(ge=1, le=3)] | None = None
    grade_word: Short | None = None
    cleaning: Cleaning = "wiped"
    confidence: Confidence = "sure"
    method: Method = "eye"
    words: Annotated[str, Field(max_length=400)] | None = None
    cause: Annotated[str, Field(max_length=200)] | None = None
    photo: PhotoHash | None = None

    def subject(self) -> str:
        return f"face:{self.step}/{self.part}/{self.face}"


class FaceAdded(StepBody):
    """A face that no sheet names has to be looked at, on a part of the sheet or on another."""

    part: Own
    part_name: Short
    face: Own
    face_name: Annotated[str, Field(min_length=1, max_length=24)]
    on: Surface
    safety: Safety | None = None

    def subject(self) -> str:
        return f"matrix:{self.step}"


class Traced(StepBody):
    """Something broke up at this station of the trace; without a station, the trace is
    taken back.
    """

    trace: Own
    station: Own | None = None
    station_name: Short | None = None

    def subject(self) -> str:
        return f"trace:{self.step}"


class PartDecided(StepBody):
    """What happens to a part: the choice, why, what it costs, and what it costs if that is wrong;
    used again though bad, by whom and who inspected it.
    """

    part: Own
    part_name: Short
    choice: PartChoice
    reason: Reason
    price: Annotated[Money, Field(ge=0, le=1e6)] | None = None
    wrong: Annotated[Money, Field(ge=0, le=1e6)] | None = None
    seen: Annotated[int, Field(ge=0)] = 0
    faces: Annotated[int, Field(ge=0)] = 0
    name: Short | None = None
    licensed: Annotated[str, Field(max_length=200)] | None = None

    def subject(self) -> str:
        return f"part:{self.step}/{self.part}"


class PartRight(StepBody):
    """What was decided about a part is done: a new one is here and compared, it is reworked, or
    clean.
    """

    part: Own
    part_name: Short
    how: Reason

    def subject(self) -> str:
        return f"part:{self.step}/{self.part}"


class LaidBeside(StepBody):
    """One feature of the new part laid beside the old, each as typed: the same or not, and why a
    difference will do.
    """

    part: Own
    part_name: Short
    feature: Annotated[str, Field(min_length=2, max_length=60)]
    old: Annotated[str, Field(min_length=1, max_length=80)]
    new: Annotated[str, Field(min_length=1, max_length=80)]
    same: bool
    why: Reason | None = None

    def subject(self) -> str:
        return f"part:{self.step}/{self.part}"


class Cause(Body):
    """An explanation of what was found; it competes with others until something settles it."""

    cause: Own
    what: Short
    step: str | None = None

    def subject(self) -> str:
        return "causes"


class Evidence(Body):
    """What speaks for or against an explanation, what was varied or changed with it, what the maker
    says, what would settle it.
    """

    cause: Own
    sort: Literal["for", "against", "varied", "changed", "maker", "would settle", "settled"]
    text: Annotated[str, Field(min_length=3, max_length=600)]

    def subject(self) -> str:
        return "causes"


class Adapter(Body):
    """A crowfoot or the like: its length in the plane of rotation, and its angle (0
    straight out).
    """

    length: Measured
    angle: Measured


class Fastener(StepBody):
    """One act on one bolt, with the torque asked, the wrench and what the bolt got; `fresh`: a new
    one in its place.

    `added` is what was turned in this act on top of what an angle stage had before; `gets` is then
    the whole.
    """

    joint: str
    bolt: Annotated[int, Field(ge=1, le=200)]
    act: Literal["clicked", "read", "state", "marked", "locked", "fresh"]
    tightness: Tightness
    stage: Annotated[int, Field(ge=1, le=8)] | None = None
    asked: Quantity | None = None
    tolerance_percent: Share | None = None
    tolerance_assumed: bool = False
    set_to: Quantity | None = None
    gets: Quantity | None = None
    added: Quantity | None = None
    typed: str | None = None
    wrench: Instrument | None = None
    adapter: Adapter | None = None
    note: str | None = None

    def subject(self) -> str:
        return f"joint:{self.joint}"


class LeftOpen(StepBody):
    """A temporary state left by hand: a word, the rung it blocks, what undoes it."""

    item: str
    what: Short
    blocks: Rung
    undo: Short
    open_for: Rung | None = None
    sort: OpenSort = "other"
    where: Short | None = None
    closes_at: str | None = None

    def subject(self) -> str:
        return f"open:{self.item}"


class Undone(Body):
    """A temporary state is gone; where it held something up, what carries that now."""

    item: str
    note: str | None = None
    carries: tuple[Carry, ...] = ()
    releases: tuple[Release, ...] = ()

    def subject(self) -> str:
        return f"open:{self.item}"


class Bagged(StepBody):
    """Fasteners of a step into a numbered bag, and where the part lies."""

    bag: BagNumber
    lines: tuple[BagLine, ...]
    place: str | None = None


class Removed(Body):
    """Something that came off and that no step of the plan names; `because` is why it had to be off
    before what came next.
    """

    removal: Own
    what: Short
    step: str | None = None
    bag: BagNumber | None = None
    lines: tuple[BagLine, ...] = ()
    place: str | None = None
    on_stand: bool = False
    because: Short | None = None
    reason_kind: ReasonKind | None = None

    def subject(self) -> str:
        return f"removal:{self.removal}"


class Unbagged(StepBody):
    """Fasteners out of a bag: fitted again, left out for `new` ones in their place, or found to be
    missing (`lost`).
    """

    bag: BagNumber
    lines: Annotated[tuple[BagLine, ...], Field(min_length=1, max_length=60)]
    how: Literal["fitted", "new", "lost"] = "fitted"

    def subject(self) -> str:
        return f"bag:{self.bag}"


class Replaced(Body):
    """Fasteners lost from a bag, replaced by as many of the same size and grade."""

    bag: BagNumber
    count: Annotated[int, Field(ge=1, le=500)]
    by: Short

    def subject(self) -> str:
        return f"replaced:{self.bag}"


class Wire(Body):
    """One wire at one terminal, by its colours."""

    terminal: Annotated[str, Field(min_length=1, max_length=40)]
    colour: Annotated[str, Field(min_length=1, max_length=40)]
    note: Annotated[str, Field(max_length=80)] | None = None


class Captured(Body):
    """The state as found, kept before it is disturbed, at a step or of a removal: what the kind
    asks for, and a photo.
    """

    capture: Own
    step: str | None = None
    removal: Own | None = None
    what: Short
    capture_kind: CaptureKind
    words: Annotated[str, Field(max_length=400)] | None = None
    wires: Annotated[tuple[Wire, ...], Field(max_length=60)] = ()
    strokes: Annotated[int, Field(ge=1, le=20)] | None = None
    factory: bool = False
    place: Short | None = None
    typed: Short | None = None
    value: Quantity | None = None
    photo: PhotoHash | None = None

    def subject(self) -> str:
        return f"capture:{self.capture}"


class Compared(StepBody):
    """A capture looked at again at refit: the same or not, with what was seen."""

    capture: Own
    same: bool
    words: Annotated[str, Field(max_length=400)] | None = None
    strokes: Annotated[int, Field(ge=0, le=20)] | None = None
    typed: Short | None = None
    value: Quantity | None = None

    def subject(self) -> str:
        return f"capture:{self.capture}"


class Guarded(StepBody):
    """A setting found by hand that must not be loosened: what it is, what it holds, where to part
    things instead.
    """

    setting: Own
    what: Short
    holds: Short
    part_at: Short
    blocks: Rung = "drive"

    def subject(self) -> str:
        return f"setting:{self.setting}"


class Disturbed(StepBody):
    """A setting that was to be kept was loosened after all."""

    setting: Own
    what: Short
    holds: Short
    blocks: Rung
    reason: Reason

    def subject(self) -> str:
        return f"setting:{self.setting}"


class SetAnew(StepBody):
    """A setting that was disturbed is set again."""

    setting: Own
    how: Reason

    def subject(self) -> str:
        return f"setting:{self.setting}"


class Tried(StepBody):
    """One try on something stuck: the rung of the ladder, how long, whether it came."""

    part: Short
    rung: StuckRung
    time: Measured
    came: bool = False
    near: Annotated[tuple[Near, ...], Field(max_length=7)] = ()
    cleaned: bool = False
    wiped: bool = False
    harmed: Short | None = None


class Pin(Body):
    """A numbered pin on a photo; x and y as shares of its width and height, a word."""

    n: Annotated[int, Field(ge=1, le=99)]
    x: Annotated[Share, Field(ge=0, le=1)]
    y: Annotated[Share, Field(ge=0, le=1)]
    word: Annotated[str, Field(max_length=40)] = ""


class Photo(Body):
    """A photo by the hash of its stored bytes, with its size in pixels and its pins."""

    photo: PhotoHash
    width: Annotated[int, Field(ge=1, le=20_000)]
    height: Annotated[int, Field(ge=1, le=20_000)]
    what: Short
    step: str | None = None
    removal: Own | None = None
    pins: Annotated[tuple[Pin, ...], Field(max_length=60)] = ()

    def subject(self) -> str:
        return f"photo:{self.photo}"


class Pinned(Body):
    """The pins of a photo as they are from now on."""

    photo: PhotoHash
    pins: Annotated[tuple[Pin, ...], Field(max_length=60)]

    def subject(self) -> str:
        return f"photo:{self.photo}"


class Supported(Body):
    """One support put in, changed or (`gone`) taken away: what it carries, on which point, over
    what padding and ground.
    """

    support: Own
    support_kind: SupportKind
    carries: Carried
    point: Short
    padding: str | None = None
    ground: Ground = "unknown"
    rated: Measured | None = None
    step: str | None = None
    gone: bool = False

    def subject(self) -> str:
        return "support"


class VehicleStands(Body):
    """Whether the vehicle rolls, steers, brakes and starts, which bay or lift it occupies, and what
    ground that has.
    """

    rolls: bool | None = None
    steers: bool | None = None
    brakes: bool | None = None
    starts: bool | None = None
    bay: Annotated[str, Field(max_length=40)] | None = None
    ground: Ground | None = None

    def subject(self) -> str:
        return "vehicle"


class Stopped(Body):
    """Work stopped at once: why, which way a load was going, who is hurt, what nearly happened, who
    is left.
    """

    why: Short
    step: str | None = None
    going: Literal["up", "down", "in", "out"] | None = None
    hurt: Annotated[str, Field(max_length=400)] | None = None
    near_miss: Annotated[str, Field(max_length=400)] | None = None
    people_left: Annotated[int, Field(ge=0, le=20)] | None = None

    def subject(self) -> str:
        return "stop"


class Secured(Body):
    """One thing of the list of what to make safe is done."""

    item: Annotated[str, Field(min_length=1, max_length=120)]
    what: Short
    step: str | None = None

    def subject(self) -> str:
        return "stop"


class GoneOn(Body):
    """Work goes on after a stop."""

    note: str | None = None

    def subject(self) -> str:
        return "stop"


class Surroundings(Body):
    """What it is like around the bench from now on."""

    around: Annotated[tuple[Around, ...], Field(max_length=6)]

    def subject(self) -> str:
        return "surroundings"


class Note(Body):
    """Words to the log."""

    step: str | None = None
    text: Annotated[str, Field(min_length=1, max_length=4000)]


class Spoken(Body):
    """A spoken note: the recording by its hash."""

    step: str | None = None
    sound: PhotoHash

    def subject(self) -> str:
        return f"spoken:{self.sound}"


class Worded(Body):
    """What a spoken note says, in words."""

    spoken: str
    text: Annotated[str, Field(min_length=3, max_length=4000)]

    def subject(self) -> str:
        return f"worded:{self.spoken}"


class Decision(StepBody):
    """A choice with its reason: the wrench for a joint, a bolt passed over, one dry run, a last
    chance or a capture let go, a fluid left out.
    """

    about: Literal["wrench", "pass_over", "dry_run", "last_chance", "capture", "empty"]
    joint: str | None = None
    thing: str | None = None
    done_here: bool = False
    bolt: int | None = None
    stage: int | None = None
    wrench: Instrument | None = None
    adapter: Adapter | None = None
    seconds: Seconds | None = None
    reason: Reason | None = None

    def subject(self) -> str:
        return f"joint:{self.joint}" if self.joint else f"step:{self.step}"


class AttemptStarted(StepBody):
    """One try on the ladder begins."""

    attempt: str
    rung: Rung
    number: int = 1
    isolated: tuple[Short, ...] = ()
    expected: str = ""
    limit_s: Seconds
    gate: Literal["shut", "limited", "nothing left open"] = "nothing left open"
    gate_reasons: tuple[str, ...] = ()
    reason: Reason | None = None

    def subject(self) -> str:
        return f"run:{self.attempt}"


class RunSample(Body):
    """One moment of an attempt; `t` in s since its start; what nobody entered is absent.

    `asked`: the question that a figure raised and nobody answered.
    """

    t: Annotated[Seconds, Field(ge=0, le=86400)]
    rpm: Measured | None = None
    oil: Measured | None = None
    coolant: Measured | None = None
    timing: Measured | None = None
    timing_state: Annotated[str, Field(max_length=40)] | None = None
    lamp_out: bool = False
    seen: Literal["leak", "fuel leak", "noise", "smoke", "glow", "fire"] | None = None
    asked: Annotated[str, Field(max_length=400)] | None = None


class Samples(StepBody):
    """Samples of an attempt, many in one."""

    attempt: str
    samples: Annotated[tuple[RunSample, ...], Field(min_length=1, max_length=3600)]

    def subject(self) -> str:
        return f"run:{self.attempt}"


class AttemptEnded(StepBody):
    """The key is off: after how long, why, and whether the rung was passed."""

    attempt: str
    after_s: Annotated[Seconds, Field(ge=0, le=86400)]
    reason: Reason
    passed: bool = False
    cause: str | None = None
    change: str | None = None

    def subject(self) -> str:
        return f"run:{self.attempt}"


class Strike(Body):
    """An earlier entry is struck; it stays readable."""

    entry: str
    reason: Reason

    def subject(self) -> str:
        return "log"


class ToolEdited(Body):
    """A tool of the shop as it is from now on (shop log only)."""

    tool: Instrument
    reason: str | None = None

    def subject(self) -> str:
        return f"tool:{self.tool.id}"


class ToolChecked(Body):
    """A tool held against a standard: what it showed, by how much it was off, and whether that is
    permissible (shop log only).
    """

    tool: str
    code: Short
    standard: Short
    nominal: str
    typed: Annotated[tuple[Short, ...], Field(min_length=1, max_length=50)]
    off: str
    unit: str
    good: bool
    kept_offset: bool = False

    def subject(self) -> str:
        return f"tool:{self.tool}"


class ToolTried(Body):
    """The hands of one person with a tool: one thing read many times, and the deviation that came
    of it (shop log only).
    """

    tool: str
    code: Short
    thing: Short
    typed: Annotated[tuple[Short, ...], Field(min_length=5, max_length=50)]
    s: str
    unit: str

    def subject(self) -> str:
        return f"tool:{self.tool}"


class GearEdited(Body):
    """A tool that does not measure, as it is from now on (shop log only)."""

    name: Short
    state: Literal["owned", "borrowed", "missing", "broken", "lent"]
    whose: str | None = None
    back_by: str | None = None

    def subject(self) -> str:
        return f"gear:{self.name.casefold()}"


class DeviceEdited(Body):
    """A phone or tablet that may or may no longer open this Hollet over the workshop network (shop
    log only).
    """

    device: str
    name: Short
    state: Literal["paired", "revoked"]

    def subject(self) -> str:
        return f"device:{self.device}"


KINDS: dict[str, type[Body]] = {
    "plan edited": PlanEdited,
    "started": Started,
    "done": Done,
    "happened": Happened,
    "said": Said,
    "not there": NotThere,
    "reopened": Reopened,
    "skipped": Skipped,
    "confirmed": Confirmed,
    "reading": Reading,
    "concession": Concession,
    "disposition": Disposition,
    "fastener": Fastener,
    "left open": LeftOpen,
    "undone": Undone,
    "bagged": Bagged,
    "note": Note,
    "spoken": Spoken,
    "worded": Worded,
    "decision": Decision,
    "attempt started": AttemptStarted,
    "samples": Samples,
    "attempt ended": AttemptEnded,
    "strike": Strike,
    "removed": Removed,
    "unbagged": Unbagged,
    "replaced": Replaced,
    "captured": Captured,
    "compared": Compared,
    "guarded": Guarded,
    "disturbed": Disturbed,
    "set anew": SetAnew,
    "tried": Tried,
    "photo": Photo,
    "pinned": Pinned,
    "supported": Supported,
    "vehicle stands": VehicleStands,
    "stopped": Stopped,
    "secured": Secured,
    "gone on": GoneOn,
    "surroundings": Surroundings,
    "finding": Finding,
    "face added": FaceAdded,
    "traced": Traced,
    "part decided": PartDecided,
    "part put right": PartRight,
    "laid beside": LaidBeside,
    "cause": Cause,
    "evidence": Evidence,
    "tool edited": ToolEdited,
    "tool checked": ToolChecked,
    "tool tried": ToolTried,
    "gear edited": GearEdited,
    "device edited": DeviceEdited,
}


VERSIONS = {
    "plan edited": 2,
    "fastener": 2,
    "decision": 2,
    "samples": 2,
    "tried": 2,
    "supported": 2,
}
"""Version of a kind's body where it is not 1; `lifted` brings older ones up."""


def lifted(kind: str, version: int, body: dict[str, Any]) -> dict[str, Any]:
    """An older body in today's form; the stored text stays as it was hashed.

    Old figures keep their unit, and no text that was never typed.
    """
    lift = LIFT.get(kind)
    return lift(body) if lift is not None and version < VERSIONS.get(kind, 1) else body


def _measured(value: Any, unit: str) -> dict[str, Any] | None:
    return None if value is None else {"value": str(value), "unit": unit}


def _lift_plan(body: dict[str, Any]) -> dict[str, Any]:
    changes = (
        [{"op": "limit", "before": body.get("before"), "after": body["after"]}]
        if body.get("after")
        else []
    )
    return {key: body[key] for key in ("what", "sheet", "reason") if key in body} | {
        "changes": changes
    }


def _lift_adapter(body: dict[str, Any]) -> dict[str, Any]:
    old = body.get("adapter")
    return (
        body
        if old is None
        else {
            **body,
            "adapter": {
                "length": _measured(old["length"], "mm"),
                "angle": _measured(old["angle"], "deg"),
            },
        }
    )


OLD_SAMPLE = {
    "rpm": ("rpm", "rpm"),
    "oil_kpa": ("oil", "kPa"),
    "coolant_c": ("coolant", "°C"),
    "timing_deg": ("timing", "deg"),
}


def _lift_samples(body: dict[str, Any]) -> dict[str, Any]:
    """Figures of a moment with their units; the one text that was kept of all of them together told
    no figure by itself.
    """
    samples = []
    for old in body["samples"]:
        kept = {
            key: value for key, value in old.items() if key not in OLD_SAMPLE and key != "typed"
        }
        samples.append(
            kept
            | {
                name: _measured(old.get(key), unit)
                for key, (name, unit) in OLD_SAMPLE.items()
                if old.get(key) is not None
            }
        )
    return {**body, "samples": samples}


def _lift_tried(body: dict[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in body.items() if key != "minutes"} | {
        "time": _measured(body["minutes"], "min")
    }


def _lift_supported(body: dict[str, Any]) -> dict[str, Any]:
    rated = _measured(body.get("rated_kg"), "kg")
    return {key: value for key, value in body.items() if key != "rated_kg"} | (
        {"rated": rated} if rated else {}
    )


LIFT: dict[str, Callable[[dict[str, Any]], dict[str, Any]]] = {
    "plan edited": _lift_plan,
    "fastener": _lift_adapter,
    "decision": _lift_adapter,
    "samples": _lift_samples,
    "tried": _lift_tried,
    "supported": _lift_supported,
}


@dataclass(frozen=True, slots=True, eq=False)
class Entry:
    """One line of a log, as the fold takes it.

    `time` is UTC in ISO 8601, `bench_time` the client's with offset.
    """

    id: str
    seq: int
    time: str
    bench_time: str
    who: str
    kind: str
    body: Any
    version: int = 1

    @property
    def strikes(self) -> str | None:
        """Id of the entry that this one strikes."""
        return self.body.entry if self.kind == "strike" else None
