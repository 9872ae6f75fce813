"""What a text in a reading field means, shown while it is typed."""

import re
from fractions import Fraction
from math import floor, log10

from pydantic import BaseModel

from hollet.core.book.sums import Source, sources
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.quantities.parse import Parsed, parse
from hollet.core.quantities.quantity import Quantity, decimal_text, exact, minus
from hollet.core.quantities.units import find_unit, from_canonical, units_of
from hollet.core.steps.typed import read_leaves, read_text
from hollet.services.workshop import Workshop

__all__ = ["ConversionsView", "QuantityView", "conversions", "read_figure", "sum_sources"]


class QuantityView(BaseModel):
    """What the text means: exact decimal value in the canonical unit, and how it will be taken."""

    ok: bool
    value: str = ""
    unit: str = ""
    exact: bool = False
    words: str = ""
    deviation_from: str | None = None
    reason_code: str | None = None


class ConvertedView(BaseModel):
    """A figure in another unit; not `exact` when digits were left off."""

    value: str
    unit: str
    exact: bool


class ConversionsView(BaseModel):
    """A figure in all units of its kind, or why it cannot be read."""

    ok: bool
    words: str
    rows: list[ConvertedView]


def read_figure(
    workshop: Workshop, text: str, dimension: str | None, unit: str | None, tool_id: str | None
) -> QuantityView:
    """Exact value in the canonical unit, whether it is taken as a deviation, or the reason it
    cannot be read.
    """
    tool = workshop.tools().get(tool_id or "")
    try:
        if tool is not None and tool.kind == "feeler":
            return _leaves(text, tool, unit or tool.unit)
        if tool is not None:
            parsed, base = read_text(text, tool, unit or tool.unit, tool.dimension)
        else:
            parsed, base = parse(text, dimension, unit), None
    except Refused as refusal:
        return QuantityView(ok=False, words=refusal.message, reason_code=refusal.reason_code)
    if parsed.nominal is None:
        words = "a range" if parsed.kind == "range" else parsed.kind
        whole = parsed.kind != "text"
        return QuantityView(ok=whole, unit=parsed.unit or "", exact=True, words=words)
    own_unit = unit or tool.unit if tool is not None else unit or ""
    return _single(parsed, base, text, own_unit)


def _leaves(text: str, tool: Instrument, unit: str) -> QuantityView:
    """Two leaves: the one that goes in, and the next that does not."""
    _, goes, does_not = read_leaves(text, unit, tool.dimension)
    thin = decimal_text(goes.nominal or 0)
    rest = (
        f"{decimal_text(does_not.nominal or 0)} does not"
        if does_not is not None
        else "at least that"
    )
    words = f"{thin} goes in, {rest}"
    return QuantityView(ok=True, value=thin, unit=goes.unit or "", exact=True, words=words)


def _single(parsed: Parsed, base: Quantity | None, text: str, own_unit: str) -> QuantityView:
    """One figure, in the unit of its field; from a setting it is that much larger."""
    assert parsed.nominal is not None
    value = parsed.nominal
    if base is not None:
        value += exact(base, parsed.dimension or "length", "setting")
    in_unit = find_unit(own_unit)
    if in_unit is None or in_unit.dimension != parsed.dimension:
        in_unit = find_unit(parsed.unit or "")
    if in_unit is None:
        shown = minus(decimal_text(value))
        return QuantityView(ok=True, value=shown, unit=parsed.unit or "", exact=True)
    shown, is_exact = _as_fine(from_canonical(value, in_unit), text)
    if base is None:
        return QuantityView(ok=True, value=minus(shown), unit=in_unit.name, exact=is_exact)
    step = minus(_as_fine(from_canonical(parsed.nominal, in_unit), text)[0])
    return QuantityView(
        ok=True,
        value=minus(shown),
        unit=in_unit.name,
        exact=is_exact,
        words=f"{step} {in_unit.name} from the setting {base.value}",
        deviation_from=str(base.value),
    )


def conversions(text: str) -> ConversionsView:
    """A figure with its unit in every other unit of its kind; one without a unit, or that cannot be
    read, is told why.
    """
    try:
        parsed = parse(text, None, None)
    except Refused as refusal:
        return ConversionsView(ok=False, words=refusal.message, rows=[])
    if parsed.nominal is None or parsed.dimension is None:
        words = "type one figure with its unit, such as 62 ft-lb"
        return ConversionsView(ok=False, words=words, rows=[])
    rows = []
    for unit in units_of(parsed.dimension):
        value, whole = _as_fine(from_canonical(parsed.nominal, unit), text)
        rows.append(ConvertedView(value=minus(value), unit=unit.name, exact=whole))
    return ConversionsView(ok=True, words=parsed.dimension, rows=rows)


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


def sum_sources(workshop: Workshop, build: str) -> tuple[Source, ...]:
    """The figures of a build that a sum may take by name."""
    with workshop.held(build) as state:
        return sources(state)
