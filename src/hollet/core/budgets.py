"""Uncertainty of what several figures make: a clearance, a gauge set with a micrometer, two leaves,
a part brought to 20 °C. JCGM 100: root sum of squares.
"""

import math

from hollet.core.errors import Refused
from hollet.core.fields import Expansion, Length, Lengths, Temperature
from hollet.core.quantities.quantity import (
    Quantity,
    in_unit,
)
from hollet.core.registry import Input, Result, calculation
from hollet.core.verdicts import rectangular, scale_of

__all__ = ["bore_gauge_chain", "clearance_uncertainty", "feeler_reading", "to_20C"]


class ClearanceUncertainty(Input):
    """A bore and a journal with their own half-widths, and one zero error that may be shared."""

    bore: Length = None
    journal: Length = None
    bore_own_half_widths: Lengths = None
    journal_own_half_widths: Lengths = None
    zero_error_half_width: Quantity | None = None
    same_instrument_zero: bool


class ClearanceUncertaintyResult(Result):
    """The clearance with its combined and expanded uncertainty (k = 2)."""

    clearance: Quantity
    u_c: Quantity
    U: Quantity


@calculation("Uncertainty of a clearance")
def clearance_uncertainty(i: ClearanceUncertainty) -> ClearanceUncertaintyResult:
    """Clearance = bore - journal; a zero error shared by both has sensitivity +1 - 1 = 0 and drops
    out; k = 2.

    Example
    -------
    >>> given = {
    ...     "bore": {"value": 52.025, "unit": "mm"},
    ...     "journal": {"value": 51.978, "unit": "mm"},
    ...     "bore_own_half_widths": {"value": [0.005, 0.004, 0.001], "unit": "mm"},
    ...     "journal_own_half_widths": {"value": [0.004, 0.0005], "unit": "mm"},
    ...     "zero_error_half_width": {"value": 0.003, "unit": "mm"},
    ...     "same_instrument_zero": True,
    ... }
    >>> found = clearance_uncertainty(ClearanceUncertainty.model_validate(given))
    >>> round(found.clearance.value, 4), found.clearance.unit
    (0.047, 'mm')
    """
    bore, journal = i.figure("bore"), i.figure("journal")
    own = i.figures("bore_own_half_widths")
    own += i.figures("journal_own_half_widths")
    zero = scale_of(i.zero_error_half_width, "length", "zero_error_half_width")
    zeros = [] if i.same_instrument_zero else [zero, zero]
    u_c = math.sqrt(math.fsum(rectangular(a) ** 2 for a in own + zeros))
    unit = i.bore.unit if i.bore else "mm"
    return ClearanceUncertaintyResult(
        clearance=in_unit(bore - journal, unit),
        u_c=in_unit(u_c, unit),
        U=in_unit(2 * u_c, unit),
        working=(
            f"{bore:g} − {journal:g} = {bore - journal:.4f} mm",
            f"U = 2 × {u_c:.4g} = {2 * u_c:.4g} mm",
        ),
    )


class BoreGaugeChain(Input):
    """A bore gauge set with a micrometer; n >= 1 gauge readings."""

    setting_micrometer_mpe: Quantity | None = None
    setting_micrometer_resolution: Quantity | None = None
    setting_repeatability_s: Quantity | None = None
    gauge_mpe: Quantity | None = None
    gauge_resolution: Quantity | None = None
    gauge_repeatability_s: Quantity | None = None
    n: int


class ChainResult(Result):
    """Combined and expanded uncertainty (k = 2)."""

    u_c: Quantity
    U: Quantity


