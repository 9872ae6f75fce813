"""The plan of evenings: laid in a thread of its own, so that no bench waits for it."""

import threading
import time
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from weakref import WeakKeyDictionary

from pydantic import BaseModel

from hollet.core.calendar.evenings import VisitView, commitments, evenings, visits
from hollet.core.calendar.plan import (
    Frame,
    Plan,
    chance_of,
    earlier,
    laid_plan,
    without,
)
from hollet.core.calendar.work import Task, tasks_of
from hollet.core.errors import NotFound, Refused, Unavailable
from hollet.core.saying import day_due, read_day
from hollet.core.words import counted
from hollet.screens.evening_views import EveningsPlan, Win
from hollet.screens.evenings import evenings_plan, won_by
from hollet.services.gear import all_gear
from hollet.services.names import build_names
from hollet.services.pace import paces
from hollet.services.workshop import SHOP, Workshop

__all__ = ["EveningsView", "Saves", "evenings_of", "saves", "stop_laying"]

DAYS = 200
"""So many days ahead are looked at."""
WINS = 4
DAY_MIN = 24 * 60
FROM_MIN = 18 * 60
"""A parcel is here by six in the evening of its day; assumed."""
SAVES_BUDGET = 0.2


class EveningsView(BaseModel):
    """The block as last laid; `laying` while a newer one is on the way, for so many seconds; `old`
    where something moved on since it was laid; why there is none.
    """

    plan: EveningsPlan | None
    laying: bool
    old: bool
    seconds: float
    steps: int
    problem: str | None


@dataclass
class _Planner:
    """One laying at a time; what was laid last, and for which state of the books."""

    lock: threading.Lock = field(default_factory=threading.Lock)
    thread: threading.Thread | None = None
    wanted: object = None
    made_of: object = None
    began: float = 0.0
    steps: int = 0
    plan: EveningsPlan | None = None
    problem: str | None = None
    stopped: bool = False


_PLANNERS: WeakKeyDictionary[Workshop, _Planner] = WeakKeyDictionary()


def _planner(workshop: Workshop) -> _Planner:
    return _PLANNERS.setdefault(workshop, _Planner())


