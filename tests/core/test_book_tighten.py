"""Tightening in a build: order, interruption, verdicts on acts, putting right, final states."""

import pytest

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.read import read_sheet
from hollet.core.steps.wrenches import nearest_mark
from tests.support import SMALL, Book, small_sheet, tools

ADAPTER = {"length": "60 mm", "angle": "0"}


@pytest.fixture(autouse=True)
def begun(book: Book) -> None:
    """The head closes the bore, which these mechanics measured elsewhere and say so."""
    book.do("started", step="head_in", reason="bore measured at the shop")


@pytest.fixture
def ready(book: Book) -> Book:
    """The head with wrench W1 chosen."""
    book.wrench()
    return book


def stage(book: Book) -> tuple:
    """Next bolt and stage."""
    return book.joint().next_bolt, book.joint().next_stage


def whole_stage(book: Book) -> None:
    """Click every bolt of the stage under way."""
    for _ in range(6):
        book.click(book.joint().next_bolt)


def test_bolts_come_in_order_and_stages_follow(ready: Book):
    """Bolt 1 to 6 at stage 1, then again from bolt 1 at stage 2."""
    seen = []
    for _ in range(7):
        seen.append(stage(ready))
        ready.click(ready.joint().next_bolt)
    assert seen == [(1, 1), (2, 1), (3, 1), (4, 1), (5, 1), (6, 1), (1, 2)]


def test_setting_with_adapter(ready: Book):
    """25 × 420 ÷ 480 = 21.875, nearest mark 22, and the bolt gets 22 × 480 ÷ 420 = 25.14."""
    ready.wrench(adapter=ADAPTER)
    setting = ready.bench("head_in").setting
    assert (setting.figure, setting.set_to) == ("22", 22)
    assert setting.gets == pytest.approx(25.142857)
    assert setting.working[0] == "25 × 420 ÷ 480 = 21.9"
    assert setting.judgement.verdict == "inside"
    body = ready.click(1).body
    assert (body.asked.value, body.set_to.value, body.tolerance_percent) == ("25", "22", 5.0)


@pytest.mark.parametrize(
    ("value", "grid", "mark"),
    [
        (21.875, 1, 22),
        (21.5, 1, 22),
        (21.49, 1, 21),
        (12.2, 0.5, 12.0),
        (12.25, 0.5, 12.5),
        (7, 0, 7),
    ],
)
def test_nearest_mark(value, grid, mark):
    """The nearest graduation, halves up."""
    assert nearest_mark(value, grid) == mark


def test_click_without_a_wrench_is_refused(book: Book):
    """Nothing is torqued by nothing."""
    with pytest.raises(Refused) as refusal:
        book.click(1)
    assert refusal.value.reason_code == "wrench_unfit"


def test_wrench_out_of_its_range_is_refused_with_the_reason(book: Book):
    """50 N·m on a wrench to 25: refused, but the bolt can be logged snug."""
    book.wrench("w2")
    whole_stage_clicks = [book.click(b) for b in range(1, 7)]
    assert len(whole_stage_clicks) == 6
    with pytest.raises(Refused) as refusal:
        book.click(1)
    assert "20 to 100 %" in refusal.value.message
    book.do("fastener", step="head_in", bolt=1, act="state", tightness="snug")
    assert book.joint().bolts[0].tightness == "snug"


def test_wide_wrench_needs_a_reason_once(book: Book):
    """±6 % against ±5 %: another wrench, or go on with a reason."""
    book.wrench("w3")
    assert book.bench("head_in").wide == "W3 holds ±6 %, the joint asks ±5 %"
    with pytest.raises(Refused) as refusal:
        book.click(1)
    assert refusal.value.reason_code == "wrench_wide"
    book.wrench("w3", reason="the other one is lent out")
    book.click(1)
    assert book.bench("head_in").wide is None


def test_a_micrometer_is_no_wrench(book: Book):
    """Only a wrench can be chosen."""
    with pytest.raises(Refused) as refusal:
        book.wrench("m1")
    assert refusal.value.reason_code == "wrench_unfit"


