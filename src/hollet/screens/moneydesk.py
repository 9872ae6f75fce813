"""The money of a build on one page: budget, what it costs and may cost, the owner's word, ways side
by side, what is bought ahead.
"""

from pydantic import computed_field

from hollet.core.book.concessions import ConcessionFacts, concessions, owner_of
from hollet.core.book.orders import orders
from hollet.core.book.reserves import chance_beyond
from hollet.core.buying import CHANCES
from hollet.core.entries import BookState, OwnerSaid, Paid, ReserveWeighed, WayWeighed
from hollet.core.entries.money import WORD_SORTS, WayOption
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.saying import day_due
from hollet.core.steps.results import results_of
from hollet.core.view import View
from hollet.screens.costs import Money, money_of
from hollet.screens.partsdesk import StepName, open_steps

__all__ = ["MoneyDesk", "money_desk"]

HOWS = (
    "do it",
    "send it out",
    "buy it ready",
    "buy the tool",
    "borrow it",
    "rent it",
    "pay somebody",
)
QUESTIONS = (
    "what do you need from me: the part cleaned, the bolts, a drawing?",
    "to which size or finish, and how do you measure it?",
    "is what bolts on to it on while it is cut?",
    "when is it out, when is it back, and who carries it?",
    "what does it cost when it turns out worse?",
)
"""What an outside shop is asked before it gets a part."""


class OwnerWord(View):
    """One word of the owner, on its day."""

    entry: str
    sort: str
    what: str
    price: float | None
    name: str
    how: str
    day: str


class WayRow(View):
    """One choice among ways: each with its price, and the one taken."""

    way: str
    what: str
    words: tuple[str, ...]
    options: tuple[WayOption, ...]
    chosen: int | None
    because: str
    questions: tuple[str, ...]
    ordered: bool

    @computed_field
    @property
    def to_order(self) -> bool:
        """Whether one is taken, and not among the orders yet."""
        return self.chosen is not None and not self.ordered


class ReserveRow(View):
    """A part that may be needed: now against later, with the working."""

    need: str
    name: str
    count: int
    now: float
    later: float
    buy: bool
    working: tuple[str, ...]
    moved: str


class OrderName(View):
    """An order by its supplier, with what was paid for it."""

    id: str
    supplier: str
    total: float
    paid: float


class Named(View):
    """Something to pick from a list."""

    id: str
    name: str


class MoneyDesk(View):
    """The whole page."""

    title: str
    money: Money
    owner: str | None
    words: tuple[OwnerWord, ...]
    concessions: tuple[ConcessionFacts, ...]
    ways: tuple[WayRow, ...]
    reserves: tuple[ReserveRow, ...]
    orders: tuple[OrderName, ...]
    limits: tuple[Named, ...]
    steps: tuple[StepName, ...]
    sorts: tuple[str, ...]
    hows: tuple[str, ...]
    chances: dict[str, float]
    questions: tuple[str, ...]
    head: int


def money_desk(state: BookState, sold: float) -> MoneyDesk:
    """The page of a build; `sold` is what its left-overs brought."""
    money = money_of(state, sold)
    return MoneyDesk(
        title=f"{money.sure:.2f}, at worst {money.worst:.2f}",
        money=money,
        owner=owner_of(state),
        words=_words(state),
        concessions=concessions(state),
        ways=_ways(state),
        reserves=_reserves(state),
        orders=_orders(state),
        limits=_limits(state),
        steps=open_steps(state),
        sorts=WORD_SORTS,
        hows=HOWS,
        chances=CHANCES,
        questions=QUESTIONS,
        head=state.head,
    )


def _words(state: BookState) -> tuple[OwnerWord, ...]:
    return tuple(
        OwnerWord(
            entry=e.id,
            sort=e.body.sort,
            what=e.body.what,
            price=e.body.price,
            name=e.body.name,
            how=e.body.how,
            day=day_due(e.body.day),
        )
        for e in state.newest_of(OwnerSaid, "money")
    )


def _ways(state: BookState) -> tuple[WayRow, ...]:
    return tuple(
        WayRow(
            way=e.body.way,
            what=e.body.what,
            options=e.body.options,
            ordered=e.body.ordered,
            words=tuple(
                option.words() + (f": {option.because}" if option.because else "")
                for option in e.body.options
            ),
            chosen=e.body.chosen,
            because=e.body.because,
            questions=e.body.questions,
        )
        for e in state.newest_of(WayWeighed, "money")
    )


def _reserves(state: BookState) -> tuple[ReserveRow, ...]:
    return tuple(
        ReserveRow(
            need=e.body.need,
            name=e.body.name,
            count=e.body.count,
            now=e.body.price * e.body.count,
            later=e.body.later,
            buy=e.body.buy,
            working=e.body.working,
            moved=_moved(state, e.body),
        )
        for e in state.newest_of(ReserveWeighed, "money")
    )


MOVED = 0.05


def _moved(state: BookState, body: ReserveWeighed) -> str:
    """How the chance stands by the readings now, where it moved since it was weighed."""
    if body.limit is None:
        return ""
    try:
        now, _ = chance_beyond(state, body.limit, body.beyond or "")
    except (Refused, NotFound):
        return "the readings it hung on are gone: weigh it again"
    if abs(now - body.likely) <= MOVED:
        return ""
    return f"the chance was {body.likely:.2f} and is {now:.2f} by the readings now: weigh it again"


def _orders(state: BookState) -> tuple[OrderName, ...]:
    return tuple(
        OrderName(
            id=order.id,
            supplier=order.supplier,
            total=sum((part.price or 0) * part.count for part in order.parts),
            paid=sum(e.body.money for e in state.each(Paid, "order", order.id)),
        )
        for order in orders(state)
        if order.state != "cancelled"
    )


def _limits(state: BookState) -> tuple[Named, ...]:
    """Limits of which something was read, so that a chance can hang on them."""
    found = {
        result.limit.id: f"{result.limit.name}, {result.limit.unit}"
        for step in plan_of(state).step
        for result in results_of(state, step)
        if result.judged
    }
    return tuple(Named(id=key, name=name) for key, name in found.items())
