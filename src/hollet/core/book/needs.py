"""Needs: each part once, with every reason for it, and the arithmetic of need, shelf and order.

A part is free for its step only when it was compared; arrived is not free.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from pydantic import computed_field

from hollet.core.book.arrivals import (
    Arrival,
    RefusedFacts,
    Taken,
    arrival_of,
    refused_of,
    taken_of,
)
from hollet.core.book.machined import MachineFacts, machine_work
from hollet.core.book.orders import OrderFacts, orders
from hollet.core.book.wants import LOST, Want, wants
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, plan_of, statuses
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import RUNGS
from hollet.core.safety import shut_by
from hollet.core.view import View

__all__ = [
    "arrival_for",
    "Need",
    "NeedReason",
    "Unproven",
    "fitted_unproven",
    "lacking_part",
    "need_named",
    "needs",
    "state_words",
]

RUNG_ORDER = [*RUNGS, "nothing"]


class NeedReason(View):
    """Why and for which step so many are needed; `met`: that many are free for it. `settled`: the
    step is done or passed over.
    """

    step: str | None
    number: str
    title: str
    stage: str
    count: int
    why: str
    blocks: str
    settled: bool
    met: bool
    assumed: bool


class Need(View):
    """One part. `wanted` pieces for steps still to do (and for steps done without them), of which
    so many are `free` (of those `on_shelf`), `here` and not compared, `ordered` and to come, or
    `left` to order.

    `spoken`: somebody said something of it; of others nobody knows whether they are here.
    """

    id: str
    name: str
    number: str
    amount: str
    reasons: tuple[NeedReason, ...]
    wanted: int
    free: int
    on_shelf: int
    here: int
    ordered: int
    left: int
    spoken: bool
    price: float | None
    by: date | None
    safety: str | None
    barred: bool
    in_writing: str | None
    arrival: Arrival
    refused: tuple[RefusedFacts, ...]
    orders: tuple[str, ...]
    arrived_of: str | None
    by_hand: str | None
    compare_at: str | None
    compare_part: str | None
    machined: MachineFacts | None

    @computed_field
    @property
    def open(self) -> tuple[NeedReason, ...]:
        """The reasons that are not met."""
        return tuple(reason for reason in self.reasons if not reason.met)

    @computed_field
    @property
    def first(self) -> NeedReason | None:
        """The step that needs it first, of those still to do."""
        return next(iter(self.open), None)

    @computed_field
    @property
    def blocks(self) -> str:
        """The first rung that it blocks: that of the first step that cannot be done without it."""
        return min((r.blocks for r in self.open), key=RUNG_ORDER.index, default="nothing")


def needs(state: BookState) -> tuple[Need, ...]:
    """Every part that is needed, in the order of the plan; those met too."""
    return state.remembered(("needs",), state.head, lambda: _needs(state))


def _needs(state: BookState) -> tuple[Need, ...]:
    grouped: dict[str, list[Want]] = {}
    for want in wants(state):
        grouped.setdefault(want.need, []).append(want)
    found = [_need(state, group) for group in grouped.values()]
    order = {step.id: k for k, step in enumerate(plan_of(state).step)}
    last = len(order)

    def place(need: Need) -> int:
        return min((order.get(r.step or "", last) for r in need.reasons), default=last)

    return tuple(sorted(found, key=place))


def need_named(state: BookState, need: str) -> Need | None:
    """The need with this id."""
    return next((found for found in needs(state) if found.id == need), None)


@dataclass(frozen=True, slots=True)
class _Shelf:
    """Of one part: its orders, what holds of the pieces taken, how many arrived and are not looked
    at, how many are still to come.
    """

    orders: tuple[OrderFacts, ...]
    taken: tuple[Taken, ...]
    arrived: Mapping[str, int]
    here: int
    to_come: int

    @property
    def free(self) -> int:
        """Never more of an order than arrived and was not refused since."""
        kept = {order.id: self.arrived.get(order.id, 0) for order in self.orders}
        shelf = sum(t.count for t in self.taken if t.order is None)
        return shelf + sum(
            min(count, sum(t.count for t in self.taken if t.order == order))
            for order, count in kept.items()
        )

    @property
    def made(self) -> frozenset[str]:
        return frozenset(order.id for order in self.orders if order.made)


def _shelf(state: BookState, group: Sequence[Want]) -> _Shelf:
    need = group[0].need
    of_it = tuple(o for o in orders(state) if any(part.need == need for part in o.parts))
    taken = taken_of(state, group, frozenset(o.id for o in of_it if o.made))
    parts = [(order, part) for order in of_it for part in order.parts if part.need == need]
    arrived = sum(part.arrived - part.refused for _, part in parts)
    looked = sum(t.count for t in taken if t.order is not None)
    return _Shelf(
        orders=of_it,
        taken=taken,
        arrived={order.id: part.arrived - part.refused for order, part in parts},
        here=max(0, arrived - looked),
        to_come=sum(part.to_come for order, part in parts if order.live),
    )


def arrival_for(state: BookState, need: str, order: str | None) -> Arrival:
    """How pieces of one order, or off the shelf, are compared."""
    group = [want for want in wants(state) if want.need == need]
    made = any(o.made for o in orders(state) if o.id == order)
    return arrival_of(state, group, order, made)


def _need(state: BookState, group: Sequence[Want]) -> Need:
    shelf, need = _shelf(state, group), group[0].need
    reasons = _reasons(state, group, shelf.free)
    wanted = sum(reason.count for reason in reasons)
    unmet = sum(reason.count for reason in reasons if not reason.met)
    written = next((t for t in shelf.taken if t.in_writing), None)
    safety = next((w.safety for w in group if w.safety), None)
    hand = next((w for w in reversed(group) if w.wanted is not None), None)
    said = hand.wanted if hand is not None else None
    looked = next((w.looked_at for w in group if w.looked_at and not w.right), None)
    machined = next((w.machined for w in group if w.machined), None)
    waiting = _to_compare(shelf, need)
    looked_of = waiting or (shelf.taken[-1].order if shelf.taken else None)
    return Need(
        id=need,
        name=group[0].name,
        number=(said.number if said else None) or "",
        amount=next((w.amount for w in group if w.amount), ""),
        reasons=reasons,
        wanted=wanted,
        free=min(shelf.free, wanted),
        on_shelf=shelf.free,
        here=shelf.here,
        ordered=shelf.to_come,
        left=0
        if machined
        else max(0, min(unmet, wanted - shelf.free) - shelf.here - shelf.to_come),
        spoken=bool(state.live("need", need)),
        price=_price(group, shelf, need),
        by=said.by if said else None,
        safety=safety,
        barred=bool(written and safety and not written.licensed),
        in_writing=written.in_writing if written else None,
        arrival=arrival_of(state, group, looked_of, looked_of in shelf.made),
        refused=refused_of(state, need),
        orders=tuple(order.id for order in shelf.orders),
        arrived_of=waiting,
        by_hand=hand.entry if hand else None,
        compare_at=looked[0] if looked else None,
        compare_part=looked[1] if looked else None,
        machined=machine_work(state, machined) if machined else None,
    )


def _reasons(state: BookState, group: Sequence[Want], free: int) -> tuple[NeedReason, ...]:
    """The steps to do, each met as far as what is free reaches, in the order of the plan; steps
    done before anything was said of the part had theirs from elsewhere.
    """
    plan, known = plan_of(state), statuses(state)
    first = min((line.seq for line in state.live("need", group[0].need)), default=None)
    found = []
    for want in group:
        step = want.step
        status = known[step.id] if step is not None and step.id in known else None
        settled = status is not None and status.status in SETTLED
        when = state.entries[status.entry].seq if status is not None and status.entry else 0
        if settled and want.looked_at is None and want.why != LOST:
            if first is None or when < first or (status and status.status != "done"):
                continue
        proven = want.looked_at is not None or want.machined is not None
        met = want.right if proven else free >= want.count
        if met and not proven:
            free -= want.count
        found.append(
            NeedReason(
                step=step.id if step else None,
                number=step.number if step else "",
                title=step.title if step else "",
                stage=step.stage if step else "",
                count=want.count,
                why=want.why,
                blocks=blocks_of(plan, step) if step else "nothing",
                settled=settled,
                met=met,
                assumed=want.assumed,
            )
        )
    return tuple(found)


def _to_compare(shelf: _Shelf, need: str) -> str | None:
    """The order whose pieces lie here and are not looked at, the oldest first."""
    for order in shelf.orders:
        part = next(part for part in order.parts if part.need == need)
        looked = sum(t.count for t in shelf.taken if t.order == order.id)
        if part.arrived - part.refused > looked:
            return order.id
    return None


def _price(group: Sequence[Want], shelf: _Shelf, need: str) -> float | None:
    """What one costs: as ordered last, else as somebody said."""
    ordered = [
        part.price
        for order in shelf.orders
        for part in order.parts
        if part.need == need and part.price is not None
    ]
    said = [want.price for want in group if want.price is not None]
    found = ordered or said
    return found[-1] if found else None


def state_words(need: Need, of: Sequence[OrderFacts]) -> str:
    """How a part stands in few words: what is missing of it most."""
    if need.machined is not None:
        return need.machined.words
    if need.wanted and not need.open:
        return "free, in writing" if need.in_writing else "free"
    if need.here:
        return f"{need.here} here, not compared" if need.here > 1 else "here, not compared"
    live = [order for order in of if order.id in need.orders and order.live]
    if live:
        return live[-1].state
    back = [item for item in need.refused if item.here]
    if back:
        return f"refused: {back[-1].wrong}"
    if need.left and not need.spoken:
        return "nobody said whether it is here"
    return "to order"


def lacking_part(state: BookState, step: Step) -> Need | None:
    """The first part that somebody spoke of and that is not free for this step: what is not known
    holds nothing up.
    """
    return next(
        (
            need
            for need in needs(state)
            if need.spoken
            and need.compare_at is None
            and any(r.step == step.id and not r.met for r in need.reasons)
        ),
        None,
    )


class Unproven(View):
    """A part that went in and was not free, or that keeps a rung shut though taken in writing."""

    need: str
    name: str
    words: str
    step: str | None
    number: str
    stage: str
    blocks: str


def fitted_unproven(state: BookState) -> tuple[Unproven, ...]:
    """Parts of steps that are done though the part was not free, and safety parts taken in writing
    without a licensed inspection.
    """
    found, all_orders = [], orders(state)
    for need in needs(state):
        shut = shut_by(need.safety) if need.safety else None
        for reason in need.reasons:
            unmet = reason.settled and not reason.met and need.compare_at is None
            if not unmet and not (need.barred and reason.met):
                continue
            words = state_words(need, all_orders)
            what = f"{reason.number} is done with a part that is not free" if unmet else "taken"
            found.append(
                Unproven(
                    need=need.id,
                    name=need.name,
                    words=f"{need.name}: {what}: {words}" if unmet else f"{need.name}: {words}",
                    step=reason.step,
                    number=reason.number,
                    stage=reason.stage,
                    blocks=shut or reason.blocks,
                )
            )
    return tuple(found)