def test_click_at_another_figure_is_outside_and_does_not_stop_the_stage(ready: Book):
    """The wrench stood at 28: over by 1.8; the stage goes on, the next one waits."""
    ready.click(1)
    ready.click(2, typed="28")
    facts = ready.joint()
    assert (facts.bolts[1].verdict, facts.bolts[1].side, facts.bolts[1].gets) == (
        "outside",
        "high",
        "28.0",
    )
    assert stage(ready) == (3, 1)
    assert facts.put_right == ("Take it out and begin again with it",)
    for bolt in (3, 4, 5, 6):
        ready.click(bolt)
    assert stage(ready) == (None, None)
    assert "stage 2 waits until bolt 2" in ready.joint().waits
    with pytest.raises(Refused) as refusal:
        ready.click(1, stage=2)
    assert refusal.value.reason_code == "stage_waits"


def test_putting_right_lets_the_next_stage_start(ready: Book):
    """Pulled again inside, the next stage starts; the first act stays in the log."""
    for bolt in range(1, 7):
        ready.click(bolt, **({"typed": "20"} if bolt == 3 else {}))
    assert ready.joint().bolts[2].side == "low"
    assert "does not say" in ready.joint().put_right[0]
    ready.click(3, stage=1)
    assert stage(ready) == (1, 2)
    assert len(ready.state.live("joint", "head")) == 8


def test_passing_over_needs_a_reason(ready: Book):
    """A bolt left as it is lets the stage go on, and stays marked as passed over."""
    for bolt in range(1, 7):
        ready.click(bolt, **({"typed": "28"} if bolt == 2 else {}))
    with pytest.raises(Refused) as refusal:
        ready.do("decision", step="head_in", about="pass_over", bolt=2, stage=1)
    assert refusal.value.reason_code == "no_reason"
    ready.do(
        "decision",
        step="head_in",
        about="pass_over",
        bolt=2,
        stage=1,
        reason="below the next stage anyhow",
    )
    assert stage(ready) == (1, 2)
    assert ready.joint().bolts[1].passed_over


def test_two_screens_at_once(ready: Book):
    """A bolt that another screen has already pulled is a conflict, not a second pull."""
    ready.click(1)
    ready.click(2)
    with pytest.raises(Conflict) as conflict:
        ready.click(5)
    assert "next is bolt 3, stage 1" in conflict.value.message
    assert stage(ready) == (3, 1)


def test_angle_stage_and_final(ready: Book):
    """Torque, torque, angle: then final, and the step can be done."""
    ready.do("done", step="bore", reason="measured elsewhere")
    for _ in range(3):
        whole_stage(ready)
    facts = ready.joint()
    assert facts.final
    assert {b.tightness for b in facts.bolts} == {"torqued stage 3"}
    assert facts.progress == "all 6 at stage 3, 0 not final"
    assert ready.left() == []
    ready.do("done", step="head_in")
    assert ready.bench("head_in").base.status.status == "done"


def test_marking_is_part_of_final():
    """Where the joint asks for a mark it is not final before each bolt has one."""
    text = SMALL.replace('fastener = "6 x M10"', 'fastener = "6 x M10"\nmark = true')
    book = Book(small_sheet(text), tools())
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.wrench()
    for _ in range(3):
        whole_stage(book)
    assert book.joint().to_mark
    assert not book.joint().final
    for bolt in range(1, 7):
        book.do("fastener", step="head_in", bolt=bolt, act="marked")
    assert book.joint().final


def test_loosened_again_starts_over(ready: Book):
    """A bolt loosened again has no stage any more; the joint is begun and not final."""
    whole_stage(ready)
    ready.do("fastener", step="head_in", bolt=4, act="state", tightness="loosened again")
    assert stage(ready) == (4, 1)
    assert ready.left() == ["Head bolts, 5 of 6 at stage 1"]


def test_left_open_is_one_line_for_a_joint(ready: Book):
    """A joint begun and not final counts as one, with its rung."""
    ready.click(1)
    ready.click(2)
    assert ready.left() == ["Head bolts, 2 of 6 at stage 1"]
    assert ready.open()["joint:head"] == "crank"
    assert "step:head_in" not in ready.open()


def test_as_found_is_final_and_out_is_not_begun(ready: Book):
    """As found counts as final; a joint taken out is not begun until somebody starts it."""
    assert all(b.final for b in ready.joint().bolts)
    ready.absent("lead")
    ready.do("done", step="head_out")
    assert {b.tightness for b in ready.joint().bolts} == {"out"}
    assert ready.left() == []
    ready.do("fastener", step="head_in", bolt=1, act="state", tightness="by hand")
    assert ready.left() == ["Head bolts, 6 of 6 loose"]


