"""Where a pinion stands: its shim, and what the contact pattern says of it. Lengths in mm.

Usual practice of setting up a bevel pair.
"""

from typing import Annotated

from hollet.core.errors import Refused
from hollet.core.fields import Length, one_of
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["contact_pattern", "pinion_shim"]

MOST_MARKING = 0.02

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
