"""Shims of valves: one, or all of them changed about. Exact: linear assignment theory, in whole
tenths of a micrometre.
"""

from collections.abc import Sequence
from math import floor
from typing import Annotated, NamedTuple

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths
from hollet.core.fitting.assigning import assigned
from hollet.core.quantities.quantity import Quantities, Quantity, canonical, canonicals, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "Place",
    "Reshuffle",
    "ValveNow",
    "ValveShim",
    "place_shims",
    "reshuffle_shims",
    "valve_shim",
]

QUANTA = 10_000
"""Tenths of a micrometre in a millimetre."""


class ValveShim(Input):
    """The lash and the shim now, the limits of the lash, and the step in which shims are made."""

    lash: Length = None
    old_shim: Length = None
    lower_limit: Length = None
    upper_limit: Length = None
    grid_step: Length = Quantity(value=0.05, unit="mm")


class ValveShimResult(Result):
    """The shim to fit, and the lash that it gives."""

    shim: Quantity
    new_lash: Quantity


@calculation("One valve: its shim")
def valve_shim(i: ValveShim) -> ValveShimResult:
    """new lash = lash + old shim - new shim: the size of the grid nearest to the middle of the
    limits; two as near: the larger lash.

    Raises
    ------
    Refused
        `lash_not_measurable` for none, `limits_reversed`, `not_positive`, `no_size_in_grid`.

    Example
    -------
    >>> mm = lambda v: Quantity(value=v, unit="mm")
    >>> found = valve_shim(ValveShim(lash=mm(0.09), old_shim=mm(2.65), lower_limit=mm(0.16),
    ...     upper_limit=mm(0.24)))
    >>> round(found.shim.value, 3), round(found.new_lash.value, 3)
    (2.55, 0.19)
    """
    lash, old = _lash(i.figure("lash")), round(i.positive("old_shim") * QUANTA)
    lo, hi = _limits(i.figure("lower_limit"), i.figure("upper_limit"))
    step = round(i.positive("grid_step") * QUANTA)
    best = _grid_size(lash + old, lo, hi, step, 1, None)
    if best is None:
        words = f"no size in steps of {step / QUANTA:g} mm brings the lash inside"
        raise Refused("no_size_in_grid", words, field="grid_step")
    unit = i.lash.unit if i.lash is not None else "mm"
    new = lash + old - best
    return ValveShimResult(
        shim=in_unit(best / QUANTA, unit),
        new_lash=in_unit(new / QUANTA, unit),
        working=(
            f"{lash / QUANTA:g} + {old / QUANTA:g} − {best / QUANTA:g} = {new / QUANTA:g} mm",
        ),
    )


def _lash(value: float) -> int:
    """In quanta; none is no measurement."""
    found = round(value * QUANTA)
    if found <= 0:
        words = (
            "no lash is no measurement: the valve may be held open. A thinner shim first, then "
            "measure again"
        )
        raise Refused("lash_not_measurable", words, field="lash")
    return found


def _limits(lower: float, upper: float) -> tuple[int, int]:
    lo, hi = round(lower * QUANTA), round(upper * QUANTA)
    if lo > hi:
        words = "'lower_limit' is larger than 'upper_limit'"
        raise Refused("limits_reversed", words, field="lower_limit")
    return lo, hi


def _grid_size(whole: int, lo: int, hi: int, step: int, first: int, last: int | None) -> int | None:
    """The size (quanta, a multiple of `step` counted from `first`) that brings `whole` less it
    nearest to the middle of its limits; None where none comes inside.
    """
    start = 0 if last is None else first
    wanted = whole - (lo + hi) / 2
    near = floor((wanted - start) / step)
    sizes = [start + (near + k) * step for k in (-1, 0, 1, 2)]
    allowed = [
        size
        for size in sizes
        if size > 0
        and size >= first
        and (last is None or size <= last)
        and lo <= whole - size <= hi
    ]
    return min(allowed, key=lambda size: (abs(size - wanted), size), default=None)


