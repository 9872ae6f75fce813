"""Ring gear and pinion: backlash round the gear, which way the shims go, and what the contact
pattern says. Lengths in mm.

Bevel-gear geometry and axle-assembly practice. Packs and caps torqued; backlash read at the same
teeth before and after.
"""

from math import floor
from typing import Annotated

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths, Ratio, one_of
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "backlash_factor",
    "backlash_readings",
    "backlash_shim_move",
    "carrier_preload",
    "contact_pattern",
    "pinion_shim",
]

FEWEST_TEETH = 3
MOST_MARKING = 0.02
USUAL_FACTOR = Quantity(value=0.7, unit="1")
HEIGHTS = {"face": 1, "flank": -1}
LENGTHS = {"heel": 1, "toe": -1}
PLACES = (
    "centre",
    "face",
    "flank",
    "heel",
    "toe",
    "heel_face",
    "toe_face",
    "heel_flank",
    "toe_flank",
)
SHIM_SIGNS = {"thicker_moves_pinion_in": -1, "thicker_moves_pinion_out": 1}


class BacklashReadings(Input):
    """Backlash at several teeth round the gear, and what is allowed."""

    readings: Lengths = None
    lower_limit: Length = None
    upper_limit: Length = None
    variation_limit: Length = None


class BacklashResult(Result):
    """Mean, least, most and their difference; whether each reading and the difference
    are allowed.
    """

    mean: Quantity
    minimum: Quantity
    maximum: Quantity
    variation: Quantity
    variation_ok: bool
    in_limits: bool


@calculation("Backlash round the gear")
def backlash_readings(i: BacklashReadings) -> BacklashResult:
    """Every reading in the limits, and largest - smallest at most the variation limit (0.05 to 0.08
    mm is usual).

    The dial stands square to the flank at the outer end of the tooth.

    Raises
    ------
    Refused
        `too_few_teeth` below three, `limits_reversed`.

    Example
    -------
    >>> given = {
    ...     "readings": {"value": [0.15, 0.17, 0.16, 0.15], "unit": "mm"},
    ...     "lower_limit": {"value": 0.13, "unit": "mm"},
    ...     "upper_limit": {"value": 0.2, "unit": "mm"},
    ...     "variation_limit": {"value": 0.05, "unit": "mm"},
    ... }
    >>> found = backlash_readings(BacklashReadings.model_validate(given))
    >>> round(found.mean.value, 4), found.mean.unit
    (0.1575, 'mm')
    """
    found = i.figures("readings")
    low, high, most = (i.figure(name) for name in ("lower_limit", "upper_limit", "variation_limit"))
    if len(found) < FEWEST_TEETH:
        raise Refused(
            "too_few_teeth",
            f"backlash is read at {FEWEST_TEETH} teeth or more, better at four to six",
            field="readings",
        )
    if low > high:
        raise Refused(
            "limits_reversed", "'lower_limit' must not be above 'upper_limit'", field="lower_limit"
        )
    spread, unit = max(found) - min(found), i.readings.unit if i.readings else "mm"
    return BacklashResult(
        mean=in_unit(sum(found) / len(found), unit),
        minimum=in_unit(min(found), unit),
        maximum=in_unit(max(found), unit),
        variation=in_unit(spread, unit),
        variation_ok=round9(spread) <= round9(most),
        in_limits=all(round9(low) <= round9(b) <= round9(high) for b in found),
        working=(
            f"variation: {max(found):g} − {min(found):g} = {spread:.4f} mm, at most {most:g}",
        ),
    )


class BacklashShimMove(Input):
    """Backlash as it is and as wanted, both shim packs, the step of the shims; the factor, learnt
    or usual.
    """

    backlash: Length = None
    target: Length = None
    factor: Ratio = USUAL_FACTOR
    pack_pinion_side: Length = None
    pack_far_side: Length = None
    shim_step: Length = None


class BacklashShimMoveResult(Result):
    """What goes over to the pinion side (exact, and in whole shims), both packs after it, and the
    backlash to expect.
    """

    move_exact: Quantity
    move: Quantity
    pack_pinion_side: Quantity
    pack_far_side: Quantity
    predicted_backlash: Quantity


