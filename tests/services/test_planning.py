"""Planning through the services: one transaction, two people, next time's sheet, limits in and out,
gear, older lines.
"""

import json
import tomllib

import pytest

from hollet.core.entries import GearEdited, Note
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.services import builds, planning, sheets, shop, vehicles
from hollet.services.archives import export_build, import_build
from hollet.services.gear import all_gear, edit_gear, gear_of
from hollet.services.logging import log_of
from hollet.services.own_sheets import sheet_toml
from hollet.services.verifying import verify
from hollet.services.workshop import SHOP, Workshop
from hollet.store.chain import entry_of
from tests.support import ACT, SMALL

FACTS = SMALL.replace(
    'do = "Look again."', 'do = "Look again."\nwhen = [{ fact = "turbo", one_of = ["yes"] }]'
).replace('id = "small"', 'id = "facts"')


def take(hand, *acts, version=None, reason=None, who="MK", entry_id=None):
    """Edit the plan of the build."""
    listed = [ACT.validate_python(act) for act in acts]
    seen = planning.desk(hand.workshop, hand.build).version if version is None else version
    return planning.edit_plan(
        hand.workshop,
        hand.build,
        listed,
        who=who,
        version=seen,
        entry_id=entry_id or hand.workshop.new_id(),
        reason=reason,
    )


def put_in(**more):
    """A forgotten step."""
    return {
        "act": "put_in",
        "title": "Strap off",
        "do": "Off.",
        "stage": "take_down",
        "behind": "lead",
        "before": [{"step": "head_out", "because": "it tears", "kind": "access closes"}],
        **more,
    }


def test_an_edit_is_one_line_with_what_and_why(hand):
    """Plan and log move together; the same id again is the same line; the plan can be rebuilt from
    the log.
    """
    entry_id = hand.workshop.new_id()
    edited = take(hand, put_in(), reason="forgotten last time", entry_id=entry_id)
    assert edited.line.text == "put in: 2.01a Strap off: forgotten last time"
    assert take(hand, put_in(), entry_id=entry_id).line == edited.line
    assert log_of(hand.workshop, hand.build).total == 2
    assert [line for line in verify(hand.workshop) if line.startswith("broken")] == []
    assert "strap_off" in {s.id for s in builds.frame(hand.workshop, hand.build).frame.steps}


def test_two_people_at_one_plan(hand):
    """The second, who looked before the first wrote, is told what was done and writes nothing."""
    seen = planning.desk(hand.workshop, hand.build).version
    take(hand, put_in(), version=seen, who="TR")
    with pytest.raises(Conflict) as conflict:
        take(hand, {"act": "retire", "step": "water"}, version=seen)
    assert "by TR" in conflict.value.message
    assert "Strap off" in conflict.value.message
    assert log_of(hand.workshop, hand.build).total == 2


def test_a_plan_that_changes_while_looking_is_unchanged(hand):
    """A preview writes nothing, whatever it finds."""
    found = planning.preview(hand.workshop, hand.build, [ACT.validate_python(put_in())], "MK")
    assert found.steps_in == ("2.01a Strap off",)
    assert log_of(hand.workshop, hand.build).total == 1


def test_taking_out_a_step_with_lines_needs_a_reason(hand):
    """What entries stand on leaves the plan only with a reason; the lines stay."""
    hand.write("note", step="water", text="tank is cracked")
    with pytest.raises(Refused) as refusal:
        take(hand, {"act": "retire", "step": "water"})
    assert refusal.value.reason_code == "no_reason"
    take(hand, {"act": "retire", "step": "water"}, reason="air cooled")
    assert "no longer in the plan" in [
        line.step_number for line in log_of(hand.workshop, hand.build).lines
    ]


