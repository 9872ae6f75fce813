"""The contact pattern at its step: right on both sides, or one thing to move, and seen again."""

import tomllib
from typing import Any

import pytest

from hollet.core.errors import NotFound
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

TEETH = """
[[step]]
id = "lash_set"
stage = "build_up"
kind = "check"
title = "Backlash set"
do = "Set."

[[step]]
id = "paste"
stage = "build_up"
kind = "check"
title = "Pattern"
do = "Paste."
pattern = true
after = [{ step = "lash_set", because = "it moves with the backlash", kind = "load needed" }]
"""


@pytest.fixture
def book() -> Book:
    """The backlash is set: the paste may be read."""
    text = SMALL + TEETH
    found = Book(read_sheet(tomllib.loads(text), text), tools())
    found.do("done", step="lash_set")
    return found


def seen(book: Book, drive: str, coast: str) -> Any:
    book.do("pattern seen", step="paste", drive_side=drive, coast_side=coast)
    return book.bench("paste").pattern


@pytest.mark.parametrize(
    ("drive", "coast", "words"),
    [
        ("heel_face", "toe_face", "pinion in"),
        ("toe_flank", "heel_flank", "pinion out"),
        ("heel", "heel", "wheel towards the pinion"),
        ("toe", "toe", "wheel away from the pinion"),
        ("face", "flank", "the sides say different things"),
        ("heel", "centre", "the sides say different things"),
    ],
)
def test_what_to_move(book: Book, drive: str, coast: str, words: str):
    """Depth before backlash; what disagrees is looked at again; none of them is right."""
    found = seen(book, drive, coast)
    assert found.words.startswith(words)
    assert not found.right
    assert "the pattern is not right" in book.in_the_way("paste")[-1].words
    book.refuse("not_complete", "done", step="paste")


def test_right_on_both_sides(book: Book):
    """Only the last look counts, and a step that is opened again is looked at again."""
    seen(book, "heel", "heel")
    found = seen(book, "centre", "centre")
    assert (found.right, found.rounds) == (True, 2)
    book.do("done", step="paste")
    book.refuse("already_done", "pattern seen", step="paste", drive_side="toe", coast_side="toe")
    book.do("reopened", step="paste", reason="the wheel was moved once more")
    assert book.bench("paste").pattern.drive_side is None
    assert "nobody has said where it bears" in book.in_the_way("paste")[-1].words


def test_a_used_pair_prints_where_it_printed_before(book: Book):
    """That is a reason in words, and it stands in the log."""
    seen(book, "heel", "heel")
    book.do("done", step="paste", reason="a used pair, it prints as in the photo")
    assert not book.bench("paste").pattern.right


def test_a_struck_look_never_was(book: Book):
    seen(book, "centre", "centre")
    line = book.state.last
    assert line is not None
    book.do("strike", entry=line.id, reason="that was the other axle")
    assert book.bench("paste").pattern.words is None


def test_what_it_does_not_take(book: Book):
    """A place that is none; a step without teeth; paste before the backlash is set."""
    book.refuse("bad_option", "pattern seen", step="paste", drive_side="top", coast_side="centre")
    with pytest.raises(NotFound):
        book.do("pattern seen", step="lash_set", drive_side="centre", coast_side="centre")
    book.do("reopened", step="lash_set", reason="a shim was the wrong one")
    book.refuse("danger", "pattern seen", step="paste", drive_side="heel", coast_side="heel")
