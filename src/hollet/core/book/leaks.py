"""Leaks: each place with what was seen and done, what may still be tightened, which looks it needs
before it is cleared, and which rung it shuts until then.

A clean look clears only what it was at: without pressure never a leak under pressure, standing
never running, cold never hot. The counts and times are rules of thumb.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta

from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.entries import (
    AttemptEnded,
    AttemptStarted,
    BookState,
    Entry,
    LeakMended,
    LeakSeen,
    LookBegun,
    LookEnded,
    Samples,
)
from hollet.core.leaks import GRADES, Grade, LeakJoint, Way
from hollet.core.procedure.pieces import FluidKind
from hollet.core.procedure.words import RUNGS
from hollet.core.quantities.quantity import decimal_text
from hollet.core.view import View

__all__ = ["LeakPlace", "Look", "leak_items", "leak_places", "open_look", "place_of"]

SURE_KINDS: tuple[FluidKind, ...] = ("fuel", "brake", "clutch")
"""Of these a doubtful leak counts as a certain one, and damp as a leak."""
NEVER_ONE: tuple[FluidKind, ...] = ("fuel", "brake")
LOOKS: dict[Grade, int] = {"dry": 0, "damp": 1, "drop": 2, "run": 3, "stream": 3}
"""How many clean looks clear a leak of this grade."""
FOR_GOOD = ("apart", "part")
"""What makes a joint new; a nip and a wipe do not."""
WAYS: tuple[Way, ...] = ("standing", "pressed", "running")
NIGHT = timedelta(hours=6)
"""How long nothing ran before a cold look counts as one after a cold night."""
WIPED = timedelta(minutes=10)
"""How long after it was wiped a doubtful place is looked at once more."""
SHUTS: dict[FluidKind, str] = {
    "fuel": "fire",
    "oil": "fire",
    "coolant": "fire",
    "brake": "gear",
    "clutch": "gear",
    "automatic": "gear",
    "gear": "drive",
    "axle": "drive",
}
"""The rung that a leak seen under pressure shuts: the first that needs the system whole."""


class Look(View):
    """One look at a place: how it stood, what was seen, and what was done about it afterwards."""

    entry: str
    time: str
    who: str
    grade: Grade
    words: str
    sure: str
    way: Way
    heat: str
    dry: bool
    done: str


class LeakPlace(View):
    """One place that leaked: its looks, the turn used of what may be used (degrees), whether it may
    still be nipped up and what follows else; what is wanted now, and the rung it shuts.
    """

    id: str
    name: str
    fluid: FluidKind
    joint: str
    sort: str
    looks: tuple[Look, ...]
    grade: Grade
    state: str
    wants: str
    used: float
    most: float | None
    may_nip: bool
    then: str
    blocks: str
    cleared: bool
    at: str


def open_look(state: BookState, fluid: FluidKind) -> Entry[LookBegun] | None:
    """The look of this system that is not ended."""
    ended = {e.body.look for e in state.each(LookEnded, "fluid", fluid)}
    begun = [e for e in state.each(LookBegun, "fluid", fluid) if e.id not in ended]
    return begun[-1] if begun else None


def leak_places(state: BookState) -> tuple[LeakPlace, ...]:
    """Every place that was ever wet, those that wait first."""
    places = [_place(state, name) for name, _ in state.names("leak")]
    found = [place for place in places if place is not None]
    return tuple(sorted(found, key=lambda p: (p.cleared, p.id)))


def place_of(state: BookState, place: str) -> LeakPlace | None:
    """One place as it stands; None where nothing wet was ever seen."""
    return _place(state, place)


def _when(entry: Entry[LeakSeen] | Entry[LeakMended]) -> datetime:
    return datetime.fromisoformat(entry.time)


def _place(state: BookState, name: str) -> LeakPlace | None:
    seen = state.each(LeakSeen, "leak", name)
    mends = state.each(LeakMended, "leak", name)
    wet = [e for e in seen if e.body.grade != "dry"]
    if not wet:
        return None
    last, first = wet[-1], wet[-1].body
    # the worst since what was mended for good before it leaked last: one grade lower is not clean,
    # and made anew it is not dry till it was looked at
    since = max((m.seq for m in mends if m.body.how in FOR_GOOD and m.seq < last.seq), default=0)
    whole = [e for e in wet if e.seq > since]
    worst = max(whole, key=lambda e: LOOKS_RANK.index(e.body.grade)).body.grade
    joint = state.lore.leak_joint_of(first.joint)
    nips = _nips(mends, joint, last.seq)
    later = [m for m in mends if m.seq > last.seq]
    state_of = _State(state, last, worst, seen, later)
    return LeakPlace(
        id=name,
        name=first.name,
        fluid=first.fluid,
        joint=first.joint,
        sort=joint.name if joint else first.joint,
        looks=tuple(_look(e, seen, mends) for e in seen),
        grade=worst,
        state=state_of.words(),
        wants=state_of.wants(nips, joint),
        used=nips.used,
        most=joint.most_deg if joint else None,
        may_nip=nips.may,
        then=joint.then if joint else "apart",
        blocks=state_of.blocks(),
        cleared=state_of.cleared,
        at=f"{first.way}, {first.heat}",
    )


LOOKS_RANK: tuple[Grade, ...] = ("dry", "damp", "drop", "run", "stream")


class _Nips(View):
    """The turn that was used since it came apart last, and whether more may be."""

    used: float
    may: bool
    over: bool


def _nips(mends: Sequence[Entry[LeakMended]], joint: LeakJoint | None, wet: int) -> _Nips:
    """A joint is nipped once: what leaks again after it comes apart."""
    apart = max((m.seq for m in mends if m.body.how in FOR_GOOD), default=0)
    own = [m for m in mends if m.body.how == "nipped" and m.seq > apart]
    used = sum(m.body.turn.figure("angle") for m in own if m.body.turn is not None)
    most = joint.most_deg if joint else None
    over = (most is not None and used > most) or (joint is not None and len(own) > 1 and not most)
    again = any(m.seq < wet for m in own)
    allowed = joint is not None and (most is not None or joint.once is not None)
    left = most is None or used < most
    may = allowed and left and not again and not (own and joint is not None and joint.once)
    return _Nips(used=used, may=may, over=over or bool(own and not allowed))


class _State:
    """How a place stands since it was wet last: mended or not, and its clean looks since."""

    def __init__(
        self,
        state: BookState,
        wet: Entry[LeakSeen],
        worst: Grade,
        seen: Sequence[Entry[LeakSeen]],
        mends: Sequence[Entry[LeakMended]],
    ) -> None:
        self.state, self.wet, self.worst, self.mends = state, wet, worst, mends
        self.kind = wet.body.fluid
        self.doubtful = wet.body.sure == "doubtful" and self.kind not in SURE_KINDS
        self.mended = [m for m in mends if self.doubtful or m.body.how != "wiped"]
        after = self.mended[-1].seq if self.mended else None
        dry = [e for e in seen if e.seq > wet.seq and e.body.grade == "dry" and _stood(state, e)]
        self.clean = _apart(
            [e for e in dry if after is not None and e.seq > after and self._same(e)]
        )
        self.need = self._needed()
        self.cleared = not self.left()

    def _needed(self) -> int:
        if self.doubtful:
            return 2
        return max(LOOKS[self.worst], 2 if self.kind in NEVER_ONE else 1)

    def _same(self, look: Entry[LeakSeen]) -> bool:
        """Whether a look was at what the place leaked at, or at more; later ones may be hotter or
        colder once it was dry as it leaked.
        """
        return WAYS.index(look.body.way) >= WAYS.index(self.wet.body.way)

    def first_ok(self) -> bool:
        """Whether it was seen dry in the very state in which it leaked."""
        return any(e.body.heat == self.wet.body.heat for e in self.clean)

    def left(self) -> list[str]:
        """What it still needs, in words."""
        if not self.mended:
            return ["it is mended" if not self.doubtful else "it is wiped dry"]
        need = []
        if not self.first_ok():
            need.append(f"seen dry {self._as_it_leaked()}")
        if self.doubtful:
            late = [e for e in self.clean if _when(e) - _when(self.mended[-1]) >= WIPED]
            if not late:
                need.append("once more 10 min after it was wiped")
            return need
        if self.worst != "damp" or self.kind in NEVER_ONE:
            if not any(e.body.heat == "hot" for e in self.clean):
                need.append("seen dry hot")
            if not any(self._after_night(e) for e in self.clean):
                need.append("seen dry after a cold night")
        missing = self.need - len(self.clean)
        if missing > len(need):
            need.append(f"{missing} clean look{'s' if missing > 1 else ''} in all")
        return need

    def _as_it_leaked(self) -> str:
        way = {"standing": "as it stands", "pressed": "under pressure", "running": "running"}
        return f"{way[self.wet.body.way]}, {self.wet.body.heat}"

    def _after_night(self, look: Entry[LeakSeen]) -> bool:
        if look.body.heat != "cold":
            return False
        at = _when(look)
        runs = [datetime.fromisoformat(e.time) for e in self.state.all(AttemptEnded)]
        before = [t for t in runs if t < at]
        since = max([*before, _when(self.mended[-1])], default=at)
        return at - since >= NIGHT

    def words(self) -> str:
        """How it stands, in one line."""
        if self.cleared:
            return "cleared"
        if not self.mended:
            doubt = ", not sure: may be cleaner" if self.doubtful else ""
            return f"{GRADES[self.wet.body.grade]}{doubt}"
        count = f"{len(self.clean)} of {max(self.need, len(self.clean) + 1)} clean looks"
        return "wiped, not looked at again" if self.doubtful and not self.clean else count

    def wants(self, nips: _Nips, joint: LeakJoint | None) -> str:
        """What is done next."""
        if self.cleared:
            return ""
        if nips.over and joint is not None:
            return f"drawn further than it may be: {joint.then}"
        if self.mended:
            return "; ".join(self.left())
        if self.doubtful:
            return "wipe it dry, and look at 1 min and at 10 min"
        if nips.may and joint is not None:
            left = (joint.most_deg or 0.0) - nips.used
            return (
                f"pressure off; nip it up once, {decimal_text(left)}° at most"
                if joint.most_deg
                else f"pressure off; once {joint.once}"
            )
        return f"pressure off; {joint.then if joint else 'apart'}"

    def blocks(self) -> str:
        """The rung it shuts now; a look at what leaked while it ran needs it to run again."""
        rungs = list(RUNGS)
        if self.cleared:
            return "nothing"
        watch = self.worst == "damp" and self.kind not in SURE_KINDS
        if watch:
            return "nothing"
        own = SHUTS[self.kind]
        if not self.mended:
            return min(own, "fire", key=rungs.index) if self.wet.body.way == "running" else own
        if self.first_ok() and len(self.clean) >= (2 if self.kind in NEVER_ONE else 1):
            return "drive"
        if self.wet.body.way == "running" or self.wet.body.heat == "hot":
            beyond = "gear" if self.wet.body.heat == "hot" else "run_on"
            return max(own, beyond, key=rungs.index)
        return own


def _stood(state: BookState, seen: Entry[LeakSeen]) -> bool:
    """Whether the look in which it was seen still stands: one that was struck was none."""
    look = seen.body.look
    return look is None or (look in state.entries and look not in state.struck)


def _apart(looks: Sequence[Entry[LeakSeen]]) -> list[Entry[LeakSeen]]:
    """Looks that are looks of their own: one each time it was under pressure, and in passing one in
    ten minutes.
    """
    found: list[Entry[LeakSeen]] = []
    for look in looks:
        same = look.body.look is not None and any(f.body.look == look.body.look for f in found)
        soon = look.body.look is None and found and _when(look) - _when(found[-1]) < WIPED
        if not same and not soon:
            found.append(look)
    return found


def _look(
    entry: Entry[LeakSeen], seen: Sequence[Entry[LeakSeen]], mends: Sequence[Entry[LeakMended]]
) -> Look:
    body = entry.body
    following = next((e.seq for e in seen if e.seq > entry.seq), None)
    done = [
        m.body.told()
        for m in mends
        if m.seq > entry.seq and (following is None or m.seq < following)
    ]
    count = f", {body.drops} a minute" if body.drops else ""
    return Look(
        entry=entry.id,
        time=entry.time,
        who=entry.who,
        grade=body.grade,
        words=f"{GRADES[body.grade]}{count}",
        sure="not sure" if body.sure == "doubtful" else body.sure,
        way=body.way,
        heat=body.heat,
        dry=body.grade == "dry",
        done=", ".join(done),
    )


def leak_items(state: BookState) -> list[OpenItem]:
    """Places that leak or are not yet cleared, and leaks seen while it ran of which nobody has said
    where they are.
    """
    found = [
        open_item(
            id=f"leak:{place.id}",
            kind="leak",
            what=f"{place.name}: {place.state}",
            blocks=place.blocks,
            step=None,
            note=place.wants,
        )
        for place in leak_places(state)
        if not place.cleared
    ]
    starts = {e.body.attempt: e.body for e in state.all(AttemptStarted)}
    for name, start in starts.items():
        lines = state.each(Samples, "run", name)
        wet = any(s.seen in ("leak", "fuel leak") for e in lines for s in e.body.samples)
        if wet and not state.each(LeakSeen, "run", name):
            found.append(
                open_item(
                    id=f"leak:attempt:{name}",
                    kind="leak",
                    what=f"A leak was seen at attempt {start.number}: nobody has said where",
                    blocks="fire",
                    step=start.step,
                    undo="say where it was",
                )
            )
    return found
