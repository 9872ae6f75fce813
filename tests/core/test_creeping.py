"""Measured again until it rests: heights that creep, that rest, that jump; and what the vehicle is
fit to meanwhile.
"""

import pytest

from hollet.core.book.fit_to import fit_to
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import Doubt
from hollet.core.steps.creeping import creeping
from hollet.screens.settle import settle_view
from tests.support import SMALL, Book, small_sheet, tool, tools

LIMITS = """
[[limit]]
id = "height"
name = "Height"
dimension = "length"
unit = "mm"
lo = "380"
hi = "420"
source = "book p. 9"

[[limit]]
id = "rest"
name = "Between two readings"
dimension = "length"
unit = "mm"
lo = "-1"
hi = "1"
source = "book p. 9"

[[step]]
id = "heights"
stage = "settle"
kind = "measure"
title = "Heights"
do = "Measure."
reading = [{ id = "h", name = "Rear left", tool = "rule", state = "standing" }]
result = [{ id = "h_r", name = "Rear left", limit = "height", reading = "h" }]

[[step]]
id = "again_h"
stage = "settle"
kind = "measure"
title = "Heights again"
do = "Measure."
reading = [{ id = "a", name = "Rear left, again", tool = "rule", first = "h", rests = "rest" }]
result = [{ id = "a_r", name = "Rear left, again", limit = "height", reading = "a" }]

"""
SHEET = SMALL.replace('[[step]]\nid = "again"', LIMITS + '[[step]]\nid = "again"')
STANDING = "standing"


@pytest.fixture
def three() -> Book:
    rule = tool("r1", "rule", lo="0", hi="1000", mpe="0.5", resolution="0.5", s="0.3")
    return Book(small_sheet(SHEET), tools() | {"r1": rule})


def read(book: Book, *row: tuple[float | None, str], state: str = STANDING) -> None:
    """Kilometres on the odometer, and the height then; a day apart."""
    for k, (km, height) in enumerate(row):
        if km is not None:
            book.do("odometer said", typed=f"{61000 + km:g}")
        first = k == 0 and not book.state.live("reading", "h")
        name, step = ("h", "heights") if first else ("a", "again_h")
        book.read(step, name, height, tool="r1", state=state)
        book.later(24)


def facts(book: Book):
    step = plan_of(book.state).find_step("again_h")
    (found,) = creeping(book.state, step)
    return found


@pytest.mark.parametrize(
    ("row", "word"),
    [
        ([(0, "412")], "not yet"),
        ([(0, "412"), (60, "407")], "creeps"),
        ([(0, "412"), (60, "407"), (210, "403"), (500, "400")], "creeps"),
        ([(0, "410"), (60, "407"), (210, "406"), (500, "406")], "rests"),
        ([(0, "410"), (60, "409.5")], "rests"),
        ([(0, "410"), (60, "410"), (210, "410"), (500, "403")], "jumped"),
        # rested, but over a shorter way than the step before
        ([(0, "410"), (200, "407"), (230, "407")], "not known"),
        # nobody read the odometer
        ([(0, "410"), (None, "409.5")], "not known"),
    ],
)
def test_a_height_creeps_until_a_step_is_within_its_limit(three: Book, row, word: str):
    """Reference 14 and 26: within 1 mm of the one before, and over a way no shorter."""
    read(three, *row)
    assert facts(three).word == word


def test_the_row_has_distance_days_and_the_last_step_in_words(three: Book):
    read(three, (0, "412"), (60, "407"), (210, "403"))
    found = facts(three)
    assert [(p.km - 61000, p.value) for p in found.points] == [(0, 412), (60, 407), (210, 403)]
    assert found.points[2].days == pytest.approx(2.0, abs=0.1)
    assert found.detail == "−4 in 150 km, rests within 1"
    assert (found.lo, found.hi, found.within, found.name) == (380, 420, 1, "Rear left")


def test_two_readings_in_one_sitting_are_one(three: Book):
    read(three, (0, "412"))
    three.do("odometer said", typed="61060")
    three.read("again_h", "a", "470", tool="r1", state=STANDING, sure=True)
    three.read("again_h", "a", "407", tool="r1", state=STANDING)
    assert [p.value for p in facts(three).points] == [412, 407]


def test_what_was_set_anew_has_not_rested_since(three: Book):
    """It rested; a spacer went in and the first was read anew: what was read before says nothing of
    the new height, in the row, the table and the title.
    """
    read(three, (0, "410"), (60, "407"), (210, "406"), (500, "406"))
    assert facts(three).word == "rests"
    three.read("heights", "h", "418", tool="r1", state=STANDING, sure=True)
    assert facts(three).word == "not yet"
    figure = next(f for f in settle_view(three.state, (), three.time).figures if f.id == "a")
    assert (figure.first, figure.now, figure.word) == ("418", "", "not read yet")
    assert settle_view(three.state, (), three.time).title == "Not measured again yet"


