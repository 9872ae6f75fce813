"""A group at its bench: its members in the order of locking, what sets it, where it may stand."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of, status_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.groups import Adjuster, Group
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.quantities.quantity import decimal_text
from hollet.core.steps.groups import place_of, room
from hollet.core.steps.locking import last_seen
from hollet.core.steps.results import ResultFacts, result_of
from hollet.core.steps.tighten import JointFacts, joint_facts, joint_in_hand
from hollet.core.view import View
from hollet.core.words import capital

__all__ = ["GroupView", "group_view"]

LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
MOST_LETTERED = 8
"""More bolts than that are drawn as one letter a joint."""


class Member(View):
    """One lock: its letter, and how it stands (loose, by hand, now, locked, early)."""

    letter: str
    joint: str
    bolt: int | None
    name: str
    state: Literal["loose", "now", "locked", "early"]
    words: str


class Cell(View):
    """One cell of the order: by hand, the place, each joint, what comes last."""

    name: str
    words: str
    step: str | None
    state: Literal["done", "now", "to come", "early"]


class StandLane(View):
    """One condition on the place: the figure there now, and how far the adjuster may go for it."""

    name: str
    value_text: str
    words: str
    verdict: str
    least: float | None
    most: float | None


class GroupView(View):
    """The whole group. `least` and `most` are how far the adjuster may go from where it stands, in
    mm, for all lanes; `seen`: what comes last was looked at.
    """

    title: str
    members: tuple[Member, ...]
    cells: tuple[Cell, ...]
    adjust: tuple[Adjuster, ...]
    lanes: tuple[StandLane, ...]
    least: float | None
    most: float | None
    go: str | None
    towards: str | None
    shut: str
    along: tuple[str, ...]
    ends: tuple[str, str] | None
    last: str | None
    early: bool
    place: tuple[str, ...]


def group_view(
    state: BookState, step: TightenStep, tools: Sequence[Instrument]
) -> GroupView | None:
    """The group of a step, or None where it locks none."""
    group, plan = step.locks(), plan_of(state)
    if group is None:
        return None
    joints = [joint for name in step.tightens() if (joint := plan.find_joint(name)) is not None]
    facts = [joint_facts(state, joint) for joint in joints]
    hand = joint_in_hand(state, step)
    missing = place_of(state, group).missing
    members = _members(facts, hand.id if hand is not None and not missing else None)
    lanes, least, most = _lanes(state, group, tools)
    early = any(bolt.early for f in facts for bolt in f.bolts)
    return GroupView(
        title=_title(group, facts, members, _name(missing[0]) if missing else None, early=early),
        members=members,
        cells=_cells(state, step, group, facts),
        adjust=group.adjust,
        lanes=lanes,
        least=least,
        most=most,
        go=_go(lanes, least, most, group.towards),
        towards=group.towards,
        shut=group.shut,
        along=group.along or step.tightens(),
        ends=group.ends,
        last=group.last if group.last and not last_seen(state, step) else None,
        early=early,
        place=group.set_by,
    )


def _name(step: BaseStep) -> str:
    return step.short or step.title


def _members(facts: Sequence[JointFacts], in_hand: str | None) -> tuple[Member, ...]:
    many = sum(len(f.bolts) for f in facts) > MOST_LETTERED
    found: list[Member] = []
    for joint in facts:
        for bolt in joint.bolts[:1] if many else joint.bolts:
            early = any(b.early for b in joint.bolts) if many else bolt.early
            final = joint.final if many else bolt.final and joint.begun
            now = joint.id == in_hand and (many or bolt.number == joint.next_bolt)
            found.append(
                Member(
                    letter=LETTERS[len(found) % len(LETTERS)],
                    joint=joint.id,
                    bolt=None if many else bolt.number,
                    name=joint.name
                    if many or len(joint.bolts) == 1
                    else f"{joint.name} {bolt.place}",
                    state="early" if early else "locked" if final else "now" if now else "loose",
                    words="tight too early" if early else bolt.tightness,
                )
            )
    return tuple(found)


def _cells(
    state: BookState, step: TightenStep, group: Group, facts: Sequence[JointFacts]
) -> tuple[Cell, ...]:
    plan, found = plan_of(state), []
    ahead = False
    for name in (group.hand, *group.set_by):
        known = plan.find_step(name)
        if known is not None:
            done = status_of(state, known).status in ("done", "not_there")
            state_of = "done" if done else "to come" if ahead else "now"
            ahead = ahead or not done
            found.append(Cell(name=_name(known), words=known.number, step=name, state=state_of))
    for joint in facts:
        early = any(bolt.early for bolt in joint.bolts)
        stands = "early" if early else "done" if joint.final else "to come" if ahead else "now"
        ahead = ahead or not joint.final
        found.append(Cell(name=joint.name, words=joint.stages[-1].text, step=None, state=stands))
    if group.last:
        done = not ahead and last_seen(state, step)
        found.append(
            Cell(
                name=group.last,
                words="last",
                step=None,
                state="done" if done else "to come" if ahead else "now",
            )
        )
    return tuple(found)


def _title(
    group: Group,
    facts: Sequence[JointFacts],
    members: Sequence[Member],
    missing: str | None,
    *,
    early: bool,
) -> str:
    if early:
        tight = [m.letter for m in members if m.state == "early"]
        verb, them = ("was", "it") if len(tight) == 1 else ("were", "them")
        return f"{', '.join(tight)} {verb} tight before the place was found: loosen {them}"
    if missing is not None:
        return f"All loose still: {missing} first"
    if all(f.final for f in facts):
        return "All locked" + (f": now {group.last}" if group.last else "")
    now = next((m for m in members if m.state == "now"), None)
    if now is None:
        waits = next((f.waits for f in facts if f.waits), None)
        return capital(waits) if waits else "Where it stands is found"
    if any(f.to_mark for f in facts if f.id == now.joint):
        return f"Mark {now.letter}: {now.name}"
    if any(f.to_lock for f in facts if f.id == now.joint):
        return f"Set the lock of {now.letter}: {now.name}"
    first = not any(m.state == "locked" for m in members)
    return f"Lock {now.letter}{' first' if first else ''}: {now.name}"


def _lanes(
    state: BookState, group: Group, tools: Sequence[Instrument]
) -> tuple[tuple[StandLane, ...], float | None, float | None]:
    """The conditions on the place as they were read last, and the room that all of them leave."""
    found, figures = [], []
    for way in group.ways:
        facts = _result(state, group, way.result, tools)
        if facts is None:
            continue
        judged = facts.judgement
        lane = None
        if judged.value is not None and judged.U is not None:
            sign = 1 if way.way == "with" else -1
            lane = (judged.value, judged.lo, judged.hi, judged.U, sign)
            figures.append(lane)
        least, most = room([lane]) if lane is not None else (None, None)
        found.append(
            StandLane(
                name=f"{facts.name}, {facts.asks}",
                value_text=f"{judged.value_text} {judged.unit}"
                if judged.value_text
                else "not read",
                words=facts.refusal or judged.words,
                verdict=judged.verdict,
                least=least,
                most=most,
            )
        )
    least, most = room(figures) if len(figures) == len(group.ways) else (None, None)
    return tuple(found), least, most


def _result(
    state: BookState, group: Group, result: str, tools: Sequence[Instrument]
) -> ResultFacts | None:
    for name in group.set_by:
        step = plan_of(state).find_step(name)
        spec = next((r for r in step.results() if r.id == result), None) if step else None
        if step is not None and spec is not None:
            return result_of(state, step, spec, tools)
    return None


def _go(
    lanes: Sequence[StandLane], least: float | None, most: float | None, towards: str | None
) -> str | None:
    """What the adjuster has to do, in words."""
    if not lanes or (least is None and most is None):
        return None
    way = towards or "forward"
    if least is not None and most is not None and least > most:
        wants = max((ln for ln in lanes if ln.least is not None), key=lambda ln: ln.least or 0)
        stops = min((ln for ln in lanes if ln.most is not None), key=lambda ln: ln.most or 0)
        return f"no place does for both: {wants.name}, and {stops.name}"
    aim = (
        (least + most) / 2
        if least is not None and most is not None
        else least
        if least is not None
        else most
    )
    assert aim is not None
    if (least is None or least <= 0) and (most is None or most >= 0):
        back = "any way" if least is None else f"{decimal_text(round(-least, 1))} mm"
        on = "any way" if most is None else f"{decimal_text(round(most, 1))} mm"
        return f"it stands clear: {on} left {way}, {back} the other way"
    much = decimal_text(round(abs(aim), 1))
    return f"{much} mm {way if aim > 0 else 'the other way'}, then it stands clear: read it again"
