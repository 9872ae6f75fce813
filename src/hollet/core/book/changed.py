"""What is not as it left the works, in one list: earlier hands, changed parts, mended wires, what
stands in, bolts left empty.
"""

from typing import Literal

from pydantic import computed_field

from hollet.core.entries import (
    Altered,
    BookState,
    EarlierKept,
    Entry,
    Finding,
    KeptSo,
    LeftOpen,
    PartRefused,
    PartReturned,
    PartTaken,
    WireMended,
)
from hollet.core.entries.status import plan_of, status_of
from hollet.core.procedure.words import WIRE_STATES, WireState
from hollet.core.steps.tighten import joint_facts
from hollet.core.view import View

__all__ = [
    "STANDS_ON",
    "AlteredFacts",
    "ChangedFacts",
    "EarlierFacts",
    "WireFacts",
    "altered",
    "changed",
    "earlier",
    "wires",
]

STRANGE = "strange"
"""The code of a finding that is not as it left the works."""


class EarlierFacts(View):
    """What an earlier hand did, and what becomes of it: put back or repaired at a step, or kept."""

    key: str
    step: str
    part: str
    face: str
    what: str
    safety: str | None
    choice: Literal["step", "keep"] | None
    words: str
    at: str | None
    who: str


class AlteredFacts(View):
    """A part that was changed or made; `asked` says why it is asked about again."""

    id: str
    step: str
    what: str
    differs: str
    held: str
    undo: str
    for_name: str | None
    asked: str | None
    who: str


class WireFacts(View):
    """A wire and how far it is mended; `next` is what comes next."""

    id: str
    step: str
    place: str
    which: str
    how: str
    marker: str
    sleeve: str | None
    state: WireState
    proof: str
    who: str

    @computed_field
    @property
    def words(self) -> str:
        """How far it is."""
        return WIRE_STATES[self.state]

    @computed_field
    @property
    def bare(self) -> bool:
        """Whether its end is bare."""
        return self.state == "cut"

    @computed_field
    @property
    def next(self) -> WireState | None:
        """What comes next; a sleeve is there or it is not."""
        order: dict[WireState, WireState | None] = {
            "cut": "joined",
            "joined": "proven",
            "sleeved": "proven",
            "proven": "tied",
            "tied": None,
        }
        return order[self.state]


class StandInFacts(View):
    """What stands in for something: still to be undone, or kept in writing."""

    item: str
    what: str
    bears: str
    kept: str | None
    may_keep: bool


class EmptyFacts(View):
    """A bolt that was left out on purpose, and what it waits for."""

    joint: str
    step: str | None
    what: str


class ChangedFacts(View):
    """The whole list."""

    earlier: tuple[EarlierFacts, ...]
    altered: tuple[AlteredFacts, ...]
    wires: tuple[WireFacts, ...]
    stand_ins: tuple[StandInFacts, ...]
    empty: tuple[EmptyFacts, ...]

    @computed_field
    @property
    def open(self) -> int:
        """How many still ask for something."""
        return (
            sum(e.choice is None for e in self.earlier)
            + sum(a.asked is not None for a in self.altered)
            + sum(w.next is not None for w in self.wires)
            + sum(s.kept is None for s in self.stand_ins)
            + len(self.empty)
        )


def changed(state: BookState) -> ChangedFacts:
    """Everything that is not as it left the works."""
    return ChangedFacts(
        earlier=earlier(state),
        altered=altered(state),
        wires=wires(state),
        stand_ins=_stand_ins(state),
        empty=_empty(state),
    )


def earlier(state: BookState) -> tuple[EarlierFacts, ...]:
    """What earlier hands did, by the last look at each face."""
    plan, found = plan_of(state), []
    mends = {s.mends: s for s in plan.step if s.mends is not None}
    for entry in state.newest_of(Finding, "face"):
        body = entry.body
        if body.code != STRANGE:
            continue
        key = f"{body.step}/{body.part}/{body.face}"
        kept, step = state.newest(EarlierKept, "earlier", key), mends.get(key)
        looked = plan.find_step(body.step)
        inspection = looked.as_inspection() if looked is not None else None
        part = next((p for p in inspection.part if p.id == body.part), None) if inspection else None
        words, at = "say what becomes of it", None
        if step is not None:
            at, words = step.id, f"{step.number} {step.title}, {status_of(state, step).words}"
        elif kept is not None:
            words = f"stays, held by {kept.body.held}: {kept.body.why}"
        what = ", ".join(t for t in (body.part_name, body.face_name, body.words) if t)
        found.append(
            EarlierFacts(
                key=key,
                step=body.step,
                part=body.part,
                face=body.face,
                what=what,
                safety=part.safety if part is not None else None,
                choice="step" if step is not None else "keep" if kept is not None else None,
                words=words,
                at=at,
                who=entry.who,
            )
        )
    return tuple(found)


