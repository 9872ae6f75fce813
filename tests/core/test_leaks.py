"""Leaks: seen, mended within what a joint may bear, cleared only by clean looks at what it was at;
fluids on their way from empty to a level that holds.
"""

import pytest

from hollet.core.book.filled import bleeding_of, fluid_rows
from hollet.core.book.gates import gate_answers
from hollet.core.book.leaks import leak_places, open_look, place_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.library.lore import lore
from hollet.screens.leaks import leaks_view
from tests.support import SMALL, Book, small_sheet, tools

FLUIDS = """
[[fluid]]
id = "petrol"
name = "Fuel"
runs_out = "at the line"
kind = "fuel"

[[fluid]]
id = "oil_f"
name = "Oil"
runs_out = "at the plug"
kind = "oil"

[[fluid]]
id = "water_f"
name = "Coolant"
runs_out = "at the hose"
kind = "coolant"

[[fluid]]
id = "box"
name = "Gearbox oil"
runs_out = "at the tail"
kind = "gear"
"""
HEAD, _, REST = SMALL.partition("[[step]]")
SHEET = HEAD + FLUIDS + "\n[[step]]" + REST
UNION = "fuel:union-2"


@pytest.fixture
def leaky() -> Book:
    return Book(small_sheet(SHEET), tools())


def press(book: Book, fluid: str = "fuel", **more: object) -> str:
    """Under pressure, everything seen before; the id of the look."""
    seen = book.state.lore.system(fluid).needs
    own = {"heat": "cold"} | more
    return book.do("look begun", fluid=fluid, way="pressed", seen=seen, **own).id


def off(book: Book, look: str, **more: object) -> None:
    book.do("look ended", look=look, **more)


def wet(book: Book, look: str | None, grade: str = "run", name: str = "Union 2", **more: object):
    own = {"joint": "flare", "fluid": "fuel"} | more
    return book.do("leak seen", name=name, grade=grade, look=look, **own)


def dry(book: Book, look: str, place: str = UNION) -> None:
    fluid = place.partition(":")[0]
    book.do("leak seen", fluid=fluid, place=place, grade="dry", look=look)


def seen_dry(book: Book, fluid: str = "fuel", place: str = UNION, **more: object) -> None:
    """A whole clean look, its time kept."""
    look = press(book, fluid, **more)
    book.later(0.3)
    dry(book, look, place)
    off(book, look)


def rung(book: Book) -> str:
    place = place_of(book.state, UNION)
    assert place is not None
    return place.blocks


def running(book: Book, attempt: str = "attempt-9") -> None:
    book.do("attempt started", step="fire", attempt=attempt, isolated=[], reason="to look for it")


def stopped(book: Book, attempt: str = "attempt-9") -> None:
    told = {"reason": "looked at it", "cause": "the leak", "change": "nothing yet"}
    book.do("attempt ended", step="fire", attempt=attempt, after_s=20, **told)


def leaked_and_nipped(book: Book) -> None:
    look = press(book)
    wet(book, look)
    off(book, look)
    book.do("leak mended", place=UNION, how="nipped", turn="45 deg")


def test_a_leak_shuts_the_rung_that_needs_the_system_whole(leaky: Book):
    look = press(leaky, pressure="2.4 bar")
    line = wet(leaky, look)
    assert line.body.line("") == "Union 2: runs (under pressure, cold)"
    assert rung(leaky) == "fire"
    fire = next(g for g in gate_answers(leaky.state) if g.rung == "fire")
    assert any("Union 2: runs" in reason for reason in fire.reasons)


def test_nothing_is_tightened_under_pressure(leaky: Book):
    look = press(leaky)
    wet(leaky, look)
    leaky.refuse("pressure_up", "leak mended", place=UNION, how="nipped", turn="45 deg")
    off(leaky, look)
    leaky.do("leak mended", place=UNION, how="nipped", turn="45 deg")


