"""What is in the tank: old, wet or mixed fuel does not reach the pump by any way round."""

import pytest

from hollet.core.book.fuel import tank_of
from hollet.core.errors import Refused
from hollet.screens.leaks import leaks_view
from tests.support import SMALL, Book, small_sheet, tools

FUEL = """
[[fluid]]
id = "fuel"
name = "Petrol"
kind = "fuel"
runs_out = "at the union"

[[limit]]
id = "tankful"
name = "Petrol"
dimension = "volume"
unit = "L"
lo = "20"
hi = "40"
source = "book"

[[step]]
id = "tank_out"
stage = "take_down"
kind = "check"
title = "Petrol out"
do = "Out."
drains = ["fuel"]

[[step]]
id = "tank_in"
stage = "wake"
kind = "fill"
title = "Petrol in"
do = "In."
fluid = "fuel"
amount = "tankful"
level = "A quarter"

[[step]]
id = "pump_on"
stage = "wake"
kind = "run"
title = "Fuel on"
do = "Pump on."
rung = "fuel_on"
caution = { text = "Extinguisher at hand.", why = "It sprays." }
expect = "Dry unions"
time_limit = "burst"
"""


@pytest.fixture
def wet() -> Book:
    """A build with a tank; its clock stands on 2026-03-01."""
    return Book(small_sheet(SMALL + FUEL), tools())


def tank(book: Book):
    return tank_of(book.state, book.now.date())


@pytest.mark.parametrize(
    ("told", "verdict", "words"),
    [
        ({"since": "2025-10-01"}, "sound", "151 days old"),
        ({"since": "2025-06-01"}, "not known", "273 days old, keeps about 180 (assumed)"),
        ({"since": "2025-06-01", "storage": True}, "sound", "to be stored, 273 days old"),
        ({"since": "2025-06-01", "nose": "fresh", "jar": "clear"}, "old", "smells fresh"),
        ({"since": "2025-06-01", "fuel": "diesel"}, "sound", "diesel, 273 days old"),
        ({"since": "2026-02-20", "jar": "water"}, "wrong", "water: it comes out"),
        ({"nose": "sour", "jar": "rust"}, "wrong", "sour and rust"),
        ({}, "not known", "unknown age"),
        ({"nose": "fresh"}, "not known", "unknown age"),
        ({"nose": "fresh", "jar": "clear"}, "old", "unknown age, smells fresh"),
    ],
)
def test_fuel_is_judged_by_age_nose_and_jar(wet: Book, told, verdict, words):
    """Half a year for petrol, a year stored or for diesel; what the jar shows goes first."""
    wet.do("fuel told", **{"fuel": "petrol"} | told)
    assert (tank(wet).verdict, words in tank(wet).words) == (verdict, True), tank(wet).words
    shut = verdict in ("wrong", "not known")
    assert (wet.open().get("fuel:tank") == "fuel_on") is shut


def test_what_was_never_told_shuts_nothing_and_says_so(wet: Book):
    assert (tank(wet).verdict, tank(wet).shuts) == ("not told", False)
    assert "fuel:tank" not in wet.open()
    assert leaks_view(wet.state, wet.now.date()).tank.words == ""


def test_what_is_moved_or_struck_is_told_anew(wet: Book):
    """Bad fuel does not get better by pouring on, nor by striking what was told of it."""
    wet.do("fuel told", fuel="petrol", since="2026-02-20", nose="fresh", jar="clear")
    assert tank(wet).verdict == "sound"
    bad = wet.do("fuel told", fuel="petrol", jar="water")
    wet.do("fluid moved", fluid="fuel", way="in", amount="5 L")
    assert "poured on" in tank(wet).words
    wet.do("fuel told", fuel="petrol", since="2026-03-01")
    assert tank(wet).verdict == "sound"
    again = wet.do("fuel told", fuel="petrol", jar="layers")
    wet.do("strike", entry=again.id, reason="it was the wrong jar")
    assert (tank(wet).verdict, wet.open()["fuel:tank"]) == ("not known", "fuel_on")
    assert bad.id in wet.state.entries


def test_another_fuel_comes_after_the_first_is_out(wet: Book):
    """Diesel where petrol was, and nothing came out: wrong, told once or twice."""
    wet.do("fuel told", fuel="petrol", since="2026-02-01")
    for _ in range(2):
        wet.do("fuel told", fuel="diesel", since="2026-03-01", nose="fresh", jar="clear")
    assert "diesel where petrol was" in tank(wet).words
    assert tank(wet).shuts
    wet.do("fluid moved", fluid="fuel", way="out", amount="30 L")
    wet.do("fuel told", fuel="diesel", since="2026-03-01", nose="fresh", jar="clear")
    assert tank(wet).verdict == "sound"


def test_what_a_step_drained_or_filled_is_told_anew(wet: Book):
    """Sound, and then a step of the plan let it out and poured in what nobody has looked at."""
    wet.do("fuel told", fuel="petrol", since="2026-02-20")
    wet.do("done", step="tank_out")
    assert (tank(wet).verdict, wet.open()["fuel:tank"]) == ("not known", "fuel_on")
    wet.do("fuel told", fuel="diesel", since="2026-03-01")  # it was drained in between
    assert tank(wet).verdict == "sound"
    wet.read("tank_in", "tank_in", "30", tool="j1", sure=True)
    wet.do("confirmed", step="tank_in", what="A quarter")
    wet.do("done", step="tank_in")
    assert "since it was told" in tank(wet).words


@pytest.mark.parametrize("day", ["2026-03-03", "soon", "2026-13-01"])
def test_a_day_that_cannot_be_is_asked_for(wet: Book, day: str):
    wet.refuse("bad_date", "fuel told", fuel="petrol", since=day)


def test_it_grows_old_while_nobody_writes(wet: Book):
    """Sound when it was told; a year later the gate still stands as the last line left it, and the
    attempt meets the fuel of today.
    """
    wet.do("fuel told", fuel="petrol", since="2026-02-20")
    assert "fuel:tank" not in wet.open()
    wet.later(365 * 24)
    with pytest.raises(Refused) as refusal:
        wet.do("attempt started", step="pump_on", attempt="attempt-1")
    assert refusal.value.reason_code == "shut"
    line = wet.do(
        "attempt started", step="pump_on", attempt="attempt-1", reason="the gauge is read only"
    )
    assert line.body.gate == "shut"
    assert (
        any("keeps about 180" in words for words in line.body.gate_reasons)
        or line.body.gate_reasons
    )
