"""Laws of the shop sums: units change nothing, sides mirror, and a second way to the
same figure.
"""

from math import cos, isclose, pi, radians, sin, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.catalogue import compute, names
from hollet.core.errors import Refused
from hollet.core.registry import CALCULATIONS

mm = st.floats(0.5, 200).map(lambda x: round(x, 3))


def q(value, unit):
    """A figure with its unit."""
    return {"value": value, "unit": unit}


def number(result, key):
    """The bare figure of a result."""
    return result[key]["value"]


@given(a=mm, b=mm, bar=mm, plate=mm)
def test_the_release_gap_is_a_chain_from_the_joint_face(a, b, bar, plate):
    """Lengthening the bar by as much as the plate changes nothing; inches give the same gap."""
    there = compute(
        "release_bearing_gap",
        {"A": q(a, "mm"), "B": q(b, "mm"), "bar_A": q(bar, "mm"), "spacer": q(plate, "mm")},
    )
    shifted = compute(
        "release_bearing_gap",
        {"A": q(a, "mm"), "B": q(b, "mm"), "bar_A": q(bar + 1, "mm"), "spacer": q(plate + 1, "mm")},
    )
    inches = compute(
        "release_bearing_gap",
        {
            "A": q(a / 25.4, "in"),
            "B": q(b / 25.4, "in"),
            "bar_A": q(bar / 25.4, "in"),
            "spacer": q(plate / 25.4, "in"),
        },
    )
    assert isclose(number(there, "gap"), number(shifted, "gap"), abs_tol=1e-9)
    assert isclose(number(there, "gap"), number(inches, "gap") * 25.4, abs_tol=1e-9)


@given(backlash=st.integers(5, 40), target=st.integers(5, 40))
def test_shims_moved_over_leave_their_sum(backlash, target):
    """Both packs together stay what they were, and the prediction misses the target by at most half
    a step of shim.
    """
    found = compute(
        "backlash_shim_move",
        {
            "backlash": q(backlash / 100, "mm"),
            "target": q(target / 100, "mm"),
            "pack_pinion_side": q(2, "mm"),
            "pack_far_side": q(2, "mm"),
            "shim_step": q(0.05, "mm"),
        },
    )
    assert isclose(
        number(found, "pack_pinion_side") + number(found, "pack_far_side"), 4, abs_tol=1e-9
    )
    assert abs(number(found, "predicted_backlash") - target / 100) <= 0.7 * 0.025 + 1e-9


PATTERNS = [
    "centre",
    "face",
    "flank",
    "heel",
    "toe",
    "heel_face",
    "toe_face",
    "heel_flank",
    "toe_flank",
]
OPPOSITE = {
    "pinion_in": "pinion_out",
    "pinion_out": "pinion_in",
    "ring_gear_towards_pinion": "ring_gear_away_from_pinion",
    "ring_gear_away_from_pinion": "ring_gear_towards_pinion",
    "good": "good",
    "recheck": "recheck",
}


def mirrored(place):
    """The pattern on the other end and the other height of the tooth."""
    swap = {"face": "flank", "flank": "face", "heel": "toe", "toe": "heel", "centre": "centre"}
    return "_".join(swap[word] for word in place.split("_"))


@pytest.mark.parametrize("drive", PATTERNS)
@pytest.mark.parametrize("coast", PATTERNS)
def test_the_mirrored_pattern_asks_for_the_opposite(drive, coast):
    """Depth and backlash mirror; the two sides may be named in either order."""
    action = compute("contact_pattern", {"drive_side": drive, "coast_side": coast})["action"][
        "value"
    ]
    assert (
        compute("contact_pattern", {"drive_side": coast, "coast_side": drive})["action"]["value"]
        == action
    )
    assert (
        compute("contact_pattern", {"drive_side": mirrored(drive), "coast_side": mirrored(coast)})[
            "action"
        ]["value"]
        == OPPOSITE[action]
    )
    high = [("face" in place) - ("flank" in place) for place in (drive, coast)]
    if high[0] != high[1]:
        assert action == "recheck"


