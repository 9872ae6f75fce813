"""The register of ties, and the walk round a unit that is in: nothing is ticked that nobody saw."""

import pytest

from hollet.core.book.sweeping import sweep_of
from hollet.core.book.ties import ties
from hollet.core.entries import Swept
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound
from tests.support import Book, small_sheet, tools

TIED = """
[sheet]
id = "tied"
title = "Tied"
about = "Two plugs alike, a fuel line, a box that goes back."

[[step]]
id = "plugs_off"
stage = "take_down"
kind = "check"
title = "Plugs off"
do = "Off."
unties = ["loom"]
opens = [
  { id = "upper", what = "Upper plug", blocks = "fire", undo = "on", sort = "tied", where = "aft" },
  { id = "lower", what = "Lower plug", blocks = "fire", undo = "on", sort = "tied" },
  { id = "hole", what = "Hole of the lever", blocks = "gear", undo = "shut it", sort = "cover" }]
[[step.capture]]
id = "plug_wires"
what = "Plugs"
kind = "wires"
because = "they are alike"

[[step]]
id = "throttle_off"
stage = "take_down"
kind = "check"
title = "Throttle rod off"
do = "Off."
unties = ["throttle"]

[[step]]
id = "box_in"
stage = "fit_in"
kind = "fit"
title = "Box in"
do = "In."
moves = "hub"

[[step]]
id = "plugs_on"
stage = "fit_in"
kind = "connect"
title = "Plugs on"
do = "On."
closes = ["upper", "lower", "hole"]

[[step]]
id = "throttle_on"
stage = "fit_in"
kind = "connect"
title = "Throttle rod on"
do = "On."
refits = ["throttle_off"]

[[step]]
id = "box_held"
stage = "fit_in"
kind = "fit"
title = "Box on its mounts"
do = "On."
carries = [{ body = "gearbox", by = "mounts" }]

[[step]]
id = "walk"
stage = "wake"
kind = "check"
title = "Walked round"
do = "Walk."
blocks = "power_on"
sweep = [{ id = "pinched", at = "Left", what = "Loom at the mount", kind = "trapped" },
  { id = "clip", at = "Left", what = "Bearing's clip", kind = "clip" },
  { id = "strap", at = "Below", what = "Earth strap", kind = "on" }]
"""


@pytest.fixture
def made() -> Book:
    book = Book(small_sheet(TIED), tools())
    wires = [
        {"terminal": "upper", "colour": "brown"},
        {"terminal": "lower", "colour": "brown/white"},
    ]
    told = {"capture": "plug_wires", "what": "Plugs", "capture_kind": "wires", "wires": wires}
    book.do("captured", step="plugs_off", **told)
    for step in ("plugs_off", "throttle_off"):
        book.do("done", step=step)
    return book


def states(book: Book) -> dict[str, str]:
    return {row.item: row.state for row in ties(book.state)}


def back(book: Book) -> None:
    book.do("compared", step="plugs_on", capture="plug_wires", same=True)
    for step in ("box_in", "plugs_on", "throttle_on"):
        book.do("done", step=step)


def walked(book: Book, **found: str) -> None:
    for place in ({"left": ["pinched", "clip"]}, {"below": ["strap"]}):
        for name, things in place.items():
            book.do("swept", step="walk", things=things, found=found.get(name, "right"))


def swept(book: Book) -> list[tuple[str, str]]:
    return [(o.words, o.by) for o in book.in_the_way("walk") if o.code == "swept"]


def test_each_line_stands_in_the_register(made: Book):
    """Ends and rods are in it, a covered hole is not; where the sheet tucked it and what was kept
    stand beside it.
    """
    assert states(made) == {"upper": "off", "lower": "off", "at-throttle_off": "off"}
    upper, *_ = ties(made.state)
    assert upper.tucked == "aft"
    assert upper.kept == ("Plugs: upper: brown; lower: brown/white",)
    assert upper.words.endswith("Plugs on")
    made.refuse("tie_off", "tie proven", item="upper", how="seen")
    with pytest.raises(NotFound):
        made.do("tie told", item="hole", label="H")


