"""Compression: spread, wet test, altitude, leak-down, and the compression ratio. Pressures are
gauge readings in kPa, volumes in mL.

Workshop practice (the fraction and the rise are tunable), the standard atmosphere of ISO 2533, and
geometry.
"""

from math import pi

from hollet.core.errors import Refused
from hollet.core.fields import Length, Pressure, Pressures, Ratio, Volume
from hollet.core.quantities.quantity import (
    Quantities,
    Quantity,
    canonical,
    canonicals,
    in_unit,
    round9,
)
from hollet.core.registry import Counted, Input, Result, calculation

__all__ = ["altitude_gauge", "compression_ratio", "compression_spread", "leak_down", "wet_test"]

FRACTION = Quantity(value=0.75, unit="1")
RISE = Quantity(value=0.1, unit="1")
NOTHING = 0.1  # of the best cylinder wet: what is below holds no pressure at all
SEA_LEVEL_KPA, LAPSE_PER_M, EXPONENT = 101.325, 2.25577e-5, 5.25588
"""ISO 2533 below 11 km: p = 101.325 kPa (1 - 2.25577e-5 h)^5.25588, h in m."""


def _readings(quantities: Quantities | None, field: str) -> list[float]:
    found = canonicals(quantities, "pressure", field)
    if not found or min(found) < 0 or max(found) <= 0:
        raise Refused(
            "no_reading",
            "no cylinder reads any pressure: throttle shut, gauge leaking, or the cam out of time",
            field=field,
        )
    return found


def _low(readings: list[float], fraction: float) -> list[int]:
    return [k for k, p in enumerate(readings, 1) if round9(p) < round9(fraction * max(readings))]


class CompressionSpread(Input):
    """The reading of each cylinder in order, and the least share of the highest."""

    readings: Pressures = None
    fraction: Ratio = FRACTION


class CompressionSpreadResult(Result):
    """Lowest over highest, whether it is enough, and the cylinders that are low."""

    ratio: Quantity
    ok: bool
    low: Counted


@calculation("Spread of the compression")
def compression_spread(i: CompressionSpread) -> CompressionSpreadResult:
    """Lowest / highest >= fraction (0.75, a rule that stricter manuals tighten); refuses
    `no_reading`, and `map_incomplete` below two cylinders.

    Example
    -------
    >>> given = {
    ...     "readings": {"value": [12, 11.5, 9, 11.8], "unit": "bar"},
    ...     "fraction": {"value": 0.75, "unit": "1"},
    ... }
    >>> found = compression_spread(CompressionSpread.model_validate(given))
    >>> round(found.ratio.value, 4), found.ratio.unit
    (0.75, '1')
    """
    readings, fraction = _readings(i.readings, "readings"), i.figure("fraction")
    if len(readings) < 2:
        raise Refused(
            "map_incomplete",
            "one cylinder has nothing to be compared with: read two or more",
            field="readings",
        )
    low, ratio = _low(readings, fraction), min(readings) / max(readings)
    return CompressionSpreadResult(
        ratio=in_unit(ratio, "1"),
        ok=not low,
        low=Counted(value=tuple(low), unit="cylinder"),
        working=(f"{min(readings):g} ÷ {max(readings):g} = {ratio:.3f}, wanted {fraction:g}",),
    )


class WetTest(Input):
    """Each cylinder dry, and again with a spoon of oil; the share that counts as low, and the rise
    that counts.
    """

    dry: Pressures = None
    wet: Pressures = None
    fraction: Ratio = FRACTION
    rise: Ratio = RISE


class WetTestResult(Result):
    """What each cylinder points to."""

    finding: tuple[str, ...]


