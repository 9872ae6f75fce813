"""The parts desk: what is wanted and what it stops, orders, what came, what comes due, money."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from pydantic import computed_field

from hollet.core.book.box import Spare, for_need, sold_for
from hollet.core.book.due import Due, due_of
from hollet.core.book.machined import MachineFacts, machine_orders
from hollet.core.book.needs import Need, needs, state_words
from hollet.core.book.openers import Opener, openers
from hollet.core.book.orders import (
    ARRIVED,
    COMPARED,
    OrderFacts,
    days_silent,
    orders,
    slip_words,
)
from hollet.core.book.sought import Kept, Search, kept_places, searches
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, plan_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.core.safety import SAFETY_NAMES, shut_words
from hollet.core.saying import day_due, due_words
from hollet.core.view import View
from hollet.core.words import counted
from hollet.screens.costs import Money, money_of

__all__ = ["OrderRow", "PartRow", "PartsView", "ShopSays", "StepName", "open_steps", "parts_view"]

LADDER = list(RUNGS)


class PartRow(View):
    """One part on the desk: where it stands among six places, when it is due, what it stops.

    `stops` is how many rungs of the ladder are still free, and `stops_words` the first that is not.
    """

    need: Need
    name: str
    under: str
    place: int
    words: str
    due: str
    late: bool
    assumed: bool
    stops: int
    stops_words: str
    next: str
    waits: str
    spares: tuple[Spare, ...]

    @computed_field
    @property
    def to_compare(self) -> bool:
        """Whether pieces lie here that nobody looked at."""
        return self.need.here > 0

    @computed_field
    @property
    def to_order(self) -> bool:
        """Whether some of it has to be ordered, or found on the shelf."""
        return self.need.left > 0


class PartGroup(View):
    """Parts by the stage that needs them first."""

    stage: str
    name: str
    rows: tuple[PartRow, ...]


class OrderRow(View):
    """One order with its words: how it slipped, how long it is silent, what it costs."""

    order: OrderFacts
    words: str
    promised: str
    place: int
    slipped: str
    silent: int
    due: str
    days: int | None
    total: float
    without_price: int


class StepName(View):
    """A step by its number and title; `name` is both, as short as it goes."""

    id: str
    name: str
    title: str


class PartsView(View):
    """The whole desk; `title` counts, `line` says what stops and what does not."""

    title: str
    line: str
    groups: tuple[PartGroup, ...]
    free: tuple[PartRow, ...]
    orders: tuple[OrderRow, ...]
    due: tuple[Due, ...]
    money: Money
    states: tuple[str, ...]
    begins: tuple[str, ...]
    steps: tuple[StepName, ...]
    safeties: dict[str, str]
    rungs: tuple[str, ...]
    suppliers: tuple[str, ...]
    notes: dict[str, tuple[str, ...]]
    searches: tuple[Search, ...]
    kept: tuple[Kept, ...]
    machines: tuple[MachineFacts, ...]
    openers: tuple[Opener, ...]
    head: int


STATES = (
    "asked",
    "quoted",
    "in design",
    "proof to approve",
    "being made",
    "shipped",
    "cancelled",
)


@dataclass(frozen=True, slots=True)
class ShopSays:
    """What the shop's log says at the desk of a build: private words on suppliers by their names in
    lower case, what lies in the box, the build's own id, its tools.
    """

    notes: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    spares: tuple[Spare, ...] = ()
    build: str = ""
    tools: tuple[Instrument, ...] = ()


def parts_view(state: BookState, today: date, now: str, shop: ShopSays | None = None) -> PartsView:
    """The desk of a build on a day, at a moment (UTC, ISO 8601)."""
    shop = shop or ShopSays()
    found, placed = needs(state), orders(state)
    rows = [_row(need, placed, today, shop) for need in found if need.wanted or need.spoken]
    wanting = [row for row in rows if row.need.open]
    return PartsView(
        title=_title(wanting),
        line=_line(wanting),
        groups=_groups(state, wanting),
        free=tuple(row for row in rows if not row.need.open),
        orders=tuple(_order_row(order, placed, today, found) for order in placed),
        due=due_of(state, today),
        money=money_of(state, sold_for(shop.spares, shop.build)),
        states=STATES,
        begins=STATES[:-1],
        steps=open_steps(state),
        safeties=SAFETY_NAMES,
        rungs=tuple(name.lower() for name in RUNGS.values()),
        suppliers=tuple(dict.fromkeys(order.supplier for order in placed)),
        notes=dict(shop.notes),
        searches=searches(state, now),
        kept=kept_places(state),
        machines=machine_orders(state, shop.tools),
        openers=openers(state),
        head=state.head,
    )


def open_steps(state: BookState) -> tuple[StepName, ...]:
    """The steps still to do, as they are picked from a list."""
    known = statuses(state)
    return tuple(
        StepName(id=step.id, name=f"{step.number} {step.short or step.title}", title=step.title)
        for step in plan_of(state).step
        if known[step.id].status not in SETTLED
    )


def _title(rows: list[PartRow]) -> str:
    if not rows:
        return "No part is wanted"
    blocked = [row.need.blocks for row in rows if row.need.blocks in LADDER]
    if not blocked:
        return f"{counted(len(rows), 'part')} wanted, none stops anything"
    first = min(blocked, key=LADDER.index)
    count = blocked.count(first)
    return (
        f"{counted(len(rows), 'part')} wanted, {count} {'stops' if count == 1 else 'stop'} "
        f"{RUNGS[first].lower()}"
    )


def _line(rows: list[PartRow]) -> str:
    here = sum(row.need.here > 0 for row in rows)
    unsaid = sum(not row.need.spoken for row in rows)
    said = []
    if here:
        said.append(f"{here} here and not compared")
    if unsaid:
        said.append(
            f"of {unsaid} nobody said whether {'it is' if unsaid == 1 else 'they are'} here"
        )
    words = "; ".join(said)
    return f"{words[0].upper()}{words[1:]}." if words else ""


def _groups(state: BookState, rows: list[PartRow]) -> tuple[PartGroup, ...]:
    names = {**STAGES, "": "For no step"}
    by_stage: dict[str, list[PartRow]] = {stage: [] for stage in names}
    for row in rows:
        first = row.need.first
        by_stage[first.stage if first is not None else ""].append(row)
    return tuple(
        PartGroup(stage=stage, name=names[stage], rows=tuple(found))
        for stage, found in by_stage.items()
        if found
    )


def _place(need: Need, of: list[OrderFacts]) -> int:
    """Among asked, quoted, made, shipped, arrived, compared; -1 where nothing was asked for."""
    if need.wanted and not need.open:
        return COMPARED
    if need.here:
        return ARRIVED
    live = [order for order in of if order.live]
    return live[-1].place if live else -1


def _row(need: Need, placed: tuple[OrderFacts, ...], today: date, shop: ShopSays) -> PartRow:
    of = [order for order in placed if order.id in need.orders]
    live = [order for order in of if order.live]
    promised = live[-1].promised if live else None
    silent = days_silent(live[-1], today) if live else 0
    words = state_words(need, placed)
    if silent and promised is None:
        words = f"{words}, silent for {counted(silent, 'day')}"
    due = need.by if promised is None and not need.here else promised
    first = need.first
    rung = need.blocks
    count = f"{need.wanted} × " if need.wanted > 1 else ""
    asks = "here" if need.here else day_due(due) if due else "?" if live else ""
    under = ", ".join(text for text in (need.number, need.amount) if text)
    return PartRow(
        need=need,
        name=f"{count}{need.name}",
        under=under or (f"for {first.number} {first.title}" if first and first.step else ""),
        place=_place(need, of),
        words=words,
        due=asks,
        late=bool(due and due < today and not need.here and need.open),
        assumed=any(reason.assumed for reason in need.reasons),
        stops=LADDER.index(rung) if rung in LADDER else len(LADDER),
        stops_words=RUNGS[rung].lower() if rung in LADDER else "nothing",
        next=_next(need, live),
        waits=f"{shut_words(need.safety)} stays shut" if need.barred and need.safety else "",
        spares=for_need(shop.spares, need.name, shop.build) if need.left else (),
    )


def _next(need: Need, live: list[OrderFacts]) -> str:
    """The one act that brings it on, in words."""
    if need.machined is not None:
        return "measure it again" if need.machined.to_measure else ""
    if need.compare_at is not None and not need.left:
        return "lay it beside the old one"
    if need.here:
        return "kind and count" if need.arrival.by_press else "compare"
    if any(order.on_us for order in live):
        return "approve" if live[-1].state == "proof to approve" else "order it"
    if need.left:
        return "order"
    return ""


def _order_row(
    order: OrderFacts, placed: tuple[OrderFacts, ...], today: date, found: tuple[Need, ...]
) -> OrderRow:
    here = any(part.arrived for part in order.parts)
    looked = {n.id for n in found if n.arrived_of == order.id}
    place = order.place
    if here and not order.live:
        place = ARRIVED if looked else COMPARED
    days = (order.promised - today).days if order.promised and order.live else None
    words = order.state if order.live or order.state == "cancelled" else "all of it compared"
    refused = sum(part.refused for part in order.parts)
    if not order.live and looked:
        words = "here, not all compared"
    elif refused and not order.live:
        words = f"{refused} refused"
    return OrderRow(
        order=order,
        words=words,
        promised=day_due(order.promised) if order.promised else "",
        place=place,
        slipped=slip_words(order),
        silent=days_silent(order, today),
        due=due_words(days) if days is not None else "",
        days=days,
        total=sum((part.price or 0) * part.count for part in order.parts),
        without_price=sum(part.price is None for part in order.parts),
    )
