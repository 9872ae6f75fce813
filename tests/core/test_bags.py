"""Bags: what went in comes out, nothing twice, and the balance never goes below zero."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hollet.core.book.bags import bag_contents, recent_hand, short_of
from hollet.core.errors import Conflict, Refused
from tests.support import TAKE, Book, small_sheet, tools

SIX = {"count": 6, "size": "M8", "length": "45"}
TWO = {"count": 2, "size": "M8", "length": "60", "odd": "special"}


@pytest.fixture
def book() -> Book:
    """A build with the cover's fasteners in bag 12."""
    made = Book(small_sheet(TAKE), tools())
    made.do("bagged", step="cover_off", bag=12, lines=[SIX, TWO], place="on the shelf")
    return made


def content(book: Book, bag: int = 12):
    """One bag as it stands."""
    return next(c for c in bag_contents(book.state) if c.bag == bag)


def take(book: Book, count: int, how: str = "fitted", **line):
    """Fasteners out of bag 12 at the refit."""
    return book.do(
        "unbagged", step="cover_on", bag=12, how=how, lines=[{**SIX, **line, "count": count}]
    )


def test_shortfall_is_said_at_refit(book: Book):
    """Two of six still in the bag: the step that puts the cover back says so."""
    take(book, 4)
    take(book, 2, length="60", odd="special")
    assert content(book).lines[0].words == "2 of 6 M8×45 still in bag 12"
    assert book.bench("cover_on").base.lacking == "2 of 6 M8×45 still in bag 12"
    assert book.bench("cover_on").base.refit_bags[0].left == 2
    take(book, 2)
    assert short_of(bag_contents(book.state), ("cover_off",)) is None


@pytest.mark.parametrize(
    ("bag", "line", "words"),
    [
        (12, {**SIX, "count": 7}, "holds 6 M8×45, not 7"),
        (12, {**SIX, "size": "M10"}, "holds no M10×45"),
        (13, SIX, "bag 13 is empty"),
    ],
)
def test_not_more_than_there_is(book: Book, bag, line, words):
    """Taking what is not there is refused, and says what is there."""
    with pytest.raises(Refused) as refusal:
        book.do("unbagged", step="cover_on", bag=bag, lines=[line])
    assert refusal.value.reason_code == "not_in_bag"
    assert words in refusal.value.message


def test_twice_in_one_line_counts_twice(book: Book):
    """Four and four of six are refused although each alone would do."""
    with pytest.raises(Refused):
        book.do(
            "unbagged", step="cover_on", bag=12, lines=[{**SIX, "count": 4}, {**SIX, "count": 4}]
        )


def test_lost_ones_stay_open_until_replaced(book: Book):
    """What is lost is out of the bag, stands in the gates, and goes when it is replaced."""
    take(book, 2, how="lost")
    assert "lost:12" in book.open()
    assert content(book).lines[0].words == "4 of 6 M8×45 still in bag 12, 2 lost"
    with pytest.raises(Refused):
        book.do("replaced", bag=12, count=3, by="new, 8.8")
    book.do("replaced", bag=12, count=2, by="new, 8.8")
    assert "lost:12" not in book.open()


def test_new_ones_instead(book: Book):
    """Bolts that are used once stay in the bag's record as out, not as lost."""
    take(book, 6, how="new")
    assert (content(book).left, content(book).lost) == (2, 0)


def test_a_number_is_taken_until_the_bag_is_empty(book: Book):
    """Another removal may not use the number while anything is in the bag, and may once it is
    empty.
    """
    line = [{"count": 1, "size": "M6"}]
    with pytest.raises(Refused) as refusal:
        book.do("bagged", step="shaft_off", bag=12, lines=line)
    assert refusal.value.reason_code == "bag_taken"
    with pytest.raises(Refused):
        book.do("removed", removal="fan", what="Fan", bag=12, lines=line)
    take(book, 6)
    take(book, 2, length="60", odd="special")
    book.do("bagged", step="shaft_off", bag=12, lines=line)
    assert (content(book).owner, content(book).pieces) == ("shaft_off", 1)


def test_a_struck_bag_opens_its_step_again(book: Book):
    """The done step stood on its bag: it counts as begun, and says why; what came out counts for
    nothing.
    """
    for step in ("lead_off", "drained"):
        book.do("done", step=step)
    book.do("captured", step="cover_off", capture="cover_mark", strokes=3, place="left")
    book.do("done", step="cover_off")
    taken = take(book, 3)
    bag = next(e for e in book.state.entries.values() if e.kind == "bagged")
    book.do("strike", entry=bag.id, reason="wrong bag")
    assert bag_contents(book.state) == ()
    assert taken.id not in book.state.struck
    assert book.bench("cover_off").base.status.status == "begun"
    assert "its bag was struck" in book.bench("cover_off").base.status.doubt
    book.do("bagged", step="cover_off", bag=13, lines=[SIX])
    assert book.bench("cover_off").base.status.status == "done"


def test_sizes_and_places_come_back_to_the_hand(book: Book):
    """What was written last is offered first."""
    book.do(
        "removed",
        removal="fan",
        what="Fan",
        bag=13,
        lines=[{"count": 4, "size": "M6", "length": "16"}],
        place="in the crate",
    )
    sizes, places = recent_hand(book.state)
    assert [(s.size, s.length, s.count) for s in sizes] == [
        ("M6", "16", 1),
        ("M8", "45", 1),
        ("M8", "60", 1),
    ]
    assert places == ("in the crate", "on the shelf")


acts = st.lists(
    st.tuples(
        st.sampled_from(["in", "out", "lost", "new", "strike"]),
        st.integers(1, 5),
        st.integers(0, 30),
    ),
    max_size=25,
)


@settings(max_examples=60, deadline=None)
@given(acts)
def test_the_balance_never_goes_negative(moves):
    """Whatever is put in, taken, lost and struck in any order: 0 ≤ left ≤ in, and the
    parts add up.
    """
    book = Book(small_sheet(TAKE), tools())
    written = []
    for act, count, which in moves:
        try:
            if act == "in":
                written.append(
                    book.do(
                        "bagged", step="cover_off", bag=1, lines=[{"count": count, "size": "M8"}]
                    )
                )
            elif act == "strike" and written:
                book.do("strike", entry=written[which % len(written)].id, reason="wrong")
            elif act != "strike":
                how = "fitted" if act == "out" else act
                written.append(
                    book.do(
                        "unbagged",
                        step="cover_on",
                        bag=1,
                        how=how,
                        lines=[{"count": count, "size": "M8"}],
                    )
                )
        except (Refused, Conflict):
            continue
        for found in bag_contents(book.state):
            for line in found.lines:
                assert 0 <= line.left <= line.count
                assert line.left + line.fitted + line.lost == line.count
