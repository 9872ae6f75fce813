"""Rules of thumb of a first run. All of them are inputs, and the maker's figure wins."""

from itertools import pairwise

from hollet.core.errors import Refused
from hollet.core.fields import (
    Mass,
    Power,
    Pressure,
    SpecificHeat,
    Speed,
    Temperature,
    Temperatures,
    Time,
    Times,
    WarmingRate,
    one_of,
)
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation
from hollet.core.running.watch import oil_pressure_floor_kpa

__all__ = ["cam_break_in", "dry_run_bound", "oil_pressure_rule", "temperature_plateau"]


class OilRule(Input):
    """The speed, and the least that is wanted at idle; or the maker's two points, each a speed with
    its pressure.
    """

    speed: Speed = None
    floor: Pressure = Quantity(value=0, unit="psi")
    idle_speed: Speed = None
    idle_pressure: Pressure = None
    rated_speed: Speed = None
    rated_pressure: Pressure = None


class OilRuleResult(Result):
    """The least oil pressure at that speed, hot."""

    minimum: Quantity
    minimum_kPa: Quantity


@calculation("Least oil pressure")
def oil_pressure_rule(i: OilRule) -> OilRuleResult:
    """10 psi per 1000 rpm of hot oil, with a floor (rule of thumb); where the maker gives two
    points, on the straight line between them.

    Raises
    ------
    Refused
        `speed_not_positive`; `points_incomplete`: one of the maker's four figures is missing, or
        their speeds do not rise.

    Example
    -------
    >>> round(oil_pressure_rule(OilRule(speed={"value": 3000, "unit": "rpm"})).minimum.value, 6)
    30.0
    """
    speed = i.figure("speed")
    if speed <= 0:
        raise Refused("speed_not_positive", "'speed' must be above zero", field="speed")
    floor = i.figure("floor")
    points = (i.idle_speed, i.idle_pressure, i.rated_speed, i.rated_pressure)
    if any(point is not None for point in points):
        least, told = _between(i, speed), "by the maker's two points"
    else:
        least, told = oil_pressure_floor_kpa(speed, 1.0, 0.0), "10 psi per 1000 rpm"
    least = max(least, floor)
    unit = i.floor.unit if i.floor is not None else "psi"
    return OilRuleResult(
        minimum=in_unit(least, unit),
        minimum_kPa=Quantity(value=least, unit="kPa"),
        working=(f"{told} at {speed:g} rpm: {least:.0f} kPa",),
    )


def _between(i: OilRule, speed: float) -> float:
    """Between the maker's two points; beyond them the nearer one holds."""
    if None in (i.idle_speed, i.idle_pressure, i.rated_speed, i.rated_pressure):
        words = "the maker's two points are four figures: speed and pressure at idle, and at speed"
        raise Refused("points_incomplete", words, field="rated_pressure")
    low, high = i.positive("idle_speed"), i.positive("rated_speed")
    if high <= low:
        words = "'rated_speed' must be above 'idle_speed'"
        raise Refused("points_incomplete", words, field="rated_speed")
    share = min(1.0, max(0.0, (speed - low) / (high - low)))
    at_idle, rated = i.figure("idle_pressure"), i.figure("rated_pressure")
    return at_idle + share * (rated - at_idle)


class Warming(Input):
    """Temperatures over time, and what counts as a plateau."""

    time: Times = None
    temperature: Temperatures = None
    window: Time = Quantity(value=5, unit="min")
    rate: WarmingRate = Quantity(value=0.5, unit="°C/min")


class WarmingResult(Result):
    """Whether it came to rest, and when."""

    reached: bool
    time: Quantity | None = None


