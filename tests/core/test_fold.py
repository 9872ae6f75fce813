"""The fold: facts by subject, striking, and that order and repetition change nothing they should
not.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from hollet.core.entries import BookState, Key, Note
from hollet.core.entries.fold import fold, state_after
from hollet.core.entries.kinds import KINDS
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.library.lore import lore
from hollet.screens.sentences import line_of
from tests.support import Book, small_sheet, tools


def check_invariants(state: BookState) -> None:
    """Live and struck entries do not overlap; every index holds known entries in order
    of sequence.
    """
    for index in (*state.filed.values(), *state.by_kind.values()):
        for listed in index.values():
            assert [e.seq for e in listed] == sorted(e.seq for e in listed)
            assert not {e.id for e in listed} & set(state.struck)
            assert all(state.entries[e.id] is e for e in listed)
    assert len(state.order) == len(state.entries)


def test_same_id_twice_changes_nothing(book: Book):
    """An entry folded again is the same state."""
    entry = book.do("note", text="x")
    head, count = book.state.head, len(book.state.order)
    fold(book.state, entry)
    assert (book.state.head, len(book.state.order)) == (head, count)


def test_folding_in_one_go_or_in_parts_is_the_same(book: Book):
    """A state advanced entry by entry equals one folded cold."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    done = book.do("done", step="lead")
    book.do("strike", entry=done.id, reason="not done")
    book.do("left open", step="bore", item="x", what="rag in port", undo="take it out")
    cold = state_after((book.state.entries[i] for i in book.state.order), BookState(lore()))
    assert cold.filed == book.state.filed
    assert cold.by_kind == book.state.by_kind
    assert cold.lost == book.state.lost
    assert set(cold.struck) == set(book.state.struck)
    check_invariants(cold)


def test_strike_takes_an_entry_out_and_keeps_it(book: Book):
    """A struck entry leaves its subject and stays in the log, with who and why."""
    reading = book.read("ring", "ring", "0.30 0.35", tool="f1")
    strike = book.do("strike", entry=reading.id, reason="wrong figure")
    assert book.state.live("reading", "ring") == []
    assert reading.id in book.state.entries
    line = line_of(book.state, reading)
    assert (line.struck_by, line.struck_reason, line.strikable) == ("MK", "wrong figure", False)
    assert line_of(book.state, strike).text == f"line {reading.seq} struck: wrong figure"
    check_invariants(book.state)


def test_struck_twice_is_refused(book: Book):
    """A struck entry struck again is a clear sentence."""
    note = book.do("note", text="x")
    book.do("strike", entry=note.id, reason="wrong place")
    with pytest.raises(Conflict) as conflict:
        book.do("strike", entry=note.id, reason="wrong place")
    assert conflict.value.reason_code == "already_struck"


def test_what_cannot_be_struck(book: Book):
    """A strike and a plan edit are not struck; an unknown line is not found."""
    made = book.state.order[0]
    with pytest.raises(Refused) as refusal:
        book.do("strike", entry=made, reason="wrong place")
    assert refusal.value.reason_code == "not_strikable"
    with pytest.raises(NotFound):
        book.do("strike", entry="nothing", reason="wrong place")


def test_striking_a_done_takes_back_what_it_opened(book: Book):
    """A temporary state that a struck line opened is no longer open; one that it closed is open
    again.
    """
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    opened = book.do("done", step="lead")
    assert book.left() == ["Lead off", "Coil off"]
    closed = book.do("done", step="lead_on")
    assert book.left() == ["Coil off"]
    book.do("strike", entry=closed.id, reason="not done")
    assert book.left() == ["Lead off", "Coil off"]
    book.do("strike", entry=opened.id, reason="not done")
    assert book.left() == []


def test_striking_a_removal_puts_the_joint_back(book: Book):
    """A struck removal leaves its joint as found and its bag empty."""
    book.absent("lead")
    book.do("bagged", step="head_out", bag=1, lines=[{"count": 6, "size": "M10"}])
    done = book.do("done", step="head_out", reason="lead was off already")
    assert {b.tightness for b in book.joint().bolts} == {"out"}
    book.do("strike", entry=done.id, reason="not done")
    assert {b.tightness for b in book.joint().bolts} == {"as found"}


