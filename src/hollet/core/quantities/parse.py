"""Parse what mechanics write, exactly.

Grammar: number = integer | decimal (. or ,) | n/d | mixed `w n/d` or `w-n/d` with n < d | vulgar
fraction signs.
quantity = [sign] number unit; range = number [unit] (- | – | to) number unit; tolerance = number ±
number unit or
number +a/-b unit; sequence = quantity + quantity (torque, then angle: two stages, never added);
text = oil grade or
thread. `BTDC` and `ATDC` give a signed advance. Nothing is rounded and no locale is guessed beyond
the comma rule:
a comma followed by exactly three digits after one to three digits that are not all zero is asked
about.
"""

import re
from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import Measured, decimal_text
from hollet.core.quantities.units import (
    AMBIGUOUS,
    CANONICAL,
    Unit,
    find_unit,
    from_canonical,
    squeeze,
    to_canonical,
)

__all__ = ["Parsed", "measured", "parse"]

VULGAR = {"½": (1, 2), "¼": (1, 4), "¾": (3, 4), "⅛": (1, 8), "⅜": (3, 8), "⅝": (5, 8), "⅞": (7, 8)}
_TEXT = re.compile(
    r"\d+[Ww]-?\d+|[Mm]\d+(\s*[x×X]\s*[\d.]+){0,2}|#?\d+(/\d+)?-\d+(\s*UN\w*)?|SAE\s*\d+"
)
_MIXED = re.compile(r"(\d+)[ -]\s*(\d+)\s*/\s*(\d+)")
_FRACTION = re.compile(r"(\d+)\s*/\s*(\d+)")
_VULGAR = re.compile(r"(\d*)\s?([½¼¾⅛⅜⅝⅞])")
_DECIMAL = re.compile(r"\d+[.,]\d*|[.,]\d+|\d+")
_TIMING = re.compile(r"\s*(BTDC|ATDC)\s*$", re.IGNORECASE)
_RANGE = re.compile(r"\s*(?:-|–|−|\bto\b)\s*")
_SIGN = re.compile(r"[+\-−]\s*")


@dataclass(frozen=True, slots=True)
class Parsed:
    """What a text means; values are exact, in the canonical unit; `shown` is the unit as typed."""

    kind: str
    text: str
    dimension: str | None = None
    nominal: Fraction | None = None
    lo: Fraction | None = None
    hi: Fraction | None = None
    advance: Fraction | None = None
    shown: Unit | None = None
    typed: Fraction | None = None
    steps: tuple["Parsed", ...] = field(default=())

    @property
    def unit(self) -> str | None:
        """Name of the canonical unit."""
        return CANONICAL[self.dimension] if self.dimension else None


@lru_cache(maxsize=8192)
def parse(text: str, dimension: str | None = None, default_unit: str | None = None) -> Parsed:
    """Read `text` as one quantity, range, tolerance, sequence or designation.

    Parameters
    ----------
    text : str
        As typed.
    dimension : str, optional
        What the field expects, for example "torque".
    default_unit : str, optional
        The unit that the field shows; only then is a bare number accepted.

    Raises
    ------
    Refused
        `empty`, `not_a_number`, `not_a_quantity`, `bad_number`, `ambiguous_comma`,
        `zero_denominator`,
        `unit_missing`, `unit_ambiguous`, `dimension_mismatch`, `range_reversed`,
        `below_absolute_zero`.

    Examples
    --------
    >>> parse("2 5/8 in").nominal
    Fraction(2667, 40)
    >>> parse("3.5 thou").nominal
    Fraction(889, 10000)
    """
    clean = text.strip().replace("\u00a0", " ")
    if not clean:
        raise Refused(
            "empty",
            "nothing was entered: type a figure with its unit, such as 0.09 mm",
            field="text",
        )
    if dimension in (None, "text") and _TEXT.fullmatch(clean):
        return Parsed("text", clean)
    if re.match(r"[+\-−]?\s*(nan|inf)", clean, re.IGNORECASE):
        raise Refused(
            "not_a_number", f"'{clean}' is not a number: type digits, such as 0.09 mm", field="text"
        )
    timing = _TIMING.search(clean)
    if timing:
        return _timing(clean, timing, dimension)
    for reader in (_tolerance, _sequence, _range, _single):
        parsed = reader(clean, dimension, default_unit)
        if parsed is not None:
            return parsed
    if not any(c.isdigit() for c in clean):
        raise Refused(
            "not_a_number",
            f"'{clean}' has no figure in it: type digits, such as 0.09 mm",
            field="text",
        )
    raise Refused(
        "not_a_quantity", f"'{clean}' is not a figure with a unit, such as 0.09 mm", field="text"
    )


