"""The watch over a first run: each reason to stop, and silence."""

import pytest

from hollet.core.catalogue import compute
from hollet.core.entries.runs import RunSample
from hollet.core.errors import Refused
from hollet.core.running.watch import oil_pressure_floor_kpa
from hollet.core.steps.stop import stop_of

LIMITS = {
    "pressure_time": {"value": 10, "unit": "s"},
    "floor": {"value": 7, "unit": "psi"},
    "coolant_max": {"value": 105, "unit": "°C"},
}


def watch(*samples: dict) -> dict:
    """The monitor's answer to samples."""
    return compute(
        "first_run_monitor",
        {"samples": list(samples), "sample_units": {"oil_psi": "psi"}, "limits": LIMITS},
    )


@pytest.mark.parametrize(
    ("sample", "action"),
    [
        ({"t": 3, "leak": "fuel", "oil_psi": 0}, "abort_leak"),
        ({"t": 3, "leak": "heavy_oil"}, "abort_leak"),
        ({"t": 11, "rpm": 1500, "oil_psi": 14.9}, "abort_oil_pressure"),
        ({"t": 11, "rpm": 1500, "oil_psi": 15}, "continue"),
        ({"t": 9.9, "rpm": 1500, "oil_psi": 0}, "continue"),
        ({"t": 10, "rpm": 1500, "oil_psi": 0}, "abort_oil_pressure"),
        ({"t": 10, "rpm": 0, "oil_psi": 0}, "abort_oil_pressure"),
        ({"t": 60}, "no_reading"),
        ({"t": 60, "rpm": 600, "oil_psi": 6.9}, "abort_oil_pressure"),
        ({"t": 60, "rpm": 900, "oil_psi": 20, "coolant": 105.1}, "abort_overheat"),
        ({"t": 60, "lamp_out": True, "coolant": 105}, "continue"),
        ({"t": 60, "lamp_out": True, "noise": True}, "abort_noise"),
        ({"t": 60, "lamp_out": True, "leak": "drip"}, "continue"),
    ],
)
def test_one_sample(sample, action):
    """Each limit stops on its far side only; a drip of oil or coolant is looked at, not stopped
    for.
    """
    assert watch(sample)["action"]["value"] == action


def test_first_hit_wins_in_its_order():
    """A fuel leak is named before everything else at the same moment."""
    assert (
        watch({"t": 60, "leak": "fuel", "oil_psi": 0, "coolant": 200, "noise": True})["action"][
            "value"
        ]
        == "abort_leak"
    )


@pytest.mark.parametrize("samples", [[{"t": 5}, {"t": 4}], [{"t": None}]])
def test_disorder_is_refused(samples):
    """Samples out of order of time, or without one, are refused."""
    with pytest.raises(Refused) as refusal:
        watch(*samples)
    assert refusal.value.reason_code == "bad_option"


def test_units_of_samples_count():
    """Pressure in bar is not taken for psi."""
    data = {
        "samples": [{"t": 20, "rpm": 2000, "oil_psi": 2.0}],
        "sample_units": {"oil_psi": "bar"},
        "limits": LIMITS,
    }
    assert compute("first_run_monitor", data)["action"]["value"] == "continue"


def test_pressure_rule():
    """10 psi per 1000 rpm (68.95 kPa), with a floor."""
    assert oil_pressure_floor_kpa(3000, 1, 0) == pytest.approx(206.843, abs=1e-3)
    assert oil_pressure_floor_kpa(500, 1, 50) == 50


def pressure(times: list, values: list, limit: float = 10) -> dict:
    """Time to 10 psi."""
    return compute(
        "time_to_pressure",
        {
            "time": {"value": times, "unit": "s"},
            "pressure": {"value": values, "unit": "psi"},
            "min_pressure": {"value": 10, "unit": "psi"},
            "limit": {"value": limit, "unit": "s"},
        },
    )


def test_silence_is_no_pass():
    """No sample at all is watched on; silence up to the limit is a stop."""
    assert pressure([], [])["verdict"]["value"] == "keep_watching"
    assert pressure([4], [3])["verdict"]["value"] == "keep_watching"
    assert pressure([4, 10], [3, 9.9])["verdict"]["value"] == "stop_no_pressure"


@pytest.mark.parametrize(("t", "action"), [(20, "continue"), (20.1, "no_reading")])
def test_a_partial_sample_is_completed_for_fifteen_seconds(t, action):
    """Revs and oil read at 5 s hold until 20 s, no longer; another age may be asked for."""
    first = {"t": 5, "rpm": 1000, "oil_psi": 30}
    assert watch(first, {"t": t, "coolant": 60})["action"]["value"] == action
    data = {
        "samples": [first, {"t": t}],
        "sample_units": {},
        "limits": LIMITS,
        "stale_after": {"value": 10, "unit": "s"},
    }
    assert compute("first_run_monitor", data)["action"]["value"] == "no_reading"


def test_pressure_on_the_limit_counts():
    """The limit itself is in time; after it is not."""
    assert pressure([10], [10])["verdict"]["value"] == "pressure_in_time"
    assert pressure([10.1], [10])["verdict"]["value"] == "stop_no_pressure"


def test_pressure_in_another_unit():
    """0.7 bar is more than 10 psi."""
    data = {
        "time": {"value": [2], "unit": "s"},
        "pressure": {"value": [0.7], "unit": "bar"},
        "min_pressure": {"value": 10, "unit": "psi"},
    }
    assert compute("time_to_pressure", data)["verdict"]["value"] == "pressure_in_time"


def test_uneven_lists_are_refused():
    """One pressure for each time."""
    with pytest.raises(Refused):
        pressure([1, 2], [3])


@pytest.mark.parametrize(
    ("seconds", "accepted", "answer"),
    [
        (20, True, 20),
        (30, True, 30),
        (30.1, True, "dry_run_too_long"),
        (10, False, "no_coolant"),
        (0, True, "bad_option"),
    ],
)
def test_dry_run(seconds, accepted, answer):
    """Only by decision, only up to the limit."""
    data = {"seconds": {"value": seconds, "unit": "s"}, "accepted": accepted}
    if isinstance(answer, str):
        with pytest.raises(Refused) as refusal:
            compute("dry_run_request", data)
        assert refusal.value.reason_code == answer
    else:
        assert compute("dry_run_request", data)["allowed"] == {"value": answer, "unit": "s"}


@pytest.mark.parametrize(
    ("read", "until", "at"),
    [
        ([3, 27], 27, None),  # before it is due nobody must read it
        ([3, 28], 28, None),
        ([3, 28.1], 28.1, 28),
        ([9, 29], 29, None),
        ([9, 29.1], 29.1, 29),
        ([9, 20, 40], 40, None),
        ([9, 20], 40.1, 40),
    ],
)
def test_how_long_the_oil_pressure_may_go_unread(read, until, at):
    """Due by 8 s: from then on at most 20 s from one reading to the next, and to the end."""
    samples = [RunSample(t=t, lamp_out=True) for t in read]
    reason, moment = stop_of(samples, (), until, None, None, 8.0)
    assert moment == at
    assert (reason is None) == (at is None)
