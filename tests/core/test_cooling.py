"""A cool-down that is waited for: half an hour of standing, and then a hand on it."""

import pytest

from hollet.core.entries.status import plan_of
from hollet.core.steps.cooling import COLD, cool_down
from tests.support import Book, small_sheet, tools

A, B = "attempt-1", "attempt-2"


@pytest.fixture
def hot() -> Book:
    """It fired, the coolant read 99 with 95 allowed, the key was turned back at 40 s."""
    book = Book(small_sheet(), tools())
    fire(book, A)
    book.do("samples", step="fire", attempt=A, samples=[{"t": 4, "oil": "2 bar"}])
    book.do("samples", step="fire", attempt=A, samples=[{"t": 12, "coolant": "99 °C"}])
    book.do(
        "attempt ended", step="fire", attempt=A, after_s=13, reason="hot",
        cause="fan plug off", change="plugged in",
    )  # fmt: skip
    return book


def fire(book: Book, attempt: str) -> None:
    book.do("attempt started", step="fire", attempt=attempt, reason="to see it run")


def cooling(book: Book):
    return cool_down(book.state, plan_of(book.state).find_step("fire"), book.time)


def test_what_was_too_hot_stands_and_is_felt(hot: Book):
    assert cooling(hot).why == "it was too hot"
    hot.refuse("cool_down", "attempt started", step="fire", attempt=B, reason="it feels all right")
    hot.do("confirmed", step="fire", what=COLD)  # at once: nobody can say that now
    assert cooling(hot) is not None
    hot.later(0.6)
    assert cooling(hot).left_s == 0
    hot.refuse("cool_down", "attempt started", step="fire", attempt=B, reason="it has stood")
    hot.do("confirmed", step="fire", what=COLD)
    assert cooling(hot) is None
    fire(hot, B)


def test_the_time_left_counts_down(hot: Book):
    before = cooling(hot).left_s
    hot.later(0.25)
    assert before - cooling(hot).left_s == pytest.approx(900)


def test_cranking_waits_for_no_cool_down(hot: Book):
    crank = plan_of(hot.state).find_step("crank")
    assert cool_down(hot.state, crank, hot.time) is None


def test_a_temperature_struck_asks_for_no_cool_down(hot: Book):
    line = next(
        e for e in hot.state.live("run", A) if e.kind == "samples" and "99" in e.body.line("")
    )
    hot.do("strike", entry=line.id, reason="it was the exhaust")
    assert cooling(hot) is None


def test_a_run_that_stayed_cool_asks_for_none():
    book = Book(small_sheet(), tools())
    fire(book, A)
    book.do("samples", step="fire", attempt=A, samples=[{"t": 4, "oil": "2 bar", "coolant": "60"}])
    book.do("attempt ended", step="fire", attempt=A, after_s=10, reason="seen: runs")
    assert cooling(book) is None
