"""What can be done tonight, over all builds of the shop."""

from hollet.core.book.box import sold_for
from hollet.core.calendar.clock import worked_since
from hollet.core.calendar.evenings import tonight as tonight_of
from hollet.core.calendar.evenings import visits
from hollet.core.calendar.offers import Around, offers
from hollet.core.errors import Unavailable
from hollet.screens.comes_due import GearSaid
from hollet.screens.tonight import BuildOffers, TonightView, build_offers, tonight_view
from hollet.services.box import in_the_box
from hollet.services.gear import all_gear
from hollet.services.names import build_names
from hollet.services.pace import paces
from hollet.services.workshop import SHOP, Workshop

__all__ = ["tonight"]


def tonight(workshop: Workshop) -> TonightView:
    """The page as it stands at this minute."""
    local = workshop.local()
    today, minute = local.date(), local.hour * 60 + local.minute
    gear = all_gear(workshop)
    own = paces(workshop)
    with workshop.held(SHOP) as shop:
        evening = tonight_of(shop, today, minute)
        coming = visits(shop, today, 60)
    around = Around(
        tonight=evening,
        minute=minute,
        gear={tool.id: tool.state for tool in gear},
        visits=coming,
        paces=own,
        today=today,
        now=workshop.now(),
        worked_today=_worked_today(workshop),
        tools=tuple(workshop.tools().values()),
    )
    found = []
    for build, name in build_names(workshop).items():
        try:
            found.append(_of(workshop, build, name, around))
        except Unavailable:
            continue  # the Shop says so of this build itself
    said = [
        GearSaid(
            name=tool.name,
            whose=tool.whose or "its owner",
            state=tool.state,
            due=tool.due,
            a_day=tool.a_day,
            substitute=tool.substitute,
        )
        for tool in gear
    ]
    with workshop.held(SHOP) as shop:
        return tonight_view(shop, found, said, evening, today, minute)


def _of(workshop: Workshop, build: str, name: str, around: Around) -> BuildOffers:
    sold = sold_for(in_the_box(workshop), build)
    with workshop.held(build) as state:
        return build_offers(
            state,
            build=build,
            name=name,
            offers=offers(state, around),
            today=around.today,
            sold=sold,
        )


def _worked_today(workshop: Workshop) -> float:
    """Minutes worked on the steps of all builds since midnight, by the entries."""
    midnight = workshop.local().replace(hour=0, minute=0, second=0, microsecond=0)
    total = 0.0
    for build in build_names(workshop):
        try:
            with workshop.held(build) as state:
                total += worked_since(state, midnight.isoformat())
        except Unavailable:
            continue
    return total