def test_another_state_is_not_compared(three: Book):
    read(three, (0, "412"))
    read(three, (60, "411.5"), state="on the lift")
    assert facts(three).word == "other state"
    figure = next(f for f in settle_view(three.state, (), three.time).figures if f.id == "a")
    assert (figure.word, figure.bar) == ("other state", None)


def test_the_step_is_not_done_while_it_creeps(three: Book):
    def creeps() -> list[str]:
        return [o.words for o in three.in_the_way("again_h") if o.code == "creeps"]

    assert creeps() == ["Rear left: not yet, there is no first reading to compare"]
    read(three, (0, "412"), (60, "407"))
    assert creeps() == ["Rear left: creeps, −5 in 60 km, rests within 1"]
    read(three, (500, "406.5"))
    assert creeps() == []


def test_a_reading_struck_is_out_of_the_row(three: Book):
    read(three, (0, "410"), (60, "409.5"))
    line = three.state.live("reading", "a")[-1]
    three.do("strike", entry=line.id, reason="it was the right side")
    assert facts(three).word == "not yet"


def test_a_rule_found_wrong_later_proves_no_rest(three: Book):
    """Its check says that it read wrong over these days: what rested is not known to rest."""
    read(three, (0, "410"), (60, "409.5"))
    assert facts(three).word == "rests"
    doubt = Doubt(since="2026-01-01T00:00:00Z", until=three.time, words="3 mm short")
    wrong = three.shop["r1"].model_copy(update={"doubts": (doubt,)})
    step = plan_of(three.state).find_step("again_h")
    (found,) = creeping(three.state, step, (wrong,))
    assert (found.word, found.detail) == (
        "not known",
        "tool in doubt: R1 was 3 mm short at its check",
    )
    assert fit_to(three.state, (wrong,), three.time)[-1].fit is False


def test_how_little_it_may_move_is_asked_where_nobody_says(three: Book):
    bare = SHEET.replace('lo = "-1"\nhi = "1"\n', "")
    book = Book(small_sheet(bare), three.shop)
    read(book, (0, "410"), (60, "409.5"))
    assert facts(book).detail == "how little it may still move is not given"


def test_what_comes_to_rest_names_its_first(three: Book):
    for wrong in ('rests = "rest"', 'first = "nowhere", rests = "rest"'):
        with pytest.raises(Refused):
            small_sheet(SHEET.replace('first = "h", rests = "rest"', wrong))


def test_the_table_has_first_and_now(three: Book):
    read(three, (0, "412"), (60, "407"))
    view = settle_view(three.state, tuple(three.shop.values()), three.time)
    (row,) = view.figures
    assert (row.first, row.now, row.word) == ("412", "407", "creeps")
    assert row.bar.verdict == "inside"
    assert view.title.startswith("Rear left creeps")


def test_fit_to_goes_up_step_by_step(three: Book):
    """Not on its wheels: nothing. On them: it rolls, no wheel is loose here; the rung shuts the
    rest.
    """
    cells = fit_to(three.state, tuple(three.shop.values()), three.time)
    assert [c.fit for c in cells] == [False] * 5
    assert cells[0].why == "it does not stand on its wheels"
    three.on_wheels()
    cells = fit_to(three.state, tuple(three.shop.values()), three.time)
    assert [c.fit for c in cells][:2] == [True, True]
    assert not cells[2].fit
    assert all(c.why == cells[2].why for c in cells[2:])


def cells(book: Book) -> dict[str, str]:
    return {c.id: c.why for c in fit_to(book.state, tuple(book.shop.values()), book.time)}


def test_nothing_is_towed_with_a_brake_that_leaks(three: Book):
    """It rolls; a wet brake union, seen in passing, and it is towed no more."""
    three.on_wheels()
    assert cells(three)["tow"] == ""
    three.do("leak seen", fluid="brake", name="Rear union", joint="flare", grade="damp")
    assert cells(three)["roll"] == ""
    assert cells(three)["tow"] == "Rear union: damp"


def test_nothing_is_towed_with_what_is_wrong_before_the_road(three: Book):
    """A safety figure outside shuts *drive*, and towing too."""
    text = SHEET.replace(
        'id = "height"\nname = "Height"', 'id = "height"\nname = "Height"\nsafety = "suspension"'
    )
    book = Book(small_sheet(text), three.shop)
    book.on_wheels()
    assert cells(book)["tow"] == ""
    book.read("heights", "h", "350", tool="r1", state=STANDING)
    assert cells(book)["tow"].startswith("Rear left 350")


def test_a_long_trip_waits_for_the_complaint(three: Book):
    three.on_wheels()
    three.absent(*(s.id for s in plan_of(three.state).step if s.id not in ("heights", "again_h")))
    read(three, (0, "410"), (60, "409.5"))
    for step in ("heights", "again_h"):
        three.do("done", step=step)
    before = cells(three)
    three.do("complaint said", complaint="complaint-1", words="hums somewhere")
    assert cells(three)["trip"] == (before["trip"] or "hums somewhere: the same trial: as it was")
