"""Dry fits and what points one way: what was proved, what must be out again before anything is
final, what somebody, or two people, have looked at.
"""

from hollet.core.book.ledger import left_open
from hollet.core.book.passing import Obstacle
from hollet.core.entries import BookState, Confirmed, Reopened, TrialSaid
from hollet.core.entries.status import plan_of
from hollet.core.procedure.provisional import ORIENT_KINDS, Orient, OrientKind
from hollet.core.procedure.sheet import Step
from hollet.core.steps.locking import last_seen
from hollet.core.view import View

__all__ = ["OrientFacts", "TrialFacts", "on_trial", "orients_of", "provisional", "trial_of"]


class TrialFacts(View):
    """A dry fit at its step: what it proves, what was found, what is kept back."""

    proves: str
    apart: str | None
    kept_back: tuple[str, ...]
    fits: str | None
    words: str
    who: str


class OrientFacts(View):
    """One thing that points one way, and who has seen that it does."""

    id: str
    kind: OrientKind
    name: str
    how: str
    misleads: str | None
    second: bool
    seen: bool
    by: tuple[str, ...]


def _since(state: BookState, step: str) -> int:
    """The line since which something seen at a step still stands: it was not opened again."""
    again = state.newest(Reopened, "step", step)
    return again.seq if again is not None else 0


def trial_of(state: BookState, step: Step) -> TrialFacts | None:
    """The dry fit of a step, or None where it is none."""
    if step.trial is None:
        return None
    said = state.newest(TrialSaid, "step", step.id)
    if said is not None and said.seq < _since(state, step.id):
        said = None
    return TrialFacts(
        proves=step.trial.proves,
        apart=step.trial.apart,
        kept_back=step.trial.kept_back,
        fits=said.body.fits if said else None,
        words=said.body.words if said else "",
        who=said.who if said else "",
    )


def orients_of(state: BookState, step: Step) -> tuple[OrientFacts, ...]:
    """What points one way at a step, and who has seen it."""
    since = _since(state, step.id)
    presses = [e for e in state.each(Confirmed, "step", step.id) if e.seq > since]

    def facts(orient: Orient) -> OrientFacts:
        by = tuple(dict.fromkeys(e.who for e in presses if e.body.what == orient.how))
        return OrientFacts(
            id=orient.id,
            kind=orient.kind,
            name=ORIENT_KINDS[orient.kind],
            how=orient.how,
            misleads=orient.misleads,
            second=orient.second,
            seen=len(by) >= (2 if orient.second else 1),
            by=by,
        )

    return tuple(facts(orient) for orient in step.orient)


def on_trial(state: BookState, step: Step) -> tuple[str, ...]:
    """What is to be done before anything here is final, of each thing that stands on trial still
    and that this step ends: the words of its undoing, pressed once it is so.
    """
    since = _since(state, step.id)
    presses = {e.body.what for e in state.each(Confirmed, "step", step.id) if e.seq > since}
    names = {item.id: item for s in plan_of(state).step for item in s.opens if item.sort == "trial"}
    live = {item.id for item in left_open(state)}
    return tuple(
        names[name].undo
        for name in step.closes
        if name in names and name in live and names[name].undo not in presses
    )


def provisional(state: BookState, step: Step) -> list[Obstacle]:
    """What a dry fit, or what points one way, still asks for; no reason passes it."""
    found = []
    trial = trial_of(state, step)
    if trial is not None and trial.fits != "yes":
        told = {
            None: f"nobody has said what it proved: {trial.proves}",
            "no": f"it does not fit: {trial.words}. Change that, and try it again",
            "unclear": f"it cannot be told whether it fits: {trial.words}",
        }
        found.append(Obstacle(code="trial", words=told[trial.fits], by="nothing"))
    found += [
        Obstacle(code="on_trial", words=f"on trial still, not yet: {box}", by="press", box=box)
        for box in on_trial(state, step)
    ]
    group = step.locks()
    if group is not None and group.last is not None and not last_seen(state, step):
        words = f"nobody has seen yet: {group.last}"
        found.append(Obstacle(code="last", words=words, by="press", box=group.last))
    found += [_unseen(orient) for orient in orients_of(state, step) if not orient.seen]
    return found


def _unseen(orient: OrientFacts) -> Obstacle:
    words = f"not seen: {orient.how}"
    if orient.by:
        words = f"seen by {orient.by[0]} alone, a second pair of eyes is asked for: {orient.how}"
    return Obstacle(code="orient", words=words, by="press", box=orient.how)
