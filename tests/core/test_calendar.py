"""Evenings, pace and what can be done now: in minutes that a hand could check."""

from datetime import UTC, date, datetime, timedelta
from itertools import pairwise

import pytest

from hollet.core.acts.calendar import (
    EveningChangedAct,
    EveningsSetAct,
    HelperAct,
    TonightAct,
    VisitAct,
)
from hollet.core.acts.hand import Hand
from hollet.core.calendar.clock import (
    first_pace,
    kind_of_work,
    pace_of,
    pauses,
    range_of,
    ratios_of,
    worked,
    worked_since,
)
from hollet.core.calendar.evenings import Tonight, evenings, helpers, tonight, visits, week
from hollet.core.calendar.laying import laid_tonight, minutes_words
from hollet.core.calendar.offers import Around, Offers, frees, offers
from hollet.core.calendar.order import first_by_stage
from hollet.core.entries import BookState, Entry
from hollet.core.entries.fold import fold
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.sheet import Step
from hollet.library.lore import lore
from hollet.screens.frame import book_view
from tests.support import SMALL, TAKE, Book, small_sheet, tools

MONDAY = date(2026, 3, 2)
DAY = 24 * 60


class Shop:
    """The shop's log in memory."""

    def __init__(self) -> None:
        self.state, self.seq = BookState(lore()), 0

    def say(self, act: type, **said: object) -> None:
        kind = act.model_fields["kind"].annotation.__args__[0]  # type: ignore[union-attr]
        hand = Hand({}, "2026-03-02T08:00:00Z", MONDAY)
        body = act(kind=kind, **said).accepted(self.state, hand)
        self.seq += 1
        line = Entry(
            id=f"s{self.seq}", seq=self.seq, time=hand.now, bench_time=hand.now, who="MK", body=body
        )
        fold(self.state, line)


@pytest.fixture
def shop() -> Shop:
    """A shop in which nobody said anything yet."""
    return Shop()


def test_the_week_is_assumed_till_it_is_said(shop: Shop):
    """Usual evenings are laid out, and called usual."""
    assert week(shop.state)[1] is False
    shop.say(EveningsSetAct, hours=[{"day": 1, "start": "19:00", "end": "21:30"}])
    found = evenings(shop.state, MONDAY, 14)
    assert week(shop.state)[1] is True
    assert [(e.day, e.start, e.end) for e in found] == [
        (date(2026, 3, 3), DAY + 1140, DAY + 1290),
        (date(2026, 3, 10), 8 * DAY + 1140, 8 * DAY + 1290),
    ]


def test_one_day_can_be_another_or_closed(shop: Shop):
    """Closed, then open at other hours; the rest of the week stays."""
    shop.say(EveningsSetAct, hours=[{"day": 1, "start": "19:00", "end": "21:00"}])
    shop.say(EveningChangedAct, day="Tue", because="on call")
    assert evenings(shop.state, MONDAY, 7) == ()
    shop.say(EveningChangedAct, day="Wed", start="18:00", end="22:00")
    (wednesday,) = evenings(shop.state, MONDAY, 7)
    assert (wednesday.day, wednesday.usual) == (date(2026, 3, 4), False)


BAD = [
    (EveningChangedAct, {"day": "Tue", "start": "20:00", "end": "19:00"}, "not after"),
    (EveningChangedAct, {"day": "Tue", "start": "20:00"}, "both hours"),
    (EveningChangedAct, {"day": "2020-01-01"}, "gone by"),
    (TonightAct, {"start": "21:00", "end": "21:00"}, "not after"),
    (
        EveningsSetAct,
        {
            "hours": [
                {"day": 1, "start": "19:00", "end": "21:00"},
                {"day": 1, "start": "20:00", "end": "22:00"},
            ]
        },
        "overlap",
    ),
]


