"""Round faces and flanges: how far they run out and where they are high, how evenly they are drawn,
what a bearing drags. Lengths in mm.

Model of `runout` and `even_drawing`: points at equal steps round, read in order; the first harmonic
of the readings by least squares is what a
mere shift or tilt explains (limacon approximation of the least-squares circle, ISO 4291; circular
run-out, ISO 1101). What is left over is form.
"""

from collections.abc import Sequence
from math import atan2, cos, degrees, fsum, hypot, pi, sin

from hollet.core.errors import Refused
from hollet.core.fields import Force, Length, Lengths, Torque
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["even_drawing", "runout", "turning_torque"]

FEWEST_POINTS = 4
FEWEST_BOLTS = 3
NOTHING = Quantity(value=0, unit="N·m")


class Runout(Input):
    """What a dial shows at four or more places at equal steps, turned through once, in order."""

    readings: Lengths = None


class RunoutResult(Result):
    """Total runout; the part of it that a shift or tilt alone makes, and at which angle from the
    first place it is high; the form left over.
    """

    total: Quantity
    shift_part: Quantity
    high_angle: Quantity
    form: Quantity


@calculation("Runout and its high spot")
def runout(i: Runout) -> RunoutResult:
    """total = largest - smallest; shift part = 2 √(a² + b²) with a, b = 2/n Σ r cos θ, 2/n Σ r sin
    θ; form = spread of what is left.

    The high angle goes the way the places are counted, 0 at the first. Where it is nearly all form,
    bolting the part on elsewhere will not mend it.

    Raises
    ------
    Refused
        `too_few_points` below four.

    Example
    -------
    >>> dial = {"value": [0, 0.03, 0.06, 0.03], "unit": "mm"}
    >>> found = runout(Runout.model_validate({"readings": dial}))
    >>> round(found.total.value, 3), round(found.shift_part.value, 3)
    (0.06, 0.06)
    """
    found = i.figures("readings")
    if len(found) < FEWEST_POINTS:
        raise Refused(
            "too_few_points",
            f"'readings': runout is read at {FEWEST_POINTS} places or more, at equal steps",
            field="readings",
        )
    size, angle, left = _harmonic(found)
    total, form = max(found) - min(found), max(left) - min(left)
    unit = i.readings.unit if i.readings else "mm"
    return RunoutResult(
        total=in_unit(total, unit),
        shift_part=in_unit(2 * size, unit),
        high_angle=Quantity(value=angle, unit="deg"),
        form=in_unit(form, unit),
        working=(
            f"total: {max(found):.4f} − {min(found):.4f} = {total:.4f} mm",
            (
                f"shift or tilt alone: {2 * size:.4f} mm, high at {angle:.0f}°; form left over: "
                f"{form:.4f} mm"
            ),
        ),
    )


class EvenDrawing(Input):
    """The gap at each bolt of a flange or cover, at equal steps round, in order."""

    gaps: Lengths = None


class EvenDrawingResult(Result):
    """Widest less narrowest, at which places, how much of it is tilt, and which bolt to
    turn next.
    """

    difference: Quantity
    widest_at: int
    narrowest_at: int
    tilt: Quantity
    advice: str


