"""Corrections to the calculations, each with figures worked out apart from the code (by hand, or
with SciPy's own distributions).
"""

import math
from typing import Any

import pytest
from scipy import stats

from hollet.core.catalogue import compute
from hollet.core.errors import Refused

LEVEL = 0.9544997361036416


def q(value: Any, unit: str) -> dict[str, Any]:
    """A quantity, or several, at the door."""
    return {"value": value, "unit": unit}


def refused(name: str, data: dict[str, Any]) -> str:
    """The code with which a calculation refuses."""
    with pytest.raises(Refused) as refusal:
        compute(name, data)
    return refusal.value.reason_code


def test_a_spread_far_beyond_the_usual_counts_itself():
    """84.00, 84.05, 84.10 with a pooled 0.001: U follows the sample, 2 degrees of freedom, and says
    that it is unusual.
    """
    got = compute(
        "uncertainty",
        {
            "mpe": q(0.002, "mm"),
            "resolution": q(0.002, "mm"),
            "readings": q([84.0, 84.05, 84.1], "mm"),
            "pooled_s": q(0.001, "mm"),
        },
    )
    u_rep = 0.05 / math.sqrt(3)
    u_c = math.sqrt(u_rep**2 + 0.002**2 / 3 + 0.001**2 / 3)
    k = stats.t.ppf((1 + LEVEL) / 2, 2 * (u_c / u_rep) ** 4)
    assert got["spread_unusual"]["value"] is True
    assert got["U"]["value"] == pytest.approx(k * u_c, rel=1e-6)
    assert got["U"]["value"] > 0.12


def test_further_half_widths_and_no_tool_at_all():
    """A further half-width adds a/sqrt 3; a tool without any error is refused, never U = 0."""
    base = {
        "mpe": q(0.002, "mm"),
        "resolution": q(0.001, "mm"),
        "readings": q([10.0], "mm"),
        "pooled_s": q(0.001, "mm"),
    }
    got = compute("uncertainty", base | {"extra_rectangular_half_widths": q([0.003], "mm")})
    assert got["u_c"]["value"] == pytest.approx(
        math.sqrt((0.002**2 + 0.0005**2 + 0.003**2) / 3 + 0.001**2), rel=1e-9
    )
    assert (
        refused("uncertainty", base | {"mpe": q(0, "mm"), "resolution": q(0, "mm")})
        == "no_instrument_data"
    )


def test_the_distributor_turns_half():
    """36 in all, 12 at idle: 24 at the crank, 12 in the distributor."""
    got = compute("mechanical_needed", {"total": q(36, "deg BTDC"), "initial": q(12, "deg BTDC")})
    assert (got["mechanical"]["value"], got["distributor_degrees"]["value"]) == (24, 12)


@pytest.mark.parametrize(
    ("offset", "words"),
    [
        (8, "left rod longer and right rod shorter"),
        (-8, "right rod longer and left rod shorter"),
        (0, "stands straight"),
    ],
)
def test_which_rod_is_lengthened(offset, words):
    """Named in words, and that it turns about where the arms point forward."""
    data = {
        "wheel_offset": q(offset, "deg"),
        "steering_ratio": q(16, "1"),
        "steering_arm_radius": q(130, "mm"),
        "thread_pitch": q(1.5, "mm"),
        "adjuster": "single",
    }
    assert words in compute("centre_steering_wheel", data)["direction"]["value"]


def test_a_dry_run_has_its_own_limit():
    """30 s whatever limit is passed in."""
    base = {"seconds": q(20, "s"), "accepted": True}
    assert compute("dry_run_request", base | {"limit": q(25, "s")})["allowed"]["value"] == 20
    assert refused("dry_run_request", base | {"limit": q(60, "s")}) == "dry_run_too_long"


def test_one_cylinder_has_no_spread_and_nothing_stays_nothing():
    """Compared with nothing; a cylinder at nothing, wet or dry, is never the rings."""
    assert refused("compression_spread", {"readings": q([11.0], "bar")}) == "map_incomplete"
    got = compute(
        "wet_test", {"dry": q([12, 0, 12, 12], "bar"), "wet": q([12.5, 0.1, 12.5, 12.5], "bar")}
    )
    assert got["finding"]["value"] == ["ok", "valves_or_gasket", "ok", "ok"]


