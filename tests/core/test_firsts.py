"""A figure that is worked out of several readings, measured again beside its first."""

import pytest

from hollet.core.book.fit_to import fit_to
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.screens.record import record_view
from hollet.screens.settle import settle_view
from tests.support import SMALL, Book, small_sheet, tool, tools

TOE = """
[[limit]]
id = "toe"
name = "Total toe"
dimension = "length"
unit = "mm"
lo = "0"
hi = "2"
source = "book p. 9"

[[step]]
id = "toe"
stage = "settle"
kind = "measure"
title = "Toe"
do = "Measure."
reading = [
  { id = "f", name = "Front", tool = "rule", state = "rolled" },
  { id = "r", name = "Rear", tool = "rule", state = "rolled" },
]
result = [{ id = "t", name = "Total toe", limit = "toe", minuend = "r", subtrahend = "f" }]

[[step]]
id = "toe_again"
stage = "settle"
kind = "measure"
title = "Toe again"
do = "Measure."
reading = [
  { id = "f2", name = "Front, again", tool = "rule", state = "rolled", first = "f" },
  { id = "r2", name = "Rear, again", tool = "rule", state = "rolled", first = "r" },
]
result = [
  { id = "t2", name = "Toe, again", limit = "toe", minuend = "r2", subtrahend = "f2", first = "t" },
]

"""
SHEET = SMALL.replace('[[step]]\nid = "again"', TOE + '[[step]]\nid = "again"')


@pytest.fixture
def three() -> Book:
    rule = tool("r1", "rule", lo="0", hi="2000", mpe="0.1", resolution="0.1", s="0.05")
    return Book(small_sheet(SHEET), tools() | {"r1": rule})


def read(book: Book, step: str, *row: tuple[str, str], state: str = "rolled") -> None:
    for name, typed in row:
        book.read(step, name, typed, tool="r1", state=state)


def figure(book: Book):
    shown = settle_view(book.state, tuple(book.shop.values()), book.time).figures
    assert [f.id for f in shown if f.id in ("f2", "r2")] == []
    return next((f for f in shown if f.id == "result:t2"), None)


def test_a_toe_stands_beside_its_first(three: Book):
    """1401.0 - 1400.0 was 1.0 mm; 1401.5 - 1400.0 is 1.5 mm, half a millimetre more."""
    assert figure(three) is None
    read(three, "toe", ("f", "1400.0"), ("r", "1401.0"))
    assert (figure(three).first, figure(three).now) == ("1.0", "")
    assert figure(three).word == "not read yet"
    three.later(48)
    read(three, "toe_again", ("f2", "1400.0"), ("r2", "1401.5"))
    found = figure(three)
    assert (found.first, found.now, found.word) == ("1.0", "1.5", "0.5 more")
    assert found.first_value == pytest.approx(1.0)
    assert found.bar is not None


def test_a_toe_set_anew_was_not_measured_again(three: Book):
    read(three, "toe", ("f", "1400.0"), ("r", "1401.0"))
    read(three, "toe_again", ("f2", "1400.0"), ("r2", "1401.5"))
    three.read("toe", "r", "1401.2", tool="r1", state="rolled", sure=True)
    found = figure(three)
    assert (found.first, found.now, found.word, found.bar) == ("1.2", "", "not read yet", None)


def test_of_another_state_there_is_no_bar(three: Book):
    read(three, "toe", ("f", "1400.0"), ("r", "1401.0"))
    read(three, "toe_again", ("f2", "1400.0"), ("r2", "1401.0"), state="on the lift")
    assert (figure(three).word, figure(three).bar) == ("other state", None)


def test_the_record_has_both(three: Book):
    read(three, "toe", ("f", "1400.0"), ("r", "1401.0"))
    read(three, "toe_again", ("f2", "1400.0"), ("r2", "1401.5"))
    view = record_view(three.state, tuple(three.shop.values()), three.time)
    rows = [row for part in view.sections for row in part.rows if row.what == "Toe, again"]
    assert [row.right for row in rows] == ["1.0 → 1.5 mm"]


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ('first = "t" }', 'first = "none" }', "which no other step judges"),
        (', first = "r" }', " }", "'r2' names no `first` of its own"),
    ],
)
def test_what_repeats_a_result_is_made_of_what_repeats(old: str, new: str, words: str):
    text = SHEET.replace(old, new)
    assert text != SHEET
    with pytest.raises(Refused, match=words):
        small_sheet(text)


def test_no_long_trip_before_it_was_measured_again(three: Book):
    """Everything else done or not there, the first toe inside: driven, and not far, till the toe
    was read again.
    """
    steps = [s.id for s in plan_of(three.state).step if s.id not in ("toe", "toe_again")]
    three.absent(*steps)
    three.on_wheels()
    read(three, "toe", ("f", "1400.0"), ("r", "1401.0"))
    three.do("done", step="toe")
    found = {c.id: c for c in fit_to(three.state, tuple(three.shop.values()), three.time)}
    assert (found["drive"].fit, found["trip"].fit) == (True, False)
    assert found["trip"].why.endswith("Toe again: not measured again yet")
    read(three, "toe_again", ("f2", "1400.0"), ("r2", "1401.0"))
    three.do("done", step="toe_again")
    assert all(c.fit for c in fit_to(three.state, tuple(three.shop.values()), three.time))
    three.read("toe", "r", "1401.2", tool="r1", state="rolled", sure=True)  # set anew
    trip = fit_to(three.state, tuple(three.shop.values()), three.time)[-1]
    assert (trip.fit, trip.why.endswith("Toe again: not measured again yet")) == (False, True)
