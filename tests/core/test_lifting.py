"""Lifting beside the reference: equilibrium solved in another way, and what is refused."""

import math

import numpy as np
import pytest

from hollet.core.catalogue import compute
from hollet.core.errors import Refused


def kg(value: float) -> dict:
    return {"value": value, "unit": "kg"}


def deg(value: float) -> dict:
    return {"value": value, "unit": "deg"}


def mm(value: float) -> dict:
    return {"value": value, "unit": "mm"}


@pytest.mark.parametrize(("one", "two"), [(70, 50), (45, 45), (88, 31), (60, 89)])
def test_unequal_legs_are_in_equilibrium(one, two):
    """Two equations of forces, solved as such."""
    found = compute("sling_unequal", {"mass": kg(220), "angle_1": deg(one), "angle_2": deg(two)})
    a, b = math.radians(one), math.radians(two)
    forces = np.linalg.solve(
        [[math.cos(a), -math.cos(b)], [math.sin(a), math.sin(b)]], [0.0, 220.0]
    )
    assert [found["leg_1"]["value"], found["leg_2"]["value"]] == pytest.approx(list(forces))


@pytest.mark.parametrize("angle", [30, 47.5, 60, 89])
def test_two_legs_carry_what_hangs(angle):
    found = compute(
        "sling_leg_load", {"mass": kg(300), "legs": 4, "angle_to_horizontal": deg(angle)}
    )
    load = found["leg_load"]["value"]
    assert 2 * load * math.sin(math.radians(angle)) == pytest.approx(300)
    assert found["horizontal_pull"]["value"] == pytest.approx(math.sqrt(load**2 - 150**2), abs=1e-6)


def test_four_legs_share_only_where_it_is_proven():
    asked = {"mass": kg(300), "legs": 4, "angle_to_horizontal": deg(60)}
    two = compute("sling_leg_load", asked)["leg_load"]["value"]
    four = compute("sling_leg_load", {**asked, "carrying_legs": 4})["leg_load"]["value"]
    assert two == pytest.approx(2 * four)


def test_what_a_link_may_carry_is_where_it_is_used_up():
    """By bisection on the mass, until the weakest link is used up exactly."""
    parts = [
        {"name": "hook", "wll": kg(800), "derating": 0.9, "where": "top"},
        {"name": "shackle", "wll": kg(500), "derating": 0.7, "where": "leg"},
    ]

    def used(mass: float) -> float:
        asked = {"mass": kg(mass), "legs": 2, "angle_to_horizontal": deg(50), "parts": parts}
        return compute("weakest_link", asked)["utilisation"]["value"]

    low, high = 1.0, 5000.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if used(middle) < 1 else (low, middle)
    asked = {"mass": kg(200), "legs": 2, "angle_to_horizontal": deg(50), "parts": parts}
    assert compute("weakest_link", asked)["max_mass"]["value"] == pytest.approx(low, rel=1e-6)


LINK = {"mass": kg(100), "legs": 2, "angle_to_horizontal": deg(60)}


