"""The figure to set on a wrench, with and without an adapter (statics; ISO 6789-1 for wrench
classes).
"""

import math

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Torque
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "adapter_actual",
    "adapter_setting",
    "choose_wrench",
    "hand_position_error",
    "lever_ratio",
    "permissible_percent",
]

USABLE = (
    0.2,
    1.0,
)  # share of full scale in which an adjustable graduated wrench is trusted (ISO 6789-1)


def permissible_percent(wrench_max_nm: float) -> float:
    """Permissible deviation in percent of the set value: 6 up to a maximum of 10 N·m, else 4 (ISO
    6789-1).
    """
    return 6.0 if wrench_max_nm <= 10 else 4.0


def lever_ratio(wrench_length_mm: float, adapter_length_mm: float, angle_deg: float) -> float:
    """L/(L + E cos theta): setting over torque at the fastener.

    Raises
    ------
    Refused
        `length_not_positive` (L <= 0 or E < 0), `angle_out_of_range` (beyond ±180°),
        `lever_arm_vanishes`
        when the adapter is folded back so far that L + E cos theta <= 0.1 L.
    """
    if wrench_length_mm <= 0:
        raise Refused(
            "length_not_positive",
            "the wrench length, drive centre to grip centre, must be above zero",
            field="wrench_length",
        )
    if adapter_length_mm < 0:
        raise Refused(
            "length_not_positive",
            "the adapter length must not be below zero",
            field="adapter_length",
        )
    if not -180 <= angle_deg <= 180:
        raise Refused(
            "angle_out_of_range",
            "the adapter angle must lie between -180 and 180 deg",
            field="angle",
        )
    arm = wrench_length_mm + adapter_length_mm * math.cos(math.radians(angle_deg))
    if arm <= 0.1 * wrench_length_mm:
        raise Refused(
            "lever_arm_vanishes",
            "folded back like this the hand has no lever about the fastener: "
            "turn the adapter square to the wrench",
            field="angle",
        )
    return wrench_length_mm / arm


def _torque(quantity: Quantity | None, field: str) -> float:
    value = canonical(quantity, "torque", field)
    if value <= 0:
        raise Refused("torque_not_positive", f"'{field}' must be above zero", field=field)
    return value


class Lever(Input):
    """Wrench length (drive centre to grip centre), adapter length in the plane of
    rotation, angle.
    """

    wrench_length: Length = None
    adapter_length: Length = None
    angle: Angle = None

    def ratio(self) -> float:
        """Setting over torque at the fastener."""
        return lever_ratio(
            self.figure("wrench_length"),
            self.figure("adapter_length"),
            self.figure("angle"),
        )


class AdapterSetting(Lever):
    """A torque wanted at the fastener."""

    target_torque: Torque = None


class AdapterSettingResult(Result):
    """The figure to set and its ratio to the torque asked."""

    T_set: Quantity
    ratio: Quantity


@calculation("Wrench setting with an adapter")
def adapter_setting(i: AdapterSetting) -> AdapterSettingResult:
    """T_set = T L/(L + E cos theta); theta 0 = straight out, 90 = square, 180 = folded back.

    Example
    -------
    >>> given = {
    ...     "target_torque": {"value": 80, "unit": "N·m"},
    ...     "wrench_length": {"value": 450, "unit": "mm"},
    ...     "adapter_length": {"value": 50, "unit": "mm"},
    ...     "angle": {"value": 0, "unit": "deg"},
    ... }
    >>> found = adapter_setting(AdapterSetting.model_validate(given))
    >>> round(found.T_set.value, 4), found.T_set.unit
    (72.0, 'N·m')
    """
    torque, ratio = _torque(i.target_torque, "target_torque"), i.ratio()
    unit = i.target_torque.unit if i.target_torque else "N·m"
    return AdapterSettingResult(
        T_set=in_unit(torque * ratio, unit),
        ratio=Quantity(value=ratio, unit="1"),
        working=(f"{torque:g} × {ratio:.4f} = {torque * ratio:.4g} N·m",),
    )


class AdapterActual(Lever):
    """A figure that was set."""

    set_torque: Torque = None


class AdapterActualResult(Result):
    """What the fastener gets."""

    T: Quantity


