"""While a unit hangs: the lines that nobody reaches once it sits on its mounts, which way each is
led, and how it is told from the one that it looks like.
"""

from collections.abc import Iterator

from hollet.core.book.passing import Obstacle, reason_keys
from hollet.core.book.ties import TieRow, ties
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.procedure.sheet import Step
from hollet.core.steps.halfway import Half, half_at
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["Hanging", "hanging_at", "not_connected"]


class Hanging(View):
    """Between the move and the mounts: what is reached only now, what is off first. `seat` is the
    step after which nobody reaches it, `half` what holds it half in; None where nobody said.
    """

    title: str
    seat: str
    half: Half | None
    rows: tuple[TieRow, ...]


def hanging_at(state: BookState, step: Step) -> Hanging | None:
    """What is reached only while the unit of this step hangs; None where nothing hangs here, or
    where no line is known to be reached only then.
    """
    steps = plan_of(state).step
    here = steps.index(step)
    mover = next((k for k in range(here, -1, -1) if _goes_in(steps[k])), None)
    if mover is None:
        return None
    seat = next((k for k in range(mover, len(steps)) if _seats(steps[k])), None)
    if seat is None or seat < here or status_of(state, steps[seat]).status in SETTLED:
        return None
    between = {s.id for s in steps[mover:seat]}
    rows = [
        row for row in ties(state) if row.state != "proven" and (row.hangs or row.at_id in between)
    ]
    rows.sort(key=lambda row: row.state != "off")
    if not rows:
        return None
    off = sum(row.state == "off" for row in rows)
    title = f"Only while it hangs: {off} of {counted(len(rows), 'line')} still off"
    return Hanging(
        title=title,
        seat=f"{steps[seat].number} {steps[seat].title}",
        half=half_at(state, steps[mover]),
        rows=tuple(rows),
    )


def not_connected(state: BookState, step: Step) -> Iterator[Obstacle]:
    """Lines told to be reached only while it hangs, and still off as the mounts take the unit."""
    if not _seats(step):
        return
    for row in ties(state):
        if row.hangs and row.state == "off":
            words = f"{row.what} is off, and nobody reaches it once the unit sits: {row.words}"
            yield Obstacle(
                code="hanging", words=words, by="reason", keys=reason_keys("access closes")
            )


def _goes_in(step: Step) -> bool:
    return step.moves is not None and step.stage == "fit_in"


def _seats(step: Step) -> bool:
    """Whether the mounts take the unit over with this step."""
    return step.stage == "fit_in" and any(carry.by == "mounts" for carry in step.carries)
