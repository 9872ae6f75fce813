"""Unit conversions as registered calculations (ISO 80000-1; ISO 370 for limits)."""

from fractions import Fraction

from hollet.core.errors import Refused
from hollet.core.quantities.parse import Parsed, parse
from hollet.core.quantities.quantity import Quantity, exact, in_unit, unit_of
from hollet.core.quantities.units import CANONICAL, find_unit, from_canonical
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "ConvertLimits",
    "ParseQuantity",
    "UnitFactors",
    "convert_limits",
    "parse_quantity",
    "unit_factors",
]

LISTED = [
    "in",
    "thou",
    "ft",
    "lb",
    "lbf",
    "kgf",
    "ft·lbf",
    "in·lbf",
    "kgf·m",
    "kgf·cm",
    "psi",
    "bar",
    "kgf/cm²",
    "atm",
    "cc",
    "in³",
    "US_qt",
    "US_pt",
    "US_gal",
    "imp_gal",
    "imp_qt",
    "imp_pt",
    "US_fl_oz",
    "imp_fl_oz",
    "lbf/in",
    "turn",
    "inHg",
]


class UnitFactors(Input):
    """Takes nothing."""


class UnitFactorsResult(Result):
    """One figure a unit, keyed `1 in`, `1 psi`, ..."""

    factors: dict[str, Quantity]


@calculation("Exact factor of each unit")
def unit_factors(_: UnitFactors) -> UnitFactorsResult:
    """The factor of each workshop unit to mm, g, N, N·m, kPa, mL, N/mm or deg.

    Example
    -------
    >>> unit_factors(UnitFactors()).factors["1 in"].value
    25.4
    """
    factors = {}
    for listed in LISTED:
        name = listed.replace("_", " ")
        unit = find_unit(name)
        assert unit is not None, name
        factors[f"1 {name}" + (" (conventional)" if name == "inHg" else "")] = Quantity(
            value=float(unit.factor), unit=CANONICAL[unit.dimension]
        )
    return UnitFactorsResult(factors=factors)


class ParseQuantity(Input):
    """A text, and what the field expects."""

    text: str
    field_dimension: str | None = None
    default_unit: str | None = None


class ParseQuantityResult(Result):
    """What was understood, under the keys of the reference form."""

    parts: dict[str, Quantity | str]


def _parts(parsed: Parsed, prefix: str = "") -> dict[str, Quantity | str]:
    parts: dict[str, Quantity | str] = {} if prefix else {"kind": parsed.kind}
    if parsed.dimension is None or parsed.unit is None:
        return parts
    parts |= {f"{prefix}dimension": parsed.dimension, f"{prefix}unit": parsed.unit}
    for key in ("nominal", "lo", "hi", "advance"):
        value = getattr(parsed, key)
        if value is not None:
            parts[prefix + key] = Quantity(value=float(value), unit=parsed.unit)
    return parts


@calculation("Read a figure as mechanics write it")
def parse_quantity(i: ParseQuantity) -> ParseQuantityResult:
    """Text to kind, dimension, canonical unit and values; see `hollet.core.quantities.parse`.

    Example
    -------
    >>> found = parse_quantity(ParseQuantity.model_validate({"text": "3.5 thou"}))
    >>> found.parts["nominal"]
    Quantity(value=0.0889, unit='mm')
    """
    parsed = parse(i.text, i.field_dimension, i.default_unit)
    parts = _parts(parsed)
    for number, step in enumerate(parsed.steps, start=1):
        parts |= _parts(step, f"step{number}.")
    return ParseQuantityResult(parts=parts)


class ConvertLimits(Input):
    """A pair of limits in one unit and the display step in another."""

    lo: Quantity | None = None
    hi: Quantity | None = None
    step: Quantity | None = None


class ConvertLimitsResult(Result):
    """Limits on the grid of `step`, never wider than the original."""

    lo: Quantity
    hi: Quantity


@calculation("Convert limits, rounded inwards")
def convert_limits(i: ConvertLimits) -> ConvertLimitsResult:
    """Convert two limits to the unit of `step`, the lower rounded up and the upper down (ISO 370).

    Raises
    ------
    Refused
        `limits_reversed`, `step_not_positive`, `step_too_coarse` when nothing is left between them.

    Example
    -------
    >>> given = {
    ...     "lo": {"value": 0.0015, "unit": "in"},
    ...     "hi": {"value": 0.0035, "unit": "in"},
    ...     "step": {"value": 0.001, "unit": "mm"},
    ... }
    >>> found = convert_limits(ConvertLimits.model_validate(given))
    >>> round(found.lo.value, 4), found.lo.unit
    (0.039, 'mm')
    """
    unit = find_unit(i.step.unit) if i.step else None
    if i.step is None or unit is None:
        raise Refused(
            "not_a_finite_number", "'step' must be a display step such as 0.001 mm", field="step"
        )
    lo, hi, step = (
        exact(q, unit.dimension, f) for q, f in ((i.lo, "lo"), (i.hi, "hi"), (i.step, "step"))
    )
    if step <= 0:
        raise Refused("step_not_positive", "'step' must be above zero", field="step")
    if lo > hi:
        raise Refused("limits_reversed", "the lower limit lies above the upper limit", field="lo")
    up: Fraction = -((-lo) // step) * step
    down: Fraction = (hi // step) * step
    if up > down:
        raise Refused(
            "step_too_coarse",
            "rounded to this step the limits would cross: use a finer step",
            field="step",
        )
    name = unit_of(i.step.unit, unit.dimension, "step").name
    return ConvertLimitsResult(
        lo=Quantity(value=float(from_canonical(up, unit)), unit=name),
        hi=Quantity(value=float(from_canonical(down, unit)), unit=name),
        working=(
            (
                f"{in_unit(float(lo), name).value:g} up to {float(up):g}, {float(hi):g} down to "
                f"{float(down):g}"
            ),
        ),
    )
