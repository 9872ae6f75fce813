"""The next build of a vehicle opens with what the last one said, dated, beside today."""

import pytest

from hollet.core.errors import Refused
from hollet.services import builds
from hollet.services.builds import make_build
from hollet.services.last_time import last_time
from hollet.services.record import record
from tests.support import Hand

READ = {"reading": "ring", "instrument": "f1", "state": "", "unit": "mm"}


def another(hand: Hand, vehicle: str = "One", name: str = "Next") -> Hand:
    made = make_build(
        hand.workshop, sheets=["small"], name=name, vehicle=vehicle, about="again", who="MK"
    )
    return Hand(hand.workshop, made)


def told(hand: Hand, step: str = "ring") -> list[tuple[str, str, str]]:
    lines = builds.bench(hand.workshop, hand.build, step).base.last_time
    return [(line.what, line.figure, line.name) for line in lines]


def test_the_bench_says_what_it_was_last_time(hand: Hand):
    hand.write("reading", step="ring", typed=["0.30 0.40"], **READ)
    then = another(hand)
    assert told(then) == [("Gap", "0.35 mm", "Job")]
    assert told(hand) == []  # what came later is not last time
    assert told(another(hand, vehicle="Two")) == []


def test_of_two_the_newer_stands_at_the_bench(hand: Hand):
    hand.write("reading", step="ring", typed=["0.30 0.40"], **READ)
    second = another(hand)
    third = another(hand, name="Third")
    assert told(third) == [("Gap", "0.35 mm", "Job")]  # the second has not read it
    second.write("reading", step="ring", typed=["0.35 0.45"], **READ)
    assert told(third) == [("Gap", "0.40 mm", "Next")]
    read = hand.workshop.heads()  # a struck reading is no last time
    line = next(reversed(list(_lines(second))))
    second.write("strike", entry=line, reason="read at the wrong cylinder")
    assert hand.workshop.heads() != read
    assert told(third) == [("Gap", "0.35 mm", "Job")]


def _lines(hand: Hand):
    with hand.workshop.held(hand.build) as state:
        return list(state.order)


def test_the_desk_lays_then_beside_today(hand: Hand):
    hand.write("reading", step="ring", typed=["0.30 0.40"], **READ)
    then = another(hand)
    view = last_time(hand.workshop, then.build)
    assert view.title == "1 build before this on One"
    (row,) = view.builds[0].rows
    assert (row.what, row.today) == ("Gap", "")
    assert row.then.startswith("0.35 mm, 20")
    assert any(line.startswith("Open: ") for line in view.builds[0].left)
    then.write("reading", step="ring", typed=["0.40 0.50"], **READ)
    assert last_time(hand.workshop, then.build).builds[0].rows[0].today == "0.45 mm"
    assert last_time(hand.workshop, hand.build).title == "Nothing was built on One before this"


def test_an_engine_takes_its_past_to_another_vehicle(hand: Hand):
    """By the number stamped on it, whatever its case and strokes; at no bench, and never of another
    sort of unit.
    """
    hand.write("reading", step="ring", typed=["0.30 0.40"], **READ)
    hand.write("unit named", sort="engine", number="HX 4711-b")
    then = another(hand, vehicle="Two")
    assert last_time(hand.workshop, then.build).title == "Nothing was built on Two before this"
    then.write("unit named", sort="gearbox", number="hx4711B")
    assert last_time(hand.workshop, then.build).builds == ()
    then.write("unit named", sort="engine", number="hx4711B")
    view = last_time(hand.workshop, then.build)
    assert view.title.endswith("before this, 1 build with a unit of this one elsewhere")
    (found,) = view.builds
    assert (found.by, found.rows[0].what) == ("engine HX 4711-b, then in One", "Gap")
    assert told(then) == []
    assert [(u.sort, u.number) for u in view.units if u.sort == "engine"] == [("engine", "hx4711B")]
    sections = {s.title: s for s in record(hand.workshop, then.build).sections}
    units = sections["Units by their stamped numbers"].rows
    assert [(row.what, row.right) for row in units] == [
        ("gearbox", "hx4711B"),
        ("engine", "hx4711B"),
    ]
    later = another(hand, vehicle="One", name="Third")
    later.write("unit named", sort="engine", number="HX4711B")
    assert [b.by for b in last_time(hand.workshop, later.build).builds] == [
        "",
        "engine hx4711B, then in Two",
    ]


def test_a_number_of_two_letters_is_none(hand: Hand):
    with pytest.raises(Refused, match="as it is stamped"):
        hand.write("unit named", sort="engine", number=" a-1 ")
