"""Photos of a build with their pins, by step and by removal."""

from hollet.core.book.entries import Pin
from hollet.core.book.fold import BookState
from hollet.core.book.status import plan_of
from hollet.core.book.views import View

__all__ = ["PhotoView", "all_photos", "photos_of"]


class PhotoView(View):
    """One photo: its hash, its size in pixels, what it shows, and its pins as they are now."""

    photo: str
    entry: str
    what: str
    width: int
    height: int
    step: str | None
    number: str
    removal: str | None
    pins: tuple[Pin, ...]
    who: str
    time: str


def all_photos(state: BookState) -> tuple[PhotoView, ...]:
    """All photos, oldest first; the same picture taken into the log twice is there once, as said
    last.
    """
    plan = plan_of(state)
    found = []
    for photo, entries in state.photos.items():
        if not entries:
            continue
        entry = entries[-1]
        step = plan.find_step(entry.body.step)
        pinned = [
            e for e in state.live(f"photo:{photo}") if e.kind == "pinned" and e.seq > entry.seq
        ]
        found.append(
            (
                entry.seq,
                PhotoView(
                    photo=photo,
                    entry=entry.id,
                    what=entry.body.what,
                    width=entry.body.width,
                    height=entry.body.height,
                    step=entry.body.step,
                    number=step.number if step else "",
                    removal=entry.body.removal,
                    pins=pinned[-1].body.pins if pinned else entry.body.pins,
                    who=entry.who,
                    time=entry.time,
                ),
            )
        )
    return tuple(view for _, view in sorted(found, key=lambda pair: pair[0]))


def photos_of(state: BookState, step: str) -> tuple[PhotoView, ...]:
    """The photos taken at a step."""
    return tuple(view for view in all_photos(state) if view.step == step) if state.photos else ()
