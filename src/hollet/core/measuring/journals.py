"""Journals and plain bearings: wear, oil clearance, shells and washers to choose, side clearance.

Lengths in mm; geometry and bearing makers' practice. Parts clean and at 20 °C, shells torqued, all
in the plane square to the parting line.
"""

from typing import Annotated

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.fields import Length, Lengths
from hollet.core.quantities.quantity import Quantity, canonical, in_unit, round9
from hollet.core.registry import Input, Result, calculation

__all__ = [
    "choose_shells",
    "end_float_washers",
    "journal_map",
    "oil_clearance",
    "oil_clearance_rule_of_thumb",
    "rod_side_clearance",
]

STATIONS = 2
MOST_SPREAD = 0.02  # no journal wears by more; an inch figure among millimetres does
RULE_LO, RULE_HI = 0.00075, 0.001
"""Oil clearance per unit of journal diameter, rule of thumb."""


class JournalMap(Input):
    """Diameters along the journal on two axes 90 degrees apart, and the nominal diameter."""

    axis_1: Lengths = None
    axis_2: Lengths = None
    nominal: Length = None


class JournalMapResult(Result):
    """Out of round at one station, taper along one axis, the smallest diameter, and wear under
    nominal.
    """

    out_of_round: Quantity
    taper: Quantity
    min_diameter: Quantity
    wear: Quantity


@calculation("Journal map")
def journal_map(i: JournalMap) -> JournalMapResult:
    """Wear of a journal from two axes at two stations or more.

    Raises
    ------
    Refused
        `map_incomplete`; `reading_outlier` when the readings spread by more than 2 % (an inch
        figure among millimetres).

    Example
    -------
    >>> given = {
    ...     "axis_1": {"value": [54.981, 54.978], "unit": "mm"},
    ...     "axis_2": {"value": [54.974, 54.973], "unit": "mm"},
    ...     "nominal": {"value": 54.985, "unit": "mm"},
    ... }
    >>> found = journal_map(JournalMap.model_validate(given))
    >>> round(found.out_of_round.value, 4), found.out_of_round.unit
    (0.007, 'mm')
    """
    one, two = i.figures("axis_1"), i.figures("axis_2")
    nominal = i.figure("nominal")
    if len(one) != len(two) or len(one) < STATIONS:
        raise Refused(
            "map_incomplete",
            "two axes at two or more stations are needed, as many on each axis",
            field="axis_2",
        )
    if min(*one, *two) <= 0 or max(*one, *two) > min(*one, *two) * (1 + MOST_SPREAD):
        raise Refused(
            "reading_outlier",
            "the readings differ by more than 2 %: a wrong unit or a typing slip",
            field="axis_1",
        )
    oval = max(abs(a - b) for a, b in zip(one, two, strict=True))
    taper, least = max(max(one) - min(one), max(two) - min(two)), min(*one, *two)
    unit = i.nominal.unit if i.nominal else "mm"
    return JournalMapResult(
        out_of_round=in_unit(oval, unit),
        taper=in_unit(taper, unit),
        min_diameter=in_unit(least, unit),
        wear=in_unit(nominal - least, unit),
        working=(f"wear: {nominal:g} − {least:g} = {nominal - least:.4f} mm",),
    )


class OilClearance(Input):
    """Housing bore torqued without shells, both walls, and the journal."""

    housing_bore: Length = None
    upper_shell_wall: Length = None
    lower_shell_wall: Length = None
    journal: Length = None


class ClearanceResult(Result):
    """Diametral clearance."""

    clearance: Quantity


@calculation("Oil clearance from its parts")
def oil_clearance(i: OilClearance) -> ClearanceResult:
    """Housing bore - upper wall - lower wall - journal.

    Raises
    ------
    Refused
        `negative_clearance`: the journal would seize.

    Example
    -------
    >>> given = {
    ...     "housing_bore": {"value": 59.01, "unit": "mm"},
    ...     "upper_shell_wall": {"value": 1.992, "unit": "mm"},
    ...     "lower_shell_wall": {"value": 1.994, "unit": "mm"},
    ...     "journal": {"value": 54.978, "unit": "mm"},
    ... }
    >>> found = oil_clearance(OilClearance.model_validate(given))
    >>> round(found.clearance.value, 4), found.clearance.unit
    (0.046, 'mm')
    """
    housing, journal = i.figure("housing_bore"), i.figure("journal")
    upper, lower = i.figure("upper_shell_wall"), i.figure("lower_shell_wall")
    left = housing - upper - lower - journal
    if round9(left) <= 0:
        raise Refused(
            "negative_clearance",
            "no oil clearance is left, the journal would seize: check the grade of the shells "
            "and the units",
            field="journal",
        )
    unit = i.housing_bore.unit if i.housing_bore else "mm"
    return ClearanceResult(
        clearance=in_unit(left, unit),
        working=(f"{housing:g} − {upper:g} − {lower:g} − {journal:g} = {left:.4f} mm",),
    )


