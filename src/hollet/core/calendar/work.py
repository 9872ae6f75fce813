"""The open work of the builds as jobs for the plan: hours at own pace, reasons, waits, what arrives
when, who must be there.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from hollet.core.book.boxes import moment
from hollet.core.book.needs import Need, needs, state_words
from hollet.core.book.orders import OrderFacts, orders
from hollet.core.book.passing import DRYING_H
from hollet.core.calendar.clock import Pace, kind_of_work, pace_of, range_of, worked
from hollet.core.calendar.evenings import DAY
from hollet.core.calendar.offers import GONE
from hollet.core.calendar.order import first_by_stage
from hollet.core.entries import BookState, Done
from hollet.core.entries.status import SETTLED, last_as, plan_of, statuses
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import parse

__all__ = ["Arriving", "Task", "UNKNOWN_WAIT_DAYS", "tasks_of"]

UNKNOWN_WAIT_DAYS = 7
"""How long a part takes of which nobody has promised a day: assumed, and said so."""
NO_HOURS_MIN = 30
"""What a step takes whose hours nobody gave: assumed."""


@dataclass(frozen=True, slots=True)
class Arriving:
    """A part that a task waits for: when (minutes from the first midnight), by whose word; assumed
    where nobody promised a day.
    """

    need: str
    name: str
    at: int
    day: date
    words: str
    assumed: bool
    order: str | None


@dataclass(frozen=True, slots=True)
class Task:
    """One open step: quick, middle and slow minutes; what it waits for, with the minutes that run
    by themselves after each; people at once; parts. `unsaid` are parts of which nobody said whether
    they are here, `gone` tools that are not. `optional` is the extra with which it comes and may
    fall out, never a reading or something that only waits; `lands`: it stands on its wheels after
    it.
    """

    id: str
    build: str
    step: str
    number: str
    name: str
    quick: int
    middle: int
    slow: int
    after: tuple[tuple[str, int, str], ...]
    people: int
    arriving: tuple[Arriving, ...]
    not_before: int
    dries: str
    no_hours: bool
    working: tuple[str, ...]
    unsaid: tuple[str, ...] = ()
    gone: tuple[str, ...] = ()
    optional: str = ""
    lands: bool = False


def _minutes_after(link_lasts: str | None, kind: str) -> int:
    if kind != "drying":
        return 0
    given = parse(link_lasts, "time").nominal if link_lasts else None
    return round((float(given) / 3600 if given is not None else DRYING_H) * 60)


def tasks_of(
    state: BookState,
    build: str,
    paces: Mapping[str, Pace],
    today: date,
    local: datetime,
    prefix: str,
    gear: Mapping[str, str] | None = None,
) -> tuple[Task, ...]:
    """The open steps of a build as tasks; `local` is the moment by the clock on the wall, `prefix`
    goes before each id, `gear` says how the tools of the shop stand.
    """
    plan, known = plan_of(state), statuses(state)
    still = [s for s in plan.step if known[s.id].status not in SETTLED]
    names = {s.id for s in still}
    lacking, unsaid = _lacking(state), _unsaid(state)
    placed = orders(state)
    extras = {extra.id: extra.thing for extra in plan.extra}
    begun = [s for s in still if known[s.id].status == "begun" and _free(s, names, lacking)]
    found = []
    for step in still:
        pace = paces.get(kind_of_work(step)) or pace_of(kind_of_work(step), ())
        minutes = range_of(step, pace)
        quick, middle, slow = minutes or (NO_HOURS_MIN // 2, NO_HOURS_MIN, NO_HOURS_MIN * 2)
        done = round(worked(state, step))
        runs, dries = _drying_since(state, step, names, local)
        found.append(
            Task(
                id=f"{prefix}{step.id}",
                build=build,
                step=step.id,
                number=step.number,
                name=step.short or step.title,
                quick=max(5, quick - done),
                middle=max(5, middle - done),
                slow=max(5, slow - done),
                after=_links(plan, step, still, names, begun, prefix),
                people=max(1, len(step.people)),
                arriving=tuple(
                    _arriving(need, placed, today, local) for need in lacking.get(step.id, ())
                ),
                not_before=runs,
                dries=dries,
                no_hours=minutes is None,
                unsaid=tuple(unsaid.get(step.id, ())),
                optional=_optional(step, extras),
                lands=any(c.body == "vehicle" and c.by == "wheels" for c in step.carries),
                gone=tuple(t for t in step.tools if (gear or {}).get(t.casefold()) in GONE),
                working=(
                    f"{kind_of_work(step)}: {quick} to {slow} min at own pace",
                    *pace.working,
                ),
            )
        )
    return tuple(found)


def _optional(step: Step, extras: Mapping[str, str]) -> str:
    """The extra with which a step comes; readings and what is looked at never fall out."""
    if step.readings() or step.looked_at or not step.when:
        return ""
    named = [extras[c.extra] for c in step.when if c.extra is not None and c.extra in extras]
    return named[0] if named else ""


def _links(
    plan: Plan,
    step: Step,
    still: Sequence[Step],
    names: set[str],
    begun: Sequence[Step],
    prefix: str,
) -> tuple[tuple[str, int, str], ...]:
    """What a step waits for: the reasons of the plan, what comes first by its stage, and what is
    begun and can be ended.
    """
    found = {
        f"{prefix}{a.step}": (_minutes_after(a.lasts, a.kind), a.because)
        for a in step.after
        if a.step in names
    }
    for other in first_by_stage(plan, step, still):
        found.setdefault(f"{prefix}{other.id}", (0, "it comes first by its stage"))
    for other in begun:
        if step not in begun:
            found.setdefault(f"{prefix}{other.id}", (0, "it is begun"))
    return tuple((name, minutes, because) for name, (minutes, because) in found.items())


def _free(step: Step, names: set[str], lacking: Mapping[str, Sequence[Need]]) -> bool:
    """Whether a step waits for no other and no part, so that nothing can wait for itself."""
    return step.id not in lacking and all(link.step not in names for link in step.after)


def _lacking(state: BookState) -> dict[str, list[Need]]:
    """By step, the parts that are not free for it; what nobody spoke of holds nothing up here."""
    found: dict[str, list[Need]] = {}
    for need in needs(state):
        if not need.spoken or need.compare_at is not None:
            continue
        for reason in need.open:
            if reason.step is not None:
                found.setdefault(reason.step, []).append(need)
    return found


def _unsaid(state: BookState) -> dict[str, list[str]]:
    """By step, the parts of which nobody said whether they are here."""
    found: dict[str, list[str]] = {}
    for need in needs(state):
        for reason in need.open:
            if not need.spoken and need.compare_at is None and reason.step is not None:
                found.setdefault(reason.step, []).append(need.name)
    return found


def _arriving(need: Need, placed: Sequence[OrderFacts], today: date, local: datetime) -> Arriving:
    """When a part is here: now where it lies here, on the promised day from six in the evening,
    else after a week, assumed.
    """
    order = next((o for o in placed if o.id in need.orders and o.live), None)
    words, machined = state_words(need, placed), need.machined
    if need.here or (machined is not None and machined.state == "back"):
        now = local.hour * 60 + local.minute
        return Arriving(need.id, need.name, now, today, words, False, need.arrived_of)
    promised = order.promised if order is not None else None
    if machined is not None:
        promised = machined.promised
    late = promised is not None and promised < today
    day = promised if promised is not None and not late else today + timedelta(UNKNOWN_WAIT_DAYS)
    assumed = promised is None or late
    return Arriving(
        need=need.id,
        name=need.name,
        at=(day - today).days * DAY + 18 * 60,
        day=day,
        words=words,
        assumed=assumed,
        order=order.id if order is not None else None,
    )


def _drying_since(
    state: BookState, step: Step, still: set[str], local: datetime
) -> tuple[int, str]:
    """Minutes from the first midnight until what dries already is dry, and what that is."""
    latest, words = 0, ""
    plan = plan_of(state)
    midnight = local.replace(hour=0, minute=0, second=0, microsecond=0)
    for link in step.after:
        last = last_as(state, link.step, Done) if link.kind == "drying" else None
        if last is None or link.step in still:
            continue
        until = moment(last.time) + timedelta(minutes=_minutes_after(link.lasts, link.kind))
        at = round((until - midnight).total_seconds() / 60)
        if at > latest:
            target = plan.find_step(link.step)
            latest, words = at, target.short or target.title if target is not None else ""
    return latest, words
