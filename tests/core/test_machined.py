"""Work at a machine shop: back is not right; measured again by the order is."""

import pytest

from hollet.core.book.due import due_of
from hollet.core.book.machined import MachineFacts, machine_orders
from hollet.core.book.needs import need_named
from hollet.core.errors import Conflict, NotFound
from hollet.core.instruments import Doubt
from tests.support import Book, small_sheet, tools

ORDER = {
    "work": "m1",
    "part": "block",
    "to_do": "bore and hone",
    "size": "84.000 to 84.020 mm",
    "size_of": "bore",
    "source": "the order",
    "supplier": "Weir Machine Works",
    "with_on": ["torque plate"],
    "price": 240,
    "step": "bore",
    "safety": "none",
}


@pytest.fixture
def book() -> Book:
    """A small build whose bore step waits for the block."""
    return Book(small_sheet(), tools())


def work(book: Book) -> MachineFacts:
    """The one piece of work."""
    (found,) = machine_orders(book.state, tuple(book.shop.values()))
    return found


def back(book: Book) -> None:
    """Ordered, out and back."""
    book.do("machine ordered", **ORDER)
    book.do("machine moved", work="m1", now="out", promised="in 9 days")
    book.do("machine moved", work="m1", now="back")


def test_the_step_waits_until_it_is_measured_again(book: Book):
    """At the shop, back, outside, inside: only the last lets the step go."""
    book.do("machine ordered", **ORDER)
    assert "block: bore and hone is not free" in " ".join(o.words for o in book.in_the_way("bore"))
    book.do("machine measured", work="m1", when="before", typed=["83.98"], instrument="b1")
    book.do("machine moved", work="m1", now="out", promised="in 9 days")
    (due,) = due_of(book.state, book.now.date())
    assert (due.kind, due.days, due.late) == ("machine", 9, False)
    assert work(book).words.startswith("at Weir Machine Works, promised for")
    book.do("machine moved", work="m1", now="back")
    assert work(book).to_measure
    assert not work(book).right
    book.do("machine measured", work="m1", when="after", typed=["84.031"], instrument="b1")
    assert work(book).words == "back, 84.031 mm: outside, 0.011 over"
    assert [o.code for o in book.in_the_way("bore") if o.code == "part"]
    book.do("machine measured", work="m1", when="after", typed=["84.010"], instrument="b1")
    assert not work(book).right, "one good figure does not outweigh a bad one of the same bore"
    book.do("machine moved", work="m1", now="out")
    book.do("machine moved", work="m1", now="back")
    book.do(
        "machine measured", work="m1", when="after", typed=["84.009", "84.011"], instrument="b1"
    )
    assert work(book).right
    assert work(book).before == ("83.98 mm",)
    assert not [o for o in book.in_the_way("bore") if o.code == "part"]


def test_one_figure_of_several_outside_is_not_right(book: Book):
    back(book)
    book.do(
        "machine measured", work="m1", when="after", typed=["84.010", "84.040"], instrument="b1"
    )
    assert not work(book).right


def test_near_the_edge_is_too_close(book: Book):
    """What the gauge cannot decide is not right."""
    back(book)
    book.do("machine measured", work="m1", when="after", typed=["84.0195"], instrument="b1")
    assert [j.verdict for j in work(book).judged] == ["too_close"]
    assert not work(book).right


def test_a_figure_out_of_the_reach_of_its_tool_proves_nothing(book: Book):
    """Typed as a deviation, 0.010, it lies out of the travel of the gauge."""
    back(book)
    book.do("machine measured", work="m1", when="after", typed=["0.010"], instrument="b1")
    assert not work(book).right
    assert {j.verdict for j in work(book).judged} <= {"too_close", "outside"}


def test_a_tool_found_wrong_takes_it_back(book: Book):
    """Next week the gauge fails its check: the block is measured again, and crank says so."""
    back(book)
    book.do("machine measured", work="m1", when="after", typed=["84.010"], instrument="b1")
    assert work(book).right
    doubt = Doubt(since="2000-01-01T00:00:00Z", until="2100-01-01T00:00:00Z", words="0.02 off")
    book.shop["b1"] = book.shop["b1"].model_copy(update={"doubts": (doubt,)})
    assert not work(book).right
    assert "measure it again" in work(book).words
    assert book.open()["machine:m1"]
    (held,) = [o for o in book.in_the_way("bore") if o.code == "part"]
    assert "measure it again" in held.words


