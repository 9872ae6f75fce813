"""What a text in a reading field means, shown while it is typed."""

from typing import Any

from hollet.core.book.measure import read_leaves, read_text
from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, exact, minus
from hollet.services.workshop import Workshop

__all__ = ["read_figure"]


def read_figure(workshop: Workshop, text: str, dimension: str | None, unit: str | None, tool_id: str | None) -> dict[str, Any]:
    """Exact value in the canonical unit, whether it is taken as a deviation, or the reason it cannot be read."""
    tool = workshop.tools().get(tool_id or "")
    try:
        if tool is not None and tool.kind == "feeler":
            _, goes, does_not = read_leaves(text, unit or tool.unit, tool.dimension)
            told = f"{decimal_text(goes.nominal or 0)} goes in" + (f", {decimal_text(does_not.nominal or 0)} does not" if does_not is not None else ", at least that")
            return {"ok": True, "value": decimal_text(goes.nominal or 0), "unit": goes.unit or "", "exact": True, "words": told}
        if tool is not None:
            parsed, base = read_text(text, tool, unit or tool.unit, tool.dimension)
        else:
            parsed, base = parse(text, dimension, unit), None
    except Refused as refusal:
        return {"ok": False, "value": "", "unit": "", "exact": False, "words": refusal.message, "reason_code": refusal.reason_code}
    if parsed.nominal is None:
        words = "a range" if parsed.kind == "range" else parsed.kind
        return {"ok": parsed.kind != "text", "value": "", "unit": parsed.unit or "", "exact": True, "words": words}
    value = parsed.nominal
    if base is not None:
        value += exact(base, parsed.dimension or "length", "setting")
    shown = decimal_text(value)
    is_exact = parsed.nominal.denominator in _finite(parsed.nominal.denominator)
    words = f"{minus(decimal_text(parsed.nominal))} {parsed.unit} from the setting {base.value}" if base else ""
    return {"ok": True, "value": minus(shown), "unit": parsed.unit or "", "exact": is_exact, "words": words,
            "deviation_from": str(base.value) if base else None}  # fmt: skip


def _finite(denominator: int) -> tuple[int, ...]:
    """The denominator itself if its decimal ends, else nothing."""
    rest = denominator
    for prime in (2, 5):
        while rest % prime == 0:
            rest //= prime
    return (denominator,) if rest == 1 else ()
