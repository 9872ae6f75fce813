"""Bags: what went in, what came out again, what is lost. A balance never goes below zero."""

from collections.abc import Sequence

from hollet.core.entries import BookState, Line, Replaced
from hollet.core.entries.base import BagMove
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.procedure.pieces import BagLine
from hollet.core.view import View

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

Size = tuple[str, str, str]


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

    def __init__(self, move: BagMove, entry: Line) -> None:
        self.owner, self.what, self.entry = move.owner, move.what, entry
        self.place: str | None = None
        self.lines: dict[Size, BagLine] = {}
        self.fitted: dict[Size, int] = {}
        self.lost: dict[Size, int] = {}

    def left(self, key: Size) -> int:
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


def line_key(line: BagLine | BagCount) -> Size:
    """What makes two fasteners alike: size, length and what is odd about them."""
    return line.size.casefold(), line.length or "", (line.odd or "").casefold()


def _tally(entries: Sequence[Line]) -> _Tally | None:
    tally: _Tally | None = None
    for entry in entries:
        move = entry.body.bag_move()
        if move is None:
            continue
        if move.how is not None:
            if tally is not None:
                tally.take(move.lines, move.how)
            continue
        if tally is None or (tally.owner != move.owner and tally.empty):
            tally = _Tally(move, entry)
        tally.put(move.lines, move.place)
    return tally


def size_words(size: str, length: str | None) -> str:
    """M8×45, or the bare size."""
    return f"{size}×{length}" if length else size


def _content(state: BookState, bag: int, tally: _Tally) -> BagContent:
    at = tally.entry.body.at()
    step = plan_of(state).find_step(at)
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
        step=at,
        number=step.number if step else "",
        what=tally.what or (step.title if step else "no longer in the plan"),
        place=tally.place,
        lines=tuple(counts),
        pieces=sum(c.count for c in counts),
        left=sum(c.left for c in counts),
        lost=sum(c.lost for c in counts),
        missing=max(
            0,
            sum(c.lost for c in counts)
            - sum(e.body.count for e in state.each(Replaced, "replaced", str(bag))),
        ),
        words=next(iter(kinds)) if len(kinds) == 1 else "mixed" if kinds else "empty",
    )


def bag_contents(state: BookState) -> tuple[BagContent, ...]:
    """All bags by number, as they are now; a bag whose lines were struck is free again."""
    return state.remembered(("bags",), state.head, lambda: _contents(state))


def _contents(state: BookState) -> tuple[BagContent, ...]:
    bags = sorted((int(bag), entries) for bag, entries in state.names("bag"))
    found = (_one(state, bag, entries) for bag, entries in bags)
    return tuple(content for content in found if content is not None)


def _one(state: BookState, bag: int, entries: Sequence[Line]) -> BagContent | None:
    def made() -> BagContent | None:
        tally = _tally(entries)
        return _content(state, bag, tally) if tally is not None else None

    replaced = state.each(Replaced, "replaced", str(bag))
    made_of = (tuple(e.id for e in entries), tuple(e.id for e in replaced))
    return state.remembered(("bag", str(bag)), made_of, made)


def next_bag(contents: Sequence[BagContent]) -> int:
    """The number behind the highest one in use."""
    return max((c.bag for c in contents), default=0) + 1


def recent_hand(state: BookState) -> tuple[tuple[BagLine, ...], tuple[str, ...]]:
    """Sizes and places written last, newest first, so that the hand need not type them again."""
    sizes: dict[Size, BagLine] = {}
    places: dict[str, None] = {}
    for entry in state.last_lines(300):
        move = entry.body.bag_move()
        if move is None or move.how is not None:
            continue
        for line in move.lines:
            sizes.setdefault(line_key(line), BagLine(count=1, size=line.size, length=line.length))
        if move.place:
            places.setdefault(move.place)
    return tuple(sizes.values())[:8], tuple(places)[:6]


def check_taken(state: BookState, bag: int, lines: Sequence[BagLine]) -> None:
    """Refuse to take from a bag what is not in it (`not_in_bag`)."""
    content = next((c for c in bag_contents(state) if c.bag == bag), None)
    if content is None:
        raise Refused("not_in_bag", f"bag {bag} is empty: nothing was logged into it", field="bag")
    wanted: dict[Size, int] = {}
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
