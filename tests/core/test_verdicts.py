"""Uncertainty, the decision rule, and their laws."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from hollet.core.catalogue import compute
from hollet.core.errors import Refused
from hollet.core.limits import Limit, judge, rounded_down, rounded_up
from hollet.core.verdicts import coverage_factor, decision, rectangular

finite = st.floats(-1000, 1000, allow_nan=False)
small = st.floats(0, 10, allow_nan=False)
BAND = Limit(
    id="b",
    name="Band",
    dimension="length",
    unit="mm",
    lo="0.030",
    hi="0.070",
    target="0.045",
    source="book",
)


@given(finite, small, finite, small)
def test_decision_is_one_of_three_and_monotone(value, guard, low, width):
    """A larger guard band never turns an undecided value into a proven one."""
    first, wider = (
        decision(value, guard, low, low + width),
        decision(value, guard * 2, low, low + width),
    )
    assert first in ("conforming", "not_conforming", "undecided")
    assert not (first == "undecided" and wider != "undecided")


@given(finite, small, finite, small)
def test_decision_mirrors(value, guard, low, width):
    """Mirroring value and limits mirrors nothing in the decision."""
    assert decision(value, guard, low, low + width) == decision(-value, guard, -low - width, -low)


@given(st.floats(-100, 100), st.floats(0, 5), st.floats(-100, 100))
def test_one_sided(value, guard, limit):
    """With one limit only that side counts."""
    assume(abs(value - limit) > guard + 1e-6)
    assert decision(value, guard, None, limit) == (
        "conforming" if value < limit else "not_conforming"
    )
    assert decision(value, guard, limit, None) == (
        "conforming" if value > limit else "not_conforming"
    )


def test_touching():
    """Touching the limit with the guard band conforms; proof of the contrary needs more than
    touching.
    """
    assert decision(50.0, 0.006, None, 50.006) == "conforming"
    assert decision(50.012, 0.006, None, 50.006) == "undecided"
    assert decision(0.1 + 0.2, 0.0, None, 0.3) == "conforming"


@pytest.mark.parametrize(
    ("nu", "k"), [(1, 13.97), (2, 4.53), (4, 2.87), (9, 2.32), (math.inf, 2.0)]
)
def test_coverage_factor(nu, k):
    """Student's t at 95.45 % as tabulated in JCGM 100, table G.2."""
    assert coverage_factor(nu) == pytest.approx(k, abs=0.005)


def test_rectangular():
    """The standard deviation of an even spread of half-width 3 is sqrt 3."""
    assert rectangular(3) == pytest.approx(math.sqrt(3))


@given(st.lists(st.floats(10, 11), min_size=2, max_size=8), st.floats(0.001, 0.1))
def test_uncertainty_is_at_least_each_part(readings, mpe):
    """u_c is never smaller than any contribution, and U = k u_c."""
    got = compute(
        "uncertainty",
        {
            "mpe": {"value": mpe, "unit": "mm"},
            "resolution": {"value": 0.01, "unit": "mm"},
            "readings": {"value": readings, "unit": "mm"},
        },
    )
    u = {key: got[key]["value"] for key in ("u_mpe", "u_res", "u_rep", "u_c", "U", "k")}
    assert u["u_c"] >= max(u["u_mpe"], u["u_res"], u["u_rep"]) - 1e-12
    assert u["U"] == pytest.approx(u["k"] * u["u_c"])


@given(st.integers(1, 80), st.integers(0, 60), st.integers(-100, 200), st.integers(0, 40))
def test_another_unit_gives_the_same_verdict(lo, width, value, guard):
    """Limits in thousandths of an inch, or exactly 25.4 times as many micrometres written in mm:
    one verdict, one side.
    """
    base = {"id": "l", "name": "L", "dimension": "length", "source": "book"}
    inch = Limit(**base, unit="in", lo=f"{lo / 1000:.3f}", hi=f"{(lo + width) / 1000:.3f}")
    metric = Limit(
        **base, unit="mm", lo=f"{lo * 254 / 10000:.4f}", hi=f"{(lo + width) * 254 / 10000:.4f}"
    )
    found = [judge(value * 0.0254 / 2, guard * 0.0254 / 2, limit) for limit in (inch, metric)]
    assert (found[0].verdict, found[0].side) == (found[1].verdict, found[1].side)


@given(st.integers(1, 12), st.floats(0.0005, 0.02), st.floats(0, 0.02))
def test_more_repeats_never_widen_while_the_spread_is_held(n, s, mpe):
    """With the pooled s of the tool: one more repeat never makes U larger, whatever it shows within
    that spread.
    """
    base = {
        "mpe": {"value": mpe, "unit": "mm"},
        "resolution": {"value": 0.001, "unit": "mm"},
        "pooled_s": {"value": s, "unit": "mm"},
    }
    one, more = (
        compute(
            "uncertainty",
            {
                **base,
                "readings": {"value": [20 + s * (-1) ** k / 2 for k in range(count)], "unit": "mm"},
            },
        )["U"]["value"]
        for count in (n, n + 1)
    )
    assert more <= one + 1e-12


