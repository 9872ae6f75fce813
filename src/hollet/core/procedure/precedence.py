"""Order and its reasons: references that must resolve, circles that are named, and what a step
still waits for.
"""

import heapq
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from itertools import pairwise

from hollet.core.errors import HolletError
from hollet.core.measuring.formulas import check_formula
from hollet.core.procedure.facts import Condition
from hollet.core.procedure.mistakes import mistake
from hollet.core.procedure.sheet import (
    STAGES,
    CheckStep,
    FillStep,
    InspectStep,
    MeasureStep,
    RemoveStep,
    RunStep,
    Sheet,
    Step,
    TightenStep,
)
from hollet.core.procedure.words import STAGE_RANK
from hollet.core.quantities.parse import parse
from hollet.core.quantities.units import find_unit

__all__ = ["Contradiction", "check_references", "contradiction", "find_cycle", "in_order"]


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


@dataclass(frozen=True, slots=True)
class Contradiction:
    """Reasons that cannot all be kept: the chain of steps, each with the words of the reason that
    leads to the next.
    """

    chain: tuple[str, ...]
    because: tuple[str, ...]

    def words(self) -> str:
        """The chain in one sentence."""
        links = (
            f"{a} waits for {b} ({why})"
            for a, b, why in zip(self.chain, self.chain[1:], self.because, strict=False)
        )
        return "; ".join(links)


def contradiction(steps: Sequence[Step]) -> Contradiction | None:
    """A circle in the reasons, or a step that waits for one of a later stage; None when all can be
    kept.
    """
    at = {step.id: step for step in steps}
    cycle = find_cycle({step.id: [link.step for link in step.after] for step in steps})
    if cycle:
        why = tuple(
            next(link.because for link in at[a].after if link.step == b) for a, b in pairwise(cycle)
        )
        return Contradiction(cycle, why)
    for step in steps:
        for link in step.after:
            other = at.get(link.step)
            if other is not None and STAGE_RANK[other.stage] > STAGE_RANK[step.stage]:
                return Contradiction(
                    (step.id, other.id),
                    (
                        (
                            f"{link.because}; but {STAGES[other.stage]} comes after "
                            f"{STAGES[step.stage]}"
                        ),
                    ),
                )
    return None


def in_order(
    steps: Sequence[Step], waits: Mapping[str, Set[str]] | None = None
) -> tuple[Step, ...]:
    """The steps by stage, so that no reason is broken; otherwise the given order is kept.

    Parameters
    ----------
    waits : mapping of step -> the steps it comes behind, where that is more than its reasons;
    without it the reasons alone

    A step that another one waits for comes right before it, where its own place is later: what is
    measured before the vehicle is
    raised does not put the raising off. Kahn's method with a heap on (stage, place), O((n + e) log
    n). Steps of a circle, which
    `contradiction` reports, come last in their given order.
    """
    place = {step.id: (STAGE_RANK[step.stage], k) for k, step in enumerate(steps)}
    by_id = {step.id: step for step in steps}
    behind: dict[str, list[str]] = {step.id: [] for step in steps}
    open_links = {step.id: 0 for step in steps}
    for step in steps:
        for other in (
            waits[step.id] if waits else {link.step for link in step.after}
        ) & place.keys():
            behind[other].append(step.id)
            open_links[step.id] += 1
    wanted = dict(place)
    for step_id in reversed(_kahn(place, behind, open_links)):
        wanted[step_id] = min(
            (wanted[step_id], *(wanted[follower] for follower in behind[step_id]))
        )
    found = _kahn({step: (*wanted[step], *place[step]) for step in place}, behind, open_links)
    known = set(found)
    return tuple(by_id[step] for step in (*found, *(s.id for s in steps if s.id not in known)))


def _kahn(
    key: Mapping[str, tuple[int, ...]],
    behind: Mapping[str, Sequence[str]],
    open_links: Mapping[str, int],
) -> list[str]:
    left = dict(open_links)
    ready = [(key[step], step) for step, count in left.items() if count == 0]
    heapq.heapify(ready)
    found = []
    while ready:
        _, step = heapq.heappop(ready)
        found.append(step)
        for follower in behind[step]:
            left[follower] -= 1
            if left[follower] == 0:
                heapq.heappush(ready, (key[follower], follower))
    return found


