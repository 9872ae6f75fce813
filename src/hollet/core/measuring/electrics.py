"""Earth paths and cables: what a voltage drop, an ohmmeter and a length of copper say. Volts,
amperes, ohms.

Ohm's law; annealed copper by IEC 60028, wire gauges by ASTM B258; limits are auto-electric practice
and can be changed.
"""

from math import pi
from typing import Annotated

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.fields import Area, Current, Length, Percent, Resistance, Temperature, Voltage
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["awg_area", "copper_cable", "cranking_drop", "ohmmeter_bound", "voltage_drop"]

EARTH_SIDE = Quantity(value=0.2, unit="V")
MOST_DROP = 6.0
LEAST_CRANKING = Quantity(value=50, unit="A")
"""Rule of thumb: a starter of a four-cylinder engine takes 100 to 180 A warm, and more cold."""
COPPER_OHM_MM2_PER_M = 0.017241
COPPER_PER_K = 0.00393


def _current(i: Input) -> float:
    found = i.figure("current")
    if found <= 0:
        raise Refused(
            "current_not_positive",
            "without current a voltage drop proves nothing: measure while the engine is "
            "cranked, ignition off, 10 s at most",
            field="current",
        )
    return found


class VoltageDrop(Input):
    """Drop measured while current flows, that current, and what is allowed (0.2 V on the earth side
    by practice).
    """

    drop: Voltage = None
    current: Current = None
    limit: Voltage = EARTH_SIDE


class VoltageDropResult(Result):
    """Resistance of the path, heat in it, whether the drop is allowed, and the resistance that
    would be.
    """

    resistance: Quantity
    power: Quantity
    ok: bool
    allowed_resistance: Quantity


@calculation("Voltage drop while cranking")
def voltage_drop(i: VoltageDrop) -> VoltageDropResult:
    """R = V / I, heat V I, allowed R = limit / I.

    Raises
    ------
    Refused
        `current_not_positive`, `negative_drop`, `drop_implausible` above 6 V (that is the battery,
        or millivolts).

    Example
    -------
    >>> given = {
    ...     "drop": {"value": 0.35, "unit": "V"},
    ...     "current": {"value": 180, "unit": "A"},
    ...     "limit": {"value": 0.2, "unit": "V"},
    ... }
    >>> found = voltage_drop(VoltageDrop.model_validate(given))
    >>> round(found.resistance.value, 4), found.resistance.unit
    (1.9444, 'mΩ')
    """
    drop, current, limit = i.figure("drop"), _current(i), i.figure("limit")
    if drop < 0:
        raise Refused("negative_drop", "'drop' is below 0: swap the leads", field="drop")
    if drop > MOST_DROP:
        raise Refused(
            "drop_implausible",
            f"'drop' is above {MOST_DROP:g} V: the battery instead of the path, or millivolts?",
            field="drop",
        )
    return VoltageDropResult(
        resistance=in_unit(drop / current, "mΩ"),
        power=Quantity(value=drop * current, unit="W"),
        ok=round9(drop) <= round9(limit),
        allowed_resistance=in_unit(limit / current, "mΩ"),
        working=(
            f"{drop:g} V ÷ {current:g} A = {drop / current * 1000:.3f} mΩ",
            f"allowed: {limit:g} V ÷ {current:g} A = {limit / current * 1000:.3f} mΩ",
        ),
    )


class CrankingDrop(VoltageDrop):
    """Drop and current of one burst; `least` is the current below which no starter was turning an
    engine.
    """

    least: Current = LEAST_CRANKING


class CrankingDropResult(VoltageDropResult):
    """The drop that proves something, with the path's resistance and heat."""

    drop: Quantity


@calculation("Voltage drop in a burst of the starter")
def cranking_drop(i: CrankingDrop) -> CrankingDropResult:
    """The drop itself, once the current says that the starter turned the engine; the rest as
    `voltage_drop`.

    Raises
    ------
    Refused
        What `voltage_drop` refuses; `not_cranking` below the least current.

    Example
    -------
    >>> given = {"drop": {"value": 0.09, "unit": "V"}, "current": {"value": 180, "unit": "A"}}
    >>> found = cranking_drop(CrankingDrop.model_validate(given))
    >>> found.drop.value, round(found.resistance.value, 2), found.resistance.unit
    (0.09, 0.5, 'mΩ')
    """
    path = voltage_drop(i)
    drop, current, least = i.figure("drop"), i.figure("current"), i.figure("least")
    if round9(current) < round9(least):
        raise Refused(
            "not_cranking",
            f"{current:g} A turn no engine (a starter takes {least:g} A and more): read drop and "
            "current in one burst, the clamp round the starter's own cable",
            field="current",
        )
    return CrankingDropResult(**path.model_dump(), drop=Quantity(value=drop, unit="V"))


class OhmmeterBound(Input):
    """What the meter shows, its last digit, its error (percent and counts), its leads, and the
    current while cranking.
    """

    reading: Resistance = None
    digit: Resistance = None
    percent_of_reading: Percent = None
    counts: Annotated[int, Field(ge=0, le=1000)]
    lead_resistance: Resistance = None
    current: Current = None
    limit: Voltage = EARTH_SIDE


