"""A step that is looked at or done, and ticked."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from hollet.core.errors import HolletError
from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.rows import RowsAsked
from hollet.core.procedure.sweep import Sweep
from hollet.core.procedure.words import Id, Part, Words
from hollet.core.quantities.parse import parse
from hollet.core.quantities.units import find_unit

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["Ask", "CheckStep"]


LOOKED_STAGES = ("inspect", "fit_in", "wake", "settle")
PRESSED = {
    "check": "Done",
    "connect": "It is connected",
    "fit": "It is fitted",
    "wait": "The time is over",
}


class Ask(Part):
    """A figure that somebody says before the step is done; `at_least` and `at_most` name another
    one, of any step, that it must not fall short of or pass; outside `usual` it is asked.
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
    pattern: bool = False  # paste on the teeth of a gear shows where they bear
    rows: RowsAsked | None = None
    hunts: bool = False  # done when no figure of the coming stage is left to find
    asks: Annotated[tuple[Ask, ...], Field(max_length=12)] = ()
    sweep: Annotated[tuple[Sweep, ...], Field(max_length=24)] = ()

    @property
    def closes_up(self) -> bool:
        return self.kind in ("fit", "connect") or bool(self.closes)

    def pressed(self) -> str:
        """ "Looked at" only where something was looked at, never where something was raised,
        drained or taken off.
        """
        acts = self.carries or self.releases or self.drains or self.opens
        if self.kind == "check" and self.stage in LOOKED_STAGES and not acts:
            return "Looked at and right"
        return PRESSED[self.kind]

    def figures(self) -> tuple[Ask, ...]:
        return self.asks

    def sweeps(self) -> tuple[Sweep, ...]:
        return self.sweep

    def shows_pattern(self) -> bool:
        return self.pattern

    def asks_rows(self) -> RowsAsked | None:
        return self.rows

    def sources_figures(self) -> bool:
        return self.hunts

    def also_of(self, other: BaseStep) -> dict[str, object]:
        asks = {ask.id: ask for ask in (*other.figures(), *self.asks)}
        sweep = {look.id: look for look in (*other.sweeps(), *self.sweep)}
        return {
            "asks": tuple(asks.values()),
            "sweep": tuple(sweep.values()),
            "hunts": self.hunts or other.sources_figures(),
            "pattern": self.pattern or other.shows_pattern(),
            "rows": self.rows or other.asks_rows(),
        }

    def laws(self, sheet: "Sheet") -> Iterator[tuple[str, str]]:
        yield from super().laws(sheet)
        known = {ask.id for step in sheet.step for ask in step.figures()}
        for ask in self.asks:
            unit = find_unit(ask.unit)
            if unit is None or unit.dimension != ask.dimension:
                yield "asks", f"'{ask.unit}' is no unit of {ask.dimension}"
            for bound in ask.usual or ():
                if not _reads(bound, ask):
                    yield "asks", f"'{bound}' is no {ask.dimension}, such as 40 {ask.unit}"
            for other in (ask.at_least, ask.at_most):
                if other is not None and other not in known:
                    yield "asks", f"'{other}' is no figure that a step asks for"


def _reads(text: str, ask: Ask) -> bool:
    """Whether a text is a figure of what is asked for."""
    try:
        parse(text, ask.dimension, ask.unit)
    except HolletError:
        return False
    return True
