"""Loose, adjust, lock: a lock counts only after its place was found, in its order, and once."""

import tomllib
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.entries.status import statuses
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.read import read_sheet
from hollet.core.steps.groups import room
from tests.support import SMALL, Book, tools

SHAFT = """
[[limit]]
id = "far_in"
name = "Shaft in the joint"
dimension = "length"
unit = "mm"
lo = "18"
source = "book p. 9"

[[joint]]
id = "column"
name = "Joint at the column"
layout = { kind = "points", points = { "1" = [0, 0] } }
pattern = "order"
order = ["1"]
stage = [{ torque = "25 Nm" }]
source = "book p. 9"
fastener = "1 x M8"
one_use = [{ name = "pinch bolt" }]
heads = "up"
safety = "steering"

[[joint]]
id = "box"
name = "Joint at the box"
layout = { kind = "points", points = { "1" = [0, 0] } }
pattern = "order"
order = ["1"]
stage = [{ torque = "25 Nm" }]
source = "book p. 9"
fastener = "1 x M8"
safety = "steering"

[[step]]
id = "loose"
stage = "build_up"
kind = "fit"
title = "All in by hand"
do = "By hand."
trial = { proves = "it slides", kept_back = ["washers"] }

[[step.opens]]
id = "on_trial"
what = "Shaft on trial"
blocks = "drive"
undo = "new bolts in"
sort = "trial"


[[step]]
id = "place"
stage = "build_up"
kind = "measure"
title = "How far it is in"
do = "Both ends."
after = [{ step = "loose", because = "nothing to read", kind = "load needed" }]
reading = [{ id = "in_a", name = "At the column", tool = "caliper" },
  { id = "in_b", name = "At the box", tool = "caliper" }]
result = [{ id = "a_r", name = "At the column", limit = "far_in", reading = "in_a" },
  { id = "b_r", name = "At the box", limit = "far_in", reading = "in_b" }]

[[step]]
id = "lock"
stage = "build_up"
kind = "tighten"
title = "Shaft locked"
do = "Column first."
joint = "column"
blocks = "drive"
closes = ["on_trial"]
after = [{ step = "loose", because = "all by hand first", kind = "setting kept" },
  { step = "place", because = "a lock holds the place", kind = "setting kept" }]
orient = [{ id = "groove", kind = "felt", how = "bolt in its groove", second = true }]

[step.group]
hand = "loose"
set_by = ["place"]
then = ["box"]
adjust = [{ name = "the shaft", how = "slides", sets = "how far it is in" }]
shut = "after the column the slide is shut"
ways = [{ result = "a_r", way = "with" }, { result = "b_r", way = "against" }]
towards = "to the column"
last = "lock tabs up"
"""


def sheet(text: str = SHAFT) -> Any:
    """The small job with a steering shaft in it."""
    return read_sheet(tomllib.loads(SMALL + text), SMALL + text)


@pytest.fixture
def book() -> Book:
    return Book(sheet(), tools())


def lock(book: Book, joint: str, **own: Any) -> None:
    """One bolt of the group clicks."""
    book.do("fastener", step="lock", joint=joint, bolt=1, act="clicked", stage=1, **own)


def wrenches(book: Book) -> None:
    """The same wrench for both joints."""
    for name in ("column", "box"):
        book.do("decision", step="lock", about="wrench", wrench="w1")
        if name == "column":
            lock(book, "column")


def placed(book: Book, a: str = "22", b: str = "22") -> None:
    """In by hand, and both ends read."""
    book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    book.read("place", "in_a", a, tool="c1")
    book.read("place", "in_b", b, tool="c1")
    book.do("done", step="place")
    book.do("confirmed", step="lock", what="new bolts in")


def group(book: Book) -> Any:
    """The group as its bench shows it."""
    return book.bench("lock").group


def test_nothing_is_tightened_before_the_place_is_found(book: Book):
    """Held by order, and by the group once that is passed with a reason."""
    assert group(book).title == "All loose still: All in by hand first"
    book.refuse(
        "must_wait", "fastener", step="lock", joint="box", bolt=1, act="state", tightness="snug"
    )
    book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    book.do("started", step="lock", reason="the box joint is in reach only now")
    book.do("confirmed", step="lock", what="new bolts in")
    book.refuse(
        "place_not_found",
        "fastener",
        step="lock",
        joint="box",
        bolt=1,
        act="state",
        tightness="snug",
    )


