"""Steering: toe as an angle and as a length, and how far to turn a tie rod. Angles in degrees,
lengths in mm, toe-in positive.

Plane geometry and wheel-alignment practice: the rod about square to its arm, the steering wheel
locked straight, the vehicle rolled before.
"""

from math import asin, degrees, radians, sin
from typing import Annotated

from hollet.core.errors import Refused
from hollet.core.fields import Angle, Length, Ratio, one_of
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "centre_steering_wheel",
    "match_rod_length",
    "toe_adjust",
    "toe_deg_to_mm",
    "toe_mm_to_deg",
]

MOST_TOE = 5.0
MOST_OFFSET = 90.0
THREADS = {"single": 1, "left_right": 2}
POSITIONS = {"behind_axle": 1, "ahead_of_axle": -1}
TURNS = "turns"


def _length(quantity: Quantity | None, field: str) -> float:
    found = canonical(quantity, "length", field)
    if found <= 0:
        raise Refused("length_not_positive", f"'{field}' must be longer than nothing", field=field)
    return found


def _toe(quantity: Quantity | None, field: str) -> float:
    found = canonical(quantity, "angle", field)
    if abs(found) > MOST_TOE:
        raise Refused(
            "toe_implausible",
            f"'{field}' is more than {MOST_TOE:g}°: minutes or millimetres typed as degrees?",
            field=field,
        )
    return found


def _pitch(adjuster: str, pitch: Quantity | None) -> float:
    """The change of length per turn: one thread, or two with a left- and a right-hand one."""
    if adjuster not in THREADS:
        raise Refused(
            "bad_option",
            "'adjuster' must be single, or left_right for a sleeve with a left- and a "
            "right-hand thread",
            field="adjuster",
        )
    return _length(pitch, "thread_pitch") * THREADS[adjuster]


class ToeDegToMm(Input):
    """Total toe as an angle, and the diameter at which the gauge touches."""

    total_toe: Angle = None
    measuring_diameter: Length = None


class ToeMm(Result):
    """Total toe and the share of each wheel, in mm."""

    total_toe: Quantity
    per_wheel: Quantity


@calculation("Toe, degrees to length")
def toe_deg_to_mm(i: ToeDegToMm) -> ToeMm:
    """2 D sin(total / 2); refuses `toe_implausible` above 5 degrees and `length_not_positive`.

    Example
    -------
    >>> given = {
    ...     "total_toe": {"value": 0.2, "unit": "deg"},
    ...     "measuring_diameter": {"value": 380, "unit": "mm"},
    ... }
    >>> found = toe_deg_to_mm(ToeDegToMm.model_validate(given))
    >>> round(found.total_toe.value, 4), found.total_toe.unit
    (1.3264, 'mm')
    """
    toe, d = _toe(i.total_toe, "total_toe"), _length(i.measuring_diameter, "measuring_diameter")
    total = 2 * d * sin(radians(toe) / 2)
    return ToeMm(
        total_toe=in_unit(total, "mm"),
        per_wheel=in_unit(total / 2, "mm"),
        working=(f"2 × {d:g} × sin({toe:g}° ÷ 2) = {total:.3f} mm",),
    )


class ToeMmToDeg(Input):
    """Total toe as a length, and the diameter at which it was measured."""

    total_toe: Length = None
    measuring_diameter: Length = None


class ToeDeg(Result):
    """Total toe and the share of each wheel in degrees, the total in minutes of arc."""

    total_deg: Quantity
    per_wheel_deg: Quantity
    total_minutes: Quantity


@calculation("Toe, length to degrees")
def toe_mm_to_deg(i: ToeMmToDeg) -> ToeDeg:
    """2 asin(mm / 2 D); refuses `toe_implausible` above 5 degrees and `length_not_positive`.

    Example
    -------
    >>> given = {
    ...     "total_toe": {"value": 2, "unit": "mm"},
    ...     "measuring_diameter": {"value": 406, "unit": "mm"},
    ... }
    >>> found = toe_mm_to_deg(ToeMmToDeg.model_validate(given))
    >>> round(found.total_deg.value, 4), found.total_deg.unit
    (0.2822, 'deg')
    """
    length, d = i.figure("total_toe"), _length(i.measuring_diameter, "measuring_diameter")
    share = length / (2 * d)
    total = degrees(2 * asin(share)) if abs(share) <= 1 else 180.0
    if abs(total) > MOST_TOE:
        raise Refused(
            "toe_implausible",
            f"'total_toe' is more than {MOST_TOE:g}°: a wrong unit?",
            field="total_toe",
        )
    words = f"2 × asin({length:g} ÷ (2 × {d:g})) = {total:.3f}°"
    return ToeDeg(
        total_deg=in_unit(total, "deg"),
        per_wheel_deg=in_unit(total / 2, "deg"),
        total_minutes=Quantity(value=total * 60, unit="arcmin"),
        working=(words,),
    )


