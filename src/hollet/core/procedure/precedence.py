"""Order and its reasons: references that must resolve, circles that are named, and what a step still waits for."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from hollet.core.procedure.sheet import (
    FillStep,
    MeasureStep,
    RemoveStep,
    RunStep,
    Sheet,
    TightenStep,
    mistake,
)

__all__ = ["Waiting", "check_references", "find_cycle", "waits_for"]


@dataclass(frozen=True, slots=True)
class Waiting:
    """A step that must be done first, and why."""

    step: str
    number: str
    title: str
    because: str


def find_cycle(before: Mapping[str, Sequence[str]]) -> tuple[str, ...] | None:
    """A circle in "waits for" links, first node repeated at the end, or None.

    Parameters
    ----------
    before : mapping of node -> the nodes it waits for
        Links to unknown nodes are ignored.

    Notes
    -----
    Depth-first search with an explicit path; linear in nodes and links.

    Examples
    --------
    >>> find_cycle({"a": ["b"], "b": ["c"], "c": ["a"]})
    ('a', 'b', 'c', 'a')
    >>> find_cycle({"a": ["b"], "b": []}) is None
    True
    """
    finished: set[str] = set()
    for root in before:
        if root in finished:
            continue
        path: list[str] = [root]
        pending = [iter(before[root])]
        while path:
            following = next((n for n in pending[-1] if n in before and n not in finished), None)
            if following is None:
                finished.add(path.pop())
                pending.pop()
            elif following in path:
                return (*path[path.index(following) :], following)
            else:
                path.append(following)
                pending.append(iter(before[following]))
    return None


def check_references(sheet: Sheet, text: str = "") -> None:
    """Refuse doubled ids, links to nothing and circles, each with its line."""
    for table in ("limit", "joint", "step"):
        seen: set[str] = set()
        for index, item in enumerate(getattr(sheet, table)):
            if item.id in seen:
                raise mistake(text, (table, index, "id"), f"the id '{item.id}' is used twice; each {table} needs its own")
            seen.add(item.id)
    steps, opened = {step.id for step in sheet.step}, {item.id for step in sheet.step for item in step.opens}
    for index, step in enumerate(sheet.step):
        for link in step.after:
            if link.step not in steps:
                raise mistake(text, ("step", index, "after"), f"'{step.id}' waits for '{link.step}', which is no step here")
        for item in step.closes:
            if item not in opened:
                raise mistake(text, ("step", index, "closes"), f"'{item}' is never opened by a step")
        for key, limit in _limits_named(step):
            if sheet.find_limit(limit) is None:
                raise mistake(text, ("step", index, key), f"'{limit}' is not a limit of this sheet")
        if isinstance(step, TightenStep | RemoveStep) and step.joint and sheet.find_joint(step.joint) is None:
            raise mistake(text, ("step", index, "joint"), f"'{step.joint}' is not a joint of this sheet")
        if isinstance(step, MeasureStep):
            _check_results(step, sheet, text, index)
    for index, joint in enumerate(sheet.joint):
        if joint.recheck and joint.recheck not in steps:
            raise mistake(text, ("joint", index, "recheck"), f"'{joint.recheck}' is not a step of this sheet")
    cycle = find_cycle({step.id: [link.step for link in step.after] for step in sheet.step})
    if cycle:
        at = next(k for k, step in enumerate(sheet.step) if step.id == cycle[0])
        raise mistake(text, ("step", at, "after"), "the reasons run in a circle: " + " waits for ".join(cycle))


def _limits_named(step: object) -> list[tuple[str, str]]:
    if isinstance(step, FillStep):
        return [("amount", step.amount)]
    if isinstance(step, RunStep):
        keys = ("time_limit", "total_limit", "pressure", "pressure_by", "coolant")
        return [(key, getattr(step, key)) for key in keys if getattr(step, key)]
    if isinstance(step, MeasureStep):
        return [("limit", result.limit) for result in step.result]
    return []


def _check_results(step: MeasureStep, sheet: Sheet, text: str, index: int) -> None:
    readings = {reading.id for other in sheet.step if isinstance(other, MeasureStep) for reading in other.reading}
    for result in step.result:
        named = [result.reading] if result.reading else [result.minuend, result.subtrahend]
        if any(name not in readings for name in named):
            raise mistake(text, ("step", index, "result"), f"'{result.id}' must name one reading, or a minuend and a "
                          "subtrahend, that a measure step takes")  # fmt: skip


def waits_for(sheet: Sheet, step_id: str, settled: set[str]) -> tuple[Waiting, ...]:
    """What `step_id` still waits for; `settled` are the steps done, skipped or not applicable."""
    step = sheet.find_step(step_id)
    if step is None:
        return ()
    found = []
    for link in step.after:
        other = sheet.find_step(link.step)
        if other is not None and link.step not in settled:
            found.append(Waiting(other.id, other.number, other.title, link.because))
    return tuple(found)
