"""What a build found that its sheet only supposed: bolts and bags counted, lengths by hole, hidden
things, hours. When its owner says so it goes into his own copy of the sheet.
"""

import re
from collections.abc import Callable, Iterator
from datetime import date, datetime
from functools import partial

from hollet.core.entries import Bagged, BookState, Done, Started
from hollet.core.entries.status import whole_of
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.pieces import BagLine, BagSpec
from hollet.core.procedure.sheet import Learnt, Sheet, Step
from hollet.core.view import View

__all__ = ["Sharper", "sharpened", "sharper_of"]

ONE_SITTING_H = 8.0
"""Longer than this between *began* and *done* a night lies between, and it is no working time."""
LEAST_H = 0.05


class Sharper(View):
    """One thing to keep, in words."""

    number: str
    words: str


Kept = tuple[Sharper, Callable[[Sheet], Sheet]]


def sharper_of(state: BookState, sheet: Sheet) -> tuple[Sharper, ...]:
    """What of a build would make this sheet sharper."""
    return tuple(kept for kept, _ in _found(state, sheet))


def sharpened(state: BookState, sheet: Sheet, who: str, on: date, build: str) -> Sheet:
    """The sheet with all of it taken in, each thing with who found it, when and in which build."""
    for kept, into in _found(state, sheet):
        learnt = Learnt(what=kept.words[:400], who=who, on=on, build=build)
        sheet = into(sheet)
        sheet = sheet.model_copy(update={"learnt": (*sheet.learnt, learnt)})
    return sheet


def _found(state: BookState, sheet: Sheet) -> Iterator[Kept]:
    whole = whole_of(state)
    for joint in sheet.joint:
        own = whole.find_joint(joint.id)
        if own is None or not own.counted:
            continue
        n, usual = len(own.layout.names()), len(joint.layout.names())
        if n != usual or not joint.counted:
            before = f"{usual} were counted before" if joint.counted else f"{usual} are usual"
            instead = "" if n == usual else f", {before}"
            words = f"{joint.name}: {n} bolts counted{instead}"
            yield Sharper(number="", words=words), partial(_joint_in, own)
    for step in sheet.step:
        here = whole.find_step(step.id)
        if here is not None:
            yield from _of_step(state, step, here)


def _of_step(state: BookState, step: Step, here: Step) -> Iterator[Kept]:
    bag = _bag(state, step)
    if bag is not None and bag != step.bag_specs():
        told = ", ".join(_line_words(line) for line in bag)
        yield (
            Sharper(number=here.number, words=f"{step.title}: {told}, counted"),
            partial(_step_in, step.id, {"bag": bag}),
        )
    hidden = tuple(thing for thing in here.hidden if thing not in step.hidden)
    if hidden:
        yield (
            Sharper(number=here.number, words=f"{step.title}: hidden there, {', '.join(hidden)}"),
            partial(_step_in, step.id, {"hidden": (*step.hidden, *hidden)}),
        )
    took = _hours(state, step)
    if took is not None:
        low, high = step.hours or (took, took)
        yield (
            Sharper(number=here.number, words=f"{step.title}: took {took:g} h"),
            partial(_step_in, step.id, {"hours": (min(low, took), max(high, took))}),
        )


def _joint_in(own: Joint, sheet: Sheet) -> Sheet:
    """The sheet with a joint as it was counted; its words and a bag that says the usual number for
    it alone say the same.
    """
    n = len(own.layout.names())

    def joint(old: Joint) -> Joint:
        update = {key: getattr(own, key) for key in ("layout", "pattern", "order")}
        words = re.sub(r"^\d+", str(n), old.fastener)
        return old.model_copy(update={**update, "counted": True, "fastener": words})

    def step(old: Step) -> Step:
        specs = old.bag_specs()
        mine = [k for k, spec in enumerate(specs) if old.back_into(spec) == own.id]
        if len(mine) != 1 or specs[mine[0]].counted:
            return old
        fresh = specs[mine[0]].model_copy(update={"count": n, "counted": True})
        bag = (*specs[: mine[0]], fresh, *specs[mine[0] + 1 :])
        return old.model_copy(update={"bag": bag})

    joints = tuple(joint(old) if old.id == own.id else old for old in sheet.joint)
    return sheet.model_copy(update={"joint": joints, "step": tuple(map(step, sheet.step))})


def _step_in(step_id: str, update: dict[str, object], sheet: Sheet) -> Sheet:
    steps = (s.model_copy(update=update) if s.id == step_id else s for s in sheet.step)
    return sheet.model_copy(update={"step": tuple(steps)})


def _bag(state: BookState, step: Step) -> tuple[BagSpec, ...] | None:
    """The bag lines of a step as they were written, each with the joint that the sheet gives its
    like; None where nothing was bagged or where it is not clear which goes where.
    """
    specs = step.bag_specs()
    merged: dict[tuple[str, str | None, str | None], BagLine] = {}
    for entry in state.each(Bagged, "step", step.id):
        for line in entry.body.lines:
            key = (line.size, line.length, line.odd)
            known = merged.get(key)
            merged[key] = line if known is None else _together(known, line)
    if not merged or not specs:
        return None
    joints = {step.back_into(spec) for spec in specs}
    found = []
    for line in merged.values():
        alike = [s for s in specs if s.size.casefold() == line.size.casefold()]
        into = {step.back_into(s) for s in alike} or joints
        if len(into) != 1:
            return None
        joint = next(iter(into))
        named = joint if any(s.joint for s in specs) else None
        found.append(BagSpec(**line.model_dump(), joint=named, counted=True))
    return tuple(found)


def _together(a: BagLine, b: BagLine) -> BagLine:
    holes = " ".join(text for text in (a.holes, b.holes) if text)[:60] or None
    return a.model_copy(update={"count": a.count + b.count, "holes": holes})


def _line_words(line: BagLine) -> str:
    size = f"{line.size}×{line.length}" if line.length else line.size
    return f"{line.count} × {size}" + (f" at {line.holes}" if line.holes else "")


def _hours(state: BookState, step: Step) -> float | None:
    """How long a step took, h: from *began* to *done* in one sitting, where the sheet says
    otherwise.
    """
    began, done = state.newest(Started, "step", step.id), state.newest(Done, "step", step.id)
    if began is None or done is None or done.seq < began.seq:
        return None
    span = datetime.fromisoformat(done.time) - datetime.fromisoformat(began.time)
    took = round(span.total_seconds() / 3600, 1)
    low, high = step.hours or (took, took)
    if not LEAST_H < took <= ONE_SITTING_H or (step.hours and low <= took <= high):
        return None
    return took
