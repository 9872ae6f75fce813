"""What is not yet final: each bolt below its last state, what it waits for, what closes over it."""

import pytest

from hollet.core.book.again import again_of
from hollet.core.book.debts import Debt, Debts, debts_behind, debts_of
from hollet.core.entries import Fastener
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from tests.support import SMALL, Book, small_sheet, tools

MORE = """
[[joint]]
id = "arm"
name = "Arm pivots"
layout = { kind = "points", points = { "1" = [0, 0], "2" = [1, 0] } }
pattern = "order"
order = ["1", "2"]
stage = [{ torque = "15 Nm" }, { torque = "24 Nm" }]
source = "book p. 5"
fastener = "2 x M10"
wait_for = "weight on the wheels"
tab = "split pin in, both legs bent"
safety = "steering"
recheck = "again"

[[step]]
id = "arm_on"
stage = "fit_in"
kind = "tighten"
title = "Arm"
do = "Tighten."
joint = "arm"
blocks = "drive"

[[step]]
id = "tunnel"
stage = "fit_in"
kind = "check"
title = "Tunnel cover"
do = "On."
after = [{ step = "cover_on", because = "it hides them", kind = "access closes" }]
"""
NOT_GIVEN = MORE.replace('{ torque = "15 Nm" }, { torque = "24 Nm" }', '{ torque = "15 Nm" }, {}')
WEIGHT = "weight on the wheels"


def build(more: str = MORE) -> Book:
    """The vehicle on its wheels, and a step that hides the cover's bolts."""
    book = Book(small_sheet(SMALL + more), tools())
    book.on_wheels()
    return book


def found(book: Book) -> Debts:
    return debts_of(book.state, book.time)


def debt(book: Book, joint: str) -> Debt:
    return next(d for g in found(book).groups for d in g.debts if d.joint == joint)


def behind(book: Book) -> dict[str, list[str]]:
    return {g.id: [d.joint for d in g.debts] for g in found(book).groups}


def pulled(book: Book, step: str, bolts: int, wrench: str = "w2") -> None:
    """Each bolt once, in the order of the joint."""
    book.wrench(wrench, step=step)
    for bolt in range(1, bolts + 1):
        book.do("fastener", step=step, bolt=bolt, act="clicked")


def arm_final(book: Book) -> None:
    """Both stages with the weight on; only the pins are left."""
    pulled(book, "arm_on", 2)
    book.do("confirmed", step="arm_on", what=WEIGHT)
    pulled(book, "arm_on", 2)


def test_nobody_has_begun():
    """Nothing is owed; what is to come is counted apart."""
    book = build()
    assert found(book).groups == ()
    assert (found(book).to_come, found(book).to_come_bolts) == (3, 14)


def test_behind_the_first_thing_that_hides_it():
    """The cover's six lie behind the tunnel cover, and only there; done, they do not."""
    book = build()
    book.do("fastener", step="cover_on", bolt=1, act="state", tightness="by hand")
    assert behind(book) == {"step:tunnel": ["cover"]}
    assert debt(book, "cover").left == 6
    tunnel = plan_of(book.state).find_step("tunnel")
    shown = debts_behind(book.state, tunnel, book.time)
    assert [d.name for d in shown.debts] == ["Cover bolts"]
    assert not shown.danger
    assert debts_behind(book.state, plan_of(book.state).find_step("bore"), book.time) is None
    book.do("done", step="tunnel", reason="it comes off again tomorrow")
    assert behind(book) == {"rung:crank": ["cover"]}


def test_what_a_safety_joint_waits_for():
    """Its weight, then its pins: a bolt that is torqued and not locked is not final."""
    book = build()
    pulled(book, "arm_on", 2)
    assert behind(book) == {"rung:drive": ["arm"]}
    owed = debt(book, "arm")
    assert (owed.waits, owed.alone, owed.safety) == ("Weight on the wheels", False, True)
    book.do("confirmed", step="arm_on", what=WEIGHT)
    assert (debt(book, "arm").waits, debt(book, "arm").reason) == ("You", "stage 2 of 2, 24 Nm")
    pulled(book, "arm_on", 2)
    assert debt(book, "arm").unlocked == 2
    assert debt(book, "arm").reason == "torqued, not locked: split pin in, both legs bent"
    assert not book.joint("arm").final
    with pytest.raises(Refused):
        book.do("done", step="arm_on")
    for bolt in (1, 2):
        book.do("fastener", step="arm_on", bolt=bolt, act="locked")
    assert book.joint("arm").final
    assert found(book).groups == ()
    assert [(due.joint, due.step) for due in found(book).again] == [("arm", "again")]


