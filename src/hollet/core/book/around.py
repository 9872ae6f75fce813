"""Surroundings: wind, dust, cold, damp, darkness, noise, and what each means for the
step in hand.
"""

from hollet.core.entries import Around, BookState, Surroundings
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["AROUND", "AroundWords", "around_now", "around_words"]

AROUND: dict[Around, str] = {
    "wind": "wind",
    "dust": "dust or grit",
    "cold": "cold",
    "damp": "damp",
    "dark": "dark",
    "noise": "noise",
}
MEANS: dict[Around, dict[str, str]] = {
    "wind": {
        "lift": "a hanging load swings: do not lift",
        "fill": "dust blows into the funnel: cover it",
        "*": "panels and bonnets slam: tie them",
    },
    "dust": {
        "open": "openings are bare: cover them first",
        "fit": "wipe each face again just before it closes",
        "measure": "grit under an anvil reads as size: wipe and repeat",
        "*": "keep what is clean under a cloth",
    },
    "cold": {
        "wait": "sealant, glue and paint take longer: keep to the maker's lowest temperature",
        "measure": "parts and tool must have the same temperature: let them lie together",
        "fill": "oil runs slowly: wait before reading the level",
        "*": "numb hands drop things: gloves off only for the fine work",
    },
    "damp": {
        "measure": "wipe moisture off before reading",
        "fit": "machined faces rust overnight: oil what stays open",
        "wait": "paint and sealant skin badly in damp air",
        "open": "water condenses in an open engine: cover it",
        "*": "dry the switch of every lamp and tool",
    },
    "dark": {
        "remove": "photo with the lamp before anything is parted: nobody remembers the dark side",
        "tighten": "mark each bolt as it is done, you will not see it again",
        "lift": "nobody is seen in the dark: light the watch points or do not move",
        "*": "second lamp from the other side",
    },
    "noise": {
        "tighten": "a click is not heard: feel it or look at the scale, and mark each bolt",
        "lift": "calls are not heard: agree on hand signs first",
        "run": "a knock is not heard: watch the gauges, and stop at the first doubt",
        "*": "look up before moving: nobody hears you",
    },
}


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


def around_words(around: tuple[Around, ...], step: Step, openings: bool) -> tuple[AroundWords, ...]:
    """What the surroundings mean for a step; `openings`: something stands open and bare."""
    traits = _traits(step, openings)
    return tuple(
        AroundWords(
            id=name,
            name=AROUND[name],
            words=next((MEANS[name][t] for t in traits if t in MEANS[name]), MEANS[name]["*"]),
        )
        for name in around
    )
