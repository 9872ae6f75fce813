"""Gaps that are got from depths: the release bearing to the clutch fingers. Lengths in mm."""

from hollet.core.fields import Length
from hollet.core.quantities.quantity import Quantity, in_unit
from hollet.core.registry import Input, Result, calculation

__all__ = ["release_bearing_gap"]

NOTHING = Quantity(value=0, unit="mm")


class ReleaseBearingGap(Input):
    """`A`: housing face back to the bearing, pushed fully back, read over a bar; `B`: fingers above
    the engine face; a plate between.
    """

    A: Length = None
    B: Length = None
    bar_A: Length = NOTHING
    spacer: Length = NOTHING


class ReleaseBearingGapResult(Result):
    """Gap between bearing and fingers, before any shim; negative when they would meet."""

    gap: Quantity


@calculation("Release-bearing gap")
def release_bearing_gap(i: ReleaseBearingGap) -> ReleaseBearingGapResult:
    """gap = (A - bar) + spacer plate - B, all from the joint face (a dimension chain in the manner
    of ISO 286).

    B is positive towards the gearbox and negative when the fingers lie below the engine face. Each
    depth is best the mean of
    three places round the face.

    Example
    -------
    >>> given = {
    ...     "A": {"value": 57.3, "unit": "mm"},
    ...     "B": {"value": 49.1, "unit": "mm"},
    ... }
    >>> found = release_bearing_gap(ReleaseBearingGap.model_validate(given))
    >>> round(found.gap.value, 4), found.gap.unit
    (8.2, 'mm')
    """
    a, b, bar, plate = (i.figure(name) for name in ("A", "B", "bar_A", "spacer"))
    gap = a - bar + plate - b
    words = f"({a:g} − {bar:g}) + {plate:g} − {b:g} = {gap:.3f} mm"
    return ReleaseBearingGapResult(gap=in_unit(gap, i.A.unit if i.A else "mm"), working=(words,))
