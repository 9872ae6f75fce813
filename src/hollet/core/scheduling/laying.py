"""Work laid into the hours there are: one mechanic, nothing interrupted, exact by integer
programming (CP-SAT) on a grid of whole minutes.

With one worker and a regular objective some order with earliest starts is optimal (scheduling
theory), so the least end can be proven.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from graphlib import CycleError, TopologicalSorter

__all__ = ["Job", "Laid", "Span", "circle", "fitting", "laid_out"]

Span = tuple[int, int]
"""From and until, in minutes."""

BUDGET = 4.0
"""Deterministic seconds for one laying: the same on any machine, unlike a clock."""


@dataclass(frozen=True, slots=True)
class Job:
    """One piece of work: how long (min), the spans in which it may lie as a whole, not before
    `earliest`; each of `after` with its wait behind it; `wait` runs on by itself.
    """

    id: str
    takes: int
    spans: tuple[Span, ...]
    earliest: int = 0
    after: tuple[str, ...] = ()
    wait: int = 0


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
    """The starts with the least end of everything; None where the spans cannot hold them all.

    One worker, seeded, with a deterministic limit: the same jobs give the same plan. In any order
    of `jobs`: they are sorted first.
    """
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    ordered = sorted(jobs, key=lambda job: job.id)
    starts = {}
    for job in ordered:
        spans = fitting(job)
        if not spans:
            return None
        domain = cp_model.Domain.from_intervals([list(span) for span in spans])
        starts[job.id] = model.new_int_var_from_domain(domain, job.id)
    model.add_no_overlap(
        model.new_fixed_size_interval_var(starts[job.id], job.takes, job.id) for job in ordered
    )
    by_id = {job.id: job for job in ordered}
    for job in ordered:
        for name in job.after:
            before = by_id[name]
            model.add(starts[job.id] >= starts[name] + before.takes + before.wait)
    latest = max((last + j.takes + j.wait for j in ordered for _, last in fitting(j)), default=0)
    end = model.new_int_var(0, latest, "end")
    for job in _last(ordered):
        model.add(end >= starts[job.id] + job.takes + job.wait)
    model.minimize(end)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 1
    solver.parameters.max_deterministic_time = budget
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    pulled = _pulled_forward(ordered, {name: solver.value(var) for name, var in starts.items()})
    return Laid(
        starts=pulled,
        end=max((pulled[j.id] + j.takes + j.wait for j in ordered), default=0),
        at_best=round(solver.best_objective_bound),
    )


def _last(jobs: Iterable[Job]) -> list[Job]:
    """Jobs that nothing waits for, or whose own wait may outlast what does."""
    jobs = list(jobs)
    waited = {name for job in jobs for name in job.after}
    return [job for job in jobs if job.id not in waited or job.wait]


def _pulled_forward(jobs: Sequence[Job], starts: Mapping[str, int]) -> dict[str, int]:
    """The same order with everything as early as it can be: the solver leaves idle what does not
    make the end later.
    """
    by_id, free, found = {job.id: job for job in jobs}, 0, dict[str, int]()
    for name in sorted(starts, key=lambda n: (starts[n], n)):
        job = by_id[name]
        ready = [found[a] + by_id[a].takes + by_id[a].wait for a in job.after]
        at = max([free, job.earliest, *ready])
        found[name] = min(max(first, at) for first, last in fitting(job) if last >= at)
        free = found[name] + job.takes
    return found
