"""What a text in a reading field means, shown while it is typed."""

import re
from fractions import Fraction
from math import floor, log10
from typing import Any

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, exact, minus
from hollet.core.quantities.units import find_unit, from_canonical, units_of
from hollet.core.steps.typed import read_leaves, read_text
from hollet.services.workshop import Workshop

__all__ = ["conversions", "read_figure"]


def read_figure(
    workshop: Workshop, text: str, dimension: str | None, unit: str | None, tool_id: str | None
) -> dict[str, Any]:
    """Exact value in the canonical unit, whether it is taken as a deviation, or the reason it
    cannot be read.
    """
    tool = workshop.tools().get(tool_id or "")
    try:
        if tool is not None and tool.kind == "feeler":
            _, goes, does_not = read_leaves(text, unit or tool.unit, tool.dimension)
            told = f"{decimal_text(goes.nominal or 0)} goes in" + (
                f", {decimal_text(does_not.nominal or 0)} does not"
                if does_not is not None
                else ", at least that"
            )
            return {
                "ok": True,
                "value": decimal_text(goes.nominal or 0),
                "unit": goes.unit or "",
                "exact": True,
                "words": told,
            }
        if tool is not None:
            parsed, base = read_text(text, tool, unit or tool.unit, tool.dimension)
        else:
            parsed, base = parse(text, dimension, unit), None
    except Refused as refusal:
        return {
            "ok": False,
            "value": "",
            "unit": "",
            "exact": False,
            "words": refusal.message,
            "reason_code": refusal.reason_code,
        }
    if parsed.nominal is None:
        words = "a range" if parsed.kind == "range" else parsed.kind
        return {
            "ok": parsed.kind != "text",
            "value": "",
            "unit": parsed.unit or "",
            "exact": True,
            "words": words,
        }
    value = parsed.nominal
    if base is not None:
        value += exact(base, parsed.dimension or "length", "setting")
    in_unit = find_unit(unit or tool.unit if tool is not None else unit or "")
    if in_unit is None or in_unit.dimension != parsed.dimension:
        in_unit = find_unit(parsed.unit or "")
    if in_unit is None:
        return {
            "ok": True,
            "value": minus(decimal_text(value)),
            "unit": parsed.unit or "",
            "exact": True,
            "words": "",
            "deviation_from": None,
        }
    shown, is_exact = _as_fine(from_canonical(value, in_unit), text)
    words = (
        (
            f"{minus(_as_fine(from_canonical(parsed.nominal, in_unit), text)[0])} {in_unit.name} "
            f"from the setting {base.value}"
        )
        if base
        else ""
    )
    return {
        "ok": True,
        "value": minus(shown),
        "unit": in_unit.name,
        "exact": is_exact,
        "words": words,
        "deviation_from": str(base.value) if base else None,
    }


def conversions(text: str) -> dict[str, Any]:
    """A figure with its unit in every other unit of its kind; one without a unit, or that cannot be
    read, is told why.
    """
    try:
        parsed = parse(text, None, None)
    except Refused as refusal:
        return {"ok": False, "words": refusal.message, "rows": []}
    if parsed.nominal is None or parsed.dimension is None:
        return {"ok": False, "words": "type one figure with its unit, such as 62 ft-lb", "rows": []}
    rows = []
    for unit in units_of(parsed.dimension):
        value, whole = _as_fine(from_canonical(parsed.nominal, unit), text)
        rows.append({"value": minus(value), "unit": unit.name, "exact": whole})
    return {"ok": True, "words": parsed.dimension, "rows": rows}


def _as_fine(value: Fraction, typed: str) -> tuple[str, bool]:
    """The figure in decimals, and whether that is all of it: two digits finer than it was typed, a
    conversion's tail is nobody's reading.
    """
    whole = decimal_text(value)
    parts = [part.replace(",", ".") for part in re.findall(r"\d+(?:[.,]\d+)?", typed)]
    digits = max((len(part.replace(".", "").lstrip("0")) for part in parts), default=1)
    decimals = max((len(part.partition(".")[2]) for part in parts), default=0)
    if len(whole.replace(".", "").replace("-", "").lstrip("0")) <= digits + 2 or value == 0:
        return whole, Fraction(whole) == value
    places = max(digits + 1 - floor(log10(abs(value))), decimals)
    return decimal_text(float(value), places), False
