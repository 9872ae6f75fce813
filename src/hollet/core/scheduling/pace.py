"""One's own pace: how long work takes against the book, learnt from finished jobs.

y = ln(actual / book); conjugate normal-inverse-gamma model on the logarithms (Bayesian textbook):
with m0 the prior median, k0 its weight in jobs, a0, b0 its spread, n jobs of mean y:
k = k0 + n, mu = (k0 ln m0 + sum y) / k, a = a0 + n/2,
b = b0 + half of (sum of squares about their mean + k0 n (mean - ln m0)² / k).
"""

import math
from functools import lru_cache

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.registry import Input, Result, calculation

__all__ = ["PRIOR_A", "PRIOR_B", "PRIOR_MEDIAN", "PRIOR_WEIGHT", "COVERAGE", "time_factor"]

PRIOR_MEDIAN, PRIOR_WEIGHT, PRIOR_A, PRIOR_B = 1.5, 4.0, 2.0, 0.18
COVERAGE = 0.8
"""Home work takes half as long again as the book, give or take: worth four jobs; eight in ten."""


class Plain(BaseModel):
    """Figures without a dimension, or a count of jobs."""

    model_config = ConfigDict(frozen=True)
    value: float
    unit: str = "1"


class Ratios(BaseModel):
    """Actual over book, one a finished job."""

    model_config = ConfigDict(frozen=True)
    value: tuple[float, ...]
    unit: str = "1"


class TimeFactor(Input):
    """Ratios of finished jobs of one kind, and what is believed before any of them."""

    ratios: Ratios
    prior_median: Plain = Plain(value=PRIOR_MEDIAN)
    prior_weight: Plain = Plain(value=PRIOR_WEIGHT, unit="jobs")
    prior_a: float = PRIOR_A
    prior_b: float = PRIOR_B
    coverage: float = COVERAGE


class TimeFactorResult(Result):
    """Own time over book time, and the range in which the next job lies; ratios to ask back."""

    factor: float
    lo: float
    hi: float
    ask_back: tuple[float, ...] = ()


ODD = (0.2, 10.0)
"""A ratio outside was perhaps not measured: somebody forgot to say that he stopped."""


@lru_cache(maxsize=256)
def _quantile(probability: float, freedom: float) -> float:
    from scipy.special import stdtrit

    return float(stdtrit(freedom, probability))


@calculation("Own time against the book")
def time_factor(i: TimeFactor) -> TimeFactorResult:
    """exp(mu) and exp(mu ± t(2a) sqrt(b (k + 1) / (a k))); refuses `ratio_not_positive`.

    Example
    -------
    >>> found = time_factor(TimeFactor(ratios=Ratios(value=(1.8, 2.4, 1.5, 2.1, 3.0))))
    >>> round(found.factor, 2), round(found.lo, 2), round(found.hi, 2)
    (1.81, 1.14, 2.86)
    """
    ratios = i.ratios.value
    for name, value in (
        *(("ratios", ratio) for ratio in ratios),
        ("prior_median", i.prior_median.value),
        ("prior_weight", i.prior_weight.value),
        ("prior_a", i.prior_a),
        ("prior_b", i.prior_b),
    ):
        if not (math.isfinite(value) and value > 0):
            words = f"'{name}' must be above zero: actual and book times are"
            raise Refused("ratio_not_positive", words, field=name)
    if not 0 < i.coverage < 1:
        raise Refused("bad_input", "'coverage' lies between 0 and 1", field="coverage")
    logs, weight, before = [math.log(r) for r in ratios], i.prior_weight.value, i.prior_median.value
    n = len(logs)
    mean = math.fsum(logs) / n if n else 0.0
    k, m0 = weight + n, math.log(before)
    mu = (weight * m0 + n * mean) / k
    a = i.prior_a + n / 2
    spread = math.fsum((y - mean) ** 2 for y in logs) + weight * n * (mean - m0) ** 2 / k
    b = i.prior_b + spread / 2
    half = _quantile((1 + i.coverage) / 2, 2 * a) * math.sqrt(b * (k + 1) / (a * k))
    jobs = ", ".join(f"{ratio:g}" for ratio in ratios) or "none finished yet"
    factor, lo, hi = math.exp(mu), math.exp(mu - half), math.exp(mu + half)
    return TimeFactorResult(
        factor=factor,
        lo=lo,
        hi=hi,
        ask_back=tuple(ratio for ratio in ratios if not ODD[0] <= ratio <= ODD[1]),
        working=(
            f"own time ÷ book time: {jobs}",
            f"with {before:g} worth {weight:g} jobs before any: {factor:.2f}",
            f"the next one, {i.coverage * 10:g} in 10: {lo:.2f} to {hi:.2f}",
        ),
    )
