"""What the mechanic knows and the sheet does not: figures said before a lift, something hidden,
ways, who comes; and parts that clash.
"""

import pytest
from pydantic import ValidationError

from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.drafting import draft
from hollet.screens.difference import difference
from hollet.screens.plan_questions import Gear
from hollet.screens.plandesk import hunt_of, plan_view
from hollet.screens.sentences import line_of
from tests.core.test_passing import refused, shelf
from tests.support import ACT

FIGURES = {
    "unit_weight": "210 kg",
    "gear_rating": "500",
    "hook_height": "2.1 m",
    "height_needed": "1850",
}


@pytest.fixture
def up():
    """The unit out at the top."""
    return shelf("powertrain-up")


def test_lift_not_planned_without_figures(up):
    """One press and no number is no plan: each figure is asked for by name, and what was said
    stands with its unit.
    """
    assert (
        "not said: Weight of the unit"
        in refused(up, "done", "not_complete", step="weight_known").message
    )
    for figure, typed in FIGURES.items():
        up.do("said", step="weight_known", figure=figure, typed=typed)
    up.do("done", step="weight_known")
    said = {ask.id: ask.words for ask in up.bench("weight_known").asks}
    assert said == {
        "unit_weight": "210 kg",
        "gear_rating": "500 kg",
        "hook_height": "2.1 m",
        "height_needed": "1850 mm",
    }
    assert (
        line_of(up.state, up.state.live("said", "unit_weight")[-1]).text
        == "Weight of the unit as it is lifted: 210 kg"
    )


@pytest.mark.parametrize(
    ("figure", "typed", "words"),
    [
        ("gear_rating", "440 lb", "is less than Weight of the unit"),
        ("height_needed", "2.2 m", "is more than Hook height that the hoist"),
    ],
)
def test_gear_too_weak_or_too_low(up, figure, typed, words):
    """440 lb (199.6 kg) carries no 210 kg, nor does a hook at 2.1 m reach 2.2 m: no reason passes
    that, at the plan and at the lift.
    """
    for name, text in (FIGURES | {figure: typed}).items():
        up.do("said", step="weight_known", figure=name, typed=text)
    assert (
        words
        in refused(
            up, "done", "not_complete", step="weight_known", reason="we have always done it so"
        ).message
    )
    up.hung("engine_up", mass="210 kg")
    lift = next(o for o in up.bench("engine_up").base.obstacles if o.code == "lifting")
    assert lift.by == "nothing"
    assert "not ready to lift" in lift.words
    up.do("said", step="weight_known", figure=figure, typed=FIGURES[figure])
    assert not [o for o in up.bench("engine_up").base.obstacles if o.code == "lifting"]


@pytest.mark.parametrize(
    ("figure", "typed"),
    [
        ("unit_weight", "2.1"),
        ("unit_weight", "2100"),
        ("hook_height", "2.1"),
        ("height_needed", "185 mm"),
        ("unit_weight", "21000 g"),
    ],
)
def test_a_figure_out_of_the_usual_is_asked(up, figure, typed):
    """2.1 for 210 kg, 2.1 for metres in a field of mm: asked, never taken unasked, and written when
    it is meant.
    """
    asked = refused(
        up, "said", "odd_figure", step="weight_known", figure=figure, typed=typed
    ).message
    assert "?" in asked
    assert "As a rule it is" in asked
    up.do("said", step="weight_known", figure=figure, typed=typed, sure=True)
    assert next(a.words for a in up.bench("weight_known").asks if a.id == figure) is not None


def test_a_figure_struck_holds_the_lift(up):
    """The lift was planned and done; the weight is struck a day later: the lift says so, and a
    reason for order passes it.
    """
    for figure, typed in FIGURES.items():
        up.do("said", step="weight_known", figure=figure, typed=typed)
    up.do("done", step="weight_known")
    up.hung("engine_up", mass="210 kg")
    assert "lifting" not in {o.code for o in up.bench("engine_up").base.obstacles}
    up.do(
        "strike",
        entry=up.state.live("said", "unit_weight")[-1].id,
        reason="read off the wrong sheet",
    )
    held = next(o for o in up.bench("engine_up").base.obstacles if o.code == "lifting")
    assert (held.by, held.words) == (
        "reason",
        "not ready to lift, not said any more: Weight of the unit as it is lifted",
    )


