"""What each leg of a sling carries, by statics. Angles are to the horizontal, of the loaded sling.

Below 30 degrees to the horizontal is an absolute stop: longer slings or a spreader. Four legs count
as two, for a rigid load hangs on two that lie across from each other (EN 818-4).
"""

import math

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Mass
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "FLATTEST_DEG",
    "STANDARD_GRAVITY",
    "checked_angle",
    "leg_share",
    "sling_geometry",
    "sling_leg_load",
    "sling_unequal",
    "two_point_share",
]

STANDARD_GRAVITY = 9.80665
FLATTEST_DEG = 30.0
FLAT = "below 30° to the horizontal nothing is lifted: longer slings, or a spreader"


def positive_mass(i: Input, field: str = "mass") -> float:
    """A mass in g; refused (`mass_not_positive`) unless above zero."""
    mass = i.figure(field)
    if mass <= 0:
        words = f"'{field}' must be above zero: what hangs there has a mass"
        raise Refused("mass_not_positive", words, field=field)
    return mass


def checked_angle(degrees: float, field: str) -> float:
    """An angle of a loaded leg; refused `sling_too_flat` or `angle_out_of_range`."""
    if not math.isfinite(degrees) or round9(degrees) > 90 or degrees <= 0:
        words = f"'{field}' must lie between 30° and 90° to the horizontal"
        raise Refused("angle_out_of_range", words, field=field)
    if round9(degrees) < FLATTEST_DEG:
        raise Refused("sling_too_flat", FLAT, field=field)
    return degrees


def leg_share(legs: int, degrees: float, carrying: int | None = None) -> tuple[float, int]:
    """The load of one leg as a share of the mass, and how many legs are counted.

    Raises
    ------
    Refused
        `single_leg_not_vertical`, `bad_option`.
    """
    if not 1 <= legs <= 4:
        raise Refused("bad_option", "'legs' must be 1, 2, 3 or 4", field="legs")
    if legs == 1 and round9(degrees) != 90:
        words = "one leg hangs straight down: 90° to the horizontal"
        raise Refused("single_leg_not_vertical", words, field="angle_to_horizontal")
    counted = min(legs, 2) if carrying is None else carrying
    if not 1 <= counted <= legs:
        words = f"'carrying_legs' must lie between 1 and {legs}"
        raise Refused("bad_option", words, field="carrying_legs")
    return 1 / (counted * math.sin(math.radians(degrees))), counted


class Legs(Input):
    """What hangs, on how many legs, at which angle; `carrying_legs` only where it is proven that
    more than two share the load.
    """

    mass: Mass = None
    legs: int = 2
    angle_to_horizontal: Angle = Quantity(value=60, unit="deg")
    carrying_legs: int | None = None


class LegLoad(Result):
    """Load of one leg as a mass and as a force, the pull sideways, and how many legs count."""

    leg_load: Quantity
    horizontal_pull: Quantity
    carrying_legs: Quantity
    leg_force: Quantity


@calculation("Load of a sling leg")
def sling_leg_load(i: Legs) -> LegLoad:
    """W / (k sin α), with k = 1 or 2 legs that carry.

    Raises
    ------
    Refused
        `mass_not_positive`, `sling_too_flat`, `angle_out_of_range`, `single_leg_not_vertical`,
        `bad_option`, `not_a_finite_number`.

    Example
    -------
    >>> round(sling_leg_load(Legs(mass={"value": 240, "unit": "kg"})).leg_load.value, 3)
    138.564
    """
    mass = positive_mass(i)
    angle = checked_angle(i.figure("angle_to_horizontal"), "angle_to_horizontal")
    share, counted = leg_share(i.legs, angle, i.carrying_legs)
    unit = i.mass.unit if i.mass is not None else "kg"
    load = mass * share
    pull = 0.0 if i.legs == 1 else load * math.cos(math.radians(angle))
    return LegLoad(
        leg_load=in_unit(load, unit),
        horizontal_pull=in_unit(pull, unit),
        carrying_legs=Quantity(value=counted, unit="legs"),
        leg_force=Quantity(value=load / 1000 * STANDARD_GRAVITY, unit="N"),
        working=(
            f"{mass / 1000:g} kg ÷ ({counted} × sin {angle:g}°) = {load / 1000:.1f} kg a leg",
        ),
    )


class Triangle(Input):
    """Two equal legs, hook to eye, and how far the eyes stand apart."""

    leg_length: Length = None
    eye_distance: Length = None


class TriangleResult(Result):
    """Angle to the horizontal, and how high the hook stands over the eyes."""

    angle: Quantity
    hook_height: Quantity


