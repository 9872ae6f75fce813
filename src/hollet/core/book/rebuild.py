"""The order of rebuilding, made from the log of the take-down and from the sheet's own order; taken
over as a plan edit.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from pydantic import Field

from hollet.core.book.bags import size_words
from hollet.core.book.captures import all_captures
from hollet.core.book.removals import Removal, removals
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.errors import Refused
from hollet.core.procedure.changes import (
    Change,
    OrderChange,
    ReasonChange,
    RetiredChange,
    StepIn,
    apply,
)
from hollet.core.procedure.closings import closers_of
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.pieces import After, Opens
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.reversing import Clash, Link, Node, Off, Rebuilt, refit_links, turn_round
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import RUNGS, STAGE_RANK, Part, Stage, Words
from hollet.core.view import View

__all__ = [
    "Choices",
    "Contradicts",
    "RebuildLine",
    "RebuildView",
    "rebuild_changes",
    "rebuild_view",
]

FIRST = STAGE_RANK["build_up"]
FAR = 10**9
RANKED: dict[int, Stage] = {rank: stage for stage, rank in STAGE_RANK.items()}  # type: ignore[misc]


class Choices(Part):
    """What the mechanic decided of a proposed order: removals that do not go back, who wins in a
    contradiction, reasons given.
    """

    without: tuple[str, ...] = ()
    take_down: tuple[tuple[str, str], ...] = ()
    because: dict[str, Words] = Field(default_factory=dict)


class Why(View):
    """One reason of a line: it goes on after `after`, because; where the reason comes from."""

    after: str
    after_title: str
    because: str
    kind: str
    origin: str


class RebuildLine(View):
    """One step of the order back; `no_reason`: it puts something back, and nobody and nothing says
    what it goes on after.
    """

    step: str
    number: str
    title: str
    stage: str
    new: bool
    removal: str | None
    from_words: str
    bags: tuple[str, ...]
    marks: tuple[str, ...]
    why: tuple[Why, ...]
    done: bool
    not_reversed: str | None
    no_reason: bool


class Contradicts(View):
    """Take-down and sheet say opposite things: both with their reasons, and which is kept."""

    before: str
    then: str
    before_title: str
    then_title: str
    take_down: str
    sheet: str
    kept: str


class Apart(View):
    """A reason that held for coming off only."""

    what: str
    because: str
    why: str


class RebuildView(View):
    """The whole proposal; `new` counts the steps that taking it over puts in."""

    lines: tuple[RebuildLine, ...]
    contradictions: tuple[Contradicts, ...]
    one_way: tuple[Apart, ...]
    off: int
    new: int
    reasons: int
    assumed: int
    taken: bool


def _new_id(removal: str) -> str:
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
            Off(removal.id, removal.what, removal.back or (_new_id(removal.id),), tuple(links))
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


def _open_items(plan: Plan, removal: Removal) -> tuple[Opens, ...]:
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
        for item in _open_items(plan, removal):
            new = _new_id(removal.id)
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
    where it must be open for a rung, and never ahead of what it goes on after.
    """
    stages = {
        step.id: STAGE_RANK[step.stage] for step in plan.step if STAGE_RANK[step.stage] >= FIRST
    }
    fresh = {
        _new_id(r.id): STAGE_RANK[
            "wake"
            if any(i.open_for for i in _open_items(plan, r))
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
            if link.then in fresh and known.get(link.before, 0) > fresh[link.then]
        }
        if not later:
            return known
        fresh |= later


def _nodes(
    plan: Plan, found: Sequence[Removal], turned: Sequence[Link]
) -> tuple[list[Node], dict[str, tuple[Removal, Stage]]]:
    """The plan's own steps from Build up on, and one for each removal that none of them puts back.

    A new step stands just ahead of what came off before it, for that goes on after it.
    """
    stages = _stages(plan, found, turned)
    nodes = {
        step.id: Node(step.id, (STAGE_RANK[step.stage], k * 1000))
        for k, step in enumerate(plan.step)
        if STAGE_RANK[step.stage] >= FIRST
    }
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
        stage = stages[_new_id(removal.id)]
        place = anchor[1] - 1 if anchor is not None and anchor[0] == stage else FAR - k
        nodes[_new_id(removal.id)] = Node(_new_id(removal.id), (stage, place))
        fresh[_new_id(removal.id)] = removal
        anchor = (stage, place)
    return list(nodes.values()), {
        name: (removal, RANKED[nodes[name].rank[0]]) for name, removal in fresh.items()
    }


def _merged(
    state: BookState, choices: Choices
) -> tuple[Plan, tuple[Removal, ...], dict[str, tuple[Removal, Stage]], Rebuilt, tuple[Apart, ...]]:
    plan = plan_of(state)
    found = tuple(r for r in removals(state) if r.id not in choices.without)
    back, one_way = refit_links(_links_of(state, plan, found, choices.because))
    turned = (*_rung_links(plan, found), *back)
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


def rebuild_view(state: BookState, choices: Choices | None = None) -> RebuildView:
    """The order back, with a reason for every "before"."""
    choices = choices or Choices()
    plan, found, fresh, merged, one_way = _merged(state, choices)
    titles = {step.id: f"{step.number} {step.title}" for step in plan.step} | {
        name: _title(r) for name, (r, _) in fresh.items()
    }
    marks = {c.id: c for c in all_captures(state) if c.state not in ("missing", "let go")}
    backs: dict[str, list[Removal]] = {}
    for removal in found:
        for name in removal.back or (_new_id(removal.id),):
            backs.setdefault(name, []).append(removal)
    lines = []
    for name in merged.order:
        step, own = plan.find_step(name), backs.get(name, [])
        why = tuple(
            Why(
                after=x.before,
                after_title=titles[x.before],
                because=x.because,
                kind=x.kind,
                origin=x.origin,
            )
            for x in merged.links
            if x.then == name
        )
        if step is None and name not in fresh:
            continue
        lines.append(
            RebuildLine(
                step=name,
                number=step.number if step else "",
                title=step.title if step else titles[name],
                new=step is None,
                stage=step.stage if step else fresh[name][1],
                removal=fresh[name][0].id if name in fresh else None,
                from_words=", ".join(f"{r.number} {r.what}".strip() for r in own),
                bags=tuple(
                    f"bag {b.bag}: "
                    + ", ".join(f"{c.count} × {size_words(c.size, c.length)}" for c in b.lines)
                    for r in own
                    for b in r.bags
                ),
                marks=tuple(
                    f"{c.kind_words}: {c.what}, {c.words}"
                    for c in marks.values()
                    if c.compare_at == name or (c.step in {r.id for r in own} and not c.compare_at)
                ),
                why=why,
                done=step is not None and status_of(state, step).status in SETTLED,
                not_reversed=_not_reversed(plan, step, own, name in merged.not_reversed),
                no_reason=bool(own) and all(w.origin == "log" for w in why),
            )
        )
    clashes = [clash for clash in merged.clashes if _said(clash)]
    return RebuildView(
        lines=tuple(lines),
        contradictions=tuple(_contradicts(clash, titles, choices) for clash in clashes),
        one_way=one_way,
        off=len(found),
        new=len(fresh),
        reasons=sum(len(line.why) for line in lines),
        assumed=sum(w.origin == "log" for line in lines for w in line.why),
        taken=not fresh and bool(found),
    )


def _said(clash: Clash) -> bool:
    """Whether somebody gave both reasons: the bare order of coming off contradicts nothing."""
    return clash.dropped.origin != "log" and all(link.origin != "log" for link in clash.kept)


def _title(removal: Removal) -> str:
    what = removal.what
    for off in (" off", " out", " undone", " removed"):
        if what.casefold().endswith(off):
            what = what[: -len(off)]
    return f"{what}: back on"


def _not_reversed(plan: Plan, step: Step | None, own: Sequence[Removal], moved: bool) -> str | None:
    said = [
        text
        for r in own
        if (source := plan.find_step(r.id)) is not None and (text := source.not_reversed)
    ]
    said += [step.not_reversed] if step is not None and step.not_reversed else []
    if said:
        return said[0]
    return "not in the reverse order: the reasons beside it say why" if moved else None


def _contradicts(clash: Clash, titles: Mapping[str, str], choices: Choices) -> Contradicts:
    """A clash in words, always told as: the take-down wants `before` first, the sheet the other way
    round.
    """
    dropped, kept = clash.dropped, clash.kept
    if dropped.origin == "sheet":
        a, b = dropped.then, dropped.before
        take_down = kept[0].because if kept else "chosen by hand"
        return Contradicts(
            before=a,
            then=b,
            before_title=titles.get(a, a),
            then_title=titles.get(b, b),
            take_down=take_down,
            sheet=dropped.because,
            kept="take_down",
        )
    opposite = "; ".join(
        f"{titles.get(x.then, x.then)} after {titles.get(x.before, x.before)}: {x.because}"
        for x in kept
    )
    return Contradicts(
        before=dropped.before,
        then=dropped.then,
        before_title=titles.get(dropped.before, dropped.before),
        then_title=titles.get(dropped.then, dropped.then),
        take_down=dropped.because,
        sheet=opposite or "the stages come in another order",
        kept="sheet",
    )


def rebuild_changes(state: BookState, choices: Choices) -> tuple[Change, ...]:
    """What taking the order over changes in the plan.

    Raises
    ------
    Refused
        `nothing_off`: nothing has come off; `nothing_new`: the plan has it all already;
        `contradiction`.
    """
    _, found, fresh, merged, _ = _merged(state, choices)
    if not found:
        raise Refused(
            "nothing_off", "nothing has come off yet: log what comes off first", field="choices"
        )
    whole = state.whole
    assert whole is not None
    changes: list[Change] = []
    stage_of = {step.id: step.stage for step in whole.step}
    place = {name: k for k, name in enumerate(merged.order)}
    for name in merged.order:
        if name in fresh:
            removal, stage = fresh[name]
            stage_of[name] = stage
            if (
                whole.find_step(name) is not None
            ):  # it was put in before and taken out on the plan desk
                changes.append(RetiredChange(step=name, after=False))
                continue
            behind = next(
                (n for n in reversed(merged.order[: place[name]]) if stage_of.get(n) == stage), None
            )
            changes.append(
                StepIn(
                    step=_step_for(whole, changes, removal, stage, behind, merged.links),
                    behind=behind,
                )
            )
    new = {step.id for change in changes if (step := change.put_in()) is not None}
    for link in merged.links:
        step = whole.find_step(link.then)
        if link.then in new or step is None:
            continue
        known = next((a for a in step.after if a.step == link.before), None)
        if known is None:
            changes.append(ReasonChange(step=link.then, after=_after(link)))
    for clash in merged.clashes:
        gone = clash.dropped
        step = whole.find_step(gone.then)
        known = (
            next((a for a in step.after if a.step == gone.before), None)
            if step is not None and gone.origin == "sheet"
            else None
        )
        if known is not None:
            changes.append(ReasonChange(step=gone.then, before=known))
    if not changes:
        raise Refused(
            "nothing_new",
            "the plan holds this order already: nothing to take over",
            field="choices",
        )
    after = apply(whole, changes)
    found_circle = contradiction(after.step)
    if found_circle:
        raise Refused(
            "contradiction",
            f"the order contradicts itself: {found_circle.words()}",
            field="choices",
        )
    at, slots = {step.id: step for step in after.step}, iter(merged.order)
    listed = [
        at[next(slots)] if step.id in place else step for step in after.step
    ]  # what does not apply stays where it is
    was, now = tuple(s.id for s in after.step), tuple(s.id for s in in_order(listed))
    return tuple(changes) if was == now else (*changes, OrderChange(before=was, after=now))


def _after(link: Link) -> After:
    origin = {"log": "assumed", "rung": "sheet"}.get(link.origin, link.origin)
    return After.model_validate(
        {
            "step": link.before,
            "because": link.because[:400],
            "kind": link.kind,
            "assumed": link.origin == "log",
            "origin": origin,
        }
    )


def _step_for(
    plan: Plan,
    changes: Sequence[Change],
    removal: Removal,
    stage: Stage,
    behind: str | None,
    links: Sequence[Link],
) -> CheckStep:
    bags = "; ".join(
        f"bag {b.bag}, " + ", ".join(f"{c.count} × {size_words(c.size, c.length)}" for c in b.lines)
        for b in removal.bags
    )
    where = f" It lies {removal.place}." if removal.place else ""
    do = (
        f"Back on what came off as {removal.what}."
        + (f" Fasteners: {bags}." if bags else "")
        + where
    )
    after = tuple(_after(x) for x in links if x.then == _new_id(removal.id))
    items = _open_items(plan, removal)
    order = [*RUNGS, "nothing"]
    blocks = min((item.blocks for item in items), key=order.index, default=None)
    title = _title(removal)
    return CheckStep(
        id=_new_id(removal.id),
        stage=stage,
        kind="fit",
        title=title[:400],
        short=title[:24],
        do=do[:2000],
        refits=(removal.id,),
        closes=tuple(item.id for item in items),
        blocks=blocks,
        after=after,
        number=_number(plan, changes, stage, behind),
    )


def _number(plan: Plan, changes: Sequence[Change], stage: Stage, behind: str | None) -> str:
    """Behind a step its number and a letter; in a stage that has no steps yet, plain numbers."""
    put_in = {s.id: s.number for change in changes if (s := change.put_in()) is not None}
    used = {step.number for step in plan.step} | set(put_in.values())
    numbers: dict[str, str] = {step.id: step.number for step in plan.step} | put_in
    base = numbers.get(behind or "", "").rstrip("abcdefghijklmnopqrstuvwxyz")
    if base and any(step.number == base for step in plan.step):
        letters = "abcdefghijklmnopqrstuvwxyz"
        names = [*letters, *(a + b for a in letters for b in letters)]
        return str(next(base + letter for letter in names if base + letter not in used))
    plain = (f"{STAGE_RANK[stage] + 1}.{k:02d}" for k in range(1, 700))
    return next(number for number in plain if number not in used)