def test_a_joint_is_nipped_once_and_no_further_than_it_may_be(leaky: Book):
    look = press(leaky)
    wet(leaky, look)
    off(leaky, look)
    leaky.refuse("force_limit", "leak mended", place=UNION, how="nipped", turn="61 deg")
    leaky.refuse("no_turn", "leak mended", place=UNION, how="nipped")
    leaky.do("leak mended", place=UNION, how="nipped", turn="30 deg")
    look = press(leaky)
    wet(leaky, look, place=UNION, grade="damp")
    off(leaky, look)
    place = place_of(leaky.state, UNION)
    assert (place.used, place.may_nip) == (30, False)
    assert "apart" in place.wants
    leaky.refuse("force_limit", "leak mended", place=UNION, how="nipped", turn="10 deg")


def test_a_nip_beyond_the_limit_that_happened_is_told_and_never_cleared_so(leaky: Book):
    look = press(leaky)
    wet(leaky, look)
    off(leaky, look)
    leaky.do("leak mended", place=UNION, how="nipped", turn="90 deg", sure=True)
    assert "drawn further than it may be" in place_of(leaky.state, UNION).wants
    leaky.do("leak mended", place=UNION, how="apart", words="new pipe end")
    assert place_of(leaky.state, UNION).used == 0


@pytest.mark.parametrize("joint", ["paste", "lip", "ring", "plastic", "core"])
def test_what_seals_by_itself_is_not_tightened_at_all(leaky: Book, joint: str):
    look = press(leaky)
    wet(leaky, look, joint=joint)
    off(leaky, look)
    leaky.refuse("force_limit", "leak mended", place=UNION, how="nipped", turn="10 deg")


@pytest.mark.parametrize("joint", ["banjo", "plug", "gasket"])
def test_a_joint_with_its_figure_is_drawn_to_it_once(leaky: Book, joint: str):
    look = press(leaky)
    wet(leaky, look, joint=joint)
    off(leaky, look)
    leaky.do("leak mended", place=UNION, how="nipped")
    leaky.refuse("force_limit", "leak mended", place=UNION, how="nipped")


def test_dry_is_said_only_when_the_look_has_lasted_its_time(leaky: Book):
    """120 s for fuel; ten seconds pass with each line."""
    leaked_and_nipped(leaky)
    look = press(leaky)
    leaky.refuse("too_soon", "leak seen", fluid="fuel", place=UNION, grade="dry", look=look)
    leaky.refuse("too_soon", "look ended", look=look, clean=True)
    leaky.later(0.1)
    dry(leaky, look)
    off(leaky, look, clean=True)
    with pytest.raises(Refused):
        dry(leaky, look)  # the pressure is off


def test_fuel_that_ran_needs_three_clean_looks_one_hot_one_after_a_cold_night(leaky: Book):
    leaked_and_nipped(leaky)
    assert rung(leaky) == "fire"
    seen_dry(leaky)
    assert rung(leaky) == "fire"  # brake and fuel never by one look
    seen_dry(leaky)
    assert rung(leaky) == "drive"
    seen_dry(leaky, heat="hot", temperature="82")
    place = place_of(leaky.state, UNION)
    assert (place.cleared, place.wants) == (False, "seen dry after a cold night")
    leaky.later(7)
    seen_dry(leaky)
    assert place_of(leaky.state, UNION).cleared
    assert rung(leaky) == "nothing"


def test_one_look_is_one_look_however_often_it_is_pressed(leaky: Book):
    leaked_and_nipped(leaky)
    look = press(leaky)
    leaky.later(0.1)
    dry(leaky, look)
    dry(leaky, look)
    assert rung(leaky) == "fire"


def test_a_look_without_pressure_clears_nothing_that_was_under_pressure(leaky: Book):
    leaked_and_nipped(leaky)
    for _ in range(4):
        leaky.later(8)
        leaky.do("leak seen", fluid="fuel", place=UNION, grade="dry")
    assert rung(leaky) == "fire"
    assert "seen dry under pressure, cold" in place_of(leaky.state, UNION).wants


