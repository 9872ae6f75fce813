"""One build: its frame, benches, log, gates, and what is written to it."""

from fastapi import APIRouter, Response

from hollet.core.book.sums import Source
from hollet.core.steps.inspection import InspectionView
from hollet.screens.bench import Bench
from hollet.screens.changed import ChangedView
from hollet.screens.debts import DebtsView
from hollet.screens.faults import FaultsView
from hollet.screens.last_time import LastView
from hollet.screens.leaks import LeaksView
from hollet.screens.record import RecordView
from hollet.screens.settle import SettleView
from hollet.screens.ties import TiesView
from hollet.screens.turned import TurnedView
from hollet.services import archives, builds, front, logging, readings
from hollet.services.builds import BuildCard, GateView
from hollet.services.debts import debt_list, debts
from hollet.services.faults import faults
from hollet.services.figures import sum_sources
from hollet.services.front import AppendView
from hollet.services.inspection import changes, inspection
from hollet.services.last_time import last_time
from hollet.services.leaks import leaks
from hollet.services.logging import LogView
from hollet.services.readings import ReadIn
from hollet.services.record import record, record_paper
from hollet.services.settle import settling
from hollet.services.ties import tied
from hollet.services.torque_cards import torque_card
from hollet.web.models import EntryEdit, ReadingsFile, StandsView, VehicleEdit
from hollet.web.routers.shop import Shared

__all__ = ["router"]

router = APIRouter(prefix="/builds/{build}")


@router.get("")
def get_build(build: str, workshop: Shared) -> BuildCard:
    """The frame of a build."""
    return builds.frame(workshop, build)


@router.post("/vehicle")
def describe_vehicle(build: str, edit: VehicleEdit, workshop: Shared) -> BuildCard:
    """Say anew what the vehicle is, for all its builds."""
    return front.described(
        workshop, build, name=edit.name, about=edit.about, was=edit.was, who=edit.who
    )


@router.get("/steps/{step}")
def get_bench(build: str, step: str, workshop: Shared) -> Bench:
    """The bench of a step."""
    return builds.bench(workshop, build, step)


@router.post("/entries")
def write_entry(build: str, edit: EntryEdit, workshop: Shared) -> AppendView:
    """Write one entry; the answer is the line and the screen as it is now."""
    return front.written(workshop, build, edit.sent(), edit.entry)


@router.get("/log")
def get_log(
    build: str,
    workshop: Shared,
    step: str | None = None,
    kind: str | None = None,
    before: int | None = None,
) -> LogView:
    """The log, newest first."""
    return logging.log_of(workshop, build, step=step, kind=kind, before=before)


@router.get("/entries/{entry}/stands")
def get_stands(build: str, entry: str, workshop: Shared) -> StandsView:
    """What stands on a line, before it is struck."""
    return StandsView(lines=list(logging.stands_on(workshop, build, entry)))


@router.get("/sources")
def get_sources(build: str, workshop: Shared) -> list[Source]:
    """The figures of a build that a sum of the bench may take by name."""
    return list(sum_sources(workshop, build))


@router.get("/changed")
def get_changed(build: str, workshop: Shared) -> ChangedView:
    """What is not as it left the works."""
    return changes(workshop, build)


@router.get("/leaks")
def get_leaks(build: str, workshop: Shared) -> LeaksView:
    """Fluids and leaks."""
    return leaks(workshop, build)


@router.get("/ties")
def get_ties(build: str, workshop: Shared) -> TiesView:
    """The register of ties."""
    return tied(workshop, build)


@router.get("/settle")
def get_settle(build: str, workshop: Shared) -> SettleView:
    """What settles, beside its first figure."""
    return settling(workshop, build)


@router.get("/faults")
def get_faults(build: str, workshop: Shared) -> FaultsView:
    """What is wrong, and which test splits its causes."""
    return faults(workshop, build)


@router.get("/last")
def get_last(build: str, workshop: Shared) -> LastView:
    """What earlier builds of the vehicle left, beside today."""
    return last_time(workshop, build)


@router.get("/record")
def get_record(build: str, workshop: Shared, owner: bool = False) -> RecordView:
    """What the log comes to; `owner`: without notes and struck lines."""
    return record(workshop, build, owner=owner)


@router.get("/record.pdf", response_class=Response)
def get_record_paper(build: str, workshop: Shared, owner: bool = False) -> Response:
    """The same on paper."""
    paper = record_paper(workshop, build, owner=owner)
    return Response(paper, media_type="application/pdf")


@router.get("/debts")
def get_debts(build: str, workshop: Shared) -> DebtsView:
    """Every fastener below its final state, and what closes over it next."""
    return debts(workshop, build)


@router.get("/debts.pdf", response_class=Response)
def get_debt_list(build: str, workshop: Shared) -> Response:
    """The same on paper."""
    return Response(debt_list(workshop, build), media_type="application/pdf")


@router.get("/steps/{step}/card.pdf", response_class=Response)
def get_torque_card(build: str, step: str, workshop: Shared) -> Response:
    """The card of the joint in hand, to hang over the work."""
    return Response(torque_card(workshop, build, step), media_type="application/pdf")


@router.get("/inspection")
def get_inspection(build: str, workshop: Shared) -> InspectionView:
    """The findings desk: what was seen, like parts side by side, money, explanations, what is
    suspect for its age.
    """
    return inspection(workshop, build)


@router.get("/turned")
def get_turned(build: str, workshop: Shared) -> list[TurnedView]:
    """What an old build calls done and the rules of today do not."""
    return list(builds.turned(workshop, build))


@router.get("/gate")
def get_gate(build: str, workshop: Shared) -> GateView:
    """The ladder of gates."""
    return builds.gate(workshop, build)


@router.get("/archive", response_class=Response)
def get_archive(build: str, workshop: Shared) -> Response:
    """The whole build as one file."""
    name = f"hollet-{build[:8]}.zip"
    return Response(
        archives.export_build(workshop, build),
        media_type="application/zip",
        headers={"Content-Disposition": f'attachment; filename="{name}"'},
    )


@router.get("/readings.csv", response_class=Response)
def get_readings(build: str, workshop: Shared, step: str | None = None) -> Response:
    """All readings as CSV, taken or not."""
    return Response(
        readings.readings_csv(workshop, build, step),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="readings-{build[:8]}.csv"'},
    )


@router.post("/readings")
def read_readings(build: str, edit: ReadingsFile, workshop: Shared) -> ReadIn:
    """Write the readings of a CSV table, all or none."""
    return readings.read_readings(workshop, build, edit.text, who=edit.who)


@router.get("/sheet.pdf", response_class=Response)
def get_sheet(build: str, workshop: Shared, step: str | None = None) -> Response:
    """The measuring sheet to fill in by hand."""
    return Response(
        front.paper(workshop, build, step),
        media_type="application/pdf",
        headers={"Content-Disposition": f'inline; filename="sheet-{build[:8]}.pdf"'},
    )


@router.get("/attempts.csv", response_class=Response)
def get_attempts(build: str, workshop: Shared) -> Response:
    """All attempts as CSV."""
    return Response(
        archives.attempts_csv(workshop, build),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="attempts-{build[:8]}.csv"'},
    )
