"""Sums kept with their figures by name, settings before and after, the clock from the oven: each
marked, or over, as soon as what it stood on is another thing.
"""

import math
import tomllib
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.book.sums import kept_sums, sources
from hollet.core.catalogue import compute
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

ROD = """
[[limit]]
id = "rod"
name = "Rod"
dimension = "length"
unit = "mm"
lo = "99.5"
hi = "100.5"
source = "book"

[[step]]
id = "rod_found"
stage = "take_down"
kind = "measure"
title = "Rod as found"
do = "Eye to eye."
reading = [{ id = "rod_0", name = "Rod, as found", tool = "caliper" }]
result = [{ id = "rod_0_r", name = "Rod", limit = "rod", reading = "rod_0" }]

[[step]]
id = "rod_set"
stage = "build_up"
kind = "measure"
title = "Rod set"
do = "Eye to eye."
reading = [{ id = "rod_1", name = "Rod", tool = "caliper", found = "rod_0", pitch = "1.5 mm" }]
result = [{ id = "rod_1_r", name = "Rod", limit = "rod", reading = "rod_1" }]

[[step]]
id = "race_on"
stage = "build_up"
kind = "fit"
title = "Race on"
do = "Hot."
[[step.warms]]
id = "race"
what = "inner race"
most = "110 °C"
wall = "8 mm"
never = "seals"
"""


@pytest.fixture
def book() -> Book:
    text = SMALL + ROD
    return Book(read_sheet(tomllib.loads(text), text), tools())


def rod(book: Book, value: str, reading: str = "rod_1") -> None:
    step = "rod_found" if reading == "rod_0" else "rod_set"
    book.read(step, reading, value, tool="c1", sure=True)


def keep(book: Book, **more: Any) -> None:
    typed = {"seat_diameter_at_20C": "35.018", "ring_bore_at_20C": "35"}
    sent = {"calc": "heat_ring", "typed": typed, "sum": "s1", "step": "rod_set", **more}
    book.do("sum kept", **sent)


def test_a_sum_kept_as_typed(book: Book):
    """T11-01: 110.5 °C; it stands as long as nothing by name went into it."""
    keep(book)
    (kept,) = kept_sums(book.state, "rod_set")
    told = {a.name: a.text for a in kept.answers}
    assert told["ring temperature"] == "110.476 °C"
    assert told["possible"] == "yes"
    assert kept.holds


def test_a_figure_by_name_that_changes(book: Book):
    """The reading moves, and the sum says so with what comes out now."""
    rod(book, "100.10")
    by_name = {"calc": "heat_ring", "typed": {"ring_bore_at_20C": "100"}}
    keep(book, **by_name, taken={"seat_diameter_at_20C": "reading:rod_1"})
    (kept,) = kept_sums(book.state, "rod_set")
    assert kept.holds
    assert [i.source_name for i in kept.inputs if i.source] == ["Rod"]
    rod(book, "100.20")
    (kept,) = kept_sums(book.state, "rod_set")
    assert kept.changed == ("Rod was 100.1 mm and is 100.2 mm",)
    was, now = ({a.name: a.text for a in found} for found in (kept.answers, kept.now))
    assert (was["interference"], now["interference"]) == ("0.1 mm", "0.2 mm")
    book.do("strike", entry=book.state.last.id, reason="typed twice")
    assert kept_sums(book.state, "rod_set")[0].holds
    rod(book, "108")
    (kept,) = kept_sums(book.state, "rod_set")
    assert "more than half a percent" in kept.refusal
    assert kept.now == ()


def test_a_figure_that_is_gone(book: Book):
    rod(book, "100.10")
    read = book.state.last.id
    taken = {"seat_diameter_at_20C": "reading:rod_1"}
    keep(book, typed={"ring_bore_at_20C": "100"}, taken=taken)
    book.do("strike", entry=read, reason="read at the wrong rod")
    (kept,) = kept_sums(book.state, "rod_set")
    assert kept.changed == ("Rod is not there any more",)
    assert kept.now == ()


