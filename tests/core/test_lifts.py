"""A lift said: everything that stands against it holds the step, and nothing is ever conceded."""

import pytest

from hollet.core.book.complete import obstacles
from hollet.core.book.ready import ready_to_lift
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.steps.lifting import UNSAID, lift_of
from tests.core.test_passing import press, reach, shelf
from tests.support import TAKE, Book, small_sheet, tools

STEP = "shaft_off"
HOOK = {"name": "hook", "limit": "800 kg", "where": "top"}
EYES = {"name": "eyes", "limit": "400 kg", "left": 0.7, "why": "slant pull", "where": "leg"}
SLING = {"name": "sling S2", "limit": "500 kg", "left": 0.8, "why": "choked", "where": "leg"}


GEAR = TAKE.replace("by_hand = true\n", "")


@pytest.fixture
def book() -> Book:
    return Book(small_sheet(GEAR), tools())


def say(book: Book, **own) -> None:
    said = {
        "step": STEP,
        "what": "engine",
        "mass": "171 to 196 kg",
        "mass_from": "estimate",
        "legs": 2,
        "leg": "600 mm",
        "apart": "480 mm",
        "elements": (HOOK, EYES, SLING),
    }
    book.do("lift said", **{**said, **own})


def facts(book: Book):
    return lift_of(book.state, plan_of(book.state).find_step(STEP), book.time)


def held(book: Book) -> list[str]:
    step = plan_of(book.state).find_step(STEP)
    found = obstacles(book.state, step, tuple(book.shop.values()), book.time)
    return [o.words for o in found if o.code == "lifting" and o.by == "nothing"]


def test_weakest_first_with_the_heavy_end_and_the_jerk(book: Book):
    """acos(480/1200) = 66.4°; 196 × 1.25 ÷ (2 sin 66.4°) = 133.7 kg a leg; eyes 280: 47.7 %."""
    say(book)
    lift = facts(book)
    assert (lift.stops, lift.angle, lift.leg_load) == ((), 66.4, "134 kg")
    assert [(r.name, r.load) for r in lift.rows] == [
        ("eyes", "134 of 280 kg"),
        ("sling S2", "134 of 400 kg"),
        ("hook", "245 of 800 kg"),
    ]
    assert lift.rows[0].share == pytest.approx(133.66 / 280, abs=1e-3)
    assert lift.title == "Nothing said against this lift: weakest 48 % used"
    assert "heavy end of 171 to 196" in lift.about
    assert held(book) == []


@pytest.mark.parametrize(
    ("own", "words"),
    [
        ({"leg": "270 mm"}, "below 30° to the horizontal"),
        ({"leg": "", "apart": ""}, "the angle of the legs is not known"),
        ({"leg": "200 mm"}, "do not reach over the eyes"),
        ({"angle": "25 deg"}, "below 30° to the horizontal"),
        ({"elements": ({"name": "ring", "where": "top"},)}, "ring: no marked limit, no lift"),
        ({"elements": ({**SLING, "found": "a cut"},)}, "a cut: it lifts nothing"),
        (
            {"elements": ({**SLING, "inspected_until": "2026-02-28"},)},
            "its inspection ended on 2026-02-28: it lifts nothing",
        ),
        ({"elements": ({**SLING, "limit": "120 kg"},)}, "more than it may carry"),
        ({"elements": ()}, "name every element"),
        ({"hook": "2400 mm", "reach": "2310 mm"}, "90 mm too low"),
        ({"legs": 1, "angle": "80 deg"}, "one leg hangs straight down"),
    ],
)
def test_what_stands_against_it_holds_the_step(book: Book, own, words):
    """Told, drawn, first in the title; no reason and no concession passes it."""
    say(book, **own)
    assert any(words in stop for stop in facts(book).stops)
    assert facts(book).title.startswith("No lift: ")
    assert any(words in line for line in held(book))
    with pytest.raises(Refused):
        book.do("done", step=STEP, reason="it will hold, we did it before")
    say(book)
    assert held(book) == []


