"""What is looked at after a drive waits for a drive that something says."""

import pytest

from hollet.core.book.complete import obstacles
from hollet.core.entries.status import plan_of
from hollet.core.steps.driving import NOT_DRIVEN
from tests.support import SMALL, Book, small_sheet, tools

AGAIN = """
[[step]]
id = "look_again"
stage = "settle"
kind = "check"
vehicle = "driven"
title = "Looked at after the first drive"
do = "Look."
"""


@pytest.fixture
def made() -> Book:
    return Book(small_sheet(SMALL + AGAIN), tools())


def held(book: Book) -> list[str]:
    step = plan_of(book.state).find_step("look_again")
    found = obstacles(book.state, step, tuple(book.shop.values()), book.time)
    return [o.words for o in found if o.code == "undriven"]


def test_nothing_says_that_it_was_driven(made: Book):
    assert held(made) == [NOT_DRIVEN]
    made.refuse("not_complete", "done", step="look_again")
    assert made.bench("look_again").base.looks.odometer == "not read yet"
    made.do("done", step="look_again", reason="it was driven before this log began")


def test_one_odometer_is_no_distance(made: Book):
    made.do("odometer said", typed="81200")
    assert held(made) == [NOT_DRIVEN]
    made.do("odometer said", typed="81200")
    assert held(made) == [NOT_DRIVEN]
    last = made.do("odometer said", typed="81230")
    assert held(made) == []
    made.do("strike", entry=last.id, reason="read from the other dial")
    assert held(made) == [NOT_DRIVEN]


def test_a_trial_is_a_drive(made: Book):
    made.do("complaint said", complaint="complaint-1", words="pulls to the left")
    made.do("trial driven", complaint="complaint-1", found="gone", under=[], words="on the hill")
    assert held(made) == []
