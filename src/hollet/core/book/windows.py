"""Last chances: what nobody reaches once a step is done, and whether it is done behind it."""

from pydantic import computed_field

from hollet.core.entries import BookState, Decision
from hollet.core.entries.status import SETTLED, plan_of, selection_of, status_of
from hollet.core.procedure.kinds import BaseStep
from hollet.core.view import View

__all__ = ["Chance", "chances"]


ANSWERED = {"done": "done", "let go": "not wanted", "left out": "not for this vehicle"}


class Chance(View):
    """One thing behind a step: `done`, `open` (a step does it and is not done), `no step`, `let go`
    or `left out`.
    """

    thing: str
    because: str
    state: str
    step: str | None = None
    number: str = ""
    words: str = ""

    @computed_field
    @property
    def todo(self) -> bool:
        """Whether somebody must still do it, or say that it is not wanted."""
        return self.state in ("open", "no step")

    @computed_field
    @property
    def unplanned(self) -> bool:
        """Whether no step of the plan does it."""
        return self.state == "no step"

    @computed_field
    @property
    def done(self) -> bool:
        """Whether it was done."""
        return self.state == "done"

    @computed_field
    @property
    def said(self) -> str:
        """What stands beside it."""
        return self._said()

    def _said(self) -> str:
        if self.done and self.number:
            return f"{self.number}, {self.words}"
        if self.state in ANSWERED:
            return self.words or ANSWERED[self.state]
        return f"{self.number} {self.words}".strip()


def chances(state: BookState, step: BaseStep) -> tuple[Chance, ...]:
    """The last chances of a step; a step put in later covers one when its title names the thing."""
    if not step.last_chance:
        return ()
    plan = plan_of(state)
    said = {
        e.body.thing: e.body
        for e in state.each(Decision, "step", step.id)
        if e.body.about == "last_chance"
    }
    found = []
    for chance in step.last_chance:
        doer = plan.find_step(chance.step) or next(
            (s for s in plan.step if s.title.casefold() == chance.thing.casefold()), None
        )
        out = next(
            (left for left in selection_of(state).left_out if left.step.id == chance.step), None
        )
        decided = said.get(chance.thing)
        own = {
            "thing": chance.thing,
            "because": chance.because,
            "step": doer.id if doer else None,
            "number": doer.number if doer else "",
        }
        if doer is not None and status_of(state, doer).status in SETTLED:
            found.append(
                Chance(state="done", words=status_of(state, doer).status.replace("_", " "), **own)
            )
        elif decided is not None:
            words = "seen and done here" if decided.done_here else f"not wanted: {decided.reason}"
            found.append(
                Chance(state="done" if decided.done_here else "let go", words=words, **own)
            )
        elif doer is not None:
            found.append(Chance(state="open", words="in the plan, not done", **own))
        elif out is not None:
            found.append(Chance(state="left out", words=out.because, **own))
        else:
            found.append(Chance(state="no step", words="no step does it", **own))
    return tuple(found)