def test_what_hangs_holds_every_lift_of_its_stage(book: Book):
    """The step at which it was said is passed over; the next that lifts is held all the same."""
    say(book, leg="270 mm")
    other = plan_of(book.state).find_step(STEP).model_copy(update={"id": "next_lift"})
    assert lift_of(book.state, other, book.time).stops == facts(book).stops
    assert facts(book).leg_load == "268 kg"  # what it would be, drawn and never allowed
    elsewhere = other.model_copy(update={"stage": "wake"})
    assert lift_of(book.state, elsewhere, book.time) is None


def test_how_it_hangs_is_known_for_half_a_day(book: Book):
    say(book)
    book.later(11.9)
    assert facts(book).stops == ()
    book.later(0.2)
    assert "12 hours" in facts(book).stops[0]
    assert held(book)


def test_the_newest_word_counts_and_struck_it_counts_no_more(book: Book):
    say(book)
    say(book, leg="270 mm")
    line = book.state.order[-1]
    book.do("strike", entry=line, reason="measured the wrong sling")
    assert facts(book).stops == ()


@pytest.mark.parametrize(
    ("own", "code"),
    [
        ({"mass": ""}, "bad_number"),
        ({"mass": "0 kg"}, "mass_not_positive"),
        ({"mass": "1 to 2 to 3 kg"}, "bad_number"),
        ({"mass": "196 to 171 kg"}, "mass_not_positive"),
        ({"leg": "-3 mm"}, "bad_number"),
        ({"elements": ({**EYES, "why": ""},)}, "no_words"),
        ({"step": "cover_off"}, "bad_entry"),
    ],
)
def test_what_cannot_be_said(book: Book, own, code):
    head = book.state.head
    with pytest.raises(Refused) as refusal:
        say(book, **own)
    assert refusal.value.reason_code == code
    assert book.state.head == head


@pytest.mark.parametrize("mass", ["190 kg", "190", "418.9 lb", "180 kg to 190 kg", "180 – 190 kg"])
def test_a_mass_as_it_is_written(book: Book, mass: str):
    say(book, mass=mass)
    assert facts(book).about.startswith(("190 kg", "191 kg"))


def test_nothing_is_lifted_that_nobody_said_how_it_hangs(book: Book):
    """By gear it is held, whatever is left out; by hands alone it is not."""
    assert held(book) == [f"not ready to lift: {UNSAID}"]
    with pytest.raises(Refused):
        book.do("done", step=STEP, reason="we have always done it so")
    say(book)
    assert held(book) == []
    assert held(Book(small_sheet(TAKE), tools())) == []


UNITS = """
[[step]]
id = "unit_up"
stage = "take_down"
kind = "check"
title = "Unit up"
do = "Up."
lifts = true
carries = [{ body = "engine", by = "hook" }]
caution = { text = "Nobody under it.", why = "It swings." }

[[step]]
id = "whole_up"
stage = "take_down"
kind = "check"
title = "Whole unit up"
do = "Up."
lifts = true
carries = [{ body = "powertrain", by = "hook" }]
caution = { text = "Nobody under it.", why = "It swings." }

[[step]]
id = "box_up"
stage = "take_down"
kind = "check"
title = "Box up"
do = "Up."
lifts = true
carries = [{ body = "gearbox", by = "jack" }]
caution = { text = "Nobody under it.", why = "It tips." }
"""


def test_what_was_said_of_one_unit_says_nothing_of_another():
    """The gearbox on its jack says nothing of the engine; the engine hangs on as the whole unit."""
    book = Book(small_sheet(GEAR + UNITS), tools())
    book.hung("box_up", mass="46 kg")
    plan = plan_of(book.state)
    assert lift_of(book.state, plan.find_step("unit_up"), book.time) is None
    book.hung("unit_up")
    assert lift_of(book.state, plan.find_step("whole_up"), book.time).what == "unit, 142 kg"
    assert lift_of(book.state, plan.find_step("box_up"), book.time).what == "unit, 46 kg"