@given(left=st.integers(340, 380), right=st.integers(340, 380))
def test_swapped_sides_swap_the_answers(left, right):
    """Ride height: left and right exchanged change the sign of the difference, not the verdicts."""
    limits = {"lower_limit": q(355, "mm"), "upper_limit": q(370, "mm"), "side_limit": q(10, "mm")}
    a = compute("ride_height", {"left": q(left, "mm"), "right": q(right, "mm"), **limits})
    b = compute("ride_height", {"left": q(right, "mm"), "right": q(left, "mm"), **limits})
    assert number(a, "side_difference") == -number(b, "side_difference")
    assert (a["left_ok"], a["right_ok"], a["side_ok"]) == (
        b["right_ok"],
        b["left_ok"],
        b["side_ok"],
    )


@given(inner=st.integers(6, 30), outer=st.integers(6, 30), wanted=st.integers(-40, 40))
def test_no_pair_of_splines_comes_nearer(inner, outer, wanted):
    """The pair found is the nearest of all pairs within one turn, reckoned in whole numbers."""
    found = compute(
        "torsion_bar_index",
        {"inner_splines": inner, "outer_splines": outer, "wanted_angle": q(wanted, "deg")},
    )
    n, m = int(number(found, "inner_splines")), int(number(found, "outer_splines"))
    parts = 360 * (n * outer - m * inner)  # the angle times inner times outer, exact
    best = min(
        abs(360 * (a * outer - b * inner) - wanted * inner * outer)
        for a in range(-inner, inner + 1)
        for b in range(-outer, outer + 1)
    )
    assert abs(parts - wanted * inner * outer) == best


@given(first=st.floats(0.2, 9), second=st.floats(0.2, 9), out=st.floats(0, 90))
def test_the_equivalent_angle_is_that_of_two_vectors(first, second, out):
    """|b1² - b2² e^2i psi| by the law of cosines; half a turn of phase error is none."""
    found = number(
        compute(
            "equivalent_angle",
            {"angle_1": q(first, "deg"), "angle_2": q(second, "deg"), "phase_error": q(out, "deg")},
        ),
        "equivalent_angle",
    )
    square = sqrt(max(0.0, first**4 + second**4 - 2 * first**2 * second**2 * cos(radians(2 * out))))
    assert isclose(found**2, square, rel_tol=1e-6, abs_tol=1e-5)
    again = number(
        compute(
            "equivalent_angle",
            {
                "angle_1": q(first, "deg"),
                "angle_2": q(second, "deg"),
                "phase_error": q(out + 180, "deg"),
            },
        ),
        "equivalent_angle",
    )
    assert isclose(found, again, abs_tol=1e-4)


@given(volts=st.floats(0.01, 5), amps=st.floats(1, 400))
def test_a_drop_is_allowed_just_when_its_resistance_is(volts, amps):
    """Drop against limit and resistance against allowed resistance say the same."""
    found = compute(
        "voltage_drop", {"drop": q(volts, "V"), "current": q(amps, "A"), "limit": q(0.2, "V")}
    )
    apart = number(found, "resistance") - number(found, "allowed_resistance")
    assert found["ok"]["value"] == (apart <= 0) or abs(apart) < 1e-6


@given(reading=st.floats(0, 0.5), leads=st.floats(0, 0.3), counts=st.integers(0, 5))
def test_an_ohmmeter_never_proves_both(reading, leads, counts):
    """The true resistance of a simulated meter lies between the bounds, and what is proven follows
    from them.
    """
    data = {
        "reading": q(reading + leads, "ohm"),
        "digit": q(0.1, "ohm"),
        "percent_of_reading": q(1, "%"),
        "counts": counts,
        "lead_resistance": q(leads, "ohm"),
        "current": q(150, "A"),
        "limit": q(0.2, "V"),
    }
    found = compute("ohmmeter_bound", data)
    assert number(found, "R_min") <= reading + 1e-12 <= number(found, "R_max") + 2e-12
    assert (
        found["verdict"]["value"] != "good_proven"
    )  # a digit of 0.1 Ω leaves 7.5 V at 150 A at the very least


