"""The order back: take-down reasons turned round, merged with those of sheets and rungs."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from pydantic import Field

from hollet.core.book.removals import Removal, removals
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.procedure.closings import closers_of
from hollet.core.procedure.pieces import Opens
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.reversing import Link, Node, Off, Rebuilt, refit_links, turn_round
from hollet.core.procedure.words import RUNGS, STAGE_RANK, Part, Stage, Words
from hollet.core.view import View

__all__ = ["Apart", "back_title", "Choices", "merged_links", "new_id", "still_open"]

FIRST = STAGE_RANK["build_up"]


FAR = 10**9


RANKED: dict[int, Stage] = {rank: stage for stage, rank in STAGE_RANK.items()}  # type: ignore[misc]


class Apart(View):
    """A reason that held for coming off only."""

    what: str
    because: str
    why: str


class Choices(Part):
    """What the mechanic decided of a proposed order: removals that do not go back, who wins in a
    contradiction, reasons given.
    """

    without: tuple[str, ...] = ()
    take_down: tuple[tuple[str, str], ...] = ()
    because: dict[str, Words] = Field(default_factory=dict)


def back_title(removal: Removal) -> str:
    what = removal.what
    for off in (" off", " out", " undone", " removed"):
        if what.casefold().endswith(off):
            what = what[: -len(off)]
    return f"{what}: back on"


def new_id(removal: str) -> str:
    return f"back-{removal}"[:60]


def _links_of(
    state: BookState, plan: Plan, found: Sequence[Removal], because: Mapping[str, str]
) -> list[Off]:
    """Each removal with what it had to wait for when it came off."""
    ids = {r.id for r in found}
    offs = []
    for k, removal in enumerate(found):
        links: list[tuple[str, str, str, str]] = []
        step = plan.find_step(removal.id)
        if step is not None:
            links = [
                (link.step, link.because, link.kind, "turned")
                for link in step.after
                if link.step in ids
            ]
        before = found[k - 1] if k else None
        if (
            before is not None
            and (removal.own or before.own)
            and before.id not in {link[0] for link in links}
        ):
            said = because.get(before.id) or (before.because if before.own else None)
            if said:
                links.append((before.id, said, before.reason_kind or "access closes", "said"))
            else:
                links.append(
                    (
                        before.id,
                        f"{removal.what} came off after {before.what}; nobody said why",
                        "access closes",
                        "log",
                    )
                )
        offs.append(
            Off(removal.id, removal.what, removal.back or (new_id(removal.id),), tuple(links))
        )
    return _with_assumed(plan, found, offs)


def _with_assumed(plan: Plan, found: Sequence[Removal], offs: Sequence[Off]) -> list[Off]:
    """What goes back without any reason goes on after what came off next: assumed, and
    marked so.
    """
    waits = {link[0] for off in offs for link in off.links}
    given = []
    for k, off in enumerate(offs):
        before = found[k - 1] if k else None
        steps = [
            step
            for name in (before.back if before is not None else ())
            if (step := plan.find_step(name)) is not None
        ]
        bare = (
            before is not None and before.id not in waits and not any(step.after for step in steps)
        )
        if bare and before is not None:
            off = replace(
                off,
                links=(
                    *off.links,
                    (
                        before.id,
                        f"{off.what} came off after {before.what}; nobody said why",
                        "access closes",
                        "log",
                    ),
                ),
            )
        given.append(off)
    return given


def _sheet_links(plan: Plan) -> list[Link]:
    later = {step.id for step in plan.step if STAGE_RANK[step.stage] >= FIRST}
    return [
        Link(link.step, step.id, link.because, link.kind, "log" if link.assumed else link.origin)
        for step in plan.step
        if step.id in later
        for link in step.after
        if link.step in later
    ]


def still_open(plan: Plan, removal: Removal) -> tuple[Opens, ...]:
    """What a removal's step left open and no step of the plan closes: the new step closes it."""
    step = plan.find_step(removal.id)
    return (
        tuple(item for item in step.opens if not closers_of(plan, item.id))
        if step is not None and not removal.back
        else ()
    )


def _rung_links(plan: Plan, found: Sequence[Removal]) -> list[Link]:
    """New steps close between the right rungs: after the rung for which a thing must be open,
    before the first that it blocks.
    """
    rank = {rung: k for k, rung in enumerate(RUNGS)}
    runs = [run for step in plan.step if (run := step.as_run()) is not None]
    links = []
    for removal in found:
        for item in still_open(plan, removal):
            new = new_id(removal.id)
            links += [
                Link(
                    run.id,
                    new,
                    f"{item.what}: it must be so for {RUNGS[run.rung].lower()}",
                    "safety",
                    "rung",
                )
                for run in runs
                if run.rung == item.open_for
            ]
            ahead = next(
                (
                    run
                    for run in runs
                    if rank[run.rung] >= rank.get(item.blocks, len(rank))
                    and run.rung != item.open_for
                ),
                None,
            )
            links += (
                [
                    Link(
                        new,
                        ahead.id,
                        f"{item.what} shuts {RUNGS[item.blocks].lower()}",
                        "safety",
                        "rung",
                    )
                ]
                if ahead is not None
                else []
            )
    return links


