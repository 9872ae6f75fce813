"""Bolt preload and generic torque: a fallback only, marked assumed, never for head, rod, main,
flywheel, wheel or safety bolts.

Stress area ISO 898-1 and ASME B1.1; proof stress ISO 898-1 and SAE J429; T = K F d.
"""

import math
import re

from hollet.core.errors import Refused
from hollet.core.fields import Length, Ratio, Threads
from hollet.core.quantities.quantity import Quantity
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "NUT_FACTOR",
    "generic_torque_metric",
    "generic_torque_unified",
    "generic_words",
    "read_thread",
    "stress_area_metric",
    "stress_area_unified",
]

PROOF_MPA = {
    "4.6": (225, 225),
    "4.8": (310, 310),
    "5.6": (280, 280),
    "5.8": (380, 380),
    "6.8": (440, 440),
    "8.8": (580, 600),
    "10.9": (830, 830),
    "12.9": (970, 970),
}  # up to and above d = 16 mm, ISO 898-1
PROOF_KSI = {
    "2": ((0.75, 55), (9, 33)),
    "5": ((1, 85), (1.5, 74)),
    "8": ((1.5, 120),),
}  # up to d in inch, SAE J429
SCATTER = 0.3
"""How far the clamp of a bolt drawn by torque lies from what its nut factor says, as a share (rule
of thumb for threads whose friction nobody measured).
"""
NUT_FACTOR = {"dry": 0.20, "oiled": 0.15, "anti-seize": 0.12, "threadlocker": 0.17}
FRACTION = 0.75
# pitch over diameter; the coarsest standard thread has 0.25 (M1 to M2), M5 and up less than 0.17
COARSEST = 0.25


class MetricThread(Input):
    """Nominal diameter and pitch of a metric thread."""

    d: Length = None
    pitch: Length = None

    def checked(self) -> tuple[float, float]:
        """Diameter and pitch in mm, checked."""
        d, pitch = self.figure("d"), self.figure("pitch")
        if d <= 0 or pitch <= 0:
            raise Refused("not_positive", "'d' and 'pitch' must be above zero", field="d")
        if pitch > COARSEST * d:
            raise Refused(
                "pitch_implausible",
                "the pitch is too coarse for the diameter: were turns per inch entered as pitch?",
                field="pitch",
            )
        return d, pitch


class UnifiedThread(Input):
    """Nominal diameter and threads per inch of a unified thread."""

    d: Length = None
    threads_per_inch: Threads = None

    def checked(self) -> tuple[float, float]:
        """Diameter in inch and threads per inch, checked."""
        d = self.figure("d") / 25.4
        if self.threads_per_inch is None:
            raise Refused(
                "not_a_finite_number", "'threads_per_inch' must be given", field="threads_per_inch"
            )
        n = float(str(self.threads_per_inch.value))
        if d <= 0 or not math.isfinite(n) or n <= 0:
            raise Refused(
                "not_positive", "'d' and 'threads_per_inch' must be above zero", field="d"
            )
        if 1 / n > COARSEST * d:
            raise Refused(
                "pitch_implausible",
                "the pitch is too coarse for the diameter: was a pitch in mm entered?",
                field="threads_per_inch",
            )
        return d, n


class StressArea(Result):
    """Tensile stress area."""

    A_s: Quantity


class GenericTorque(Result):
    """Preload at the chosen share of proof stress, and the torque for it."""

    preload: Quantity
    torque: Quantity


class MetricBolt(MetricThread):
    """A metric bolt with its property class, nut factor K and share of proof stress."""

    property_class: str | None = None
    K: Ratio = None
    fraction_of_proof: Ratio = None


class UnifiedBolt(UnifiedThread):
    """A unified bolt with its SAE grade, nut factor K and share of proof stress."""

    grade: str | None = None
    K: Ratio = None
    fraction_of_proof: Ratio = None


def _area_mm2(d: float, pitch: float) -> float:
    return math.pi / 4 * (d - 0.9382 * pitch) ** 2


def _area_in2(d: float, n: float) -> float:
    return math.pi / 4 * (d - 0.9743 / n) ** 2


