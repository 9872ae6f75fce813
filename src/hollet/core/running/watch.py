"""The first run: time to oil pressure, the watch over samples, a run without coolant
(engine-rebuild practice).

All thresholds are inputs; the defaults are rules of thumb, and the maker's figure wins.
"""

import itertools
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from hollet.core.errors import Refused
from hollet.core.fields import Pressure, Pressures, Ratio, Temperature, Time, Times
from hollet.core.quantities.quantity import Quantity, canonical, exact, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "DRY_RUN_S",
    "STALE_S",
    "Seen",
    "dry_run_request",
    "first_run_monitor",
    "oil_pressure_floor_kpa",
    "oil_state",
    "time_to_pressure",
]

STALE_S = 15.0  # a figure older than this says nothing of now
DRY_RUN_S = 30.0  # rule of thumb: the longest run without coolant
KPA_PER_1000_RPM = 10 * 6.894757293168361  # rule of thumb: 10 psi per 1000 rpm, hot


def oil_pressure_floor_kpa(speed_rpm: float, factor: float, floor_kpa: float) -> float:
    """Least oil pressure in kPa at a speed: 10 psi per 1000 rpm times `factor`, at least
    `floor_kpa`.
    """
    return max(KPA_PER_1000_RPM * factor * speed_rpm / 1000, floor_kpa)


class TimeToPressure(Input):
    """Samples since the start of running (or cranking), the pressure wanted and the
    time allowed.
    """

    time: Times = None
    pressure: Pressures = None
    min_pressure: Pressure = None
    limit: Time = None


class TimeToPressureResult(Result):
    """`pressure_in_time` with its moment, `keep_watching` at the last sample, or `stop_no_pressure`
    at the limit.
    """

    verdict: str
    time: Quantity


@calculation("Time to oil pressure")
def time_to_pressure(i: TimeToPressure) -> TimeToPressureResult:
    """The first sample with at least the pressure within the limit, ends included; silence is never
    a pass.

    Not there yet and the limit not reached: `keep_watching`; the limit reached, exactly too,
    without it: `stop_no_pressure`.

    Raises
    ------
    Refused
        `bad_option` when the samples are not as many times as pressures, or not in order of time.

    Example
    -------
    >>> given = {
    ...     "time": {"value": [0, 2, 4, 6, 8], "unit": "s"},
    ...     "pressure": {"value": [0, 0, 3, 22, 40], "unit": "psi"},
    ...     "min_pressure": {"value": 10, "unit": "psi"},
    ...     "limit": {"value": 10, "unit": "s"},
    ... }
    >>> found = time_to_pressure(TimeToPressure.model_validate(given))
    >>> round(found.time.value, 4), found.time.unit
    (6.0, 's')
    """
    times, pressures = i.figures("time"), i.figures("pressure")
    wanted = i.figure("min_pressure")
    limit = i.figure("limit") if i.limit else 10.0
    if len(times) != len(pressures) or any(a > b for a, b in itertools.pairwise(times)):
        raise Refused(
            "bad_option", "give one pressure for each time, in order of time", field="time"
        )
    unit = i.time.unit if i.time else "s"
    for t, p in zip(times, pressures, strict=True):
        if round9(t) <= round9(limit) and round9(p) >= round9(wanted):
            return TimeToPressureResult(
                verdict="pressure_in_time",
                time=in_unit(t, unit),
                working=(f"{p:g} kPa at {t:g} s, asked {wanted:g} kPa by {limit:g} s",),
            )
    if not times or round9(times[-1]) < round9(limit):
        return TimeToPressureResult(
            verdict="keep_watching",
            time=in_unit(times[-1] if times else 0.0, unit),
            working=(f"no {wanted:g} kPa yet, asked by {limit:g} s",),
        )
    return TimeToPressureResult(
        verdict="stop_no_pressure",
        time=in_unit(limit, unit),
        working=(f"no {wanted:g} kPa by {limit:g} s",),
    )


class Sample(Input):
    """One moment of a run; a figure nobody entered is None."""

    t: float | None
    rpm: float | None = None
    oil_psi: float | None = None
    coolant: float | None = None
    leak: Literal["none", "drip", "fuel", "heavy_oil"] = "none"
    noise: bool = False
    lamp_out: bool = False


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
    stale_after: Time = None


class FirstRunResult(Result):
    """`continue`, or the first reason to stop and its time: `abort_leak`, `abort_oil_pressure`,
    `no_reading`, `abort_overheat`, `abort_noise`.
    """

    action: str
    time: Time = None


