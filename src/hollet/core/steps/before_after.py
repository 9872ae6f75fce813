"""A setting as it was found and as it is now, side by side, and the turns that are left to what it
shall be.
"""

from collections.abc import Sequence

from hollet.core.entries import BookState
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.results import ReadingSpec
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.quantities.units import CANONICAL
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.steps.results import ResultFacts, results_of
from hollet.core.view import View

__all__ = ["SettingRow", "before_after"]

PLACES = {"length": 2, "angle": 2}
EIGHTHS = 8
"""Turns are told to an eighth: no hand turns a rod more finely by eye."""
SAME = 1e-6


class SettingRow(View):
    """One setting: as found, now, the difference in words, and the turns that are left."""

    reading: str
    name: str
    found: str
    now: str
    apart: str
    turns: str | None
    verdict: str | None


def before_after(
    state: BookState, step: BaseStep, tools: Sequence[Instrument]
) -> tuple[SettingRow, ...]:
    """The settings of a step that were read before the work."""
    alone = {r.readings[0]: r for r in results_of(state, step, tools) if len(r.readings) == 1}
    rows = (_row(state, spec, alone) for spec in step.readings() if spec.found is not None)
    return tuple(row for row in rows if row is not None)


def _row(state: BookState, spec: ReadingSpec, alone: dict[str, ResultFacts]) -> SettingRow | None:
    before, now = latest(state, spec.found or ""), latest(state, spec.id)
    if before is None or before.body.instrument is None:
        return None
    dimension = before.body.tool().dimension
    unit = CANONICAL[dimension]
    was = reading_mean(before)
    row = {"reading": spec.id, "name": spec.name, "found": f"{_text(was, dimension)} {unit}"}
    if now is None or now.body.instrument is None or now.body.tool().dimension != dimension:
        return SettingRow(**row, now="", apart="not read yet", turns=None, verdict=None)
    is_now = reading_mean(now)
    result = alone.get(now.id)
    left = _turns(spec, is_now, result)
    return SettingRow(
        **row,
        now=f"{_text(is_now, dimension)} {unit}",
        apart=_apart(is_now - was, dimension),
        turns=left,
        verdict=result.judgement.verdict if result is not None else None,
    )


def _text(value: float, dimension: str) -> str:
    return decimal_text(round9(value), PLACES.get(dimension, 3))


def _apart(more: float, dimension: str) -> str:
    """By how much it is another than it was found."""
    if abs(more) < SAME:
        return "as it was found"
    way = "more" if more > 0 else "less"
    return f"{_text(abs(more), dimension)} {CANONICAL[dimension]} {way}"


def _turns(spec: ReadingSpec, now: float, result: ResultFacts | None) -> str | None:
    """The turns of the adjuster that bring it to what it shall be."""
    if spec.pitch is None or result is None or result.judgement.verdict == "inside":
        return None
    target = _target(result.limit)
    try:
        pitch = parse(spec.pitch, result.limit.dimension, result.limit.unit).nominal
    except Refused:
        return None
    if target is None or not pitch:
        return None
    eighths = round((target - now) / float(pitch) * EIGHTHS)
    if not eighths:
        return None
    longer, shorter = spec.turned
    return f"{_fraction(abs(eighths))} {longer if eighths > 0 else shorter}"


def _target(limit: Limit) -> float | None:
    """What it shall be: the figure aimed at, else the middle."""
    lo, hi, target = (limit.figure(name) for name in ("lo", "hi", "target"))
    if target is not None:
        return target
    return (lo + hi) / 2 if lo is not None and hi is not None else None


def _fraction(eighths: int) -> str:
    """Eighths of a turn as a hand counts them."""
    whole, rest = divmod(eighths, EIGHTHS)
    parts = {1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}
    text = f"{whole or ''}{parts.get(rest, '')}"
    return f"{text} {'turn' if eighths <= EIGHTHS else 'turns'}"
