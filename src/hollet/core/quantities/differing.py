"""Two things as typed, laid side by side: whether they read the same, and how far apart."""

from fractions import Fraction

from hollet.core.errors import Refused
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text
from hollet.core.quantities.units import CANONICAL

__all__ = ["alike", "laid_words"]


def laid_words(old: str, new: str, same: bool, why: str | None) -> str:
    """Both as typed, how far apart they are where both are figures, and what was said of it."""
    apart = _apart(old, new)
    said = "same" if same else "differs"
    return (
        f"old {old}, new {new}: "
        f"{said}{f', {apart}' if apart else ''}{f'; it will do: {why}' if why else ''}"
    )


def alike(old: str, new: str) -> bool:
    """Whether both read the same: equal figures, in whatever unit, or equal words."""
    by = _difference(old, new)
    return by[0] == 0 if by else old.casefold().split() == new.casefold().split()


def _apart(old: str, new: str) -> str | None:
    """The new figure less the old in words; None where they are equal or no figures of one kind."""
    by = _difference(old, new)
    if not by or not by[0]:
        return None
    more = "more" if by[0] > 0 else "less"
    return f"{decimal_text(abs(by[0]))} {CANONICAL[by[1]]} {more}"


def _difference(old: str, new: str) -> tuple[Fraction, str] | None:
    """The new figure less the old in the canonical unit, and the dimension; None where the two are
    no figures of one kind.
    """
    try:
        was = parse(old)
        unit = was.shown.name if was.shown else None
        now = parse(new, was.dimension, unit)  # "2 in" and "2": the unit holds for both
    except Refused:  # words such as "one lip": nothing to reckon
        return None
    if was.nominal is None or now.nominal is None or was.dimension is None:
        return None
    return (now.nominal - was.nominal, was.dimension) if was.dimension == now.dimension else None
