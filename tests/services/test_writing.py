"""Writing through the services: one id one entry, lateness, builds, limits, tools."""

import pytest

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.library.shelf import sheet_names
from hollet.services import builds, planning, sheets, tools
from hollet.services.figures import read_figure
from hollet.services.logging import log_of, stands_on
from hollet.services.workshop import SHOP, Workshop, initials
from tests.support import ACT, SMALL


def test_same_id_same_body_is_one_entry(hand):
    """Sent twice it is one line with the same answer; with another body it is a conflict."""
    entry_id = hand.workshop.new_id()
    first = hand.write("note", entry_id, text="x")
    assert hand.write("note", entry_id, text="x") == first
    with pytest.raises(Conflict) as conflict:
        hand.write("note", entry_id, text="y")
    assert conflict.value.reason_code == "id_used"
    assert log_of(hand.workshop, hand.build).total == 2


def test_a_build_whose_answer_was_lost_is_made_once(hand):
    """Sent again with its id it is the same build; another one under that id is a conflict."""

    def made(name: str) -> str:
        return builds.make_build(
            hand.workshop,
            sheets=["small"],
            name=name,
            vehicle="Two",
            about="x",
            who="MK",
            build_id="0198-again",
        )

    assert made("Second job") == made("Second job") == "0198-again"
    assert [card.name for card in builds.cards(hand.workshop)].count("Second job") == 1
    assert log_of(hand.workshop, "0198-again").total == 1
    with pytest.raises(Conflict) as conflict:
        made("Third job")
    assert conflict.value.reason_code == "id_used"


def test_same_id_after_a_restart(hand):
    """A new process knows the id too."""
    entry_id = hand.workshop.new_id()
    hand.write("note", entry_id, text="x")
    hand.workshop.close()
    again = Workshop(hand.workshop.store.folder)
    hand.workshop = again
    assert hand.write("note", entry_id, text="x").seq == 2
    again.close()


def test_late_entry_names_what_is_newer(hand):
    """A screen that has not seen the newest line of a subject is told what stands there."""
    hand.write("confirmed", step="lead", what="Extinguisher at hand", seen=0)
    with pytest.raises(Conflict) as conflict:
        hand.write("done", step="lead", seen=0)
    assert conflict.value.reason_code == "moved_on"
    assert conflict.value.newer == ("seen: Extinguisher at hand",)
    hand.write("done", step="lead", seen=2)


def test_readings_are_never_late(hand):
    """Readings, notes and openings are written however old the screen is."""
    for text in ("0.30", "0.35"):
        hand.write(
            "reading", step="ring", reading="ring", typed=[text], unit="mm", instrument="f1", seen=0
        )
    hand.write("note", step="ring", text="x", seen=0)
    assert log_of(hand.workshop, hand.build, step="ring").lines[0].kind == "note"


def test_two_screens_pull_the_same_bolt(hand):
    """The second click of the same bolt from another screen is refused, nothing is pulled twice."""
    hand.write("started", step="head_in", reason="bore measured at the shop")
    hand.write("decision", step="head_in", about="wrench", wrench="w1")
    seen = builds.bench(hand.workshop, hand.build, "head_in").base.seen
    hand.write("fastener", step="head_in", bolt=1, act="clicked", stage=1, seen=seen)
    with pytest.raises(Conflict):
        hand.write("fastener", step="head_in", bolt=1, act="clicked", stage=1, seen=seen)
    assert builds.bench(hand.workshop, hand.build, "head_in").joint.next_bolt == 2


def test_build_makes_its_own_copy(hand):
    """A sheet uploaded again changes no build that was made before."""
    sheets.save_sheet(hand.workshop, SMALL.replace("Small job", "Other job"))
    assert builds.frame(hand.workshop, hand.build).frame.title == "Small job"
    other = builds.make_build(
        hand.workshop, sheets=["small"], name="Second", vehicle="One", about="x", who="mk"
    )
    assert builds.frame(hand.workshop, other).frame.title == "Other job"
    assert [c.name for c in builds.cards(hand.workshop)] == ["Job", "Second"]


