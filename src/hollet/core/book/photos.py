"""Photos of a build with their pins, by step and by removal."""

from hollet.core.entries import BookState, Photo, Pin, Pinned
from hollet.core.entries.status import plan_of
from hollet.core.view import View

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
    newest = {entry.body.photo: entry for entry in state.all(Photo)}
    for entry in sorted(newest.values(), key=lambda entry: entry.seq):
        body, step = entry.body, plan.find_step(entry.body.step)
        pinned = state.newest(Pinned, "photo", body.photo)
        found.append(
            PhotoView(
                photo=body.photo,
                entry=entry.id,
                what=body.what,
                width=body.width,
                height=body.height,
                step=body.step,
                number=step.number if step else "",
                removal=body.removal,
                pins=pinned.body.pins if pinned and pinned.seq > entry.seq else body.pins,
                who=entry.who,
                time=entry.time,
            )
        )
    return tuple(found)


def photos_of(state: BookState, step: str) -> tuple[PhotoView, ...]:
    """The photos taken at a step."""
    return tuple(view for view in all_photos(state) if view.step == step)
