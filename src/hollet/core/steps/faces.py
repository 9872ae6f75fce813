"""Faces of parts: what was seen of each, and what holds of it."""

from pydantic import computed_field

from hollet.core.entries import BookState, Entry, Finding, Line
from hollet.core.findings import CLEANING, Surface
from hollet.core.procedure.kinds.inspect import Face, InspectPart, InspectStep
from hollet.core.view import View

__all__ = ["FaceFacts", "Seen", "face_facts", "is_dirty", "look_words", "looks_at", "seen_view"]


class Seen(View):
    """One look at a face, or one decision, in words."""

    entry: str
    words: str
    who: str
    time: str
    photo: str | None = None


class FaceFacts(View):
    """A face: not_seen, good, again (dirty, unsure or light) or bad; what holds now, and what was
    said before.
    """

    id: str
    name: str
    on: Surface
    state: str
    words: str
    code: str | None = None
    grade: int | None = None
    now: tuple[Seen, ...] = ()
    earlier: tuple[Seen, ...] = ()
    own: bool = False

    @computed_field
    @property
    def seen(self) -> bool:
        """Whether somebody looked at it."""
        return self.state != "not_seen"

    @computed_field
    @property
    def not_good(self) -> bool:
        """Whether what was seen is bad, or must be looked at again."""
        return self.state in ("bad", "again")


def looks_at(
    state: BookState, step: InspectStep, part: InspectPart, face: Face
) -> list[Entry[Finding]]:
    return state.each(Finding, "face", f"{step.id}/{part.id}/{face.id}")


def is_dirty(state: BookState, step: InspectStep, part: InspectPart, face: Face) -> bool:
    looks = looks_at(state, step, part, face)
    return bool(looks) and max(CLEANING.index(e.body.cleaning) for e in looks) < CLEANING.index(
        "washed"
    )


def seen_view(entry: Line, words: str) -> Seen:
    return Seen(
        entry=entry.id,
        words=words,
        who=entry.who,
        time=entry.time,
        photo=entry.body.shown_photo(),
    )


def look_words(entry: Entry[Finding]) -> str:
    """One look in words: dents, several, washed, sure."""
    body = entry.body
    found = f"{body.code_name}, {body.grade_word}" if body.code else "nothing found"
    more = [
        body.cleaning,
        body.method if body.method != "eye" else None,
        body.confidence if body.confidence != "sure" else None,
        body.words,
        f"perhaps from {body.cause}" if body.cause else None,
    ]
    return ", ".join([found, *(text for text in more if text)])


def face_facts(
    state: BookState, step: InspectStep, part: InspectPart, face: Face, own: bool
) -> FaceFacts:
    """What holds of a face: its cleanest looks since the last of them that found nothing, and
    damage seen after that in whatever state.
    """
    looks = looks_at(state, step, part, face)
    struck = state.struck_of(Finding, "face", f"{step.id}/{part.id}/{face.id}")
    if not looks:
        return FaceFacts(
            id=face.id, name=face.name, on=face.on, state="not_seen", words="not seen", own=own
        )
    cleanest = max(CLEANING.index(e.body.cleaning) for e in looks)
    clean = [e for e in looks if CLEANING.index(e.body.cleaning) == cleanest]
    cleared = [e for e in clean if e.body.code is None][-1:]
    since = cleared[0].seq if cleared else clean[0].seq - 1
    now = [e for e in looks if e.seq > since and e.body.code is not None] or cleared
    unsure, dirty = (
        all(e.body.confidence == "unsure" for e in now),
        CLEANING[cleanest] == "as it came",
    )
    worst = max(now, key=lambda e: (e.body.grade or 0, e.seq))
    grade = worst.body.grade
    lost = next((e for e in struck if e.body.code is not None and e.seq > looks[-1].seq), None)
    if grade is None:
        state_word, words = (
            ("again", "nothing found yet, but it was dirty" if dirty else "nothing found, unsure")
            if dirty or unsure
            else ("good", "nothing found")
        )
    else:
        bad = [
            e
            for e in now
            if e.body.confidence != "unsure"
            and e.body.code is not None
            and _is_bad(state, e.body.code, e.body.grade or 0, part.safety is not None)
        ]
        state_word = "bad" if bad else "again"
        words = "; ".join(f"{e.body.code_name}, {e.body.grade_word}" for e in now)
    if lost is not None and state_word != "bad":
        state_word, words = (
            "again",
            f"{words}; a finding here was struck ({look_words(lost)}): look again",
        )
    return FaceFacts(
        id=face.id,
        name=face.name,
        on=face.on,
        state=state_word,
        words=words,
        code=worst.body.code,
        grade=grade,
        own=own,
        now=tuple(seen_view(e, look_words(e)) for e in now),
        earlier=tuple(seen_view(e, look_words(e)) for e in looks if e not in now),
    )


def _is_bad(state: BookState, name: str, grade: int, safety: bool) -> bool:
    """Whether a finding of this term and grade is bad; one of a term that is not known here is."""
    code = state.lore.code(name)
    return code is None or code.bad(grade, safety)
