"""What is left open: dangers, loads, temporary states, empty systems, joints begun."""

from hollet.core.book.changed import altered, wires
from hollet.core.book.dangers import live_dangers
from hollet.core.book.fluids import empty_fluids
from hollet.core.book.loads import held_up_by
from hollet.core.book.look_again import BY_DAY, looks_due
from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.book.removals import back_steps
from hollet.core.book.supports import support_view
from hollet.core.entries import BookState, LeftOpen, Line
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.procedure.pieces import Opens
from hollet.core.procedure.sheet import blocks_of
from hollet.core.steps.halfway import half_at
from hollet.core.steps.rows import rows_of
from hollet.core.steps.tighten import joint_facts

__all__ = ["left_open", "temporary_items"]


def left_open(state: BookState) -> tuple[OpenItem, ...]:
    """Live dangers, what is carried by nobody knows what, temporary states, empty systems, joints
    begun and not final, what to look at again: the ledger of the plate.
    """
    return state.remembered(
        ("left_open",),
        state.head,
        lambda: (
            *_dangers(state),
            *temporary_items(state),
            *_empty(state),
            *_joints(state),
            *_look_again(state),
            *_changed(state),
            *_rows(state),
            *_half_in(state),
        ),
    )


def _half_in(state: BookState) -> list[OpenItem]:
    """Units that are stopped short on purpose, until they move on or back."""
    found = []
    for step in plan_of(state).step:
        half = half_at(state, step) if step.moves is not None else None
        if half is None or status_of(state, step).status in SETTLED:
            continue
        found.append(
            open_item(
                id=f"half:{step.id}",
                kind="half",
                what=f"half in, on purpose: {half.why}; held by {half.held}",
                blocks="crank",
                step=step.id,
                clear_at=step.id,
                step_number=step.number,
                stage=step.stage,
                undo="each looks, then it is moved on or back",
                since=half.since,
                who=half.who,
            )
        )
    return found


def _rows(state: BookState) -> list[OpenItem]:
    """Parts that are off the old unit and not final on the new, and those whose step was passed
    over.
    """
    plan, found = plan_of(state), []
    for row in rows_of(state):
        if row.settled or not (row.half or row.passed):
            continue
        step = plan.find_step(row.at)
        found.append(
            open_item(
                id=f"row:{row.id}",
                kind="row",
                what=f"half moved: {row.part}, {row.words}",
                blocks=row.blocks,
                step=row.at,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                undo=f"make it final at {row.at_name}",
            )
        )
    return found


def _changed(state: BookState) -> list[OpenItem]:
    """Wires that are not proven and tied, and changed parts that are asked about again."""
    plan, found = plan_of(state), []
    for wire in wires(state):
        step = plan.find_step(wire.step)
        if wire.next is not None:
            found.append(
                open_item(
                    id=f"wire:{wire.id}",
                    kind="wire",
                    what=f"wire {wire.which}, {wire.place}: {wire.words}",
                    blocks="power_on" if wire.bare else "drive",
                    step=wire.step,
                    step_number=step.number if step else "",
                    stage=step.stage if step else "",
                    undo="join it, prove it, tie it",
                    who=wire.who,
                )
            )
    for part in altered(state):
        step = plan.find_step(part.step)
        if part.asked is not None:
            found.append(
                open_item(
                    id=f"altered:{part.id}",
                    kind="altered",
                    what=f"{part.what}: {part.asked}",
                    blocks="nothing",
                    step=part.step,
                    step_number=step.number if step else "",
                    stage=step.stage if step else "",
                    undo="look at it and say it again",
                    who=part.who,
                )
            )
    return found


def _look_again(state: BookState) -> list[OpenItem]:
    return [
        open_item(
            id=f"look:{due.step}",
            kind="look_again",
            what=due.words,
            blocks="nothing",
            step=due.step,
            step_number=due.number,
            clear_at=due.step,
            clear_number=due.number,
            undo="look again by day",
            box=BY_DAY,
            since=due.since,
            who=due.who,
        )
        for due in looks_due(state)
    ]


def _dangers(state: BookState) -> list[OpenItem]:
    found = [
        open_item(
            id=f"danger:{d.step}:{d.clear_at}",
            kind="danger",
            what=f"{d.title}: {d.words}",
            blocks=d.blocks,
            step=d.step,
            step_number=d.number,
            clear_at=d.clear_at,
            undo=d.box,
            box=d.box,
            since=d.since,
            who=d.who,
        )
        for d in live_dangers(state)
    ]
    found += [
        open_item(
            id=f"load:{body.body}",
            kind="load",
            what=f"{body.name}: nobody said what carries it",
            blocks="crank",
            undo="say what carries it",
        )
        for body in support_view(state).bodies
        if not body.known
    ]
    return found


