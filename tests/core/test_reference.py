"""The reference cases: expected figures from two independent computations each, by calculation
name.
"""

import json
from pathlib import Path

import pytest

from hollet.core.catalogue import compute, names
from hollet.core.errors import Refused

CASES = json.loads(Path(__file__).with_name("reference_cases.json").read_text("utf-8"))


def check(got: dict, expected: dict) -> None:
    """Each expected figure is met within its tolerance, in its unit."""
    for key, want in expected.items():
        have = got[key]
        assert have.get("unit") == want.get("unit"), key
        if isinstance(want["value"], float | int) and not isinstance(want["value"], bool):
            assert have["value"] == pytest.approx(want["value"], abs=want.get("tol", 0), rel=0), key
        elif isinstance(want["value"], list) and want.get("tol"):
            assert have["value"] == pytest.approx(want["value"], abs=want["tol"], rel=0), key
        else:
            assert have["value"] == want["value"], key


@pytest.mark.parametrize("case", CASES, ids=[case["id"] for case in CASES])
def test_case(case):
    """The calculation gives the expected figures, or the expected refusal with a sentence."""
    expected = case["expected"]
    if "refuse" in expected:
        with pytest.raises(Refused) as refusal:
            compute(case["function"], case["inputs"])
        assert refusal.value.reason_code == expected["reason_code"]["value"]
        assert len(refusal.value.message) > 15
    else:
        check(compute(case["function"], case["inputs"]), expected)


def test_every_registered_calculation_has_a_case():
    """No calculation is without a reference case, except those without published figures: they have
    tests of their own.
    """
    assert set(names()) - {case["function"] for case in CASES} <= {
        "cranking_drop",
        "heat_left",
        "pattern_measure",
        "runout",
        "even_drawing",
        "turning_torque",
        "fits_check",
        "buy_ahead",
        "fetch_trip",
    }


@pytest.mark.parametrize("name", names())
def test_missing_figures_are_refused(name):
    """Nothing at all is refused with a field, never answered."""
    if name == "unit_factors":
        assert len(compute(name, {})) > 20
        return
    with pytest.raises(Refused) as refusal:
        compute(name, {})
    assert refusal.value.reason_code
    assert refusal.value.message
