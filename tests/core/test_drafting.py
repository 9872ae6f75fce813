"""Acts on a plan: what they change, what is refused and why; last chances, agreements, hunt list,
limit book.
"""

import pytest

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.drafting import draft
from hollet.screens.difference import difference
from hollet.screens.limitbook import limit_book
from hollet.screens.plan_questions import Gear
from hollet.screens.plandesk import hunt_of, plan_view
from tests.core.test_plan import WAYS, ways_sheet
from tests.support import ACT, SMALL, Book, small_sheet, tools

CHANCES = """
[[agreement]]
id = "teeth"
name = "Flywheel and starter"
step = "cover_on"
because = "the pinion must mesh"
part = [{ id = "flywheel", name = "flywheel", option = ["fine", "coarse"] },
  { id = "starter", name = "starter", option = ["fine", "coarse"] }]
allowed = [["fine", "fine"], ["coarse", "coarse"]]

[[joint]]
id = "plate"
name = "Plate bolts"
layout = { kind = "circle", n = 4 }
pattern = "star"
stage = [{}]
fastener = "4 x M10"
thread = "M10×1.5"
grade = "8.8"

[[step]]
id = "plate_on"
stage = "fit_in"
kind = "tighten"
title = "Plate on"
do = "On."
joint = "plate"
tools = ["Hoist", "mandrel"]
people = [{ role = "at the hoist", does = "lifts" }, { role = "at the plate", does = "guides" }]
last_chance = [{ thing = "Dowel", because = "the plate covers it" },
  { thing = "Oil in", because = "no room", step = "oil_in2" },
  { thing = "Bore", because = "shut", step = "bore" }]

[[step]]
id = "oil_in2"
stage = "fit_in"
kind = "check"
title = "Rag out"
do = "Out."
"""


@pytest.fixture
def planned() -> Book:
    """A build with choices, windows, an agreement and a joint without figures."""
    return Book(ways_sheet(CHANCES), tools())


def rows(book: Book) -> dict:
    """Rows of the plan desk by id."""
    return {row.id: row for row in plan_view(book.state, Gear()).rows}


def refuse(book: Book, **act) -> Refused:
    """The refusal of an act."""
    with pytest.raises(Refused) as refusal:
        book.plan(**act)
    return refusal.value


def test_a_fact_selects_again_and_the_difference_is_told_first(planned: Book):
    """No winch: one step goes out, hours and hunt list move; nothing is changed by looking."""
    act = ACT.validate_python({"act": "fact", "fact": "winch", "value": "no"})
    found = difference(planned.state, draft(planned.state.whole, act, set(), "MK"), Gear())
    assert found.steps_out == ("2.03 Winch off: Winch on the bumper: no",)
    assert "winch_off" in rows(planned)
    assert (found.hunt_before, found.hunt_after) == (
        len(hunt_of(planned.state, Gear())),
        len(hunt_of(planned.state, Gear())) - 1,
    )
    planned.plan("fact", fact="winch", value="no")
    assert "winch_off" not in rows(planned)


def test_a_fact_changed_after_its_step_was_done_keeps_what_is_open(planned: Book):
    """The step leaves the plan, its lines stay, and what it left open stays in the ledger."""
    planned.do("left open", step="winch_off", item="wire", what="Winch wire tied up")
    planned.do("done", step="winch_off")
    act = ACT.validate_python({"act": "fact", "fact": "winch", "value": "no"})
    assert difference(
        planned.state, draft(planned.state.whole, act, {"winch_off"}, "MK"), Gear()
    ).standing == ("2.03 Winch off",)
    planned.plan("fact", fact="winch", value="no")
    assert "Winch wire tied up" in planned.left()
    assert [line.step_number for line in planned.view().written][-3:-1] == [
        "no longer in the plan"
    ] * 2


