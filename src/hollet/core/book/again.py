"""What is final and looked at again: joints after they have run, figures accepted in writing."""

from collections.abc import Iterator

from pydantic import computed_field

from hollet.core.book.debts import debts_of
from hollet.core.book.passing import unsettled_before
from hollet.core.entries import BookState, Concession
from hollet.core.entries.status import plan_of
from hollet.core.steps.looks import due_by, looks_of
from hollet.core.steps.results import results_of
from hollet.core.steps.wrenches import stage_ask
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["Again", "again_of"]

LOOK_ONLY = "by eye and by its mark: drawn by an angle, it is not pulled again"


class Again(View):
    """One thing that is looked at again: at which step or, in words, when; `waits`: what has to
    happen first. `how`: what may be done to it and what not; `left`: how far it is to go, `share`
    how much of that way is gone.
    """

    id: str
    what: str
    how: str
    step: str
    when: str
    waits: str | None
    safety: bool
    left: str = ""
    share: float | None = None
    trend: str = ""

    @computed_field
    @property
    def due(self) -> bool:
        """Whether nothing stands before it any more."""
        return self.waits is None


def again_of(state: BookState, now: str) -> tuple[Again, ...]:
    """All of it on one build, what is due now first."""
    found = [*_joints(state, now), *_accepted(state, now)]
    return tuple(sorted(found, key=lambda row: not row.due))


def _joints(state: BookState, now: str) -> Iterator[Again]:
    plan = plan_of(state)
    for due in debts_of(state, now).again:
        joint, step = plan.find_joint(due.joint), plan.find_step(due.step)
        if joint is None or step is None:
            continue
        before = unsettled_before(state, step, now)
        kind, _, asked = stage_ask(joint, len(joint.stage))
        looks = looks_of(state, joint, now)
        still = None if looks is None or looks.due else looks.words
        yield Again(
            id=f"joint:{joint.id}",
            what=f"{joint.name}, {counted(due.bolts, 'bolt')}",
            how=LOOK_ONLY if kind != "torque" else f"with the wrench, as it was drawn: {asked}",
            step=step.id,
            when=f"{step.number} {step.title}" + (f": {looks.words}" if looks else ""),
            waits=before[0].words if before else still,
            left="" if before or looks is None else looks.left,
            share=looks.share if looks is not None and not before else None,
            trend=looks.trend if looks is not None else "",
            safety=joint.safety is not None,
        )


def _accepted(state: BookState, now: str) -> Iterator[Again]:
    """Figures accepted in writing that somebody wanted to see again."""
    for step in plan_of(state).step:
        for result in results_of(state, step):
            said = state.newest(Concession, "result", f"{step.id}/{result.id}")
            if said is None or not result.conceded or not said.body.recheck:
                continue
            judged, when = result.judgement, said.body.recheck_when
            typed = said.body.recheck
            due, words, left, share = (
                due_by(state, when, said.time, now, strict=False)
                if when is not None
                else (False, typed, "", None)
            )
            yield Again(
                id=f"accepted:{said.id}",
                what=f"{result.name} {judged.value_text} {judged.unit}, accepted in writing",
                how="measured again",
                step=step.id,
                when=words,
                waits=None if due else words,
                left=left,
                share=share,
                safety=said.body.limit.safety is not None,
            )