@calculation("Shims for the backlash")
def backlash_shim_move(i: BacklashShimMove) -> BacklashShimMoveResult:
    """move = (target - backlash) / factor, to the nearest shim step; what one pack gets the other
    gives, so the preload stays.

    The usual factor 0.7 is a rule of thumb (2 tan 20° sin of the pitch angle at 3 to 4 : 1); learn
    it from the first move.

    Raises
    ------
    Refused
        `shim_negative` when a pack would be less than nothing; `not_positive` for a factor or step
        that is not above zero.

    Example
    -------
    >>> given = {
    ...     "backlash": {"value": 0.1, "unit": "mm"},
    ...     "target": {"value": 0.17, "unit": "mm"},
    ...     "factor": {"value": 0.7, "unit": "1"},
    ...     "pack_pinion_side": {"value": 1.8, "unit": "mm"},
    ...     "pack_far_side": {"value": 2.1, "unit": "mm"},
    ...     "shim_step": {"value": 0.05, "unit": "mm"},
    ... }
    >>> found = backlash_shim_move(BacklashShimMove.model_validate(given))
    >>> round(found.move_exact.value, 4), found.move_exact.unit
    (0.1, 'mm')
    """
    now, target, factor, near, far, step = (
        i.figure(name)
        for name in (
            "backlash",
            "target",
            "factor",
            "pack_pinion_side",
            "pack_far_side",
            "shim_step",
        )
    )
    if factor <= 0 or step <= 0:
        raise Refused(
            "not_positive",
            "'factor' and 'shim_step' must be above zero",
            field="factor" if factor <= 0 else "shim_step",
        )
    needed = (target - now) / factor
    move = step * floor(round9(needed / step) + 0.5)
    if round9(near + move) < 0 or round9(far - move) < 0:
        raise Refused(
            "shim_negative",
            f"moving {move:.2f} mm would leave a pack below nothing: another bearing or seat, "
            "or a wrong figure",
            field="target",
        )
    unit = i.backlash.unit if i.backlash else "mm"
    return BacklashShimMoveResult(
        move_exact=in_unit(needed, unit),
        move=in_unit(move, unit),
        pack_pinion_side=in_unit(near + move, unit),
        pack_far_side=in_unit(far - move, unit),
        predicted_backlash=in_unit(now + factor * move, unit),
        working=(
            (
                f"({target:g} − {now:g}) ÷ {factor:g} = {needed:.4f} mm, in steps of {step:g}: "
                f"{move:.3f}"
            ),
            f"to expect: {now:g} + {factor:g} × {move:.3f} = {now + factor * move:.4f} mm",
        ),
    )


class BacklashFactor(Input):
    """Backlash before and after a move of shims."""

    before: Length = None
    after: Length = None
    move: Length = None


class BacklashFactorResult(Result):
    """Change of backlash per change of shim."""

    factor: float


@calculation("Backlash factor, learnt")
def backlash_factor(i: BacklashFactor) -> BacklashFactorResult:
    """factor = (after - before) / move; refuses `not_positive` when nothing was moved.

    Example
    -------
    >>> given = {
    ...     "before": {"value": 0.1, "unit": "mm"},
    ...     "after": {"value": 0.168, "unit": "mm"},
    ...     "move": {"value": 0.1, "unit": "mm"},
    ... }
    >>> found = backlash_factor(BacklashFactor.model_validate(given))
    >>> round(found.factor, 4)
    0.68
    """
    before, after, move = i.figure("before"), i.figure("after"), i.figure("move")
    if round9(move) == 0:
        raise Refused(
            "not_positive", "'move' is 0: nothing is learnt when no shim was moved", field="move"
        )
    return BacklashFactorResult(
        factor=(after - before) / move,
        working=(f"({after:g} − {before:g}) ÷ {move:g} = {(after - before) / move:.3f}",),
    )


class CarrierPreload(Input):
    """The packs at which the carrier has no end play, and the addition that the manual asks for."""

    left_zero_play: Length = None
    right_zero_play: Length = None
    preload_addition: Length = None


class CarrierPreloadResult(Result):
    """Both packs, and their sum."""

    total: Quantity
    left: Quantity
    right: Quantity


@calculation("Carrier preload")
def carrier_preload(i: CarrierPreload) -> CarrierPreloadResult:
    """Packs at zero end play, and the addition shared equally; refuses `preload_not_positive`,
    `shim_negative`.

    Example
    -------
    >>> given = {
    ...     "left_zero_play": {"value": 1.8, "unit": "mm"},
    ...     "right_zero_play": {"value": 2.05, "unit": "mm"},
    ...     "preload_addition": {"value": 0.15, "unit": "mm"},
    ... }
    >>> found = carrier_preload(CarrierPreload.model_validate(given))
    >>> round(found.total.value, 4), found.total.unit
    (4.0, 'mm')
    """
    left, right, addition = (
        i.figure("left_zero_play"),
        i.figure("right_zero_play"),
        i.figure("preload_addition"),
    )
    if round9(addition) <= 0:
        raise Refused(
            "preload_not_positive",
            "'preload_addition' must be above zero: with nothing added the bearings have no "
            "preload",
            field="preload_addition",
        )
    if left + addition / 2 < 0 or right + addition / 2 < 0:
        raise Refused(
            "shim_negative", "a shim pack would be below nothing", field="preload_addition"
        )
    unit = i.left_zero_play.unit if i.left_zero_play else "mm"
    return CarrierPreloadResult(
        total=in_unit(left + right + addition, unit),
        left=in_unit(left + addition / 2, unit),
        right=in_unit(right + addition / 2, unit),
        working=(
            (
                f"{left:g} + {addition:g} ÷ 2 = {left + addition / 2:.4f} mm, {right:g} + "
                f"{addition:g} ÷ 2 = {right + addition / 2:.4f} mm"
            ),
        ),
    )


