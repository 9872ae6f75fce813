"""The running Hollet: one database, the clock, the folded builds, and who listens to them."""

import gc
import json
import threading
from collections import OrderedDict
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import TypeVar, cast
from zoneinfo import ZoneInfo

import uuid_utils
from pydantic import ValidationError

from hollet.core.acts.hand import SEES_ALL, Hand
from hollet.core.entries import Body, BookState, Line, Note
from hollet.core.entries.fold import fold
from hollet.core.errors import Conflict, NotFound, Refused, Unavailable
from hollet.core.instruments import Instrument
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.plan import select as select_plan
from hollet.core.sent import SentValue
from hollet.library.lore import lore
from hollet.store import chain
from hollet.store.database import Database
from hollet.store.protocols import Books, Store
from hollet.store.records import BuildRecord, Draft, PlanRecord, ShopRecord
from hollet.store.records import Line as StoredLine

__all__ = ["SHOP", "Clock", "Workshop", "utc_text", "with_plan"]

SHOP = "shop"
HELD = 20
KEPT = 4000
QUEUED_AT_MOST = timedelta(days=31)
T = TypeVar("T")
Clock = Callable[[], datetime]


def utc_text(moment: datetime) -> str:
    """ISO 8601 in UTC, to the millisecond."""
    return moment.astimezone(UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")


class Workshop:
    """What all services share. Thread-safe: one lock a build, at most 20 builds held folded."""

    def __init__(
        self,
        folder: Path,
        clock: Clock | None = None,
        *,
        look: bool = False,
        store: Store | None = None,
    ) -> None:
        """Open the workshop in `folder`; or only `look` at it, beside the one that runs on it; or
        work on another `store`.
        """
        self.store: Store = store or Database(folder, look=look)
        self.clock = clock or (lambda: datetime.now(UTC))
        self._states: OrderedDict[str, BookState] = OrderedDict()
        self._locks: dict[str, threading.RLock] = {}
        self._guard = threading.Lock()
        self._listeners: dict[int, Callable[[str, int], object]] = {}
        self.sent: Callable[[], Mapping[str, SentValue]] = dict
        self.live: Callable[[], Mapping[str, SentValue]] = dict
        self.spent: dict[str, str] = {}
        self.verified: dict[str, tuple[int, str]] = {}
        self._kept: OrderedDict[tuple[str, ...], tuple[object, object]] = OrderedDict()
        if not look:
            with self.store.write() as books:
                if books.shop.get(1) is None:
                    books.shop.put(ShopRecord(1, "Workshop", "UTC", "", 1))
                if self.store.resealed:
                    said = Note(text="the seals of the logs were gone: made anew from what is here")
                    books.log.append(self.draft(SHOP, said, "HOLLET"))

    def close(self) -> None:
        """Let go of the database."""
        self.store.close()

    def now(self) -> str:
        """The time of the clock as UTC text."""
        return utc_text(self.clock())

    def zone(self) -> ZoneInfo:
        """Where the shop's clock stands."""

        def read() -> ZoneInfo:
            with self.store.read() as books:
                record = books.shop.get(1)
                return ZoneInfo(record.time_zone if record is not None else "UTC")

        return self.kept(("zone",), self.store.version, read)

    def local(self) -> datetime:
        """The moment as the clock on the wall of the shop shows it."""
        return self.clock().astimezone(self.zone())

    def hand(self, who: str, bench_time: str = "", seen: int = SEES_ALL) -> Hand:
        """Whoever acts now, with the tools as that hand reads them. What waited in a queue was said
        on the day of its `bench_time`: tomorrow is the day after that one. A bench whose clock runs
        ahead, or is more than a month behind, is not believed.
        """
        today = self.local().date()
        if bench_time:
            said = datetime.fromisoformat(bench_time).astimezone(self.zone()).date()
            if timedelta(0) <= today - said <= QUEUED_AT_MOST:
                today = said
        tools, now = self.tools_of(who), self.now()
        return Hand(tools, now, today, bench_time, seen, who, self.sent(), self.live())

    def not_elsewhere(self, event: str, build: str) -> None:
        """Refuse (`Conflict`) what an instrument sent once and another build has taken."""
        known = self.sent()
        self.spent = {name: at for name, at in self.spent.items() if name in known}
        if self.spent.get(event, build) != build:
            raise Conflict("another build has taken what was sent", reason_code="taken")

    def new_id(self) -> str:
        """A UUID of version 7 made by the server."""
        return str(uuid_utils.uuid7())

    @contextmanager
    def held(self, build: str) -> Iterator[BookState]:
        """The folded state of a build under its one lock; raises NotFound for an unknown build."""
        with self._guard:
            lock = self._locks.setdefault(build, threading.RLock())
        with lock:
            yield self._state(build)

    def _state(self, build: str) -> BookState:
        if build == SHOP:
            return self._shop()
        state = self._states.get(build)
        if state is None:
            state = BookState(lore())
            with self.store.read() as books:
                built = books.builds.get(build)
                if built is None:
                    raise NotFound("build", build)
                with no_collection():
                    self._fold(state, books.log.read(build))
                if state.broken is None:
                    state.broken = self.cut_at(build, state.head)
                if state.whole is None:
                    _plan_alone(state, built, books.plans.get(build))
        with self._guard:
            self._states[build] = state
            self._states.move_to_end(build)
            while len(self._states) > HELD:
                self._states.popitem(last=False)
        return state

    def _shop(self) -> BookState:
        """The shop's own log, folded as far as it goes; lines behind one that cannot be read count
        for nothing.
        """
        state = self._states.get(SHOP) or BookState(lore())
        self._states[SHOP] = state
        if state.broken is None and self.heads().get(SHOP, 0) > state.head:
            with self.store.read() as books:
                self._fold(state, books.log.read(SHOP, after=state.head))
        return state

    def cut_at(self, chain_id: str, head: int) -> int | None:
        """The first line that is gone from the end of a chain of `head` lines, or whose seal cannot
        be trusted; None where it reaches as far as it was sealed.
        """
        try:
            sealed = self.store.sealed(chain_id)
        except Unavailable:
            return head + 1
        if sealed is None:
            return head + 1 if head else None
        return head + 1 if sealed[0] > head else None

    def _fold(self, state: BookState, rows: Iterator[StoredLine]) -> None:
        """Fold a log as far as it can be read."""
        for row in rows:
            entry = chain.readable(row) if row.seq == state.head + 1 else None
            if entry is None:
                state.broken = state.head + 1
                return
            fold(state, entry)
            state.last_hash = row.hash

    def write(
        self,
        build: str,
        state: BookState,
        draft: Draft,
        also: Callable[[Books], None] | None = None,
    ) -> Line:
        """Append one entry, and with it what else changes (the edited plan, the vehicle's words),
        in one transaction; then fold and tell.

        What `also` raises is raised here, and nothing is written.
        """
        _whole(state)
        with self.store.write() as books:
            row = books.log.append(draft, (state.head, state.last_hash))
            if also is not None:
                also(books)
        entry = chain.entry_of(row)
        fold(state, entry)
        state.last_hash = row.hash
        self.tell(build, entry.seq)
        return entry

    def write_all(self, build: str, state: BookState, drafts: Sequence[Draft]) -> None:
        """Append several entries in one transaction, all or none; then fold and tell."""
        _whole(state)
        head, last, rows = state.head, state.last_hash, []
        with self.store.write() as books:
            for draft in drafts:
                row = books.log.append(draft, (head, last))
                head, last = row.seq, row.hash
                rows.append(row)
        for row in rows:
            fold(state, chain.entry_of(row))
            state.last_hash = row.hash
        if rows:
            self.tell(build, state.head)

    def draft(
        self,
        chain_id: str,
        body: Body,
        who: str,
        *,
        entry_id: str = "",
        bench_time: str = "",
        sent: str = "",
    ) -> Draft:
        """A draft with the server's time."""
        now = self.now()
        return Draft(
            id=entry_id or self.new_id(),
            chain=chain_id,
            time=now,
            bench_time=bench_time or now,
            who=initials(who),
            body=body,
            sent=sent,
        )

    def heads(self) -> dict[str, int]:
        """The newest line of each chain."""
        return self.store.heads()

    def kept(self, key: tuple[str, ...], fingerprint: object, make: Callable[[], T]) -> T:
        """Something made of a build, kept while its `fingerprint` is the same: the Shop need not
        fold every build again that no longer lies folded.
        """
        with self._guard:
            known = self._kept.get(key)
        if known is not None and known[0] == fingerprint:
            return cast(T, known[1])
        made = make()
        with self._guard:
            self._kept[key] = (fingerprint, made)
            self._kept.move_to_end(key)
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)
        return made

    def forget(self, build: str) -> None:
        """Drop the folded state, for example after an import."""
        with self._guard:
            self._states.pop(build, None)

    def listen(self, listener: Callable[[str, int], object]) -> Callable[[], None]:
        """Call `listener(build, seq)` after each entry; returns the function that ends it."""
        with self._guard:
            key = max(self._listeners, default=0) + 1
            self._listeners[key] = listener
        return lambda: self._listeners.pop(key, None) and None

    def tell(self, build: str, seq: int) -> None:
        """Tell every listener that a build has moved on."""
        for listener in tuple(self._listeners.values()):
            listener(build, seq)

    def tools(self) -> dict[str, Instrument]:
        """All tools of the shop by id, retired ones too."""
        return self.kept(("tools",), self.store.version, self._read_tools)

    def _read_tools(self) -> dict[str, Instrument]:
        with self.store.read() as books:
            found = (Instrument.model_validate_json(r.tool) for r in books.instruments.all())
            return {tool.id: tool for tool in sorted(found, key=lambda t: t.code)}

    def tools_of(self, who: str) -> dict[str, Instrument]:
        """All tools as `who` reads them."""
        return {name: tool.in_hands(initials(who)) for name, tool in self.tools().items()}


