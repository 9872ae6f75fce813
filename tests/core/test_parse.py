"""What mechanics write, and what is asked about instead of guessed."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse

F = Fraction
SINGLES = [
    ("2 5/8 in", "length", F("66.675")),
    ("2-5/8 in", "length", F("66.675")),
    ("2½ in", "length", F("63.5")),
    ('¾"', "length", F("19.05")),
    ('.0035"', "length", F("0.0889")),
    ("3.5 thou", "length", F("0.0889")),
    ("0,5 mm", "length", F("0.5")),
    ("0,500 mm", "length", F("0.5")),
    ("90 µm", "length", F("0.09")),
    ("5'", "length", F("1524")),
    ("62 ft-lb", "torque", F("1.3558179483314004") * 62),
    ("62 lb.ft", "torque", F("1.3558179483314004") * 62),
    ("84 Nm", "torque", F(84)),
    ("84 N·m", "torque", F(84)),
    ("1 kgf·m", "torque", F("9.80665")),
    ("2.5 bar", "pressure", F(250)),
    ("2 imp qt", "volume", F("2273.045")),
    ("1 US gallon", "volume", F("3785.411784")),
    ("250 cc", "volume", F(250)),
    ("1/4 turn", "angle", F(90)),
    ("90°", "angle", F(90)),
    ("5 °C", "temperature", F(5)),
    ("-40 F", "temperature", F(-40)),
    ("−0.05 mm", "length", F("-0.05")),
    ("12 lbs", "mass", F("453.59237") * 12),
    ("1200 r/min", "speed", F(1200)),
    ("4 min", "time", F(240)),
    ("30 mΩ", "resistance", F("0.03")),
]


@pytest.mark.parametrize(("text", "dimension", "value"), SINGLES, ids=[s[0] for s in SINGLES])
def test_single(text, dimension, value):
    """One figure is read exactly, in the canonical unit."""
    parsed = parse(text)
    assert (parsed.kind, parsed.dimension, parsed.nominal) == ("single", dimension, value)


REFUSED = [
    ("  ", "empty"),
    ("nan mm", "not_a_number"),
    ("-inf bar", "not_a_number"),
    ("ten mm", "not_a_number"),
    ("about right", "not_a_number"),
    ("5 furlong", "not_a_quantity"),
    ("5 mm 3", "not_a_quantity"),
    ("1.2.3 mm", "bad_number"),
    ("1 000 mm", "bad_number"),
    ("3 5/3 in", "bad_number"),
    ("1e400 mm", "bad_number"),
    ("84.0 09 mm", "bad_number"),
    ("1,500 rpm", "ambiguous_comma"),
    ("12,345 mm", "ambiguous_comma"),
    ("3/0 in", "zero_denominator"),
    ("0.3", "unit_missing"),
    ("2 pt", "unit_ambiguous"),
    ("20 mil", "unit_ambiguous"),
    ("4 oz", "unit_ambiguous"),
    ("1 gal", "unit_ambiguous"),
    ("7-3 mm", "range_reversed"),
    ("-300 °C", "below_absolute_zero"),
    ("80 Nm + ", "not_a_quantity"),
    ("40 ± x Nm", "not_a_quantity"),
]


@pytest.mark.parametrize(("text", "code"), REFUSED, ids=[r[0] for r in REFUSED])
def test_refused(text, code):
    """A text that cannot be read is refused with its code and a sentence."""
    with pytest.raises(Refused) as refusal:
        parse(text)
    assert refusal.value.reason_code == code
    assert refusal.value.field in ("text", "unit")
    assert len(refusal.value.message) > 20


@pytest.mark.parametrize(
    ("text", "dimension", "code"),
    [
        ("5 lb", "torque", "dimension_mismatch"),
        ("5 mm", "torque", "dimension_mismatch"),
        ("8 BTDC", "length", "dimension_mismatch"),
        ("80 Nm + 90 deg", "length", "dimension_mismatch"),
    ],
)
def test_dimension(text, dimension, code):
    """A torque where a length is asked is refused; pounds alone are never a torque."""
    with pytest.raises(Refused) as refusal:
        parse(text, dimension)
    assert refusal.value.reason_code == code


def test_ranges_and_tolerances():
    """A unit written once at the end holds for both ends."""
    assert (parse("2-3 mm").lo, parse("2-3 mm").hi) == (2, 3)
    assert (parse("0.03 to .07 mm").lo, parse("0.03 to .07 mm").hi) == (F("0.03"), F("0.07"))
    assert (parse("1 in - 30 mm").lo, parse("1 in - 30 mm").hi) == (F("25.4"), 30)
    assert (parse("40 ± 5 Nm").lo, parse("40 ± 5 Nm").hi) == (35, 45)
    assert (parse("40 +5/-3 Nm").lo, parse("40 +5/-3 Nm").hi) == (37, 45)
    assert parse("1-3/2 in").kind == "range"


def test_sequence_is_never_added():
    """Torque then angle are two stages."""
    parsed = parse("80 Nm + 90 deg", "torque")
    assert [(s.dimension, s.nominal) for s in parsed.steps] == [("torque", 80), ("angle", 90)]
    assert parsed.nominal is None


@pytest.mark.parametrize("text", ["5W-30", "10W40", "M8x1.25", "3/8-16", "SAE 30"])
def test_designations_are_text(text):
    """Oil grades and threads are words, not figures."""
    assert parse(text).kind == "text"


def test_timing_is_signed():
    """BTDC is positive, ATDC negative, and a bare number before them is in degrees."""
    assert parse("8 BTDC").advance == 8
    assert parse("4° ATDC", "angle").advance == -4


def test_default_unit_only_for_bare_numbers():
    """The field's unit fills in what is missing, never what is written."""
    assert parse("45", "torque", "Nm").nominal == 45
    assert parse("45 ft-lb", "torque", "Nm").nominal == 45 * F("1.3558179483314004")


@given(st.fractions(min_value=-5000, max_value=5000, max_denominator=1000))
def test_decimals_are_read_exactly(value):
    """Whatever finite decimal is typed comes back exactly."""
    text = f"{float(value):.6f}"
    assert parse(f"{text} mm").nominal == F(text)


@given(st.integers(0, 30), st.integers(1, 63))
def test_mixed_fractions(whole, part):
    """A whole number and a proper 64th are one number in both spellings."""
    assert (
        parse(f"{whole} {part}/64 in").nominal
        == parse(f"{whole}-{part}/64 in").nominal
        == (whole + F(part, 64)) * F("25.4")
    )


KINDS = {"single", "range", "tolerance", "sequence", "text"}
CODES = {
    "ambiguous_comma",
    "bad_number",
    "below_absolute_zero",
    "dimension_mismatch",
    "empty",
    "not_a_number",
    "not_a_quantity",
    "range_reversed",
    "unit_ambiguous",
    "unit_missing",
    "zero_denominator",
}


@given(st.text(max_size=30))
def test_any_text_is_read_or_refused(text):
    """No text makes anything but a result or a refusal with a code."""
    try:
        outcome = parse(text, None, "mm").kind
    except Refused as refusal:
        outcome = refusal.reason_code
    assert outcome in KINDS | CODES
