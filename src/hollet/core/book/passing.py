"""What stands in the way of a step, and what alone may pass it. The one rule of passing: asked
before an act is written, and again whenever
a status, gate or load is computed.

Order is passed by a reason. A danger (`procedure.sheet.is_danger`) is passed by nothing but the
thing itself: the step before it done, or done
in another way with its box pressed, or the thing not there. A caution's box is pressed, never
argued away. What an old log passed all the
same stays done, proves nothing, and its danger is named until a later fact ends it.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Literal

from hollet.core.entries import (
    BookState,
    Confirmed,
    Done,
    Entry,
    Happened,
    Line,
    NotThere,
    Reopened,
    Started,
    Stopped,
    Supported,
    Undone,
)
from hollet.core.entries.status import (
    SETTLED,
    StepStatus,
    last_as,
    plan_of,
    settled_steps,
    status_of,
    statuses,
    whole_of,
)
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step, is_danger
from hollet.core.quantities.parse import parse
from hollet.core.view import View

__all__ = [
    "BOX_HOURS",
    "Danger",
    "Obstacle",
    "Waiting",
    "box_of",
    "current_step",
    "drying",
    "guards",
    "kind_of_box",
    "live_dangers",
    "not_pressed",
    "passed_by_words",
    "proven",
    "reason_keys",
    "unsettled_before",
    "waiting_for",
]

BOX_HOURS = 12
DRYING_H = 8.0
"""How long a drying takes where the sheet does not say: one night, assumed."""
KEYS: dict[str, tuple[str, ...]] = {
    "access closes": (
        "it can still be reached from here",
        "it was off already before this job",
        "both came off together",
    ),
    "setting kept": (
        "the setting is not wanted any more",
        "it is measured and set anew later",
        "it was lost before this job",
    ),
    "contamination": (
        "cleaned just here, the rest later",
        "covered, nothing can fall in",
        "it is washed again afterwards",
    ),
    "drying": (
        "it had its time before this job",
        "it came off without soaking",
        "a faster product, by its label",
    ),
    "spill": (
        "caught in a tray beneath it",
        "drained before this job",
        "next to nothing was left in it",
    ),
    "unfinished": (
        "it is done in another way",
        "it is not needed on this job",
        "it is done later, on purpose",
    ),
    "skip": (
        "it is not needed on this job",
        "it was done before this job",
        "it is done later, on purpose",
    ),
    "capture": (
        "nothing to be seen there any more",
        "a new part goes in",
        "it is known from the other side",
    ),
    "last_chance": (
        "looked at, and good",
        "it was renewed not long ago",
        "not worth it on this vehicle",
    ),
    "gate": ("what is open does no harm here", "for a trial of some seconds only"),
    "bag": ("they stay in the part", "there were none in it", "they go into a bag later"),
    "bolt": ("the maker says so for this bolt", "a new bolt goes in later, on purpose"),
}
"""Reasons that one large key gives, by what is passed; never for a danger."""


class Obstacle(View):
    """One thing in the way: what is so, in words, and what alone passes it.

    `by` is `reason` (order: words or a key), `press` (the box `box`, seen now), `thing` (the step
    `step` done, or done in another way, or
    not there), `load` (say what carries it), or `nothing` (finish it).
    """

    code: str
    words: str
    by: Literal["reason", "press", "thing", "load", "nothing"]
    box: str | None = None
    step: str | None = None
    number: str = ""
    title: str = ""
    keys: tuple[str, ...] = ()


class Waiting(View):
    """A step that must be done first, and why; of a danger what is live while it is not, and the
    box that says it was dealt with.
    """

    step: str
    number: str
    title: str
    because: str
    kind: str = "safety"
    danger: bool = False
    live: str = ""
    box: str = ""
    until: str | None = None
    origin: str = "sheet"


class Danger(View):
    """A danger that is live: something was done or happened, and what should have come before it
    was not so. Ends by a later fact.
    """

    step: str
    number: str
    title: str
    words: str
    box: str
    blocks: str
    since: str
    who: str
    clear_at: str


def reason_keys(kind: str) -> tuple[str, ...]:
    """The reasons that one touch gives for passing something of this kind."""
    return KEYS.get(kind, KEYS["unfinished"])


def box_of(step: BaseStep) -> str | None:
    """The box of a step's caution."""
    return step.caution.confirm if step.caution is not None else None


def _seen_box(step: BaseStep) -> str:
    """What is pressed where the sheet gives no box: the step's own words, seen now."""
    return f"{step.title}: seen now"


def _link_box(link: After, target: BaseStep) -> str:
    return link.box or box_of(target) or _seen_box(target)


