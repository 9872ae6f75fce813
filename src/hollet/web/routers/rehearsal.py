"""The first start rehearsed: nothing of it is written."""

from fastapi import APIRouter

from hollet.core.running.rehearsal import Deal, Played
from hollet.services.rehearsal import FaultName, dealt, fault_names, played
from hollet.web.models import RehearsalDeal, RehearsalPlayed

__all__ = ["router"]

router = APIRouter(prefix="/rehearsal")


@router.get("/faults")
def list_faults() -> tuple[FaultName, ...]:
    """The starts that can be practised."""
    return fault_names()


@router.post("/deal")
def deal_start(edit: RehearsalDeal) -> Deal:
    """A start, its fault not named."""
    return dealt(edit.seed, edit.fault)


@router.post("/played")
def judge_start(edit: RehearsalPlayed) -> Played:
    """How it went."""
    return played(edit.seed, edit.fault, edit.acts)
