"""What is remembered never differs from what would be computed anew: a stale verdict is a lie."""

import random
from dataclasses import replace
from datetime import UTC, datetime

import pytest

from hollet.core.book.bags import bag_contents
from hollet.core.book.gates import gate_answers
from hollet.core.book.ledger import left_open
from hollet.core.book.open_items import open_items
from hollet.core.book.passing import current_step
from hollet.core.book.supports import support_view
from hollet.core.entries import BookState, Entry, Replaced, Strike
from hollet.core.entries.fold import fold
from hollet.core.entries.status import plan_of, statuses
from hollet.core.steps.tighten import joint_facts
from hollet.library.lore import lore
from hollet.screens.bench import bench_of
from hollet.screens.frame import book_view
from hollet.screens.sentences import line_of
from hollet.services.demo import make_demo
from hollet.services.gear import gear_of
from hollet.services.workshop import Workshop
from hollet.store.chain import entry_of

NOW = datetime(2026, 3, 20, 12, 0, tzinfo=UTC)


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    """The demo, made at a fixed moment."""
    folder = tmp_path_factory.mktemp("demo")
    make_demo(folder, NOW)
    made = Workshop(folder, lambda: NOW)
    yield made
    made.close()


def shown(state: BookState, tools: tuple, gear, step: str | None) -> tuple:
    """Everything that a screen may have remembered."""
    now, plan = state.last.time if state.last else "", plan_of(state)
    here = plan.find_step(step) or plan.find_step(current_step(state, now))
    return (
        dict(statuses(state)),
        left_open(state),
        open_items(state, tools),
        gate_answers(state, tools),
        support_view(state),
        bag_contents(state),
        book_view(state, now),
        tuple(joint_facts(state, joint) for joint in plan.joint),
        tuple(line_of(state, state.entries[i]) for i in state.order[-40::3]),
        bench_of(state, here, tools, gear, now),
    )


@pytest.mark.parametrize("name", ["One", "Two", "Three"])
def test_remembered_is_as_computed_anew(demo, name):
    """The demo replayed line by line, with a line struck now and then, and a lost piece replaced:
    the state that remembers and one that does not show the same.
    """
    with demo.store.read() as books:
        build = next(b for b in books.builds.all() if b.name.startswith(name))
        lines = [entry_of(line) for line in books.log.read(build.id)]
    tools, gear, dice = tuple(demo.tools().values()), gear_of(demo), random.Random(7)
    state, seq = BookState(lore()), 0
    for number, line in enumerate(lines):
        seq += 1
        fold(state, replace(line, seq=seq))
        step = line.body.at()
        if number % 9 == 8:
            targets = [e for e in state.lines() if e.body.strikable and e.body.strikes() is None]
            target = dice.choice(targets[-25:]) if targets else None
            if target is not None:
                seq += 1
                body = Strike(entry=target.id, reason="it was not so at all")
                fold(state, Entry(f"strike-{seq}", seq, line.time, line.time, "MK", body))
                step = target.body.at() or step
        if number % 40 == 39 and bag_contents(state):
            seq += 1
            body = Replaced(bag=bag_contents(state)[0].bag, count=1, by="new, 8.8")
            fold(state, Entry(f"new-{seq}", seq, line.time, line.time, "MK", body))
        known = shown(state, tools, gear, step)
        if number % 5 == 0 or number % 9 == 8:
            assert known == shown(replace(state, memo={}), tools, gear, step), f"line {number}"
    fresh = replace(state, memo={})
    assert [line_of(state, state.entries[i]) for i in state.order] == [
        line_of(fresh, fresh.entries[i]) for i in fresh.order
    ]
