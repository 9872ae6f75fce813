"""The order of rebuilding: a take-down reversed, its reasons turned round, and merged with the
order that a sheet gives.

A reason between two removals is turned round when the thing it says also holds on the way back:
what closed access on the way
out is closed again by it on the way in. Some are not: cleaning, soaking and marking were for coming
off only.
"""

import heapq
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass

from hollet.core.procedure.precedence import find_cycle
from hollet.core.procedure.words import DANGERS

__all__ = [
    "ONE_WAY",
    "Clash",
    "Link",
    "Node",
    "Off",
    "OneWay",
    "Rebuilt",
    "refit_links",
    "turn_round",
]

ONE_WAY = {
    "contamination": "cleaning before opening is for coming off only",
    "drying": "soaking was for coming off only",
    "setting kept": "it was kept or marked before parting: compare it at refit",
}
"""Kinds that hold for coming off only, and why; all other kinds are turned round."""
STRENGTH = {"sheet": 0, "rung": 0, "said": 1, "turned": 2, "log": 3}
"""What gives way in a contradiction: the highest figure first. `rung` is between which rungs
something must be open or closed, `log` the
mere order in which things came off."""


@dataclass(frozen=True, slots=True)
class Off:
    """One removal, in the order of coming off: what it was, the steps that put it back, and what it
    had to wait for.

    `links` are (earlier removal, because, kind, origin) with origin `turned` (a sheet's reason),
    `said` (by whoever logged it)
    or `log` (nothing but the order in which they came off).
    """

    id: str
    what: str
    back: tuple[str, ...]
    links: tuple[tuple[str, str, str, str], ...] = ()


@dataclass(frozen=True, slots=True)
class Node:
    """A step of the rebuilding: its id, and its rank (stage, place) among those that have no reason
    between them.
    """

    id: str
    rank: tuple[int, int]


@dataclass(frozen=True, slots=True)
class Link:
    """`before` goes on before `then`, because; `origin` is sheet, turned, said or log."""

    before: str
    then: str
    because: str
    kind: str
    origin: str


@dataclass(frozen=True, slots=True)
class OneWay:
    """A reason that held for coming off only, kept apart from the order."""

    what: str
    because: str
    why: str


@dataclass(frozen=True, slots=True)
class Clash:
    """A link that cannot be kept, and the chain of links, already kept, that says the opposite."""

    dropped: Link
    kept: tuple[Link, ...]


@dataclass(frozen=True, slots=True)
class Rebuilt:
    """The merged order with the links that hold in it, what clashed, and the steps whose place is
    not the reverse.
    """

    order: tuple[str, ...]
    links: tuple[Link, ...]
    clashes: tuple[Clash, ...]
    not_reversed: frozenset[str]


def refit_links(offs: Sequence[Off]) -> tuple[tuple[Link, ...], tuple[OneWay, ...]]:
    """The reasons between removals, turned round onto the steps that put them back; and those that
    hold one way only.
    """
    at = {off.id: off for off in offs}
    found: dict[tuple[str, str], Link] = {}
    one_way = []
    for off in offs:
        for earlier_id, because, kind, origin in off.links:
            earlier = at.get(earlier_id)
            if earlier is None:
                continue
            if kind in ONE_WAY:
                one_way.append(OneWay(f"{earlier.what} before {off.what}", because, ONE_WAY[kind]))
                continue
            for before in off.back:
                for then in earlier.back:
                    link = Link(before, then, _turned(off, because, origin), kind, origin)
                    known = found.get((before, then))
                    if before != then and (
                        known is None or STRENGTH[origin] < STRENGTH[known.origin]
                    ):
                        found[(before, then)] = link
    return tuple(found.values()), tuple(dict.fromkeys(one_way))


def _turned(off: Off, because: str, origin: str) -> str:
    if origin == "said":
        return f"it came off first because {because}"
    return f"coming off, {off.what} waited for this: {because}" if origin == "turned" else because


