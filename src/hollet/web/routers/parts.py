"""Parts and orders."""

from fastapi import APIRouter, Response

from hollet.core.book.arrivals import Arrival
from hollet.screens.partsdesk import PartsView
from hollet.services import parts, parts_files
from hollet.services.parts import WantedLook
from hollet.services.parts_files import WantedIn
from hollet.web.models import ReadingsFile, TextLook
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


@router.get("/builds/{build}/parts.csv", response_class=Response)
def get_parts_csv(build: str, workshop: Shared) -> Response:
    """Every part that is needed, as a table."""
    return Response(
        parts_files.parts_csv(workshop, build),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="parts-{build[:8]}.csv"'},
    )


@router.get("/builds/{build}/orders.csv", response_class=Response)
def get_orders_csv(build: str, workshop: Shared) -> Response:
    """Every order, as a table."""
    return Response(
        parts_files.orders_csv(workshop, build),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="orders-{build[:8]}.csv"'},
    )


@router.post("/builds/{build}/parts.csv")
def read_parts_csv(build: str, file: ReadingsFile, workshop: Shared) -> WantedIn:
    """Want the parts of a table: all or none."""
    return parts_files.read_parts(workshop, build, file.text, who=file.who)


@router.get("/shopping.pdf", response_class=Response)
def get_shopping_list(workshop: Shared) -> Response:
    """The shopping list on paper."""
    return Response(parts_files.shopping_list(workshop), media_type="application/pdf")


@router.get("/today.pdf", response_class=Response)
def get_card_for_today(workshop: Shared) -> Response:
    """The card for today on paper."""
    return Response(parts_files.card_for_today(workshop), media_type="application/pdf")
