"""Tonight and the evenings over a whole shop: through the services, as the screens ask."""

import io
from datetime import UTC, datetime, timedelta

import pytest
import vobject
from pydantic import TypeAdapter, ValidationError
from pypdf import PdfReader

from hollet.core.acts.calendar import AnyShopAct
from hollet.core.entries import GearEdited
from hollet.core.errors import Conflict, Refused
from hollet.services.builds import bench, make_build
from hollet.services.calendar import write_shop
from hollet.services.calendar_file import calendar_file
from hollet.services.evenings import evenings_of, stop_laying
from hollet.services.gear import all_gear, edit_gear
from hollet.services.pace import paces
from hollet.services.parts import arrival, desk, wanted
from hollet.services.parts_files import (
    card_for_today,
    parts_csv,
    read_parts,
    shopping_list,
)
from hollet.services.tonight import tonight
from hollet.services.workshop import SHOP, Workshop
from tests.services.conftest import stock
from tests.support import Hand

ACT: TypeAdapter = TypeAdapter(AnyShopAct)
EIGHT = datetime(2026, 3, 2, 20, 0, tzinfo=UTC)


@pytest.fixture
def evening(tmp_path):
    """A workshop with one build, on a Monday evening at eight."""
    made = Workshop(tmp_path / "data", clock=lambda: EIGHT)
    made.build = stock(made)
    yield made
    made.close()


def say(workshop: Workshop, entry_id: str = "", **act: object) -> str:
    found = ACT.validate_python(act)
    return write_shop(workshop, found, who="mk", entry_id=entry_id or workshop.new_id()).text


def test_what_is_possible_over_all_builds(evening):
    """A second build stands beside the first; each row says whose it is."""
    make_build(evening, sheets=["small"], name="Two", vehicle="Two", about="in", who="MK")
    say(evening, kind="tonight", start="19:00", end="22:00")
    view = tonight(evening)
    assert view.title.startswith("Tonight, until 22:00: ")
    assert {row.name for row in (view.first, *view.others) if row} <= {"Job", "Two"}
    assert view.minute == 20 * 60
    assert len(view.vehicles) == 2


def test_a_line_of_the_shop_is_written_once(evening):
    """The same id with the same words is the first answer; with others it is refused."""
    name = evening.new_id()
    assert say(evening, name, kind="helper kept", helper="rt", name="RT") == "helper RT"
    assert say(evening, name, kind="helper kept", helper="rt", name="RT") == "helper RT"
    with pytest.raises(Conflict):
        say(evening, name, kind="helper kept", helper="jb", name="JB")
    with evening.held(SHOP) as shop:
        assert len(shop.live("helper", "rt")) == 1


def test_the_shop_survives_a_restart(tmp_path):
    """Evenings and helpers are read from the log again."""
    first = Workshop(tmp_path / "data", clock=lambda: EIGHT)
    stock(first)
    say(first, kind="evenings set", hours=[{"day": 0, "start": "19:00", "end": "23:00"}])
    say(first, kind="helper kept", helper="rt", name="RT")
    first.close()
    again = Workshop(tmp_path / "data", clock=lambda: EIGHT)
    view = tonight(again)
    assert (view.end, [h.name for h in view.helpers], view.week_said) == ("23:00", ["RT"], True)
    again.close()


def test_a_tool_comes_due_and_a_day_is_understood(evening):
    """Back by Friday is a date; no day is refused, and an old word stays a word."""
    edit_gear(
        evening,
        GearEdited(name="Puller", state="borrowed", whose="JB", back_by="2026-02-28"),
        version=0,
        who="MK",
    )
    (due,) = [row.due for row in tonight(evening).due if row.due.kind == "tool"]
    assert (due.words, due.does, due.late) == ("2 days late", "back to JB", True)
    said = GearEdited(name="Puller", state="borrowed", back_by="some day")
    with pytest.raises(Refused, match="is no day"):
        edit_gear(evening, said, version=1, who="MK")
    found = GearEdited(name="Puller", state="owned", back_by="2026-02-28", a_day=12.0)
    assert edit_gear(evening, found, version=1, who="MK").a_day == 12.0
    assert [row for row in tonight(evening).due if row.due.kind == "tool"] == []
    assert all_gear(evening)[0].due is not None


def test_a_commitment_is_said_till_it_is_done(evening):
    """The paint slot stands among what comes due, and goes when it is over."""
    paint = {"kind": "commitment", "commitment": "p1", "what": "paint slot", "day": "Fri"}
    say(evening, **paint)
    assert [r.due.words for r in tonight(evening).due] == ["in 4 days"]
    say(evening, **{**paint, "day": "2026-03-06", "done": True})
    assert tonight(evening).due == ()


def test_evenings_are_laid_beside_the_work(evening):
    """The plan comes when it is ready; a bench is answered meanwhile; a line lays it anew."""
    say(evening, kind="helper kept", helper="rt", name="RT")
    for days in (3, 10, 17):
        day = (EIGHT + timedelta(days=days)).date().isoformat()
        hours = {"start": "19:00", "end": "21:00"}
        say(evening, kind="visit", visit=f"v{days}", helper="rt", day=day, answer="yes", **hours)
    first = evenings_of(evening, wait=30)
    assert first.problem is None
    assert first.plan is not None
    assert bench(evening, evening.build, "bore").base.clock.line == "not begun"
    assert not evenings_of(evening).laying
    Hand(evening, evening.build).write("note", text="bolts counted")
    assert evenings_of(evening, wait=30).plan is not None
    assert stop_laying(evening).laying is False


