"""Complaints with the trial that answers them, and snags by the next place."""

from hollet.core.entries import (
    BookState,
    ComplaintSaid,
    SnagCleared,
    SnagSaid,
    TrialDriven,
)
from hollet.core.view import View

__all__ = ["ComplaintFacts", "SnagFacts", "complaints_of", "snags_of"]


class ComplaintFacts(View):
    """One complaint, its conditions, each trial since, and whether the same trial found it gone."""

    id: str
    words: str
    conditions: tuple[str, ...]
    since: str
    who: str
    trials: tuple[str, ...]
    answered: bool
    waits: str


class SnagFacts(View):
    """One snag that is left: what, and for which places it matters."""

    id: str
    what: str
    matters: tuple[str, ...]
    who: str
    since: str


def complaints_of(state: BookState) -> tuple[ComplaintFacts, ...]:
    """Every complaint, those not answered first. Only the newest trial counts, and only where it
    was the same: under all the conditions of the complaint.
    """
    found = []
    for name, _ in state.names("complaint"):
        said = state.newest(ComplaintSaid, "complaint", name)
        if said is None:
            continue
        trials = [t for t in state.each(TrialDriven, "complaint", name) if t.seq > said.seq]
        last = trials[-1].body if trials else None
        answered = last is not None and last.same and last.found == "gone"
        found.append(
            ComplaintFacts(
                id=name,
                words=said.body.words,
                conditions=said.body.conditions(),
                since=said.time,
                who=said.who,
                trials=tuple(f"{t.time[:10]} {t.who}: {t.body.line('')}" for t in trials),
                answered=answered,
                waits="" if answered else _waits(last, said.body.conditions()),
            )
        )
    return tuple(sorted(found, key=lambda c: c.answered))


def _waits(last: TrialDriven | None, conditions: tuple[str, ...]) -> str:
    when = ", ".join(conditions) or "as it was"
    if last is None:
        return f"the same trial: {when}"
    if not last.same:
        return f"that was another trial: {when}"
    return f"it is {last.found}: the same trial once more, {when}"


def snags_of(state: BookState) -> tuple[SnagFacts, ...]:
    """The snags that are left, the oldest first."""
    found = []
    for name, _ in state.names("snag"):
        said = state.newest(SnagSaid, "snag", name)
        cleared = state.newest(SnagCleared, "snag", name)
        if said is None or (cleared is not None and cleared.seq > said.seq):
            continue
        body = said.body
        found.append(
            SnagFacts(id=name, what=body.what, matters=body.matters, who=said.who, since=said.time)
        )
    return tuple(found)
