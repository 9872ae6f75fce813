"""A torque over its angle read against what physics says of a bolt, not against the code."""

import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.catalogue import compute
from hollet.core.errors import Refused
from hollet.core.tightening.trace import climbs


def read(angles: list[float], torques: list[float], snug: float = 20.0, **more: object) -> dict:
    return compute(
        "torque_angle_trace",
        {
            "angle": {"value": angles, "unit": "deg"},
            "torque": {"value": torques, "unit": "N·m"},
            "snug_torque": {"value": snug, "unit": "N·m"},
            **more,
        },
    )


def bolt(slope: float, knee: float, after: float, end: float = 120, step: float = 2) -> tuple:
    """A straight climb from 20 N·m, and another from the knee on (degrees)."""
    angles = [k * step for k in range(int(end / step) + 1)]
    torques = [20 + slope * min(a, knee) + after * max(0.0, a - knee) for a in angles]
    return angles, torques


@given(
    st.floats(0.1, 5),
    st.floats(30, 90),
    st.floats(0.0, 0.35),
)
def test_a_bolt_that_yields_is_found_near_its_knee(slope: float, knee: float, share: float):
    """Within a window of the knee, whatever the size of the bolt; in any unit of torque."""
    angles, torques = bolt(slope, knee, slope * share)
    found = read(angles, torques)
    assert found["verdict"]["value"] == "yield"
    assert abs(found["angle"]["value"] - knee) <= 10


@given(st.floats(0.1, 5), st.floats(30, 90), st.floats(2.2, 6))
def test_a_bolt_that_bottoms_is_found(slope: float, knee: float, share: float):
    angles, torques = bolt(slope, knee, slope * share)
    found = read(angles, torques)
    assert found["verdict"]["value"] == "bottoming"
    assert abs(found["angle"]["value"] - knee) <= 10


@given(st.floats(0.1, 5), st.integers(0, 10**6))
def test_a_healthy_bolt_is_healthy(slope: float, seed: int):
    """Straight, with a little noise that its climb drowns."""
    angles, torques = bolt(slope, 999, 0)
    dice = random.Random(seed)
    noisy = [t + dice.uniform(-0.15, 0.15) * slope for t in torques]
    assert read(angles, noisy)["verdict"]["value"] == "ok"


def test_a_thread_that_strips_falls():
    """Half the climb, and then less torque for more angle."""
    angles, torques = bolt(0.6, 60, -0.4)
    assert read(angles, torques)["verdict"]["value"] == "torque_falling"


def test_what_comes_before_snug_is_not_looked_at():
    """A loose run-in of 40 degrees at nothing is no jump."""
    angles = [2.0 * k for k in range(60)]
    torques = [1.0 if a < 40 else 20 + 0.6 * (a - 40) for a in angles]
    assert read(angles, torques)["verdict"]["value"] == "ok"


def test_the_shares_are_tunable():
    """A climb that falls to 0.6 yields only for somebody who says so."""
    angles, torques = bolt(0.6, 60, 0.36)
    assert read(angles, torques)["verdict"]["value"] == "ok"
    tuned = read(angles, torques, yields={"value": 0.7, "unit": "1"})
    assert tuned["verdict"]["value"] == "yield"


def test_each_slope_is_the_least_squares_line():
    """Against numpy, on noise."""
    dice = random.Random(3)
    torques = [dice.uniform(0, 100) for _ in range(60)]
    wanted = [np.polyfit(np.arange(5) * 0.5, torques[k : k + 5], 1)[0] for k in range(56)]
    assert climbs(torques, 0.5) == pytest.approx(wanted, abs=1e-9)


@pytest.mark.parametrize(
    ("angles", "torques", "code"),
    [
        ([0, 5, 10], [20, 22, 24], "trace_too_short"),
        (list(range(0, 60, 5)), [20.0] * 11, "count_mismatch"),
        ([0, 5, 10, 16, 20, 25, 30, 35, 40], [20.0 + k for k in range(9)], "angles_uneven"),
        (list(range(60, 0, -5)), [20.0 + k for k in range(12)], "angles_uneven"),
        (list(range(0, 60, 5)), [2.0] * 12, "trace_too_short"),
        ([], [], "trace_too_short"),
    ],
)
def test_traces_that_cannot_be_read(angles: list, torques: list, code: str):
    with pytest.raises(Refused) as refusal:
        read(angles, torques)
    assert refusal.value.reason_code == code


def test_friction_length_and_angle_as_physics_has_them():
    """Twice the angle twice the preload; a longer bolt is softer; no friction is beyond 0.6."""
    stiff = {"value": 150000, "unit": "N/mm"}

    def gain(angle: float, joint: float = 600000) -> float:
        given = {"pitch": {"value": 1.25, "unit": "mm"}, "angle": {"value": angle, "unit": "deg"}}
        joint_k = {"value": joint, "unit": "N/mm"}
        got = compute(
            "angle_tightening", {**given, "bolt_stiffness": stiff, "joint_stiffness": joint_k}
        )
        assert got["bolt_stretch"]["value"] + got["joint_compression"]["value"] == pytest.approx(
            got["advance"]["value"]
        )
        return float(got["preload_gain"]["value"])

    assert gain(180) == pytest.approx(2 * gain(90))
    assert gain(90, 1e9) > gain(90)
    part = {"length": {"value": 40, "unit": "mm"}, "area": {"value": 58, "unit": "mm²"}}
    steel = {"value": 205000, "unit": "MPa"}
    one = compute("bolt_stiffness", {"sections": [part], "E": steel})["k"]["value"]
    two = compute("bolt_stiffness", {"sections": [part, part], "E": steel})["k"]["value"]
    assert one == pytest.approx(2 * two)
    thread = {"d": {"value": 10, "unit": "mm"}, "pitch": {"value": 1.5, "unit": "mm"}}
    rubs = {"head_friction_diameter": {"value": 13.5, "unit": "mm"}}
    for bad in (0, -0.1, 1.2):
        with pytest.raises(Refused, match="friction"):
            compute(
                "nut_factor_from_friction",
                {
                    **thread,
                    **rubs,
                    "mu_thread": {"value": bad, "unit": "1"},
                    "mu_head": {"value": 0.12, "unit": "1"},
                },
            )
