"""What a wrench or a gauge sends, as the core takes it: for the bolt that is next, once, from no
other tool than the one in hand.
"""

import pytest

from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, Refused
from hollet.core.quantities.quantity import Quantity
from hollet.core.sent import SentPull, SentValue
from hollet.core.steps.bolt import act_verdict, is_out
from tests.core.test_pulls import ramp
from tests.support import Book, small_sheet, tool, tools

FILE = "a" * 64
WIND_50 = (2.5, 20.0)
"""The wrench gives until the bolt moves at 50, what it has from stage 2."""


class Sends(Book):
    """A build whose head is pulled with W6, which speaks for itself."""

    def __init__(self) -> None:
        w6 = tool(
            "w6",
            "indicating wrench",
            dimension="torque",
            unit="N·m",
            resolution="0.1",
            mpe_percent="2",
            s="0.3",
            grip_mm="480",
            lo="10",
            hi="200",
        ).model_copy(update={"device": "D6"})
        m1 = tools()["m1"].model_copy(update={"device": "DM"})
        super().__init__(small_sheet(), {**tools(), "w6": w6, "m1": m1})
        self.do("started", step="head_in", reason="bore measured at the shop")
        self.wrench("w6")

    def hears(self, value: str, unit: str = "N·m", **own) -> str:
        """Something is sent; returns its event."""
        event = f"event-{len(self.sent) + 101}"
        known = {"device": "D6", "tool": "w6", "raw": "{}", "heard": self.time}
        self.sent[event] = SentValue(
            id=event, value=Quantity(value=value, unit=unit), **{**known, **own}
        )
        return event

    def pulls(self, value: str, legs=None, **own):
        """A pull is sent and taken for the bolt that is next."""
        trace = SentPull(*map(tuple, ramp(*legs)), FILE, own.pop("lost", False)) if legs else None
        bolt = own.pop("bolt", None)
        event = self.hears(value, pull=trace, **own)
        return self.do("sent pull", step="head_in", event=event, bolt=bolt)


@pytest.fixture
def sends() -> Sends:
    """The wrench is in hand."""
    return Sends()


@pytest.fixture
def angled(sends: Sends) -> Sends:
    """All six bolts have their 50: the angle is next."""
    for value in ["25.1"] * 6 + ["50.2"] * 6:
        sends.pulls(value)
    return sends


def test_a_pull_goes_to_the_bolt_that_is_next_with_its_evidence(sends: Sends):
    """25.1 of 25 ± 5 %, read by a wrench of ± 2 %: inside, and the raw line lies beside it."""
    body = sends.pulls("25.1").body
    assert (body.bolt, body.stage, body.act, body.typed) == (1, 1, "sent", "25.1 N·m")
    assert (body.sent.device, body.sent.event, body.sent.raw) == ("D6", "event-101", "{}")
    facts = sends.joint()
    assert (facts.next_bolt, facts.bolts[0].verdict) == (2, "inside")


def test_a_pull_over_its_torque_is_outside(sends: Sends):
    sends.pulls("29.0")
    bolt = sends.joint().bolts[0]
    assert (bolt.verdict, bolt.over, bolt.todo) == ("outside", True, "out")


def test_what_was_sent_is_taken_once(sends: Sends):
    """The same event on a second screen is no second pull; struck, it may go to another bolt."""
    line = sends.pulls("25.1")
    with pytest.raises(Conflict):
        sends.do("sent pull", step="head_in", event="event-101")
    sends.do("strike", entry=line.id, reason="it was bolt 2")
    assert sends.do("sent pull", step="head_in", event="event-101", bolt=1).body.bolt == 1


@pytest.mark.parametrize(
    ("own", "code"),
    [
        ({"tool": "w1"}, "other_wrench"),
        ({"tool": None}, "unknown_device"),
        ({"trouble": "its battery is empty"}, "not_taken"),
        ({"unit": "mm"}, "bad_number"),
    ],
)
def test_what_cannot_be_taken_is_said(sends: Sends, own, code):
    event = sends.hears("25.1", **own)
    head = sends.state.head
    with pytest.raises(Refused) as refusal:
        sends.do("sent pull", step="head_in", event=event)
    assert refusal.value.reason_code in (code, "dimension_mismatch", "unit_mismatch")
    assert sends.state.head == head
    sends.refuse("sent_gone", "sent pull", step="head_in", event="event-999")


def test_a_pull_that_is_older_than_the_newest_bolt_asks_whose_it_was(sends: Sends):
    """Somebody wrote bolt 1 by hand after the wrench had sent: it may be the very same pull."""
    event = sends.hears("25.1")
    sends.do("fastener", step="head_in", bolt=1, act="read", typed="25")
    with pytest.raises(Conflict):
        sends.do("sent pull", step="head_in", event=event)


