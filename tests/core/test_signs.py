"""How it is known that a bolt got its torque: once a joint, and never by ear where it is loud."""

import pytest

from hollet.core.acts.hand import Hand
from hollet.core.acts.kinds import accept
from hollet.core.errors import Refused
from hollet.core.steps.signs import sign_of
from tests.support import EDIT, SMALL, Book, small_sheet, tools


@pytest.fixture
def book() -> Book:
    found = Book(small_sheet(SMALL.replace('final = "cinched"', "")), tools())
    found.do("skipped", step="bore", reason="the bores were read last week")
    found.wrench("w2", step="head_in")
    return found


def click(book: Book, bolt: int) -> str:
    return book.do("fastener", step="head_in", bolt=bolt, act="clicked").body.line("Head bolts")


def sign(book: Book, **own: str) -> None:
    book.do("sign said", step="head_in", **own)


def test_a_click_is_heard_unless_somebody_says_otherwise(book: Book):
    """Nothing is asked in a quiet shop; what is said once goes into every line."""
    assert "heard" not in click(book, 1)
    sign(book, sign="seen", words="TR")
    assert click(book, 2).endswith("seen by a second person")
    sign(book, sign="heard")
    assert "seen" not in click(book, 3)


def test_nothing_is_heard_in_noise(book: Book):
    """Loud: the next click asks for another sign, once; quiet again, the ear is enough."""
    click(book, 1)
    book.do("surroundings", around=["noise", "cold"])
    book.refuse("not_heard", "fastener", step="head_in", bolt=2, act="clicked")
    sign(book, sign="heard")
    book.refuse("not_heard", "fastener", step="head_in", bolt=2, act="clicked")
    sign(book, sign="read")
    assert "read on the scale" in click(book, 2)
    assert "read on the scale" in click(book, 3)
    book.do("surroundings", around=["cold"])
    book.do("surroundings", around=["noise"])
    book.refuse("not_heard", "fastener", step="head_in", bolt=4, act="clicked")
    book.do("surroundings", around=[])
    click(book, 4)


def test_what_is_seen_or_felt_says_by_whom_and_with_what(book: Book):
    for way, words in (("seen", "who saw it"), ("felt", "which arm")):
        with pytest.raises(Refused, match=words):
            sign(book, sign=way, words=" ")
    sign(book, sign="felt", words="bar of 600 mm")
    joint = book.state.plan.find_joint("head")
    assert sign_of(book.state, joint).words == "bar of 600 mm"


def test_what_was_told_before_the_noise_was_heard(book: Book):
    """It waited on another device till the compressor ran."""
    was = book.time
    book.later(1)
    book.do("surroundings", around=["noise"])
    act = EDIT.validate_python({"kind": "fastener", "step": "head_in", "bolt": 1, "act": "clicked"})
    assert accept(book.state, act, Hand(book.shop, book.time, book.now.date(), was)).sign == "heard"
    with pytest.raises(Refused, match="loud"):
        accept(book.state, act, Hand(book.shop, book.time, book.now.date(), book.time))


def test_nobody_is_his_own_second_person(book: Book):
    act = EDIT.validate_python(
        {"kind": "sign said", "step": "head_in", "sign": "seen", "words": " mk "}
    )
    hand = Hand(book.shop, book.time, book.now.date(), who="MK")
    with pytest.raises(Refused, match="somebody else sees it"):
        accept(book.state, act, hand)


def test_by_feel_is_never_inside(book: Book):
    """An arm and its length prove no torque: the bolt waits to be pulled with a sign that does."""
    sign(book, sign="felt", words="bar of 600 mm")
    click(book, 1)
    felt = book.joint().bolts[0]
    assert (felt.verdict, felt.final) == ("too_close", False)
    assert felt.words.startswith("by feel: no verdict")
    sign(book, sign="read")
    book.do("fastener", step="head_in", bolt=1, act="clicked", stage=1)
    assert book.joint().bolts[0].verdict == "inside"


def test_a_sign_is_of_one_joint(book: Book):
    """Said of the head in the noise, it says nothing of the cover."""
    book.do("surroundings", around=["noise"])
    sign(book, sign="read")
    click(book, 1)
    book.wrench("w1", step="cover_on")
    book.refuse("not_heard", "fastener", step="cover_on", bolt=1, act="clicked")