def test_a_way_can_be_changed_until_its_first_step_is_done(planned: Book):
    """Up, then down; once a step of the way in force is done it is refused by name."""
    planned.plan("way", school="way_out", way="down", reason="low roof")
    assert "stands_high" in rows(planned)
    planned.do("done", step="stands_high")
    refusal = refuse(planned, act="way", school="way_out", way="up")
    assert refusal.reason_code == "way_begun"
    assert "High stands" in refusal.message


@pytest.mark.parametrize(
    ("act", "code"),
    [
        ({"act": "fact", "fact": "year", "value": "ninety"}, "no_such_value"),
        ({"act": "fact", "fact": "drive", "value": "six"}, "no_such_value"),
        ({"act": "way", "school": "way_out", "way": "over"}, "no_such_value"),
        ({"act": "part", "part": "starter", "option": "none"}, "no_such_value"),
        (
            {"act": "reason", "step": "lead", "waits_for": "head_in", "because": "x"},
            "contradiction",
        ),
        ({"act": "move", "step": "head_out", "behind": None}, "contradiction"),
        ({"act": "move", "step": "lead", "behind": "head_in"}, "bad_entry"),
        ({"act": "retire", "step": "lead", "back": True}, "bad_entry"),
        ({"act": "limit", "limit": "oil", "version": 1, "lo": "5", "hi": "4"}, "limits_reversed"),
        ({"act": "joint", "joint": "plate", "version": 1, "stage": ["-5 Nm"]}, "bad_number"),
        ({"act": "joint", "joint": "plate", "version": 1, "stage": ["5 mm"]}, "dimension_mismatch"),
        (
            {"act": "put_in", "title": "X", "do": "x", "stage": "wake", "behind": "lead"},
            "bad_entry",
        ),
    ],
)
def test_refusals(planned: Book, act, code):
    """Each with its own code and a sentence; the plan stays as it was."""
    before = planned.state.whole
    refusal = refuse(planned, **act)
    assert refusal.reason_code == code
    assert len(refusal.message) > 20
    assert planned.state.whole is before


@pytest.mark.parametrize(
    "act",
    [
        {"act": "fact", "fact": "colour"},
        {"act": "way", "school": "x", "way": "up"},
        {"act": "extra", "extra": "x", "wanted": True},
        {"act": "part", "part": "x"},
        {"act": "move", "step": "x"},
        {"act": "limit", "limit": "x", "version": 1},
        {"act": "joint", "joint": "x", "version": 1, "stage": ["5 Nm"]},
        {"act": "reason", "step": "lead", "waits_for": "ring"},
    ],
)
def test_acts_on_nothing(planned: Book, act):
    """What does not exist is said so."""
    with pytest.raises(NotFound):
        planned.plan(**act)


def test_a_circle_made_by_a_reason_is_named_with_its_chain(planned: Book):
    """Both reasons stand in the sentence."""
    refusal = refuse(
        planned, act="reason", step="lead", waits_for="head_out", because="it hides it"
    )
    assert "2.01 Lead off waits for 2.02 Head bolts out waits for 2.01 Lead off" in refusal.message
    assert "it hides it; it is live" in refusal.message


def test_a_forgotten_step_takes_a_letter_and_its_place(planned: Book):
    """Put in behind 2.01 it is 2.01a, the next 2.01b; first of its stage 2.00a; numbers once
    written never change.
    """
    numbers = {row.id: row.number for row in rows(planned).values()}
    planned.plan(
        "put_in",
        title="Strap off",
        do="Off.",
        stage="take_down",
        behind="lead",
        before=[{"step": "head_out", "because": "it tears"}],
    )
    planned.plan("put_in", title="Strap off", do="Off.", stage="take_down", behind="lead")
    planned.plan("put_in", title="Photo", do="One.", stage="take_down")
    found = rows(planned)
    assert (found["strap_off"].number, found["strap_off_2"].number, found["photo"].number) == (
        "2.01a",
        "2.01b",
        "2.00a",
    )
    assert {i: r.number for i, r in found.items() if i in numbers} == numbers
    assert [a.because for a in found["head_out"].after] == ["it is live", "it tears"]
    listed = list(found)
    assert (
        listed.index("photo")
        < listed.index("lead")
        < listed.index("strap_off")
        < listed.index("head_out")
    )


