"""The first run: time to oil pressure, the watch over samples, a run without coolant (engine-rebuild practice).

All thresholds are inputs; the defaults are rules of thumb, and the maker's figure wins.
"""

import itertools
from typing import Literal

from hollet.core.errors import Refused
from hollet.core.fields import Pressure, Pressures, Ratio, Temperature, Time, Times
from hollet.core.quantities.quantity import Quantity, canonical, exact, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["DRY_RUN_S", "dry_run_request", "first_run_monitor", "oil_pressure_floor_kpa", "time_to_pressure"]

DRY_RUN_S = 30.0  # rule of thumb: the longest run without coolant
KPA_PER_1000_RPM = 10 * 6.894757293168361  # rule of thumb: 10 psi per 1000 rpm, hot


def oil_pressure_floor_kpa(speed_rpm: float, factor: float, floor_kpa: float) -> float:
    """Least oil pressure in kPa at a speed: 10 psi per 1000 rpm times `factor`, at least `floor_kpa`."""
    return max(KPA_PER_1000_RPM * factor * speed_rpm / 1000, floor_kpa)


class TimeToPressure(Input):
    """Samples since the start of running (or cranking), the pressure wanted and the time allowed."""

    time: Times = None
    pressure: Pressures = None
    min_pressure: Pressure = None
    limit: Time = None


class TimeToPressureResult(Result):
    """`pressure_in_time` with its moment, or `stop_no_pressure` at the limit."""

    verdict: str
    time: Quantity


@calculation("Time to oil pressure")
def time_to_pressure(i: TimeToPressure) -> TimeToPressureResult:
    """The first sample with at least the pressure within the limit, ends included; silence is never a pass.

    Raises
    ------
    Refused
        `bad_option` when the samples are not as many times as pressures, or not in order of time.
    """
    times, pressures = i.figures("time"), i.figures("pressure")
    wanted = i.figure("min_pressure")
    limit = i.figure("limit") if i.limit else 10.0
    if len(times) != len(pressures) or any(a > b for a, b in itertools.pairwise(times)):
        raise Refused("bad_option", "give one pressure for each time, in order of time", field="time")
    unit = i.time.unit if i.time else "s"
    for t, p in zip(times, pressures, strict=True):
        if round9(t) <= round9(limit) and round9(p) >= round9(wanted):
            return TimeToPressureResult(verdict="pressure_in_time", time=in_unit(t, unit),
                                        working=(f"{p:g} kPa at {t:g} s, asked {wanted:g} kPa by {limit:g} s",))  # fmt: skip
    return TimeToPressureResult(verdict="stop_no_pressure", time=in_unit(limit, unit),
                                working=(f"no {wanted:g} kPa by {limit:g} s",))  # fmt: skip


class Sample(Input):
    """One moment of a run; a figure nobody entered is None."""

    t: float | None
    rpm: float | None = None
    oil_psi: float | None = None
    coolant: float | None = None
    leak: Literal["none", "drip", "fuel", "heavy_oil"] = "none"
    noise: bool = False


class RunLimits(Input):
    """Time by which pressure must show, factor on the rule, floor, coolant maximum."""

    pressure_time: Time = None
    factor: Ratio = None
    floor: Pressure = None
    coolant_max: Temperature = None


class FirstRun(Input):
    """Samples in order of time with their units, and the limits."""

    samples: list[Sample]
    sample_units: dict[str, str]
    limits: RunLimits


class FirstRunResult(Result):
    """`continue`, or the first reason to stop and its time."""

    action: str
    time: Time = None


@calculation("Watch over a first run")
def first_run_monitor(i: FirstRun) -> FirstRunResult:
    """Checks each sample in this order: leak, oil pressure once its time is past, coolant, noise. First hit stops.

    Raises
    ------
    Refused
        `not_a_finite_number`, `dimension_mismatch`, `bad_option` when samples are out of order.
    """
    due = canonical(i.limits.pressure_time, "time", "limits.pressure_time") if i.limits.pressure_time else 10.0
    floor = canonical(i.limits.floor, "pressure", "limits.floor") if i.limits.floor else 0.0
    hottest = canonical(i.limits.coolant_max, "temperature", "limits.coolant_max") if i.limits.coolant_max else 105.0
    last = float("-inf")
    for sample in i.samples:
        t = _in(i, sample.t, "t", "time")
        if t is None or t < last:
            raise Refused("bad_option", "the samples must be in order of time, each with its 't'", field="samples")
        last = t
        reason = _reason(i, sample, t, due, floor, hottest)
        if reason:
            return FirstRunResult(action=reason, time=in_unit(t, i.sample_units.get("t", "s")))
    return FirstRunResult(action="continue")


def _in(i: FirstRun, value: float | None, key: str, dimension: str) -> float | None:
    if value is None:
        return None
    default = {"t": "s", "rpm": "rpm", "oil_psi": "psi", "coolant": "°C"}[key]
    return float(exact(Quantity(value=value, unit=i.sample_units.get(key, default)), dimension, key))


def _reason(i: FirstRun, sample: Sample, t: float, due: float, floor: float, hottest: float) -> str | None:
    if sample.leak in ("fuel", "heavy_oil"):
        return "abort_leak"
    rpm, oil = _in(i, sample.rpm, "rpm", "speed"), _in(i, sample.oil_psi, "oil_psi", "pressure")
    if oil is not None and round9(t) > round9(due):
        if round9(oil) < round9(oil_pressure_floor_kpa(rpm or 0.0, canonical(i.limits.factor or Quantity(value=1, unit="1"), "ratio", "limits.factor"), floor)):
            return "abort_oil_pressure"
    coolant = _in(i, sample.coolant, "coolant", "temperature")
    if coolant is not None and round9(coolant) > round9(hottest):
        return "abort_coolant"
    return "abort_noise" if sample.noise else None


class DryRun(Input):
    """How long, whether the decision was written, and the longest allowed."""

    seconds: Time = None
    accepted: bool
    limit: Time = None


class DryRunResult(Result):
    """Seconds allowed."""

    allowed: Quantity


@calculation("A run without coolant")
def dry_run_request(i: DryRun) -> DryRunResult:
    """Refused (`no_coolant`) without a written decision, and (`dry_run_too_long`) above the limit, 30 s by rule of thumb."""
    seconds = i.figure("seconds")
    limit = i.figure("limit") if i.limit else DRY_RUN_S
    if not i.accepted:
        raise Refused("no_coolant", "there is no coolant in the engine: fill it first; a short dry run only after a "
                      "written decision", field="accepted")  # fmt: skip
    if seconds <= 0:
        raise Refused("bad_option", "'seconds' must be above zero", field="seconds")
    if round9(seconds) > round9(limit):
        raise Refused("dry_run_too_long", f"at most {limit:g} s without coolant, then a full cool-down", field="seconds")
    return DryRunResult(allowed=in_unit(seconds, i.seconds.unit if i.seconds else "s"), working=(f"{seconds:g} s ≤ {limit:g} s",))
