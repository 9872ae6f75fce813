"""Take-down and rebuilding: what is off, the order back, what carries the load, what to make safe,
the ladder for stuck parts.
"""

from pydantic import BaseModel

from hollet.core import entries as b
from hollet.core.book.order_back import Choices
from hollet.core.book.rebuild import RebuildView, rebuild_view
from hollet.core.book.secure import SecureView, secure_view
from hollet.core.book.spoken import SpokenView, spoken_notes
from hollet.core.book.supports import SupportView, support_view
from hollet.core.book.take_over import rebuild_changes
from hollet.core.book.tries import ladder_of, said_of
from hollet.core.entries import Surroundings
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.changes import apply
from hollet.core.procedure.fasteners import fastener_words, read_fasteners
from hollet.core.procedure.pieces import BagLine, Stuck
from hollet.core.procedure.stuck import (
    CLEANERS,
    NEAR,
    NUTS,
    Cleaner,
    StuckFacts,
    StuckView,
)
from hollet.screens.takedown import TakeDownView, takedown_view
from hollet.services.vehicles import VehicleStanding, vehicle_name, vehicles
from hollet.services.workshop import Workshop, with_plan

__all__ = [
    "FastenerView",
    "StuckDesk",
    "SupportDesk",
    "fasteners",
    "rebuild",
    "stuck",
    "support",
    "take_rebuild",
    "takedown",
]


class FastenerView(BaseModel):
    """What a typed line of fasteners means, or why it cannot be read."""

    ok: bool
    words: str
    line: BagLine | None = None


class Named(BaseModel):
    """A code and its word."""

    id: str
    name: str


class SupportDesk(BaseModel):
    """The support map, the list of what to make safe, the vehicle and the surroundings."""

    map: SupportView
    secure: SecureView
    vehicle: VehicleStanding
    around: tuple[str, ...]
    conditions: tuple[Named, ...]
    spoken: tuple[SpokenView, ...]
    head: int


class StuckDesk(BaseModel):
    """The ladder for one stuck part, what may be near it, and what was said of it before: that
    stays said. `about`: what the sheet says of it.
    """

    rungs: tuple[StuckView, ...]
    near: tuple[Named, ...]
    cleaners: tuple[Cleaner, ...]
    nuts: tuple[Named, ...]
    said: StuckFacts
    about: Stuck | None


def fasteners(text: str) -> FastenerView:
    """Read one typed line."""
    try:
        line = read_fasteners(text)
    except Refused as refusal:
        return FastenerView(ok=False, words=refusal.message)
    return FastenerView(ok=True, words=fastener_words(line), line=line)


def takedown(workshop: Workshop, build: str) -> TakeDownView:
    """What is off."""
    with workshop.held(build) as state:
        return takedown_view(state, workshop.now())


def rebuild(workshop: Workshop, build: str, choices: Choices) -> RebuildView:
    """The order back with these choices; nothing is written."""
    with workshop.held(build) as state:
        return rebuild_view(state, choices)


def take_rebuild(
    workshop: Workshop, build: str, choices: Choices, *, who: str, entry_id: str
) -> RebuildView:
    """Take the order over as the plan for Build up and Fit in: one plan edit.

    Raises
    ------
    Refused
        As `rebuild_changes`.
    """
    with workshop.held(build) as state:
        if entry_id not in state.entries:
            changes = rebuild_changes(state, choices)
            put_in = sum(change.op == "step_in" for change in changes)
            plan = state.whole
            assert plan is not None
            body = b.PlanEdited(
                what=f"order of rebuilding taken over: {put_in} steps put in", changes=changes
            )
            workshop.write(
                build,
                state,
                workshop.draft(build, body, who, entry_id=entry_id),
                also=with_plan(build, apply(plan, changes)),
            )
        return rebuild_view(state, Choices())


def support(workshop: Workshop, build: str) -> SupportDesk:
    """What carries the load, and what to make safe."""
    standing = vehicles(workshop)[vehicle_name(workshop, build)]
    with workshop.held(build) as state:
        said = state.each(Surroundings, "surroundings")
        return SupportDesk(
            map=support_view(state),
            secure=secure_view(state, workshop.now()),
            vehicle=standing,
            head=state.head,
            spoken=spoken_notes(state),
            around=said[-1].body.around if said else (),
            conditions=tuple(Named(id=c.id, name=c.name) for c in state.lore.around),
        )


def stuck(workshop: Workshop, build: str, step: str, part: str, facts: StuckFacts) -> StuckDesk:
    """The ladder for a stuck part at a step, with how long ago each try was."""
    now = workshop.clock()
    with workshop.held(build) as state:
        found = plan_of(state).find_step(step)
        if found is None:
            raise NotFound("step", step)
        return StuckDesk(
            rungs=ladder_of(state, found, part, facts, now),
            near=tuple(Named(id=i, name=n) for i, n in NEAR.items()),
            cleaners=CLEANERS,
            nuts=tuple(Named(id=i, name=n) for i, n in NUTS.items()),
            said=said_of(state, found, part, now),
            about=found.stuck,
        )
