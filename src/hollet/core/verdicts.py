"""Measurement uncertainty and the decision rule.

Model (JCGM 100, 4.3.7, F.2.2.1, G.4): permissible error and resolution are rectangular,
repeatability is s/sqrt(n);
u_c is their root sum of squares, k is Student's t at 95.45 % for the Welch-Satterthwaite degrees of
freedom, U = k u_c.
Decision: ISO 14253-1 with guard band g = U. Values are compared after rounding to 1e-9 of the unit.
"""

import math
from functools import lru_cache

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import (
    Quantities,
    Quantity,
    canonical,
    canonicals,
    in_unit,
    round9,
)
from hollet.core.quantities.units import CANONICAL, find_unit
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "coverage_factor",
    "decide",
    "decision",
    "rectangular",
    "scale_of",
    "small_n_factor",
    "Uncertainty",
    "uncertainty",
]

LEVEL = 0.9544997361036416  # the share of a normal distribution within two standard deviations


def rectangular(half_width: float) -> float:
    """Standard uncertainty of a rectangular half-width (JCGM 100, 4.3.7)."""
    return half_width / math.sqrt(3)


@lru_cache(maxsize=512)
def coverage_factor(nu: float) -> float:
    """Student's t for two-sided 95.45 % at `nu` > 0 degrees of freedom, which need not be whole; 2
    at infinity.
    """
    if math.isinf(nu):
        return 2.0
    from scipy.special import (
        stdtrit,
    )  # 0.4 s to import: only where a sample deviation is really used

    return float(stdtrit(nu, (1 + LEVEL) / 2))


def sample_deviation(values: list[float]) -> float:
    """Standard deviation of n >= 2 readings with n - 1 degrees of freedom."""
    mean = math.fsum(values) / len(values)
    return math.sqrt(math.fsum((v - mean) ** 2 for v in values) / (len(values) - 1))


def decision(value: float, guard: float, lower: float | None, upper: float | None) -> str:
    """`conforming`, `not_conforming` or `undecided` (ISO 14253-1); all arguments in one unit, guard
    >= 0.
    """
    low, high = round9(value - guard), round9(value + guard)
    if (lower is None or low >= round9(lower)) and (upper is None or high <= round9(upper)):
        return "conforming"
    if (lower is not None and high < round9(lower)) or (upper is not None and low > round9(upper)):
        return "not_conforming"
    return "undecided"


def _dimension(quantity: Quantity | Quantities | None, field: str) -> str:
    unit = find_unit(quantity.unit) if quantity else None
    if unit is None:
        raise Refused(
            "not_a_finite_number", f"'{field}' must be a finite number with a unit", field=field
        )
    return unit.dimension


def scale_of(quantity: Quantity | None, dimension: str, field: str) -> float:
    """A difference (no offset) in the canonical unit, zero or more."""
    value = canonical(quantity, dimension, field)
    if value < 0:
        raise Refused(
            "negative_limit", f"'{field}' must be zero or more (got {value:g})", field=field
        )
    return value


class Uncertainty(Input):
    """An instrument's figures and the readings taken with it; `pooled_s` from ten or more earlier
    repeats.
    """

    mpe: Quantity | None = None
    resolution: Quantity | None = None
    readings: Quantities | None = None
    pooled_s: Quantity | None = None
    extra_rectangular_half_widths: Quantities | None = None


class UncertaintyResult(Result):
    """Mean, contributions, effective degrees of freedom, coverage factor and expanded
    uncertainty.
    """

    mean: Quantity
    s: Quantity
    u_mpe: Quantity
    u_res: Quantity
    u_rep: Quantity
    u_c: Quantity
    nu_eff: float
    k: float
    U: Quantity
    spread_unusual: bool = False


def _scatter(i: Uncertainty, readings: list[float], dimension: str) -> tuple[float, float, bool]:
    """The scatter that counts, its degrees of freedom, and whether the sample scatters more than
    twice as much as the tool usually does.
    """
    pooled = scale_of(i.pooled_s, dimension, "pooled_s") if i.pooled_s is not None else None
    sample = sample_deviation(readings) if len(readings) >= 2 else None
    unusual = pooled is not None and sample is not None and round9(sample) > round9(2 * pooled)
    if pooled is not None and not unusual:
        return pooled, math.inf, False
    if sample is not None:
        return sample, float(len(readings) - 1), unusual
    raise Refused(
        "repeatability_unknown",
        "one reading and no known repeatability: measure again (three times "
        "for a critical fit) or give the tool's usual repeatability",
        field="readings",
    )


