"""Toe, compression, runout and flanges: what must hold whatever the figures are."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.catalogue import compute
from hollet.core.errors import Refused

TOE = st.integers(-200, 200).map(lambda n: n / 100)


def q(value, unit):
    """A quantity as a door takes it."""
    return {"value": value, "unit": unit}


def adjust(left, right, target=0.2, **own):
    """Turns of both rods."""
    base = {
        "toe_left": q(left, "deg"),
        "toe_right": q(right, "deg"),
        "target_total": q(target, "deg"),
        "steering_arm_radius": q(130, "mm"),
        "thread_pitch": q(1.5, "mm"),
        "adjuster": "single",
        "tie_rod_position": "behind_axle",
    }
    return compute("toe_adjust", base | own)


@given(TOE, st.integers(250, 700))
def test_toe_there_and_back(toe, diameter):
    """Degrees to millimetres and back."""
    length = compute(
        "toe_deg_to_mm", {"total_toe": q(toe, "deg"), "measuring_diameter": q(diameter, "mm")}
    )["total_toe"]["value"]
    back = compute(
        "toe_mm_to_deg", {"total_toe": q(length, "mm"), "measuring_diameter": q(diameter, "mm")}
    )
    assert back["total_deg"]["value"] == pytest.approx(toe, abs=1e-9)
    assert back["total_minutes"]["value"] == pytest.approx(toe * 60, abs=1e-7)


@given(TOE, TOE)
def test_sides_swapped(left, right):
    """Swapping the wheels swaps the turns; a rod ahead of the axle turns the other way; a sleeve
    needs half.
    """
    plain, swapped = adjust(left, right), adjust(right, left)
    assert plain["turns_left"]["value"] == pytest.approx(swapped["turns_right"]["value"])
    assert adjust(left, right, tie_rod_position="ahead_of_axle")["turns_left"][
        "value"
    ] == pytest.approx(-plain["turns_left"]["value"])
    assert adjust(left, right, adjuster="left_right")["turns_right"]["value"] == pytest.approx(
        plain["turns_right"]["value"] / 2
    )


def test_at_the_target_nothing_is_turned():
    """Each wheel at half the target: no turn."""
    found = adjust(0.1, 0.1)
    assert (found["turns_left"]["value"], found["turns_right"]["value"]) == (0.0, 0.0)


@pytest.mark.parametrize(
    ("name", "change", "code"),
    [
        ("toe_adjust", {"adjuster": "rope"}, "bad_option"),
        ("toe_adjust", {"steering_arm_radius": q(0, "mm")}, "length_not_positive"),
        ("centre_steering_wheel", {"wheel_offset": q(95, "deg")}, "offset_implausible"),
        ("centre_steering_wheel", {"steering_ratio": q(0, "1")}, "length_not_positive"),
    ],
)
def test_refused(name, change, code):
    """Each slip has its code."""
    base = (
        {
            "toe_left": q(0, "deg"),
            "toe_right": q(0, "deg"),
            "target_total": q(0.2, "deg"),
            "tie_rod_position": "behind_axle",
        }
        if name == "toe_adjust"
        else {"wheel_offset": q(8, "deg"), "steering_ratio": q(16, "1")}
    )
    common = {
        "steering_arm_radius": q(130, "mm"),
        "thread_pitch": q(1.5, "mm"),
        "adjuster": "single",
    }
    with pytest.raises(Refused) as refusal:
        compute(name, base | common | change)
    assert refusal.value.reason_code == code


@given(st.lists(st.integers(400, 1500), min_size=2, max_size=8))
def test_compression_does_not_care_about_units(readings):
    """kPa, bar and psi give the same ratio and the same low cylinders."""
    plain = compute("compression_spread", {"readings": q(readings, "kPa")})
    bar = compute("compression_spread", {"readings": q([p / 100 for p in readings], "bar")})
    assert bar["ratio"]["value"] == pytest.approx(plain["ratio"]["value"])
    assert bar["low"] == plain["low"]
    assert plain["ok"]["value"] == (min(readings) >= 0.75 * max(readings))


def test_wet_and_dry_are_read_alike():
    """A cylinder that was read only dry is a gap in the test."""
    with pytest.raises(Refused) as refusal:
        compute("wet_test", {"dry": q([12, 11, 7], "bar"), "wet": q([12, 12], "bar")})
    assert refusal.value.reason_code == "map_incomplete"
    alone = compute("wet_test", {"dry": q([12, 11, 7], "bar"), "wet": q([12, 12, 7.1], "bar")})
    assert alone["finding"]["value"] == ["ok", "ok", "valves_or_gasket"]


@pytest.mark.parametrize(
    ("metres", "kpa"),
    [(0, 101.3), (500, 95.5), (1000, 89.9), (1500, 84.6), (2000, 79.5), (3000, 70.1)],
)
def test_standard_atmosphere(metres, kpa):
    """The table of ISO 2533, to 0.1 kPa."""
    found = compute(
        "altitude_gauge",
        {
            "reference_gauge": q(1200, "kPa"),
            "reference_altitude": q(0, "m"),
            "altitude": q(metres, "m"),
        },
    )
    assert found["atmosphere"]["value"] == pytest.approx(kpa, abs=0.06)


@pytest.mark.parametrize(
    ("name", "inputs", "code"),
    [
        ("leak_down", {"supply": q(6, "bar"), "cylinder": q(6.5, "bar")}, "pressure_reversed"),
        ("leak_down", {"supply": q(0, "bar"), "cylinder": q(0, "bar")}, "no_reading"),
        (
            "altitude_gauge",
            {
                "reference_gauge": q(12, "bar"),
                "reference_altitude": q(0, "m"),
                "altitude": q(40, "ft"),
            },
            None,
        ),
        (
            "altitude_gauge",
            {
                "reference_gauge": q(12, "bar"),
                "reference_altitude": q(0, "m"),
                "altitude": q(90_000, "m"),
            },
            "altitude_implausible",
        ),
        (
            "compression_ratio",
            {
                "bore": q(86, "mm"),
                "stroke": q(86, "mm"),
                "chamber": q(5, "mL"),
                "gasket_bore": q(87, "mm"),
                "gasket_thickness": q(1, "mm"),
                "deck_height": q(-3, "mm"),
                "piston_dish": q(0, "mL"),
            },
            "clearance_volume_not_positive",
        ),
    ],
)
def test_pressures_and_volumes_that_cannot_be(name, inputs, code):
    """Gauges swapped, nothing put in, an altitude beyond the air, a piston above its chamber."""
    if code is None:
        assert compute(name, inputs)["expected_gauge"]["unit"] == "bar"
        return
    with pytest.raises(Refused) as refusal:
        compute(name, inputs)
    assert refusal.value.reason_code == code


def rounds(name, field, values, **more):
    """A calculation on figures read round a face, in mm."""
    return compute(name, {field: q(values, "mm"), **more})


def test_a_shifted_disc_has_its_high_spot_where_it_was_shifted():
    """0.04 cos(t - 60 deg) at twelve places: 0.08 in all, high at 60 deg, no form (figures from the
    cosine itself, by a table to six places).
    """
    table = [
        0.02,
        0.034641,
        0.04,
        0.034641,
        0.02,
        0.0,
        -0.02,
        -0.034641,
        -0.04,
        -0.034641,
        -0.02,
        0.0,
    ]
    found = rounds("runout", "readings", table)
    assert found["total"]["value"] == pytest.approx(0.08, abs=1e-6)
    assert found["shift_part"]["value"] == pytest.approx(0.08, abs=1e-5)
    assert found["high_angle"]["value"] == pytest.approx(60, abs=0.01)
    assert found["form"]["value"] == pytest.approx(0, abs=1e-5)


def test_a_face_bent_twice_is_all_form():
    """Two humps opposite each other: no shift mends that."""
    found = rounds("runout", "readings", [0.05, 0.0, 0.05, 0.0])
    assert found["shift_part"]["value"] == pytest.approx(0, abs=1e-12)
    assert found["form"]["value"] == pytest.approx(0.05)


@given(
    st.lists(st.integers(-50, 50), min_size=4, max_size=12),
    st.integers(-100, 100),
    st.integers(0, 11),
)
def test_runout_does_not_know_where_zero_or_the_first_place_is(hundredths, zero, turn):
    """Another zero of the dial, another first place: the same total, shift and form."""
    values = [h / 100 for h in hundredths]
    k = turn % len(values)
    moved = [v + zero / 100 for v in values[k:] + values[:k]]
    one, other = rounds("runout", "readings", values), rounds("runout", "readings", moved)
    for key in ("total", "shift_part", "form"):
        assert other[key]["value"] == pytest.approx(one[key]["value"], abs=1e-9)


def test_the_widest_place_is_the_next_bolt():
    """Six gaps, tilted toward place 4; worked by hand: a = -0.3333 x 0.325 = -0.10833, b = -0.3333
    x 0.043301, twice the size 0.21859.
    """
    found = rounds("even_drawing", "gaps", [0.30, 0.35, 0.40, 0.55, 0.45, 0.35])
    assert (found["widest_at"]["value"], found["narrowest_at"]["value"]) == (4, 1)
    assert found["difference"]["value"] == pytest.approx(0.25)
    assert found["tilt"]["value"] == pytest.approx(0.21858, abs=2e-5)
    assert (
        found["advice"]["value"]
        == "next the bolt at place 4: 0.25 mm wider than place 1, and it is going on crooked"
    )


def test_of_equal_gaps_the_one_farthest_round_is_drawn():
    """Places 2 and 4 alike, 1 the narrowest: 4 of six is farther round than 2; even all round says
    so.
    """
    assert rounds("even_drawing", "gaps", [0.1, 0.3, 0.2, 0.3, 0.2, 0.2])["widest_at"]["value"] == 4
    assert rounds("even_drawing", "gaps", [0.2, 0.2, 0.2])["advice"]["value"].startswith(
        "even all round"
    )


@pytest.mark.parametrize(
    ("name", "field", "values", "code"),
    [
        ("runout", "readings", [0, 1, 2], "too_few_points"),
        ("even_drawing", "gaps", [0.1, 0.2], "too_few_points"),
        ("even_drawing", "gaps", [0.1, -0.2, 0.1], "negative_gap"),
    ],
)
def test_rounds_refused(name, field, values, code):
    """Too few places, or a gap below nothing."""
    with pytest.raises(Refused) as refusal:
        rounds(name, field, values)
    assert refusal.value.reason_code == code


def test_preload_by_string_and_balance():
    """30 N on 40 mm less 0.2 of the seal: 1.0 N·m; in other units the same; a seal cannot drag more
    than all together.
    """
    base = {"pull": q(30, "N"), "radius": q(40, "mm"), "seal_drag": q(0.2, "N·m")}
    assert compute("turning_torque", base)["torque"]["value"] == pytest.approx(1.0)
    assert compute("turning_torque", base | {"radius": q(40 / 25.4, "in")})["torque"][
        "value"
    ] == pytest.approx(1.0)
    for own, code in (
        ({"seal_drag": q(1.3, "N·m")}, "negative_torque"),
        ({"pull": q(0, "N")}, "not_positive"),
    ):
        with pytest.raises(Refused) as refusal:
            compute("turning_torque", base | own)
        assert refusal.value.reason_code == code
