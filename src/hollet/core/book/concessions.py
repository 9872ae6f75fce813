"""What was accepted in writing, and whether the owner of the vehicle agreed where it is somebody
else's.
"""

from hollet.core.book.needs import needs
from hollet.core.entries import (
    BookState,
    Concession,
    OwnerSaid,
    PartDecided,
    PartTaken,
)
from hollet.core.entries.status import plan_of
from hollet.core.steps.inspection import inspection_facts
from hollet.core.steps.results import results_of
from hollet.core.view import View

__all__ = ["ConcessionFacts", "concessions", "owner_of", "without_word"]


class ConcessionFacts(View):
    """One thing accepted in writing: its line, what, at which step; `word` is the owner's."""

    entry: str
    what: str
    step: str | None
    by: str
    word: str | None


def owner_of(state: BookState) -> str | None:
    """Whose vehicle it is, once the standard promised to somebody was written."""
    said = [e for e in state.all(OwnerSaid) if e.body.sort == "standard"]
    return said[-1].body.name if said else None


def concessions(state: BookState) -> tuple[ConcessionFacts, ...]:
    """All that stands in writing now: figures, parts used again, parts taken."""
    words = {e.body.about: e for e in state.all(OwnerSaid) if e.body.sort == "concession"}
    found = []
    for entry, what, step, by in (*_results(state), *_decided(state), *_taken(state)):
        word = words.get(entry)
        said = f"{word.body.name} {word.body.how}: {word.body.what}" if word is not None else None
        found.append(ConcessionFacts(entry=entry, what=what, step=step, by=by, word=said))
    return tuple(found)


Found = tuple[str, str, str | None, str]


def _results(state: BookState) -> list[Found]:
    found: list[Found] = []
    for step in plan_of(state).step:
        for result in results_of(state, step):
            said = state.newest(Concession, "result", f"{step.id}/{result.id}")
            if result.conceded and said is not None:
                judged = result.judgement
                what = f"{result.name} {judged.value_text} {judged.unit}: {judged.words}"
                found.append((said.id, what, step.id, said.body.name))
    return found


def _decided(state: BookState) -> list[Found]:
    found: list[Found] = []
    for step in plan_of(state).step:
        looked = step.as_inspection()
        for part in inspection_facts(state, looked).parts if looked is not None else ():
            said = [e for e in state.all(PartDecided) if e.body.part == part.id]
            if part.conceded and said:
                body = said[-1].body
                found.append((said[-1].id, f"{part.name}: {body.reason}", step.id, body.name or ""))
    return found


def _taken(state: BookState) -> list[Found]:
    found: list[Found] = []
    for need in needs(state):
        said = [e for e in state.each(PartTaken, "need", need.id) if e.body.how == "in_writing"]
        if need.in_writing and said:
            first = need.reasons[0].step if need.reasons else None
            found.append((said[-1].id, f"{need.name}: {need.in_writing}", first, said[-1].who))
    return found


def without_word(state: BookState) -> tuple[ConcessionFacts, ...]:
    """Concessions on somebody else's vehicle that its owner has not agreed to."""
    owner = owner_of(state)
    return tuple(c for c in concessions(state) if c.word is None) if owner is not None else ()
