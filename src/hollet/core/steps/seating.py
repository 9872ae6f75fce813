"""Whether the nuts of a wheel belong to it."""

from hollet.core.entries import BookState, SeatingSaid
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.words import SEATINGS

__all__ = ["misfit", "seating_of"]


def seating_of(state: BookState, joint: Joint) -> SeatingSaid | None:
    """What was said last."""
    said = state.newest(SeatingSaid, "joint", joint.id)
    return said.body if said is not None else None


def misfit(state: BookState, joint: Joint) -> str | None:
    """Why nut, wheel and centring do not belong together, as somebody said they are; None where
    they do, or where nobody looked.
    """
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
