"""A joint: like fasteners, tightened together in stages."""

from typing import Annotated, Literal

from pydantic import Field

from hollet.core.procedure.words import Id, Part, Words
from hollet.core.tightening.patterns import check_permutation, circle_order, head_order

__all__ = ["Joint", "Layout", "PutRight", "TighteningStage"]


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
