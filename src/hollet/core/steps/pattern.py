"""The contact pattern of a gear at its step: what was seen, and what it asks for."""

from hollet.core.entries import BookState, PatternSeen, Reopened
from hollet.core.entries.status import outdated_since, told_on_struck
from hollet.core.procedure.kinds import BaseStep
from hollet.core.view import View

__all__ = ["PATTERN_WORDS", "PatternFacts", "pattern_of"]

PATTERN_WORDS = {
    "good": "it is right: backlash once more, then it stays",
    "pinion_in": "pinion in, towards the axis of the wheel; then the backlash is set anew",
    "pinion_out": "pinion out, away from the axis of the wheel; then the backlash is set anew",
    "ring_gear_towards_pinion": "wheel towards the pinion: shims from its far side to this one",
    "ring_gear_away_from_pinion": "wheel away from the pinion: shims from this side to the far one",
    "recheck": "the sides say different things: clean, paint again, hold the wheel back, and look "
    "at runout and bearings",
}
"""What each answer of the contact pattern means for the hands."""


class PatternFacts(View):
    """What was seen last on both sides, and what it asks for; `right`: nothing more."""

    drive_side: str | None
    coast_side: str | None
    words: str | None
    right: bool
    rounds: int
    who: str


def pattern_of(state: BookState, step: BaseStep) -> PatternFacts | None:
    """The pattern of a step, or None where none is looked for; a step that was opened again, or
    whose gears moved, is looked at again.
    """
    if not step.shows_pattern():
        return None
    again = state.newest(Reopened, "step", step.id)
    seen = state.each(PatternSeen, "step", step.id)
    since = (again, outdated_since(state, step.id))
    last = seen[-1] if seen and seen[-1].seq > max((e.seq for e in since if e), default=0) else None
    last = last if last is None or told_on_struck(state, step.id, last) is None else None
    return PatternFacts(
        drive_side=last.body.drive_side if last else None,
        coast_side=last.body.coast_side if last else None,
        words=last.body.words if last else None,
        right=last is not None and last.body.action == "good",
        rounds=len(seen),
        who=last.who if last else "",
    )
