"""Shims in a gap: chosen by the exact sum, judged with their own spread, and believed only for the
readings that they were chosen by.
"""

import itertools
import random
import tomllib
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.checking import OPEN_END
from hollet.core.entries import PackPut
from hollet.core.errors import NotFound, Refused
from hollet.core.fitting.kits import read_kit, sums_of
from hollet.core.instruments import Doubt
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

GAP = """
[[limit]]
id = "left"
name = "Gap"
dimension = "length"
unit = "mm"
lo = "1.50"
hi = "2.50"
source = "clutch sheet"

[[step]]
id = "clutch_on"
stage = "build_up"
kind = "check"
title = "Clutch on"
do = "On."

[[step]]
id = "gap"
stage = "build_up"
kind = "measure"
title = "Gap"
do = "Two depths."
reading = [
  { id = "a", name = "Depth A", tool = "caliper", changed_by = ["clutch_on"] },
  { id = "b", name = "Depth B", tool = "caliper" },
  { id = "again", name = "Depth A with the shims in", tool = "caliper" },
]
result = [{ id = "g", name = "Gap", limit = "left", minuend = "a", subtrahend = "b" }]
[[step.pack]]
id = "p"
name = "Shims"
result = "g"
most = 3
check = { reading = "again", of = "a" }
"""


def sheet(text: str = GAP) -> Any:
    """The small job with a gap in it."""
    return read_sheet(tomllib.loads(SMALL + text), SMALL + text)


def read(depth: str) -> Book:
    """Both depths read, the first as said."""
    found = Book(sheet(), tools())
    found.read("gap", "a", depth, tool="c1")
    found.read("gap", "b", "49.14", tool="c1")
    return found


@pytest.fixture
def book() -> Book:
    """A gap of 3.27 without a shim."""
    return read("52.41")


def result(book: Book) -> Any:
    """The gap as it is judged."""
    return book.bench("gap").results[0]


def choice(book: Book) -> Any:
    """The choice of the pack."""
    return book.bench("gap").packs[0]


def kit(book: Book, typed: str = "0.25 x 2, 0.50, 1.00 x 2", **own: Any) -> None:
    """What lies in the drawer."""
    book.do("kit said", step="gap", pack="p", typed=typed, **own)


def put(book: Book, *shims: str) -> None:
    """These went in."""
    book.do("pack put", step="gap", pack="p", shims=list(shims))


def test_the_gap_is_not_judged_until_it_is_said_what_lies_in_it(book: Book):
    """Outside without shims is no verdict: nothing is to be decided, only chosen."""
    assert result(book).bare.verdict == "outside"
    assert "nobody has said which shims" in result(book).judgement.words
    assert not result(book).asks_decision
    assert book.in_the_way("gap")[-1].words == "Gap: say which shims lie in it"
    assert choice(book).title == "Shims: what lies in the drawer?"
    assert book.bench("gap").next_reading is None


def test_chosen_put_in_and_read_again(book: Book):
    """1.00 and 0.25 come nearest to the middle; inside only after the reading with them in."""
    kit(book)
    found = choice(book)
    assert found.best.pieces == ("1.00", "0.25")
    assert found.best.judgement.value == pytest.approx(2.02)
    assert found.title == "1.00 and 0.25 bring it in"
    assert found.one_more == "one more of 0.5 mm leaves 1.52: not inside any more"
    put(book, *found.best.pieces)
    assert result(book).judgement.words == "not judged: read it once more with these shims in"
    assert book.bench("gap").next_reading == "again"
    book.read("gap", "again", "51.16", tool="c1")
    assert result(book).judgement.verdict == "inside"
    assert result(book).judgement.assumed
    assert not book.in_the_way("gap")
    book.do("done", step="gap")


def test_the_reading_with_the_shims_in_finds_another_pack(book: Book):
    """One shim more than was said lies in: 0.25 mm too much is more than the tools are."""
    kit(book)
    put(book, "1.00", "0.25")
    book.read("gap", "again", "50.91", tool="c1")
    assert "it reads 50.910, and by them it must read 51.160" in result(book).judgement.words
    assert result(book).judgement.verdict == "too_close"
    put(book, "1.00", "0.25", "0.25")
    assert "read it once more" in result(book).judgement.words
    book.read("gap", "again", "50.91", tool="c1")
    assert result(book).judgement.value == pytest.approx(1.77)
    assert result(book).judgement.verdict == "inside"


