"""Last chances: what nobody reaches once a step is done, and whether it is done behind it."""

from pydantic import BaseModel, ConfigDict

from hollet.core.book.fold import BookState
from hollet.core.book.status import SETTLED, plan_of, selection_of, status_of
from hollet.core.procedure.sheet import BaseStep

__all__ = ["Chance", "chances"]


class Chance(BaseModel):
    """One thing behind a step: `done`, `open` (a step does it and is not done), `no step`, `let go` or `left out`."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    thing: str
    because: str
    state: str
    step: str | None = None
    number: str = ""
    words: str = ""


def chances(state: BookState, step: BaseStep) -> tuple[Chance, ...]:
    """The last chances of a step; a step put in later covers one when its title names the thing."""
    if not step.last_chance:
        return ()
    plan = plan_of(state)
    let_go = {e.body.thing: e.body.reason for e in state.of_step(step.id) if e.kind == "decision" and e.body.about == "last_chance"}
    found = []
    for chance in step.last_chance:
        doer = plan.find_step(chance.step) or next((s for s in plan.step if s.title.casefold() == chance.thing.casefold()), None)
        out = next((left for left in selection_of(state).left_out if left.step.id == chance.step), None)
        if doer is not None:
            status = status_of(state, doer).status
            done = status in SETTLED
            found.append(Chance(thing=chance.thing, because=chance.because, state="done" if done else "open", step=doer.id, number=doer.number,
                                words=status.replace("_", " ") if done else "in the plan, not done"))  # fmt: skip
        elif chance.thing in let_go:
            found.append(Chance(thing=chance.thing, because=chance.because, state="let go", words=f"not wanted: {let_go[chance.thing]}"))
        elif out is not None:
            found.append(Chance(thing=chance.thing, because=chance.because, state="left out", words=out.because))
        else:
            found.append(Chance(thing=chance.thing, because=chance.because, state="no step", words="no step does it"))
    return tuple(c.model_copy(update={"state": "let go", "words": f"not wanted: {let_go[c.thing]}"})
                 if c.state == "open" and c.thing in let_go else c for c in found)  # fmt: skip