def _stages(plan: Plan, found: Sequence[Removal], turned: Sequence[Link]) -> dict[str, int]:
    """The stage of each step from Build up on; a new one goes into Build up or Fit in, into Wake
    where it must be open for a rung, and never ahead of what it goes on after by a reason; an order
    that nobody gave a reason for drags nothing into a later stage.
    """
    stages = {
        step.id: STAGE_RANK[step.stage] for step in plan.step if STAGE_RANK[step.stage] >= FIRST
    }
    fresh = {
        new_id(r.id): STAGE_RANK[
            "wake"
            if any(i.open_for for i in still_open(plan, r))
            else "build_up"
            if r.on_stand
            else "fit_in"
        ]
        for r in found
        if not r.back
    }
    while True:
        known = stages | fresh
        later = {
            link.then: known[link.before]
            for link in turned
            if link.then in fresh
            and link.origin != "log"
            and known.get(link.before, 0) > fresh[link.then]
        }
        if not later:
            return known
        fresh |= later


def _given(plan: Plan, found: Sequence[Removal], turned: Sequence[Link]) -> tuple[Link, ...]:
    """Without the links that nobody gave a reason for and that a later stage stands against."""
    stages = _stages(plan, found, turned)
    return tuple(
        link
        for link in turned
        if link.origin != "log" or stages.get(link.before, 0) <= stages.get(link.then, FAR)
    )


def _nodes(
    plan: Plan, found: Sequence[Removal], turned: Sequence[Link]
) -> tuple[list[Node], dict[str, tuple[Removal, Stage]]]:
    """The plan's own steps from Build up on, and one for each removal that none of them puts back.

    A new step stands just ahead of what came off before it, for that goes on after it; one that a
    reason drags into a later stage, right behind what it waits for there.
    """
    stages = _stages(plan, found, turned)
    nodes = {
        step.id: Node(step.id, (STAGE_RANK[step.stage], k * 1000))
        for k, step in enumerate(plan.step)
        if STAGE_RANK[step.stage] >= FIRST
    }
    own = dict(nodes)
    fresh: dict[str, Removal] = {}
    anchor: tuple[int, int] | None = None
    for k, removal in enumerate(found):
        if removal.back:
            anchor = (
                min(nodes[name].rank for name in removal.back if name in nodes)
                if any(n in nodes for n in removal.back)
                else anchor
            )
            continue
        stage = stages[new_id(removal.id)]
        place = anchor[1] - 1 if anchor is not None and anchor[0] == stage else FAR - k
        waited = _waited_for(new_id(removal.id), turned, own, stage)
        if waited is not None and stage > STAGE_RANK["fit_in"]:
            place = waited + 1
        nodes[new_id(removal.id)] = Node(new_id(removal.id), (stage, place))
        fresh[new_id(removal.id)] = removal
        anchor = (stage, place)
    return list(nodes.values()), {
        name: (removal, RANKED[nodes[name].rank[0]]) for name, removal in fresh.items()
    }


def _waited_for(
    name: str, turned: Sequence[Link], own: Mapping[str, Node], stage: int
) -> int | None:
    """The last place in a stage, among the plan's own steps, of what a new step goes on after,
    directly or by other new ones; None where it follows nothing there.
    """
    seen: set[str] = set()
    pending, places = [name], []
    while pending:
        here = pending.pop()
        for link in turned:
            if link.then != here or link.before in seen or link.origin == "log":
                continue
            seen.add(link.before)
            pending.append(link.before)
            node = own.get(link.before)
            if node is not None and node.rank[0] == stage:
                places.append(node.rank[1])
    return max(places, default=None)


def merged_links(
    state: BookState, choices: Choices
) -> tuple[Plan, tuple[Removal, ...], dict[str, tuple[Removal, Stage]], Rebuilt, tuple[Apart, ...]]:
    plan = plan_of(state)
    found = tuple(r for r in removals(state) if r.id not in choices.without)
    back, one_way = refit_links(_links_of(state, plan, found, choices.because))
    turned = _given(plan, found, (*_rung_links(plan, found), *back))
    nodes, fresh = _nodes(plan, found, turned)
    merged = turn_round(
        nodes,
        _sheet_links(plan),
        turned,
        frozenset(choices.take_down),
        {step.id for step in plan.step},
    )
    return (
        plan,
        found,
        fresh,
        merged,
        tuple(Apart(what=o.what, because=o.because, why=o.why) for o in one_way),
    )