def _number(text: str, start: int = 0) -> tuple[Fraction, int] | None:
    """The number that begins at `start` and where it ends, or None if there is none."""
    mixed = _MIXED.match(text, start)
    if mixed and int(mixed[3]) and int(mixed[2]) < int(mixed[3]):
        return int(mixed[1]) + Fraction(int(mixed[2]), int(mixed[3])), mixed.end()
    fraction = _FRACTION.match(text, start)
    if fraction:
        if int(fraction[2]) == 0:
            raise Refused(
                "zero_denominator", "a fraction cannot have 0 below the line", field="text"
            )
        return Fraction(int(fraction[1]), int(fraction[2])), fraction.end()
    vulgar = _VULGAR.match(text, start)
    if vulgar:
        return int(vulgar[1] or 0) + Fraction(*VULGAR[vulgar[2]]), vulgar.end()
    decimal = _DECIMAL.match(text, start)
    if not decimal:
        return None
    _check_decimal(text, decimal)
    return Fraction(decimal[0].replace(",", ".").rstrip(".")), decimal.end()


def _check_decimal(text: str, found: re.Match[str]) -> None:
    rest = text[found.end() :]
    if re.match(r"[.,]\d|[eE][+-]?\d|\s+\d+\s*/\s*\d|\s+\d", rest):
        raise Refused(
            "bad_number",
            f"'{text}' does not hold one clear number: one decimal point, no spaces inside",
            field="text",
        )
    whole, comma, tail = found[0].partition(",")
    if comma and len(tail) == 3 and 1 <= len(whole) <= 3 and whole.strip("0"):
        raise Refused(
            "ambiguous_comma",
            f"'{found[0]}': is the comma a decimal mark or a thousands mark? "
            f"Write {whole}.{tail} or {whole}{tail}",
            field="text",
        )


def _signed(text: str) -> tuple[Fraction, int] | None:
    sign = _SIGN.match(text)
    found = _number(text, sign.end() if sign else 0)
    if found is None:
        return None
    value, end = found
    return (-value if sign and sign[0][0] in "-−" else value), end


def _unit(text: str, dimension: str | None, default_unit: str | None) -> Unit:
    """The unit in `text`, or the field's own when `text` is empty."""
    token = text.strip() or (default_unit or "").strip()
    if not token:
        raise Refused(
            "unit_missing",
            "the figure has no unit: write it behind the number, such as mm or Nm",
            field="unit",
        )
    if squeeze(token) in AMBIGUOUS:
        raise Refused(
            "unit_ambiguous",
            f"'{token}' can be read in two ways: write {AMBIGUOUS[squeeze(token)]}",
            field="unit",
        )
    unit = find_unit(token)
    if unit is None:
        raise Refused(
            "not_a_quantity",
            f"'{token}' is not a unit that Hollet knows; this field takes "
            f"{default_unit or CANONICAL.get(dimension or '', 'mm, in, thou, Nm, ft-lb, bar')}",
            field="unit",
        )
    if dimension and dimension != "text" and unit.dimension != dimension:
        raise Refused(
            "dimension_mismatch",
            f"'{token}' is a unit of {unit.dimension}; this field takes a {dimension}, "
            f"for example in {CANONICAL.get(dimension, dimension)}",
            field="unit",
        )
    return unit


def _value(number: Fraction, unit: Unit) -> Fraction:
    value = to_canonical(number, unit)
    if unit.dimension == "temperature" and value < Fraction("-273.15"):
        raise Refused(
            "below_absolute_zero",
            f"{float(number):g} {unit.name} lies below absolute zero",
            field="text",
        )
    return value


def _single(text: str, dimension: str | None, default_unit: str | None) -> Parsed | None:
    found = _signed(text)
    if found is None:
        return None
    number, end = found
    unit = _unit(text[end:], dimension, default_unit)
    return Parsed("single", text, unit.dimension, _value(number, unit), shown=unit, typed=number)


