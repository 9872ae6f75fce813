"""Figures that are compared before they are taken, and verdicts no better than the truth: each way
tried to get 'inside' falsely.
"""

import pytest

from hollet.core.checking import check_against
from hollet.core.entries import Reading
from hollet.core.errors import Refused
from hollet.core.limits import Limit, judge
from hollet.core.quantities.quantity import Quantity
from hollet.core.states import state_conflict, temperature_of
from tests.core.test_passing import refused
from tests.support import SMALL, Book, small_sheet, tool, tools

CYLINDERS = """
[sheet]
id = "four"
title = "Four bores"
about = "Bores and pistons of four cylinders, each bore at two depths."

[[limit]]
id = "clearance"
name = "Clearance"
dimension = "length"
unit = "mm"
lo = "0.030"
hi = "0.070"
condition = "clean, dry, 20 °C"
source = "book p. 1"

[[limit]]
id = "least"
name = "Gap"
dimension = "length"
unit = "mm"
lo = "0.8"
source = "book p. 2"

[[step]]
id = "bores"
stage = "inspect"
kind = "measure"
title = "Bores"
do = "Measure."
reading = [
  { id = "p1", name = "Piston 1", tool = "micrometer", nominal = "83.96 mm" },
  { id = "p2", name = "Piston 2", tool = "micrometer", nominal = "83.96 mm" },
  { id = "p3", name = "Piston 3", tool = "micrometer", nominal = "83.96 mm" },
  { id = "p4", name = "Piston 4", tool = "micrometer", nominal = "83.96 mm" },
  { id = "b1", name = "Bore 1", tool = "bore gauge", nominal = "84.00 mm" },
  { id = "b1_low", name = "Bore 1, low", tool = "bore gauge", nominal = "84.00 mm" },
]
[[step.result]]
id = "c1"
name = "Cylinder 1"
limit = "clearance"
how = "ends"
over = ["b1", "b1_low"]
less = ["p1"]

[[step]]
id = "ring"
stage = "inspect"
kind = "measure"
title = "Synchro"
do = "Measure."
reading = [{ id = "gap", name = "Gap", tool = "feeler", nominal = "0.9 mm" }]
result = [{ id = "g", name = "Gap", limit = "least", reading = "gap" }]
"""


@pytest.fixture
def four() -> Book:
    """Four cylinders and a gap."""
    return Book(small_sheet(CYLINDERS), tools())


def pistons(book: Book) -> None:
    """Four pistons that are alike."""
    for name, typed in (("p1", "83.958"), ("p2", "83.961"), ("p3", "83.955"), ("p4", "83.957")):
        book.read("bores", name, typed, tool="m1")


def clearance(book: Book):
    """The clearance of cylinder 1."""
    return book.bench("bores").results[0]


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("0.0018", "0.0018 mm, or 0.04572 mm, meant in inches?"),
        ("1.8", "meant in thou"),
        ("-2", "meant in thou"),
        ("83.208", "Is it right?"),
    ],
)
def test_a_set_gauge_is_asked_about_its_deviation(four: Book, typed: str, words: str):
    """The deviation by itself, not the sum: 84.0018 would look well, and 1.8 has no
    travel for it.
    """
    pistons(four)
    four.shop["b1"] = four.shop["b1"].model_copy(update={"resolution": "0.002"})
    four.read("bores", "b1_low", "84.004", tool="b1")
    assert (
        words
        in refused(
            four,
            "reading",
            "odd_figure",
            step="bores",
            reading="b1",
            typed=[typed],
            unit="mm",
            instrument="b1",
        ).message
    )
    four.read("bores", "b1", "0.018", tool="b1")


def test_swapped_digits_among_sisters(four: Book):
    """83.597 among 83.96 is asked, 83.957 is not."""
    pistons(four)
    assert (
        "83.957 mm, two digits swapped"
        in refused(
            four,
            "reading",
            "odd_figure",
            step="bores",
            reading="p4",
            typed=["83.597"],
            unit="mm",
            instrument="m1",
        ).message
    )
    four.read("bores", "p4", "83.957", tool="m1")


def test_a_bore_smaller_than_its_piston(four: Book):
    """84.957 as a piston for a bore of 84.006: asked by the pair, whichever comes second."""
    four.read("bores", "b1", "84.006", tool="b1")
    assert (
        "is not smaller than"
        in refused(
            four,
            "reading",
            "odd_figure",
            step="bores",
            reading="p1",
            typed=["84.957"],
            unit="mm",
            instrument="m1",
        ).message
    )


def test_as_typed_lifts_the_question_never_the_range(four: Book):
    """A figure beyond the travel of its gauge is kept when it is meant, and proves nothing."""
    pistons(four)
    four.read("bores", "b1", "0.05", tool="b1")
    four.read("bores", "b1_low", "-0.9", tool="b1", sure=True)
    found = clearance(four).judgement
    assert (found.verdict, found.words) == ("too_close", "outside the range of B1: no verdict")


