"""Stages whose figure is read off the bolt: how much longer it got, at what torque it turns."""

import math

import pytest

from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import single_reading_U
from hollet.core.procedure.joints import TighteningStage, stage_range
from hollet.core.steps.bolt import act_verdict
from tests.support import SMALL, Book, small_sheet, tool, tools

JOINT = 'stage = [{ torque = "30 Nm" }]\nfastener = "6 x M8"\nfinal = "cinched"'
DRAWN = SMALL.replace(
    JOINT,
    'stage = [{ feel = "snug" }, { stretch = "0.160 mm" }]\nsource = "book p. 6"\n'
    'tolerance = "10 %"\nfastener = "6 x M8"',
)
TURNS = SMALL.replace(
    JOINT,
    'stage = [{ turning = "25 to 35 Nm" }]\nsource = "book p. 6"\nfastener = "6 x M8"',
)
STEP = "cover_on"


def book_of(text: str) -> Book:
    dial = tool("d1", "dial indicator", lo="0", hi="10", mpe="0.004", resolution="0.01", s="0.002")
    return Book(small_sheet(text), tools() | {"d1": dial})


@pytest.fixture
def drawn() -> Book:
    book = book_of(DRAWN)
    for bolt in range(1, 7):
        book.do("fastener", step=STEP, bolt=bolt, act="clicked")
    book.do("decision", step=STEP, about="wrench", wrench="m1")
    return book


def read(book: Book, bolt: int, typed: str, **more: object):
    return book.do("fastener", step=STEP, bolt=bolt, act="read", typed=typed, **more)


def verdict(book: Book, bolt: int) -> str:
    return book.joint("cover").bolts[bolt - 1].verdict


@pytest.mark.parametrize(
    ("now", "said"),
    [("80.160", "inside"), ("80.141", "too_close"), ("80.120", "outside"), ("80.190", "outside")],
)
def test_a_bolt_is_judged_by_how_much_longer_it_got(drawn: Book, now: str, said: str):
    """0.144 to 0.176 mm: 0.160 inside, 0.141 within the doubt of two lengths, 0.120 and 0.190
    out.
    """
    line = read(drawn, 1, now, free="80.000")
    assert float(line.body.gets.value) == pytest.approx(float(now) - 80)
    assert verdict(drawn, 1) == said


def test_two_lengths_are_less_sure_than_one(drawn: Book):
    line = read(drawn, 1, "80.160", free="80.000")
    joint = plan_of(drawn.state).find_joint("cover")
    judged = act_verdict(joint, line)
    one = single_reading_U(drawn.shop["m1"], drawn.shop["m1"].figure("s"))
    assert float(judged.U) == pytest.approx(one * math.sqrt(2), rel=1e-6)


def test_the_line_says_both_lengths(drawn: Book):
    line = read(drawn, 1, "80.160", free="80.000")
    told = "bolt 1, stage 2: longer by 0.16 mm, 80.000 free, 80.160 drawn"
    assert line.body.line("").startswith(told)


def test_a_length_is_not_enough_where_nobody_measured_the_free_bolt(drawn: Book):
    drawn.refuse("free_needed", "fastener", step=STEP, bolt=1, act="read", typed="80.160")
    shorter = {"typed": "79.990", "free": "80.000"}
    drawn.refuse("not_longer", "fastener", step=STEP, bolt=1, act="read", **shorter)
    drawn.refuse("figure_needed", "fastener", step=STEP, bolt=1, act="clicked")
    slipped = {"typed": "81.60", "free": "80.000"}
    drawn.refuse("odd_figure", "fastener", step=STEP, bolt=1, act="read", **slipped)


def test_a_dial_set_to_zero_on_the_free_bolt_gives_it_at_once(drawn: Book):
    drawn.do("decision", step=STEP, about="wrench", wrench="d1")
    assert not drawn.bench(STEP).before
    line = read(drawn, 1, "0.16")
    assert line.body.free is None
    assert verdict(drawn, 1) == "inside"


def test_a_wrench_measures_no_length(drawn: Book):
    drawn.refuse("wrench_unfit", "decision", step=STEP, about="wrench", wrench="w4")
    assert [w.code for w in drawn.bench(STEP).wrenches] == ["M1", "C1", "D1"]
    fresh = book_of(DRAWN)
    for bolt in range(1, 7):
        fresh.do("fastener", step=STEP, bolt=bolt, act="clicked")
    assert fresh.bench(STEP).setting.refusal.startswith("choose what it is read with")
    length = {"typed": "80.160", "free": "80.000"}
    fresh.refuse("wrench_unfit", "fastener", step=STEP, bolt=1, act="read", **length)


def test_one_drawn_too_far_comes_out_and_a_fresh_one_goes_in(drawn: Book):
    read(drawn, 1, "80.250", free="80.000")
    bolt = drawn.joint("cover").bolts[0]
    assert (bolt.over, bolt.todo, bolt.final) == (True, "out", False)
    drawn.refuse("over", "fastener", step=STEP, bolt=1, act="read", typed="80.1", stage=2)


def test_all_drawn_is_final_and_looked_at_by_its_marks(drawn: Book):
    for bolt in range(1, 7):
        read(drawn, bolt, "80.158", free="80.000")
    assert drawn.joint("cover").final
    assert drawn.joint("cover").last_bolt is None  # nothing that a wrench could check


def test_a_nut_that_keeps_turning_is_read_in_its_range():
    """25 to 35: the middle is asked, half of the range is allowed; ±4 % of 30 is 1.2."""
    book = book_of(TURNS)
    book.refuse("wrench_unfit", "decision", step=STEP, about="wrench", wrench="w1")
    book.do("decision", step=STEP, about="wrench", wrench="w4")
    bench = book.bench(STEP)
    assert (bench.setting.figure, bench.setting.unit) == ("25 to 35", "Nm")
    assert (bench.reads, bench.before) == (True, False)
    line = read(book, 1, "30")
    assert line.body.line("").startswith("bolt 1, stage 1: keeps turning at 30")
    assert (line.body.turning, line.body.tolerance_percent) == (True, pytest.approx(100 / 6))
    assert verdict(book, 1) == "inside"
    read(book, 2, "34.5")
    assert verdict(book, 2) == "too_close"
    assert not book.joint("cover").final


def test_a_torque_read_on_nobody_knows_what_is_no_torque():
    """A figure typed with no wrench in hand was judged as if it had no uncertainty."""
    book = book_of(SMALL.replace('\nfinal = "cinched"', ""))
    book.refuse("wrench_unfit", "fastener", step=STEP, bolt=1, act="read", typed="30")


def test_the_limit_book_takes_them_as_a_figure(drawn: Book):
    said = ["snug", "longer by 0.12 to 0.16 mm"]
    drawn.plan("joint", joint="cover", version=1, stage=said, source="book p. 7")
    stage = plan_of(drawn.state).find_joint("cover").stage[1]
    assert stage.asked() == "longer by 0.12 to 0.16 mm"
    assert [float(x) for x in stage_range(stage)] == pytest.approx([0.12, 0.14, 0.16])
    for wrong in ("longer by", "longer by nought", "turns at 20 mm", "longer by 0.2 to 0.1 mm"):
        with pytest.raises(Refused):
            drawn.plan("joint", joint="cover", version=2, stage=["snug", wrong], source="x")


@pytest.mark.parametrize("stage", [{"torque": "20 to 30 Nm"}, {"stretch": "0 mm"}])
def test_a_range_is_asked_only_of_what_is_read_off(stage: dict[str, str]):
    with pytest.raises(Refused):
        stage_range(TighteningStage.model_validate(stage))
