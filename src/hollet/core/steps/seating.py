"""Whether what is drawn together belongs together: nut and wheel, bolt and thread."""

from hollet.core.entries import BookState, SeatingSaid, ThreadsSaid
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.words import SEATINGS

__all__ = ["UNFIT", "misfit", "seating_of", "threads_of"]


def seating_of(state: BookState, joint: Joint) -> SeatingSaid | None:
    """What was said last."""
    said = state.newest(SeatingSaid, "joint", joint.id)
    return said.body if said is not None else None


def threads_of(state: BookState, joint: Joint) -> dict[int | None, ThreadsSaid]:
    """What was said last of the threads of a joint, and of single holes."""
    return {e.body.bolt: e.body for e in state.each(ThreadsSaid, "joint", joint.id)}


UNFIT = {
    "wet": "oil or water stands in a blind hole. The bolt locks on it, and the part cracks: blown "
    "out and dry first",
    "damaged": "its thread is pulled, or sticks. It is chased, or gets an insert, before it is "
    "drawn",
}
"""Threads that no bolt is drawn in."""


def misfit(state: BookState, joint: Joint) -> str | None:
    """Why what is drawn together does not belong together, as somebody said; None where it does, or
    where nobody looked.
    """
    return _threads_unfit(state, joint) or _nuts_unfit(state, joint)


def _threads_unfit(state: BookState, joint: Joint) -> str | None:
    said = threads_of(state, joint)
    whole = said.pop(None, None)
    bad = sorted(bolt for bolt, of in said.items() if of.threads in UNFIT and bolt is not None)
    if bad:
        return f"{joint.name}, hole {bad[0]}: {UNFIT[said[bad[0]].threads]}"
    if whole is not None and whole.threads in UNFIT:
        return f"{joint.name}: {UNFIT[whole.threads]}"
    return None


def _nuts_unfit(state: BookState, joint: Joint) -> str | None:
    said = seating_of(state, joint)
    if said is None:
        return None
    if said.nut != said.wheel:
        return (
            f"{joint.name}: {SEATINGS[said.nut]}, on a wheel made for {SEATINGS[said.wheel]}. They "
            "touch on an edge and come loose: the nuts of this wheel go on"
        )
    if said.centred == "nuts" and said.nut == "flat":
        return (
            f"{joint.name}: flat nuts centre nothing. A hub or a ring that fits centres this "
            "wheel, or it has other nuts"
        )
    return None
