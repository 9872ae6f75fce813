"""Pistons matched to bores. Exact, in whole tenths of a micrometre."""

from collections.abc import Sequence

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths
from hollet.core.quantities.quantity import Quantity, in_unit
from hollet.core.registry import Counted, Input, Result, calculation

__all__ = ["PairPistons", "pair_pistons"]

QUANTA = 10_000
"""Tenths of a micrometre in a millimetre."""


class PairPistons(Input):
    """Bores and pistons as measured, the clearance at which one aims, and its limits where there
    are some.
    """

    bores: Lengths = None
    pistons: Lengths = None
    target_clearance: Length = None
    lower_limit: Length = None
    upper_limit: Length = None


class PairPistonsResult(Result):
    """Which piston goes into which bore, from 1; how far the worst is off the aim, the sum of the
    squares (mm²), the least and the largest clearance.
    """

    assignment: Counted
    worst_deviation: Quantity
    sum_of_squares: Quantity
    min_clearance: Quantity
    max_clearance: Quantity


@calculation("Pistons to bores")
def pair_pistons(i: PairPistons) -> PairPistonsResult:
    """Sorted with sorted: the smallest worst deviation and the smallest sum of squares at once
    (exchange argument for a convex cost).

    Raises
    ------
    Refused
        `count_mismatch`; `clearance_not_positive` (a piston larger than every bore left for it);
        `limits_not_reachable`: no pairing keeps all clearances inside.

    Example
    -------
    >>> mm = lambda *v: {"value": list(v), "unit": "mm"}
    >>> found = pair_pistons(PairPistons(bores=mm(84.012, 84.025), pistons=mm(83.981, 83.968),
    ...     target_clearance={"value": 0.045, "unit": "mm"}))
    >>> found.assignment.value, round(found.worst_deviation.value, 4)
    ((2, 1), 0.001)
    """
    bores = [round(b * QUANTA) for b in i.figures("bores")]
    pistons = [round(p * QUANTA) for p in i.figures("pistons")]
    target = round(i.figure("target_clearance") * QUANTA)
    if not bores or len(bores) != len(pistons):
        words = (
            f"{len(bores)} bores and {len(pistons)} pistons: as many pistons as bores are needed"
        )
        raise Refused("count_mismatch", words, field="pistons")
    by_bore = sorted(range(len(bores)), key=bores.__getitem__)
    by_piston = sorted(range(len(pistons)), key=pistons.__getitem__)
    into = dict(zip(by_bore, by_piston, strict=True))
    clear = [bores[b] - pistons[into[b]] for b in range(len(bores))]
    if min(clear) <= 0:
        bad = clear.index(min(clear))
        words = f"bore {bad + 1} is not larger than the piston left for it: look at both readings"
        raise Refused("clearance_not_positive", words, field="bores")
    _inside(i, clear)
    unit = i.bores.unit if i.bores is not None else "mm"
    off = [abs(c - target) for c in clear]
    return PairPistonsResult(
        assignment=Counted(value=tuple(into[b] + 1 for b in range(len(bores))), unit="piston"),
        worst_deviation=in_unit(max(off) / QUANTA, unit),
        sum_of_squares=Quantity(value=sum(d * d for d in off) / QUANTA**2, unit="mm²"),
        min_clearance=in_unit(min(clear) / QUANTA, unit),
        max_clearance=in_unit(max(clear) / QUANTA, unit),
        working=tuple(
            f"bore {b + 1} with piston {into[b] + 1}: {bores[b] / QUANTA:g} − "
            f"{pistons[into[b]] / QUANTA:g} = {clear[b] / QUANTA:g} mm"
            for b in range(len(bores))
        ),
    )


def _inside(i: PairPistons, clear: Sequence[int]) -> None:
    """Refuse where a clearance lies outside: sorted with sorted also has the narrowest spread, so
    that no other pairing keeps them inside.
    """
    lo = round(i.figure("lower_limit") * QUANTA) if i.lower_limit is not None else min(clear)
    hi = round(i.figure("upper_limit") * QUANTA) if i.upper_limit is not None else max(clear)
    bad = next((k for k, c in enumerate(clear) if not lo <= c <= hi), None)
    if bad is not None:
        words = (
            f"no pairing keeps all clearances inside: bore {bad + 1} comes to "
            f"{clear[bad] / QUANTA:g} mm"
        )
        raise Refused("limits_not_reachable", words, field="pistons")
