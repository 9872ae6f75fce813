"""Parts and orders."""

from fastapi import APIRouter

from hollet.core.book.arrivals import Arrival
from hollet.screens.partsdesk import PartsView
from hollet.services import parts
from hollet.services.parts import WantedLook
from hollet.web.models import TextLook
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()


@router.get("/builds/{build}/parts")
def get_parts(build: str, workshop: Shared) -> PartsView:
    """The parts desk."""
    return parts.desk(workshop, build)


@router.get("/builds/{build}/parts/{need}/arrival")
def get_arrival(build: str, need: str, workshop: Shared, order: str | None = None) -> Arrival:
    """How pieces of an order, or off the shelf, are compared."""
    return parts.arrival(workshop, build, need, order)


@router.post("/wanted")
def read_wanted(look: TextLook, workshop: Shared) -> WantedLook:
    """What a typed line of a wanted part means."""
    return parts.wanted(workshop, look.text)
