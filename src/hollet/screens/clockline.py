"""The clock of a bench: minutes worked by its entries against one's own range and the book's, and
the pause of which nobody has said what it was.
"""

from collections.abc import Mapping

from hollet.core.book.dangers import live_dangers
from hollet.core.book.secure import is_stopped
from hollet.core.calendar.clock import Pace, Pause, kind_of_work, pace_of, pauses, range_of, worked
from hollet.core.calendar.laying import minutes_words
from hollet.core.entries import BookState
from hollet.core.entries.told import PAUSE_CAUSES
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["ClockLine", "PaceView", "clock_line", "pace_view"]


class PaceView(View):
    """Own time over book time of one kind of work, as a range that narrows with each job."""

    kind: str
    words: str
    factor: float
    lo: float
    hi: float
    jobs: int
    working: tuple[str, ...]


class ClockLine(View):
    """Worked so far, the own range, the book; `over`: past the slow time; the pause that is asked,
    and by which causes.
    """

    line: str
    minutes: int
    quick: int | None
    slow: int | None
    book: float | None
    over: str
    pause: Pause | None
    pause_words: str
    causes: tuple[str, ...]
    pace: PaceView


def pace_view(pace: Pace) -> PaceView:
    """A pace in words."""
    words = (
        f"{pace.kind}: {pace.lo:.1f} to {pace.hi:.1f} times the book, from {pace.jobs} jobs"
        if pace.jobs
        else f"{pace.kind}: no pace yet, others need {pace.lo:.1f} to {pace.hi:.1f}"
    )
    return PaceView(
        kind=pace.kind,
        words=words,
        factor=round(pace.factor, 1),
        lo=round(pace.lo, 1),
        hi=round(pace.hi, 1),
        jobs=pace.jobs,
        working=pace.working,
    )


def clock_line(state: BookState, step: Step, paces: Mapping[str, Pace]) -> ClockLine:
    """The clock of one step; nothing is asked while something hangs, is dangerous or stopped."""
    pace = paces.get(kind_of_work(step)) or pace_of(kind_of_work(step), ())
    minutes = round(worked(state, step))
    own = range_of(step, pace)
    book = (step.hours[0] + step.hours[1]) * 30 if step.hours is not None else None
    quiet = is_stopped(state) or bool(live_dangers(state))
    asked = [p for p in pauses(state, step) if p.asked]
    pause = asked[-1] if asked and not quiet else None
    over = ""
    if own is not None and minutes > own[2]:
        over = f"{minutes_words(minutes - own[2])} over your slow time: what holds it?"
    said = [minutes_words(minutes)] if minutes else ["not begun"]
    if own is not None:
        said.append(f"yours {own[0]} to {own[2]}")
    if book is not None:
        said.append(f"book {round(book)}")
    return ClockLine(
        line=", ".join(said),
        minutes=minutes,
        quick=own[0] if own else None,
        slow=own[2] if own else None,
        book=book,
        over=over,
        pause=pause,
        pause_words=f"{round(pause.minutes)} min with nothing written: what was it?"
        if pause
        else "",
        causes=PAUSE_CAUSES,
        pace=pace_view(pace),
    )
