"""The plan of a build: its desk, changes and their difference, the limit book."""

from datetime import date

from fastapi import APIRouter, Response

from hollet.screens.difference import Difference
from hollet.screens.limitbook import LimitBook
from hollet.screens.plandesk import PlanView
from hollet.services import own_sheets, planning
from hollet.services.own_sheets import KeptIn, SheetsDesk
from hollet.services.planning import Edited
from hollet.web.models import LimitsFile, PlanEdit, PlanLook, WhoEdit
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter(prefix="/builds/{build}")


@router.get("/plan")
def get_plan(build: str, workshop: Shared) -> PlanView:
    """The plan desk."""
    return planning.desk(workshop, build)


@router.post("/plan")
def edit_plan(build: str, edit: PlanEdit, workshop: Shared) -> Edited:
    """Change the plan; the answer is the line, the verdicts that turned, and the desk
    as it is now.
    """
    return planning.edit_plan(
        workshop,
        build,
        edit.acts,
        who=edit.who,
        version=edit.version,
        entry_id=edit.id,
        reason=edit.reason,
    )


@router.post("/plan/difference")
def look_at_plan(build: str, look: PlanLook, workshop: Shared) -> Difference:
    """What the acts would change; nothing is written."""
    return planning.preview(workshop, build, look.acts, look.who)


@router.get("/sheets")
def get_sheets(build: str, workshop: Shared) -> SheetsDesk:
    """What the sheets of a build say now and did not, and what the build could give them."""
    return own_sheets.sheets_desk(workshop, build)


@router.post("/sheets/own")
def keep_what_was_found(build: str, edit: WhoEdit, workshop: Shared) -> KeptIn:
    """What was counted and found goes into one's own copies of the sheets."""
    return own_sheets.keep_what_was_found(
        workshop, build, who=edit.who, on=date.fromisoformat(workshop.now()[:10])
    )


@router.get("/limits")
def get_limits(build: str, workshop: Shared) -> LimitBook:
    """The limit book."""
    return planning.limits(workshop, build)


@router.post("/limits")
def read_limits(build: str, file: LimitsFile, workshop: Shared) -> Difference:
    """Read limits in from CSV or TOML; without `take` only the difference is told."""
    return planning.read_limits(
        workshop, build, file.text, file.form, who=file.who, entry_id=file.id, take=file.take
    )


@router.get("/limits.csv", response_class=Response)
def get_limits_csv(build: str, workshop: Shared) -> Response:
    """The limits as CSV."""
    return Response(
        planning.limits_csv(workshop, build),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="limits-{build[:8]}.csv"'},
    )


@router.get("/limits.toml", response_class=Response)
def get_limits_toml(build: str, workshop: Shared) -> Response:
    """The limits and joints as TOML."""
    return Response(
        planning.limits_toml(workshop, build),
        media_type="application/toml; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="limits-{build[:8]}.toml"'},
    )