@calculation("What the bolt gets through an adapter")
def adapter_actual(i: AdapterActual) -> AdapterActualResult:
    """T = T_set (L + E cos theta)/L.

    Example
    -------
    >>> given = {
    ...     "set_torque": {"value": 80, "unit": "N·m"},
    ...     "wrench_length": {"value": 450, "unit": "mm"},
    ...     "adapter_length": {"value": 50, "unit": "mm"},
    ...     "angle": {"value": 0, "unit": "deg"},
    ... }
    >>> found = adapter_actual(AdapterActual.model_validate(given))
    >>> round(found.T.value, 4), found.T.unit
    (88.8889, 'N·m')
    """
    torque, ratio = _torque(i.set_torque, "set_torque"), i.ratio()
    unit = i.set_torque.unit if i.set_torque else "N·m"
    return AdapterActualResult(
        T=in_unit(torque / ratio, unit),
        working=(f"{torque:g} ÷ {ratio:.4f} = {torque / ratio:.4g} N·m",),
    )


class Wrench(Input):
    """A wrench by name and full scale."""

    name: str
    max: Torque = None


class ChooseWrench(Input):
    """A setting and the wrenches at hand."""

    T_set: Torque = None
    wrenches: list[Wrench]


class ChooseWrenchResult(Result):
    """The smallest wrench that may be trusted, and what it may deviate."""

    wrench: str
    deviation_percent: Quantity
    lo: Quantity
    hi: Quantity


@calculation("Which wrench")
def choose_wrench(i: ChooseWrench) -> ChooseWrenchResult:
    """The smallest wrench whose 20 to 100 % of scale contains the setting (ISO 6789-1).

    Refuses `no_wrench_in_range`.

    Example
    -------
    >>> given = {
    ...     "T_set": {"value": 42, "unit": "N·m"},
    ...     "wrenches": [
    ...         {"name": "A 1/4 in drive", "max": {"value": 10, "unit": "N·m"}},
    ...         {"name": "C 1/2 in drive", "max": {"value": 210, "unit": "N·m"}},
    ...     ],
    ... }
    >>> found = choose_wrench(ChooseWrench.model_validate(given))
    >>> round(found.deviation_percent.value, 4), found.deviation_percent.unit
    (4.0, '%')
    """
    setting = _torque(i.T_set, "T_set")
    scales = [(_torque(w.max, "max"), w.name) for w in i.wrenches]
    fits = [(scale, name) for scale, name in scales if in_usable_range(setting, scale)]
    if not fits:
        raise Refused(
            "no_wrench_in_range",
            "the setting lies outside 20 to 100 % of every wrench: another wrench, or "
            "the adapter at another angle",
            field="wrenches",
        )
    scale, name = min(fits)
    percent = permissible_percent(scale)
    unit = i.T_set.unit if i.T_set else "N·m"
    spread = setting * percent / 100
    return ChooseWrenchResult(
        wrench=name,
        deviation_percent=Quantity(value=percent, unit="%"),
        lo=in_unit(setting - spread, unit),
        hi=in_unit(setting + spread, unit),
        working=(f"{setting:g} N·m ± {percent:g} %",),
    )


def in_usable_range(setting_nm: float, wrench_max_nm: float) -> bool:
    """Whether a setting lies within 20 to 100 % of full scale, ends included."""
    return (
        round9(USABLE[0] * wrench_max_nm) <= round9(setting_nm) <= round9(USABLE[1] * wrench_max_nm)
    )


class HandPosition(Lever):
    """How much further out than the grip centre the hand pulls."""

    hand_offset: Length = None


class HandPositionResult(Result):
    """Error of the torque at the fastener."""

    error_percent: Quantity


@calculation("Hand off the grip centre")
def hand_position_error(i: HandPosition) -> HandPositionResult:
    """With an adapter the torque at the fastener is T_set (L + dh + E cos theta)/(L + dh): error
    against dh = 0.

    Example
    -------
    >>> given = {
    ...     "wrench_length": {"value": 450, "unit": "mm"},
    ...     "adapter_length": {"value": 50, "unit": "mm"},
    ...     "angle": {"value": 0, "unit": "deg"},
    ...     "hand_offset": {"value": -40, "unit": "mm"},
    ... }
    >>> found = hand_position_error(HandPosition.model_validate(given))
    >>> round(found.error_percent.value, 4), found.error_percent.unit
    (0.9756, '%')
    """
    length = i.figure("wrench_length")
    offset = i.figure("hand_offset")
    pulled = i.model_copy(update={"wrench_length": Quantity(value=length + offset, unit="mm")})
    error = (i.ratio() / pulled.ratio() - 1) * 100
    return HandPositionResult(
        error_percent=Quantity(value=error, unit="%"),
        working=(f"hand at {length + offset:g} mm in place of {length:g} mm: {error:+.2f} %",),
    )
