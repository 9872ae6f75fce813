"""Linked earth points: the joint where the path turns bad is named, what was cleaned is read again
behind it, and a drop proves nothing without a starter's current.
"""

import tomllib
from typing import Any

import pytest

from hollet.core.errors import Refused
from hollet.core.instruments import Doubt
from hollet.core.procedure.read import read_sheet
from hollet.library.shelf import sheet_text
from tests.support import Book, tool


@pytest.fixture
def book() -> Book:
    """The sheet that ships, with a voltmeter and a clamp."""
    plan = read_sheet(tomllib.loads(sheet_text("before-power")))
    volts = {"dimension": "voltage", "unit": "V", "resolution": "0.01", "mpe": "0.005"}
    amps = {"dimension": "current", "unit": "A", "resolution": "0.1", "mpe": "0.5"}
    shop = (
        tool("v2", "voltmeter", lo="0", hi="20", s="0.002", **volts),
        tool("i1", "ammeter", lo="0", hi="400", s="1", **amps),
    )
    return Book(plan, {t.id: t for t in shop})


def burst(book: Book, amps: str, block: str, metal: str) -> None:
    """Current and both earth drops, read while it cranks."""
    for reading, typed, by in (
        ("crank_amps", amps, "i1"),
        ("drop_v", block, "v2"),
        ("drop_flange", metal, "v2"),
    ):
        book.read("drop", reading, typed, tool=by, state="cranking")


def results(book: Book) -> dict[str, Any]:
    return {r.id: r for r in book.bench("drop").results}


def test_a_drop_without_a_starters_current_has_no_verdict(book: Book):
    """0.01 V at 3 A would be 0.5 V at 150 A: nothing was cranked, and nothing is inside."""
    burst(book, "3", "0.01", "0.01")
    found = results(book)["drop_r"]
    assert (found.judgement.verdict, found.judged) == ("not_read", False)
    assert "3 A turn no engine" in found.refusal
    burst(book, "0", "0.01", "0.01")
    assert "without current" in results(book)["drop_r"].refusal


def test_a_current_of_another_day_proves_no_drop(book: Book):
    """The current was read in a burst, the drop the next day with nobody at the key."""
    burst(book, "180", "0.09", "0.09")
    book.later(24)
    book.read("drop", "drop_v", "0.09", tool="v2", state="cranking")
    found = results(book)["drop_r"]
    assert found.judgement.verdict == "too_close"
    assert "not of one moment" in found.held
    book.read("drop", "crank_amps", "180", tool="i1", state="cranking")
    assert results(book)["drop_r"].judgement.verdict == "inside"


def test_a_clamp_found_wrong_takes_the_verdict_with_it(book: Book):
    """The current has no share in the drop, and says whether it proves anything."""
    burst(book, "180", "0.09", "0.09")
    doubt = Doubt(since="2000-01-01T00:00:00Z", until="2100-01-01T00:00:00Z", words="150 A high")
    book.shop["i1"] = book.shop["i1"].model_copy(update={"doubts": (doubt,), "version": 2})
    found = results(book)["drop_r"]
    assert (found.judgement.verdict, "tool in doubt" in found.held) == ("too_close", True)


def test_no_drop_at_all_is_a_figure(book: Book):
    """0.00 V under 180 A lies at the end of what a drop can be, and is judged like any other."""
    burst(book, "180", "0.00", "0.00")
    found = results(book)["drop_r"]
    assert (found.refusal, found.judgement.verdict) == (None, "inside")


def test_the_working_says_the_ohms(book: Book):
    """0.09 V at 180 A are 0.5 mΩ, 1.111 mΩ would be allowed (reference 18, T18-02)."""
    burst(book, "180", "0.09", "0.12")
    judged = results(book)["drop_r"].judgement
    assert (judged.verdict, judged.value_text) == ("inside", "0.09")
    assert any("0.500 mΩ" in line for line in judged.working)
    assert any("1.111 mΩ" in line for line in judged.working)


def test_the_joint_where_the_path_turns_bad_is_named(book: Book):
    burst(book, "180", "0.09", "0.35")
    assert "between Block and Starter's metal" in results(book)["drop_flange_r"].advice
    assert results(book)["drop_r"].advice is None


def test_what_is_bad_before_it_is_put_right_first(book: Book):
    burst(book, "180", "0.31", "0.35")
    found = results(book)
    assert found["drop_flange_r"].advice.startswith("Starter's metal goes through Block")
    assert "between the minus post and the block" in found["drop_r"].advice


@pytest.mark.parametrize(("choice", "held"), [("rework", True), ("measure_again", False)])
def test_what_was_cleaned_is_read_again_behind_it(book: Book, choice: str, held: bool):
    """The starter's own figure was inside, and its path has been opened since."""
    burst(book, "180", "0.31", "0.12")
    assert results(book)["drop_flange_r"].judgement.verdict == "inside"
    book.do("disposition", step="drop", result="drop_r", choice=choice)
    found = results(book)["drop_flange_r"]
    assert (found.judgement.verdict == "too_close") is held
    assert ((found.held or "").startswith("its path runs through Block")) is held
    if held:
        book.read("drop", "drop_flange", "0.11", tool="v2", state="cranking")
        book.read("drop", "crank_amps", "180", tool="i1", state="cranking")
        assert results(book)["drop_flange_r"].judgement.verdict == "inside"


@pytest.mark.parametrize(
    ("through", "words"),
    [("drop_r", "goes through itself"), ("drop_x", "which is no result of this step")],
)
def test_a_path_leads_to_another_path_of_its_step(through: str, words: str):
    text = sheet_text("before-power").replace(
        'name = "Block", limit', f'name = "Block", through = "{through}", limit'
    )
    with pytest.raises(Refused) as refusal:
        read_sheet(tomllib.loads(text), text)
    assert words in refusal.value.message