def turn_round(
    nodes: Sequence[Node],
    sheet: Sequence[Link],
    turned: Sequence[Link],
    prefer: Set[tuple[str, str]] = frozenset(),
    placed: Set[str] = frozenset(),
) -> Rebuilt:
    """Merge the sheet's own links with the turned ones; `placed` are steps that a sheet has placed.

    Links are taken in by strength (sheet, said, turned, log). One that would close a circle, or go
    against the ranks of stages,
    is dropped and reported with the links that say the opposite. `prefer` holds the (before, then)
    of turned links for which the
    opposing sheet links are given up instead.

    Notes
    -----
    Kahn's method with a heap; adding a link asks for a path by depth-first search, O(links²) in
    all.
    """
    rank = {node.id: node.rank for node in nodes}
    dropped_by_choice = _opposed(sheet, turned, prefer)
    kept: list[Link] = []
    clashes: list[Clash] = []
    ahead: dict[str, list[Link]] = {}
    given = [link for link in sheet if link not in dropped_by_choice]
    for link in (*given, *sorted(turned, key=lambda x: STRENGTH[x.origin])):
        if link.before not in rank or link.then not in rank:
            continue
        if link.origin == "log" and link.then in placed and rank[link.before] > rank[link.then]:
            continue  # an assumed order never beats the sheet's place
        opposite = _path(ahead, link.then, link.before)
        if opposite is None and rank[link.before][0] > rank[link.then][0]:
            opposite = ()
        if opposite is not None:
            clashes.append(Clash(link, opposite))
            continue
        if any(other.then == link.then for other in ahead.get(link.before, [])):
            continue
        kept.append(link)
        ahead.setdefault(link.before, []).append(link)
    clashes += [
        Clash(link, tuple(x for x in kept if (x.then, x.before) == (link.before, link.then)))
        for link in dropped_by_choice
    ]
    order = _sorted(rank, kept)
    return Rebuilt(order, tuple(kept), tuple(clashes), _moved(order, turned))


def _opposed(
    sheet: Sequence[Link], turned: Sequence[Link], prefer: Set[tuple[str, str]]
) -> list[Link]:
    """Sheet links that the mechanic gave up for a link of the take-down: those that lie on the
    opposite chain; never one that guards against a danger.
    """
    gone: list[Link] = []
    for link in turned:
        if (link.before, link.then) not in prefer:
            continue
        while True:
            ahead: dict[str, list[Link]] = {}
            for other in sheet:
                if other not in gone:
                    ahead.setdefault(other.before, []).append(other)
            path = _path(ahead, link.then, link.before)
            soft = [other for other in path or () if other.kind not in DANGERS]
            if not soft:  # a danger is not given up for an order
                break
            gone.append(soft[-1])
    return gone


def _path(ahead: Mapping[str, Sequence[Link]], start: str, end: str) -> tuple[Link, ...] | None:
    """Links that lead from `start` to `end`, or None."""
    came: dict[str, Link] = {}
    seen, pending = {start}, [start]
    while pending:
        here = pending.pop()
        for link in ahead.get(here, ()):
            if link.then in seen:
                continue
            came[link.then] = link
            if link.then == end:
                path = [link]
                while path[0].before != start:
                    path.insert(0, came[path[0].before])
                return tuple(path)
            seen.add(link.then)
            pending.append(link.then)
    return None


def _sorted(rank: Mapping[str, tuple[int, int]], links: Sequence[Link]) -> tuple[str, ...]:
    waits = dict.fromkeys(rank, 0)
    behind: dict[str, list[str]] = {}
    for link in links:
        waits[link.then] += 1
        behind.setdefault(link.before, []).append(link.then)
    ready = [(rank[node], node) for node, count in waits.items() if count == 0]
    heapq.heapify(ready)
    order: list[str] = []
    while ready:
        _, node = heapq.heappop(ready)
        order.append(node)
        for follower in behind.get(node, []):
            waits[follower] -= 1
            if waits[follower] == 0:
                heapq.heappush(ready, (rank[follower], follower))
    assert len(order) == len(rank), (
        "a circle was let in: "
        f"{find_cycle({n: [x.before for x in links if x.then == n] for n in rank})}"
    )
    return tuple(order)


def _moved(order: Sequence[str], turned: Sequence[Link]) -> frozenset[str]:
    """Steps that stand before something that the bare reverse would put them behind."""
    place = {node: k for k, node in enumerate(order)}
    return frozenset(
        link.then
        for link in turned
        if link.before in place and link.then in place and place[link.before] > place[link.then]
    )
