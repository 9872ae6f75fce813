"""Fluids and leaks: a look begun and ended, what was seen and done at a joint, a cycle of bleeding,
a level, what went in or came out.
"""

import re
from datetime import date, datetime, timedelta
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.book.leaks import LeakPlace, open_look, place_of
from hollet.core.entries import (
    AttemptStarted,
    BleedCycle,
    BookState,
    Entry,
    FluidMoved,
    FuelTold,
    Key,
    LeakMended,
    LeakSeen,
    LevelSaid,
    LookBegun,
    LookEnded,
)
from hollet.core.entries.base import AtStep, Short
from hollet.core.entries.fluids import FuelToldSaid
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.leaks import Grade, Sure
from hollet.core.procedure.pieces import FluidKind
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import Measured, decimal_text
from hollet.core.steps.heat import (
    COLD_C,
    COLD_H,
    FELT_HOT_C,
    may_be_warm,
    ran_hot,
    runs_now,
)

__all__ = [
    "BleedCycleAct",
    "FluidMovedAct",
    "FuelToldAct",
    "LeakMendedAct",
    "LeakSeenAct",
    "LevelSaidAct",
    "LookBegunAct",
    "LookEndedAct",
]

Text = Annotated[str, Field(max_length=40)]
LONGEST_S = 3600.0
"""How long beyond its time a look still counts: then nobody knows what the pressure is (rule of
thumb).
"""


def _name(state: BookState, fluid: FluidKind) -> str:
    """What the plan calls it, else its kind."""
    found = next((f.name for f in plan_of(state).fluid if f.kind == fluid), None)
    return found or f"{fluid.capitalize()} fluid"


def _state_holds(
    state: BookState, hand: Hand, way: str, heat: str, read: Measured | None = None
) -> None:
    """Refuse what no run of this build bears out: running; hot, where it is not read either; and
    cold after what made it hot.
    """
    _runs(state, running=way == "running")
    if heat == "cold":
        _cold_holds(state, hand, read, running=way == "running")
        return
    if read is None and not ran_hot(state, hand.now):
        words = f"no run of the last hour made it hot: read it there, at least {FELT_HOT_C:g} °C"
        raise Refused("not_hot", words, field="temperature")
    if read is not None and read.figure("temperature") < FELT_HOT_C:
        words = f"{read.value} {read.unit} is not hot: from {FELT_HOT_C:g} °C it is"
        raise Refused("not_hot", words, field="temperature")


def _runs(state: BookState, *, running: bool) -> None:
    if running and not runs_now(state):
        words = "no engine runs here: begin its attempt first, then look"
        raise Refused("not_running", words, field="way")


def _cold_holds(state: BookState, hand: Hand, read: Measured | None, *, running: bool) -> None:
    """Refuse what is still warm: by what was read there, else by the runs of the last hours. While
    it runs it is cold until it is hot: a first run is looked at as it warms.
    """
    most = FELT_HOT_C if running else COLD_C
    if read is not None and read.figure("temperature") > most:
        words = f"{read.value} {read.unit} is not cold: up to {most:g} °C it is"
        raise Refused("not_cold", words, field="temperature")
    warm = ran_hot(state, hand.now) if running else may_be_warm(state, hand.now)
    if read is None and warm:
        words = f"it ran less than {COLD_H:g} h ago: cold is read there, {most:g} °C at most"
        raise Refused("not_cold", words, field="temperature")


class LookBegunAct(Act[LookBegun], AtStep):
    """It is under pressure, or runs, and is looked at; everything that is seen before is pressed.
    Hot is what a run of this build made hot, or what is read to be; cold is what no run made hot in
    the last hours, or what is read to be.
    """

    body: ClassVar = LookBegun
    kind: Literal["look begun"]
    fluid: FluidKind
    way: Literal["pressed", "running"]
    heat: Literal["cold", "hot"]
    pressure: Text = ""
    temperature: Text = ""
    seen: tuple[Short, ...] = ()

    def concerns(self) -> Key:
        return Key("fluid", self.fluid)

    def accepted(self, state: BookState, hand: Hand) -> LookBegun:
        if open_look(state, self.fluid) is not None:
            words = "it is under pressure already: end that look first"
            raise Conflict(words, reason_code="still_up")
        system = state.lore.system(self.fluid)
        missing = [what for what in system.needs if what not in self.seen]
        if missing:
            raise Refused("not_seen", f"not seen now: {missing[0]}", field="seen")
        read = _amount(self.temperature, "temperature", "°C", "temperature")
        _state_holds(state, hand, self.way, self.heat, read)
        at = _amount(self.pressure, "pressure", "bar", "pressure")
        return self.filled(name=_name(state, self.fluid), pressure=at, temperature=read)


