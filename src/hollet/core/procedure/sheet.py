"""A procedure sheet: steps in order with reasons, limits, joints and cautions. A build's plan has the same form.

Each step kind is one model here; the union is told apart by `kind`. Ids are unique and references must resolve;
the reasons must not run in a circle (see `precedence`).
"""

import re
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator

from hollet.core.errors import Refused
from hollet.core.limits import Limit
from hollet.core.quantities.parse import parse
from hollet.core.tightening.patterns import check_permutation, circle_order, head_order

__all__ = [
    "RUNGS", "STAGES", "After", "CheckStep", "FillStep", "Joint", "Layout", "MeasureStep", "Opens", "RemoveStep", "RunStep",
    "Sheet", "Step", "TightenStep", "TighteningStage", "blocks_of", "read_sheet",
]  # fmt: skip

STAGES = {"plan": "Plan", "take_down": "Take down", "inspect": "Inspect", "order": "Order", "prepare": "Prepare",
          "build_up": "Build up", "fit_in": "Fit in", "wake": "Wake", "settle": "Settle"}  # fmt: skip
RUNGS = {"power_on": "Power on", "crank": "Crank", "fuel_on": "Fuel on", "fire": "Fire", "run_on": "Run on",
         "gear": "Gear", "drive": "Drive"}  # fmt: skip
Stage = Literal["plan", "take_down", "inspect", "order", "prepare", "build_up", "fit_in", "wake", "settle"]
Rung = Literal["power_on", "crank", "fuel_on", "fire", "run_on", "gear", "drive", "nothing"]
Id = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]{0,59}$")]
Words = Annotated[str, Field(min_length=1, max_length=400)]
Prose = Annotated[str, Field(min_length=1, max_length=2000)]


