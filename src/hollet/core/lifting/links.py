"""The weakest link: every part between the load and what holds it, by its marked limit."""

from typing import Literal

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Mass, Ratio
from hollet.core.lifting.slings import checked_angle, leg_share, positive_mass
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["multi_leg_wll", "weakest_link"]

FACTORS = {2: (1.4, 1.0), 3: (2.1, 1.5), 4: (2.1, 1.5)}
"""EN 818-4, uniform load method: to 45° and to 60° from the vertical."""


class Link(BaseModel):
    """A part, its marked limit, by what it is derated (an edge, a choke, a pull sideways), and
    whether it carries one leg's load or the whole.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
    name: str
    wll: Quantity | None = None
    derating: float = 1.0
    where: Literal["top", "leg"]


class Links(Input):
    """What hangs, with what jerk (1.25 where nothing is known), on which legs, by which parts."""

    mass: Mass = None
    dynamic_factor: Ratio = Quantity(value=1.25, unit="1")
    legs: int = 2
    angle_to_horizontal: Angle = None
    parts: tuple[Link, ...] = ()


class Weakest(Result):
    """The part that is used most, how far, and what mass would use it up."""

    weakest: str
    utilisation: Quantity
    max_mass: Quantity
    ok: bool


@calculation("Weakest link of a lift")
def weakest_link(i: Links) -> Weakest:
    """Dynamic factor times load over (limit times derating), the largest decides.

    Raises
    ------
    Refused
        `wll_missing`: a part without a marked limit lifts nothing; `derating_out_of_range`;
        `too_few`: no part; `factor_out_of_range`: a dynamic factor below 1; and what
        `sling_leg_load` refuses.

    Example
    -------
    >>> hook = {"name": "hook", "wll": {"value": 500, "unit": "kg"}, "where": "top"}
    >>> found = weakest_link(Links(mass={"value": 200, "unit": "kg"}, parts=[hook],
    ...     angle_to_horizontal={"value": 60, "unit": "deg"}))
    >>> found.weakest, found.utilisation.value, found.ok
    ('hook', 0.5, True)
    """
    mass = positive_mass(i)
    angle = checked_angle(i.figure("angle_to_horizontal"), "angle_to_horizontal")
    share, _ = leg_share(i.legs, angle)
    factor = i.figure("dynamic_factor")
    if round9(factor) < 1:
        words = "'dynamic_factor' is 1 at the least: nothing weighs less for being moved"
        raise Refused("factor_out_of_range", words, field="dynamic_factor")
    if not i.parts:
        raise Refused("too_few", "name every part between the load and the beam", field="parts")
    used = [(_used(part, mass, share, factor), part.name) for part in i.parts]
    most, name = max(used, key=lambda pair: pair[0])
    return Weakest(
        weakest=name,
        utilisation=Quantity(value=most, unit="1"),
        max_mass=in_unit(mass / most, i.mass.unit if i.mass is not None else "kg"),
        ok=round9(most) <= 1,
        working=tuple(f"{part}: {share * 100:.0f} % used" for share, part in used),
    )


def _used(part: Link, mass: float, share: float, factor: float) -> float:
    if part.wll is None:
        words = f"{part.name}: no marked limit, no lift"
        raise Refused("wll_missing", words, field="parts")
    limit = canonical(part.wll, "mass", "parts")
    if limit <= 0:
        raise Refused("wll_missing", f"{part.name}: its limit must be above zero", field="parts")
    if not 0 < part.derating <= 1:
        words = f"{part.name}: it is derated to a share between 0 and 1"
        raise Refused("derating_out_of_range", words, field="parts")
    load = mass * share if part.where == "leg" else mass
    return factor * load / (limit * part.derating)


class MultiLeg(Input):
    """The limit of one leg by itself, how many there are, and their angle."""

    single_leg_wll: Mass = None
    legs: int = 2
    angle_to_horizontal: Angle = None


class MultiLegResult(Result):
    """The factor, and what the sling as a whole may carry."""

    factor: Quantity
    wll: Quantity


@calculation("Limit of a sling with several legs")
def multi_leg_wll(i: MultiLeg) -> MultiLegResult:
    """Factor by EN 818-4 (uniform load method) times the limit of one leg.

    Raises
    ------
    Refused
        `wll_missing`, `bad_option` (2, 3 or 4 legs), `sling_too_flat`, `angle_out_of_range`.

    Example
    -------
    >>> found = multi_leg_wll(MultiLeg(single_leg_wll={"value": 1120, "unit": "kg"},
    ...     angle_to_horizontal={"value": 60, "unit": "deg"}))
    >>> found.factor.value, round(found.wll.value)
    (1.4, 1568)
    """
    if i.single_leg_wll is None or i.figure("single_leg_wll") <= 0:
        words = "the marked limit of one leg must be given: no marked limit, no lift"
        raise Refused("wll_missing", words, field="single_leg_wll")
    angle = checked_angle(i.figure("angle_to_horizontal"), "angle_to_horizontal")
    if i.legs not in FACTORS:
        raise Refused("bad_option", "'legs' must be 2, 3 or 4", field="legs")
    steep, flat = FACTORS[i.legs]
    factor = steep if round9(angle) >= 45 else flat
    limit = i.figure("single_leg_wll") * factor
    return MultiLegResult(
        factor=Quantity(value=factor, unit="1"),
        wll=in_unit(limit, i.single_leg_wll.unit),
        working=(f"{factor:g} × {i.figure('single_leg_wll') / 1000:g} kg",),
    )
