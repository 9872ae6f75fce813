"""Work laid into evenings: held against a second program that tries every order, and the laws."""

from itertools import pairwise, permutations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hollet.core.catalogue import compute
from hollet.core.errors import Refused

WINDOWS = [[0, 4], [10, 14], [24, 28], [34, 38], [48, 52], [58, 62]]
HELPER = [[34, 37], [48, 52]]


def hours(value: float | list) -> dict:
    return {"value": value, "unit": "h"}


def plan(tasks: list[dict], windows: list = WINDOWS, helper: list = HELPER) -> dict:
    given = {"tasks": tasks, "work_windows": hours(windows), "helper_windows": hours(helper)}
    return compute("schedule", given)


def end_by_orders(tasks: list[dict], windows: list, helper: list) -> float | None:
    """The least end over all orders with earliest starts: another program for the same question."""
    both = [(max(a, c), min(b, d)) for a, b in windows for c, d in helper]
    best = None
    for order in permutations(tasks):
        ends, free, whole = {}, 0.0, 0.0
        for task in order:
            if any(name not in ends for name in task.get("after", [])):
                break
            ready = [ends[name] for name in task.get("after", [])]
            at = max([free, task.get("arrives", hours(0))["value"], *ready])
            takes = task["dur"]["value"]
            spans = both if task.get("helper") else windows
            fits = [max(a, at) for a, b in spans if max(a, at) + takes <= b]
            if not fits:
                break
            free = min(fits) + takes
            ends[task["id"]] = free + task.get("wait", hours(0))["value"]
            whole = max(whole, ends[task["id"]])
        else:
            best = whole if best is None else min(best, whole)
    return best


@st.composite
def some_tasks(draw: st.DrawFn) -> list[dict]:
    tasks = []
    for k in range(draw(st.integers(1, 5))):
        task = {"id": f"t{k}", "dur": hours(draw(st.integers(1, 4)))}
        if draw(st.booleans()):
            task["wait"] = hours(draw(st.integers(0, 12)))
        if draw(st.integers(0, 3)) == 0:
            task["arrives"] = hours(draw(st.integers(0, 30)))
        task["helper"] = draw(st.integers(0, 4)) == 0 and task["dur"]["value"] <= 3
        task["after"] = [f"t{j}" for j in range(k) if draw(st.integers(0, 2)) == 0]
        tasks.append(task)
    return tasks


@settings(max_examples=60, deadline=None, derandomize=True)
@given(some_tasks())
def test_the_least_end_is_the_one_that_every_order_gives(tasks: list[dict]):
    """CP-SAT and all orders agree; the plan keeps every reason and window."""
    best = end_by_orders(tasks, WINDOWS, HELPER)
    if best is None:
        with pytest.raises(Refused):
            plan(tasks)
        return
    found = plan(tasks)
    assert found["finish"]["value"] == pytest.approx(best)
    assert found["proven"]["value"] is True
    starts = dict(zip((t["id"] for t in tasks), found["starts"]["value"], strict=True))
    taken = sorted((starts[t["id"]], starts[t["id"]] + t["dur"]["value"]) for t in tasks)
    assert all(a[1] <= b[0] for a, b in pairwise(taken))
    for task in tasks:
        start, end = starts[task["id"]], starts[task["id"]] + task["dur"]["value"]
        assert any(a <= start and end <= b for a, b in WINDOWS)
        assert not task["helper"] or any(a <= start and end <= b for a, b in HELPER)
        assert start >= task.get("arrives", hours(0))["value"]
        for name in task["after"]:
            before = next(t for t in tasks if t["id"] == name)
            wait = before.get("wait", hours(0))["value"]
            assert start >= starts[name] + before["dur"]["value"] + wait


