"""The table of units against a units library, and exactness."""

from fractions import Fraction

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import (
    Quantities,
    Quantity,
    canonical,
    canonicals,
    decimal_text,
    exact,
    in_unit,
    minus,
)
from hollet.core.quantities.units import CANONICAL, find_unit, from_canonical, to_canonical

F = Fraction
ORACLE = pint.UnitRegistry()
PAIRS = [
    ("in", "inch", "mm"),
    ("thou", "thou", "mm"),
    ("ft", "foot", "mm"),
    ("lb", "pound", "g"),
    ("lbf", "pound_force", "N"),
    ("kgf", "kilogram_force", "N"),
    ("ft·lbf", "foot * pound_force", "N*m"),
    ("in·lbf", "inch * pound_force", "N*m"),
    ("kgf·cm", "kilogram_force * centimeter", "N*m"),
    ("psi", "psi", "kPa"),
    ("bar", "bar", "kPa"),
    ("atm", "atm", "kPa"),
    ("US gal", "gallon", "mL"),
    ("US pt", "pint", "mL"),
    ("US fl oz", "fluid_ounce", "mL"),
    ("imp gal", "imperial_gallon", "mL"),
    ("imp pt", "imperial_pint", "mL"),
    ("in³", "inch ** 3", "mL"),
    ("lbf/in", "pound_force / inch", "N/mm"),
    ("turn", "turn", "degree"),
    ("inHg", "inHg", "kPa"),
]


@pytest.mark.parametrize(("ours", "theirs", "base"), PAIRS, ids=[p[0] for p in PAIRS])
def test_factor_against_oracle(ours, theirs, base):
    """Each factor agrees with an independent table to 1e-9."""
    unit = find_unit(ours)
    assert unit is not None
    assert float(unit.factor) == pytest.approx((1 * ORACLE(theirs)).to(base).magnitude, rel=1e-9)


@given(
    st.fractions(max_denominator=10**6),
    st.sampled_from(["in", "psi", "°F", "ft-lb", "imp pt", "turns"]),
)
def test_round_trip_is_exact(value, name):
    """To canonical and back is the same fraction, offsets included."""
    unit = find_unit(name)
    assert unit is not None
    assert from_canonical(to_canonical(value, unit), unit) == value


def test_every_dimension_has_its_canonical_unit():
    """The canonical unit of each dimension is in the table with factor 1."""
    for dimension, name in CANONICAL.items():
        unit = find_unit(name)
        assert unit is not None, name
        assert (unit.dimension, unit.factor, unit.offset) == (dimension, 1, 0)


def test_exact_values_from_text_and_numbers():
    """A JSON number and decimal text mean the same exact value."""
    assert (
        exact(Quantity(value=84.009, unit="mm"), "length", "x")
        == exact(Quantity(value="84.009", unit="mm"), "length", "x")
        == F("84.009")
    )
    assert canonicals(Quantities(value=[1, "2"], unit="in"), "length", "x") == [25.4, 50.8]


@pytest.mark.parametrize(
    "value", [None, "NaN", "inf", "ten", float("nan"), float("inf"), "1e999999999", True]
)
def test_not_finite_is_refused(value):
    """Whatever is no finite number is refused with its field."""
    with pytest.raises(Refused) as refusal:
        canonical(Quantity.model_construct(value=value, unit="mm"), "length", "bore")
    assert (refusal.value.reason_code, refusal.value.field) == ("not_a_finite_number", "bore")


def test_wrong_dimension_is_refused():
    """A torque where a length is asked."""
    with pytest.raises(Refused) as refusal:
        canonical(Quantity(value=1, unit="Nm"), "length", "bore")
    assert refusal.value.reason_code == "dimension_mismatch"


def test_in_unit_gives_the_callers_unit():
    """A canonical figure is given back as the caller wrote it."""
    assert in_unit(25.4, "in").value == pytest.approx(1.0)
    assert in_unit(25.4, "in").unit == "in"
    assert in_unit(25.4, "mm") == Quantity(value=25.4, unit="mm")
    with pytest.raises(Refused):
        in_unit(float("inf"), "mm")


@pytest.mark.parametrize(
    ("value", "places", "text"),
    [
        (F(889, 10000), None, "0.0889"),
        (F(1, 3), None, "0.333333333"),
        (0.07, 3, "0.070"),
        (-0.0001, 2, "0.00"),
        (84, None, "84"),
        (-2.5, 1, "-2.5"),
    ],
)
def test_decimal_text(value, places, text):
    """Exact where it ends, rounded where asked, no negative zero."""
    assert decimal_text(value, places) == text


def test_true_minus():
    """For the eye a true minus sign."""
    assert (minus("-2.5"), minus("2.5")) == ("\u22122.5", "2.5")
