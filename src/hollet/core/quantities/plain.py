"""A figure as a book holds it: one decimal number in the unit of its line."""

import re
from functools import lru_cache

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text
from hollet.core.quantities.units import find_unit, from_canonical

__all__ = ["plain_canonical", "plain_figure"]

_AS_TYPED = re.compile(r"([-−]?[0-9]+)(?:[.,]([0-9]+))?[^\d/¼-¾⅐-⅞]*")


@lru_cache(maxsize=4096)
def plain_figure(text: str, dimension: str, unit: str) -> str:
    """A typed figure as decimal text in `unit`: its own digits, for they say how finely it is
    meant, where it was typed in that unit; else turned.

    Raises
    ------
    Refused
        `bad_number` for a range or a sum, and all that `parse` refuses.

    Examples
    --------
    >>> [plain_figure(text, "length", "mm") for text in ("84.000", "0,020", "3.25 in", "-0")]
    ['84.000', '0.020', '82.55', '0']
    """
    parsed = parse(text.strip(), dimension, unit)
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused("bad_number", f"'{text}' must be one figure, such as 0.05 {unit}")
    known = find_unit(unit)
    assert known is not None
    digits = _AS_TYPED.fullmatch(text.strip())
    if digits and parsed.shown == known and parsed.nominal:
        whole, rest = digits.groups()
        return whole.replace("−", "-") + (f".{rest}" if rest else "")
    return decimal_text(from_canonical(parsed.nominal, known))


@lru_cache(maxsize=4096)
def plain_canonical(text: str, dimension: str, unit: str) -> float:
    """The same in the canonical unit of its dimension."""
    parsed = parse(text, dimension, unit).nominal
    assert parsed is not None
    return float(parsed)
