"""How the bolts of a joint are confirmed, and whether a click can be heard at all."""

from datetime import datetime
from itertools import takewhile
from typing import NamedTuple

from hollet.core.entries import BookState, SignSaid, Surroundings
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.words import Sign

__all__ = ["UNHEARD", "JointSign", "sign_of"]

UNHEARD = (
    "it is loud here, a click may not be heard. Say how it is known: read on the scale, seen by a "
    "second person, or by feel"
)


class JointSign(NamedTuple):
    """How it is known; `unheard`: noise was said of the surroundings, and nobody has said another
    sign since.
    """

    sign: Sign
    words: str
    unheard: bool


def sign_of(state: BookState, joint: Joint, told: str = "") -> JointSign:
    """What was said last of a joint; a click that is heard, where nothing was. A click that was
    `told` (ISO 8601) before the noise began was heard.
    """
    said = state.newest(SignSaid, "joint", joint.id)
    around = state.each(Surroundings, "surroundings")
    noise = list(takewhile(lambda e: "noise" in e.body.around, reversed(around)))
    began = noise[-1] if noise else None
    sign: Sign = "heard" if said is None else said.body.sign
    words = said.body.words if said is not None else ""
    if began is None or (told and _at(told) < _at(began.bench_time)):
        return JointSign(sign, words, unheard=False)
    return JointSign(sign, words, unheard=sign == "heard" or said is None or said.seq < began.seq)


def _at(text: str) -> datetime:
    return datetime.fromisoformat(text)