def _ratio(quantity: Quantity | None, field: str, least: float, most: float, code: str) -> float:
    if quantity is None:
        raise Refused("not_a_finite_number", f"'{field}' must be given", field=field)
    value = float(str(quantity.value))
    if not math.isfinite(value) or not least < value <= most:
        raise Refused(code, f"'{field}' must lie above {least:g} and up to {most:g}", field=field)
    return value


def _three(figure: float) -> str:
    """Three digits, and never a power of ten: 1230 and not 1.23e+03."""
    return f"{figure:.0f}" if figure >= 100 else f"{figure:.3g}"


@calculation("Stress area of a metric thread")
def stress_area_metric(given: MetricThread) -> StressArea:
    """A_s = pi/4 (d - 0.9382 P)^2, ISO 898-1. Refuses `pitch_implausible`.

    Example
    -------
    >>> given = {
    ...     "d": {"value": 10, "unit": "mm"},
    ...     "pitch": {"value": 1.5, "unit": "mm"},
    ... }
    >>> found = stress_area_metric(MetricThread.model_validate(given))
    >>> round(found.A_s.value, 4), found.A_s.unit
    (57.9895, 'mm²')
    """
    area = _area_mm2(*given.checked())
    return StressArea(
        A_s=Quantity(value=area, unit="mm²"),
        working=(f"A_s = π/4 (d − 0.9382 P)² = {area:.4g} mm²",),
    )


@calculation("Stress area of a unified thread")
def stress_area_unified(given: UnifiedThread) -> StressArea:
    """A_s = pi/4 (D - 0.9743/n)^2 in square inch, ASME B1.1. Refuses `pitch_implausible`.

    Example
    -------
    >>> given = {
    ...     "d": {"value": 0.375, "unit": "in"},
    ...     "threads_per_inch": {"value": 16, "unit": "1/in"},
    ... }
    >>> found = stress_area_unified(UnifiedThread.model_validate(given))
    >>> round(found.A_s.value, 4), found.A_s.unit
    (0.0775, 'in²')
    """
    area = _area_in2(*given.checked())
    return StressArea(
        A_s=Quantity(value=area, unit="in²"),
        working=(f"A_s = π/4 (D − 0.9743/n)² = {area:.4g} in²",),
    )


@calculation("Generic torque of a metric bolt (fallback only)")
def generic_torque_metric(given: MetricBolt) -> GenericTorque:
    """F = fraction S_p A_s and T = K F d with the proof stress of ISO 898-1.

    Refuses `class_unknown`, `pitch_implausible`, `preload_fraction` (share of proof beyond 0 to 1).

    Example
    -------
    >>> given = {
    ...     "d": {"value": 10, "unit": "mm"},
    ...     "pitch": {"value": 1.5, "unit": "mm"},
    ...     "property_class": "8.8",
    ...     "K": {"value": 0.2, "unit": "1"},
    ...     "fraction_of_proof": {"value": 0.75, "unit": "1"},
    ... }
    >>> found = generic_torque_metric(MetricBolt.model_validate(given))
    >>> round(found.preload.value, 4), found.preload.unit
    (25225.4218, 'N')
    """
    d, pitch = given.checked()
    if given.property_class not in PROOF_MPA:
        raise Refused(
            "class_unknown",
            f"property class '{given.property_class}' is not in the table: {', '.join(PROOF_MPA)}",
            field="property_class",
        )
    proof = PROOF_MPA[given.property_class][d > 16]
    fraction = _ratio(given.fraction_of_proof, "fraction_of_proof", 0, 1, "preload_fraction")
    preload = fraction * proof * _area_mm2(d, pitch)
    torque = _ratio(given.K, "K", 0, 1, "bad_input") * preload * d / 1000
    return GenericTorque(
        preload=Quantity(value=preload, unit="N"),
        torque=Quantity(value=torque, unit="N·m"),
        working=(
            f"F = {fraction:g} × {proof} MPa × {_area_mm2(d, pitch):.4g} mm² = {preload:.0f} N",
            f"T = K F d = {_three(torque)} N·m",
            "generic: knows neither the joint nor the real friction",
        ),
    )


