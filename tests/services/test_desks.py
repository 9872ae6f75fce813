"""The box, the closing card, pace, questions on paper: through the services, as the screens ask."""

import io
from datetime import UTC, datetime, timedelta

import pytest
from pypdf import PdfReader

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.library.pictures import picture
from hollet.services.asking import ask_view, question_pdf, return_slip
from hollet.services.box import box, money
from hollet.services.builds import bench, make_build
from hollet.services.closing import closing, pace
from hollet.services.evenings import saves
from hollet.services.parts import desk
from hollet.services.photos import store_photo
from hollet.services.tonight import tonight
from hollet.services.workshop import Workshop
from tests.services.conftest import stock
from tests.services.test_tonight import say
from tests.support import Hand

PHOTO = picture("front_cover")
EIGHT = datetime(2026, 3, 2, 20, 0, tzinfo=UTC)


class Clock:
    """A clock that is moved by hand."""

    def __init__(self) -> None:
        self.now = EIGHT

    def __call__(self) -> datetime:
        return self.now


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def hand(tmp_path, clock) -> Hand:
    """A hand at a build that wants a gasket, on a Monday evening at eight."""
    made = Workshop(tmp_path / "data", clock=clock)
    found = Hand(made, stock(made))
    found.write("part wanted", typed="2 x cover gasket", step="ring", safety="none")
    yield found
    made.close()


def spare(hand: Hand, **more: object) -> None:
    """Two gaskets in the box."""
    said = {"spare": "s1", "name": "Cover gasket", "count": 2, "condition": "new, in its bag"}
    say(hand.workshop, kind="spare kept", **{**said, **more})


def text_of(pdf: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)


def row(hand: Hand):
    """The gasket on the parts desk."""
    view = desk(hand.workshop, hand.build)
    return next(
        r for r in (*(r for g in view.groups for r in g.rows), *view.free) if "gasket" in r.name
    )


def test_the_box_is_offered_before_anything_is_ordered(hand):
    """By name; taken for the job it stays offered there, and on no other part."""
    spare(hand)
    assert [s.spare for s in row(hand).spares] == ["s1"]
    move = {"kind": "spare moved", "spare": "s1", "build": hand.build, "need": "cover_gasket"}
    say(hand.workshop, **move, now="taken for a job", count=2, build_name="Job")
    (offered,) = row(hand).spares
    assert (offered.left, offered.uses[0].build_name) == (0, "Job")
    assert row(hand).need.left == 2
    hand.write("part taken", need="cover_gasket", count=2, how="counted")
    assert row(hand).need.open == ()
    assert row(hand).spares == ()


@pytest.mark.parametrize(
    ("move", "code"),
    [
        ({"now": "taken for a job", "count": 3, "build": "x"}, "not_here"),
        ({"now": "taken for a job", "count": 1}, "bad_entry"),
        ({"now": "sold", "count": 1}, "no_price"),
        ({"now": "back in the box", "count": 1}, "not_here"),
    ],
)
def test_no_more_leaves_the_box_than_lies_in_it(hand, move, code):
    spare(hand)
    with pytest.raises(Refused) as refusal:
        say(hand.workshop, kind="spare moved", spare="s1", **move)
    assert refusal.value.reason_code == code
    assert box(hand.workshop).spares[0].left == 2


def test_left_over_is_more_than_the_steps_need(hand):
    """Three came for two; kept and sold, the money comes off the build."""
    lines = [{"need": "cover_gasket", "count": 3, "price": 5}]
    hand.write("ordered", order="o1", supplier="Rook", lines=lines)
    hand.write("parcel came", order="o1")
    hand.write("part taken", need="cover_gasket", order="o1", count=3, how="counted")
    (left,) = box(hand.workshop).left_over
    assert (left.name, left.count) == ("cover gasket", 1)
    spare(hand, name="cover gasket", count=1, origin="left over", build=hand.build)
    assert box(hand.workshop).left_over == ()
    say(hand.workshop, kind="spare moved", spare="s1", now="sold", count=1, money=4)
    desk_of = money(hand.workshop, hand.build)
    assert (desk_of.money.sold, desk_of.money.sure) == (4, 11)