def test_no_plan_is_one_sentence(evening):
    """An evening that is too short for a step is named with it."""
    say(evening, kind="evenings set", hours=[{"day": 1, "start": "19:00", "end": "19:05"}])
    view = evenings_of(evening, wait=30)
    assert view.plan is None
    assert "the longest evening that is left has 5" in (view.problem or "")


def test_the_bench_shows_its_clock_and_its_parts(evening):
    """What was worked, and how each part stands."""
    hand = Hand(evening, evening.build)
    hand.write("part wanted", typed="1 x feeler strip", step="ring", safety="none")
    (line,) = bench(evening, evening.build, "ring").base.parts
    assert (line.name, line.free, line.words) == ("feeler strip", False, "to order")
    rows = [row for group in desk(evening, evening.build).groups for row in group.rows]
    assert {row.need.id for row in rows} == {"feeler_strip", "oil", "coolant"}
    assert arrival(evening, evening.build, "feeler_strip", None).care == "features"
    assert wanted(evening, "2 x lamp, 3.00").line.price == 3.0
    assert paces(evening)["measure"].jobs == 0


@pytest.mark.parametrize(
    "act",
    [
        {"kind": "tonight", "start": "25:00", "end": "26:00"},
        {"kind": "tonight", "start": "19:00", "end": "21:00", "people": ["x"] * 9},
        {"kind": "helper kept", "helper": "RT!", "name": "RT"},
        {"kind": "nothing"},
        {"kind": "commitment", "commitment": "a", "what": "", "day": "Fri"},
    ],
)
def test_what_no_screen_sends_is_refused(act):
    """Hours that no clock shows, names that are none, kinds that are not."""
    with pytest.raises(ValidationError):
        ACT.validate_python(act)


def test_a_calendar_is_read_by_another_reader(evening):
    """Work, helpers and what comes due; every line folded and ended as the standard says."""
    rt = {"helper": "rt", "start": "19:00", "end": "21:00"}
    say(evening, kind="helper kept", helper="rt", name='RT; of the "post", north')
    for days in (3, 10, 17):
        day = (EIGHT + timedelta(days=days)).date().isoformat()
        say(evening, kind="visit", visit=f"v{days}", day=day, answer="yes", **rt)
    say(evening, kind="commitment", commitment="p1", what="paint slot, all day", day="Fri")
    data = calendar_file(evening)
    assert b"\r\n" in data
    assert all(len(line) <= 75 for line in data.split(b"\r\n"))
    found = vobject.readOne(data.decode()).vevent_list
    titles = [event.summary.value for event in found]
    assert 'RT; of the "post", north: yes' in titles
    paint = next(e for e in found if e.summary.value.startswith("paint slot"))
    assert paint.dtstart.value == datetime(2026, 3, 6).date()
    work = [e for e in found if e.summary.value.startswith("Job: ")]
    assert work
    assert all(e.dtstart.value < e.dtend.value for e in work)
    assert len({e.uid.value for e in found}) == len(found)


def test_parts_go_out_and_in_as_a_table(evening):
    """What is wanted is read back; what is needed already is passed over; a bad row writes none."""
    text = (
        "id,part,number,wanted,price,by,step,safety\r\n"
        ",roll pin,RP-5,2,0.40,Fri,,none\r\n"
        "oil,Oil,,1,,,,none\r\n"
    )
    assert read_parts(evening, evening.build, text, who="MK").model_dump() == {
        "written": 1,
        "unchanged": 1,
    }
    out = parts_csv(evening, evening.build)
    assert "roll_pin,roll pin,RP-5,2,0,0,0,2,0.40," in out
    for bad, words in (
        (",lamp,,1,,,99.99,none", "there is no step 99.99"),
        (",lamp,,1,dear,,,none", "line 2: 'dear' is neither a price nor a day"),
        (",lamp,,1,,,,", "line 2: lamp: is it a part of steering"),
        (",,,1,,,,none", "names no part"),
    ):
        head = text.split("\r\n")[0]
        with pytest.raises(Refused, match=words):
            read_parts(evening, evening.build, f"{head}\r\n{bad}\r\n", who="MK")
    assert "lamp" not in parts_csv(evening, evening.build)


def test_lists_are_printed_without_a_lost_sign(evening):
    """Shopping and the card for today: what is to buy, what was done last, what is possible."""
    hand = Hand(evening, evening.build)
    hand.write("part wanted", typed="3 x hose Ø 8 → 10", step="bore", safety="none")
    say(evening, kind="tonight", start="19:00", end="22:00")
    shopping = PdfReader(io.BytesIO(shopping_list(evening))).pages[0].extract_text()
    assert "3 × hose Ø 8 to 10" in shopping
    card = PdfReader(io.BytesIO(card_for_today(evening))).pages[0].extract_text()
    assert "Tonight, until 22:00" in card
    assert "page 1 of " in card
    assert "licensed practice go first" in card