class Part(BaseModel):
    """Base of everything in a sheet: unknown keys are a mistake, not a note."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class After(Part):
    """This step waits for `step`, because."""

    step: Id
    because: Words
    kind: Literal["access closes", "safety", "setting kept", "contamination", "load needed", "drying", "spill"] = "safety"


class Opens(Part):
    """A temporary state that the step leaves: what, the first rung it blocks, what undoes it."""

    id: Id
    what: Words
    blocks: Rung
    undo: Words
    open_for: Rung | None = None
    if_left: Words | None = None


class Caution(Part):
    """A danger to people: one or two lines, the reason, and what to do."""

    text: Words
    why: Words
    confirm: Words | None = None


class BagLine(Part):
    """Like fasteners of one bag."""

    count: Annotated[int, Field(ge=1, le=500)]
    size: Annotated[str, Field(min_length=1, max_length=40)]
    length: str | None = None
    holes: str | None = None


class BaseStep(Part):
    """What all steps share."""

    id: Id
    stage: Stage
    title: Words
    short: Annotated[str, Field(max_length=24)] | None = None
    do: Prose
    why: Prose | None = None
    after: tuple[After, ...] = ()
    blocks: Rung | None = None
    caution: Caution | None = None
    opens: tuple[Opens, ...] = ()
    closes: tuple[Id, ...] = ()
    number: str = ""


class CheckStep(BaseStep):
    """Something to look at or do and tick; other simple kinds borrow this bench."""

    kind: Literal["check", "connect", "fit", "inspect", "wait"]


class RemoveStep(BaseStep):
    """Something taken off, its fasteners into a bag."""

    kind: Literal["remove"]
    bag: tuple[BagLine, ...] = ()
    joint: Id | None = None


class ReadingSpec(Part):
    """One reading to take, with which kind of tool and about what to expect."""

    id: Id
    name: Words
    tool: str
    nominal: str
    place: str | None = None


class ResultSpec(Part):
    """What is judged: one reading, or the difference `minuend` - `subtrahend`."""

    id: Id
    name: Words
    limit: Id
    reading: Id | None = None
    minuend: Id | None = None
    subtrahend: Id | None = None


class MeasureStep(BaseStep):
    """Readings and what is derived from them."""

    kind: Literal["measure"]
    reading: Annotated[tuple[ReadingSpec, ...], Field(min_length=1)]
    result: Annotated[tuple[ResultSpec, ...], Field(min_length=1)]
    rework: Words | None = None
    replace: Words | None = None


class TightenStep(BaseStep):
    """A joint, tightened in stages."""

    kind: Literal["tighten"]
    joint: Id


class FillStep(BaseStep):
    """A fluid with its amount and its level check."""

    kind: Literal["fill"]
    fluid: Words
    amount: Id
    level: Words
    coolant: bool = False


class RunStep(BaseStep):
    """One rung of the first start."""

    kind: Literal["run"]
    rung: Literal["power_on", "crank", "fuel_on", "fire", "run_on", "gear", "drive"]
    isolate: tuple[Words, ...] = ()
    expect: Words
    watch: tuple[Words, ...] = ()
    time_limit: Id
    total_limit: Id | None = None
    pressure: Id | None = None
    pressure_by: Id | None = None
    coolant: Id | None = None
    still_runs: Words | None = None


Step = Annotated[CheckStep | RemoveStep | MeasureStep | TightenStep | FillStep | RunStep, Field(discriminator="kind")]


class Layout(Part):
    """Places of the bolts: a head of two rows, a circle, or explicit points in mm."""

    kind: Literal["head", "circle", "points"]
    columns: Annotated[int, Field(ge=2, le=12)] | None = None
    n: Annotated[int, Field(ge=3, le=48)] | None = None
    points: dict[str, tuple[float, float]] = {}

    def names(self) -> list[str]:
        """Names of the places, before any order."""
        if self.kind == "head":
            return [f"{row}{c}" for row in "AB" for c in range(1, (self.columns or 0) + 1)]
        return [str(k) for k in range(1, (self.n or 0) + 1)] if self.kind == "circle" else list(self.points)


class TighteningStage(Part):
    """One round of a joint: a torque, or an angle on top."""

    torque: str | None = None
    angle: str | None = None


class PutRight(Part):
    """What the sheet says to do about a bolt outside; Hollet never prescribes backing off by itself."""

    over: Words | None = None
    under: Words | None = None


class Joint(Part):
    """Like fasteners tightened together; bolts are numbered in the order of tightening."""

    id: Id
    name: Words
    layout: Layout
    pattern: Literal["crosswise", "spiral", "star", "order"]
    order: tuple[str, ...] = ()
    stage: Annotated[tuple[TighteningStage, ...], Field(min_length=1, max_length=8)]
    tolerance: str | None = None
    source: str | None = None
    fastener: Words
    treatment: Words | None = None
    final: Literal["torqued", "cinched", "snug"] = "torqued"
    mark: bool = False
    wait_for: Words | None = None
    recheck: Id | None = None
    put_right: PutRight = PutRight()
    sides: tuple[str, str] | None = None

    def sequence(self) -> list[str]:
        """Names of the places in the order of tightening; bolt 1 is the first.

        Raises
        ------
        Refused
            `bolt_missing`, `bolt_repeated`, `bolt_unknown`, `too_few_bolts`.
        """
        if self.pattern in ("crosswise", "spiral"):
            return head_order(self.layout.columns or 0, spiral=self.pattern == "spiral")
        if self.pattern == "star":
            return [str(bolt) for bolt in circle_order(len(self.layout.names()))]
        check_permutation(list(self.order), self.layout.names())
        return list(self.order)


class Sheet(Part):
    """The whole sheet."""

    id: Id
    title: Words
    version: Annotated[int, Field(ge=1)] = 1
    about: Prose
    source: Words | None = None
    limit: tuple[Limit, ...] = ()
    joint: tuple[Joint, ...] = ()
    step: Annotated[tuple[Step, ...], Field(min_length=1, max_length=600)]

    @field_validator("step", mode="after")
    @classmethod
    def _number(cls, steps: tuple[Any, ...]) -> tuple[Any, ...]:
        """Numbers are given once, in the order of the sheet within each stage."""
        counts: dict[str, int] = {}
        numbered = []
        for step in steps:
            counts[step.stage] = counts.get(step.stage, 0) + 1
            number = step.number or f"{list(STAGES).index(step.stage) + 1}.{counts[step.stage]:02d}"
            numbered.append(step.model_copy(update={"number": number}))
        return tuple(numbered)

    def find_step(self, step_id: str) -> Step | None:
        """The step with this id."""
        return next((step for step in self.step if step.id == step_id), None)

    def find_limit(self, limit_id: str | None) -> Limit | None:
        """The limit with this id."""
        return next((limit for limit in self.limit if limit.id == limit_id), None)

    def find_joint(self, joint_id: str | None) -> Joint | None:
        """The joint with this id."""
        return next((joint for joint in self.joint if joint.id == joint_id), None)


def blocks_of(step: BaseStep) -> str:
    """The first rung that this step blocks while it is not done: said by the sheet, else by its stage."""
    if step.blocks:
        return step.blocks
    if step.stage == "settle":
        return "nothing"
    if isinstance(step, RunStep):
        rungs = [*RUNGS, "nothing"]
        return rungs[rungs.index(step.rung) + 1]
    return "fire" if step.stage == "wake" else "crank"


def read_sheet(data: dict[str, Any], text: str = "") -> Sheet:
    """Check a sheet read from TOML; the first mistake is named with its line, its field and what would be right.

    Raises
    ------
    Refused
        `sheet_mistake`, with the line in the message when `text` is given.
    """
    from hollet.core.procedure.precedence import check_references

    flat = {**data.get("sheet", {}), **{key: data[key] for key in ("limit", "joint", "step") if key in data}}
    for stray in set(data) - {"sheet", "limit", "joint", "step"}:
        raise mistake(text, (stray,), f"'{stray}' does not belong in a sheet: only [sheet], [[limit]], [[joint]], [[step]]")
    try:
        sheet = Sheet.model_validate(flat)
    except ValidationError as error:
        first = error.errors()[0]
        path = tuple(part for part in first["loc"] if not (isinstance(part, str) and part in STEP_KINDS))
        raise mistake(text, path, _plain(first)) from error
    for index, limit in enumerate(sheet.limit):
        _check_limit(limit, text, index)
    for index, joint in enumerate(sheet.joint):
        _check_joint(joint, text, index)
    check_references(sheet, text)
    return sheet


STEP_KINDS = {"check", "connect", "fit", "inspect", "wait", "remove", "measure", "tighten", "fill", "run"}


def _plain(error: Any) -> str:
    """A validator's message as one sentence with what would be right."""
    kind, context = error["type"], error.get("ctx", {})
    if kind == "missing":
        return "this must be given"
    if kind == "extra_forbidden":
        return "this key is not known here: check its spelling"
    if kind == "literal_error":
        return f"must be {context.get('expected')}, not {error.get('input')!r}"
    if kind == "union_tag_invalid":
        return f"kind must be one of {', '.join(sorted(STEP_KINDS))}, not '{context.get('tag')}'"
    if kind == "union_tag_not_found":
        return "kind must be given: check, remove, measure, tighten, fill, run, connect, fit, inspect or wait"
    if kind == "string_pattern_mismatch":
        return f"{error.get('input')!r} must be lower-case letters, digits, - or _, at most 60"
    return str(error["msg"])


