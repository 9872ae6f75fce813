"""Like parts that are matched: a result speaks of the part that was taken for it, and of no part at
all until one was.
"""

from collections.abc import Sequence

from hollet.core.entries import BookState, Entry, PairsTaken
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.results import ResultSpec

__all__ = ["not_paired", "paired", "pairs_taken"]


def pairs_taken(state: BookState, step: str) -> Entry[PairsTaken] | None:
    """The pairs as they were taken last."""
    return state.newest(PairsTaken, "step", step)


def paired(state: BookState, step: BaseStep, spec: ResultSpec) -> ResultSpec:
    """The result with the part that was taken for it."""
    pairs, taken = step.matched(), pairs_taken(state, step.id)
    if pairs is None or taken is None:
        return spec
    pair = next((pair for pair in taken.body.pairs if pair.result == spec.id), None)
    return spec.with_inner(pair.inner) if pair is not None else spec


def not_paired(
    state: BookState, step: BaseStep, result: str, readings: Sequence[str]
) -> str | None:
    """What holds the result of a pair: nobody has said which part goes where, or one of both was
    read anew since.
    """
    pairs = step.matched()
    if pairs is None or result not in pairs.results:
        return None
    taken = pairs_taken(state, step.id)
    if taken is None:
        return f"not judged: nobody has said which {pairs.inner} goes into which {pairs.outer}"
    pair = next(pair for pair in taken.body.pairs if pair.result == result)
    if pair.readings == tuple(readings):
        return None
    return f"read anew since it was matched: say again which {pairs.inner} goes where"
