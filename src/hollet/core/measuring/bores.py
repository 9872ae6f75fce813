"""Cylinder bores: the map of wear, and the next oversize.

Diameters in mm; geometry and usual engine-machining practice. Gauge and part at 20 °C.
"""

from collections.abc import Callable, Iterable
from typing import Literal

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "bore_map",
    "rebore",
]

DEPTHS = 3
MOST_SPREAD = 0.02
MOST_OFF_NOMINAL = 0.05


class BoreMap(Input):
    """Diameters from top to bottom, on the thrust axis (across the engine) and along the
    crankshaft; the nominal bore.
    """

    thrust: Lengths = None
    axial: Lengths = None
    nominal: Length = None


class BoreMapResult(Result):
    """Out of round at one depth, taper along one axis (largest, and signed top minus bottom), and
    wear over nominal.
    """

    out_of_round: Quantity
    taper: Quantity
    taper_top_minus_bottom: Quantity
    max_diameter: Quantity
    min_diameter: Quantity
    mean_diameter: Quantity
    max_wear: Quantity


@calculation("Bore map")
def bore_map(i: BoreMap) -> BoreMapResult:
    """Wear of one bore from readings at three depths or more, on two axes.

    Out of round = largest |thrust - axial| at one depth; taper = larger of the two axes' max - min,
    told also as top minus bottom of
    that axis, which hides a barrel; wear = largest diameter - nominal.

    Raises
    ------
    Refused
        `map_incomplete`; `reading_outlier` when readings spread by more than 2 % or lie more than 5
        % off nominal (mixed units).

    Example
    -------
    >>> given = {
    ...     "thrust": {"value": [84.062, 84.035, 84.012], "unit": "mm"},
    ...     "axial": {"value": [84.041, 84.024, 84.009], "unit": "mm"},
    ...     "nominal": {"value": 84, "unit": "mm"},
    ... }
    >>> found = bore_map(BoreMap.model_validate(given))
    >>> round(found.out_of_round.value, 4), found.out_of_round.unit
    (0.021, 'mm')
    """
    thrust, axial = i.figures("thrust"), i.figures("axial")
    nominal = i.figure("nominal")
    if len(thrust) != len(axial) or len(thrust) < DEPTHS:
        raise Refused(
            "map_incomplete",
            f"two axes at {DEPTHS} depths or more are needed, as many on each axis",
            field="axial",
        )
    both = [*thrust, *axial]
    if (
        min(both) <= 0
        or max(both) > min(both) * (1 + MOST_SPREAD)
        or any(abs(d - nominal) > MOST_OFF_NOMINAL * nominal for d in both)
    ):
        raise Refused(
            "reading_outlier",
            "the readings differ by more than 2 % or lie more than 5 % off nominal: a wrong "
            "unit or a typing slip",
            field="thrust",
        )
    unit = i.nominal.unit if i.nominal else "mm"
    worst = max(range(len(thrust)), key=lambda k: abs(thrust[k] - axial[k]))
    tapered = max((thrust, axial), key=lambda axis: round9(max(axis) - min(axis)))
    return BoreMapResult(
        out_of_round=in_unit(abs(thrust[worst] - axial[worst]), unit),
        taper=in_unit(max(tapered) - min(tapered), unit),
        taper_top_minus_bottom=in_unit(tapered[0] - tapered[-1], unit),
        max_diameter=in_unit(max(both), unit),
        min_diameter=in_unit(min(both), unit),
        mean_diameter=in_unit(sum(both) / len(both), unit),
        max_wear=in_unit(max(both) - nominal, unit),
        working=(
            (
                f"out of round at depth {worst + 1}: |{thrust[worst]:g} − {axial[worst]:g}| = "
                f"{abs(thrust[worst] - axial[worst]):.4f} mm"
            ),
            f"taper: {max(tapered):g} − {min(tapered):g} = {max(tapered) - min(tapered):.4f} mm",
            f"wear: {max(both):g} − {nominal:g} = {max(both) - nominal:.4f} mm",
        ),
    )


class Rebore(Input):
    """What the bore has worn to, the oversizes that are to be had, and how the wear lies; the
    measured new pistons, if they are here.
    """

    nominal: Length = None
    max_worn_diameter: Length = None
    oversizes: Lengths = None
    cleanup_allowance_on_diameter: Length = None
    wear: Literal["symmetric", "one_sided"] = "symmetric"
    measured_piston_for_oversize: dict[str, Quantity] | None = None
    target_clearance: Length = None


class ReboreResult(Result):
    """The smallest oversize that reaches what is needed, that need, what is cut from the most worn
    wall, and the size to bore to.

    `verdict` is `does_not_clean_up` where the measured piston would finish below the need;
    `next_oversize` is then the one that does.
    """

    oversize: Quantity
    required_diameter: Quantity
    stock_on_most_worn_wall: Quantity
    finish_bore: Quantity | None = None
    verdict: str = "cleans_up"
    next_oversize: Quantity | None = None


