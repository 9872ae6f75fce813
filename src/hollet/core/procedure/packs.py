"""What is laid into a gap until it comes inside: shims out of a drawer."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.words import Id, Part, Words

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["Pack", "PackCheck", "Pairs", "ShimmedValves", "pack_laws", "pair_laws", "valve_laws"]


class PackCheck(Part):
    """A reading taken once more with the pack in: `of` less the pack is what it must show."""

    reading: Id
    of: Id


class Pack(Part):
    """A pack of shims that makes one result of its step smaller. `most` is how many may lie on each
    other, `aim` where the gap shall come to; `sketch` which drawing shows it; `labels` are the two
    faces between which the gap lies.
    """

    id: Id
    name: Words
    result: Id
    most: Annotated[int, Field(ge=1, le=8)] = 4
    aim: Literal["mid", "min", "max", "fewest"] = "mid"
    check: PackCheck | None = None
    sketch: Literal["bell", "plain"] = "plain"
    labels: tuple[Words, Words] = ("upper face", "lower face")


class ShimmedValves(Part):
    """Valves whose lash is set by shims: the readings of it, in the order in which the valves are
    counted.
    """

    lash: Annotated[tuple[Id, ...], Field(min_length=1, max_length=64)]
    name: Words = "Shims of the valves"


class Pairs(Part):
    """Like parts that are matched: results of the step, each of one bore less one piston, in the
    order of the bores. Which piston goes into which bore is chosen, and then judged.
    """

    results: Annotated[tuple[Id, ...], Field(min_length=2, max_length=16)]
    outer: Words = "bore"
    inner: Words = "piston"


def pair_laws(pairs: Pairs | None, results: tuple[ResultSpec, ...]) -> Iterator[tuple[str, str]]:
    """Each of its results is one thing less one other, all by the same limit."""
    if pairs is None:
        return
    known = {result.id: result for result in results}
    limits = set()
    for name in pairs.results:
        if name not in known or known[name].inner() is None:
            yield "pairs", f"'{name}' is no result of one {pairs.outer} less one {pairs.inner} here"
        else:
            limits.add(known[name].limit)
    if len(limits) > 1:
        yield "pairs", "its results are judged by one limit"


def valve_laws(
    valves: ShimmedValves | None, results: tuple[ResultSpec, ...]
) -> Iterator[tuple[str, str]]:
    """Each of its readings is judged by itself at the step."""
    judged = {result.reading for result in results if result.reading}
    for name in valves.lash if valves is not None else ():
        if name not in judged:
            yield "valve_shims", f"'{name}' is no reading that is judged by itself here"


def pack_laws(
    packs: tuple[Pack, ...],
    results: tuple[ResultSpec, ...],
    readings: tuple[ReadingSpec, ...],
    sheet: "Sheet",
) -> Iterator[tuple[str, str]]:
    """A pack lessens a length that is judged at its own step, from below or between two limits."""
    known = {result.id: result for result in results}
    read = {reading.id for reading in readings}
    named: set[str] = set()
    for pack in packs:
        result = known.get(pack.result)
        limit = sheet.find_limit(result.limit) if result is not None else None
        if result is None or pack.result in named:
            yield "pack", f"'{pack.id}' lies in '{pack.result}', which is no other result here"
        elif limit is not None and limit.dimension != "length":
            yield "pack", f"'{pack.id}' lessens a length, and '{result.id}' is none"
        elif result.how == "ends":
            yield "pack", f"'{pack.id}' lessens one figure, and '{result.id}' has two ends"
        if pack.check is not None and not {pack.check.reading, pack.check.of} <= read:
            yield "pack", f"'{pack.id}' is checked by readings that this step does not take"
        named.add(pack.result)