def altered(state: BookState) -> tuple[AlteredFacts, ...]:
    """Changed and home-made parts, each as it was said last."""
    return tuple(
        AlteredFacts(
            id=entry.body.altered,
            step=entry.body.step,
            what=entry.body.what,
            differs=entry.body.differs,
            held=entry.body.held,
            undo=entry.body.undo,
            for_name=entry.body.for_name,
            asked=_asked(state, entry),
            who=entry.who,
        )
        for entry in state.newest_of(Altered, "altered")
    )


def _asked(state: BookState, entry: Entry[Altered]) -> str | None:
    """Why a change is asked about again: the part that it was made for went back, or another one
    was taken.
    """
    need = entry.body.for_need
    if need is None:
        return None
    told = {PartRefused: "was refused", PartReturned: "went back", PartTaken: "was taken anew"}
    later = [e for e in state.live("need", need) if e.seq > entry.seq and type(e.body) in told]
    first = any(
        e.seq < entry.seq and type(e.body) is PartTaken for e in state.live("need", need)
    )  # the first taking is what it was made for
    for line in later:
        if type(line.body) is PartTaken and not first:
            first = True
            continue
        return f"{entry.body.for_name} {told[type(line.body)]}: does {entry.body.what} still fit?"
    return None


def wires(state: BookState) -> tuple[WireFacts, ...]:
    """Mended wires, each as it was said last; one whose proof was struck is not proven by being
    tied.
    """
    return tuple(
        WireFacts(
            id=entry.body.wire,
            step=entry.body.step,
            place=entry.body.place,
            which=entry.body.which,
            how=entry.body.how,
            marker=entry.body.marker,
            sleeve=_sleeve(entry.body),
            state=(stands := _mended(state, entry.body.wire))[0],
            proof=stands[1],
            who=entry.who,
        )
        for entry in state.newest_of(WireMended, "wire")
    )


STANDS_ON: dict[WireState, tuple[WireState, ...]] = {
    "proven": ("joined", "sleeved", "proven", "tied"),
    "tied": ("proven", "tied"),
}
"""What a wire must be before it can be that."""


def _mended(state: BookState, wire: str) -> tuple[WireState, str]:
    """How far a wire is, and its proof: a line counts that stands on the one before it."""
    now, proof = None, ""
    for entry in state.each(WireMended, "wire", wire):
        said = entry.body.state
        if said not in STANDS_ON or now in STANDS_ON[said]:
            now, proof = said, entry.body.proof
    return now or "joined", proof


def _sleeve(body: WireMended) -> str | None:
    if body.sleeve_inner is None or body.sleeve_length is None:
        return None
    return f"sleeve, inner {body.sleeve_inner.shown()}, {body.sleeve_length.shown()} long"


def _stand_ins(state: BookState) -> tuple[StandInFacts, ...]:
    found = []
    for item, _ in state.names("open"):
        left, kept = state.newest(LeftOpen, "open", item), state.newest(KeptSo, "open", item)
        last = state.live("open", item)[-1].body
        if kept is not None and last == kept.body:
            found.append(_stand_in(item, kept.body.what, kept.body.bears, kept.body.why))
        elif left is not None and last == left.body and left.body.sort == "stand_in":
            found.append(_stand_in(item, left.body.what, left.body.if_left or "not said", None))
    return tuple(found)


def _stand_in(item: str, what: str, bears: str, kept: str | None) -> StandInFacts:
    return StandInFacts(item=item, what=what, bears=bears, kept=kept, may_keep=kept is None)


def _empty(state: BookState) -> tuple[EmptyFacts, ...]:
    plan, found = plan_of(state), []
    for joint in plan.joint:
        if not state.live("joint", joint.id):
            continue
        step = next((s.id for s in plan.step if joint.id in s.tightens()), None)
        for bolt in joint_facts(state, joint).bolts:
            if bolt.empty is not None:
                what = f"{joint.name}, bolt {bolt.number} ({bolt.place}): for {bolt.empty}"
                found.append(EmptyFacts(joint=joint.id, step=step, what=what))
    return tuple(found)