def _whole(state: BookState) -> None:
    """Refuse to write behind a line that cannot be read."""
    if state.broken is not None:
        raise Unavailable(
            f"line {state.broken} of this build's log is gone or cannot be read: it is read only. "
            "Look with 'hollet verify', and restore a backup",
            reason_code="broken_log",
        )


def _plan_alone(state: BookState, built: BuildRecord, kept: PlanRecord | None) -> None:
    """The plan as its table has it, where the log does not even hold the first line."""
    try:
        plan = Plan.model_validate_json(kept.plan if kept is not None else "")
    except ValidationError as error:
        raise Unavailable(
            f"{built.name} cannot be read: neither its log nor its plan is whole. Look with "
            "'hollet verify', and restore a backup",
            reason_code="broken_log",
        ) from error
    state.whole, state.selection, state.broken = plan, select_plan(plan), state.broken or 1


def with_plan(
    build: str, plan: Plan, facts: dict[str, str] | None = None
) -> Callable[[Books], None]:
    """What is kept beside the entry of a plan edit: the plan of the build, and the facts of its
    vehicle where they changed.
    """

    def keep(books: Books) -> None:
        built, kept = books.builds.get(build), books.plans.get(build)
        assert built is not None
        assert kept is not None
        books.plans.put(PlanRecord(build, plan.model_dump_json(), kept.version + 1))
        vehicle = books.vehicles.get(built.vehicle) if facts is not None else None
        if vehicle is not None:
            words = json.dumps(facts, sort_keys=True)
            books.vehicles.put(replace(vehicle, facts=words, version=vehicle.version + 1))

    return keep


@contextmanager
def no_collection() -> Iterator[None]:
    """Hold the garbage collector back: a fold makes a hundred thousand objects and no garbage (a
    third of its time).
    """
    was = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if was:
            gc.enable()


def initials(who: str) -> str:
    """Who is at the bench: one to six letters; refused (`no_initials`) otherwise."""
    clean = who.strip().upper()
    if not (1 <= len(clean) <= 6 and clean.isalpha()):
        raise Refused(
            "no_initials",
            "'who' must be the initials of who is at the bench, one to six letters",
            field="who",
        )
    return clean
