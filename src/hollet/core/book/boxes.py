"""Boxes: what is looked at and pressed, and when it has to be pressed again."""

from datetime import datetime, timedelta

from hollet.core.entries import BookState, Confirmed, Line, Reopened, Stopped, Supported, Undone
from hollet.core.entries.status import whole_of
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step, is_danger

__all__ = [
    "BOX_HOURS",
    "box_of",
    "guards",
    "kind_of_box",
    "link_box",
    "live_words",
    "moment",
    "not_pressed",
    "seen_box",
    "seen_since",
]

BOX_HOURS = 12


def box_of(step: BaseStep) -> str | None:
    """The box of a step's caution."""
    return step.caution.confirm if step.caution is not None else None


def seen_box(step: BaseStep) -> str:
    """What is pressed where the sheet gives no box: the step's own words, seen now."""
    return f"{step.title}: seen now"


def link_box(link: After, target: BaseStep) -> str:
    return link.box or box_of(target) or seen_box(target)


def live_words(link: After, target: BaseStep) -> str:
    return link.live or f"not so: {target.title[0].lower()}{target.title[1:]}; {link.because}"


def guards(plan: Plan, step_id: str) -> tuple[tuple[BaseStep, After], ...]:
    """The steps that wait for this one as for a danger, with their links."""
    return tuple(
        (s, link)
        for s in plan.step
        for link in s.after
        if link.step == step_id and is_danger(plan, link)
    )


def kind_of_box(state: BookState, step: Step) -> str | None:
    """The box that must be pressed to call the step done in another way: its caution's, or its own
    words where a danger waits for it.
    """
    return box_of(step) or (seen_box(step) if guards(whole_of(state), step.id) else None)


def moment(text: str) -> datetime:
    return datetime.fromisoformat(text)


def _touched(state: BookState, step: BaseStep, press: Line, until: int) -> bool:
    """Whether a stop, a reopening, an undoing or a support taken away touched the step between a
    press and the line `until`.
    """

    def between(entry: Line) -> bool:
        return press.seq < entry.seq < until

    if any(between(e) for e in state.each(Stopped, "stop")):
        return True
    near = {step.id, *(link.step for link in step.after)}
    if any(between(e) for name in near for e in state.each(Reopened, "step", name)):
        return True
    whole = whole_of(state)
    items = {
        *step.requires,
        *(item.id for name in near if (s := whole.find_step(name)) is not None for item in s.opens),
    }
    if any(between(e) for item in items for e in state.each(Undone, "open", item)):
        return True
    bodies = {c.body for c in step.carries} | {r.body for r in step.releases}
    return any(
        e.body.gone and e.body.carries in bodies and between(e)
        for e in state.each(Supported, "load")
    )


def not_pressed(
    state: BookState, step: BaseStep, box: str, now: str, until: int | None = None
) -> bool:
    """Whether a box has to be pressed (again): never pressed, more than 12 hours ago, or something
    touched it since.

    Parameters
    ----------
    now : the moment for which it must hold, UTC in ISO 8601.
    until : only presses before this line count; all where absent.
    """
    end = until if until is not None else state.head + 1
    press = next(
        (
            e
            for e in reversed(state.each(Confirmed, "step", step.id))
            if e.body.what == box and e.seq < end
        ),
        None,
    )
    return (
        press is None
        or moment(now) - moment(press.time) > timedelta(hours=BOX_HOURS)
        or _touched(state, step, press, end)
    )


def seen_since(state: BookState, step_id: str, box: str, seq: int) -> bool:
    presses = state.each(Confirmed, "step", step_id)
    return any(e.body.what == box and e.seq > seq for e in presses)
