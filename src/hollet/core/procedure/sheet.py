"""A procedure sheet: steps in order with reasons, limits, joints and cautions. A build's plan grows
from it (see `plan`).

Each step kind is one model here; the union is told apart by `kind`. How a sheet is read and
checked: `read`.
"""

from typing import Annotated, Any, Literal

from pydantic import Field, field_validator

from hollet.core.findings import Surface
from hollet.core.limits import Limit, Safety
from hollet.core.procedure.facts import FACTS, Condition, Fact
from hollet.core.procedure.schools import Agreement, Extra, School
from hollet.core.procedure.tracing import Trace
from hollet.core.procedure.words import (
    DANGERS,
    RUNGS,
    STAGE_RANK,
    STAGES,
    Carried,
    Hours,
    Id,
    Part,
    Prose,
    ReasonKind,
    ReasonOrigin,
    Rung,
    Stage,
    SupportKind,
    VehicleState,
    Words,
)
from hollet.core.tightening.patterns import check_permutation, circle_order, head_order

__all__ = [
    "CAPTURE_KINDS",
    "OPEN_SORTS",
    "RUNGS",
    "STAGES",
    "After",
    "Ask",
    "BagLine",
    "Capture",
    "Carry",
    "CheckStep",
    "Face",
    "FillStep",
    "Fluid",
    "FluidKind",
    "InspectPart",
    "InspectStep",
    "Joint",
    "LastChance",
    "Layout",
    "MeasureStep",
    "OpenSort",
    "Opens",
    "PartNeed",
    "Release",
    "RemoveStep",
    "Role",
    "RunStep",
    "Setting",
    "Sheet",
    "Step",
    "TightenStep",
    "TighteningStage",
    "Variant",
    "blocks_of",
    "is_danger",
    "numbered",
]


class After(Part):
    """This step waits for `step`, because; with `if_there` the link counts only where another sheet
    brings that step.

    `assumed`: nobody said why, it only came off in this order. `origin` keeps where a reason came
    from, `said_by` who decided it.
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


class PartNeed(Part):
    """A new part that the step needs."""

    name: Words
    count: Annotated[int, Field(ge=1, le=200)] = 1
    when: tuple[Condition, ...] = ()


OpenSort = Literal[
    "disconnected", "tied", "stand_in", "cap", "cover", "block", "open_port", "other"
]
OPEN_SORTS = {
    "disconnected": "disconnected",
    "tied": "tied up",
    "stand_in": "stand-in bolt or bracket",
    "cap": "capped",
    "cover": "covered",
    "block": "blocked or held",
    "open_port": "open, not covered",
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
    which sort, tucked where.
    """

    id: Id
    what: Words
    blocks: Rung
    undo: Words
    open_for: Rung | None = None
    if_left: Words | None = None
    sort: OpenSort = "other"
    where: Words | None = None


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


FluidKind = Literal["oil", "coolant", "fuel", "brake", "clutch", "gear"]


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
    when: tuple[Condition, ...] = ()
    hours: Hours | None = None
    people: tuple[Role, ...] = ()
    tools: tuple[Words, ...] = ()
    parts: tuple[PartNeed, ...] = ()
    last_chance: tuple[LastChance, ...] = ()
    capture: tuple[Capture, ...] = ()
    compares: tuple[Id, ...] = ()
    refits: tuple[Id, ...] = ()
    requires: tuple[Id, ...] = ()
    keeps: tuple[Id, ...] = ()
    holds: tuple[Id, ...] = ()
    drains: tuple[Id, ...] = ()
    carries: Annotated[tuple[Carry, ...], Field(max_length=8)] = ()
    releases: Annotated[tuple[Release, ...], Field(max_length=8)] = ()
    hidden: tuple[Words, ...] = ()
    dusty: bool = False
    lifts: bool = False
    not_reversed: Words | None = None
    vehicle: VehicleState | None = None
    number: str = ""

    def as_run(self) -> "RunStep | None":
        """Itself, where it is a rung of the first start."""
        return None

    def as_inspection(self) -> "InspectStep | None":
        """Itself, where parts are looked at."""
        return None

    def figures(self) -> tuple["Ask", ...]:
        """The figures that somebody says before it is done."""
        return ()

    def follows(self) -> str | None:
        """The debris trace along which its parts are looked at."""
        return None

    def asked_for(self, reading: str, sheet: "Sheet") -> "ReadingSpec | None":
        """The reading with this id, as it is asked for."""
        return next((spec for spec in self.readings() if spec.id == reading), None)

    def judges_alone(self, reading: str) -> str | None:
        """The limit that judges this reading by itself."""
        return next((spec.limit for spec in self.results() if spec.reading == reading), None)

    def readings(self) -> tuple["ReadingSpec", ...]:
        """The readings that it asks for."""
        return ()

    def results(self) -> tuple["ResultSpec", ...]:
        """What it judges."""
        return ()

    def tightens(self) -> tuple[str, ...]:
        """The joints that it tightens."""
        return ()

    def takes_out(self) -> str | None:
        """The joint that it takes out."""
        return None


