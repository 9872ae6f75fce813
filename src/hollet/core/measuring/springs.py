"""Springs: coil, torsion bar and fluid. Lengths in mm, forces in N.

Linear springs by the lever of the wheel.
"""

from typing import Annotated

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Pressure, Ratio, Stiffness
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["fluid_spring", "spring_sag", "spring_spacer", "torsion_bar_index"]

MOST_SPLINES = 200

MOTION_RATIOS = (0.2, 1.2)


class SpringSpacer(Input):
    """Height wanted at the wheel, spring travel per wheel travel, and the rate of the spring."""

    height_change: Length = None
    motion_ratio: Ratio = None
    spring_rate: Stiffness = None


class SpringSpacerResult(Result):
    """Spacer at the spring, and the rate at the wheel."""

    spacer: Quantity
    wheel_rate: Quantity | None = None


@calculation("Spring spacer")
def spring_spacer(i: SpringSpacer) -> SpringSpacerResult:
    """spacer = height change x motion ratio; wheel rate = spring rate x motion ratio squared.

    Raises
    ------
    Refused
        `motion_ratio_out_of_range` outside 0.2 to 1.2 (above it, mostly the inverse ratio).

    Example
    -------
    >>> given = {
    ...     "height_change": {"value": 12, "unit": "mm"},
    ...     "motion_ratio": {"value": 0.62, "unit": "1"},
    ...     "spring_rate": {"value": 60, "unit": "N/mm"},
    ... }
    >>> found = spring_spacer(SpringSpacer.model_validate(given))
    >>> round(found.spacer.value, 4), found.spacer.unit
    (7.44, 'mm')
    """
    change, ratio = i.figure("height_change"), i.figure("motion_ratio")
    if not MOTION_RATIOS[0] <= ratio <= MOTION_RATIOS[1]:
        raise Refused(
            "motion_ratio_out_of_range",
            "'motion_ratio' is spring travel over wheel travel, 0.2 to 1.2: is it upside down?",
            field="motion_ratio",
        )
    lines = [f"{change:g} × {ratio:g} = {change * ratio:.3f} mm"]
    rate: Quantity | None = None
    if i.spring_rate:
        k = i.figure("spring_rate")
        rate = in_unit(k * ratio**2, i.spring_rate.unit)
        lines.append(f"{k:g} × {ratio:g}² = {k * ratio**2:.3f} N/mm at the wheel")
    return SpringSpacerResult(
        spacer=in_unit(change * ratio, i.height_change.unit if i.height_change else "mm"),
        wheel_rate=rate,
        working=tuple(lines),
    )


class SpringSag(Input):
    """Height of the spring under its test load, as specified and as measured, and its rate."""

    specified_height_at_load: Length = None
    measured_height_at_load: Length = None
    spring_rate: Stiffness = None


class SpringSagResult(Result):
    """How much the spring has sat down, which a spacer as thick would restore, and the force it
    lost.
    """

    sag: Quantity
    lost_force: Quantity


@calculation("Spring sag")
def spring_sag(i: SpringSag) -> SpringSagResult:
    """sag = specified - measured height at one load; lost force = rate x sag (Hooke).

    Example
    -------
    >>> given = {
    ...     "specified_height_at_load": {"value": 228, "unit": "mm"},
    ...     "measured_height_at_load": {"value": 217, "unit": "mm"},
    ...     "spring_rate": {"value": 32, "unit": "N/mm"},
    ... }
    >>> found = spring_sag(SpringSag.model_validate(given))
    >>> round(found.sag.value, 4), found.sag.unit
    (11.0, 'mm')
    """
    wanted, found, rate = (
        i.figure("specified_height_at_load"),
        i.figure("measured_height_at_load"),
        i.figure("spring_rate"),
    )
    sag = wanted - found
    return SpringSagResult(
        sag=in_unit(sag, i.specified_height_at_load.unit if i.specified_height_at_load else "mm"),
        lost_force=in_unit(rate * sag, "N"),
        working=(
            f"{wanted:g} − {found:g} = {sag:g} mm",
            f"{rate:g} × {sag:g} = {rate * sag:.1f} N",
        ),
    )


class TorsionBarIndex(Input):
    """Splines at both ends of the bar, and the angle wanted."""

    inner_splines: Annotated[int, Field(ge=2, le=MOST_SPLINES)]
    outer_splines: Annotated[int, Field(ge=2, le=MOST_SPLINES)]
    wanted_angle: Angle = None


