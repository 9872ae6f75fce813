"""What comes due: promises, returns, proofs that wait for a word, suppliers that say nothing."""

from collections.abc import Iterator
from datetime import date
from typing import Literal

from pydantic import computed_field

from hollet.core.book.machined import machine_orders
from hollet.core.book.needs import needs
from hollet.core.book.orders import OrderFacts, days_silent, orders
from hollet.core.entries import BookState
from hollet.core.saying import due_words
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["Due", "due_of"]

SOON = 3
"""Days within which something is said to come due soon."""
SILENT = 5
"""Days after which a supplier who said nothing is asked again; usual, the mechanic's to judge."""


DueKind = Literal[
    "promised", "return", "wanted", "on_us", "silent", "tool", "commitment", "machine"
]


class Due(View):
    """One thing that comes due: what, what closes it, when. `days` is how far off it is, below zero
    late; none where it only waits for a word.
    """

    id: str
    kind: DueKind
    what: str
    does: str
    words: str
    days: int | None
    order: str | None = None
    need: str | None = None
    refusal: str | None = None

    @computed_field
    @property
    def late(self) -> bool:
        """Whether its day went by."""
        return self.days is not None and self.days < 0

    @computed_field
    @property
    def soon(self) -> bool:
        """Whether it comes within three days, or waits for a word."""
        return not self.late and (self.days is None or self.days <= SOON)


def due_of(state: BookState, today: date) -> tuple[Due, ...]:
    """All that comes due on a build, the latest first; what has no day after what is late."""
    found = [
        *_of_orders(state, today),
        *_of_parts(state, today),
        *_of_machines(state, today),
    ]
    return tuple(sorted(found, key=lambda d: (not d.late, d.days if d.days is not None else 0)))


def _of_orders(state: BookState, today: date) -> Iterator[Due]:
    for order in orders(state):
        if not order.live:
            continue
        what = ", ".join(part.name for part in order.parts if part.to_come)
        silent = days_silent(order, today)
        if order.on_us:
            does = "approve or send back" if order.state != "quoted" else "order it or not"
            yield Due(
                id=f"on_us:{order.id}",
                kind="on_us",
                what=what,
                does=f"{order.supplier} waits: {does}",
                words=order.state,
                days=None,
                order=order.id,
            )
        elif order.promised is not None:
            days = (order.promised - today).days
            yield _promised(order, what, days)
        elif silent >= SILENT:
            yield Due(
                id=f"silent:{order.id}",
                kind="silent",
                what=what,
                does=f"{order.supplier}: silent for {counted(silent, 'day')}",
                words="ask again",
                days=None,
                order=order.id,
            )


def _promised(order: OrderFacts, what: str, days: int) -> Due:
    return Due(
        id=f"promised:{order.id}",
        kind="promised",
        what=what,
        does=f"{order.supplier} promised it" + (", ask again" if days < 0 else ""),
        words=due_words(days),
        days=days,
        order=order.id,
    )


def _of_machines(state: BookState, today: date) -> Iterator[Due]:
    for work in machine_orders(state):
        if not work.live or work.promised is None or work.state == "back":
            continue
        days = (work.promised - today).days
        yield Due(
            id=f"machine:{work.work}",
            kind="machine",
            what=f"{work.part}, {work.to_do}",
            does=f"{work.supplier} promised it" + (", ask again" if days < 0 else ""),
            words=due_words(days),
            days=days,
            need=work.need,
        )


def _of_parts(state: BookState, today: date) -> Iterator[Due]:
    for need in needs(state):
        for back in need.refused:
            if not back.here:
                continue
            days = (back.back_by - today).days if back.back_by is not None else None
            yield Due(
                id=f"return:{back.entry}",
                kind="return",
                what=back.name,
                does=f"back to {back.supplier}",
                words=due_words(days) if days is not None else "until when? ask",
                days=days,
                need=need.id,
                refusal=back.entry,
            )
        if need.by is not None and need.open:
            days = (need.by - today).days
            yield Due(
                id=f"wanted:{need.id}",
                kind="wanted",
                what=need.name,
                does="wanted by then",
                words=due_words(days),
                days=days,
                need=need.id,
            )
