"""A unit on its way in or out: what moved last and which way, who has not spoken, how far it still
has to go, the nearest gap, and which moves are open. Hollet moves nothing; it is told.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from hollet.core.entries import (
    BookState,
    ClearSaid,
    Entry,
    HalfSaid,
    Touched,
    UnitMoved,
    WatchSaid,
)
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.words import MoveWay
from hollet.core.quantities.quantity import decimal_text, round9
from hollet.core.steps.halfway import half_at, half_in
from hollet.core.steps.moving_views import Gap, MovingFacts, ToGo, Voice

__all__ = [
    "BACK",
    "EYE_MM",
    "FAR_MM",
    "NEAR_MM",
    "TURNS",
    "moving_of",
    "one_word",
]

BACK: dict[MoveWay, MoveWay] = {
    "up": "down",
    "down": "up",
    "in": "out",
    "out": "in",
    "left": "right",
    "right": "left",
    "nose up": "nose down",
    "nose down": "nose up",
}
WAYS: tuple[MoveWay, ...] = tuple(BACK)
TURNS: tuple[MoveWay, ...] = ("nose up", "nose down")
EYE_MM = 2.0
"""How far a gap judged by eye may be off; assumed."""
NEAR_MM, FAR_MM = 20.0, 20.0
"""Near a gap below the first, a move beyond the second is asked about."""
THERE_MM, THERE_DEG = 5.0, 1.0
"""So near its place, an axis is there (rule of thumb: dowels and studs take it from here)."""
BREAK = timedelta(minutes=5)
AXES: tuple[tuple[str, MoveWay], ...] = (
    ("down", "down"),
    ("along", "in"),
    ("side", "left"),
    ("nose", "nose down"),
)


def moving_of(state: BookState, step: BaseStep, now: str) -> MovingFacts | None:
    """How a unit stands on its way; None where nobody has said who watches what."""
    watch = state.newest(WatchSaid, "moving", step.id)
    if watch is None:
        return None
    return _Moves(state, step, watch, datetime.fromisoformat(now)).facts()


def one_word(state: BookState, step: BaseStep, now: str, way: MoveWay, who: str) -> str:
    """Why one word for all is not enough after this move; empty where it is."""
    watch = state.newest(WatchSaid, "moving", step.id)
    if watch is None:
        return "nobody watches"
    return _Moves(state, step, watch, datetime.fromisoformat(now)).singly(way, who)


class _Moves:
    """The moves since the watch was said, and what was said after the last of them."""

    def __init__(
        self, state: BookState, step: BaseStep, watch: Entry[WatchSaid], now: datetime
    ) -> None:
        self.watch, self.now = watch, now
        self.half, self.stands = half_in(state, step), half_at(state, step)
        self.halves = state.each(HalfSaid, "moving", step.id)
        since = watch.seq
        self.moves = [e for e in state.each(UnitMoved, "moving", step.id) if e.seq > since]
        self.last = self.moves[-1] if self.moves else None
        after = max(e.seq for e in (watch, self.last, self.half) if e is not None)
        self.said = [e for e in state.each(ClearSaid, "moving", step.id) if e.seq > after]
        self.touches = state.each(Touched, "moving", step.id)
        self.touch = self._touching(state.each(UnitMoved, "moving", step.id))
        every = state.each(UnitMoved, "moving", step.id)
        came = [m for m in every if self.touch is not None and m.seq < self.touch.seq]
        self.way_back = BACK[came[-1].body.way] if came else None
        self.names = [w.who for w in watch.body.watchers]

    def _touching(self, moves: Sequence[Entry[UnitMoved]]) -> Entry[Touched] | None:
        """What touches: until it has gone back the way it came. A new watch frees nothing, nor does
        a move another way.
        """
        for touch in reversed(self.touches):
            came = [m for m in moves if m.seq < touch.seq]
            back = BACK[came[-1].body.way] if came else None
            gone = (m.body.way == back or back is None for m in moves if m.seq > touch.seq)
            if not any(gone):
                return touch
        return None

    def _age(self, entry: Entry[Any]) -> timedelta:
        return self.now - datetime.fromisoformat(entry.time)

    def least(self) -> float | None:
        least = self.watch.body.least
        return least.figure("length") if least is not None else None

    def judged(self, entry: Entry[ClearSaid]) -> tuple[str, str]:
        """Verdict on a gap by eye, and its words."""
        least = self.least()
        assert entry.body.gap is not None
        mm = round9(entry.body.gap.figure("length"))
        if least is None:
            return "no_limit", "the least gap is not given"
        if mm + EYE_MM < least:
            return "outside", "under its least"
        if mm - EYE_MM < least:
            return "too_close", "too close to call"
        return "inside", "clear"

    def gaps(self) -> list[Entry[ClearSaid]]:
        """The newest gap of each watcher since the last move, the smallest first."""
        by = {e.body.watcher: e for e in self.said}
        wide = [e for e in by.values() if e.body.gap is not None]
        return sorted(wide, key=lambda e: e.body.gap.figure("length") if e.body.gap else 0.0)

    def unheard(self) -> list[str]:
        """Whose voice is not there since the last move, whenever that was."""
        by_word = self.last is not None and self.last.body.clear
        if by_word and self.touch is None and self.half is None:
            return []
        spoken = {e.body.watcher for e in self.said}
        return [name for name in self.names if name not in spoken]

    def missing(self) -> list[str]:
        """Whose voice is not there since the last move; all are, after a break."""
        newest = [*([self.last] if self.last is not None else []), *self.said]
        stale = bool(newest) and all(self._age(e) > BREAK for e in newest)
        return list(self.names) if stale else self.unheard()

    def singly(self, way: MoveWay | None = None, who: str | None = None) -> str:
        """Why each watcher speaks for himself after the next move; empty where one word will do."""
        if self.last is None:
            return "the first move"
        if self.touch is not None or any(t.seq > self._before_last() for t in self.touches):
            return "it touched"
        if any(h.seq > self._before_last() for h in self.halves):
            return "it stood half in"
        if way is not None and way != self.last.body.way:
            return "another direction"
        if who is not None and who != self.last.who:
            return "another hand"
        if self._age(self.last) > BREAK:
            return "a break"
        gaps = self.gaps()
        near = gaps and gaps[0].body.gap is not None
        if near and (gaps[0].body.gap.figure("length") if gaps[0].body.gap else 99) < NEAR_MM:
            return "a gap is near its least"
        return ""

    def _before_last(self) -> int:
        return self.moves[-2].seq if len(self.moves) > 1 else self.watch.seq

    def open(self) -> tuple[tuple[MoveWay, ...], str]:
        """The ways that may be moved, and why the others are shut."""
        back = BACK[self.last.body.way] if self.last is not None else None
        only: tuple[MoveWay, ...] = (back,) if back is not None else ()
        if self.touch is not None and self.way_back is not None:
            only = tuple(dict.fromkeys((self.way_back, *only)))
        if self.touch is not None:
            return only, "it touches: back the way it came, nothing else"
        gaps = self.gaps()
        bad = [e for e in gaps if self.judged(e)[0] in ("outside", "too_close")]
        if bad:
            wider = tuple(e.body.widens for e in bad if e.body.widens is not None)
            words = f"{bad[0].body.watcher}: {self.judged(bad[0])[1]}"
            return tuple(dict.fromkeys((*only, *wider))), words
        missing = self.missing()
        if missing:
            return only, f"shut till {', '.join(missing)} {_has(missing)} spoken"
        return WAYS, ""

    def against(self) -> str:
        """Why it is not in, whatever is left to go: a touch, a gap, a watcher who never spoke."""
        _, shut = self.open()
        unheard = self.unheard()
        if self.touch is not None or any(self.judged(e)[0] != "inside" for e in self.gaps()):
            return shut
        if self.stands is not None:
            return f"half in, on purpose: {self.stands.why}"
        return f"{', '.join(unheard)} {_has(unheard)} not spoken" if unheard else ""

    def to_go(self) -> tuple[ToGo, ...]:
        """What is left of each axis that was said."""
        found = []
        for name, way in AXES:
            start = getattr(self.watch.body, name)
            if start is None:
                continue
            turns = way in TURNS
            dimension, unit = ("angle", "°") if turns else ("length", "mm")
            mine = [m.body for m in self.moves if m.body.way in (way, BACK[way])]
            gone = sum(
                m.by.figure(dimension) * (1 if m.way == way else -1)
                for m in mine
                if m.by is not None
            )
            left = round9(start.figure(dimension) - gone)
            known = all(m.by is not None for m in mine)
            there = known and abs(left) <= (THERE_DEG if turns else THERE_MM)
            toward = way if left >= 0 else BACK[way]
            found.append(ToGo(way=toward, left=abs(left), unit=unit, there=there, known=known))
        return tuple(found)

    def past(self) -> bool:
        """Whether the last move once more would go past where it has to."""
        if self.last is None:
            return False
        axis = next((a for a in self.to_go() if self.last.body.way in (a.way, BACK[a.way])), None)
        if axis is None or not axis.known or self.last.body.by is None:
            return False
        turns = self.last.body.way in TURNS
        step = self.last.body.by.figure("angle" if turns else "length")
        near = THERE_DEG if turns else THERE_MM
        return axis.there or (self.last.body.way == axis.way and step > axis.left + near)

    def voices(self) -> tuple[Voice, ...]:
        missing = self.missing()
        by = {e.body.watcher: e for e in self.said}
        all_clear = self.last if self.last is not None and self.last.body.clear else None
        return tuple(
            _voice(self, w.who, w.point, by.get(w.who), all_clear, missing)
            for w in self.watch.body.watchers
        )

    def facts(self) -> MovingFacts:
        """Everything that the screen shows."""
        gaps, (ways, shut), missing = self.gaps(), self.open(), self.missing()
        last = self.last
        nose = next((t for t in self.to_go() if t.unit == "°" and t.known), None)
        return MovingFacts(
            title=self._title(missing),
            last=last.body.way if last is not None else None,
            last_by=_amount(last),
            last_at=last.time if last is not None else "",
            last_who=last.who if last is not None else "",
            back=BACK[last.body.way] if last is not None else None,
            word=self.watch.body.word,
            voices=self.voices(),
            next_voice=missing[0] if missing and self.touch is None else None,
            to_go=self.to_go(),
            gap=_gap(self, gaps[0]) if gaps else None,
            more_gaps=sum(self.judged(e)[0] == "outside" for e in gaps[1:]),
            open=ways,
            shut=shut,
            against=self.against(),
            at_once=not self.singly() and not shut and not self.past(),
            half=self.stands,
            touching=_touching(self.touch),
            moves=len(self.moves),
            pitch=nose.left if nose is not None and nose.way == "nose down" else None,
        )

    def _title(self, missing: Sequence[str]) -> str:
        if self.touch is not None:
            return f"It touches{_touching(self.touch)}"
        if self.stands is not None:
            return f"Half in, on purpose: {self.stands.why}"
        if self.last is None:
            return "Hangs still" if not missing else "Hangs still, each looks first"
        by = _amount(self.last)
        told = f"Last: {self.last.body.way}{f' {by}' if by else ''}"
        return f"{told}. {'Stopped, looking' if missing else 'All clear'}"


def _has(names: Sequence[str]) -> str:
    return "has" if len(names) == 1 else "have"


def _amount(move: Entry[UnitMoved] | None) -> str:
    if move is None or move.body.by is None:
        return ""
    turns = move.body.way in TURNS
    figure = move.body.by.figure("angle" if turns else "length")
    return decimal_text(round9(figure)) + ("°" if turns else "")


def _touching(touch: Entry[Touched] | None) -> str:
    if touch is None:
        return ""
    return f", {touch.body.watcher}" + (f": {touch.body.where}" if touch.body.where else "")


def _voice(
    moves: _Moves,
    who: str,
    point: str,
    said: Entry[ClearSaid] | None,
    all_clear: Entry[UnitMoved] | None,
    missing: Sequence[str],
) -> Voice:
    if who in missing:
        return Voice(
            who=who, point=point, said="not yet said", verdict="not_read", missing=True, at=""
        )
    if said is not None:
        gap = said.body.gap
        verdict = moves.judged(said)[0] if gap is not None else "inside"
        words = f"{gap.value} {gap.unit}" if gap is not None else "clear"
        return Voice(who=who, point=point, said=words, verdict=verdict, missing=False, at=said.time)
    at = all_clear.time if all_clear is not None else ""
    word = moves.watch.body.word
    return Voice(
        who=who, point=point, said=f"clear, by {word}", verdict="inside", missing=False, at=at
    )


def _gap(moves: _Moves, entry: Entry[ClearSaid]) -> Gap:
    assert entry.body.gap is not None
    verdict, words = moves.judged(entry)
    return Gap(
        who=entry.body.watcher,
        between=entry.body.between,
        mm=round9(entry.body.gap.figure("length")),
        U=EYE_MM,
        least=moves.least(),
        verdict=verdict,
        words=words,
    )
