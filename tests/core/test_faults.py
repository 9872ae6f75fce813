"""Faults: each test leaves fewer causes, what stops it at once keeps the engine off, and nothing is
found without a word on how.
"""

import pytest
from pydantic import ValidationError

from hollet.core.book.faults import changed_last, fault_of, faults_of
from hollet.core.book.gates import gate_answers
from hollet.core.errors import Conflict, NotFound
from hollet.core.faults import Symptom
from hollet.core.lore import Lore
from hollet.library.lore import lore
from hollet.screens.faults import faults_view
from tests.support import Book, small_sheet, tools

F = "fault-0001"


@pytest.fixture
def ill() -> Book:
    book = Book(small_sheet(), tools())
    book.do("symptom said", fault=F, symptom="no_crank", words="a click, no more")
    return book


def facts(book: Book, shut: tuple[str, ...] = ()):
    found = fault_of(book.state, F, shut)
    assert found is not None
    return found


def offered(book: Book, name: str):
    return next(t for t in facts(book).tests if t.id == name)


def answer(book: Book, name: str, words: str, figure: str) -> None:
    test = offered(book, name)
    said = next(k for k, a in enumerate(test.answers) if a.startswith(words))
    own = {"test": name, "answer": said, "figure": figure, "seen": list(test.before)}
    book.do("fault tested", fault=F, **own)


def test_every_tree_that_ships_is_whole():
    """Twenty-two symptoms; each of its tests names causes that are there, each has causes."""
    trees = lore().symptom
    assert len(trees) == 22
    wanted = {"no_crank", "cranks_no_start", "no_oil_pressure", "pressure_late", "runs_hot"}
    wanted |= {"stalls_in_gear", "noise", "smoke", "no_charge", "clutch_drags", "pulls"}
    assert wanted <= {tree.id for tree in trees}
    assert all(tree.test and tree.stop for tree in trees)


def test_no_test_with_the_engine_forgets_the_usual():
    """Whatever the sheet lists: hands clear, chocked, nobody under it; running also air and the
    extinguisher.
    """
    for tree in lore().symptom:
        for test in tree.test:
            before = test.before()
            if test.engine in ("crank", "run"):
                assert {"wheels chocked", "nobody under it"} <= set(before), (tree.id, test.id)
            if test.engine in ("run", "lifted"):
                assert "extinguisher in reach" in before, (tree.id, test.id)
            assert len(set(before)) == len(before)


def test_a_test_leaves_the_causes_that_fit_its_answer(ill: Book):
    """Turned by hand it is easy: neither tight nor touching; a click with bright lamps leaves the
    starter or its earth.
    """
    assert len(facts(ill).causes) == 13
    answer(ill, "by_hand", "turns easily", "")
    left = {c.id for c in facts(ill).causes}
    assert left == {
        "battery", "paint_earth", "earth_lead", "starter_wire", "inhibit", "starter", "pinion",
    }  # fmt: skip
    assert facts(ill).tested[0].left == 7
    assert "by_hand" not in {t.id for t in facts(ill).tests}


def test_temporary_things_come_before_slips_and_slips_before_age(ill: Book):
    sorts = [c.sort for c in facts(ill).causes]
    order = ["temporary or left open", "changed in the rebuild", "age"]
    assert [order.index(s) for s in sorts] == sorted(order.index(s) for s in sorts)


def test_answers_that_contradict_are_said(ill: Book):
    answer(ill, "by_hand", "liquid", "")
    assert [c.id for c in facts(ill).causes] == ["liquid"]
    ill.do("strike", entry=ill.state.order[-1], reason="it was washing water")
    assert len(facts(ill).causes) == 13
    answer(ill, "by_hand", "liquid", "")
    # nothing is split any more: no test is offered for one cause
    assert facts(ill).tests == ()


def test_a_test_needs_everything_seen_and_a_reading_its_figure(ill: Book):
    test = offered(ill, "by_hand")
    own = {"fault": F, "test": "by_hand", "answer": 0}
    ill.refuse("not_seen", "fault tested", seen=list(test.before[:-1]), **own)
    ill.do("symptom said", fault="fault-0002", symptom="clutch_drags")
    travel = next(t for t in fault_of(ill.state, "fault-0002", ()).tests if t.id == "travel")
    own = {"fault": "fault-0002", "test": "travel", "answer": 0, "seen": list(travel.before)}
    ill.refuse("no_figure", "fault tested", figure="short", **own)
    ill.do("fault tested", figure="11 mm", **own)


def test_no_test_climbs_a_rung_that_is_shut(ill: Book):
    """This small build has nothing done: cranking is shut, and the act meets the same rule."""
    test = offered(ill, "posts")
    assert "crank" in [gate.rung for gate in gate_answers(ill.state) if gate.shut]
    held = facts(ill, ("crank",)).tests
    assert all(t.held == "Crank is shut" for t in held if t.engine == "crank")
    assert all(not t.held for t in held if t.engine == "still")
    own = {"fault": F, "test": "posts", "answer": 0, "seen": list(test.before)}
    ill.refuse("test_held", "fault tested", figure="12.4 V", **own)


