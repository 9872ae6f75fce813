"""The nuts of a wheel: what does not belong together is not final, however it is pulled."""

import pytest

from hollet.core.steps.seating import misfit
from tests.support import SMALL, Book, small_sheet, tools

WHEEL = SMALL.replace('final = "cinched"', 'safety = "wheels"')


@pytest.fixture
def book() -> Book:
    found = Book(small_sheet(WHEEL), tools())
    found.wrench("w1", step="cover_on")
    return found


def said(book: Book, nut: str, wheel: str, centred: str) -> None:
    book.do("seating said", step="cover_on", nut=nut, wheel=wheel, centred=centred)


def pull(book: Book) -> None:
    for bolt in range(1, 7):
        book.do("fastener", step="cover_on", bolt=bolt, act="clicked")


@pytest.mark.parametrize(
    ("nut", "wheel", "centred", "fits"),
    [
        ("taper", "taper", "nuts", True),
        ("ball", "ball", "nuts", True),
        ("flat", "flat", "hub", True),
        ("taper", "taper", "hub", True),
        ("taper", "ball", "nuts", False),
        ("flat", "taper", "hub", False),
        ("flat", "flat", "nuts", False),
    ],
)
def test_what_belongs_together(book: Book, nut: str, wheel: str, centred: str, fits: bool):
    said(book, nut, wheel, centred)
    assert (misfit(book.state, book.state.plan.find_joint("cover")) is None) == fits
    if fits:
        pull(book)
        assert book.joint("cover").final
        return
    book.refuse("stage_waits", "fastener", step="cover_on", bolt=1, act="clicked", stage=1)


def test_said_after_they_were_drawn(book: Book):
    """Pulled and final; then somebody looks: it is open again, and shuts its rung."""
    pull(book)
    assert book.joint("cover").final
    said(book, "ball", "taper", "nuts")
    assert not book.joint("cover").final
    assert "joint:cover" in book.open()
    assert any("do not belong together" in words for words in book.left())
    said(book, "taper", "taper", "nuts")
    assert book.joint("cover").final


def test_asked_of_a_wheel_alone(book: Book):
    assert book.bench("cover_on").seating.words is None
    assert book.bench("head_in").seating is None
