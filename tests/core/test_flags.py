"""What a screen may ask of a view: each flag follows from one code, and is decided here alone."""

import pytest

from hollet.core.book.captures import CaptureView
from hollet.core.book.gates import GateAnswer
from hollet.core.book.one_open import OpenItem
from hollet.core.book.passing import Obstacle
from hollet.core.book.rebuild import Contradicts, RebuildLine, Why
from hollet.core.book.removals import Removal
from hollet.core.book.windows import Chance
from hollet.core.entries.status import StepStatus
from hollet.core.limits import Judgement, Limit
from hollet.core.procedure.hunt import HuntItem
from hollet.core.procedure.stuck import StuckView
from hollet.core.steps.attempt import AttemptFacts, Deadline
from hollet.core.steps.beside import BesideFacts
from hollet.core.steps.faces import FaceFacts
from hollet.core.steps.readings import ReadingFacts
from hollet.core.steps.results import ResultFacts
from hollet.core.steps.tighten import StageFacts
from hollet.core.steps.wrenches import Setting
from hollet.screens.benches.base import BenchBase, ToolNeed
from hollet.screens.frame import StepRow
from hollet.screens.limitbook import FigureRow
from hollet.screens.plan_questions import AgreementView
from hollet.screens.sentences import LogLine

TABLE = [
    (Chance, "state", "todo", {"open", "no step"}, {"done", "let go", "left out"}),
    (Chance, "state", "unplanned", {"no step"}, {"open", "done", "let go", "left out"}),
    (Chance, "state", "done", {"done"}, {"open", "no step", "let go", "left out"}),
    (CaptureView, "state", "todo", {"missing"}, {"let go", "kept", "same", "differs"}),
    (CaptureView, "state", "gone", {"let go"}, {"missing", "kept", "same", "differs"}),
    (CaptureView, "state", "agrees", {"same"}, {"missing", "let go", "kept", "differs"}),
    (CaptureView, "state", "differs", {"differs"}, {"missing", "let go", "kept", "same"}),
    (CaptureView, "kind", "by_length", {"length"}, {"photo", "mark", "wires", "reading"}),
    (BesideFacts, "state", "todo", {"open"}, {"same", "differs", "will_do"}),
    (BesideFacts, "state", "accepted", {"will_do"}, {"open", "same", "differs"}),
    (FaceFacts, "state", "seen", {"good", "again", "bad"}, {"not_seen"}),
    (FaceFacts, "state", "not_good", {"again", "bad"}, {"good", "not_seen"}),
    (OpenItem, "kind", "temporary", {"temporary"}, {"danger", "joint", "empty"}),
    (OpenItem, "rank", "live", {"danger"}, {"wrong", "open", "not_reached"}),
    (OpenItem, "sort", "counted_out", {"cover", "cap"}, {"open_port", "tied", "other"}),
    (OpenItem, "blocks", "shuts", {"crank", "fire", "drive"}, {"nothing"}),
    (GateAnswer, "answer", "shut", {"shut"}, {"limited", "nothing left open"}),
    (GateAnswer, "answer", "limited", {"limited"}, {"shut", "nothing left open"}),
    (Obstacle, "by", "by_load", {"load"}, {"reason", "press", "thing", "nothing"}),
    (Obstacle, "by", "by_reason", {"reason"}, {"load", "press", "thing", "nothing"}),
    (Why, "origin", "assumed", {"log"}, {"sheet", "turned", "said"}),
    (Contradicts, "kept", "by_sheet", {"sheet"}, {"take_down"}),
    (Removal, "state", "is_back", {"back"}, {"off"}),
    (HuntItem, "kind", "by_gear", {"tool"}, {"helper", "figure", "part", "fact"}),
    (HuntItem, "kind", "by_person", {"helper"}, {"tool", "figure", "part", "fact"}),
    (HuntItem, "kind", "by_book", {"figure", "amount", "torque"}, {"tool", "part", "fact"}),
    (HuntItem, "state", "guessed", {"assumed"}, {"not given", "conflict", "open"}),
    (StuckView, "state", "refused", {"refused"}, {"free", "tried", "enough"}),
    (StuckView, "id", "long", {"soak"}, {"shock", "heat"}),
    (ReadingFacts, "tool_kind", "by_leaves", {"feeler"}, {"micrometer", "caliper"}),
    (StageFacts, "kind", "turns", {"angle"}, {"torque"}),
    (Setting, "kind", "turns", {"angle"}, {"torque"}),
    (AttemptFacts, "gate", "against_gate", {"shut"}, {"limited", "nothing left open"}),
    (ToolNeed, "state", "owned", {"owned"}, {"borrowed", "missing", "broken"}),
    (FigureRow, "state", "conflict", {"conflict"}, {"given", "assumed", "not given", "own"}),
    (FigureRow, "state", "guessed", {"assumed"}, {"given", "conflict", "not given", "own"}),
    (FigureRow, "state", "given", {"given", "assumed", "own", "conflict"}, {"not given"}),
    (FigureRow, "state", "decided", {"own"}, {"given", "assumed", "not given", "conflict"}),
    (AgreementView, "state", "agrees", {"agrees"}, {"open", "clash"}),
    (AgreementView, "state", "clashes", {"clash"}, {"open", "agrees"}),
    (LogLine, "kind", "conceded", {"concession"}, {"done", "reading"}),
    (BenchBase, "stage", "taking_down", {"take_down"}, {"inspect", "build_up"}),
]


