"""One walk round a unit that is in: what was found at each place, and the ties that are back."""

from collections.abc import Iterator

from pydantic import computed_field

from hollet.core.book.last_look import is_after, last_look
from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.book.passing import Obstacle, reason_keys
from hollet.core.book.ties import TieRow, ties
from hollet.core.entries import BookState, Done, Entry, Line, Reopened, Swept
from hollet.core.entries.status import last_as, plan_of, whole_of
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
    counts = _seen(state, f"{step.id}/{spec.id}", since)
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


def _seen(state: BookState, name: str, since: Line | None) -> Entry[Swept] | None:
    """The look at a thing that counts: one that found it wrong needs no clock to be after."""
    seen = last_look(state.each(Swept, "swept", name), state.struck_of(Swept, "swept", name))
    if seen is None or since is None:
        return seen
    later = seen.seq > since.seq if seen.body.found == "wrong" else is_after(seen, since)
    return seen if later else None


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
    """What a walk found wrong, whatever became of its step, in the plan or not; and a walk that was
    done before a unit was moved once more. Each shuts the rung of its step.
    """
    return [*_wrong(state), *_moved_since(state)]


def _wrong(state: BookState) -> Iterator[OpenItem]:
    plan, since = plan_of(state), _since(state)
    for name, _ in state.names("swept"):
        seen = _seen(state, name, since)
        if seen is None or seen.body.found != "wrong":
            continue
        step_id, thing = name.split("/")
        step = whole_of(state).find_step(step_id)
        spec = next((s for s in step.sweeps() if s.id == thing), None) if step else None
        bad = SWEPT[spec.kind][1] if spec is not None else "not right"
        what = seen.body.names[seen.body.things.index(thing)]
        yield open_item(
            id=f"swept:{name}",
            kind="swept",
            what=f"{seen.body.at_place}, {what}: {bad}",
            blocks=blocks_of(plan, step) if step is not None else "crank",
            step=step_id,
            step_number=step.number if step is not None else "",
            undo="put it right, and look again",
            who=seen.who,
        )


def _moved_since(state: BookState) -> Iterator[OpenItem]:
    plan, since = plan_of(state), _since(state)
    for step in plan.step if since is not None else ():
        done = last_as(state, step.id, Done) if step.sweeps() else None
        facts = sweep_of(state, step) if done is not None else None
        if done is None or facts is None or since is None or since.seq < done.seq:
            continue
        if any(place.left for place in facts.places):
            yield open_item(
                id=f"swept:{step.id}",
                kind="swept",
                what=f"{step.title}: done before the unit was moved again, {facts.title}",
                blocks=blocks_of(plan, step),
                step=step.id,
                step_number=step.number,
                stage=step.stage,
                undo="walk round it again",
                since=since.time,
                who=since.who,
            )
