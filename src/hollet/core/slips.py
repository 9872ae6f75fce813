"""What a typed figure may have been meant as: another unit, a lost sign, a decimal place, two
digits swapped; and pairs that cannot go together.

It asks, it never refuses and never changes a figure (reference 27). The windows are rules of thumb,
and inputs where a sheet says better.
"""

import itertools
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantity, decimal_text, exact, in_unit, round9
from hollet.core.quantities.units import CANONICAL, find_unit, from_canonical
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "SLIP_WORDS",
    "Slip",
    "SlipCheck",
    "question",
    "slip_check",
    "slip_input",
]

Known = Literal["closely", "asked", "roughly"]
WINDOWS: dict[str, tuple[float, float]] = {
    "closely": (0.95, 1.05),
    "asked": (0.8, 1.25),
    "roughly": (0.4, 2.5),
}
ROBUST = 6 * 1.4826  # six standard deviations, by the median absolute deviation of a normal sample
APART = 0.002  # sisters differ by no more than this share of their median, however alike they are
OTHER_UNIT: dict[str, tuple[tuple[str, str], ...]] = {
    "mm": (("inch_for_mm", "in"), ("thou_for_mm", "thou")),
    "in": (("mm_for_inch", "mm"), ("thou_for_inch", "thou")),
    "N·m": (("ftlb_for_nm", "ft-lb"),),
    "ft·lbf": (("nm_for_ftlb", "N·m"),),
    "bar": (("psi_for_bar", "psi"),),
    "psi": (("bar_for_psi", "bar"),),
}
"""For a field in this unit: the slips of unit, in the order in which they are tried, and the unit
that may have been meant.
"""
ORDER = (
    "inch_for_mm",
    "mm_for_inch",
    "thou_for_mm",
    "thou_for_inch",
    "ftlb_for_nm",
    "nm_for_ftlb",
    "psi_for_bar",
    "bar_for_psi",
    "lost_sign",
    "decimal_place",
    "swapped_digits",
)
SLIP_WORDS: dict[str, str] = {
    "lost_sign": "the sign lost",
    "decimal_place": "a decimal place off",
    "swapped_digits": "two digits swapped",
    "inch_for_mm": "meant in inches",
    "mm_for_inch": "meant in mm",
    "thou_for_mm": "meant in thou",
    "thou_for_inch": "meant in thou",
    "ftlb_for_nm": "meant in ft-lb",
    "nm_for_ftlb": "meant in N·m",
    "psi_for_bar": "meant in psi",
    "bar_for_psi": "meant in bar",
}


class SlipCheck(Input):
    """What was typed, the unit of the field, and what is known of it; all but the first two
    optional.
    """

    typed: str
    unit: str
    expected: Quantity | None = None
    known: Known | None = None
    tool_range: list[Quantity] | None = None
    resolution: Quantity | None = None
    setting: Quantity | None = None
    travel: Quantity | None = None
    sisters: list[Quantity] | None = None


class Slip(Result):
    """Whether to ask, the figure as read (absolute), the nearest slip (`none` where nothing fits)
    and what it would mean, and all that fit.
    """

    ask: bool
    read_as: Quantity
    slip: str = "none"
    meant: Quantity | None = None
    slips: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class _Known:
    """What a figure is compared with, in the canonical unit of its dimension."""

    dimension: str
    expected: float | None
    known: Known
    span: tuple[float, float] | None
    setting: float | None
    travel: float | None
    sisters: tuple[float, ...]

    def absolute(self, figure: float) -> float:
        """On a set gauge a figure below half the setting is a deviation from it."""
        return (
            self.setting + figure if self.deviates(figure) and self.setting is not None else figure
        )

    def deviates(self, figure: float) -> bool:
        return self.setting is not None and abs(figure) < self.setting / 2

    def plausible(self, figure: float) -> bool:
        value = self.absolute(figure)
        if self.span is not None and not self.span[0] <= round9(value) <= self.span[1]:
            return False
        if self.deviates(figure) and self.travel is not None and round9(abs(figure)) > self.travel:
            return False
        if self.expected and not _within(value, self.expected, self.known):
            return False
        if not self.sisters:
            return True
        middle = statistics.median(self.sisters)
        if self.known != "closely":
            return _within(value, middle, self.known)
        mad = statistics.median(abs(s - middle) for s in self.sisters)
        return abs(value - middle) <= max(ROBUST * mad, APART * abs(middle))

    def aim(self) -> float | None:
        """What a slip is nearest to: the median of the sisters, else what is expected."""
        return statistics.median(self.sisters) if self.sisters else self.expected


