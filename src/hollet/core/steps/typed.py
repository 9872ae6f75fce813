"""What was typed as a reading: one figure, or two feeler leaves."""

import re

from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.quantities.parse import Parsed, parse
from hollet.core.quantities.quantity import Quantity, decimal_text

__all__ = ["read_leaves", "read_text"]

PAIR = re.compile(
    r"^\s*(?P<goes>[\d.,]+\s*[a-zA-Zµ\"]*)\s*(?:/|-|\u2013|to|\s)\s*(?P<not>[\d.,]+\s*[a-zA-Zµ\"]*)\s*$"
)
"""Two feeler leaves as typed: the one that goes in, and the one that does not."""


def read_leaves(text: str, unit: str, dimension: str) -> tuple[str, Parsed, Parsed | None]:
    """The feeler leaf that goes in (as typed, and parsed), and the one that does not where it was
    typed too (`0.35 0.40`).
    """
    pair = PAIR.match(text)
    parts = [pair["goes"], pair["not"]] if pair else [text]
    if pair and pair["not"].strip(" .,0123456789") and not pair["goes"].strip(" .,0123456789"):
        parts[0] += pair["not"].strip(" .,0123456789")  # "14 16 thou": the unit holds for both
    found = [parse(part, dimension, unit) for part in parts]
    if any(p.kind != "single" or p.nominal is None for p in found):
        raise Refused(
            "bad_number",
            f"'{text}': type the leaf that goes in and the one that does not, such as 0.35 0.40",
            field="typed",
        )
    return parts[0].strip(), found[0], found[1] if len(found) > 1 else None


def read_text(
    text: str, tool: Instrument | None, unit: str, dimension: str
) -> tuple[Parsed, Quantity | None]:
    """Parse one typed repeat; on a gauge with a setting a value under half of it is a deviation.

    Returns
    -------
    (Parsed, Quantity or None)
        The value as typed, and the setting it was added to.
    """
    parsed = parse(text, dimension, unit)
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused(
            "bad_number", f"'{text}': a reading is one figure, such as 0.09 mm", field="typed"
        )
    if tool is not None and tool.setting is not None:
        setting = parse(tool.setting, tool.dimension, tool.unit)
        assert setting.nominal is not None
        if abs(parsed.nominal) < setting.nominal / 2:
            return parsed, Quantity(
                value=decimal_text(setting.nominal), unit=setting.unit or tool.unit
            )
    return parsed, None
