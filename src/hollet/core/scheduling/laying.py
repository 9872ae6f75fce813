"""Work laid into the hours there are: one mechanic, nothing interrupted, exact by integer
programming (CP-SAT) on a grid of whole minutes.

With one worker and a regular objective some order with earliest starts is optimal (scheduling
theory), so the least end can be proven.
"""

from bisect import bisect_left
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from graphlib import CycleError, TopologicalSorter
from itertools import pairwise, permutations

__all__ = ["Job", "Laid", "Span", "circle", "fitting", "laid_out"]

Span = tuple[int, int]
"""From and until, in minutes."""

BUDGET = 0.1
"""Deterministic seconds for one laying: the same on any machine, unlike a clock."""


@dataclass(frozen=True, slots=True)
class Job:
    """One piece of work: how long (min), the spans in which it may lie as a whole, not before
    `earliest`; what must be over before, each with the minutes that run by themselves between; its
    own `wait` behind it counts to the end. `group`: what ends together.
    """

    id: str
    takes: int
    spans: tuple[Span, ...]
    earliest: int = 0
    after: tuple[tuple[str, int], ...] = ()
    wait: int = 0
    group: str = ""


@dataclass(frozen=True, slots=True)
class Laid:
    """Where each job starts (min), when all with its waits is over, and the least end that could
    still be possible: the same where it is proven.
    """

    starts: Mapping[str, int]
    end: int
    at_best: int

    @property
    def proven(self) -> bool:
        """Whether nothing earlier is possible."""
        return self.at_best >= self.end


def circle(after: Mapping[str, Sequence[str]]) -> tuple[str, ...]:
    """Jobs that wait for each other in a circle, in order; () where none do."""
    try:
        TopologicalSorter(after).prepare()
    except CycleError as error:
        return tuple(reversed(error.args[1][1:]))
    return ()


def fitting(job: Job) -> tuple[Span, ...]:
    """The spans of starts (min) at which a job lies whole in one of its spans."""
    found = ((max(start, job.earliest), end - job.takes) for start, end in job.spans)
    return tuple((first, last) for first, last in found if first <= last)


def laid_out(jobs: Sequence[Job], budget: float = BUDGET) -> Laid | None:
    """The starts with the least end of everything, and then each group as early as it can be; None
    where the spans cannot hold them all.

    By hand first (the job with the longest chain behind it goes first), then by CP-SAT from there;
    one worker, seeded, with a deterministic limit: the same jobs give the same plan. In any order
    of `jobs`: they are sorted first.
    """
    ordered = sorted(jobs, key=lambda job: job.id)
    if not all(fitting(job) for job in ordered):
        return None
    by_hand = _by_hand(ordered)
    least = _at_least(ordered)
    found, bound = by_hand, least
    if by_hand is None or _end(ordered, by_hand) > least or len({j.group for j in ordered}) > 1:
        found, bound = _solved(ordered, by_hand, least, budget)
    if found is None:
        return None
    pulled = _pulled_forward(ordered, found)
    return Laid(starts=pulled, end=_end(ordered, pulled), at_best=bound)


def _end(jobs: Iterable[Job], starts: Mapping[str, int]) -> int:
    return max((starts[job.id] + job.takes + job.wait for job in jobs), default=0)


def _tails(jobs: Sequence[Job]) -> dict[str, int]:
    """Minutes of the longest chain that begins with each job, its waits in it."""
    by_id = {job.id: job for job in jobs}
    tails = {job.id: job.takes + job.wait for job in jobs}
    order = TopologicalSorter({job.id: [name for name, _ in job.after] for job in jobs})
    for name in reversed(tuple(order.static_order())):
        for before, lag in by_id[name].after:
            own = by_id[before].takes + lag + tails[name]
            tails[before] = max(tails[before], own)
    return tails


