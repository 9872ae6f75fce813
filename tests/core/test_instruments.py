"""Tools: what a reading is worth, and what cancels in a difference."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.errors import Refused
from hollet.core.instruments import combine, reading_share, single_reading_U, zero_chain
from hollet.library.shelf import instrument_presets
from tests.support import tool

M = tool(
    "m",
    "micrometer",
    mpe="0.004",
    resolution="0.001",
    s="0.0015",
    zero_error="0.003",
    lo="0",
    hi="25",
)


def test_preset_uncertainties_are_the_published_ones():
    """U of a single reading with the shipped figures, as tabulated for these kinds of tool."""
    published = {
        "digital caliper 150 mm, outside jaws": 0.0404,
        "vernier caliper 150 mm, 0.05 vernier": 0.0759,
        "micrometer 75-100 mm, 0.001": 0.00705,
        "dial indicator 0.01 mm, within one turn": 0.01424,
        "feeler leaves, 0.05 mm steps": 0.03697,
        "steel rule 300 mm": 0.5447,
        "plastic thread gauge strip": 0.02273,
        "straight edge 500 mm + feeler, 0.01 mm steps": 0.03109,
    }
    found = {p["name"]: p for p in instrument_presets()}
    for name, expected in published.items():
        made = tool(
            "t",
            found[name]["kind"],
            **{k: v for k, v in found[name].items() if k not in ("name", "kind")},
        )
        assert single_reading_U(made, 1.0) == pytest.approx(expected, rel=2e-3), name


def test_offset_is_corrected():
    """A tool that reads 0.02 too much gives 0.02 less."""
    assert reading_share(M.model_copy(update={"offset": "0.02"}), [10.0]).value == pytest.approx(
        9.98
    )


def test_repeats_shrink_only_repeatability():
    """Four repeats halve the repeatability and leave the rest."""
    one, four = reading_share(M, [10.0]), reading_share(M, [10.0] * 4)
    parts = {s.name: s.u for s in one.own}
    assert {s.name: s.u for s in four.own} == {
        **parts,
        "repeatability": pytest.approx(parts["repeatability"] / 2),
    }


def test_small_sample_spread_keeps_the_pooled_s():
    """Two good repeats are never worth less than one: the pooled s counts with k = 2."""
    assert combine([(1, reading_share(M, [10.000, 10.001]))])[1] == 2


def test_large_sample_spread_is_used_with_its_own_freedom():
    """Repeats that scatter more than twice the usual s use their own spread, and
    Student's factor.
    """
    share = reading_share(M, [10.000, 10.020])
    assert next(s for s in share.own if s.name == "repeatability").nu == 1
    assert combine([(1, share)])[1] > 4


def test_unknown_repeatability_is_refused():
    """One reading with a tool of unknown repeatability has no uncertainty."""
    bare = M.model_copy(update={"s": None})
    with pytest.raises(Refused) as refusal:
        reading_share(bare, [10.0])
    assert refusal.value.reason_code == "repeatability_unknown"
    assert math.isinf(single_reading_U(bare, 10.0))
    assert reading_share(bare, [10.0, 10.001, 10.0]).value == pytest.approx(10.000333, abs=1e-6)


@given(st.floats(0, 0.05), st.floats(0, 0.05))
def test_shared_zero_cancels_in_a_difference_and_doubles_in_a_sum(zero, mpe):
    """One setting: +1 - 1 = 0 in a difference, 2 in a sum; permissible error never cancels."""
    t = M.model_copy(update={"zero_error": f"{zero:.6f}", "mpe": f"{mpe:.6f}"})
    a, b = reading_share(t, [20.0]), reading_share(t, [10.0])
    own = sum(s.u**2 for s in (*a.own, *b.own))
    assert combine([(1, a), (-1, b)])[0] ** 2 == pytest.approx(own, abs=1e-12)
    assert combine([(1, a), (1, b)])[0] ** 2 == pytest.approx(own + (2 * a.zero.u) ** 2, abs=1e-12)


@given(st.integers(-50, 50), st.integers(10_000, 20_000), st.integers(1_000, 9_999))
def test_the_offset_of_one_tool_cancels_in_a_difference(offset, bore, pin):
    """A tool that reads off by the same everywhere: corrected or not, the difference of its
    readings is the same.
    """
    plain, known = M, M.model_copy(update={"offset": f"{offset / 1000:.3f}"})
    apart = [
        reading_share(tool, [bore / 1000]).value - reading_share(tool, [pin / 1000]).value
        for tool in (plain, known)
    ]
    assert apart[0] == pytest.approx(apart[1], abs=1e-12)
    assert reading_share(known, [bore / 1000]).value == pytest.approx((bore - offset) / 1000)


def test_another_zeroing_does_not_cancel():
    """With a zeroing between the two readings the zero errors are two."""
    later = M.model_copy(update={"zero_no": 2})
    a, b = reading_share(M, [20.0]), reading_share(later, [10.0])
    own = sum(s.u**2 for s in (*a.own, *b.own))
    assert combine([(1, a), (-1, b)])[0] ** 2 == pytest.approx(own + 2 * a.zero.u**2)


def test_gauge_carries_its_masters_zero():
    """A gauge set with a micrometer shares that micrometer's chain, and takes over its permissible
    error.
    """
    gauge = tool(
        "g", "bore gauge", mpe="0.005", resolution="0.002", s="0.003", setting_s="0.002", set_with=M
    )
    assert zero_chain(gauge) == zero_chain(M) == "m#1"
    names = [s.name for s in reading_share(gauge, [20.0]).setting]
    assert "M permissible error" in names
    assert "setting on M" in names
    assert zero_chain(gauge.model_copy(update={"set_with": None})) == "g#1"


def test_two_readings_of_one_setting_share_what_it_was_set_with():
    """In their difference the setting drops out; set anew between them, it counts twice; the
    gauge's own error always counts.
    """
    gauge = tool(
        "g", "bore gauge", mpe="0.003", resolution="0.002", s="0.003", setting_s="0.004", set_with=M
    )
    again = gauge.model_copy(update={"zero_no": 2})
    one, other = reading_share(gauge, [84.0]), reading_share(again, [84.0])
    alike = combine([(1, one), (-1, one)])[0]
    own = 0.003**2 / 3 + 0.001**2 / 3 + 0.003**2
    assert alike == pytest.approx((2 * own) ** 0.5, rel=1e-9)
    assert combine([(1, one), (-1, other)])[0] > alike
    assert combine([(1, one), (1, one)])[0] > combine([(1, one), (1, other)])[0]


def test_gauge_chain_against_the_closed_form():
    """The chain of gauge and micrometer agrees with its published sum of squares (U = 0.0098 for n
    = 3).
    """
    master = tool("m3", "micrometer", mpe="0.005", resolution="0.001", s="0.002")
    gauge = tool(
        "g",
        "bore gauge",
        mpe="0.005",
        resolution="0.002",
        s="0.003",
        setting_s="0.002",
        set_with=master,
    )
    assert combine([(1, reading_share(gauge, [84.0] * 3))])[2] == pytest.approx(
        0.00981495, abs=2e-6
    )


def test_percent_and_range():
    """A permissible error in percent grows with the value; the range includes its ends."""
    wrench = tool(
        "w",
        "click wrench",
        dimension="torque",
        unit="N·m",
        mpe_percent="4",
        s="1",
        lo="20",
        hi="100",
        resolution="1",
    )
    assert wrench.permissible(50) == 2
    assert (wrench.covers(20), wrench.covers(100), wrench.covers(19.9), M.covers(30)) == (
        True,
        True,
        False,
        False,
    )


def test_figures_in_other_units():
    """A tool in thou has its figures in millimetres inside."""
    inch = tool("i", "micrometer", unit="thou", mpe="0.2", s="0.1", resolution="0.1")
    assert inch.figure("mpe") == pytest.approx(0.00508)
