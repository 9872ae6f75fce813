"""What is not as it left the works, said by a hand."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act, Passing, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.changed import STANDS_ON, earlier, wires
from hollet.core.book.ledger import left_open, opened_by_hand
from hollet.core.book.needs import needs
from hollet.core.entries import (
    Altered,
    BookState,
    EarlierKept,
    KeptSo,
    Key,
    StepBody,
    WireMended,
)
from hollet.core.entries.base import Own
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.words import RUNGS, WireState
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured
from hollet.core.safety import SAFETY_NAMES, Safety

__all__ = ["AlteredAct", "EarlierKeptAct", "KeptSoAct", "WireMendedAct"]

Told = Annotated[str, StringConstraints(strip_whitespace=True, min_length=3, max_length=160)]
KEEPABLE = ("run_on", "gear", "drive", "nothing")
"""What stands in may stay where nothing turns, burns or sparks by it."""


class AlteredAct(Act[Altered], StepBody):
    """A part changed or made at home; said again, it is asked about no more."""

    body: ClassVar = Altered
    kind: Literal["altered"]
    altered: Own
    what: Told
    differs: Told
    held: Told
    undo: Told
    for_need: Own | None = None

    def accepted(self, state: BookState, hand: Hand) -> Altered:
        step_named(state, self.step)
        found = next((need for need in needs(state) if need.id == self.for_need), None)
        if self.for_need is not None and found is None:
            raise NotFound("part", self.for_need)
        return self.filled(for_name=found.name if found is not None else None)


class WireMendedAct(Act[WireMended], StepBody):
    """A wire as far as it is mended. It is proven after it is joined, and tied after it is proven;
    a wire that is cut or joined anew has to be proven anew.
    """

    body: ClassVar = WireMended
    kind: Literal["wire mended"]
    wire: Own
    place: Told
    which: Told
    how: Literal["crimped", "soldered", "new piece", "connector renewed"]
    marker: Annotated[str, Field(max_length=80)] = ""
    sleeve_inner: Annotated[str, Field(max_length=20)] = ""
    sleeve_length: Annotated[str, Field(max_length=20)] = ""
    state: WireState
    proof: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""

    def accepted(self, state: BookState, hand: Hand) -> WireMended:
        step_named(state, self.step)
        known = next((w for w in wires(state) if w.id == self.wire), None)
        was = known.state if known is not None else None
        if self.state == "proven" and was not in STANDS_ON["proven"]:
            words = f"{self.which}: join it first, then prove it"
            raise Refused("not_joined", words, field="state")
        if self.state == "proven" and len(self.proof) < 3:
            words = (
                "say how it was proven: end to end while it is moved, or the drop under its load"
            )
            raise Refused("no_words", words, field="proof")
        if self.state == "tied" and was not in STANDS_ON["tied"]:
            words = f"{self.which}: ties stay off till it is proven"
            raise Refused("not_proven", words, field="state")
        kept = known.proof if known is not None and self.state == "tied" else self.proof
        return self.filled(
            sleeve_inner=_length(self.sleeve_inner, "sleeve_inner"),
            sleeve_length=_length(self.sleeve_length, "sleeve_length"),
            proof=kept,
        )


def _length(text: str, field: str) -> Measured | None:
    if not text.strip():
        return None
    found = measured(text, "length", "mm", field)
    if found.figure("length") <= 0:
        raise Refused("bad_number", f"'{text}': more than nothing, such as 12 mm", field=field)
    return found


class KeptSoAct(Act[KeptSo], StepBody):
    """What was left in place by hand stays, in writing: never for what steers, brakes, carries or
    holds somebody, nor where something turns or burns by it.
    """

    body: ClassVar = KeptSo
    kind: Literal["kept so"]
    item: str
    bears: Told
    why: Passing
    safety: Safety | Literal["none"]

    def concerns(self) -> Key:
        return Key("open", self.item)

    def accepted(self, state: BookState, hand: Hand) -> KeptSo:
        item = next((item for item in left_open(state) if item.id == self.item), None)
        if item is None:
            raise NotFound("open item", self.item)
        left = opened_by_hand(state, self.item)
        if left is None or left.sort != "stand_in":
            words = f"{item.what}: only what a hand put in for something else may stay"
            raise Refused("not_kept", words, field="item")
        if self.safety != "none":
            name = SAFETY_NAMES.get(self.safety, self.safety)
            words = f"{item.what}: nothing stands in for {name} for good"
            raise Refused("not_kept", words, field="safety")
        if item.blocks not in KEEPABLE:
            words = f"{item.what}: it shuts {RUNGS[item.blocks].lower()}, so the right one goes in"
            raise Refused("not_kept", words, field="item")
        return self.filled(what=item.what)


class EarlierKeptAct(Act[EarlierKept], StepBody):
    """What an earlier hand did stays: how it is held, and why. Never on a safety part."""

    body: ClassVar = EarlierKept
    kind: Literal["earlier kept"]
    part: Own
    face: Own
    held: Told
    why: Passing

    def accepted(self, state: BookState, hand: Hand) -> EarlierKept:
        step_named(state, self.step)
        key = f"{self.step}/{self.part}/{self.face}"
        found = next((e for e in earlier(state) if e.key == key), None)
        if found is None:
            raise NotFound("finding", key)
        if found.safety is not None:
            words = (
                f"{found.what}: {SAFETY_NAMES.get(found.safety, found.safety)}. Put it back, or "
                "decide the part at its inspection"
            )
            raise Refused("not_kept", words, field="part")
        return self.filled(what=found.what[:200])