class OhmmeterBoundResult(Result):
    """Between what the resistance lies, the worst drop, and whether that proves good_proven,
    bad_proven or cannot_tell.
    """

    R_min: Quantity
    R_max: Quantity
    drop_max: Quantity
    verdict: str


@calculation("What an ohmmeter proves")
def ohmmeter_bound(i: OhmmeterBound) -> OhmmeterBoundResult:
    """R within reading - leads ± (percent + counts x digit + half a digit), not below 0; times the
    current against the limit.

    Raises
    ------
    Refused
        `current_not_positive`; `leads_exceed_reading` when the leads alone are more than the meter
        can have shown.

    Example
    -------
    >>> given = {
    ...     "reading": {"value": 0, "unit": "Ω"},
    ...     "digit": {"value": 0.1, "unit": "Ω"},
    ...     "percent_of_reading": {"value": 1, "unit": "%"},
    ...     "counts": 3,
    ...     "lead_resistance": {"value": 0, "unit": "Ω"},
    ...     "current": {"value": 150, "unit": "A"},
    ...     "limit": {"value": 0.2, "unit": "V"},
    ... }
    >>> found = ohmmeter_bound(OhmmeterBound.model_validate(given))
    >>> round(found.R_max.value, 4), found.R_max.unit
    (0.35, 'Ω')
    """
    reading, digit, percent, leads, current, limit = (
        i.figure("reading"),
        i.figure("digit"),
        i.figure("percent_of_reading"),
        i.figure("lead_resistance"),
        _current(i),
        i.figure("limit"),
    )
    off = percent / 100 * abs(reading) + i.counts * digit + digit / 2
    low, high = max(0.0, reading - leads - off), reading - leads + off
    if high < 0:
        raise Refused(
            "leads_exceed_reading",
            "the leads alone are more than the meter shows: hold the tips together and measure "
            "them again",
            field="lead_resistance",
        )
    verdict = (
        "good_proven"
        if round9(high * current) <= round9(limit)
        else "bad_proven"
        if round9(low * current) > round9(limit)
        else "cannot_tell"
    )
    return OhmmeterBoundResult(
        R_min=in_unit(low, "Ω"),
        R_max=in_unit(high, "Ω"),
        drop_max=in_unit(high * current, "V"),
        verdict=verdict,
        working=(
            f"{reading:g} − {leads:g} ± {off:.5g} = {low:.5g} to {high:.5g} Ω",
            f"at {current:g} A up to {high * current:.4g} V, allowed {limit:g} V",
        ),
    )


class CopperCable(Input):
    """Length and section of a copper cable, its temperature, and the current."""

    length: Length = None
    cross_section: Area = None
    temperature: Temperature = Quantity(value=20, unit="°C")
    current: Current = None


class CopperCableResult(Result):
    """Resistance of the cable and the drop along it."""

    resistance: Quantity
    drop: Quantity


@calculation("Copper cable")
def copper_cable(i: CopperCable) -> CopperCableResult:
    """R = 1.7241e-8 (1 + 0.00393 (T - 20)) L / A, annealed copper (IEC 60028); drop = R I.

    Raises
    ------
    Refused
        `not_positive`, `current_not_positive`.

    Example
    -------
    >>> given = {
    ...     "length": {"value": 1.6, "unit": "m"},
    ...     "cross_section": {"value": 35, "unit": "mm²"},
    ...     "temperature": {"value": 20, "unit": "°C"},
    ...     "current": {"value": 180, "unit": "A"},
    ... }
    >>> found = copper_cable(CopperCable.model_validate(given))
    >>> round(found.resistance.value, 4), found.resistance.unit
    (0.7882, 'mΩ')
    """
    metres, area, warm, current = (
        i.positive("length") / 1000,
        i.positive("cross_section"),
        i.figure("temperature"),
        _current(i),
    )
    ohms = COPPER_OHM_MM2_PER_M * (1 + COPPER_PER_K * (warm - 20)) * metres / area
    return CopperCableResult(
        resistance=in_unit(ohms, "mΩ"),
        drop=in_unit(ohms * current, "V"),
        working=(
            (
                f"{COPPER_OHM_MM2_PER_M:g} × {metres:g} m ÷ {area:g} mm² at {warm:g} °C = "
                f"{ohms * 1000:.4f} mΩ"
            ),
            f"× {current:g} A = {ohms * current:.4f} V",
        ),
    )


class AwgArea(Input):
    """A wire gauge; 0 is 1/0, -1 is 2/0 and so on."""

    gauge: Annotated[int, Field(ge=-3, le=40)]


class AwgAreaResult(Result):
    """Section of the wire."""

    area: Quantity


@calculation("Wire gauge to section")
def awg_area(i: AwgArea) -> AwgAreaResult:
    """d = 0.127 mm x 92^((36 - n) / 39) (ASTM B258).

    Example
    -------
    >>> found = awg_area(AwgArea.model_validate({"gauge": 2}))
    >>> round(found.area.value, 4), found.area.unit
    (33.6308, 'mm²')
    """
    d = 0.127 * 92 ** ((36 - i.gauge) / 39)
    return AwgAreaResult(
        area=in_unit(pi / 4 * d**2, "mm²"),
        working=(f"d = {d:.4f} mm, π ÷ 4 × d² = {pi / 4 * d**2:.3f} mm²",),
    )