def test_what_was_tight_too_early_is_told_and_proves_nothing(book: Book):
    """Told with its word; then it has to come loose, whatever it got."""
    book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    book.do("started", step="lock", reason="the box joint is in reach only now")
    book.refuse(
        "not_complete",
        "fastener",
        step="lock",
        joint="column",
        bolt=1,
        act="clicked",
        stage=1,
        sure=True,
    )
    book.do("confirmed", step="lock", what="new bolts in")
    book.do("decision", step="lock", about="wrench", wrench="w1")
    lock(book, "column", sure=True)
    book.read("place", "in_a", "22", tool="c1")
    book.read("place", "in_b", "22", tool="c1")
    book.do("done", step="place")
    facts = book.joint("column")
    assert not facts.final
    assert facts.bolts[0].early
    assert "Loosen it" in facts.put_right[0]
    assert group(book).title == "A was tight before the place was found: loosen it"
    assert book.joint("column").bolts[0].todo == "loosen"
    book.do(
        "fastener", step="lock", joint="column", bolt=1, act="state", tightness="loosened again"
    )
    assert not book.joint("column").bolts[0].early


def test_locked_in_order_and_seen_to_the_end(book: Book):
    """Column, box, then the tabs; each by its own press, two pairs of eyes on the groove."""
    placed(book)
    assert group(book).title == "Lock A first: Joint at the column"
    book.refuse(
        "locked_too_early",
        "fastener",
        step="lock",
        joint="box",
        bolt=1,
        act="state",
        tightness="snug",
    )
    wrenches(book)
    assert book.joint("column").final
    assert group(book).title == "Lock B: Joint at the box"
    lock(book, "box")
    assert group(book).title == "All locked: now lock tabs up"
    words = [o.words for o in book.in_the_way("lock")]
    assert words == [
        "nobody has seen yet: lock tabs up",
        "not seen: bolt in its groove",
    ]
    for what in ("bolt in its groove", "lock tabs up"):
        book.do("confirmed", step="lock", what=what)
    (alone,) = book.in_the_way("lock")
    assert alone.words.startswith("seen by MK alone, a second pair of eyes")
    book.who = "RT"
    book.do("confirmed", step="lock", what="bolt in its groove")
    assert not book.in_the_way("lock")
    book.do("done", step="lock")
    assert "joint:box" not in book.open()


def test_it_moved_opens_every_lock(book: Book):
    """The place looked for again: what was final is tight too early."""
    placed(book)
    wrenches(book)
    lock(book, "box")
    book.do("reopened", step="place", reason="it moved as the box was locked")
    assert not book.joint("column").final
    assert not book.joint("box").final
    assert "joint:column" in book.open()
    book.do("done", step="place")
    assert book.joint("column").bolts[0].early


def test_a_skipped_place_is_no_place(book: Book):
    """Passed over with a reason, nothing was found: no lock counts."""
    book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    book.do("confirmed", step="lock", what="new bolts in")
    book.do("skipped", step="place", reason="it stood right before, as I remember")
    book.refuse("place_not_found", "fastener", step="lock", bolt=1, act="state", tightness="snug")


def test_a_trial_goes_on_only_where_it_fits(book: Book):
    """No word, a bad word, no words at all: none of them is done."""
    assert book.in_the_way("loose")[0].words == "nobody has said what it proved: it slides"
    book.refuse("no_words", "trial said", step="loose", fits="no")
    book.do("trial said", step="loose", fits="no", words="it binds at the box")
    (held,) = book.in_the_way("loose")
    assert held.words == "it does not fit: it binds at the box. Change that, and try it again"
    book.refuse("not_complete", "done", step="loose", reason="good enough for this old thing")
    with pytest.raises(NotFound):
        book.do("trial said", step="lock", fits="yes")
    book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    assert "Shaft on trial" in book.left()
    book.do("reopened", step="loose", reason="taken out once more")
    assert book.in_the_way("loose")[0].words.startswith("nobody has said")


def test_a_bolt_for_one_use_is_not_used_twice(book: Book):
    """Drawn, loosened, drawn again: a fresh one first, by whichever way it is written."""
    placed(book)
    book.do("decision", step="lock", about="wrench", wrench="w1")
    lock(book, "column")
    book.do("fastener", step="lock", joint="column", bolt=1, act="state", tightness="by hand")
    assert book.joint("column").bolts[0].used
    book.refuse("one_use", "fastener", step="lock", joint="column", bolt=1, act="clicked", stage=1)
    book.refuse(
        "one_use", "fastener", step="lock", joint="column", bolt=1, act="state", tightness="snug"
    )
    assert "for one use and had it" in str(book.joint("column").waits)
    book.do("fastener", step="lock", joint="column", bolt=1, act="state", tightness="out")
    assert book.joint("column").bolts[0].todo == "fresh"
    book.do("fastener", step="lock", joint="column", bolt=1, act="fresh")
    lock(book, "column")
    assert book.joint("column").final


