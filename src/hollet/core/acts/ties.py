"""What is told of a line that was parted, its proof, and what a walk round finds."""

from typing import ClassVar, Literal

from hollet.core.acts.base import Act, is_thin, step_named
from hollet.core.acts.hand import Hand
from hollet.core.book.ties import TieRow, find_tie
from hollet.core.entries import BookState, Swept, TieProven, TieTold
from hollet.core.entries.ties import SweptSaid, TieProvenSaid, TieToldSaid
from hollet.core.errors import NotFound, Refused

__all__ = ["SweptAct", "TieProvenAct", "TieToldAct"]


def _tie(state: BookState, item: str) -> TieRow:
    row = find_tie(state, item)
    if row is None:
        raise NotFound("tie", item)
    return row


class TieToldAct(Act[TieTold], TieToldSaid):
    """Where a line is tucked or led, its label, what it may be taken for, when it is reached."""

    body: ClassVar = TieTold
    kind: Literal["tie told"]

    def accepted(self, state: BookState, hand: Hand) -> TieTold:
        row = _tie(state, self.item)
        texts = (self.tucked, self.label, self.alike, self.route)
        if self.hangs is None and not any(text.strip() for text in texts):
            words = f"{row.what}: say where it is tucked, its label, or what it may be taken for"
            raise Refused("no_words", words, field="tucked")
        return self.filled(what=row.what)


class TieProvenAct(Act[TieProven], TieProvenSaid):
    """A line that is back was pulled, seen or measured."""

    body: ClassVar = TieProven
    kind: Literal["tie proven"]

    def accepted(self, state: BookState, hand: Hand) -> TieProven:
        row = _tie(state, self.item)
        if row.state == "off":
            raise Refused("tie_off", f"{row.what}: {row.words}. Connect it first", field="item")
        if self.right and row.alike and self.how == "pulled":
            words = (
                f"{row.what}: it looks like {row.alike}. A pull proves its seat, not its place: "
                "look at its label or at what was kept, then press seen"
            )
            raise Refused("alike", words, field="how")
        if (not self.right or self.how == "measured") and len(self.words.strip()) < 3:
            words = "say what is wrong with it" if not self.right else "say what was measured"
            raise Refused("no_words", f"{row.what}: {words}", field="words")
        return self.filled(what=row.what)


class SweptAct(Act[Swept], SweptSaid):
    """What was found at one place of a walk."""

    body: ClassVar = Swept
    kind: Literal["swept"]

    def accepted(self, state: BookState, hand: Hand) -> Swept:
        step = step_named(state, self.step)
        specs = {spec.id: spec for spec in step.sweeps()}
        missing = next((thing for thing in self.things if thing not in specs), None)
        if missing is not None:
            raise NotFound("thing of this walk", missing)
        places = {specs[thing].at for thing in self.things}
        if len(places) > 1:
            words = "one place at a time: " + ", then ".join(sorted(places))
            raise Refused("one_place", words, field="things")
        if self.found == "not there" and is_thin(self.words):
            words = "say where it was looked for, or what this vehicle has instead"
            raise Refused("no_words", words, field="words")
        names = tuple(specs[thing].what for thing in self.things)
        return self.filled(at_place=places.pop(), names=names)