def test_the_closing_card_asks_once_where_it_should_have_been_said(hand, clock):
    """A search and a refused part of this evening; answered, the note stands at the next build."""
    hand.write("search begun", what="circlip 24", step="ring")
    clock.now += timedelta(minutes=12)
    hand.write("search ended", thing="circlip_24", where="under the bench")
    hand.write("ordered", order="o1", supplier="Rook", lines=[{"need": "cover_gasket", "count": 1}])
    hand.write("parcel came", order="o1")
    hand.write(
        "part refused", need="cover_gasket", order="o1", count=1, wrong="the wrong holes in it"
    )
    (card,) = closing(hand.workshop).builds
    assert [(a.what, a.minutes, a.before, a.said) for a in card.asks] == [
        ("looked for circlip 24", 12, "ring", ""),
        ("refused: cover gasket, the wrong holes in it", 0, None, ""),
    ]
    note = {"note": card.asks[0].note, "step": "ring", "title": "Ring", "minutes": 12}
    say(hand.workshop, kind="next time noted", **note, text="lay the circlip on the mat first")
    assert closing(hand.workshop).builds[0].asks[0].said == "lay the circlip on the mat first"
    other = make_build(
        hand.workshop, sheets=["small"], name="Next", vehicle="Two", about="in", who="MK"
    )
    (shown,) = bench(hand.workshop, other, "ring").base.notes
    assert (shown.text, shown.minutes) == ("lay the circlip on the mat first", 12)
    assert bench(hand.workshop, other, "bore").base.notes == ()
    assert pace(hand.workshop).notes[0].title == "Ring"
    assert [(r.cause, r.minutes) for r in pace(hand.workshop).lost] == [("search", 12)]
    say(hand.workshop, kind="next time noted", **note, text="lay it on the mat", gone=True)
    assert bench(hand.workshop, other, "ring").base.notes == ()


def test_after_midnight_it_is_still_this_evening(hand, clock):
    """At two in the night the card has the evening; at ten in the morning it is another day's."""
    clock.now = EIGHT + timedelta(hours=6)
    assert [b.name for b in closing(hand.workshop).builds] == ["Job"]
    clock.now = EIGHT + timedelta(hours=14)
    assert closing(hand.workshop).title == "Nothing was written this evening"


def test_a_pause_is_on_the_card_whoever_says_what_it_was(hand, clock):
    """Two hours with nothing written at a step: not said, then lost for a tool."""
    hand.write("started", step="ring")
    clock.now += timedelta(hours=2)
    hand.write(
        "reading", step="ring", reading="ring", typed=["0.30 0.35"], unit="mm", instrument="f1"
    )
    (card,) = closing(hand.workshop).builds
    (gap,) = card.pauses
    assert (gap.minutes, gap.cause) == (120, None)
    assert "1 pause not said" in closing(hand.workshop).title
    hand.write("pause said", after=gap.after, cause="tool")
    assert "2 h lost" in closing(hand.workshop).title
    assert closing(hand.workshop).builds[0].asks[0].before == "ring"


def test_a_question_on_paper(hand):
    """Vehicle, figure, what was tried, the photo and the answer, with the pages counted."""
    stored = store_photo(hand.workshop, PHOTO)
    hand.write(
        "photo", photo=stored.photo, width=stored.width, height=stored.height, what="the ring"
    )
    hand.write(
        "reading", step="ring", reading="ring", typed=["0.60 0.65"], unit="mm", instrument="f1"
    )
    view = ask_view(hand.workshop, hand.build, "result", "ring/g")
    assert view.title == "Gap"
    assert [p.photo for p in view.photos] == [stored.photo]
    said = {"question": "q1", "sort": "result", "about": "ring/g", "photos": [stored.photo]}
    hand.write("question asked", **said, ask="Is 0.6 mm < 0.7 & good?", tried="measured twice")
    answer = {"question": "q1", "name": "The builder", "trust": "knows the work"}
    hand.write("question answered", **answer, text="It is too much, fit another ring.")
    pdf = question_pdf(hand.workshop, hand.build, "q1")
    text = text_of(pdf)
    for words in (
        "Is 0.6 mm < 0.7 & good?",
        "measured twice",
        "too much",
        "page 1 of 1",
        "outside",
    ):
        assert words in text
    assert len(PdfReader(io.BytesIO(pdf)).pages[0].images) == 1
    assert ask_view(hand.workshop, hand.build, None, "").questions[0].question == "q1"
    with pytest.raises(NotFound):
        question_pdf(hand.workshop, hand.build, "q9")


def test_a_return_slip(hand):
    """What differs and until when, and the private word on the supplier is not on it."""
    say(hand.workshop, kind="supplier noted", supplier="Rook", text="never again, wrong twice")
    hand.write("ordered", order="o1", supplier="Rook", lines=[{"need": "cover_gasket", "count": 1}])
    hand.write("parcel came", order="o1")
    hole = {"feature": "bore", "old": "24 mm", "new": "22 mm"}
    hand.write("feature compared", need="cover_gasket", order="o1", **hole)
    wrong = {"wrong": "the bore is too small", "back_by": "16 Mar"}
    line = hand.write("part refused", need="cover_gasket", order="o1", count=1, **wrong)
    text = text_of(return_slip(hand.workshop, hand.build, line.id))
    for words in ("Return to Rook", "old 24 mm", "the bore is too small", "16 Mar"):
        assert words in text
    assert "never again" not in text
    with pytest.raises(NotFound):
        return_slip(hand.workshop, hand.build, "none")


