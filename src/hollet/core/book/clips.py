"""Clips of a build, by step: what each shows, of which part or removal, and where in a run."""

from hollet.core.entries import BookState, Clip
from hollet.core.view import View

__all__ = ["ClipView", "clips_of"]


class ClipView(View):
    """One clip: its hash, how long it is (s), what it shows, and the second of the run at which it
    begins.
    """

    clip: str
    entry: str
    what: str
    seconds: float
    removal: str | None
    part: str | None
    attempt: str | None
    at_s: float | None
    who: str
    time: str


def clips_of(state: BookState, step: str | None = None) -> tuple[ClipView, ...]:
    """The clips taken at a step, or all of the build, oldest first; the same one sent twice is
    there once.
    """
    found = (entry for entry in state.all(Clip) if step is None or entry.body.step == step)
    newest = {entry.body.clip: entry for entry in found}
    return tuple(
        ClipView(
            **entry.body.model_dump(exclude={"step"}),
            entry=entry.id,
            who=entry.who,
            time=entry.time,
        )
        for entry in sorted(newest.values(), key=lambda entry: entry.seq)
    )
