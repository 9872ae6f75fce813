"""Fluids that are mixed. Volumes in mL.

Volume balance; mixing contraction of glycol and water, below 1 %, is left out.
"""

from hollet.core.errors import Refused
from hollet.core.fields import Ratio, Volume
from hollet.core.measuring.fluids import unit_of
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["coolant_refill", "drain_and_replace", "mix_total", "premix"]


class MixTotal(Input):
    """What is wanted in all, in parts a to b."""

    total: Volume = None
    a: float
    b: float


class MixTotalResult(Result):
    """How much of each."""

    part_a: Quantity
    part_b: Quantity


@calculation("Mix a to b")
def mix_total(i: MixTotal) -> MixTotalResult:
    """V a / (a + b) and V b / (a + b); refuses `ratio_not_positive` and `not_positive`.

    Example
    -------
    >>> given = {
    ...     "total": {"value": 6.4, "unit": "L"},
    ...     "a": 50,
    ...     "b": 50,
    ... }
    >>> found = mix_total(MixTotal.model_validate(given))
    >>> round(found.part_a.value, 4), found.part_a.unit
    (3.2, 'L')
    """
    total = i.positive("total")
    for name, part in (("a", i.a), ("b", i.b)):
        if not 0 < part < 1e9:
            raise Refused("ratio_not_positive", f"'{name}' must be above zero", field=name)
    first, unit = total * i.a / (i.a + i.b), unit_of(i.total, "mL")
    return MixTotalResult(
        part_a=in_unit(first, unit),
        part_b=in_unit(total - first, unit),
        working=(
            (
                f"{total:g} × {i.a:g} ÷ {i.a + i.b:g} = {first:.1f} mL, the rest "
                f"{total - first:.1f} mL"
            ),
        ),
    )


class Premix(Input):
    """Fuel, and how many parts of it go to one of oil."""

    fuel: Volume = None
    ratio: float


class PremixResult(Result):
    """Oil in mL."""

    oil: Quantity


@calculation("Fuel and oil mix")
def premix(i: Premix) -> PremixResult:
    """oil = fuel / ratio; refuses `ratio_not_positive` and `not_positive`.

    Example
    -------
    >>> found = premix(Premix.model_validate({"fuel": {"value": 5, "unit": "L"}, "ratio": 50}))
    >>> round(found.oil.value, 4), found.oil.unit
    (100.0, 'mL')
    """
    fuel = i.positive("fuel")
    if not 0 < i.ratio < 1e6:
        raise Refused(
            "ratio_not_positive",
            "'ratio' is parts of fuel to one of oil, such as 50",
            field="ratio",
        )
    return PremixResult(
        oil=in_unit(fuel / i.ratio, "mL"),
        working=(f"{fuel:g} ÷ {i.ratio:g} = {fuel / i.ratio:.1f} mL",),
    )


def _share(i: Input, field: str) -> float:
    found = i.figure(field)
    if not 0 <= found <= 1:
        raise Refused(
            "ratio_not_positive",
            f"'{field}' is a share between 0 and 1, such as 0.5 for half",
            field=field,
        )
    return found


class CoolantRefill(Input):
    """The whole system, what stayed in it and how strong that is, the strength wanted, and that of
    the concentrate.
    """

    system: Volume = None
    left_inside: Volume = None
    left_concentration: Ratio = None
    target_concentration: Ratio = None
    concentrate_strength: Ratio = Quantity(value=1, unit="1")


class CoolantRefillResult(Result):
    """Concentrate and distilled water to pour."""

    concentrate: Quantity
    water: Quantity


