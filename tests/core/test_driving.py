"""What is looked at after a drive, or cold after a heat cycle, waits for what the log says."""

import pytest

from hollet.core.book.complete import obstacles
from hollet.core.entries.status import plan_of
from hollet.core.steps.driving import NOT_COLD, NOT_DRIVEN
from hollet.core.steps.heat import heat_cycles
from tests.support import SMALL, Book, small_sheet, tools

AGAIN = """
[[step]]
id = "cold_again"
stage = "settle"
kind = "check"
vehicle = "cold"
title = "Cold again"
do = "Look."

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


def held(book: Book, name: str = "look_again") -> list[str]:
    step = plan_of(book.state).find_step(name)
    found = obstacles(book.state, step, tuple(book.shop.values()), book.time)
    return [o.words for o in found if o.code == "not_yet"]


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


def ran(book: Book, attempt: str, coolant: str) -> None:
    told = {"cause": "seen enough", "change": "nothing"}
    book.do("attempt started", step="fire", attempt=attempt, reason="to see it run")
    book.do("samples", step="fire", attempt=attempt, samples=[{"t": 30, "coolant": coolant}])
    book.do("attempt ended", step="fire", attempt=attempt, after_s=40, reason="off", **told)


def test_cold_again_needs_a_heat_and_a_night(made: Book):
    """Never fired, warmed a little, hot but just off: none of them is cold again."""
    assert held(made, "cold_again") == [NOT_COLD]
    ran(made, "attempt-1", "42 °C")
    made.later(9)
    assert held(made, "cold_again") == [NOT_COLD]
    ran(made, "attempt-2", "84 °C")
    made.later(1)
    assert held(made, "cold_again") == ["it ran a short while ago: cold in about 3.0 h"]
    made.later(3.1)
    assert held(made, "cold_again") == []


@pytest.mark.parametrize(("minutes", "heats"), [(15, 0), (21, 1)])
def test_without_a_coolant_reading_twenty_minutes_are_a_heat(made: Book, minutes, heats):
    told = {"reason": "off", "cause": "seen enough", "change": "nothing"}
    made.do("attempt started", step="fire", attempt="attempt-1", reason="to see it run")
    made.do("attempt ended", step="fire", attempt="attempt-1", after_s=60 * minutes, **told)
    made.later(6)
    assert heat_cycles(made.state, "", made.time) == heats