@pytest.mark.parametrize(
    ("name", "asked", "code"),
    [
        (
            "sling_leg_load",
            {"mass": kg(1), "legs": 2, "angle_to_horizontal": deg(29.9)},
            "sling_too_flat",
        ),
        (
            "sling_leg_load",
            {"mass": kg(1), "legs": 2, "angle_to_horizontal": deg(91)},
            "angle_out_of_range",
        ),
        (
            "sling_leg_load",
            {"mass": kg(1), "legs": 1, "angle_to_horizontal": deg(80)},
            "single_leg_not_vertical",
        ),
        (
            "sling_leg_load",
            {"mass": kg(1), "legs": 5, "angle_to_horizontal": deg(80)},
            "bad_option",
        ),
        ("sling_leg_load", {"mass": kg(1), "legs": 2, "carrying_legs": 3}, "bad_option"),
        ("sling_leg_load", {"mass": kg(-1), "legs": 2}, "mass_not_positive"),
        ("sling_geometry", {"leg_length": mm(300), "eye_distance": mm(600)}, "geometry_impossible"),
        (
            "sling_unequal",
            {"mass": kg(1), "angle_1": deg(90), "angle_2": deg(90)},
            "angle_out_of_range",
        ),
        (
            "two_point_share",
            {"mass": kg(1), "distance": mm(5), "cog_from_point_1": mm(6)},
            "cog_outside",
        ),
        ("weakest_link", {**LINK, "parts": []}, "too_few"),
        (
            "weakest_link",
            {**LINK, "dynamic_factor": {"value": 0.9, "unit": "1"}, "parts": []},
            "factor_out_of_range",
        ),
        (
            "weakest_link",
            {**LINK, "parts": [{"name": "x", "wll": kg(0), "where": "leg"}]},
            "wll_missing",
        ),
        (
            "weakest_link",
            {**LINK, "parts": [{"name": "x", "wll": kg(9), "derating": 1.2, "where": "leg"}]},
            "derating_out_of_range",
        ),
        ("multi_leg_wll", {"legs": 2, "angle_to_horizontal": deg(60)}, "wll_missing"),
        (
            "multi_leg_wll",
            {"single_leg_wll": kg(9), "legs": 1, "angle_to_horizontal": deg(60)},
            "bad_option",
        ),
        (
            "axle_stands",
            {
                "vehicle_mass": kg(900),
                "axle_share": {"value": 0.5, "unit": "1"},
                "rating": kg(500),
                "stands": 1,
            },
            "too_few_stands",
        ),
        (
            "axle_stands",
            {"vehicle_mass": kg(900), "axle_share": {"value": 0.5, "unit": "1"}},
            "wll_missing",
        ),
        (
            "axle_stands",
            {"vehicle_mass": kg(900), "axle_share": {"value": 55, "unit": "1"}, "rating": kg(500)},
            "bad_option",
        ),
        ("crane_boom", {"rated_reach": mm(900), "reach": mm(1000)}, "wll_missing"),
        ("oil_pressure_rule", {"speed": {"value": 0, "unit": "rpm"}}, "speed_not_positive"),
        (
            "oil_pressure_rule",
            {"speed": {"value": 900, "unit": "rpm"}, "idle_speed": {"value": 800, "unit": "rpm"}},
            "points_incomplete",
        ),
        (
            "dry_run_bound",
            {
                "heat": {"value": 1, "unit": "kW"},
                "mass": kg(1),
                "specific_heat": {"value": 900, "unit": "J/(kg·K)"},
                "limit": {"value": 10, "unit": "°C"},
            },
            "too_cold",
        ),
        (
            "temperature_plateau",
            {
                "time": {"value": [0, 0], "unit": "min"},
                "temperature": {"value": [1, 2], "unit": "°C"},
            },
            "not_ordered",
        ),
        (
            "temperature_plateau",
            {"time": {"value": [0], "unit": "min"}, "temperature": {"value": [1, 2], "unit": "°C"}},
            "count_mismatch",
        ),
    ],
)
def test_what_is_refused(name, asked, code):
    with pytest.raises(Refused) as refusal:
        compute(name, asked)
    assert refusal.value.reason_code == code
    assert refusal.value.field


def test_a_boom_is_never_better_than_its_plate():
    found = compute(
        "crane_boom", {"rated_capacity": kg(500), "rated_reach": mm(900), "reach": mm(600)}
    )
    assert found["capacity"]["value"] == 500


def test_the_makers_two_points_win_over_the_rule():
    """1.0 bar at 800, 3.0 bar at 4000: 2.0 bar at 2400, and 1.0 below idle."""
    points = {
        "idle_speed": {"value": 800, "unit": "rpm"},
        "idle_pressure": {"value": 1.0, "unit": "bar"},
        "rated_speed": {"value": 4000, "unit": "rpm"},
        "rated_pressure": {"value": 3.0, "unit": "bar"},
    }
    for speed, bar in ((2400, 2.0), (600, 1.0), (6000, 3.0)):
        found = compute("oil_pressure_rule", {"speed": {"value": speed, "unit": "rpm"}, **points})
        assert found["minimum_kPa"]["value"] == pytest.approx(bar * 100)


def test_rollers_need_no_running_in():
    assert compute("cam_break_in", {"cam": "roller"})["needed"]["value"] is False