@calculation("Angle of a sling from its lengths")
def sling_geometry(i: Triangle) -> TriangleResult:
    """acos(s / 2L), and the height by Pythagoras.

    Raises
    ------
    Refused
        `geometry_impossible`: the legs do not reach; `sling_too_flat`; `not_positive`.

    Example
    -------
    >>> found = sling_geometry(Triangle(leg_length={"value": 600, "unit": "mm"},
    ...     eye_distance={"value": 500, "unit": "mm"}))
    >>> round(found.angle.value, 2), round(found.hook_height.value, 1)
    (65.38, 545.4)
    """
    leg, apart = i.positive("leg_length"), i.figure("eye_distance")
    if apart < 0 or apart >= 2 * leg:
        words = f"two legs of {leg:g} mm do not reach over {apart:g} mm"
        raise Refused("geometry_impossible", words, field="eye_distance")
    angle = checked_angle(math.degrees(math.acos(apart / (2 * leg))), "leg_length")
    height = math.sqrt(leg**2 - (apart / 2) ** 2)
    return TriangleResult(
        angle=Quantity(value=angle, unit="deg"),
        hook_height=in_unit(height, i.leg_length.unit if i.leg_length is not None else "mm"),
        working=(f"acos({apart:g} ÷ (2 × {leg:g})) = {angle:.1f}°",),
    )


class Unequal(Input):
    """What hangs under the hook, and the angles of the two legs to the horizontal."""

    mass: Mass = None
    angle_1: Angle = None
    angle_2: Angle = None


class UnequalResult(Result):
    """Load of each leg."""

    leg_1: Quantity
    leg_2: Quantity


@calculation("Two unequal sling legs")
def sling_unequal(i: Unequal) -> UnequalResult:
    """T₁ = W cos α₂ / sin(α₁ + α₂): the hook over the centre of gravity (Lami's theorem).

    Raises
    ------
    Refused
        `mass_not_positive`, `sling_too_flat`, `angle_out_of_range`.

    Example
    -------
    >>> found = sling_unequal(Unequal(mass={"value": 220, "unit": "kg"},
    ...     angle_1={"value": 70, "unit": "deg"}, angle_2={"value": 50, "unit": "deg"}))
    >>> round(found.leg_1.value, 1), round(found.leg_2.value, 1)
    (163.3, 86.9)
    """
    mass = positive_mass(i)
    one = checked_angle(i.figure("angle_1"), "angle_1")
    two = checked_angle(i.figure("angle_2"), "angle_2")
    total = math.sin(math.radians(one + two))
    if round9(total) <= 0:
        words = "two legs that hang straight down share by their places, not by their angles"
        raise Refused("angle_out_of_range", words, field="angle_2")
    unit = i.mass.unit if i.mass is not None else "kg"
    loads = [mass * math.cos(math.radians(other)) / total for other in (two, one)]
    return UnequalResult(
        leg_1=in_unit(loads[0], unit),
        leg_2=in_unit(loads[1], unit),
        working=(f"{loads[0] / 1000:.1f} kg and {loads[1] / 1000:.1f} kg",),
    )


class TwoPoints(Input):
    """A load on two points, how far apart they are, and where its centre of gravity lies from the
    first.
    """

    mass: Mass = None
    distance: Length = None
    cog_from_point_1: Length = None


class TwoPointsResult(Result):
    """Load on each point."""

    load_1: Quantity
    load_2: Quantity


@calculation("Load on two points")
def two_point_share(i: TwoPoints) -> TwoPointsResult:
    """W (d - x) / d and W x / d, by levers.

    Raises
    ------
    Refused
        `cog_outside`: the load tips; `mass_not_positive`, `not_positive`.

    Example
    -------
    >>> found = two_point_share(TwoPoints(mass={"value": 285, "unit": "kg"},
    ...     distance={"value": 900, "unit": "mm"}, cog_from_point_1={"value": 360, "unit": "mm"}))
    >>> found.load_1.value, found.load_2.value
    (171.0, 114.0)
    """
    mass, apart, at = positive_mass(i), i.positive("distance"), i.figure("cog_from_point_1")
    if not 0 <= at <= apart:
        words = "the centre of gravity lies outside the two points: the load tips"
        raise Refused("cog_outside", words, field="cog_from_point_1")
    unit = i.mass.unit if i.mass is not None else "kg"
    one, two = mass * (apart - at) / apart, mass * at / apart
    return TwoPointsResult(
        load_1=in_unit(one, unit),
        load_2=in_unit(two, unit),
        working=(f"{one / 1000:.1f} kg and {two / 1000:.1f} kg of {mass / 1000:g} kg",),
    )
