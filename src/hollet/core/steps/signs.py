"""How the bolts of a joint are confirmed, and whether a click can be heard at all."""

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
    """How it is known; `loud`: noise was said of the surroundings, and `unheard`: nobody has said
    another sign since.
    """

    sign: Sign
    words: str
    loud: bool
    unheard: bool


def sign_of(state: BookState, joint: Joint) -> JointSign:
    """What was said last of a joint; a click that is heard, where nothing was."""
    said = state.newest(SignSaid, "joint", joint.id)
    around = state.each(Surroundings, "surroundings")
    loud = bool(around) and "noise" in around[-1].body.around
    since = 0
    for entry in reversed(around):
        if "noise" not in entry.body.around:
            break
        since = entry.seq
    heard = said is None or said.body.sign == "heard"
    stale = said is not None and loud and said.seq < since
    sign: Sign = "heard" if said is None else said.body.sign
    return JointSign(sign, said.body.words if said else "", loud, loud and (heard or stale))
