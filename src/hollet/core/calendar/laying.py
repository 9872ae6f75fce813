"""What of the offers fits into the evening, in the order in which it is done."""

from collections.abc import Sequence

from hollet.core.calendar.evenings import Tonight
from hollet.core.calendar.offers import Offer
from hollet.core.view import View

__all__ = ["Slug", "laid_tonight", "minutes_words"]


class Slug(View):
    """One piece of work in the evening: from and until in minutes of the day, and its row."""

    row: int
    start: int
    end: int
    title: str
    noisy: bool


def minutes_words(minutes: int) -> str:
    """Minutes as they are said.

    Examples
    --------
    >>> minutes_words(40), minutes_words(115), minutes_words(120)
    ('40 min', '1 h 55', '2 h')
    """
    hours, left = divmod(minutes, 60)
    if not hours:
        return f"{left} min"
    return f"{hours} h {left:02d}" if left else f"{hours} h"


def laid_tonight(offers: Sequence[Offer], evening: Tonight, minute: int) -> tuple[Slug, ...]:
    """The offers one behind the other, the best first, by the middle of the pace; what does not fit
    whole is left out, and noise ends where it must be quiet.
    """
    at, found = max(evening.start, minute), []
    for row, offer in enumerate(offers, start=1):
        if offer.middle is None:
            continue
        ends = at + offer.middle
        latest = evening.end
        if offer.noisy and evening.quiet_from is not None:
            latest = min(latest, evening.quiet_from)
        if ends > latest:
            continue
        found.append(Slug(row=row, start=at, end=ends, title=offer.title, noisy=offer.noisy))
        at = ends
    return tuple(found)