def test_a_mistaken_sheet_leaves_nothing(workshop):
    """Nothing is kept of a sheet with a mistake, and nothing half-made of a build."""
    with pytest.raises(Refused):
        sheets.save_sheet(workshop, SMALL.replace('kind = "remove"', 'kind = "removes"'))
    assert [s.id for s in sheets.sheet_cards(workshop)] == list(sheet_names())
    with pytest.raises(NotFound):
        builds.make_build(workshop, sheets=["small"], name="x", vehicle="y", about="z", who="MK")
    assert builds.cards(workshop) == ()


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("x = ", "not readable as TOML"),
        ("[sheet]\nid='a'\nid='b'", "not readable as TOML"),
        ("a" * 1_000_001, "larger than"),
        ("[" * 3000, ""),
    ],
    ids=["cut", "twice", "large", "deep"],
)
def test_unreadable_sheets(workshop, text, words):
    """Duplicate keys, cut files, ten megabytes, deep nesting: one sentence each."""
    with pytest.raises(Refused) as refusal:
        sheets.save_sheet(workshop, text)
    assert words in refusal.value.message


def test_shipped_sheet_cannot_be_replaced(workshop):
    """The id of a shipped sheet is taken."""
    with pytest.raises(Conflict):
        sheets.save_sheet(workshop, SMALL.replace('id = "small"', 'id = "top-end"'))


def edit(hand, version=1, entry_id=None, **changes):
    """Edit the clearance limit."""
    figures = {
        "limit": "clearance",
        "lo": "0.030",
        "hi": "0.070",
        "target": "0.045",
        "source": "book p. 1",
        "same_source": True,
        **changes,
    }
    act = ACT.validate_python({"act": "limit", "version": version, **figures})
    return planning.edit_plan(
        hand.workshop,
        hand.build,
        [act],
        version=0,
        who="MK",
        entry_id=entry_id or hand.workshop.new_id(),
    )


def test_limit_edit_judges_again_and_says_so(hand):
    """A narrower limit turns a verdict; plan and log move together."""
    hand.write(
        "reading", step="bore", reading="piston", typed=["83.958"], unit="mm", instrument="m1"
    )
    hand.write(
        "reading", step="bore", reading="cylinder", typed=["84.006"], unit="mm", instrument="b1"
    )
    edited = edit(hand, hi="0.035", target="0.032")
    assert edited.line.text == (
        "Clearance: 0.030 to 0.070 mm became 0.030 to 0.035 mm. Turned: 3.01 Clearance inside "
        "became outside"
    )
    assert edited.turned == ("3.01 Clearance: inside became outside",)
    assert (
        next(
            r.limit for r in planning.limits(hand.workshop, hand.build).rows if r.id == "clearance"
        ).version
        == 2
    )


def test_limit_edit_conflicts_and_mistakes(hand):
    """Two people at one limit, a figure that is none, limits reversed: nothing is written."""
    entry_id = hand.workshop.new_id()
    edit(hand, hi="0.080", entry_id=entry_id)
    assert edit(hand, hi="0.080", entry_id=entry_id).line.seq == 2
    with pytest.raises(Conflict):
        edit(hand, hi="0.090")
    for change in ({"hi": "0.07 bar"}, {"lo": "wide"}, {"lo": "0.9"}):
        with pytest.raises(Refused):
            edit(hand, version=2, **change)
    with pytest.raises(NotFound):
        edit(hand, limit="nothing")
    assert log_of(hand.workshop, hand.build).total == 2


def test_log_filters(hand):
    """By step and by kind, newest first, with what was struck."""
    note = hand.write("note", step="ring", text="x")
    hand.write("left open", step="bore", item="i", what="rag")
    hand.write("undone", item="i")
    hand.write("strike", entry=note.id, reason="wrong place")
    log = log_of(hand.workshop, hand.build)
    assert (log.total, log.struck, log.whole, log.broken_at) == (5, 1, True, None)
    assert [line.kind for line in log_of(hand.workshop, hand.build, kind="left open").lines] == [
        "undone",
        "left open",
    ]
    assert [line.id for line in log_of(hand.workshop, hand.build, kind="struck").lines] == [note.id]
    assert [line.seq for line in log_of(hand.workshop, hand.build, before=3).lines] == [2, 1]
    assert all(len(line.hash) == 64 for line in log.lines)


def test_what_stands_on_a_line(hand):
    """Before a reading is struck, the done and the concession that stand on it are listed."""
    reading = hand.write(
        "reading", step="ring", reading="ring", typed=["0.85"], unit="mm", instrument="f1"
    )
    hand.write("concession", step="ring", result="g", reason="few miles a year", name="MK")
    hand.write("done", step="ring")
    assert len(stands_on(hand.workshop, hand.build, reading.id)) == 2
    with pytest.raises(NotFound):
        stands_on(hand.workshop, hand.build, "nothing")


