"""Parts: what is needed and why, the arithmetic of need, order and shelf, and when one is free."""

from datetime import date, timedelta

import pytest

from hollet.core.book.due import due_of
from hollet.core.book.needs import Need, need_named, needs
from hollet.core.book.open_items import open_items
from hollet.core.book.orders import days_silent, orders, slip_words
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.saying import read_day, read_wanted
from hollet.screens.partsdesk import money_of, parts_view
from tests.support import SMALL, Book, small_sheet, tools

THURSDAY = date(2026, 11, 26)
PARTS = SMALL.replace(
    'id = "bore"\n',
    'id = "bore"\nparts = [{ name = "head gasket", count = 1 }, { name = "dowel", count = 2 }]\n',
    1,
).replace('id = "ring"\n', 'id = "ring"\nparts = [{ name = "Dowel", count = 2 }]\n', 2)


@pytest.fixture
def book() -> Book:
    """A build whose steps need a gasket and dowels; the head bolts go in once."""
    text = PARTS.replace(
        'fastener = "6 x M10"\n',
        'fastener = "6 x M10"\none_use = [{ name = "head bolt M10x90" }]\n',
        1,
    )
    return Book(small_sheet(text), tools())


def need(book: Book, name: str) -> Need:
    """A need that is there."""
    found = need_named(book.state, name)
    assert found is not None
    return found


def order(book: Book, name: str = "o1", **more: object) -> None:
    """One order of the gasket, unless said otherwise."""
    said = {"supplier": "Rook Motor Parts", "lines": [{"need": "head_gasket", "count": 1}]}
    book.do("ordered", order=name, **{**said, **more})


def test_a_part_of_two_steps_is_one_need_with_two_reasons(book: Book):
    """Two and two dowels are four; what is in the plan of a joint is counted by its bolts."""
    dowels = need(book, "dowel")
    assert (dowels.wanted, dowels.left, len(dowels.reasons)) == (4, 4, 2)
    bolts = need(book, "head_bolt_m10x90")
    assert (bolts.wanted, bolts.reasons[0].step, bolts.reasons[0].assumed) == (6, "head_in", False)
    assert bolts.blocks == "crank"
    assert not bolts.spoken


def test_a_fluid_comes_with_its_amount_and_its_rung(book: Book):
    """Oil blocks what its step blocks, and nothing more."""
    oil = need(book, "oil")
    assert oil.amount == "4.2 L"
    assert oil.reasons[0].step == "oil_in"


def test_need_shelf_and_order_are_arithmetic(book: Book):
    """Never typed: ordered, here, taken, refused each move the rest."""
    lines = [{"need": "dowel", "count": 3}]
    order(book, lines=lines)
    assert (need(book, "dowel").ordered, need(book, "dowel").left) == (3, 1)
    book.do("parcel came", order="o1", lines=[{"need": "dowel", "count": 2}])
    found = need(book, "dowel")
    assert (found.here, found.ordered, found.left) == (2, 1, 1)
    book.do("part taken", need="dowel", order="o1", count=2, how="counted")
    found = need(book, "dowel")
    assert (found.free, found.here, found.left) == (2, 0, 1)
    assert [r.met for r in found.reasons] == [True, False]
    book.do("part taken", need="dowel", count=2, how="counted")
    assert (need(book, "dowel").left, need(book, "dowel").open) == (0, ())


def test_arrived_is_not_free(book: Book):
    """The step says what it lacks; a reason passes it, and stays told till it is compared."""
    order(book)
    book.do("parcel came", order="o1")
    assert need(book, "head_gasket").here == 1
    words = [o.words for o in book.in_the_way("bore")]
    assert "head gasket is not free for it: here, not compared" in words
    book.do("part taken", need="head_gasket", order="o1", count=1, how="counted")
    assert not [o for o in book.in_the_way("bore") if o.code == "part"]


def test_nothing_said_holds_nothing_up(book: Book):
    """Whoever keeps no list of parts is not asked for one."""
    assert not [o for o in book.in_the_way("bore") if o.code == "part"]


def test_done_without_its_part_is_told_until_it_is_there(book: Book):
    """A step passed by a reason is done; the gate names the part till it is looked at."""
    book.do("part wanted", typed="1 x battery clip", step="again", safety="none")
    order(book, lines=[{"need": "battery_clip", "count": 1}])
    assert need(book, "battery_clip").blocks == "nothing"
    book.do("skipped", step="again", reason="it is not needed on this job")
    assert not [i for i in book.open() if i.startswith("need:")]
    book.do("reopened", step="again", reason="looked at once more")
    book.do("done", step="again", reason="another one went in, it is looked at later")
    assert book.open()["need:battery_clip:again"] == "nothing"
    book.do("part taken", need="battery_clip", count=1, how="counted")
    assert "need:battery_clip:again" not in book.open()


