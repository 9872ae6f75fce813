"""One walk round a unit that is in: what was found at each place, and the ties that are back."""

from pydantic import computed_field

from hollet.core.book.ledger import OpenItem, open_item
from hollet.core.book.passing import Obstacle, reason_keys
from hollet.core.book.ties import TieRow, is_after, ties
from hollet.core.entries import BookState, Done, Line, Reopened, Swept
from hollet.core.entries.status import plan_of, statuses
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.sweep import SWEPT, Sweep
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["SweepFacts", "SweepPlace", "SweepThing", "not_swept", "sweep_items", "sweep_of"]


class SweepThing(View):
    """One thing of the walk: `found` is right, wrong, not there, or empty while nobody looked."""

    id: str
    what: str
    good: str
    bad: str
    found: str
    words: str
    who: str


class SweepPlace(View):
    """One place of the walk, with what is looked at there."""

    name: str
    things: tuple[SweepThing, ...]

    @computed_field
    @property
    def left(self) -> int:
        """How many things nobody has looked at."""
        return sum(not thing.found for thing in self.things)

    @computed_field
    @property
    def wrong(self) -> int:
        """How many are not as they should be."""
        return sum(thing.found == "wrong" for thing in self.things)


class SweepFacts(View):
    """The whole walk, and the lines that are back and not proven yet."""

    title: str
    places: tuple[SweepPlace, ...]
    ties: tuple[TieRow, ...]


def sweep_of(state: BookState, step: Step) -> SweepFacts | None:
    """The walk of a step; None where it has none."""
    specs = step.sweeps()
    if not specs:
        return None
    names = dict.fromkeys(spec.at for spec in specs)
    since = _since(state)
    places = tuple(
        SweepPlace(
            name=name,
            things=tuple(_thing(state, step, s, since) for s in specs if s.at == name),
        )
        for name in names
    )
    unproven = tuple(row for row in ties(state) if row.unproven)
    left, wrong = sum(p.left for p in places), sum(p.wrong for p in places)
    said = [f"{counted(left, 'thing')} to look at"] if left else []
    said += [f"{wrong} not right"] if wrong else []
    said += [f"{counted(len(unproven), 'tie')} back, not proven"] if unproven else []
    return SweepFacts(title=", ".join(said) or "Walked round", places=places, ties=unproven)


def _since(state: BookState) -> Line | None:
    """The line with which a unit was moved last, or begun to be: what was seen before it proves
    nothing.
    """
    movers = [s.id for s in plan_of(state).step if s.moves is not None]
    told = [e for s in movers for kind in (Done, Reopened) for e in state.each(kind, "step", s)]
    return max(told, key=lambda e: e.seq, default=None)


def _thing(state: BookState, step: Step, spec: Sweep, since: Line | None) -> SweepThing:
    seen = state.newest(Swept, "swept", f"{step.id}/{spec.id}")
    counts = seen if seen is not None and is_after(seen, since) else None
    good, bad = SWEPT[spec.kind]
    return SweepThing(
        id=spec.id,
        what=spec.what,
        good=good,
        bad=bad,
        found=counts.body.found if counts is not None else "",
        words=counts.body.words if counts is not None else "",
        who=counts.who if counts is not None else "",
    )


def not_swept(state: BookState, step: Step) -> list[Obstacle]:
    """What the walk still lacks. What was found wrong, and a line that may be taken for another,
    is passed by no reason; what nobody looked at by one.
    """
    facts = sweep_of(state, step)
    if facts is None:
        return []
    wrong = [f"{t.what}: {t.bad}" for p in facts.places for t in p.things if t.found == "wrong"]
    bad = [f"{row.what}: {row.words}" for row in facts.ties if row.state == "wrong" or row.alike]
    left = [f"{p.name}: {t.what}" for p in facts.places for t in p.things if not t.found]
    left += [
        f"{row.what}: {row.words}" for row in facts.ties if row.state == "back" and not row.alike
    ]
    found = [Obstacle(code="swept", words=f"not right: {words}", by="nothing") for words in wrong]
    found += [Obstacle(code="swept", words=words, by="nothing") for words in bad]
    if left:
        more = f", and {len(left) - 1} more" if len(left) > 1 else ""
        keys = reason_keys("unfinished")
        words = f"not looked at: {left[0]}{more}"
        found.append(Obstacle(code="swept", words=words, by="reason", keys=keys))
    return found


def sweep_items(state: BookState) -> list[OpenItem]:
    """What a walk found wrong, whatever became of its step: it shuts the rung of the step."""
    plan, known = plan_of(state), statuses(state)
    found = []
    for step in plan.step:
        facts = sweep_of(state, step) if step.sweeps() else None
        if facts is None or known[step.id].status == "not_there":
            continue
        found += [
            open_item(
                id=f"swept:{step.id}/{thing.id}",
                kind="swept",
                what=f"{place.name}, {thing.what}: {thing.bad}",
                blocks=blocks_of(plan, step),
                step=step.id,
                step_number=step.number,
                stage=step.stage,
                undo="put it right, and look again",
                who=thing.who,
            )
            for place in facts.places
            for thing in place.things
            if thing.found == "wrong"
        ]
    return found
