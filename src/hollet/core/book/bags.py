"""Bags: what went in, what came out again, what is lost. A balance never goes below zero."""

from collections.abc import Sequence

from hollet.core.book.entries import Entry
from hollet.core.book.fold import BookState
from hollet.core.book.status import plan_of
from hollet.core.book.views import View
from hollet.core.errors import Refused
from hollet.core.procedure.sheet import BagLine

__all__ = [
    "BagContent",
    "BagCount",
    "bag_contents",
    "check_taken",
    "line_key",
    "next_bag",
    "recent_hand",
    "short_of",
    "size_words",
]

Key = tuple[str, str, str]


class BagCount(View):
    """Like fasteners of a bag: how many went in, are left, went back, are lost."""

    size: str
    length: str | None
    odd: str | None
    holes: str | None
    count: int
    left: int
    fitted: int
    lost: int
    words: str


class BagContent(View):
    """One compartment: whose fasteners, its lines, how many are left in it, lost, and `missing`:
    lost and not replaced.
    """

    bag: int
    owner: str
    step: str | None
    number: str
    what: str
    place: str | None
    lines: tuple[BagCount, ...]
    pieces: int
    left: int
    lost: int
    missing: int
    words: str


class _Tally:
    """What one bag holds while its entries are gone through; an emptied bag may be used again by
    another removal.
    """

    def __init__(self, owner: str, entry: Entry) -> None:
        self.owner, self.entry = owner, entry
        self.place: str | None = None
        self.lines: dict[Key, BagLine] = {}
        self.fitted: dict[Key, int] = {}
        self.lost: dict[Key, int] = {}

    def left(self, key: Key) -> int:
        return self.lines[key].count - self.fitted.get(key, 0) - self.lost.get(key, 0)

    def put(self, lines: Sequence[BagLine], place: str | None) -> None:
        self.place = place or self.place
        for line in lines:
            key = line_key(line)
            known = self.lines.get(key)
            if known is None:
                self.lines[key] = line
            else:
                holes = " ".join(text for text in (known.holes, line.holes) if text) or None
                self.lines[key] = known.model_copy(
                    update={"count": known.count + line.count, "holes": holes}
                )

    def take(self, lines: Sequence[BagLine], how: str) -> None:
        """Take out; what is not there, because its line was struck since, counts for nothing."""
        into = self.lost if how == "lost" else self.fitted
        for line in lines:
            key = line_key(line)
            if key in self.lines:
                into[key] = into.get(key, 0) + min(line.count, max(self.left(key), 0))

    @property
    def empty(self) -> bool:
        return all(self.left(key) == 0 for key in self.lines)


def line_key(line: BagLine | BagCount) -> Key:
    """What makes two fasteners alike: size, length and what is odd about them."""
    return line.size.casefold(), line.length or "", (line.odd or "").casefold()


def owner_of(entry: Entry) -> str:
    """The removal that an entry is about: the step, or the removal logged without one."""
    return str(entry.body.removal if entry.kind == "removed" else entry.body.step)


def _tally(entries: Sequence[Entry]) -> _Tally | None:
    tally: _Tally | None = None
    for entry in entries:
        if entry.kind == "unbagged":
            if tally is not None:
                tally.take(entry.body.lines, entry.body.how)
            continue
        owner = owner_of(entry)
        if tally is None or (tally.owner != owner and tally.empty):
            tally = _Tally(owner, entry)
        tally.put(entry.body.lines, entry.body.place)
    return tally


def size_words(size: str, length: str | None) -> str:
    """M8×45, or the bare size."""
    return f"{size}×{length}" if length else size