class PinionShim(Input):
    """Mounting distance as measured with a trial shim, as nominal, the marking on the pinion, and
    which way a shim moves it.
    """

    trial_shim: Length = None
    measured_distance: Length = None
    nominal_distance: Length = None
    marking: Length = None
    shim_position: Annotated[str, one_of(*SHIM_SIGNS)] = ""


class PinionShimResult(Result):
    """By how much the pinion stands too near the axis of the ring gear, and the shim that puts it
    right.
    """

    error: Quantity
    shim: Quantity


@calculation("Pinion shim")
def pinion_shim(i: PinionShim) -> PinionShimResult:
    """error = nominal + marking - measured; shim = trial - error behind the head, trial + error
    under an outboard retainer.

    Raises
    ------
    Refused
        `bad_option`, `marking_implausible` above 2 % of the distance, `shim_negative`.

    Example
    -------
    >>> given = {
    ...     "trial_shim": {"value": 0, "unit": "mm"},
    ...     "measured_distance": {"value": 96.9, "unit": "mm"},
    ...     "nominal_distance": {"value": 97.5, "unit": "mm"},
    ...     "marking": {"value": -0.08, "unit": "mm"},
    ...     "shim_position": "thicker_moves_pinion_out",
    ... }
    >>> found = pinion_shim(PinionShim.model_validate(given))
    >>> round(found.error.value, 4), found.error.unit
    (0.52, 'mm')
    """
    if i.shim_position not in SHIM_SIGNS:
        raise Refused(
            "bad_option",
            "'shim_position' must be thicker_moves_pinion_in or thicker_moves_pinion_out: it "
            "decides the sign",
            field="shim_position",
        )
    trial, measured, nominal, marking = (
        i.figure(name)
        for name in ("trial_shim", "measured_distance", "nominal_distance", "marking")
    )
    if abs(marking) > MOST_MARKING * abs(nominal):
        raise Refused(
            "marking_implausible",
            "pinion markings are hundredths of a millimetre or thousandths of an inch: check "
            "the unit",
            field="marking",
        )
    error = nominal + marking - measured
    shim = trial + SHIM_SIGNS[i.shim_position] * error
    if round9(shim) < 0:
        raise Refused(
            "shim_negative",
            f"it would take a shim of {shim:.3f} mm: measure again, with a thicker trial shim",
            field="trial_shim",
        )
    unit, sign = (
        i.measured_distance.unit if i.measured_distance else "mm",
        "−" if SHIM_SIGNS[i.shim_position] < 0 else "+",
    )
    return PinionShimResult(
        error=in_unit(error, unit),
        shim=in_unit(shim, unit),
        working=(
            f"error: {nominal:g} + {marking:g} − {measured:g} = {error:.4f} mm",
            f"shim: {trial:g} {sign} {error:.4f} = {shim:.4f} mm",
        ),
    )


class ContactPattern(Input):
    """Where the paint is worn off on the drive side (convex) and on the coast side: centre, face,
    flank, heel, toe or two of them.
    """

    drive_side: Annotated[str, one_of(*PLACES)] = ""
    coast_side: Annotated[str, one_of(*PLACES)] = ""


class ContactPatternResult(Result):
    """What to do: good, pinion_in, pinion_out, ring_gear_towards_pinion,
    ring_gear_away_from_pinion, recheck.
    """

    action: str


@calculation("Contact pattern")
def contact_pattern(i: ContactPattern) -> ContactPatternResult:
    """Depth first (face or flank on both sides), then backlash (heel or toe on both); whatever
    disagrees is to be looked at again.

    Spiral bevel and hypoid gears, drive side convex. The backlash limits always hold.

    Raises
    ------
    Refused
        `bad_option`.

    Example
    -------
    >>> given = {
    ...     "drive_side": "heel",
    ...     "coast_side": "heel",
    ... }
    >>> found = contact_pattern(ContactPattern.model_validate(given))
    >>> found.action
    'ring_gear_towards_pinion'
    """
    for name, place in (("drive_side", i.drive_side), ("coast_side", i.coast_side)):
        if place not in PLACES:
            raise Refused("bad_option", f"'{name}' must be one of {', '.join(PLACES)}", field=name)
    high = [_sign(place, HEIGHTS) for place in (i.drive_side, i.coast_side)]
    along = [_sign(place, LENGTHS) for place in (i.drive_side, i.coast_side)]
    if high[0] != high[1] or (not any(high) and along[0] != along[1]):
        action, words = (
            "recheck",
            (
                "the two sides say different things: clean, paint again, load the gear; look at "
                "bearings and runout"
            ),
        )
    elif any(high):
        action, words = (
            ("pinion_in", "high on both sides: the pinion stands too far out")
            if high[0] > 0
            else ("pinion_out", "low on both sides: the pinion stands too deep")
        )
    elif any(along):
        action, words = (
            ("ring_gear_towards_pinion", "at the heel: too much backlash")
            if along[0] > 0
            else ("ring_gear_away_from_pinion", "at the toe: too little backlash")
        )
    else:
        action, words = "good", "in the middle on both sides"
    return ContactPatternResult(action=action, working=(words,))


def _sign(place: str, signs: dict[str, int]) -> int:
    return next((signs[word] for word in place.split("_") if word in signs), 0)