def test_sent_out_again_nothing_of_before_counts(book: Book):
    """What was measured before it went out once more is not how it came back."""
    back(book)
    book.do("machine measured", work="m1", when="after", typed=["84.010"], instrument="b1")
    book.do("machine moved", work="m1", now="out", because="hone marks too coarse")
    assert not work(book).right
    book.do("machine moved", work="m1", now="back")
    assert work(book).to_measure


def test_struck_it_counts_no_more(book: Book):
    back(book)
    line = book.do("machine measured", work="m1", when="after", typed=["84.010"], instrument="b1")
    book.do("strike", entry=line.id, reason="typed at the wrong part")
    assert not work(book).right


def test_a_finish_is_seen(book: Book):
    """No size: the finish by words; with both, both."""
    finish = {**ORDER, "size": "", "finish": "cross-hatch 45 degrees"}
    book.do("machine ordered", **finish)
    book.do("machine moved", work="m1", now="out")
    book.do("machine moved", work="m1", now="back")
    assert work(book).words == "back, the finish is not looked at"
    book.refuse("no_size", "machine measured", work="m1", when="after", typed=["84.01"])
    book.do("machine measured", work="m1", when="after", seen="45 degrees, even, MK")
    assert work(book).right


def test_it_is_never_free_by_a_press(book: Book):
    """Counted on the shelf, taken in writing: it is measured."""
    back(book)
    need = work(book).need
    for how in ({"how": "counted"}, {"how": "compared"}):
        book.refuse("not_here", "part taken", need=need, count=1, **how)
    writing = {"how": "in_writing", "reason": "the shop measured it", "name": "MK"}
    book.refuse("not_here", "part taken", need=need, count=1, **writing)
    found = need_named(book.state, need)
    assert found is not None
    assert (found.left, found.price) == (0, 240)


@pytest.mark.parametrize(
    ("code", "kind", "said"),
    [
        ("bad_size", "machine ordered", {**ORDER, "size": "84.01 mm"}),
        ("bad_size", "machine ordered", {**ORDER, "size": "as big as it gets"}),
        ("nothing_ordered", "machine ordered", {**ORDER, "size": ""}),
        ("safety_asked", "machine ordered", {**ORDER, "safety": None}),
        ("never_conceded", "machine ordered", {**ORDER, "safety": "lifting"}),
    ],
)
def test_an_order_says_what_comes_back(book: Book, code, kind, said):
    book.refuse(code, kind, **said)


def test_out_of_order_is_refused(book: Book):
    """Back before it was out, measured after before it is back, with no tool, off and on."""
    book.do("machine ordered", **ORDER)
    with pytest.raises(Conflict):
        book.do("machine ordered", **ORDER)
    book.refuse("not_out", "machine moved", work="m1", now="back")
    after = {"work": "m1", "when": "after", "typed": ["84.01"]}
    book.refuse("not_back", "machine measured", **after, instrument="b1")
    before = {**after, "when": "before"}
    book.refuse("no_tool", "machine measured", **before)
    for other in ("w1", "f1"):
        book.refuse("wrong_tool", "machine measured", **before, instrument=other)
    with pytest.raises(NotFound):
        book.do("machine moved", work="other", now="out")
    book.do("machine moved", work="m1", now="off")
    with pytest.raises(Conflict):
        book.do("machine moved", work="m1", now="out")
    assert need_named(book.state, work(book).need) is None


@pytest.mark.parametrize(
    ("size", "words"),
    [
        ("84.000 to 84.02 mm", "84.000 to 84.020 mm"),
        ("80.00 ± 0.05 mm", "79.95 to 80.05 mm"),
        ("at most 0.05 mm", "at most 0.05 mm"),
        ("0 to 0.05 mm", "at most 0.05 mm"),
        ("at least 9.30 mm", "at least 9.30 mm"),
        ("3.3070 to 3.3080 in", "3.3070 to 3.3080 in"),
    ],
)
def test_a_size_stays_as_fine_as_it_was_typed(book: Book, size, words):
    """Nothing is rounded, no zero is lost, and the unit is the one typed."""
    book.do("machine ordered", **{**ORDER, "size": size})
    assert work(book).asks == words
