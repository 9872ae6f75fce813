"""Oil through holes and passages. Diameters in mm, pressures in kPa.

Bernoulli with a discharge coefficient, Hagen-Poiseuille.
"""

from math import pi, sqrt

from hollet.core.errors import Refused
from hollet.core.fields import Density, Length, Pressure, Ratio, Viscosity
from hollet.core.measuring.fluids import unit_of
from hollet.core.quantities.quantity import Quantity, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["bore_ratio", "laminar_passage", "orifice_flow", "orifices_in_series"]

LAMINAR = 2300.0


class BoreRatio(Input):
    """Two bores at the same pressure difference."""

    d1: Length = None
    d2: Length = None


class BoreRatioResult(Result):
    """Flow through the first over flow through the second: short holes, and long thin passages."""

    area_ratio: float
    long_passage_ratio: float


@calculation("Two bores compared")
def bore_ratio(i: BoreRatio) -> BoreRatioResult:
    """(d1 / d2)² for short holes, (d1 / d2)⁴ for long thin laminar passages; refuses
    `not_positive`.

    Example
    -------
    >>> given = {
    ...     "d1": {"value": 0.375, "unit": "in"},
    ...     "d2": {"value": 0.125, "unit": "in"},
    ... }
    >>> found = bore_ratio(BoreRatio.model_validate(given))
    >>> round(found.area_ratio, 4)
    9.0
    """
    ratio = i.positive("d1") / i.positive("d2")
    return BoreRatioResult(
        area_ratio=ratio**2,
        long_passage_ratio=ratio**4,
        working=(f"{ratio:.4g}² = {ratio**2:.4g}, {ratio:.4g}⁴ = {ratio**4:.4g}",),
    )


def _pressure_pa(i: Input) -> float:
    found = i.figure("pressure_difference")
    if found <= 0:
        raise Refused(
            "no_pressure_difference",
            "'pressure_difference' must be above zero: nothing flows without it",
            field="pressure_difference",
        )
    return found * 1000


def _per_minute(cubic_metres_a_second: float) -> Quantity:
    return Quantity(value=cubic_metres_a_second * 60_000, unit="L/min")


class OrificeFlow(Input):
    """A short hole, the pressure across it, the oil's density, and the discharge coefficient (0.6
    to 0.8).
    """

    diameter: Length = None
    pressure_difference: Pressure = None
    density: Density = None
    discharge_coefficient: Ratio = Quantity(value=0.7, unit="1")


class OrificeFlowResult(Result):
    """Speed of the jet in m/s and flow in L/min."""

    velocity: Quantity
    flow: Quantity


@calculation("Flow through a hole")
def orifice_flow(i: OrificeFlow) -> OrificeFlowResult:
    """Q = C pi/4 d² sqrt(2 dp / rho) (ISO 5167 style); refuses `no_pressure_difference` and
    `not_positive`.

    Example
    -------
    >>> given = {
    ...     "diameter": {"value": 1.5, "unit": "mm"},
    ...     "pressure_difference": {"value": 3, "unit": "bar"},
    ...     "density": {"value": 850, "unit": "kg/m³"},
    ...     "discharge_coefficient": {"value": 0.7, "unit": "1"},
    ... }
    >>> found = orifice_flow(OrificeFlow.model_validate(given))
    >>> round(found.velocity.value, 4), found.velocity.unit
    (26.5684, 'm/s')
    """
    d, dp = i.positive("diameter") / 1000, _pressure_pa(i)
    rho, coefficient = i.positive("density"), i.positive("discharge_coefficient")
    speed = sqrt(2 * dp / rho)
    flow = coefficient * pi / 4 * d**2 * speed
    return OrificeFlowResult(
        velocity=Quantity(value=speed, unit="m/s"),
        flow=_per_minute(flow),
        working=(
            f"√(2 × {dp:g} ÷ {rho:g}) = {speed:.3f} m/s",
            f"{coefficient:g} × π ÷ 4 × {d * 1000:g}² mm² × that = {flow * 60_000:.4f} L/min",
        ),
    )


class LaminarPassage(Input):
    """A long thin passage, the pressure along it, and the oil."""

    diameter: Length = None
    length: Length = None
    pressure_difference: Pressure = None
    viscosity: Viscosity = None
    density: Density = None


class LaminarPassageResult(Result):
    """Flow in L/min and its Reynolds number."""

    flow: Quantity
    reynolds: float


@calculation("Flow through a long passage")
def laminar_passage(i: LaminarPassage) -> LaminarPassageResult:
    """Hagen-Poiseuille: Q = pi d⁴ dp / (128 mu L), only below a Reynolds number of 2300.

    Raises
    ------
    Refused
        `not_laminar`, `no_pressure_difference`, `not_positive`.

    Example
    -------
    >>> given = {
    ...     "diameter": {"value": 3.2, "unit": "mm"},
    ...     "length": {"value": 150, "unit": "mm"},
    ...     "pressure_difference": {"value": 3, "unit": "bar"},
    ...     "viscosity": {"value": 0.25, "unit": "Pa·s"},
    ...     "density": {"value": 870, "unit": "kg/m³"},
    ... }
    >>> found = laminar_passage(LaminarPassage.model_validate(given))
    >>> round(found.flow.value, 4), found.flow.unit
    (1.2353, 'L/min')
    """
    d, length, dp = i.positive("diameter") / 1000, i.positive("length") / 1000, _pressure_pa(i)
    mu, rho = i.positive("viscosity"), i.positive("density")
    flow = pi * d**4 * dp / (128 * mu * length)
    reynolds = rho * flow / (pi / 4 * d**2) * d / mu
    if reynolds >= LAMINAR:
        raise Refused(
            "not_laminar",
            f"the Reynolds number is {reynolds:.0f}, above {LAMINAR:g}: reckon it as a short hole",
            field="viscosity",
        )
    return LaminarPassageResult(
        flow=_per_minute(flow),
        reynolds=reynolds,
        working=(f"π × d⁴ × Δp ÷ (128 × μ × L) = {flow * 60_000:.4f} L/min, Re = {reynolds:.1f}",),
    )


class OrificesInSeries(Input):
    """Two short holes one after the other."""

    d1: Length = None
    d2: Length = None


class OrificesInSeriesResult(Result):
    """The one hole that would let as much through."""

    equivalent_diameter: Quantity


@calculation("Two holes in a row")
def orifices_in_series(i: OrificesInSeries) -> OrificesInSeriesResult:
    """(1 / d1⁴ + 1 / d2⁴)^(-1/4): the smaller decides; refuses `not_positive`.

    Example
    -------
    >>> given = {
    ...     "d1": {"value": 3.2, "unit": "mm"},
    ...     "d2": {"value": 1.5, "unit": "mm"},
    ... }
    >>> found = orifices_in_series(OrificesInSeries.model_validate(given))
    >>> round(found.equivalent_diameter.value, 4), found.equivalent_diameter.unit
    (1.4824, 'mm')
    """
    first, second = i.positive("d1"), i.positive("d2")
    d = (first**-4 + second**-4) ** -0.25
    return OrificesInSeriesResult(
        equivalent_diameter=in_unit(d, unit_of(i.d1, "mm")),
        working=(f"(1 ÷ {first:g}⁴ + 1 ÷ {second:g}⁴)^(−1/4) = {d:.4f} mm",),
    )
