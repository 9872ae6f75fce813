"""Rows of an exchange: nothing is lost between two engines, and final is said by a step alone."""

import tomllib

import pytest

from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

ROWS = """
[[row]]
id = "inlet"
part = "inlet pipe"
usual = "moved"
blocks = "fire"
off_at = "rows_off"
on_at = "inlet_on"

[[row]]
id = "loom"
part = "loom"
usual = "stays"
blocks = "power_on"
on_at = "closed_list"

[[step]]
id = "rows_off"
stage = "take_down"
kind = "check"
title = "Rows off"
do = "Off."

[[step]]
id = "fates"
stage = "order"
kind = "check"
title = "Fates"
do = "Decide."
rows = "decide"

[[step]]
id = "inlet_on"
stage = "build_up"
kind = "fit"
title = "Inlet on"
do = "On."

[[step]]
id = "closed_list"
stage = "fit_in"
kind = "check"
title = "List"
do = "Walk."
rows = "close"
"""


@pytest.fixture
def book() -> Book:
    text = SMALL + ROWS
    return Book(read_sheet(tomllib.loads(text), text), tools())


def say(book: Book, row: str, fate: str, where: str, place: str = "", why: str = "") -> None:
    book.do("row said", step="rows_off", row=row, fate=fate, where=where, place=place, why=why)


def rows(book: Book) -> dict[str, str]:
    return {row.part: row.words for row in book.bench("fates").rows}


def decided(book: Book) -> None:
    """The loom stays in the vehicle; the inlet crosses."""
    say(book, "loom", "stays", "vehicle", why="it belongs to the body")
    say(book, "inlet", "moved", "old")


def test_what_nobody_decided_is_assumed(book: Book):
    assert rows(book)["inlet pipe"] == "moved over, assumed; on the old one"
    with pytest.raises(Refused, match="nobody has decided: inlet pipe"):
        book.do("done", step="fates")
    decided(book)
    book.do("done", step="fates")


def test_half_moved_is_the_first_word(book: Book):
    """Off the old one and not final: named, and it shuts its own rung."""
    decided(book)
    assert not any("half moved" in words for words in book.left())
    say(book, "inlet", "moved", "bench", "blue box, left shelf")
    assert book.open()["row:inlet"] == "fire"
    assert "half moved: inlet pipe, moved over; on the bench, blue box, left shelf" in book.left()
    assert book.view().resume.line.startswith("Half moved: 1 on the bench; 1 row settled.")
    book.do("done", step="inlet_on")
    assert "row:inlet" not in book.open()
    assert rows(book)["inlet pipe"].endswith("on the new one, final")


def test_off_and_nobody_said_where(book: Book):
    book.do("done", step="rows_off")
    assert "half moved: inlet pipe, moved over, assumed; on the bench, nobody has said where" in (
        book.left()
    )


def test_final_by_its_step_alone(book: Book):
    """A hand does not call it final, and its step opened again takes it back."""
    decided(book)
    with pytest.raises(Refused, match="Inlet on is not done"):
        say(book, "inlet", "moved", "final")
    book.do("done", step="inlet_on")
    say(book, "inlet", "moved", "final")
    book.do("done", step="closed_list")
    book.do("reopened", step="inlet_on")
    assert rows(book)["inlet pipe"].endswith("on the new one, by hand")
    assert book.open()["row:inlet"] == "fire"


def test_off_again_for_the_way_in(book: Book):
    """Said off after its step was done, it is off."""
    decided(book)
    book.do("done", step="inlet_on")
    say(book, "inlet", "moved", "bench", "box seven")
    assert book.open()["row:inlet"] == "fire"
    with pytest.raises(Refused, match="not settled: inlet pipe"):
        book.do("done", step="closed_list")


def test_its_step_passed_over(book: Book):
    """Skipping what puts it on says nothing of the part."""
    decided(book)
    book.do("skipped", step="inlet_on", reason="it is not needed on this job")
    assert book.open()["row:inlet"] == "fire"


@pytest.mark.parametrize(
    ("row", "fate", "where", "place", "why", "words"),
    [
        ("inlet", "left out", "old", "", "", "Say why now: left out"),
        ("inlet", "renewed", "old", "", "", "Say why now: renewed"),
        ("loom", "stays", "vehicle", "", "", "Say why now: stays"),
        ("loom", "stays", "final", "", "it belongs there", "it is not on the new one"),
        ("inlet", "moved", "bench", "", "", "say where it lies"),
        ("inlet", "moved", "away", "x", "", "say where it lies"),
    ],
)
def test_rows_that_say_nothing(
    book: Book, row: str, fate: str, where: str, place: str, why: str, words: str
):
    with pytest.raises(Refused, match=words):
        say(book, row, fate, where, place, why)


def test_a_row_that_is_none(book: Book):
    with pytest.raises(NotFound):
        say(book, "turbo", "moved", "old")


def test_a_row_without_its_step():
    text = SMALL + ROWS.replace('on_at = "inlet_on"', 'on_at = "nowhere"')
    with pytest.raises(Refused, match="'nowhere' is no step here"):
        read_sheet(tomllib.loads(text), text)


def test_a_row_said_by_hand(book: Book):
    """It holds what the others hold: its fate, its place, its rung."""
    decided(book)
    book.do("done", step="fates")
    book.plan("row", part="Heat shield", usual="moved", on_at="inlet_on")
    assert rows(book)["Heat shield"] == "moved over, assumed; on the old one"
    book.do("reopened", step="fates", reason="a part more hangs there")
    with pytest.raises(Refused, match="Heat shield"):
        book.do("done", step="fates")
    book.do("done", step="rows_off")
    assert book.open()["row:heat_shield"] == "crank"


@pytest.mark.parametrize(
    ("part", "on_at", "words"),
    [
        ("Inlet pipe", "inlet_on", "it has its row"),
        ("Heat shield", "rows_off", "puts nothing on"),
        ("Heat shield", "fates", "puts nothing on"),
    ],
)
def test_a_row_said_by_hand_that_is_none(book: Book, part: str, on_at: str, words: str):
    with pytest.raises(Refused, match=words):
        book.plan("row", part=part, usual="moved", on_at=on_at)
    with pytest.raises(NotFound):
        book.plan("row", part="Heat shield", usual="moved", on_at="nowhere")
