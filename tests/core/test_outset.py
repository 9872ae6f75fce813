"""Before the first spanner: what ties a unit, what carries what, which fluid goes where."""

import pytest

from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.outset import Outset, outset_of
from hollet.core.procedure.plan import select
from tests.support import small_sheet

SHEET = """
[sheet]
id = "boxout"
title = "Gearbox out"
about = "A box that comes down onto a jack."

[[option]]
id = "speedo"
name = "Speedometer cable"
value = ["yes", "no"]

[[fluid]]
id = "box_oil"
name = "Gearbox oil"
kind = "gear"
runs_out = "at the tail"

[[fluid]]
id = "fuel"
name = "Fuel"
kind = "fuel"
amount = "a cupful"
runs_out = "at the line"

[[fluid]]
id = "gas"
name = "Refrigerant"
runs_out = "nowhere"
stays_closed = true

[[tie]]
kind = "exhaust"
moves = "gearbox"
state = "absent"
because = "it runs beside the box"

[[tie]]
kind = "starter_lead"
moves = "gearbox"
state = "goes with it"
because = "the starter stays on the box"
when = [{ fact = "speedo", one_of = ["no"] }]

[[step]]
id = "battery_off"
stage = "take_down"
kind = "check"
title = "Battery lead off"
short = "Battery off"
do = "Off, and tucked away."
unties = ["battery"]

[[step]]
id = "oil_out"
stage = "take_down"
kind = "check"
title = "Oil drained"
do = "Let it run."
drains = ["box_oil"]
unties = ["box_oil"]

[[step]]
id = "cable_off"
stage = "take_down"
kind = "check"
title = "Speedometer cable off"
do = "Off."
unties = ["speed_drive"]
when = [{ fact = "speedo", one_of = ["yes"] }]

[[step]]
id = "jack_under"
stage = "take_down"
kind = "check"
title = "Jack under the box"
do = "Strap it."
carries = [{ body = "gearbox", by = "jack" }]

[[step]]
id = "box_out"
stage = "take_down"
kind = "remove"
title = "Gearbox out"
do = "Down with it."
moves = "gearbox"
unties = ["mounts", "bell"]

[[step]]
id = "box_in"
stage = "fit_in"
kind = "check"
title = "Gearbox in"
do = "Up with it."
carries = [{ body = "gearbox", by = "mounts" }]
releases = [{ body = "gearbox", by = "jack" }]

[[step]]
id = "oil_in"
stage = "wake"
kind = "check"
title = "Oil in"
do = "Fill it."
"""


def outset(text: str = SHEET, settled: frozenset[str] = frozenset(), **facts: str) -> Outset:
    """The sheet's, with what is known of the vehicle."""
    return outset_of(select(combine_sheets([small_sheet(text)], facts)), settled)


def ties(found: Outset) -> dict[str, tuple[str, str]]:
    """Each tie with its state and words."""
    return {tie.name: (tie.state, tie.words) for tie in found.ties}


def test_ties_by_the_steps_that_part_them():
    """Each tie that a gearbox may have, once: the step that parts it, the sheet's word that it is
    not there, or that nobody says.
    """
    found = ties(outset())
    assert len(found) == 13
    assert found["battery lead"] == ("to part", "2.01 Battery off")
    assert found["bell-housing bolts"] == ("to part", "2.05 Gearbox out")
    assert found["exhaust"] == ("absent", "it runs beside the box")
    assert found["propeller shafts"] == (
        "unknown",
        "no step parts it, and nothing says that it is absent",
    )


@pytest.mark.parametrize(
    ("facts", "cable", "starter"),
    [
        ({}, "unknown", "unknown"),
        ({"speedo": "yes"}, "to part", "unknown"),
        ({"speedo": "no"}, "absent", "goes with it"),
    ],
)
def test_what_a_fact_decides(facts, cable, starter):
    """Not known, it is unknown and never quietly absent; known, it is one or the other."""
    found = ties(outset(**facts))
    assert found["speedometer drive"][0] == cable
    assert found["starter and alternator leads"][0] == starter


def test_parted_only_when_every_step_is_done():
    """Done steps part theirs; a second step at the same tie keeps it to be parted."""
    assert ties(outset(settled=frozenset({"battery_off"})))["battery lead"][0] == "parted"
    twice = SHEET.replace('unties = ["mounts", "bell"]', 'unties = ["mounts", "bell", "battery"]')
    found = ties(outset(twice, frozenset({"battery_off"})))["battery lead"]
    assert found == ("to part", "2.01 Battery off, 2.05 Gearbox out")


def test_one_step_perhaps_leaves_it_unknown():
    """A shaft that is there for sure and one that is there perhaps are not *to part*, but unknown:
    the list never counts on what nobody knows.
    """
    perhaps = SHEET.replace('unties = ["speed_drive"]', 'unties = ["speed_drive", "battery"]')
    state, words = ties(outset(perhaps))["battery lead"]
    assert state == "unknown"
    assert "Speedometer cable: not known yet" in words


def test_carriers_from_step_to_step():
    """Only what changes, in words; the jack leaves once its mounts have it."""
    assert [(c.number, c.words) for c in outset().carriers] == [
        ("2.04", "gearbox: a jack"),
        ("7.01", "gearbox: its mounts"),
    ]
    dropped = SHEET.replace('carries = [{ body = "gearbox", by = "mounts" }]\n', "")
    assert outset(dropped).carriers[-1].words == "gearbox: nothing carries it"


def test_fluids_with_where_they_come_back():
    """Out and back by number; never back is said; what only runs out and what stays closed too."""
    found = {f.name: f for f in outset().fluids}
    assert found["Gearbox oil"].words == ("out at 2.02 Oil drained; no step of this plan fills it")
    assert (found["Gearbox oil"].amount, found["Gearbox oil"].out) == (None, ("2.02",))
    assert found["Fuel"].words == "not let out: it runs where its circuit is opened"
    assert found["Refrigerant"].words == "stays closed: nothing of it is opened"
    limit = '[[limit]]\nid = "much"\nname = "Much"\ndimension = "volume"\nunit = "L"\n'
    filled = SHEET.replace("[[option]]", f"{limit}\n[[option]]", 1).replace(
        'kind = "check"\ntitle = "Oil in"',
        'kind = "fill"\nfluid = "box_oil"\namount = "much"\nlevel = "Full"\ntitle = "Oil in"',
    )
    oil = next(f for f in outset(filled).fluids if f.name == "Gearbox oil")
    assert (oil.back, oil.words) == (("8.01",), "out at 2.02 Oil drained; back at 8.01 Oil in")


def test_its_sum_in_one_line():
    """Ties with how many are unknown; nothing where nothing is lifted, carried or drained."""
    found = outset(speedo="yes")
    assert found.unknown == sum(state == "unknown" for state, _ in ties(found).values()) == 7
    assert found.words == "13 ties, 7 unknown; carried anew at 2 steps; 3 fluids"
    bare = combine_sheets([small_sheet()])
    assert outset_of(select(bare), set()).words == ""
