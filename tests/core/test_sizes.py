"""Sizes of the vehicle in sums: asked for when nobody gave them, judged anew when they change, and
a verdict that stands on a guess says so.
"""

import pytest

from hollet.core.book.complete import lacking
from hollet.core.errors import Refused
from hollet.core.procedure.hunt import hunt_list
from hollet.core.procedure.plan import select
from hollet.core.steps.readings import expected_figure, expected_of
from tests.support import Book, small_sheet, tools

PLACES = ("top_across", "mid_across", "low_across", "top_along", "mid_along", "low_along")
WORN = ("84.062", "84.035", "84.012", "84.041", "84.024", "84.009")
"""The worn bore of the reference: out of round 0.021, taper 0.050, wear over 84 is 0.062."""
READINGS = "\n".join(
    f'  {{ id = "{place}", name = "{place}", tool = "bore gauge", size = "bore" }},'
    for place in PLACES
)


def result(name: str, limit: str, gives: str) -> str:
    """A result of the whole map."""
    across, along = (
        ", ".join(f'"{place}"' for place in PLACES if place.endswith(way))
        for way in ("across", "along")
    )
    return (
        f'  {{ id = "{name}", name = "{name}", limit = "{limit}", calc = "bore_map", '
        f'gives = "{gives}", takes = [{{ field = "thrust", of = [{across}] }}, '
        f'{{ field = "axial", of = [{along}] }}, {{ field = "nominal", size = "bore" }}] }},'
    )


SHEET = f"""
[sheet]
id = "bores"
title = "Bores"
about = "One bore of a vehicle that nobody has named."
any_vehicle = true

[[limit]]
id = "bore"
name = "Bore, size"
dimension = "length"
unit = "mm"

[[limit]]
id = "worn"
name = "Bore wear"
dimension = "length"
unit = "mm"
hi = "0.080"
source = "book p. 7"

[[limit]]
id = "taper"
name = "Bore taper"
dimension = "length"
unit = "mm"
hi = "0.030"

[[step]]
id = "figures"
stage = "plan"
kind = "check"
title = "Figures"
do = "Find them."

[[step]]
id = "map"
stage = "inspect"
kind = "measure"
title = "Bore mapped"
do = "Three depths, two axes."
reading = [
{READINGS}
]
result = [
{result("wear", "worn", "max_wear")}
{result("cone", "taper", "taper")}
]
"""


@pytest.fixture
def book() -> Book:
    """A bore mapped with a gauge, and nobody has said how large it was new."""
    made = Book(small_sheet(SHEET), tools())
    for place, typed in zip(PLACES, WORN, strict=True):
        made.read("map", place, typed, tool="b1", sure=True)
    return made


def size(book: Book, version: int = 1, **said: str) -> None:
    """The size of the bore goes into the limit book."""
    book.plan("limit", limit="bore", version=version, **said)


def wear(book: Book):
    """The wear over nominal as it stands."""
    return next(r for r in book.bench("map").results if r.id == "wear")


def test_a_size_that_nobody_gave_is_asked_for(book: Book):
    """No verdict, one sentence with the figure that is missing, and the step waits for it."""
    found = wear(book)
    assert found.judgement.verdict == "not_read"
    assert found.refusal == "Bore, size is not given: say it in the limit book"
    step = book.state.plan.find_step("map")
    assert "Bore, size is not given" in str(
        lacking(book.state, step, tuple(book.shop.values()), book.time)
    )
    assert expected_of(book.state.plan, step.readings()[0]) is None
    assert expected_figure(book.state.plan, step.readings()[0]) == 0


def test_it_is_hunted_with_its_step(book: Book):
    """What the sum needs stands in the list of what is to be found, before anything is measured."""
    items = {
        item.name: item.state for item in hunt_list(select(book.state.whole), set(), {}, set())
    }
    assert items["Bore, size"] == "not given"


def test_inside_of_a_guess_is_a_guess(book: Book):
    """84 without a source: the limit of the wear has one, its verdict is assumed all the same; the
    source takes that away, and its working names both.
    """
    size(book, target="84.000")
    found = wear(book)
    assert (found.judgement.verdict, found.judgement.assumed) == ("inside", True)
    assert found.judgement.value == pytest.approx(0.062)
    assert found.judgement.working[0] == "Bore, size: 84.000 mm (assumed)"
    size(book, version=2, target="84.000", source="book", page="4")
    found = wear(book)
    assert (found.judgement.verdict, found.judgement.assumed) == ("inside", False)
    assert found.judgement.working[0] == "Bore, size: 84.000 mm (book p. 4)"


def test_another_size_judges_anew(book: Book):
    """An oversize of 0.25 fitted before: what was inside at 84 is hardly possible at 84.25, and at
    83.95 it is outside, 0.112 where 0.080 is allowed.
    """
    size(book, target="84.000", source="book")
    assert wear(book).judgement.verdict == "inside"
    size(book, version=2, target="83.950", source="piston crown")
    found = wear(book)
    assert (found.judgement.verdict, found.judgement.side) == ("outside", "high")
    assert found.judgement.value == pytest.approx(0.112)


def test_a_size_counts_with_no_doubt_of_its_own(book: Book):
    """U comes from the gauge alone: the same with either size."""
    size(book, target="84.000", source="book")
    first = wear(book).judgement.U
    size(book, version=2, target="83.990", source="book, errata")
    assert pytest.approx(first) == wear(book).judgement.U
    assert first > 0


