"""Driveline: joint angles, what one joint and two do to the speed, phasing, and parts turned
against each other. Angles in deg.

Kinematics of the Cardan joint (machine-dynamics textbooks; usual universal-joint design practice).
"""

from cmath import exp
from math import asin, atan2, cos, degrees, hypot, pi, radians, sin, sqrt, tan

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Speed, Unbalance
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "driveline_check",
    "equivalent_angle",
    "index_turn",
    "joint_angle",
    "single_joint",
    "torsional_acceleration",
]

MOST_ANGLE = 30.0


def _joint(i: Input, field: str) -> float:
    """An operating angle, refused (`angle_implausible`) outside 0 to 30 degrees."""
    return _plausible(i.figure(field), field)


def _plausible(angle: float, field: str) -> float:
    if not 0 <= angle <= MOST_ANGLE:
        raise Refused(
            "angle_implausible",
            f"'{field}': a joint works at 0 to {MOST_ANGLE:g}°, and this gives {angle:.1f}°: "
            "from which side was it read?",
            field=field,
        )
    return angle


def _omega(i: Input, field: str) -> float:
    """Angular speed in rad/s, refused (`speed_not_positive`) unless above zero."""
    speed = i.figure(field)
    if speed <= 0:
        raise Refused("speed_not_positive", f"'{field}' must be above zero", field=field)
    return speed * 2 * pi / 60


class JointAngle(Input):
    """Slopes of both shafts: in side view, and seen from above."""

    shaft1_vertical: Angle = None
    shaft1_horizontal: Angle = None
    shaft2_vertical: Angle = None
    shaft2_horizontal: Angle = None


class JointAngleResult(Result):
    """The angle at which the joint works."""

    angle: Quantity


@calculation("Joint angle")
def joint_angle(i: JointAngle) -> JointAngleResult:
    """The angle between (1, tan h, tan v) of both shafts; for small angles about the root of both
    differences squared.

    Raises
    ------
    Refused
        `angle_implausible` above 30 degrees.

    Example
    -------
    >>> given = {
    ...     "shaft1_vertical": {"value": 3, "unit": "deg"},
    ...     "shaft1_horizontal": {"value": 2, "unit": "deg"},
    ...     "shaft2_vertical": {"value": 0, "unit": "deg"},
    ...     "shaft2_horizontal": {"value": 0, "unit": "deg"},
    ... }
    >>> found = joint_angle(JointAngle.model_validate(given))
    >>> round(found.angle.value, 4), found.angle.unit
    (3.6035, 'deg')
    """
    v1, h1, v2, h2 = (
        i.figure(name)
        for name in ("shaft1_vertical", "shaft1_horizontal", "shaft2_vertical", "shaft2_horizontal")
    )
    for name, angle in (
        ("shaft1_vertical", v1),
        ("shaft1_horizontal", h1),
        ("shaft2_vertical", v2),
        ("shaft2_horizontal", h2),
    ):
        if abs(angle) >= 90:
            raise Refused("angle_implausible", f"'{name}' must be a slope below 90°", field=name)
    a, b = (1.0, tan(radians(h1)), tan(radians(v1))), (1.0, tan(radians(h2)), tan(radians(v2)))
    cross = (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])
    found = _plausible(
        degrees(atan2(hypot(*cross), sum(x * y for x, y in zip(a, b, strict=True)))),
        "shaft1_vertical",
    )
    return JointAngleResult(
        angle=in_unit(found, "deg"),
        working=(f"side view {v1 - v2:+g}°, from above {h1 - h2:+g}°: together {found:.2f}°",),
    )


class SingleJoint(Input):
    """The working angle of one joint."""

    angle: Angle = None


class SingleJointResult(Result):
    """Least and largest speed ratio within a turn, the swing in percent, and how far the output
    leads and lags.
    """

    min_ratio: float
    max_ratio: float
    fluctuation_percent: Quantity
    angle_amplitude: Quantity


@calculation("One joint: speed over a turn")
def single_joint(i: SingleJoint) -> SingleJointResult:
    """Ratio between cos b and 1 / cos b, twice a turn; swing = 1/cos b - cos b; lead and lag
    asin(tan² b/2); refuses `angle_implausible`.

    Example
    -------
    >>> found = single_joint(SingleJoint.model_validate({"angle": {"value": 3, "unit": "deg"}}))
    >>> round(found.fluctuation_percent.value, 4), found.fluctuation_percent.unit
    (0.2743, '%')
    """
    b = radians(_joint(i, "angle"))
    swing = 100 * sin(b) * tan(b)
    return SingleJointResult(
        min_ratio=cos(b),
        max_ratio=1 / cos(b),
        fluctuation_percent=in_unit(swing, "%"),
        angle_amplitude=in_unit(degrees(asin(tan(b / 2) ** 2)), "deg"),
        working=(f"1 ÷ cos {degrees(b):g}° − cos {degrees(b):g}° = {swing:.3f} %, twice a turn",),
    )


class EquivalentAngle(Input):
    """Working angles of both joints of a shaft, and by how much its yokes are out of line."""

    angle_1: Angle = None
    angle_2: Angle = None
    phase_error: Angle = Quantity(value=0, unit="deg")


class EquivalentAngleResult(Result):
    """The angle of one joint that would swing as much as the two together."""

    equivalent_angle: Quantity