def check_references(sheet: Sheet, text: str = "") -> None:
    """Refuse doubled ids, links to nothing, conditions on nothing, circles and contradictions, each
    with its line.
    """
    for table in (
        "option",
        "school",
        "extra",
        "agreement",
        "limit",
        "joint",
        "setting",
        "fluid",
        "trace",
        "step",
    ):
        seen: set[str] = set()
        for index, item in enumerate(getattr(sheet, table)):
            if item.id in seen:
                raise mistake(
                    text,
                    (table, index, "id"),
                    f"the id '{item.id}' is used twice; each {table} needs its own",
                )
            seen.add(item.id)
    steps, opened = (
        {step.id for step in sheet.step},
        {item.id for step in sheet.step for item in step.opens},
    )
    _check_take_down(sheet, text, steps, opened)
    _check_inspection(sheet, text)
    for index, step in enumerate(sheet.step):
        _check_step(step, sheet, text, index, steps, opened)
    for index, joint in enumerate(sheet.joint):
        if joint.recheck and joint.recheck not in steps:
            raise mistake(
                text, ("joint", index, "recheck"), f"'{joint.recheck}' is not a step of this sheet"
            )
    _check_choices(sheet, text, steps)
    found = contradiction(sheet.step)
    if found:
        at = next(k for k, step in enumerate(sheet.step) if step.id == found.chain[0])
        circle = found.chain[0] == found.chain[-1]
        words = "the reasons run in a circle: " if circle else "a reason goes against the stages: "
        raise mistake(text, ("step", at, "after"), words + found.words())


def _check_take_down(sheet: Sheet, text: str, steps: set[str], opened: set[str]) -> None:
    """What take-down and refit name: steps put back, captures compared, what must be open, settings
    and fluids.
    """
    captures = {capture.id for step in sheet.step for capture in step.capture}
    fluids, settings = (
        {fluid.id for fluid in sheet.fluid},
        {setting.id for setting in sheet.setting},
    )
    known = {
        "refits": (steps, "step here"),
        "compares": (captures, "capture of a step here"),
        "requires": (opened, "thing a step leaves open"),
        "keeps": (settings, "setting of this sheet"),
        "holds": (fluids, "fluid of this sheet"),
        "drains": (fluids, "fluid of this sheet"),
    }
    seen: set[str] = set()
    for index, step in enumerate(sheet.step):
        for capture in step.capture:
            if capture.id in seen:
                raise mistake(
                    text,
                    ("step", index, "capture"),
                    f"the id '{capture.id}' is used twice; each capture needs its own",
                )
            seen.add(capture.id)
        for key, (names, what) in known.items():
            for name in getattr(step, key):
                if name not in names:
                    raise mistake(text, ("step", index, key), f"'{name}' is no {what}")


def _check_inspection(sheet: Sheet, text: str) -> None:
    """Parts and faces have their own ids, stations and flows lead to what is there, clearances are
    results of this sheet.
    """
    results = {
        (step.id, result.id)
        for step in sheet.step
        if isinstance(step, MeasureStep)
        for result in step.result
    }
    parts: set[str] = set()
    for index, step in enumerate(sheet.step):
        if not isinstance(step, InspectStep):
            continue
        if step.trace is not None and sheet.find_trace(step.trace) is None:
            raise mistake(
                text, ("step", index, "trace"), f"'{step.trace}' is no trace of this sheet"
            )
        for part in step.part:
            if part.id in parts:
                raise mistake(
                    text,
                    ("step", index, "part"),
                    f"the id '{part.id}' is used twice; each part needs its own",
                )
            parts.add(part.id)
            if len({face.id for face in part.face}) < len(part.face):
                raise mistake(
                    text, ("step", index, "part"), f"'{part.id}' has two faces with one id"
                )
            if part.clearance is not None and part.clearance not in results:
                raise mistake(
                    text,
                    ("step", index, "part"),
                    f"'{part.id}': '{part.clearance[1]}' is no result of the step "
                    f"'{part.clearance[0]}'",
                )
    for index, trace in enumerate(sheet.trace):
        stations = [station.id for station in trace.station]
        if len(set(stations)) < len(stations):
            raise mistake(text, ("trace", index, "station"), "two stations have one id")
        for flow in trace.flow:
            if flow.start not in stations or flow.to not in stations:
                raise mistake(
                    text,
                    ("trace", index, "flow"),
                    f"the flow from '{flow.start}' to '{flow.to}' leads to no station of this "
                    "trace",
                )
        for station in trace.station:
            if station.part is not None and station.part not in parts:
                raise mistake(
                    text,
                    ("trace", index, "station"),
                    f"'{station.part}' is no part that is inspected here",
                )


