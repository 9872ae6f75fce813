"""A value with its unit at every door: `{"value": 84.009, "unit": "mm"}`; and how a figure is
printed.
"""

import math
from decimal import Decimal
from fractions import Fraction

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.quantities.units import CANONICAL, Unit, find_unit, from_canonical, to_canonical

__all__ = [
    "Measured",
    "Quantities",
    "Quantity",
    "canonical",
    "canonicals",
    "decimal_text",
    "exact",
    "in_unit",
    "minus",
    "quantity_of",
    "round9",
    "unit_of",
]


class Quantity(BaseModel):
    """One value in a named unit; `value` may be a JSON number or exact decimal text."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    value: float | str | None
    unit: str


class Measured(BaseModel):
    """A figure in a log: the text as typed (absent where an old line kept none), and the value as
    decimal text with its unit.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    typed: str | None = None
    value: str
    unit: str

    def figure(self, dimension: str) -> float:
        """The value in the canonical unit of its dimension."""
        return canonical(Quantity(value=self.value, unit=self.unit), dimension, "value")

    def shown(self) -> str:
        """As it was typed, with its unit where only a figure was; else its value and unit."""
        typed = (self.typed or self.value).strip()
        bare = not any(c.isalpha() or c in "°'\"" for c in typed)
        return f"{typed} {self.unit}" if bare else typed


class Quantities(BaseModel):
    """Several values in one unit."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    value: list[float | str | None]
    unit: str


def unit_of(name: str, dimension: str, field: str) -> Unit:
    """The unit called `name`, refused (`dimension_mismatch`) when it measures something else."""
    unit = find_unit(name)
    if unit is None or unit.dimension != dimension:
        raise Refused(
            "dimension_mismatch",
            f"'{field}' must be a {dimension}, for example in {CANONICAL[dimension]} "
            f"(got unit '{name}')",
            field=field,
        )
    return unit


def _fraction(value: float | str | None, field: str) -> Fraction:
    try:
        if (
            value is None
            or isinstance(value, bool)
            or (isinstance(value, float) and not math.isfinite(value))
        ):
            raise ValueError
        number = Decimal(str(value))
        if not number.is_finite() or not -330 < number.adjusted() < 300:
            raise ValueError
        return Fraction(number)
    except (ValueError, ArithmeticError) as error:
        raise Refused(
            "not_a_finite_number", f"'{field}' must be a finite number (got {value!r})", field=field
        ) from error


def exact(quantity: Quantity | None, dimension: str, field: str) -> Fraction:
    """The exact value in the canonical unit; refuses `not_a_finite_number` and
    `dimension_mismatch`.
    """
    if quantity is None:
        raise Refused(
            "not_a_finite_number",
            f"'{field}' must be a finite number with a unit (got nothing)",
            field=field,
        )
    return to_canonical(_fraction(quantity.value, field), unit_of(quantity.unit, dimension, field))


def canonical(quantity: Quantity | None, dimension: str, field: str) -> float:
    """Like `exact`, as a float."""
    return float(exact(quantity, dimension, field))


def canonicals(quantities: Quantities | None, dimension: str, field: str) -> list[float]:
    """All values in the canonical unit."""
    if quantities is None:
        raise Refused(
            "not_a_finite_number",
            f"'{field}' must be a list of finite numbers (got nothing)",
            field=field,
        )
    unit = unit_of(quantities.unit, dimension, field)
    return [float(to_canonical(_fraction(value, field), unit)) for value in quantities.value]


def in_unit(value: float, unit_name: str) -> Quantity:
    """A canonical value, given in the unit that the caller used. Never for non-finite values."""
    if not math.isfinite(value):
        raise Refused("not_a_finite_number", "the figures given lead to no finite result")
    unit = find_unit(unit_name)
    assert unit is not None, unit_name
    if unit.name == unit_name and unit.factor == 1 and not unit.offset:
        return Quantity(value=value, unit=unit_name)
    return Quantity(value=float(from_canonical(Fraction(value), unit)), unit=unit.name)


def round9(value: float) -> float:
    """Rounded to 1e-9 of the unit, the precision at which limits are compared."""
    return round(value, 9)


def quantity_of(value: float, unit: str) -> Quantity:
    """A figure for a body, as decimal text."""
    return Quantity(value=decimal_text(round9(value)), unit=unit)


def decimal_text(value: Fraction | float, places: int | None = None) -> str:
    """Decimal text: exact when `places` is None and the fraction is a finite decimal, else rounded
    (12 digits).

    Examples
    --------
    >>> decimal_text(Fraction(889, 10000))
    '0.0889'
    >>> decimal_text(0.07, 3)
    '0.070'
    """
    if places is not None and not isinstance(value, Fraction):
        return _no_negative_zero(f"{Decimal(str(value)):.{places}f}")
    number = Fraction(value) if isinstance(value, Fraction) else Fraction(str(value))
    if places is not None:
        scaled = Decimal(number.numerator) / Decimal(number.denominator)
        return _no_negative_zero(f"{scaled:.{places}f}")
    rest = number.denominator
    for prime in (2, 5):
        while rest % prime == 0:
            rest //= prime
    quotient = Decimal(number.numerator) / Decimal(number.denominator)
    text = format(quotient if rest == 1 else round(quotient, 9), "f")
    return _no_negative_zero(text.rstrip("0").rstrip(".") if "." in text else text)


def _no_negative_zero(text: str) -> str:
    return text[1:] if text.startswith("-") and not text.strip("-0.") else text


def minus(text: str) -> str:
    """Decimal text for the eye, with a true minus sign."""
    return text.replace("-", "\u2212", 1) if text.startswith("-") else text