def _fingerprint(workshop: Workshop) -> object:
    """What the plan depends on: every log, the tools, and the quarter of an hour."""
    local = workshop.local()
    quarter = (local.date(), local.hour, local.minute // 15)
    return (tuple(sorted(workshop.heads().items())), workshop.store.version, quarter)


def evenings_of(workshop: Workshop, wait: float = 0.0) -> EveningsView:
    """The plan as it was laid last; a newer one is begun where something moved on. `wait` for it so
    many seconds.
    """
    planner = _planner(workshop)
    wanted = _fingerprint(workshop)
    with planner.lock:
        busy = planner.thread is not None and planner.thread.is_alive()
        if wanted != planner.made_of and not busy:
            planner.wanted, planner.began, planner.stopped = wanted, time.monotonic(), False
            planner.made_of = None
            planner.thread = threading.Thread(target=_lay, args=(workshop, planner), daemon=True)
            planner.thread.start()
        thread = planner.thread
    if thread is not None and wait > 0:
        thread.join(wait)
    return _as_is(planner, laying=thread is not None and thread.is_alive())


def stop_laying(workshop: Workshop) -> EveningsView:
    """Keep the old block, and say that it is old: what is laid just now is thrown away."""
    planner = _planner(workshop)
    planner.stopped, planner.made_of = True, None
    return _as_is(planner, laying=False)


def _as_is(planner: _Planner, *, laying: bool) -> EveningsView:
    return EveningsView(
        plan=planner.plan,
        laying=laying,
        old=planner.plan is not None and planner.made_of is None,
        seconds=round(time.monotonic() - planner.began, 1) if laying else 0.0,
        steps=planner.steps,
        problem=planner.problem,
    )


def _lay(workshop: Workshop, planner: _Planner) -> None:
    """Lay it, show it, then look what would win."""
    made_of = planner.wanted
    try:
        names, tasks, frame = _gathered(workshop)
        with workshop.held(SHOP) as shop:
            said = commitments(shop)
        planner.steps = len(tasks)
        if not tasks:
            planner.plan, planner.problem = None, "Nothing is open: no evening is needed."
        else:
            plan = laid_plan(tasks, frame)
            chances = chance_of(plan, list(names))
            if not planner.stopped:
                planner.plan = evenings_plan(plan, frame, chances, names, (), said)
                planner.problem = None
            wins = _wins(tasks, frame, plan, planner, names)
            if not planner.stopped:
                planner.plan = evenings_plan(plan, frame, chances, names, wins, said)
    except Refused as refusal:
        planner.plan, planner.problem = None, refusal.message
    finally:
        planner.made_of = None if planner.stopped else made_of
    workshop.tell("", 0)


def _gathered(workshop: Workshop) -> tuple[dict[str, str], list[Task], Frame]:
    """All open work of the shop, and the evenings there are."""
    local, own = workshop.local(), paces(workshop)
    today = local.date()
    names, gear = build_names(workshop), {tool.id: tool.state for tool in all_gear(workshop)}
    tasks: list[Task] = []
    for k, build in enumerate(names):
        try:
            with workshop.held(build) as state:
                tasks += tasks_of(state, build, own, today, local, f"{k}:", gear)
        except Unavailable:
            continue  # the Shop says so of this build itself
    with workshop.held(SHOP) as shop:
        frame = Frame(
            today=today,
            minute=local.hour * 60 + local.minute,
            evenings=evenings(shop, today, DAYS),
            visits=visits(shop, today, DAYS),
        )
    return names, tasks, frame


def _wins(
    tasks: Sequence[Task], frame: Frame, plan: Plan, planner: _Planner, names: Mapping[str, str]
) -> tuple[Win, ...]:
    """What one earlier parcel, one answer of a helper would change, held against this plan."""
    found: list[Win] = []
    seen: set[str] = set()
    for task in tasks:
        for part in task.arriving:
            if part.need in seen or part.at <= frame.minute or len(found) >= WINS:
                continue
            seen.add(part.need)
            words = "no day is promised" if part.assumed else f"promised for {day_due(part.day)}"
            other = _other(earlier(tasks, part.need, frame.minute), frame, planner)
            found.append(
                Win(
                    id=part.need,
                    name=f"{part.name}, here now",
                    words=words,
                    days=_days_won(plan, other),
                    won=won_by(plan, other, frame, names) if other is not None else None,
                )
            )
    for visit in frame.visits:
        if visit.perhaps and len(found) < WINS and visit.start < plan.laid.end:
            found.append(_asked(tasks, frame, plan, planner, visit))
    return tuple(sorted(found, key=lambda win: -win.days))


def _asked(
    tasks: Sequence[Task], frame: Frame, plan: Plan, planner: _Planner, visit: VisitView
) -> Win:
    """What hangs on a helper's answer: the days lost without it."""
    gone = Frame(frame.today, frame.minute, frame.evenings, without(frame.visits, visit.id))
    other = _other(tasks, gone, planner)
    lost = DAYS if other is None else -_days_won(plan, other, least=-DAYS)
    return Win(
        id=visit.id,
        name=f"{visit.name} says yes, {day_due(visit.day)}",
        words=f"now: {visit.answer}; without it so many days more",
        days=max(0, lost),
    )


def _days_won(plan: Plan, other: Plan | None, least: int = 0) -> int:
    """By how many days the end of everything comes earlier in another plan, at least `least`."""
    if other is None:
        return 0
    return max(least, plan.laid.end // DAY_MIN - other.laid.end // DAY_MIN)


def _other(tasks: Sequence[Task], frame: Frame, planner: _Planner) -> Plan | None:
    """Another plan; None where it cannot be laid, or nobody waits for it any more."""
    if planner.stopped:
        return None
    try:
        return laid_plan(tasks, frame, budget=0.05)
    except Refused:
        return None


class Saves(BaseModel):
    """What it saves when a part comes on a day, in words."""

    days: int
    words: str


def saves(workshop: Workshop, build: str, need: str, text: str) -> Saves:
    """By how many days the end of everything comes earlier when a part comes on the day that a text
    names.

    Raises
    ------
    Refused
        `bad_day`, or the evenings cannot be laid.
    NotFound
        No open step waits for that part.
    """
    _, tasks, frame = _gathered(workshop)
    day = read_day(text, frame.today, "text")
    at = (day - frame.today).days * DAY_MIN + FROM_MIN
    waits = [t for t in tasks if t.build == build and any(p.need == need for p in t.arriving)]
    if not waits:
        raise NotFound("part that a step waits for", need)
    plan = laid_plan(tasks, frame, budget=SAVES_BUDGET)
    other = laid_plan(earlier(tasks, need, at), frame, budget=SAVES_BUDGET)
    days = _days_won(plan, other)
    moved = sum(plan.start(t) != other.start(t) for t in plan.tasks)
    if days > 0:
        words = f"everything is done {counted(days, 'day')} earlier"
    elif moved:
        words = f"the end stays where it is, {counted(moved, 'step')} move"
    else:
        words = "nothing moves: something else holds it longer"
    return Saves(days=days, words=words)
