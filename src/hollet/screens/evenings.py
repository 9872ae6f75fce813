"""The evenings as they are drawn: what stands in each, what runs by itself between them, what comes
in, when each vehicle is done and how sure that is.
"""

from collections.abc import Mapping, Sequence
from datetime import date, timedelta

from hollet.core.calendar.evenings import DAY, Evening, clock_words
from hollet.core.calendar.laying import minutes_words
from hollet.core.calendar.plan import Chance, Frame, Held, Plan, chain_of, held_by, slack_of
from hollet.core.entries import Commitment
from hollet.core.saying import day_due
from hollet.core.words import counted
from hollet.screens.dates import date_rows
from hollet.screens.evening_views import (
    Comes,
    End,
    EveningsPlan,
    Ghost,
    Late,
    PlannedEvening,
    PlannedSlug,
    PlannedStep,
    Presence,
    Runs,
    Win,
    Won,
)

__all__ = ["evenings_plan", "won_by"]

NOT_IN_SIGHT = "not in sight"
"""The evenings looked at, or the days on which helpers come, do not hold it."""
LONG_WAIT_MIN = 60
"""A wait shorter than an hour is no line between evenings."""


def evenings_plan(
    plan: Plan,
    frame: Frame,
    chances: Mapping[str, Chance],
    names: Mapping[str, str],
    wins: Sequence[Win],
    said: Sequence[Commitment] = (),
) -> EveningsPlan:
    """The plan as a block of evenings; `names` are those of the builds."""
    builds = [build for build in names if plan.last_of(build) is not None]
    last = max((plan.last_of(build) or "" for build in builds), key=plan.end, default="")
    chain = chain_of(plan, last) if last else ()
    on_chain = {name for name, _ in chain}
    slugs = _slugs(plan, frame, names, on_chain)
    used = _used(plan, frame)
    spent = sum(task.middle for task in plan.tasks.values())
    return EveningsPlan(
        title=_title(builds, plan, frame, chances, names),
        line=f"{counted(len(used), 'evening')}, {minutes_words(spent)} of work at your pace",
        evenings=tuple(_evening(k, used, frame, slugs, plan) for k in range(len(used))),
        runs=_runs(plan, slugs, on_chain),
        ends=tuple(_end(build, plan, frame, chances, names, used) for build in builds),
        dates=date_rows(plan, frame, chances, said),
        late=_late(plan, chain, frame),
        wins=tuple(wins),
        proven=plan.laid.proven,
        proof=_proof(plan),
        assumed=_assumed(plan),
    )


def won_by(plan: Plan, other: Plan, frame: Frame, names: Mapping[str, str]) -> Won:
    """Another plan laid over this one."""
    slugs, used = _slugs(other, frame, names, set()), _used(other, frame)
    moved = [n for n in plan.tasks if plan.start(n) != other.start(n)]
    ghosts = []
    for task in moved:
        evening = next(e for e in frame.evenings if e.start <= plan.start(task) < e.end)
        start, end = plan.start(task) - evening.start, plan.end(task) - evening.start
        ghosts.append(Ghost(evening=str(evening.start), start=start, end=end))
    done = _words(frame, other.laid.end)
    move = "moves" if len(moved) == 1 else "move"
    many = f"{counted(len(moved), 'step')} {move}" if moved else "Nothing moves"
    return Won(
        title=f"{many}, done {done}",
        evenings=tuple(_evening(k, used, frame, slugs, other) for k in range(len(used))),
        runs=_runs(other, slugs, set()),
        ghosts=tuple(ghosts),
    )


