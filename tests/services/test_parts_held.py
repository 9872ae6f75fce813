"""What holds of parts when lines wait, are struck, go through an archive, or the plan is edited."""

from datetime import UTC, date, datetime

import pytest

from hollet.core.book.needs import Need, need_named
from hollet.core.book.orders import orders
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.services.archives import export_build, import_build
from hollet.services.evenings import evenings_of, stop_laying
from hollet.services.logging import Sent, write_entry
from hollet.services.parts import desk
from hollet.services.workshop import Workshop
from tests.services.conftest import stock
from tests.services.test_tonight import say
from tests.support import EDIT, Hand

SATURDAY = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
GASKET = [{"need": "cover_gasket", "count": 1}]
WANTED = {"typed": "1 x cover gasket", "step": "ring", "safety": "none"}


@pytest.fixture
def hand(tmp_path):
    """A hand at a build that wants a gasket, on a Saturday morning."""
    made = Workshop(tmp_path / "data", clock=lambda: SATURDAY)
    found = Hand(made, stock(made))
    found.write("part wanted", **WANTED)
    yield found
    made.close()


def need(hand: Hand, name: str = "cover_gasket") -> Need:
    """A need that is there."""
    with hand.workshop.held(hand.build) as state:
        found = need_named(state, name)
    assert found is not None
    return found


def sent(hand: Hand, bench_time: str, **entry: object) -> None:
    """A line that waited in a queue since `bench_time`."""
    about = Sent(id=hand.workshop.new_id(), who="MK", bench_time=bench_time, seen=10**9)
    write_entry(hand.workshop, hand.build, about, EDIT.validate_python(entry))


@pytest.mark.parametrize(
    ("bench_time", "day"),
    [
        ("2026-03-05T20:00:00+00:00", date(2026, 3, 6)),
        ("2026-03-06T23:30:00-05:00", date(2026, 3, 8)),
        ("2026-03-07T09:00:00Z", date(2026, 3, 8)),
        ("2026-03-20T09:00:00Z", date(2026, 3, 8)),
        ("2011-01-01T09:00:00Z", date(2026, 3, 8)),
    ],
)
def test_tomorrow_is_the_day_after_it_was_said(hand, bench_time, day):
    """Said on Thursday without a network, sent on Saturday: it was Friday that was meant. A bench
    whose clock cannot be right is not believed.
    """
    order = {"order": "o1", "supplier": "Rook", "promised": "tomorrow", "lines": GASKET}
    sent(hand, bench_time, kind="ordered", **order)
    with hand.workshop.held(hand.build) as state:
        assert orders(state)[0].promised == day


def test_the_same_order_pressed_twice_is_one(hand):
    """Twice within a second, or from two screens: the second is refused, and one is on its way."""
    order = {"order": "o1", "supplier": "Rook", "lines": GASKET}
    hand.write("ordered", **order)
    with pytest.raises(Conflict):
        Hand(hand.workshop, hand.build, "TR").write("ordered", **order)
    assert (need(hand).ordered, need(hand).left) == (1, 0)


def test_the_last_piece_is_taken_once(hand):
    """Two screens saw one gasket lie there."""
    hand.write("ordered", order="o1", supplier="Rook", lines=GASKET)
    hand.write("parcel came", order="o1")
    taken = {"need": "cover_gasket", "order": "o1", "count": 1, "how": "counted"}
    hand.write("part taken", **taken)
    with pytest.raises(Refused, match="0 of this order lie here"):
        Hand(hand.workshop, hand.build, "TR").write("part taken", **taken)


def test_a_wish_struck_leaves_nothing_to_take(hand):
    """What nobody wants any more is no need; wanted anew, what came is still not compared."""
    hand.write("ordered", order="o1", supplier="Rook", lines=GASKET)
    hand.write("parcel came", order="o1")
    hand.write("strike", entry=need(hand).by_hand, reason="written on the wrong build")
    with pytest.raises(NotFound):
        hand.write("part taken", need="cover_gasket", order="o1", count=1, how="counted")
    hand.write("part wanted", **WANTED)
    assert (need(hand).here, need(hand).free) == (1, 0)


def test_an_archive_carries_parts_and_frees_none(hand, tmp_path):
    """Out and in again: what is free stays so, what only arrived is not free there either."""
    hand.write("ordered", order="o1", supplier="Rook", lines=GASKET, promised="in 5 days")
    hand.write("order moved", order="o1", state="shipped", promised="in 9 days", because="snow")
    hand.write("parcel came", order="o1")
    data = export_build(hand.workshop, hand.build)
    other = Workshop(tmp_path / "other", clock=lambda: SATURDAY)
    try:
        build = import_build(other, data)
        assert desk(other, build) == desk(hand.workshop, hand.build)
        assert need(Hand(other, build)).here == 1
    finally:
        other.close()


def test_a_step_taken_out_of_the_plan_wants_nothing(hand):
    """Its part is wanted for no step, and stops nothing; put in again it does."""
    assert need(hand).blocks != "nothing"
    hand.write("skipped", step="ring", reason="it is not needed on this job")
    with hand.workshop.held(hand.build) as state:
        found = need_named(state, "cover_gasket")
    assert found is None or found.blocks == "nothing"
    hand.write("reopened", step="ring", reason="it is needed after all")
    assert need(hand).blocks != "nothing"


def test_a_plan_that_was_stopped_is_called_old(hand):
    """Nobody takes the block of yesterday for that of today; asked again it is laid anew."""
    say(hand.workshop, kind="helper kept", helper="rt", name="RT")
    hours = {"start": "09:00", "end": "12:00", "answer": "yes"}
    for k, day in enumerate(("2026-03-14", "2026-03-21", "2026-03-28")):
        say(hand.workshop, kind="visit", visit=f"v{k}", helper="rt", day=day, **hours)
    first = evenings_of(hand.workshop, wait=30)
    assert first.plan is not None, first.problem
    assert not first.old
    assert stop_laying(hand.workshop).old
    assert not evenings_of(hand.workshop, wait=30).old
