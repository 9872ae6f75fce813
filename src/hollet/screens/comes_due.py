"""What comes due on a day, and which tools an evening needs."""

from collections.abc import Sequence
from datetime import date

from hollet.core.book.due import Due
from hollet.core.calendar.evenings import commitments
from hollet.core.calendar.offers import Offer
from hollet.core.entries import BookState
from hollet.core.saying import day_due, due_words
from hollet.core.view import View

__all__ = ["DueRow", "GearSaid", "ToolRow", "due_rows", "tool_rows"]


class GearSaid(View):
    """A tool of which somebody said something: whose, when it goes back, what a rented one costs a
    day, and what goes instead of it.
    """

    name: str
    whose: str
    state: str
    due: date | None
    a_day: float | None
    substitute: str | None


class ToolRow(View):
    """One tool that the steps laid into this evening need, and whether it is here."""

    name: str
    words: str
    here: bool
    known: bool
    steps: str


class DueRow(View):
    """What comes due, on a build or in the shop."""

    build: str | None
    name: str
    due: Due


OWED = ("borrowed", "rented", "lent")
HERE = ("owned", "borrowed", "rented")


def _goes_back(item: GearSaid) -> str:
    """To whom a tool goes back, and what each day with it costs."""
    a_day = f", {item.a_day:.2f} a day" if item.a_day is not None else ""
    return f"back {'from' if item.state == 'lent' else 'to'} {item.whose}{a_day}"


def tool_rows(offers: Sequence[Offer], gear: Sequence[GearSaid]) -> tuple[ToolRow, ...]:
    """What the steps of an evening need, what is not here first."""
    said = {item.name.casefold(): item for item in gear}
    found: dict[str, list[str]] = {}
    for offer in offers:
        for tool in offer.tools:
            found.setdefault(tool, []).append(offer.number)
    made = []
    for tool, numbers in found.items():
        item = said.get(tool.casefold())
        words = item.state if item is not None else "nobody said"
        if item is not None and item.state not in HERE and item.substitute:
            words += f"; instead: {item.substitute}"
        made.append(
            ToolRow(
                name=tool,
                words=words,
                here=item is not None and item.state in HERE,
                known=item is not None,
                steps=", ".join(numbers),
            )
        )
    return tuple(sorted(made, key=lambda row: (row.here, not row.known, row.name)))


def due_rows(
    shop: BookState, own: Sequence[DueRow], gear: Sequence[GearSaid], today: date
) -> tuple[DueRow, ...]:
    """What comes due on builds (`own`) and in the shop, the latest first."""
    rows = list(own)
    rows += [
        DueRow(
            build=None,
            name=item.name,
            due=Due(
                id=f"tool:{item.name}",
                kind="tool",
                what=item.name,
                does=_goes_back(item),
                words=due_words((item.due - today).days),
                days=(item.due - today).days,
            ),
        )
        for item in gear
        if item.due is not None and item.state in OWED
    ]
    rows += [
        DueRow(
            build=held.build,
            name=held.what,
            due=Due(
                id=f"commitment:{held.commitment}",
                kind="commitment",
                what=held.what,
                does=day_due(held.day) + (f", {held.time}" if held.time else ""),
                words=due_words((held.day - today).days),
                days=(held.day - today).days,
            ),
        )
        for held in commitments(shop)
    ]
    return tuple(
        sorted(rows, key=lambda r: (not r.due.late, not r.due.soon, r.due.days or 0, r.due.what))
    )