@calculation("Next oversize")
def rebore(i: Rebore) -> ReboreResult:
    """The smallest oversize with nominal + oversize >= required.

    Required = D_max + allowance when the wear is symmetric; nominal + 2 (D_max - nominal) +
    allowance when it is all on one wall and the bar
    stays on the old centre. The finish size is the measured new piston + target clearance, never
    the nominal.

    Raises
    ------
    Refused
        `no_oversize_fits`; `negative_allowance`.

    Example
    -------
    >>> given = {
    ...     "nominal": {"value": 84, "unit": "mm"},
    ...     "max_worn_diameter": {"value": 84.11, "unit": "mm"},
    ...     "oversizes": {"value": [0.25, 0.5, 0.75, 1], "unit": "mm"},
    ...     "cleanup_allowance_on_diameter": {"value": 0.08, "unit": "mm"},
    ...     "wear": "one_sided",
    ... }
    >>> found = rebore(Rebore.model_validate(given))
    >>> round(found.oversize.value, 4), found.oversize.unit
    (0.5, 'mm')
    """
    nominal, worn = i.figure("nominal"), i.figure("max_worn_diameter")
    allowance = i.figure("cleanup_allowance_on_diameter")
    if allowance < 0:
        raise Refused(
            "negative_allowance",
            "'cleanup_allowance_on_diameter' must not be below zero: honing only takes away",
            field="cleanup_allowance_on_diameter",
        )
    one_sided = i.wear == "one_sided"
    required = nominal + 2 * (worn - nominal) + allowance if one_sided else worn + allowance
    oversize = _least(i.figures("oversizes"), lambda size: nominal + size, required)
    if oversize is None:
        largest = nominal + max(i.figures("oversizes"), default=0)
        raise Refused(
            "no_oversize_fits",
            f"it needs {required:.3f} mm, and the largest oversize gives "
            f"{largest:.3f}: a liner, or another block",
            field="oversizes",
        )
    stock = oversize / 2 - (worn - nominal) if one_sided else (nominal + oversize - worn) / 2
    unit = i.nominal.unit if i.nominal else "mm"
    found = ReboreResult(
        oversize=in_unit(oversize, unit),
        required_diameter=in_unit(required, unit),
        stock_on_most_worn_wall=in_unit(stock, unit),
        working=(
            f"required: {nominal:g} + 2 × {worn - nominal:.4f} + {allowance:g} = {required:.4f} mm"
            if one_sided
            else f"required: {worn:g} + {allowance:g} = {required:.4f} mm",
            f"{nominal:g} + {oversize:g} = {nominal + oversize:.4f} mm is enough",
        ),
    )
    piston = _piston(i, oversize)
    if piston is None or i.target_clearance is None:
        return found
    return _finished(i, found, oversize, piston, required)


def _least(sizes: Iterable[float], bore: Callable[[float], float], required: float) -> float | None:
    """The smallest oversize whose bore reaches what is required."""
    enough = (size for size in sorted(sizes) if round9(bore(size)) >= round9(required))
    return next(enough, None)


def _finished(
    i: Rebore, found: ReboreResult, oversize: float, piston: float, required: float
) -> ReboreResult:
    """With the measured piston: the size to bore to, and whether that still cleans up."""
    nominal, gap, unit = i.figure("nominal"), i.figure("target_clearance"), found.oversize.unit
    bore = piston + gap
    line = f"bore to {piston:g} + {gap:g} = {bore:.4f} mm"
    more: dict[str, object] = {"working": (*found.working, line)}
    if round9(bore) < round9(required):
        larger = [size for size in i.figures("oversizes") if size > oversize]
        better = _least(larger, lambda size: _finish(i, nominal, size, gap), required)
        more = {
            "working": (line, f"{bore:.4f} mm is less than {required:.4f}: it does not clean up"),
            "verdict": "does_not_clean_up",
            "next_oversize": in_unit(better, unit) if better is not None else None,
        }
    return found.model_copy(update={"finish_bore": in_unit(bore, unit), **more})


def _finish(i: Rebore, nominal: float, oversize: float, gap: float) -> float:
    """The size to bore to for an oversize: its measured piston and the gap, else the nominal."""
    piston = _piston(i, oversize)
    return piston + gap if piston is not None else nominal + oversize


def _piston(i: Rebore, oversize: float) -> float | None:
    """The measured piston of an oversize, in mm; pistons are named by their oversize in the unit of
    the list of oversizes.
    """
    name, unit = "measured_piston_for_oversize", i.oversizes.unit if i.oversizes else "mm"
    for key, piston in (i.measured_piston_for_oversize or {}).items():
        if round9(canonical(Quantity(value=key, unit=unit), "length", name)) == round9(oversize):
            return canonical(piston, "length", name)
    return None