class ToeAdjust(Input):
    """Toe of each wheel against straight ahead, the target in all, arm radius, thread, and where
    the tie rod lies.
    """

    toe_left: Angle = None
    toe_right: Angle = None
    target_total: Angle = None
    steering_arm_radius: Length = None
    thread_pitch: Length = None
    adjuster: Annotated[str, one_of(*THREADS)] = ""
    tie_rod_position: Annotated[str, one_of(*POSITIONS)] = ""


class ToeTurns(Result):
    """Turns of each rod; positive lengthens it."""

    turns_left: Quantity
    turns_right: Quantity


@calculation("Turns of the tie rods to the toe")
def toe_adjust(i: ToeAdjust) -> ToeTurns:
    """Change of each rod = ± r sin(target / 2 - toe), + for a rod behind the axle; divided by the
    thread's pitch, twice that with a sleeve.

    Raises
    ------
    Refused
        `bad_option`, `toe_implausible`, `length_not_positive`.

    Example
    -------
    >>> given = {
    ...     "toe_left": {"value": -0.2, "unit": "deg"},
    ...     "toe_right": {"value": -0.1, "unit": "deg"},
    ...     "target_total": {"value": 0.2, "unit": "deg"},
    ...     "steering_arm_radius": {"value": 130, "unit": "mm"},
    ...     "thread_pitch": {"value": 1.5, "unit": "mm"},
    ...     "adjuster": "single",
    ...     "tie_rod_position": "behind_axle",
    ... }
    >>> found = toe_adjust(ToeAdjust.model_validate(given))
    >>> round(found.turns_left.value, 4), found.turns_left.unit
    (0.4538, 'turns')
    """
    if i.tie_rod_position not in POSITIONS:
        raise Refused(
            "bad_option",
            "'tie_rod_position' must be behind_axle or ahead_of_axle: it decides which way to turn",
            field="tie_rod_position",
        )
    per_turn, radius = (
        _pitch(i.adjuster, i.thread_pitch),
        _length(i.steering_arm_radius, "steering_arm_radius"),
    )
    half, sign = _toe(i.target_total, "target_total") / 2, POSITIONS[i.tie_rod_position]
    turns, lines = [], []
    for side, toe in (
        ("left", _toe(i.toe_left, "toe_left")),
        ("right", _toe(i.toe_right, "toe_right")),
    ):
        change = sign * radius * sin(radians(half - toe))
        turns.append(Quantity(value=change / per_turn, unit=TURNS))
        lines.append(
            f"{side}: {sign * radius:g} × sin({half:g}° − {toe:g}°) = {change:.3f} mm, ÷ "
            f"{per_turn:g} = {change / per_turn:.2f} turns"
        )
    return ToeTurns(turns_left=turns[0], turns_right=turns[1], working=tuple(lines))


class CentreSteeringWheel(Input):
    """How far the steering wheel stands off centre while driving straight (positive: to the right),
    the ratio of the steering, arm radius and thread.
    """

    wheel_offset: Angle = None
    steering_ratio: Ratio = None
    steering_arm_radius: Length = None
    thread_pitch: Length = None
    adjuster: Annotated[str, one_of(*THREADS)] = ""


class CentreSteeringWheelResult(Result):
    """Angle at the road wheels, what one rod is lengthened and the other shortened by, and which is
    which, in words.
    """

    road_wheel_angle: Quantity
    length_change: Quantity
    turns: Quantity
    direction: str


