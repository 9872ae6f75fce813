"""What a build counted and found, kept in its owner's own copy of the sheet."""

from datetime import date

import pytest

from hollet.core.book.sharper import sharpened, sharper_of
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.laws.check import breaches
from hollet.core.procedure.sheet import Sheet
from tests.support import SMALL, Book, small_sheet, tools

ANY = SMALL.replace("[sheet]", "[sheet]\nany_vehicle = true", 1)
DAY = date(2026, 3, 1)


@pytest.fixture
def book() -> Book:
    """A build of a sheet for any vehicle."""
    return Book(small_sheet(ANY), tools())


def bag(book: Book, count: int, length: str = "90", size: str = "M10", **more: str) -> None:
    """One line of the head's bolts into a bag."""
    line = {"count": count, "size": size, "length": length, **more}
    book.do("bagged", step="head_out", bag=1 + len(more), lines=[line])


def words(book: Book) -> list[str]:
    """What could be kept."""
    return [found.words for found in sharper_of(book.state, small_sheet(ANY))]


def kept(book: Book) -> Sheet:
    """The sheet with all of it."""
    return sharpened(book.state, small_sheet(ANY), "MK", DAY, "One")


def test_nothing_found_nothing_kept(book: Book):
    """A build that only believed its sheet has nothing to give it."""
    assert words(book) == []
    assert kept(book) == small_sheet(ANY)


def test_a_count_as_usual_is_no_longer_assumed(book: Book):
    """Six of six counted: the own copy says so, with who, when and where; a build from it asks
    nobody to count the head again, and still the cover that nobody counted.
    """
    book.plan("count", joint="head", version=1, bolts=6)
    assert words(book) == ["Head bolts: 6 bolts counted"]
    mine = kept(book)
    (learnt,) = mine.learnt
    assert (learnt.what, learnt.who, learnt.on, learnt.build) == (words(book)[0], "MK", DAY, "One")
    again = Book(mine, tools())
    assert again.joint("head").counted
    assert not again.joint("cover").counted
    assert sharper_of(again.state, mine) == ()


def test_another_number_is_drawn_in_words_and_bag(book: Book):
    """Eight where six are usual: drawing, words and the proposed bag say eight, and the copy breaks
    no law that the sheet kept.
    """
    book.plan("count", joint="head", version=1, bolts=8, sure=True)
    assert words(book) == ["Head bolts: 8 bolts counted, 6 are usual"]
    mine = kept(book)
    joint = mine.find_joint("head")
    assert (len(joint.sequence()), joint.fastener) == (8, "8 x M10")
    assert [s.count for s in mine.find_step("head_out").bag_specs()] == [8]
    laws = {breach.law for breach in breaches(small_sheet(ANY), ANY)}
    assert {breach.law for breach in breaches(mine, "")} <= laws


def test_another_vehicle_has_another_number(book: Book):
    """The copy knows eight; a build that counts ten says so, and the copy then holds ten, with the
    lines of both.
    """
    book.plan("count", joint="head", version=1, bolts=8, sure=True)
    first = kept(book)
    other = Book(first, tools())
    other.plan("count", joint="head", version=other.joint().version, bolts=10, sure=True)
    told = [found.words for found in sharper_of(other.state, first)]
    assert told == ["Head bolts: 10 bolts counted, 8 were counted before"]
    mine = sharpened(other.state, first, "TR", DAY, "Two")
    assert len(mine.find_joint("head").sequence()) == 10
    assert [found.who for found in mine.learnt] == ["MK", "TR"]


def test_bags_with_lengths_by_hole(book: Book):
    """Two lengths where the sheet knew one: both lines, each with its holes."""
    bag(book, 4, "90", holes="1 to 4")
    bag(book, 2, "110", holes="5 6", odd="waisted")
    assert words(book) == ["Head bolts out: 4 × M10×90 at 1 2 3 4, 2 × M10×110 at 5 6, counted"]
    specs = kept(book).find_step("head_out").bag_specs()
    assert [(s.count, s.length, s.holes, s.odd) for s in specs] == [
        (4, "90", "1 2 3 4", None),
        (2, "110", "5 6", "waisted"),
    ]
    assert all(s.counted for s in specs)
    step = combine_sheets([kept(book)]).find_step("head_out")
    assert all(spec.counted for spec in step.bag_specs())


def test_two_bags_of_the_same_are_one_line(book: Book):
    """Four, then two more of the same kind: six, with the holes of both."""
    bag(book, 4, holes="1 to 4")
    bag(book, 2, holes="5 6")
    assert words(book) == ["Head bolts out: 6 × M10×90 at 1 2 3 4 5 6, counted"]


def test_a_struck_bag_is_not_kept(book: Book):
    """A line taken back leaves nothing to keep."""
    book.do("bagged", step="head_out", bag=1, lines=[{"count": 7, "size": "M10", "length": "90"}])
    last = list(book.state.entries.values())[-1]
    book.do("strike", entry=last.id, reason="the other bag")
    assert words(book) == []


def test_hidden_things_found(book: Book):
    """What was found hidden at a step warns the next time."""
    book.plan("hidden", step="head_out", thing="a bolt under the bracket")
    assert words(book) == ["Head bolts out: hidden there, a bolt under the bracket (MK)"]
    assert kept(book).find_step("head_out").hidden == ("a bolt under the bracket (MK)",)


@pytest.mark.parametrize(
    ("hours", "found"),
    [(2.0, ["Again: took 2 h"]), (0.01, []), (14.0, [])],
)
def test_hours_of_one_sitting(book: Book, hours: float, found: list[str]):
    """From begun to done; a moment is no measure, and over a night it is no working time."""
    book.do("started", step="again")
    book.later(hours)
    book.do("done", step="again")
    assert words(book) == found
    if found:
        assert kept(book).find_step("again").hours == (2.0, 2.0)


def test_a_range_only_grows(book: Book):
    """Hours that the sheet has are widened, never narrowed by one build; inside it says nothing."""
    text = ANY.replace('title = "Again"', 'title = "Again"\nhours = [0.2, 1.0]')
    book.do("started", step="again")
    book.later(2.0)
    book.do("done", step="again")
    mine = sharpened(book.state, small_sheet(text), "MK", DAY, "One")
    assert mine.find_step("again").hours == (0.2, 2.0)
    wide = ANY.replace('title = "Again"', 'title = "Again"\nhours = [0.2, 4.0]')
    assert sharper_of(book.state, small_sheet(wide)) == ()
