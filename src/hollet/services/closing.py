"""The closing card of the evening, and the desk of pace and lost time."""

from datetime import timedelta

from hollet.core.calendar.clock import lost_time
from hollet.core.errors import Unavailable
from hollet.screens.closing import (
    ClosingView,
    Evening,
    PaceDesk,
    closing_build,
    closing_view,
    pace_desk,
)
from hollet.services.names import build_names
from hollet.services.pace import next_time, paces
from hollet.services.workshop import Workshop, utc_text

__all__ = ["closing", "pace"]

EVENING_FROM_H = 5
"""Work after midnight still belongs to the evening before, until five."""


def closing(workshop: Workshop) -> ClosingView:
    """The card as it stands now."""
    local = workshop.local()
    begin = local.replace(hour=EVENING_FROM_H, minute=0, second=0, microsecond=0)
    if local < begin:
        begin -= timedelta(days=1)
    said = {row.note: row.text for row in next_time(workshop)}
    evening = Evening(since=utc_text(begin), said=said)
    found = []
    for build, name in build_names(workshop).items():
        try:
            with workshop.held(build) as state:
                card = closing_build(state, build, name, evening)
        except Unavailable:
            continue  # the Shop says so of this build itself
        if card is not None:
            found.append(card)
    return closing_view(found)


def pace(workshop: Workshop) -> PaceDesk:
    """Pace by kind of work, and time lost by cause over all builds."""
    lost = []
    for build in build_names(workshop):
        try:
            with workshop.held(build) as state:
                lost.append(lost_time(state))
        except Unavailable:
            continue
    return pace_desk(paces(workshop), lost, next_time(workshop))