class Ask(Part):
    """A figure that somebody says before the step is done; `at_least` and `at_most` name another
    one of the step that it must not fall short of or pass; outside `usual` it is asked.
    """

    id: Id
    name: Words
    dimension: Annotated[str, Field(max_length=40)]
    unit: Annotated[str, Field(min_length=1, max_length=12)]
    at_least: Id | None = None
    at_most: Id | None = None
    usual: tuple[Words, Words] | None = None


class CheckStep(BaseStep):
    """Something to look at or do and tick; other simple kinds borrow this bench."""

    kind: Literal["check", "connect", "fit", "wait"]
    hunts: bool = False  # done when no figure of the coming stage is left to find
    asks: Annotated[tuple[Ask, ...], Field(max_length=12)] = ()

    def figures(self) -> tuple[Ask, ...]:
        return self.asks


class Face(Part):
    """One face, side or position of a part that has to be looked at."""

    id: Id
    name: Annotated[str, Field(min_length=1, max_length=24)]
    on: Surface


class InspectPart(Part):
    """A part with its faces; where it stands among its like; what a new one costs and what being
    wrong about it would.

    `clearance` names the step and the result that were measured at the same position.
    `only_traced`: it is looked at only when debris may have reached it.
    """

    id: Id
    name: Words
    face: Annotated[tuple[Face, ...], Field(min_length=1, max_length=12)]
    group: Words | None = None
    position: Annotated[str, Field(max_length=24)] | None = None
    clearance: tuple[Id, Id] | None = None
    price: Annotated[float, Field(ge=0, le=1e6)] | None = None
    wrong: Annotated[float, Field(ge=0, le=1e6)] | None = None
    only_traced: bool = False
    safety: Safety | None = None


class InspectStep(BaseStep):
    """Parts looked at, face by face; along a debris trace if something broke up."""

    kind: Literal["inspect"]
    part: Annotated[tuple[InspectPart, ...], Field(max_length=60)] = ()
    trace: Id | None = None

    def as_inspection(self) -> "InspectStep":
        return self

    def follows(self) -> str | None:
        return self.trace


class RemoveStep(BaseStep):
    """Something taken off, its fasteners into a bag."""

    kind: Literal["remove"]
    bag: tuple[BagLine, ...] = ()
    joint: Id | None = None
    on_stand: bool = False

    def takes_out(self) -> str | None:
        return self.joint


class ReadingSpec(Part):
    """One reading to take, with which kind of tool and about what to expect; the state of the part
    and the face it is read from.

    `at` places it on the drawing of the step; `twice` asks for a second reading; `changed_by` names
    steps after which it must be read again.
    """

    id: Id
    name: Words
    tool: str
    nominal: str
    place: str | None = None
    at: Annotated[tuple[Annotated[str, Field(max_length=40)], ...], Field(max_length=3)] = ()
    state: Annotated[str, Field(max_length=80)] | None = None
    datum: Annotated[str, Field(max_length=80)] | None = None
    twice: bool = False
    changed_by: tuple[Id, ...] = ()


How = Literal["largest", "smallest", "mean", "spread", "sum", "ends"]


class Take(Part):
    """What fills one field of a calculation: a reading, several readings, or a fixed figure such as
    `= 86 mm`.
    """

    field: Annotated[str, Field(min_length=1, max_length=60)]
    of: Annotated[
        tuple[Annotated[str, Field(min_length=1, max_length=60)], ...],
        Field(min_length=1, max_length=60),
    ]


