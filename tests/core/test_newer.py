"""What newer sheets say to a build that keeps its own plan."""

import pytest

from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.newer import news_of
from tests.support import SMALL, Book, small_sheet, tools

CHANGES = [
    (
        'after = [{ step = "bore", because = "the head closes it", kind = "access closes" }]',
        'after = [{ step = "bore", because = "the head closes it", kind = "access closes" }, '
        '{ step = "ring", because = "a ring left out is found too late", kind = "safety" }]',
        "Head bolts: waits for Ring, because a ring left out is found too late",
        True,
    ),
    (
        'title = "Lead on"\ndo = "On."',
        'title = "Lead on"\ndo = "On."\ncaution = { text = "A spark.", why = "Gas lies low." }',
        "Lead on: take care: A spark. Gas lies low.",
        True,
    ),
    (
        'title = "Lead on"\ndo = "On."',
        'title = "Lead on"\ndo = "On, clean and tight."',
        "Lead on: now says: On, clean and tight.",
        False,
    ),
    (
        'coolant = true\nblocks = "fire"',
        'coolant = true\nblocks = "crank"',
        "Coolant: keeps crank shut until it is done",
        False,
    ),
    (
        'bag = [{ count = 6, size = "M10", length = "90" }]',
        'bag = [{ count = 6, size = "M10", length = "95" }]',
        "Head bolts out: other than before: its fasteners",
        False,
    ),
    (
        'hi = "0.070"',
        'hi = "0.060"',
        "Clearance: 0.030 to 0.060 mm (book p. 1), here 0.030 to 0.070 mm",
        False,
    ),
    (
        '{ torque = "50 Nm" }',
        '{ torque = "55 Nm" }',
        "Head bolts: 25 Nm, 55 Nm, 90 deg, here 25 Nm, 50 Nm, 90 deg",
        False,
    ),
    (
        "columns = 3 }",
        "columns = 4 }",
        "Head bolts: 8 bolts, here 6",
        False,
    ),
    (
        '[[step]]\nid = "again"',
        '[[step]]\nid = "wheel"\nstage = "settle"\nkind = "check"\ntitle = "Wheel nuts"\n'
        'do = "Again after 50 km."\n\n[[step]]\nid = "again"',
        "New step: Wheel nuts. Again after 50 km.",
        False,
    ),
    (
        '[[step]]\nid = "again"\nstage = "settle"\nkind = "check"\ntitle = "Again"\n'
        'do = "Look again."\n',
        "",
        "Again: no longer in the sheet",
        False,
    ),
]


def plan_of(text: str = SMALL):
    """A plan made from the sheet."""
    return combine_sheets([small_sheet(text)])


@pytest.mark.parametrize(("old", "new", "words", "safety"), CHANGES)
def test_each_change_is_told(old, new, words, safety):
    """One line for each, and which of them can hurt."""
    assert old in SMALL
    made = plan_of()
    found = news_of(made, made, plan_of(SMALL.replace(old, new, 1)))
    assert [(news.words, news.safety) for news in found] == [(words, safety)]


@pytest.mark.parametrize(("old", "new", "words", "safety"), CHANGES)
def test_what_the_build_has_already_is_no_news(old, new, words, safety):
    """Put in by hand meanwhile, in the same way: nothing is said of it."""
    now = plan_of(SMALL.replace(old, new, 1))
    assert news_of(plan_of(), now, now) == ()


def test_nothing_new():
    """The same sheet, and a build that changed its plan itself: no news."""
    book = Book(small_sheet(), tools())
    book.plan("limit", limit="clearance", version=1, lo="0.02", hi="0.05", source="newer book")
    book.plan("hidden", step="head_in", thing="a bolt under the bracket")
    assert news_of(plan_of(), book.state.whole, plan_of()) == ()


def test_what_can_hurt_comes_first():
    """Whatever the order of the steps."""
    text = SMALL
    for old, new, _, _ in (CHANGES[2], CHANGES[0]):
        text = text.replace(old, new, 1)
    made = plan_of()
    assert [news.safety for news in news_of(made, made, plan_of(text))] == [True, False]


def test_a_step_of_the_build_keeps_its_number():
    """The line names the step as this build numbers it."""
    made = plan_of()
    old, new, _, _ = CHANGES[0]
    (news,) = news_of(made, made, plan_of(SMALL.replace(old, new, 1)))
    assert (news.step, news.number) == ("head_in", made.find_step("head_in").number)
