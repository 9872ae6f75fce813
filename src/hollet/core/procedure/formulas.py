"""What a result is made of: one reading, a difference, a statistic of several, or a registered
calculation; and how much each reading counts in it.

Sensitivities are one-sided differences, the larger side (JCGM 100, 5.1.3, note 2): where two
readings tie for the largest, each counts fully.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

from hollet.core.catalogue import compute, names
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.results import ResultSpec
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantity, decimal_text, exact
from hollet.core.quantities.units import CANONICAL, find_unit
from hollet.core.registry import CALCULATIONS

__all__ = ["Evaluated", "check_formula", "evaluate", "sensitivities"]

STEP = 1e-6
HOW: dict[str, Callable[[Sequence[float]], float]] = {
    "largest": max,
    "smallest": min,
    "mean": lambda v: math.fsum(v) / len(v),
    "spread": lambda v: max(v) - min(v),
    "sum": math.fsum,
}


class Evaluated(NamedTuple):
    """A result in its canonical unit, the working, and what the calculation says is to be done
    next, if it says so.
    """

    value: float
    working: tuple[str, ...] = ()
    advice: str | None = None


def evaluate(spec: ResultSpec, values: Mapping[str, float]) -> Evaluated:
    """The result from readings in their canonical units.

    Raises
    ------
    Refused
        The reason of the calculation, when the readings cannot be what they say.
    """
    if spec.reading is not None:
        return Evaluated(values[spec.reading])
    if spec.minuend is not None and spec.subtrahend is not None:
        a, b = values[spec.minuend], values[spec.subtrahend]
        return Evaluated(a - b, (f"{a:.4f} − {b:.4f} = {a - b:.4f}",))
    if spec.how is not None:
        over, less = [values[name] for name in spec.over], [values[name] for name in spec.less]
        found = HOW["largest" if spec.how == "ends" else spec.how](over)
        line = f"{spec.how} of {', '.join(f'{v:.4f}' for v in over)}: {found:.4f}"
        total = found - math.fsum(less)
        return Evaluated(
            total,
            (line, f"{found:.4f} − {' − '.join(f'{v:.4f}' for v in less)} = {total:.4f}")
            if less
            else (line,),
        )
    door = compute(spec.calc or "", _filled(spec, lambda name: values[name]))
    leaf = door.get(spec.gives or "")
    if leaf is None or isinstance(leaf["value"], list | bool | str) or leaf["value"] is None:
        raise Refused(
            "bad_result", f"'{spec.calc}' gives no figure called '{spec.gives}'", field="gives"
        )
    unit = find_unit(leaf["unit"])
    figure = (
        float(exact(Quantity(value=leaf["value"], unit=leaf["unit"]), unit.dimension, "gives"))
        if unit
        else float(leaf["value"])
    )
    return Evaluated(
        figure, tuple(door["working"]), door["advice"]["value"] if "advice" in door else None
    )


def sensitivities(spec: ResultSpec, values: Mapping[str, float]) -> dict[str, float]:
    """How much the result changes per change of each reading, in canonical units."""
    if spec.reading is not None:
        return {spec.reading: 1.0}
    if spec.minuend is not None and spec.subtrahend is not None:
        return {spec.minuend: 1.0, spec.subtrahend: -1.0}
    base, found = evaluate(spec, values).value, {}
    for name, value in values.items():
        h = STEP * max(1.0, abs(value))
        slopes = [_slope(spec, values, name, base, sign * h) for sign in (1, -1)]
        known: list[float] = [slope for slope in slopes if slope is not None]
        if not known:  # nothing is known of its share: that is no share of zero
            raise Refused(
                "bad_result", f"'{name}': nothing beside it can be worked out", field=name
            )
        steepest: float = max(known, key=abs)
        found[name] = round(steepest, 6)
    return found


def _slope(
    spec: ResultSpec, values: Mapping[str, float], name: str, base: float, h: float
) -> float | None:
    """The change per change on one side; None at an end beyond which it takes no figure, as zero
    for what is never below it.
    """
    try:
        moved = evaluate(spec, {**values, name: values[name] + h}).value
    except Refused:
        return None
    return (moved - base) / h


def check_formula(spec: ResultSpec) -> None:
    """Refuse a result whose calculation does not exist, or does not take or give what it names."""
    known = names()
    if spec.calc not in known:
        raise NotFound("calculation", str(spec.calc))
    calculation = CALCULATIONS[str(spec.calc)]
    for field in (take.field for take in spec.takes):
        if field not in calculation.takes.model_fields:
            raise Refused("bad_result", f"'{spec.calc}' takes no '{field}'", field="takes")
    if spec.gives not in calculation.gives.model_fields:
        raise Refused("bad_result", f"'{spec.calc}' gives no '{spec.gives}'", field="gives")
    _filled(spec, lambda name: 1.0)


def _filled(spec: ResultSpec, value_of: Callable[[str], float]) -> dict[str, Any]:
    """The input of the calculation, with figures in canonical units."""
    calculation = CALCULATIONS.get(spec.calc or "")
    data: dict[str, Any] = {}
    if calculation is None:
        names()
        calculation = CALCULATIONS[spec.calc or ""]
    for field, of in ((take.field, take.sources()) for take in spec.takes):
        info = calculation.takes.model_fields[field]
        extra = info.json_schema_extra
        dimension = (
            str(extra["dimension"]) if isinstance(extra, dict) and "dimension" in extra else None
        )
        if "Quantities" in str(info.annotation):
            data[field] = {
                "value": [_figure(item, dimension, value_of) for item in of],
                "unit": CANONICAL[dimension or "length"],
            }
        elif len(of) > 1:
            raise Refused(
                "bad_result", f"'{field}' takes one figure, and {len(of)} are named", field="takes"
            )
        elif dimension is None:
            data[field] = _bare(of[0])
        else:
            data[field] = {
                "value": _figure(of[0], dimension, value_of),
                "unit": CANONICAL["angle" if dimension == "advance" else dimension],
            }
    return data


def _figure(source: str, dimension: str | None, value_of: Callable[[str], float]) -> float | str:
    if not source.startswith("="):
        return value_of(source)
    parsed = parse(source[1:], dimension, CANONICAL[dimension or "length"])
    if parsed.nominal is None:
        raise Refused(
            "bad_number",
            f"'{source}': a fixed figure is one figure with its unit, such as = 86 mm",
            field="takes",
        )
    return decimal_text(parsed.nominal)


def _bare(source: str) -> Any:
    """A fixed answer that is no figure: yes, no, a whole number or a word."""
    text = source.removeprefix("=").strip()
    if text in ("yes", "no"):
        return text == "yes"
    return int(text) if text.lstrip("-").isdigit() else text