class ResultSpec(Part):
    """What is judged: one reading; `minuend` - `subtrahend`; `how` of the readings `over`, less
    those of `less`; or what the calculation `calc` `gives`.

    `ends`: the smallest of `over` goes against the lower limit and the largest against the upper
    one, each less `less`.
    """

    id: Id
    name: Words
    limit: Id
    reading: Id | None = None
    minuend: Id | None = None
    subtrahend: Id | None = None
    how: How | None = None
    over: tuple[Id, ...] = ()
    less: tuple[Id, ...] = ()
    calc: Id | None = None
    takes: tuple[Take, ...] = ()
    gives: Annotated[str, Field(max_length=60)] | None = None

    def named(self) -> tuple[str, ...]:
        """The readings that it is made of, in order, each once."""
        taken = [name for take in self.takes for name in take.of if not name.startswith("=")]
        listed = (self.reading, self.minuend, self.subtrahend, *self.over, *self.less, *taken)
        return tuple(dict.fromkeys(name for name in listed if name))


Drawing = Literal[
    "bores",
    "journals",
    "shells",
    "cylinders",
    "round",
    "corners",
    "shafts",
    "links",
    "stack",
    "flange",
    "belt",
    "turning",
]


class MeasureStep(BaseStep):
    """Readings and what is derived from them, on a drawing of their family."""

    kind: Literal["measure"]
    reading: Annotated[tuple[ReadingSpec, ...], Field(min_length=1, max_length=120)]
    result: Annotated[tuple[ResultSpec, ...], Field(min_length=1, max_length=120)]
    draw: Drawing | None = None
    rework: Words | None = None
    replace: Words | None = None

    def readings(self) -> tuple[ReadingSpec, ...]:
        return self.reading

    def results(self) -> tuple[ResultSpec, ...]:
        return self.result


class TightenStep(BaseStep):
    """A joint, tightened in stages."""

    kind: Literal["tighten"]
    joint: Id

    def tightens(self) -> tuple[str, ...]:
        return (self.joint,)


class FillStep(BaseStep):
    """A fluid (its id, or its name where the sheet describes none) with its amount and its level
    check.
    """

    kind: Literal["fill"]
    fluid: Words
    amount: Id
    level: Words
    coolant: bool = False

    def asked_for(self, reading: str, sheet: "Sheet") -> ReadingSpec | None:
        """The amount that is poured in, by jug."""
        if reading != self.id:
            return None
        limit = sheet.find_limit(self.amount)
        expected = (limit.target or limit.hi or limit.lo) if limit else None
        nominal = f"{expected or 0} {limit.unit if limit else 'L'}"
        return ReadingSpec(id=self.id, name=self.fluid, tool="jug", nominal=nominal)

    def judges_alone(self, reading: str) -> str | None:
        return self.amount


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
    timing: Id | None = None
    rest: Id | None = None
    still_runs: Words | None = None

    def as_run(self) -> "RunStep":
        return self


Step = Annotated[
    CheckStep | InspectStep | RemoveStep | MeasureStep | TightenStep | FillStep | RunStep,
    Field(discriminator="kind"),
]


class Layout(Part):
    """Places of the bolts: a head of two rows, a circle, or explicit points in mm."""

    kind: Literal["head", "circle", "points"]
    columns: Annotated[int, Field(ge=2, le=12)] | None = None
    n: Annotated[int, Field(ge=3, le=48)] | None = None
    points: dict[str, tuple[float, float]] = Field(default_factory=dict)

    def names(self) -> list[str]:
        """Names of the places, before any order."""
        if self.kind == "head":
            return [f"{row}{c}" for row in "AB" for c in range(1, (self.columns or 0) + 1)]
        return (
            [str(k) for k in range(1, (self.n or 0) + 1)]
            if self.kind == "circle"
            else list(self.points)
        )


class TighteningStage(Part):
    """One round of a joint: a torque, or an angle on top; with neither it is not given yet."""

    torque: str | None = None
    angle: str | None = None


class PutRight(Part):
    """What the sheet says to do about a bolt outside; Hollet never prescribes backing off by
    itself.

    `fresh`: whether one that got too much is replaced before it begins again at stage 1; it is,
    unless the sheet says otherwise.
    """

    over: Words | None = None
    under: Words | None = None
    fresh: bool = True


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
    thread: Words | None = None
    grade: Words | None = None
    critical: bool = False
    own: str | None = None
    version: int = 1
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