def test_a_bolt_written_while_it_is_pulled_is_not_the_next_one_too(sends: Sends):
    """The wrench is at 25, the press says so, then the hand lets go and the wrench sends."""
    began = sends.time
    sends.do("fastener", step="head_in", bolt=1, act="read", typed="25")
    event = sends.hears("25.1", heard="2026-03-01T09:00:00Z", began=began)
    with pytest.raises(Conflict):
        sends.do("sent pull", step="head_in", event=event)
    assert sends.joint().next_bolt == 2


def test_a_pull_of_another_bolt_counts_for_that_one_at_the_stage_in_hand(sends: Sends):
    for value in ["25.1"] * 6:
        sends.pulls(value)
    assert (body := sends.pulls("50.3", bolt=4).body).stage == 2
    assert (body.bolt, sends.joint().bolts[3].verdict, sends.joint().next_bolt) == (4, "inside", 1)
    again = sends.pulls("50.4", bolt=4).body
    assert (again.bolt, again.stage) == (4, 2)


def test_a_second_stroke_is_asked_whose_it_was(angled: Sends):
    """41 of 90, then 49: pulled on, or the next bolt? Neither is guessed; told, it is 90 in all."""
    angled.pulls("80", [WIND_50, (41, 0.75)])
    assert angled.joint().bolts[0].verdict == "outside"
    trace = SentPull(*map(tuple, ramp((4.0, 20.0), (49, 0.75))), FILE, lost=False)
    event = angled.hears("117", pull=trace)
    angled.refuse("whose", "sent pull", step="head_in", event=event)
    assert angled.joint().bolts[1].stage == 2
    body = angled.do("sent pull", step="head_in", event=event, bolt=1).body
    assert float(body.gets.value) > 85.5
    low = angled.joint().bolts[0]
    assert (low.verdict, angled.joint().next_bolt) == ("inside", 2)


def test_what_one_joint_or_reading_took_no_other_takes(sends: Sends):
    event = sends.hears("84.003", "mm", device="DM", tool="m1")
    said = {"step": "bore", "instrument": "m1", "events": (event,), "sure": True}
    sends.do("sent reading", reading="piston", **said)
    with pytest.raises(Conflict):
        sends.do("sent reading", reading="cylinder", **{**said, "instrument": "m1"})


def test_two_pulls_a_second_apart_both_count(sends: Sends):
    """Both were heard before the first was written."""
    first, second = sends.hears("25.1"), sends.hears("25.3")
    for event in (first, second):
        sends.do("sent pull", step="head_in", event=event)
    assert [b.gets for b in sends.joint().bolts[:2]] == ["25.1", "25.3"]


def test_an_angle_is_counted_from_where_the_bolt_moved(angled: Sends):
    """From 47.5, 95 % of what it has: 0.125° of winding up, then 88°."""
    body = angled.pulls("116", [WIND_50, (88, 0.75)]).body
    assert float(body.gets.value) == pytest.approx(88.1, abs=0.15)
    assert (body.trace.verdict, body.traced) == ("ok", FILE)
    assert angled.joint().bolts[0].verdict == "inside"  # ± 5 % of 90: 85.5 to 94.5


def test_a_bolt_that_yields_is_out_and_holds_the_others(angled: Sends):
    """Inside by its angle, and yet it does not come back; a fresh one begins at stage 1."""
    body = angled.pulls("100", [WIND_50, (63, 0.75), (25, 0.2)]).body
    assert body.trace.verdict == "yield"
    assert float(body.trace.at.value) == pytest.approx(63, abs=3)
    facts = angled.joint()
    assert (facts.bolts[0].verdict, facts.bolts[0].broken, facts.bolts[0].todo) == (
        "outside",
        True,
        "out",
    )
    assert facts.next_bolt is None
    assert "bolt 1 yields" in facts.waits
    angled.refuse("stage_waits", "sent pull", step="head_in", event=angled.hears("110"))
    angled.do("fastener", step="head_in", bolt=1, act="state", tightness="out")
    angled.refuse("over", "fastener", step="head_in", bolt=1, act="read", typed="25")
    angled.do("fastener", step="head_in", bolt=1, act="fresh")
    assert (angled.joint().next_bolt, angled.joint().next_stage) == (1, 1)


