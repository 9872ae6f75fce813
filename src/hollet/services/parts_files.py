"""Parts and orders as files: a table out, wanted parts in, a shopping list on paper."""

import hashlib

from pydantic import BaseModel, ValidationError

from hollet.core.acts.kinds import accept
from hollet.core.acts.parts import PartWantedAct
from hollet.core.book.needs import needs
from hollet.core.book.orders import orders, slip_words
from hollet.core.entries import Body, Paid
from hollet.core.entries.status import plan_of
from hollet.core.errors import HolletError, Refused
from hollet.exchange.csv import read_table, table
from hollet.exchange.list_pdf import list_pdf
from hollet.exchange.paper import ListGroup, ListRow
from hollet.services.builds import cards
from hollet.services.names import build_names
from hollet.services.parts import desk
from hollet.services.tonight import tonight
from hollet.services.workshop import Workshop

__all__ = [
    "WantedIn",
    "card_for_today",
    "orders_csv",
    "parts_csv",
    "read_parts",
    "shopping_list",
]

HEAD = (
    "id",
    "part",
    "number",
    "wanted",
    "free",
    "here",
    "ordered",
    "left",
    "price",
    "due",
    "state",
    "stops",
    "step",
    "safety",
)
WANTED = ("id", "part", "number", "wanted", "price", "by", "step", "safety")


class WantedIn(BaseModel):
    """How many parts of a table are wanted now, and how many stood there already."""

    written: int
    unchanged: int


def parts_csv(workshop: Workshop, build: str) -> str:
    """Every part that is needed, as it stands."""
    view = desk(workshop, build)
    rows = [row for group in view.groups for row in group.rows] + list(view.free)
    return table(
        HEAD,
        [
            (
                row.need.id,
                row.need.name,
                row.need.number,
                row.need.wanted,
                row.need.free,
                row.need.here,
                row.need.ordered,
                row.need.left,
                "" if row.need.price is None else f"{row.need.price:.2f}",
                row.due,
                row.words,
                row.stops_words,
                row.need.first.number if row.need.first is not None else "",
                row.need.safety or "",
            )
            for row in rows
        ],
    )


ORDERS = (
    "order",
    "supplier",
    "state",
    "part",
    "count",
    "arrived",
    "refused",
    "price",
    "promised",
    "slipped",
    "paid",
)


def orders_csv(workshop: Workshop, build: str) -> str:
    """Every order, a line a part; what was paid stands in the first line of each."""
    with workshop.held(build) as state:
        placed = orders(state)
        paid = {o.id: sum(e.body.money for e in state.each(Paid, "order", o.id)) for o in placed}
    return table(
        ORDERS,
        [
            (
                order.id,
                order.supplier,
                order.state,
                part.name,
                part.count,
                part.arrived,
                part.refused,
                "" if part.price is None else f"{part.price:.2f}",
                order.promised.isoformat() if order.promised is not None else "",
                slip_words(order),
                f"{paid[order.id]:.2f}" if k == 0 and paid[order.id] else "",
            )
            for order in placed
            for k, part in enumerate(order.parts)
        ],
    )


def read_parts(workshop: Workshop, build: str, text: str, *, who: str) -> WantedIn:
    """Want the parts of a table: all or none. Rows of parts that are needed already are passed
    over.

    Raises
    ------
    Refused
        With the line: no name, a price or day that is none, a step that is not there, or no word
        on whether it is a safety part.
    """
    rows = read_table(text, WANTED)
    with workshop.held(build) as state:
        known = {need.id for need in needs(state)}
        steps = {step.number: step.id for step in plan_of(state).step}
        hand = workshop.hand(who)
        bodies: list[Body] = []
        unchanged = 0
        for line, row in rows:
            if row["id"] in known:
                unchanged += 1
                continue
            number = row.get("step", "")
            if number and number not in steps:
                words = f"line {line}: there is no step {number} in this build"
                raise Refused("bad_file", words, field="step")
            try:
                act = PartWantedAct.model_validate(
                    {
                        "kind": "part wanted",
                        "typed": _typed(row),
                        "step": steps.get(number),
                        "safety": row.get("safety") or None,
                    }
                )
                bodies.append(accept(state, act, hand))
            except ValidationError as error:
                words = f"line {line}: {error.errors()[0]['msg']}"
                raise Refused("bad_file", words, field="part") from error
            except HolletError as refusal:
                raise Refused(
                    refusal.reason_code, f"line {line}: {refusal.message}", field=refusal.field
                ) from refusal
        sent = hashlib.sha256(text.encode()).hexdigest()
        drafts = [workshop.draft(build, body, who, sent=sent) for body in bodies]
        workshop.write_all(build, state, drafts)
        return WantedIn(written=len(bodies), unchanged=unchanged)


def _typed(row: dict[str, str]) -> str:
    """The row as somebody would type it in one line."""
    head = f"{row.get('wanted') or 1} x {row.get('part', '')} {row.get('number', '')}".strip()
    return ", ".join(part for part in (head, row.get("price", ""), row.get("by", "")) if part)


def _printed(workshop: Workshop) -> str:
    return workshop.local().strftime("%Y-%m-%d %H:%M")


def shopping_list(workshop: Workshop) -> bytes:
    """What is to order or to fetch, over all builds, by what it stops; as PDF."""
    groups = []
    for build, name in build_names(workshop).items():
        view = desk(workshop, build)
        rows = tuple(
            ListRow(
                what=f"{row.need.left} × {row.need.name}",
                small=", ".join(
                    text
                    for text in (row.need.number, row.need.amount, f"stops {row.stops_words}")
                    if text
                ),
                right="" if row.need.price is None else f"{row.need.price:.2f} each",
            )
            for group in view.groups
            for row in group.rows
            if row.need.left
        )
        if rows:
            groups.append(ListGroup(name, rows))
    return list_pdf(
        "Shopping list", "to order, or to find on the shelf", _printed(workshop), groups
    )


def card_for_today(workshop: Workshop) -> bytes:
    """What was really done last, what hangs and is loose, what is possible, what comes due; PDF."""
    view = tonight(workshop)
    groups = []
    for card in cards(workshop):
        resume = card.frame.resume
        rows = [ListRow(d.title, d.words, "dangerous now") for d in card.frame.dangers]
        if resume is not None:
            rows += [ListRow(words) for words in resume.first]
            rows.append(ListRow(resume.title, resume.line, box=False))
            if resume.hangs:
                rows.append(ListRow("What hangs", resume.hangs, box=False))
        left = card.frame.left_open
        names = ", ".join(item.what for item in left[:4])
        rows.append(ListRow(f"{len(left)} left open", names, box=False))
        groups.append(ListGroup(card.name, tuple(rows)))
    possible = [row for row in (view.first, *view.others) if row is not None]
    groups.append(
        ListGroup(
            view.title,
            tuple(ListRow(f"{r.offer.title}, {r.name}", r.about, r.range) for r in possible),
        )
    )
    groups.append(
        ListGroup(
            "Not, because",
            tuple(
                ListRow(f"{c.what.title}, {c.name}", c.what.because, box=False) for c in view.cannot
            ),
        )
    )
    groups.append(
        ListGroup(
            "Comes due", tuple(ListRow(d.due.what, d.due.does, d.due.words) for d in view.due)
        )
    )
    shown = [group for group in groups if group.rows]
    return list_pdf("Card for today", view.day, _printed(workshop), shown)