@calculation("Coolant refill")
def coolant_refill(i: CoolantRefill) -> CoolantRefillResult:
    """concentrate = (target V - left strength x left) / strength; water the rest of V - left.

    Raises
    ------
    Refused
        `no_room` when the concentrate needed does not fit, or what is left is too strong already;
        `overfull`, `ratio_not_positive`.

    Example
    -------
    >>> given = {
    ...     "system": {"value": 8, "unit": "L"},
    ...     "left_inside": {"value": 3, "unit": "L"},
    ...     "left_concentration": {"value": 0, "unit": "1"},
    ...     "target_concentration": {"value": 0.5, "unit": "1"},
    ...     "concentrate_strength": {"value": 1, "unit": "1"},
    ... }
    >>> found = coolant_refill(CoolantRefill.model_validate(given))
    >>> round(found.concentrate.value, 4), found.concentrate.unit
    (4.0, 'L')
    """
    system, inside = i.positive("system"), i.figure("left_inside")
    left, target, strength = (
        _share(i, "left_concentration"),
        _share(i, "target_concentration"),
        _share(i, "concentrate_strength"),
    )
    if not 0 <= inside <= system:
        raise Refused(
            "overfull",
            "'left_inside' must lie between nothing and the whole system",
            field="left_inside",
        )
    if strength == 0:
        raise Refused(
            "ratio_not_positive",
            "'concentrate_strength' must be above zero",
            field="concentrate_strength",
        )
    need, room = (target * system - left * inside) / strength, system - inside
    if round9(need) > round9(room):
        raise Refused(
            "no_room",
            f"it needs {need / 1000:.2f} L of concentrate and has room for {room / 1000:.2f} L: "
            "drain more first",
            field="left_inside",
        )
    if round9(need) < 0:
        raise Refused(
            "no_room",
            "what is left inside is stronger than wanted: drain more first, then fill",
            field="left_inside",
        )
    unit = unit_of(i.system, "mL")
    return CoolantRefillResult(
        concentrate=in_unit(need, unit),
        water=in_unit(room - need, unit),
        working=(
            f"({target:g} × {system:g} − {left:g} × {inside:g}) ÷ {strength:g} = {need:.0f} mL",
            f"{room:g} − {need:.0f} = {room - need:.0f} mL of water",
        ),
    )


class DrainAndReplace(Input):
    """The whole system, its strength as it is and as wanted, and the strength of what goes in."""

    system: Volume = None
    present: Ratio = None
    target: Ratio = None
    refill_strength: Ratio = Quantity(value=1, unit="1")


class DrainAndReplaceResult(Result):
    """What to drain, and to fill in again."""

    drain: Quantity


@calculation("Drain and replace")
def drain_and_replace(i: DrainAndReplace) -> DrainAndReplaceResult:
    """V (target - present) / (refill - present).

    Raises
    ------
    Refused
        `no_room` when no exchange with this refill can give the target; `not_positive`,
        `ratio_not_positive`.

    Example
    -------
    >>> given = {
    ...     "system": {"value": 7, "unit": "L"},
    ...     "present": {"value": 0.3, "unit": "1"},
    ...     "target": {"value": 0.5, "unit": "1"},
    ...     "refill_strength": {"value": 1, "unit": "1"},
    ... }
    >>> found = drain_and_replace(DrainAndReplace.model_validate(given))
    >>> round(found.drain.value, 4), found.drain.unit
    (2.0, 'L')
    """
    system, present, target, refill = (
        i.positive("system"),
        _share(i, "present"),
        _share(i, "target"),
        _share(i, "refill_strength"),
    )
    drain = (
        0.0
        if target == present
        else system * (target - present) / (refill - present)
        if refill != present
        else -1.0
    )
    if not 0 <= round9(drain) <= round9(system):
        raise Refused(
            "no_room",
            f"no exchange with a refill of {refill:g} brings {present:g} to {target:g}",
            field="refill_strength",
        )
    return DrainAndReplaceResult(
        drain=in_unit(drain, unit_of(i.system, "mL")),
        working=(
            (
                f"{system:g} × ({target:g} − {present:g}) ÷ ({refill:g} − {present:g}) = "
                f"{drain:.0f} mL"
            ),
        ),
    )
