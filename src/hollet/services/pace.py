"""The own pace of the shop, learnt from the steps that all its builds have finished, and what is
said before steps next time.
"""

from hollet.core.calendar.clock import WORK_KINDS, Pace, pace_of, ratios_of
from hollet.core.errors import Unavailable
from hollet.screens.closing import NoteRow, next_notes
from hollet.services.workshop import SHOP, Workshop

__all__ = ["next_time", "paces"]


def _ratios(workshop: Workshop, build: str) -> dict[str, list[float]]:
    """Ratios of the steps that a build finished; kept while its log stands."""

    def read() -> dict[str, list[float]]:
        with workshop.held(build) as state:
            return ratios_of(state) if state.broken is None else {}

    return workshop.kept(("ratios", build), workshop.heads().get(build, 0), read)


def paces(workshop: Workshop) -> dict[str, Pace]:
    """The own pace by kind of work, from all builds."""
    found: dict[str, list[float]] = {kind: [] for kind in WORK_KINDS}
    with workshop.store.read() as books:
        builds = [build.id for build in books.builds.all()]
    for build in builds:
        try:
            ratios = _ratios(workshop, build)
        except Unavailable:
            continue  # a build that cannot be read says nothing of the pace; the Shop names it
        for kind, values in ratios.items():
            found[kind] += values
    return {kind: pace_of(kind, tuple(ratios)) for kind, ratios in found.items()}


def next_time(workshop: Workshop) -> tuple[NoteRow, ...]:
    """What stands before steps next time."""

    def read() -> tuple[NoteRow, ...]:
        with workshop.held(SHOP) as shop:
            return next_notes(shop)

    return workshop.kept(("next",), workshop.heads().get(SHOP, 0), read)
