"""What is looked at again, over all vehicles: the list, and the same on paper for a trip."""

from hollet.core.book.again import Again, again_of
from hollet.core.view import View
from hollet.core.words import counted
from hollet.exchange.list_pdf import list_pdf
from hollet.exchange.paper import ListGroup, ListRow
from hollet.services.builds import cards
from hollet.services.workshop import Workshop

__all__ = ["AgainBuild", "AgainList", "again", "again_list"]


class AgainBuild(View):
    """What is looked at again on one build."""

    build: str
    name: str
    vehicle: str
    rows: tuple[Again, ...]


class AgainList(View):
    """The whole list: how much is due now, and how much waits for something first."""

    title: str
    builds: tuple[AgainBuild, ...]


def again(workshop: Workshop) -> AgainList:
    """Over all builds, those with something due first."""
    found = []
    for card in cards(workshop):
        with workshop.held(card.id) as state:
            rows = again_of(state, workshop.now())
        if rows:
            found.append(AgainBuild(build=card.id, name=card.name, vehicle=card.vehicle, rows=rows))
    found.sort(key=lambda build: not any(row.due for row in build.rows))
    every = [row for build in found for row in build.rows]
    due = sum(row.due for row in every)
    title = "Nothing is to be looked at again"
    if every:
        later = len(every) - due
        title = f"{counted(due, 'thing is', 'things are')} due again, {later} later"
    return AgainList(title=title, builds=tuple(found))


def again_list(workshop: Workshop) -> bytes:
    """The list on paper, to tick before a trip; as PDF."""
    view = again(workshop)
    groups = [
        ListGroup(
            build.name,
            tuple(
                ListRow(row.what, f"{row.when}. {row.how}", "now" if row.due else "later")
                for row in build.rows
            ),
        )
        for build in view.builds
    ]
    printed = workshop.local().strftime("%Y-%m-%d %H:%M")
    return list_pdf("Looked at again", view.title, printed, groups)