def _timing(text: str, found: re.Match[str], dimension: str | None) -> Parsed:
    body = text[: found.start()]
    base = _single(body, "angle", "deg")
    if base is None or base.nominal is None or dimension not in (None, "angle"):
        raise Refused(
            "dimension_mismatch" if base else "not_a_quantity",
            f"'{text}' is an ignition angle, such as 8 BTDC; this field takes a "
            f"{dimension or 'figure'}",
            field="text",
        )
    sign = 1 if found[1].upper() == "BTDC" else -1
    return Parsed(
        "single",
        text,
        "angle",
        base.nominal,
        advance=sign * base.nominal,
        shown=base.shown,
        typed=base.typed,
    )


def _tolerance(text: str, dimension: str | None, default_unit: str | None) -> Parsed | None:
    parts = re.split(r"\s*(?:\+\s*/\s*[-−]|±)\s*", text)
    if len(parts) == 2:
        return _around(text, parts[0], parts[1], None, dimension, default_unit)
    split = re.fullmatch(r"(.+?)\s*\+\s*([\d.,/ ]+?)\s*/\s*[-−]\s*([\d.,].*)", text)
    return _around(text, split[1], split[3], split[2], dimension, default_unit) if split else None


def _around(
    text: str,
    centre: str,
    below: str,
    above: str | None,
    dimension: str | None,
    default_unit: str | None,
) -> Parsed:
    middle, minus = _signed(centre), _number(below)
    plus = _number(above) if above else minus
    if middle is None or minus is None or plus is None:
        raise Refused(
            "not_a_quantity", f"'{text}' is not a tolerance such as 40 ± 5 Nm", field="text"
        )
    unit = _unit(below[minus[1] :] or centre[middle[1] :], dimension, default_unit)
    own = _unit(centre[middle[1] :] or unit.name, unit.dimension, None)
    spread = unit.factor
    nominal = _value(middle[0], own)
    return Parsed(
        "tolerance",
        text,
        unit.dimension,
        nominal,
        nominal - minus[0] * spread,
        nominal + plus[0] * spread,
        shown=own,
        typed=middle[0],
    )


def _sequence(text: str, dimension: str | None, default_unit: str | None) -> Parsed | None:
    parts = re.split(r"\s*\+\s*", text)
    if len(parts) < 2 or not parts[0]:
        return None
    steps = [_single(part, None, default_unit if part is parts[0] else None) for part in parts]
    if any(step is None for step in steps):
        raise Refused(
            "not_a_quantity", f"'{text}' is not a sequence such as 80 Nm + 90 deg", field="text"
        )
    if dimension not in (None, steps[0].dimension if steps[0] else None):
        raise Refused(
            "dimension_mismatch",
            f"'{text}' begins with another quantity than {dimension}",
            field="unit",
        )
    return Parsed("sequence", text, steps=tuple(step for step in steps if step))


def _range(text: str, dimension: str | None, default_unit: str | None) -> Parsed | None:
    first = _signed(text)
    if first is None:
        return None
    joint = re.compile(r"\s*([^\d\s\-–−][^\d\-–−]*?)?" + _RANGE.pattern).match(text, first[1])
    second = _number(text, joint.end()) if joint else None
    if joint is None or second is None or not joint[0].strip():
        return None
    tail = text[second[1] :]
    high_unit = _unit(tail or joint[1] or "", dimension, default_unit)
    low_unit = _unit(joint[1] or high_unit.name, high_unit.dimension, None)
    lo, hi = _value(first[0], low_unit), _value(second[0], high_unit)
    if lo > hi:
        raise Refused(
            "range_reversed",
            f"'{text}': the range runs from high to low; write the smaller figure first",
            field="text",
        )
    return Parsed("range", text, high_unit.dimension, lo=lo, hi=hi, shown=high_unit)


def measured(text: str, dimension: str, unit: str, field: str) -> Measured:
    """One typed figure as a log keeps it, in the unit in which it was typed; a bare one in `unit`.

    Refuses `bad_number` for several or none.
    """
    try:
        parsed = parse(text, dimension, unit)
    except Refused as refusal:
        raise Refused(refusal.reason_code, refusal.message, field=field) from refusal
    value = parsed.advance if parsed.advance is not None else parsed.nominal
    if parsed.kind != "single" or value is None or parsed.shown is None:
        raise Refused("bad_number", f"'{text}': type one figure, such as 60 {unit}", field=field)
    return Measured(
        typed=text.strip(),
        value=decimal_text(from_canonical(value, parsed.shown)),
        unit=parsed.shown.name,
    )