def _check_step(
    step: Step, sheet: Sheet, text: str, index: int, steps: set[str], opened: set[str]
) -> None:
    for link in step.after:
        if link.step not in steps and not link.if_there:
            raise mistake(
                text,
                ("step", index, "after"),
                f"'{step.id}' waits for '{link.step}', which is no step here",
            )
        if link.lasts is not None:
            _check_lasts(text, index, link.lasts)
    for chance in step.last_chance:
        if chance.step is not None and chance.step not in steps:
            raise mistake(text, ("step", index, "last_chance"), f"'{chance.step}' is no step here")
    for item in step.closes:
        if item not in opened:
            raise mistake(text, ("step", index, "closes"), f"'{item}' is never opened by a step")
    for key, limit in _limits_named(step):
        if sheet.find_limit(limit) is None:
            raise mistake(text, ("step", index, key), f"'{limit}' is not a limit of this sheet")
    if (
        isinstance(step, TightenStep | RemoveStep)
        and step.joint
        and sheet.find_joint(step.joint) is None
    ):
        raise mistake(
            text, ("step", index, "joint"), f"'{step.joint}' is not a joint of this sheet"
        )
    if step.hours is not None and step.hours[0] > step.hours[1]:
        raise mistake(
            text, ("step", index, "hours"), "the lower figure comes first, such as [0.5, 1]"
        )
    if isinstance(step, MeasureStep):
        _check_results(step, sheet, text, index)
    _check_when(step.when, sheet, text, ("step", index, "when"))
    for part in step.parts:
        _check_when(part.when, sheet, text, ("step", index, "parts"))
    if isinstance(step, CheckStep):
        _check_asks(step, text, index)


def _check_asks(step: CheckStep, text: str, index: int) -> None:
    for ask in step.asks:
        unit = find_unit(ask.unit)
        if unit is None or unit.dimension != ask.dimension:
            raise mistake(
                text, ("step", index, "asks"), f"'{ask.unit}' is no unit of {ask.dimension}"
            )
        for bound in ask.usual or ():
            try:
                parse(bound, ask.dimension, ask.unit)
            except HolletError as refusal:
                raise mistake(
                    text,
                    ("step", index, "asks"),
                    f"'{bound}' is no {ask.dimension}, such as 40 {ask.unit}",
                ) from refusal
        for other in (ask.at_least, ask.at_most):
            if other is not None and all(other != known.id for known in step.asks):
                raise mistake(
                    text, ("step", index, "asks"), f"'{other}' is no figure that this step asks for"
                )


def _check_lasts(text: str, index: int, lasts: str) -> None:
    try:
        parse(lasts, "time")
    except HolletError as refusal:
        raise mistake(
            text, ("step", index, "after"), f"'{lasts}' is no time, such as 12 h"
        ) from refusal