@pytest.mark.parametrize(("act", "said", "words"), BAD)
def test_hours_that_cannot_be_are_refused(shop: Shop, act, said, words):
    """In one sentence, and nothing is written."""
    with pytest.raises(Refused, match=words):
        shop.say(act, **said)
    assert shop.seq == 0


def rt(shop: Shop, answer: str, day: str = "Sat") -> None:
    shop.say(HelperAct, helper="rt", name="RT", can=["lift"])
    hours = {"start": "10:00", "end": "13:00"}
    shop.say(VisitAct, visit="v1", helper="rt", day=day, answer=answer, **hours)


def test_a_helper_comes_only_when_he_said_yes(shop: Shop):
    """To be asked and asked are perhaps; no and dropped out are neither."""
    for answer, comes, perhaps in (
        ("to be asked", False, True),
        ("asked", False, True),
        ("yes", True, False),
        ("no", False, False),
        ("dropped out", False, False),
    ):
        rt(shop, answer)
        (visit,) = visits(shop.state, MONDAY, 14)
        assert (visit.comes, visit.perhaps) == (comes, perhaps), answer
    with pytest.raises(NotFound):
        shop.say(VisitAct, visit="v2", helper="xx", day="Sat", start="10:00", end="11:00")


def test_who_no_longer_helps_comes_no_more(shop: Shop):
    """His visits go with him."""
    rt(shop, "yes")
    shop.say(HelperAct, helper="rt", name="RT", gone=True)
    assert helpers(shop.state) == ()
    assert visits(shop.state, MONDAY, 14) == ()


def test_tonight_is_said_anew_each_day(shop: Shop):
    """What was said on one day is not kept silently for the next."""
    shop.say(TonightAct, start="18:00", end="22:00", people=["RT"], dark=True, quiet_from="21:00")
    today = tonight(shop.state, MONDAY, 600)
    assert today is not None
    assert (today.said, today.people, today.dark, today.quiet_from) == (True, ("RT",), True, 1260)
    later = tonight(shop.state, MONDAY + timedelta(days=1), 600)
    assert later is not None
    assert (later.said, later.people, later.quiet_from) == (False, (), None)
    assert tonight(shop.state, MONDAY + timedelta(days=6), 600) is None


def test_one_helper_said_twice_is_one(shop: Shop):
    """Two hands are not four because a name was pressed twice; blanks are nobody."""
    shop.say(TonightAct, start="18:00", end="22:00", people=["RT", "rt"])
    today = tonight(shop.state, MONDAY, 600)
    assert today is not None
    assert len(today.people) == 1
    with pytest.raises(ValueError, match="people"):
        shop.say(TonightAct, start="18:00", end="22:00", people=["  "])


def test_an_evening_that_is_over_is_over(shop: Shop):
    """What was said of it does not keep it open."""
    shop.say(TonightAct, start="18:00", end="19:00")
    assert tonight(shop.state, MONDAY, 19 * 60) is None


@pytest.fixture
def book() -> Book:
    """A build with hours on two of its steps."""
    text = SMALL.replace('id = "bore"\n', 'id = "bore"\nhours = [0.5, 1.0]\n', 1)
    return Book(small_sheet(text), tools())


def step(book: Book, name: str) -> Step:
    found = plan_of(book.state).find_step(name)
    assert found is not None
    return found


def note(book: Book, minutes: float, name: str = "bore") -> str:
    """A line of a step, so many minutes after the last."""
    book.later((minutes * 60 - 10) / 3600)
    return book.do("note", text="went on", step=name).id


def test_worked_time_comes_from_entries_alone(book: Book):
    """The stretch before each line counts, a gap longer than the slow time does not."""
    note(book, 20)
    note(book, 30)
    assert worked(book.state, step(book, "bore")) == pytest.approx(50, abs=0.2)
    note(book, 200)
    assert worked(book.state, step(book, "bore")) == pytest.approx(50, abs=0.2)
    (pause,) = pauses(book.state, step(book, "bore"))
    assert (round(pause.minutes), pause.asked) == (200, True)


