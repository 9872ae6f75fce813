"""Orders of tightening: circles, cylinder heads, and the check of an order given by the
user.

Rules: equal bolts load the joint evenly when each next bolt balances the last ones; heads go from
the centre out so
that the gasket spreads outwards. The maker's own order always wins. Moment after k bolts is |sum of
(p_i - centroid)|.
"""

import itertools
import math
from collections.abc import Sequence

from hollet.core.errors import Refused
from hollet.core.fields import Length
from hollet.core.quantities.quantity import Quantities, Quantity, canonicals, round9
from hollet.core.registry import Counted, Input, Result, calculation

__all__ = [
    "Point",
    "check_sequence",
    "circle_order",
    "circle_sequence",
    "head_order",
    "head_sequence",
    "head_spiral",
    "loosening_sequence",
    "moments",
    "pattern_measure",
]

Point = tuple[float, float]
RADIUS = "bolt load x radius"
LOAD_MM = "bolt load x mm"


def circle_order(n: int) -> list[int]:
    """Order of n >= 3 bolts numbered clockwise from 1: odd n steps (n - 1)/2, even n opposite
    pairs, far axes first.

    Raises
    ------
    Refused
        `too_few_bolts`.

    Examples
    --------
    >>> circle_order(5), circle_order(6)
    ([1, 3, 5, 2, 4], [1, 4, 2, 5, 3, 6])
    """
    if n < 3:
        raise Refused("too_few_bolts", "a circle needs three bolts or more", field="n")
    if n % 2:
        return [1 + k * (n - 1) // 2 % n for k in range(n)]
    half = n // 2
    used = [0]

    def apart(a: int, b: int) -> int:
        return min((a - b) % half, (b - a) % half)

    while len(used) < half:
        free = (axis for axis in range(half) if axis not in used)
        used.append(
            min(free, key=lambda a: (-min(apart(a, u) for u in used), -apart(a, used[-1]), a))
        )
    return [bolt for axis in used for bolt in (axis + 1, axis + 1 + half)]


def head_order(columns: int, *, spiral: bool = False) -> list[str]:
    """Order of a head with rows A and B and `columns` >= 2 columns, middle first, then ring by
    ring.

    Examples
    --------
    >>> head_order(3)
    ['A2', 'B2', 'A1', 'B3', 'A3', 'B1']
    """
    if columns < 2:
        raise Refused("too_few_bolts", "a head needs two columns of bolts or more", field="columns")
    order: list[str] = []
    left, right = (columns + 1) // 2, columns // 2 + 1
    if left == right:
        order += [f"A{left}", f"B{left}"]
        left, right = left - 1, right + 1
    while left >= 1:
        ring = (f"A{left}", f"B{right}", f"A{right}", f"B{left}")
        order += (ring[0], ring[2], ring[1], ring[3]) if spiral else ring
        left, right = left - 1, right + 1
    return order


def moments(points: Sequence[Point]) -> list[float]:
    """|sum of (p_i - centroid)| after each bolt, for points in the order of tightening."""
    cx = math.fsum(x for x, _ in points) / len(points)
    cy = math.fsum(y for _, y in points) / len(points)
    sum_x = sum_y = 0.0
    found = []
    for x, y in points:
        sum_x, sum_y = sum_x + x - cx, sum_y + y - cy
        found.append(math.hypot(sum_x, sum_y))
    return found


def circle_point(bolt: int, n: int, radius: float = 1.0) -> Point:
    """Place of bolt 1..n on a circle, clockwise from the top."""
    angle = 2 * math.pi * (bolt - 1) / n
    return radius * math.sin(angle), radius * math.cos(angle)


def head_point(bolt: str, columns: int, pitch: float, rows: float) -> Point:
    """Place of `A3` or `B1` about the middle of the head; row A is on top."""
    return (int(bolt[1:]) - (columns + 1) / 2) * pitch, rows / 2 if bolt[0] == "A" else -rows / 2


class Circle(Input):
    """A number of bolts on a circle."""

    n: int


class SequenceResult(Result):
    """An order with its largest moment, at any bolt and after whole pairs."""

    sequence: Counted | tuple[str, ...]
    max_moment: Quantity
    max_moment_after_pairs: Quantity


def _pairs(found: list[float]) -> float:
    return max(found[1::2], default=0.0)


@calculation("Star order of a bolt circle")
def circle_sequence(i: Circle) -> SequenceResult:
    """The star order with its moments in bolt load times radius.

    Example
    -------
    >>> found = circle_sequence(Circle.model_validate({"n": 4}))
    >>> round(found.max_moment.value, 4), found.max_moment.unit
    (1.0, 'bolt load x radius')
    """
    order = circle_order(i.n)
    found = moments([circle_point(bolt, i.n) for bolt in order])
    return SequenceResult(
        sequence=Counted(value=tuple(order), unit="position"),
        max_moment=Quantity(value=max(found), unit=RADIUS),
        max_moment_after_pairs=Quantity(value=round9(_pairs(found)), unit=RADIUS),
    )


class Head(Input):
    """A head of two rows."""

    columns: int
    column_pitch: Length = None
    row_distance: Length = None


class HeadResult(SequenceResult):
    """The order, and the numbers at their places."""

    order_numbers_row_A: Counted
    order_numbers_row_B: Counted


def _head(i: Head, *, spiral: bool) -> HeadResult:
    order = head_order(i.columns, spiral=spiral)
    pitch = i.figure("column_pitch")
    rows = i.figure("row_distance")
    if pitch <= 0 or rows <= 0:
        raise Refused(
            "length_not_positive",
            "column pitch and row distance must be above zero",
            field="column_pitch",
        )
    found = moments([head_point(bolt, i.columns, pitch, rows) for bolt in order])

    def numbers(row: str) -> Counted:
        places = (order.index(f"{row}{column}") + 1 for column in range(1, i.columns + 1))
        return Counted(value=tuple(places), unit="order")

    return HeadResult(
        sequence=tuple(order),
        order_numbers_row_A=numbers("A"),
        order_numbers_row_B=numbers("B"),
        max_moment=Quantity(value=max(found), unit=LOAD_MM),
        max_moment_after_pairs=Quantity(value=round9(_pairs(found)), unit=LOAD_MM),
    )


@calculation("Head bolts from the centre out, crosswise")
def head_sequence(i: Head) -> HeadResult:
    """Middle column A then B, then each ring A-left, B-right, A-right, B-left.

    Example
    -------
    >>> given = {
    ...     "columns": 4,
    ...     "column_pitch": {"value": 100, "unit": "mm"},
    ...     "row_distance": {"value": 90, "unit": "mm"},
    ... }
    >>> found = head_sequence(Head.model_validate(given))
    >>> round(found.max_moment.value, 4), found.max_moment.unit
    (156.6046, 'bolt load x mm')
    """
    return _head(i, spiral=False)


@calculation("Head bolts in a spiral")
def head_spiral(i: Head) -> HeadResult:
    """Middle column A then B, then each ring clockwise from its upper left bolt.

    Example
    -------
    >>> given = {
    ...     "columns": 5,
    ...     "column_pitch": {"value": 100, "unit": "mm"},
    ...     "row_distance": {"value": 90, "unit": "mm"},
    ... }
    >>> found = head_spiral(Head.model_validate(given))
    >>> round(found.max_moment.value, 4), found.max_moment.unit
    (205.0, 'bolt load x mm')
    """
    return _head(i, spiral=True)


class Loosening(Input):
    """A head of two rows with this many columns."""

    columns: int


class LooseningResult(Result):
    """An order."""

    sequence: tuple[str, ...]


@calculation("Order of loosening a head")
def loosening_sequence(i: Loosening) -> LooseningResult:
    """The reverse of tightening: from the ends to the middle.

    Example
    -------
    >>> found = loosening_sequence(Loosening.model_validate({"columns": 5}))
    >>> found.sequence
    ('B1', 'A5', 'B5', 'A1', 'B2', 'A4', 'B4', 'A2', 'B3', 'A3')
    """
    return LooseningResult(sequence=tuple(reversed(head_order(i.columns))))


class Ordered(Input):
    """Places of all bolts and an order of their names."""

    layout: dict[str, Quantities]
    sequence: list[str | int]

    def points(self) -> list[Point]:
        """Places in the order given; refuses `bolt_repeated`, `bolt_missing`, `too_few_bolts`,
        `bolt_unknown`.
        """
        names = [str(bolt) for bolt in self.sequence]
        if len(self.layout) < 2:
            raise Refused("too_few_bolts", "a pattern needs two bolts or more", field="layout")
        check_permutation(names, list(self.layout))
        places = {
            name: canonicals(q, "length", f"layout.{name}") for name, q in self.layout.items()
        }
        if any(len(place) != 2 for place in places.values()):
            raise Refused("not_a_finite_number", "each bolt needs two coordinates", field="layout")
        return [(places[name][0], places[name][1]) for name in names]


def check_permutation(order: Sequence[str], bolts: Sequence[str]) -> None:
    """Refuse an order in which a bolt is unknown, occurs twice or is missing."""
    for bolt in order:
        if bolt not in bolts:
            raise Refused(
                "bolt_unknown", f"bolt {bolt} of the order is not in the layout", field="sequence"
            )
        if order.count(bolt) > 1:
            raise Refused(
                "bolt_repeated", f"bolt {bolt} occurs twice in the order", field="sequence"
            )
    missing = [bolt for bolt in bolts if bolt not in order]
    if missing:
        raise Refused(
            "bolt_missing", f"bolt {missing[0]} is missing in the order", field="sequence"
        )


class PatternMeasureResult(Result):
    """How far the load wanders off the middle."""

    max_moment: Quantity
    max_moment_after_pairs: Quantity
    mean_centroid_excursion: Quantity


@calculation("How even an order is")
def pattern_measure(i: Ordered) -> PatternMeasureResult:
    """Equal load on each tightened bolt: largest moment, largest after pairs, mean of moment over
    count.

    Example
    -------
    >>> at = {"1": {"value": [-10, 0], "unit": "mm"}, "2": {"value": [10, 0], "unit": "mm"}}
    >>> found = pattern_measure(Ordered.model_validate({"layout": at, "sequence": ["1", "2"]}))
    >>> found.max_moment.value, found.max_moment_after_pairs.value
    (10.0, 0.0)
    """
    found = moments(i.points())
    mean = math.fsum(m / k for k, m in enumerate(found, start=1)) / len(found)
    return PatternMeasureResult(
        max_moment=Quantity(value=max(found), unit=LOAD_MM),
        max_moment_after_pairs=Quantity(value=round9(_pairs(found)), unit=LOAD_MM),
        mean_centroid_excursion=Quantity(value=mean, unit="mm"),
    )


class CheckSequence(Ordered):
    """An order to check; heads must go from the centre out."""

    centre_out_required: bool = False


class CheckSequenceResult(Result):
    """`ok`, `advice` or `wrong`, with the evidence."""

    centre_out: bool
    max_moment: Quantity
    balanced: bool
    verdict: str


@calculation("Check an order of tightening")
def check_sequence(i: CheckSequence) -> CheckSequenceResult:
    """Heads: wrong if not centre-out, advice if only unbalanced. Others: wrong if unbalanced.

    Example
    -------
    >>> given = {
    ...     "layout": {
    ...         "1": {"value": [0, 60], "unit": "mm"},
    ...         "2": {"value": [51.96152423, 30], "unit": "mm"},
    ...         "3": {"value": [51.96152423, -30], "unit": "mm"},
    ...         "4": {"value": [0, -60], "unit": "mm"},
    ...         "5": {"value": [-51.96152423, -30], "unit": "mm"},
    ...         "6": {"value": [-51.96152423, 30], "unit": "mm"},
    ...     },
    ...     "sequence": ["1", "2", "3", "4", "5", "6"],
    ...     "centre_out_required": False,
    ... }
    >>> found = check_sequence(CheckSequence.model_validate(given))
    >>> round(found.max_moment.value, 4), found.max_moment.unit
    (120.0, 'bolt load x mm')
    """
    points = i.points()
    cx, cy = (math.fsum(p[axis] for p in points) / len(points) for axis in (0, 1))
    across = [round(abs(x - cx), 6) for x, _ in points]
    if not i.centre_out_required:
        across = [0.0]
    centre_out = all(a <= b for a, b in itertools.pairwise(across))
    found = max(moments(points))
    balanced = found <= max(math.hypot(x - cx, y - cy) for x, y in points) + 1e-6
    good = "ok" if balanced else "advice" if i.centre_out_required else "wrong"
    verdict = "wrong" if i.centre_out_required and not centre_out else good
    return CheckSequenceResult(
        centre_out=centre_out,
        max_moment=Quantity(value=found, unit=LOAD_MM),
        balanced=balanced,
        verdict=verdict,
    )