def test_only_a_tool_that_may_give_it():
    """No caliper for a feeler gap, no micrometer for a bore; the bench offers what may, the best
    first, and what is not trusted last.
    """
    book = Book(small_sheet(CYLINDERS), tools())
    refused(
        book,
        "reading",
        "wrong_tool",
        step="ring",
        reading="gap",
        typed=["0.9"],
        unit="mm",
        instrument="c1",
    )
    refused(
        book,
        "reading",
        "wrong_tool",
        step="bores",
        reading="b1",
        typed=["84.0"],
        unit="mm",
        instrument="m1",
    )
    offered = {r.id: r.tools for r in book.bench("bores").readings}
    assert offered["p1"] == ("m1", "c1")
    assert offered["b1"] == ("b1", "c1")
    book.shop["m1"] = check_against(book.shop["m1"], "84", ["84.05"], now=book.time).tool
    assert book.bench("bores").readings[0].tools == ("c1", "m1")
    assert not next(t for t in book.bench("bores").tools if t.id == "m1").can
    assert (
        "not to be trusted"
        in refused(
            book,
            "reading",
            "odd_figure",
            step="bores",
            reading="p1",
            typed=["83.958"],
            unit="mm",
            instrument="m1",
        ).message
    )


def test_the_error_of_the_setting_tool_goes_with_the_gauge(four: Book):
    """M1 reads 0.021 high and is corrected; a gauge set with it shows 0.021 too much: a true
    clearance of 0.020 is not inside 0.030.
    """
    off = four.shop["m1"].model_copy(update={"offset": "0.021"})
    four.shop |= {"m1": off, "b1": four.shop["b1"].model_copy(update={"set_with": off})}
    four.read("bores", "p1", "84.001", tool="m1")  # true 83.980
    four.read("bores", "b1", "84.021", tool="b1")  # true 84.000
    four.read("bores", "b1_low", "84.021", tool="b1")
    assert clearance(four).judgement.value == pytest.approx(0.020)
    assert clearance(four).judgement.verdict == "outside"


@pytest.mark.parametrize("said", ["hot, 60 °C", "hot", "clean, 140 °F"])
def test_hot_against_twenty_degrees(four: Book, said: str):
    """Read hot, judged by a figure for 20 °C: no verdict, and said why; read at 22 °C it has one;
    nothing is filled in as said.
    """
    pistons(four)
    four.read("bores", "b1", "84.005", tool="b1", state=said)
    four.read("bores", "b1_low", "84.003", tool="b1")
    assert (
        clearance(four).judgement.words
        == f"read {said}, and the figure holds for clean, dry, 20 °C"
    )
    four.read("bores", "b1", "84.005", tool="b1", state="clean, 22 °C")
    assert clearance(four).judgement.verdict == "inside"
    four.read("bores", "b1", "84.005", tool="b1")
    assert four.state.live("reading", "b1")[-1].body.state is None


@pytest.mark.parametrize(
    ("said", "asked", "conflict"),
    [
        ("loaded", "hub unloaded", True),
        ("unloaded", "hub loaded", True),
        ("hub loaded", "loaded", False),
        ("oiled", "dry", True),
        ("25 °C", "20 °C", False),
        ("cold", "hot, 80 °C", True),
        (None, "20 °C", False),
        ("clean, dry", "clean, dry, 20 °C", False),
    ],
)
def test_states_that_cannot_both_be_so(said, asked, conflict):
    """Opposite words as whole words, temperatures more than 10 K apart."""
    assert (state_conflict(said, asked) is not None) == conflict


def test_temperatures_in_words():
    """Celsius and Fahrenheit, a true minus, none in plain words."""
    assert (
        temperature_of("at 20 °C"),
        temperature_of("212 °F"),
        temperature_of("−5 °C"),
        temperature_of("hot"),
    ) == (20, 100, -5, None)


def test_both_ends_of_a_bore_are_judged(four: Book):
    """The widest place is inside and the tightest is not: outside, under; and the other
    way round.
    """
    pistons(four)
    four.read("bores", "b1", "84.015", tool="b1")
    four.read("bores", "b1_low", "83.975", tool="b1")
    found = clearance(four).judgement
    assert (found.verdict, found.side) == ("outside", "low")
    other = Book(small_sheet(CYLINDERS), tools())
    pistons(other)
    other.read("bores", "b1", "84.045", tool="b1")
    other.read("bores", "b1_low", "84.000", tool="b1")
    assert (clearance(other).judgement.verdict, clearance(other).judgement.side) == (
        "outside",
        "high",
    )


