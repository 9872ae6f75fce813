"""What stands under a load: axle stands, and the boom of a crane drawn out."""

from hollet.core.errors import Refused
from hollet.core.fields import Length, Mass, Ratio
from hollet.core.lifting.slings import positive_mass
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["axle_stands", "crane_boom"]


class Stands(Input):
    """The vehicle, which share of it this axle carries, and the stands under it with their rating;
    a rating is often printed for the pair.
    """

    vehicle_mass: Mass = None
    axle_share: Ratio = None
    rating: Mass = None
    rating_is_per_pair: bool = True
    stands: int = 2


class StandsResult(Result):
    """Load and capacity of each stand; the worse side of an uneven load is looked at by itself."""

    load_each: Quantity
    capacity_each: Quantity
    utilisation: Quantity
    ok: bool


@calculation("Axle stands")
def axle_stands(i: Stands) -> StandsResult:
    """Mass times share over count, against the rating of one.

    Raises
    ------
    Refused
        `too_few_stands`: one stand tips; `mass_not_positive`, `wll_missing`, `bad_option` (a share
        outside 0 to 1).

    Example
    -------
    >>> found = axle_stands(Stands(vehicle_mass={"value": 1450, "unit": "kg"},
    ...     axle_share={"value": 0.55, "unit": "1"}, rating={"value": 2000, "unit": "kg"}))
    >>> round(found.load_each.value, 2), found.capacity_each.value
    (398.75, 1000.0)
    """
    mass = positive_mass(i, "vehicle_mass")
    if i.stands < 2:
        words = "two stands or more: on one it tips"
        raise Refused("too_few_stands", words, field="stands")
    share = i.figure("axle_share")
    if not 0 < share <= 1:
        words = "'axle_share' must lie between 0 and 1, such as 0.55"
        raise Refused("bad_option", words, field="axle_share")
    if i.rating is None or i.figure("rating") <= 0:
        words = "stands without a rating carry nothing that somebody lies under"
        raise Refused("wll_missing", words, field="rating")
    load = mass * share / i.stands
    capacity = i.figure("rating") / (2 if i.rating_is_per_pair else 1)
    used = load / capacity
    unit = i.vehicle_mass.unit if i.vehicle_mass is not None else "kg"
    return StandsResult(
        load_each=in_unit(load, unit),
        capacity_each=in_unit(capacity, i.rating.unit),
        utilisation=Quantity(value=used, unit="1"),
        ok=round9(used) <= 1,
        working=(f"{load / 1000:.0f} kg on each of {i.stands}, {capacity / 1000:.0f} kg allowed",),
    )


class Boom(Input):
    """What the plate of a crane says for one hole of its boom, and how far it is drawn out."""

    rated_capacity: Mass = None
    rated_reach: Length = None
    reach: Length = None


class BoomResult(Result):
    """What it may carry there."""

    capacity: Quantity


@calculation("Crane boom drawn out")
def crane_boom(i: Boom) -> BoomResult:
    """C₀ r₀ / r, never above the plate: the same moment. Only where the plate gives no value for
    that hole.

    Raises
    ------
    Refused
        `wll_missing`: no capacity on its plate; `not_positive`.

    Example
    -------
    >>> found = crane_boom(Boom(rated_capacity={"value": 1000, "unit": "kg"},
    ...     rated_reach={"value": 900, "unit": "mm"}, reach={"value": 1150, "unit": "mm"}))
    >>> round(found.capacity.value, 1)
    782.6
    """
    if i.rated_capacity is None or i.figure("rated_capacity") <= 0:
        words = "the capacity on its plate must be given: no marked limit, no lift"
        raise Refused("wll_missing", words, field="rated_capacity")
    plate, at, reach = i.figure("rated_capacity"), i.positive("rated_reach"), i.positive("reach")
    capacity = min(plate, plate * at / reach)
    return BoomResult(
        capacity=in_unit(capacity, i.rated_capacity.unit),
        working=(f"{plate / 1000:g} kg × {at:g} ÷ {reach:g} = {capacity / 1000:.0f} kg",),
    )