class Variant(Part):
    """Other figures for a limit where its conditions hold."""

    limit: Id
    when: Annotated[tuple[Condition, ...], Field(min_length=1)]
    lo: str | None = None
    hi: str | None = None
    target: str | None = None
    source: Words | None = None


class Sheet(Part):
    """The whole sheet; `first` is the first rung that it is about, *crank* where it
    does not say.
    """

    id: Id
    title: Words
    version: Annotated[int, Field(ge=1)] = 1
    about: Prose
    source: Words | None = None
    look_in: tuple[Words, ...] = ()
    first: Rung | None = None
    option: tuple[Fact, ...] = ()
    school: tuple[School, ...] = ()
    extra: tuple[Extra, ...] = ()
    agreement: tuple[Agreement, ...] = ()
    limit: tuple[Limit, ...] = ()
    variant: tuple[Variant, ...] = ()
    joint: tuple[Joint, ...] = ()
    setting: tuple[Setting, ...] = ()
    fluid: tuple[Fluid, ...] = ()
    trace: tuple[Trace, ...] = ()
    step: Annotated[tuple[Step, ...], Field(min_length=1, max_length=600)]

    @field_validator("step", mode="after")
    @classmethod
    def _number(cls, steps: tuple[Any, ...]) -> tuple[Any, ...]:
        return numbered(steps)

    def find_step(self, step_id: str | None) -> Step | None:
        """The step with this id."""
        return next((step for step in self.step if step.id == step_id), None)

    def find_limit(self, limit_id: str | None) -> Limit | None:
        """The limit with this id."""
        return next((limit for limit in self.limit if limit.id == limit_id), None)

    def find_joint(self, joint_id: str | None) -> Joint | None:
        """The joint with this id."""
        return next((joint for joint in self.joint if joint.id == joint_id), None)

    def find_fluid(self, fluid_id: str | None) -> Fluid | None:
        """The fluid with this id."""
        return next((fluid for fluid in self.fluid if fluid.id == fluid_id), None)

    def find_trace(self, trace_id: str | None) -> Trace | None:
        """The debris trace with this id."""
        return next((trace for trace in self.trace if trace.id == trace_id), None)

    def find_school(self, school_id: str | None) -> School | None:
        """The school with this id."""
        return next((school for school in self.school if school.id == school_id), None)

    def all_facts(self) -> dict[str, Fact]:
        """The common facts and this sheet's own options, by id."""
        return FACTS | {fact.id: fact for fact in self.option}


def numbered(steps: tuple[Any, ...]) -> tuple[Any, ...]:
    """Numbers are given once, in order within each stage; a step that has one keeps it."""
    counts: dict[str, int] = {}
    found = []
    for step in steps:
        counts[step.stage] = counts.get(step.stage, 0) + 1
        number = step.number or f"{STAGE_RANK[step.stage] + 1}.{counts[step.stage]:02d}"
        found.append(step if step.number else step.model_copy(update={"number": number}))
    return tuple(found)


def is_danger(sheet: Sheet, link: After) -> bool:
    """Whether a link guards against harm to people: its kind says so, or what would spill is fuel
    or brake fluid.
    """
    if link.kind in DANGERS:
        return not link.assumed
    drains = sheet.find_step(link.step) if link.kind == "spill" else None
    return drains is not None and any(
        fluid.kind in ("fuel", "brake") for fluid in sheet.fluid if fluid.id in drains.drains
    )


def blocks_of(plan: Sheet, step: BaseStep) -> str:
    """The first rung that this step blocks while it is not done: said by the sheet, else by its
    stage; planning and ordering block nothing themselves.

    Where nothing is said it is the first rung that the plan is about: arms and springs shut *drive*
    and say nothing of cranking. A plan that
    does not say may hold an engine: *crank*.
    """
    if step.blocks:
        return step.blocks
    if step.stage in ("plan", "order", "settle"):
        return "nothing"
    rungs = [*RUNGS, "nothing"]
    if isinstance(step, RunStep):
        return rungs[rungs.index(step.rung) + 1]
    return rungs[
        max(
            rungs.index(plan.first or "crank"),
            rungs.index("fire" if step.stage == "wake" else "crank"),
        )
    ]
