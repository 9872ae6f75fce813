"""A step that fills a fluid."""

from typing import TYPE_CHECKING, ClassVar, Literal

from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.results import ReadingSpec
from hollet.core.procedure.words import Id, Words

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["FillStep"]


class FillStep(BaseStep):
    """A fluid (its id, or its name where the sheet describes none) with its amount and its level
    check.
    """

    kind: Literal["fill"]
    fluid: Words
    amount: Id
    level: Words
    coolant: bool = False

    figure_kind: ClassVar[str] = "amount"

    def fills(self) -> str | None:
        return self.fluid

    def cools(self) -> bool:
        return self.coolant

    def pours(self) -> str | None:
        return self.amount

    def limits(self) -> tuple[tuple[str, str], ...]:
        return (("amount", self.amount),)

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
