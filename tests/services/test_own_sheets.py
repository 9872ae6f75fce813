"""The sheets of a build: what is new in them, what the build gives its owner's own copy."""

from datetime import date

import pytest

from hollet.core.errors import Refused
from hollet.services import builds, planning
from hollet.services.own_sheets import keep_what_was_found, sheets_desk
from hollet.services.sheets import find_sheet, keep_sheet, save_sheet, sheet_cards
from tests.support import ACT, SMALL, Hand

ANY = SMALL.replace('id = "small"', 'id = "anyhow"\nany_vehicle = true', 1)
DAY = date(2026, 3, 1)


@pytest.fixture
def made(workshop) -> Hand:
    """A build from a sheet for any vehicle."""
    save_sheet(workshop, ANY)
    build = builds.make_build(
        workshop, sheets=["anyhow"], name="One: head", vehicle="One", about="grey", who="MK"
    )
    return Hand(workshop, build)


def count(hand: Hand, bolts: int) -> None:
    """The head's bolts counted."""
    view = planning.desk(hand.workshop, hand.build)
    said = {"act": "count", "joint": "head", "version": 1, "bolts": bolts, "sure": True}
    act = ACT.validate_python(said)
    planning.edit_plan(
        hand.workshop,
        hand.build,
        [act],
        who="MK",
        version=view.version,
        entry_id=hand.workshop.new_id(),
        reason=None,
    )


def keep(hand: Hand) -> tuple[str, ...]:
    """Kept in the own copy."""
    return keep_what_was_found(hand.workshop, hand.build, who="MK", on=DAY).titles


def test_found_kept_and_found_again(made):
    """Counted, kept under a title of its own, told on its card; a build from it asks no more. The
    sheet itself stays as it was.
    """
    assert sheets_desk(made.workshop, made.build).words == ""
    with pytest.raises(Refused) as refusal:
        keep(made)
    assert refusal.value.reason_code == "nothing_new"
    count(made, 8)
    found = sheets_desk(made.workshop, made.build)
    assert found.words == "1 to keep for the sheets"
    assert keep(made) == ("Small job (own copy)",)
    assert sheets_desk(made.workshop, made.build).sharper == ()
    card = next(c for c in sheet_cards(made.workshop) if c.id == "anyhow-own")
    assert card.learnt == ("Head bolts: 8 bolts counted, 6 are usual (MK, 2026-03-01, One: head)",)
    assert find_sheet(made.workshop, "anyhow").find_joint("head").counted is None
    again = builds.make_build(
        made.workshop, sheets=["anyhow-own"], name="Two", vehicle="Two", about="red", who="TR"
    )
    with made.workshop.held(again) as state:
        joint = state.plan.find_joint("head")
    assert (len(joint.sequence()), joint.counted) == (8, True)
    assert sheets_desk(made.workshop, again).words == ""


def test_a_second_build_adds_to_the_same_copy(made):
    """The next thing found goes into the copy that is there, with its own line; the first stays."""
    count(made, 8)
    keep(made)
    made.write(
        "bagged",
        step="head_out",
        bag=1,
        lines=[{"count": 8, "size": "M10", "length": "95", "holes": "all"}],
        place="on the shelf",
    )
    assert [s.words for s in sheets_desk(made.workshop, made.build).sharper] == [
        "Head bolts out: 8 × M10×95 at all, counted"
    ]
    keep(made)
    own = find_sheet(made.workshop, "anyhow-own")
    assert [found.what for found in own.learnt] == [
        "Head bolts: 8 bolts counted, 6 are usual",
        "Head bolts out: 8 × M10×95 at all, counted",
    ]
    assert own.version == 3


def test_a_newer_sheet_is_told_and_changes_nothing(made):
    """The own sheet edited since: the build says so, its plan stays."""
    newer = ANY.replace(
        'title = "Lead on"\ndo = "On."', 'title = "Lead on"\ndo = "Clean, then on."'
    )
    keep_sheet(made.workshop, newer)
    found = sheets_desk(made.workshop, made.build)
    assert found.words == "1 new in the sheets"
    assert found.news[0].words == "Lead on: now says: Clean, then on."
    with made.workshop.held(made.build) as state:
        assert state.plan.find_step("lead_on").do == "On."


def test_sheets_that_no_longer_go_together(made):
    """Another sheet edited since contradicts the first: told, and the plan desk stands."""
    other = ANY.replace('id = "anyhow"', 'id = "second"', 1)
    save_sheet(made.workshop, other)
    both = builds.make_build(
        made.workshop, sheets=["anyhow", "second"], name="Two", vehicle="Two", about="x", who="MK"
    )
    assert sheets_desk(made.workshop, both).apart is None
    late, early = (
        f'after = [{{ step = "{step}", because = "it is asked", kind = "safety" }}]'
        for step in ("head_in", "cover_on")
    )
    keep_sheet(made.workshop, other.replace('id = "cover_on"', f'id = "cover_on"\n{late}', 1))
    was = 'after = [{ step = "bore", because = "the head closes it", kind = "access closes" }]'
    keep_sheet(made.workshop, ANY.replace(was, early))
    found = sheets_desk(made.workshop, both)
    assert "contradict" in found.apart
    assert found.words == "the sheets no longer go together"
    assert planning.desk(made.workshop, both).rows


def test_a_sheet_that_is_gone_is_named(made):
    """A build whose sheet is no longer here says so, and keeps its plan."""
    with made.workshop.held(made.build) as state:
        state.whole = state.whole.model_copy(update={"sheets": ("lost",)})
    found = sheets_desk(made.workshop, made.build)
    assert (found.gone, found.news, found.sharper) == (("lost",), (), ())
    assert found.words == "lost: no longer here"
