"""What can be done now: the open steps of a build that wait for nothing, what each frees, where it
can be stopped; and for the others the one reason that would have to go.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from hollet.core.book.complete import obstacles
from hollet.core.book.dangers import live_dangers
from hollet.core.book.needs import Need, needs, state_words
from hollet.core.book.openers import missing_opener
from hollet.core.book.orders import OrderFacts, orders
from hollet.core.book.passing import waiting_for
from hollet.core.calendar.clock import Pace, kind_of_work, pace_of, range_of
from hollet.core.calendar.evenings import Tonight, VisitView
from hollet.core.calendar.order import first_by_stage
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, plan_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.procedure.sheet import Step
from hollet.core.saying import day_due
from hollet.core.view import View

__all__ = ["Around", "NotNow", "Offer", "Offers", "frees", "offers", "safe_stop"]

SHORT_ACT_MIN = 10
"""Minutes of what is no step: a proof looked at, a parcel compared, an order written; assumed."""
GONE = {
    "missing": "is not in the shop",
    "broken": "is broken",
    "faulty": "is faulty",
    "lent": "is lent out",
}
NOISY = ("angle grinder", "drill", "slide hammer", "impact wrench", "compressor")
LAST_HOUR = 60
TIRED_MIN = 240.0
"""No lift and nothing without a way back is put first in the last hour, nor after four worked
hours; assumed, and his to change: he may begin it.
"""


@dataclass(frozen=True, slots=True)
class Around:
    """What a build is judged by: the evening, the minute of the day, what the shop lacks, who comes
    when, own paces, and the minutes worked today.
    """

    tonight: Tonight | None
    minute: int
    gear: Mapping[str, str]
    visits: tuple[VisitView, ...]
    paces: Mapping[str, Pace]
    today: date
    now: str
    worked_today: float = 0.0
    tools: tuple[Instrument, ...] = ()


class Offer(View):
    """One thing that can be done now. `quick`, `middle` and `slow` are minutes at own pace, none
    where the sheet gives no hours; `frees` is the hours of work that stand behind it and nothing
    else.
    """

    id: str
    sort: str
    step: str | None
    number: str
    title: str
    quick: int | None
    middle: int | None
    slow: int | None
    book: str
    frees: float
    frees_count: int
    frees_first: str
    stops: str
    check: tuple[str, ...]
    people: int
    held_back: str
    noisy: bool
    due_days: int | None
    need: str | None = None
    order: str | None = None
    tools: tuple[str, ...] = ()
    working: tuple[str, ...] = ()


class NotNow(View):
    """A step that could be next, and the one reason why it is not tonight; a danger first, then
    what is begun and cannot be left half-way.
    """

    step: str | None
    number: str
    title: str
    because: str
    danger: bool = False
    half_way: bool = False
    need: str | None = None
    frees: float = 0.0


class Offers(View):
    """What a build offers, and what it does not."""

    can: tuple[Offer, ...]
    cannot: tuple[NotNow, ...]


def safe_stop(step: Step) -> str | None:
    """Where a step can be left half done: in words, "" for anywhere, None where it must be done to
    its end.
    """
    text = f"{step.title} {step.do}".casefold()
    if step.lifts or step.moves is not None:
        return None
    if "sealant" in text or "one bead" in text:
        return None
    if step.tightens():
        return "the end of a stage"
    return "any reading" if step.readings() else ""


def no_way_back(state: BookState, step: Step) -> str | None:
    """Why a step cannot be taken back: a lift, something pressed or cut, bolts drawn to yield."""
    if step.lifts:
        return "a lift"
    if step.stuck is not None:
        return "pressing or cutting"
    joints = (plan_of(state).find_joint(name) for name in step.tightens())
    yields = any(stage.angle for joint in joints if joint is not None for stage in joint.stage)
    return "bolts drawn by angle" if yields else None


def _open(state: BookState) -> dict[str, Step]:
    known = statuses(state)
    return {s.id: s for s in plan_of(state).step if known[s.id].status not in SETTLED}


def frees(state: BookState, step_id: str) -> tuple[Step, ...]:
    """The steps that stand behind this one and behind nothing else that is open."""
    return state.remembered(("frees", step_id), state.head, lambda: _frees(state, step_id))


def _frees(state: BookState, step_id: str) -> tuple[Step, ...]:
    still = _open(state)
    done, found = {step_id}, []
    for step in still.values():  # the plan keeps its order: what waits stands behind
        before = {link.step for link in step.after if link.step in still}
        if step.id not in done and before and before <= done:
            done.add(step.id)
            found.append(step)
    return tuple(found)


def offers(state: BookState, around: Around) -> Offers:
    """All that a build offers at this moment."""
    can, cannot = [], _dangers(state)
    plan, still, known = plan_of(state), _open(state), statuses(state)
    for step in still.values():
        waits = waiting_for(state, step.id, around.now)
        drying = [w for w in waits if w.until]
        if len(drying) < len(waits):
            continue  # something else is first
        if first_by_stage(plan, step, still.values()):
            continue
        because, need = _reason(state, step, around, drying[0].because if drying else None)
        offer = _offer(state, step, around)
        late = None if because else _too_late(step, offer, around)
        if because or late:
            cannot.append(
                NotNow(
                    step=step.id,
                    number=step.number,
                    title=step.short or step.title,
                    because=because or late or "",
                    half_way=known[step.id].status == "begun" and safe_stop(step) is None,
                    need=need,
                    frees=offer.frees,
                )
            )
        else:
            can.append(offer)
    can += _of_orders(state, around)
    return Offers(
        can=tuple(sorted(can, key=_worth)),
        cannot=tuple(sorted(cannot, key=lambda n: (not n.danger, not n.half_way, -n.frees))),
    )


def _worth(offer: Offer) -> tuple[bool, float, float, float]:
    """What frees most first, then what takes longest of what fits, then what comes due; what he had
    better not begin now last.
    """
    due = float(offer.due_days) if offer.due_days is not None else 999.0
    return (bool(offer.held_back), -offer.frees, due, -(offer.middle or 0))


def _dangers(state: BookState) -> list[NotNow]:
    return [
        NotNow(
            step=danger.clear_at or danger.step,
            number=danger.number,
            title=danger.title,
            because=danger.words,
            danger=True,
        )
        for danger in live_dangers(state)
    ]


def _reason(
    state: BookState, step: Step, around: Around, drying: str | None
) -> tuple[str | None, str | None]:
    """The first reason why a step that waits for nothing else cannot be done, and which part."""
    if drying:
        return drying, None
    placed = orders(state)
    for need in needs(state):
        if need.compare_at is None and any(r.step == step.id and not r.met for r in need.reasons):
            return _part_words(need, placed, around.today), need.id
    for tool in step.tools:
        gone = GONE.get(around.gear.get(tool.casefold(), ""))
        if gone is not None:
            return f"the {tool} {gone}", None
    opener = missing_opener(state, step)
    if opener is not None:
        return f"the {opener} is missing", None
    held = obstacles(state, step, around.tools, around.now)
    shut = next((o.words for o in held if o.by in ("thing", "load", "nothing")), None)
    if shut is not None:
        return shut, None
    people = len(step.people)
    here = 1 + len(around.tonight.people) if around.tonight is not None else 1
    if people > here:
        return _people_words(people, around), None
    return None, None


def _part_words(need: Need, placed: tuple[OrderFacts, ...], today: date) -> str:
    of = [o for o in placed if o.id in need.orders and o.live]
    words = state_words(need, placed)
    if of and of[-1].promised is not None and not need.here:
        late = ", and late" if of[-1].promised < today else ""
        words = f"{of[-1].state}, {day_due(of[-1].promised)}{late}"
    return f"{need.name}: {words}"


def _people_words(people: int, around: Around) -> str:
    coming = [v for v in around.visits if v.comes]
    perhaps = [v for v in around.visits if v.perhaps]
    if coming:
        return f"{people} people: {day_due(coming[0].day)} with {coming[0].name}"
    if perhaps:
        asked = perhaps[0].answer
        return f"{people} people: {perhaps[0].name} on {day_due(perhaps[0].day)} is {asked}"
    return f"{people} people, and nobody is asked"


def _too_late(step: Step, offer: Offer, around: Around) -> str | None:
    """Why it does not fit any more: nobody can stop half-way, and its slow time passes the end; or
    it makes noise, and it is quiet.
    """
    evening = around.tonight
    if evening is None:
        return None
    begins = max(around.minute, evening.start)
    if offer.noisy and evening.quiet_from is not None and begins >= evening.quiet_from:
        return "it makes noise, and it is quiet now"
    if offer.slow is None or safe_stop(step) is not None:
        return None
    left = evening.end - begins
    if offer.slow > left:
        return f"it cannot be left half done, and may take {offer.slow} min of {left}"
    return None


def _offer(state: BookState, step: Step, around: Around) -> Offer:
    pace = around.paces.get(kind_of_work(step)) or pace_of(kind_of_work(step), ())
    minutes = range_of(step, pace)
    behind = frees(state, step.id)
    hours = sum((s.hours[0] + s.hours[1]) / 2 for s in behind if s.hours is not None)
    stops = safe_stop(step)
    book = f"{step.hours[0]:g} to {step.hours[1]:g} h" if step.hours is not None else ""
    first = behind[0] if behind else None
    return Offer(
        id=f"step:{step.id}",
        sort="step",
        step=step.id,
        number=step.number,
        title=step.short or step.title,
        quick=minutes[0] if minutes else None,
        middle=minutes[1] if minutes else None,
        slow=minutes[2] if minutes else None,
        book=book,
        frees=hours,
        frees_count=len(behind),
        frees_first=f"{first.number} {first.short or first.title}" if first else "",
        stops=""
        if stops == ""
        else f"safe stop: {stops}"
        if stops
        else "no safe stop before its end",
        tools=step.tools,
        check=tuple(t for t in step.tools if around.gear.get(t.casefold()) is None),
        people=len(step.people),
        held_back=_held_back(state, step, minutes[2] if minutes else 0, around),
        noisy=step.dusty or any(t.casefold() in NOISY for t in step.tools),
        due_days=None,
        working=(
            f"book {book or 'not given'}; own pace for {pace.kind}: {pace.lo:.1f} to {pace.hi:.1f}",
            f"behind it stand {len(behind)} steps, {hours:.1f} h by the book",
            *pace.working,
        ),
    )


def _held_back(state: BookState, step: Step, slow: int, around: Around) -> str:
    what = no_way_back(state, step)
    if what is None:
        return ""
    if around.worked_today >= TIRED_MIN:
        return f"{what}: not after four hours of work"
    evening = around.tonight
    if evening is not None and evening.end - max(around.minute, evening.start) <= LAST_HOUR:
        return f"{what}: not in the last hour"
    return ""


def _of_orders(state: BookState, around: Around) -> list[Offer]:
    """What is no step and frees steps: proofs, quotes, parcels to compare, parts to ask for."""
    found = []
    placed = {order.id: order for order in orders(state)}
    said = set()
    for need in needs(state):
        if not need.open or need.compare_at is not None:
            continue
        order = next((placed[o] for o in need.orders if placed[o].on_us), None)
        if need.here:
            found.append(_short(state, need, "compare", f"{need.name}: look at what came"))
        elif order is not None and order.id not in said:
            said.add(order.id)
            proof = order.state == "proof to approve"
            what = "approve the proof" if proof else "order it or not"
            found.append(_short(state, need, "decide", f"{need.name}: {what}", order.id))
    return found


def _short(state: BookState, need: Need, sort: str, title: str, order: str | None = None) -> Offer:
    """A short act: it frees what stands behind the step that needs the part."""
    first = need.first
    behind = (*frees(state, first.step),) if first is not None and first.step else ()
    own = plan_of(state).find_step(first.step) if first is not None and first.step else None
    steps = (own, *behind) if own is not None else behind
    hours = sum((s.hours[0] + s.hours[1]) / 2 for s in steps if s.hours is not None)
    return Offer(
        id=f"{sort}:{need.id}",
        sort=sort,
        step=first.step if first is not None else None,
        number=first.number if first is not None else "",
        title=title,
        quick=5,
        middle=SHORT_ACT_MIN,
        slow=15,
        book="",
        frees=hours,
        frees_count=len(steps),
        frees_first=f"{own.number} {own.short or own.title}" if own is not None else "",
        stops="",
        check=(),
        people=1,
        held_back="",
        noisy=False,
        due_days=0,
        need=need.id,
        order=order or need.arrived_of,
        working=("5 to 15 min, assumed", f"behind it stand {len(steps)} steps, {hours:.1f} h"),
    )