def test_what_stops_it_keeps_the_engine_off(ill: Book):
    assert facts(ill).stops[0].when.startswith("stopped dead")
    ill.do("fault stop", fault=F, stop=0)
    held = {t.id: t.held for t in facts(ill).tests}
    assert held["posts"].startswith("stopped: stopped dead with a thud")
    assert held["by_hand"] == ""
    assert ill.open()[f"fault:{F}"] == "crank"
    assert faults_view(ill.state, ()).title == "The starter does not turn the engine: stopped"


def test_what_was_stopped_is_not_talked_away(ill: Book):
    ill.do("fault stop", fault=F, stop=0)
    for own in (
        {"what": "nothing", "how": "none"},
        {"cause": "battery", "how": "other"},
        {"what": "a noise", "how": "mended"},
    ):
        ill.refuse("stopped", "cause found", fault=F, done="tried it once more, gone", **own)
    ill.do(
        "cause found",
        fault=F,
        how="mended",
        cause="bolt_long",
        done="right length in, turns free by hand",
    )
    assert facts(ill).stopped == ()


def test_a_fault_shuts_the_next_rung_until_its_cause_is_found(ill: Book):
    assert ill.open()[f"fault:{F}"] == "fuel_on"
    ill.refuse("reason_thin", "cause found", fault=F, how="mended", cause="paint_earth", done="ok")
    line = ill.do(
        "cause found", fault=F, how="mended", cause="paint_earth", done="scraped bright, 0.05 V now"
    )
    assert line.body.line("").startswith("it was: paint, powder coat or gasket paste")
    assert f"fault:{F}" not in ill.open()
    assert facts(ill).ended
    with pytest.raises(Conflict):
        ill.do("cause found", fault=F, how="mended", cause="battery", done="charged over the night")


def test_a_cause_struck_is_a_fault_again(ill: Book):
    line = ill.do(
        "cause found", fault=F, how="mended", cause="battery", done="charged over the night"
    )
    ill.do("strike", entry=line.id, reason="it clicked again")
    assert not facts(ill).ended
    assert f"fault:{F}" in ill.open()


def test_a_stop_struck_lets_the_tests_go_on(ill: Book):
    line = ill.do("fault stop", fault=F, stop=1)
    ill.do("strike", entry=line.id, reason="it was the other cable")
    assert facts(ill).stopped == ()


def test_an_answer_may_lead_to_another_symptom():
    book = Book(small_sheet(), tools())
    book.do("symptom said", fault=F, symptom="clutch_drags")
    answer(book, "off_on", "not even so", "")
    assert facts(book).go == "no_gear"


def test_what_was_left_open_is_the_first_suspect(ill: Book):
    ill.do("confirmed", step="lead", what="Extinguisher at hand")
    ill.do("done", step="lead")
    assert changed_last(ill.state)[:2] == ("Lead off", "Coil off")


def test_faults_followed_up_come_first(ill: Book):
    ill.do(
        "cause found",
        fault=F,
        how="mended",
        what="the isolator was off",
        done="switched on, it cranked",
    )
    ill.do("symptom said", fault="fault-0002", symptom="smoke")
    assert [f.id for f in faults_of(ill.state, ())] == ["fault-0002", F]


def test_what_cannot_be(ill: Book):
    with pytest.raises(NotFound):
        ill.do("symptom said", fault="fault-0003", symptom="gremlins")
    with pytest.raises(Conflict):
        ill.do("symptom said", fault=F, symptom="smoke")
    for kind, own in (
        ("fault tested", {"test": "none", "answer": 0}),
        ("fault tested", {"test": "by_hand", "answer": 40}),
        ("fault stop", {"stop": 9}),
        ("cause found", {"cause": "none", "done": "looked at all of it", "how": "mended"}),
    ):
        with pytest.raises(NotFound):
            ill.do(kind, fault=F, **own)
    ill.refuse(
        "no_words", "cause found", fault=F, how="mended", what=" ", done="looked at all of it"
    )
    with pytest.raises(NotFound):
        ill.do(
            "cause found", fault="fault-none", how="mended", what="x", done="looked at all of it"
        )


GOOD = lore().symptom[0].model_dump()


@pytest.mark.parametrize(
    "wrong",
    [
        {"cause": [GOOD["cause"][0], GOOD["cause"][0]]},
        {"cause": [GOOD["cause"][0]]},
        {"cause": []},
        {"test": [GOOD["test"][0] | {"answer": [{"words": "nothing"}]}]},
        {"rungs": []},
    ],
)
def test_a_tree_that_is_not_whole_is_refused(wrong: dict):
    with pytest.raises(ValidationError):
        Symptom.model_validate(GOOD | wrong)


def test_lore_refuses_a_way_to_nowhere():
    data = lore().model_dump(mode="json")
    answer = {"words": "other", "go": "nowhere"}
    data["symptom"][0]["test"][0]["answer"].append(answer)
    with pytest.raises(ValidationError, match="goes to nowhere"):
        Lore.model_validate(data)


def test_how_it_ended_is_said_and_read_back(ill: Book):
    """Nothing says *mended* by itself; what was nothing reads so in the log."""
    with pytest.raises(ValidationError):
        ill.do("cause found", fault=F, what="the isolator", done="looked at all of it")
    line = ill.do(
        "cause found", fault=F, how="none", what="a click of the relay", done="heard it twice cold"
    )
    assert line.body.line("").startswith("nothing: a click of the relay")