class LookEndedAct(Act[LookEnded], AtStep):
    """The pressure is off. Always written; `clean`, that nothing else was wet, only once the look
    has lasted its time.
    """

    body: ClassVar = LookEnded
    kind: Literal["look ended"]
    look: str
    clean: bool = False

    def accepted(self, state: BookState, hand: Hand) -> LookEnded:
        begun = _begun(state, self.look)
        if open_look(state, begun.body.fluid) is not begun:
            raise Conflict("the pressure is off already", reason_code="already_ended")
        if self.clean:
            _lasted(state, begun, hand, "clean")
        return self.filled(fluid=begun.body.fluid, after_s=_since(begun, hand.now))


def _begun(state: BookState, look: str) -> Entry[LookBegun]:
    found = next((e for e in state.all(LookBegun) if e.id == look), None)
    if found is None:
        raise NotFound("look", look)
    return found


def _since(begun: Entry[LookBegun], now: str) -> float:
    """How long it has lasted, in s, by the server's clock."""
    passed = datetime.fromisoformat(now) - datetime.fromisoformat(begun.time)
    return max(0.0, round(passed.total_seconds(), 1))


def _lasted(state: BookState, begun: Entry[LookBegun], hand: Hand, field: str) -> None:
    hold = state.lore.system(begun.body.fluid).hold_s(begun.body.way)
    if _since(begun, hand.now) > hold + LONGEST_S:
        words = "this look began long ago: end it, put the pressure on again and look anew"
        raise Refused("too_old", words, field=field)
    if begun.body.way == "running" and not runs_now(state):
        words = "it does not run any more: what leaked while it ran is looked at while it runs"
        raise Refused("not_running", words, field=field)
    left = hold - _since(begun, hand.now)
    if left > 0:
        words = f"dry is said after {hold} s of looking: {decimal_text(left, 0)} s are left"
        raise Refused("too_soon", words, field=field)


class LeakSeenAct(Act[LeakSeen], AtStep):
    """What was seen at a place: one that is known, or a new one by its `name` and sort of `joint`.
    In a look it has that look's state; in passing it stood there, unless an engine runs. Dry is
    said of a place that was wet, and once the look has lasted its time.
    """

    body: ClassVar = LeakSeen
    kind: Literal["leak seen"]
    fluid: FluidKind
    place: Annotated[str, Field(max_length=120)] = ""
    name: Annotated[str, Field(max_length=80)] = ""
    joint: Annotated[str, Field(max_length=40)] = "other"
    grade: Grade
    sure: Sure = "certain"
    drops: Annotated[int, Field(ge=1, le=200)] | None = None
    look: str | None = None
    attempt: str | None = None

    def concerns(self) -> Key:
        return Key("leak", self.place)

    def accepted(self, state: BookState, hand: Hand) -> LeakSeen:
        known = place_of(state, self.place) if self.place else None
        if self.place and known is None:
            raise NotFound("place", self.place)
        name = known.name if known else " ".join(self.name.split())
        if len(name) < 2:
            raise Refused("no_words", "name the place, such as union 2 at the rail", field="name")
        if known is None and state.lore.leak_joint_of(self.joint) is None:
            raise NotFound("joint", self.joint)
        if known is None and self.grade == "dry":
            words = f"{name} was never wet: dry is said of a place that leaked"
            raise Refused("never_wet", words, field="grade")
        if self.attempt and all(e.body.attempt != self.attempt for e in state.all(AttemptStarted)):
            raise NotFound("attempt", self.attempt)
        fluid = known.fluid if known else self.fluid
        state_facts = self._in_look(state, fluid, hand) if self.look else self._passing(state)
        return LeakSeen(
            step=self.step,
            place=known.id if known else f"{fluid}:{_slug(name)}",
            name=name,
            fluid=fluid,
            joint=known.joint if known else self.joint,
            grade=self.grade,
            sure=self.sure,
            drops=self.drops if self.grade == "drop" else None,
            look=self.look,
            attempt=self.attempt,
            **state_facts,
        )

    def _in_look(self, state: BookState, fluid: FluidKind, hand: Hand) -> dict[str, str]:
        begun = _begun(state, self.look or "")
        if begun.body.fluid != fluid:
            words = f"that look is at the {begun.body.fluid}, not at the {fluid}"
            raise Refused("other_system", words, field="look")
        if self.grade == "dry":
            if open_look(state, fluid) is not begun:
                words = "the pressure is off: dry is said while it is up, at the end of its time"
                raise Refused("not_up", words, field="look")
            _lasted(state, begun, hand, "grade")
        return {"way": begun.body.way, "heat": begun.body.heat}

    def _passing(self, state: BookState) -> dict[str, str]:
        """Seen in passing: wet while it ran is what it leaked at, dry is no more than standing."""
        ran = self.attempt is not None or runs_now(state)
        return {"way": "running" if ran and self.grade != "dry" else "standing", "heat": "cold"}