def test_the_other_joint_may_be_loosened_and_drawn_again(book: Book):
    """It is not for one use."""
    placed(book)
    wrenches(book)
    lock(book, "box")
    book.do("fastener", step="lock", joint="box", bolt=1, act="state", tightness="loosened again")
    lock(book, "box")
    assert book.joint("box").final


def test_where_it_may_stand(book: Book):
    """Each end limits one way: the room is what both leave, guarded by the caliper."""
    placed(book)
    found = group(book)
    assert found.least == pytest.approx(-4, abs=0.1)
    assert found.most == pytest.approx(4, abs=0.1)
    assert found.go.startswith("it stands clear: 4 mm left to the column")
    assert [lane.verdict for lane in found.lanes] == ["inside", "inside"]


def test_it_has_to_slide(book: Book):
    """One end is short: by how much, and which way."""
    book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    book.read("place", "in_a", "16", tool="c1")
    book.read("place", "in_b", "28", tool="c1")
    assert group(book).go == "6 mm to the column, then it stands clear: read it again"
    other = Book(sheet(), tools())
    other.do("trial said", step="loose", fits="yes")
    other.do("done", step="loose")
    other.read("place", "in_a", "16", tool="c1")
    other.read("place", "in_b", "19", tool="c1")
    assert group(other).go.startswith("no place does for both")


def test_the_tabs_are_not_argued_away(book: Book):
    """Everything is locked; a reason passes no lock tab that nobody saw, nor one eye alone."""
    placed(book)
    wrenches(book)
    lock(book, "box")
    book.refuse("not_complete", "done", step="lock", reason="good enough for this old thing")


def test_a_place_taken_out_of_the_plan_is_no_place(book: Book):
    """Retired by hand: nobody found it, whatever the plan says now."""
    placed(book)
    wrenches(book)
    assert book.joint("column").final
    book.plan("retire", step="place", reason="it stood right when it came")
    assert not book.joint("column").final
    assert book.joint("column").bolts[0].early
    book.refuse("place_not_found", "fastener", step="lock", joint="box", bolt=1, act="clicked")


def test_a_struck_trial_proves_nothing(book: Book):
    """What it proved is gone: the step counts as not done, and what it led to is shut."""
    line = book.do("trial said", step="loose", fits="yes")
    book.do("done", step="loose")
    book.refuse("already_done", "trial said", step="loose", fits="no", words="it binds after all")
    book.do("strike", entry=line.id, reason="that was the other shaft")
    assert statuses(book.state)["loose"].status == "begun"
    assert group(book).title == "All loose still: All in by hand first"


LANE = st.tuples(
    st.floats(-50, 50),
    st.none() | st.floats(-50, 50),
    st.none() | st.floats(-50, 50),
    st.floats(0, 2),
    st.sampled_from((1, -1)),
)


@given(st.lists(LANE, min_size=1, max_size=5), st.floats(-60, 60))
def test_room_is_where_every_lane_is_inside(lanes, d):
    """A move is in the room exactly if it keeps each figure inside, less its uncertainty."""
    least, most = room(lanes)
    in_room = (least is None or d >= least) and (most is None or d <= most)
    slack = 1e-6
    inside = all(
        (lo is None or value + way * d >= lo + u - slack)
        and (hi is None or value + way * d <= hi - u + slack)
        for value, lo, hi, u, way in lanes
    )
    assert inside or not in_room
    strictly = all(
        (lo is None or value + way * d > lo + u + slack)
        and (hi is None or value + way * d < hi - u - slack)
        for value, lo, hi, u, way in lanes
    )
    assert in_room or not strictly


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ('set_by = ["place"]', 'set_by = ["nothing"]', "not a step of this sheet"),
        ('then = ["box"]', 'then = ["column"]', "not another joint"),
        (
            '{ result = "b_r", way = "against" }',
            '{ result = "c", way = "against" }',
            "no length that a step",
        ),
        (
            '\n  { step = "place", because = "a lock holds the place", kind = "setting kept" }]',
            "]",
            "does not wait for 'place'",
        ),
    ],
)
def test_a_group_that_the_sheet_gets_wrong(old: str, new: str, words: str):
    """Said with the key."""
    assert old in SHAFT
    with pytest.raises(Refused, match=words):
        sheet(SHAFT.replace(old, new))