def test_a_depth_read_anew_asks_again_what_lies_in(book: Book):
    """Read with the shims in or without them? Nobody knows: the verdict is held."""
    kit(book)
    put(book, "1.00", "0.25")
    book.read("gap", "again", "51.16", tool="c1")
    book.read("gap", "a", "52.40", tool="c1")
    assert result(book).chooses
    assert "say again which lie in it" in result(book).judgement.words
    assert book.in_the_way("gap")


def test_the_chain_changed_in_between_is_said(book: Book):
    """The clutch came on after the depth was read: the choice carries the warning."""
    kit(book)
    book.do("done", step="clutch_on")
    (words,) = choice(book).outdated
    assert words.startswith("Depth A was read on 2026-03-01, before")


def test_struck_kit_and_struck_pack(book: Book):
    """What was put in by mistake is struck: the gap is open again."""
    kit(book)
    put(book, "1.00")
    line = book.state.newest(PackPut, "pack", "gap/p")
    assert line is not None
    book.do("strike", entry=line.id, reason="it lies on the bench still")
    assert result(book).chooses
    assert choice(book).put_words is None


def test_nothing_inside_says_what_to_buy(book: Book):
    """No stack of this kit will do: how thick the sum has to be."""
    kit(book, "0.05 x 3")
    found = choice(book)
    assert found.best is None
    assert found.title == "No sum of your shims is inside"
    assert "no stack of this kit brings the gap inside" in found.refusal


def test_below_its_least_without_any_shim():
    """No shim makes a gap larger: it stays outside, and is decided like any other."""
    book = read("50.41")
    kit(book)
    assert result(book).judgement.verdict == "outside"
    assert result(book).asks_decision
    assert "below its least without any shim" in choice(book).refusal


def test_a_gap_by_one_leaf_has_no_shim():
    """It may be any gap above it."""
    text = GAP.replace('minuend = "a", subtrahend = "b"', 'reading = "a"').replace(
        'name = "Depth A", tool = "caliper"', 'name = "Gap", tool = "feeler"'
    )
    text = text.replace('lo = "1.50"\nhi = "2.50"', 'lo = "0.10"\nhi = "0.30"')
    text = text[: text.index("check = {")]
    book = Book(sheet(text), tools())
    book.read("gap", "a", "0.60", tool="f1")
    kit(book, "0.15 x 4")
    assert choice(book).best is None
    assert "one leaf alone" in choice(book).refusal
    book.read("gap", "a", "0.60 0.65", tool="f1")
    assert choice(book).best is not None


def test_no_shim_is_an_answer():
    """A gap that is inside by itself wants it said that nothing lies in it."""
    book = read("51.14")
    assert result(book).chooses
    put(book)
    book.read("gap", "again", "51.14", tool="c1")
    assert result(book).judgement.verdict == "inside"
    assert not result(book).judgement.assumed


def test_measured_shims_prove_more_than_printed_ones(book: Book):
    """A tool that reaches them makes them sure; one that does not is refused."""
    small = book.shop["m1"].model_copy(update={"id": "m0", "code": "M0", "lo": "0", "hi": "25"})
    book.shop["m0"] = small
    kit(book, "0.254, 1.004", instrument="m0")
    put(book, "1.004", "0.254")
    book.read("gap", "again", "51.15", tool="c1")
    assert result(book).judgement.verdict == "inside"
    assert not result(book).judgement.assumed
    book.shop["m0"] = small.model_copy(
        update={
            "version": 2,
            "doubts": (
                Doubt(
                    since="2026-01-01T00:00:00Z",
                    until="2026-12-01T00:00:00Z",
                    words="off by 0.05 mm",
                ),
            ),
        }
    )
    assert "the shims were measured with it" in result(book).judgement.words
    book.refuse("out_of_range", "kit said", step="gap", pack="p", typed="0.25", instrument="m1")
    book.refuse("wrong_tool", "kit said", step="gap", pack="p", typed="0.25", instrument="f1")


def test_what_was_accepted_was_another_gap(book: Book):
    """No figure, nothing to accept; other shims, and what was accepted lapses."""
    accept = {
        "step": "gap",
        "result": "g",
        "name": "MK",
        "reason": "It is driven round the yard only.",
    }
    book.refuse("not_complete", "concession", **accept)
    kit(book)
    put(book, "0.50")
    book.read("gap", "again", "51.91", tool="c1")
    assert result(book).judgement.verdict == "outside"
    book.do("concession", **accept)
    assert result(book).conceded
    put(book, "0.25")
    book.read("gap", "again", "52.16", tool="c1")
    assert result(book).judgement.verdict == "outside"
    assert not result(book).conceded
    assert "lapsed" in result(book).lapsed


