"""Bolts that were pulled with a wrench found wrong since."""

from collections.abc import Sequence

from hollet.core.entries import BookState
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import Joint
from hollet.core.steps.proof import in_doubt
from hollet.core.steps.tighten import acts_since_out

__all__ = ["doubted_bolts"]


def doubted_bolts(state: BookState, joint: Joint, tools: Sequence[Instrument]) -> dict[int, str]:
    """Bolts that stand as a wrench in doubt left them, by number, with what is wrong with the
    wrench.
    """
    stands: dict[int, dict[int, str | None]] = {}
    for entry in acts_since_out(state, joint)[1]:
        body = entry.body
        if body.stage:
            stands.setdefault(body.bolt, {})[body.stage] = in_doubt(entry, body.wrench, tools)
        elif body.act not in ("marked", "locked"):
            stands.pop(body.bolt, None)
    faults = {bolt: next(filter(None, by.values()), None) for bolt, by in stands.items()}
    return {bolt: words for bolt, words in faults.items() if words}
