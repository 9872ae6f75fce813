"""The clock of the bench: worked time read from entries alone, pauses, and one's own pace.

Nothing ticks and nothing is started or stopped: the stretch before an entry was spent on its step,
unless it is longer than that step's slow time.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache

from pydantic import computed_field

from hollet.core.entries import BookState, Key, Line, PauseSaid, SearchEnded
from hollet.core.entries.status import plan_of, statuses
from hollet.core.procedure.sheet import Step
from hollet.core.scheduling.pace import ODD, Ratios, TimeFactor, time_factor
from hollet.core.view import View

__all__ = [
    "WORK_KINDS",
    "Pace",
    "Pause",
    "kind_of_work",
    "lost_time",
    "pace_of",
    "pauses",
    "range_of",
    "ratios_of",
    "worked",
    "worked_since",
]

WORK_KINDS = ("clean", "measure", "machine", "take down", "assemble", "tighten")
NIGHT_MIN = 300.0
"""A gap longer than five hours is a night or a day off, and never asked about."""
SLOW_MIN = 60.0
"""Slow time of a step whose hours nobody gave."""
SHORT_MIN = 5.0
"""A gap shorter than five minutes is work, whatever the step."""


class Pause(View):
    """A gap longer than the slow time of its step: between which two lines, how long (min), and
    what it was, where somebody said so.
    """

    before: str
    after: str
    start: str
    end: str
    minutes: float
    step: str
    number: str
    cause: str | None

    @computed_field
    @property
    def asked(self) -> bool:
        """Whether nobody has said yet what it was."""
        return self.cause is None


class Pace(View):
    """Own time over book time of one kind of work: the factor, its range for the next job (8 in
    10), from how many jobs; what was left out because it was hardly measured.
    """

    kind: str
    factor: float
    lo: float
    hi: float
    jobs: int
    ratios: tuple[float, ...]
    odd: int
    working: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Stretch:
    """What lies before one entry of a step: the minutes, and the entry before it."""

    step: Step
    before: Line
    entry: Line
    minutes: float


def kind_of_work(step: Step) -> str:
    """The kind of work that a step is, for its pace.

    What is taken down, measured or tightened says so by its kind; cleaning and drying stand in the
    stage Prepare; the rest is assembling.
    """
    if step.tightens():
        return "tighten"
    if step.takes_off or step.stage == "take_down":
        return "take down"
    if step.readings() or step.looked_at:
        return "measure"
    return "clean" if step.stage == "prepare" else "assemble"


def book_minutes(step: Step) -> tuple[float, float] | None:
    """The hours of the sheet in minutes, quick and slow."""
    return (step.hours[0] * 60, step.hours[1] * 60) if step.hours is not None else None


def _moment(time: str) -> datetime:
    return datetime.fromisoformat(time)


def _stretches(state: BookState, step: Step) -> tuple[_Stretch, ...]:
    """The stretches before the entries of a step; remembered until something is written at it, or
    anything is struck.
    """
    made_of = (state.seen.get(Key("step", step.id), 0), len(state.struck))
    return state.remembered(
        ("stretches", step.id), made_of, lambda: tuple(_stretches_of(state, step))
    )


def _stretches_of(state: BookState, step: Step) -> Iterator[_Stretch]:
    for entry in state.of_step(step.id):
        before = _before(state, entry)
        if before is not None and entry.body.clocked:
            minutes = (_moment(entry.time) - _moment(before.time)).total_seconds() / 60
            yield _Stretch(step, before, entry, max(0.0, minutes))


def _before(state: BookState, entry: Line) -> Line | None:
    """The line before an entry at which a hand was at work: lines are numbered from 1 without a
    gap.
    """
    for k in range(entry.seq - 2, -1, -1):
        found = state.entries[state.order[k]]
        if found.id not in state.struck and found.body.clocked:
            return found
    return None


def slow_minutes(step: Step, paces: Mapping[str, Pace] | None = None) -> float:
    """How long a step may take at a slow pace before a gap is a pause."""
    book = book_minutes(step)
    if book is None:
        return SLOW_MIN
    pace = (paces or {}).get(kind_of_work(step)) or first_pace(kind_of_work(step))
    return max(SHORT_MIN, book[1] * pace.hi)


def pauses(state: BookState, step: Step) -> tuple[Pause, ...]:
    """The gaps at a step that are no work by themselves, in order, not those over a night."""
    found = []
    for stretch in _stretches(state, step):
        if not slow_minutes(step) < stretch.minutes <= NIGHT_MIN:
            continue
        said = state.newest(PauseSaid, "log", f"pause:{stretch.entry.id}")
        found.append(
            Pause(
                before=stretch.before.id,
                after=stretch.entry.id,
                start=stretch.before.time,
                end=stretch.entry.time,
                minutes=stretch.minutes,
                step=step.id,
                number=step.number,
                cause=said.body.cause if said is not None else None,
            )
        )
    return tuple(found)


def worked(state: BookState, step: Step) -> float:
    """Minutes worked on a step: stretches up to its slow time, and pauses said to be work."""
    slow, work = slow_minutes(step), {p.after for p in pauses(state, step) if p.cause == "work"}
    return sum(
        stretch.minutes
        for stretch in _stretches(state, step)
        if stretch.minutes <= slow or stretch.entry.id in work
    )


def worked_since(state: BookState, moment: str) -> float:
    """Minutes worked since a moment (ISO 8601 with offset), over all steps."""
    since, plan, total = _moment(moment), plan_of(state), 0.0
    for entry in state.since(0):
        if _moment(entry.time) < since:
            break
        step = plan.find_step(entry.body.at())
        before = (
            _before(state, entry) if entry.body.clocked and entry.id not in state.struck else None
        )
        if step is None or before is None or _moment(before.time) < since:
            continue
        minutes = (_moment(entry.time) - _moment(before.time)).total_seconds() / 60
        total += minutes if 0 < minutes <= slow_minutes(step) else 0.0
    return total


def lost_time(state: BookState) -> dict[str, float]:
    """Minutes by cause: pauses of which somebody said what they were, and searches."""
    found: dict[str, float] = {}
    for search in state.all(SearchEnded):
        found["search"] = found.get("search", 0.0) + search.body.minutes
    for entry in state.all(PauseSaid):
        found[entry.body.cause] = found.get(entry.body.cause, 0.0) + entry.body.minutes
    return found


def ratios_of(state: BookState) -> dict[str, list[float]]:
    """Own time over the middle of the book's, by kind of work, of the steps that are done."""
    found: dict[str, list[float]] = {}
    known = statuses(state)
    for step in plan_of(state).step:
        book = book_minutes(step)
        if book is None or known[step.id].status != "done":
            continue
        minutes = worked(state, step)
        if minutes > 0:
            found.setdefault(kind_of_work(step), []).append(minutes * 2 / (book[0] + book[1]))
    return found