def _within(value: float, of: float, known: str) -> bool:
    low, high = sorted(share * of for share in WINDOWS[known])
    return round9(low) <= round9(value) <= round9(high)


@calculation("What a typed figure may have been meant as")
def slip_check(i: SlipCheck) -> Slip:
    """A figure is plausible in its tool's range and travel, near what is expected and among its
    sisters; else it is asked, and each slip tried.

    Notes
    -----
    Known closely, a figure lies among its sisters when |x − median| ≤ max(6·1.4826·MAD,
    0.002·median); else within the window of `known`
    about their median. A bare figure with more decimals than half the resolution needs is asked
    too.

    Raises
    ------
    Refused
        The parser's codes; `dimension_mismatch`; `bad_number` for a range or several figures.

    Example
    -------
    >>> found = slip_check(SlipCheck.model_validate({"typed": "12.7", "unit": "mm"}))
    >>> round(found.read_as.value, 4), found.read_as.unit
    (12.7, 'mm')
    """
    unit = find_unit(i.unit)
    if unit is None:
        raise Refused("unknown_unit", f"'{i.unit}' is no unit that Hollet knows", field="unit")
    dimension = unit.dimension
    parsed = parse(i.typed, dimension, unit.name)
    if parsed.kind != "single" or parsed.nominal is None:
        raise Refused(
            "bad_number", f"'{i.typed}': type one figure, such as 0.09 {unit.name}", field="typed"
        )
    known = _facts(i, dimension)
    figure = float(parsed.nominal)
    bare = _bare(i.typed)
    ask = not known.plausible(figure) or (
        bare is not None
        and i.resolution is not None
        and _too_fine(bare, i.resolution, unit.name, dimension)
    )
    read_as = in_unit(round9(known.absolute(figure)), CANONICAL[dimension])
    if not ask:
        return Slip(ask=False, read_as=read_as)
    found = [
        (name, known.absolute(value))
        for name, value in _tries(i.typed, bare, unit.name, dimension, figure)
        if known.plausible(value)
    ]
    aim = known.aim()
    if aim is not None:
        found.sort(key=lambda pair: (round9(abs(pair[1] - aim)), ORDER.index(pair[0])))
    if not found:
        return Slip(ask=True, read_as=read_as)
    return Slip(
        ask=True,
        read_as=read_as,
        slip=found[0][0],
        meant=in_unit(found[0][1], CANONICAL[dimension]),
        slips=tuple(dict.fromkeys(name for name, _ in found)),
    )


def _facts(i: SlipCheck, dimension: str) -> _Known:
    def figure(quantity: Quantity | None, field: str) -> float | None:
        return None if quantity is None else float(exact(quantity, dimension, field))

    span = None
    if i.tool_range:
        if len(i.tool_range) != 2:
            raise Refused(
                "bad_option", "'tool_range' must be the lower and the upper end", field="tool_range"
            )
        low, high = (float(exact(q, dimension, "tool_range")) for q in i.tool_range)
        span = (round9(low), round9(high))
    return _Known(
        dimension,
        figure(i.expected, "expected"),
        i.known or "roughly",
        span,
        figure(i.setting, "setting"),
        figure(i.travel, "travel"),
        tuple(float(exact(q, dimension, "sisters")) for q in i.sisters or ()),
    )


def _bare(typed: str) -> str | None:
    """The number as typed where no unit was, else None."""
    text = typed.strip().replace("\u2212", "-")
    return (
        text
        if all(c.isdigit() or c in "+-.," for c in text) and any(c.isdigit() for c in text)
        else None
    )


def _too_fine(bare: str, resolution: Quantity, unit: str, dimension: str) -> bool:
    """Whether a bare figure has more decimals than half the resolution needs in the unit of the
    field; trailing zeros count.
    """
    typed = len(bare.replace(",", ".").partition(".")[2])
    found = find_unit(unit)
    assert found is not None
    half = from_canonical(exact(resolution, dimension, "resolution"), found) / 2
    return half > 0 and typed > _places(half)


def _places(step: Fraction) -> int:
    """Decimals that a step needs: exactly, where it is a finite decimal of at most six places, else
    to one significant figure.
    """
    for places in range(7):
        if (step * 10**places).denominator == 1:
            return places
    places = 0
    while step * 10**places < 1:
        places += 1
    return places


