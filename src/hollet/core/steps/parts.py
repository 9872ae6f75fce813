"""Parts that are looked at: what was decided about each, and whether that holds."""

from collections.abc import Sequence
from dataclasses import dataclass

from hollet.core.entries import BookState, Entry, Finding, PartDecided, PartRight
from hollet.core.findings import DISPOSITIONS
from hollet.core.procedure.kinds.inspect import InspectPart, InspectStep
from hollet.core.procedure.tracing import Flow, Station
from hollet.core.safety import Safety, shut_words
from hollet.core.steps.beside import BesideFacts, besides, differing
from hollet.core.steps.faces import (
    FaceFacts,
    Seen,
    face_facts,
    is_dirty,
    look_words,
    looks_at,
    seen_view,
)
from hollet.core.view import View

__all__ = [
    "InspectionFacts",
    "PartFacts",
    "REPLACED",
    "STAYS_IN",
    "TO_DO",
    "TraceFacts",
    "UNSETTLED",
    "bad_words",
    "part_facts",
]

UNSETTLED = ("undecided", "deeper")


GOES_OUT = ("replace", "replace_open", "other_use")


REPLACED = ("replace", "replace_open")


STAYS_IN = ("reuse", "watch")
"""Choices by which a part is used again: with a bad finding on it a concession.

One that is cleaned is looked at again, and decided then.
"""


TO_DO = {
    "replace": "to be replaced",
    "replace_open": "to be replaced while it is open",
    "rework": "to be reworked",
    "clean": "to be cleaned and looked at again",
    "other_use": "kept for another use: another one has to go in",
}


class PartFacts(View):
    """A part with its faces, where it lies on the trace, and what was decided about it.

    `bad`: a bad finding stands on it; `conceded`: used again all the same, in writing; `barred`:
    safety-critical, and its rung stays shut
    until it is replaced or inspected by somebody licensed. `asks_name`: deciding to use it again is
    a concession and asks for a name.
    """

    id: str
    name: str
    mark: str
    faces: tuple[FaceFacts, ...]
    seen: int
    reached: str | None
    wipe: str | None
    choice: str | None
    choice_words: str
    reason: str
    provisional: bool
    since: str | None
    needs: bool
    to_do: str | None
    right: str | None
    decided: tuple[Seen, ...]
    price: float | None
    new_costs: float | None
    wrong: float | None
    group: str | None
    position: str | None
    beside: tuple[BesideFacts, ...] = ()
    safety: Safety | None = None
    bad: bool = False
    conceded: bool = False
    barred: bool = False
    asks_name: bool = False
    stays_shut: str | None = None


class TraceFacts(View):
    """The drawing of a trace: stations with their marks, flows followed or not yet, what failed."""

    id: str
    name: str
    carries: str
    outline: tuple[tuple[tuple[float, float], ...], ...]
    stations: tuple[Station, ...]
    marks: dict[str, str]
    seen: dict[str, bool]
    flows: tuple[Flow, ...]
    reached: tuple[str, ...]
    failed: str | None
    words: str


class InspectionFacts(View):
    """All of one inspection step."""

    step: str
    parts: tuple[PartFacts, ...]
    seen: int
    total: int
    trace: TraceFacts | None
    next_part: str | None
    next_face: str | None


@dataclass(frozen=True)
class _Decided:
    """What was decided on a part, and what became of it since.

    `mended` are the lines since that say it was put right, `looks` all findings on its faces,
    `later` those that found something after both.
    """

    last: Entry[PartDecided] | None
    mended: tuple[Entry[PartRight], ...]
    looks: tuple[Entry[Finding], ...]

    @property
    def choice(self) -> str | None:
        return self.last.body.choice if self.last else None

    @property
    def later(self) -> tuple[Entry[Finding], ...]:
        if self.last is None or self.choice in GOES_OUT:
            return ()
        settled = max((self.last.seq, *(m.seq for m in self.mended)))
        return tuple(e for e in self.looks if e.seq > settled and e.body.code is not None)

    @property
    def since(self) -> str | None:
        """What was found since it was decided, in words."""
        if not self.later:
            return None
        found = self.later[-1]
        return f"seen since it was decided: {look_words(found)}, {found.body.face_name}"

    def seen_again(self) -> bool:
        """Whether somebody looked after it was decided."""
        return self.last is not None and any(e.seq > self.last.seq for e in self.looks)

    def conceded(self, bad: bool) -> bool:
        """Whether it is used again although it is bad, in writing, and nothing was found since."""
        return (
            bad
            and self.last is not None
            and self.choice in STAYS_IN
            and bool(self.last.body.name)
            and not self.since
        )

    def gone(self, laid: Sequence[BesideFacts]) -> bool:
        """Whether a new part took its place, laid beside the old one with nothing that differs."""
        return (
            self.choice in REPLACED
            and bool(self.mended)
            and any(b.entry for b in laid)
            and differing(laid) is None
        )


