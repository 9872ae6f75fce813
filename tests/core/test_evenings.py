"""The plan of evenings: it keeps reasons and windows, says what holds it, and how sure it is."""

import itertools
from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hollet.core.calendar.evenings import DAY, Evening, VisitView
from hollet.core.calendar.plan import (
    Frame,
    Plan,
    chain_of,
    chance_of,
    earlier,
    held_by,
    laid_plan,
    slack_of,
    without,
)
from hollet.core.calendar.work import Arriving, Task
from hollet.core.errors import Refused
from hollet.screens.evenings import evenings_plan

MONDAY = date(2026, 3, 2)
NAMES = {"a": "One: engine", "b": "Two: gearbox"}


def task(name: str, middle: int, build: str = "a", **more: object) -> Task:
    facts = {
        "id": name,
        "build": build,
        "step": name,
        "number": "6.01",
        "name": name,
        "quick": max(5, middle // 2),
        "middle": middle,
        "slow": middle * 2,
        "after": (),
        "people": 1,
        "arriving": (),
        "not_before": 0,
        "dries": "",
        "no_hours": False,
        "working": (),
        **more,
    }
    return Task(**facts)  # type: ignore[arg-type]


def after(*names: str, minutes: int = 0) -> tuple[tuple[str, int, str], ...]:
    return tuple((name, minutes, "because") for name in names)


def part(day: int, assumed: bool = False, need: str = "shaft") -> tuple[Arriving, ...]:
    at = day * DAY + 18 * 60
    when = MONDAY + timedelta(days=day)
    return (Arriving(need, need, at, when, "being made", assumed, "o1"),)


def visit(day: int, answer: str = "yes", helper: str = "rt", hours=(19, 21)) -> VisitView:
    return VisitView(
        id=f"{helper}{day}",
        helper=helper,
        name=helper.upper(),
        day=MONDAY + timedelta(days=day),
        start=day * DAY + hours[0] * 60,
        end=day * DAY + hours[1] * 60,
        answer=answer,
        because=None,
        comes=answer == "yes",
        perhaps=answer in ("asked", "to be asked"),
    )


def frame(*visits: VisitView, days: int = 20, minute: int = 0, hours: int = 2) -> Frame:
    """Evenings of two hours from seven, every day."""
    rows = tuple(
        Evening(
            day=MONDAY + timedelta(days=k),
            start=k * DAY + 19 * 60,
            end=k * DAY + (19 + hours) * 60,
        )
        for k in range(days)
    )
    return Frame(MONDAY, minute, rows, visits)


OFTEN = tuple(visit(day) for day in (3, 9, 10, 16, 17, 18, 24, 25, 26, 32, 33, 34))


def day_of(plan: Plan, name: str) -> int:
    return plan.start(name) // DAY


def keeps(plan: Plan, tasks: list[Task], held: Frame) -> None:
    """A second program: every reason, wait, arrival and window is kept, by one hand."""
    spans = sorted((plan.start(t.id), plan.end(t.id)) for t in tasks)
    assert all(a[1] <= b[0] for a, b in itertools.pairwise(spans))
    for t in tasks:
        start, end = plan.start(t.id), plan.end(t.id)
        assert end - start == t.middle
        assert start >= held.minute
        assert any(e.start <= start and end <= e.end for e in held.evenings)
        assert all(start >= plan.end(name) + minutes for name, minutes, _ in t.after)
        assert all(start >= p.at for p in t.arriving)
        if t.people > 1:
            there = [
                v for v in held.visits if v.start <= start and end <= v.end and v.answer != "no"
            ]
            assert 1 + len({v.helper for v in there}) >= t.people


@st.composite
def work(draw: st.DrawFn) -> list[Task]:
    found = []
    for k in range(draw(st.integers(1, 9))):
        links = [f"t{j}" for j in range(k) if draw(st.integers(0, 3)) == 0]
        lag = draw(st.sampled_from([0, 0, 0, 720]))
        found.append(
            task(
                f"t{k}",
                draw(st.sampled_from([10, 25, 40, 60, 90, 120])),
                draw(st.sampled_from(["a", "b"])),
                after=after(*links, minutes=lag),
                arriving=part(draw(st.integers(0, 6))) if draw(st.integers(0, 5)) == 0 else (),
                people=2 if draw(st.integers(0, 6)) == 0 else 1,
            )
        )
    return found


@settings(max_examples=40, deadline=None, derandomize=True)
@given(work())
def test_a_plan_keeps_every_reason_and_window(tasks: list[Task]):
    """Whatever the work: checked by a second program; the same work gives the same plan."""
    held = frame(*OFTEN, days=60)
    plan = laid_plan(tasks, held)
    keeps(plan, tasks, held)
    assert laid_plan(tasks[::-1], held).laid == plan.laid
    assert plan.laid.at_best <= plan.laid.end


@settings(max_examples=12, deadline=None, derandomize=True)
@given(work())
def test_laws_of_the_end(tasks: list[Task]):
    """A longer evening never ends later, a later part never earlier, where both are proven."""
    held = frame(*OFTEN, days=60)
    plan = laid_plan(tasks, held)
    longer = laid_plan(tasks, frame(*OFTEN, days=60, hours=3))
    assert longer.laid.at_best <= plan.laid.end
    late = [replace(tasks[0], arriving=part(8)), *tasks[1:]]
    try:
        later = laid_plan(late, held)
    except Refused:
        return  # nobody comes any more after that part
    assert later.laid.end >= plan.laid.at_best


def test_paint_dries_while_other_work_goes_on():
    """A wait runs by itself; the next evening takes what hangs on it."""
    tasks = [
        task("paint", 60),
        task("fit", 60, after=after("paint", minutes=720)),
        task("wire", 60),
    ]
    plan = laid_plan(tasks, frame())
    assert [day_of(plan, name) for name in ("paint", "wire", "fit")] == [0, 0, 1]
    held = held_by(plan, "fit")
    assert held is not None
    assert (held.kind, held.what) == ("itself", "paint")


def test_each_vehicle_is_done_as_early_as_the_whole_allows():
    """Of plans with the same end the one in which the small job is done first."""
    tasks = [task("big1", 120), task("big2", 120), task("big3", 60), task("small", 60, "b")]
    plan = laid_plan(tasks, frame())
    assert day_of(plan, "small") == 0


def test_a_part_holds_its_step_and_is_said():
    """Made by Thursday: the chain says so, and what an earlier one would win."""
    tasks = [task("shaft in", 60, arriving=part(3)), task("close", 60, after=after("shaft in"))]
    plan = laid_plan(tasks, frame())
    assert day_of(plan, "shaft in") == 3
    (first, held), _ = chain_of(plan, "close")
    assert held is not None
    assert (first, held.kind, held.words) == ("shaft in", "part", "shaft: being made")
    sooner = laid_plan(earlier(tasks, "shaft", 0), frame())
    assert day_of(plan, "close") - day_of(sooner, "close") == 3


def test_a_helper_holds_what_needs_two():
    """It waits for the day on which somebody comes; without him for the next."""
    tasks = [task("lift", 60, people=2)]
    both = frame(visit(2), visit(9, "to be asked"))
    plan = laid_plan(tasks, both)
    assert day_of(plan, "lift") == 2
    held = held_by(plan, "lift")
    assert held is not None
    assert held.kind == "people"
    gone = replace(both, visits=without(both.visits, "rt2"))
    assert day_of(laid_plan(tasks, gone), "lift") == 9


def test_three_people_are_there_only_together():
    """Two helpers whose hours overlap for half an hour hold half an hour of work for three."""
    held = frame(visit(2, hours=(19, 20)), visit(2, helper="jb", hours=(19, 21)))
    assert held.spans(3) == ((2 * DAY + 19 * 60, 2 * DAY + 20 * 60),)
    with pytest.raises(Refused, match="needs 3 people for 90 min, and nobody comes"):
        laid_plan([task("lower", 90, people=3)], held)


REFUSED = [
    ([task("a", 60, after=after("b")), task("b", 60, after=after("a"))], "cycle", "in a circle"),
    ([task("gearbox in", 145)], "no_window_long_enough", "longest evening that is left has 120"),
    ([task("lift", 30, people=2)], "no_helper_window", "ask a helper"),
    ([task(f"t{k}", 120) for k in range(25)], "no_window_long_enough", "do not hold all of it"),
]


@pytest.mark.parametrize(("tasks", "code", "words"), REFUSED)
def test_what_cannot_be_laid_is_said_in_one_sentence(tasks, code, words):
    """With the step that does not fit."""
    with pytest.raises(Refused, match=words) as refusal:
        laid_plan(tasks, frame())
    assert refusal.value.reason_code == code


def test_what_is_over_is_never_planned():
    """At eight o'clock the first evening has an hour left."""
    plan = laid_plan([task("a", 90), task("b", 60)], frame(minute=20 * 60))
    assert [day_of(plan, "b"), day_of(plan, "a")] == [0, 1]


def test_slack_reaches_to_what_stands_behind():
    """Forty minutes between a short piece of work and what waits for it."""
    tasks = [task("a", 20), task("b", 60, arriving=part(0, need="x"))]
    late = replace(tasks[1], arriving=(replace(tasks[1].arriving[0], at=20 * 60),))
    plan = laid_plan([tasks[0], late], frame())
    assert slack_of(plan, "a") == 40
    assert slack_of(plan, "b") == 0


def test_chances_lie_in_order_and_are_the_same_each_time():
    """One in ten is no later than five, five no later than nine; no dice are thrown."""
    tasks = [task(f"t{k}", 60, "a" if k % 2 else "b") for k in range(12)]
    plan = laid_plan(tasks, frame())
    found = chance_of(plan, ["a", "b"])
    assert found == chance_of(plan, ["a", "b"])
    for chance in found.values():
        assert chance.one <= chance.five <= chance.nine
        assert chance.beyond == 0
    sure = [replace(t, quick=t.middle, slow=t.middle) for t in tasks]
    plan = laid_plan(sure, frame())
    last = max(plan.end(t.id) for t in sure)
    assert max(c.nine for c in chance_of(plan, ["a", "b"]).values()) == last


def test_what_goes_on_past_the_last_evening_is_not_in_sight():
    """Days on which nobody comes any more are not guessed."""
    tasks = [task("long", 118), task("lift", 100, people=2, after=after("long"))]
    held = frame(visit(1), days=3)
    plan = laid_plan(tasks, held)
    view = evenings_plan(plan, held, chance_of(plan, ["a"]), {"a": NAMES["a"]}, ())
    assert view.ends[0].nine == "not in sight"


def test_what_is_taken_for_granted_is_named():
    """Parts nobody spoke of, tools that are lent, hours nobody gave."""
    tasks = [
        task("close", 30, unsaid=("seal", "pin", "oil", "clip"), no_hours=True),
        task("press", 30, gone=("hydraulic press",)),
    ]
    plan = laid_plan(tasks, frame())
    view = evenings_plan(plan, frame(), chance_of(plan, ["a"]), NAMES, ())
    assert view.assumed == (
        "here, though nobody said so: seal, pin, oil and 1 more",
        "there again by then: hydraulic press",
        "1 step without hours: half an hour each",
    )


def test_the_block_says_what_stands_where():
    """Slugs of one vehicle without a wait are one; a part comes in; a helper is there."""
    tasks = [
        task("first", 30),
        task("second", 30, after=after("first")),
        task("other", 30, "b", after=after("second", minutes=600)),
        task("lift", 60, "b", people=2, arriving=part(3, assumed=True)),
    ]
    held = frame(visit(3))
    plan = laid_plan(tasks, held)
    view = evenings_plan(plan, held, chance_of(plan, list(NAMES)), NAMES, ())
    slugs = [slug for evening in view.evenings for slug in evening.slugs]
    assert [(s.name, len(s.steps), s.vehicle) for s in slugs] == [
        ("first", 2, "One"),
        ("other", 1, "Two"),
        ("lift", 1, "Two"),
    ]
    assert slugs[0].now
    assert [c.words for e in view.evenings for c in e.comes] == ["shaft, no day promised"]
    assert [p.words for e in view.evenings for p in e.people] == ["RT 19:00 to 21:00"]
    assert [(r.from_slug, r.to_slug, r.words) for r in view.runs] == [
        ("first", "other", "second: 10 h")
    ]
    assert view.assumed == ("shaft: a week, no day is promised",)
    assert view.title.startswith("All 2 done by ")
    assert {late.thing for late in view.late} <= {
        "shaft: being made",
        "2 people",
        "The work itself",
    }
