"""What all steps share, and what may be asked of any of them, whatever its kind."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, ClassVar, Self

from pydantic import Field

from hollet.core.procedure.care import Laid, Seat, Warm, care_laws
from hollet.core.procedure.carriers import Again, again_laws
from hollet.core.procedure.facts import Applies, Condition, Known, applies
from hollet.core.procedure.pieces import (
    After,
    BagLine,
    BagSpec,
    Capture,
    Carry,
    Caution,
    LastChance,
    Opens,
    PartNeed,
    Release,
    Role,
    Stuck,
)
from hollet.core.procedure.provisional import Orient, Trial
from hollet.core.procedure.words import (
    RUNGS,
    Carried,
    Hours,
    Id,
    Part,
    Prose,
    Rung,
    Stage,
    TieKind,
    VehicleState,
    Words,
)

if TYPE_CHECKING:
    from hollet.core.procedure.carriers import Carrier
    from hollet.core.procedure.groups import Group
    from hollet.core.procedure.kinds.check import Ask
    from hollet.core.procedure.kinds.inspect import InspectStep
    from hollet.core.procedure.kinds.run import RunStep
    from hollet.core.procedure.packs import Pack, Pairs, ShimmedValves
    from hollet.core.procedure.results import ReadingSpec, ResultSpec
    from hollet.core.procedure.rows import RowsAsked
    from hollet.core.procedure.sheet import Sheet
    from hollet.core.procedure.sweep import Sweep

__all__ = ["BaseStep"]


class BaseStep(Part):
    """What all steps share. `or_when` are conditions under which another sheet wants it too; kept
    by Hollet where sheets are combined. `mends` is the finding that it puts right, kept by Hollet.
    """

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
    or_when: tuple[tuple[Condition, ...], ...] = ()
    hours: Hours | None = None
    people: tuple[Role, ...] = ()
    tools: tuple[Words, ...] = ()
    opened_with: tuple[Words, ...] = ()
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
    unties: tuple[TieKind, ...] = ()
    moves: Carried | None = None
    stuck: Stuck | None = None
    final: Words | None = None
    hidden: tuple[Words, ...] = ()
    dusty: bool = False
    lifts: bool = False
    by_hand: bool = False
    not_reversed: Words | None = None
    vehicle: VehicleState | None = None
    trial: Trial | None = None
    orient: Annotated[tuple[Orient, ...], Field(max_length=8)] = ()
    again: Annotated[tuple[Again, ...], Field(max_length=8)] = ()
    lays: Annotated[tuple[Laid, ...], Field(max_length=8)] = ()
    seats: Annotated[tuple[Seat, ...], Field(max_length=8)] = ()
    warms: Annotated[tuple[Warm, ...], Field(max_length=8)] = ()
    number: str = ""
    mends: Annotated[str, Field(max_length=190)] | None = None

    looked_at: ClassVar[bool] = False
    takes_off: ClassVar[bool] = False
    figure_kind: ClassVar[str] = "figure"
    done_words: ClassVar[str] = "It is done"

    def conditions(self) -> tuple[Condition, ...]:
        """All conditions on which it depends whether it is there."""
        return (*self.when, *(condition for when in self.or_when for condition in when))

    def wanted(self, known: Known) -> Applies:
        """Whether it is there: any one of its alternatives decides."""
        found = [applies(when, known) for when in (self.when, *self.or_when)]
        return next((f for a in ("yes", "unknown") for f in found if f.answer == a), found[0])

    def pressed(self) -> str:
        """What calls it done."""
        return self.done_words

    @property
    def closes_up(self) -> bool:
        """Whether something is closed by it."""
        return bool(self.closes)

    def blocked(self, first: Rung | None) -> str:
        """The first rung that it blocks while it is not done: said by the sheet, else by its stage;
        planning and ordering block nothing themselves.

        Where nothing is said it is the first rung that the plan is about (`first`): arms and
        springs shut *drive* and say nothing of cranking. A plan that does not say may hold an
        engine: *crank*.
        """
        if self.blocks:
            return self.blocks
        if self.stage in ("plan", "order", "settle"):
            return "nothing"
        rungs = [*RUNGS, "nothing"]
        by_stage = "fire" if self.stage == "wake" else "crank"
        return rungs[max(rungs.index(first or "crank"), rungs.index(by_stage))]

    def as_run(self) -> "RunStep | None":
        """Itself, where it is a rung of the first start."""
        return None

    def as_inspection(self) -> "InspectStep | None":
        """Itself, where parts are looked at."""
        return None

    def figures(self) -> tuple["Ask", ...]:
        """The figures that somebody says before it is done."""
        return ()

    def sweeps(self) -> tuple["Sweep", ...]:
        """What is looked at on one walk round."""
        return ()

    def shows_pattern(self) -> bool:
        """Whether the contact pattern of a gear is looked at."""
        return False

    def asks_rows(self) -> "RowsAsked | None":
        """What it does with the rows of an exchange."""
        return None

    def sources_figures(self) -> bool:
        """Whether it is done when no figure of the coming stage is left to find."""
        return False

    def follows(self) -> str | None:
        """The debris trace along which its parts are looked at."""
        return None

    def readings(self) -> tuple["ReadingSpec", ...]:
        """The readings that it asks for."""
        return ()

    def results(self) -> tuple["ResultSpec", ...]:
        """What it judges."""
        return ()

    def packs(self) -> tuple["Pack", ...]:
        """The packs of shims that are chosen at it."""
        return ()

    def carrier_set(self) -> "Carrier | None":
        """The carrier that is set by two packs at it."""
        return None

    def matched(self) -> "Pairs | None":
        """The like parts that are matched at it."""
        return None

    def shimmed(self) -> "ShimmedValves | None":
        """The valves whose lash is set by shims at it."""
        return None

    def pack_in(self, result: str) -> "Pack | None":
        """The pack that makes this result smaller."""
        return next((pack for pack in self.packs() if pack.result == result), None)

    def asked_for(self, reading: str, sheet: "Sheet") -> "ReadingSpec | None":
        """The reading with this id, as it is asked for."""
        return next((spec for spec in self.readings() if spec.id == reading), None)

    def judges_alone(self, reading: str) -> str | None:
        """The limit that judges this reading by itself."""
        return next((spec.limit for spec in self.results() if spec.reading == reading), None)

    def tightens(self) -> tuple[str, ...]:
        """The joints that it tightens."""
        return ()

    def locks(self) -> "Group | None":
        """The group that it locks, where its joints wait for a place to be found."""
        return None

    def takes_out(self) -> tuple[str, ...]:
        """The joints that it takes out."""
        return ()

    def bag_specs(self) -> tuple[BagSpec, ...]:
        """The fasteners that it takes off, and where they go back, as the sheet says."""
        return ()

    def with_usual_counts(self) -> Self:
        """The step as a sheet for any vehicle means it: what nobody counted is usual."""
        return self

    def back_into(self, line: BagSpec) -> str | None:
        """The joint that a bag line goes back into: its own, or that of the step where no other
        line says one.
        """
        if line.joint is not None:
            return line.joint
        own = {spec.joint for spec in self.bag_specs()}
        return next((name for name in self.takes_out() if name not in own), None)

    def bagged(self) -> tuple[BagLine, ...]:
        """The fasteners that it takes off, as the sheet proposes them."""
        return tuple(spec.line() for spec in self.bag_specs())

    def stands(self) -> bool:
        """Whether what comes off goes on the stand."""
        return False

    def fills(self) -> str | None:
        """The fluid that it fills: its id, or its name where the sheet describes none."""
        return None

    def cools(self) -> bool:
        """Whether it fills the coolant."""
        return False

    def pours(self) -> str | None:
        """The limit of the amount that it pours in."""
        return None

    def sizes(self) -> tuple[str, ...]:
        """The sizes of the vehicle that it needs, by the ids of their limits."""
        return ()

    def limits(self) -> tuple[tuple[str, str], ...]:
        """The limits that it needs: the key of the sheet, and the id."""
        return ()

    def must_have(self, *, passed: bool, settled: bool) -> tuple[str, ...]:
        """Limits that have to be given for it: of what is not settled; what was measured stays
        unjudged without, done or not.
        """
        return () if settled else tuple(dict.fromkeys(limit for _, limit in self.limits()))

    def also_of(self, other: "BaseStep") -> dict[str, object]:
        """What its kind takes over from a step of another sheet that is the same one."""
        return {}

    def laws(self, sheet: "Sheet") -> Iterator[tuple[str, str]]:
        """What of its kind does not fit the sheet: the key, and why, the first first."""
        for key, limit in self.limits():
            if sheet.find_limit(limit) is None:
                yield key, f"'{limit}' is not a limit of this sheet"
        for joint in (*self.tightens(), *self.takes_out()):
            if sheet.find_joint(joint) is None:
                yield "joint", f"'{joint}' is not a joint of this sheet"
        yield from again_laws(self.again, sheet)
        yield from care_laws(self.lays, self.seats, self.warms, sheet)