def test_an_oversize_that_would_not_clean_up():
    """Worn to 84.20 with 0.04 for honing: 84.24 is needed. 0.25 gives 84.25, but its piston of
    84.19 with 0.04 only 84.23: 0.50 does it.
    """
    pistons = {"0.25": q(84.19, "mm"), "0.5": q(84.46, "mm")}
    base = {
        "nominal": q(84, "mm"),
        "max_worn_diameter": q(84.2, "mm"),
        "oversizes": q([0.25, 0.5], "mm"),
        "wear": "symmetric",
        "target_clearance": q(0.04, "mm"),
    }
    got = compute(
        "rebore",
        base
        | {"cleanup_allowance_on_diameter": q(0.04, "mm"), "measured_piston_for_oversize": pistons},
    )
    assert (got["verdict"]["value"], got["oversize"]["value"], got["next_oversize"]["value"]) == (
        "does_not_clean_up",
        pytest.approx(0.25),
        pytest.approx(0.5),
    )
    assert (
        refused("rebore", base | {"cleanup_allowance_on_diameter": q(-0.01, "mm")})
        == "negative_allowance"
    )


@pytest.mark.parametrize(
    ("heights", "quiet", "reading"),
    [
        ([380, 380, 372, 365], 1, 0),
        ([361, 357.5, 356.2, 355.9], 1, 4),
        ([361, 357.5, 356.2, 356.0, 356.1], 2, 5),
        ([360, 359.2, 358.4, 357.6], 1, 0),
        ([360, 359.6, 359.2, 358.8, 358.4], 2, 0),
    ],
)
def test_settled_means_it_stays(heights, quiet, reading):
    """Rested and moved again, or creeping steadily, is not settled."""
    got = compute(
        "settled", {"heights": q(heights, "mm"), "tolerance": q(1.0, "mm"), "quiet_steps": quiet}
    )
    assert (got["reading"]["value"], got["settled"]["value"]) == (reading, reading > 0)


def test_stages_stay_apart():
    """On a scale of 20 N·m, 30 and 35 % of 60 both come out at nothing."""
    assert (
        refused(
            "stages",
            {
                "final_torque": q(60, "N·m"),
                "stages_percent": [30, 35, 100],
                "graduation": q(20, "N·m"),
            },
        )
        == "stages_not_rising"
    )
    assert compute(
        "stages",
        {"final_torque": q(60, "N·m"), "stages_percent": [50, 100], "graduation": q(5, "N·m")},
    )["torques"]["value"] == [30, 60]


def test_no_preload_without_an_addition():
    """Nothing added is no preload."""
    data = {
        "left_zero_play": q(2.0, "mm"),
        "right_zero_play": q(2.1, "mm"),
        "preload_addition": q(0, "mm"),
    }
    assert refused("carrier_preload", data) == "preload_not_positive"


def test_an_inch_among_millimetres():
    """A journal of 52 mm, once read as 2.047 in and kept as mm."""
    data = {
        "axis_1": q([51.98, 2.047], "mm"),
        "axis_2": q([51.98, 51.97], "mm"),
        "nominal": q(52, "mm"),
    }
    assert refused("journal_map", data) == "reading_outlier"


def test_a_rod_leaves_what_the_disc_wears():
    """(33.5 - 30) + 0 + 1.5 = 5.0 mm, also for a hydraulic actuator; never below nothing; the
    source stands in the working.
    """
    base = {"full_mark": q(33.5, "mm"), "rest_mark": q(30, "mm"), "hydraulic_self_adjusting": True}
    got = compute(
        "rod_cut", base | {"wear_reserve": q(1.5, "mm"), "wear_reserve_source": "maker's sheet"}
    )
    assert got["cut"]["value"] == pytest.approx(5.0)
    assert any("1.5 mm, maker's sheet" in line for line in got["working"])
    assert "half pressed" in got["advice"]["value"]
    assert refused("rod_cut", base | {"wear_reserve": q(-1, "mm")}) == "negative_wear_reserve"


@pytest.mark.parametrize(
    ("outer", "inner", "ask"), [(84.0, 83.96, False), (84.0, 84.957, True), (84.0, 84.0, True)]
)
def test_a_piston_is_smaller_than_its_bore(outer, inner, ask):
    """What goes in is smaller than what it goes into."""
    assert (
        compute("fits_check", {"outer": q(outer, "mm"), "inner": q(inner, "mm")})["ask"]["value"]
        is ask
    )
