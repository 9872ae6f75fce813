"""What the take-down screens show beyond the bench of one step: all that is off, the tray, the
register of what was kept.
"""

from hollet.core.book.bags import BagContent, bag_contents, next_bag, recent_hand
from hollet.core.book.captures import CaptureView, all_captures
from hollet.core.book.clips import ClipView, clips_of
from hollet.core.book.passing import current_step, reason_keys
from hollet.core.book.photos import PhotoView, all_photos
from hollet.core.book.removals import Removal, removals
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.procedure.pieces import BagLine
from hollet.core.procedure.words import KINDS_OF_REASON
from hollet.core.view import View

__all__ = ["REASONS", "TakeDownView", "takedown_view"]

REASONS: tuple[tuple[str, str], ...] = (
    ("it is in the way of the next", "access closes"),
    ("it would be live or move", "safety"),
    ("it would spill", "spill"),
    ("it needs the weight or the brake on", "load needed"),
    ("its setting is kept by it", "setting kept"),
)
"""Reasons for coming off first that one touch gives, with their kind."""
assert all(kind in KINDS_OF_REASON for _, kind in REASONS)


class ReasonChoice(View):
    """A reason that one touch gives."""

    words: str
    kind: str


class TakeDownView(View):
    """All that came off, the bags, what was kept as found, the photos and clips, and
    what the hand used last.
    """

    removals: tuple[Removal, ...]
    bags: tuple[BagContent, ...]
    bags_used: int
    pieces_left: int
    next_bag: int
    recent: tuple[BagLine, ...]
    places: tuple[str, ...]
    reasons: tuple[ReasonChoice, ...]
    captures: tuple[CaptureView, ...]
    photos: tuple[PhotoView, ...]
    clips: tuple[ClipView, ...]
    at: str
    at_words: str
    on_stand: bool
    bag_keys: tuple[str, ...]
    parts_off: int
    last_part: str | None


def takedown_view(state: BookState, now: str) -> TakeDownView:
    """The take-down as it stands at the moment `now` (UTC, ISO 8601)."""
    bags, off = bag_contents(state), removals(state)
    sizes, places = recent_hand(state)
    at = plan_of(state).find_step(current_step(state, now))
    assert at is not None
    parts = [
        r for r in off if r.own or ((s := plan_of(state).find_step(r.step)) and s.takes_off)
    ]  # a lead taken off its post is no part
    return TakeDownView(
        removals=off,
        bags=bags,
        bags_used=sum(c.left > 0 for c in bags),
        pieces_left=sum(c.left for c in bags),
        next_bag=next_bag(bags),
        recent=sizes,
        places=places,
        captures=all_captures(state),
        reasons=tuple(ReasonChoice(words=words, kind=kind) for words, kind in REASONS),
        photos=all_photos(state),
        clips=clips_of(state),
        at=at.id,
        at_words=f"{at.number} {at.title}",
        on_stand=next((r.on_stand for r in reversed(off)), False),
        bag_keys=reason_keys("bag"),
        parts_off=len(parts),
        last_part=parts[-1].what if parts else None,
    )
