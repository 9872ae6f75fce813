"""Filling by the marks: the edges of each rule, on it and a step beside it."""

import pytest

from hollet.core.catalogue import compute
from hollet.core.errors import Refused


def q(value: float, unit: str) -> dict:
    """A quantity as every door takes it."""
    return {"value": value, "unit": unit}


def asked(level: float, target: float = 15.0, low: float = 0.0, high: float = 20.0):
    """Top up from a level, marks 20 mm and one litre apart."""
    given = {
        "level": q(level, "mm"),
        "target": q(target, "mm"),
        "min_mark": q(low, "mm"),
        "max_mark": q(high, "mm"),
        "volume_between_marks": q(1.0, "L"),
    }
    return compute("top_up", given)


@pytest.mark.parametrize(
    ("level", "add", "below"),
    [(0.0, 0.75, False), (-0.1, 0.755, True), (0.1, 0.745, False), (15.0, 0.0, False)],
)
def test_below_the_lower_mark_is_below_it(level, add, below):
    """On the mark is not below it; at the target there is nothing to add."""
    found = asked(level)
    assert found["add"]["value"] == pytest.approx(add)
    assert found["below_min"]["value"] is below


@pytest.mark.parametrize(
    ("given", "code"),
    [
        ((5.0, 15.0, 20.0, 20.0), "limits_reversed"),
        ((5.0, 15.0, 20.1, 20.0), "limits_reversed"),
        ((15.1, 15.0), "overfull"),
        ((5.0, 20.1), "overfull"),
    ],
)
def test_marks_and_levels_that_cannot_be(given, code):
    """Marks on one another, a level above its target, a target above the upper mark."""
    with pytest.raises(Refused) as refusal:
        asked(*given)
    assert refusal.value.reason_code == code


def test_a_target_on_the_upper_mark_is_right():
    """From the lower mark to the upper it is all that lies between."""
    assert asked(0.0, 20.0)["add"]["value"] == pytest.approx(1.0)