def test_back_is_not_proven(made: Book):
    back(made)
    assert set(states(made).values()) == {"back"}
    made.do("tie proven", item="upper", how="pulled")
    made.refuse("no_words", "tie proven", item="at-throttle_off", how="measured")
    made.do("tie proven", item="at-throttle_off", how="measured", words="full throttle at the stop")
    assert states(made) == {"upper": "proven", "lower": "back", "at-throttle_off": "proven"}
    assert not [item for item in made.open() if item.startswith("tie:")]


def test_a_pull_does_not_tell_two_alike_apart(made: Book):
    """What looks like another shuts the rung of its end until it is seen, and no reason passes it
    on the walk.
    """
    made.refuse("no_words", "tie told", item="upper", tucked=" ")
    made.do("tie told", item="upper", label="7", alike="the lower plug")
    back(made)
    walked(made)
    assert made.open()["tie:upper"] == "fire"
    assert ("Upper plug: back, not proven, looks like the lower plug", "nothing") in swept(made)
    made.refuse("alike", "tie proven", item="upper", how="pulled")
    made.refuse("no_words", "tie proven", item="upper", how="seen", right=False)
    made.do("tie proven", item="upper", how="seen", right=False, words="brown/white")
    assert made.open()["tie:upper"] == "fire"
    assert states(made)["upper"] == "wrong"
    made.do("tie proven", item="upper", how="seen", words="label 7, brown")
    assert "tie:upper" not in made.open()


def test_parted_again_is_proven_anew(made: Book):
    back(made)
    made.do("tie proven", item="upper", how="seen")
    made.do("reopened", step="plugs_on", reason="the pump comes out once more")
    again = {"item": "upper", "what": "Upper plug", "blocks": "fire", "sort": "disconnected"}
    made.do("left open", step="plugs_on", **again)
    assert states(made)["upper"] == "off"
    made.do("undone", item="upper")
    assert states(made)["upper"] == "back"


def test_the_walk_needs_every_place(made: Book):
    back(made)
    for item in ("upper", "lower", "at-throttle_off"):
        made.do("tie proven", item=item, how="seen")
    made.refuse("not_complete", "done", step="walk")
    made.refuse("one_place", "swept", step="walk", things=["pinched", "strap"], found="right")
    made.refuse("no_words", "swept", step="walk", things=["strap"], found="not there")
    made.do("swept", step="walk", things=["pinched"], found="right")
    assert swept(made) == [("not looked at: Left: Bearing's clip, and 1 more", "reason")]
    walked(made)
    made.do("done", step="walk")


def test_what_is_trapped_shuts_its_rung_by_whatever_way(made: Book):
    """No reason and no skipping passes what was found wrong; only a look that finds it right."""
    back(made)
    walked(made, left="wrong")
    assert ("not right: Loom at the mount: trapped", "nothing") in swept(made)
    made.refuse("not_complete", "done", step="walk", reason="it has always been like that")
    made.do("skipped", step="walk", reason="no time for it this evening")
    assert made.open()["swept:walk/pinched"] == "power_on"
    walked(made)
    assert "swept:walk/pinched" not in made.open()


def test_a_unit_that_moved_again_is_walked_round_again(made: Book):
    made.do("done", step="box_in")
    walked(made)
    step = plan_of(made.state).find_step("walk")
    assert sweep_of(made.state, step).places[0].left == 0
    made.do("reopened", step="box_in", reason="drawn back for the clip")
    made.do("done", step="box_in")
    assert [place.left for place in sweep_of(made.state, step).places] == [2, 1]


def test_drawn_back_it_is_not_walked_round(made: Book):
    """While the unit is out again, what was seen with it in proves nothing."""
    made.do("done", step="box_in")
    walked(made)
    made.do("reopened", step="box_in", reason="drawn back for the clip")
    step = plan_of(made.state).find_step("walk")
    assert [place.left for place in sweep_of(made.state, step).places] == [2, 1]


def test_a_look_that_comes_late_counts_by_its_own_hour(made: Book):
    """A press that waited on a device without the server was made before the unit went in."""
    early = made.do("swept", step="walk", things=["strap"], found="right").bench_time
    made.later(2)
    back(made)
    late = Swept(step="walk", at_place="Below", things=("strap",), names=("Strap",), found="right")
    line = made.add(late)
    step = plan_of(made.state).find_step("walk")
    assert sweep_of(made.state, step).places[1].left == 0
    object.__setattr__(line, "bench_time", early)
    assert sweep_of(made.state, step).places[1].left == 1


