"""Fluids: filling by the marks. Volumes in mL.

Volume balance.
"""

from hollet.core.errors import Refused
from hollet.core.fields import Length, Ratio, Volume
from hollet.core.quantities.quantity import Quantity, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "first_fill",
    "top_up",
    "unit_of",
]


def unit_of(quantity: Quantity | None, usual: str) -> str:
    """The unit in which an answer is given: that of the figure, else the usual one."""
    return quantity.unit if quantity else usual


class TopUp(Input):
    """Level and target on a dipstick, its marks, and what goes between them."""

    level: Length = None
    target: Length = None
    min_mark: Length = None
    max_mark: Length = None
    volume_between_marks: Volume = None


class TopUpResult(Result):
    """What to add, and whether the level was below the lower mark."""

    add: Quantity
    below_min: bool


@calculation("Top up by the dipstick")
def top_up(i: TopUp) -> TopUpResult:
    """add = (target - level) / (max - min) x volume between the marks; linear between them.

    Raises
    ------
    Refused
        `limits_reversed`; `overfull` when the level stands above the target or the target above the
        upper mark.

    Example
    -------
    >>> given = {
    ...     "level": {"value": 5, "unit": "mm"},
    ...     "target": {"value": 15, "unit": "mm"},
    ...     "min_mark": {"value": 0, "unit": "mm"},
    ...     "max_mark": {"value": 20, "unit": "mm"},
    ...     "volume_between_marks": {"value": 1, "unit": "L"},
    ... }
    >>> found = top_up(TopUp.model_validate(given))
    >>> round(found.add.value, 4), found.add.unit
    (0.5, 'L')
    """
    level, target, low, high = (
        i.figure(name) for name in ("level", "target", "min_mark", "max_mark")
    )
    between = i.positive("volume_between_marks")
    if low >= high:
        raise Refused("limits_reversed", "'min_mark' must lie below 'max_mark'", field="min_mark")
    if level > target or target > high:
        raise Refused(
            "overfull",
            "the level stands above the target, or the target above the upper mark: drain, do "
            "not add",
            field="level" if level > target else "target",
        )
    add = (target - level) / (high - low) * between
    return TopUpResult(
        add=in_unit(add, unit_of(i.volume_between_marks, "mL")),
        below_min=level < low,
        working=(f"({target:g} − {level:g}) ÷ ({high:g} − {low:g}) × {between:g} = {add:.1f} mL",),
    )


class FirstFill(Input):
    """What the dry unit takes, what stayed inside, and how much of the rest is poured at first (0.9
    usual).
    """

    dry_capacity: Volume = None
    left_inside: Volume = None
    first_fraction: Ratio = Quantity(value=0.9, unit="1")


class FirstFillResult(Result):
    """The refill, the first pour, and what is left for filling up by level."""

    refill: Quantity
    first_pour: Quantity
    rest: Quantity


@calculation("First fill")
def first_fill(i: FirstFill) -> FirstFillResult:
    """refill = dry capacity - what stayed inside; pour 90 %, run or wait, then by level.

    Raises
    ------
    Refused
        `overfull` when more stayed inside than it takes; `ratio_not_positive` for a share that is
        not above 0 and at most 1.

    Example
    -------
    >>> given = {
    ...     "dry_capacity": {"value": 4.8, "unit": "L"},
    ...     "left_inside": {"value": 0.35, "unit": "L"},
    ...     "first_fraction": {"value": 0.9, "unit": "1"},
    ... }
    >>> found = first_fill(FirstFill.model_validate(given))
    >>> round(found.refill.value, 4), found.refill.unit
    (4.45, 'L')
    """
    dry, inside, share = (
        i.positive("dry_capacity"),
        i.figure("left_inside"),
        i.figure("first_fraction"),
    )
    if not 0 <= inside <= dry:
        raise Refused(
            "overfull",
            "'left_inside' must lie between nothing and the dry capacity",
            field="left_inside",
        )
    if not 0 < share <= 1:
        raise Refused(
            "ratio_not_positive",
            "'first_fraction' must be above 0 and at most 1",
            field="first_fraction",
        )
    refill, unit = dry - inside, unit_of(i.dry_capacity, "mL")
    return FirstFillResult(
        refill=in_unit(refill, unit),
        first_pour=in_unit(share * refill, unit),
        rest=in_unit(refill - share * refill, unit),
        working=(
            (
                f"{dry:g} − {inside:g} = {refill:g} mL, of it first {share:g} × {refill:g} = "
                f"{share * refill:.0f} mL"
            ),
        ),
    )