@settings(max_examples=20, deadline=None, derandomize=True)
@given(some_tasks(), st.randoms(use_true_random=False))
def test_laws_of_a_plan(tasks: list[dict], random):
    """The order of the list does not matter; one more evening never ends later; a later arrival
    never ends earlier.
    """
    if end_by_orders(tasks, WINDOWS, HELPER) is None:
        return
    found = plan(tasks)["finish"]["value"]
    shuffled = random.sample(tasks, len(tasks))
    assert plan(shuffled)["finish"]["value"] == pytest.approx(found)
    assert plan(tasks, [*WINDOWS, [16, 20]])["finish"]["value"] <= found
    late = [{**tasks[0], "arrives": hours(24)}, *tasks[1:]]
    if tasks[0].get("arrives", hours(0))["value"] <= 24 and end_by_orders(late, WINDOWS, HELPER):
        assert plan(late)["finish"]["value"] >= found


def test_a_wait_may_be_the_end_of_everything():
    """Paint that dries after the last work counts to the end."""
    tasks = [{"id": "paint", "dur": hours(1), "wait": hours(48)}, {"id": "wire", "dur": hours(2)}]
    assert plan(tasks)["finish"]["value"] == 49


def test_minutes_are_rounded_outward():
    """Eleven and a half minutes take twelve; a window is never longer than it is."""
    tasks = [{"id": "a", "dur": {"value": 11.5, "unit": "min"}}, {"id": "b", "dur": hours(3.8)}]
    assert plan(tasks)["finish"]["value"] == pytest.approx(4.0)
    with pytest.raises(Refused):
        plan([{"id": "a", "dur": hours(4)}], [[0, 3.999]])


BAD = [
    ("bad_input", [{"id": "a", "dur": hours(1), "after": ["b"]}], WINDOWS, HELPER),
    ("bad_input", [{"id": "a", "dur": hours(1)}, {"id": "a", "dur": hours(1)}], WINDOWS, HELPER),
    ("bad_input", [{"id": "a", "dur": hours(1)}], [[4, 2]], HELPER),
    ("not_positive", [{"id": "a", "dur": hours(0)}], WINDOWS, HELPER),
    ("not_a_finite_number", [{"id": "a", "dur": hours(-1)}], WINDOWS, HELPER),
    ("no_window_long_enough", [{"id": "a", "dur": hours(5)}], WINDOWS, HELPER),
    ("no_window_long_enough", [{"id": k, "dur": hours(4)} for k in "abcdefg"], WINDOWS, HELPER),
    ("no_helper_window", [{"id": "a", "dur": hours(1), "helper": True}], WINDOWS, []),
]


@pytest.mark.parametrize(("code", "tasks", "windows", "helper"), BAD)
def test_what_cannot_be_is_refused_in_a_sentence(code, tasks, windows, helper):
    """One sentence that names the task or the field."""
    with pytest.raises(Refused) as refusal:
        plan(tasks, windows, helper)
    assert refusal.value.reason_code == code
    assert "'" in refusal.value.message or "windows" in refusal.value.message


def test_a_circle_is_told_in_its_order():
    """Which waits for which, so that one link can be cut."""
    tasks = [
        {"id": "a", "dur": hours(1), "after": ["c"]},
        {"id": "b", "dur": hours(1), "after": ["a"]},
        {"id": "c", "dur": hours(1), "after": ["b"]},
    ]
    with pytest.raises(Refused, match=r"waits for . waits for . waits for ."):
        plan(tasks)


def ratios(*values: float) -> dict:
    return compute("time_factor", {"ratios": {"value": values, "unit": "1"}})


def test_pace_learns_from_each_job():
    """More jobs alike narrow the range, in any order; the prior gives way to them."""
    few, many = ratios(2.0, 2.0), ratios(*[2.0] * 12)
    width = [r["hi"]["value"] / r["lo"]["value"] for r in (few, many)]
    assert width[1] < width[0]
    assert 1.5 < few["factor"]["value"] < many["factor"]["value"] < 2.0
    assert ratios(1.2, 3.0, 2.0)["lo"] == ratios(3.0, 2.0, 1.2)["lo"]


def test_a_ratio_that_was_hardly_measured_is_asked_back():
    """Above 10 or below 0.2 somebody forgot to stop; it is still used."""
    assert ratios(1.5, 12.0, 0.1)["ask_back"]["value"] == [12.0, 0.1]
    assert ratios(10.0, 0.2)["ask_back"]["value"] == []