@calculation("Wet compression test")
def wet_test(i: WetTest) -> WetTestResult:
    """A low cylinder that rises by `rise` or more with oil: rings or bore; none: valves or gasket;
    two neighbours so: the gasket between them first.

    One that stays at (nearly) nothing is never the rings.

    Raises
    ------
    Refused
        `no_reading`; `map_incomplete` when a cylinder is read only once.

    Example
    -------
    >>> given = {
    ...     "dry": {"value": [11.9, 12.1, 7.8, 12], "unit": "bar"},
    ...     "wet": {"value": [12.4, 12.6, 10.6, 12.5], "unit": "bar"},
    ...     "fraction": {"value": 0.75, "unit": "1"},
    ...     "rise": {"value": 0.1, "unit": "1"},
    ... }
    >>> found = wet_test(WetTest.model_validate(given))
    >>> found.finding
    ('ok', 'ok', 'rings_or_bore', 'ok')
    """
    dry, wet = _readings(i.dry, "dry"), _readings(i.wet, "wet")
    if len(dry) != len(wet):
        raise Refused("map_incomplete", "each cylinder is read dry and wet", field="wet")
    fraction, rise = i.figure("fraction"), i.figure("rise")
    low = set(_low(dry, fraction))
    nothing = {
        k for k in low if round9(wet[k - 1]) <= round9(NOTHING * max(wet))
    }  # no oil seals an open valve or a blown gasket
    rose = {k for k in low if round9(wet[k - 1]) >= round9(dry[k - 1] * (1 + rise))} - nothing
    stay = low - rose
    words = {
        k: "gasket_between_neighbours_or_valves" if {k - 1, k + 1} & stay else "valves_or_gasket"
        for k in stay
    }
    return WetTestResult(
        finding=tuple(
            "rings_or_bore" if k in rose else words.get(k, "ok") for k in range(1, len(dry) + 1)
        )
    )


class AltitudeGauge(Input):
    """A gauge reading as given for one altitude, and the altitude of the workshop."""

    reference_gauge: Pressure = None
    reference_altitude: Length = None
    altitude: Length = None


class AltitudeGaugeResult(Result):
    """The atmosphere there, and what the gauge should show."""

    atmosphere: Quantity
    expected_gauge: Quantity


def _atmosphere(quantity: Quantity | None, field: str) -> float:
    metres = canonical(quantity, "length", field) / 1000
    if not -500 <= metres <= 11_000:
        raise Refused(
            "altitude_implausible",
            f"'{field}' must be an altitude of -500 to 11 000 m",
            field=field,
        )
    return float(SEA_LEVEL_KPA * (1 - LAPSE_PER_M * metres) ** EXPONENT)


@calculation("Compression at altitude")
def altitude_gauge(i: AltitudeGauge) -> AltitudeGaugeResult:
    """The absolute pressure ratio stays: the gauge scales with the atmosphere.

    Example
    -------
    >>> given = {
    ...     "reference_gauge": {"value": 1200, "unit": "kPa"},
    ...     "reference_altitude": {"value": 0, "unit": "m"},
    ...     "altitude": {"value": 1500, "unit": "m"},
    ... }
    >>> found = altitude_gauge(AltitudeGauge.model_validate(given))
    >>> round(found.atmosphere.value, 4), found.atmosphere.unit
    (84.556, 'kPa')
    """
    gauge = i.figure("reference_gauge")
    there, here = (
        _atmosphere(i.reference_altitude, "reference_altitude"),
        _atmosphere(i.altitude, "altitude"),
    )
    unit = i.reference_gauge.unit if i.reference_gauge else "kPa"
    return AltitudeGaugeResult(
        atmosphere=in_unit(here, "kPa"),
        expected_gauge=in_unit(gauge * here / there, unit),
        working=(f"{gauge:g} × {here:.1f} ÷ {there:.1f} = {gauge * here / there:.1f} kPa",),
    )


class LeakDown(Input):
    """Pressure put in, and what the cylinder holds."""

    supply: Pressure = None
    cylinder: Pressure = None


class LeakDownResult(Result):
    """Leak in percent of the supply."""

    leak: Quantity


