"""What is empty: a fluid drained is empty until it is filled, or until somebody says why it stays
so.
"""

from hollet.core.entries import BookState, Decision
from hollet.core.entries.status import last_word, plan_of, status_of
from hollet.core.procedure.closings import fills_of
from hollet.core.procedure.pieces import Fluid
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["EMPTY_BLOCKS", "Empty", "empty_fluids"]

EMPTY_BLOCKS = {
    "oil": "crank",
    "coolant": "fire",
    "gear": "fire",
    "axle": "gear",
    "automatic": "crank",
    "brake": "gear",
    "clutch": "gear",
    "fuel": "fuel_on",
}
"""The first rung that a fluid's emptiness shuts; a fluid of which nobody said the kind shuts as oil
does.
"""


class Empty(View):
    """One fluid that is drained and not filled: since when, by whom, which step drained it and
    which fills it.
    """

    fluid: str
    name: str
    kind: str | None
    blocks: str
    since: str
    who: str
    drained_at: str
    filled_at: str | None


def empty_fluids(state: BookState) -> tuple[Empty, ...]:
    """The fluids that are empty now."""
    return tuple(
        found for fluid in plan_of(state).fluid if (found := _empty(state, fluid)) is not None
    )


def _done_seq(state: BookState, step: Step) -> int:
    last = last_word(state, step.id)
    return last.seq if last is not None and status_of(state, step).status == "done" else 0


def _empty(state: BookState, fluid: Fluid) -> Empty | None:
    plan = plan_of(state)
    drains = max(
        (s for s in plan.step if fluid.id in s.drains),
        key=lambda s: _done_seq(state, s),
        default=None,
    )
    drained = _done_seq(state, drains) if drains is not None else 0
    fills = fills_of(plan, fluid)
    if drains is None or not drained or any(_done_seq(state, s) > drained for s in fills):
        return None
    stays = any(
        e.body.about == "empty" and e.body.thing == fluid.id and e.seq > drained
        for e in state.each(Decision, "step", drains.id)
    )
    if stays:
        return None
    entry = last_word(state, drains.id)
    assert entry is not None
    return Empty(
        fluid=fluid.id,
        name=fluid.name,
        kind=fluid.kind,
        blocks=EMPTY_BLOCKS.get(fluid.kind or "oil", "crank"),
        since=entry.time,
        who=entry.who,
        drained_at=drains.id,
        filled_at=fills[0].id if fills else None,
    )
