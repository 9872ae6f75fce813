"""The evening: what can be done, and what the shop's calendar holds."""

from fastapi import APIRouter

from hollet.screens.tonight import TonightView
from hollet.services import calendar, tonight
from hollet.services.calendar import ShopLine
from hollet.web.models import ShopEntryEdit
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()


@router.get("/tonight")
def get_tonight(workshop: Shared) -> TonightView:
    """What can be done now, over all builds."""
    return tonight.tonight(workshop)


@router.post("/shop/entries")
def write_entry(edit: ShopEntryEdit, workshop: Shared) -> ShopLine:
    """Write a line of the shop's log."""
    return calendar.write_shop(workshop, edit.entry, who=edit.who, entry_id=edit.id)