def _content(state: BookState, bag: int, tally: _Tally) -> BagContent:
    step = plan_of(state).find_step(tally.entry.body.step)
    own = tally.entry.kind == "removed"
    counts = []
    for key, line in tally.lines.items():
        left, fitted, lost = tally.left(key), tally.fitted.get(key, 0), tally.lost.get(key, 0)
        words = f"{line.count} × {size_words(line.size, line.length)}"
        if fitted or lost:
            words = (
                f"{left} of {line.count} {size_words(line.size, line.length)} still in bag {bag}"
                if left
                else f"all {line.count} {size_words(line.size, line.length)} out"
            )
            words += f", {lost} lost" if lost else ""
        counts.append(
            BagCount(
                size=line.size,
                length=line.length,
                odd=line.odd,
                holes=line.holes,
                count=line.count,
                left=left,
                fitted=fitted,
                lost=lost,
                words=words,
            )
        )
    kinds = {size_words(c.size, c.length) for c in counts}
    return BagContent(
        bag=bag,
        owner=tally.owner,
        step=tally.entry.body.step,
        number=step.number if step else "",
        what=tally.entry.body.what if own else (step.title if step else "no longer in the plan"),
        place=tally.place,
        lines=tuple(counts),
        pieces=sum(c.count for c in counts),
        left=sum(c.left for c in counts),
        lost=sum(c.lost for c in counts),
        missing=max(
            0,
            sum(c.lost for c in counts) - sum(e.body.count for e in state.live(f"replaced:{bag}")),
        ),
        words=next(iter(kinds)) if len(kinds) == 1 else "mixed" if kinds else "empty",
    )


def bag_contents(state: BookState) -> tuple[BagContent, ...]:
    """All bags by number, as they are now; a bag whose lines were struck is free again."""
    found = ((bag, _tally(entries)) for bag, entries in sorted(state.bags.items()))
    return tuple(_content(state, bag, tally) for bag, tally in found if tally is not None)


def next_bag(contents: Sequence[BagContent]) -> int:
    """The number behind the highest one in use."""
    return max((c.bag for c in contents), default=0) + 1


def recent_hand(state: BookState) -> tuple[tuple[BagLine, ...], tuple[str, ...]]:
    """Sizes and places written last, newest first, so that the hand need not type them again."""
    sizes: dict[Key, BagLine] = {}
    places: dict[str, None] = {}
    for entry_id in reversed(state.order[-300:]):
        entry = state.entries[entry_id]
        if entry.kind in ("bagged", "removed") and entry_id not in state.struck:
            for line in entry.body.lines:
                sizes.setdefault(
                    line_key(line), BagLine(count=1, size=line.size, length=line.length)
                )
            if entry.body.place:
                places.setdefault(entry.body.place)
    return tuple(sizes.values())[:8], tuple(places)[:6]


def check_taken(state: BookState, bag: int, lines: Sequence[BagLine]) -> None:
    """Refuse to take from a bag what is not in it (`not_in_bag`)."""
    content = next((c for c in bag_contents(state) if c.bag == bag), None)
    if content is None:
        raise Refused("not_in_bag", f"bag {bag} is empty: nothing was logged into it", field="bag")
    wanted: dict[Key, int] = {}
    for line in lines:
        wanted[line_key(line)] = wanted.get(line_key(line), 0) + line.count
    there = {line_key(c): c for c in content.lines}
    for key, count in wanted.items():
        if key not in there:
            raise Refused(
                "not_in_bag",
                f"bag {bag} holds no {size_words(key[0].upper(), key[1] or None)}: it holds "
                f"{', '.join(c.words for c in content.lines)}",
                field="lines",
            )
        if count > there[key].left:
            one = there[key]
            raise Refused(
                "not_in_bag",
                f"bag {bag} holds {one.left} {size_words(one.size, one.length)}, not {count}",
                field="lines",
            )


def short_of(contents: Sequence[BagContent], owners: Sequence[str]) -> str | None:
    """What of the named removals is still in its bag, in words, or None; lost ones are out and have
    to be replaced.
    """
    still = [
        line
        for content in contents
        if content.owner in owners
        for line in content.lines
        if line.left
    ]
    if not still:
        return None
    bag = next(c.bag for c in contents if c.owner in owners and c.left)
    first = still[0]
    words = (
        f"{first.left} of {first.count} {size_words(first.size, first.length)} still in bag {bag}"
    )
    return words + (
        f" and {len(still) - 1} more sizes"
        if len(still) > 2
        else " and one more size"
        if len(still) == 2
        else ""
    )