def test_cold_never_clears_hot_and_standing_never_running(leaky: Book):
    running(leaky)
    look = leaky.do(
        "look begun",
        fluid="oil",
        way="running",
        heat="hot",
        temperature="85 °C",
        seen=leaky.state.lore.system("oil").needs,
    ).id
    wet(leaky, look, grade="drop", name="Filter", fluid="oil", joint="filter", drops=12)
    stopped(leaky)
    off(leaky, look)
    place = "oil:filter"
    leaky.do("leak mended", place=place, how="apart", words="second seal found on the face")
    for _ in range(3):
        leaky.later(7)
        seen_dry(leaky, "oil", place)
    found = place_of(leaky.state, place)
    assert not found.cleared
    assert "seen dry running, hot" in found.wants
    assert found.blocks == "gear"  # it has to run again to be looked at


def test_running_and_hot_are_said_only_where_it_ran(leaky: Book):
    seen = leaky.state.lore.system("oil").needs
    leaky.refuse("not_running", "look begun", fluid="oil", way="running", heat="cold", seen=seen)
    hot = {"fluid": "oil", "way": "pressed", "heat": "hot", "seen": seen}
    leaky.refuse("not_hot", "look begun", **hot)
    running(leaky)
    leaky.later(0.01)
    stopped(leaky)
    leaky.refuse("not_hot", "look begun", **hot)  # half a minute heats nothing
    leaky.refuse("not_hot", "look begun", temperature="41 °C", **hot)
    line = leaky.do("look begun", temperature="172 °F", **hot).body.line("")
    assert line == "Oil under pressure, hot, read at 172 °F: looked at for leaks"


def test_a_run_makes_it_hot_for_an_hour(leaky: Book):
    """By the coolant that was read last, or by ten minutes of running where none was."""
    hot = {
        "fluid": "oil",
        "way": "pressed",
        "heat": "hot",
        "seen": leaky.state.lore.system("oil").needs,
    }
    running(leaky, "attempt-1")
    leaky.do("samples", step="fire", attempt="attempt-1", samples=[{"t": 9, "coolant": "88 °C"}])
    stopped(leaky, "attempt-1")
    off(leaky, leaky.do("look begun", **hot).id)
    leaky.later(1.1)
    leaky.refuse("not_hot", "look begun", **hot)
    running(leaky, "attempt-2")
    leaky.later(0.2)
    off(leaky, leaky.do("look begun", **hot).id)
    stopped(leaky, "attempt-2")
    running(leaky, "attempt-3")
    leaky.do("samples", step="fire", attempt="attempt-3", samples=[{"t": 700, "coolant": "38 °C"}])
    stopped(leaky, "attempt-3")
    leaky.later(0.9)
    leaky.refuse("not_hot", "look begun", **hot)


def test_hot_is_not_called_cold(leaky: Book):
    """After a run that made it hot it is cold by hours, or by what is read there."""
    cold = {
        "fluid": "oil",
        "way": "pressed",
        "heat": "cold",
        "seen": leaky.state.lore.system("oil").needs,
    }
    running(leaky, "attempt-1")
    leaky.do("samples", step="fire", attempt="attempt-1", samples=[{"t": 9, "coolant": "88 °C"}])
    stopped(leaky, "attempt-1")
    leaky.later(2)
    leaky.refuse("not_cold", "look begun", **cold)
    level = {"fluid": "oil", "level": "at", "attitude": "level"}
    leaky.refuse("not_cold", "level said", heat="cold", **level)
    leaky.do("level said", heat="hot", **level)
    leaky.refuse("not_cold", "look begun", temperature="55 °C", **cold)
    off(leaky, leaky.do("look begun", temperature="35 °C", **cold).id)
    leaky.later(2.1)
    off(leaky, leaky.do("look begun", **cold).id)


def test_lukewarm_is_cold_only_while_it_warms(leaky: Book):
    """Three minutes without a reading of the coolant: running it is looked at as cold, stopped it
    is warm; half a minute warms nothing.
    """
    seen = leaky.state.lore.system("oil").needs
    cold = {"fluid": "oil", "heat": "cold", "seen": seen}
    running(leaky, "attempt-1")
    leaky.later(0.05)
    off(leaky, leaky.do("look begun", way="running", **cold).id)
    stopped(leaky, "attempt-1")
    leaky.refuse("not_cold", "look begun", way="pressed", **cold)
    leaky.later(4.1)
    running(leaky, "attempt-2")
    leaky.later(0.01)
    stopped(leaky, "attempt-2")
    off(leaky, leaky.do("look begun", way="pressed", **cold).id)


