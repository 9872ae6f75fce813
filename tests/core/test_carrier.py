"""A carrier between its packs: what one shim does, learnt from the first move; and nothing that was
read before a move counts after it.
"""

import tomllib
from datetime import timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.acts.hand import Hand
from hollet.core.acts.kinds import accept
from hollet.core.entries.status import statuses
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.read import read_sheet
from tests.support import EDIT, SMALL, Book, tool, tools

AXLE = """
[[limit]]
id = "lash"
name = "Backlash"
dimension = "length"
unit = "mm"
lo = "0.13"
hi = "0.20"
source = "axle book"

[[limit]]
id = "turning"
name = "Turning torque"
dimension = "length"
unit = "mm"
hi = "9"
source = "axle book"

[[step]]
id = "set"
stage = "build_up"
kind = "measure"
title = "Backlash set"
do = "Three teeth."
reading = [
  { id = "t1", name = "Tooth 1", tool = "micrometer" },
  { id = "t2", name = "Tooth 2", tool = "micrometer" },
  { id = "t3", name = "Tooth 3", tool = "micrometer" },
]
result = [
  { id = "mean", name = "Backlash", limit = "lash", how = "mean", over = ["t1", "t2", "t3"] },
]
carrier = { lash = ["t1", "t2", "t3"], result = "mean", again = ["turned", "paste"] }
again = [{ what = "one bearing", steps = ["turned"] }]

[[step]]
id = "turned"
stage = "build_up"
kind = "measure"
title = "Turned"
do = "Slowly."
reading = [{ id = "turn", name = "Turned", tool = "micrometer" }]
result = [{ id = "turn_r", name = "Turned", limit = "turning", reading = "turn" }]

[[step]]
id = "paste"
stage = "build_up"
kind = "check"
title = "Pattern"
do = "Paste."
pattern = true
"""
FINE = "f1"


def axle() -> Book:
    """The axle, with a fine micrometer in the shop."""
    fine = tool(FINE, "micrometer", lo="0", hi="25", mpe="0.002", resolution="0.001", s="0.001")
    text = SMALL + AXLE
    return Book(read_sheet(tomllib.loads(text), text), {**tools(), FINE: fine})


@pytest.fixture
def book() -> Book:
    """Packs of 1.80 and 2.10 in, and a backlash of 0.26 read with them."""
    found = axle()
    packs(found, "1.80", "2.10")
    lash(found, "0.26")
    return found


def packs(book: Book, near: str, far: str, **more: Any) -> None:
    book.do("carrier set", step="set", near=near, far=far, instrument=FINE, **more)


def lash(book: Book, value: str) -> None:
    for tooth in ("t1", "t2", "t3"):
        book.read("set", tooth, value, value, value, tool=FINE, sure=True)


def carrier(book: Book) -> Any:
    return book.bench("set").carrier


def mean(book: Book) -> Any:
    return book.bench("set").results[0].judgement


def test_what_one_shim_does(book: Book):
    """T10-07: 0.26 to the middle of 0.13 to 0.20, by 0.7, in steps of 0.05."""
    found = carrier(book)
    assert (found.near_after, found.far_after) == ("1.65", "2.25")
    assert found.move == pytest.approx(-0.15)
    assert found.predicted == "0.155 mm"
    assert found.title == "Move 0.15 mm to the far side"
    assert "rule of thumb" in found.factor_words


def test_nothing_read_before_the_move_counts(book: Book):
    """Backlash, turning torque and pattern go with the old packs; no tick brings them back."""
    book.read("turned", "turn", "3.0", tool=FINE, sure=True)
    book.do("done", step="turned")
    book.do("pattern seen", step="paste", drive_side="centre", coast_side="centre")
    book.do("done", step="paste")
    packs(book, "1.65", "2.25")
    assert mean(book).verdict == "too_close"
    assert mean(book).words == "shims of the carrier were moved since: read it again"
    assert (
        statuses(book.state)["turned"].doubt
        == "shims of the carrier were moved since: read or look again"
    )
    with pytest.raises(Refused, match="shims of the carrier were moved since"):
        book.do("done", step="turned")
    assert not book.bench("paste").pattern.right
    lash(book, "0.16")
    assert mean(book).verdict == "inside"


def test_the_first_move_teaches_the_factor(book: Book):
    """By hand: 0.26 became 0.155 with 0.15 less at the pinion side, 0.105 over 0.15."""
    packs(book, "1.65", "2.25")
    lash(book, "0.155")
    assert carrier(book).factor == pytest.approx(0.7, abs=1e-9)
    assert carrier(book).factor_words.endswith("learnt from the last move")
    assert [(r.near, r.lash) for r in carrier(book).rounds] == [
        ("1.80", "0.260"),
        ("1.65", "0.155"),
    ]


@pytest.mark.parametrize(
    ("near", "far", "then", "words"),
    [
        ("1.79", "2.11", "0.253", "too small to teach it"),
        ("1.65", "2.25", "0.32", "which no such gear has"),
        ("1.65", "2.25", "0.05", "which no such gear has"),
    ],
)
def test_a_move_that_teaches_nothing(book: Book, near: str, far: str, then: str, words: str):
    packs(book, near, far)
    lash(book, then)
    assert carrier(book).factor == 0.7
    assert words in carrier(book).factor_words