class ValveNow(BaseModel):
    """One valve as it is: lash, shim, and the limits of its lash."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    lash: Quantity
    shim: Quantity
    lower_limit: Quantity
    upper_limit: Quantity


class NewSizes(BaseModel):
    """Sizes that can be bought: from, to, in steps."""

    model_config = ConfigDict(frozen=True, extra="forbid", populate_by_name=True)
    first: Quantity = Field(alias="from")
    to: Quantity
    step: Quantity


class Reshuffle(Input):
    """All valves as they are, spare shims in the drawer, and the sizes that can be bought."""

    valves: Annotated[tuple[ValveNow, ...], Field(json_schema_extra={"rows": True})]
    spare_shims: Lengths = Quantities(value=[], unit="mm")
    new_sizes: Annotated[NewSizes, Field(json_schema_extra={"rows": True})]


class ReshuffleResult(Result):
    """How many were out, how many must be bought (proven fewest), the sum of (lash - mid)²; for
    each valve where its shim comes from, its size and the lash; and the moves as a hand does them.
    """

    out_of_limits_before: Quantity
    new_shims: Quantity
    sum_sq: Quantity
    plan: tuple[str, ...]
    moves: tuple[str, ...]
    buy: Quantities


@calculation("Shims of all valves, changed about")
def reshuffle_shims(i: Reshuffle) -> ReshuffleResult:
    """Each valve gets one shim: one that is in the engine (each once), a spare, or a new one.
    Fewest new ones, then the smallest sum of (lash - mid)², then fewest moves; an assignment
    problem solved exactly.

    Raises
    ------
    Refused
        `lash_not_measurable`, `limits_reversed`, `bad_grid`, `no_size_in_grid` (a valve for which
        neither a shim in hand nor one of the grid comes inside).

    Example
    -------
    >>> mm = lambda v: {"value": v, "unit": "mm"}
    >>> valve = lambda lash, shim: {"lash": mm(lash), "shim": mm(shim), "lower_limit": mm(0.16),
    ...     "upper_limit": mm(0.24)}
    >>> found = reshuffle_shims(Reshuffle.model_validate({"valves": [valve(0.1, 2.6),
    ...     valve(0.3, 2.5)], "new_sizes": {"from": mm(2), "to": mm(3.2), "step": mm(0.05)}}))
    >>> found.new_shims.value, found.plan[0]
    (0.0, '1: from valve 2, 2.5 mm, lash 0.2')
    """
    places = place_shims(i)
    count = len(i.valves)
    squares = sum(place.off for place in places)
    return ReshuffleResult(
        out_of_limits_before=Quantity(value=_out_before(i), unit="valves"),
        new_shims=Quantity(value=sum(p.source == "new" for p in places), unit="pieces"),
        sum_sq=Quantity(value=squares / 4 / QUANTA**2, unit="mm²"),
        plan=tuple(
            f"{k}: {p.source}, {p.size / QUANTA:g} mm, lash {p.lash / QUANTA:g}"
            for k, p in enumerate(places, 1)
        ),
        moves=_moves(
            [p.at for p in places],
            count,
            count + len(canonicals(i.spare_shims, "length", "spare_shims")),
        ),
        buy=Quantities(value=[p.size / QUANTA for p in places if p.source == "new"], unit="mm"),
        working=tuple(
            f"{k}: {p.was / QUANTA:g} + {p.shim / QUANTA:g} − {p.size / QUANTA:g} = "
            f"{p.lash / QUANTA:g} mm"
            for k, p in enumerate(places, 1)
        ),
    )


class Place(NamedTuple):
    """What one valve gets, in quanta: which of all shims (`at`), from where, its size, the lash
    with it; the lash and the shim that it has, and how far off the middle it comes,
    (2 (lash - mid))².
    """

    at: int
    source: str
    size: int
    lash: int
    was: int
    shim: int
    off: int


def place_shims(i: Reshuffle) -> list[Place]:
    """What each valve gets; raises what `reshuffle_shims` refuses."""
    valves = [_valve(v) for v in i.valves]
    if not valves:
        raise Refused("count_mismatch", "no valve is given", field="valves")
    spares = [round(s * QUANTA) for s in canonicals(i.spare_shims, "length", "spare_shims")]
    grid = _grid(i.new_sizes)
    there = [v.shim for v in valves] + spares
    bought = [_grid_size(v.whole, v.lo, v.hi, grid[2], grid[0], grid[1]) for v in valves]
    took = assigned(_costs(valves, there, bought))
    if took is None:
        lost = next(k for k, v in enumerate(valves) if not _reachable(v, there, bought[k]))
        words = f"valve {lost + 1}: no shim in hand and no size of the grid brings its lash inside"
        raise Refused("no_size_in_grid", words, field="new_sizes")
    return [_place(valves, there, bought, k, at) for k, at in enumerate(took)]


class _Valve(BaseModel):
    """A valve in quanta; `whole` is lash and shim together."""

    model_config = ConfigDict(frozen=True)
    lash: int
    shim: int
    lo: int
    hi: int

    @property
    def whole(self) -> int:
        return self.lash + self.shim

    def off(self, shim: int) -> int | None:
        """(2 (lash - mid))² with a shim, in quanta²; None outside the limits."""
        lash = self.whole - shim
        return (2 * lash - self.lo - self.hi) ** 2 if self.lo <= lash <= self.hi else None


def _valve(valve: ValveNow) -> _Valve:
    lo, hi = _limits(
        canonical(valve.lower_limit, "length", "lower_limit"),
        canonical(valve.upper_limit, "length", "upper_limit"),
    )
    shim = round(canonical(valve.shim, "length", "shim") * QUANTA)
    if shim <= 0:
        raise Refused("not_positive", "'shim' must be above zero", field="shim")
    return _Valve(lash=_lash(canonical(valve.lash, "length", "lash")), shim=shim, lo=lo, hi=hi)


def _grid(sizes: NewSizes) -> tuple[int, int, int]:
    first, last, step = (
        round(canonical(q, "length", "new_sizes") * QUANTA)
        for q in (sizes.first, sizes.to, sizes.step)
    )
    if step <= 0 or first <= 0 or last < first:
        words = "new sizes go from a size above zero to a larger one, in steps above zero"
        raise Refused("bad_grid", words, field="new_sizes")
    return first, last, step


def _reachable(valve: _Valve, there: Sequence[int], bought: int | None) -> bool:
    return bought is not None or any(valve.off(shim) is not None for shim in there)


def _costs(
    valves: Sequence[_Valve], there: Sequence[int], bought: Sequence[int | None]
) -> list[list[int | None]]:
    """What each shim costs at each valve: new ones before all, then the squares, then moves."""
    count = len(valves)
    widest = max((v.hi - v.lo) ** 2 for v in valves) + 1
    new, square = widest * count * (count + 1), count + 1
    rows: list[list[int | None]] = []
    for k, valve in enumerate(valves):
        row: list[int | None] = []
        for at, shim in enumerate(there):
            off = valve.off(shim)
            row.append(None if off is None else off * square + (at != k))
        for at, size in enumerate(bought):
            off = valve.off(size) if at == k and size is not None else None
            row.append(None if off is None else new + off * square + 1)
        rows.append(row)
    return rows


def _place(
    valves: Sequence[_Valve],
    there: Sequence[int],
    bought: Sequence[int | None],
    k: int,
    at: int,
) -> Place:
    valve, new = valves[k], at >= len(there)
    size = bought[at - len(there)] if new else there[at]
    assert size is not None
    off = valve.off(size)
    assert off is not None
    inside = "its own" if at == k else f"from valve {at + 1}" if at < len(valves) else "spare"
    return Place(
        at, "new" if new else inside, size, valve.whole - size, valve.lash, valve.shim, off
    )


def _out_before(i: Reshuffle) -> int:
    valves = [_valve(v) for v in i.valves]
    return sum(not v.lo <= v.lash <= v.hi for v in valves)


def _moves(took: Sequence[int], count: int, there: int) -> tuple[str, ...]:
    """As one hand does it: a valve whose shim nobody needs first, then along the chain; a ring is
    opened by laying one shim down on the mat.
    """
    source = {k: at for k, at in enumerate(took) if at != k}
    goes_to = {at: k for k, at in source.items() if at < count}
    said: list[str] = []

    def follow(valve: int, laid: int | None) -> None:
        at: int | None = valve
        while at is not None and at in source:
            own = source.pop(at)
            if own >= there:
                said.append(f"{at + 1}: put the new one in")
            elif own >= count:
                said.append(f"{at + 1}: put the spare in")
            elif own == laid:
                said.append(f"{at + 1}: put in the one of {own + 1} from the mat")
            else:
                said.append(f"lift out {own + 1}, put it into {at + 1}")
            at = own if own < count and own != laid else None

    for valve in [k for k in source if k not in goes_to]:
        said.append(f"lift out {valve + 1}, lay it by: it is left over")
        follow(valve, None)
    while source:
        valve = min(source)
        said.append(f"lift out {valve + 1}, lay it on the mat")
        follow(valve, valve)
    return tuple(said)
