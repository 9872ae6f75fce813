"""Orders: where each stands, what is still to come of it, how often it slipped, how long it is
silent.
"""

from collections.abc import Iterable
from datetime import date, datetime

from pydantic import computed_field

from hollet.core.entries import BookState, Ordered, OrderMoved, ParcelCame, PartRefused
from hollet.core.saying import day_due
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["OrderFacts", "OrderPart", "Slip", "days_silent", "orders", "slip_words"]

ON_US = ("quoted", "proof to approve")
"""States in which the supplier waits for the shop, not the shop for the supplier."""
MADE = ("in design", "proof to approve", "being made")
PLACES = {
    "asked": 0,
    "quoted": 1,
    "in design": 2,
    "proof to approve": 2,
    "being made": 2,
    "shipped": 3,
}
ARRIVED, COMPARED = 4, 5


class Slip(View):
    """A promise that was moved: from which day to which, and why."""

    was: date
    now: date
    because: str | None
    seq: int

    @computed_field
    @property
    def days(self) -> int:
        """By so many days; below zero it comes earlier."""
        return (self.now - self.was).days

    @computed_field
    @property
    def words(self) -> str:
        """From which day to which, and why."""
        why = f": {self.because}" if self.because else ""
        return f"{day_due(self.was)} became {day_due(self.now)}{why}"


class OrderPart(View):
    """One part of an order: how many were ordered, arrived, and are refused; what each costs."""

    need: str
    name: str
    count: int
    arrived: int
    refused: int
    price: float | None

    @computed_field
    @property
    def to_come(self) -> int:
        """How many are not here yet."""
        return max(0, self.count - self.arrived)


class OrderFacts(View):
    """One order as it stands; `made`: to order, so that it is compared feature by feature."""

    id: str
    supplier: str
    state: str
    parts: tuple[OrderPart, ...]
    promised: date | None
    slips: tuple[Slip, ...]
    placed: str
    heard: str
    made: bool
    seq: int

    @computed_field
    @property
    def live(self) -> bool:
        """Whether something of it is still to come."""
        return self.state != "cancelled" and any(part.to_come for part in self.parts)

    @computed_field
    @property
    def on_us(self) -> bool:
        """Whether the supplier waits for a word from the shop."""
        return self.live and self.state in ON_US

    @computed_field
    @property
    def place(self) -> int:
        """Its place among asked, quoted, made, shipped, arrived, compared."""
        return PLACES.get(self.state, 0)


def _day(time: str) -> date:
    return datetime.fromisoformat(time).date()


def days_silent(order: OrderFacts, today: date) -> int:
    """For how many days nothing was heard of an order that waits for its supplier: since the last
    word, or since the promised day that went by; 0 where it is not silent.
    """
    if not order.live or order.state in ON_US:
        return 0
    since = max(_day(order.heard), order.promised or date.min)
    return max(0, (today - since).days)


def orders(state: BookState) -> tuple[OrderFacts, ...]:
    """All orders of a build, the first first."""
    return state.remembered(("orders",), state.head, lambda: tuple(_orders(state)))


def _orders(state: BookState) -> Iterable[OrderFacts]:
    for name, _ in state.names("order"):
        placed = state.newest(Ordered, "order", name)
        if placed is None:
            continue
        moves = state.each(OrderMoved, "order", name)
        promised, slips = placed.body.promised, []
        for move in moves:
            now = move.body.promised
            if now is not None and promised is not None and now != promised:
                slips.append(Slip(was=promised, now=now, because=move.body.because, seq=move.seq))
            promised = now or promised
        states = [placed.body.state, *(m.body.state for m in moves)]
        yield OrderFacts(
            id=name,
            supplier=placed.body.supplier,
            state=states[-1],
            parts=_parts(state, placed.body),
            promised=promised,
            slips=tuple(slips),
            placed=placed.time,
            heard=(moves[-1] if moves else placed).time,
            made=any(s in MADE for s in states),
            seq=placed.seq,
        )


def _parts(state: BookState, order: Ordered) -> tuple[OrderPart, ...]:
    came: dict[str, int] = {}
    for parcel in state.each(ParcelCame, "order", order.order):
        for line in parcel.body.lines:
            came[line.need] = came.get(line.need, 0) + line.count
    refused: dict[str, int] = {}
    for entry in state.each(PartRefused, "order", order.order):
        refused[entry.body.need] = refused.get(entry.body.need, 0) + entry.body.count
    return tuple(
        OrderPart(
            need=line.need,
            name=line.name,
            count=line.count,
            arrived=came.get(line.need, 0),
            refused=min(refused.get(line.need, 0), came.get(line.need, 0)),
            price=line.price,
        )
        for line in order.lines
    )


def slip_words(order: OrderFacts) -> str:
    """How often and by how much it slipped, or nothing."""
    if not order.slips:
        return ""
    total = sum(slip.days for slip in order.slips)
    often = "once" if len(order.slips) == 1 else counted(len(order.slips), "time")
    return f"slipped {often}, by {counted(total, 'day')}"
