"""Shims: the stack out of a kit that brings a gap where it shall be, and the stroke that a release
bearing then needs.

Dimension chain; exact enumeration in whole tenths of a micrometre: no tie is one of rounding.
"""

from bisect import bisect_left
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import combinations_with_replacement
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.errors import Refused
from hollet.core.fields import Length
from hollet.core.quantities.quantity import Quantities, Quantity, canonical, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["BearingStroke", "ChooseShims", "ShimOf", "bearing_stroke", "choose_shims"]

QUANTA = 10_000
"""Tenths of a micrometre in a millimetre."""
NEAREST = 6
"""So many different sums are looked at on each side of the aim, for each half of a stack."""
Aim = Literal["mid", "min", "max", "fewest"]
Stack = tuple[int, ...]


class ShimOf(BaseModel):
    """A thickness in the drawer, and how many of it."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    thickness: Quantity
    count: int


class ChooseShims(Input):
    """The gap without shims, the window it shall come into, the kit in the drawer, how many may lie
    on each other, at what is aimed; the uncertainty U of the gap shrinks the window at both ends.
    """

    gap: Length = None
    min_gap: Length = None
    max_gap: Length = None
    kit: Annotated[tuple[ShimOf, ...], Field(json_schema_extra={"rows": True})] = ()
    max_stack: int = 4
    aim: Aim = "mid"
    U: Length = Quantity(value=0, unit="mm")


class ChooseShimsResult(Result):
    """The gap that comes out, the shims, thinnest first; other sums that come inside, and the one
    more shim of the kit with which it falls out again.
    """

    final_gap: Quantity
    count: Quantity
    shims: Quantities
    others: tuple[str, ...] = ()
    one_more: str = ""


@calculation("Shims out of a kit")
def choose_shims(i: ChooseShims) -> ChooseShimsResult:
    """final = gap - sum of shims, with min + U <= final <= max - U. Aimed at mid, min or max:
    nearest to it, then fewest, then the larger gap; aimed at fewest: fewest, then nearest to mid.

    Raises
    ------
    Refused
        `bad_kit` (empty, a thickness or count that is none), `limits_reversed`, `window_empty` (U
        leaves nothing of it), `gap_too_small` (no shim makes a gap larger), `no_combination` (with
        the sum that would have to be bought).

    Example
    -------
    >>> mm = lambda v: {"value": v, "unit": "mm"}
    >>> found = choose_shims(ChooseShims(gap=mm(8.2), min_gap=mm(2.5), max_gap=mm(5), max_stack=3,
    ...     kit=[{"thickness": mm(0.8), "count": 3}, {"thickness": mm(1.6), "count": 2}]))
    >>> found.final_gap.value, found.shims.value
    (4.2, [0.8, 1.6, 1.6])
    """
    gap, lo, hi = (_quanta(i, name) for name in ("gap", "min_gap", "max_gap"))
    spread = _quanta(i, "U")
    if lo > hi:
        raise Refused("limits_reversed", "'min_gap' is larger than 'max_gap'", field="min_gap")
    if lo + spread > hi - spread:
        words = "the uncertainty leaves nothing of the window: measure the gap better"
        raise Refused("window_empty", words, field="U")
    if i.max_stack < 0:
        raise Refused("bad_kit", "'max_stack' must be zero or more", field="max_stack")
    kit = _kit(i.kit)
    low, high = lo + spread, hi - spread
    if gap < low:
        words = (
            "the gap is below its least without any shim: wrong part, bearing not pushed fully "
            "back, or a measuring fault"
        )
        raise Refused("gap_too_small", words, field="gap")
    found = _ranked(kit, i.max_stack, gap, low, high, i.aim)
    if not found:
        least, most = max(0, gap - high), gap - low
        words = (
            f"no stack of this kit brings the gap inside: together {least / QUANTA:.3f} to "
            f"{most / QUANTA:.3f} mm would"
        )
        raise Refused("no_combination", words, field="kit")
    best = found[0]
    unit = i.gap.unit if i.gap is not None else "mm"
    final = gap - sum(best)
    less = f", {spread / QUANTA:g} off each end for the uncertainty" if spread else ""
    return ChooseShimsResult(
        final_gap=in_unit(final / QUANTA, unit),
        count=Quantity(value=len(best), unit="pieces"),
        shims=Quantities(value=[in_unit(t / QUANTA, unit).value for t in best], unit=unit),
        others=tuple(_said(stack, gap) for stack in found[1:6]),
        one_more=_one_more(kit, best, gap, low),
        working=(
            f"gap {gap / QUANTA:g} − {' − '.join(f'{t / QUANTA:g}' for t in best) or '0'} = "
            f"{final / QUANTA:g} mm",
            f"inside {low / QUANTA:g} to {high / QUANTA:g} mm{less}",
        ),
    )


def _quanta(i: ChooseShims, name: str) -> int:
    return round(i.figure(name) * QUANTA)


def _kit(kit: Sequence[ShimOf]) -> Counter[int]:
    """Pieces by thickness."""
    found: Counter[int] = Counter()
    for shim in kit:
        thickness = round(canonical(shim.thickness, "length", "kit") * QUANTA)
        if thickness <= 0 or shim.count < 0:
            words = "each shim of the kit has a thickness above zero, and is there so many times"
            raise Refused("bad_kit", words, field="kit")
        found[thickness] += shim.count
    if not kit:
        raise Refused("bad_kit", "the kit is empty: write what lies in the drawer", field="kit")
    return +found


def _stacks(kit: Counter[int], most: int) -> list[Stack]:
    """Every stack of at most so many pieces that the kit has, by its sum."""
    found = [
        stack
        for pieces in range(most + 1)
        for stack in combinations_with_replacement(sorted(kit), pieces)
        if all(stack.count(t) <= kit[t] for t in set(stack))
    ]
    return sorted(found, key=sum)


def _ranked(kit: Counter[int], most: int, gap: int, low: int, high: int, aim: Aim) -> list[Stack]:
    """Stacks that come inside, the best first, one a sum: halves of a stack are put together round
    the aim, so that large kits stay quick.
    """
    if aim == "fewest":
        mid = (low + high) / 2
        for pieces in range(most + 1):
            found = _near(kit, pieces, gap, low, high, mid)
            if found:
                return found
        return []
    target = {"mid": (low + high) / 2, "min": low, "max": high}[aim]
    return _near(kit, most, gap, low, high, target)


def _near(
    kit: Counter[int], most: int, gap: int, low: int, high: int, target: float
) -> list[Stack]:
    """At most so many pieces: nearest to the target, then fewest, then the larger gap."""
    half = most // 2
    left, right = _stacks(kit, most - half), _stacks(kit, half)
    sums = [sum(stack) for stack in right]
    best: dict[int, Stack] = {}
    for own in left:
        for other in _around(right, sums, gap - target - sum(own), gap - low, gap - high, sum(own)):
            stack = tuple(sorted((*own, *other)))
            if any(stack.count(t) > kit[t] for t in set(stack)):
                continue
            total = sum(stack)
            if total not in best or len(stack) < len(best[total]):
                best[total] = stack
    return sorted(best.values(), key=lambda s: (abs(gap - sum(s) - target), len(s), sum(s)))


def _around(
    right: Sequence[Stack], sums: Sequence[int], wanted: float, most: int, least: int, own: int
) -> Iterator[Stack]:
    """Halves that bring the sum next to what is wanted, from there outward; not out of the
    window.
    """
    at = bisect_left(sums, wanted)
    for direction in (range(at, len(sums)), range(at - 1, -1, -1)):
        seen: set[int] = set()
        for k in direction:
            if not least <= own + sums[k] <= most:
                break
            seen.add(sums[k])
            if len(seen) > NEAREST:
                break
            yield right[k]


def _said(stack: Stack, gap: int) -> str:
    shims = " + ".join(f"{t / QUANTA:g}" for t in stack) or "none"
    return f"{shims}: {(gap - sum(stack)) / QUANTA:g} mm"


def _one_more(kit: Counter[int], stack: Stack, gap: int, low: int) -> str:
    """The thinnest shim left in the kit with which the gap would fall out of the window."""
    left = kit - Counter(stack)
    for thickness in sorted(left):
        final = gap - sum(stack) - thickness
        if final < low:
            shim = f"{thickness / QUANTA:g} mm"
            return f"one more of {shim} leaves {final / QUANTA:g}: not inside any more"
    return ""


class BearingStroke(Input):
    """The gap that is left, the travel that releases the clutch, the stroke of the actuator."""

    final_gap: Length = None
    release_travel: Length = None
    actuator_stroke: Length = None


class BearingStrokeResult(Result):
    """The stroke that is needed, what is left of it, and whether it is enough."""

    needed: Quantity
    reserve: Quantity
    ok: bool


@calculation("Stroke of a release bearing")
def bearing_stroke(i: BearingStroke) -> BearingStrokeResult:
    """needed = gap + release travel; reserve = stroke - needed. Refuses `not_positive`, and
    `negative_gap` for a bearing that already presses.

    Example
    -------
    >>> mm = lambda v: Quantity(value=v, unit="mm")
    >>> found = bearing_stroke(BearingStroke(final_gap=mm(3.4), release_travel=mm(9),
    ...     actuator_stroke=mm(15)))
    >>> round(found.needed.value, 6), round(found.reserve.value, 6), found.ok
    (12.4, 2.6, True)
    """
    gap = i.figure("final_gap")
    if gap < 0:
        words = "the bearing already presses on the fingers: there is no gap to travel"
        raise Refused("negative_gap", words, field="final_gap")
    travel, stroke = i.positive("release_travel"), i.positive("actuator_stroke")
    needed = gap + travel
    unit = i.final_gap.unit if i.final_gap is not None else "mm"
    return BearingStrokeResult(
        needed=in_unit(needed, unit),
        reserve=in_unit(stroke - needed, unit),
        ok=stroke - needed >= -1e-9,
        working=(
            f"{gap:g} + {travel:g} = {needed:g} mm",
            f"{stroke:g} − {needed:g} = {stroke - needed:g} mm left",
        ),
    )