def test_a_forgotten_step_is_kept_for_next_time(hand):
    """It goes with its reason into the user's own copy of the sheet, twice into the same one;
    builds made before keep theirs.
    """
    assert take(hand, put_in(keep=True)).kept_in == "Small job (own copy)"
    assert (
        take(hand, put_in(title="Photo", behind="lead", before=[], keep=True)).kept_in
        == "Small job (own copy)"
    )
    own = sheets.find_sheet(hand.workshop, "small-own")
    assert [s.id for s in own.step][:4] == ["lead", "photo", "strap_off", "head_out"]
    assert [(a.step, a.because) for a in own.find_step("head_out").after] == [
        ("lead", "it is live"),
        ("strap_off", "it tears"),
    ]
    again = builds.make_build(
        hand.workshop, sheets=["small-own"], name="Next", vehicle="One", about="x", who="MK"
    )
    assert [s.number for s in builds.frame(hand.workshop, again).frame.steps][:3] == [
        "2.01",
        "2.02",
        "2.03",
    ]
    assert sheets.find_sheet(hand.workshop, "small").find_step("strap_off") is None


def test_a_sheet_survives_being_written_as_toml(workshop):
    """Every shipped sheet, written and read again, is the same sheet."""
    for card in sheets.sheet_cards(workshop):
        sheet = sheets.find_sheet(workshop, card.id)
        again = sheets.parse_sheet(sheet_toml(sheet))
        assert again == sheet


def test_facts_go_with_the_vehicle(workshop):
    """What is known of a vehicle serves its next build; a fact that cannot be is refused and makes
    no build.
    """
    sheets.save_sheet(workshop, FACTS)
    with pytest.raises(Refused):
        builds.make_build(
            workshop,
            sheets=["facts"],
            name="A",
            vehicle="One",
            about="x",
            who="MK",
            facts={"turbo": "maybe"},
        )
    first = builds.make_build(
        workshop,
        sheets=["facts"],
        name="A",
        vehicle="One",
        about="x",
        who="MK",
        facts={"turbo": "no"},
    )
    second = builds.make_build(
        workshop, sheets=["facts"], name="B", vehicle="One", about="x", who="MK"
    )
    assert [f.value for f in planning.desk(workshop, second).facts] == ["no"]
    planning.edit_plan(
        workshop,
        first,
        [ACT.validate_python({"act": "fact", "fact": "turbo", "value": "yes"})],
        who="MK",
        version=1,
        entry_id=workshop.new_id(),
    )
    with workshop.store.read() as books:
        assert [json.loads(v.facts) for v in books.vehicles.all()] == [{"turbo": "yes"}]
    assert [b.name for b in builds.cards(workshop)] == ["A", "B"]


def test_a_planned_build_travels_whole(hand, tmp_path):
    """Archive out and in: facts, choices and put-in steps are there again, and the chain holds."""
    take(hand, put_in())
    other = Workshop(tmp_path / "other")
    build = import_build(other, export_build(hand.workshop, hand.build))
    assert planning.desk(other, build) == planning.desk(hand.workshop, hand.build).model_copy(
        update={"hunt": planning.desk(other, build).hunt}
    )
    assert [line for line in verify(other) if line.startswith("broken")] == []
    other.close()


def test_a_line_of_the_first_version_is_lifted(hand):
    """A limit edit written before plans had changes still counts, and its text stays as it was
    hashed.
    """
    limit = next(
        r.limit for r in planning.limits(hand.workshop, hand.build).rows if r.id == "clearance"
    )
    after = {
        **limit.model_dump(exclude_none=True, exclude={"answers", "settled"}),
        "hi": "0.080",
        "version": 2,
    }
    body = {
        "what": "Clearance",
        "path": "limit/clearance",
        "before": limit.model_dump(exclude_none=True),
        "after": after,
    }
    with hand.workshop.store.write() as books:
        row = books.log.append(hand.workshop.draft(hand.build, Note(text="x"), "MK"))
    row.kind, row.version, row.body = "plan edited", 1, json.dumps(body)
    entry = entry_of(row)
    assert [(c.op, c.after.hi) for c in entry.body.changes] == [("limit", "0.080")]
    assert json.loads(row.body)["path"] == "limit/clearance"