def _decided(state: BookState, step: InspectStep, part: InspectPart) -> _Decided:
    about = f"{step.id}/{part.id}"
    last = state.newest(PartDecided, "part", about)
    return _Decided(
        last=last,
        mended=tuple(
            e for e in state.each(PartRight, "part", about) if last is not None and e.seq > last.seq
        ),
        looks=tuple(e for face in part.face for e in looks_at(state, step, part, face)),
    )


def part_facts(
    state: BookState,
    step: InspectStep,
    part: InspectPart,
    mark: str,
    came: str | None,
    sheet_faces: set[tuple[str, str]],
) -> PartFacts:
    """One part: its faces as seen, what was decided, and what that still asks for.

    `came` says which chips may have reached it, `mark` how it is drawn; faces that are not among
    `sheet_faces` were added by hand.
    """
    faces = tuple(
        face_facts(state, step, part, face, (part.id, face.id) not in sheet_faces)
        for face in part.face
    )
    all_seen = all(face.seen for face in faces)
    not_good = any(face.not_good for face in faces)
    bad = any(face.state == "bad" for face in faces)
    decided = _decided(state, step, part)
    last, choice, since = decided.last, decided.choice, decided.since
    laid = besides(state, step.id, part) if choice in REPLACED else ()
    conceded = decided.conceded(bad)
    licensed = conceded and last is not None and bool(last.body.licensed)
    good_again = choice == "clean" and all_seen and not not_good and decided.seen_again()
    dirty = bool(faces) and all(is_dirty(state, step, part, face) for face in part.face)
    return PartFacts(
        id=part.id,
        name=part.name,
        mark=mark,
        faces=faces,
        seen=sum(face.seen for face in faces),
        reached=came,
        wipe=f"good, and {came}: wash it and look again"
        if came and all_seen and not not_good and dirty
        else None,
        choice=choice,
        choice_words=DISPOSITIONS[choice] if choice else "",
        reason=last.body.reason if last else "",
        provisional=last is not None and not all_seen,
        since=since,
        needs=all_seen and not_good and _undecided(decided),
        to_do=TO_DO.get(choice or ""),
        right=_right(choice, decided.mended, bad, laid)
        or ("looked at again clean, and good" if good_again else None),
        decided=tuple(
            seen_view(e, f"{DISPOSITIONS[e.body.choice]}: {e.body.reason}")
            for e in state.each(PartDecided, "part", f"{step.id}/{part.id}")
        ),
        price=_price(part, last),
        new_costs=part.price,
        wrong=last.body.wrong if last and last.body.wrong is not None else part.wrong,
        group=part.group,
        position=part.position,
        beside=laid,
        safety=part.safety,
        bad=bad,
        conceded=conceded,
        barred=bad and part.safety is not None and not decided.gone(laid) and not licensed,
        asks_name=bad and not (choice == "rework" and bool(decided.mended)),
        stays_shut=_stays_shut(part) if bad and part.safety else None,
    )


def _undecided(decided: _Decided) -> bool:
    """Whether somebody must still say what becomes of it: nothing was, it was left open, or
    something was found since.
    """
    if decided.since is not None:
        return True
    return not decided.mended and (decided.choice is None or decided.choice in UNSETTLED)


def _right(
    choice: str | None, mended: Sequence[Entry[PartRight]], bad: bool, laid: Sequence[BesideFacts]
) -> str | None:
    """What was done about a decision, where it is really done: a new part only when it was laid
    beside the old, a cleaned one only when nothing bad is left.
    """
    if (
        not mended
        or (choice == "clean" and bad)
        or (choice in REPLACED and not any(b.entry for b in laid))
    ):
        return None
    return str(mended[-1].body.how)


def _stays_shut(part: InspectPart) -> str:
    rung = shut_words(part.safety or "")
    return (
        f"safety-critical: {rung} stays shut until it is replaced, or inspected by somebody "
        "licensed"
    )


def _price(part: InspectPart, decided: Entry[PartDecided] | None) -> float | None:
    """What was said when it was decided; else what a new one costs, unless the old one stays."""
    if decided is None or decided.body.choice in (*REPLACED, *UNSETTLED):
        return part.price if decided is None or decided.body.price is None else decided.body.price
    return decided.body.price


def bad_words(part: PartFacts) -> str:
    return "; ".join(f"{face.name} {face.words}" for face in part.faces if face.state == "bad")