def test_a_late_step_is_told_what_comes_off_again(planned: Book):
    """The head is in: a forgotten look before it means the head comes off; the lead before the head
    out is too late.
    """
    for name in ("bore", "head_in"):
        planned.do("done", step=name, reason="as in the test")
    act = ACT.validate_python(
        {
            "act": "put_in",
            "title": "Ring look",
            "do": "Look.",
            "stage": "inspect",
            "behind": "bore",
            "before": [
                {"step": "head_in", "because": "the head hides it", "kind": "access closes"}
            ],
        }
    )
    found = difference(
        planned.state, draft(planned.state.whole, act, {"bore", "head_in"}, "MK"), Gear()
    )
    assert found.late.off == ("6.01 Head bolts: the head hides it",)
    assert found.late.without_hours == ("6.01",)
    setting = ACT.validate_python(
        {
            "act": "put_in",
            "title": "Mark",
            "do": "Mark.",
            "stage": "inspect",
            "before": [{"step": "head_in", "because": "it turns", "kind": "setting kept"}],
        }
    )
    late = difference(
        planned.state, draft(planned.state.whole, setting, {"head_in"}, "MK"), Gear()
    ).late
    assert (late.off, late.too_late) == ((), ("6.01 Head bolts: it turns",))


def test_moved_taken_out_and_put_back(planned: Book):
    """A move keeps every reason; a step taken out counts for nothing and comes back with its
    number.
    """
    planned.plan("move", step="winch_off", behind=None)
    assert next(iter(rows(planned))) == "winch_off"
    planned.plan("retire", step="water")
    assert "water" not in rows(planned)
    assert "water" in {
        left.id for left in plan_view(planned.state, Gear()).left_out if left.retired
    }
    planned.plan("retire", step="water", back=True)
    assert rows(planned)["water"].number == "8.02"


def test_last_chances_hold_the_step(planned: Book):
    """Open lines keep it from being done; seen here, let go with a reason, or done by its step,
    they are settled.
    """
    states = [c.state for c in rows(planned)["plate_on"].chances]
    assert states == ["no step", "open", "open"]
    assert "the plate covers it" in planned.bench("plate_on").base.lacking
    planned.do("decision", step="plate_on", about="last_chance", thing="Dowel", done_here=True)
    planned.do(
        "decision", step="plate_on", about="last_chance", thing="Oil in", reason="dry start wanted"
    )
    planned.do("done", step="bore", reason="not measured")
    assert [c.state for c in rows(planned)["plate_on"].chances] == ["done", "let go", "done"]
    assert "not final" in planned.bench("plate_on").base.lacking
    with pytest.raises(Refused):
        planned.do("decision", step="plate_on", about="last_chance", thing="Dowel")
    with pytest.raises(NotFound):
        planned.do("decision", step="plate_on", about="last_chance", thing="Moon", done_here=True)


def test_a_step_put_in_covers_the_chance_it_is_named_after(planned: Book):
    """ "Dowel" put in before the plate: the chance has its step, and the title counts one less."""
    assert plan_view(planned.state, Gear()).title.endswith("one last chance has no step")
    planned.plan(
        "put_in",
        title="Dowel",
        do="Look.",
        stage="fit_in",
        before=[{"step": "plate_on", "because": "the plate covers it"}],
    )
    assert rows(planned)["plate_on"].chances[0].number == "7.00a"
    assert plan_view(planned.state, Gear()).title.endswith("nothing missing")
    assert planned.bench("dowel").base.ahead == (
        "last chance before 7.01: Oil in",
        "last chance before 7.01: Bore",
    )


