"""The first start rehearsed: a deal follows from its seed, and the hand is judged by what was told
and when.
"""

import pytest
from pydantic import ValidationError

from hollet.core.running.rehearsal import GRACE_S, HandAct, Scene, deal, judge_hand
from hollet.library.lore import lore

SCENES = lore().scene
FAULTS = [scene.id for scene in SCENES if scene.due_s is not None]


def hand(*acts: tuple[float, str]) -> tuple[HandAct, ...]:
    return tuple(HandAct(at_s=at, what=what) for at, what in acts)


def judged(fault: str | None, *acts: tuple[float, str], seed: int = 7):
    return judge_hand(SCENES, seed, fault, hand(*acts))


def test_seven_faults_ship_and_one_start_with_nothing_wrong():
    assert len(FAULTS) == 7
    assert [s.id for s in SCENES if s.due_s is None] == ["healthy"]


def test_the_same_seed_is_the_same_start():
    assert deal(SCENES, 4471) == deal(SCENES, 4471)
    assert len({deal(SCENES, seed).model_dump_json() for seed in range(30)}) == 30


def test_every_fault_is_dealt_and_sometimes_nothing_is_wrong():
    """Of 800 deals about one in eight has nothing wrong, and each fault comes up."""
    found = [judged(None, (60.0, "key"), seed=seed).fault for seed in range(800)]
    assert set(found) == {*FAULTS, "healthy"}
    assert 50 <= found.count("healthy") <= 160
    assert min(found.count(fault) for fault in FAULTS) > 40


def test_no_deal_names_its_fault():
    for scene in SCENES:
        told = deal(SCENES, 5, scene.id).model_dump_json().casefold()
        assert scene.name.casefold() not in told.replace(scene.intro.casefold(), "")
        assert f'"{scene.id}"' not in told


def test_late_is_counted_from_the_moment_it_was_due():
    """Due at 5 s, back at 8.1: 3.1 late; at 1340 a minute that is 69 turns."""
    played = judged("no_pressure", (2.2, "coolant"), (3.9, "rpm"), (6.4, "oil"), (8.1, "key"))
    assert (played.due_s, played.late_s, played.in_time) == (5.0, pytest.approx(3.1), False)
    assert played.title == "Key back 3.1 s after it was due"
    assert played.cost.startswith("1340 turns a minute, 69 turns in 3.1 s")
    assert [(x.what, x.at_s) for x in played.looked] == [
        ("coolant", 2.2),
        ("revs", 3.9),
        ("oil", 6.4),
    ]
    assert played.missed == ("lamp still on, from 1.6 s",)
    assert played.right_at == 6.4


@pytest.mark.parametrize(
    ("key", "in_time"), [(4.9, True), (5.0, True), (5.0 + GRACE_S, True), (6.01, False)]
)
def test_in_time_is_to_a_second_after_it_was_due(key: float, in_time: bool):
    assert judged("no_pressure", (key, "key")).in_time is in_time


def test_a_key_turned_back_before_anything_told_is_no_skill():
    played = judged("no_pressure", (1.2, "key"))
    assert (played.late_s, played.in_time) == (None, False)
    assert "before anything told you" in played.title


def test_a_key_never_turned_back_is_late_to_the_end():
    played = judged("no_pressure", (3.0, "oil"))
    assert (played.key_s, played.late_s) == (None, pytest.approx(9.0))
    assert played.title == "The key was not turned back"


def test_pressure_that_comes_late_is_no_excuse():
    played = judged("late_pressure", (9.0, "oil"), (9.5, "key"))
    assert (played.in_time, played.late_s) == (False, pytest.approx(4.5))
    assert "nobody at the key can know" in played.cost


def test_nothing_wrong_is_right_when_it_runs_on():
    assert judged("healthy").in_time
    early = judged("healthy", (4.0, "key"))
    assert (early.in_time, early.late_s) == (False, None)
    assert early.title == "Key back at 4.0 s: nothing was wrong"


def test_what_happened_after_the_key_counts_for_nothing():
    played = judged("no_pressure", (5.5, "key"), (6.0, "oil"))
    assert played.looked == ()
    assert all(tell.at_s <= 5.5 for tell in played.tells)


def test_a_look_before_it_told_is_not_having_seen_it():
    played = judged("heat", (1.0, "coolant"), (30.0, "key"))
    assert any("climbs" in words for words in played.missed)


@pytest.mark.parametrize("fault", ["fuel_leak", "heat", "revs", "silent"])
def test_a_fault_comes_when_the_seed_has_it_and_everything_with_it(fault: str):
    scene = next(s for s in SCENES if s.id == fault)
    dues = {judged(fault, (60.0, "key"), seed=seed).due_s for seed in range(40)}
    assert len(dues) > 5
    assert all(scene.due_s <= due <= scene.due_s + scene.shifts_s for due in dues)
    for seed in (1, 2, 3):
        played = judged(fault, (60.0, "key"), seed=seed)
        shifted = played.due_s - scene.due_s
        assert played.tells[0].at_s == pytest.approx(scene.tell[0].at_s + shifted)


def test_the_courses_show_what_the_fault_is():
    """Read off the points: no pressure stays under 0.4 bar, the limit of heat is crossed as it is
    due, the silent gauge says nothing, the lying lamp is out with no pressure.
    """
    dry = deal(SCENES, 3, "no_pressure")
    assert max(dry.oil) < 0.4
    assert all(dry.lamp)
    hot, due = deal(SCENES, 3, "heat"), judged("heat", seed=3).due_s
    assert hot.coolant[round(due / hot.beat_s)] == pytest.approx(105, abs=0.6)
    quiet = deal(SCENES, 3, "silent")
    assert quiet.oil[0] is not None
    assert quiet.oil[-1] is None
    liar = deal(SCENES, 3, "lamp_lies")
    assert not liar.lamp[50]
    assert liar.oil[50] < 0.5
    wet = deal(SCENES, 3, "fuel_leak")
    assert wet.wet_s is not None
    assert {tell.sense for tell in wet.tells} == {"nose", "ear"}


def test_all_courses_are_as_long_as_the_start():
    for scene in SCENES:
        dealt = deal(SCENES, 11, scene.id)
        lengths = {len(dealt.rpm), len(dealt.oil), len(dealt.coolant), len(dealt.lamp)}
        assert lengths == {round(dealt.ends_s / dealt.beat_s) + 1}


def test_a_scene_that_cannot_be_is_refused():
    good = SCENES[0].model_dump()
    with pytest.raises(ValidationError):
        Scene.model_validate(good | {"rpm": [(0, 1), (0, 2)]})
    with pytest.raises(ValidationError):
        Scene.model_validate(good | {"tell": []})