class _Room:
    """The spans of starts of each job, looked up once."""

    def __init__(self, jobs: Iterable[Job]) -> None:
        self._fits = {job.id: sorted(fitting(job)) for job in jobs}
        self._lasts = {name: [last for _, last in fits] for name, fits in self._fits.items()}

    def earliest(self, job: str, at: int) -> int | None:
        """The first start of a job at a minute or later."""
        k = bisect_left(self._lasts[job], at)
        fits = self._fits[job]
        return min((max(first, at) for first, _ in fits[k : k + 2]), default=None)


def _by_hand(jobs: Sequence[Job]) -> dict[str, int] | None:
    """The best of the plans that somebody lays by hand, one group before the other in every order
    (of more than four groups: only those with less work first).
    """
    work: dict[str, int] = {}
    for job in jobs:
        work[job.group] = work.get(job.group, 0) + job.takes
    groups = sorted(work, key=lambda group: (work[group], group))
    ranks = permutations(groups) if len(groups) <= 4 else iter([tuple(groups)])
    room = _Room(jobs)
    found = (_one_by_one(jobs, rank, room) for rank in ranks)
    return min(
        (plan for plan in found if plan is not None),
        key=lambda plan: (_end(jobs, plan), _sum_of_ends(jobs, plan)),
        default=None,
    )


def _sum_of_ends(jobs: Sequence[Job], starts: Mapping[str, int]) -> int:
    ends: dict[str, int] = {}
    for job in jobs:
        ends[job.group] = max(ends.get(job.group, 0), starts[job.id] + job.takes + job.wait)
    return sum(ends.values())


def _one_by_one(jobs: Sequence[Job], rank: Sequence[str], room: _Room) -> dict[str, int] | None:
    """At each moment the ready job that can begin first; of those the first group, then the
    longest chain behind it. None where that way does not find room.
    """
    tails, by_id = _tails(jobs), {job.id: job for job in jobs}
    place = {group: k for k, group in enumerate(rank)}
    waiting = {job.id: len({name for name, _ in job.after}) for job in jobs}
    behind: dict[str, list[str]] = {job.id: [] for job in jobs}
    for job in jobs:
        for name in {name for name, _ in job.after}:
            behind[name].append(job.id)
    ready = {job.id: job.earliest for job in jobs if not waiting[job.id]}
    free, found = 0, dict[str, int]()
    while ready:
        best: tuple[int, int, int, str] | None = None
        for name, since in ready.items():
            start = room.earliest(name, max(free, since))
            if start is not None:
                best_of = (start, place[by_id[name].group], -tails[name], name)
                best = best_of if best is None else min(best, best_of)
        if best is None:
            return None
        name = best[3]
        found[name], free = best[0], best[0] + by_id[name].takes
        del ready[name]
        for other in behind[name]:
            waiting[other] -= 1
            if not waiting[other]:
                job = by_id[other]
                ready[other] = max(
                    [job.earliest, *(found[a] + by_id[a].takes + lag for a, lag in job.after)]
                )
    return found


def _at_least(jobs: Sequence[Job]) -> int:
    """An end that nothing can beat: every chain by itself, and all the work that must be over
    before so long a chain, in the time there is.
    """
    by_id, heads = {job.id: job for job in jobs}, dict[str, int]()
    order = TopologicalSorter({job.id: [name for name, _ in job.after] for job in jobs})
    room = _Room(jobs)
    for name in order.static_order():
        job = by_id[name]
        ready = [heads[a] + by_id[a].takes + lag for a, lag in job.after]
        start = room.earliest(name, max([job.earliest, *ready]))
        heads[name] = start if start is not None else max([job.earliest, *ready])
    tails, spans = _tails(jobs), _open_spans(jobs)
    found = max((heads[j.id] + tails[j.id] for j in jobs), default=0)
    work, begins = 0, None
    for job in sorted(jobs, key=lambda j: -(tails[j.id] - j.takes)):
        work += job.takes
        begins = heads[job.id] if begins is None else min(begins, heads[job.id])
        found = max(found, _filled(spans, begins, work) + tails[job.id] - job.takes)
    return found


