"""What is told of a run by one key each: which words there are, and which of them stop it."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.faults import FaultCause, Rhythm

__all__ = ["NAMES", "STOPS", "WORDS", "About", "causes_of"]

About = Literal["idle", "response", "noise", "smoke", "glow", "blow"]
NAMES: dict[About, str] = {
    "idle": "Idle",
    "response": "Answers the throttle",
    "noise": "Noise",
    "smoke": "Smoke",
    "glow": "Pipes",
    "blow": "Exhaust joints",
}
"""The rows of the run sheet that somebody tells, as they are called."""
SMOKES: dict[str, tuple[str, ...]] = {
    "white, gone at once": ("steam",),
    "white, stays": ("coolant", "auto_fluid", "diesel_white"),
    "blue at the start": ("start_oil",),
    "blue on throttle": ("pull_oil",),
    "blue after overrun": ("overrun_oil",),
    "black": ("rich",),
    "grey, off the pipe itself": ("burn_off",),
    "grey, goes on at one place": ("drip_on",),
    "from a wire or a switch": ("wire",),
}
"""Each look of smoke with the causes that it may have, by the tree of smoke."""
WORDS: dict[About, tuple[str, ...]] = {
    "idle": ("steady", "hunts", "too high", "dies"),
    "response": ("at once", "hangs", "spits back", "pings"),
    "noise": ("none", "heard"),
    "smoke": ("none", *SMOKES),
    "glow": ("none", "dull", "cherry"),
    "blow": ("none", "puffs at a joint"),
}
STOPS: frozenset[tuple[About, str]] = frozenset((("glow", "cherry"),))
"""What stops a run by its word alone."""


def causes_of(
    causes: Sequence[FaultCause], about: About, word: str, rhythm: Rhythm | None, place: str
) -> tuple[FaultCause, ...]:
    """What it usually is: of smoke by its look; of a noise by its rhythm, and by its place where
    one of that rhythm is known there.
    """
    if about == "smoke":
        return tuple(cause for cause in causes if cause.id in SMOKES.get(word, ()))
    if about != "noise" or rhythm is None:
        return ()
    alike = tuple(cause for cause in causes if cause.rhythm == rhythm)
    return tuple(cause for cause in alike if cause.place == place) or alike
