"""Shims of valves at their step: fewest new ones, as one hand does it, held until read again."""

import random
import tomllib
from typing import Any

import pytest

from hollet.core.errors import NotFound, Refused
from hollet.core.instruments import Doubt
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

VALVES = 4
LASH = (
    """
[[limit]]
id = "lash"
name = "Lash"
dimension = "length"
unit = "mm"
lo = "0.15"
hi = "0.30"
source = "book p. 5"

[[step]]
id = "lash"
stage = "build_up"
kind = "measure"
title = "Lash"
do = "Cold."
reading = [
"""
    + "\n".join(
        f'  {{ id = "v{k}", name = "Valve {k}", tool = "micrometer" }},' for k in range(1, 5)
    )
    + "\n]\nresult = [\n"
    + "\n".join(
        f'  {{ id = "r{k}", name = "valve {"abcd"[k - 1]}", limit = "lash", reading = "v{k}" }},'
        for k in range(1, 5)
    )
    + '\n]\nvalve_shims = { lash = ["v1", "v2", "v3", "v4"] }\n'
)


def sheet(text: str = LASH) -> Any:
    """The small job with four shimmed valves."""
    return read_sheet(tomllib.loads(SMALL + text), SMALL + text)


def shop() -> dict[str, Any]:
    """A fine tool for lashes: a gauge of the travel, to a thousandth."""
    found = tools()
    found["m1"] = found["m1"].model_copy(update={"lo": "0", "hi": "25"})
    return found


def read(book: Book, *lashes: str, first: int = 1) -> None:
    """The lash of each valve, in their order."""
    for k, lash in enumerate(lashes, first):
        book.read("lash", f"v{k}", lash, tool="m1", sure=True)


def shims(book: Book, typed: str = "2.50 2.60 2.70 2.80", spares: str = "", **own: Any) -> None:
    """How thick they are."""
    sizes = ["2.00", "3.20", "0.05"]
    book.do("shims read", step="lash", typed=typed, spares=spares, sizes=sizes, **own)


@pytest.fixture
def book() -> Book:
    """Two valves the wrong way round, two right."""
    found = Book(sheet(), shop())
    read(found, "0.125", "0.325", "0.22", "0.23")
    return found


def table(book: Book) -> Any:
    return book.bench("lash").valve_shims


def judged(book: Book, k: int) -> Any:
    return book.bench("lash").results[k - 1].judgement


def test_two_are_changed_about_and_none_is_bought(book: Book):
    """2.50 and 2.60 change places: the lash moves by a tenth at each."""
    assert table(book).title == "Shims of the valves: how thick are they?"
    shims(book, "2.50 2.40 2.70 2.80")
    found = table(book)
    assert found.title == "2 valves to change about, no new shim"
    assert [(r.source, r.new) for r in found.rows] == [
        ("from valve b", "2.40"),
        ("from valve a", "2.50"),
        ("its own", "2.70"),
        ("its own", "2.80"),
    ]
    assert found.moves == (
        "lift out valve a, lay it on the mat",
        "lift out valve b, put it into valve a",
        "valve b: put in the one of valve a from the mat",
    )


def test_held_until_every_changed_valve_is_read_again(book: Book):
    """What was read before is no lash of the new shim."""
    shims(book, "2.50 2.40 2.70 2.80")
    assert judged(book, 1).verdict == "outside"
    book.do("shims changed", step="lash")
    assert judged(book, 1).words == "read before its shim was changed: read it again"
    assert judged(book, 3).verdict == "inside"
    assert book.bench("lash").next_reading == "v1"
    assert table(book).title == "Changed: 2 valves to read again"
    read(book, "0.225", "0.225")
    assert table(book).title == "Every lash came out as promised"
    assert [row.became for row in table(book).rows[:2]] == ["0.225", "0.225"]
    assert not book.in_the_way("lash")
    book.do("done", step="lash")


def test_pressed_twice_they_are_changed_once(book: Book):
    """The second press would change them back into nothing that anybody promised."""
    shims(book, "2.50 2.40 2.70 2.80")
    book.do("shims changed", step="lash")
    book.refuse("already_done", "shims changed", step="lash")


def test_a_lash_that_is_not_what_was_promised_is_asked_about(book: Book):
    """The mechanic took another shim: both are inside, and it is said all the same."""
    shims(book, "2.50 2.40 2.70 2.80")
    book.do("shims changed", step="lash")
    read(book, "0.275", "0.225")
    assert table(book).rows[0].kept is False
    assert table(book).title == "valve a is not what was promised: is it the shim that was meant?"
    assert judged(book, 1).verdict == "inside"


def test_a_new_round_after_one_that_was_not_enough(book: Book):
    """The shims as they lie now are known: the next table begins with them."""
    shims(book, "2.50 2.40 2.70 2.80")
    book.do("shims changed", step="lash")
    read(book, "0.225", "0.225")
    read(book, "0.10", first=3)
    read(book, "0.10", first=3)
    assert table(book).rows[2].verdict in ("outside", "too_close")
    found = table(book)
    assert found.rows[0].shim == "2.40"
    assert found.rows[2].moves