def test_limits_out_and_in(hand):
    """CSV and TOML read back change nothing; an edited cell is told first and then taken;
    spreadsheet cells are neutral.
    """
    text = planning.limits_csv(hand.workshop, hand.build)
    assert text.splitlines()[0] == "id,name,condition,dimension,unit,lo,hi,target,source,page,state"
    toml = planning.limits_toml(hand.workshop, hand.build)
    assert {x["id"] for x in tomllib.loads(toml)["limit"]} == {
        "clearance",
        "gap",
        "oil",
        "burst",
        "total",
        "pressure",
        "by",
        "hot",
    }
    call = {"who": "MK", "entry_id": hand.workshop.new_id()}
    for form, content in (("csv", text), ("toml", toml)):
        with pytest.raises(Refused) as refusal:
            planning.read_limits(hand.workshop, hand.build, content, form, take=True, **call)
        assert refusal.value.reason_code == "nothing_new"
    changed = text.replace("0.030,0.070,0.045,book p. 1", "0.030,0.080,0.045,newer book")
    told = planning.read_limits(hand.workshop, hand.build, changed, "csv", take=False, **call)
    assert told.figures == ("Clearance: 0.030 to 0.070 mm becomes 0.030 to 0.080 mm",)
    assert log_of(hand.workshop, hand.build).total == 1
    planning.read_limits(
        hand.workshop,
        hand.build,
        changed + "new,New one,cold,length,mm,1,2,,=cmd,,\r\n",
        "csv",
        take=True,
        **call,
    )
    rows = {r.id: r for r in planning.limits(hand.workshop, hand.build).rows}
    assert (rows["clearance"].words, rows["new"].words) == ("0.030 to 0.080 mm", "1 to 2 mm")
    assert "'=cmd" in planning.limits_csv(hand.workshop, hand.build)


@pytest.mark.parametrize(
    ("form", "text"),
    [
        ("csv", 'id,lo,hi,target,source\nclearance,"0,020",0.07 mm,1.8 thou,newer book'),
        (
            "toml",
            '[[limit]]\nid = "clearance"\nlo = "0,020"\nhi = "0.07 mm"\ntarget = "1.8 thou"\n'
            'source = "newer book"',
        ),
    ],
)
def test_figures_of_a_file_in_another_unit(hand, form, text):
    """A comma, a unit of its own, thousandths of an inch: the book holds them in the line's own
    unit (1.8 thou is 0.04572 mm), as the mechanic will read them.
    """
    call = {"who": "MK", "entry_id": hand.workshop.new_id()}
    planning.read_limits(hand.workshop, hand.build, text, form, take=True, **call)
    kept = planning.limits_csv(hand.workshop, hand.build)
    assert "length,mm,0.020,0.07,0.04572,newer book" in kept


@pytest.mark.parametrize(
    ("form", "text", "words"),
    [
        ("csv", "", "must name the columns"),
        ("csv", "id,lo\nclearance,wide", "line 2"),
        ("csv", "id,lo\nclearance,1,2,3", "more cells"),
        ("csv", "id,name\nnew,New", "this must be given"),
        ("toml", "limit = 3", "[[limit]] tables"),
        ("toml", "x = ", "not readable"),
        ("toml", '[[limit]]\nid = "clearance"\nlo = "9"', "limit 1"),
        ("csv", "id,unit\nclearance,bar", "line 2"),
        ("csv", "id,lo,source\nclearance,0.03 to 0.04,book", "must be one figure"),
        ("csv", "id,lo,source\nclearance,9 bar,book", "line 2"),
        ("csv", "id,unit\nclearance,in", "name where the new figure comes from"),
        ("csv", 'id,hi,source\nclearance,"1,234",book', "decimal mark or a thousands mark"),
    ],
)
def test_files_with_a_mistake_write_nothing(hand, form, text, words):
    """Line or table, field, and what would be right; the book stays as it was."""
    with pytest.raises(Refused) as refusal:
        planning.read_limits(
            hand.workshop,
            hand.build,
            text,
            form,
            who="MK",
            entry_id=hand.workshop.new_id(),
            take=True,
        )
    assert words in refusal.value.message
    assert log_of(hand.workshop, hand.build).total == 1


