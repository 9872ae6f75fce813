"""A unit going in: moves are told after they were made, and shut until each watcher has spoken."""

import pytest

from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.steps.moving import moving_of
from tests.support import SMALL, Book, small_sheet, tools

SHEET = SMALL.replace(
    'id = "again"\nstage = "settle"',
    'id = "unit_in"\nstage = "fit_in"\nmoves = "engine"\n'
    'people = [{ role = "hoist", does = "moves" }, { role = "front", does = "watches the sump" }]',
)
STEP = "unit_in"


@pytest.fixture
def going() -> Book:
    """MK gives the word, JB watches the sump, RT the steering box; 118 down, 62 in, nose 4° low."""
    book = Book(small_sheet(SHEET), tools())
    watchers = [
        {"who": "MK", "point": "hook and chain"},
        {"who": "JB", "point": "sump and cross member"},
        {"who": "RT", "point": "steering box"},
    ]
    target = {"down": "118", "along": "62 mm", "nose": "4", "least": "5"}
    book.do("watch said", step=STEP, watchers=watchers, word="MK", **target)
    return book


def facts(book: Book):
    step = plan_of(book.state).find_step(STEP)
    return moving_of(book.state, step, book.time)


def voices(book: Book, *names: str) -> None:
    for name in names or ("MK", "JB", "RT"):
        book.do("clear said", step=STEP, watcher=name)


def move(book: Book, way: str, by: str = "", **own: object):
    return book.do("unit moved", step=STEP, way=way, by=by, **own)


def test_nothing_moves_before_each_watcher_has_looked(going: Book):
    assert facts(going).open == ()
    assert facts(going).shut == "shut till MK, JB, RT have spoken"
    voices(going, "MK", "JB")
    assert facts(going).shut == "shut till RT has spoken"
    going.refuse("moves_shut", "unit moved", step=STEP, way="down", by="10")
    voices(going, "RT")
    assert len(facts(going).open) == 8


def test_a_move_shuts_the_moves_and_back_is_never_shut(going: Book):
    voices(going)
    line = move(going, "down", "10")
    assert line.body.line("") == "down 10"
    found = facts(going)
    assert (found.title, found.back) == ("Last: down 10. Stopped, looking", "up")
    assert found.open == ("up",)
    assert found.next_voice == "MK"
    move(going, "up", "10")


def test_what_is_left_is_counted_from_the_moves(going: Book):
    voices(going)
    for way, by in (("down", "40"), ("in", "20"), ("up", "10"), ("nose down", "3")):
        move(going, way, by, sure=True)
        voices(going)
    left = {axis.way: (axis.left, axis.there) for axis in facts(going).to_go}
    assert left == {"down": (88, False), "in": (42, False), "nose down": (1, True)}


def test_a_move_without_an_amount_is_taken_and_the_axis_is_not_known_any_more(going: Book):
    voices(going)
    move(going, "down")
    axis = facts(going).to_go[0]
    assert (axis.way, axis.known, axis.there) == ("down", False, False)


def test_beyond_its_place_the_way_turns_round(going: Book):
    voices(going)
    move(going, "down", "130")
    assert (facts(going).to_go[0].way, facts(going).to_go[0].left) == ("up", 12)


def test_one_word_is_enough_only_for_the_same_again(going: Book):
    """The first move, another direction, another hand, a touch, a break: each speaks for himself;
    the same once more is one press.
    """
    voices(going)
    going.refuse("voices", "unit moved", step=STEP, way="down", by="10", clear=True)
    move(going, "down", "10")
    voices(going)
    assert facts(going).at_once
    line = move(going, "down", "10", clear=True)
    assert line.body.line("") == "down 10. Stopped, all clear"
    assert facts(going).voices[1].said == "clear, by MK"
    assert facts(going).shut == ""
    going.refuse("voices", "unit moved", step=STEP, way="in", by="10", clear=True)
    going.who = "AK"
    going.refuse("voices", "unit moved", step=STEP, way="down", by="10", clear=True)


def test_after_five_minutes_everybody_looks_anew(going: Book):
    voices(going)
    going.later(0.1)
    assert facts(going).shut == "shut till MK, JB, RT have spoken"
    assert facts(going).at_once is False


