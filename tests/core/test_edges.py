"""At the edge: equality, and one step beside it on either side; from where a place is counted."""

import math

import pytest

from hollet.core.catalogue import compute
from hollet.core.errors import Refused
from hollet.core.limits import Limit, judge
from hollet.core.safety import shut_by, shut_words
from hollet.core.tightening.patterns import circle_order, circle_point, head_point, moments


def mm(value):
    return {"value": value, "unit": "mm"}


def gap(**figures):
    return Limit(id="g", name="Gap", dimension="length", unit="mm", source="book", **figures)


def refusal(name: str, **given) -> str:
    with pytest.raises(Refused) as refused:
        compute(name, given)
    return refused.value.reason_code


@pytest.mark.parametrize(
    ("value", "words"),
    [
        (0.050, "inside"),
        (0.069, "inside"),  # 0.070 - 0.001: touching with the whole uncertainty still proves it
        (0.0691, "too close"),
        (0.070, "too close"),
        (0.071, "too close"),  # proof of the contrary needs more than touching
        (0.0711, "outside"),
        (0.031, "inside"),
        (0.0309, "too close"),
        (0.029, "too close"),
        (0.0289, "outside"),
    ],
)
def test_a_band_at_its_edges(value, words):
    """0.030 to 0.070 mm with a tool good to 0.001."""
    assert judge(value, 0.001, gap(lo="0.030", hi="0.070")).words.startswith(words)


@pytest.mark.parametrize(
    ("limit", "value", "verdict", "words"),
    [
        (gap(hi="0.06"), 0.0715, "outside", "over"),
        (gap(lo="0.06"), 0.0485, "outside", "under"),
        (gap(lo="0.03", hi="0.06"), 0.0185, "outside", "under"),
    ],
)
def test_which_side_it_lies_beyond(limit, value, verdict, words):
    """Over the upper limit, under the lower one."""
    found = judge(value, 0.001, limit, digits=4)
    assert (found.verdict, found.words) == (verdict, f"outside, 0.0115 {words}")
    assert found.side == ("high" if words == "over" else "low")


@pytest.mark.parametrize(
    ("limit", "digits", "beyond"),
    [
        (gap(hi="0.06"), 4, "0.0115"),  # as finely as it was read
        (gap(hi="0.060"), 0, "0.011"),  # never coarser than the limit, never more than it is
        (gap(hi="0.060"), 3, "0.011"),
    ],
)
def test_how_finely_what_is_too_much_is_said(limit, digits, beyond):
    """The finer of limit and reading, rounded down: nobody reads more into it."""
    assert judge(0.0715, 0.001, limit, digits=digits).words == f"outside, {beyond} over"


@pytest.mark.parametrize(
    ("value", "step", "margins"),
    [
        (0.0715, None, "0.042 over the lower limit, 0.012 over the upper limit"),
        (0.0715, "0.01", "0.04 over the lower limit, 0.01 over the upper limit"),
        (0.060, None, "0.030 over the lower limit, on the upper limit"),
        (0.030, None, "on the lower limit, 0.030 under the upper limit"),
        (0.0299, None, "0.00010 under the lower limit, 0.030 under the upper limit"),
    ],
)
def test_margins(value, step, margins):
    """How far it lies from each, in the step of the limit."""
    assert judge(value, 0.001, gap(lo="0.030", hi="0.060", step=step)).margins == margins


@pytest.mark.parametrize(
    ("value", "edge"),
    [
        (0.054, ""),  # 0.006 is a fifth of 0.030
        (0.0541, ", near the upper edge"),
        (0.036, ""),
        (0.0359, ", near the lower edge"),
    ],
)
def test_near_an_edge_within_a_fifth_of_the_band(value, edge):
    """0.030 to 0.060: less than 0.006 from a limit is near it."""
    assert judge(value, 0.0001, gap(lo="0.030", hi="0.060")).words.startswith(f"inside{edge}, ")


