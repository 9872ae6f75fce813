"""Pulleys and belts: speed of what is driven, deflection and tension.

Lengths in mm; kinematics and belt-drive practice.
"""

from hollet.core.errors import Refused
from hollet.core.fields import Force, Length, Ratio, Speed
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["accessory_speed", "belt_deflection", "belt_tension"]

RATIOS = (0.25, 6.0)
SPAN_PER_DEFLECTION = 64


class AccessorySpeed(Input):
    """Pitch diameters of both pulleys, speed of the engine at its limit, what the driven part is
    rated for, slip of the belt.
    """

    crank_pulley: Length = None
    accessory_pulley: Length = None
    crank_speed: Speed = None
    rated_max: Speed = None
    slip: Ratio = Quantity(value=0, unit="1")


class AccessorySpeedResult(Result):
    """Ratio, speed of the driven part, whether it stands that, and the crank speed at which it
    would not.
    """

    ratio: float
    accessory_speed: Quantity
    ok: bool
    max_crank_speed: Quantity


@calculation("Accessory speed")
def accessory_speed(i: AccessorySpeed) -> AccessorySpeedResult:
    """n = crank speed x D crank / D accessory x (1 - slip), pitch diameters.

    Raises
    ------
    Refused
        `not_positive`; `ratio_implausible` outside 0.25 to 6 or with a slip that is no share below
        1.

    Example
    -------
    >>> given = {
    ...     "crank_pulley": {"value": 150, "unit": "mm"},
    ...     "accessory_pulley": {"value": 60, "unit": "mm"},
    ...     "crank_speed": {"value": 6500, "unit": "rpm"},
    ...     "rated_max": {"value": 18000, "unit": "rpm"},
    ...     "slip": {"value": 0, "unit": "1"},
    ... }
    >>> found = accessory_speed(AccessorySpeed.model_validate(given))
    >>> round(found.accessory_speed.value, 4), found.accessory_speed.unit
    (16250.0, 'rpm')
    """
    crank, driven, speed, rated, slip = (
        *(
            i.positive(name)
            for name in ("crank_pulley", "accessory_pulley", "crank_speed", "rated_max")
        ),
        i.figure("slip"),
    )
    ratio = crank / driven
    if not RATIOS[0] <= ratio <= RATIOS[1] or not 0 <= slip < 1:
        raise Refused(
            "ratio_implausible",
            f"{crank:g} to {driven:g} mm with a slip of {slip:g}: pulleys swapped, units mixed?",
            field="accessory_pulley",
        )
    found = speed * ratio * (1 - slip)
    most = rated / (ratio * (1 - slip))
    return AccessorySpeedResult(
        ratio=ratio,
        accessory_speed=in_unit(found, "rpm"),
        ok=round9(found) <= round9(rated),
        max_crank_speed=in_unit(most, "rpm"),
        working=(
            (
                f"{speed:g} × {crank:g} ÷ {driven:g} × (1 − {slip:g}) = {found:.0f} r/min, rated "
                f"for {rated:g}"
            ),
        ),
    )


class BeltDeflection(Input):
    """Free length of the belt between two pulleys."""

    span: Length = None


class BeltDeflectionResult(Result):
    """Deflection at mid-span under a firm thumb."""

    deflection: Quantity


@calculation("Belt deflection, rule of thumb")
def belt_deflection(i: BeltDeflection) -> BeltDeflectionResult:
    """Rule of thumb: span / 64.

    Other rules give twice that; the maker's figure wins. Refuses `not_positive`.

    Example
    -------
    >>> given = {
    ...     "span": {"value": 320, "unit": "mm"},
    ... }
    >>> found = belt_deflection(BeltDeflection.model_validate(given))
    >>> round(found.deflection.value, 4), found.deflection.unit
    (5.0, 'mm')
    """
    span = i.positive("span")
    words = (
        f"{span:g} ÷ {SPAN_PER_DEFLECTION} = {span / SPAN_PER_DEFLECTION:.2f} mm, a rule of thumb"
    )
    return BeltDeflectionResult(
        deflection=in_unit(span / SPAN_PER_DEFLECTION, i.span.unit if i.span else "mm"),
        working=(words,),
    )


class BeltTension(Input):
    """Force at mid-span, free length, and how far it gave."""

    force: Force = None
    span: Length = None
    deflection: Length = None


class BeltTensionResult(Result):
    """Tension of one strand."""

    tension: Quantity


@calculation("Belt tension")
def belt_tension(i: BeltTension) -> BeltTensionResult:
    """T = F span / (4 d), a string with a small deflection; refuses `not_positive`.

    Example
    -------
    >>> given = {
    ...     "force": {"value": 40, "unit": "N"},
    ...     "span": {"value": 320, "unit": "mm"},
    ...     "deflection": {"value": 5, "unit": "mm"},
    ... }
    >>> found = belt_tension(BeltTension.model_validate(given))
    >>> round(found.tension.value, 4), found.tension.unit
    (640.0, 'N')
    """
    force, span, deflection = i.positive("force"), i.positive("span"), i.positive("deflection")
    tension = force * span / (4 * deflection)
    return BeltTensionResult(
        tension=in_unit(tension, i.force.unit if i.force else "N"),
        working=(f"{force:g} × {span:g} ÷ (4 × {deflection:g}) = {tension:.0f} N",),
    )
