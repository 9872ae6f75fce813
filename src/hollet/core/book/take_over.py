"""The order back taken over as the plan: steps put in, with their numbers and reasons."""

from collections.abc import Iterator, Mapping, Sequence

from hollet.core.book.bags import size_words
from hollet.core.book.order_back import Choices, back_title, merged_links, new_id, still_open
from hollet.core.book.removals import Removal
from hollet.core.entries import BookState
from hollet.core.errors import Refused
from hollet.core.procedure.changes import (
    Change,
    OrderChange,
    ReasonChange,
    RetiredChange,
    StepIn,
    apply,
)
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.numbering import LETTERS, Numbering
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.reversing import Link, Rebuilt
from hollet.core.procedure.words import RUNGS, Stage

__all__ = ["rebuild_changes"]


def rebuild_changes(state: BookState, choices: Choices) -> tuple[Change, ...]:
    """What taking the order over changes in the plan.

    Raises
    ------
    Refused
        `nothing_off`: nothing has come off; `nothing_new`: the plan has it all already;
        `contradiction`.
    """
    _, found, fresh, merged, _ = merged_links(state, choices)
    if not found:
        raise Refused(
            "nothing_off", "nothing has come off yet: log what comes off first", field="choices"
        )
    whole = state.whole
    assert whole is not None
    put_in = _put_in(whole, fresh, merged)
    changes = (*put_in, *_reasons(whole, merged, put_in), *_reasons_dropped(whole, merged))
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
    at, slots, moved = {s.id: s for s in after.step}, iter(merged.order), set(merged.order)
    # what does not apply stays where it is
    listed = [at[next(slots)] if step.id in moved else step for step in after.step]
    was, now = tuple(s.id for s in after.step), tuple(s.id for s in in_order(listed))
    return changes if was == now else (*changes, OrderChange(before=was, after=now))


def _put_in(
    whole: Plan, fresh: Mapping[str, tuple[Removal, Stage]], merged: Rebuilt
) -> tuple[Change, ...]:
    """The steps that the plan does not have, each behind the one before it in its stage; one that
    was put in before and taken out on the plan desk comes back.
    """
    changes: list[Change] = []
    stage_of = {step.id: step.stage for step in whole.step}
    for place, name in enumerate(merged.order):
        if name not in fresh:
            continue
        removal, stage = fresh[name]
        stage_of[name] = stage
        if whole.find_step(name) is not None:
            changes.append(RetiredChange(step=name, after=False))
            continue
        earlier = reversed(merged.order[:place])
        behind = next((n for n in earlier if stage_of.get(n) == stage), None)
        step = _step_for(whole, changes, removal, stage, behind, merged.links)
        changes.append(StepIn(step=step, behind=behind))
    return tuple(changes)


def _reasons(whole: Plan, merged: Rebuilt, put_in: Sequence[Change]) -> Iterator[Change]:
    """Reasons that steps of the plan have gained; a step put in brings its own."""
    new = {step.id for change in put_in if (step := change.put_in()) is not None}
    for link in merged.links:
        step = whole.find_step(link.then)
        if link.then in new or step is None:
            continue
        if all(known.step != link.before for known in step.after):
            yield ReasonChange(step=link.then, after=_after(link))


def _reasons_dropped(whole: Plan, merged: Rebuilt) -> Iterator[Change]:
    """Reasons of the sheet that the take-down was kept against."""
    for clash in merged.clashes:
        gone = clash.dropped
        step = whole.find_step(gone.then)
        if step is None or gone.origin != "sheet":
            continue
        known = next((a for a in step.after if a.step == gone.before), None)
        if known is not None:
            yield ReasonChange(step=gone.then, before=known)


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
    after = tuple(_after(x) for x in links if x.then == new_id(removal.id))
    items = still_open(plan, removal)
    order = [*RUNGS, "nothing"]
    blocks = min((item.blocks for item in items), key=order.index, default=None)
    title = back_title(removal)
    return CheckStep(
        id=new_id(removal.id),
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
    numbers: dict[str, str] = {step.id: step.number for step in plan.step} | put_in
    numbering = Numbering(numbers.values())
    known = numbers.get(behind or "")
    plain = {step.number for step in plan.step}
    if known and known.rstrip(LETTERS) in plain:
        return numbering.behind(known)
    return numbering.plain(stage)
