"""Two things as typed, laid side by side: whether they read the same, and how far apart."""

from fractions import Fraction

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text
from hollet.core.quantities.units import CANONICAL

__all__ = ["alike", "apart_within", "laid_words", "lengths_of"]


def laid_words(old: str, new: str, same: bool, why: str | None, unit: str | None = None) -> str:
    """Both as typed, how far apart they are where both are figures, and what was said of it."""
    apart = _apart(old, new, unit)
    said = "same" if same else "differs"
    return (
        f"old {old}, new {new}: "
        f"{said}{f', {apart}' if apart else ''}{f'; it will do: {why}' if why else ''}"
    )


def alike(old: str, new: str, unit: str | None = None) -> bool:
    """Whether both read the same: equal figures, in whatever unit, or equal words. Bare figures
    have the `unit`.
    """
    by = _difference(old, new, unit)
    return by[0] == 0 if by else old.casefold().split() == new.casefold().split()


def apart_within(old: str, new: str, within: str, unit: str | None, field: str) -> bool:
    """Whether two figures differ by no more than `within`.

    Raises
    ------
    Refused
        `bad_number`: the two are no figures of one kind, or `within` is none of that kind.
    """
    by = _difference(old, new, unit)
    if by is None:
        words = f"'{old}' and '{new}' are no two figures of one kind: no '{within}' between them"
        raise Refused("bad_number", words, field=field)
    allowed = parse(within, by[1], unit).nominal
    if allowed is None or allowed < 0:
        words = f"'{within}': how far they may differ is one figure, zero or more"
        raise Refused("bad_number", words, field=field)
    return abs(by[0]) <= allowed


def lengths_of(old: str, new: str, unit: str | None) -> tuple[float, float] | None:
    """Both in mm, where both are lengths above zero; for a drawing of one beside the other."""
    found = []
    for text in (old, new):
        try:
            nominal = parse(text, "length", unit or "mm").nominal
        except Refused:
            return None
        if nominal is None or nominal <= 0:
            return None
        found.append(float(nominal))
    return found[0], found[1]


def _apart(old: str, new: str, unit: str | None = None) -> str | None:
    """The new figure less the old in words; None where they are equal or no figures of one kind."""
    by = _difference(old, new, unit)
    if not by or not by[0]:
        return None
    more = "more" if by[0] > 0 else "less"
    return f"{decimal_text(abs(by[0]))} {CANONICAL[by[1]]} {more}"


def _difference(old: str, new: str, unit: str | None = None) -> tuple[Fraction, str] | None:
    """The new figure less the old in the canonical unit, and the dimension; None where the two are
    no figures of one kind.
    """
    try:
        was = parse(old, "length", unit) if unit else parse(old)
        typed = was.shown.name if was.shown else None
        now = parse(new, was.dimension, typed)  # "2 in" and "2": the unit holds for both
    except Refused:  # words such as "one lip": nothing to reckon
        return None
    if was.nominal is None or now.nominal is None or was.dimension is None:
        return None
    return (now.nominal - was.nominal, was.dimension) if was.dimension == now.dimension else None