def _tries(
    typed: str, bare: str | None, unit: str, dimension: str, figure: float
) -> list[tuple[str, float]]:
    """Each slip with the figure that it would mean, in the canonical unit, in the order of the
    list.
    """
    found: list[tuple[str, float]] = []
    if bare is not None:
        for name, other in OTHER_UNIT.get(unit, ()):
            meant = parse(bare, dimension, other).nominal
            found += [(name, float(meant))] if meant is not None else []
    found += [
        ("lost_sign", -figure),
        ("decimal_place", figure * 10),
        ("decimal_place", figure / 10),
    ]
    for text in _swaps(typed):
        meant = parse(text, dimension, unit).nominal
        found += [("swapped_digits", float(meant))] if meant is not None else []
    return sorted(found, key=lambda pair: ORDER.index(pair[0]))


def _swaps(typed: str) -> Sequence[str]:
    """The text with two neighbouring digits of its number swapped; a decimal point between them
    stays where it is.
    """
    at = [k for k, c in enumerate(typed) if c.isdigit()]
    found = []
    for a, b in itertools.pairwise(at):
        if b - a <= 2 and typed[a] != typed[b] and all(c in ".," for c in typed[a + 1 : b]):
            found.append(typed[:a] + typed[b] + typed[a + 1 : b] + typed[a] + typed[b + 1 :])
    return found


def question(i: SlipCheck, found: Slip) -> str:
    """What to ask, in words: the figure as read, and what it may have been; nothing finer than the
    tool shows.
    """
    unit = find_unit(i.unit)
    assert unit is not None
    bare = _bare(i.typed)
    shown = i.typed.strip() if bare is None else f"{i.typed.strip()} {unit.name}"
    known = _facts(i, unit.dimension)
    parsed = parse(i.typed, unit.dimension, unit.name).nominal
    least = (
        float(exact(i.resolution, unit.dimension, "resolution"))
        if i.resolution is not None
        else 0.0
    )
    tries = [
        (name, figure)
        for name, figure in _tries(i.typed, bare, unit.name, unit.dimension, float(parsed or 0))
        if name in found.slips and known.plausible(figure)
    ]
    tries.sort(
        key=lambda pair: (
            round9(abs(pair[1])) < round9(least),
            ORDER.index(pair[0]) if i.setting is not None else found.slips.index(pair[0]),
        )
    )
    if not tries:
        return f"{shown}? {_expected(i)}Is it right?"
    name, figure = tries[0]
    return (
        f"{shown}, or {decimal_text(_short(from_canonical(Fraction(figure), unit)))} "
        f"{unit.name}, {SLIP_WORDS[name]}? {_expected(i)}"
    ).strip()


def _short(value: Fraction) -> Fraction:
    """Four significant figures, for the eye."""
    return Fraction(f"{float(value):.6g}")


def _expected(i: SlipCheck) -> str:
    if i.expected is None or i.setting is not None:
        return ""
    return (
        f"Expected is about {decimal_text(_short(Fraction(str(i.expected.value))))} "
        f"{i.expected.unit}. "
    )


def slip_input(
    text: str,
    unit: str,
    tool: Instrument,
    expected: Quantity | None,
    known: str,
    sisters: Sequence[float] = (),
) -> SlipCheck:
    """What a figure typed for a tool is compared with, as the slip check takes it."""
    canonical = CANONICAL[tool.dimension]
    span = [_edge(tool, tool.lo, 0.0), _edge(tool, tool.hi, 1e9)] if tool.lo or tool.hi else None
    travel = tool.half_travel()
    return SlipCheck.model_validate(
        {
            "typed": text,
            "unit": unit,
            "expected": expected,
            "known": known,
            "tool_range": span,
            "resolution": _edge(tool, tool.resolution, 0.0, difference=True),
            "setting": _edge(tool, tool.setting, 0.0) if tool.setting else None,
            "travel": Quantity(value=travel, unit=canonical)
            if travel is not None and tool.setting
            else None,
            "sisters": [Quantity(value=s, unit=canonical) for s in sisters] or None,
        }
    )


def _edge(
    tool: Instrument, text: str | None, otherwise: float, *, difference: bool = False
) -> Quantity:
    if text is None:
        return Quantity(value=otherwise, unit=CANONICAL[tool.dimension])
    if difference:
        return Quantity(value=tool.figure("resolution"), unit=CANONICAL[tool.dimension])
    nominal = parse(text, tool.dimension, tool.unit).nominal
    return Quantity(value=float(nominal or 0), unit=CANONICAL[tool.dimension])
