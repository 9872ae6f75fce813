"""Surroundings: wind, dust, cold, damp, darkness, noise, and what each means for the
step in hand.
"""

from hollet.core.entries import BookState, Surroundings
from hollet.core.lore import Around, Lore
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["AroundWords", "around_now", "around_words"]


class AroundWords(View):
    """One condition, and what it means here."""

    id: Around
    name: str
    words: str


def around_now(state: BookState) -> tuple[Around, ...]:
    """What was said last of the surroundings."""
    said = state.each(Surroundings, "surroundings")
    return said[-1].body.around if said else ()


def _traits(step: Step, openings: bool) -> tuple[str, ...]:
    return (*(("lift",) if step.lifts else ()), *(("open",) if openings else ()), step.kind)


def around_words(
    lore: Lore, around: tuple[Around, ...], step: Step, openings: bool
) -> tuple[AroundWords, ...]:
    """What the surroundings mean for a step; `openings`: something stands open and bare."""
    traits = _traits(step, openings)
    known = {condition.id: condition for condition in lore.around}
    return tuple(
        AroundWords(id=name, name=known[name].name, words=known[name].words(traits))
        for name in around
    )