def test_both_packs_thicker_is_another_preload(book: Book):
    packs(book, "1.65", "2.30")
    assert (
        carrier(book).total_moved
        == "both packs together are 0.05 mm thicker than before: another preload"
    )


def test_packs_said_after_the_reading(book: Book):
    """First packs that lay in as it was read leave the reading; others never do."""
    late = axle()
    lash(late, "0.16")
    packs(late, "1.80", "2.10")
    assert not carrier(late).is_set
    late.do("strike", entry=late.state.last.id, reason="typed twice")
    packs(late, "1.80", "2.10", as_read=True)
    assert carrier(late).is_set
    with pytest.raises(Refused, match="other packs lay in before"):
        packs(late, "1.75", "2.15", as_read=True)


def test_struck_move(book: Book):
    """A move that never was leaves what was read."""
    before = mean(book).words
    packs(book, "1.65", "2.25")
    book.do("strike", entry=book.state.last.id, reason="never was")
    assert mean(book).words == before


@pytest.mark.parametrize(
    ("near", "words"),
    [
        ("0", "more than nothing"),
        ("-1", "more than nothing"),
        ("16.5", "is that right"),
        ("1.80", "lie in already"),
    ],
)
def test_packs_that_cannot_be(book: Book, near: str, words: str):
    far = "2.10"
    with pytest.raises(Refused, match=words):
        packs(book, near, far)
    assert carrier(book).near == "1.80"


def test_a_part_changed_alone(book: Book):
    """Only what stands on it is read again."""
    lash(book, "0.16")
    book.do("done", step="set", reason="tried here for one bearing")
    book.read("turned", "turn", "3.0", tool=FINE, sure=True)
    book.do("done", step="turned")
    book.do("part changed", step="set", what="one bearing")
    assert statuses(book.state)["turned"].status == "begun"
    assert (
        book.bench("turned").results[0].judgement.words
        == "one bearing: changed since: read it again"
    )
    assert statuses(book.state)["set"].status == "done"
    with pytest.raises(NotFound):
        book.do("part changed", step="set", what="the engine")


@given(st.integers(5, 60), st.integers(120, 240), st.integers(120, 240))
def test_the_middle_is_met_and_the_sum_kept(lash_um: int, near_um: int, far_um: int):
    """Whatever is read: the sum of the packs stays, and it lands nearest the middle."""
    found = axle()
    packs(found, f"{near_um / 100:.2f}", f"{far_um / 100:.2f}")
    lash(found, f"{lash_um / 100:.2f}")
    facts = carrier(found)
    if facts.move is None:
        assert abs(lash_um / 100 - 0.165) <= 0.7 * 0.025 + 1e-9
        return
    assert float(facts.near_after) + float(facts.far_after) == pytest.approx(
        (near_um + far_um) / 100
    )
    left = abs(lash_um / 100 + 0.7 * facts.move - 0.165)
    assert left <= 0.7 * 0.025 + 1e-9


def test_what_was_read_after_a_move_that_was_struck_proves_nothing(book: Book):
    """Nobody knows which packs lay in: it is read anew."""
    packs(book, "1.65", "2.25")
    move = book.state.last.id
    lash(book, "0.16")
    assert mean(book).verdict == "inside"
    book.do("strike", entry=move, reason="another axle")
    assert mean(book).words == "read after a change that was struck since: read it again"
    lash(book, "0.16")
    assert mean(book).verdict == "inside"


def told(book: Book, minutes: float, seen: int, value: str) -> None:
    """The lash of all three teeth, read some minutes ago by somebody who had seen a line."""
    for tooth in ("t1", "t2", "t3"):
        act = EDIT.validate_python(
            {
                "kind": "reading",
                "step": "set",
                "reading": tooth,
                "typed": [value] * 3,
                "unit": "mm",
                "instrument": FINE,
                "sure": True,
            }
        )
        was = (book.now - timedelta(minutes=minutes)).isoformat()
        hand = Hand(book.shop, book.time, book.now.date(), was, seen)
        book.add(accept(book.state, act, hand))


def test_what_waited_on_another_device_was_read_with_the_old_packs(book: Book):
    """Kept as it was read, and no proof; what was read after the move is, seen or not."""
    head = book.state.head
    book.later(1)
    packs(book, "1.65", "2.25")
    told(book, 30, head, "0.16")
    assert mean(book).words == "shims of the carrier were moved since: read it again"
    with pytest.raises(Refused, match="shims of the carrier were moved since"):
        book.do("done", step="set")
    told(book, 0, head, "0.16")
    assert mean(book).verdict == "inside"


def test_a_pattern_that_waited_is_not_of_the_new_packs(book: Book):
    """It is refused and stays with the mechanic: one look is all that it was."""
    head, was = book.state.head, book.now.isoformat()
    book.later(1)
    packs(book, "1.65", "2.25")
    seen = {"kind": "pattern seen", "step": "paste", "drive_side": "centre", "coast_side": "centre"}
    hand = Hand(book.shop, book.time, book.now.date(), was, head)
    with pytest.raises(Conflict, match="Look again"):
        accept(book.state, EDIT.validate_python(seen), hand)