def temporary_items(state: BookState) -> tuple[OpenItem, ...]:
    plan = plan_of(state)
    found = []
    for item_id, entries in state.names("open"):
        opener = entries[-1]
        if item_id in opener.body.closed():
            continue
        by_hand = opened_by_hand(state, item_id)
        item = opened_item(state, item_id)
        step = plan.find_step(opener.body.at())
        closer = next((s for s in plan.step if item_id in s.closes), None)
        if closer is None and by_hand is not None and step is not None:
            closer = plan.find_step(by_hand.closes_at) or plan.find_step(
                next(iter(back_steps(plan, step)), None)
            )
        found.append(
            open_item(
                id=item_id,
                kind="temporary",
                clear_at=closer.id if closer else None,
                no_closer=closer is None and by_hand is None,
                clear_number=closer.number if closer else "",
                what=item.what,
                blocks=item.blocks,
                step=opener.body.at(),
                undo=item.undo,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                since=opener.time,
                who=opener.who,
                open_for=item.open_for,
                note=item.if_left,
                sort=item.sort,
                where=item.where,
                count=item.count,
                holds_up=_holds_up(state, opener, item),
            )
        )
    return tuple(sorted(found, key=lambda i: i.since))


def opened_by_hand(state: BookState, item_id: str) -> LeftOpen | None:
    """What was left open by hand, where it was a hand that opened it last."""
    left = state.newest(LeftOpen, "open", item_id)
    return left.body if left is not None and left == state.live("open", item_id)[-1] else None


def opened_item(state: BookState, item_id: str) -> Opens:
    """What is open, as the step or the hand that opened it last said it."""
    opener = state.live("open", item_id)[-1].body
    return next(item for item in opener.opened() if item.id == item_id)


def _holds_up(state: BookState, opener: Line, item: Opens) -> str | None:
    """The body that undoing this item asks about: what its step set on something, or whatever is
    blocked or held.
    """
    step = opener.body.at()
    bodies = held_up_by(state, step) if step and not opened_by_hand(state, item.id) else ()
    return bodies[0] if bodies else "other" if item.sort == "block" else None


def _empty(state: BookState) -> list[OpenItem]:
    """Fluids that are out; where the step that fills it is still to come and blocks no later rung,
    that step says so itself.
    """
    plan = plan_of(state)
    found = []
    for empty in empty_fluids(state):
        drained, fills = plan.find_step(empty.drained_at), plan.find_step(empty.filled_at)
        found.append(
            open_item(
                id=f"empty:{empty.fluid}",
                kind="empty",
                what=f"{empty.name}: drained and not filled",
                blocks=empty.blocks,
                step=empty.drained_at,
                step_number=drained.number if drained else "",
                stage=drained.stage if drained else "",
                clear_at=fills.id if fills else None,
                clear_number=fills.number if fills else "",
                undo="fill it",
                since=empty.since,
                who=empty.who,
                no_closer=fills is None,
            )
        )
    return found


def _joints(state: BookState) -> tuple[OpenItem, ...]:
    """Joints begun and not final, and joints whose tightening was passed over: nothing else says
    that they hold.
    """
    plan = plan_of(state)
    found = []
    for joint in plan.joint:
        facts = joint_facts(state, joint)
        step = next((s for s in plan.step if joint.id in s.tightens()), None)
        status = status_of(state, step) if step is not None else None
        passed = (
            status is not None
            and status.status in ("done", "skipped", "not_applicable")
            and not (facts.begun and facts.final)
        )
        if facts.final if facts.begun else not passed:
            continue
        live = state.live("joint", joint.id)
        since, who = (
            (live[0].time, live[0].who)
            if live
            else (status.time, status.who)
            if status is not None
            else ("", "")
        )
        found.append(
            open_item(
                id=f"joint:{joint.id}",
                kind="joint",
                what=f"{joint.name}, {facts.progress}" + ("" if facts.begun else ", passed over"),
                since=since,
                who=who,
                blocks=blocks_of(plan, step) if step else "crank",
                step=step.id if step else None,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                undo=joint.wait_for or "tighten to the last stage",
            )
        )
    return tuple(found)
