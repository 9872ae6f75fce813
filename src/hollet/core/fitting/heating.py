"""Heat and cold: how hot a ring, or a housing, must be so that it drops into its place.

Linear expansion, uniform temperature, reference 20 °C (Machinery's-Handbook type tables; fits of
ISO 286). Valid from -80 to 120 °C; no open flame.
"""

from hollet.core.errors import Refused
from hollet.core.fields import Expansion, Length, Temperature
from hollet.core.quantities.quantity import Quantity, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["HeatHousing", "HeatRing", "heat_housing", "heat_ring"]

REFERENCE_C = 20.0
STEEL_MOST_C = 120.0
"""Bearing steel loses hardness or size above it, unless the maker allows more."""
PLAUSIBLE = 0.005
"""An interference above half a percent of the diameter is a slip in typing, or another part."""


class HeatRing(Input):
    """Seat and bore of the ring at 20 °C, the clearance it shall have as it goes on, both
    expansions, the seat as it is, and how hot the ring may become.
    """

    seat_diameter_at_20C: Length = None
    ring_bore_at_20C: Length = None
    assembly_clearance: Length = Quantity(value=0.02, unit="mm")
    alpha_ring: Expansion = Quantity(value=12e-6, unit="1/K")
    alpha_seat: Expansion = Quantity(value=11.5e-6, unit="1/K")
    seat_temperature: Temperature = Quantity(value=20, unit="°C")
    max_ring_temperature: Temperature = Quantity(value=120, unit="°C")


class HeatRingResult(Result):
    """The interference; how hot the ring must be, whether it may; how cold the seat would have to
    be with the ring as hot as it may be.
    """

    interference: Quantity
    ring_temperature: Quantity
    heating_needed: bool
    possible: bool
    seat_temperature_if_ring_at_max: Quantity


def _plausible(interference: float, diameter: float) -> None:
    if abs(interference) > PLAUSIBLE * diameter:
        words = (
            f"{interference:.3f} mm on {diameter:.3f} mm is more than half a percent: another "
            "unit, or another part"
        )
        raise Refused("interference_implausible", words, field="seat_diameter_at_20C")


def _expansion(i: Input, name: str) -> float:
    alpha = i.figure(name)
    if alpha <= 0:
        raise Refused("alpha_not_positive", f"'{name}' must be above zero", field=name)
    return alpha


@calculation("Heat a ring on to its seat")
def heat_ring(i: HeatRing) -> HeatRingResult:
    """T = 20 + ((d (1 + a_s (T_s - 20)) + c) / D - 1) / a_r; the seat for a ring at its most
    20 + ((D (1 + a_r (T_max - 20)) - c) / d - 1) / a_s.

    Sealed or greased bearings take 80 °C at the most; add 10 to 20 K for the walk from the oven.

    Raises
    ------
    Refused
        `alpha_not_positive`, `interference_implausible`, `limit_above_120`, `not_positive`.

    Example
    -------
    >>> mm = lambda v: Quantity(value=v, unit="mm")
    >>> found = heat_ring(HeatRing(seat_diameter_at_20C=mm(35.018), ring_bore_at_20C=mm(35)))
    >>> round(found.ring_temperature.value, 1), found.possible
    (110.5, True)
    """
    seat, bore = i.positive("seat_diameter_at_20C"), i.positive("ring_bore_at_20C")
    clearance = i.figure("assembly_clearance")
    ring, own = _expansion(i, "alpha_ring"), _expansion(i, "alpha_seat")
    now, most = i.figure("seat_temperature"), i.figure("max_ring_temperature")
    if most > STEEL_MOST_C:
        words = (
            "bearing steel loses hardness or size above 120 °C: no more, unless its maker says so"
        )
        raise Refused("limit_above_120", words, field="max_ring_temperature")
    _plausible(seat - bore, bore)
    there = seat * (1 + own * (now - REFERENCE_C)) + clearance
    hot = REFERENCE_C + (there / bore - 1) / ring
    widest = bore * (1 + ring * (most - REFERENCE_C)) - clearance
    cold = REFERENCE_C + (widest / seat - 1) / own
    unit = i.seat_diameter_at_20C.unit if i.seat_diameter_at_20C is not None else "mm"
    return HeatRingResult(
        interference=in_unit(seat - bore, unit),
        ring_temperature=in_unit(hot, "°C"),
        heating_needed=hot > REFERENCE_C,
        possible=hot <= most,
        seat_temperature_if_ring_at_max=in_unit(cold, "°C"),
        working=(
            f"the seat at {now:g} °C with {clearance:g} mm to go on: {there:.4f} mm",
            f"the ring has that at {hot:.1f} °C, and may have {most:g}",
            f"with the ring at {most:g} °C the seat must be at {cold:.1f} °C or colder",
        ),
    )


class HeatHousing(Input):
    """The race and the bore of the housing at 20 °C, the clearance, both expansions, the race as it
    is, and how hot the housing may become (its seals say less).
    """

    race_outside_at_20C: Length = None
    housing_bore_at_20C: Length = None
    assembly_clearance: Length = Quantity(value=0.02, unit="mm")
    alpha_housing: Expansion = Quantity(value=23e-6, unit="1/K")
    alpha_race: Expansion = Quantity(value=12e-6, unit="1/K")
    race_temperature: Temperature = Quantity(value=20, unit="°C")
    max_housing_temperature: Temperature = Quantity(value=110, unit="°C")


class HeatHousingResult(Result):
    """The interference, how hot the housing must be, whether it may."""

    interference: Quantity
    housing_temperature: Quantity
    possible: bool


@calculation("Heat a housing round its race")
def heat_housing(i: HeatHousing) -> HeatHousingResult:
    """T = 20 + ((D (1 + a_r (T_r - 20)) + c) / d - 1) / a_h. Refuses as `heat_ring`.

    Example
    -------
    >>> mm = lambda v: Quantity(value=v, unit="mm")
    >>> given = {"race_outside_at_20C": mm(62), "housing_bore_at_20C": mm(61.955)}
    >>> found = heat_housing(HeatHousing(**given))
    >>> round(found.housing_temperature.value, 1), found.possible
    (65.6, True)
    """
    race, bore = i.positive("race_outside_at_20C"), i.positive("housing_bore_at_20C")
    clearance = i.figure("assembly_clearance")
    wide, own = _expansion(i, "alpha_housing"), _expansion(i, "alpha_race")
    now, most = i.figure("race_temperature"), i.figure("max_housing_temperature")
    _plausible(race - bore, bore)
    there = race * (1 + own * (now - REFERENCE_C)) + clearance
    hot = REFERENCE_C + (there / bore - 1) / wide
    unit = i.race_outside_at_20C.unit if i.race_outside_at_20C is not None else "mm"
    return HeatHousingResult(
        interference=in_unit(race - bore, unit),
        housing_temperature=in_unit(hot, "°C"),
        possible=hot <= most,
        working=(
            f"the race at {now:g} °C with {clearance:g} mm to go in: {there:.4f} mm",
            f"the housing has that at {hot:.1f} °C, and may have {most:g}",
        ),
    )