@calculation("Two joints: equivalent angle")
def equivalent_angle(i: EquivalentAngle) -> EquivalentAngleResult:
    """sqrt|b1² - b2² e^(2 i psi)|, psi the phase error of the yokes; refuses `angle_implausible`.

    Within 0.2 % to 10 degrees.

    Example
    -------
    >>> given = {
    ...     "angle_1": {"value": 3, "unit": "deg"},
    ...     "angle_2": {"value": 3, "unit": "deg"},
    ...     "phase_error": {"value": 0, "unit": "deg"},
    ... }
    >>> found = equivalent_angle(EquivalentAngle.model_validate(given))
    >>> round(found.equivalent_angle.value, 4), found.equivalent_angle.unit
    (0.0, 'deg')
    """
    first, second, out = _joint(i, "angle_1"), _joint(i, "angle_2"), i.figure("phase_error")
    found = sqrt(abs(first**2 - second**2 * exp(2j * radians(out))))
    return EquivalentAngleResult(
        equivalent_angle=in_unit(found, "deg"),
        working=(f"√|{first:g}² − {second:g}² at 2 × {out:g}°| = {found:.3f}°",),
    )


class TorsionalAcceleration(Input):
    """Equivalent angle of the shaft, and its speed."""

    equivalent_angle: Angle = None
    speed: Speed = None


class TorsionalAccelerationResult(Result):
    """Peak angular acceleration in rad/s²."""

    acceleration: Quantity


@calculation("Torsional acceleration")
def torsional_acceleration(i: TorsionalAcceleration) -> TorsionalAccelerationResult:
    """omega² b², b in rad; at most 300 rad/s² is a rule of thumb; refuses `angle_implausible` and
    `speed_not_positive`.

    Example
    -------
    >>> given = {
    ...     "equivalent_angle": {"value": 3, "unit": "deg"},
    ...     "speed": {"value": 3000, "unit": "rpm"},
    ... }
    >>> found = torsional_acceleration(TorsionalAcceleration.model_validate(given))
    >>> round(found.acceleration.value, 4), found.acceleration.unit
    (270.5808, 'rad/s²')
    """
    b, omega = radians(_joint(i, "equivalent_angle")), _omega(i, "speed")
    return TorsionalAccelerationResult(
        acceleration=Quantity(value=omega**2 * b**2, unit="rad/s²"),
        working=(f"{omega:.1f}² × {b:.5f}² = {omega**2 * b**2:.1f} rad/s²",),
    )


class DrivelineCheck(Input):
    """Working angles of both joints, and what is allowed: rules of thumb unless the maker says
    more.
    """

    angle_1: Angle = None
    angle_2: Angle = None
    max_angle: Angle = Quantity(value=3, unit="deg")
    max_difference: Angle = Quantity(value=1, unit="deg")
    min_angle: Angle = Quantity(value=0.5, unit="deg")


class DrivelineCheckResult(Result):
    """Whether each is small enough, both are alike, and both large enough for the
    needles to roll.
    """

    max_ok: bool
    equal_ok: bool
    min_ok: bool


@calculation("Joint angles, judged")
def driveline_check(i: DrivelineCheck) -> DrivelineCheckResult:
    """Each at most 3 degrees, alike within 1, at least 0.5 (rules of thumb); refuses
    `angle_implausible`.

    Example
    -------
    >>> given = {
    ...     "angle_1": {"value": 2.5, "unit": "deg"},
    ...     "angle_2": {"value": 1.8, "unit": "deg"},
    ...     "max_angle": {"value": 3, "unit": "deg"},
    ...     "max_difference": {"value": 1, "unit": "deg"},
    ...     "min_angle": {"value": 0.5, "unit": "deg"},
    ... }
    >>> found = driveline_check(DrivelineCheck.model_validate(given))
    >>> found.max_ok
    True
    """
    first, second = _joint(i, "angle_1"), _joint(i, "angle_2")
    most, apart, least = (
        round9(i.figure(name)) for name in ("max_angle", "max_difference", "min_angle")
    )
    return DrivelineCheckResult(
        max_ok=round9(max(first, second)) <= most,
        equal_ok=round9(abs(first - second)) <= apart,
        min_ok=round9(min(first, second)) >= least,
        working=(
            (
                f"{first:g}° and {second:g}°: {abs(first - second):g}° apart; {least:g} to "
                f"{most:g}° each, at most {apart:g}° apart"
            ),
        ),
    )


class IndexTurn(Input):
    """Unbalance of each of two parts balanced as a pair, by how much one is turned, and
    the speed.
    """

    component_unbalance: Unbalance = None
    turned_by: Angle = None
    speed: Speed = None


class IndexTurnResult(Result):
    """Unbalance that is left, and the force of it."""

    residual: Quantity
    force: Quantity


@calculation("Turned parts: unbalance")
def index_turn(i: IndexTurn) -> IndexTurnResult:
    """2 U |sin(turn / 2)|, so 2 U at half a turn: hence marks before parting; force = residual x
    omega²; refuses `speed_not_positive`.

    Example
    -------
    >>> given = {
    ...     "component_unbalance": {"value": 180, "unit": "g·mm"},
    ...     "turned_by": {"value": 180, "unit": "deg"},
    ...     "speed": {"value": 3000, "unit": "rpm"},
    ... }
    >>> found = index_turn(IndexTurn.model_validate(given))
    >>> round(found.residual.value, 4), found.residual.unit
    (360.0, 'g·mm')
    """
    each, turned, omega = i.figure("component_unbalance"), i.figure("turned_by"), _omega(i, "speed")
    left = 2 * each * abs(sin(radians(turned) / 2))
    force = left * 1e-6 * omega**2
    return IndexTurnResult(
        residual=in_unit(left, "g·mm"),
        force=in_unit(force, "N"),
        working=(
            f"2 × {each:g} × |sin({turned:g}° ÷ 2)| = {left:.2f} g·mm",
            f"at {omega:.1f} rad/s: {force:.2f} N",
        ),
    )
