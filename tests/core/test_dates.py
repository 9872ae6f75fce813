"""Dates that were said, against the plan: met, in doubt or not, and what may fall out."""

from dataclasses import replace
from datetime import date

import pytest

from hollet.core.calendar.evenings import DAY
from hollet.core.calendar.plan import Chance, laid_plan
from hollet.core.calendar.work import Task
from hollet.core.entries import Commitment
from hollet.screens.dates import date_rows
from tests.core.test_evenings import frame
from tests.core.test_evenings import task as other

FRAME = frame(days=10)


def task(name: str, **more: object) -> Task:
    """A piece of work that fills an evening."""
    return other(name, 110, "b", **more)


def said(day: int, **more: object) -> Commitment:
    """A date of the build."""
    given = {"commitment": "c", "what": "Track day", "day": date(2026, 3, day), "build": "b"}
    return Commitment(**{**given, **more})


def words(tasks: list[Task], held: Commitment, chance: Chance | None = None) -> tuple[bool, str]:
    plan = laid_plan(tasks, FRAME)
    (row,) = date_rows(plan, FRAME, {"b": chance} if chance else {}, (held,))
    return row.met, row.words


THREE = [task("one"), task("two"), task("three")]


@pytest.mark.parametrize(
    ("days", "met", "begins"),
    [
        ((1, 2, 3), True, "met, 9 in 10 by"),
        ((1, 3, 6), True, "met by the middle only: 9 in 10 not before"),
        ((2, 5, 8), False, "5 in 10 not before"),
        ((5, 6, 8), False, "cannot be met: 5 in 10 not before"),
    ],
)
def test_how_sure_a_date_is(days, met, begins):
    """The date is Thursday, its whole day: the fourth."""
    chance = Chance(*(d * DAY + 60 for d in days), beyond=0)
    found = words(THREE, said(5), chance)
    assert found[0] is met
    assert found[1].startswith(begins)


def test_what_may_fall_out_are_extras_alone():
    """Nothing optional: nothing may. An extra is named with its time."""
    late = Chance(5 * DAY, 6 * DAY, 8 * DAY, 0)
    assert words(THREE, said(3), late)[1].endswith(
        "1 h 50 of work lie after it; nothing of it may fall out: move the date, or ask for help"
    )
    extra = [*THREE[:2], replace(THREE[2], optional="new hoses")]
    assert words(extra, said(3), late)[1].endswith("what may fall out: new hoses (1 h 50)")


def test_what_is_done_is_met():
    plan = laid_plan([replace(task("x"), build="other")], FRAME)
    (row,) = date_rows(plan, FRAME, {}, (said(3),))
    assert (row.met, row.words) == (True, "nothing of it is open")


def test_past_dates_and_those_of_no_build_are_no_question_of_the_plan():
    plan = laid_plan(THREE, FRAME)
    held = (said(1), said(4, build=None))
    assert date_rows(plan, FRAME, {}, held) == ()


def test_a_rented_lift_is_left_on_its_wheels():
    """Down on Tuesday: Wednesday is met, Tuesday noon is not, and each hour after it costs."""
    work = [task("one"), task("down", after=(("one", 0, "it comes first"),), lands=True)]
    lift = {"bay": "lift", "an_hour": 6.0}
    assert words(work, said(4, **lift)) == (
        True,
        "on its wheels by Tue 3 Mar: it can be rolled off",
    )
    met, late = words(work, said(3, time="12:00", **lift))
    assert not met
    assert late.startswith("cannot roll off before Tue 3 Mar: 1 h 50 of work too late")
    assert late.endswith(f"{(21 * 60 - 10 - 12 * 60) / 60 * 6:.2f} more")
    nothing = words([task("one")], said(4, **lift))
    assert nothing[1].startswith("no step sets it on its wheels any more: look whether it rolls")