def feature(book: Book, name: str, old: str, new: str, **more: str) -> None:
    book.do(
        "feature compared",
        need="head_bolt_m10x90",
        order="o1",
        feature=name,
        old=old,
        new=new,
        **more,
    )


def bolts_here(book: Book) -> None:
    order(book, lines=[{"need": "head_bolt_m10x90", "count": 6, "price": 3.5}])
    book.do("parcel came", order="o1")


def take(book: Book, how: str = "compared", **more: object) -> None:
    book.do("part taken", need="head_bolt_m10x90", order="o1", count=6, how=how, **more)


def all_features(book: Book) -> None:
    feature(book, "thread and pitch", "M10x1.25", "M10x1.25")
    feature(book, "length", "90", "90.0 mm")
    feature(book, "head and grade", "hex 10.9", "hex 10.9")
    feature(book, "count in the bag", "6", "6")


def test_bolts_go_feature_by_feature(book: Book):
    """One press is not enough, nor all features but one, nor one that differs."""
    bolts_here(book)
    with pytest.raises(Refused, match="feature by feature"):
        take(book, "counted")
    with pytest.raises(Refused, match="thread and pitch is not compared"):
        take(book)
    all_features(book)
    feature(book, "length", "90", "92")
    with pytest.raises(Refused, match="length differs"):
        take(book)
    feature(book, "length", "90", "92", within="2 mm", within_source="book p. 4")
    take(book)
    assert need(book, "head_bolt_m10x90").free == 6


def test_a_feature_struck_takes_the_freedom_back(book: Book):
    """What was taken as compared holds only while every feature does."""
    bolts_here(book)
    all_features(book)
    take(book)
    last = need(book, "head_bolt_m10x90").arrival.features[1].entry
    assert last is not None
    book.do("strike", entry=last, reason="read off the wrong bolt")
    assert need(book, "head_bolt_m10x90").free == 0


def test_a_new_look_that_differs_takes_it_back_too(book: Book):
    """The newest look at a feature counts."""
    bolts_here(book)
    all_features(book)
    take(book)
    feature(book, "length", "90", "95")
    assert need(book, "head_bolt_m10x90").free == 0


def test_the_looks_of_one_order_say_nothing_of_another(book: Book):
    """The second parcel is compared anew."""
    bolts_here(book)
    all_features(book)
    take(book)
    order(book, "o2", lines=[{"need": "head_bolt_m10x90", "count": 6}])
    book.do("parcel came", order="o2")
    with pytest.raises(Refused, match="is not compared"):
        book.do("part taken", need="head_bolt_m10x90", order="o2", count=6, how="compared")


def test_what_was_made_to_order_is_never_free_by_one_press(book: Book):
    """A gasket that was drawn for this job is compared like a shaft."""
    order(book, state="in design")
    book.do("order moved", order="o1", state="shipped")
    book.do("parcel came", order="o1")
    with pytest.raises(Refused, match="feature by feature"):
        book.do("part taken", need="head_gasket", order="o1", count=1, how="counted")


def test_a_press_does_not_hold_when_the_part_turns_out_a_safety_part(book: Book):
    """Said later of a part by hand: what was pressed proves nothing any more."""
    book.do("part wanted", typed="1 x hub washer", step="bore", safety="none")
    book.do("part taken", need="hub_washer", count=1, how="counted")
    assert need(book, "hub_washer").free == 1
    book.do("part wanted", typed="1 x hub washer", step="bore", safety="wheels")
    assert need(book, "hub_washer").free == 0


def test_a_safety_part_in_writing_keeps_its_rung_shut(book: Book):
    """Free in writing, and *drive* stays shut until it was inspected."""
    book.do("part wanted", typed="1 x hub nut", step="lead_on", safety="wheels")
    said = {"need": "hub_nut", "count": 1, "how": "in_writing", "name": "MK"}
    with pytest.raises(Refused, match="reason and a name"):
        book.do("part taken", need="hub_nut", count=1, how="in_writing")
    book.do("part taken", **said, reason="another grade, the maker allows it")
    shut = [i for i in open_items(book.state) if i.id.startswith("need:hub_nut")]
    assert [i.blocks for i in shut] == ["drive"]
    with pytest.raises(Refused, match="a name and a reference"):
        book.do("part taken", **said, reason="inspected since", licensed="yes")
    book.do("part taken", **said, reason="inspected since", licensed="Ridge testing, 4711")


