"""What friction, length and angle make of a torque: nut factor, stiffness of a bolt, preload by
angle. Linear, and only below yield; never a figure for a joint whose maker gives one.

Friction form ISO 16047 and VDI 2230; springs in series.
"""

import math
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Pressure, Ratio, Stiffness
from hollet.core.quantities.quantity import Quantity, canonical
from hollet.core.registry import Input, Result, calculation
from hollet.core.tightening.generic import MetricThread

__all__ = ["angle_tightening", "bolt_stiffness", "nut_factor_from_friction"]

SLIPPERIEST, ROUGHEST = 0.0, 0.6
"""Friction of a thread is between these; what lies beyond is a slip of the decimal."""
FLANK = math.cos(math.radians(30))


class Friction(MetricThread):
    """A metric thread, the friction in it and under the head, and the mean diameter on which the
    head rubs.
    """

    mu_thread: Ratio = None
    mu_head: Ratio = None
    head_friction_diameter: Length = None


class NutFactor(Result):
    """K in T = K F d."""

    K: Quantity


@calculation("Nut factor from friction")
def nut_factor_from_friction(i: Friction) -> NutFactor:
    """K d = P/2π + μ_thread d₂/(2 cos 30°) + μ_head D_km/2, with d₂ = d − 0.6495 P.

    Raises
    ------
    Refused
        `pitch_implausible`, `not_positive`; `friction_implausible` outside 0 to 0.6.

    Example
    -------
    >>> mm = lambda v: {"value": v, "unit": "mm"}
    >>> one = {"value": 0.12, "unit": "1"}
    >>> found = nut_factor_from_friction(Friction(d=mm(10), pitch=mm(1.5), mu_thread=one,
    ...     mu_head=one, head_friction_diameter=mm(13.5)))
    >>> round(found.K.value, 4)
    0.1674
    """
    d, pitch = i.checked()
    thread, head = (_friction(i, name) for name in ("mu_thread", "mu_head"))
    rubs = i.positive("head_friction_diameter")
    if rubs <= d:
        words = "the head rubs outside the bolt: its mean diameter is larger than 'd'"
        raise Refused("friction_implausible", words, field="head_friction_diameter")
    flank = d - 0.6495 * pitch
    parts = (pitch / (2 * math.pi), thread * flank / (2 * FLANK), head * rubs / 2)
    told = " + ".join(f"{part:.4g}" for part in parts)
    return NutFactor(
        K=Quantity(value=sum(parts) / d, unit="1"),
        working=(f"K·d = {told} = {sum(parts):.4g} mm", f"K = {sum(parts) / d:.4g}"),
    )


def _friction(i: Friction, name: str) -> float:
    value = i.figure(name)
    if not SLIPPERIEST < value <= ROUGHEST:
        words = f"'{name}' is {value:g}: friction of a bolt lies above 0 and up to {ROUGHEST}"
        raise Refused("friction_implausible", words, field=name)
    return value


class BoltPart(BaseModel):
    """A stretch of a bolt of one cross section; the threaded part with its stress area."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    length: Quantity
    area: Quantity


class BoltParts(Input):
    """The stretches between head and nut, and Young's modulus (steel 205 GPa)."""

    sections: Annotated[tuple[BoltPart, ...], Field(json_schema_extra={"rows": True})] = ()
    E: Pressure = None


class BoltStiffness(Result):
    """Force by length of the whole bolt."""

    k: Quantity


@calculation("Stiffness of a bolt")
def bolt_stiffness(i: BoltParts) -> BoltStiffness:
    """1/k = Σ l/(E A).

    Raises
    ------
    Refused
        `no_sections`, `not_positive`.

    Example
    -------
    >>> part = {"length": {"value": 50, "unit": "mm"}, "area": {"value": 58, "unit": "mm²"}}
    >>> found = bolt_stiffness(BoltParts(sections=[part], E={"value": 205000, "unit": "MPa"}))
    >>> round(found.k.value), found.k.unit
    (237800, 'N/mm')
    """
    modulus = i.positive("E") / 1000  # kPa to MPa, which is N/mm²
    if not i.sections:
        words = "give at least one stretch, its length and its area"
        raise Refused("no_sections", words, field="sections")
    soft, lines = 0.0, []
    for part in i.sections:
        length = canonical(part.length, "length", "sections")
        area = canonical(part.area, "area", "sections")
        if length <= 0 or area <= 0:
            words = "each stretch has a length and an area above zero"
            raise Refused("not_positive", words, field="sections")
        soft += length / (modulus * area)
        lines.append(f"{length:g} mm ÷ ({modulus:g} MPa · {area:g} mm²)")
    return BoltStiffness(
        k=Quantity(value=1 / soft, unit="N/mm"),
        working=(f"1/k = {' + '.join(lines)}", f"k = {1 / soft:.0f} N/mm"),
    )


class AngleTurned(Input):
    """The pitch, the angle turned after snug, and how stiff bolt and joint are."""

    pitch: Length = None
    angle: Angle = None
    bolt_stiffness: Stiffness = None
    joint_stiffness: Stiffness = None


class AngleGain(Result):
    """How far the nut went, how the bolt and the joint share it, and the preload it adds; an upper
    bound where the bolt is taken past its yield.
    """

    advance: Quantity
    bolt_stretch: Quantity
    joint_compression: Quantity
    preload_gain: Quantity


@calculation("Preload by angle")
def angle_tightening(i: AngleTurned) -> AngleGain:
    """P θ/360 = stretch + compression; ΔF = (P θ/360) k_b k_j/(k_b + k_j). Below yield, after snug.

    Raises
    ------
    Refused
        `not_positive`.

    Example
    -------
    >>> stiff = lambda v: {"value": v, "unit": "N/mm"}
    >>> found = angle_tightening(AngleTurned(pitch={"value": 1.25, "unit": "mm"},
    ...     angle={"value": 90, "unit": "deg"}, bolt_stiffness=stiff(150000),
    ...     joint_stiffness=stiff(600000)))
    >>> found.preload_gain.value, found.bolt_stretch.value
    (37500.0, 0.25)
    """
    pitch, angle = i.positive("pitch"), i.positive("angle")
    bolt, joint = i.positive("bolt_stiffness"), i.positive("joint_stiffness")
    advance = pitch * angle / 360
    gain = advance * bolt * joint / (bolt + joint)
    return AngleGain(
        advance=Quantity(value=advance, unit="mm"),
        bolt_stretch=Quantity(value=gain / bolt, unit="mm"),
        joint_compression=Quantity(value=gain / joint, unit="mm"),
        preload_gain=Quantity(value=gain, unit="N"),
        working=(
            f"advance {pitch:g} · {angle:g}/360 = {advance:.4g} mm",
            f"ΔF = {advance:.4g} · {bolt:g} · {joint:g}/({bolt:g} + {joint:g}) = {gain:.0f} N",
            "an upper bound past yield",
        ),
    )