def mistake(text: str, path: tuple[Any, ...], message: str) -> Refused:
    """The refusal for a mistake at `path`, such as ("step", 3, "after", 0, "because")."""
    field = ".".join(str(part + 1) if isinstance(part, int) else str(part) for part in path) or "sheet"
    line = line_of(text, path)
    return Refused("sheet_mistake", f"line {line}, {field}: {message}" if line else f"{field}: {message}", field=field)


def line_of(text: str, path: tuple[Any, ...]) -> int | None:
    """The line (from 1) on which `path` stands in a TOML text, or that of its table when the key is missing."""
    lines = text.splitlines()
    if not lines or not path:
        return None
    first, last = 0, len(lines)
    name = str(path[0])
    if len(path) > 1 and isinstance(path[1], int):
        heads = [k for k, line in enumerate(lines) if re.match(rf"\s*\[\[\s*{re.escape(name)}\s*\]\]", line)]
        if path[1] < len(heads):
            first = heads[path[1]]
            ends = [k for k, line in enumerate(lines) if k > first and re.match(r"\s*\[+\s*\w+\s*\]+", line)]
            last = ends[0] if ends else last
    for key in reversed([part for part in path[1:] if isinstance(part, str)] or [name]):
        for k in range(first, last):
            if re.match(rf"\s*(\[+[\w.]*\.)?{re.escape(key)}\b\s*(=|\]+)", lines[k]) or re.search(rf"[{{,]\s*{re.escape(key)}\s*=", lines[k]):
                return k + 1
    return first + 1


def _check_limit(limit: Limit, text: str, index: int) -> None:
    for key in ("lo", "hi", "target", "step"):
        try:
            limit.figure(key)
        except Refused as refusal:
            raise mistake(text, ("limit", index, key), refusal.message) from refusal
    lo, hi = limit.figure("lo"), limit.figure("hi")
    if lo is not None and hi is not None and lo > hi:
        raise mistake(text, ("limit", index, "lo"), "the lower limit lies above the upper limit")


def _check_joint(joint: Joint, text: str, index: int) -> None:
    try:
        joint.sequence()
    except Refused as refusal:
        raise mistake(text, ("joint", index, "order" if joint.pattern == "order" else "layout"), refusal.message) from refusal
    for number, stage in enumerate(joint.stage):
        if (stage.torque is None) == (stage.angle is None):
            raise mistake(text, ("joint", index, "stage"), f"stage {number + 1} must have a torque or an angle, not both")
        try:
            parsed = parse(stage.torque or stage.angle or "", "torque" if stage.torque else "angle")
        except Refused as refusal:
            raise mistake(text, ("joint", index, "stage"), refusal.message) from refusal
        if parsed.nominal is None or parsed.nominal <= 0:
            raise mistake(text, ("joint", index, "stage"), f"stage {number + 1} must be one figure above zero")
    try:
        if joint.tolerance is not None:
            parse(joint.tolerance, "percent", "%")
    except Refused as refusal:
        raise mistake(text, ("joint", index, "tolerance"), refusal.message) from refusal