@pytest.mark.parametrize("mass", ["14.2", "142 g", "110 kg"])
def test_a_mass_far_below_what_was_planned_is_asked(mass):
    """142 kg were said where the gear was planned: a slip of the comma hangs nothing by itself."""
    book = shelf("powertrain-up")
    book.do("said", step="weight_known", figure="unit_weight", typed="142 kg")
    lift = {"step": "engine_up", "mass": mass}
    with pytest.raises(Refused, match="was said to be 142 kg: is it so"):
        book.hung(**lift)
    book.hung(**lift, sure=True)
    book.hung("engine_up", mass="138 kg")


def test_a_mark_that_no_gear_bears_is_asked(book: Book):
    elements = ({"name": "shackle", "limit": "32000 kg", "where": "leg"},)
    with pytest.raises(Refused, match="32000 kg is marked on it"):
        say(book, elements=elements)
    with pytest.raises(Refused, match="does it weigh no more than that"):
        say(book, mass="1.9 kg")


def test_ready_to_lift_is_computed():
    """Ties by their steps, what hangs and carries, people placed: what is not so comes first."""
    book = shelf("powertrain-up")
    step = plan_of(book.state).find_step("engine_up")

    def rows(group: str) -> dict[str, str]:
        found = ready_to_lift(book.state, step, book.time)
        return {row.what: row.state for row in found.rows if row.group == group}

    assert rows("parted")["starter and alternator leads"] == "not yet"
    assert rows("how it hangs") == {"nobody has said it": "not known"}
    assert set(rows("people").values()) == {"not yet"}
    before = ready_to_lift(book.state, step, book.time)
    assert before.title == f"Ready to lift: {before.open} of {len(before.rows)} not so"
    reach(book, "starter_off")
    press(book, "starter_off")
    book.absent("starter_off")
    book.hung("engine_up")
    assert rows("parted")["starter and alternator leads"] in ("so", "not there")
    assert rows("how it hangs") == {"unit, 142 kg": "so"}
    found = ready_to_lift(book.state, step, book.time)
    assert found.open < before.open
    assert [row.state in ("not yet", "not known") for row in found.rows[: found.open]] == [
        True
    ] * found.open


def test_what_hands_lift_has_no_list(book: Book):
    by_hand = Book(small_sheet(TAKE), tools())
    step = plan_of(by_hand.state).find_step(STEP)
    assert ready_to_lift(by_hand.state, step, by_hand.time) is None
    lead = plan_of(book.state).find_step("lead_off")
    assert ready_to_lift(book.state, lead, book.time) is None


def test_what_was_skipped_is_not_so():
    """A reason passes an order, and makes nothing so."""
    book = shelf("powertrain-up")
    step = plan_of(book.state).find_step("sling_on_again")
    book.do("skipped", step="ready_to_lift", reason="walked round it yesterday evening")
    row = next(r for r in ready_to_lift(book.state, step, book.time).rows if r.step)
    assert (row.state, row.why) == ("not yet", "passed over, not done")


def test_the_last_day_of_an_inspection_still_lifts(book: Book):
    """The book stands at 1 March 2026; a tag without a day is said so."""
    say(book, elements=({**SLING, "inspected_until": "2026-03-01"}, HOOK))
    assert facts(book).stops == ()
    how = {row.name: row.how for row in facts(book).rows}
    assert how["sling S2"].endswith("inspected until 2026-03-01")
    assert how["hook"].endswith("no inspection on its tag")
    book.later(24)
    say(book, elements=({**SLING, "inspected_until": "2026-03-01"}, HOOK))
    assert "its inspection ended on 2026-03-01" in facts(book).title


def test_a_tag_that_holds_for_years_is_asked_about(book: Book):
    """2036 for 2026 is one key."""
    far = ({**SLING, "inspected_until": "2036-05-01"}, HOOK)
    with pytest.raises(Refused, match="does its tag say 2036-05-01"):
        say(book, elements=far)
    say(book, elements=far, sure=True)
    assert facts(book).stops == ()