def _slug(name: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", name.casefold()).strip("-")[:80] or "place"


class LeakMendedAct(Act[LeakMended], AtStep):
    """What was done about it, with the pressure off; `sure`: it was nipped up all the same, beyond
    what it may be.
    """

    body: ClassVar = LeakMended
    kind: Literal["leak mended"]
    place: Annotated[str, Field(max_length=120)]
    how: Literal["nipped", "apart", "part", "wiped"]
    turn: Text = ""
    words: Annotated[str, Field(max_length=300)] = ""
    sure: bool = False

    def concerns(self) -> Key:
        return Key("leak", self.place)

    def accepted(self, state: BookState, hand: Hand) -> LeakMended:
        known = place_of(state, self.place)
        if known is None:
            raise NotFound("place", self.place)
        if open_look(state, known.fluid) is not None:
            words = f"{state.lore.system(known.fluid).off} first: nothing is tightened under "
            raise Refused("pressure_up", f"{words}pressure, it hides or bursts", field="how")
        turn = self._turned(known) if self.how == "nipped" else None
        return self.filled(name=known.name, turn=turn, words=self.words.strip())

    def _turned(self, known: LeakPlace) -> Measured | None:
        turn = _amount(self.turn, "angle", "deg", "turn")
        if known.most is not None and turn is None:
            words = "by how much, in degrees or as a part of a turn: 1/8 turn is 45 deg"
            raise Refused("no_turn", words, field="turn")
        beyond = (
            turn is not None
            and known.most is not None
            and known.used + turn.figure("angle") > known.most
        )
        if (not known.may_nip or beyond) and not self.sure:
            most = f"{decimal_text(known.most)}° in all" if known.most else "not at all, or once"
            words = f"{known.name} may be drawn {most}: {known.then}"
            raise Refused("force_limit", words, field="turn")
        return turn


def _amount(text: str, dimension: str, unit: str, field: str) -> Measured | None:
    if not text.strip():
        return None
    found = measured(text, dimension, unit, field)
    if found.figure(dimension) <= 0:
        raise Refused("bad_number", f"'{text}' must be a figure above zero", field=field)
    return found


class BleedCycleAct(Act[BleedCycle], AtStep):
    """One press a cycle: what came."""

    body: ClassVar = BleedCycle
    kind: Literal["bleed cycle"]
    fluid: FluidKind
    came: Literal["air", "foam", "clear", "nothing"]
    where: Annotated[str, Field(max_length=80)] = ""
    amount: Text = ""

    def concerns(self) -> Key:
        return Key("fluid", self.fluid)

    def accepted(self, state: BookState, hand: Hand) -> BleedCycle:
        amount = _amount(self.amount, "volume", "L", "amount")
        where = self.where.strip()
        return self.filled(name=_name(state, self.fluid), amount=amount, where=where)


class LevelSaidAct(Act[LevelSaid], AtStep):
    """A level as it was read, and how the unit stood."""

    body: ClassVar = LevelSaid
    kind: Literal["level said"]
    fluid: FluidKind
    level: Literal["below", "at", "over"]
    attitude: Literal["level", "nose up", "nose down", "leaning", "on its own base"]
    heat: Literal["cold", "hot"]
    running: bool = False

    def concerns(self) -> Key:
        return Key("fluid", self.fluid)

    def accepted(self, state: BookState, hand: Hand) -> LevelSaid:
        _runs(state, running=self.running)
        if self.heat == "cold":
            _cold_holds(state, hand, None, running=self.running)
        return self.filled(name=_name(state, self.fluid))


class FuelToldAct(Act[FuelTold], FuelToldSaid):
    """What is in the tank, as it was seen, smelt and remembered."""

    body: ClassVar = FuelTold
    kind: Literal["fuel told"]

    def concerns(self) -> Key:
        return Key("fluid", "fuel")

    def accepted(self, state: BookState, hand: Hand) -> FuelTold:
        if self.since:
            try:
                day = date.fromisoformat(self.since)
            except ValueError as error:
                words = f"'{self.since}': a day such as 2026-04-30, or nothing"
                raise Refused("bad_date", words, field="since") from error
            if day > hand.today + timedelta(days=1):  # it may be tomorrow already where he is
                words = f"{self.since} is still to come: since when is it in the tank?"
                raise Refused("bad_date", words, field="since")
        return self.filled()


class FluidMovedAct(Act[FluidMoved], AtStep):
    """So much went in or came out."""

    body: ClassVar = FluidMoved
    kind: Literal["fluid moved"]
    fluid: FluidKind
    way: Literal["in", "out"]
    amount: Text
    grade: Annotated[str, Field(max_length=80)] = ""
    words: Annotated[str, Field(max_length=300)] = ""

    def concerns(self) -> Key:
        return Key("fluid", self.fluid)

    def accepted(self, state: BookState, hand: Hand) -> FluidMoved:
        amount = _amount(self.amount, "volume", "L", "amount")
        if amount is None:
            raise Refused("empty", "how much, such as 4.2 L", field="amount")
        own = {"grade": self.grade.strip(), "words": self.words.strip()}
        return self.filled(name=_name(state, self.fluid), amount=amount, **own)
