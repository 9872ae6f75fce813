"""Questions that a typed figure raises. Asked, never refused."""

from hollet.core.checking import standing
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.pairs import FitsCheck, fits_check
from hollet.core.procedure.results import ReadingSpec
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import Quantity, decimal_text, exact, round9
from hollet.core.slips import question, slip_check, slip_input
from hollet.core.steps.readings import expected_of, latest, reading_mean

__all__ = ["odd_question", "pair_question", "tool_question"]

LONG_MM = 10.0


FEWEST_SISTERS = 2
"""One other reading alone says nothing of how far such readings lie apart."""


def known_of_reading(expected: str | None, direct: Limit | None) -> tuple[Quantity | None, str]:
    """What is expected of a reading, and how closely: a diameter closely, what a limit judges by
    itself (a gap) roughly.
    """
    parsed = parse(expected) if expected else None
    if parsed is None or not parsed.nominal:
        return None, "roughly"
    closely = direct is None and parsed.dimension == "length" and parsed.nominal >= LONG_MM
    return Quantity(
        value=decimal_text(parsed.nominal), unit=parsed.unit or "mm"
    ), "closely" if closely else "roughly"


def odd_question(
    state: BookState,
    step: Step,
    spec: ReadingSpec,
    text: str,
    unit: str,
    tool: Instrument,
    direct: Limit | None,
) -> str | None:
    """A question about a figure that is hardly possible here, or None: what it may have been meant
    as, compared with its tool, with what is
    expected, and with its sisters (the readings of the same kind at this step). Asked, never
    refused.
    """
    expected, known = known_of_reading(expected_of(plan_of(state), spec), direct)
    asked = slip_input(text, unit, tool, expected, known, _sisters(state, step, spec))
    found = slip_check(asked)
    if found.ask:
        return question(asked, found)
    most = direct.figure("hi") if direct is not None else None
    value = float(exact(found.read_as, tool.dimension, "typed"))
    if expected is None and direct is not None and most and value > 5 * most:
        return f"{text} {unit} is far over the limit of {direct.words()}. Is it right?"
    return None


def _sisters(state: BookState, step: Step, spec: ReadingSpec) -> tuple[float, ...]:
    """The readings of the same kind at a step: the same size asked for, other cylinders, depths and
    places.
    """

    def sort(reading: ReadingSpec) -> tuple[str | None, str | None, str]:
        return reading.nominal, reading.size, reading.tool

    found = []
    for other in step.readings():
        alike = other.id != spec.id and sort(other) == sort(spec)
        alike = alike and not _terms(step, other.id, spec.id)
        entry = latest(state, other.id) if alike else None
        if entry is not None and entry.body.instrument is not None:
            found.append(reading_mean(entry))
    return tuple(found) if len(found) >= FEWEST_SISTERS else ()


def _terms(step: Step, one: str, two: str) -> bool:
    """Whether a sum adds the two as different things: its terms are alike only across its two
    sides, the old shim and the new one, each the first of its side.
    """
    for result in step.results():
        if result.how != "sum":
            continue
        places = {
            name: (side, k) for side in (result.over, result.less) for k, name in enumerate(side)
        }
        if one in places and two in places and places[one][1] != places[two][1]:
            return True
    return False


def pair_question(state: BookState, step: Step, reading: str, value: float) -> str | None:
    """A question where two sizes cannot go together: a piston that is not smaller than its bore,
    two depths the wrong way round.
    """
    for spec in step.results():
        pair = (
            (spec.minuend, spec.subtrahend)
            if spec.minuend
            else (spec.over[0], spec.less[0])
            if spec.how == "ends" and spec.less
            else (None, None)
        )
        limit = plan_of(state).find_limit(spec.limit)
        if reading not in pair or None in pair or limit is None or limit.dimension != "length":
            continue
        lo = limit.figure("lo")
        other = latest(state, str(pair[1] if pair[0] == reading else pair[0]))
        if other is None or other.body.instrument is None or (lo is not None and lo < 0):
            continue
        outer, inner = (
            (value, reading_mean(other)) if pair[0] == reading else (reading_mean(other), value)
        )
        if fits_check(
            FitsCheck(
                outer=Quantity(value=outer, unit="mm"), inner=Quantity(value=inner, unit="mm")
            )
        ).ask:
            return (
                f"{spec.name}: {decimal_text(round9(inner))} mm is not smaller than "
                f"{decimal_text(round9(outer))} mm, that it goes into. Is it right?"
            )
    return None


def tool_question(tool: Instrument) -> str | None:
    """A question about a tool that failed its check and was not put right."""
    stands = standing(tool)
    return (
        f"{tool.code}: {stands.words}. Read with it all the same?"
        if stands.sign == "outside"
        else None
    )