@calculation("Uncertainty of a reading")
def uncertainty(i: Uncertainty) -> UncertaintyResult:
    """Mean, u_mpe = MPE/sqrt 3, u_res = res/(2 sqrt 3), u_rep = s/sqrt n, nu_eff, k at 95.45 % and
    U = k u_c.

    A pooled s holds while the sample's own is at most twice it; a larger sample s is used with its
    own n - 1, and `spread_unusual`.

    Raises
    ------
    Refused
        `no_instrument_data`, `repeatability_unknown` (one reading and no pooled s),
        `not_a_finite_number`.

    Example
    -------
    >>> given = {
    ...     "mpe": {"value": 0.004, "unit": "mm"},
    ...     "resolution": {"value": 0.01, "unit": "mm"},
    ...     "readings": {"value": [51.98, 51.99], "unit": "mm"},
    ... }
    >>> found = uncertainty(Uncertainty.model_validate(given))
    >>> round(found.mean.value, 4), found.mean.unit
    (51.985, 'mm')
    """
    if i.mpe is None and i.resolution is None:
        raise Refused(
            "no_instrument_data",
            "say which tool was used: its permissible error and its resolution",
            field="mpe",
        )
    dimension = _dimension(i.readings, "readings")
    readings = canonicals(i.readings, dimension, "readings")
    if not readings:
        raise Refused(
            "not_a_finite_number", "'readings' must hold at least one reading", field="readings"
        )
    n = len(readings)
    mpe, resolution = (
        scale_of(i.mpe, dimension, "mpe"),
        scale_of(i.resolution, dimension, "resolution"),
    )
    if round9(mpe) == 0 and round9(resolution) == 0:
        raise Refused(
            "no_instrument_data",
            "a tool without permissible error and resolution is none: give one of them above zero",
            field="mpe",
        )
    s, nu_rep, unusual = _scatter(i, readings, dimension)
    extra = (
        canonicals(i.extra_rectangular_half_widths, dimension, "extra_rectangular_half_widths")
        if i.extra_rectangular_half_widths
        else []
    )
    if any(a < 0 for a in extra):
        raise Refused(
            "negative_limit",
            "'extra_rectangular_half_widths' must be zero or more",
            field="extra_rectangular_half_widths",
        )
    u_mpe, u_res, u_rep = rectangular(mpe), rectangular(resolution / 2), s / math.sqrt(n)
    u_c = math.sqrt(u_mpe**2 + u_res**2 + u_rep**2 + math.fsum(rectangular(a) ** 2 for a in extra))
    nu = math.inf if u_rep == 0 or math.isinf(nu_rep) else nu_rep * (u_c / u_rep) ** 4
    k = coverage_factor(nu)
    unit = (i.readings or Quantities(value=[], unit="")).unit
    mean = math.fsum(readings) / n
    return UncertaintyResult(
        mean=in_unit(mean, unit),
        s=in_unit(s, unit),
        u_mpe=in_unit(u_mpe, unit),
        u_res=in_unit(u_res, unit),
        u_rep=in_unit(u_rep, unit),
        u_c=in_unit(u_c, unit),
        nu_eff=nu,
        k=k,
        U=in_unit(k * u_c, unit),
        spread_unusual=unusual,
        working=(
            (
                f"u_c = √({u_mpe:.4g}² + {u_res:.4g}² + {u_rep:.4g}²) = {u_c:.4g} "
                f"{CANONICAL[dimension]}"
            ),
            f"U = {k:.3g} × {u_c:.4g} = {k * u_c:.4g} {CANONICAL[dimension]}",
        ),
    )


class SmallN(Input):
    """Numbers of repeats, each 2 or more."""

    n: list[int]


class SmallNResult(Result):
    """Factor h for each n."""

    h: tuple[float, ...]


@calculation("Factor for few repeats")
def small_n_factor(i: SmallN) -> SmallNResult:
    """h = t(95.45 %, n - 1)/2: multiplies s/sqrt(n) when k = 2 is kept (ISO 14253-2).

    Example
    -------
    >>> round(small_n_factor(SmallN.model_validate({"n": [3]})).h[0], 2)
    2.26
    """
    if not i.n or any(n < 2 for n in i.n):
        raise Refused(
            "repeatability_unknown", "'n' must list numbers of repeats of 2 or more", field="n"
        )
    return SmallNResult(h=tuple(coverage_factor(n - 1) / 2 for n in i.n))


class Decide(Input):
    """A value, its U and one or two limits; `guard_band` replaces U where given."""

    y: Quantity | None = None
    U: Quantity | None = None
    lower_limit: Quantity | None = None
    upper_limit: Quantity | None = None
    guard_band: Quantity | None = None


class DecideResult(Result):
    """The decision with its evidence."""

    decision: str
    acceptance_zone_exists: bool
    distance_to_nearest_limit: Quantity


@calculation("Inside, outside or undecided")
def decide(i: Decide) -> DecideResult:
    """ISO 14253-1: touching the limit with the guard band is conforming; proof of the contrary
    needs more than touching.

    Raises
    ------
    Refused
        `no_limit`, `limits_reversed`, `negative_limit` (U below zero), `not_a_finite_number`.

    Example
    -------
    >>> given = {
    ...     "y": {"value": 50, "unit": "mm"},
    ...     "U": {"value": 0.006, "unit": "mm"},
    ...     "lower_limit": None,
    ...     "upper_limit": {"value": 50.006, "unit": "mm"},
    ... }
    >>> found = decide(Decide.model_validate(given))
    >>> found.decision
    'conforming'
    """
    dimension = _dimension(i.y, "y")
    y, big_u = canonical(i.y, dimension, "y"), scale_of(i.U, dimension, "U")
    lower = canonical(i.lower_limit, dimension, "lower_limit") if i.lower_limit else None
    upper = canonical(i.upper_limit, dimension, "upper_limit") if i.upper_limit else None
    if lower is None and upper is None:
        raise Refused(
            "no_limit",
            "there is no limit to judge by: give a lower or an upper one",
            field="lower_limit",
        )
    if lower is not None and upper is not None and lower > upper:
        raise Refused(
            "limits_reversed", "the lower limit lies above the upper limit", field="lower_limit"
        )
    guard = scale_of(i.guard_band, dimension, "guard_band") if i.guard_band else big_u
    zone = lower is None or upper is None or round9(upper - lower) >= round9(2 * guard)
    nearest = min(abs(y - limit) for limit in (lower, upper) if limit is not None)
    unit = i.y.unit if i.y else ""
    return DecideResult(
        decision=decision(y, guard, lower, upper),
        acceptance_zone_exists=zone,
        distance_to_nearest_limit=in_unit(nearest, unit),
        working=(f"{y:g} ± {guard:g}: {y - guard:g} to {y + guard:g}",),
    )