def test_cinched_joint_is_final_when_cinched(book: Book):
    """Where cinched is final no torque is needed."""
    for bolt in range(1, 7):
        book.do("fastener", step="cover_on", bolt=bolt, act="state", tightness="cinched")
    assert book.joint("cover").final
    book.do("done", step="cover_on")


def test_tolerance_without_source_is_assumed(book: Book):
    """±10 %, marked assumed, also in what is written."""
    book.wrench("w1", step="cover_on")
    facts = book.joint("cover")
    assert (facts.tolerance, facts.tolerance_assumed) == (10.0, True)
    assert book.bench("cover_on").wrenches[0].holds
    assert facts.next_bolt == 1  # a joint that is final when it is cinched is led like any other
    body = book.do("fastener", step="cover_on", bolt=1, act="read", stage=1, typed="31 Nm").body
    assert (body.tolerance_percent, body.tolerance_assumed) == (10.0, True)


@pytest.mark.parametrize(
    ("typed", "verdict"),
    [
        ("25 Nm", "inside"),
        ("26.2 Nm", "too_close"),
        ("18 ft-lb", "inside"),
        ("30", "outside"),
        ("20", "outside"),
    ],
)
def test_indicating_wrench_is_a_reading(book: Book, typed: str, verdict: str):
    """Typed values of an indicating wrench get the three verdicts, in any unit."""
    book.shop["w5"] = book.shop["w4"].model_copy(
        update={"id": "w5", "mpe_percent": "1", "s": "0.1", "resolution": "0.1"}
    )
    book.wrench("w5")
    book.do("fastener", step="head_in", bolt=1, act="read", typed=typed)
    assert book.joint().bolts[0].verdict == verdict


def test_a_wide_wrench_cannot_prove_a_narrow_tolerance(book: Book):
    """An indicating wrench of ±4 % reads exactly what was asked, and still cannot prove ±5 %."""
    book.wrench("w4")
    book.do("fastener", step="head_in", bolt=1, act="read", typed="25 Nm")
    assert book.joint().bolts[0].verdict == "too_close"


@pytest.mark.parametrize(
    ("edit", "code"),
    [
        ({"act": "read", "typed": "-5 Nm"}, "odd_figure"),
        ({"act": "read", "typed": "5 mm"}, "dimension_mismatch"),
        ({"act": "state"}, "bad_entry"),
        ({"act": "state", "tightness": "torqued"}, "bad_entry"),
    ],
)
def test_bad_acts(ready: Book, edit: dict, code: str):
    """A negative torque is asked about; a length and a state that is none are refused."""
    with pytest.raises(Refused) as refusal:
        ready.do("fastener", step="head_in", bolt=1, **edit)
    assert refusal.value.reason_code == code


def test_unknown_bolt_or_joint(ready: Book):
    """Bolt 7 of six, and a step without a joint."""
    with pytest.raises(NotFound):
        ready.click(7)
    with pytest.raises(NotFound):
        ready.do("fastener", step="bore", bolt=1, act="clicked")


def test_a_figure_edited_later_judges_every_bolt_anew(ready: Book):
    """What was done stays: the bolt got 25, and 25 was asked. It is too little now, so it is pulled
    again and not final; nobody pulls the next one first.
    """
    ready.click(1)
    ready.plan(
        "joint",
        joint="head",
        version=1,
        stage=["35 Nm", "50 Nm", "90 deg"],
        tolerance="5 %",
        source="book p. 4",
    )
    bolt = ready.joint().bolts[0]
    assert (bolt.verdict, bolt.side, bolt.todo) == ("outside", "low", "again")
    assert bolt.words.endswith("25 was asked then")
    assert ready.joint().stages[0].figure == "35"


@pytest.mark.parametrize(
    ("stage", "verdict", "todo"),
    [
        ("40 Nm", "outside", "again"),
        ("20 Nm", "outside", "out"),  # it got too much: over, as if it were pulled so
        ("31 Nm", "inside", None),
        ("longer by 0.16 mm", "too_close", "again"),
        ("90 deg", "too_close", "again"),
    ],
)
def test_a_joint_that_was_final_is_judged_by_the_new_figure(stage: str, verdict: str, todo):
    """Six bolts at 30 Nm within ten percent, final; then the figure was another. It said *final*
    for all of them.
    """
    plain = 'stage = [{ torque = "30 Nm" }]\nfastener = "6 x M8"'
    book = Book(small_sheet(SMALL.replace(f'{plain}\nfinal = "cinched"', plain)), tools())
    book.wrench("w1", step="cover_on")
    for bolt in range(1, 7):
        book.do("fastener", step="cover_on", bolt=bolt, act="clicked")
    assert book.joint("cover").final
    book.plan("joint", joint="cover", version=1, stage=[stage], source="book p. 7")
    bolt = book.joint("cover").bolts[0]
    assert (bolt.verdict, bolt.todo) == (verdict, todo)
    assert book.joint("cover").final == (verdict == "inside")