def test_what_a_day_saves(hand):
    """A part nobody promised is a week off: tomorrow it saves days; next year nothing."""
    for step in ("bore", "head_in"):
        hand.write("part wanted", typed=f"1 x {step} kit", step=step, safety="none")
    lines = [{"need": "bore_kit", "count": 1}]
    hand.write("ordered", order="o1", supplier="Rook", lines=lines, promised="in 20 days")
    week = [{"day": d, "start": "19:00", "end": "22:00"} for d in range(7)]
    say(hand.workshop, kind="evenings set", hours=week)
    won = saves(hand.workshop, hand.build, "bore_kit", "tomorrow")
    assert won.days >= 10
    assert "earlier" in won.words
    none = saves(hand.workshop, hand.build, "bore_kit", "in 40 days")
    assert (none.days, none.words) == (0, "nothing moves: something else holds it longer")
    with pytest.raises(NotFound):
        saves(hand.workshop, hand.build, "nothing", "tomorrow")
    with pytest.raises(Refused):
        saves(hand.workshop, hand.build, "bore_kit", "when it suits")


def test_the_tools_of_the_evening_as_one_list(hand):
    """What is not here first, with what goes instead of it; rented has its price a day."""
    say(hand.workshop, kind="tonight", start="19:00", end="23:00")
    assert tonight(hand.workshop).tools == ()
    assert tonight(hand.workshop).openers == ()


@pytest.mark.parametrize(
    "act",
    [
        {"kind": "spare moved", "spare": "s1", "count": 1, "now": "taken for a job"},
        {"kind": "commitment", "commitment": "c", "what": "lift", "day": "Fri", "bay": "lift"},
        {
            "kind": "next time noted",
            "note": "n",
            "step": "ring",
            "title": "Ring",
            "text": "warm it first",
        },
    ],
)
def test_the_shop_speaks_of_builds_that_are_there(hand, act):
    spare(hand)
    with pytest.raises(NotFound):
        say(hand.workshop, **act, build="no-such-build")
    say(hand.workshop, **act, build=hand.build)


def test_a_spare_is_not_turned_into_another(hand):
    """Described anew is fine; another thing is put in by itself."""
    spare(hand)
    spare(hand, condition="one corner bent")
    assert box(hand.workshop).spares[0].condition == "one corner bent"
    with pytest.raises(Conflict):
        spare(hand, name="Head gasket")


def test_names_of_any_alphabet_are_told_apart(hand):
    """Two parts in letters that are not a to z are two needs, and each its own."""
    for name in ("кольцо", "прокладка"):
        hand.write("part wanted", typed=f"1 x {name}", step="ring", safety="none")
    names = [r.need.name for g in desk(hand.workshop, hand.build).groups for r in g.rows]
    assert {"кольцо", "прокладка"} <= set(names)


def test_sent_again_after_the_answer_was_lost_it_is_written_once(hand):
    """The last spare is taken, the network drops the answer: the same line once more is answered,
    not refused, and another under its id is.
    """
    spare(hand, count=1)
    move = {"kind": "spare moved", "spare": "s1", "count": 1, "now": "sold", "money": 4}
    number = hand.workshop.new_id()
    first = say(hand.workshop, number, **move)
    assert say(hand.workshop, number, **move) == first
    assert len(box(hand.workshop).spares[0].uses) == 1
    with pytest.raises(Conflict):
        say(hand.workshop, number, **{**move, "money": 5})


def test_what_counts_as_free_does_not_lie_in_the_box(hand):
    """Taken, free on the job, put back: refused till the job no longer counts it."""
    spare(hand)
    job = {"build": hand.build, "need": "cover_gasket", "build_name": "Job"}
    move = {"kind": "spare moved", "spare": "s1"}
    say(hand.workshop, **move, now="taken for a job", count=2, **job)
    free = hand.write("part taken", need="cover_gasket", count=1, how="counted")
    say(hand.workshop, **move, now="back in the box", count=1)
    with pytest.raises(Conflict, match="count as free on Job"):
        say(hand.workshop, **move, now="back in the box", count=1)
    hand.write("strike", entry=free.id, reason="it was bent after all")
    say(hand.workshop, **move, now="back in the box", count=1)
    assert box(hand.workshop).spares[0].left == 2
