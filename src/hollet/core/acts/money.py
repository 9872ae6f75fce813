"""What a hand says of money: the budget, the owner's word, a way chosen, what was paid, what is
bought ahead.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act, is_thin, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.concessions import concessions
from hollet.core.book.orders import orders
from hollet.core.book.reserves import chance_beyond
from hollet.core.book.wants import need_id
from hollet.core.buying import CHANCES, BuyAhead, buy_ahead
from hollet.core.entries import (
    BookState,
    BudgetSet,
    OwnerSaid,
    Paid,
    ReserveWeighed,
    WayWeighed,
)
from hollet.core.entries.base import Own
from hollet.core.entries.money import OwnerSaidSaid, ReserveWeighedSaid
from hollet.core.entries.parts import Price
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.saying import read_day

__all__ = ["BudgetSetAct", "OwnerSaidAct", "PaidAct", "ReserveWeighedAct", "WayWeighedAct"]

Named = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Day = Annotated[str, Field(max_length=40)]


class BudgetSetAct(Act[BudgetSet], BudgetSet):
    """What the build may cost."""

    body: ClassVar = BudgetSet
    kind: Literal["budget set"]
    name: Named

    def accepted(self, state: BookState, hand: Hand) -> BudgetSet:
        return self.filled()


class OwnerSaidAct(Act[OwnerSaid], OwnerSaidSaid):
    """A word of the owner; `day` as it is said, today where nothing is."""

    body: ClassVar = OwnerSaid
    kind: Literal["owner said"]
    what: Named
    name: Named
    how: Named
    day: Day = ""

    def accepted(self, state: BookState, hand: Hand) -> OwnerSaid:
        if state.newest(OwnerSaid, "money", f"word:{self.word}") is not None:
            words = "this word is written already: strike it, and write the other anew"
            raise Conflict(words, reason_code="id_used")
        if self.sort in ("sold", "paid", "paid back") and self.price is None:
            raise Refused("no_price", f"how much was {self.sort}?", field="price")
        if self.about is not None:
            known = {c.entry for c in concessions(state)}
            if self.sort != "concession" or self.about not in known:
                raise NotFound("concession", self.about)
        text = self.day.strip()
        day = read_day(text, hand.today, "day", past=True) if text else hand.today
        if day > hand.today:
            raise Refused("bad_day", "a word is said on a day that has come", field="day")
        return self.filled(day=day)


class WayWeighedAct(Act[WayWeighed], WayWeighed):
    """Ways side by side; one is taken with a reason."""

    body: ClassVar = WayWeighed
    kind: Literal["way weighed"]
    what: Named

    def accepted(self, state: BookState, hand: Hand) -> WayWeighed:
        hows = [option.how for option in self.options]
        if len(set(hows)) < len(hows):
            raise Refused("twice", "each way stands there once", field="options")
        if self.chosen is not None and self.chosen >= len(self.options):
            raise Refused("bad_entry", "that way is not among them", field="chosen")
        if self.chosen is not None and is_thin(self.because):
            words = "say why this way in ten characters or more and two words"
            raise Refused("reason_thin", words, field="because")
        if self.ordered and self.chosen is None:
            raise Refused("bad_entry", "which way is ordered?", field="chosen")
        return self.filled(because=self.because.strip())


class PaidAct(Act[Paid]):
    """Money that went to a supplier."""

    body: ClassVar = Paid
    kind: Literal["paid"]
    order: Own
    money: Price

    def accepted(self, state: BookState, hand: Hand) -> Paid:
        order = next((o for o in orders(state) if o.id == self.order), None)
        if order is None:
            raise NotFound("order", self.order)
        return Paid(order=self.order, supplier=order.supplier, money=self.money)


class ReserveWeighedAct(Act[ReserveWeighed], ReserveWeighedSaid):
    """A part that may be needed, weighed against the wait; `buy` is what was decided."""

    body: ClassVar = ReserveWeighed
    kind: Literal["reserve weighed"]
    name: Named
    buy: bool

    def accepted(self, state: BookState, hand: Hand) -> ReserveWeighed:
        if self.step is not None:
            step_named(state, self.step)
        if (self.chance is None) == (self.limit is None):
            words = "press hardly, perhaps or likely, or name the figure it hangs on"
            raise Refused("bad_chance", words, field="chance")
        if self.limit is not None:
            likely, lines = chance_beyond(state, self.limit, self.beyond or "")
        else:
            likely = CHANCES[self.chance or "perhaps"]
            lines = (f"{self.chance}: {likely}, assumed",)
        whole = self.price * self.count
        found = buy_ahead(
            BuyAhead(price=whole, chance=likely, wait_days=self.wait_days, a_day=self.a_day)
        )
        return self.filled(
            need=need_id(self.name),
            likely=round(likely, 4),
            later=round(found.later, 2),
            working=(*lines, *found.working)[:8],
        )
