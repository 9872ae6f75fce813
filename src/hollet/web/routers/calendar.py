"""The evening: what can be done, and what the shop's calendar holds."""

from fastapi import APIRouter, Response

from hollet.screens.tonight import TonightView
from hollet.services import calendar, calendar_file, evenings, tonight
from hollet.services.again import AgainList, again, again_list
from hollet.services.calendar import ShopLine
from hollet.services.evenings import EveningsView
from hollet.web.models import ShopEntryEdit
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()


@router.get("/again")
def get_again(workshop: Shared) -> AgainList:
    """What is final and looked at again, over all vehicles."""
    return again(workshop)


@router.get("/again.pdf", response_class=Response)
def get_again_list(workshop: Shared) -> Response:
    """The same on paper, to tick before a trip."""
    return Response(again_list(workshop), media_type="application/pdf")


@router.get("/tonight")
def get_tonight(workshop: Shared) -> TonightView:
    """What can be done now, over all builds."""
    return tonight.tonight(workshop)


@router.post("/shop/entries")
def write_shop_entry(edit: ShopEntryEdit, workshop: Shared) -> ShopLine:
    """Write a line of the shop's log."""
    return calendar.write_shop(workshop, edit.entry, who=edit.who, entry_id=edit.id)


@router.get("/evenings")
def get_evenings(workshop: Shared) -> EveningsView:
    """The plan of evenings as it was laid last; a newer one is begun where something moved on."""
    return evenings.evenings_of(workshop, wait=0.3)


@router.post("/evenings/stop")
def stop_evenings(workshop: Shared) -> EveningsView:
    """Keep the old plan, and throw away what is being laid."""
    return evenings.stop_laying(workshop)


@router.get("/evenings.ics", response_class=Response)
def get_calendar(workshop: Shared) -> Response:
    """The plan, who comes and what comes due, as iCalendar."""
    return Response(
        calendar_file.calendar_file(workshop),
        media_type="text/calendar; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="evenings.ics"'},
    )