def test_resume_says_where(ready: Book):
    """The frame names bolt and stage, and what is loose."""
    ready.click(1)
    ready.click(2)
    resume = ready.view().resume
    assert resume.title == "You stopped at bolt 3, stage 1"
    assert resume.line.startswith("Bolts 1 to 2 have stage 1.")
    assert "Head bolts, 2 of 6" in resume.loose


def test_explicit_order_is_used():
    """An order given by the sheet beats the generator."""
    text = SMALL.replace(
        'pattern = "crosswise"', 'pattern = "order"\norder = ["A1", "A2", "A3", "B1", "B2", "B3"]'
    )
    import tomllib

    sheet = read_sheet(tomllib.loads(text), text)
    assert [b.place for b in Book(sheet, tools()).joint().bolts] == [
        "A1",
        "A2",
        "A3",
        "B1",
        "B2",
        "B3",
    ]


def test_a_bolt_really_pulled_out_of_order_is_written_when_said_so(ready: Book):
    """Bolt 3 before bolt 1 is asked about; written, bolt 1 is still next and bolt 3 is passed by
    later.
    """
    with pytest.raises(Conflict):
        ready.click(3)
    ready.click(3, sure=True, note="out of order")
    assert stage(ready) == (1, 1)
    ready.click(1)
    ready.click(2)
    assert stage(ready) == (4, 1)
    with pytest.raises(Conflict):
        ready.click(4, stage=2, sure=True)


def test_the_last_bolt_can_be_checked_again_but_not_after_an_angle(ready: Book):
    """The bolt pulled last is named while it has a torque only."""
    assert ready.joint().last_bolt is None
    ready.click(1)
    assert ready.joint().last_bolt == 1
    ready.click(1, stage=1, note="checked again")
    assert stage(ready) == (2, 1)
    for _ in range(12):
        ready.click(ready.joint().next_bolt)
    assert stage(ready) == (2, 3)
    assert ready.joint().last_bolt is None


def test_the_last_stage_waits_for_its_condition_and_final_for_its_recheck():
    """Final tightening with the weight on; until that is confirmed no bolt is next.

    Later the joint is due for recheck.
    """
    text = SMALL.replace(
        'final = "cinched"', 'wait_for = "weight on the wheels"\nrecheck = "again"'
    ).replace(
        'stage = [{ torque = "30 Nm" }]', 'stage = [{ torque = "10 Nm" }, { torque = "30 Nm" }]'
    )
    book = Book(small_sheet(text), tools())
    book.wrench("w2", step="cover_on")
    for bolt in range(1, 7):
        book.do("fastener", step="cover_on", bolt=bolt, act="clicked")
    waiting = book.joint("cover")
    assert (waiting.next_bolt, waiting.condition, waiting.waits) == (
        None,
        "weight on the wheels",
        "the last stage waits: weight on the wheels",
    )
    assert all(bolt.waits for bolt in waiting.bolts)
    book.do("confirmed", step="cover_on", what="weight on the wheels")
    assert book.joint("cover").next_bolt == 1
    book.wrench("w1", step="cover_on")
    for _ in range(6):
        book.do("fastener", step="cover_on", bolt=book.joint("cover").next_bolt, act="clicked")
    done = book.joint("cover")
    assert (done.final, done.final_words) == (True, "torqued at stage 2, weight on the wheels")
    assert all(bolt.recheck for bolt in done.bolts)
    book.do("done", step="again")
    assert not any(bolt.recheck for bolt in book.joint("cover").bolts)


def test_how_far_a_joint_is(ready: Book):
    """Counted at the highest stage reached: "all" only when it is the last one."""
    assert ready.joint().progress == "6 as found"
    ready.click(1)
    assert ready.joint().progress == "1 of 6 at stage 1"
    for bolt in range(2, 7):
        ready.click(bolt)
    assert ready.joint().progress == "6 of 6 at stage 1"
    ready.click(1)
    assert ready.joint().progress == "1 of 6 at stage 2"
