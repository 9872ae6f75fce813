"""Heat and cold: how hot a ring, or a housing, must be so that it drops into its place.

Linear expansion, uniform temperature, reference 20 °C (Machinery's-Handbook type tables; fits of
ISO 286). Valid from -80 to 120 °C; no open flame.
"""

from math import log

from hollet.core.errors import Refused
from hollet.core.fields import Expansion, Length, Ratio, Temperature
from hollet.core.quantities.quantity import Quantity, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["HeatHousing", "HeatLeft", "HeatRing", "heat_housing", "heat_left", "heat_ring"]

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


class HeatLeft(Input):
    """How hot it comes out, how hot it must still be as it goes on, the room, and how thick its
    wall is; of what it is made, by density and specific heat.
    """

    temperature_out: Temperature = None
    temperature_needed: Temperature = None
    room_temperature: Temperature = Quantity(value=20, unit="°C")
    wall: Length = Quantity(value=8, unit="mm")
    density: Ratio = Quantity(value=7850, unit="1")
    specific_heat: Ratio = Quantity(value=490, unit="1")
    heat_transfer: Ratio = Quantity(value=20, unit="1")


class HeatLeftResult(Result):
    """How long it stays hot, or cold, enough, carried through still air; and how fast it nears the
    temperature of the room (its time constant). Both are assumed.
    """

    time_left: Quantity
    time_constant: Quantity


@calculation("From the oven to the seat")
def heat_left(i: HeatLeft) -> HeatLeftResult:
    """t = tau ln((T_out - T_room) / (T_needed - T_room)), tau = rho c (wall / 2) / h.

    Newton's law of cooling from both sides of a wall, density in kg/m³, specific heat in J/(kg K),
    heat transfer in W/(m² K): 20 is a rule of thumb for a ring carried through still air. Once it
    touches a cold seat it is over in seconds.

    Raises
    ------
    Refused
        `too_cold`: it comes out on the wrong side of what is needed; `no_way`: what is needed is
        the temperature of the room or beyond; `not_positive`.

    Example
    -------
    >>> degrees = lambda v: Quantity(value=v, unit="°C")
    >>> given = {"temperature_out": degrees(110), "temperature_needed": degrees(95)}
    >>> found = heat_left(HeatLeft(**given))
    >>> round(found.time_left.value), found.time_left.unit
    (140, 's')
    """
    out, needed = i.figure("temperature_out"), i.figure("temperature_needed")
    room, wall = i.figure("room_temperature"), i.positive("wall")
    rho, c, h = (i.positive(name) for name in ("density", "specific_heat", "heat_transfer"))
    if needed == room or (needed - room) * (out - room) <= 0:
        words = f"it has to be at {needed:g} °C, and the room is at {room:g}: it stays so by itself"
        raise Refused("no_way", words, field="temperature_needed")
    if abs(out - room) <= abs(needed - room):
        words = f"at {out:g} °C it will not go on, {needed:g} is needed: back with it"
        raise Refused("too_cold", words, field="temperature_out")
    tau = rho * c * (wall / 1000 / 2) / h
    left = tau * log((out - room) / (needed - room))
    return HeatLeftResult(
        time_left=in_unit(left, "s"),
        time_constant=in_unit(tau, "s"),
        working=(
            f"tau: {rho:g} × {c:g} × {wall / 2000:g} ÷ {h:g} = {tau:.0f} s, assumed",
            f"{tau:.0f} × ln(({out:g} − {room:g}) ÷ ({needed:g} − {room:g})) = {left:.0f} s",
        ),
    )