def test_a_little_too_much_is_never_nothing():
    """0.00005 over, read to 0.001: "0.000 over" would be read as on the limit."""
    found = judge(0.07005, 0.00001, gap(hi="0.070"), digits=3)
    assert (found.verdict, found.words) == ("outside", "outside, 0.000050 over")


def test_nothing_to_spare():
    """What the uncertainty takes is not to spare."""
    assert judge(0.069, 0.001, gap(hi="0.070")).words == "inside, nothing to spare"
    assert judge(0.068, 0.001, gap(hi="0.070")).words == "inside, 0.001 to spare"


def test_no_tool_decides_on_the_limit_itself():
    """On it the tool would need to be perfect; beside it, better than the distance."""
    assert judge(0.070, 0.001, gap(hi="0.070")).needs == "no tool can decide: it lies on the limit"
    assert judge(0.0695, 0.001, gap(hi="0.070")).needs == "±0.00050 mm"


@pytest.mark.parametrize(
    ("safety", "rung", "words"),
    [
        ("fuel", "fuel_on", "fuel on"),
        ("lifting", "drive", "ready to lift"),
        ("brakes", "drive", "drive"),
        ("steering", "drive", "drive"),
    ],
)
def test_what_a_safety_part_shuts(safety, rung, words):
    """Fuel its own rung, worn lifting gear the lift, everything else the drive."""
    assert (shut_by(safety), shut_words(safety)) == (rung, words)


@pytest.mark.parametrize(
    ("bolts", "order"),
    [
        (3, [1, 2, 3]),
        (4, [1, 3, 2, 4]),
        (7, [1, 4, 7, 3, 6, 2, 5]),
        (8, [1, 5, 3, 7, 2, 6, 4, 8]),
        (10, [1, 6, 3, 8, 5, 10, 2, 7, 4, 9]),
        (12, [1, 7, 4, 10, 2, 8, 5, 11, 3, 9, 6, 12]),
    ],
)
def test_circles_cross_by_the_axis_that_is_farthest(bolts, order):
    """Worked by hand: opposite pairs, each next axis as far as can be from those drawn, of equal
    ones the farthest from the last, then the lowest.
    """
    assert circle_order(bolts) == order


def test_two_bolts_are_no_circle():
    """Three are the fewest."""
    with pytest.raises(Refused) as refused:
        circle_order(2)
    assert refused.value.reason_code == "too_few_bolts"


def test_moments_are_about_the_middle_of_all_bolts():
    """A square drawn crosswise, and three bolts whose middle is (8/3, 2/3)."""
    cross = moments([(0, 0), (2, 2), (2, 0), (0, 2)])
    assert cross == pytest.approx([math.sqrt(2), 0, math.sqrt(2), 0], abs=1e-12)
    three = moments([(0, 0), (4, 0), (4, 2)])
    assert three == pytest.approx(
        [math.hypot(8 / 3, 2 / 3), math.hypot(4 / 3, 4 / 3), 0], abs=1e-12
    )


def test_places_are_never_mirrored():
    """Clockwise from the top; row A on top, columns from the left."""
    assert circle_point(1, 4) == pytest.approx((0, 1), abs=1e-12)
    assert circle_point(2, 4) == pytest.approx((1, 0), abs=1e-12)
    assert circle_point(4, 4, 50) == pytest.approx((-50, 0), abs=1e-12)
    assert head_point("A1", 5, 90, 80) == (-180, 40)
    assert head_point("A5", 5, 90, 80) == (180, 40)
    assert head_point("B2", 4, 90, 80) == (-45, -40)


@pytest.mark.parametrize(
    ("percents", "code"),
    [
        ([0, 50, 100], "stages_not_rising"),
        ([-10, 50, 100], "stages_not_rising"),
        ([50, 50, 100], "stages_not_rising"),
        ([60, 50, 100], "stages_not_rising"),
        ([50, 100, 100], "stages_not_rising"),
        ([50, 99], "last_stage_not_100"),
        ([], "not_a_finite_number"),
    ],
)
def test_stages_rise_to_the_whole(percents, code):
    """From above nothing, each above the one before, to 100."""
    torque = {"value": 80, "unit": "N·m"}
    assert refusal("stages", final_torque=torque, stages_percent=percents) == code


