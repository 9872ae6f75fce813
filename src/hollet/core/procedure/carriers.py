"""The carrier of an axle between its two packs of shims, and what a changed part asks for again."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated

from pydantic import Field

from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.words import Id, Part, Words

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["Again", "Carrier", "again_laws", "carrier_laws"]

FEWEST_TEETH = 3


class Carrier(Part):
    """A crown wheel that is set by two packs: readings of its backlash (three teeth or more), the
    result that is their mean, what both sides are called, and the steps that a moved shim asks for
    again.
    """

    lash: Annotated[tuple[Id, ...], Field(min_length=FEWEST_TEETH, max_length=12)]
    result: Id
    near: Words = "pinion side"
    far: Words = "far side"
    again: Annotated[tuple[Id, ...], Field(max_length=12)] = ()


class Again(Part):
    """A part that may be changed at a step, and the steps that have to be read again then."""

    what: Words
    steps: Annotated[tuple[Id, ...], Field(min_length=1, max_length=12)]


def carrier_laws(
    carrier: Carrier | None,
    readings: tuple[ReadingSpec, ...],
    results: tuple[ResultSpec, ...],
    sheet: "Sheet",
) -> Iterator[tuple[str, str]]:
    """Its readings and its result are of the step, and the result is a length from them alone."""
    if carrier is None:
        return
    read = {reading.id for reading in readings}
    found = next((result for result in results if result.id == carrier.result), None)
    limit = sheet.find_limit(found.limit) if found is not None else None
    if not set(carrier.lash) <= read or found is None or set(found.named()) != set(carrier.lash):
        yield "carrier", "names readings of the backlash here and the result made of just those"
    elif limit is not None and limit.dimension != "length":
        yield "carrier", f"'{carrier.result}' is no length"
    yield from _known(carrier.again, sheet)


def again_laws(again: tuple[Again, ...], sheet: "Sheet") -> Iterator[tuple[str, str]]:
    """What has to be read again are steps that read or look."""
    for part in again:
        yield from _known(part.steps, sheet)


def _known(steps: tuple[str, ...], sheet: "Sheet") -> Iterator[tuple[str, str]]:
    for name in steps:
        step = sheet.find_step(name)
        if step is None or not (step.readings() or step.shows_pattern()):
            yield "again", f"'{name}' is no step here at which something is read or looked at"
