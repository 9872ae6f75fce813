"""Ring gear: backlash round it, which way the shims go, and the preload of its carrier. Lengths in
mm.

Bevel-gear geometry and axle-assembly practice. Packs and caps torqued; backlash read at the same
teeth before and after.
"""

from math import floor

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths, Ratio
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "backlash_factor",
    "backlash_readings",
    "backlash_shim_move",
    "carrier_preload",
]

FEWEST_TEETH = 3
USUAL_FACTOR = Quantity(value=0.7, unit="1")


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