@calculation("Flange drawn up evenly")
def even_drawing(i: EvenDrawing) -> EvenDrawingResult:
    """difference = widest - narrowest; the widest place is the next to be drawn, of equal ones the
    one farthest round from the narrowest.

    tilt = difference across the diameter that a flat face drawn in crooked would show (first
    harmonic, twice its size).

    Raises
    ------
    Refused
        `too_few_points` below three, `negative_gap`.

    Example
    -------
    >>> gaps = {"value": [0.5, 0.4, 0.3, 0.4], "unit": "mm"}
    >>> found = even_drawing(EvenDrawing.model_validate({"gaps": gaps}))
    >>> round(found.difference.value, 3), found.widest_at
    (0.2, 1)
    """
    found = i.figures("gaps")
    n = len(found)
    if n < FEWEST_BOLTS:
        raise Refused(
            "too_few_points",
            f"'gaps': read the gap at {FEWEST_BOLTS} bolts or more, at equal steps round",
            field="gaps",
        )
    if min(found) < 0:
        raise Refused(
            "negative_gap", "'gaps': a gap is nothing or more; faces that touch are 0", field="gaps"
        )
    narrow = found.index(min(found))
    wide = max(
        (k for k, gap in enumerate(found) if gap == max(found)),
        key=lambda k: (min((k - narrow) % n, (narrow - k) % n), -k),
    )
    difference, tilt = found[wide] - found[narrow], 2 * _harmonic(found)[0]
    unit = i.gaps.unit if i.gaps else "mm"
    if round9(difference) == 0:
        advice = "even all round: go on crosswise, the same turn at each"
    else:
        advice = (
            f"next the bolt at place {wide + 1}: {difference:.2f} mm wider than place {narrow + 1}"
            + (", and it is going on crooked" if tilt > difference / 2 else "")
        )
    return EvenDrawingResult(
        difference=in_unit(difference, unit),
        widest_at=wide + 1,
        narrowest_at=narrow + 1,
        tilt=in_unit(tilt, unit),
        advice=advice,
        working=(
            (
                f"place {wide + 1} less place {narrow + 1}: {found[wide]:.4f} − "
                f"{found[narrow]:.4f} "
                f"= {difference:.4f} mm"
            ),
            f"tilt across the diameter: {tilt:.4f} mm",
        ),
    )


class TurningTorque(Input):
    """The steady pull of a spring balance on a string, the radius on which the string lies, and
    what a seal drags.
    """

    pull: Force = None
    radius: Length = None
    seal_drag: Torque = NOTHING


class TurningTorqueResult(Result):
    """Turning torque of the bearings alone."""

    torque: Quantity


@calculation("Preload as turning torque, by string and spring balance")
def turning_torque(i: TurningTorque) -> TurningTorqueResult:
    """torque = pull x radius - seal drag, turning slowly and steadily; what it takes to start is
    more and does not count (moment of a force).

    Raises
    ------
    Refused
        `not_positive`, `negative_torque` when the seal is said to drag more than all together.

    Example
    -------
    >>> pull, radius = {"value": 25, "unit": "N"}, {"value": 48, "unit": "mm"}
    >>> found = turning_torque(TurningTorque.model_validate({"pull": pull, "radius": radius}))
    >>> round(found.torque.value, 3), found.torque.unit
    (1.2, 'N·m')
    """
    pull, radius, seal = i.positive("pull"), i.positive("radius"), i.figure("seal_drag")
    torque = pull * radius / 1000 - seal
    if seal < 0 or torque < 0:
        raise Refused(
            "negative_torque",
            f"'seal_drag' must be between 0 and {pull * radius / 1000:.3f} N·m, what was pulled "
            "in all",
            field="seal_drag",
        )
    return TurningTorqueResult(
        torque=Quantity(value=torque, unit="N·m"),
        working=(f"{pull:g} N × {radius:g} mm ÷ 1000 − {seal:g} = {torque:.4f} N·m",),
    )


def _harmonic(found: Sequence[float]) -> tuple[float, float, list[float]]:
    """Size and angle (deg, 0 to 360) of the first harmonic by least squares, and what is left of
    each reading.
    """
    n = len(found)
    turn = [2 * pi * k / n for k in range(n)]
    a, b = (
        2 / n * fsum(r * trig(t) for r, t in zip(found, turn, strict=True)) for trig in (cos, sin)
    )
    mean = fsum(found) / n
    left = [r - mean - a * cos(t) - b * sin(t) for r, t in zip(found, turn, strict=True)]
    size = hypot(a, b)
    return size, degrees(atan2(b, a)) % 360 if round9(size) else 0.0, left
