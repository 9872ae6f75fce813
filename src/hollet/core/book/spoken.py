"""Notes that were spoken with greasy hands, and what they said, put into words on the card that
closes the evening.
"""

from hollet.core.book.boxes import kind_of_box
from hollet.core.entries import BookState, Spoken, Worded
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["ALOUD", "SpokenView", "spoken_notes", "spoken_reason"]

ALOUD = "said aloud"


class SpokenView(View):
    """One spoken note: its recording, at which step, by whom, and its words once somebody gave
    them.
    """

    entry: str
    sound: str
    step: str | None
    number: str
    title: str
    who: str
    time: str
    words: str | None


def spoken_notes(state: BookState) -> tuple[SpokenView, ...]:
    """All spoken notes, oldest first."""
    plan = plan_of(state)
    found = []
    for entry in state.all(Spoken):
        step = plan.find_step(entry.body.step)
        worded = state.newest(Worded, "worded", entry.id)
        found.append(
            SpokenView(
                entry=entry.id,
                sound=entry.body.sound,
                step=step.id if step else None,
                number=step.number if step else "",
                title=step.title if step else "",
                who=entry.who,
                time=entry.time,
                words=worded.body.text if worded else None,
            )
        )
    return tuple(found)


def spoken_reason(state: BookState, step: Step, spoken: str | None) -> str | None:
    """The reason that a spoken note stands for; it stands for order only, never where somebody can
    be hurt by the step.

    Raises
    ------
    NotFound
        There is no such note at this step, or it was struck.
    Refused
        `say_in_words`: the step has a box, or others wait for it as for a danger.
    """
    if spoken is None:
        return None
    if all(note.id != spoken for note in state.each(Spoken, "step", step.id)):
        raise NotFound("spoken note", spoken)
    if kind_of_box(state, step) is not None:
        raise Refused(
            "say_in_words",
            f"{step.number} {step.title}: somebody can be hurt here, so the reason must be in "
            "words, or one of the keys",
            field="reason",
        )
    return ALOUD
