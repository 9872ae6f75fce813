"""Bores and journals: what must hold whatever the figures are."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.catalogue import compute
from hollet.core.errors import Refused

MM = st.integers(84_000, 84_200).map(lambda n: n / 1000)
MAPS = st.lists(st.tuples(MM, MM), min_size=3, max_size=5)


def q(value, unit="mm"):
    """A quantity as a door takes it."""
    return {"value": value, "unit": unit}


def bore(pairs, unit="mm", scale=1.0):
    """The map of a bore, its figures turned into a unit."""
    return compute(
        "bore_map",
        {
            "thrust": q([a / scale for a, _ in pairs], unit),
            "axial": q([b / scale for _, b in pairs], unit),
            "nominal": q(84 / scale, unit),
        },
    )


@given(MAPS)
def test_axes_swapped_and_turned_upside_down(pairs):
    """Out of round, taper and wear do not care which axis is called which, nor where the top is;
    top minus bottom changes its sign.
    """
    plain, swapped, upside = bore(pairs), bore([(b, a) for a, b in pairs]), bore(pairs[::-1])
    for key in ("out_of_round", "taper", "max_wear", "mean_diameter"):
        assert plain[key]["value"] == pytest.approx(swapped[key]["value"], abs=1e-9)
        assert plain[key]["value"] == pytest.approx(upside[key]["value"], abs=1e-9)
    assert plain["taper_top_minus_bottom"]["value"] == pytest.approx(
        -upside["taper_top_minus_bottom"]["value"], abs=1e-9
    )


@given(MAPS)
def test_inches_give_the_same(pairs):
    """The same map in inches gives the same lengths."""
    plain, inch = bore(pairs), bore(pairs, "in", 25.4)
    for key in ("out_of_round", "taper", "max_wear"):
        assert inch[key]["unit"] == "in"
        assert inch[key]["value"] * 25.4 == pytest.approx(plain[key]["value"], abs=1e-9)


@pytest.mark.parametrize("pairs", [[(84, 84)], [(84, 84)] * 2])
def test_a_map_needs_three_depths(pairs):
    """Fewer depths are no map."""
    with pytest.raises(Refused) as refusal:
        bore(pairs)
    assert refusal.value.reason_code == "map_incomplete"


def rebore(worn, wear="symmetric", **own):
    """The oversize for a bore of 84."""
    sizes = {
        "nominal": q(84.0),
        "max_worn_diameter": q(worn),
        "oversizes": q([1.0, 0.25, 0.5]),
        "cleanup_allowance_on_diameter": q(0.08),
    }
    return compute("rebore", {**sizes, "wear": wear, **own})


@pytest.mark.parametrize(
    ("worn", "oversize"), [(84.17, 0.25), (84.171, 0.5), (84.42, 0.5), (84.92, 1.0)]
)
def test_exactly_enough_is_enough(worn, oversize):
    """At the very edge the oversize counts; a micrometre more takes the next, whatever the order of
    the list.
    """
    assert rebore(worn)["oversize"]["value"] == oversize


def test_no_oversize_fits():
    """Worn beyond the last one."""
    with pytest.raises(Refused) as refusal:
        rebore(84.6, "one_sided")
    assert refusal.value.reason_code == "no_oversize_fits"


def test_the_finish_size_needs_the_piston_of_that_oversize():
    """Without its piston no size to bore to is told; the pistons are named in the unit of the
    oversizes.
    """
    other = {"0.5": q(84.465)}
    assert "finish_bore" not in rebore(
        84.1, measured_piston_for_oversize=other, target_clearance=q(0.04)
    )
    inches = {
        "nominal": q(3.307, "in"),
        "max_worn_diameter": q(3.309, "in"),
        "oversizes": q([0.01, 0.02], "in"),
        "cleanup_allowance_on_diameter": q(0.002, "in"),
        "measured_piston_for_oversize": {"0.010": q(84.2)},
        "target_clearance": q(1.5, "thou"),
    }
    assert compute("rebore", inches)["finish_bore"]["value"] * 25.4 == pytest.approx(
        84.2381, abs=1e-6
    )


@given(st.integers(200, 600).map(lambda n: n / 1000), st.floats(83.9, 84.2), st.floats(83.9, 84.2))
def test_a_gap_there_and_back(gap, a, b):
    """From one diameter to another and back gives the gap again; a round bore is an oval with two
    equal axes.
    """
    asked = {"gap": q(gap), "measured_at_bore": q(a), "wanted_at_bore": q(b)}
    if gap + math.pi * (b - a) <= 1e-6:
        with pytest.raises(Refused) as refusal:
            compute("ring_gap", asked)
        assert refusal.value.reason_code == "ring_butts"
        return
    there = compute("ring_gap", asked)["gap"]["value"]
    back = compute("ring_gap", {"gap": q(there), "measured_at_bore": q(b), "wanted_at_bore": q(a)})[
        "gap"
    ]["value"]
    assert back == pytest.approx(gap, abs=1e-9)
    oval = compute(
        "ring_gap_oval", {"gap": q(gap), "measured_at_bore": q(a), "thrust": q(b), "axial": q(b)}
    )["gap"]["value"]
    assert oval == pytest.approx(there, abs=1e-9)


@given(st.floats(1.0, 90.0), st.floats(0.5, 1.0))
def test_the_perimeter_is_that_of_an_ellipse(a, ratio):
    """Against the integral itself, summed in small steps."""
    b, steps = a * ratio, 4000
    around = (
        sum(
            math.hypot(a * math.sin(t), b * math.cos(t))
            for t in ((k + 0.5) * math.pi / 2 / steps for k in range(steps))
        )
        * math.pi
        / 2
        / steps
        * 4
        / 2
    )
    got = compute(
        "ring_gap_oval",
        {"gap": q(1000.0), "measured_at_bore": q(1.0), "thrust": q(a), "axial": q(b)},
    )["gap"]["value"]
    assert got == pytest.approx(1000 + around - math.pi, abs=1e-5)


@pytest.mark.parametrize("name", ["choose_shells", "end_float_washers"])
def test_nothing_fits(name):
    """No grade or washer inside the limits is a refusal, not the nearest one."""
    shells = {
        "housing_bore": q(59.0),
        "journal": q(54.9),
        "grade_wall": {"1": q(1.9)},
        "lower_limit": q(0.02),
        "upper_limit": q(0.06),
        "target": q(0.04),
    }
    washers = {
        "measured_end_float": q(0.5),
        "present_washer": q(2.3),
        "washers": q([2.3]),
        "sides": 2,
        "lower_limit": q(0.1),
        "upper_limit": q(0.2),
    }
    with pytest.raises(Refused) as refusal:
        compute(name, shells if name == "choose_shells" else washers)
    assert refusal.value.reason_code == "no_grade_fits"


def test_big_ends_wider_than_their_pin():
    """No clearance left is a refusal."""
    with pytest.raises(Refused) as refusal:
        compute("rod_side_clearance", {"pin_width": q(47.0), "big_end_widths": q([23.5, 23.5])})
    assert refusal.value.reason_code == "negative_clearance"
