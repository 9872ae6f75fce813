"""The plan of evenings: all open work laid into the evenings there are, what holds it up, what
would win, and how sure the end is.
"""

from bisect import bisect_left
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from itertools import pairwise
from math import exp, log
from statistics import NormalDist

from hollet.core.calendar.evenings import DAY, Evening, VisitView
from hollet.core.calendar.work import Task
from hollet.core.errors import Refused
from hollet.core.scheduling.laying import BUDGET, Job, Laid, Span, circle, fitting, laid_out

__all__ = [
    "Chance",
    "Frame",
    "Held",
    "Plan",
    "chain_of",
    "chance_of",
    "earlier",
    "held_by",
    "jobs_of",
    "laid_plan",
    "slack_of",
    "without",
]

DRAWS = 2000
"""Draws of the simulation; a prime above it strides through them so that no two tasks go alike."""
PRIME = 2003
Z_80 = 1.2815515655446004
"""Between quick and slow lie eight in ten: 1.28 standard deviations of the logarithm each way."""


@dataclass(frozen=True, slots=True)
class Frame:
    """The time there is: evenings, and who is there or may come, from a minute on."""

    today: date
    minute: int
    evenings: tuple[Evening, ...]
    visits: tuple[VisitView, ...]

    def spans(self, people: int, perhaps: bool = True) -> tuple[Span, ...]:
        """Where so many people are there at once while he works; those who may come count where
        `perhaps`.
        """
        own = [(max(e.start, self.minute), e.end) for e in self.evenings if e.end > self.minute]
        if people <= 1:
            return tuple(own)
        there = [v for v in self.visits if v.comes or (perhaps and v.perhaps)]
        found = []
        for start, end in own:
            marks = sorted({start, end, *_marks(there, start, end)})
            run: int | None = None
            for a, b in pairwise(marks):
                enough = 1 + len({v.helper for v in there if v.start <= a and b <= v.end}) >= people
                if enough and run is None:
                    run = a
                if not enough and run is not None:
                    found.append((run, a))
                    run = None
            if run is not None:
                found.append((run, end))
        return tuple(found)


def _marks(there: Sequence[VisitView], start: int, end: int) -> Iterator[int]:
    for visit in there:
        for mark in (visit.start, visit.end):
            if start < mark < end:
                yield mark


@dataclass(frozen=True, slots=True)
class Held:
    """Why a task lies where it lies and not earlier: the kind of what holds it, and which."""

    kind: str
    what: str
    words: str


@dataclass(frozen=True, slots=True)
class Plan:
    """All tasks laid: minutes from the first midnight."""

    tasks: Mapping[str, Task]
    laid: Laid
    jobs: Mapping[str, Job]
    own: tuple[Span, ...]

    def start(self, task: str) -> int:
        return self.laid.starts[task]

    def end(self, task: str) -> int:
        return self.laid.starts[task] + self.jobs[task].takes

    def order(self) -> list[str]:
        """The tasks in the order in which they are done."""
        return sorted(self.laid.starts, key=lambda name: self.laid.starts[name])

    def last_of(self, build: str) -> str | None:
        """The task of a build that ends last."""
        own = [name for name, task in self.tasks.items() if task.build == build]
        return max(own, key=self.end, default=None)


def jobs_of(tasks: Sequence[Task], frame: Frame) -> tuple[Job, ...]:
    """The tasks as jobs on the grid of minutes.

    Raises
    ------
    Refused
        `cycle`, `no_window_long_enough`, `no_helper_window`: in one sentence, with the step.
    """
    round_about = circle({task.id: [name for name, _, _ in task.after] for task in tasks})
    if round_about:
        names = {task.id: f"{task.number} {task.name}" for task in tasks}
        said = " waits for ".join(names[name] for name in (*round_about, round_about[0]))
        raise Refused("cycle", f"steps wait for each other in a circle: {said}", field="steps")
    return tuple(_job(task, frame) for task in tasks)