def test_two_sources_leave_no_size(book: Book):
    """While they disagree nothing is judged by it; taken one, it is."""
    size(book, target="84.000", source="book")
    book.plan("answer", limit="bore", version=2, target="84.250", source="plate on the block")
    assert wear(book).refusal == "Bore, size differs between its sources: say it in the limit book"
    now = book.state.plan.find_limit("bore")
    book.plan("settle", limit="bore", version=now.version, take=0)
    assert wear(book).judgement.verdict == "inside"


def test_a_size_of_another_engine_is_asked(book: Book):
    """76 typed for 84: every reading lies more than a twentieth off, and no verdict is made."""
    size(book, target="76.000", source="book")
    found = wear(book)
    assert found.judgement.verdict == "not_read"
    assert "wrong unit or a typing slip" in str(found.refusal)


def test_in_the_other_unit(book: Book):
    """Inches typed into a size in mm are turned, never taken for 3.3 mm."""
    size(book, target="3.3071 in", source="book")
    assert wear(book).judgement.value == pytest.approx(84.062 - 3.3071 * 25.4, abs=0.001)


@pytest.mark.parametrize("typed", ["3.3071 in", "84,000.5", "83.99 to 84.01", "84 bar", "about 84"])
def test_what_another_source_says_is_turned_or_refused(book: Book, typed: str):
    """As an answer beside the first: inches are turned, what is no one length is refused with its
    field, and nothing is kept of it.
    """
    size(book, target="84.000", source="book")
    if typed.endswith("in"):
        book.plan("answer", limit="bore", version=2, target=typed, source="American book")
        said = book.state.plan.find_limit("bore").answers[1]
        assert float(said.target) == pytest.approx(3.3071 * 25.4)
        return
    with pytest.raises(Refused) as refusal:
        book.plan("answer", limit="bore", version=2, target=typed, source="another")
    assert refusal.value.field == "target"
    assert book.state.plan.find_limit("bore").answers == ()


@pytest.mark.parametrize(
    ("figures", "field", "words"),
    [
        ({"lo": "1", "hi": "0.9"}, "lo", "above the upper limit"),
        ({"lo": "0.05", "hi": "1 thou"}, "lo", "above the upper limit"),
        ({"hi": "0.06 ± 0.01"}, "hi", "must be one figure"),
        ({"hi": "1/0"}, "hi", "below the line"),
        ({"target": "5 kg"}, "target", "kg"),
    ],
)
def test_a_limit_that_is_none_is_refused(
    book: Book, figures: dict[str, str], field: str, words: str
):
    """Reversed, also across units; a tolerance for a bound; a mass for a length."""
    with pytest.raises(Refused) as refusal:
        book.plan("limit", limit="worn", version=1, source="newer", **figures)
    assert (refusal.value.field, words in refusal.value.message) == (field, True)
    assert book.state.plan.find_limit("worn").hi == "0.080"


def test_the_same_figure_in_another_unit_needs_no_new_source(book: Book):
    """0.080 mm and 80 um are one figure: nothing has changed that a source must answer for."""
    before = book.state.plan.find_limit("worn")
    book.plan("limit", limit="worn", version=1, hi="0.080 mm", source="book p. 7")
    after = book.state.plan.find_limit("worn")
    assert after.figure("hi") == before.figure("hi") == pytest.approx(0.08)


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        ('hi = "0.080"', 'hi = "3 thou"', "at most 0.0762 mm"),
        ('hi = "0.080"', 'hi = "0,08"', "at most 0.08 mm"),
        ('hi = "0.080"', 'hi = "0.07 to 0.08"', "must be one figure"),
        ('hi = "0.080"', 'hi = "0.080"\nlo = "0.1"', "above the upper limit"),
    ],
)
def test_a_sheet_says_it_in_any_unit(old: str, new: str, says: str):
    """Turned where the sheet is read, so that every copy holds the same; a mistake is refused."""
    if says.startswith("at most"):
        assert small_sheet(SHEET.replace(old, new)).find_limit("worn").words() == says
        return
    with pytest.raises(Refused, match=says) as refusal:
        small_sheet(SHEET.replace(old, new))
    assert refusal.value.message.startswith("line ")


def test_what_is_read_is_expected_about_the_size(book: Book):
    """Once it is given, it is what the gauge is asked about: 8.4062 is a slip."""
    size(book, target="84.000", source="book")
    step = book.state.plan.find_step("map")
    assert expected_of(book.state.plan, step.readings()[0]) == "84.000 mm"
    assert expected_figure(book.state.plan, step.readings()[0]) == pytest.approx(84)
    with pytest.raises(Refused):
        book.read("map", "top_across", "8.4062", tool="b1")


def test_the_middle_of_a_range_is_expected_and_never_a_size(book: Book):
    """From 83.99 to 84.01 one knows about what to read; a sum wants the figure itself."""
    size(book, lo="83.990", hi="84.010", source="book")
    step = book.state.plan.find_step("map")
    assert expected_of(book.state.plan, step.readings()[0]) == "84 mm"
    assert wear(book).refusal == "Bore, size is not given: say it in the limit book"


@pytest.mark.parametrize(
    ("typed", "kept"),
    [("٣", "3"), ("-0", "0"), ("0.000", "0"), ("½ mm", "0.5"), ("−5 mm", "-5"), ("0.05 m", "50")],
)
def test_figures_are_kept_in_plain_digits(book: Book, typed: str, kept: str):
    """Other digits, a minus of print, a fraction, a zero with a sign: one plain decimal each."""
    book.plan("limit", limit="bore", version=1, target=typed, source="book")
    assert book.state.plan.find_limit("bore").target == kept
