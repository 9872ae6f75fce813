"""Linked points: a bad joint shows at every point behind it, and what was cleaned is read again at
all of them.

Auto-electric practice: the joint to clean lies where the path turns bad; after cleaning, every
point whose path runs through it is another path.
"""

from collections.abc import Mapping, Sequence

from hollet.core.entries import BookState, Disposition, Entry, Key, Reading
from hollet.core.limits import Judgement
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.linked import path_of
from hollet.core.procedure.results import ResultSpec

__all__ = ["cleaned_since", "links_told", "seen_through"]


def seen_through(step: BaseStep, spec: ResultSpec) -> tuple[Key, ...]:
    """What else a result depends on: what was decided about the paths that it goes through."""
    return tuple(Key("result", f"{step.id}/{up.id}") for up in path_of(step.results(), spec))


def cleaned_since(
    state: BookState, step: BaseStep, spec: ResultSpec, taken: Mapping[str, Entry[Reading]]
) -> str | None:
    """Why a reading proves nothing now: a joint that its path runs through was reworked or renewed
    after it was read.
    """
    oldest = min(entry.seq for entry in taken.values())
    for up in path_of(step.results(), spec):
        decided = state.newest(Disposition, "result", f"{step.id}/{up.id}")
        if decided is not None and decided.seq > oldest and decided.body.choice != "measure_again":
            return f"its path runs through {up.name}, which was reworked since: read it again"
    return None


def links_told(
    results: Sequence[ResultSpec], spec: ResultSpec, verdicts: Mapping[str, Judgement]
) -> str | None:
    """What an outside points to: the joint where the path turns bad, or what the sheet asks for
    before it is believed; None where it is not outside, or where nothing is known about it.
    """
    if verdicts[spec.id].verdict != "outside":
        return None
    path = path_of(results, spec)
    bad = [up for up in path if verdicts[up.id].verdict == "outside"]
    if bad:
        return (
            f"{spec.name} goes through {bad[-1].name}, which is outside itself: put that right "
            "first, then read both again"
        )
    if path and verdicts[path[0].id].verdict == "inside":
        return f"what is bad lies between {path[0].name} and {spec.name}: {path[0].name} is inside"
    return spec.if_outside