@pytest.mark.parametrize(
    ("more", "error", "words"),
    [
        ({"calc": "no_such_sum"}, NotFound, "no_such_sum"),
        ({"step": "nowhere"}, NotFound, "nowhere"),
        ({"taken": {"seat_diameter_at_20C": "reading:nothing"}}, NotFound, "reading:nothing"),
        ({"taken": {"colour": "limit:clearance"}}, NotFound, "colour"),
        ({"taken": {"alpha_ring": "limit:clearance"}}, Refused, "is no"),
        ({"typed": {"seat_diameter_at_20C": "wide"}}, Refused, "wide"),
        ({"typed": {}}, Refused, "seat_diameter"),
    ],
)
def test_sums_that_are_none(book: Book, more: dict[str, Any], error: type[Exception], words: str):
    with pytest.raises(error, match=words):
        keep(book, **more)
    assert kept_sums(book.state, "rod_set") == ()


def test_what_a_sum_may_take(book: Book):
    """Readings that were taken, sizes that are given; never a reading that is not there."""
    rod(book, "100.10")
    assert {s.id: s.text for s in sources(book.state)} == {
        "reading:rod_1": "100.1 mm",
        "limit:clearance": "0.045 mm",
        "limit:oil": "4.2 L",
    }


def row(book: Book) -> Any:
    return book.bench("rod_set").settings[0]


@pytest.mark.parametrize(
    ("found", "now", "apart", "turns"),
    [
        ("102.00", "102.00", "as it was found", "1⅜ turns shorter"),
        ("102.00", "98.50", "3.50 mm less", "1 turn longer"),
        ("99.00", "101.50", "2.50 mm more", "1 turn shorter"),
        ("100.00", "100.02", "0.02 mm more", None),
    ],
)
def test_before_and_after(book: Book, found: str, now: str, apart: str, turns: str | None):
    """To 100.0 by a pitch of 1.5 mm, to an eighth of a turn."""
    rod(book, found, "rod_0")
    rod(book, now)
    assert (row(book).apart, row(book).turns) == (apart, turns)


def test_after_is_not_read(book: Book):
    assert book.bench("rod_set").settings == ()
    rod(book, "102.00", "rod_0")
    assert (row(book).found, row(book).now, row(book).apart) == ("102.00 mm", "", "not read yet")


def oven(book: Book, out: str, needed: str, **more: Any) -> None:
    book.do("out of the oven", step="race_on", warm="race", out=out, needed=needed, **more)


def test_from_the_oven_to_the_seat(book: Book):
    """By Newton's law with a time constant of 770 s: 140 s from 110 to 95 °C in a room of 20."""
    oven(book, "110", "95")
    left = book.state.last.body.left_s
    tau = 7850 * 490 * 0.004 / 20
    assert left == pytest.approx(tau * math.log(90 / 75))
    warm = book.bench("race_on").base.warms[0]
    assert not warm.late
    book.later(left / 3600 + 0.001)
    assert book.bench("race_on").base.warms[0].late
    assert [o.words for o in book.in_the_way("race_on")] == [
        "not seen: inner race: home, and held till it grips"
    ]
    book.do("confirmed", step="race_on", what=warm.box)
    assert book.in_the_way("race_on") == ()


def test_home_of_yesterday(book: Book):
    """Out once more, it has to be seen home once more."""
    oven(book, "110", "95")
    book.do("confirmed", step="race_on", what=book.bench("race_on").base.warms[0].box)
    oven(book, "110", "95")
    assert len(book.in_the_way("race_on")) == 1


@pytest.mark.parametrize(
    ("out", "needed", "words"),
    [
        ("140", "95", "is the most it may become"),
        ("90", "95", "it will not go on"),
        ("95", "95", "it will not go on"),
        ("110", "20", "stays so by itself"),
        ("110", "10", "stays so by itself"),
        ("hot", "95", "hot"),
    ],
)
def test_too_hot_or_too_cold(book: Book, out: str, needed: str, words: str):
    with pytest.raises(Refused, match=words):
        oven(book, out, needed)
    assert book.bench("race_on").base.warms[0].out is None


@given(st.integers(60, 200), st.integers(30, 55), st.integers(2, 40))
def test_cooling_by_small_steps(out: int, needed: int, wall: int):
    """The law against Euler's method in steps of a thousandth."""
    given_ = {
        "temperature_out": {"value": out, "unit": "°C"},
        "temperature_needed": {"value": needed, "unit": "°C"},
        "wall": {"value": wall, "unit": "mm"},
    }
    left = compute("heat_left", given_)["time_left"]["value"]
    tau, steps, at = 7850 * 490 * wall / 2000 / 20, 2000, float(out)
    for _ in range(steps):
        at += -(at - 20) / tau * (left / steps)
    assert at == pytest.approx(needed, rel=0.01)