@calculation("Bore gauge set with a micrometer")
def bore_gauge_chain(i: BoreGaugeChain) -> ChainResult:
    """Permissible error and resolution of both tools, the setting repeatability once, the gauge's
    over sqrt(n); k = 2.

    Example
    -------
    >>> given = {
    ...     "setting_micrometer_mpe": {"value": 0.005, "unit": "mm"},
    ...     "setting_micrometer_resolution": {"value": 0.001, "unit": "mm"},
    ...     "setting_repeatability_s": {"value": 0.002, "unit": "mm"},
    ...     "gauge_mpe": {"value": 0.005, "unit": "mm"},
    ...     "gauge_resolution": {"value": 0.002, "unit": "mm"},
    ...     "gauge_repeatability_s": {"value": 0.003, "unit": "mm"},
    ...     "n": 3,
    ... }
    >>> found = bore_gauge_chain(BoreGaugeChain.model_validate(given))
    >>> round(found.u_c.value, 6), found.u_c.unit
    (0.004907, 'mm')
    """
    if i.n < 1:
        raise Refused("not_a_finite_number", "'n' must be 1 or more readings", field="n")

    def part(name: str) -> float:
        return scale_of(getattr(i, name), "length", name)

    widths = (
        part("setting_micrometer_mpe"),
        part("setting_micrometer_resolution") / 2,
        part("gauge_mpe"),
        part("gauge_resolution") / 2,
    )
    spread = part("setting_repeatability_s") ** 2 + part("gauge_repeatability_s") ** 2 / i.n
    u_c = math.sqrt(math.fsum(rectangular(a) ** 2 for a in widths) + spread)
    unit = i.gauge_mpe.unit if i.gauge_mpe else "mm"
    return ChainResult(
        u_c=in_unit(u_c, unit), U=in_unit(2 * u_c, unit), working=(f"U = 2 × {u_c:.4g} mm",)
    )


class Feeler(Input):
    """The thickest leaf that enters, the thinnest that does not, the leaves' permissible error."""

    go: Quantity | None = None
    no_go: Quantity | None = None
    mpe: Quantity | None = None


class FeelerResult(Result):
    """The gap in the middle of the two leaves, with its uncertainty."""

    value: Quantity
    u_c: Quantity
    U: Quantity


@calculation("Gap by feeler leaves")
def feeler_reading(i: Feeler) -> FeelerResult:
    """The middle between two leaves, half their difference as a rectangular half-width, k = 2.

    Refuses `feeler_order`.

    Example
    -------
    >>> given = {
    ...     "go": {"value": 0.15, "unit": "mm"},
    ...     "no_go": {"value": 0.2, "unit": "mm"},
    ...     "mpe": {"value": 0.005, "unit": "mm"},
    ... }
    >>> found = feeler_reading(Feeler.model_validate(given))
    >>> round(found.value.value, 4), found.value.unit
    (0.175, 'mm')
    """
    go, no_go = scale_of(i.go, "length", "go"), scale_of(i.no_go, "length", "no_go")
    if go >= no_go:
        raise Refused(
            "feeler_order",
            "the leaf that enters must be thinner than the one that does not",
            field="go",
        )
    half = (no_go - go) / 2
    u_c = math.sqrt(rectangular(half) ** 2 + rectangular(scale_of(i.mpe, "length", "mpe")) ** 2)
    unit = i.go.unit if i.go else "mm"
    return FeelerResult(
        value=in_unit((go + no_go) / 2, unit),
        u_c=in_unit(u_c, unit),
        U=in_unit(2 * u_c, unit),
        working=(f"({go:g} + {no_go:g}) ÷ 2 = {(go + no_go) / 2:g} mm ± {2 * u_c:.3g}",),
    )


class To20(Input):
    """A reading taken at `temperature`; `alpha` in 1/K; the gauge is taken to be at 20 °C."""

    reading: Length = None
    temperature: Temperature = None
    alpha: Expansion = None


class To20Result(Result):
    """The length at 20 °C and the shift."""

    value_at_20C: Quantity
    shift: Quantity


@calculation("Reading brought to 20 °C")
def to_20C(i: To20) -> To20Result:  # noqa: N802
    """D20 = D/(1 + alpha (T - 20)), the reference temperature of ISO 1.

    Example
    -------
    >>> given = {
    ...     "reading": {"value": 86.04, "unit": "mm"},
    ...     "temperature": {"value": 35, "unit": "°C"},
    ...     "alpha": {"value": 2.3e-05, "unit": "1/K"},
    ... }
    >>> found = to_20C(To20.model_validate(given))
    >>> round(found.value_at_20C.value, 4), found.value_at_20C.unit
    (86.0103, 'mm')
    """
    reading = i.figure("reading")
    factor = 1 + i.figure("alpha") * (i.figure("temperature") - 20)
    if factor <= 0:
        raise Refused(
            "not_a_finite_number", "'alpha' is in 1/K, about 0.000012 for steel", field="alpha"
        )
    unit = i.reading.unit if i.reading else "mm"
    return To20Result(
        value_at_20C=in_unit(reading / factor, unit),
        shift=in_unit(reading / factor - reading, unit),
        working=(f"{reading:g} ÷ {factor:.7g} = {reading / factor:.5f} mm",),
    )