@calculation("Steering wheel to the centre")
def centre_steering_wheel(i: CentreSteeringWheel) -> CentreSteeringWheelResult:
    """Offset / ratio at the road wheels; r sin of that longer on one side, shorter on the other:
    the toe stays.

    Raises
    ------
    Refused
        `offset_implausible` above 90 degrees: a spline fault; `bad_option`, `length_not_positive`.

    Example
    -------
    >>> given = {
    ...     "wheel_offset": {"value": 8, "unit": "deg"},
    ...     "steering_ratio": {"value": 16, "unit": "1"},
    ...     "steering_arm_radius": {"value": 130, "unit": "mm"},
    ...     "thread_pitch": {"value": 1.5, "unit": "mm"},
    ...     "adjuster": "single",
    ... }
    >>> found = centre_steering_wheel(CentreSteeringWheel.model_validate(given))
    >>> round(found.road_wheel_angle.value, 4), found.road_wheel_angle.unit
    (0.5, 'deg')
    """
    offset, ratio = i.figure("wheel_offset"), i.figure("steering_ratio")
    if abs(offset) > MOST_OFFSET:
        raise Refused(
            "offset_implausible",
            f"more than {MOST_OFFSET:g}° off: the wheel sits on the wrong spline, move it there",
            field="wheel_offset",
        )
    if ratio <= 0:
        raise Refused(
            "length_not_positive", "'steering_ratio' must be above zero", field="steering_ratio"
        )
    per_turn, radius = (
        _pitch(i.adjuster, i.thread_pitch),
        _length(i.steering_arm_radius, "steering_arm_radius"),
    )
    angle = offset / ratio
    change = radius * sin(radians(angle))
    words = (
        f"{radius:g} × sin({angle:g}°) = {change:.3f} mm, ÷ {per_turn:g} = "
        f"{change / per_turn:.2f} turns"
    )
    return CentreSteeringWheelResult(
        road_wheel_angle=in_unit(angle, "deg"),
        length_change=in_unit(change, "mm"),
        turns=Quantity(value=change / per_turn, unit=TURNS),
        direction=_direction(offset),
        working=(words,),
    )


def _direction(offset: float) -> str:
    """Which rod is lengthened: the wheel is turned to the centre, the road wheels follow it, and
    are brought back by the rods.
    """
    if round9(offset) == 0:
        return "the wheel stands straight: nothing to turn"
    side, longer, shorter = ("right", "left", "right") if offset > 0 else ("left", "right", "left")
    return (
        f"the wheel stands off to the {side}: {longer} rod longer and {shorter} rod shorter by "
        "as much, where the steering arms point behind the axle; "
        "the other way round where they point in front of it"
    )


class MatchRodLength(Input):
    """Length of the old rod, of the new one now, its thread, and how far each end sits in it."""

    old_length: Length = None
    new_length_now: Length = None
    thread_pitch: Length = None
    adjuster: Annotated[str, one_of(*THREADS)] = ""
    engagement_now_per_end: Length = None
    thread_diameter: Length = None


class MatchRodLengthResult(Result):
    """Turns (positive screws out), the engagement left at each end, and whether it is one diameter
    or more.
    """

    turns: Quantity
    engagement: Quantity
    engagement_in_diameters: Quantity
    engagement_ok: bool


@calculation("New rod to the old length")
def match_rod_length(i: MatchRodLength) -> MatchRodLengthResult:
    """Turns = (old - new) / pitch, or / 2 pitch with a sleeve; each end gives turns × pitch of its
    engagement; one diameter has to be left.

    Raises
    ------
    Refused
        `thread_runs_out`, `bad_option`, `length_not_positive`.

    Example
    -------
    >>> given = {
    ...     "old_length": {"value": 312.5, "unit": "mm"},
    ...     "new_length_now": {"value": 308, "unit": "mm"},
    ...     "thread_pitch": {"value": 1.5, "unit": "mm"},
    ...     "adjuster": "single",
    ...     "engagement_now_per_end": {"value": 24, "unit": "mm"},
    ...     "thread_diameter": {"value": 14, "unit": "mm"},
    ... }
    >>> found = match_rod_length(MatchRodLength.model_validate(given))
    >>> round(found.turns.value, 4), found.turns.unit
    (3.0, 'turns')
    """
    old, new = _length(i.old_length, "old_length"), _length(i.new_length_now, "new_length_now")
    per_turn, diameter = (
        _pitch(i.adjuster, i.thread_pitch),
        _length(i.thread_diameter, "thread_diameter"),
    )
    now, pitch = (
        _length(i.engagement_now_per_end, "engagement_now_per_end"),
        _length(i.thread_pitch, "thread_pitch"),
    )
    turns = (old - new) / per_turn
    left = now - turns * pitch
    if round9(left) <= 0:
        raise Refused(
            "thread_runs_out",
            "the rod leaves its thread before the old length is reached: another rod",
            field="new_length_now",
        )
    lines = (
        f"({old:g} − {new:g}) ÷ {per_turn:g} = {turns:.2f} turns",
        f"{now:g} − {turns:.2f} × {pitch:g} = {left:.2f} mm left, {left / diameter:.2f} d",
    )
    return MatchRodLengthResult(
        turns=Quantity(value=turns, unit=TURNS),
        engagement=in_unit(left, "mm"),
        engagement_in_diameters=Quantity(value=left / diameter, unit="d"),
        engagement_ok=round9(left) >= round9(diameter),
        working=lines,
    )
