"""Secure now: what to make safe when work stops at once, who must leave, and the card to come back
to.

The order is that of harm: people from under the load, then the load, then fuel, then openings, then
what the weather takes.
"""

from collections.abc import Iterator, Sequence

from hollet.core.book.around import around_now
from hollet.core.book.dangers import live_dangers
from hollet.core.book.ledger import left_open
from hollet.core.book.one_open import OpenItem
from hollet.core.book.passing import current_step
from hollet.core.book.spoken import spoken_notes
from hollet.core.book.supports import BodyStand, SupportView, support_view
from hollet.core.entries import BookState, Entry, GoneOn, Secured, Stopped
from hollet.core.entries.status import plan_of
from hollet.core.procedure.sheet import Step
from hollet.core.steps.run import attempts_of
from hollet.core.view import View

__all__ = ["SecureItem", "SecureView", "is_stopped", "secure_view"]

UNDER = {"vehicle": "stands under it, four places"}
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
    step = plan.find_step(current_step(state, now))
    assert step is not None
    opened = left_open(state)
    items = _items(state, support, step, opened, stop)
    left = next((item for item in items if not item.done), None)
    said = stop.body if stop else None
    return SecureView(
        stopped=said is not None,
        why=said.why if said else "",
        since=stop.time if stop else "",
        who=stop.who if stop else "",
        going=GOING[said.going] if said and said.going else "",
        hurt=said.hurt if said else None,
        near_miss=said.near_miss if said else None,
        people_left=said.people_left if said else None,
        items=items,
        leave=(
            "Children, visitors, animals: out now",
            *(
                f"{role.role}: leaves as soon as nothing is held by hand"
                for role in step.people[1:]
            ),
        ),
        card=_card(state, support, step, opened, GOING[said.going] if said and said.going else ""),
        step=step.id,
        made_safe=said is not None and left is None and support.stays,
        not_safe=left.what if left is not None else "" if support.stays else support.line,
        said=tuple(f"{e.time[:16].replace('T', ' ')} {e.body.why}" for e in stops[-5:]),
    )


def _items(
    state: BookState,
    support: SupportView,
    step: Step,
    opened: Sequence[OpenItem],
    stop: Entry[Stopped] | None,
) -> tuple[SecureItem, ...]:
    """What is to be made safe, in the order of harm; a press since the stop ticks what is own."""
    ticked = {
        e.body.item for e in state.each(Secured, "stop") if stop is not None and e.seq > stop.seq
    }
    found = (
        *_of_people(state, support, step),
        *_of_dangers(state),
        *_of_loads(support),
        *_of_openings(opened),
        *_of_weather(state),
    )
    return tuple(
        item.model_copy(update={"done": item.key in ticked}) if item.own else item for item in found
    )


def _own(key: str, what: str, because: str) -> SecureItem:
    """One that a press ticks."""
    return SecureItem(key=key, what=what, because=because, done=False)


def _by_facts(key: str, what: str, because: str, done: bool = False) -> SecureItem:
    """One that the facts alone end."""
    return SecureItem(key=key, what=what, because=because, done=done, own=False)


def _of_people(state: BookState, support: SupportView, step: Step) -> Iterator[SecureItem]:
    runs = (run for s in plan_of(state).step if (run := s.as_run()) is not None)
    if any(not attempt.ended for run in runs for attempt in attempts_of(state, run)):
        yield _own("key", "Key off", "the engine runs")
    raised = any(p.carries == "vehicle" and p.kind != "wheels" for p in support.supports)
    if _hanging(support) or raised or step.lifts:
        yield _own(
            "people", "Everybody out from under, hands out of the gap", "what is held may move"
        )


def _of_dangers(state: BookState) -> Iterator[SecureItem]:
    for danger in live_dangers(state):
        yield _by_facts(
            f"danger:{danger.step}:{danger.clear_at}",
            f"{danger.title}: {danger.words}",
            "it is live",
        )


def _hanging(support: SupportView) -> list[BodyStand]:
    return [body for body in support.bodies if body.hangs or not body.stays]


def _of_loads(support: SupportView) -> Iterator[SecureItem]:
    if not support.bodies:
        yield _by_facts(
            "support:said", "Say what carries the load", "nobody said yet what carries it"
        )
    for body in _hanging(support):
        key = f"support:{body.body}"
        if not body.known:
            yield _by_facts(key, f"{body.name}: say what carries it", body.because)
        else:
            what = UNDER.get(body.body, "a cradle, or two stands, under it")
            yield _by_facts(key, f"{body.name}: {what}", body.because, done=body.stays)


def _of_openings(opened: Sequence[OpenItem]) -> Iterator[SecureItem]:
    for item in _fuel(opened):
        yield _own(
            f"fuel:{item.id}", f"Fuel: both ends capped, {item.what}", "vapour runs along the floor"
        )
    for item in opened:
        if item.sort == "open_port":
            yield _own(f"cover:{item.id}", f"Cover it: {item.what}", "dirt and water go in")


def _of_weather(state: BookState) -> Iterator[SecureItem]:
    if set(around_now(state)) & {"wind", "damp"}:
        yield _own(
            "weather",
            "Bonnet and doors shut or tied, tarp over the bay",
            "wind and rain do not wait",
        )
    yield _own(
        "tools",
        "Tools out of the bay, lamp off, lead unplugged",
        "what lies there falls in or burns",
    )


def _card(
    state: BookState, support: SupportView, step: Step, opened: Sequence[OpenItem], going: str
) -> tuple[str, ...]:
    """What to read on coming back: the step, what hangs, what carries, what is open, what was only
    spoken.
    """
    moving = f"{going}, " if going else ""
    card = [f"Come back to {step.number} {step.title}: {step.do}"]
    card += [
        f"{body.name} {moving}{'hangs' if body.hangs else 'does not stay'}: {body.because}"
        for body in _hanging(support)
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
    return tuple(card)


def _fuel(opened: Sequence[OpenItem]) -> list[OpenItem]:
    return [item for item in opened if item.blocks == "fuel_on" and item.sort != "cap"]
