"""The calculation `schedule`: the least time in which all is done; hours from the start."""

import math
from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import Quantity, canonical, in_unit
from hollet.core.registry import Input, Result, calculation
from hollet.core.scheduling.laying import Job, Span, circle, fitting, laid_out

__all__ = ["ScheduledTask", "schedule"]

MINUTES = 60.0
DAY_LIMIT_H = 24 * 366.0


class ScheduledTask(BaseModel):
    """One task: how long, what runs on by itself after it, what it waits for, when its part is
    here, whether a helper must be there.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    id: str = Field(min_length=1, max_length=80)
    dur: Quantity
    wait: Quantity | None = None
    after: tuple[str, ...] = ()
    arrives: Quantity | None = None
    helper: bool = False


class Windows(BaseModel):
    """Spans of time, each from and until."""

    model_config = ConfigDict(frozen=True)
    value: tuple[tuple[float, float], ...]
    unit: str


class Schedule(Input):
    """Tasks, the windows of work, and those in which a helper is there."""

    tasks: tuple[ScheduledTask, ...] = Field(min_length=1, max_length=600)
    work_windows: Windows
    helper_windows: Windows


class ScheduleResult(Result):
    """When everything with its waits is over, where each task begins, and whether nothing earlier
    is possible.
    """

    finish: Quantity
    starts: tuple[float, ...]
    proven: bool


def _hours(quantity: Quantity | None, field: str) -> float:
    found = 0.0 if quantity is None else canonical(quantity, "time", field) / 3600
    if not 0 <= found <= DAY_LIMIT_H:
        raise Refused("not_a_finite_number", f"'{field}' must be 0 h to a year", field=field)
    return found


def _spans(windows: Windows, field: str) -> tuple[Span, ...]:
    """In whole minutes, rounded inward: never longer than they are."""
    found = []
    for start, end in windows.value:
        first = canonical(Quantity(value=start, unit=windows.unit), "time", field) / 60
        last = canonical(Quantity(value=end, unit=windows.unit), "time", field) / 60
        if first < 0 or last <= first:
            words = f"'{field}': a window ends after it begins, and none begins before 0"
            raise Refused("bad_input", words, field=field)
        found.append((math.ceil(first - 1e-9), math.floor(last + 1e-9)))
    return tuple(found)


def _shared(work: Sequence[Span], helper: Sequence[Span]) -> tuple[Span, ...]:
    """Where a helper is there while there is work."""
    both = ((max(a, c), min(b, d)) for a, b in work for c, d in helper)
    return tuple(span for span in both if span[0] < span[1])


def _jobs(i: Schedule) -> list[Job]:
    work = _spans(i.work_windows, "work_windows")
    both = _shared(work, _spans(i.helper_windows, "helper_windows"))
    known = {task.id for task in i.tasks}
    if len(known) < len(i.tasks):
        raise Refused("bad_input", "'tasks': each task needs a name of its own", field="tasks")
    waits = {t.id: math.ceil(_hours(t.wait, "wait") * MINUTES - 1e-9) for t in i.tasks}
    jobs = []
    for task in i.tasks:
        lost = next((name for name in task.after if name not in known), None)
        if lost is not None:
            words = f"'{task.id}' waits for '{lost}', and that is no task here"
            raise Refused("bad_input", words, field="tasks")
        takes = math.ceil(_hours(task.dur, "dur") * MINUTES - 1e-9)
        if takes <= 0:
            raise Refused("not_positive", f"'{task.id}' must take some time", field="dur")
        jobs.append(
            Job(
                id=task.id,
                takes=takes,
                spans=both if task.helper else work,
                earliest=math.ceil(_hours(task.arrives, "arrives") * MINUTES - 1e-9),
                after=tuple((name, waits[name]) for name in dict.fromkeys(task.after)),
                wait=waits[task.id],
            )
        )
    return jobs


def _refuse_unfit(i: Schedule, jobs: Sequence[Job]) -> None:
    round_about = circle({job.id: [name for name, _ in job.after] for job in jobs})
    if round_about:
        words = " waits for ".join((*round_about, round_about[0]))
        raise Refused("cycle", f"they wait for each other in a circle: {words}", field="tasks")
    for task, job in zip(i.tasks, jobs, strict=True):
        if fitting(job):
            continue
        if task.helper:
            words = f"'{task.id}' needs a helper, and no helper's window holds its {job.takes} min"
            raise Refused("no_helper_window", words, field="helper_windows")
        words = f"'{task.id}' takes {job.takes} min, and no window that is left is as long"
        raise Refused("no_window_long_enough", words, field="work_windows")


@calculation("Work laid into evenings")
def schedule(i: Schedule) -> ScheduleResult:
    """One mechanic, tasks whole in one window, waits by themselves; the least end of everything, by
    CP-SAT. Refuses `cycle`, `no_helper_window`, `no_window_long_enough`.

    Example
    -------
    >>> hour = lambda value: {"value": value, "unit": "h"}
    >>> tasks = [{"id": "soak", "dur": hour(1), "wait": hour(8)},
    ...          {"id": "nuts off", "dur": hour(2), "after": ["soak"]}]
    >>> given = {"tasks": tasks, "work_windows": {"value": [[0, 4], [10, 14]], "unit": "h"},
    ...          "helper_windows": {"value": [], "unit": "h"}}
    >>> schedule(Schedule.model_validate(given)).finish.value
    12.0
    """
    jobs = _jobs(i)
    _refuse_unfit(i, jobs)
    found = laid_out(jobs)
    if found is None:
        words = "the windows end before all of it is done: give more of them"
        raise Refused("no_window_long_enough", words, field="work_windows")
    begins = tuple(found.starts[task.id] / MINUTES for task in i.tasks)
    lines = sorted(zip(begins, i.tasks, strict=True), key=lambda pair: pair[0])
    return ScheduleResult(
        finish=in_unit(found.end * 60.0, "h"),
        starts=begins,
        proven=found.proven,
        working=tuple(f"{task.id}: from {begin:g} h" for begin, task in lines),
    )