def test_one_leaf_alone_is_a_lower_end(four: Book):
    """0.95 goes in: at least 0.95, enough against a least of 0.8; against a largest it proves
    nothing. Two leaves do, the thinner first.
    """
    four.read("ring", "gap", "0.95", tool="f1")
    found = four.bench("ring").results[0].judgement
    assert (found.verdict, found.value_text, found.words) == (
        "inside",
        "0.95 or more",
        "inside, 0.13 to spare",
    )
    four.read("ring", "gap", "0.85 0.90", tool="f1")
    four.read("ring", "gap", "0.85 0.90", tool="f1")
    assert four.bench("ring").readings[0].value_text == "0.85 to 0.9"
    with pytest.raises(Refused, match="thinner"):
        four.read("ring", "gap", "0.90 0.85", tool="f1")
    book = Book(small_sheet(), tools())
    book.read("ring", "ring", "0.35", tool="f1")
    assert book.bench("ring").results[0].judgement.verdict == "too_close"


def test_shown_as_it_was_read():
    """0.95 against 0.8 is not 1.0; 0.85 is not 0.8; nothing is rounded onto a limit; to spare is
    what is left after U.
    """
    limit = Limit(id="x", name="Gap", dimension="length", unit="mm", lo="0.8", source="book")
    read = judge(0.95, 0.02, limit, digits=2)
    assert (read.value_text, read.words) == ("0.95", "inside, 0.13 to spare")
    assert judge(0.85, 0.02, limit, digits=2).value_text == "0.85"
    assert judge(0.7996, 0.0001, limit, digits=2).value_text == "0.7996"
    assert judge(0.82, 0.02, limit, digits=2).words == "inside, nothing to spare"


def test_two_readings_that_disagree_wait_for_a_third(four: Book):
    """Further apart than the tools are: too close until a third; within their U the
    newer counts.
    """
    pistons(four)
    four.read("bores", "b1_low", "84.003", tool="b1")
    four.read("bores", "b1", "84.005", tool="b1")
    four.read("bores", "b1", "84.020", tool="b1")
    assert "a third decides" in clearance(four).judgement.words
    four.read("bores", "b1", "84.006", tool="b1")
    assert clearance(four).judgement.verdict == "inside"


def test_the_figure_of_the_newest_reading_is_large():
    """After the second result is read, it is the large one, not the first."""
    two = SMALL.replace(
        'subtrahend = "piston"\n',
        'subtrahend = "piston"\n'
        '[[step.result]]\nid = "d"\nname = "Bore"\nlimit = "clearance"\nreading = "second"\n',
    ).replace(
        'tool = "bore gauge", nominal = "84 mm" }]',
        'tool = "bore gauge", nominal = "84 mm" }, { id = "second", name = "Bore 2", tool = '
        '"bore gauge", nominal = "84 mm" }]',
    )
    book = Book(small_sheet(two), tools())
    book.read("bore", "piston", "83.958", tool="m1")
    book.read("bore", "cylinder", "84.006", tool="b1")
    assert book.bench("bore").large == "c"
    book.read("bore", "second", "84.002", tool="b1")
    assert book.bench("bore").large == "d"


def test_old_readings_without_a_leaf_that_stops(book: Book):
    """Written before: one leaf alone proves no upper limit any more."""
    f1 = tool("f1", "feeler", lo="0.05", hi="1", mpe="0.01", resolution="0.05", s="0.01")
    book.add(
        Reading(
            step="ring",
            reading="ring",
            typed=("0.30",),
            unit="mm",
            values=(Quantity(value="0.3", unit="mm"),),
            instrument=f1,
        ),
    )
    assert book.bench("ring").results[0].judgement.verdict == "too_close"


def test_an_edited_limit_asks_where_it_comes_from(book: Book):
    """New figures under the old book's name are refused; own, newly sourced or really so in the
    same place they are taken, and what turned is told.
    """
    with pytest.raises(Refused, match="Where does the new figure come from"):
        book.plan(
            "limit",
            limit="clearance",
            version=1,
            lo="0.030",
            hi="0.080",
            target="0.045",
            source="book p. 1",
        )
    book.plan(
        "limit", limit="clearance", version=1, lo="0.030", hi="0.080", target="0.045", own=True
    )
    assert book.state.plan.find_limit("clearance").source == "MK decided"


def test_the_working_shows_the_uncertainty_that_judged(four: Book):
    """Two bores and one piston: the working is of the end that decides, and adds up to the U beside
    the verdict.
    """
    pistons(four)
    for name, typed in (("b1", "0.048"), ("b1_low", "0.052")):
        four.read("bores", name, typed, tool="b1")
    judged = clearance(four).judgement
    assert any(f"U = {judged.U:.4f}" in line for line in judged.working)