def test_parts_that_do_not_agree_hold_the_step(planned: Book):
    """Fine and coarse clash with what would go together; agreed, the step is free of it."""
    planned.plan("part", part="flywheel", option="fine")
    assert "flywheel fine" not in (planned.bench("cover_on").base.lacking or "")
    planned.plan("part", part="starter", option="coarse")
    assert planned.bench("cover_on").base.lacking.startswith(
        "flywheel fine, starter coarse do not go together: the pinion must mesh"
    )
    planned.plan("part", part="starter", option="fine")
    assert "go together" not in (planned.bench("cover_on").base.lacking or "")


def test_hunt_list_in_the_order_of_need(planned: Book):
    """Figures, torques with their generic fallback, tools, people, parts and facts; what is there
    is not hunted.
    """
    gear = Gear(
        tools={"hoist": "owned", "mandrel": "broken"}, instruments=frozenset({"micrometer"})
    )
    found = {item.id: item for item in hunt_of(planned.state, gear)}
    assert found["limit:gap"].state == "assumed"
    assert found["joint:plate"].state == "not given"
    assert found["joint:plate"].fallback == "50 Nm"  # M10×1.5, 8.8, dry: T06-09 gives 50.45
    assert found["tool:mandrel"].state == "broken"
    assert "tool:hoist" not in found
    assert found["tool:bore gauge"].name == "bore gauge"
    assert "tool:micrometer" not in found
    assert found["helper:plate_on"].name.startswith("2 people")
    assert {"part:teeth", "fact:winch"} <= set(found)
    order = list(rows(planned))
    places = [order.index(item.step) for item in found.values()]
    assert places == sorted(places)
    planned.plan("joint", joint="plate", version=1, stage=["50 Nm"], source=None)
    assert {i.id: i.state for i in hunt_of(planned.state, gear)}["joint:plate"] == "assumed"
    planned.plan(
        "joint", joint="plate", version=2, stage=["48 Nm"], tolerance="10 %", source="book p. 9"
    )
    assert "joint:plate" not in {i.id for i in hunt_of(planned.state, gear)}


def test_a_generic_torque_fills_only_what_is_missing(planned: Book):
    """50 N·m for the one stage, assumed; once given there is nothing to fill."""
    planned.plan("generic", joint="plate", version=1)
    plate = planned.state.plan.find_joint("plate")
    assert (plate.stage[0].torque, plate.source) == ("50 Nm", None)
    assert refuse(planned, act="generic", joint="plate", version=2).reason_code == "no_generic"
    two = Book(
        small_sheet(SMALL + WAYS + CHANCES.replace("stage = [{}]", "stage = [{}, {}]")), tools()
    )
    assert refuse(two, act="generic", joint="plate", version=1).reason_code == "no_generic"
    second = Book(
        small_sheet(
            SMALL + WAYS + CHANCES.replace("stage = [{}]", 'stage = [{ torque = "20 Nm" }, {}]')
        ),
        tools(),
    )
    second.plan("generic", joint="plate", version=1)
    assert [stage.torque for stage in second.state.plan.find_joint("plate").stage] == [
        "20 Nm",
        "50 Nm",
    ]


def test_no_generic_value_for_a_critical_joint():
    """Head, rod, main, flywheel, wheel and safety bolts never get one."""
    text = SMALL + WAYS + CHANCES.replace('grade = "8.8"', 'grade = "8.8"\ncritical = true')
    item = next(
        i for i in hunt_of(Book(small_sheet(text), tools()).state, Gear()) if i.id == "joint:plate"
    )
    assert item.fallback is None
    assert "only the maker's figure" in item.fallback_working


def test_a_joint_without_a_figure_is_not_tightened(planned: Book):
    """The bench says that it is not given; a click is refused and writes nothing."""
    assert "not given" in planned.bench("plate_on").setting.refusal
    with pytest.raises(Refused) as refusal:
        planned.do("fastener", step="plate_on", bolt=1, act="read", typed="50 Nm")
    assert refusal.value.reason_code == "torque_not_given"


