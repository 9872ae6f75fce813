"""Lengths to cut: a push rod between a cylinder and its lever. Lengths in mm.

Plane geometry; the thread engagement by the usual rule of machine design, one diameter at least for
steel in steel.
"""

from math import floor

from hollet.core.errors import Refused
from hollet.core.fields import Length
from hollet.core.quantities.quantity import Quantity, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = ["rod_cut"]

LEAST_ENGAGEMENT = 1.0
SAW_STEP = 0.5
"""mm: the cut is rounded down to it."""


class RodCut(Input):
    """Marks along the rod at one fixed edge, gearbox and clutch joined: piston at the bottom of its
    bore, and lever at rest; what thread there is.

    `wear_reserve` is what the maker of the actuator lets the disc wear before the piston bottoms,
    with who says so.
    """

    full_mark: Length = None
    rest_mark: Length = None
    free_play: Length = None
    wear_reserve: Length = None
    wear_reserve_source: str | None = None
    hydraulic_self_adjusting: bool
    rod_length: Length = None
    thread_length: Length = None
    lock_nut: Length = None
    fitting_depth: Length = None
    thread_diameter: Length = None


class RodCutResult(Result):
    """How much to cut, the length left, how far the thread still engages (in mm and in diameters,
    `d`), and where to saw.
    """

    cut: Quantity
    new_length: Quantity | None = None
    engagement: Quantity | None = None
    engagement_in_diameters: Quantity | None = None
    engagement_ok: bool | None = None
    advice: str


@calculation("Push rod, length to cut")
def rod_cut(i: RodCut) -> RodCutResult:
    """cut = (full mark - rest mark) + free play + wear reserve; engagement = min(thread - cut -
    lock nut, depth of the fitting) >= 1 d.

    The marks are made with the system bled, the lever in light contact, both at one edge. Saw on
    the waste side, and rather too
    little: a second cut is possible, a longer rod is not.

    Raises
    ------
    Refused
        `play_not_zero_for_hydraulic`, `negative_free_play`, `negative_wear_reserve`;
        `rod_too_short` when the sum is below nothing or the rod would be gone.

    Example
    -------
    >>> given = {
    ...     "full_mark": {"value": 12, "unit": "mm"},
    ...     "rest_mark": {"value": 12, "unit": "mm"},
    ...     "free_play": {"value": 0, "unit": "mm"},
    ...     "hydraulic_self_adjusting": True,
    ...     "rod_length": {"value": 110, "unit": "mm"},
    ... }
    >>> found = rod_cut(RodCut.model_validate(given))
    >>> round(found.cut.value, 4), found.cut.unit
    (0.0, 'mm')
    """
    cut, lines = _to_cut(i)
    found: dict[str, Quantity | bool] = {}
    if i.rod_length:
        length = i.figure("rod_length")
        if round9(length - cut) <= 0:
            raise Refused(
                "rod_too_short",
                f"nothing would be left of a rod of {length:g} mm: look at the marks again",
                field="rod_length",
            )
        found["new_length"] = in_unit(length - cut, i.rod_length.unit)
        lines.append(f"{length:g} − {cut:.3f} = {length - cut:.3f} mm long")
    if i.thread_length and i.lock_nut and i.fitting_depth and i.thread_diameter:
        engaged, d = _engaged(i, cut, lines)
        found |= {
            "engagement": in_unit(engaged, i.thread_length.unit),
            "engagement_in_diameters": Quantity(value=engaged / d, unit="d"),
            "engagement_ok": round9(engaged / d) >= LEAST_ENGAGEMENT,
        }
    return RodCutResult(
        advice=_advice(cut, found.get("engagement_ok") is not False),
        cut=in_unit(cut, i.full_mark.unit if i.full_mark else "mm"),
        **found,
        working=tuple(lines),
    )


def _not_below(i: RodCut, name: str, harm: str) -> float:
    """A length that may be left out, then 0, and is never below it."""
    figure = i.figure(name) if getattr(i, name) else 0.0
    if figure < 0:
        raise Refused(f"negative_{name}", f"'{name}' must not be below 0: {harm}", field=name)
    return figure


def _to_cut(i: RodCut) -> tuple[float, list[str]]:
    """What is to be cut, in mm, and its working."""
    full, rest = i.figure("full_mark"), i.figure("rest_mark")
    play = _not_below(i, "free_play", "the rod would hold the clutch partly released")
    if i.hydraulic_self_adjusting and round9(play) > 0:
        raise Refused(
            "play_not_zero_for_hydraulic",
            "a self-adjusting hydraulic cylinder takes up its own play: set 'free_play' to 0",
            field="free_play",
        )
    reserve = _not_below(i, "wear_reserve", "the piston would bottom before the disc is worn")
    cut = full - rest + play + reserve
    if round9(cut) < 0:
        raise Refused(
            "rod_too_short",
            f"the rod is {-cut:.2f} mm too short already, and the clutch may not free: lengthen "
            "or replace it, do not cut. Too long is as wrong: "
            "it would hold the clutch half pressed",
            field="full_mark",
        )
    if not i.hydraulic_self_adjusting:
        i.figure("free_play")  # a lever moved by rod or cable needs its play named
    kept = f" + {reserve:g}" if reserve else ""
    lines = [f"({full:g} − {rest:g}) + {play:g}{kept} = {cut:.3f} mm"]
    if reserve:
        lines.append(f"reserve for wear {reserve:g} mm, {i.wear_reserve_source or 'assumed'}")
    return cut, lines


def _engaged(i: RodCut, cut: float, lines: list[str]) -> tuple[float, float]:
    """How far the thread still engages, and its diameter, in mm; adds its line of working."""
    thread, nut, depth, d = (
        i.figure(name) for name in ("thread_length", "lock_nut", "fitting_depth", "thread_diameter")
    )
    if d <= 0:
        raise Refused(
            "not_a_finite_number", "'thread_diameter' must be above zero", field="thread_diameter"
        )
    engaged = min(thread - cut - nut, depth)
    lines.append(
        f"engaged: the smaller of {thread:g} − {cut:.3f} − {nut:g} and {depth:g} = "
        f"{engaged:.3f} mm, {engaged / d:.2f} of the diameter"
    )
    return engaged, d


def _advice(cut: float, thread_left: bool) -> str:
    first = floor(round9(cut) / SAW_STEP) * SAW_STEP
    if not thread_left:
        return "do not cut: less thread than its own diameter would be left in the fitting"
    if first == 0:
        return "nothing to cut: the piston bottoms just as the lever rests"
    return (
        f"cut {first:g} mm off and try it: {cut:.2f} in all, a second cut is possible, a longer "
        "rod is not; uncut it would hold the clutch half pressed"
    )
