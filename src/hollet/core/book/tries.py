"""What was tried on stuck parts."""

from datetime import datetime

from hollet.core.entries import BookState, Tried
from hollet.core.procedure.stuck import Try

__all__ = ["tries_of"]


def tries_of(
    state: BookState, step: str, part: str, now: datetime | None = None
) -> tuple[Try, ...]:
    """The tries on a stuck part at a step, oldest first; with how long ago each was, where the
    moment is given.
    """
    tried = state.each(Tried, "step", step)
    return tuple(
        Try(
            rung=entry.body.rung,
            minutes=entry.body.time.figure("time") / 60,
            came=entry.body.came,
            ago_minutes=_ago(entry.time, now) if now is not None else 0.0,
        )
        for entry in tried
        if entry.body.part.casefold() == part.casefold()
    )


def _ago(time: str, now: datetime) -> float:
    return max(0.0, (now - datetime.fromisoformat(time)).total_seconds() / 60)
