"""What a vehicle cannot do, read from its steps: nobody types it, and it ends with its cause."""

import pytest

from hollet.core.book.standing import cannot_do
from tests.support import SMALL, Book, small_sheet, tools


@pytest.fixture
def book() -> Book:
    """The head bolts of the small job are those of a brake."""
    text = SMALL.replace('id = "head"\nname', 'id = "head"\nsafety = "brakes"\nname', 1)
    return Book(small_sheet(text), tools())


def on_stands(book: Book) -> None:
    """The vehicle is lowered on to stands."""
    book.do(
        "supported",
        support="stands",
        support_kind="stand",
        carries="vehicle",
        point="jacking point left",
        ground="hard",
    )


def test_nothing_begun_it_can_do_what_it_could(book: Book):
    assert cannot_do(book.state) == {}


def test_on_stands_it_does_not_roll(book: Book):
    """Back on its wheels it does."""
    on_stands(book)
    assert cannot_do(book.state)["rolls"] == "it stands on a stand"
    book.on_wheels()
    assert "rolls" not in cannot_do(book.state)


def test_a_lead_off_it_does_not_start(book: Book):
    """Struck or undone, it is another question."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    done = book.do("done", step="lead")
    assert cannot_do(book.state)["starts"] == "Lead off"
    book.do("strike", entry=done.id, reason="pressed at the wrong step")
    assert "starts" not in cannot_do(book.state)


def test_a_brake_apart_it_does_not_brake(book: Book):
    """Until its bolts are final again; a joint of no such part says nothing."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    book.do("done", step="head_out")
    assert cannot_do(book.state)["brakes"] == "Head bolts: off"