def test_sources_side_by_side_and_the_choice(planned: Book):
    """A second answer makes a conflict; take one, take both, or decide oneself; the
    answers stay.
    """
    planned.plan(
        "answer",
        limit="clearance",
        version=1,
        lo="0.040",
        hi="0.090",
        target=None,
        source="sheet 9",
        page="4",
    )
    row = next(
        r for r in limit_book(planned.state, tuple(tools().values())).rows if r.id == "clearance"
    )
    assert (row.state, row.words, row.both_words) == (
        "conflict",
        "0.030 to 0.070 mm",
        "0.040 to 0.070 mm",
    )
    assert [s.in_force for s in row.sources] == [True, False]
    planned.plan("settle", limit="clearance", version=2, take=1)
    assert planned.state.plan.find_limit("clearance").hi == "0.090"
    with pytest.raises(Conflict):
        planned.plan("settle", limit="clearance", version=2, take=0)
    planned.plan("settle", limit="clearance", version=3, take="both")
    both = planned.state.plan.find_limit("clearance")
    assert (both.lo, both.hi, both.conflict, len(both.answers)) == ("0.040", "0.070", False, 2)
    planned.plan("limit", limit="clearance", version=4, lo="0.035", hi="0.065", own=True)
    own = planned.state.plan.find_limit("clearance")
    assert (own.source, own.own) == ("MK decided", "MK")


def test_sources_without_a_common_part(planned: Book):
    """Nothing lies in both: that choice is off, with the reason."""
    planned.plan("answer", limit="clearance", version=1, lo="0.080", hi="0.090", source="sheet 9")
    row = next(r for r in limit_book(planned.state, ()).rows if r.id == "clearance")
    assert row.both is None
    assert (
        refuse(planned, act="settle", limit="clearance", version=2, take="both").reason_code
        == "no_overlap"
    )


def test_an_answer_for_a_figure_not_given_is_taken(planned: Book):
    """Where nothing stood, the first answer is in force at once, with its source."""
    planned.plan("limit", limit="oil", version=1)
    planned.plan("answer", limit="oil", version=2, lo="3.9", hi="4.1", source="plate on the sump")
    oil = planned.state.plan.find_limit("oil")
    assert (oil.lo, oil.source, oil.conflict) == ("3.9", "plate on the sump", False)


def test_which_tool_can_decide(planned: Book):
    """Micrometer and bore gauge fit a band of 0.04 mm; a band of 0.004 mm is too narrow for them,
    no dial for none.
    """
    shop = tuple(tools().values())
    fit = {row.id: row.fit for row in limit_book(planned.state, shop).rows}
    assert fit["clearance"].fits
    assert "B1, M1" in fit["clearance"].words
    planned.plan(
        "limit",
        limit="clearance",
        version=1,
        lo="0.030",
        hi="0.034",
        source="book p. 1",
        same_source=True,
    )
    narrow = next(r.fit for r in limit_book(planned.state, shop).rows if r.id == "clearance")
    assert (narrow.fits, narrow.words) == (False, "B1, M1 ±0.0073 mm: too wide")
    assert (
        next(r.fit for r in limit_book(planned.state, ()).rows if r.id == "clearance").words
        == "no bore gauge that reaches 84"
    )
    head = next(r.fit for r in limit_book(planned.state, shop).rows if r.id == "head")
    assert (head.words, head.share) == ("W1 ±4 %", pytest.approx(0.8))


def test_the_book_names_every_result_that_a_figure_judged(planned: Book):
    """Clearance judged once, with its verdict and working; the sources beside it show that reading
    too.
    """
    planned.read("bore", "piston", "83.958", tool="m1")
    planned.read("bore", "cylinder", "84.006", tool="b1")
    planned.plan("answer", limit="clearance", version=1, lo="0.050", hi="0.090", source="sheet 9")
    row = next(r for r in limit_book(planned.state, ()).rows if r.id == "clearance")
    assert [(j.name, j.judgement.value_text, j.judgement.verdict) for j in row.judged] == [
        ("Clearance", "0.048", "inside")
    ]
    assert row.judged[0].judgement.working
    assert [s.bar.verdict for s in row.sources] == ["inside", "too_close"]
