"""What a build costs: ordered, decided, paid, sent back, sold; with its working."""

from pydantic import computed_field

from hollet.core.book.needs import Need, needs
from hollet.core.book.orders import OrderFacts, orders
from hollet.core.entries import BookState, BudgetSet, Paid, ReserveWeighed, WayWeighed
from hollet.core.steps.inspection import inspection_view
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["Money", "money_of"]


class Money(View):
    """What a build costs, in the currency of the shop; `bare` have no price yet.

    `decided` are ways taken that are no order; `reserve` is what may be needed and was not bought
    ahead.
    """

    budget: float | None
    ordered: float
    decided: float
    taken: float
    paid: float
    to_order: float
    owed_back: float
    back: float
    sold: float
    reserve: float
    worst_open: float
    bare: tuple[str, ...]
    working: tuple[str, ...]

    @computed_field
    @property
    def sure(self) -> float:
        """Ordered, decided and still to order, as far as prices are known; what was sold comes
        off.
        """
        return self.ordered + self.decided + self.to_order - self.sold

    @computed_field
    @property
    def worst(self) -> float:
        """The same with the worst that what is not decided yet, or may be needed, may cost."""
        return self.sure + self.worst_open + self.reserve

    @computed_field
    @property
    def left(self) -> float | None:
        """What is left of the budget, below zero when it is overdrawn."""
        return None if self.budget is None else self.budget - self.sure

    @computed_field
    @property
    def budget_words(self) -> str:
        """How the budget stands, at worst too."""
        if self.budget is None or self.left is None:
            return "no budget said"
        if self.left < 0:
            return f"{-self.left:.2f} over the budget of {self.budget:.2f}"
        if self.worst > self.budget:
            over = self.worst - self.budget
            return f"{self.left:.2f} left of {self.budget:.2f}, at worst {over:.2f} over"
        return f"{self.left:.2f} left of {self.budget:.2f}"


def money_of(state: BookState, sold: float = 0.0) -> Money:
    """The money of a build, with its working; `sold` is what its left-overs brought."""
    placed, found = orders(state), needs(state)
    alive = [order for order in placed if order.state != "cancelled"]
    bought = [(p.name, p.price, p.count, p.arrived - p.refused) for o in alive for p in o.parts]
    wanting = [need for need in found if need.left]
    ways = [e.body for e in state.newest_of(WayWeighed, "money")]
    taken = [w for w in ways if w.chosen is not None and not w.ordered]
    decided = [(w.what, w.options[w.chosen or 0]) for w in taken]
    machined = [need for need in found if need.machined is not None]
    owed, back = _refused(placed, found)
    exposure = inspection_view(state).exposure
    ahead = [e.body for e in state.newest_of(ReserveWeighed, "money")]
    reserve = sum(b.price * b.count for b in ahead if not b.buy)
    said = state.newest(BudgetSet, "money", "budget")
    bare = [name for name, price, _, _ in bought if price is None]
    bare += [need.name for need in (*wanting, *machined) if need.price is None]
    bare += [what for what, option in decided if option.price is None]
    lines = [f"ordered: {name}, {n} × {price:.2f}" for name, price, n, _ in bought if price]
    lines += [f"machine work: {n.name}, {n.price:.2f}" for n in machined if n.price]
    lines += [f"decided: {what}, {o.how}, {o.price:.2f}" for what, o in decided if o.price]
    lines += [f"to order: {n.name}, {n.left} × {n.price:.2f}" for n in wanting if n.price]
    lines += [f"sold: {sold:.2f}"] if sold else []
    lines += [f"perhaps needed: {b.name}, {b.count} × {b.price:.2f}" for b in ahead if not b.buy]
    if exposure.worst_open:
        lines.append(
            f"not decided yet: {counted(exposure.open_parts, 'part')}, at worst "
            f"{exposure.worst_open:.2f}"
        )
    return Money(
        budget=said.body.money if said is not None else None,
        ordered=sum((price or 0) * n for _, price, n, _ in bought)
        + sum(n.price or 0 for n in machined)
        - back,
        decided=sum(option.price or 0 for _, option in decided),
        taken=sum((price or 0) * here for _, price, _, here in bought),
        paid=sum(e.body.money for e in state.all(Paid)),
        to_order=sum((need.price or 0) * need.left for need in wanting),
        owed_back=owed,
        back=back,
        sold=sold,
        reserve=reserve,
        worst_open=exposure.worst_open,
        bare=tuple(dict.fromkeys(bare)),
        working=tuple(lines),
    )


def _refused(placed: tuple[OrderFacts, ...], found: tuple[Need, ...]) -> tuple[float, float]:
    """What is owed for pieces that were refused, and what came back for them."""
    refused = [item for need in found for item in need.refused]
    prices = {(o.id, p.need): p.price or 0 for o in placed for p in o.parts}
    owed = sum(prices.get((r.order, r.need), 0) * r.count for r in refused if r.owed)
    return owed, sum(r.money or 0 for r in refused if not r.owed)
