"""Shims: what lies in the drawer, and which were put in."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, held, step_named, tool_of
from hollet.core.acts.hand import Hand
from hollet.core.book.passing import unsettled_before
from hollet.core.checking import standing
from hollet.core.entries import BookState, Key, KitPiece, KitSaid, PackPut, StepBody
from hollet.core.errors import NotFound, Refused
from hollet.core.fitting.kits import read_kit
from hollet.core.instruments import Instrument
from hollet.core.procedure.packs import Pack
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.quantity import canonical
from hollet.core.steps.choosing import kit_of
from hollet.core.steps.packs import tried
from hollet.core.steps.results import result_of, result_with

__all__ = ["KitSaidAct", "PackPutAct", "measures_thickness"]


def _pack(step: Step, name: str) -> Pack:
    found = next((pack for pack in step.packs() if pack.id == name), None)
    if found is None:
        raise NotFound("pack", name)
    return found


class KitSaidAct(Act[KitSaid], StepBody):
    """The whole kit as written on paper, and the tool that every one was measured with."""

    body: ClassVar = KitSaid
    kind: Literal["kit said"]
    pack: str
    typed: Annotated[str, Field(max_length=600)]
    unit: Annotated[str, Field(min_length=1, max_length=8)] = "mm"
    instrument: Annotated[str, Field(max_length=64)] | None = None

    def concerns(self) -> Key:
        return Key("pack", f"{self.step}/{self.pack}")

    def accepted(self, state: BookState, hand: Hand) -> KitSaid:
        pack = _pack(step_named(state, self.step), self.pack)
        tool = tool_of(hand, self.instrument) if self.instrument else None
        pieces = tuple(
            KitPiece(typed=p.typed, thickness=p.thickness, last=p.last, count=p.count)
            for p in read_kit(self.typed, self.unit)
        )
        if tool is not None:
            measures_thickness(tool)
            for piece in pieces:
                _reached(tool, piece)
        return self.filled(name=pack.name, pieces=pieces, instrument=tool)


def measures_thickness(tool: Instrument) -> None:
    """Refuse a tool that gives no thickness, or that failed its check."""
    if tool.kind not in ("micrometer", "caliper"):
        words = f"{tool.code} measures no thickness: a micrometer does, or take them as printed"
        raise Refused("wrong_tool", words, field="instrument")
    stands = standing(tool)
    if stands.sign == "outside":
        words = f"{tool.code}: {stands.words}. Measure them with another one, or take the print"
        raise Refused("tool_unfit", words, field="instrument")


def _reached(tool: Instrument, piece: KitPiece) -> None:
    """Refuse a thickness that the tool cannot have shown."""
    if not tool.covers(canonical(piece.thickness, "length", "typed")):
        words = f"{piece.typed}: {tool.code} gives {tool.lo} to {tool.hi} {tool.unit}"
        raise Refused("out_of_range", words, field="typed")


class PackPutAct(Act[PackPut], StepBody):
    """Which shims lie in now, by their thickness, each as often as it lies in; none is an answer.

    It is held while its step waits: a gap that cannot be measured yet has nothing in it.
    """

    body: ClassVar = PackPut
    kind: Literal["pack put"]
    pack: str
    shims: Annotated[tuple[Annotated[str, Field(max_length=30)], ...], Field(max_length=8)]

    def concerns(self) -> Key:
        return Key("pack", f"{self.step}/{self.pack}")

    def accepted(self, state: BookState, hand: Hand) -> PackPut:
        step = step_named(state, self.step)
        pack = _pack(step, self.pack)
        waits = next(iter(unsettled_before(state, step, hand.now)), None)
        if waits is not None:
            raise held(step, waits, "pack")
        spec = next(spec for spec in step.results() if spec.id == pack.result)
        facts = result_of(state, step, spec, hand.listed)
        if not facts.readings:
            words = f"{facts.name}: read the gap first, then choose what goes into it"
            raise Refused("not_complete", words, field="pack")
        kit = kit_of(state, step.id, pack)
        pieces = self._pieces(kit, pack)
        tool = kit.instrument if kit is not None else None
        with_them = result_with(state, step, spec, hand.listed, tried(pieces, tool))
        judged = with_them.judgement
        return self.filled(
            name=pack.name,
            result=pack.result,
            pieces=pieces,
            instrument=tool,
            readings=facts.readings,
            promised=f"{judged.value_text} {judged.unit}",
        )

    def _pieces(self, kit: KitSaid | None, pack: Pack) -> tuple[KitPiece, ...]:
        """The pieces of the kit that were named; refused where it has not as many."""
        if len(self.shims) > pack.most:
            words = f"{pack.name}: at most {pack.most} lie on each other"
            raise Refused("too_many", words, field="shims")
        if self.shims and kit is None:
            words = "say first what lies in the drawer, then which of them went in"
            raise Refused("no_kit", words, field="shims")
        left = {piece.typed: piece for piece in kit.pieces} if kit is not None else {}
        counts: dict[str, int] = {}
        for name in self.shims:
            if name not in left:
                raise Refused("not_in_kit", f"no shim of {name} lies in the drawer", field="shims")
            counts[name] = counts.get(name, 0) + 1
            if counts[name] > left[name].count:
                words = f"{name}: only {left[name].count} of it lie in the drawer"
                raise Refused("not_in_kit", words, field="shims")
        return tuple(left[name].model_copy(update={"count": n}) for name, n in counts.items())
