"""Labels to stick on: bags in use, numbers ahead for those to come, wires as they were found."""

from typing import Literal

from hollet.core.book.bags import bag_contents, next_bag
from hollet.core.book.captures import all_captures
from hollet.core.entries import BookState
from hollet.core.errors import Refused
from hollet.exchange.labels_pdf import LABELS_A_SHEET, labels_pdf
from hollet.exchange.paper import Label
from hollet.services.names import build_names
from hollet.services.workshop import Workshop

__all__ = ["Which", "labels"]

Which = Literal["bags", "ahead", "wires"]


def labels(workshop: Workshop, build: str, which: Which, address: str | None) -> bytes:
    """Sheets of 24; with `address` (host:port) each bag carries the code that opens it on a paired
    phone.

    Raises
    ------
    Refused
        `nothing_to_print`: no bag is in use, or no wire was written down.
    """
    with workshop.held(build) as state:
        found = MAKE[which](state, _opens(build, address))
    if not found:
        words = {"bags": "no bag is in use yet", "wires": "no wire was written down yet"}[which]
        raise Refused("nothing_to_print", words, field="which")
    return labels_pdf(f"Labels: {build_names(workshop)[build]}", found)


def _opens(build: str, address: str | None) -> str | None:
    return f"http://{address}/builds/{build}/bags?bag=" if address else None


def _bags(state: BookState, opens: str | None) -> list[Label]:
    return [
        Label(
            mark=str(bag.bag),
            what=f"{bag.number} {bag.what}".strip(),
            lines="; ".join(line.words for line in bag.lines if line.left),
            address=f"{opens}{bag.bag}" if opens else None,
        )
        for bag in bag_contents(state)
        if bag.left
    ]


def _ahead(state: BookState, opens: str | None) -> list[Label]:
    """The next numbers: the next free one becomes the next bag."""
    first = next_bag(bag_contents(state))
    return [
        Label(str(number), "", "", f"{opens}{number}" if opens else None)
        for number in range(first, first + LABELS_A_SHEET)
    ]


def _wires(state: BookState, opens: str | None) -> list[Label]:
    return [
        Label(wire.terminal, wire.colour, f"{capture.what}{f', {wire.note}' if wire.note else ''}")
        for capture in all_captures(state)
        for wire in capture.wires
    ]


MAKE = {"bags": _bags, "ahead": _ahead, "wires": _wires}