def _job(task: Task, frame: Frame) -> Job:
    spans = frame.spans(task.people)
    earliest = max([frame.minute, task.not_before, *(part.at for part in task.arriving)])
    job = Job(
        id=task.id,
        takes=task.middle,
        spans=spans,
        earliest=earliest,
        after=tuple((name, minutes) for name, minutes, _ in task.after),
        group=task.build,
    )
    if fitting(job):
        return job
    longest = max((end - start for start, end in frame.spans(1)), default=0)
    if task.people > 1 and longest >= task.middle:
        words = (
            f"{task.number} {task.name} needs {task.people} people for {task.middle} min, and "
            "nobody comes for as long: ask a helper"
        )
        raise Refused("no_helper_window", words, field="visits")
    words = (
        f"{task.number} {task.name} takes {task.middle} min, and the longest evening that is left "
        f"has {longest}"
    )
    raise Refused("no_window_long_enough", words, field="evenings")


def laid_plan(tasks: Sequence[Task], frame: Frame, budget: float = BUDGET) -> Plan:
    """The plan with the least end of everything.

    Raises
    ------
    Refused
        As `jobs_of`; `no_window_long_enough` where the evenings looked at do not hold all of it.
    """
    jobs = jobs_of(tasks, frame)
    found = laid_out(jobs, budget)
    if found is None:
        words = "the evenings of the coming months do not hold all of it: give more of them"
        raise Refused("no_window_long_enough", words, field="evenings")
    by_id = {job.id: job for job in jobs}
    return Plan({t.id: t for t in tasks}, found, by_id, frame.spans(1))


def held_by(plan: Plan, name: str) -> Held | None:
    """What keeps a task from lying earlier: what it waits for, a part, people, the work before it;
    None where nothing but the evenings does.
    """
    task, job, start = plan.tasks[name], plan.jobs[name], plan.start(name)
    ready = [(plan.end(before) + minutes, before, minutes) for before, minutes, _ in task.after]
    best = max(ready, default=None)
    part = max(task.arriving, key=lambda p: p.at, default=None)
    previous = max(
        (other for other in plan.laid.starts if plan.end(other) <= start and other != name),
        key=plan.end,
        default=None,
    )
    free = max([job.earliest, *(r[0] for r in ready)])
    at_once = _first_fit(job, free)
    alone = _first_fit(replace(job, spans=plan.own), free)
    if at_once == start and alone is not None and alone < start:
        return Held("people", "", f"{task.people} people")
    if at_once == start:
        if part is not None and part.at == job.earliest and (best is None or part.at >= best[0]):
            return Held("part", part.need, f"{part.name}: {part.words}")
        if best is not None and best[0] >= job.earliest:
            kind = "itself" if best[2] else "reason"
            return Held(kind, best[1], plan.tasks[best[1]].name)
        if task.dries and job.earliest == task.not_before:
            return Held("itself", "", f"{task.dries} dries")
        return None
    return Held("earlier", previous, plan.tasks[previous].name) if previous is not None else None


def _first_fit(job: Job, at: int) -> int | None:
    return min((max(first, at) for first, last in fitting(job) if last >= at), default=None)


def chain_of(plan: Plan, last: str) -> tuple[tuple[str, Held | None], ...]:
    """The tasks on which an end hangs, the first first, each with what holds it."""
    found: list[tuple[str, Held | None]] = []
    name: str | None = last
    while name is not None and name not in {task for task, _ in found}:
        held = held_by(plan, name)
        found.append((name, held))
        name = (
            held.what if held is not None and held.kind in ("reason", "itself", "earlier") else None
        )
        name = name or None
    return tuple(reversed(found))


def slack_of(plan: Plan, name: str) -> int:
    """Minutes by which a task may end later, and nothing else does: until what waits for it, or the
    work after it, or the end of its span.
    """
    job, end = plan.jobs[name], plan.end(name)
    limits = [
        plan.start(other) - lag
        for other, follower in plan.jobs.items()
        for before, lag in follower.after
        if before == name
    ]
    limits += [plan.start(other) for other in plan.laid.starts if plan.start(other) >= end]
    limits += [until for start, until in job.spans if start <= plan.start(name) < until]
    return max(0, min(limits, default=end) - end)


@dataclass(frozen=True, slots=True)
class Chance:
    """The end of a build in minutes: 1, 5 and 9 of 10 lie before; `beyond` of the draws did not fit
    into the evenings looked at.
    """

    one: int
    five: int
    nine: int
    beyond: int