@calculation("Leak-down")
def leak_down(i: LeakDown) -> LeakDownResult:
    """(supply - cylinder) / supply; testers differ, so compare cylinders.

    Refuses `no_reading`, `pressure_reversed`.

    Example
    -------
    >>> given = {
    ...     "supply": {"value": 6.9, "unit": "bar"},
    ...     "cylinder": {"value": 6.2, "unit": "bar"},
    ... }
    >>> found = leak_down(LeakDown.model_validate(given))
    >>> round(found.leak.value, 4), found.leak.unit
    (10.1449, '%')
    """
    supply, cylinder = i.figure("supply"), i.figure("cylinder")
    if supply <= 0:
        raise Refused("no_reading", "'supply' must be a pressure above zero", field="supply")
    if cylinder > supply or cylinder < 0:
        raise Refused(
            "pressure_reversed",
            "the cylinder cannot hold more than is put in: the two gauges are swapped",
            field="cylinder",
        )
    leak = (supply - cylinder) / supply * 100
    return LeakDownResult(
        leak=Quantity(value=leak, unit="%"),
        working=(f"({supply:g} − {cylinder:g}) ÷ {supply:g} = {leak:.1f} %",),
    )


class CompressionRatio(Input):
    """Bore, stroke, chamber, gasket (its own bore, crushed), deck height (piston below the deck
    positive), dish (dome negative).
    """

    bore: Length = None
    stroke: Length = None
    chamber: Volume = None
    gasket_bore: Length = None
    gasket_thickness: Length = None
    deck_height: Length = None
    piston_dish: Volume = None


class CompressionRatioResult(Result):
    """Swept and clearance volume, and the ratio."""

    swept: Quantity
    clearance_volume: Quantity
    ratio: Quantity


@calculation("Compression ratio")
def compression_ratio(i: CompressionRatio) -> CompressionRatioResult:
    """(V_s + V_c) / V_c with V_c = chamber + gasket + deck + dish; refuses
    `clearance_volume_not_positive`.

    Example
    -------
    >>> given = {
    ...     "bore": {"value": 86, "unit": "mm"},
    ...     "stroke": {"value": 86, "unit": "mm"},
    ...     "chamber": {"value": 46, "unit": "mL"},
    ...     "gasket_bore": {"value": 87.5, "unit": "mm"},
    ...     "gasket_thickness": {"value": 1.2, "unit": "mm"},
    ...     "deck_height": {"value": 0.4, "unit": "mm"},
    ...     "piston_dish": {"value": 5.5, "unit": "mL"},
    ... }
    >>> found = compression_ratio(CompressionRatio.model_validate(given))
    >>> round(found.swept.value, 4), found.swept.unit
    (499.5572, 'mL')
    """
    bore, stroke = i.figure("bore"), i.figure("stroke")
    if bore <= 0 or stroke <= 0:
        raise Refused("not_a_finite_number", "'bore' and 'stroke' must be above zero", field="bore")
    gasket = pi / 4 * i.figure("gasket_bore") ** 2 * i.figure("gasket_thickness") / 1000
    deck = pi / 4 * bore**2 * i.figure("deck_height") / 1000
    chamber, dish = i.figure("chamber"), i.figure("piston_dish")
    swept, left = pi / 4 * bore**2 * stroke / 1000, chamber + gasket + deck + dish
    if round9(left) <= 0:
        raise Refused(
            "clearance_volume_not_positive",
            "nothing is left above the piston: check the deck height and the dish, a dome is "
            "negative",
            field="chamber",
        )
    ratio = (swept + left) / left
    return CompressionRatioResult(
        swept=in_unit(swept, "mL"),
        clearance_volume=in_unit(left, "mL"),
        ratio=in_unit(ratio, "1"),
        working=(
            f"{chamber:g} + {gasket:.2f} + {deck:.2f} + {dish:g} = {left:.2f} mL",
            f"({swept:.1f} + {left:.2f}) ÷ {left:.2f} = {ratio:.2f}",
        ),
    )
