"""A pull by the thousand samples, made here from straight lines and a wave, read by the core."""

import math

import pytest

from hollet.core.tightening.pull import read_pull

SNUG, HELD = 76.0, 80.0
STEP = 0.05
"""Degrees from sample to sample."""


def ramp(*legs: tuple[float, float], start: float = 0.0, at: float = 0.0):
    """Angles and torques along straight legs of (degrees, N·m by degree)."""
    angles, torques, angle, torque = [], [], at, start
    for degrees, climb in legs:
        for _ in range(round(degrees / STEP)):
            angles.append(angle)
            torques.append(torque)
            angle, torque = angle + STEP, torque + climb * STEP
    return angles, torques


WIND = (4.0, 20.0)
"""The wrench gives until the bolt moves at 80."""


@pytest.mark.parametrize(
    ("legs", "verdict", "at"),
    [
        ([WIND, (90, 0.75)], "ok", None),
        ([WIND, (60, 0.75), (20, 0.25)], "yield", 60),
        ([WIND, (40, 0.75), (20, -0.3)], "torque_falling", 40),
        ([WIND, (30, 0.75), (20, 2.0)], "bottoming", 30),
        ([(50, 0.05), WIND, (20, 0.75)], "ok", None),
        ([(150, 0.2), WIND, (20, 0.75)], "early", None),
        ([WIND, (4, 0.75)], "short", None),
    ],
)
def test_what_a_pull_shows(legs, verdict, at):
    pull = read_pull(*ramp(*legs, start=0.0), SNUG, HELD)
    assert pull.verdict == verdict
    if at is None:
        assert pull.at is None
    else:
        assert pull.at == pytest.approx(at, abs=3)
        assert pull.before == pytest.approx(0.75, abs=0.02)


def test_a_joint_that_slips_and_grips_is_not_read_as_yielding():
    angles, torques = ramp(WIND, (90, 0.75))
    wavy = [
        t + (9 * math.sin(a * 1.5) if a > 6 else 0) for a, t in zip(angles, torques, strict=True)
    ]
    assert read_pull(angles, wavy, SNUG, HELD).verdict == "stick_slip"


def test_the_angle_counts_from_where_the_bolt_is_snug():
    pull = read_pull(*ramp(WIND, (41, 0.75), at=200.0), SNUG, HELD)
    assert pull.turned == pytest.approx(41 + 0.2, abs=0.15)  # 0.2°: from 76 to 80 it winds up
    assert pull.peak == pytest.approx(80 + 41 * 0.75, abs=0.1)


def test_a_wrench_that_is_set_back_in_the_middle_reads_the_same():
    angles, torques = ramp(WIND, (60, 0.75), (25, 0.75))
    cut = round(40 / STEP)
    back = [angles[cut] - k * STEP for k in range(round(25 / STEP))]
    again = ramp((25, 3.0), at=angles[cut] - 25)
    mixed = (
        angles[:cut] + back + again[0] + angles[cut:],
        torques[:cut] + [0.0] * len(back) + again[1] + torques[cut:],
    )
    straight, set_back = read_pull(angles, torques, SNUG, HELD), read_pull(*mixed, SNUG, HELD)
    assert set_back.verdict == straight.verdict == "ok"
    assert set_back.turned == pytest.approx(straight.turned, abs=0.1)


def test_a_pull_that_never_gets_snug_turned_nothing():
    pull = read_pull(*ramp((4.0, 15.0)), SNUG, HELD)
    assert (pull.verdict, pull.turned, pull.snug_at) == ("short", 0.0, None)
    assert read_pull((), (), SNUG, HELD).peak == 0.0