def test_stages_at_their_edges():
    """One stage is enough; a torque of nothing is none; a graduation of nothing rounds nothing."""
    torque = {"value": 80, "unit": "N·m"}
    one = compute("stages", {"final_torque": torque, "stages_percent": [100]})
    assert one["torques"]["value"] == [80]
    fine = compute(
        "stages",
        {
            "final_torque": torque,
            "stages_percent": [33, 100],
            "graduation": {"value": 0, "unit": "N·m"},
        },
    )
    assert fine["torques"]["value"] == pytest.approx([26.4, 80])
    nothing = {"value": 0, "unit": "N·m"}
    assert refusal("stages", final_torque=nothing, stages_percent=[100]) == "torque_not_positive"
    below = {"value": -1, "unit": "N·m"}
    assert (
        refusal("stages", final_torque=torque, stages_percent=[100], graduation=below)
        == "torque_not_positive"
    )


@pytest.mark.parametrize(
    ("d", "pitch", "code"),
    [
        (0, 1, "not_positive"),
        (6, 0, "not_positive"),
        (-6, 1, "not_positive"),
        (4, 1.01, "pitch_implausible"),
    ],
)
def test_a_metric_thread_that_is_none(d, pitch, code):
    """Both above nothing, and the pitch at most a quarter of the diameter."""
    assert refusal("stress_area_metric", d=mm(d), pitch=mm(pitch)) == code


def test_the_coarsest_metric_thread():
    """M1: pitch 0.25; pi/4 (1 - 0.9382 x 0.25)² = 0.4603 mm² (ISO 898-1)."""
    found = compute("stress_area_metric", {"d": mm(1), "pitch": mm(0.25)})
    assert found["A_s"]["value"] == pytest.approx(math.pi / 4 * (1 - 0.9382 * 0.25) ** 2, rel=1e-4)


@pytest.mark.parametrize(
    ("d", "turns", "code"),
    [
        (0, 20, "not_positive"),
        (0.25, 0, "not_positive"),
        (1, 3.9, "pitch_implausible"),
        (0.25, 1.25, "pitch_implausible"),
    ],
)
def test_a_unified_thread_that_is_none(d, turns, code):
    """Diameter and turns above nothing, one turn at most a quarter of the diameter."""
    given = {"d": {"value": d, "unit": "in"}, "threads_per_inch": {"value": turns, "unit": "1/in"}}
    assert refusal("stress_area_unified", **given) == code


def test_the_coarsest_unified_thread():
    """1 in with 4 turns: 0.7854 (1 - 0.9743/4)² in² (ASME B1.1)."""
    given = {"d": {"value": 1, "unit": "in"}, "threads_per_inch": {"value": 4, "unit": "1/in"}}
    area = compute("stress_area_unified", given)["A_s"]
    inch = 0.7854 * (1 - 0.9743 / 4) ** 2
    assert area["value"] == pytest.approx(
        inch if area["unit"] == "in²" else inch * 645.16, rel=1e-4
    )


@pytest.mark.parametrize(("thrust", "axial"), [(0, 84), (84, 0), (-84, 84)])
def test_an_oval_bore_has_two_diameters(thrust, axial):
    """Each above nothing."""
    given = {"gap": mm(0.35), "measured_at_bore": mm(84)}
    code = refusal("ring_gap_oval", **given, thrust=mm(thrust), axial=mm(axial))
    assert code == "not_a_finite_number"