def test_struck_the_change_never_was(book: Book):
    """The shims are where they were, and the lashes count again."""
    shims(book, "2.50 2.40 2.70 2.80")
    line = book.do("shims changed", step="lash")
    book.do("strike", entry=line.id, reason="nothing was changed, pressed by mistake")
    assert judged(book, 1).verdict == "outside"
    assert table(book).rows[0].shim == "2.50"


def test_what_has_to_be_bought(book: Book):
    """No shim in hand fits: one new, of the sizes that are sold; a spare of that size saves it."""
    shims(book, "2.50 2.60 2.70 2.80")
    found = table(book)
    assert len(found.buy) >= 1
    assert "new shim" in found.title
    shims(book, "2.50 2.60 2.70 2.80", spares="2.40 2.70")
    assert table(book).buy == ()


def test_a_lash_that_cannot_be_guarded(book: Book):
    """A feeler too coarse for the window leaves nothing of it: said, and no table."""
    wide = Book(sheet(LASH.replace('hi = "0.30"', 'hi = "0.152"')), shop())
    read(wide, "0.125", "0.325", "0.22", "0.23")
    shims(wide)
    assert "leaves nothing of" in table(wide).refusal
    wide.refuse("no_table", "shims changed", step="lash")


def test_a_lash_by_one_leaf_moves_no_shim():
    """The leaf that goes in is the lower end of the lash: no shim is chosen by it."""
    text = LASH.replace('tool = "micrometer"', 'tool = "feeler"')
    book = Book(sheet(text), shop())
    for k in range(1, 5):
        book.read("lash", f"v{k}", "0.10" if k == 1 else "0.20 0.21", tool="f1", sure=True)
    shims(book)
    assert table(book).refusal == (
        "valve a: one leaf alone is the lower end, say also which does not go in"
    )
    book.refuse("no_table", "shims changed", step="lash")


def test_a_lash_of_a_doubted_tool_moves_no_shim(book: Book):
    """The tool was found wrong since: first another reading, then a shim."""
    shims(book, "2.50 2.40 2.70 2.80")
    doubt = Doubt(since="2026-01-01T00:00:00Z", until="2026-12-01T00:00:00Z", words="0.05 over")
    book.shop["m1"] = book.shop["m1"].model_copy(update={"version": 2, "doubts": (doubt,)})
    assert table(book).refusal.startswith("valve a: tool in doubt: M1 was 0.05 over")
    book.refuse("no_table", "shims changed", step="lash")


@pytest.mark.parametrize(
    ("code", "own"),
    [
        ("count_mismatch", {"typed": "2.5 2.6"}),
        ("bad_shim", {"typed": "2.5 2.6 2.7 0"}),
        ("bad_shim", {"typed": "2.5 2.6 2.7 265"}),
        ("bad_grid", {"sizes": ["3.2", "2.0", "0.05"]}),
        ("bad_shim", {"sizes": ["2.0", "3.2", "0"]}),
        ("wrong_tool", {"instrument": "f1"}),
        ("bad_shim", {"spares": "-1"}),
    ],
)
def test_shims_that_cannot_be(book: Book, code: str, own: dict[str, Any]):
    """One sentence with the field; nothing is written."""
    said = {"typed": "2.5 2.6 2.7 2.8", "sizes": ["2.0", "3.2", "0.05"]}
    book.refuse(code, "shims read", step="lash", **said | own)


def test_nothing_to_change_and_nothing_there(book: Book):
    """All inside: nothing moves. A step without such valves has no place for it."""
    good = Book(sheet(), shop())
    read(good, "0.22", "0.22", "0.22", "0.22")
    shims(good)
    assert table(good).title == "Every shim stays where it is"
    good.refuse("nothing_moves", "shims changed", step="lash")
    book.refuse("no_table", "shims changed", step="lash")
    with pytest.raises(NotFound):
        book.do("shims changed", step="ring")


def test_every_promise_is_inside_with_its_spread():
    """Random heads: what is promised lies inside its limits by the uncertainty of its lash."""
    dice = random.Random(3)
    for _ in range(20):
        book = Book(sheet(), shop())
        read(book, *(f"{dice.uniform(0.05, 0.4):.3f}" for _ in range(VALVES)))
        shims(book, " ".join(f"{dice.randint(50, 60) * 0.05:.2f}" for _ in range(VALVES)))
        found = table(book)
        assert found.refusal is None
        for row, k in zip(found.rows, range(1, VALVES + 1), strict=True):
            guard = judged(book, k).U
            assert 0.15 + guard - 1e-6 <= float(row.promised) <= 0.30 - guard + 1e-6


def test_a_sheet_that_names_another_reading():
    """A lash that nothing judges is no lash."""
    with pytest.raises(Refused, match="judged by itself"):
        sheet(LASH.replace('lash = ["v1"', 'lash = ["piston"'))