def test_a_tool_that_failed_its_check_measures_no_shim(book: Book):
    """Said at once, not after it was believed."""
    bad = book.shop["m1"].model_copy(
        update={
            "id": "m9",
            "code": "M9",
            "lo": "0",
            "hi": "25",
            "doubts": (Doubt(since="2026-01-01", until=OPEN_END, words="0.02 over"),),
        }
    )
    book.shop["m9"] = bad
    book.refuse("tool_unfit", "kit said", step="gap", pack="p", typed="0.25", instrument="m9")


@pytest.mark.parametrize(
    "typed",
    ["", "  ,  ", "0 x 2", "0.25 x 0", "0.25, 0.25 x 2", "thick", "40", "-0.5", "0.25 to 0.5"],
)
def test_a_kit_that_cannot_be(book: Book, typed: str):
    """One sentence with the field, and nothing is written."""
    book.refuse("bad_kit", "kit said", step="gap", pack="p", typed=typed)


def test_what_does_not_lie_in_the_drawer_cannot_go_in(book: Book):
    """More than there are, another size, too many, no kit at all, a gap nobody read."""
    book.refuse("no_kit", "pack put", step="gap", pack="p", shims=["0.25"])
    kit(book)
    book.refuse("not_in_kit", "pack put", step="gap", pack="p", shims=["0.50", "0.50"])
    book.refuse("not_in_kit", "pack put", step="gap", pack="p", shims=["0.75"])
    book.refuse("too_many", "pack put", step="gap", pack="p", shims=["0.25", "0.25", "0.5", "1.00"])
    with pytest.raises(NotFound):
        book.do("pack put", step="gap", pack="q", shims=[])
    fresh = Book(sheet(), tools())
    fresh.refuse("not_complete", "pack put", step="gap", pack="p", shims=[])


def test_a_kit_as_it_is_written_on_paper():
    """Commas between figures, decimal commas, inches, lines."""
    pieces = read_kit("0,25 x 2\n0.5*3; 0.010 in × 1", "mm")
    assert [(p.typed, str(p.thickness.value), p.count) for p in pieces] == [
        ("0,25", "0.25", 2),
        ("0.010 in", "0.254", 1),
        ("0.5", "0.5", 3),
    ]
    lasts = {p.typed: float(str(p.last.value)) for p in pieces}
    assert lasts == pytest.approx({"0,25": 0.01, "0.010 in": 0.0254, "0.5": 0.1})


@given(
    st.dictionaries(st.integers(1, 60), st.integers(1, 3), min_size=1, max_size=6),
    st.integers(0, 4),
)
def test_every_sum_with_the_fewest_pieces(kit_of: dict[int, int], most: int):
    """Held against trying every stack."""
    pieces = [t for t, n in kit_of.items() for _ in range(n)]
    fewest: dict[int, int] = {}
    for count in range(most + 1):
        for stack in itertools.combinations(pieces, count):
            fewest.setdefault(sum(stack), count)
    found = sums_of(kit_of, most, 10**6)
    assert {total: len(stack) for total, stack in found.items()} == fewest
    assert all(sum(stack) == total for total, stack in found.items())
    assert all(stack.count(t) <= kit_of[t] for stack in found.values() for t in stack)


def test_what_is_proposed_is_inside_with_its_own_spread():
    """Random gaps and drawers: a proposal that is not inside is no proposal."""
    dice = random.Random(7)
    for _ in range(30):
        book = read(f"{50.5 + dice.random() * 4:.2f}")
        sizes = dice.sample([0.1, 0.2, 0.25, 0.4, 0.5, 0.8, 1.0, 1.5], 4)
        kit(book, ", ".join(f"{size} x {dice.randint(1, 3)}" for size in sizes))
        best = choice(book).best
        assert best is None or best.judgement.verdict == "inside"
        assert (best is None) == (choice(book).refusal is not None)


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ('result = "g"', 'result = "h"', "no other result here"),
        (
            'reading = "again", of',
            'reading = "nothing", of',
            "readings that this step does not take",
        ),
        ('minuend = "a", subtrahend = "b"', 'how = "ends", over = ["a", "b"]', "two ends"),
    ],
)
def test_a_pack_that_the_sheet_gets_wrong(old: str, new: str, words: str):
    """Said with the step and the key."""
    assert old in GAP
    with pytest.raises(Refused, match=words):
        sheet(GAP.replace(old, new))