def test_made_anew_it_is_not_dry_till_it_was_looked_at(leaky: Book):
    """Dripped, nipped, damp, apart: what it leaked before it was made anew still counts."""
    look = press(leaky, "oil")
    wet(leaky, look, grade="drop", fluid="oil")
    off(leaky, look)
    place = "oil:union-2"
    leaky.do("leak mended", place=place, how="nipped", turn="30 deg")
    look = press(leaky, "oil")
    leaky.do("leak seen", fluid="oil", place=place, grade="damp", look=look)
    off(leaky, look)
    leaky.do("leak mended", place=place, how="apart")
    found = place_of(leaky.state, place)
    assert (found.grade, found.blocks) == ("drop", "fire")


def test_each_thing_is_seen_before_the_pressure_goes_up(leaky: Book):
    needs = leaky.state.lore.system("fuel").needs
    own = {"fluid": "fuel", "way": "pressed", "heat": "cold"}
    leaky.refuse("not_seen", "look begun", seen=needs[:-1], **own)
    press(leaky)
    with pytest.raises(Conflict):
        press(leaky)


def test_damp_oil_is_a_watch_and_damp_fuel_a_leak(leaky: Book):
    look = press(leaky, "oil")
    wet(leaky, look, grade="damp", name="Cover", fluid="oil", joint="gasket")
    assert place_of(leaky.state, "oil:cover").blocks == "nothing"
    look = press(leaky)
    wet(leaky, look, grade="damp")
    assert rung(leaky) == "fire"


def test_doubtful_is_wiped_and_looked_at_again_after_ten_minutes(leaky: Book):
    look = press(leaky, "oil")
    wet(leaky, look, "drop", name="Cover", fluid="oil", joint="gasket", sure="doubtful")
    off(leaky, look)
    place = "oil:cover"
    assert place_of(leaky.state, place).wants == "wipe it dry, and look at 1 min and at 10 min"
    leaky.do("leak mended", place=place, how="wiped")
    look = press(leaky, "oil")
    leaky.later(0.02)
    dry(leaky, look, place)
    off(leaky, look)
    assert not place_of(leaky.state, place).cleared
    leaky.later(0.2)
    seen_dry(leaky, "oil", place)
    assert place_of(leaky.state, place).cleared


def test_doubtful_fuel_counts_as_certain(leaky: Book):
    look = press(leaky)
    wet(leaky, look, "drop", sure="doubtful")
    off(leaky, look)
    leaky.do("leak mended", place=UNION, how="wiped")
    seen_dry(leaky)
    seen_dry(leaky)
    assert rung(leaky) == "fire"  # wiping mends nothing


def test_one_grade_lower_is_not_clean(leaky: Book):
    leaked_and_nipped(leaky)
    look = press(leaky)
    wet(leaky, look, "damp", place=UNION)
    off(leaky, look)
    assert place_of(leaky.state, UNION).grade == "run"
    leaky.do("leak mended", place=UNION, how="apart")
    for _ in range(2):
        seen_dry(leaky)
    assert not place_of(leaky.state, UNION).cleared


def test_a_leak_seen_while_it_ran_waits_until_somebody_says_where(leaky: Book):
    running(leaky)
    leaky.do("samples", step="fire", attempt="attempt-9", samples=[{"t": 4, "seen": "fuel leak"}])
    stopped(leaky)
    assert any(i.startswith("leak:attempt") for i in leaky.open())
    assert (
        leaks_view(leaky.state, leaky.now.date()).title
        == "A leak was seen, and nobody has said where"
    )
    wet(leaky, None, attempt="attempt-9")
    assert not any(i.startswith("leak:attempt") for i in leaky.open())
    assert place_of(leaky.state, UNION).at == "running, cold"