class ChooseShells(Input):
    """Housing, journal, the wall of each grade in order of thickness, limits and target of the
    clearance.
    """

    housing_bore: Length = None
    journal: Length = None
    grade_wall: Annotated[dict[str, Quantity], Field(max_length=60)] = Field(default_factory=dict)
    lower_limit: Length = None
    upper_limit: Length = None
    target: Length = None


class ChooseShellsResult(Result):
    """The two grades, thinner first, and the clearance they give."""

    grades: tuple[str, ...]
    clearance: Quantity


@calculation("Bearing shells to choose")
def choose_shells(i: ChooseShells) -> ChooseShellsResult:
    """Of all pairs of the same or neighbouring grades inside the limits: nearest to the target,
    then the same grade twice, then the larger clearance.

    Raises
    ------
    Refused
        `no_grade_fits`.

    Example
    -------
    >>> given = {
    ...     "housing_bore": {"value": 59.01, "unit": "mm"},
    ...     "journal": {"value": 54.978, "unit": "mm"},
    ...     "grade_wall": {
    ...         "1": {"value": 1.986, "unit": "mm"},
    ...         "2": {"value": 1.99, "unit": "mm"},
    ...         "3": {"value": 1.994, "unit": "mm"},
    ...         "4": {"value": 1.998, "unit": "mm"},
    ...         "5": {"value": 2.002, "unit": "mm"},
    ...     },
    ...     "lower_limit": {"value": 0.025, "unit": "mm"},
    ...     "upper_limit": {"value": 0.055, "unit": "mm"},
    ...     "target": {"value": 0.04, "unit": "mm"},
    ... }
    >>> found = choose_shells(ChooseShells.model_validate(given))
    >>> round(found.clearance.value, 4), found.clearance.unit
    (0.04, 'mm')
    """
    housing, journal = i.figure("housing_bore"), i.figure("journal")
    lo, hi, target = (
        canonical(q, "length", name)
        for q, name in (
            (i.lower_limit, "lower_limit"),
            (i.upper_limit, "upper_limit"),
            (i.target, "target"),
        )
    )
    walls = [
        (grade, canonical(wall, "length", "grade_wall")) for grade, wall in i.grade_wall.items()
    ]
    pairs = [(a, b) for k, a in enumerate(walls) for b in walls[k : k + 2]]
    found = [(a[0], b[0], housing - journal - a[1] - b[1]) for a, b in pairs]
    fits = [pair for pair in found if round9(lo) <= round9(pair[2]) <= round9(hi)]
    if not fits:
        raise Refused(
            "no_grade_fits",
            f"no pair of grades brings the clearance between {lo:g} and {hi:g} mm: measure "
            "again, or grind the journal",
            field="grade_wall",
        )
    upper, lower, left = min(
        fits, key=lambda pair: (round9(abs(pair[2] - target)), pair[0] != pair[1], -round9(pair[2]))
    )
    unit = i.housing_bore.unit if i.housing_bore else "mm"
    return ChooseShellsResult(
        grades=(upper, lower),
        clearance=in_unit(left, unit),
        working=(f"grades {upper} and {lower}: {left:.4f} mm, aim {target:g}",),
    )


class EndFloatWashers(Input):
    """End float as measured with the present washers, the washers to be had, on one side or two,
    and the limits.
    """

    measured_end_float: Length = None
    present_washer: Length = None
    washers: Lengths = None
    sides: Annotated[int, Field(ge=1, le=2)] = 2
    lower_limit: Length = None
    upper_limit: Length = None


class EndFloatWashersResult(Result):
    """The washer, and the end float it gives."""

    washer: Quantity
    end_float: Quantity


