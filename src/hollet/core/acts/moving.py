"""A unit on its way: who watches what, a move told after it was made, a voice, a touch."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, is_thin, step_named
from hollet.core.acts.hand import Hand
from hollet.core.entries import (
    BookState,
    ClearSaid,
    HalfSaid,
    Key,
    StepBody,
    Touched,
    UnitMoved,
    WatchSaid,
)
from hollet.core.entries.moving import Watcher
from hollet.core.entries.status import SETTLED, status_of
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.words import MoveWay
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured, decimal_text
from hollet.core.steps.moving import FAR_MM, NEAR_MM, TURNS, moving_of, one_word
from hollet.core.steps.moving_views import MovingFacts

__all__ = ["ClearSaidAct", "HalfSaidAct", "TouchedAct", "UnitMovedAct", "WatchSaidAct"]

Text = Annotated[str, Field(max_length=40)]
MOST_MM, MOST_DEG = 5000.0, 90.0


def _facts(state: BookState, step_id: str, now: str) -> MovingFacts:
    """How it stands; refused before anybody watches."""
    step = step_named(state, step_id)
    facts = moving_of(state, step, now)
    if facts is None:
        raise Refused("no_watch", "say first who watches what", field="step")
    return facts


def _figure(text: str, dimension: str, field: str, *, signed: bool = False) -> Measured | None:
    if not text.strip():
        return None
    unit, most = ("deg", MOST_DEG) if dimension == "angle" else ("mm", MOST_MM)
    found = measured(text, dimension, unit, field)
    figure = found.figure(dimension)
    if abs(figure) > most or (figure < 0 and not signed):
        words = f"'{text}': {'up' if signed else '0'} to {decimal_text(most)} {unit}"
        raise Refused("bad_number", words, field=field)
    return found


class WatchSaidAct(Act[WatchSaid], StepBody):
    """Each watcher has one point; how far it has to go, and the least gap, as typed."""

    body: ClassVar = WatchSaid
    kind: Literal["watch said"]
    watchers: Annotated[tuple[Watcher, ...], Field(min_length=1, max_length=8)]
    word: Annotated[str, Field(min_length=1, max_length=12)]
    down: Text = ""
    along: Text = ""
    side: Text = ""
    nose: Text = ""
    least: Text = ""

    def accepted(self, state: BookState, hand: Hand) -> WatchSaid:
        step = step_named(state, self.step)
        if step.moves is None:
            words = f"{step.number} moves nothing in or out"
            raise Refused("bad_entry", words, field="step")
        names = [w.who.strip() for w in self.watchers]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None:
            words = f"{twice} is named twice: one watch point a person"
            raise Refused("watch_twice", words, field="watchers")
        return self.filled(
            watchers=tuple(
                Watcher(who=w.who.strip(), point=w.point.strip()) for w in self.watchers
            ),
            word=self.word.strip(),
            down=_figure(self.down, "length", "down", signed=True),
            along=_figure(self.along, "length", "along", signed=True),
            side=_figure(self.side, "length", "side", signed=True),
            nose=_figure(self.nose, "angle", "nose", signed=True),
            least=_figure(self.least, "length", "least"),
        )


class UnitMovedAct(Act[UnitMoved], StepBody):
    """A move that was made; `clear`: stopped, all clear, by the one who gives the word. `sure`: it
    was moved all the same.
    """

    body: ClassVar = UnitMoved
    kind: Literal["unit moved"]
    way: MoveWay
    by: Text = ""
    clear: bool = False
    sure: bool = False

    def concerns(self) -> Key:
        return Key("moving", self.step)

    def accepted(self, state: BookState, hand: Hand) -> UnitMoved:
        facts = _facts(state, self.step, hand.now)
        by = _figure(self.by, "angle" if self.way in TURNS else "length", "by")
        shut = facts.shut if self.way not in facts.open else ""
        if shut and not self.sure:
            raise Refused("moves_shut", f"{self.way}: {shut}", field="way")
        far = by is not None and self.way not in TURNS and by.figure("length") > FAR_MM
        if far and facts.gap is not None and facts.gap.mm < NEAR_MM and not self.sure:
            words = f"{self.by} in one move, and {facts.gap.who} has {facts.gap.mm:g} mm: is it so?"
            raise Refused("far_move", words, field="by")
        if self.clear:
            singly = one_word(state, step_named(state, self.step), hand.now, self.way, hand.who)
            if singly or shut:
                words = f"{singly or shut}: each watcher speaks for himself after it"
                raise Refused("voices", words, field="clear")
        return self.filled(by=by, against=shut)


class ClearSaidAct(Act[ClearSaid], StepBody):
    """A watcher's word: clear, or a gap."""

    body: ClassVar = ClearSaid
    kind: Literal["clear said"]
    watcher: Annotated[str, Field(min_length=1, max_length=12)]
    gap: Text = ""
    between: Annotated[str, Field(max_length=120)] = ""
    widens: MoveWay | None = None

    def concerns(self) -> Key:
        return Key("moving", self.step)

    def accepted(self, state: BookState, hand: Hand) -> ClearSaid:
        _watches(_facts(state, self.step, hand.now), self.watcher)
        return self.filled(gap=_figure(self.gap, "length", "gap"), between=self.between.strip())


class TouchedAct(Act[Touched], StepBody):
    """It touches. Always written."""

    body: ClassVar = Touched
    kind: Literal["touched"]
    watcher: Annotated[str, Field(min_length=1, max_length=12)]
    where: Annotated[str, Field(max_length=120)] = ""

    def concerns(self) -> Key:
        return Key("moving", self.step)

    def accepted(self, state: BookState, hand: Hand) -> Touched:
        _watches(_facts(state, self.step, hand.now), self.watcher)
        return self.filled(where=self.where.strip())


class HalfSaidAct(Act[HalfSaid], StepBody):
    """Stopped short on purpose: what for, and what holds it while hands go in."""

    body: ClassVar = HalfSaid
    kind: Literal["half said"]
    why: Annotated[str, Field(max_length=160)]
    held: Annotated[str, Field(max_length=160)]

    def concerns(self) -> Key:
        return Key("moving", self.step)

    def accepted(self, state: BookState, hand: Hand) -> HalfSaid:
        facts = _facts(state, self.step, hand.now)
        step = step_named(state, self.step)
        if status_of(state, step).status in SETTLED:
            words = (
                f"{step.number} is done: what moved it in says nothing of a half position any more"
            )
            raise Refused("already_done", words, field="step")
        if facts.shut:
            raise Refused("moves_shut", f"half in: {facts.shut}", field="step")
        if not self.why.strip():
            words = "what it is stopped for, such as starter and earth"
            raise Refused("no_words", words, field="why")
        if is_thin(self.held):
            words = "what holds it so that it cannot come down on a hand: timber and a stand, where"
            raise Refused("no_words", words, field="held")
        return self.filled(why=self.why.strip(), held=self.held.strip())


def _watches(facts: MovingFacts, who: str) -> None:
    if all(voice.who != who for voice in facts.voices):
        raise NotFound("watcher", who)