def test_a_leak_struck_a_day_later_is_none(leaky: Book):
    look = press(leaky)
    line = wet(leaky, look)
    off(leaky, look)
    leaky.do("strike", entry=line.id, reason="it was cleaner, not fuel")
    assert place_of(leaky.state, UNION) is None


def test_a_clean_look_struck_counts_no_more(leaky: Book):
    leaked_and_nipped(leaky)
    seen_dry(leaky)
    look = press(leaky)
    leaky.later(0.1)
    line = leaky.do("leak seen", fluid="fuel", place=UNION, grade="dry", look=look)
    assert rung(leaky) == "drive"
    leaky.do("strike", entry=line.id, reason="it was the other union")
    assert rung(leaky) == "fire"


def test_a_look_struck_takes_its_clean_looks_with_it(leaky: Book):
    """The pump had not been on at all: what was called dry then was dry without pressure."""
    leaked_and_nipped(leaky)
    seen_dry(leaky)
    seen_dry(leaky)
    assert rung(leaky) == "drive"
    begun = next(e for e in leaky.state.live("fluid", "fuel")[::-1] if e.kind == "look begun")
    leaky.do("strike", entry=begun.id, reason="the pump was not on")
    assert rung(leaky) == "fire"


def test_a_look_left_open_over_night_calls_nothing_dry(leaky: Book):
    leaked_and_nipped(leaky)
    look = press(leaky)
    leaky.later(8)
    leaky.refuse("too_old", "leak seen", fluid="fuel", place=UNION, grade="dry", look=look)
    leaky.refuse("too_old", "look ended", look=look, clean=True)
    off(leaky, look)


def test_running_is_looked_at_while_it_runs(leaky: Book):
    """The engine was stopped, the look was not ended: dry then says nothing of running."""
    running(leaky)
    seen = leaky.state.lore.system("oil").needs
    look = leaky.do("look begun", fluid="oil", way="running", heat="cold", seen=seen).id
    wet(leaky, look, grade="drop", name="Filter", fluid="oil", joint="filter")
    off(leaky, look)
    leaky.do("leak mended", place="oil:filter", how="apart")
    look = leaky.do("look begun", fluid="oil", way="running", heat="cold", seen=seen).id
    stopped(leaky)
    leaky.later(0.1)
    own = {"fluid": "oil", "place": "oil:filter", "grade": "dry", "look": look}
    leaky.refuse("not_running", "leak seen", **own)


def test_what_cannot_be(leaky: Book):
    look = press(leaky, "oil")
    leaky.refuse("other_system", "leak seen", fluid="fuel", name="Rail", grade="run", look=look)
    leaky.refuse("never_wet", "leak seen", fluid="oil", name="Rail", grade="dry", look=look)
    leaky.refuse("no_words", "leak seen", fluid="oil", name=" ", grade="run", look=look)
    for kind, own in (
        ("leak seen", {"fluid": "oil", "place": "oil:none", "grade": "run"}),
        ("leak seen", {"fluid": "oil", "name": "Rail", "grade": "run", "look": "none"}),
        ("leak seen", {"fluid": "oil", "name": "Rail", "grade": "run", "joint": "none"}),
        ("leak seen", {"fluid": "oil", "name": "Rail", "grade": "run", "attempt": "none"}),
        ("leak mended", {"place": "oil:none", "how": "apart"}),
        ("look ended", {"look": "none"}),
    ):
        with pytest.raises(NotFound):
            leaky.do(kind, **own)
    off(leaky, look)
    with pytest.raises(Conflict):
        off(leaky, look)
    assert open_look(leaky.state, "oil") is None


# ---- the table of fluids ----


def row(book: Book, fluid: str):
    return next(r for r in fluid_rows(book.state) if r.fluid == fluid)


def test_a_fluid_goes_from_empty_to_a_level_that_holds(leaky: Book):
    assert (row(leaky, "oil").filled, row(leaky, "oil").primed) == ("to come", "to come")
    leaky.read("oil_in", "oil_in", "4.2 L", tool="j1")
    leaky.do("confirmed", step="oil_in", what="At the mark")
    leaky.do("done", step="oil_in")
    leaky.do("level said", fluid="oil", level="at", attitude="level", heat="cold")
    found = row(leaky, "oil")
    assert (found.filled, found.level, found.amounts) == ("done", "done", "4.2 in")
    running(leaky)
    stopped(leaky)
    assert row(leaky, "oil").level == "at"
    assert row(leaky, "oil").words == "level again: it has run since"


