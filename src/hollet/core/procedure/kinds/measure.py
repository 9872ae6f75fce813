"""A step in which figures are read and judged."""

from collections.abc import Iterator, Mapping, Set
from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.errors import HolletError
from hollet.core.procedure.carriers import Carrier, carrier_laws
from hollet.core.procedure.formulas import check_formula
from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.linked import path_laws
from hollet.core.procedure.packs import (
    Pack,
    Pairs,
    ShimmedValves,
    pack_laws,
    pair_laws,
    valve_laws,
)
from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.words import Words

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["Drawing", "MeasureStep"]


Drawing = Literal[
    "bores",
    "journals",
    "shells",
    "cylinders",
    "round",
    "corners",
    "shafts",
    "links",
    "stack",
    "flange",
    "belt",
    "turning",
    "curve",
]


class MeasureStep(BaseStep):
    """Readings and what is derived from them, on a drawing of their family."""

    kind: Literal["measure"]
    reading: Annotated[tuple[ReadingSpec, ...], Field(min_length=1, max_length=120)]
    result: Annotated[tuple[ResultSpec, ...], Field(min_length=1, max_length=120)]
    pack: Annotated[tuple[Pack, ...], Field(max_length=8)] = ()
    valve_shims: ShimmedValves | None = None
    pairs: Pairs | None = None
    carrier: Carrier | None = None
    draw: Drawing | None = None
    rework: Words | None = None
    replace: Words | None = None

    looked_at: ClassVar[bool] = True

    def readings(self) -> tuple[ReadingSpec, ...]:
        return self.reading

    def results(self) -> tuple[ResultSpec, ...]:
        return self.result

    def matched(self) -> Pairs | None:
        return self.pairs

    def carrier_set(self) -> Carrier | None:
        return self.carrier

    def shimmed(self) -> ShimmedValves | None:
        return self.valve_shims

    def packs(self) -> tuple[Pack, ...]:
        return self.pack

    def also_of(self, other: BaseStep) -> dict[str, object]:
        readings = {r.id: r for r in (*other.readings(), *self.reading)}
        results = {r.id: r for r in (*other.results(), *self.result)}
        packs = {p.id: p for p in (*other.packs(), *self.pack)}
        return {
            "reading": tuple(readings.values()),
            "result": tuple(results.values()),
            "pack": tuple(packs.values()),
            "valve_shims": self.valve_shims or other.shimmed(),
            "pairs": self.pairs or other.matched(),
            "carrier": self.carrier or other.carrier_set(),
        }

    def limits(self) -> tuple[tuple[str, str], ...]:
        judged = (("limit", result.limit) for result in self.result)
        rests = dict.fromkeys(reading.rests for reading in self.reading if reading.rests)
        return (
            *judged,
            *(("rests", limit) for limit in rests),
            *(("size", size) for size in self.sizes()),
        )

    def sizes(self) -> tuple[str, ...]:
        """The sizes of the vehicle that its readings are about and its results are made of."""
        about = (reading.size for reading in self.reading if reading.size is not None)
        return tuple(dict.fromkeys((*about, *(s for r in self.result for s in r.sizes()))))

    def must_have(self, *, passed: bool, settled: bool) -> tuple[str, ...]:
        judged = (result.limit for result in self.result)
        return () if passed else tuple(dict.fromkeys((*judged, *self._summed())))

    def _summed(self) -> tuple[str, ...]:
        """The sizes without which a result cannot be worked out."""
        return tuple(size for result in self.result for size in result.sizes())

    def laws(self, sheet: "Sheet") -> Iterator[tuple[str, str]]:
        yield from super().laws(sheet)
        steps = {step.id for step in sheet.step}
        for reading in self.reading:
            for name in reading.changed_by:
                if name not in steps:
                    words = f"'{reading.id}' is changed by '{name}', which is no step here"
                    yield "reading", words
        known = {reading.id for step in sheet.step for reading in step.readings()}
        for reading in self.reading:
            if reading.found is not None and reading.found not in known:
                yield "reading", f"'{reading.id}' was found as '{reading.found}', which none takes"
            if reading.first is not None and reading.first not in known:
                yield "reading", f"'{reading.id}' repeats '{reading.first}', which none takes"
            if reading.rests is not None and reading.first is None:
                yield "reading", f"'{reading.id}' comes to rest: name the `first` that it repeats"
        own = {reading.id: reading for reading in self.reading}
        judged = {result.id for step in sheet.step for result in step.results()}
        for result in self.result:
            yield from _result_laws(result, known)
            yield from _repeat_laws(result, own, judged)
        yield from path_laws(self.result)
        yield from carrier_laws(self.carrier, self.reading, self.result, sheet)
        yield from pair_laws(self.pairs, self.result)
        yield from valve_laws(self.valve_shims, self.result)
        yield from pack_laws(self.pack, self.result, self.reading, sheet)


def _repeat_laws(
    result: ResultSpec, own: Mapping[str, ReadingSpec], judged: Set[str]
) -> Iterator[tuple[str, str]]:
    """What repeats a result names one that there is, and is made of readings that repeat too:
    whether both were read in one state is seen by them.
    """
    if result.first is None:
        return
    if result.first not in judged or result.first == result.id:
        yield "result", f"'{result.id}' repeats '{result.first}', which no other step judges"
    alone = [name for name in result.named() if name not in own or own[name].first is None]
    if alone:
        yield "result", f"'{result.id}' repeats one, but '{alone[0]}' names no `first` of its own"


def _result_laws(result: ResultSpec, known: Set[str]) -> Iterator[tuple[str, str]]:
    """A result is made in one way, of readings that some step takes, and its calculation exists."""
    ways = [
        result.reading is not None,
        result.minuend is not None and result.subtrahend is not None,
        result.how is not None and bool(result.over),
        result.calc is not None and result.gives is not None,
    ]
    if sum(ways) != 1 or any(name not in known for name in result.named()):
        yield (
            "result",
            f"'{result.id}' must name one reading, a minuend and a subtrahend, how with over, or "
            "calc with takes and gives; each reading one that a measure step takes",
        )
    if result.calc is not None:
        try:
            check_formula(result)
        except HolletError as refusal:
            yield "result", f"'{result.id}': {refusal.message}"