@calculation("Generic torque of a unified bolt (fallback only)")
def generic_torque_unified(given: UnifiedBolt) -> GenericTorque:
    """F = fraction S_p A_s and T = K F d with the proof stress of SAE J429, in lbf and ft·lbf.

    Refuses `class_unknown` (also beyond the diameters of the grade), `pitch_implausible`,
    `preload_fraction`.

    Example
    -------
    >>> given = {
    ...     "d": {"value": 0.375, "unit": "in"},
    ...     "threads_per_inch": {"value": 16, "unit": "1/in"},
    ...     "grade": "5",
    ...     "K": {"value": 0.15, "unit": "1"},
    ...     "fraction_of_proof": {"value": 0.75, "unit": "1"},
    ... }
    >>> found = generic_torque_unified(UnifiedBolt.model_validate(given))
    >>> round(found.preload.value, 4), found.preload.unit
    (4939.9577, 'lbf')
    """
    d, n = given.checked()
    steps = PROOF_KSI.get(given.grade or "")
    proof = next((ksi for most, ksi in steps or () if d <= most), None)
    if proof is None:
        raise Refused(
            "class_unknown",
            f"grade '{given.grade}' at this diameter is not in the table: 2, 5 and 8",
            field="grade",
        )
    fraction = _ratio(given.fraction_of_proof, "fraction_of_proof", 0, 1, "preload_fraction")
    preload = fraction * proof * 1000 * _area_in2(d, n)
    torque = _ratio(given.K, "K", 0, 1, "bad_input") * preload * d / 12
    return GenericTorque(
        preload=Quantity(value=preload, unit="lbf"),
        torque=Quantity(value=torque, unit="ft·lbf"),
        working=(
            f"F = {fraction:g} × {proof} ksi × {_area_in2(d, n):.4g} in² = {preload:.0f} lbf",
            f"T = K F d = {_three(torque)} ft·lbf",
            "generic: knows neither the joint nor the real friction",
        ),
    )


def read_thread(text: str) -> tuple[float, float, bool]:
    """A thread as written: `M10×1.5` or `3/8-16`; diameter (mm or in), pitch in mm or threads per
    inch, and whether metric.

    Raises
    ------
    Refused
        `bad_thread`: what a thread looks like.
    """
    metric = re.fullmatch(r"\s*M(\d+(?:\.\d+)?)\s*[x×]\s*(\d+(?:\.\d+)?)\s*", text, re.IGNORECASE)
    if metric:
        return float(metric[1]), float(metric[2]), True
    unified = re.fullmatch(r"\s*(?:(\d+)\s+)?(\d+)/(\d+)\s*-\s*(\d+)\s*", text)
    if unified and int(unified[3]):
        return int(unified[1] or 0) + int(unified[2]) / int(unified[3]), float(unified[4]), False
    raise Refused(
        "bad_thread",
        f"'{text}': write a thread with its pitch, such as M10×1.5 or 3/8-16",
        field="thread",
    )


def generic_words(thread: str, grade: str, lubrication: str = "dry") -> tuple[str, str]:
    """The generic torque of a bolt as text with its unit, and its working in one line, with how far
    the clamp may lie from what is reckoned.

    Raises
    ------
    Refused
        As `generic_torque_metric`, `generic_torque_unified` and `read_thread`.
    """
    d, pitch, metric = read_thread(thread)
    ratio = {
        "K": Quantity(value=NUT_FACTOR[lubrication], unit="1"),
        "fraction_of_proof": Quantity(value=FRACTION, unit="1"),
    }
    if metric:
        bolt = MetricBolt(
            d=Quantity(value=d, unit="mm"),
            pitch=Quantity(value=pitch, unit="mm"),
            property_class=grade,
            **ratio,
        )
        made = generic_torque_metric(bolt)
    else:
        turns = Quantity(value=pitch, unit="1/in")
        made = generic_torque_unified(
            UnifiedBolt(
                d=Quantity(value=d, unit="in"), threads_per_inch=turns, grade=grade, **ratio
            )
        )
    value, force = float(str(made.torque.value)), float(str(made.preload.value))
    text = f"{value:.0f}" if value >= 20 else f"{value:.1f}"
    return (
        f"{text} {'Nm' if metric else 'ft-lb'}",
        f"{thread}, {grade}, {lubrication}: {made.working[0]}; {made.working[1]}; as threads and "
        f"heads rub, it clamps {_three(force * (1 - SCATTER))} to {_three(force * (1 + SCATTER))} "
        f"{made.preload.unit} (±{SCATTER * 100:g} %, rule of thumb)",
    )