@given(a=st.floats(0, 359.9), arc=st.floats(11, 174))
def test_top_lies_in_the_middle_of_the_shorter_arc(a, arc):
    """Both marks are equally far from it, whichever comes first, also across zero."""
    b = (a + arc) % 360
    found = number(compute("tdc_from_stop", {"mark_1": q(a, "deg"), "mark_2": q(b, "deg")}), "tdc")
    again = number(compute("tdc_from_stop", {"mark_1": q(b, "deg"), "mark_2": q(a, "deg")}), "tdc")
    assert isclose((found - a) % 360, arc / 2, abs_tol=1e-6)
    assert isclose((found - again + 180) % 360, 180, abs_tol=1e-6)


def test_distributor_degrees_count_double():
    """The weights that give 11.5° in the distributor give 23° at the crank; after top counts as
    less than nothing.
    """
    needed = compute(
        "mechanical_needed", {"total": q(33, "deg BTDC"), "initial": q(10, "deg BTDC")}
    )
    assert (number(needed, "mechanical"), number(needed, "in_distributor")) == (23, 11.5)
    late = compute("timing_total", {"initial": q(2, "deg ATDC"), "mechanical": q(24, "deg")})
    assert number(late, "total_without_vacuum") == 22
    with pytest.raises(Refused, match="BTDC"):
        compute("timing_total", {"initial": q(2, "deg XYZ"), "mechanical": q(24, "deg")})


@given(d1=st.floats(0.5, 10), d2=st.floats(0.5, 10))
def test_two_holes_let_less_through_than_the_smaller(d1, d2):
    """In a row they pass less than the smaller alone, and as much as the flow that shares the
    pressure between them.
    """
    d = number(
        compute("orifices_in_series", {"d1": q(d1, "mm"), "d2": q(d2, "mm")}), "equivalent_diameter"
    )
    assert d < min(d1, d2)
    share = d2**4 / (d1**4 + d2**4)  # of the pressure, over the first hole
    assert isclose(d1**2 * sqrt(share), d**2, rel_tol=1e-6)


@given(
    system=st.floats(4, 12),
    inside=st.floats(0, 3),
    left=st.floats(0, 0.5),
    target=st.floats(0.3, 0.6),
)
def test_the_filled_system_has_the_strength_wanted(system, inside, left, target):
    """Balance of the concentrate: what was in and what is poured give the target in the whole."""
    data = {
        "system": q(system, "L"),
        "left_inside": q(inside, "L"),
        "left_concentration": q(left, "1"),
        "target_concentration": q(target, "1"),
    }
    if target * system - left * inside > system - inside or target * system < left * inside:
        with pytest.raises(Refused, match="drain more"):
            compute("coolant_refill", data)
        return
    found = compute("coolant_refill", data)
    assert isclose(
        number(found, "concentrate") + number(found, "water") + inside, system, abs_tol=1e-6
    )
    assert isclose((number(found, "concentrate") + left * inside) / system, target, abs_tol=1e-6)


@given(cam=st.floats(4, 10), old=st.floats(1, 2.4), lash=st.floats(0, 0.5))
def test_other_rockers_and_back_give_the_old_lift(cam, old, lash):
    """Changing to another ratio and back is no change."""
    net = number(
        compute(
            "valve_lift", {"cam_lift": q(cam, "mm"), "ratio": q(old, "1"), "lash": q(lash, "mm")}
        ),
        "lift",
    )
    there = number(
        compute(
            "lift_after_ratio_change",
            {
                "net_lift": q(net, "mm"),
                "old_ratio": q(old, "1"),
                "new_ratio": q(1.6, "1"),
                "lash": q(lash, "mm"),
            },
        ),
        "new_lift",
    )
    back = number(
        compute(
            "lift_after_ratio_change",
            {
                "net_lift": q(there, "mm"),
                "old_ratio": q(1.6, "1"),
                "new_ratio": q(old, "1"),
                "lash": q(lash, "mm"),
            },
        ),
        "new_lift",
    )
    assert isclose(back, net, abs_tol=1e-9)