@pytest.mark.parametrize(
    ("said", "mark"),
    [
        ({"level": "below", "attitude": "level"}, "at"),
        ({"level": "over", "attitude": "level"}, "at"),
        ({"level": "at", "attitude": "nose up"}, "at"),
        ({"level": "at", "attitude": "on its own base"}, "done"),
    ],
)
def test_a_level_counts_as_it_was_read(leaky: Book, said: dict[str, str], mark: str):
    leaky.do("level said", fluid="oil", heat="cold", **said)
    assert row(leaky, "oil").level == mark


def test_a_gearbox_is_full_when_it_runs_over(leaky: Book):
    leaky.do("level said", fluid="gear", level="over", attitude="level", heat="cold")
    assert row(leaky, "gear").level == "done"
    leaky.refuse(
        "not_running",
        "level said",
        fluid="gear",
        level="at",
        attitude="level",
        heat="cold",
        running=True,
    )


def test_what_differs_between_in_and_out_is_explained(leaky: Book):
    leaky.do("fluid moved", fluid="gear", way="out", amount="1.6 L")
    leaky.do("fluid moved", fluid="gear", way="in", amount="2 L", grade="75W-90")
    assert row(leaky, "gear").words == "say why they differ"
    leaky.do("fluid moved", fluid="gear", way="in", amount="0.1 L", words="the transfer box shares")
    found = row(leaky, "gear")
    assert (found.words, found.grade) == ("", "75W-90")
    assert found.amounts == "2.1 in, 1.6 out: the transfer box shares"
    leaky.refuse("empty", "fluid moved", fluid="gear", way="in", amount=" ")
    leaky.refuse("bad_number", "fluid moved", fluid="gear", way="in", amount="0 L")


@pytest.mark.parametrize(
    ("came", "bled", "stop"),
    [
        (["air", "foam", "clear", "clear"], True, False),
        (["air", "clear", "air"], False, False),
        (["nothing", "nothing", "nothing"], False, True),
        (["air"] * 5, False, True),
        (["air"] * 4, False, False),
        (["clear"], False, False),
        ([], False, False),
    ],
)
def test_bleeding_ends_clear_twice_or_stops(leaky: Book, came: list[str], bled: bool, stop: bool):
    for what in came:
        leaky.do("bleed cycle", fluid="coolant", came=what)
    found = bleeding_of(leaky.state, "coolant")
    assert (found.bled, found.stop, found.cycles) == (bled, stop, len(came))
    assert ("look for the leak" in found.words) == stop


def test_a_leak_shows_in_the_table(leaky: Book):
    look = press(leaky)
    wet(leaky, look)
    assert row(leaky, "fuel").free == 3  # power on, crank and fuel on
    assert leaks_view(leaky.state, leaky.now.date()).title == "Union 2, look 2: what do you see?"
    leaky.later(0.1)
    off(leaky, look)
    look = press(leaky)
    leaky.later(0.1)
    off(leaky, look, clean=True)
    assert row(leaky, "fuel").dry_at == "seen dry under pressure, cold"


def test_every_system_says_how_it_is_looked_at_and_bled():
    for system in lore().leak_system:
        assert system.needs
        assert system.hold_s("running") <= system.hold_s("pressed") or system.kind == "oil"
    nothing = [j.id for j in lore().leak_joint if j.most_deg is None and j.once is None]
    assert set(nothing) >= {"paste", "lip", "ring", "plastic", "core"}


def test_places_that_wait_come_first(leaky: Book):
    look = press(leaky, "oil")
    wet(leaky, look, "damp", name="Cover", fluid="oil", joint="gasket")
    wet(leaky, look, "run", name="Sump", fluid="oil", joint="gasket")
    assert [p.name for p in leak_places(leaky.state)] == ["Cover", "Sump"]
