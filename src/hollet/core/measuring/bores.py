"""Cylinder bores: what is left between the piston and a worn bore."""

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import Quantity, canonical, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["PistonClearance", "PistonClearanceResult", "piston_clearance"]


class PistonClearance(Input):
    """Smallest and largest bore diameter, and the piston at its gauge height, square to the pin."""

    bore_min: Quantity | None = None
    bore_max: Quantity | None = None
    piston: Quantity | None = None


class PistonClearanceResult(Result):
    """Tightest and loosest diametral clearance."""

    min_clearance: Quantity
    max_clearance: Quantity


@calculation("Piston to bore")
def piston_clearance(i: PistonClearance) -> PistonClearanceResult:
    """Diametral clearance: the tightest goes against the lower limit, the loosest against the wear limit.

    Raises
    ------
    Refused
        `negative_clearance` when the piston is not smaller than the bore, `limits_reversed`, `not_a_finite_number`.
    """
    low, high = canonical(i.bore_min, "length", "bore_min"), canonical(i.bore_max, "length", "bore_max")
    piston = canonical(i.piston, "length", "piston")
    if low > high:
        raise Refused("limits_reversed", "'bore_min' must not be larger than 'bore_max'", field="bore_min")
    if piston >= low:
        raise Refused("negative_clearance", "the piston is not smaller than the bore: wrong piston, wrong unit or wrong "
                      "gauge height", field="piston")  # fmt: skip
    unit = i.bore_min.unit if i.bore_min else "mm"
    return PistonClearanceResult(
        min_clearance=in_unit(low - piston, unit), max_clearance=in_unit(high - piston, unit),
        working=(f"{low:g} − {piston:g} = {low - piston:.4f} mm", f"{high:g} − {piston:g} = {high - piston:.4f} mm"),
    )  # fmt: skip