def test_figures_from_elsewhere():
    """Published or reckoned apart: AWG tables, a cable, a rim, parts turned by a spline, Reynolds
    by hand.
    """
    assert number(compute("awg_area", {"gauge": 0}), "area") == pytest.approx(
        53.5, abs=0.05
    )  # 1/0 in the usual tables
    assert number(compute("awg_area", {"gauge": 10}), "area") == pytest.approx(5.261, abs=0.001)
    warm = compute(
        "copper_cable",
        {
            "length": q(2, "m"),
            "cross_section": q(25, "mm²"),
            "temperature": q(70, "°C"),
            "current": q(200, "A"),
        },
    )
    assert number(warm, "drop") == pytest.approx(0.017241 * 2 / 25 * 1.1965 * 200, abs=1e-6)
    rim = compute("rim_distance", {"diameter": q(200, "mm"), "angle": q(60, "deg")})
    assert (number(rim, "arc"), number(rim, "chord")) == (
        pytest.approx(100 * pi / 3),
        pytest.approx(100),
    )
    turned = compute(
        "index_turn",
        {"component_unbalance": q(100, "g·mm"), "turned_by": q(60, "deg"), "speed": q(600, "rpm")},
    )
    assert number(turned, "residual") == pytest.approx(2 * 100 * sin(pi / 6))
    assert number(compute("belt_deflection", {"span": q(16, "in")}), "deflection") == pytest.approx(
        0.25
    )


REFUSALS = [
    (
        "rod_cut",
        {
            "full_mark": q(20, "mm"),
            "rest_mark": q(16, "mm"),
            "free_play": q(-1, "mm"),
            "hydraulic_self_adjusting": False,
        },
        "negative_free_play",
    ),
    (
        "rod_cut",
        {"full_mark": q(20, "mm"), "rest_mark": q(16, "mm"), "hydraulic_self_adjusting": False},
        "not_a_finite_number",
    ),
    (
        "backlash_readings",
        {
            "readings": {"value": [0.1, 0.12], "unit": "mm"},
            "lower_limit": q(0.1, "mm"),
            "upper_limit": q(0.2, "mm"),
            "variation_limit": q(0.05, "mm"),
        },
        "too_few_teeth",
    ),
    (
        "pinion_shim",
        {
            "trial_shim": q(1, "mm"),
            "measured_distance": q(97, "mm"),
            "nominal_distance": q(97, "mm"),
            "marking": q(5, "mm"),
            "shim_position": "thicker_moves_pinion_in",
        },
        "marking_implausible",
    ),
    (
        "backlash_factor",
        {"before": q(0.1, "mm"), "after": q(0.1, "mm"), "move": q(0, "mm")},
        "not_positive",
    ),
    ("contact_pattern", {"drive_side": "middle", "coast_side": "centre"}, "bad_option"),
    (
        "fluid_spring",
        {
            "height_1": q(338, "mm"),
            "pressure_1": q(16, "bar"),
            "height_2": q(330, "mm"),
            "pressure_2": q(19, "bar"),
            "target_height": q(340, "mm"),
        },
        "calibration_bad",
    ),
    (
        "joint_angle",
        {
            "shaft1_vertical": q(45, "deg"),
            "shaft1_horizontal": q(0, "deg"),
            "shaft2_vertical": q(2, "deg"),
            "shaft2_horizontal": q(0, "deg"),
        },
        "angle_implausible",
    ),
    (
        "torsional_acceleration",
        {"equivalent_angle": q(2, "deg"), "speed": q(0, "rpm")},
        "speed_not_positive",
    ),
    (
        "accessory_speed",
        {
            "crank_pulley": q(150, "mm"),
            "accessory_pulley": q(6, "mm"),
            "crank_speed": q(6000, "rpm"),
            "rated_max": q(18000, "rpm"),
        },
        "ratio_implausible",
    ),
    ("voltage_drop", {"drop": q(-0.1, "V"), "current": q(100, "A")}, "negative_drop"),
    ("voltage_drop", {"drop": q(12.4, "V"), "current": q(100, "A")}, "drop_implausible"),
    ("tdc_from_stop", {"mark_1": q(0, "deg"), "mark_2": q(180, "deg")}, "arc_ambiguous"),
    ("tdc_from_stop", {"mark_1": q(358, "deg"), "mark_2": q(2, "deg")}, "arc_ambiguous"),
    (
        "laminar_passage",
        {
            "diameter": q(8, "mm"),
            "length": q(100, "mm"),
            "pressure_difference": q(3, "bar"),
            "viscosity": q(0.01, "Pa·s"),
            "density": q(870, "kg/m³"),
        },
        "not_laminar",
    ),
    (
        "orifice_flow",
        {"diameter": q(1, "mm"), "pressure_difference": q(0, "bar"), "density": q(850, "kg/m³")},
        "no_pressure_difference",
    ),
    ("premix", {"fuel": q(5, "L"), "ratio": 0}, "ratio_not_positive"),
    (
        "drain_and_replace",
        {
            "system": q(7, "L"),
            "present": q(0.3, "1"),
            "target": q(0.5, "1"),
            "refill_strength": q(0.4, "1"),
        },
        "no_room",
    ),
    (
        "piston_to_valve",
        {
            "clay_thickness": q(0.2, "mm"),
            "extra_lift_at_that_angle": q(0.5, "mm"),
            "limit": q(2, "mm"),
        },
        "negative_clearance",
    ),
    (
        "push_rod_length",
        {"zero_lash_length": q(198, "mm"), "milled": q(20, "mm"), "rocker_ratio": q(1.5, "1")},
        "change_implausible",
    ),
]


