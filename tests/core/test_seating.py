"""The nuts of a wheel: what does not belong together is not final, however it is pulled."""

import pytest

from hollet.core.errors import NotFound
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


@pytest.mark.parametrize("bad", ["wet", "damaged"])
def test_no_bolt_is_drawn_in_a_thread_that_is_not_fit(book: Book, bad: str):
    """Said of all, or of one hole: nothing is pulled, and what was final is no more."""
    pull(book)
    assert book.joint("cover").final
    book.do("threads said", step="cover_on", threads=bad, bolt=4)
    assert not book.joint("cover").final
    assert "hole 4" in book.bench("cover_on").threads.wrong
    book.do("threads said", step="cover_on", threads="clean")
    assert not book.joint("cover").final  # of all the others; hole 4 is as it was said
    book.do("threads said", step="cover_on", threads="insert", bolt=4)
    assert book.joint("cover").final
    assert book.bench("cover_on").threads.wrong is None


def test_a_wet_hole_holds_the_first_pull(book: Book):
    book.do("threads said", step="cover_on", threads="wet")
    book.refuse("stage_waits", "fastener", step="cover_on", bolt=1, act="clicked")
    book.do("threads said", step="cover_on", threads="chased")
    pull(book)
    assert book.joint("cover").final


def test_a_hole_that_is_not_there(book: Book):
    with pytest.raises(NotFound):
        book.do("threads said", step="cover_on", threads="clean", bolt=9)
