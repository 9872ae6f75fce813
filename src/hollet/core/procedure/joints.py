"""A joint: like fasteners, tightened together in stages."""

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from hollet.core.errors import Refused
from hollet.core.procedure.pieces import OneUse
from hollet.core.procedure.words import Id, Part, Words
from hollet.core.quantities.parse import parse
from hollet.core.safety import Safety
from hollet.core.tightening.patterns import (
    Point,
    check_permutation,
    circle_order,
    circle_point,
    head_order,
    head_point,
)

__all__ = [
    "FEELS",
    "READ_OFF",
    "STAGE_DIMENSIONS",
    "Feel",
    "Joint",
    "Layout",
    "LookWhen",
    "PutRight",
    "StageKind",
    "TighteningStage",
    "stage_range",
]


APART = 2.6
"""How far like circles are drawn apart, in radii."""


class Layout(Part):
    """Places of the bolts: a head of two rows, a circle, several like circles (`of`), or explicit
    points in mm.
    """

    kind: Literal["head", "circle", "circles", "points"]
    columns: Annotated[int, Field(ge=2, le=12)] | None = None
    n: Annotated[int, Field(ge=3, le=48)] | None = None
    of: Annotated[int, Field(ge=1, le=4)] = 1
    points: dict[str, tuple[float, float]] = Field(default_factory=dict)

    def names(self) -> list[str]:
        """Names of the places, before any order."""
        if self.kind == "head":
            return [f"{row}{c}" for row in "AB" for c in range(1, (self.columns or 0) + 1)]
        if self.kind in ("circle", "circles"):
            return [str(k) for k in range(1, (self.n or 0) * self.of + 1)]
        return list(self.points)

    def places(self) -> dict[str, Point]:
        """Where each bolt stands in the drawing; circles side by side."""
        names, n = self.names(), self.n or 0
        if self.kind == "head":
            return {name: head_point(name, self.columns or 0, 1.0, 1.0) for name in names}
        if self.kind == "points":
            return dict(self.points)
        found = {}
        for k, name in enumerate(names):
            x, y = circle_point(k % n + 1, n)
            found[name] = (x + APART * (k // n), y)
        return found

    def _two_rows(self) -> bool:
        """Whether its points stand in two like rows, as the bolts of caps do."""
        rows: dict[float, set[float]] = {}
        for x, y in self.points.values():
            rows.setdefault(y, set()).add(x)
        first, *others = rows.values() or [set()]
        return len(others) == 1 and others[0] == first

    def resized(self, bolts: int, name: str) -> "Layout":
        """The same kind of layout for another number of bolts.

        Raises
        ------
        Refused
            `count_odd`: a head has two rows, circles are alike, and a circle has three or more.
        """
        if self.kind == "points" or (self.kind == "circle" and bolts < 3):
            each = bolts // 2 if self._two_rows() and bolts % 2 == 0 else bolts
            return Layout(
                kind="points",
                points={str(k + 1): (float(k % each), float(k // each)) for k in range(bolts)},
            )
        rows = 2 if self.kind == "head" else self.of
        each, left = divmod(bolts, rows)
        least, most = (2, 12) if self.kind == "head" else (3, 48)
        if left or not least <= each <= most:
            raise Refused(
                "count_odd",
                f"{name} cannot be {bolts}: it is drawn as {rows} "
                f"{'rows' if self.kind == 'head' else 'like parts'} of {least} to {most} each",
                field="bolts",
            )
        return self.model_copy(update={"columns" if self.kind == "head" else "n": each})


Feel = Literal["by hand", "snug", "cinched", "loosened again"]
FEELS: tuple[Feel, ...] = ("by hand", "snug", "cinched", "loosened again")


StageKind = Literal["torque", "angle", "stretch", "turning"]
STAGE_DIMENSIONS: dict[str, str] = {
    "torque": "torque",
    "angle": "angle",
    "stretch": "length",
    "turning": "torque",
}
"""What each figure of a stage is a quantity of."""
READ_OFF = {"stretch": "longer by", "turning": "turns at"}
"""Stages whose figure is read off the bolt itself, and how they are said."""


class TighteningStage(Part):
    """One round of a joint: a torque, an angle on top, by how much the bolt gets longer
    (`stretch`), at what torque the nut or shaft keeps `turning`, a state by `feel`, or `till` what
    is seen ("the marks line up"); with none of them it is not given yet.
    """

    torque: str | None = None
    angle: str | None = None
    stretch: str | None = None
    turning: str | None = None
    feel: Feel | None = None
    till: Words | None = None

    def figure(self) -> tuple[StageKind, str | None]:
        """Which figure it asks for, and its text; a torque that is not given where there is
        none.
        """
        by: dict[StageKind, str | None] = {
            "torque": self.torque,
            "angle": self.angle,
            "stretch": self.stretch,
            "turning": self.turning,
        }
        return next(((kind, text) for kind, text in by.items() if text), ("torque", None))

    def given(self) -> tuple[str, ...]:
        """What is asked, in its words: one, or none where it is not given yet."""
        stretch = f"{READ_OFF['stretch']} {self.stretch}" if self.stretch else None
        turning = f"{READ_OFF['turning']} {self.turning}" if self.turning else None
        till = f"till {self.till}" if self.till else None
        said = (self.torque, self.angle, stretch, turning, self.feel, till)
        return tuple(text for text in said if text)

    def asked(self) -> str:
        """What is asked, or that it is not given."""
        return next(iter(self.given()), "not given")

    def state(self) -> Feel | None:
        """The state that it leaves a bolt in, where it asks for no figure."""
        return self.feel or ("cinched" if self.till else None)


def stage_range(stage: TighteningStage) -> tuple[Fraction, Fraction, Fraction]:
    """Least, middle and most of the figure that a stage asks for, in its canonical unit; of one
    figure all three are the same. A range is asked only of what is read off the bolt.

    Raises
    ------
    Refused
        `bad_number` where it is not above zero, or is a range of a torque or an angle; and what
        `parse` refuses.
    """
    kind, text = stage.figure()
    parsed = parse(text or "", STAGE_DIMENSIONS[kind])
    if kind in READ_OFF and parsed.lo is not None and parsed.hi is not None and parsed.lo > 0:
        return parsed.lo, (parsed.lo + parsed.hi) / 2, parsed.hi
    if parsed.kind != "single" or parsed.nominal is None or parsed.nominal <= 0:
        more = ", or a range such as 1.0 to 2.0 Nm" if kind in READ_OFF else ""
        words = f"'{text}' must be one figure above zero{more}"
        raise Refused("bad_number", words, field="stage")
    return parsed.nominal, parsed.nominal, parsed.nominal


class LookWhen(Part):
    """When a joint is looked at again, whichever comes first: after a distance in km, days, heat
    cycles, or before each trip. Without a `source` it is a rule of thumb.
    """

    km: Annotated[int, Field(ge=1, le=100_000)] | None = None
    days: Annotated[int, Field(ge=1, le=3650)] | None = None
    cycles: Annotated[int, Field(ge=1, le=20)] | None = None
    trip: bool = False
    source: Words | None = None

    @model_validator(mode="after")
    def _some(self) -> "LookWhen":
        if not (self.km or self.days or self.cycles or self.trip):
            raise ValueError("say km, days, cycles or trip")
        return self


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
    """Like fasteners tightened together; bolts are numbered in the order of tightening.

    `group` says which bolts draw down one part: the bolts of one cap, of one flange. `in_turn`: one
    group goes through all its stages before the next begins, and `between` is what is proven then.
    `counted`: somebody counted the bolts on the vehicle; False: as many are usual, nobody has;
    not said: the sheet of the vehicle says so.
    `again`: at what times it is looked at again, at its step `recheck`.
    `to_yield`: the last angle draws its bolts into yield, as their maker wants it.
    `heads` is which way the bolts point, `washer` its side, `special` why only the original will
    do, `tab` what locks it, `holds_also` the second part under the same bolt; `length` by place.
    """

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
    one_use: tuple[OneUse, ...] = ()
    critical: bool = False
    safety: Safety | None = None
    group: tuple[tuple[str, ...], ...] = ()
    in_turn: bool = False
    between: Words | None = None
    counted: bool | None = None
    own: str | None = None
    version: int = 1
    treatment: Words | None = None
    final: Literal["torqued", "cinched", "snug"] = "torqued"
    mark: bool = False
    to_yield: bool = False
    wait_for: Words | None = None
    recheck: Id | None = None
    again: Annotated[tuple[LookWhen, ...], Field(max_length=6)] = ()
    put_right: PutRight = PutRight()
    sides: tuple[str, str] | None = None
    heads: Words | None = None
    washer: Words | None = None
    special: Words | None = None
    tab: Words | None = None
    holds_also: Words | None = None
    length: dict[str, Annotated[str, Field(max_length=20)]] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _where(self) -> "Joint":
        if self.again and self.recheck is None:
            raise ValueError("a joint that is looked at again says at which step: recheck")
        return self

    def drawn_for(self, bolts: int) -> "Joint":
        """The same joint for this many bolts, counted on the vehicle. A circle keeps its star, a
        head its two rows; two rows of caps stay two; of other layouts with another number nobody
        knows the places: they stand in a row. Rows go from the middle outward.

        Raises
        ------
        Refused
            `count_odd` where the drawing cannot be so many: which numbers could be.
        """
        counted = {"counted": True, "version": self.version + 1}
        if bolts == len(self.layout.names()):
            return self.model_copy(update=counted)
        if self.group:
            raise Refused(
                "count_odd",
                f"{self.name}: its bolts are drawn down in groups by name, "
                f"{len(self.layout.names())} in all; with another number the sheet must say how",
                field="bolts",
            )
        layout = self.layout.resized(bolts, self.name)
        pattern, order = self.pattern, self.order
        if layout.kind == "points":
            at = layout.points
            middle = max(x for x, _ in at.values()) / 2
            outward = sorted(at, key=lambda k: (abs(at[k][0] - middle), *at[k]))
            pattern, order = "order", tuple(outward)
        elif layout.kind in ("circle", "circles"):
            pattern, order = "star", ()
        return self.model_copy(
            update={**counted, "layout": layout, "pattern": pattern, "order": order}
        )

    def groups(self) -> tuple[tuple[int, ...], ...]:
        """The numbers of the bolts that draw down one part, group by group in their order; all of
        them where the sheet names no groups.
        """
        order, n = self.sequence(), self.layout.n or 0
        if not self.group:
            each = n if self.layout.kind == "circles" else len(order)
            return tuple(tuple(range(k + 1, k + each + 1)) for k in range(0, len(order), each))
        numbered = (tuple(sorted(order.index(name) + 1 for name in names)) for names in self.group)
        return tuple(sorted(numbered))

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
            n = self.layout.n or 0
            return [str(k * n + b) for k in range(self.layout.of) for b in circle_order(n)]
        check_permutation(list(self.order), self.layout.names())
        return list(self.order)