def test_tool_versions_and_log(hand):
    """Each edit is a new version and a line in the shop's log; an older screen is a conflict."""
    tool = hand.workshop.tools()["m1"]
    edited = tools.edit_tool(
        hand.workshop, {**tool.model_dump(), "mpe": "0.003"}, who="TR", version=1
    )
    assert (edited.version, hand.workshop.tools()["m1"].mpe) == (2, "0.003")
    with pytest.raises(Conflict):
        tools.edit_tool(hand.workshop, tool.model_dump(), who="TR", version=1)
    with hand.workshop.store.read() as books:
        rows = list(books.log.read(SHOP))
    assert rows[-1].kind == "tool edited"
    assert rows[-1].who == "TR"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"mpe": "wide"}, "mpe"),
        ({"mpe": "0.002 bar"}, "mpe"),
        ({"resolution": "-1"}, "resolution"),
        ({"kind": "hammer"}, "kind"),
        ({"code": "B1"}, "code"),
        ({"colour": "red"}, "colour"),
    ],
)
def test_bad_tools(hand, change, field):
    """A tool with a mistake is refused with its field."""
    tool = hand.workshop.tools()["m1"].model_dump()
    with pytest.raises(Refused) as refusal:
        tools.edit_tool(hand.workshop, {**tool, **change}, who="MK", version=1)
    assert refusal.value.field == field


def test_zeroing_and_setting(hand):
    """Zeroed again is another chain; a gauge set takes its master as it is now."""
    assert tools.zero_tool(hand.workshop, "m1", who="MK").zero_no == 2
    gauge = tools.set_gauge(hand.workshop, "b1", "m1", "84.010 mm", who="MK")
    assert (gauge.setting, gauge.set_with.zero_no) == ("84.010 mm", 2)
    for master, setting in (("b1", "84 mm"), ("j1", "84 mm"), ("m1", "20 mm")):
        with pytest.raises(Refused):
            tools.set_gauge(hand.workshop, "b1", master, setting, who="MK")
    with pytest.raises(NotFound):
        tools.zero_tool(hand.workshop, "nothing", who="MK")


@pytest.mark.parametrize(
    ("text", "tool", "ok", "value", "deviation"),
    [
        ("3.5 thou", None, True, "0.0889", None),
        ("0.006", "b1", True, "84.006", "84"),
        ("84.006", "b1", True, "84.006", None),
        ("2 pt", None, False, "", None),
        ("2-3 mm", None, True, "", None),
    ],
)
def test_figures_while_typing(hand, text, tool, ok, value, deviation):
    """What is being typed is shown exactly, and how it will be taken."""
    got = read_figure(hand.workshop, text, "length" if tool is None and ok else None, "mm", tool)
    assert (got.ok, got.value, got.deviation_from) == (ok, value, deviation)


@pytest.mark.parametrize(
    ("text", "dimension", "unit", "value", "exact"),
    [
        ("35 psi", "pressure", "bar", "2.413", False),
        ("18.4 ftlb", "torque", "N·m", "24.947", False),
        ("180 F", "temperature", "°C", "82.222", False),
        ("1.8 thou", "length", "mm", "0.04572", True),
        ("3.3 in", "length", "mm", "83.82", True),
        ("0.0010 in", "length", "mm", "0.0254", True),
        ("60", "torque", "N·m", "60", True),
    ],
)
def test_no_tail_of_a_conversion(hand, text, dimension, unit, value, exact):
    """35 psi is shown as 2.413 bar, in the unit of its field and marked as about: nobody read
    2.413165053.
    """
    got = read_figure(hand.workshop, text, dimension, unit, None)
    assert (got.value, got.unit, got.exact) == (value, unit, exact)


def test_exactness_is_said():
    """psi to kPa does not end; a length does."""
    assert initials(" mk ") == "MK"
    for bad in ("", "12", "TOOLONGG", "a b"):
        with pytest.raises(Refused):
            initials(bad)


def test_at_most_twenty_builds_are_held(hand):
    """The oldest folded state is let go; it is folded again when asked for."""
    for number in range(21):
        builds.make_build(
            hand.workshop,
            sheets=["small"],
            name=f"Job {number}",
            vehicle="One",
            about="x",
            who="MK",
        )
    assert len(builds.cards(hand.workshop)) == 22
    assert len(hand.workshop._states) == 20
    assert builds.frame(hand.workshop, hand.build).name == "Job"


def test_listeners_are_told(hand):
    """Each entry tells who listens, until they stop."""
    told: list[tuple[str, int]] = []
    end = hand.workshop.listen(lambda build, seq: told.append((build, seq)))
    hand.write("note", text="x")
    end()
    hand.write("note", text="y")
    assert told == [(hand.build, 2)]