@pytest.mark.parametrize(
    ("name", "data", "code"), REFUSALS, ids=[f"{name}-{code}" for name, _, code in REFUSALS]
)
def test_refusals_name_their_reason(name, data, code):
    """Each refusal has its code, and a sentence that says what would be right."""
    with pytest.raises(Refused) as refusal:
        compute(name, data)
    assert refusal.value.reason_code == code
    assert len(refusal.value.message) > 20


def fields_of(name):
    """The fields of a calculation that name a dimension, each with one figure in kilograms."""
    fields = CALCULATIONS[name].takes.model_fields
    named = [key for key, f in fields.items() if "dimension" in (f.json_schema_extra or {})]
    return {
        key: (
            {"value": [1, 2, 3], "unit": "kg"}
            if "Quantities" in str(fields[key].annotation)
            else q(1, "kg")
        )
        for key in named
    }


def asks_only_figures(name):
    """Whether nothing but figures must be given."""
    return bool(fields_of(name)) and not any(
        f.is_required() for f in CALCULATIONS[name].takes.model_fields.values()
    )


@pytest.mark.parametrize("name", [name for name in names() if asks_only_figures(name)])
def test_a_figure_in_a_unit_of_another_kind_is_refused(name):
    """Every field that names its dimension holds to it: a mass is none of them."""
    with pytest.raises(Refused) as refusal:
        compute(name, fields_of(name))
    assert refusal.value.reason_code in (
        "dimension_mismatch",
        "bad_option",
        "not_a_finite_number",
    ), refusal.value.message


def test_a_rod_is_sawn_rather_too_little():
    """8.7 in all is sawn as 8.5 first; nothing is sawn off where the marks meet."""
    base = {
        "rest_mark": q(33, "mm"),
        "free_play": q(0, "mm"),
        "hydraulic_self_adjusting": True,
        "rod_length": q(148, "mm"),
    }
    assert compute("rod_cut", base | {"full_mark": q(41.7, "mm")})["advice"]["value"].startswith(
        "cut 8.5 mm off and try it: 8.70 in all"
    )
    assert compute("rod_cut", base | {"full_mark": q(33, "mm")})["advice"]["value"].startswith(
        "nothing to cut"
    )
    thread = {
        "thread_length": q(18, "mm"),
        "lock_nut": q(5, "mm"),
        "fitting_depth": q(14, "mm"),
        "thread_diameter": q(8, "mm"),
    }
    short = compute(
        "rod_cut", base | thread | {"full_mark": q(41.7, "mm")}
    )  # 18 - 8.7 - 5 = 4.3 mm on a thread of 8
    assert short["advice"]["value"].startswith("do not cut")
