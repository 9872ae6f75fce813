"""What has come off, in the order in which it came off: steps of the plan, and what was logged
without one.
"""

from collections.abc import Sequence

from pydantic import computed_field

from hollet.core.book.bags import BagContent, bag_contents
from hollet.core.entries import BookState, Removed
from hollet.core.entries.status import SETTLED, plan_of, status_of
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step
from hollet.core.view import View

__all__ = ["Removal", "back_steps", "find_removal", "puts_back", "removals"]


class Removal(View):
    """One thing that came off.

    `back` are the steps that put it back, `state` is off or back, `own` one that no step names.
    """

    id: str
    own: bool
    what: str
    number: str
    step: str | None
    bags: tuple[BagContent, ...]
    place: str | None
    on_stand: bool
    because: str | None
    reason_kind: str | None
    back: tuple[str, ...]
    back_words: str
    state: str
    who: str
    time: str
    seq: int
    entry: str

    @computed_field
    @property
    def is_back(self) -> bool:
        """Whether it went back."""
        return self.state == "back"


def back_steps(plan: Plan, step: Step) -> tuple[str, ...]:
    """The steps that put back what a take-down step took off.

    Those that say so (`refits`); else those that undo what it left open or tighten the joint that
    it took out.
    """
    return plan.derived("back", plan.step, _ways_back).get(step.id, ())


def _ways_back(steps: tuple[Step, ...]) -> dict[str, tuple[str, ...]]:
    """The way back of every step."""
    refitted: dict[str, list[str]] = {}
    for s in steps:
        for named in s.refits:
            refitted.setdefault(named, []).append(s.id)
    found = {}
    for step in steps:
        opened, joints = {item.id for item in step.opens}, set(step.takes_out())
        found[step.id] = tuple(
            refitted.get(step.id)
            or (s.id for s in steps if opened & set(s.closes) or joints & set(s.tightens()))
        )
    return found


def puts_back(plan: Plan, step: Step) -> tuple[str, ...]:
    """The removals that a step puts back: those it names, and the take-down steps whose way back it
    is.
    """
    if not (step.refits or step.closes or step.tightens()):
        return ()
    others = (s.id for s in plan.step if s.stage == "take_down" and step.id in back_steps(plan, s))
    return tuple(dict.fromkeys((*step.refits, *others)))


def removals(state: BookState) -> tuple[Removal, ...]:
    """All that is off or was off, oldest first.

    A step counts when it is done and takes something off or leaves something open.
    """
    plan = plan_of(state)
    contents: dict[str, list[BagContent]] = {}
    for content in bag_contents(state):
        contents.setdefault(content.owner, []).append(content)
    found = []
    for step in plan.step:
        if step.stage != "take_down" or not (step.takes_off or step.opens):
            continue
        status = status_of(state, step)
        if status.status != "done" or status.entry is None:
            continue
        entry = state.entries[status.entry]
        bags = tuple(contents.get(step.id, ()))
        found.append(
            _removal(
                state,
                plan,
                id=step.id,
                own=False,
                what=step.title,
                number=step.number,
                step=step.id,
                bags=bags,
                place=next((b.place for b in bags if b.place), None),
                on_stand=step.stands(),
                because=None,
                reason_kind=None,
                back=back_steps(plan, step),
                who=entry.who,
                time=entry.time,
                seq=entry.seq,
                entry=entry.id,
            )
        )
    for removal, _ in state.names("removal"):
        entries = state.each(Removed, "removal", removal)
        entry, body = entries[-1], entries[-1].body
        back = tuple(s.id for s in plan.step if removal in s.refits)
        found.append(
            _removal(
                state,
                plan,
                id=removal,
                own=True,
                what=body.what,
                number="",
                step=body.step,
                bags=tuple(contents.get(removal, ())),
                place=body.place,
                on_stand=body.on_stand,
                because=body.because,
                reason_kind=body.reason_kind,
                back=back,
                who=entry.who,
                time=entry.time,
                seq=entries[0].seq,
                entry=entry.id,
            )
        )
    return tuple(sorted(found, key=lambda r: r.seq))


def _removal(state: BookState, plan: Plan, back: Sequence[str], **facts: object) -> Removal:
    steps = [step for name in back if (step := plan.find_step(name)) is not None]
    done = bool(steps) and all(status_of(state, step).status in SETTLED for step in steps)
    return Removal.model_validate(
        {
            **facts,
            "back": back,
            "state": "back" if done else "off",
            "back_words": ", ".join(f"{s.number} {s.title}" for s in steps),
        }
    )


def find_removal(state: BookState, removal: str) -> Removal | None:
    """The removal with this id, if it is live."""
    return next((r for r in removals(state) if r.id == removal), None)