def test_said_wrongly(up):
    """No weight of nothing, none in another kind of unit, no figure that the step does not ask for;
    a struck one is asked again.
    """
    for typed in ("0", "-5 kg", "210 mm", "about 200 or 300"):
        with pytest.raises(Refused) as refusal:
            up.do("said", step="weight_known", figure="unit_weight", typed=typed)
        assert refusal.value.field == "typed"
    with pytest.raises(NotFound):
        up.do("said", step="weight_known", figure="price", typed="3 kg")
    line = up.do("said", step="weight_known", figure="unit_weight", typed="210")
    up.do("strike", entry=line.id, reason="that was the other engine")
    assert up.bench("weight_known").asks[0].words is None


def test_hidden_thing(up):
    """What one mechanic found out stands at the step with his initials, once."""
    up.plan("hidden", step="starter_off", thing="the lower bolt has a nut behind it")
    assert (
        up.state.plan.find_step("starter_off").hidden[-1]
        == "the lower bolt has a nut behind it (MK)"
    )
    with pytest.raises(Refused, match="names it already"):
        up.plan("hidden", step="starter_off", thing="The lower bolt has a nut behind it")


def test_own_school(up):
    """Two ways that the mechanic knows, the one gone here with its reason; two ways of one name are
    none.
    """
    ways = [
        {"name": "From below", "does": "Long bar past the mount."},
        {"name": "From above", "does": "Swivel through the wheel arch."},
    ]
    up.plan(
        "school",
        question="How the top bolt is reached?",
        way=ways,
        take=1,
        because="the bar does not fit",
    )
    desk = plan_view(up.state, Gear())
    mine = next(s for s in desk.schools if s.question == "How the top bolt is reached?")
    assert [w.name for w in mine.ways] == ["From below", "From above"]
    assert mine.chosen == "way_2" == mine.pick
    assert mine.because == "the bar does not fit"
    with pytest.raises(Refused, match="one name"):
        up.plan("school", question="What", way=[ways[0], ways[0]], take=0, because="so")


def test_people_asked(up):
    """Who comes takes the question off the hunt; not after all puts it back; a step for one asks
    nobody.
    """
    asked = next(item for item in hunt_of(up.state, Gear()) if item.kind == "helper")
    up.plan("people", step=asked.step, who="Ada and Ben, Saturday at ten")
    assert asked.id not in {item.id for item in hunt_of(up.state, Gear())}
    assert (
        next(row for row in plan_view(up.state, Gear()).rows if row.id == asked.step).comes
        == "Ada and Ben, Saturday at ten"
    )
    up.plan("people", step=asked.step)
    assert asked.id in {item.id for item in hunt_of(up.state, Gear())}
    for blank in ("", "   "):
        with pytest.raises(ValidationError):
            up.plan("people", step=asked.step, who=blank)
    with pytest.raises(Refused, match="nobody else"):
        up.plan("people", step="battery_off", who="Ben")


def test_clash_when_it_is_entered(up):
    """Stepped flywheel with an early spline: told in the difference, before it is taken, with the
    step that it holds up and the hours behind it.
    """
    up.plan("part", part="flywheel", option="stepped")
    act = ACT.validate_python({"act": "part", "part": "gearbox_kind", "option": "early spline"})
    told = difference(up.state, draft(up.state.whole, act, set(), "MK"), Gear()).clashes
    assert len(told) == 1
    step = up.state.plan.find_step("ready_to_lift")
    behind = up.state.plan.step[up.state.plan.step.index(step) :]
    hours = [sum(s.hours[k] for s in behind if s.hours) for k in (0, 1)]
    assert "starter pinion, tooth count and shaft spline must match" in told[0]
    assert (
        f"It holds up {step.number} {step.title} and {len(behind) - 1} steps behind it, "
        f"{hours[0]:g} to {hours[1]:g} h"
    ) in told[0]
    fine = ACT.validate_python({"act": "part", "part": "gearbox_kind", "option": "late spline"})
    assert difference(up.state, draft(up.state.whole, fine, set(), "MK"), Gear()).clashes == ()


def test_extra_that_no_sheet_brings(up):
    """A rear seal in a plan in which nothing takes the flywheel off: the plan says so."""
    for step in ("flywheel_off", "flywheel_on"):
        up.plan("retire", "there is no flywheel on this test bed", step=step)
    up.plan("extra", extra="rear_seal_while_out", wanted=True)
    gaps = {
        gap.item: gap.words for gap in plan_view(up.state, Gear()).gaps if gap.kind == "not_brought"
    }
    assert gaps.keys() == {"flywheel_off", "flywheel_on"}
    assert "Rear main seal needs: Flywheel off" in gaps["flywheel_off"]