def test_what_touches_goes_back_and_nowhere_else(going: Book):
    voices(going)
    move(going, "down", "10")
    going.do("touched", step=STEP, watcher="JB", where="sump lip")
    found = facts(going)
    assert found.title == "It touches, JB: sump lip"
    assert found.open == ("up",)
    voices(going)
    assert facts(going).open == ("up",)  # voices do not make it free
    move(going, "up", "10")
    voices(going)
    assert facts(going).shut == ""
    going.refuse("voices", "unit moved", step=STEP, way="up", by="5", clear=True)


def test_neither_another_way_nor_a_new_watch_ends_a_touch(going: Book):
    voices(going)
    move(going, "down", "10")
    going.do("touched", step=STEP, watcher="JB")
    move(going, "left", "5", sure=True)
    voices(going)
    assert facts(going).title.startswith("It touches")
    assert set(facts(going).open) == {"up", "right"}
    watchers = [{"who": "AK", "point": "front"}]
    going.do("watch said", step=STEP, watchers=watchers, word="AK")
    voices(going, "AK")
    assert facts(going).open == ("up",)
    move(going, "up", "10")
    voices(going, "AK")
    assert facts(going).shut == ""


@pytest.mark.parametrize(
    ("gap", "verdict", "open_ways"),
    [
        ("2", "outside", {"up", "right"}),
        ("6", "too_close", {"up", "right"}),
        ("8", "inside", None),
    ],
)
def test_a_gap_by_eye_is_two_off_either_way(going: Book, gap: str, verdict: str, open_ways):
    """Least 5: 2 is under it, 6 ± 2 too close to call, 8 clear; the way that widens stays open."""
    voices(going)
    move(going, "down", "10")
    voices(going, "MK", "RT")
    going.do("clear said", step=STEP, watcher="JB", gap=gap, between="sump", widens="right")
    found = facts(going)
    assert (found.gap.verdict, found.gap.mm) == (verdict, float(gap))
    assert set(found.open) == (open_ways if open_ways is not None else set(found.open))
    assert (len(found.open) == 8) == (open_ways is None)


def test_near_a_gap_a_long_move_is_asked(going: Book):
    voices(going)
    move(going, "down", "10")
    voices(going, "MK", "RT")
    going.do("clear said", step=STEP, watcher="JB", gap="12")
    going.refuse("far_move", "unit moved", step=STEP, way="down", by="40")
    move(going, "down", "40", sure=True)


def test_near_a_gap_each_speaks_for_himself(going: Book):
    voices(going)
    move(going, "down", "10")
    voices(going, "MK", "RT")
    going.do("clear said", step=STEP, watcher="JB", gap="12")
    assert not facts(going).at_once


def test_a_move_that_was_made_all_the_same_is_told(going: Book):
    line = move(going, "down", "10", sure=True)
    assert line.body.line("") == "down 10, though shut till MK, JB, RT have spoken"
    assert facts(going).shut


def test_it_is_not_in_while_it_touches_or_nobody_has_spoken(going: Book):
    def against() -> list[str]:
        return [o.words for o in going.in_the_way(STEP) if o.code == "moving"]

    assert against() == []
    voices(going)
    move(going, "down", "118")
    assert against() == ["it is on its way: MK, JB, RT have not spoken"]
    voices(going)
    assert against() == ["not there: 62 mm in still to go"]
    move(going, "in", "62")
    going.do("touched", step=STEP, watcher="RT")
    voices(going)
    assert against()[0].startswith("it is on its way: it touches")


def test_a_move_struck_was_never_made(going: Book):
    voices(going)
    line = move(going, "down", "10")
    going.do("strike", entry=line.id, reason="it was the other hoist")
    assert facts(going).to_go[0].left == 118
    assert facts(going).shut == ""


def test_a_new_watch_begins_anew(going: Book):
    voices(going)
    move(going, "down", "10")
    watchers = [{"who": "AK", "point": "front"}]
    going.do("watch said", step=STEP, watchers=watchers, word="AK")
    assert facts(going).moves == 0
    assert facts(going).to_go == ()
    assert facts(going).gap is None