def test_a_pause_is_answered_once_and_work_counts(book: Book):
    """Said to be work after all it counts; a night is never asked about."""
    note(book, 20)
    after = note(book, 200)
    book.do("pause said", after=after, cause="tool")
    assert worked(book.state, step(book, "bore")) == pytest.approx(20, abs=0.2)
    assert pauses(book.state, step(book, "bore"))[0].cause == "tool"
    book.do("pause said", after=after, cause="work")
    assert worked(book.state, step(book, "bore")) == pytest.approx(220, abs=0.3)
    note(book, 9 * 60)
    assert len(pauses(book.state, step(book, "bore"))) == 1
    with pytest.raises(NotFound):
        book.do("pause said", after="nothing", cause="work")


def test_a_line_struck_takes_its_stretch_along(book: Book):
    """Struck before and after: what is left is counted from the line before it."""
    first = note(book, 20)
    note(book, 30)
    book.do("strike", entry=first, reason="typed at the wrong step")
    assert worked(book.state, step(book, "bore")) == pytest.approx(50, abs=0.2)


def test_worked_today_ends_at_midnight(book: Book):
    """Of yesterday nothing counts, nor the night."""
    note(book, 30)
    book.later(12)
    morning = book.now.isoformat()
    note(book, 3)
    note(book, 25)
    assert worked_since(book.state, morning) == pytest.approx(25, abs=0.2)


def test_a_finished_job_gives_the_pace(book: Book):
    """67.5 minutes on a step of 45: one and a half times the book."""
    note(book, 37.5)
    note(book, 30)
    assert ratios_of(book.state) == {}
    book.do("skipped", step="ring", reason="it is done later, on purpose")
    book.do("done", step="bore", reason="it was read on paper before this")
    ((kind, ratios),) = ratios_of(book.state).items()
    assert (kind, len(ratios)) == ("measure", 1)
    assert ratios[0] == pytest.approx(1.5, abs=0.03)


def test_what_was_hardly_measured_gives_no_pace():
    """A step ticked in the evening, long after: it is counted and left out."""
    pace = pace_of("measure", (1.5, 0.01, 30.0))
    assert (pace.jobs, pace.odd) == (1, 2)
    assert first_pace("measure").jobs == 0


def test_ranges_are_rounded_outward(book: Book):
    """45 min at the prior, 0.9 to 2.5: to a quarter of an hour above half an hour, outward."""
    assert range_of(step(book, "bore"), first_pace("measure")) == (30, 68, 120)
    assert range_of(step(book, "ring"), first_pace("measure")) is None
    assert kind_of_work(step(book, "head_in")) == "tighten"
    assert kind_of_work(step(book, "head_out")) == "take down"


def evening(start: int = 19 * 60, end: int = 21 * 60, **more: object) -> Tonight:
    facts = {"people": (), "dark": False, "cold": False, "damp": False, "quiet_from": None}
    return Tonight.model_validate(
        {"day": MONDAY, "start": start, "end": end, "said": True, **facts, **more}
    )


def around(book: Book, tonight: Tonight | None = None, **more: object) -> Around:
    facts = {
        "tonight": tonight or evening(),
        "minute": 19 * 60,
        "gear": {},
        "visits": (),
        "paces": {},
        "today": MONDAY,
        "now": book.time,
        **more,
    }
    return Around(**facts)  # type: ignore[arg-type]


def said(found: Offers, name: str) -> str:
    return next((n.because for n in found.cannot if n.step == name), "possible")


def test_only_what_waits_for_nothing_is_offered(book: Book):
    """Steps behind others are not named at all."""
    found = offers(book.state, around(book))
    names = [offer.step for offer in found.can]
    assert "lead" in names
    assert "crank" not in names