def test_what_a_hand_says_never_loosens_what_the_plan_wants(book: Book):
    """Wanted once more as a gasket, a bolt is compared like a bolt; harmless by hand, a safety part
    of the sheet stays one.
    """
    book.do("part wanted", typed="2 x head bolt M10x90", sort="gasket", safety="none")
    bolts_here(book)
    with pytest.raises(Refused, match="feature by feature"):
        take(book, "counted")


def test_how_far_it_may_differ_has_a_source(book: Book):
    """A tolerance that nobody said makes nothing fit."""
    bolts_here(book)
    with pytest.raises(Refused, match="who says that it may differ by 5"):
        feature(book, "length", "90", "92", within="5")


def test_lifting_gear_is_never_taken_in_writing(book: Book):
    """It is replaced."""
    book.do("part wanted", typed="1 x shackle bow", step="bore", safety="lifting")
    said = {"need": "shackle_bow", "count": 1, "how": "in_writing", "name": "MK"}
    with pytest.raises(Refused, match="lifting gear is never"):
        book.do("part taken", **said, reason="it held until now")


def test_a_parcel_struck_takes_all_with_it(book: Book):
    """What never came is not free, whatever was said of it; a cancelled order brings nothing."""
    order(book, lines=[{"need": "dowel", "count": 4}])
    came = book.do("parcel came", order="o1")
    book.do("part taken", need="dowel", order="o1", count=4, how="counted")
    assert need(book, "dowel").free == 4
    book.do("strike", entry=came.id, reason="it was for another job")
    assert (need(book, "dowel").free, need(book, "dowel").ordered) == (0, 4)


BLANK = [
    ("ordered", {"order": "o9", "supplier": "  ", "lines": [{"need": "dowel", "count": 1}]}),
    ("feature compared", {"need": "dowel", "feature": "  ", "old": "1", "new": "1"}),
    ("feature compared", {"need": "dowel", "feature": "length", "old": " ", "new": " "}),
    ("part wanted", {"typed": "  ", "safety": "none"}),
]


LOOK = (
    SMALL.replace('id = "bore"\n', 'id = "bore"\nparts = [{ name = "Front bearing" }]\n', 1)
    + """
[[step]]
id = "seen"
stage = "inspect"
kind = "inspect"
title = "Looked at"
do = "Look."
part = [
  { id = "front", name = "Front bearing", face = [{ id = "a", name = "race", on = "rolling" }] },
  { id = "rear", name = "Rear bearing", face = [{ id = "a", name = "race", on = "rolling" }] },
]
"""
)


def test_a_part_to_be_replaced_is_wanted_once():
    """Decided where it was looked at and named by the step that fits it: one bearing, not two; one
    that no step names is compared where it was looked at.
    """
    book = Book(small_sheet(LOOK), tools())
    for part in ("front", "rear"):
        about = {"step": "seen", "part": part}
        book.do("finding", face="a", code="spall", grade=2, **about)
        book.do("part decided", choice="replace", reason="chips in the race", **about)
    assert (need(book, "front_bearing").wanted, need(book, "front_bearing").compare_at) == (1, None)
    assert (need(book, "rear_bearing").wanted, need(book, "rear_bearing").compare_at) == (1, "seen")
    with pytest.raises(Refused, match="where that was looked at"):
        book.do("part taken", need="rear_bearing", count=1, how="counted")


@pytest.mark.parametrize(("kind", "said"), BLANK)
def test_blanks_say_nothing(book: Book, kind, said):
    """A supplier, a feature or a figure of blanks alone is none."""
    with pytest.raises((Refused, ValueError)):
        book.do(kind, **said)


def test_a_part_stands_in_a_parcel_once(book: Book):
    """Two lines of one part: which of them holds?"""
    order(book, lines=[{"need": "dowel", "count": 4}])
    twice = [{"need": "dowel", "count": 1}, {"need": "dowel", "count": 3}]
    with pytest.raises(Refused, match="once"):
        book.do("parcel came", order="o1", lines=twice)


def test_a_word_is_no_number(book: Book):
    """True is not one piece, nor is 1.0 or a text."""
    order(book, lines=[{"need": "dowel", "count": 4}])
    for count in (True, 1.0, "1", 0, -1, 1000):
        with pytest.raises(ValueError, match="count"):
            book.do("part taken", need="dowel", count=count, how="counted")