def _day(frame: Frame, minute: int) -> date:
    return frame.today + timedelta(days=minute // DAY)


def _words(frame: Frame, minute: int) -> str:
    """The day of an end; past the last evening that holds it nobody knows."""
    if minute > max((evening.end for evening in frame.evenings), default=0):
        return NOT_IN_SIGHT
    return day_due(_day(frame, minute))


def _used(plan: Plan, frame: Frame) -> list[Evening]:
    end = max((plan.end(name) for name in plan.tasks), default=0)
    return [e for e in frame.evenings if e.end > frame.minute and e.start < end]


def _title(
    builds: Sequence[str],
    plan: Plan,
    frame: Frame,
    chances: Mapping[str, Chance],
    names: Mapping[str, str],
) -> str:
    if not builds:
        return "Nothing is open: no evening is needed"
    who = names[builds[0]] if len(builds) == 1 else f"All {len(builds)}"
    ends = [chances[b].five for b in builds if b in chances]
    at = max(ends, default=max(plan.end(name) for name in plan.tasks))
    words = _words(frame, at)
    if words == NOT_IN_SIGHT:
        planned = max(plan.end(name) for name in plan.tasks)
        return f"{who} done by {_words(frame, planned)} if all goes by the middle"
    return f"{who} done by {words}: 5 in 10"


def _proof(plan: Plan) -> str:
    if plan.laid.proven:
        return "no earlier end is possible"
    days = (plan.laid.end - plan.laid.at_best) / DAY
    if days < 1:
        return "at most part of a day better is possible"
    return f"at most {counted(round(days), 'day')} better is possible"


def _assumed(plan: Plan) -> tuple[str, ...]:
    """What the plan takes for granted that nobody said."""
    said = []
    for task in plan.tasks.values():
        said += [f"{p.name}: a week, no day is promised" for p in task.arriving if p.assumed]
    unsaid = list(dict.fromkeys(name for task in plan.tasks.values() for name in task.unsaid))
    if unsaid:
        more = f" and {len(unsaid) - 3} more" if len(unsaid) > 3 else ""
        said.append(f"here, though nobody said so: {', '.join(unsaid[:3])}{more}")
    gone = list(dict.fromkeys(name for task in plan.tasks.values() for name in task.gone))
    if gone:
        said.append(f"there again by then: {', '.join(gone)}")
    bare = sum(task.no_hours for task in plan.tasks.values())
    if bare:
        said.append(f"{counted(bare, 'step')} without hours: half an hour each")
    return tuple(dict.fromkeys(said))


def _slugs(
    plan: Plan, frame: Frame, names: Mapping[str, str], chain: set[str]
) -> dict[int, list[PlannedSlug]]:
    """Slugs by the start of their evening: consecutive steps of one vehicle as one."""
    found: dict[int, list[list[str]]] = {}
    before: str | None = None
    for name in plan.order():
        evening = next(e for e in frame.evenings if e.start <= plan.start(name) < e.end)
        rows = found.setdefault(evening.start, [])
        joins = (
            before is not None
            and rows
            and rows[-1][-1] == before
            and plan.end(before) == plan.start(name)
            and plan.tasks[before].build == plan.tasks[name].build
            and plan.tasks[before].people == plan.tasks[name].people
            and (before in chain) == (name in chain)
        )
        if joins:
            rows[-1].append(name)
        else:
            rows.append([name])
        before = name
    first = plan.order()[0] if plan.tasks else None
    return {
        start: [_slug(plan, group, start, names, chain, first) for group in groups]
        for start, groups in found.items()
    }


def _slug(
    plan: Plan,
    group: Sequence[str],
    evening: int,
    names: Mapping[str, str],
    chain: set[str],
    first: str | None,
) -> PlannedSlug:
    task = plan.tasks[group[0]]
    start, end = plan.start(group[0]), plan.end(group[-1])
    short = names[task.build].split(":")[0]
    people = f", {task.people} people" if task.people > 1 else ""
    return PlannedSlug(
        id=group[0],
        build=task.build,
        name=task.name,
        number=task.number,
        vehicle=short,
        words=f"{short} {minutes_words(end - start)}{people}",
        start=start - evening,
        end=end - evening,
        people=task.people,
        chain=task.id in chain,
        now=first in group,
        steps=tuple(_step(plan, name) for name in group),
    )


def _step(plan: Plan, name: str) -> PlannedStep:
    task = plan.tasks[name]
    slack = slack_of(plan, name)
    assumed = [p.name for p in task.arriving if p.assumed]
    return PlannedStep(
        id=name,
        step=task.step,
        number=task.number,
        name=task.name,
        start=clock_words(plan.start(name)),
        range=f"{task.quick} to {task.slow} min",
        held=_held_words(plan, held_by(plan, name)),
        slack=minutes_words(slack) if slack else "nothing to spare",
        assumed=f"no day promised for {', '.join(assumed)}" if assumed else "",
        working=task.working,
    )


def _held_words(plan: Plan, held: Held | None) -> str:
    if held is None:
        return "nothing but the evenings"
    return {
        "part": f"waits for {held.words}",
        "reason": f"stands behind {held.words}",
        "itself": f"waits while it runs by itself: {held.words}",
        "earlier": f"{held.words} goes first",
        "people": f"needs {held.words}",
    }[held.kind]


def _evening(
    k: int,
    used: Sequence[Evening],
    frame: Frame,
    slugs: Mapping[int, list[PlannedSlug]],
    plan: Plan,
) -> PlannedEvening:
    evening = used[k]
    begins = max(evening.start, frame.minute) if k == 0 else evening.start
    return PlannedEvening(
        key=str(evening.start),
        day=day_due(evening.day),
        start=clock_words(evening.start),
        hours=minutes_words(evening.end - begins),
        minutes=evening.end - evening.start,
        slugs=tuple(slugs.get(evening.start, ())),
        people=tuple(
            Presence(
                words=f"{v.name} {clock_words(v.start)} to {clock_words(v.end)}"
                + ("" if v.comes else f", {v.answer}"),
                start=max(v.start, evening.start) - evening.start,
                end=min(v.end, evening.end) - evening.start,
                perhaps=not v.comes,
            )
            for v in frame.visits
            if (v.comes or v.perhaps) and v.start < evening.end and evening.start < v.end
        ),
        comes=_comes(k, used, plan),
        gap=_gap(k, used),
    )


def _comes(k: int, used: Sequence[Evening], plan: Plan) -> tuple[Comes, ...]:
    """The parts that come in before this evening ends and after the one before it did."""
    after = used[k - 1].end if k else 0
    found: dict[str, Comes] = {}
    for task in plan.tasks.values():
        for part in task.arriving:
            if not after <= part.at < used[k].end or (k == 0 and part.at <= used[0].start):
                continue
            day = "no day promised" if part.assumed else day_due(part.day)
            found[part.need] = Comes(
                words=f"{part.name}, {day}", open_end=part.assumed, build=task.build
            )
    return tuple(found.values())


def _gap(k: int, used: Sequence[Evening]) -> str:
    if not k:
        return ""
    days = (used[k].day - used[k - 1].day).days - 1
    return f"{counted(days, 'day')} without work" if days > 0 else ""


def _runs(plan: Plan, slugs: Mapping[int, list[PlannedSlug]], chain: set[str]) -> tuple[Runs, ...]:
    owner = {step.id: slug.id for row in slugs.values() for slug in row for step in slug.steps}
    found = []
    for task in plan.tasks.values():
        for before, minutes, _ in task.after:
            if minutes < LONG_WAIT_MIN:
                continue
            found.append(
                Runs(
                    from_slug=owner[before],
                    to_slug=owner[task.id],
                    words=f"{plan.tasks[before].name}: {minutes_words(minutes)}",
                    chain={before, task.id} <= chain,
                )
            )
    return tuple(found)


def _end(
    build: str,
    plan: Plan,
    frame: Frame,
    chances: Mapping[str, Chance],
    names: Mapping[str, str],
    used: Sequence[Evening],
) -> End:
    last = plan.last_of(build)
    assert last is not None
    chance = chances.get(build)
    planned = plan.end(last)
    one, five, nine = (chance.one, chance.five, chance.nine) if chance else (planned,) * 3

    def at(minute: int) -> int | None:
        return next((k for k, e in enumerate(used) if e.start < minute <= e.end), None)

    return End(
        build=build,
        name=names[build].split(":")[0],
        planned=_words(frame, planned),
        one=_words(frame, one),
        five=_words(frame, five),
        nine=_words(frame, nine),
        one_at=at(one),
        five_at=at(five),
        nine_at=at(nine),
    )


def _late(plan: Plan, chain: Sequence[tuple[str, Held | None]], frame: Frame) -> tuple[Late, ...]:
    """The things on the chain that are no work of one's own: parts, people, what runs by itself."""
    found = []
    for k, (name, held) in enumerate(chain):
        if held is None or held.kind in ("reason", "earlier"):
            continue
        behind = len({_day(frame, plan.start(other)) for other, _ in chain[k:]})
        task = plan.tasks[name]
        when = _words(frame, plan.start(name))
        words = f"{counted(behind, 'evening')} hang on it. {task.number} {task.name}: {when}."
        found.append(Late(thing=held.words, words=words))
    if not found and chain:
        spent = minutes_words(sum(plan.tasks[name].middle for name, _ in chain))
        found.append(Late(thing="The work itself", words=f"{spent} stand one behind the other."))
    return tuple(found[:3])
