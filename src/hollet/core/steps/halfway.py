"""A unit that is stopped short on purpose, and held, so that hands may go in between."""

from hollet.core.entries import BookState, Entry, HalfSaid, UnitMoved
from hollet.core.procedure.kinds import BaseStep
from hollet.core.view import View

__all__ = ["Half", "half_at", "half_in"]


class Half(View):
    """What for, what holds it, who said so, and when."""

    why: str
    held: str
    who: str
    since: str


def half_in(state: BookState, step: BaseStep) -> Entry[HalfSaid] | None:
    """Where it stands half in since; None once it moved again, whoever watches then."""
    said = state.newest(HalfSaid, "moving", step.id)
    moved = state.newest(UnitMoved, "moving", step.id)
    if said is None or (moved is not None and moved.seq > said.seq):
        return None
    return said


def half_at(state: BookState, step: BaseStep) -> Half | None:
    """The same, as it is shown."""
    said = half_in(state, step)
    if said is None:
        return None
    return Half(why=said.body.why, held=said.body.held, who=said.who, since=said.time)