class TorsionBarIndexResult(Result):
    """Splines to turn the inner end on and the outer end back (negative: the other way), and the
    angle that gives.
    """

    inner_splines: Quantity
    outer_splines: Quantity
    angle: Quantity


@calculation("Torsion bar, splines to move")
def torsion_bar_index(i: TorsionBarIndex) -> TorsionBarIndexResult:
    """Exact search of n 360 / N1 - m 360 / N2 for the angle nearest to the one wanted; the fewest
    splines among equals.

    Example
    -------
    >>> given = {
    ...     "inner_splines": 24,
    ...     "outer_splines": 25,
    ...     "wanted_angle": {"value": 3, "unit": "deg"},
    ... }
    >>> found = torsion_bar_index(TorsionBarIndex.model_validate(given))
    >>> round(found.inner_splines.value, 4), found.inner_splines.unit
    (5.0, 'splines')
    """
    wanted = i.figure("wanted_angle")
    first, second = 360 / i.inner_splines, 360 / i.outer_splines
    tries = (
        (n, m)
        for n in range(-i.inner_splines, i.inner_splines + 1)
        for m in range(-i.outer_splines, i.outer_splines + 1)
    )
    n, m = min(
        tries,
        key=lambda t: (
            round9(abs(t[0] * first - t[1] * second - wanted)),
            abs(t[0]) + abs(t[1]),
            -t[0],
        ),
    )
    found = n * first - m * second
    return TorsionBarIndexResult(
        inner_splines=Quantity(value=n, unit="splines"),
        outer_splines=Quantity(value=m, unit="splines"),
        angle=in_unit(found, "deg"),
        working=(
            f"{n} × 360° ÷ {i.inner_splines} − {m} × 360° ÷ {i.outer_splines} = {found:.3f}°",
        ),
    )


class FluidSpring(Input):
    """Two heights with their pressures, and the height wanted."""

    height_1: Length = None
    pressure_1: Pressure = None
    height_2: Length = None
    pressure_2: Pressure = None
    target_height: Length = None


class FluidSpringResult(Result):
    """Height per pressure (mm per unit of the pressures), and the pressure for the target."""

    slope: Quantity
    pressure: Quantity


@calculation("Fluid spring, pressure for a height")
def fluid_spring(i: FluidSpring) -> FluidSpringResult:
    """h = h1 + s (p - p1) through two calibrations; good only between and close to them, gas
    springs stiffen.

    Raises
    ------
    Refused
        `calibration_bad` when more pressure did not raise it.

    Example
    -------
    >>> given = {
    ...     "height_1": {"value": 338, "unit": "mm"},
    ...     "pressure_1": {"value": 16, "unit": "bar"},
    ...     "height_2": {"value": 361, "unit": "mm"},
    ...     "pressure_2": {"value": 19, "unit": "bar"},
    ...     "target_height": {"value": 355, "unit": "mm"},
    ... }
    >>> found = fluid_spring(FluidSpring.model_validate(given))
    >>> round(found.slope.value, 4), found.slope.unit
    (7.6667, 'mm/bar')
    """
    h1, p1, h2, p2, target = (
        i.figure(name)
        for name in ("height_1", "pressure_1", "height_2", "pressure_2", "target_height")
    )
    if p1 == p2 or (h2 - h1) / (p2 - p1) <= 0:
        raise Refused(
            "calibration_bad",
            "more pressure must give more height: the two calibrations do not show it",
            field="height_2",
        )
    slope, unit = (h2 - h1) / (p2 - p1), i.pressure_1.unit if i.pressure_1 else "kPa"
    pressure = p1 + (target - h1) / slope
    shown = in_unit(pressure, unit)
    per = slope * canonical(Quantity(value=1, unit=unit), "pressure", "pressure_1")
    beyond = (
        ()
        if min(h1, h2) <= target <= max(h1, h2)
        else ("the target lies outside the two calibrations: measure there again",)
    )
    return FluidSpringResult(
        slope=Quantity(value=per, unit=f"mm/{shown.unit}"),
        pressure=shown,
        working=(
            f"slope: {h2 - h1:g} mm for {p2 - p1:g} kPa = {per:.4f} mm/{shown.unit}",
            f"{shown.value:.4f} {shown.unit} for {target:g} mm",
            *beyond,
        ),
    )
