"""Order and its reasons: circles that are named, and steps laid so that no reason is broken."""

import heapq
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from itertools import pairwise

from hollet.core.procedure.sheet import Sheet, Step
from hollet.core.procedure.words import STAGE_RANK, STAGES

__all__ = ["Contradiction", "all_before", "contradiction", "find_cycle", "in_order"]


def find_cycle(before: Mapping[str, Sequence[str]]) -> tuple[str, ...] | None:
    """A circle in "waits for" links, first node repeated at the end, or None.

    Parameters
    ----------
    before : mapping of node -> the nodes it waits for
        Links to unknown nodes are ignored.

    Notes
    -----
    Depth-first search with an explicit path; linear in nodes and links.

    Examples
    --------
    >>> find_cycle({"a": ["b"], "b": ["c"], "c": ["a"]})
    ('a', 'b', 'c', 'a')
    >>> find_cycle({"a": ["b"], "b": []}) is None
    True
    """
    finished: set[str] = set()
    for root in before:
        if root in finished:
            continue
        path: list[str] = [root]
        pending = [iter(before[root])]
        while path:
            following = next((n for n in pending[-1] if n in before and n not in finished), None)
            if following is None:
                finished.add(path.pop())
                pending.pop()
            elif following in path:
                return (*path[path.index(following) :], following)
            else:
                path.append(following)
                pending.append(iter(before[following]))
    return None


@dataclass(frozen=True, slots=True)
class Contradiction:
    """Reasons that cannot all be kept: the chain of steps, each with the words of the reason that
    leads to the next.
    """

    chain: tuple[str, ...]
    because: tuple[str, ...]

    def words(self) -> str:
        """The chain in one sentence."""
        links = (
            f"{a} waits for {b} ({why})"
            for a, b, why in zip(self.chain, self.chain[1:], self.because, strict=False)
        )
        return "; ".join(links)


def contradiction(steps: Sequence[Step]) -> Contradiction | None:
    """A circle in the reasons, or a step that waits for one of a later stage; None when all can be
    kept.
    """
    at = {step.id: step for step in steps}
    cycle = find_cycle({step.id: [link.step for link in step.after] for step in steps})
    if cycle:
        why = tuple(
            next(link.because for link in at[a].after if link.step == b) for a, b in pairwise(cycle)
        )
        return Contradiction(cycle, why)
    for step in steps:
        for link in step.after:
            other = at.get(link.step)
            if other is not None and STAGE_RANK[other.stage] > STAGE_RANK[step.stage]:
                return Contradiction(
                    (step.id, other.id),
                    (
                        (
                            f"{link.because}; but {STAGES[other.stage]} comes after "
                            f"{STAGES[step.stage]}"
                        ),
                    ),
                )
    return None


def in_order(
    steps: Sequence[Step], waits: Mapping[str, Set[str]] | None = None
) -> tuple[Step, ...]:
    """The steps by stage, so that no reason is broken; otherwise the given order is kept.

    Parameters
    ----------
    waits : mapping of step -> the steps it comes behind, where that is more than its reasons;
    without it the reasons alone

    A step that another one waits for comes right before it, where its own place is later: what is
    measured before the vehicle is
    raised does not put the raising off. Kahn's method with a heap on (stage, place), O((n + e) log
    n). Steps of a circle, which
    `contradiction` reports, come last in their given order.
    """
    place = {step.id: (STAGE_RANK[step.stage], k) for k, step in enumerate(steps)}
    by_id = {step.id: step for step in steps}
    behind: dict[str, list[str]] = {step.id: [] for step in steps}
    open_links = {step.id: 0 for step in steps}
    for step in steps:
        for other in (
            waits[step.id] if waits else {link.step for link in step.after}
        ) & place.keys():
            behind[other].append(step.id)
            open_links[step.id] += 1
    wanted = dict(place)
    for step_id in reversed(_kahn(place, behind, open_links)):
        wanted[step_id] = min(
            (wanted[step_id], *(wanted[follower] for follower in behind[step_id]))
        )
    found = _kahn({step: (*wanted[step], *place[step]) for step in place}, behind, open_links)
    known = set(found)
    return tuple(by_id[step] for step in (*found, *(s.id for s in steps if s.id not in known)))


def _kahn(
    key: Mapping[str, tuple[int, ...]],
    behind: Mapping[str, Sequence[str]],
    open_links: Mapping[str, int],
) -> list[str]:
    left = dict(open_links)
    ready = [(key[step], step) for step, count in left.items() if count == 0]
    heapq.heapify(ready)
    found = []
    while ready:
        _, step = heapq.heappop(ready)
        found.append(step)
        for follower in behind[step]:
            left[follower] -= 1
            if left[follower] == 0:
                heapq.heappush(ready, (key[follower], follower))
    return found


def all_before(sheet: Sheet, step_id: str) -> frozenset[str]:
    """Every step that one waits for, for whatever reason, through all the steps in between."""
    seen, ahead = set[str](), [step_id]
    while ahead:
        at = sheet.find_step(ahead.pop())
        links = [link.step for link in at.after if link.step not in seen] if at is not None else []
        seen.update(links)
        ahead += links
    return frozenset(seen)