def test_gear_is_kept_and_guarded(workshop):
    """By name, whatever its case; two people at one tool; each word of it is in the shop's log."""
    hoist = GearEdited(
        name="Engine hoist", state="borrowed", whose="Brackwater", back_by="Saturday"
    )
    assert edit_gear(workshop, hoist, version=0, who="MK").version == 1
    with pytest.raises(Conflict):
        edit_gear(workshop, GearEdited(name="engine hoist", state="broken"), version=0, who="TR")
    edit_gear(workshop, GearEdited(name="engine hoist", state="broken"), version=1, who="TR")
    assert [(g.name, g.state) for g in all_gear(workshop)] == [("Engine hoist", "broken")]
    assert gear_of(workshop).lacking() == ("engine hoist",)
    with workshop.store.read() as books:
        assert [row.kind for row in books.log.read(SHOP)].count("gear edited") == 2


def test_unknown_builds_and_sheets(workshop):
    """No such build, no such sheet, no sheet at all."""
    with pytest.raises(NotFound):
        planning.desk(workshop, "none")
    with pytest.raises(NotFound):
        builds.make_build(workshop, sheets=["none"], name="x", vehicle="y", about="z", who="MK")
    with pytest.raises(Refused):
        builds.make_build(workshop, sheets=[], name="x", vehicle="y", about="z", who="MK")
    with workshop.store.read() as books:
        assert books.builds.all() == []


def test_the_vehicle_in_other_words(hand):
    """Name and words change for all builds of the vehicle and stand in the log; looked at before
    somebody else changed them they are not written.
    """
    card = builds.frame(hand.workshop, hand.build)
    other = builds.make_build(
        hand.workshop,
        sheets=["small"],
        name="Second",
        vehicle=card.vehicle,
        about="other words",
        who="MK",
    )
    vehicles.describe(
        hand.workshop,
        hand.build,
        name="Blue van",
        about="1.6 petrol, 1987",
        was=card.about,
        who="MK",
    )
    assert {
        (c.vehicle, c.about) for c in (builds.frame(hand.workshop, b) for b in (hand.build, other))
    } == {("Blue van", "1.6 petrol, 1987")}
    assert (
        log_of(hand.workshop, hand.build).lines[0].text
        == f"the vehicle: {card.vehicle}, {card.about} became Blue van, 1.6 petrol, 1987"
    )
    with pytest.raises(Conflict, match="described anew"):
        vehicles.describe(
            hand.workshop, hand.build, name="Van", about="x", was=card.about, who="TR"
        )
    builds.make_build(
        hand.workshop, sheets=["small"], name="Third", vehicle="Old bus", about="a bus", who="MK"
    )
    with pytest.raises(Refused, match="called Old bus already"):
        vehicles.describe(
            hand.workshop, hand.build, name="Old bus", about="x", was="1.6 petrol, 1987", who="TR"
        )
    assert [line for line in verify(hand.workshop) if line.startswith("broken")] == []


def test_no_words_of_a_vehicle_without_their_line(hand, monkeypatch):
    """Where the line cannot be kept, the words stay as they were."""
    card = builds.frame(hand.workshop, hand.build)

    def full(*_):
        raise OSError("no space left")

    monkeypatch.setattr("hollet.store.tables.SqliteLog.append", full)
    with pytest.raises(OSError, match="no space left"):
        vehicles.describe(
            hand.workshop,
            hand.build,
            name="Blue van",
            about="1.6 petrol, 1987",
            was=card.about,
            who="MK",
        )
    after = builds.frame(hand.workshop, hand.build)
    assert (after.vehicle, after.about) == (card.vehicle, card.about)


def test_the_shop_in_its_own_words(hand):
    """Name, time zone and currency are said once, kept in the shop's log, and guarded against two
    hands; no zone that no clock has.
    """
    facts = shop.shop_facts(hand.workshop)
    assert facts.currency == ""
    said = shop.edit_shop(
        hand.workshop,
        facts.model_copy(update={"name": "Moss", "time_zone": "Europe/Dublin", "currency": "EUR"}),
        "MK",
    )
    assert (said.name, said.time_zone, said.currency) == ("Moss", "Europe/Dublin", "EUR")
    with pytest.raises(Conflict):
        shop.edit_shop(hand.workshop, facts, "TR")
    for zone in ("Mars/Base", "../etc", "GMT plus one"):
        with pytest.raises(Refused, match="continent and town"):
            shop.edit_shop(hand.workshop, said.model_copy(update={"time_zone": zone}), "TR")
    assert shop.shop_facts(hand.workshop) == said