def _open_spans(jobs: Iterable[Job]) -> list[Span]:
    """All stretches in which some job may lie, those that touch as one."""
    found: list[Span] = []
    for start, end in sorted({span for job in jobs for span in job.spans}):
        if found and start <= found[-1][1]:
            found[-1] = (found[-1][0], max(end, found[-1][1]))
        else:
            found.append((start, end))
    return found


def _filled(spans: Sequence[Span], begins: int, work: int) -> int:
    """When so much work is over at the soonest, cut up as one likes."""
    for start, end in spans:
        room = end - max(start, begins)
        if room >= work:
            return max(start, begins) + work
        work -= max(0, room)
    return begins


def _solved(
    jobs: Sequence[Job], hint: dict[str, int] | None, least: int, budget: float
) -> tuple[dict[str, int] | None, int]:
    """The same by CP-SAT, from a plan laid by hand; and an end that nothing can beat."""
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    latest = (
        _end(jobs, hint) if hint is not None else max(e + j.wait for j in jobs for _, e in j.spans)
    )
    starts = {
        job.id: model.new_int_var_from_domain(
            cp_model.Domain.from_intervals(
                [list(span) for span in fitting(job) if span[0] < latest]
            ),
            job.id,
        )
        for job in jobs
    }
    busy = [model.new_fixed_size_interval_var(starts[j.id], j.takes, j.id) for j in jobs]
    spans = [span for span in _open_spans(jobs) if span[0] < latest]
    for (_, shut), (opens, _) in pairwise(spans):
        busy.append(model.new_fixed_size_interval_var(shut, opens - shut, f"shut{shut}"))
    model.add_no_overlap(busy)
    by_id = {job.id: job for job in jobs}
    for job in jobs:
        for name, lag in job.after:
            model.add(starts[job.id] >= starts[name] + by_id[name].takes + lag)
    end = model.new_int_var(least, latest, "end")
    groups = sorted({job.group for job in jobs})
    ends = {group: model.new_int_var(0, latest, f"end of {group}") for group in groups}
    for job in _last(jobs):
        model.add(ends[job.group] >= starts[job.id] + job.takes + job.wait)
    for group in groups:
        model.add(end >= ends[group])
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    solver.parameters.max_deterministic_time = budget
    found, bound = hint, least
    if hint is None or _end(jobs, hint) > least:
        for name, start in (hint or {}).items():
            model.add_hint(starts[name], start)
        model.minimize(end)
        if solver.solve(model) in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            found = {name: solver.value(var) for name, var in starts.items()}
            bound = max(least, round(solver.best_objective_bound))
        elif hint is None:
            return None, least
    assert found is not None
    if len(groups) > 1:  # the same end of everything, and each group as early as it can be
        model.add(end <= _end(jobs, found))
        model.clear_hints()  # type: ignore[no-untyped-call]
        for name, start in found.items():
            model.add_hint(starts[name], start)
        model.minimize(sum(ends.values()))
        if solver.solve(model) in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            found = {name: solver.value(var) for name, var in starts.items()}
    return found, bound


def _last(jobs: Iterable[Job]) -> list[Job]:
    """Jobs that nothing of their own group waits for, or whose own wait may outlast what does."""
    jobs = list(jobs)
    groups = {job.id: job.group for job in jobs}
    waited = {name for job in jobs for name, _ in job.after if groups[name] == job.group}
    return [job for job in jobs if job.id not in waited or job.wait]


def _pulled_forward(jobs: Sequence[Job], starts: Mapping[str, int]) -> dict[str, int]:
    """The same order with everything as early as it can be: the solver leaves idle what does not
    make the end later.
    """
    by_id, free, found = {job.id: job for job in jobs}, 0, dict[str, int]()
    room = _Room(jobs)
    for name in sorted(starts, key=lambda n: (starts[n], n)):
        job = by_id[name]
        ready = [found[a] + by_id[a].takes + lag for a, lag in job.after]
        at = room.earliest(name, max([free, job.earliest, *ready]))
        assert at is not None, "the order of a plan always has room"
        found[name] = at
        free = found[name] + job.takes
    return found