@calculation("Temperature at rest")
def temperature_plateau(i: Warming) -> WarmingResult:
    """The first time at which the slope of least squares over the last `window` is at most `rate`,
    up or down.

    Raises
    ------
    Refused
        `count_mismatch`; `not_ordered`: times that do not rise; `not_positive`.

    Example
    -------
    >>> found = temperature_plateau(Warming(time={"value": list(range(8)), "unit": "min"},
    ...     temperature={"value": [20, 60, 80, 88, 88, 88, 88, 88], "unit": "°C"},
    ...     window={"value": 3, "unit": "min"}))
    >>> found.reached, found.time.value
    (True, 6.0)
    """
    times, heats = i.figures("time"), i.figures("temperature")
    if len(times) != len(heats) or len(times) < 2:
        words = f"{len(times)} times and {len(heats)} temperatures: one for each, two or more"
        raise Refused("count_mismatch", words, field="temperature")
    if any(b <= a for a, b in pairwise(times)):
        raise Refused("not_ordered", "the times must rise", field="time")
    window, most = i.positive("window"), i.positive("rate")
    for k, now in enumerate(times):
        if round9(now - times[0]) < round9(window):
            continue
        part = [(t, h) for t, h in zip(times, heats, strict=True) if now - window <= t <= now]
        if len(part) > 1 and abs(_slope(part)) * 60 <= most + 1e-9:
            unit = i.time.unit if i.time is not None else "min"
            words = f"{heats[k]:g} °C, {_slope(part) * 60:.2f} °C a minute"
            return WarmingResult(reached=True, time=in_unit(now, unit), working=(words,))
    return WarmingResult(reached=False, working=("it still climbs",))


def _slope(points: list[tuple[float, float]]) -> float:
    mean_t = sum(t for t, _ in points) / len(points)
    mean_h = sum(h for _, h in points) / len(points)
    over = sum((t - mean_t) ** 2 for t, _ in points)
    return sum((t - mean_t) * (h - mean_h) for t, h in points) / over


class DryBound(Input):
    """Heat that goes into a mass of metal, from a start to a limit."""

    heat: Power = None
    mass: Mass = None
    specific_heat: SpecificHeat = None
    start: Temperature = Quantity(value=20, unit="°C")
    limit: Temperature = None


class DryBoundResult(Result):
    """How long the mean of the metal takes to get there."""

    time: Quantity


@calculation("How fast metal heats without coolant")
def dry_run_bound(i: DryBound) -> DryBoundResult:
    """m c (T - T₀) / P: a bound for thinking and never a permission. Hot spots beside the exhaust
    valves heat many times faster than the mean; 30 s is the rule of thumb.

    Raises
    ------
    Refused
        `not_positive`; `too_cold`: the limit is not above the start.

    Example
    -------
    >>> dry_run_bound(DryBound(heat={"value": 4, "unit": "kW"}, mass={"value": 14, "unit": "kg"},
    ...     specific_heat={"value": 900, "unit": "J/(kg·K)"},
    ...     limit={"value": 110, "unit": "°C"})).time.value
    283.5
    """
    heat, grams, c = i.positive("heat"), i.positive("mass"), i.positive("specific_heat")
    rise = i.figure("limit") - i.figure("start")
    if rise <= 0:
        raise Refused("too_cold", "'limit' must be above 'start'", field="limit")
    seconds = grams / 1000 * c * rise / heat
    return DryBoundResult(
        time=Quantity(value=seconds, unit="s"),
        working=(
            f"{grams / 1000:g} kg × {c:g} × {rise:g} K ÷ {heat:g} W = {seconds:.0f} s",
            "the mean only: not a permission",
        ),
    )


CAMS = {
    "flat_tappet": (2000, 2500, 20),
    "roller": None,
    "hardened_bucket": None,
}


class Cam(Input):
    """What runs on the cams."""

    cam: str = one_of(*CAMS)


class CamResult(Result):
    """Whether it is run in at speed at once, at which, for how long."""

    needed: bool
    rpm_lo: Quantity | None = None
    rpm_hi: Quantity | None = None
    minutes: Quantity | None = None


@calculation("Running in a camshaft")
def cam_break_in(i: Cam) -> CamResult:
    """Flat tappets: straight to 2000 to 2500 rpm, varied, 20 min without idling (rule of thumb;
    some say 30); rollers and hardened buckets need none.

    Raises
    ------
    Refused
        `bad_option`: say which kind of camshaft.

    Example
    -------
    >>> cam_break_in(Cam(cam="flat_tappet")).minutes.value
    20.0
    """
    if i.cam not in CAMS:
        words = f"say which kind of camshaft: {', '.join(CAMS)}"
        raise Refused("bad_option", words, field="cam")
    asked = CAMS[i.cam]
    if asked is None:
        return CamResult(needed=False, working=("none is needed",))
    low, high, minutes = asked
    return CamResult(
        needed=True,
        rpm_lo=Quantity(value=low, unit="rpm"),
        rpm_hi=Quantity(value=high, unit="rpm"),
        minutes=Quantity(value=minutes, unit="min"),
        working=(f"{low} to {high} rpm for {minutes} min, no idling",),
    )
