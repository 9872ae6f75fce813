"""Pistons matched to bores at their step: the exact choice, judged with the piston taken."""

import itertools
import random
import tomllib
from typing import Any

import pytest

from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

MATCH = """
[[limit]]
id = "skirt_clearance"
name = "Clearance"
dimension = "length"
unit = "mm"
lo = "0.030"
hi = "0.070"
target = "0.050"
source = "book p. 6"

[[step]]
id = "match"
stage = "build_up"
kind = "measure"
title = "Pistons to bores"
do = "At one temperature."
reading = [
  { id = "b1", name = "Bore 1", tool = "micrometer" },
  { id = "b2", name = "Bore 2", tool = "micrometer" },
  { id = "b3", name = "Bore 3", tool = "micrometer" },
  { id = "p1", name = "Piston 1", tool = "micrometer" },
  { id = "p2", name = "Piston 2", tool = "micrometer" },
  { id = "p3", name = "Piston 3", tool = "micrometer" },
]
result = [
  { id = "m1", name = "Clearance 1", limit = "skirt_clearance", minuend = "b1", subtrahend = "p1" },
  { id = "m2", name = "C2", limit = "skirt_clearance", how = "ends", over = ["b2"], less = ["p2"] },
  { id = "m3", name = "Clearance 3", limit = "skirt_clearance", minuend = "b3", subtrahend = "p3" },
]
pairs = { results = ["m1", "m2", "m3"] }
"""


def sheet(text: str = MATCH) -> Any:
    """The small job with three pistons to match."""
    return read_sheet(tomllib.loads(SMALL + text), SMALL + text)


def read(book: Book, bores: list[str], pistons: list[str]) -> None:
    """All six, each by the same micrometer."""
    for k in range(3):
        book.read("match", f"b{k + 1}", bores[k], tool="m1", sure=True)
        book.read("match", f"p{k + 1}", pistons[k], tool="m1", sure=True)


@pytest.fixture
def book() -> Book:
    """Bores that want the pistons turned round."""
    found = Book(sheet(), tools())
    read(found, ["84.000", "84.010", "84.020"], ["83.970", "83.960", "83.950"])
    return found


def match(book: Book) -> Any:
    return book.bench("match").match


def judged(book: Book, k: int) -> Any:
    return book.bench("match").results[k - 1]


def take(book: Book, *inners: str) -> None:
    book.do("pairs taken", step="match", inners=list(inners))


def test_not_judged_until_it_is_said_which_goes_where(book: Book):
    """A clearance of two parts that nobody brings together is no clearance."""
    assert match(book).title == "2 of 3 change places"
    assert [[o.best for o in lane.options] for lane in match(book).lanes] == [
        [False, False, True],
        [False, True, False],
        [True, False, False],
    ]
    assert judged(book, 1).chooses
    assert "nobody has said which piston" in judged(book, 1).judgement.words
    assert book.in_the_way("match")[-1].words == "Clearance 1: say which part goes into it"


def test_judged_with_the_piston_that_was_taken(book: Book):
    """All three at a twentieth: by the pistons that were named, not by their numbers."""
    take(book, "p3", "p2", "p1")
    assert [judged(book, k).judgement.value for k in (1, 2, 3)] == pytest.approx([0.05] * 3)
    assert {judged(book, k).judgement.verdict for k in (1, 2, 3)} == {"inside"}
    assert match(book).title == "Matched"
    assert not book.in_the_way("match")
    book.do("done", step="match")


def test_another_pairing_shows_what_it_costs(book: Book):
    """Each with its own: one too tight, one too wide, and both are decided like any other."""
    take(book, "p1", "p2", "p3")
    assert judged(book, 1).judgement.verdict in ("outside", "too_close")
    assert judged(book, 3).judgement.verdict in ("outside", "too_close")
    assert judged(book, 1).asks_decision
    take(book, "p3", "p2", "p1")
    assert judged(book, 1).judgement.verdict == "inside"


def test_a_piston_read_anew_is_matched_anew(book: Book):
    """What was taken was taken for another figure."""
    take(book, "p3", "p2", "p1")
    book.read("match", "p3", "83.951", tool="m1", sure=True)
    assert "say again which piston goes where" in judged(book, 1).judgement.words
    assert judged(book, 2).judgement.verdict == "inside"
    assert match(book).chooses


def test_struck_the_pairs_were_never_taken(book: Book):
    take(book, "p3", "p2", "p1")
    line = book.state.last
    assert line is not None
    book.do("strike", entry=line.id, reason="they lie on the bench still")
    assert judged(book, 1).chooses


def test_one_piston_goes_into_one_bore(book: Book):
    """Twice the same, one that is none, too few; and a step where nothing is matched."""
    for inners in (["p1", "p1", "p2"], ["p1", "p2", "b1"], ["p1"]):
        book.refuse("pairs_wrong", "pairs taken", step="match", inners=inners)
    with pytest.raises(NotFound):
        book.do("pairs taken", step="bore", inners=["piston"])
    fresh = Book(sheet(), tools())
    assert match(fresh).title == "Every bore and every piston first"
    fresh.refuse("not_complete", "pairs taken", step="match", inners=["p1", "p2", "p3"])


def test_none_that_is_inside(book: Book):
    """The sum says which bore is lost, and nothing is proposed."""
    bad = Book(sheet(), tools())
    read(bad, ["84.000", "84.010", "84.200"], ["83.970", "83.960", "83.950"])
    assert match(bad).title == "No matching of these pistons is inside"
    assert "no pairing keeps all clearances inside" in match(bad).refusal
    assert not any(o.best for lane in match(bad).lanes for o in lane.options)


def test_no_matching_is_better():
    """Held against trying every order: the worst deviation is the smallest there is."""
    dice = random.Random(11)
    for _ in range(15):
        bores = [84 + dice.randint(0, 20) / 1000 for _ in range(3)]
        pistons = [83.96 + dice.randint(-10, 10) / 1000 for _ in range(3)]
        book = Book(sheet(), tools())
        read(book, [f"{b:.3f}" for b in bores], [f"{p:.3f}" for p in pistons])
        found = match(book)
        if found.refusal is not None:
            continue
        best = [next(k for k, o in enumerate(ln.options) if o.best) for ln in found.lanes]

        def worst(order: Any, b: list[float] = bores, p: list[float] = pistons) -> float:
            return max(abs(b[k] - p[order[k]] - 0.05) for k in range(3))

        every = min(worst(order) for order in itertools.permutations(range(3)))
        assert worst(best) == pytest.approx(every, abs=1e-9)


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ('results = ["m1", "m2", "m3"]', 'results = ["m1", "m9"]', "no result of one bore"),
        ('limit = "skirt_clearance", how', 'limit = "gap", how', "judged by one limit"),
    ],
)
def test_a_matching_that_the_sheet_gets_wrong(old: str, new: str, words: str):
    """Said with the key."""
    assert old in MATCH
    with pytest.raises(Refused, match=words):
        sheet(MATCH.replace(old, new))