def _live_words(link: After, target: BaseStep) -> str:
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
    return box_of(step) or (_seen_box(step) if guards(whole_of(state), step.id) else None)


def _moment(text: str) -> datetime:
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
        or _moment(now) - _moment(press.time) > timedelta(hours=BOX_HOURS)
        or _touched(state, step, press, end)
    )


def _seen_since(state: BookState, step_id: str, box: str, seq: int) -> bool:
    presses = state.each(Confirmed, "step", step_id)
    return any(e.body.what == box and e.seq > seq for e in presses)


def proven(state: BookState, step_id: str) -> bool:
    """Whether facts that stand now prove a step: done and its own dangers dealt with, or the thing
    not there.
    """
    return _proofs(state).get(step_id, False)


def _proofs(state: BookState) -> dict[str, bool]:
    return state.remembered(("proofs",), state.head, lambda: _find_proofs(state))


def _find_proofs(state: BookState) -> dict[str, bool]:
    whole = whole_of(state)
    known: dict[str, bool] = {}
    waited = {link.step for step in whole.step for link in step.after if is_danger(whole, link)}

    def proof(step_id: str) -> bool:
        if step_id not in known:
            known[step_id] = False  # a circle proves nothing
            step = whole.find_step(step_id)
            known[step_id] = step is not None and holds(step)
        return known[step_id]

    def holds(step: Step) -> bool:
        if last_as(state, step.id, NotThere) is not None:
            return True
        done = last_as(state, step.id, Done)
        if done is None or status_of(state, step).status != "done":
            return False
        box = _asked_box(step, done, step.id in waited)
        return not _unguarded(state, whole, step, done, box, proof)

    for step in whole.step:
        proof(step.id)
    return known


def _asked_box(step: Step, done: Entry[Done] | None, waited: bool) -> str | None:
    """The box that a step needs: its own, or what is seen where it was done in another way."""
    other_way = waited and done is not None and done.body.reason and done.body.passed != ()
    return box_of(step) or (_seen_box(step) if other_way else None)


def _unguarded(
    state: BookState, whole: Plan, step: Step, last: Line, box: str | None, proof: object
) -> list[tuple[str, str, str]]:
    """What a done or happened step passed and nothing has ended since, as (what is live, the box
    that ends it, where it is cleared).
    """
    found = []
    if (
        box is not None
        and not_pressed(state, step, box, last.time, last.seq)
        and not _seen_since(state, step.id, box, last.seq)
    ):
        found.append((f"not seen: {box}", box, step.id))
    for link in step.after:
        target = _target(state, whole, link)
        if target is None or not is_danger(whole, link) or proof(link.step):  # type: ignore[operator]
            continue
        ends = _link_box(link, target)
        if not _seen_since(state, step.id, ends, last.seq):
            found.append((_live_words(link, target), ends, target.id))
    return found


def _target(state: BookState, whole: Plan, link: After) -> Step | None:
    """The step that a link waits for: one of the plan, or one taken out by hand; what a fact or way
    leaves out is said not to be there.
    """
    here = plan_of(state).find_step(link.step)
    return (
        here
        if here is not None
        else whole.find_step(link.step)
        if link.step in whole.retired
        else None
    )


def live_dangers(state: BookState) -> tuple[Danger, ...]:
    """Every danger that was passed and is live: named in header and gate until it is ended, or what
    was done is back as it was.
    """
    return state.remembered(("dangers",), state.head, lambda: _find_dangers(state))


def _find_dangers(state: BookState) -> tuple[Danger, ...]:
    from hollet.core.book.removals import back_steps  # removals ask for statuses, as this room does

    plan, whole, proofs = plan_of(state), whole_of(state), _proofs(state)
    waited = {link.step for step in whole.step for link in step.after if is_danger(whole, link)}
    found = []
    for step in plan.step:
        done = last_as(state, step.id, Done)
        last: Line | None = done or last_as(state, step.id, Happened)
        if last is None:
            continue
        back = back_steps(plan, step)
        if back and all(_done_after(state, name, last.seq) for name in back):
            continue
        asked = _asked_box(step, done, step.id in waited)
        for words, box, clear in _unguarded(state, whole, step, last, asked, proofs.get):
            found.append(
                Danger(
                    step=step.id,
                    number=step.number,
                    title=step.title,
                    words=words,
                    box=box,
                    blocks="power_on",
                    since=last.time,
                    who=last.who,
                    clear_at=clear,
                )
            )
    return tuple(found)


def _done_after(state: BookState, step_id: str, seq: int) -> bool:
    done = last_as(state, step_id, Done)
    return done is not None and done.seq > seq