def test_a_look_alike_is_not_talked_away(made: Book):
    """Told anew without it, it still looks like the other; a thing is not there for a reason."""
    made.do("tie told", item="upper", alike="the lower plug")
    made.do("tie told", item="upper", label="7")
    back(made)
    made.refuse("alike", "tie proven", item="upper", how="pulled")
    strap = {"step": "walk", "things": ["strap"], "found": "not there"}
    made.refuse("no_words", "swept", words="abc", **strap)
    made.do("swept", words="looked along both rails, none", **strap)


def test_a_walk_that_was_done_is_open_again_once_the_unit_moves(made: Book):
    """Done proves nothing of a unit that was drawn back and pushed home behind it."""
    back(made)
    for item in ("upper", "lower", "at-throttle_off"):
        made.do("tie proven", item=item, how="seen")
    walked(made)
    made.do("done", step="walk")
    assert not [item for item in made.open() if item.startswith("swept:")]
    made.do("reopened", step="box_in", reason="drawn back for the clip")
    made.do("done", step="box_in")
    assert made.open()["swept:walk"] == "power_on"
    walked(made)
    assert "swept:walk" not in made.open()


def test_what_is_wrong_stays_wrong_by_any_way_round(made: Book):
    """The walk not there, an older look that comes late, a strike: none makes it right."""
    back(made)
    early = made.time
    made.later(1)
    walked(made)
    walked(made, left="wrong")
    look = Swept(step="walk", at_place="Left", things=("pinched",), names=("Loom",), found="right")
    object.__setattr__(made.add(look), "bench_time", early)
    assert made.open()["swept:walk/pinched"] == "power_on"
    made.do("not there", step="walk", thing="a walk", looked="nothing to walk round on this one")
    assert made.open()["swept:walk/pinched"] == "power_on"
    wrong = [e for e in made.state.all(Swept) if e.body.found == "wrong"][-1]
    made.do("strike", entry=wrong.id, reason="pressed at the wrong thing")
    step = plan_of(made.state).find_step("walk")
    assert sweep_of(made.state, step).places[0].left == 2


def test_a_proof_that_was_struck_leaves_it_unproven(made: Book):
    back(made)
    made.do("tie proven", item="upper", how="seen")
    wrong = made.do("tie proven", item="upper", how="seen", right=False, words="brown/white")
    made.do("strike", entry=wrong.id, reason="read from the other plug")
    assert states(made)["upper"] == "back"


def test_what_is_reached_only_while_it_hangs_is_shown_there(made: Book):
    """Between the move and the mounts, what is off first, with its way; gone once it is proven."""
    made.do("tie told", item="upper", route="under the rail", alike="the lower plug")
    made.do("tie told", item="upper", hangs=True)
    shown = made.bench("box_in").base.hanging
    assert (shown.title, shown.seat) == (
        "Only while it hangs: 3 of 3 lines still off",
        "7.04 Box on its mounts",
    )
    assert [(r.what, r.route, r.hangs, r.alike) for r in shown.rows] == [
        ("Upper plug", "under the rail", True, "the lower plug"),
        ("Lower plug", "", False, ""),
        ("Throttle rod off", "", False, ""),
    ]
    assert made.bench("plugs_off").base.hanging is None
    back(made)
    made.do("tie proven", item="upper", how="seen")
    left = made.bench("box_in").base.hanging.rows
    assert [r.what for r in left] == ["Lower plug", "Throttle rod off"]


def test_the_mounts_do_not_take_over_while_it_is_off(made: Book):
    """Told to be reached only while it hangs: the mounts say so by its name, and a reason of three
    letters passes nothing; said to be reached later too, it is in nobody's way.
    """
    made.do("tie told", item="lower", hangs=True)
    made.do("done", step="box_in")
    found = [o for o in made.in_the_way("box_held") if o.code == "hanging"]
    assert ["Lower plug" in o.words for o in found] == [True]
    made.refuse("not_complete", "done", step="box_held")
    made.do("tie told", item="lower", hangs=False)
    made.do("done", step="box_held")
    assert made.bench("box_in").base.hanging is None
