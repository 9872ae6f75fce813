"""A tool held against a standard, and the hands of the one who reads it.

A check compares the mean of some readings with the nominal size of a gauge block, ring or setting
rod; it passes within the permissible error.
When it fails, all that was read since the last good check is in doubt.
"""

from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.instruments import Doubt, Hands, Instrument
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.quantities.units import find_unit
from hollet.core.verdicts import sample_deviation

__all__ = ["OPEN_END", "Checked", "Standing", "check_against", "standing", "trial"]

OPEN_END = "9999-12-31T23:59:59Z"
FEWEST_TRIALS = 5


class Checked(BaseModel):
    """The tool after a check: by how much it was off (in its unit), what was permissible, and what
    that means in words.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    tool: Instrument
    off: str
    allowed: str
    good: bool
    words: str


class Standing(BaseModel):
    """Whether a tool may be trusted today: good since a check, failed and not put right, or not
    checked here.
    """

    model_config = ConfigDict(frozen=True)
    sign: Literal["inside", "outside", "not_read"]
    words: str


def standing(tool: Instrument) -> Standing:
    """What the checks of a tool say of it today."""
    failed = [doubt for doubt in tool.doubts if doubt.until == OPEN_END]
    if failed:
        return Standing(sign="outside", words=f"{failed[-1].words}: not to be trusted")
    if tool.good_at:
        return Standing(sign="inside", words=f"good {tool.good_at[:10]}")
    return Standing(
        sign="not_read", words=f"checked {tool.checked}" if tool.checked else "never checked here"
    )


def _figures(tool: Instrument, typed: Sequence[str]) -> list[float]:
    found = []
    for text in typed:
        parsed = parse(text, tool.dimension, tool.unit)
        if parsed.kind != "single" or parsed.nominal is None:
            raise Refused(
                "bad_number", f"'{text}': each reading is one figure in {tool.unit}", field="typed"
            )
        found.append(float(parsed.nominal))
    return found


def _shown(tool: Instrument, value: float, more: int = 1) -> str:
    """A canonical difference in the unit of the tool, to one place more than it shows."""
    unit = find_unit(tool.unit)
    assert unit is not None
    return decimal_text(value / float(unit.factor), len(tool.resolution.partition(".")[2]) + more)


def check_against(
    tool: Instrument, nominal: str, typed: Sequence[str], *, now: str, keep_offset: bool = False
) -> Checked:
    """The tool as it is after a check at `nominal`; with `keep_offset` a deviation becomes its
    known offset and is taken off from now on.

    Parameters
    ----------
    now : time of the check, UTC in ISO 8601.

    Raises
    ------
    Refused
        `no_instrument_data` without a permissible error, `out_of_range`, and the parser's codes.
    """
    size = parse(nominal, tool.dimension, tool.unit).nominal
    if size is None:
        raise Refused(
            "bad_number",
            f"'{nominal}': the standard has one size, such as 25 {tool.unit}",
            field="nominal",
        )
    if not tool.covers(float(size)):
        raise Refused(
            "out_of_range",
            f"{nominal} lies outside the range of {tool.code}: take a standard inside it",
            field="nominal",
        )
    allowed = tool.permissible(float(size))
    if allowed <= 0:
        raise Refused(
            "no_instrument_data",
            f"{tool.code} has no permissible error: enter it first, from its certificate or the "
            "class of such tools",
            field="mpe",
        )
    readings = _figures(tool, typed)
    raw = sum(readings) / len(readings) - float(size)
    off = raw - tool.figure("offset")
    good = round9(abs(off)) <= round9(allowed)
    text, limit = _shown(tool, off), _shown(tool, allowed)
    doubts = tuple(
        d.model_copy(update={"until": now}) if d.until == OPEN_END and (good or keep_offset) else d
        for d in tool.doubts
    )
    changes: dict[str, object] = {
        "version": tool.version + 1,
        "checked": now[:10],
        "doubts": doubts,
    }
    if good:
        words = f"off by {text} {tool.unit}, permissible is ±{limit}: good"
        changes["good_at"] = now
    else:
        words = (
            f"off by {text} {tool.unit}, permissible is ±{limit}: what it read since its last "
            "good check is in doubt"
        )
        still_open = any(d.until == OPEN_END for d in doubts)
        if not still_open:
            until = now if keep_offset else OPEN_END
            changes["doubts"] = (
                *doubts,
                Doubt(since=tool.good_at or "", until=until, words=f"off by {text} {tool.unit}"),
            )
        if keep_offset:
            changes |= {"offset": _shown(tool, raw), "good_at": now}
            words += "; from now on it is taken off as a known offset"
    return Checked(
        tool=tool.model_copy(update=changes), off=text, allowed=limit, good=good, words=words
    )


def trial(tool: Instrument, typed: Sequence[str], *, thing: str, who: str) -> Instrument:
    """The tool after a trial of `who`'s hands: several readings of one thing, the tool taken off in
    between.

    The sample deviation, never below what the resolution lets be seen, holds for readings of `who`;
    for hands that nobody
    tried the widest known scatter counts.

    Raises
    ------
    Refused
        `too_few_readings` below five (ten are better), and the parser's codes.
    """
    readings = _figures(tool, typed)
    if len(readings) < FEWEST_TRIALS:
        raise Refused(
            "too_few_readings",
            f"read the same thing at least {FEWEST_TRIALS} times, better ten, taking the tool "
            "off each time",
            field="typed",
        )
    least = tool.figure("resolution") / 12**0.5 / 2
    own = Hands(
        who=who,
        s=_shown(tool, max(sample_deviation(readings), least), 2),
        n=len(readings),
        thing=thing,
    )
    hands = (*(known for known in tool.hands if known.who != who), own)
    return tool.model_copy(
        update={
            "hands": hands,
            "s": max((known.s for known in hands), key=float),
            "version": tool.version + 1,
        }
    )