def test_what_frees_most_goes_first(book: Book):
    """Hours that stand behind it and behind nothing else."""
    found = offers(book.state, around(book))
    assert [o.frees for o in found.can] == sorted((o.frees for o in found.can), reverse=True)
    behind = [s.id for s in frees(book.state, "head_out")]
    assert all(s != "head_out" for s in behind)


LIFT = TAKE.replace('id = "shaft_off"\n', 'id = "shaft_off"\nhours = [0.5, 1.0]\n', 1).replace(
    'title = "Case ground"\n', 'title = "Case ground"\ntools = ["angle grinder"]\n', 1
)


@pytest.fixture
def take() -> Book:
    """A build that lifts, needs two people, a grinder and a part."""
    return Book(small_sheet(LIFT), tools())


def ready(take: Book) -> None:
    """Everything before the lift is said not to be there, and what carries the vehicle."""
    take.absent("lead_off", "drained", "cover_off")
    take.on_wheels()


def test_what_the_bench_would_hold_is_not_called_possible(take: Book):
    """A lift of which nobody said what carries it."""
    take.absent("lead_off", "drained", "cover_off")
    two = around(take, evening(people=("RT",)))
    assert said(offers(take.state, two), "shaft_off").startswith("nobody said yet what carries")


def test_two_people_wait_for_a_helper(take: Book, shop: Shop):
    """Nobody asked, asked, coming: each in its own words."""
    ready(take)
    words = lambda: said(  # noqa: E731
        offers(take.state, around(take, visits=visits(shop.state, MONDAY, 14))), "shaft_off"
    )
    assert words() == "2 people, and nobody is asked"
    rt(shop, "asked")
    assert words() == "2 people: RT on Sat 7 Mar is asked"
    rt(shop, "yes")
    assert words() == "2 people: Sat 7 Mar with RT"
    found = offers(take.state, around(take, evening(people=("RT",))))
    assert "shaft_off" in [offer.step for offer in found.can]


def test_no_safe_stop_is_not_offered_past_the_end(take: Book):
    """A lift may take an hour and more of the forty minutes that are left."""
    ready(take)
    late = evening(people=("RT",), end=19 * 60 + 40)
    found = offers(take.state, around(take, late))
    assert said(found, "shaft_off").startswith("it cannot be left half done, and may take ")


def test_a_lift_is_not_put_first_in_the_last_hour_nor_when_tired(take: Book):
    """He may begin it, and Hollet says why it would not."""
    ready(take)
    whole = evening(people=("RT",), end=23 * 60)
    first = {o.step: o.held_back for o in offers(take.state, around(take, whole)).can}
    assert first["shaft_off"] == ""
    tired = around(take, whole, worked_today=250.0)
    found = offers(take.state, tired)
    assert {o.step: o.held_back for o in found.can}["shaft_off"].startswith("a lift: not after")
    assert found.can[-1].step == "shaft_off"


def test_noise_stops_when_it_must_be_quiet(take: Book):
    """A grinder at nine is not possible; laid before, it ends in time."""
    take.absent("cover_off")
    loud = around(take, evening(quiet_from=19 * 60))
    assert said(offers(take.state, loud), "ground") == "it makes noise, and it is quiet now"


@pytest.mark.parametrize(
    ("state", "words"),
    [("broken", "is broken"), ("missing", "is not in the shop"), ("lent", "is lent out")],
)
def test_a_tool_that_is_not_here_holds_its_step(take: Book, state: str, words: str):
    """By its state in the shop; of one that nobody spoke of it is asked."""
    take.absent("cover_off")
    gone = offers(take.state, around(take, gear={"angle grinder": state}))
    assert said(gone, "ground") == f"the angle grinder {words}"
    unsaid = next(o for o in offers(take.state, around(take)).can if o.step == "ground")
    assert unsaid.check == ("angle grinder",)