def test_a_bolt_that_yielded_does_not_come_back_with_the_joint(angled: Sends):
    """The whole head comes off again: the bolt in the tray is still the one that yielded."""
    angled.pulls("100", [WIND_50, (63, 0.75), (25, 0.2)])
    angled.absent("lead")
    angled.do("done", step="head_out", reason="the gasket was laid the wrong way")
    assert angled.joint().bolts[0].broken
    assert angled.joint().bolts[1].broken is False
    angled.refuse("over", "fastener", step="head_in", bolt=1, act="read", stage=1, typed="25")
    angled.do("fastener", step="head_in", bolt=1, act="fresh")
    angled.do("fastener", step="head_in", bolt=1, act="read", stage=1, typed="25")
    assert angled.joint().bolts[0].verdict == "inside"


@pytest.mark.parametrize(
    ("legs", "own", "words"),
    [
        ([WIND_50, (40, 0.75), (48, -0.3)], {}, "its torque falls"),
        ([WIND_50, (40, 0.75), (48, 2.2)], {}, "climbs steeply"),
        ([WIND_50, (88, 0.75)], {"lost": True}, "not seen whole"),
    ],
)
def test_what_a_trace_shows_is_never_inside(angled: Sends, legs, own, words):
    line = angled.pulls("110", legs, **own)
    bolt = angled.joint().bolts[0]
    assert bolt.verdict in ("outside", "too_close")
    assert not bolt.final
    assert words in bolt.words
    assert words in line.body.line("")


def test_a_pull_with_a_trouble_has_happened_and_proves_nothing(angled: Sends):
    """Unplugged in the middle, at more than was asked: over is over; a right one is too close."""
    cut = "W6 was cut off in the middle of a pull"
    body = angled.pulls("116", [WIND_50, (88, 0.75)], trouble=cut).body
    assert body.note == cut
    assert angled.joint().bolts[0].verdict == "too_close"
    angled.pulls("130", [WIND_50, (120, 0.75)], trouble=cut)
    assert angled.joint().bolts[1].verdict == "outside"


def test_a_trace_behind_an_adapter_is_the_torque_at_the_bolt(angled: Sends):
    """60 mm on 480: what the wrench shows as 46 is 51.75 at the bolt, and begins to move there."""
    angled.wrench("w6", adapter={"length": "60 mm", "angle": "0"})
    body = angled.pulls("90", [(2.3, 20.0), (88, 0.6)]).body
    assert float(body.trace.peak.value) == pytest.approx((46 + 88 * 0.6) * 540 / 480, abs=0.3)
    assert float(body.gets.value) == pytest.approx(88, abs=0.5)


def test_a_joint_that_is_drawn_to_yield_may_yield_and_may_not_strip(angled: Sends):
    joint = plan_of(angled.state).find_joint("head")
    drawn = joint.model_copy(update={"to_yield": True})
    yields = angled.pulls("100", [WIND_50, (63, 0.75), (25, 0.2)])

    assert not is_out(drawn, yields.body)
    assert act_verdict(drawn, yields).verdict == "inside"
    strips = yields.body.trace.model_copy(update={"verdict": "torque_falling"})
    assert is_out(drawn, yields.body.model_copy(update={"trace": strips}))


def test_a_pull_that_did_not_move_the_bolt_turned_nothing(angled: Sends):
    event = angled.hears("44", pull=SentPull(*map(tuple, ramp((2.2, 20.0))), FILE, lost=False))
    angled.refuse("not_turned", "sent pull", step="head_in", event=event)
    angled.refuse("no_angle", "sent pull", step="head_in", event=angled.hears("44"))


def test_an_adapter_changes_what_a_read_wrench_means(sends: Sends):
    """25 shown with 60 mm on 480 is 25 × 540 ÷ 480 = 28.1 at the bolt: over, and not inside."""
    sends.wrench("w6", adapter={"length": "60 mm", "angle": "0"})
    body = sends.pulls("25.0").body
    assert float(body.gets.value) == pytest.approx(28.125)
    assert sends.joint().bolts[0].verdict == "outside"


def test_a_reading_is_its_tools_own(sends: Sends):
    """84.003 from M1 by its button: typed as it was sent, with the line beside it."""
    event = sends.hears("84.003", "mm", device="DM", tool="m1")
    said = {"step": "bore", "reading": "piston", "instrument": "m1"}
    body = sends.do("sent reading", events=(event,), **said, sure=True).body
    assert (body.typed, body.unit, body.sent[0].device) == (("84.003",), "mm", "DM")
    with pytest.raises(Conflict):
        sends.do("sent reading", events=(event,), **said)
    other = sends.hears("83.99", "mm", device="DX", tool="c1")
    sends.refuse("other_tool", "sent reading", events=(other,), **said)
    inch = sends.hears("3.3071", "in", device="DM", tool="m1")
    sends.refuse("other_unit", "sent reading", events=(inch,), **said)
    twice = sends.hears("83.961", "mm", device="DM", tool="m1")
    sends.refuse("sent_twice", "sent reading", events=(twice, twice), **said)