def test_what_cannot_be(going: Book):
    fresh = Book(small_sheet(SHEET), tools())
    fresh.refuse("no_watch", "unit moved", step=STEP, way="down")
    going.refuse(
        "bad_entry", "watch said", step="lead", watchers=[{"who": "A", "point": "x"}], word="A"
    )
    twice = [{"who": "A", "point": "front"}, {"who": "A", "point": "rear"}]
    going.refuse("watch_twice", "watch said", step=STEP, watchers=twice, word="A")
    voices(going)
    for by in ("-5", "9000"):
        going.refuse("bad_number", "unit moved", step=STEP, way="down", by=by)
    with pytest.raises(Refused):
        move(going, "down", "ten")
    with pytest.raises(NotFound):
        going.do("clear said", step=STEP, watcher="XX")
    with pytest.raises(NotFound):
        going.do("touched", step=STEP, watcher="XX")


def test_same_again_ends_where_it_has_to_go(going: Book):
    """Forty and forty of 118: a third forty would go past it by two, which is near enough; a fourth
    is no more offered.
    """
    voices(going)
    for k in range(3):
        move(going, "down", "40", clear=k > 0)
        if k == 0:
            voices(going)
        assert facts(going).at_once is (k < 2)
    move(going, "up", "40")
    voices(going)
    assert not facts(going).to_go[0].there


def test_the_nose_goes_again_by_what_the_screen_says(going: Book):
    voices(going)
    move(going, "nose down", "1")
    voices(going)
    assert facts(going).last_by == "1°"
    move(going, "nose down", facts(going).last_by, clear=True)
    assert facts(going).to_go[2].left == 2


def half_in(book: Book, **own: str):
    told = {"why": "starter and earth", "held": "timber under the bell, hoist shut", **own}
    return book.do("half said", step=STEP, **told)


def test_half_in_on_purpose_is_a_state_until_it_moves(going: Book):
    """What for and what holds it; each looks again before the next move, and it is not in."""
    voices(going)
    move(going, "down", "60")
    going.refuse("moves_shut", "half said", step=STEP, why="starter", held="timber under the bell")
    voices(going)
    going.refuse("no_words", "half said", step=STEP, why="starter", held="yes")
    going.refuse("no_words", "half said", step=STEP, why=" ", held="timber under the bell")
    half_in(going)
    found = facts(going)
    assert found.title == "Half in, on purpose: starter and earth"
    assert (found.open, found.shut) == (("up",), "shut till MK, JB, RT have spoken")
    assert "half:unit_in" in going.open()
    blocked = [o.words for o in going.in_the_way(STEP) if o.code == "moving"]
    assert blocked == ["it is on its way: half in, on purpose: starter and earth"]
    voices(going)
    assert not facts(going).at_once
    going.refuse("voices", "unit moved", step=STEP, way="down", by="60", clear=True)
    move(going, "down", "58")
    assert facts(going).half is None
    assert "half:unit_in" not in going.open()


def test_neither_a_new_watch_nor_all_clear_ends_half_in(going: Book):
    voices(going)
    move(going, "down", "10")
    voices(going)
    move(going, "down", "10", clear=True)
    half_in(going)
    assert facts(going).next_voice == "MK"
    watch = [{"who": "AK", "point": "hook"}]
    going.do("watch said", step=STEP, watchers=watch, word="AK")
    going.do("clear said", step=STEP, watcher="AK")
    assert [o.code for o in going.in_the_way(STEP)].count("moving") == 1
    assert facts(going).half.held == "timber under the bell, hoist shut"


def test_half_in_is_not_said_while_it_touches(going: Book):
    voices(going)
    move(going, "down", "10")
    going.do("touched", step=STEP, watcher="JB", where="sump")
    going.refuse("moves_shut", "half said", step=STEP, why="a look", held="timber under the bell")


def test_what_is_in_is_not_half_in(going: Book):
    voices(going)
    going.do("skipped", step=STEP, reason="it went in without a hoist, by four hands")
    going.refuse(
        "already_done", "half said", step=STEP, why="starter", held="timber under the bell"
    )
