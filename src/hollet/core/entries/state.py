"""The facts of one build, filed by what they are about.

Nothing is judged here: status, verdicts, gates are computed from these facts when asked.
"""

from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar, cast

from hollet.core.entries.base import Body, Key, Place
from hollet.core.entries.plans import PlanEdited
from hollet.core.lore import Lore
from hollet.core.procedure.plan import Plan, Selection

__all__ = ["BookState", "Entry", "Line"]

T = TypeVar("T")
B = TypeVar("B", bound=Body)
B_co = TypeVar("B_co", bound=Body, covariant=True)


@dataclass(frozen=True, slots=True, eq=False)
class Entry(Generic[B_co]):
    """One line of a log, as the fold takes it. `time` is UTC in ISO 8601, `bench_time` the client's
    with offset.
    """

    id: str
    seq: int
    time: str
    bench_time: str
    who: str
    body: B_co

    @property
    def kind(self) -> str:
        """The word of its kind in the log."""
        return self.body.called


Line = Entry[Body]
Filed = dict[Place, dict[str, list[Line]]]
ByKind = dict[type[Body], dict[Key, list[Line]]]


def _filed() -> Filed:
    return defaultdict(lambda: defaultdict(list))


def _by_kind() -> ByKind:
    return defaultdict(lambda: defaultdict(list))


@dataclass(slots=True)
class BookState:
    """Facts of one build. Advanced in place by its one owner; readers must not change it.

    `lore` is what the shop knows and no sheet says.

    `broken` is the first line that cannot be read: nothing behind it counts, and nothing is written
    any more. `struck` has the strike of each struck entry; what was struck stays filed in `lost`,
    since what stood on it counts as open again.
    """

    lore: Lore
    whole: Plan | None = None
    selection: Selection | None = None
    head: int = 0
    last_hash: str = ""
    broken: int | None = None
    entries: dict[str, Line] = field(default_factory=dict)
    order: list[str] = field(default_factory=list)
    struck: dict[str, Line] = field(default_factory=dict)
    seen: dict[Key, int] = field(default_factory=dict)
    filed: Filed = field(default_factory=_filed)
    by_kind: ByKind = field(default_factory=_by_kind)
    lost: ByKind = field(default_factory=_by_kind)
    memo: dict[tuple[str, ...], tuple[Any, Plan | None, Any]] = field(
        default_factory=dict, compare=False, repr=False
    )

    @property
    def plan(self) -> Plan | None:
        """The plan with the steps that apply; `whole` has them all."""
        return self.selection.plan if self.selection is not None else None

    def live(self, place: Place, name: str = "") -> list[Line]:
        """Entries about a thing that are not struck, oldest first."""
        return self.filed[place].get(name, []) if place in self.filed else []

    def of_step(self, step: str) -> list[Line]:
        """Entries about a step that are not struck, oldest first."""
        return self.live("step", step)

    def names(self, place: Place) -> Iterator[tuple[str, list[Line]]]:
        """The things of a sort of which something is written, in the order of the first line."""
        for name, entries in self.filed.get(place, {}).items():
            if entries:
                yield name, entries

    def each(self, kind: type[B], place: Place, name: str = "") -> list[Entry[B]]:
        """Entries of one kind about a thing that are not struck, oldest first."""
        found = self.by_kind.get(kind)
        return cast(list[Entry[B]], found.get(Key(place, name), [])) if found is not None else []

    def newest(self, kind: type[B], place: Place, name: str = "") -> Entry[B] | None:
        """The newest entry of one kind about a thing that is not struck."""
        found = self.each(kind, place, name)
        return found[-1] if found else None

    def newest_of(self, kind: type[B], place: Place) -> list[Entry[B]]:
        """The newest entry of a kind about each thing of a place, in the order of the names."""
        found = (self.newest(kind, place, name) for name, _ in self.names(place))
        return [entry for entry in found if entry is not None]

    def all(self, kind: type[B]) -> list[Entry[B]]:
        """All entries of one kind that are not struck, oldest first."""
        filed = self.by_kind.get(kind, {})
        once = {entry.id: entry for entries in filed.values() for entry in entries}
        return cast(list[Entry[B]], sorted(once.values(), key=lambda entry: entry.seq))

    def since(self, seq: int) -> Iterator[Line]:
        """The entries behind a sequence number, newest first, struck ones too."""
        for entry_id in reversed(self.order):
            entry = self.entries[entry_id]
            if entry.seq <= seq:
                return
            yield entry

    def of_kinds(self, wanted: Callable[[type[Body]], bool]) -> list[Line]:
        """All entries of some kinds that are not struck, oldest first."""
        kinds = [filed for kind, filed in self.by_kind.items() if wanted(kind)]
        once = {e.id: e for filed in kinds for entries in filed.values() for e in entries}
        return sorted(once.values(), key=lambda entry: entry.seq)

    def struck_of(self, kind: type[B], place: Place, name: str = "") -> list[Entry[B]]:
        """Struck entries of one kind about a thing."""
        found = self.lost.get(kind)
        return cast(list[Entry[B]], found.get(Key(place, name), [])) if found is not None else []

    def seen_at(self, keys: Iterable[tuple[Place, str]]) -> tuple[int, ...]:
        """Where each of these things stands: the sequence number of the last entry about it."""
        return tuple(self.seen.get(Key(*key), 0) for key in keys)

    def last_lines(self, count: int) -> Iterator[Line]:
        """Up to `count` of the newest entries that are not struck, newest first."""
        for entry_id in reversed(self.order[-count:]):
            if entry_id not in self.struck:
                yield self.entries[entry_id]

    def lines(self) -> Iterator[Line]:
        """All entries that are not struck, oldest first."""
        return (self.entries[name] for name in self.order if name not in self.struck)

    def remembered(self, key: tuple[str, ...], fingerprint: Any, make: Callable[[], T]) -> T:
        """A computed thing kept until what it was made from changes: its `fingerprint`, or the
        plan.
        """
        known = self.memo.get(key)
        if known is not None and known[0] == fingerprint and known[1] is self.plan:
            return cast(T, known[2])
        made = make()
        self.memo[key] = (fingerprint, self.plan, made)
        return made

    @property
    def edits(self) -> int:
        """How often the plan was made or edited."""
        return len(self.each(PlanEdited, "plan"))

    @property
    def last(self) -> Line | None:
        """The newest entry."""
        return self.entries[self.order[-1]] if self.order else None
