"""The complaint is answered by the same trial alone; snags are left until they are cleared."""

import pytest

from hollet.core.book.complaints import complaints_of, snags_of
from hollet.core.errors import Conflict, NotFound
from hollet.screens.record import record_view
from tests.support import Book, small_sheet, tools

C, S = "complaint-1", "snag-0001"
WHEN = {"speed": "at 80", "load": "towing", "heat": "hot", "doing": ["braking"]}
ALL = ["at 80", "towing", "hot", "braking"]


@pytest.fixture
def pulls() -> Book:
    book = Book(small_sheet(), tools())
    book.do("complaint said", complaint=C, words="pulls to the left", **WHEN)
    return book


def test_a_complaint_keeps_its_conditions(pulls: Book):
    (found,) = complaints_of(pulls.state)
    assert found.conditions == tuple(ALL)
    assert found.waits == "the same trial: at 80, towing, hot, braking"
    line = pulls.state.live("complaint", C)[0]
    assert line.body.line("") == "complaint: pulls to the left (at 80, towing, hot, braking)"


@pytest.mark.parametrize(
    ("under", "said", "answered"),
    [
        (ALL, "gone", True),
        (ALL[:3], "gone", False),  # not braking: another trial
        ([], "gone", False),
        (ALL, "less", False),
        (ALL, "something else", False),
        ([*ALL, "turning"], "gone", True),
    ],
)
def test_only_the_same_trial_answers_it(pulls: Book, under, said: str, answered: bool):
    pulls.do("trial driven", complaint=C, found=said, under=under)
    (found,) = complaints_of(pulls.state)
    assert found.answered == answered
    assert bool(found.waits) != answered


def test_the_newest_trial_counts(pulls: Book):
    pulls.do("trial driven", complaint=C, found="gone", under=ALL)
    pulls.do("trial driven", complaint=C, found="the same", under=ALL)
    (found,) = complaints_of(pulls.state)
    assert not found.answered
    assert len(found.trials) == 2


def test_a_trial_struck_was_none(pulls: Book):
    line = pulls.do("trial driven", complaint=C, found="gone", under=ALL)
    pulls.do("strike", entry=line.id, reason="it was the other vehicle")
    assert not complaints_of(pulls.state)[0].answered


def test_nothing_is_settled_while_the_complaint_waits(pulls: Book):
    pulls.absent(*(step.id for step in pulls.state.plan.step))
    view = record_view(pulls.state, (), pulls.time)
    assert not view.settled
    assert view.sections[0].rows[0].right == "complaint"
    pulls.do("trial driven", complaint=C, found="gone", under=ALL)
    assert not any(
        r.right == "complaint" for r in record_view(pulls.state, (), pulls.time).sections[0].rows
    )


def test_a_complaint_without_conditions_is_answered_as_it_was(pulls: Book):
    pulls.do("complaint said", complaint="complaint-2", words="hums somewhere")
    found = next(c for c in complaints_of(pulls.state) if c.id == "complaint-2")
    assert found.waits == "the same trial: as it was"
    pulls.do("trial driven", complaint="complaint-2", found="gone", under=[])
    assert next(c for c in complaints_of(pulls.state) if c.id == "complaint-2").answered


def test_snags_are_left_until_cleared(pulls: Book):
    pulls.do("snag said", snag=S, what="scratch on the left sill", matters=["paint"])
    pulls.do("snag said", snag="snag-0002", what="horn is weak", matters=["road", "track"])
    assert [s.what for s in snags_of(pulls.state)] == ["scratch on the left sill", "horn is weak"]
    line = pulls.do("snag cleared", snag=S, done="touched in")
    assert line.body.line("") == "snag cleared: scratch on the left sill, touched in"
    assert [s.id for s in snags_of(pulls.state)] == ["snag-0002"]
    with pytest.raises(Conflict):
        pulls.do("snag cleared", snag=S)
    pulls.do("strike", entry=line.id, reason="it shows again")
    assert len(snags_of(pulls.state)) == 2


def test_what_cannot_be(pulls: Book):
    pulls.refuse("no_words", "complaint said", complaint="complaint-3", words="noise")
    with pytest.raises(NotFound):
        pulls.do("trial driven", complaint="complaint-9", found="gone")
    with pytest.raises(NotFound):
        pulls.do("snag cleared", snag="snag-9999")