@pytest.mark.parametrize(
    ("worn", "piston", "oversize", "bore", "next_one"),
    [
        # needs 84.27 + 0.02; 0.25 over the nominal gives 84.25, 0.5 gives 84.5
        (84.27, 84.45, 0.5, 84.49, None),
        # needs 84.50 exactly, the finish bore is 84.49: 0.01 less than it needs
        (84.48, 84.45, 0.5, 84.49, 0.75),
        # finishes at just what it needs
        (84.47, 84.45, 0.5, 84.49, None),
    ],
)
def test_an_oversize_at_its_edge(worn, piston, oversize, bore, next_one):
    """Nominal 84.00, 0.02 to clean up, 0.04 clearance."""
    found = compute(
        "rebore",
        {
            "nominal": mm(84),
            "max_worn_diameter": mm(worn),
            "cleanup_allowance_on_diameter": mm(0.02),
            "oversizes": {"value": [0.75, 0.25, 0.5], "unit": "mm"},
            "measured_piston_for_oversize": {"0.5": mm(piston), "0.75": mm(84.71)},
            "target_clearance": mm(0.04),
        },
    )
    assert found["oversize"]["value"] == pytest.approx(oversize)
    assert found["finish_bore"]["value"] == pytest.approx(bore)
    expected = "cleans_up" if next_one is None else "does_not_clean_up"
    assert found["verdict"]["value"] == expected
    assert (found.get("next_oversize") or {}).get("value") == next_one


def test_an_oversize_that_just_reaches():
    """Required 84.50: the one that gives 84.50 is enough; 0.001 more needs the next."""
    given = {
        "nominal": mm(84),
        "cleanup_allowance_on_diameter": mm(0),
        "oversizes": {"value": [0.25, 0.5, 0.75], "unit": "mm"},
    }
    at = compute("rebore", {**given, "max_worn_diameter": mm(84.5)})
    over = compute("rebore", {**given, "max_worn_diameter": mm(84.501)})
    assert (at["oversize"]["value"], over["oversize"]["value"]) == (0.5, 0.75)
    assert refusal("rebore", **given, max_worn_diameter=mm(84.751)) == "no_oversize_fits"
    below = {**given, "cleanup_allowance_on_diameter": mm(-0.01)}
    assert refusal("rebore", **below, max_worn_diameter=mm(84.1)) == "negative_allowance"


ROD = {
    "full_mark": mm(40),
    "rest_mark": mm(25),
    "hydraulic_self_adjusting": False,
    "free_play": mm(1),
}


@pytest.mark.parametrize(
    ("own", "code"),
    [
        ({"free_play": mm(-0.1)}, "negative_free_play"),
        ({"wear_reserve": mm(-0.1)}, "negative_wear_reserve"),
        ({"hydraulic_self_adjusting": True}, "play_not_zero_for_hydraulic"),
        ({"full_mark": mm(23.9)}, "rod_too_short"),
        ({"rod_length": mm(16)}, "rod_too_short"),
    ],
)
def test_a_rod_that_cannot_be_cut(own, code):
    """15 between the marks, 1 of play: 16 to cut."""
    assert refusal("rod_cut", **{**ROD, **own}) == code


def test_a_rod_at_its_edges():
    """Nothing to cut, half a millimetre, and a thread that holds by just its own diameter."""
    none = compute("rod_cut", {**ROD, "full_mark": mm(24)})
    assert none["cut"]["value"] == 0
    assert none["advice"]["value"].startswith("nothing to cut")
    half = compute("rod_cut", {**ROD, "full_mark": mm(24.99)})
    assert half["advice"]["value"].startswith("cut 0.5 mm off and try it: 0.99 in all")
    thread = {"lock_nut": mm(6), "fitting_depth": mm(20), "thread_diameter": mm(8)}
    holds = compute("rod_cut", {**ROD, **thread, "thread_length": mm(30)})
    assert holds["engagement"]["value"] == pytest.approx(8)
    assert holds["engagement_ok"]["value"] is True
    short = compute("rod_cut", {**ROD, **thread, "thread_length": mm(29.9)})
    assert short["engagement_ok"]["value"] is False
    assert short["advice"]["value"].startswith("do not cut")
    left = compute("rod_cut", {**ROD, "rod_length": mm(16.1)})
    assert left["new_length"]["value"] == pytest.approx(0.1)
    assert refusal(
        "rod_cut", **ROD, **{**thread, "thread_diameter": mm(0), "thread_length": mm(30)}
    )