@pytest.mark.parametrize(
    ("view", "code", "flag", "yes", "no"),
    TABLE,
    ids=[f"{v.__name__}.{f}" for v, _, f, _, _ in TABLE],
)
def test_a_flag_follows_from_one_code(view, code, flag, yes, no):
    """True of these and of no other, and it goes out with the view."""
    for value in yes | no:
        assert getattr(view.model_construct(**{code: value}), flag) is (value in yes), value
    assert flag in view.model_json_schema(mode="serialization")["properties"]


@pytest.mark.parametrize(
    ("state", "number", "words", "said"),
    [
        ("done", "6.02", "done by MK", "6.02, done by MK"),
        ("done", "", "seen by MK", "seen by MK"),
        ("done", "", "", "done"),
        ("let go", "", "not worth it", "not worth it"),
        ("let go", "", "", "not wanted"),
        ("left out", "", "", "not for this vehicle"),
        ("open", "6.02", "is next", "6.02 is next"),
        ("no step", "", "no step does it", "no step does it"),
    ],
)
def test_what_stands_beside_a_last_chance(state, number, words, said):
    """The step that did it, the words given, else what the state is called."""
    chance = Chance(thing="x", because="y", state=state, number=number, words=words)
    assert chance.said == said


@pytest.mark.parametrize(
    ("verdict", "conceded", "asks", "is_open", "judged"),
    [
        ("inside", False, False, False, True),
        ("outside", False, True, True, True),
        ("too_close", False, True, True, True),
        ("outside", True, True, False, True),
        ("not_read", False, False, True, False),
        ("no_limit", False, False, True, True),
    ],
)
def test_what_a_result_asks_for(verdict, conceded, asks, is_open, judged):
    """A decision where it was read and is not inside; what was accepted in writing is not open."""
    found = ResultFacts.model_construct(
        judgement=Judgement.model_construct(verdict=verdict), conceded=conceded
    )
    assert (found.asks_decision, found.open, found.judged) == (asks, is_open, judged)


@pytest.mark.parametrize(
    ("safety", "may", "stays"),
    [
        (None, True, None),
        ("fuel", True, "fuel: fuel on"),
        ("brakes", True, "brakes: drive"),
        ("suspension", True, "suspension or a spring: drive"),
        ("lifting", False, "lifting: ready to lift"),
    ],
)
def test_what_stays_shut_although_it_is_accepted(safety, may, stays):
    """The rung of a safety part; worn lifting gear is never accepted at all."""
    limit = Limit.model_construct(safety=safety)
    found = ResultFacts.model_construct(limit=limit)
    assert (found.may_concede, found.stays_shut) == (may, stays)


def test_how_a_step_is_drawn_on_the_strip():
    """It waits only while it is still to do."""
    row = StepRow.model_construct
    assert row(status="open", waits=True).look == "waits"
    assert row(status="open", waits=False).look == "open"
    assert row(status="begun", waits=True).look == "begun"


def test_until_when_oil_pressure_must_show():
    """The first deadline of that kind that is not met; none once it showed."""

    def due(kind: str, at: float, met: bool) -> Deadline:
        return Deadline(kind=kind, at_s=at, met=met, reason="key off", what="oil pressure")

    def by(*deadlines: Deadline) -> float | None:
        return AttemptFacts.model_construct(deadlines=deadlines).pressure_by

    assert by(due("end", 15, False), due("pressure", 8, False)) == 8
    assert by(due("pressure", 8, True), due("reading", 20, False)) is None
    assert by() is None


def test_words_of_a_status_and_a_stage():
    """Every status is said; a line of the order back names its stage."""
    said = [
        StepStatus(status=s).words
        for s in ("open", "begun", "done", "skipped", "not_applicable", "not_there")
    ]
    assert said[:3] == ["to do", "begun", "done"]
    assert len(set(said)) == 6
    assert RebuildLine.model_construct(stage="fit_in").stage_name == "Fit in"


def bench(*obstacles: Obstacle, status: str = "open") -> BenchBase:
    return BenchBase.model_construct(
        obstacles=obstacles, status=StepStatus(status=status), stage="fit_in"
    )


def obstacle(by: str, code: str = "order", words: str = "the way is shut") -> Obstacle:
    return Obstacle(code=code, words=words, by=by, keys=("a key",))


def test_what_passes_a_step():
    """A reason only where a reason passes all of it; a danger can be told as having happened."""
    free = bench()
    assert (free.may_pass, free.may_happen, free.pass_words, free.pass_keys) == (
        False,
        False,
        "",
        (),
    )
    order = bench(obstacle("reason"), obstacle("reason"))
    assert (order.may_pass, order.may_happen) == (True, False)
    assert (order.pass_words, order.pass_keys) == ("the way is shut", ("a key",))
    both = bench(obstacle("reason"), obstacle("thing", "danger", "it is live"))
    assert (both.may_pass, both.may_happen) == (False, True)
    assert not bench(obstacle("thing"), status="done").may_happen


def test_what_a_step_lacks_is_its_own():
    """What another step must do first stands apart, in what it waits for."""
    live = obstacle("thing", "danger", "it is live")
    waits = obstacle("reason", "must_wait", "6.01 first")
    own = obstacle("nothing", "captures", "Cover to case: not compared yet")
    assert bench(live, waits).lacking is None
    assert bench(live, waits, own).lacking == "Cover to case: not compared yet"


def test_a_settled_step():
    """Done, skipped, not applicable or not there; begun is not."""
    settled = {
        s: bench(status=s).settled
        for s in ("open", "begun", "done", "skipped", "not_applicable", "not_there")
    }
    assert [s for s, is_settled in settled.items() if is_settled] == [
        "done",
        "skipped",
        "not_applicable",
        "not_there",
    ]