def drying(state: BookState, link: After, now: str) -> tuple[str, str] | None:
    """What a step still dries or soaks for: until when (UTC) and in words; None when it had its
    time.
    """
    last = last_as(state, link.step, Done) if link.kind == "drying" else None
    if last is None:
        return None
    given = parse(link.lasts, "time").nominal if link.lasts else None
    hours = float(given) / 3600 if given is not None else DRYING_H
    until = _moment(last.time) + timedelta(hours=hours)
    if _moment(now) >= until:
        return None
    left = (until - _moment(now)).total_seconds() / 3600
    words = f"{max(left, 0.1):.2g} h left of {hours:g} h" + (
        "" if given is not None else ", one night assumed"
    )
    return until.isoformat(timespec="seconds").replace("+00:00", "Z"), words


def waiting_for(
    state: BookState, step_id: str, now: str, known: dict[str, StepStatus] | None = None
) -> tuple[Waiting, ...]:
    """What a step still waits for, dangers first, with the reasons."""
    plan, whole = plan_of(state), whole_of(state)
    step = plan.find_step(step_id)
    if step is None:
        return ()
    settled = settled_steps(known if known is not None else statuses(state))
    begun = tuple(
        words for entry in state.each(Started, "step", step_id) for words in entry.body.passed
    )
    found = []
    for link in step.after:
        target = _target(state, whole, link)
        if target is None:
            continue
        about = {
            "step": target.id,
            "number": target.number,
            "title": target.title,
            "because": link.because,
            "kind": link.kind,
            "origin": link.origin if not link.assumed else "assumed",
        }
        if is_danger(whole, link):
            if not proven(state, link.step) or _not_so_any_more(state, target):
                found.append(
                    Waiting(
                        **about,
                        danger=True,
                        live=_live_words(link, target),
                        box=_link_box(link, target),
                    )
                )
        elif any(
            words.startswith(_waits_for(target.number, target.title, link.because))
            for words in begun
        ):
            continue  # begun before it, with a reason
        elif link.step in whole.retired or link.step in settled:
            soaking = drying(state, link, now)
            if soaking is not None:
                found.append(
                    Waiting(
                        **{**about, "because": f"{link.because}; {soaking[1]}"}, until=soaking[0]
                    )
                )
        else:
            found.append(Waiting(**about))
    return tuple(sorted(found, key=lambda w: not w.danger))


def _waits_for(number: str, title: str, because: str) -> str:
    return f"waits for {number} {title}: {because}"


def _not_so_any_more(state: BookState, target: Step) -> bool:
    """What the step left so (the lead off, the stands in) was undone again."""
    return any(
        (entries := state.live("open", item.id))
        and not any(o.id == item.id for o in entries[-1].body.opened())
        for item in target.opens
    )


def unsettled_before(state: BookState, step: Step, now: str) -> list[Obstacle]:
    """What a step waits for, as obstacles."""
    found = []
    for wait in waiting_for(state, step.id, now):
        at = {"step": wait.step, "number": wait.number, "title": wait.title}
        if wait.danger:
            found.append(Obstacle(code="danger", words=wait.live, by="thing", box=wait.box, **at))
        else:
            found.append(
                Obstacle(
                    code="must_wait",
                    words=_waits_for(wait.number, wait.title, wait.because),
                    by="reason",
                    keys=reason_keys(wait.kind),
                    **at,
                )
            )
    return found


def passed_by_words(obstacle: Obstacle) -> str:
    """What alone passes an obstacle, as the end of a sentence."""
    if obstacle.by == "thing":
        return (
            f"Do {obstacle.number} first, or say there that it was done in another way and "
            "press its box, or that it is not there"
        )
    words = {
        "press": "Look, and press it",
        "load": "Say first what carries it",
        "reason": "Do that first, or give a reason",
        "nothing": "Finish it first",
    }
    return words[obstacle.by]


def current_step(state: BookState, now: str, all_statuses: dict[str, StepStatus]) -> str:
    """Where am I: the step last worked on if it is not settled, else the first open one that waits
    for nothing.
    """
    plan = plan_of(state)
    for entry in state.last_lines(200):
        step = entry.body.at()
        if step is not None and step in all_statuses:
            if all_statuses[step].status not in SETTLED:
                return step
            break
    open_steps: Sequence[Step] = [
        step for step in plan.step if all_statuses[step.id].status not in SETTLED
    ]
    free = next(
        (step.id for step in open_steps if not waiting_for(state, step.id, now, all_statuses)), None
    )
    return free or (open_steps[0].id if open_steps else plan.step[-1].id)