def test_an_entry_outside_the_plan_counts_for_nothing():
    """The fold never refuses: an entry whose step has gone stays and says so."""
    book = Book(small_sheet(), tools())
    entry = book.add(KINDS["done"].model_validate({"step": "gone"}))
    assert line_of(book.state, entry).step_number == "no longer in the plan"
    assert "gone" not in {row.id for row in book.view().steps}


def test_plan_edit_changes_only_its_limit(book: Book):
    """A limit edit replaces that limit and leaves the rest of the plan."""
    book.plan(
        "limit",
        limit="clearance",
        version=1,
        lo="0.030",
        hi="0.080",
        target="0.045",
        source="book p. 1",
        same_source=True,
    )
    assert book.state.plan.find_limit("clearance").hi == "0.080"
    assert book.state.plan.step == small_sheet().step
    assert book.state.plan.find_limit("clearance").version == 2


@pytest.mark.parametrize(
    ("kind", "data", "field"),
    [
        ("done", {}, "step"),
        ("note", {"text": "", "step": None}, "text"),
        (
            "fastener",
            {"step": "s", "joint": "j", "bolt": 0, "act": "clicked", "tightness": "snug"},
            "bolt",
        ),
        ("undone", {"item": "x", "extra": 1}, "extra"),
        (
            "attempt ended",
            {"step": "s", "attempt": "a", "after_s": float("nan"), "reason": "abc"},
            "after_s",
        ),
    ],
)
def test_bodies_are_checked(kind, data, field):
    """A body that is not as it must be is refused with its field."""
    with pytest.raises(ValidationError) as refusal:
        KINDS[kind].model_validate(data)
    assert [error["loc"] for error in refusal.value.errors()] == [(field,)]


def test_every_kind_names_its_subject():
    """Each kind of entry says what it is about."""
    assert all(kind.called == word and kind.__doc__ for word, kind in KINDS.items())
    assert Note(text="x", step="s").subject() == Key("step", "s")
    assert Note(text="x").subject() == Key("build")


@given(
    st.lists(
        st.sampled_from(["note", "open", "undo", "read", "strike", "skip", "reopen"]), max_size=25
    ),
    st.randoms(use_true_random=False),
)
def test_any_history_keeps_the_invariants(acts, random):
    """Whatever is written and struck, the indexes stay in order and a cold fold agrees."""
    book, refused = Book(small_sheet(), tools()), 0
    for act in acts:
        try:
            if act == "note":
                book.do("note", text="x", step="bore")
            elif act == "open":
                book.do("left open", step="bore", item=f"i{random.randint(0, 3)}", what="rag")
            elif act == "undo":
                book.do("undone", item=f"i{random.randint(0, 3)}")
            elif act == "read":
                book.read("ring", "ring", "0.30 0.35", tool="f1")
            elif act == "strike":
                book.do("strike", entry=random.choice(book.state.order), reason="wrong place")
            elif act == "skip":
                book.do("skipped", step="ring", reason="not on this engine")
            else:
                book.do("reopened", step="ring", reason="after all")
        except (Refused, Conflict, NotFound):
            refused += 1
    check_invariants(book.state)
    assert len(book.state.order) == 1 + len(acts) - refused
    cold = state_after((book.state.entries[i] for i in book.state.order), BookState(lore()))
    assert cold.filed == book.state.filed
    assert cold.by_kind == book.state.by_kind
    assert cold.seen == book.state.seen


def test_where_to_go_on(book: Book):
    """The step in hand while it is not done; then the first that waits for nothing, also past one
    that waits; where all that is left waits, the first of those.
    """
    assert book.view().current == "lead"
    book.do("note", step="ring", text="looked at")
    assert book.view().current == "ring"
    book.do("skipped", step="ring", reason="for this test")
    assert book.view().current == "lead"
    for step in ("bore", "cover_on", "oil_in", "water", "lead_on", "crank", "fire", "again"):
        book.do("skipped", step=step, reason="for this test")
    book.do("skipped", step="lead", reason="for this test")
    waits = {row.id: row.waits for row in book.view().steps if row.status == "open"}
    assert waits == {"head_out": True, "head_in": False}
    assert book.view().current == "head_in"
    book.do("skipped", step="head_in", reason="for this test")
    assert book.view().current == "head_out"
