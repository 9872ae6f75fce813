"""The desks behind the parts: box, money, questions, pace, the closing card."""

from fastapi import APIRouter, Response

from hollet.core.entries.asked import AboutSort
from hollet.screens.closing import ClosingView, PaceDesk
from hollet.screens.moneydesk import MoneyDesk
from hollet.services import asking, box, closing, evenings
from hollet.services.asking import AskView
from hollet.services.box import BoxView
from hollet.services.evenings import Saves
from hollet.web.models import TextLook
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter()


@router.get("/box")
def get_box(workshop: Shared) -> BoxView:
    """What lies in the box, and what might go into it."""
    return box.box(workshop)


@router.get("/closing")
def get_closing(workshop: Shared) -> ClosingView:
    """The closing card of this evening."""
    return closing.closing(workshop)


@router.get("/pace")
def get_pace(workshop: Shared) -> PaceDesk:
    """Own pace and lost time."""
    return closing.pace(workshop)


@router.get("/builds/{build}/money")
def get_money(build: str, workshop: Shared) -> MoneyDesk:
    """The money of a build."""
    return box.money(workshop, build)


@router.get("/builds/{build}/ask")
def get_ask(
    build: str, workshop: Shared, sort: AboutSort | None = None, about: str = ""
) -> AskView:
    """What a question would carry, and the questions so far."""
    return asking.ask_view(workshop, build, sort, about)


@router.get("/builds/{build}/ask/{question}.pdf", response_class=Response)
def get_question_pdf(build: str, question: str, workshop: Shared) -> Response:
    """One question on paper."""
    return Response(asking.question_pdf(workshop, build, question), media_type="application/pdf")


@router.get("/builds/{build}/returns/{refusal}.pdf", response_class=Response)
def get_return_slip(build: str, refusal: str, workshop: Shared) -> Response:
    """The slip that goes back with a refused part."""
    return Response(asking.return_slip(workshop, build, refusal), media_type="application/pdf")


@router.post("/builds/{build}/parts/{need}/saves")
def what_it_saves(build: str, need: str, look: TextLook, workshop: Shared) -> Saves:
    """What it saves when a part comes on a day."""
    return evenings.saves(workshop, build, need, look.text)