def test_no_more_is_taken_than_lies_here(book: Book):
    """Of two that came two are looked at; what is refused is not taken."""
    order(book, lines=[{"need": "dowel", "count": 4}])
    with pytest.raises(Refused, match="0 of this order lie here"):
        book.do("part taken", need="dowel", order="o1", count=1, how="counted")
    book.do("parcel came", order="o1", lines=[{"need": "dowel", "count": 2}])
    book.do("part refused", need="dowel", order="o1", count=1, wrong="bent in the parcel")
    with pytest.raises(Refused, match="1 of this order lie here"):
        book.do("part taken", need="dowel", order="o1", count=2, how="counted")
    with pytest.raises(Refused, match="1 of this order lie here"):
        book.do("part refused", need="dowel", order="o1", count=2, wrong="bent in the parcel")


def test_refused_after_it_was_taken_is_not_free(book: Book):
    """Found bad a day later: the step waits again."""
    order(book, lines=[{"need": "dowel", "count": 4}])
    book.do("parcel came", order="o1")
    book.do("part taken", need="dowel", order="o1", count=4, how="counted")
    book.do("part refused", need="dowel", order="o1", count=3, wrong="too short by 2 mm")
    found = need(book, "dowel")
    assert (found.free, found.left, found.here) == (1, 3, 0)


def test_a_refused_part_comes_due(book: Book):
    """Until when it may go back; without a day somebody asks."""
    order(book)
    book.do("parcel came", order="o1")
    entry = book.do("part refused", need="head_gasket", order="o1", count=1, wrong="no fire ring")
    today = book.now.date()
    (due,) = [d for d in due_of(book.state, today) if d.kind == "return"]
    assert (due.words, due.days, due.soon) == ("until when? ask", None, True)
    book.do("part returned", refusal=entry.id, now="may go back until", back_by="in 14 days")
    (due,) = [d for d in due_of(book.state, today) if d.kind == "return"]
    assert due.words == "in 14 days"
    (late,) = [d for d in due_of(book.state, today + timedelta(days=16)) if d.kind == "return"]
    assert (late.words, late.late) == ("2 days late", True)
    book.do("part returned", refusal=entry.id, now="refunded", money=8.0)
    assert not [d for d in due_of(book.state, today) if d.kind == "return"]


def test_slips_and_silence_are_computed(book: Book):
    """A promise moved is a slip; silence counts from the last word, and from a day gone by."""
    order(book, promised="in 5 days", state="being made")
    today = book.now.date()
    book.do("order moved", order="o1", state="being made", promised="in 9 days", because="no steel")
    (placed,) = orders(book.state)
    assert slip_words(placed) == "slipped once, by 4 days"
    assert days_silent(placed, today + timedelta(days=9)) == 0
    assert days_silent(placed, today + timedelta(days=12)) == 3
    order(book, "o2", lines=[{"need": "dowel", "count": 1}])
    assert days_silent(orders(book.state)[1], today + timedelta(days=6)) == 6
    book.do("order moved", order="o2", state="quoted")
    assert days_silent(orders(book.state)[1], today + timedelta(days=9)) == 0
    assert [d.does for d in due_of(book.state, today) if d.kind == "on_us"] == [
        "Rook Motor Parts waits: order it or not"
    ]


def test_money_is_added_up_with_its_working(book: Book):
    """Ordered, to order, what is owed back; what has no price is named."""
    order(book, lines=[{"need": "head_gasket", "count": 1, "price": 24.5}])
    book.do("part wanted", typed="2 x key switch, 9.00", step="lead_on", safety="none")
    book.do("parcel came", order="o1")
    entry = book.do("part refused", need="head_gasket", order="o1", count=1, wrong="wrong engine")
    found = money_of(book.state)
    assert (found.ordered, found.to_order, found.owed_back) == (24.5, 24.5 + 18.0, 24.5)
    assert "dowel" in found.bare
    assert "to order: key switch, 2 × 9.00" in found.working
    book.do("part returned", refusal=entry.id, now="refunded", money=20.0)
    assert (money_of(book.state).ordered, money_of(book.state).back) == (4.5, 20.0)


def test_the_desk_says_what_stops(book: Book):
    """The title counts; each part stands under the stage that needs it first."""
    view = parts_view(book.state, book.now.date(), book.now.isoformat())
    assert view.title.endswith("stop crank") or view.title.endswith("stops crank")
    rows = [row for group in view.groups for row in group.rows]
    assert {row.next for row in rows} == {"order"}
    assert all(row.place == -1 for row in rows)
    order(book, promised="Fri")
    (row,) = [
        r
        for g in parts_view(book.state, book.now.date(), book.now.isoformat()).groups
        for r in g.rows
        if r.need.id == "head_gasket"
    ]
    assert (row.place, row.words, row.to_order) == (0, "asked", False)


