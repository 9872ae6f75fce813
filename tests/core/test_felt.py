"""Tight without a figure: by hand, snug, loosened again, till a mark lines up, as stages of their
own.
"""

import pytest

from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.procedure.hunt import hunt_list
from tests.support import SMALL, Book, small_sheet, tools

FELT = SMALL.replace(
    'stage = [{ torque = "30 Nm" }]\nfastener = "6 x M8"\nfinal = "cinched"',
    'stage = [{ feel = "snug" }, { torque = "30 Nm" }, { feel = "loosened again" },'
    ' { till = "the paint marks line up" }]\ntolerance = "5 %"\nsource = "book p. 6"\n'
    'fastener = "6 x M8"',
)
STEP = "cover_on"


@pytest.fixture
def felt() -> Book:
    made = Book(small_sheet(FELT), tools())
    made.do("decision", step=STEP, about="wrench", wrench="w1")
    return made


def round_of(book: Book) -> None:
    """One press a bolt."""
    for bolt in range(1, 7):
        book.do("fastener", step=STEP, bolt=bolt, act="clicked")


def test_each_stage_is_led_and_the_last_is_final(felt: Book):
    """Snug, 30, loose again, to the mark: one press a bolt each, and final only then."""
    assert felt.bench(STEP).primary == "Now snug"
    assert felt.bench(STEP).setting.refusal is None
    line = felt.do("fastener", step=STEP, bolt=1, act="clicked")
    assert (line.body.act, line.body.stage, line.body.tightness) == ("state", 1, "snug")
    assert line.body.line("") == "bolt 1, stage 1: snug"
    for bolt in range(2, 7):
        felt.do("fastener", step=STEP, bolt=bolt, act="clicked")
    round_of(felt)
    assert felt.bench(STEP).primary == "Now loosened again"
    assert felt.bench(STEP).setting.figure == "loosened again"
    round_of(felt)
    facts = felt.joint("cover")
    assert (facts.next_stage, facts.final) == (4, False)
    assert facts.bolts[0].tightness == "loosened again"
    assert felt.bench(STEP).primary == "It is so"
    round_of(felt)
    assert felt.joint("cover").final


def test_a_figure_is_no_answer_where_none_is_asked(felt: Book):
    felt.refuse("no_figure", "fastener", step=STEP, bolt=1, act="read", typed="30")
    felt.refuse("no_figure", "fastener", step=STEP, bolt=1, act="clicked", typed="30")


def test_noise_and_wrench_do_not_matter_where_nothing_clicks(felt: Book):
    felt.do("surroundings", around=("noise",))
    assert felt.do("fastener", step=STEP, bolt=1, act="clicked").body.wrench is None


def test_what_is_felt_is_not_hunted_and_what_is_not_given_is(felt: Book):
    def hunted(book: Book) -> list[str]:
        found = hunt_list(book.state.selection, set(), {}, set())
        return [item.name for item in found if "Cover" in item.name]

    assert hunted(felt) == []
    bare = Book(small_sheet(FELT.replace('{ torque = "30 Nm" }', "{}")), tools())
    assert len(hunted(bare)) == 1


def test_the_limit_book_takes_a_state_as_a_figure(felt: Book):
    said = ["by hand", "snug", "Cinched", "till the notch is at the pin"]
    felt.plan("joint", joint="cover", version=1, stage=said, source="the old hand")
    stages = plan_of(felt.state).find_joint("cover").stage
    assert [s.asked() for s in stages] == [
        "by hand",
        "snug",
        "cinched",
        "till the notch is at the pin",
    ]
    with pytest.raises(Refused):
        felt.plan("joint", joint="cover", version=2, stage=["rather tight", "", "", ""], source="x")


def test_one_stage_asks_for_one_thing():
    with pytest.raises(Refused) as refusal:
        small_sheet(FELT.replace('{ feel = "snug" }', '{ feel = "snug", torque = "9 Nm" }'))
    assert "one of torque, angle, stretch, turning, feel, till" in refusal.value.message


def test_a_joint_that_is_final_without_a_figure_is_led_without_one():
    """`final = "snug"` and no stage given: it is not hunted, nothing asks for a wrench."""
    text = SMALL.replace(
        'stage = [{ torque = "30 Nm" }]\nfastener = "6 x M8"\nfinal = "cinched"',
        'stage = [{}]\nfastener = "6 x M8"\nfinal = "snug"',
    )
    book = Book(small_sheet(text), tools())
    assert book.bench(STEP).primary == "Now snug"
    assert book.bench(STEP).setting.refusal is None
    round_of(book)
    assert book.joint("cover").final


def test_what_was_felt_is_not_final_once_a_figure_is_asked(felt: Book):
    """Six bolts snug, loose, to the mark: then the book gives 30 N·m for the last stage. It said
    *final* for all of them, and nobody had ever pulled one to it.
    """
    for _ in range(4):
        round_of(felt)
    assert felt.joint("cover").final
    said = ["snug", "30 Nm", "loosened again", "30 Nm"]
    felt.plan("joint", joint="cover", version=1, stage=said, source="book p. 8")
    facts = felt.joint("cover")
    assert (facts.final, facts.next_stage, facts.next_bolt) == (False, 4, 1)
    round_of(felt)
    assert felt.joint("cover").final


def test_one_stage_alone_felt_is_led_from_its_beginning():
    text = SMALL.replace(
        'stage = [{ torque = "30 Nm" }]\nfastener = "6 x M8"\nfinal = "cinched"',
        'stage = [{ feel = "snug" }]\nfastener = "6 x M8"\nsource = "book p. 6"',
    )
    book = Book(small_sheet(text), tools())
    round_of(book)
    assert book.joint("cover").final
    book.plan("joint", joint="cover", version=1, stage=["30 Nm"], source="book p. 8")
    facts = book.joint("cover")
    assert (facts.final, facts.next_stage, facts.bolts[0].tightness) == (False, 1, "snug")