def chance_of(plan: Plan, builds: Sequence[str]) -> dict[str, Chance]:
    """The ends over the ranges of the hours: 2,000 draws of a log-normal between quick and slow,
    evenly spread and the same each time.

    In each draw the tasks go in the order of the plan into the first evening that still has room.
    """
    order = plan.order()
    tasks = [plan.tasks[name] for name in order]
    takes = _drawn(tasks)
    at = {name: k for k, name in enumerate(order)}
    before = [tuple((at[a], lag) for a, lag in plan.jobs[n].after) for n in order]
    earliest = [plan.jobs[n].earliest for n in order]
    spans = sorted({span for job in plan.jobs.values() for span in job.spans})
    own = [tuple(k for k, span in enumerate(spans) if span in plan.jobs[n].spans) for n in order]
    over = _overlaps(spans)
    last = max((end for _, end in spans), default=0)
    ends: dict[str, list[int]] = {build: [] for build in builds}
    beyond = 0
    for draw in range(DRAWS):
        free = [start for start, _ in spans]
        done: list[int] = []
        for k in range(len(order)):
            ready = earliest[k]
            for other, lag in before[k]:
                ready = max(ready, done[other] + lag)
            done.append(_put(spans, own[k], over, free, ready, takes[k][draw], last))
        beyond += max(done, default=0) > last
        latest = dict.fromkeys(builds, 0)
        for task, end in zip(tasks, done, strict=True):
            latest[task.build] = max(latest[task.build], end)
        for build, end in latest.items():
            ends[build].append(end)
    found = {build: sorted(values) for build, values in ends.items() if any(values)}
    return {
        build: Chance(
            one=values[DRAWS // 10 - 1],
            five=values[DRAWS // 2 - 1],
            nine=values[DRAWS * 9 // 10 - 1],
            beyond=beyond,
        )
        for build, values in found.items()
    }


def _drawn(tasks: Sequence[Task]) -> list[list[int]]:
    """So many minutes for each task, evenly over its range; no two tasks go alike."""
    normal = NormalDist()
    z = [normal.inv_cdf((k + 0.5) / PRIME) for k in range(PRIME)]
    found = []
    for k, task in enumerate(tasks):
        stride = 1 + (k * 797 + 311) % (PRIME - 1)
        sigma = log(task.slow / task.quick) / (2 * Z_80) if task.slow > task.quick else 0.0
        found.append(
            [
                max(1, round(task.middle * exp(sigma * z[(draw + 1) * stride % PRIME])))
                for draw in range(DRAWS)
            ]
        )
    return found


def _overlaps(spans: Sequence[Span]) -> list[tuple[int, ...]]:
    """Of each span the others that share time with it: what is taken there is taken here."""
    return [tuple(k for k, (c, d) in enumerate(spans) if c < b and a < d) for a, b in spans]


def _put(
    spans: Sequence[Span],
    own: Sequence[int],
    over: Sequence[Sequence[int]],
    free: list[int],
    ready: int,
    takes: int,
    last: int,
) -> int:
    """The end of a piece of work put into the first of its spans with room for it; what is longer
    than all of them goes on from one to the next, and past the last it ends beyond.
    """
    first = bisect_left(own, ready, key=lambda k: spans[k][1])
    for k in own[first:]:
        start = free[k] if free[k] > ready else ready
        if start + takes <= spans[k][1]:
            for other in over[k]:
                free[other] = max(free[other], start + takes)
            return start + takes
    left = takes
    for k in own[first:]:
        room = spans[k][1] - max(free[k], ready)
        if room <= 0:
            continue
        used = min(room, left)
        end = max(free[k], ready) + used
        for other in over[k]:
            free[other] = max(free[other], end)
        left -= used
        if not left:
            return end
    return last + DAY


def without(visits: Sequence[VisitView], gone: str) -> tuple[VisitView, ...]:
    """The visits without one of them."""
    return tuple(visit for visit in visits if visit.id != gone)


def earlier(tasks: Sequence[Task], need: str, at: int) -> tuple[Task, ...]:
    """The tasks with one part here at an earlier minute."""
    return tuple(
        replace(
            task,
            arriving=tuple(
                replace(part, at=min(part.at, at)) if part.need == need else part
                for part in task.arriving
            ),
        )
        for task in tasks
    )
