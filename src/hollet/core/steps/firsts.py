"""A result that repeats another after it has run: what that one said, and whether both were read in
one state.
"""

from collections.abc import Sequence

from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.results import ResultSpec
from hollet.core.steps.creeping import other_state, read_since
from hollet.core.steps.readings import latest
from hollet.core.steps.results import ResultFacts, result_of, specs_of
from hollet.core.view import View

__all__ = ["FirstResult", "first_result"]


class FirstResult(View):
    """The first of two results: as it is judged, and whether the later one was read in the same
    state (None while it was not read since).
    """

    facts: ResultFacts
    same: bool | None


def first_result(
    state: BookState, spec: ResultSpec, tools: Sequence[Instrument] = ()
) -> FirstResult | None:
    """What a result repeats; None where it repeats nothing, or where the first was never read."""
    plan = plan_of(state)
    found = next(
        ((step, r) for step in plan.step for r in step.results() if r.id == spec.first), None
    )
    if found is None:
        return None
    facts = result_of(state, *found, tools)
    if facts.judgement.value is None:
        return None
    pairs = [(latest(state, s.first or ""), latest(state, s.id)) for s in specs_of(plan, spec)]
    both = [(a, b) for a, b in pairs if a is not None and b is not None and read_since(a, b)]
    same = all(not other_state(a, b) for a, b in both) if len(both) == len(pairs) else None
    return FirstResult(facts=facts, same=same)
