"""The fold: entries in, the latest facts of each subject out. It judges nothing and never refuses.

Live entries are kept by subject in their order; a struck entry leaves its subject. Everything else
(status, verdicts,
gates) is computed from these facts when asked.
"""

from collections import defaultdict
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from typing import Any, TypeVar, cast

from hollet.core.book.entries import Entry
from hollet.core.procedure.changes import apply
from hollet.core.procedure.plan import Plan, Selection, select

T = TypeVar("T")

__all__ = ["BookState", "fold", "state_after"]


@dataclass(slots=True)
class BookState:
    """Facts of one build. Advanced in place by its one owner; readers must not change it.

    `lost_done` keeps, by step, the done and bagged entries that were struck: what stood on them
    counts as open again; `lost`
    keeps all struck entries by subject. `loads` are the entries that change what carries what, in
    their order; `turned` the plan edit that last turned a result.
    """

    whole: Plan | None = None
    selection: Selection | None = None
    edits: int = 0
    head: int = 0
    last_hash: str = ""
    entries: dict[str, Entry] = field(default_factory=dict)
    order: list[str] = field(default_factory=list)
    struck: dict[str, Entry] = field(default_factory=dict)
    by_subject: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    seen: dict[str, int] = field(default_factory=dict)
    by_step: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    bags: dict[int, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    removed: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    captured: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    photos: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    lost_done: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    lost: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    loads: list[Entry] = field(default_factory=list)
    turned: dict[tuple[str, str], Entry] = field(default_factory=dict)
    opened: dict[str, list[Entry]] = field(default_factory=lambda: defaultdict(list))
    runs: dict[str, list[str]] = field(default_factory=lambda: defaultdict(list))
    memo: dict[tuple[str, ...], tuple[Any, Plan | None, Any]] = field(
        default_factory=dict, compare=False, repr=False
    )

    @property
    def plan(self) -> Plan | None:
        """The plan with the steps that apply; `whole` has them all."""
        return self.selection.plan if self.selection is not None else None

    def live(self, subject: str) -> list[Entry]:
        """Entries of a subject that are not struck, oldest first."""
        return self.by_subject.get(subject, [])

    def of_step(self, step: str) -> list[Entry]:
        """Entries about a step that are not struck, oldest first."""
        return self.by_step.get(step, [])

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
    def last(self) -> Entry | None:
        """The newest entry."""
        return self.entries[self.order[-1]] if self.order else None


def fold(state: BookState, entry: Entry) -> BookState:
    """Take one entry in; the same id twice changes nothing."""
    if entry.id in state.entries:
        return state
    state.entries[entry.id] = entry
    state.order.append(entry.id)
    state.head = entry.seq
    subject = entry.body.subject()
    state.seen[subject] = entry.seq
    if entry.kind == "strike":
        _strike(state, entry)
        return state
    if entry.kind == "plan edited":
        state.whole = planned(state.whole, entry)
        state.edits += 1
        for turned in entry.body.turned:
            state.turned[turned.step, turned.result] = entry
        state.selection = select(state.whole) if state.whole is not None else None
        return state
    state.by_subject[subject].append(entry)
    step = getattr(entry.body, "step", None)
    if step:
        state.by_step[step].append(entry)
        state.seen[f"step:{step}"] = entry.seq
    if entry.kind in ("bagged", "removed", "unbagged"):
        if entry.kind == "removed":
            state.removed[entry.body.removal].append(entry)
        if entry.body.bag is not None:
            state.bags[entry.body.bag].append(entry)
    elif entry.kind == "captured":
        state.captured[entry.body.capture].append(entry)
    elif entry.kind == "photo":
        state.photos[entry.body.photo].append(entry)
    elif entry.kind == "attempt started":
        state.runs[entry.body.step].append(entry.body.attempt)
    elif entry.kind in ("done", "happened"):
        if entry.kind == "done" and entry.body.joint:
            state.by_subject[f"joint:{entry.body.joint}"].append(entry)
            state.seen[f"joint:{entry.body.joint}"] = entry.seq
        for item in entry.body.opens:
            state.opened[item.id].append(entry)
        for item_id in entry.body.closes if entry.kind == "done" else ():
            state.opened[item_id].append(entry)
    elif entry.kind in ("left open", "undone"):
        state.opened[entry.body.item].append(entry)
    if (
        entry.kind == "supported"
        or bool(getattr(entry.body, "carries", ()))
        or bool(getattr(entry.body, "releases", ()))
    ):
        state.loads.append(entry)
    return state


def _strike(state: BookState, entry: Entry) -> None:
    target = state.entries.get(entry.body.entry)
    if target is None or target.id in state.struck or target.kind in ("strike", "plan edited"):
        return
    state.struck[target.id] = entry
    body = target.body
    touched = [state.by_subject[body.subject()], state.by_step[getattr(body, "step", None) or ""]]
    touched += (
        [state.bags[body.bag]]
        if target.kind in ("bagged", "removed", "unbagged") and body.bag is not None
        else []
    )
    touched += [state.removed[body.removal]] if target.kind == "removed" else []
    touched += [state.captured[body.capture]] if target.kind == "captured" else []
    touched += [state.photos[body.photo]] if target.kind == "photo" else []
    touched += (
        [state.by_subject[f"joint:{body.joint}"]] if target.kind == "done" and body.joint else []
    )
    touched += (
        [state.opened[item.id] for item in body.opens]
        if target.kind in ("done", "happened")
        else []
    )
    touched += [state.loads]
    touched += [state.opened[item] for item in body.closes] if target.kind == "done" else []
    touched += [state.opened[body.item]] if target.kind in ("left open", "undone") else []
    for listed in touched:
        if target in listed:
            listed.remove(target)
    state.lost[target.body.subject()].append(target)
    state.seen[target.body.subject()] = entry.seq
    if target.kind == "done" and body.joint:
        state.seen[f"joint:{body.joint}"] = entry.seq
    if getattr(target.body, "step", None):
        state.seen[f"step:{target.body.step}"] = entry.seq
    if target.kind in ("done", "bagged"):
        state.lost_done[target.body.step].append(target)
    if target.kind == "attempt started":
        state.runs[target.body.step].remove(target.body.attempt)


def planned(plan: Plan | None, entry: Entry) -> Plan | None:
    """The whole plan after a plan edit."""
    body = entry.body
    if body.sheet is not None:
        return body.sheet  # type: ignore[no-any-return]
    return plan if plan is None else apply(plan, body.changes)


def state_after(entries: Iterable[Entry], state: BookState | None = None) -> BookState:
    """Fold `entries` (in order of sequence) into a new state, or further into `state`."""
    state = state if state is not None else BookState()
    for entry in entries:
        fold(state, entry)
    return state