@calculation("Watch over a first run")
def first_run_monitor(i: FirstRun) -> FirstRunResult:
    """Checks each sample in this order: leak, oil pressure once its time is reached, coolant,
    noise. First hit stops.

    Whole samples are judged: a partial one is completed with the last revs and oil not older than
    `stale_after` (15 s); older: `no_reading`.
    No pressure is a stop whatever the revs; the lamp out counts as pressure where there is no
    gauge.

    Raises
    ------
    Refused
        `not_a_finite_number`, `dimension_mismatch`, `bad_option` when samples are out of order.
    """
    due = (
        canonical(i.limits.pressure_time, "time", "limits.pressure_time")
        if i.limits.pressure_time
        else 10.0
    )
    floor = canonical(i.limits.floor, "pressure", "limits.floor") if i.limits.floor else 0.0
    hottest = (
        canonical(i.limits.coolant_max, "temperature", "limits.coolant_max")
        if i.limits.coolant_max
        else 105.0
    )
    stale = i.figure("stale_after") if i.stale_after else STALE_S
    if stale < 0:
        raise Refused("bad_option", "'stale_after' must not be below zero", field="stale_after")
    last, seen = float("-inf"), Seen()
    for sample in i.samples:
        t = _in(i, sample.t, "t", "time")
        if t is None or t < last:
            raise Refused(
                "bad_option",
                "the samples must be in order of time, each with its 't'",
                field="samples",
            )
        last = t
        seen = seen.with_(
            t,
            _in(i, sample.rpm, "rpm", "speed"),
            _in(i, sample.oil_psi, "oil_psi", "pressure"),
            sample.lamp_out,
        )
        reason = _reason(i, sample, seen, t, due, floor, hottest, stale)
        if reason:
            return FirstRunResult(action=reason, time=in_unit(t, i.sample_units.get("t", "s")))
    return FirstRunResult(action="continue")


@dataclass(frozen=True, slots=True)
class Seen:
    """The last revs (1/min), oil pressure (kPa) and lamp that were read, and when (s)."""

    rpm: float | None = None
    rpm_at: float = float("-inf")
    oil: float | None = None
    oil_at: float = float("-inf")
    lamp_at: float = float("-inf")

    def with_(self, t: float, rpm: float | None, oil: float | None, lamp_out: bool) -> "Seen":
        """With what a sample at `t` says; what it does not say stays as it was."""
        return Seen(
            rpm if rpm is not None else self.rpm,
            t if rpm is not None else self.rpm_at,
            oil if oil is not None else self.oil,
            t if oil is not None else self.oil_at,
            t if lamp_out else self.lamp_at,
        )


def oil_state(seen: Seen, t: float, least_kpa: Callable[[float], float], stale: float) -> str:
    """`pressure`, `no_pressure` or `no_reading` at `t`; a figure counts for `stale` seconds,
    `least_kpa` gives what is asked at a speed.
    """
    oil_old, rpm_old = (
        round9(t - seen.oil_at) > round9(stale),
        round9(t - seen.rpm_at) > round9(stale),
    )
    if seen.oil is not None and not oil_old:
        if seen.oil <= 0:
            return "no_pressure"
        if seen.rpm is None or rpm_old:
            return (
                "no_pressure"
                if round9(seen.oil) < round9(least_kpa(0.0))
                else "no_reading"
                if least_kpa(1000.0) > least_kpa(0.0)
                else "pressure"
            )
        return "pressure" if round9(seen.oil) >= round9(least_kpa(seen.rpm)) else "no_pressure"
    return "pressure" if round9(t - seen.lamp_at) <= round9(stale) else "no_reading"


def _in(i: FirstRun, value: float | None, key: str, dimension: str) -> float | None:
    if value is None:
        return None
    default = {"t": "s", "rpm": "rpm", "oil_psi": "psi", "coolant": "°C"}[key]
    return float(
        exact(Quantity(value=value, unit=i.sample_units.get(key, default)), dimension, key)
    )


def _reason(
    i: FirstRun,
    sample: Sample,
    seen: Seen,
    t: float,
    due: float,
    floor: float,
    hottest: float,
    stale: float,
) -> str | None:
    if sample.leak in ("fuel", "heavy_oil"):
        return "abort_leak"
    if round9(t) >= round9(due):
        factor = canonical(i.limits.factor or Quantity(value=1, unit="1"), "ratio", "limits.factor")
        state = oil_state(seen, t, lambda rpm: oil_pressure_floor_kpa(rpm, factor, floor), stale)
        if state != "pressure":
            return {"no_pressure": "abort_oil_pressure", "no_reading": "no_reading"}[state]
    coolant = _in(i, sample.coolant, "coolant", "temperature")
    if coolant is not None and round9(coolant) > round9(hottest):
        return "abort_overheat"
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
    """Refused (`no_coolant`) without a written decision, and (`dry_run_too_long`) above the limit,
    30 s by rule of thumb.
    """
    seconds = i.figure("seconds")
    limit = i.figure("limit") if i.limit else DRY_RUN_S
    if round9(limit) > DRY_RUN_S:
        raise Refused(
            "dry_run_too_long",
            f"'limit' is at most {DRY_RUN_S:g} s, whatever is asked for",
            field="limit",
        )
    if not i.accepted:
        raise Refused(
            "no_coolant",
            "there is no coolant in the engine: fill it first; a short dry run only after a "
            "written decision",
            field="accepted",
        )
    if seconds <= 0:
        raise Refused("bad_option", "'seconds' must be above zero", field="seconds")
    if round9(seconds) > round9(limit):
        raise Refused(
            "dry_run_too_long",
            f"at most {limit:g} s without coolant, then a full cool-down",
            field="seconds",
        )
    return DryRunResult(
        allowed=in_unit(seconds, i.seconds.unit if i.seconds else "s"),
        working=(f"{seconds:g} s ≤ {limit:g} s",),
    )