def test_a_spread_of_its_own_may_widen():
    """Without a pooled s two repeats far apart are worth less than two close ones: the law above
    needs the spread held.
    """
    base = {"mpe": {"value": 0.004, "unit": "mm"}, "resolution": {"value": 0.001, "unit": "mm"}}
    close, apart = (
        compute("uncertainty", {**base, "readings": {"value": values, "unit": "mm"}})["U"]["value"]
        for values in ([20.0, 20.001], [20.0, 20.001, 20.03])
    )
    assert apart > close


def test_uncertainty_keeps_the_unit():
    """Readings in inches give a U in inches, 1/25.4 of that in mm."""
    inch = compute(
        "uncertainty",
        {
            "mpe": {"value": 0.0002, "unit": "in"},
            "resolution": {"value": 0, "unit": "in"},
            "readings": {"value": [3.3071], "unit": "in"},
            "pooled_s": {"value": 0.0001, "unit": "in"},
        },
    )
    mm = compute(
        "uncertainty",
        {
            "mpe": {"value": 0.00508, "unit": "mm"},
            "resolution": {"value": 0, "unit": "in"},
            "readings": {"value": [84.0], "unit": "mm"},
            "pooled_s": {"value": 0.00254, "unit": "mm"},
        },
    )
    assert inch["U"]["unit"] == "in"
    assert inch["U"]["value"] * 25.4 == pytest.approx(mm["U"]["value"])


@pytest.mark.parametrize(
    ("name", "data", "code"),
    [
        ("uncertainty", {"readings": {"value": [1], "unit": "mm"}}, "no_instrument_data"),
        (
            "uncertainty",
            {"mpe": {"value": -1, "unit": "mm"}, "readings": {"value": [1, 2], "unit": "mm"}},
            "negative_limit",
        ),
        (
            "uncertainty",
            {"mpe": {"value": 1, "unit": "mm"}, "readings": {"value": [], "unit": "mm"}},
            "not_a_finite_number",
        ),
        ("decide", {"y": {"value": 1, "unit": "mm"}, "U": {"value": 1, "unit": "mm"}}, "no_limit"),
        (
            "decide",
            {
                "y": {"value": 1, "unit": "mm"},
                "U": {"value": -1, "unit": "mm"},
                "upper_limit": {"value": 2, "unit": "mm"},
            },
            "negative_limit",
        ),
        (
            "decide",
            {
                "y": {"value": 1, "unit": "mm"},
                "U": {"value": 1, "unit": "bar"},
                "upper_limit": {"value": 2, "unit": "mm"},
            },
            "dimension_mismatch",
        ),
        ("small_n_factor", {"n": [1]}, "repeatability_unknown"),
        ("bore_gauge_chain", {"n": 0}, "not_a_finite_number"),
        (
            "to_20C",
            {
                "reading": {"value": 1, "unit": "mm"},
                "temperature": {"value": 35, "unit": "°C"},
                "alpha": {"value": -1, "unit": "1/K"},
            },
            "not_a_finite_number",
        ),
    ],
)
def test_refusals(name, data, code):
    """Each wrong input has its own code."""
    with pytest.raises(Refused) as refusal:
        compute(name, data)
    assert refusal.value.reason_code == code


@pytest.mark.parametrize(
    ("value", "U", "verdict", "words"),
    [
        (0.045, 0.006, "inside", "inside, 0.009 to spare"),
        (0.037, 0.006, "inside", "inside, near the lower edge, 0.001 to spare"),
        (0.067, 0.006, "too_close", "too close to call with this tool"),
        (0.104, 0.006, "outside", "outside, 0.034 over"),
        (0.010, 0.006, "outside", "outside, 0.020 under"),
    ],
)
def test_judge_in_words(value, U, verdict, words):  # noqa: N803
    """Verdict, side and distance to the nearest limit in words."""
    judged = judge(value, U, BAND)
    assert (judged.verdict, judged.words) == (verdict, words)


def test_judge_says_what_is_needed():
    """Too close: the distance to the limit is what a tool must reach; on the limit no tool can."""
    assert judge(0.067, 0.006, BAND).needs == "±0.0030 mm"
    assert judge(0.070, 0.006, BAND).needs == "no tool can decide: it lies on the limit"


def test_judge_without_value_limit_or_spread():
    """Not read, no limit and unknown spread are states of their own; none of them is a pass."""
    assert judge(None, None, BAND).verdict == "not_read"
    assert (
        judge(0.05, 0.001, BAND.model_copy(update={"lo": None, "hi": None})).verdict == "no_limit"
    )
    assert judge(0.05, None, BAND).verdict == "too_close"


def test_assumed_follows_the_source():
    """Without a source the judgement is marked assumed."""
    assert judge(0.05, 0.001, BAND.model_copy(update={"source": None})).assumed
    assert not judge(0.05, 0.001, BAND).assumed


def test_rounding_of_uncertainty():
    """U is rounded up, what a tool needs is rounded down, both to two significant digits."""
    assert (rounded_up(0.00681), rounded_down(0.00689), rounded_up(12.1), rounded_up(0)) == (
        "0.0069",
        "0.0068",
        "13",
        "0",
    )


@pytest.mark.parametrize(
    ("limit", "words"),
    [
        ({"lo": None}, "at most 0.070 mm"),
        ({"hi": None}, "at least 0.030 mm"),
        ({"lo": None, "hi": None}, "not given"),
    ],
)
def test_limit_words(limit, words):
    """A limit with one side says so."""
    assert BAND.model_copy(update=limit).words() == words
