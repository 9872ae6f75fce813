"""Secure now: what to make safe when work stops at once, who must leave, and the card to come back
to.

The order is that of harm: people from under the load, then the load, then fuel, then openings, then
what the weather takes.
"""

from hollet.core.book.around import around_now
from hollet.core.book.dangers import live_dangers
from hollet.core.book.ledger import OpenItem, left_open
from hollet.core.book.passing import current_step
from hollet.core.book.spoken import spoken_notes
from hollet.core.book.supports import support_view
from hollet.core.entries import BookState, Entry, GoneOn, Secured, Stopped
from hollet.core.entries.status import plan_of
from hollet.core.steps.run import attempts_of
from hollet.core.view import View

__all__ = ["SecureItem", "SecureView", "is_stopped", "secure_view"]

GOING = {"up": "going up", "down": "going down", "in": "going in", "out": "coming out"}


class SecureItem(View):
    """One thing to make safe; `key` names it in the log.

    One that is not `own` is done by the facts alone, and no press ticks it.
    """

    key: str
    what: str
    because: str
    done: bool
    own: bool = True


class SecureView(View):
    """The list, whether work is stopped, and the card.

    `made_safe` only when every item is done and it is known what carries each load, and fit; else
    `not_safe` says why.
    """

    stopped: bool
    why: str
    since: str
    who: str
    going: str
    hurt: str | None
    near_miss: str | None
    people_left: int | None
    items: tuple[SecureItem, ...]
    leave: tuple[str, ...]
    card: tuple[str, ...]
    step: str
    said: tuple[str, ...]
    made_safe: bool
    not_safe: str


def _last_stop(state: BookState) -> Entry[Stopped] | None:
    """The stop that work has not gone on from."""
    stop, on = state.newest(Stopped, "stop"), state.newest(GoneOn, "stop")
    return stop if stop is not None and (on is None or on.seq < stop.seq) else None


def is_stopped(state: BookState) -> bool:
    """Whether work is stopped and has not gone on."""
    return _last_stop(state) is not None


def secure_view(state: BookState, now: str) -> SecureView:
    """The list from the state at the moment `now` (UTC, ISO 8601)."""
    plan, support = plan_of(state), support_view(state)
    stops, stop = state.each(Stopped, "stop"), _last_stop(state)
    ticked = {
        e.body.item for e in state.each(Secured, "stop") if stop is not None and e.seq > stop.seq
    }
    step = plan.find_step(current_step(state, now))
    assert step is not None
    opened = left_open(state)
    hanging = [body for body in support.bodies if body.hangs or not body.stays]
    raised = any(p.carries == "vehicle" and p.kind != "wheels" for p in support.supports)
    items: list[SecureItem] = []

    def add(key: str, what: str, because: str, done: bool | None = None) -> None:
        items.append(
            SecureItem(
                key=key,
                what=what,
                because=because,
                done=key in ticked if done is None else done,
                own=done is None,
            )
        )

    running = any(
        not a.ended
        for s in plan.step
        if (run := s.as_run()) is not None
        for a in attempts_of(state, run)
    )
    if running:
        add("key", "Key off", "the engine runs")
    if hanging or raised or step.lifts:
        add("people", "Everybody out from under, hands out of the gap", "what is held may move")
    for danger in live_dangers(state):
        add(
            f"danger:{danger.step}:{danger.clear_at}",
            f"{danger.title}: {danger.words}",
            "it is live",
            done=False,
        )
    if not support.bodies:
        add(
            "support:said",
            "Say what carries the load",
            "nobody said yet what carries it",
            done=False,
        )
    for body in hanging:
        if not body.known:
            add(
                f"support:{body.body}",
                f"{body.name}: say what carries it",
                body.because,
                done=False,
            )
            continue
        what = (
            "stands under it, four places"
            if body.body == "vehicle"
            else "a cradle, or two stands, under it"
        )
        add(f"support:{body.body}", f"{body.name}: {what}", body.because, done=body.stays)
    for item in _fuel(opened):
        add(
            f"fuel:{item.id}", f"Fuel: both ends capped, {item.what}", "vapour runs along the floor"
        )
    for item in opened:
        if item.sort == "open_port":
            add(f"cover:{item.id}", f"Cover it: {item.what}", "dirt and water go in")
    if set(around_now(state)) & {"wind", "damp"}:
        add(
            "weather",
            "Bonnet and doors shut or tied, tarp over the bay",
            "wind and rain do not wait",
        )
    add(
        "tools",
        "Tools out of the bay, lamp off, lead unplugged",
        "what lies there falls in or burns",
    )
    left = next((item for item in items if not item.done), None)
    leave = (
        "Children, visitors, animals: out now",
        *(f"{role.role}: leaves as soon as nothing is held by hand" for role in step.people[1:]),
    )
    going = f"{GOING[stop.body.going]}, " if stop is not None and stop.body.going else ""
    card = [f"Come back to {step.number} {step.title}: {step.do}"]
    card += [
        f"{body.name} {going}{'hangs' if body.hangs else 'does not stay'}: {body.because}"
        for body in hanging
    ]
    card += [f"Carried: {support.line}"] if support.supports else []
    card += [f"Left open: {item.what}. To undo: {item.undo}" for item in opened[:8]]
    card += [f"and {len(opened) - 8} more left open"] if len(opened) > 8 else []
    card += [
        (
            f"In words still: what was said at {note.number or 'the build'}, {note.time[11:16]} "
            f"UTC, {note.who}"
        )
        for note in spoken_notes(state)
        if note.words is None
    ]
    return SecureView(
        stopped=stop is not None,
        why=stop.body.why if stop else "",
        since=stop.time if stop else "",
        who=stop.who if stop else "",
        going=going.rstrip(", "),
        hurt=stop.body.hurt if stop else None,
        near_miss=stop.body.near_miss if stop else None,
        people_left=stop.body.people_left if stop else None,
        items=tuple(items),
        leave=leave,
        card=tuple(card),
        step=step.id,
        made_safe=stop is not None and left is None and support.stays,
        not_safe=left.what if left is not None else "" if support.stays else support.line,
        said=tuple(f"{e.time[:16].replace('T', ' ')} {e.body.why}" for e in stops[-5:]),
    )


def _fuel(opened: tuple[OpenItem, ...]) -> list[OpenItem]:
    return [item for item in opened if item.blocks == "fuel_on" and item.sort != "cap"]
