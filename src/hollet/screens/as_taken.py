"""What is known of a thing when it goes back: its photo, what was written as it came off, where it
lies; and what stands on it.
"""

from hollet.core.book.photos import PhotoView, all_photos
from hollet.core.book.removals import puts_back, removals
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.procedure.sheet import Step
from hollet.core.view import View
from hollet.screens.sentences import line_of

__all__ = ["Follower", "TakenView", "followers", "taken_of"]

MOST_LINES = 5


class TakenView(View):
    """One thing that this step puts back: when and by whom it came off, where it lies, its bags,
    what was written then, its photos.
    """

    what: str
    number: str
    who: str
    time: str
    place: str | None
    bags: tuple[str, ...]
    told: tuple[str, ...]
    photos: tuple[PhotoView, ...]


class Follower(View):
    """A step that waits for this one, and why."""

    step: str
    number: str
    title: str
    because: str


def taken_of(state: BookState, step: Step) -> tuple[TakenView, ...]:
    """What this step puts back, as it came off, oldest first."""
    back = puts_back(plan_of(state), step)
    if not back:
        return ()
    photos = all_photos(state)
    found = []
    for off in removals(state):
        if off.id not in back:
            continue
        lines = (
            [entry for entry in state.of_step(off.id) if entry.body.tells] if not off.own else []
        )
        mine = tuple(p for p in photos if (p.removal == off.id if off.own else p.step == off.id))
        found.append(
            TakenView(
                what=off.what,
                number=off.number,
                who=off.who,
                time=off.time,
                place=off.place,
                bags=tuple(f"bag {bag.bag}: {bag.words}" for bag in off.bags if bag.left),
                told=tuple(line_of(state, entry).text for entry in lines[-MOST_LINES:]),
                photos=mine,
            )
        )
    return tuple(found)


def followers(state: BookState, step: Step) -> tuple[Follower, ...]:
    """The steps that wait for this one, in the order of the plan."""
    return tuple(
        Follower(step=s.id, number=s.number, title=s.title, because=link.because)
        for s in plan_of(state).step
        for link in s.after
        if link.step == step.id
    )