@lru_cache(maxsize=16)
def first_pace(kind: str) -> Pace:
    """What others need, while no own job of this kind is finished."""
    return pace_of(kind, ())


def pace_of(kind: str, ratios: tuple[float, ...]) -> Pace:
    """The pace of one kind of work from the ratios of finished jobs; those that were hardly
    measured (above 10, below 0.2) are counted and left out.
    """
    kept = tuple(ratio for ratio in ratios if ODD[0] <= ratio <= ODD[1])
    found = time_factor(TimeFactor(ratios=Ratios(value=kept)))
    return Pace(
        kind=kind,
        factor=found.factor,
        lo=found.lo,
        hi=found.hi,
        jobs=len(kept),
        ratios=kept,
        odd=len(ratios) - len(kept),
        working=found.working,
    )


def range_of(step: Step, pace: Pace) -> tuple[int, int, int] | None:
    """Quick, middle and slow minutes of a step at a pace, rounded outward: to 5 min below half an
    hour, else to 15; None where the sheet gives no hours.
    """
    book = book_minutes(step)
    if book is None:
        return None
    middle = (book[0] + book[1]) / 2
    quick, slow = middle * pace.lo, middle * pace.hi
    return _down(quick), max(1, round(middle * pace.factor)), _up(slow)


def _grid(minutes: float) -> int:
    return 5 if minutes < 30 else 15


def _down(minutes: float) -> int:
    grid = _grid(minutes)
    return max(5, int(minutes // grid) * grid)


def _up(minutes: float) -> int:
    grid = _grid(minutes)
    return int(-(-minutes // grid) * grid)