@calculation("Thrust washers to choose")
def end_float_washers(i: EndFloatWashers) -> EndFloatWashersResult:
    """Measured - sides × (new - present); the washer inside the limits whose end float lies nearest
    to their middle.

    Raises
    ------
    Refused
        `no_grade_fits`.

    Example
    -------
    >>> given = {
    ...     "measured_end_float": {"value": 0.31, "unit": "mm"},
    ...     "present_washer": {"value": 2.31, "unit": "mm"},
    ...     "washers": {"value": [2.31, 2.36, 2.43], "unit": "mm"},
    ...     "sides": 2,
    ...     "lower_limit": {"value": 0.08, "unit": "mm"},
    ...     "upper_limit": {"value": 0.25, "unit": "mm"},
    ... }
    >>> found = end_float_washers(EndFloatWashers.model_validate(given))
    >>> round(found.washer.value, 4), found.washer.unit
    (2.36, 'mm')
    """
    measured, present = i.figure("measured_end_float"), i.figure("present_washer")
    lo, hi = i.figure("lower_limit"), i.figure("upper_limit")
    found = [(washer, measured - i.sides * (washer - present)) for washer in i.figures("washers")]
    fits = [pair for pair in found if round9(lo) <= round9(pair[1]) <= round9(hi)]
    if not fits:
        raise Refused(
            "no_grade_fits",
            f"no washer brings the end float between {lo:g} and {hi:g} mm",
            field="washers",
        )
    washer, left = min(fits, key=lambda pair: round9(abs(pair[1] - (lo + hi) / 2)))
    unit = i.measured_end_float.unit if i.measured_end_float else "mm"
    words = f"{measured:g} − {i.sides} × ({washer:g} − {present:g}) = {left:.4f} mm"
    return EndFloatWashersResult(
        washer=in_unit(washer, unit), end_float=in_unit(left, unit), working=(words,)
    )


class RodSideClearance(Input):
    """Width of the crank pin, and the big ends that run on it."""

    pin_width: Length = None
    big_end_widths: Lengths = None


class RodSideClearanceResult(Result):
    """Side clearance, all rods of the pin together."""

    side_clearance: Quantity


@calculation("Side clearance of rods")
def rod_side_clearance(i: RodSideClearance) -> RodSideClearanceResult:
    """Pin width - sum of the big-end widths.

    Raises
    ------
    Refused
        `negative_clearance`; `map_incomplete` without a big end.

    Example
    -------
    >>> given = {
    ...     "pin_width": {"value": 47.95, "unit": "mm"},
    ...     "big_end_widths": {"value": [23.82, 23.83], "unit": "mm"},
    ... }
    >>> found = rod_side_clearance(RodSideClearance.model_validate(given))
    >>> round(found.side_clearance.value, 4), found.side_clearance.unit
    (0.3, 'mm')
    """
    pin, widths = i.figure("pin_width"), i.figures("big_end_widths")
    if not widths:
        raise Refused(
            "map_incomplete", "name the width of one big end at least", field="big_end_widths"
        )
    left = pin - sum(widths)
    if round9(left) <= 0:
        raise Refused(
            "negative_clearance",
            "the big ends are wider than the pin: wrong rod, or wrong units",
            field="big_end_widths",
        )
    unit = i.pin_width.unit if i.pin_width else "mm"
    words = f"{pin:g} − {' − '.join(f'{w:g}' for w in widths)} = {left:.4f} mm"
    return RodSideClearanceResult(side_clearance=in_unit(left, unit), working=(words,))


class OilRule(Input):
    """Diameter of the journal."""

    journal: Length = None


class OilRuleResult(Result):
    """The band of the rule of thumb."""

    lo: Quantity
    hi: Quantity


@calculation("Oil clearance, rule of thumb")
def oil_clearance_rule_of_thumb(i: OilRule) -> OilRuleResult:
    """Rule of thumb: 0.00075 to 0.001 per unit of journal diameter; it never overrides a figure
    that is given.

    Example
    -------
    >>> given = {
    ...     "journal": {"value": 55, "unit": "mm"},
    ... }
    >>> found = oil_clearance_rule_of_thumb(OilRule.model_validate(given))
    >>> round(found.lo.value, 6), found.lo.unit
    (0.04125, 'mm')
    """
    journal = i.figure("journal")
    if journal <= 0:
        raise Refused(
            "not_a_finite_number", "'journal' must be a diameter above zero", field="journal"
        )
    unit = i.journal.unit if i.journal else "mm"
    words = f"{RULE_LO} to {RULE_HI} × {journal:g} mm, a rule of thumb"
    return OilRuleResult(
        lo=in_unit(RULE_LO * journal, unit), hi=in_unit(RULE_HI * journal, unit), working=(words,)
    )