REFUSALS = [
    (
        "ordered",
        {"order": "o9", "supplier": "X", "lines": [{"need": "moon", "count": 1}]},
        "nobody needs 'moon'",
    ),
    ("parcel came", {"order": "o1", "lines": [{"need": "dowel", "count": 1}]}, "not asked for"),
    (
        "ordered",
        {
            "order": "o9",
            "supplier": "X",
            "promised": "2020-01-01",
            "lines": [{"need": "dowel", "count": 1}],
        },
        "gone by",
    ),
    (
        "ordered",
        {
            "order": "o9",
            "supplier": "X",
            "promised": "whenever",
            "lines": [{"need": "dowel", "count": 1}],
        },
        "is no day",
    ),
    ("part wanted", {"safety": "none", "typed": "2 x"}, "names no part"),
    ("part wanted", {"safety": "none", "typed": "2 x lamp, soon"}, "neither a price nor a day"),
    ("part wanted", {"safety": "none", "typed": "0 x lamp"}, "1 to 999"),
]


@pytest.mark.parametrize(("kind", "said", "words"), REFUSALS)
def test_what_cannot_be_is_refused_in_one_sentence(book: Book, kind, said, words):
    """Nobody's part, a day gone by, a line that names nothing."""
    order(book)
    with pytest.raises(Refused, match=words):
        book.do(kind, **said)


def test_an_order_is_written_once_and_ends(book: Book):
    """The same id twice, more of a parcel that is all here, a cancelled order."""
    order(book)
    with pytest.raises(Conflict):
        order(book)
    book.do("parcel came", order="o1")
    with pytest.raises(Conflict, match="is here already"):
        book.do("parcel came", order="o1")
    order(book, "o2", lines=[{"need": "dowel", "count": 2}])
    book.do("order moved", order="o2", state="cancelled")
    assert need(book, "dowel").ordered == 0
    with pytest.raises(Conflict, match="cancelled"):
        book.do("order moved", order="o2", state="shipped")
    with pytest.raises(NotFound):
        book.do("parcel came", order="o7")


@pytest.mark.parametrize("money", [-1, 1e9, float("nan"), float("inf")])
def test_money_that_cannot_be_is_refused(book: Book, money):
    """Negative, endless or not a number."""
    with pytest.raises(ValueError, match="price"):
        order(book, lines=[{"need": "dowel", "count": 1, "price": money}])


DAYS = [
    ("Fri", date(2026, 11, 27)),
    ("thursday", date(2026, 12, 3)),
    ("tomorrow", date(2026, 11, 27)),
    ("3 Dec", date(2026, 12, 3)),
    ("Dec 9", date(2026, 12, 9)),
    ("Tue 8 Dec", date(2026, 12, 8)),
    ("2 Jan", date(2027, 1, 2)),
    ("2026-12-24", date(2026, 12, 24)),
    ("in 2 weeks", date(2026, 12, 10)),
]


@pytest.mark.parametrize(("text", "day"), DAYS)
def test_days_are_read_as_they_are_said(text, day):
    """A weekday is the coming one; a date without a year the next."""
    assert read_day(text, THURSDAY, "by") == day


@pytest.mark.parametrize("text", ["31 Feb", "2026-13-01", "noday", "fryday", "12", "2031-01-01"])
def test_no_day_is_guessed(text):
    """What is none is refused, and what lies years ahead."""
    with pytest.raises(Refused):
        read_day(text, THURSDAY, "by")


def test_a_line_is_read_in_any_order_behind_its_name():
    """Price and day behind commas; a comma in the price; a size is no part number."""
    line = read_wanted("4 flywheel bolt M10x22, Fri, 3,20", THURSDAY)
    assert (line.count, line.name, line.number) == (4, "flywheel bolt M10x22", None)
    assert (line.price, line.by) == (3.2, date(2026, 11, 27))


def test_a_part_by_hand_asks_whether_lives_hang_on_it(book: Book):
    """Nothing is taken for harmless because nobody was asked."""
    with pytest.raises(Refused, match="steering, brakes"):
        book.do("part wanted", typed="1 x hub nut")


def test_needs_stand_in_the_order_of_the_plan(book: Book):
    """By the step that needs it first; those of a hand for no step last."""
    book.do("part wanted", typed="radio knob", safety="none")
    found = [n.id for n in needs(book.state)]
    assert found.index("head_gasket") < found.index("oil") < found.index("radio_knob")
    assert need(book, "radio_knob").blocks == "nothing"
