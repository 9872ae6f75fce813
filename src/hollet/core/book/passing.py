"""What stands in the way of a step, and what alone may pass it. The one rule of passing: asked
before an act is written, and again whenever
a status, gate or load is computed.

Order is passed by a reason. A danger (`procedure.sheet.is_danger`) is passed by nothing but the
thing itself: the step before it done, or done
in another way with its box pressed, or the thing not there. A caution's box is pressed, never
argued away. What an old log passed all the
same stays done, proves nothing, and its danger is named until a later fact ends it."""

from collections.abc import Sequence
from datetime import timedelta
from typing import Literal

from pydantic import computed_field

from hollet.core.book.boxes import link_box, live_words, moment
from hollet.core.book.dangers import proven, target_of
from hollet.core.entries import BookState, Done, Line, Started, Surroundings
from hollet.core.entries.status import (
    SETTLED,
    last_as,
    plan_of,
    settled_steps,
    statuses,
    whole_of,
)
from hollet.core.procedure.pieces import After
from hollet.core.procedure.precedence import all_before
from hollet.core.procedure.sheet import Step, is_danger
from hollet.core.quantities.parse import parse
from hollet.core.view import View

__all__ = [
    "Obstacle",
    "Waiting",
    "current_step",
    "drying",
    "passed_by_words",
    "reason_keys",
    "unsettled_before",
    "waiting_for",
]

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
    "part": (
        "another one went in, it is looked at later",
        "it goes in later, on purpose",
        "it is not needed on this job",
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

    @computed_field
    @property
    def by_load(self) -> bool:
        """Whether somebody must say what carries it."""
        return self.by == "load"

    @computed_field
    @property
    def by_reason(self) -> bool:
        """Whether a reason passes it."""
        return self.by == "reason"

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


def reason_keys(kind: str) -> tuple[str, ...]:
    """The reasons that one touch gives for passing something of this kind."""
    return KEYS.get(kind, KEYS["unfinished"])


COLD_TIMES, DAMP_TIMES = 2.0, 1.5
"""How much longer a wait lasts in the cold, and in the damp: rules of thumb (ten kelvin less halve
the pace of a cure; damp air takes up less vapour), always marked assumed.
"""


def slower(state: BookState, how: str, since: int) -> tuple[float, str]:
    """By how much a wait that began with the line `since` is longer than it says, and why: it was
    cold for some of it, or damp. What cools is quicker in the cold, and is not made shorter.
    """
    told = state.each(Surroundings, "surroundings")
    before = [e for e in told if e.seq < since][-1:]
    said = {word for e in (*before, *(e for e in told if e.seq > since)) for word in e.body.around}
    cold = "cold" in said and how in ("dries", "cures", "soaks")
    damp = "damp" in said and how == "dries"
    names = " and ".join(word for word, so in (("cold", cold), ("damp", damp)) if so)
    times = (COLD_TIMES if cold else 1.0) * (DAMP_TIMES if damp else 1.0)
    return times, f"{times:g} times as long as it is {names}" if names else ""


def drying(state: BookState, link: After, now: str) -> tuple[str, str] | None:
    """What a step still dries or soaks for: until when (UTC) and in words; None when it had its
    time.
    """
    last = last_as(state, link.step, Done) if link.kind == "drying" else None
    if last is None:
        return None
    given = parse(link.lasts, "time").nominal if link.lasts else None
    hours = float(given) / 3600 if given is not None else DRYING_H
    times, because = slower(state, link.how, last.seq)
    hours *= times
    until = moment(last.time) + timedelta(hours=hours)
    if moment(now) >= until:
        return None
    left = (until - moment(now)).total_seconds() / 3600
    words = f"{max(left, 0.1):.2g} h left of {hours:g} h" + (
        "" if given is not None else ", one night assumed"
    )
    words += f", {because}, assumed" if because else ""
    return until.isoformat(timespec="seconds").replace("+00:00", "Z"), words


def waiting_for(state: BookState, step_id: str, now: str) -> tuple[Waiting, ...]:
    """What a step still waits for, dangers first, with the reasons."""
    plan, whole = plan_of(state), whole_of(state)
    step = plan.find_step(step_id)
    if step is None:
        return ()
    settled = settled_steps(state)
    begun = tuple(
        words for entry in state.each(Started, "step", step_id) for words in entry.body.passed
    )
    found = []
    for link in step.after:
        target = target_of(state, whole, link)
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
            if not proven(state, link.step) or _not_so_any_more(state, target, step):
                found.append(
                    Waiting(
                        **about,
                        danger=True,
                        live=live_words(link, target),
                        box=link_box(link, target),
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


def _not_so_any_more(state: BookState, target: Step, step: Step) -> bool:
    """What the step left so (the lead off, the stands in) was undone again; a step that ends it
    and that the one that waits waits for too has its place there.
    """
    for item in target.opens:
        entries = state.live("open", item.id)
        undone = bool(entries) and not any(o.id == item.id for o in entries[-1].body.opened())
        if undone and not _ended_on_its_way(state, entries[-1], step):
            return True
    return False


def _ended_on_its_way(state: BookState, ended: Line, step: Step) -> bool:
    closer = ended.body.at()
    if closer is None or last_as(state, closer, Done) is not ended:
        return False
    return closer in all_before(whole_of(state), step.id)


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


def current_step(state: BookState, now: str) -> str:
    """Where am I: the step last worked on if it is not settled, else the first open one that waits
    for nothing.
    """
    plan, all_statuses = plan_of(state), statuses(state)
    for entry in state.last_lines(200):
        step = entry.body.at()
        if step is not None and step in all_statuses:
            if all_statuses[step].status not in SETTLED:
                return step
            break
    open_steps: Sequence[Step] = [
        step for step in plan.step if all_statuses[step.id].status not in SETTLED
    ]
    free = next((step.id for step in open_steps if not waiting_for(state, step.id, now)), None)
    return free or (open_steps[0].id if open_steps else plan.step[-1].id)