def test_a_part_that_is_not_free_holds_its_step(book: Book):
    """Wanted, ordered, promised, here: in its words, and never possible before it is free."""
    book.do("part wanted", typed="1 x feeler strip", step="ring", safety="none")
    words = lambda: said(offers(book.state, around(book)), "ring")  # noqa: E731
    assert words() == "feeler strip: to order"
    lines = [{"need": "feeler_strip", "count": 1}]
    book.do("ordered", order="o1", supplier="Rook", promised="in 3 days", lines=lines)
    assert words().startswith("feeler strip: asked, ")
    book.do("parcel came", order="o1")
    assert words() == "feeler strip: here, not compared"
    assert any(o.sort == "compare" for o in offers(book.state, around(book)).can)
    book.do("part taken", need="feeler_strip", order="o1", count=1, how="in_writing", name="MK",
            reason="good enough for this job")  # fmt: skip
    assert words() == "possible"


def test_a_proof_that_waits_for_a_word_is_offered(book: Book):
    """It frees what stands behind the step that needs the part."""
    book.do("part wanted", typed="1 x feeler strip", step="ring", safety="none")
    lines = [{"need": "feeler_strip", "count": 1}]
    book.do("ordered", order="o1", supplier="Rook", state="proof to approve", lines=lines)
    (proof,) = [o for o in offers(book.state, around(book)).can if o.sort == "decide"]
    assert (proof.title, proof.need) == ("feeler strip: approve the proof", "feeler_strip")


def test_a_danger_stands_first_among_what_is_not_possible(take: Book):
    """It is never left out, whatever else there is."""
    take.do("happened", step="cover_off")
    found = offers(take.state, around(take)).cannot
    assert found[0].danger
    assert [n.danger for n in found] == sorted((n.danger for n in found), reverse=True)


def test_no_rung_is_climbed_while_a_step_that_shuts_it_is_open(book: Book):
    """Nor does anything settle before it ran."""
    still = list(plan_of(book.state).step)
    first = {s.id for s in first_by_stage(plan_of(book.state), step(book, "crank"), still)}
    assert {"bore", "head_in"} <= first
    assert "fire" not in first
    settle = {s.id for s in first_by_stage(plan_of(book.state), step(book, "again"), still)}
    assert {"fire", "bore"} <= settle
    assert first_by_stage(plan_of(book.state), step(book, "bore"), still) == ()


def test_the_evening_is_filled_from_the_best(book: Book):
    """One behind the other from now on; what does not fit whole is left out."""
    found = offers(book.state, around(book)).can
    middles = [o.middle for o in found if o.middle is not None]
    slugs = laid_tonight(found, evening(), 19 * 60 + 10)
    assert slugs[0].start == 19 * 60 + 10
    assert all(a.end == b.start for a, b in pairwise(slugs))
    assert slugs[-1].end <= 21 * 60
    assert {s.end - s.start for s in slugs} <= set(middles)
    assert minutes_words(65) == "1 h 05"


def test_times_are_compared_in_utc(book: Book):
    """A moment with an offset is the same moment."""
    note(book, 10)
    local = (book.now - timedelta(minutes=30)).astimezone(UTC)
    assert worked_since(book.state, local.isoformat()) == worked_since(
        book.state, datetime.fromisoformat(local.isoformat()).isoformat()
    )


def test_after_two_years_it_is_said_what_to_look_at_first(book: Book):
    """The battery, who changed the plan, what aged; after a night nothing of it."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    book.later(12)
    assert book_view(book.state, book.time).resume.first == ()
    book.plan("fact", fact="fuel", value="petrol")
    book.plan("fact", fact="standing", value="over a year")
    book.later(24 * 700)
    first = book_view(book.state, book.time).resume.first
    assert first[0] == "700 days without a hand at work"
    assert first[1] == "look whether it is still so: Lead off"
    assert any("MK changed the plan on 2026-03-01" in words for words in first)
    assert any(words.startswith("aged meanwhile, ") for words in first)
    book.do("started", step="ring")
    assert book_view(book.state, book.time).resume.first == ()
