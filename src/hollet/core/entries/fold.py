"""The fold: entries in, the latest facts of each thing out. It judges nothing and never refuses.

Live entries are filed by what they are about, in their order; a struck one leaves every place that
it was filed under, and is kept among the lost.
"""

from collections.abc import Iterable

from hollet.core.entries.state import BookState, Line
from hollet.core.procedure.plan import select

__all__ = ["fold", "state_after"]


def fold(state: BookState, entry: Line) -> BookState:
    """Take one entry in; the same id twice changes nothing."""
    if entry.id in state.entries:
        return state
    body = entry.body
    state.entries[entry.id] = entry
    state.order.append(entry.id)
    state.head = entry.seq
    for key in body.subjects():
        state.seen[key] = entry.seq
    keys = body.keys()
    for key in keys:
        state.filed[key.place][key.name].append(entry)
        state.by_kind[type(body)][key].append(entry)
    target = state.entries.get(body.strikes() or "")
    if target is not None:
        _strike(state, target, entry)
    whole = body.plan_after(state.whole)
    if whole is not state.whole and whole is not None:
        state.whole, state.selection = whole, select(whole)
    return state


def _strike(state: BookState, target: Line, strike: Line) -> None:
    """Take `target` out of every place it was filed under."""
    if target.id in state.struck or not target.body.strikable:
        return
    state.struck[target.id] = strike
    keys = target.body.keys()
    for key in keys:
        state.filed[key.place][key.name].remove(target)
        state.by_kind[type(target.body)][key].remove(target)
        state.lost[type(target.body)][key].append(target)
    for key in target.body.subjects():
        state.seen[key] = strike.seq


def state_after(entries: Iterable[Line], state: BookState) -> BookState:
    """Fold `entries` (in order of sequence) into `state`."""
    for entry in entries:
        fold(state, entry)
    return state
