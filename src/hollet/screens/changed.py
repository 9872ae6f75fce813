"""The list of what is not as it left the works."""

from hollet.core.book.changed import ChangedFacts, changed
from hollet.core.book.needs import needs
from hollet.core.entries import BookState
from hollet.core.safety import SAFETY_NAMES
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["ChangedView", "changed_view"]


class NeedName(View):
    """A part of the parts desk, for which another may have been changed."""

    id: str
    name: str


class ChangedView(View):
    """The list, the parts that something may be changed for, and what a safety part is asked as."""

    title: str
    facts: ChangedFacts
    needs: tuple[NeedName, ...]
    safety: dict[str, str]


def changed_view(state: BookState) -> ChangedView:
    """Everything that is not as it left the works."""
    facts = changed(state)
    listed = (facts.earlier, facts.altered, facts.wires, facts.stand_ins, facts.empty)
    many = sum(len(rows) for rows in listed)
    title = "Nothing here is other than it left the works"
    if many:
        title = f"{counted(many, 'thing')} not as they left the works"
        title += f", {facts.open} still to be settled" if facts.open else ", all settled"
    return ChangedView(
        title=title,
        facts=facts,
        needs=tuple(NeedName(id=need.id, name=need.name) for need in needs(state)),
        safety=dict(SAFETY_NAMES),
    )