def test_a_lock_goes_with_the_bolt_that_is_loosened():
    book = build()
    arm_final(book)
    for bolt in (1, 2):
        book.do("fastener", step="arm_on", bolt=bolt, act="locked")
    book.do("fastener", step="arm_on", bolt=2, act="state", tightness="loosened again")
    states = [b.state for b in debt(book, "arm").bolts]
    assert states == ["final", "loosened"]


def test_a_condition_that_ends_holds_what_is_not_final():
    """A jack under it again: bolt 1, drawn to its end, stays; bolt 2 waits once more."""
    book = build()
    pulled(book, "arm_on", 2)
    book.do("confirmed", step="arm_on", what=WEIGHT)
    book.do("fastener", step="arm_on", bolt=1, act="clicked")
    book.do(
        "supported",
        support="j",
        support_kind="jack",
        carries="vehicle",
        point="rear axle",
        ground="hard",
    )
    held = debt(book, "arm")
    assert (held.waits, held.alone) == ("Weight on the wheels", False)
    assert "was so" in held.ended
    assert [b.state for b in held.bolts] == ["unlocked", "stage"]
    book.refuse("stage_waits", "fastener", step="arm_on", bolt=2, act="clicked", stage=2)
    book.do("confirmed", step="arm_on", what=WEIGHT)
    book.do("fastener", step="arm_on", bolt=2, act="clicked")
    assert [b.state for b in debt(book, "arm").bolts] == ["unlocked", "unlocked"]


def test_a_figure_that_is_not_given_is_hunted():
    book = build(NOT_GIVEN)
    pulled(book, "arm_on", 2)
    book.do("confirmed", step="arm_on", what=WEIGHT)
    assert (debt(book, "arm").waits, debt(book, "arm").alone) == ("Book figure", False)


def test_a_joint_passed_over_is_owed():
    """Skipped with a reason, nobody has said that it holds."""
    book = build()
    book.do("skipped", step="cover_on", reason="it was on when it came here")
    owed = debt(book, "cover")
    assert (owed.left, owed.reason) == (6, "passed over: nobody has said that it holds")


def test_what_is_looked_at_again():
    """Final: at its step, with the wrench; one turned past its yield only by eye. What was accepted
    in writing comes back with its own words.
    """
    text = SMALL.replace('fastener = "6 x M10"', 'fastener = "6 x M10"\nrecheck = "again"')
    book = Book(small_sheet(text + MORE), tools())
    book.on_wheels()
    arm_final(book)
    assert again_of(book.state, book.time) == ()
    for bolt in (1, 2):
        book.do("fastener", step="arm_on", bolt=bolt, act="locked")
    (arm,) = again_of(book.state, book.time)
    assert (arm.what, arm.how, arm.safety) == (
        "Arm pivots, 2 bolts",
        "with the wrench, as it was drawn: 24 Nm",
        True,
    )
    book.do("skipped", step="bore", reason="the bores were read last week")
    book.wrench("w1", step="head_in")
    for _ in range(18):
        bolt = book.joint().next_bolt
        book.do("fastener", step="head_in", bolt=bolt, act="clicked")
    rows = {row.id: row.how for row in again_of(book.state, book.time)}
    assert rows["joint:head"].startswith("by eye and by its mark")
    book.do("skipped", step="again", reason="it never came loose before")
    assert [row.id for row in again_of(book.state, book.time)] == ["joint:arm"]
    book.do("done", step="again")
    assert again_of(book.state, book.time) == ()


def test_a_lock_or_a_mark_set_before_it_was_tight_is_none():
    """Bent over a bolt at stage 1: refused; and an old log that has it does not make it final."""
    book = build()
    pulled(book, "arm_on", 2)
    book.refuse("not_tight", "fastener", step="arm_on", bolt=1, act="locked")
    book.add(
        Fastener(step="arm_on", joint="arm", bolt=1, act="locked", tightness="torqued", note=None)
    )
    book.do("confirmed", step="arm_on", what=WEIGHT)
    pulled(book, "arm_on", 2)
    assert [b.state for b in debt(book, "arm").bolts] == ["unlocked", "unlocked"]