def _check_choices(sheet: Sheet, text: str, steps: set[str]) -> None:
    for index, school in enumerate(sheet.school):
        if school.find(school.pick) is None:
            raise mistake(
                text,
                ("school", index, "pick"),
                f"'{school.pick}' is no way of this school: {', '.join(w.id for w in school.way)}",
            )
        _check_when(school.when, sheet, text, ("school", index, "when"))
        for way in school.way:
            _check_when(way.needs, sheet, text, ("school", index, "way"))
    for index, extra in enumerate(sheet.extra):
        if extra.at not in steps:
            raise mistake(text, ("extra", index, "at"), f"'{extra.at}' is no step here")
        _check_when(extra.when, sheet, text, ("extra", index, "when"))
    for index, agreement in enumerate(sheet.agreement):
        if agreement.step not in steps:
            raise mistake(text, ("agreement", index, "step"), f"'{agreement.step}' is no step here")
        for row in agreement.allowed:
            if len(row) != len(agreement.part) or any(
                item not in part.option for item, part in zip(row, agreement.part, strict=True)
            ):
                raise mistake(
                    text,
                    ("agreement", index, "allowed"),
                    f"{list(row)} must name one option of each part, in their order",
                )
        _check_when(agreement.when, sheet, text, ("agreement", index, "when"))
    for index, variant in enumerate(sheet.variant):
        if sheet.find_limit(variant.limit) is None:
            raise mistake(
                text, ("variant", index, "limit"), f"'{variant.limit}' is not a limit of this sheet"
            )
        _check_when(variant.when, sheet, text, ("variant", index, "when"))


def _check_when(
    conditions: Sequence[Condition], sheet: Sheet, text: str, path: tuple[str | int, ...]
) -> None:
    """A condition on a fact, school, extra or part that does not exist, or on a value that it
    cannot have.
    """
    facts = sheet.all_facts()
    for condition in conditions:
        values: tuple[str, ...] | None = None
        if condition.fact is not None:
            if condition.fact not in facts:
                raise mistake(text, path, f"'{condition.fact}' is no fact: {', '.join(facts)}")
            values = facts[condition.fact].value or None
        elif condition.school is not None:
            school = sheet.find_school(condition.school)
            if school is None:
                raise mistake(text, path, f"'{condition.school}' is no school of this sheet")
            values = tuple(way.id for way in school.way)
        elif condition.extra is not None:
            if condition.extra not in {extra.id for extra in sheet.extra}:
                raise mistake(text, path, f"'{condition.extra}' is no extra of this sheet")
        else:
            part = next(
                (p for a in sheet.agreement for p in a.part if p.id == condition.part), None
            )
            if part is None:
                raise mistake(
                    text, path, f"'{condition.part}' is no part of an agreement of this sheet"
                )
            values = part.option
        for value in condition.one_of:
            if values is not None and value not in values:
                raise mistake(text, path, f"'{value}' cannot be: {', '.join(values)}")


def _limits_named(step: object) -> list[tuple[str, str]]:
    if isinstance(step, FillStep):
        return [("amount", step.amount)]
    if isinstance(step, RunStep):
        keys = ("time_limit", "total_limit", "pressure", "pressure_by", "coolant", "timing", "rest")
        return [(key, getattr(step, key)) for key in keys if getattr(step, key)]
    if isinstance(step, MeasureStep):
        return [("limit", result.limit) for result in step.result]
    return []


def _check_results(step: MeasureStep, sheet: Sheet, text: str, index: int) -> None:
    readings = {
        reading.id
        for other in sheet.step
        if isinstance(other, MeasureStep)
        for reading in other.reading
    }
    steps = {other.id for other in sheet.step}
    for reading in step.reading:
        for name in reading.changed_by:
            if name not in steps:
                raise mistake(
                    text,
                    ("step", index, "reading"),
                    f"'{reading.id}' is changed by '{name}', which is no step here",
                )
    for result in step.result:
        ways = [
            result.reading is not None,
            result.minuend is not None and result.subtrahend is not None,
            result.how is not None and bool(result.over),
            result.calc is not None and result.gives is not None,
        ]
        if sum(ways) != 1 or any(name not in readings for name in result.named()):
            raise mistake(
                text,
                ("step", index, "result"),
                f"'{result.id}' must name one reading, a minuend and a subtrahend, how with "
                "over, or calc with takes and gives; "
                "each reading one that a measure step takes",
            )
        if result.calc is not None:
            try:
                check_formula(result)
            except HolletError as refusal:
                raise mistake(
                    text, ("step", index, "result"), f"'{result.id}': {refusal.message}"
                ) from refusal
