"""The units of a build by the numbers stamped on them."""

from hollet.core.entries import BookState, UnitNamed
from hollet.core.view import View

__all__ = ["LEAST_STAMPED", "UnitLine", "stamped", "units_of"]

LEAST_STAMPED = 3
"""Fewer letters and digits are no number: two units would be taken for one."""


class UnitLine(View):
    """One unit: what it is, its number as it was read, who read it, and when."""

    sort: str
    number: str
    who: str
    day: str


def stamped(number: str) -> str:
    """The number as it is compared: letters and digits alone, whatever their case."""
    return "".join(c for c in number.casefold() if c.isalnum())


def units_of(state: BookState) -> tuple[UnitLine, ...]:
    """Each unit by the number that was said last."""
    found = [state.newest(UnitNamed, "unit", sort) for sort, _ in state.names("unit")]
    return tuple(
        UnitLine(sort=e.body.sort, number=e.body.number, who=e.who, day=e.time[:10])
        for e in found
        if e is not None
    )
