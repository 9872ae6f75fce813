"""Gauges that send while an engine runs: the server's second, one figure a gauge, and no guess."""

from datetime import datetime, timedelta

import pytest

from hollet.core.acts.gauges import GaugesReadAct
from hollet.core.acts.hand import Hand
from hollet.core.acts.kinds import accept
from hollet.core.entries.status import plan_of
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.quantities.quantity import Quantity
from hollet.core.sent import SentValue
from hollet.core.steps.run import attempt_facts
from tests.support import SMALL, Book, small_sheet, tool, tools

A = "attempt-1"
OWN = {"mpe": "0.1", "resolution": "0.1", "s": "0.05"}
SHOP = {
    "p1": tool("p1", "pressure gauge", dimension="pressure", unit="bar", lo="0", hi="10", **OWN),
    "n1": tool("n1", "rev counter", dimension="speed", unit="rpm", lo="0", hi="9000", **OWN),
    "k1": tool("k1", "thermometer", dimension="temperature", unit="°C", lo="0", hi="150", **OWN),
}


def reads(name: str, value: str, unit: str) -> SentValue:
    return SentValue(
        id=f"line-{name}", device=f"{name}-0001", tool=name, heard="", raw="",
        value=Quantity(value=value, unit=unit),
    )  # fmt: skip


@pytest.fixture
def runs() -> Book:
    longer = SMALL.replace('hi = "15"', 'hi = "90"')
    book = Book(small_sheet(longer), tools() | SHOP)
    book.do("attempt started", step="fire", attempt=A, reason="to see it run")
    book.live = {"p1": reads("p1", "2.4", "bar"), "n1": reads("n1", "1310", "rpm")}
    return book


def take(book: Book, at: float, **own: str):
    """At this second of the attempt, by the server's clock."""
    start = book.state.live("run", A)[0]
    book.now = datetime.fromisoformat(start.time) + timedelta(seconds=at)
    act = GaugesReadAct.model_validate({"kind": "gauges read", "step": "fire", "attempt": A} | own)
    hand = Hand(book.shop, book.time, book.now.date(), who=book.who, live=book.live)
    body = accept(book.state, act, hand)
    book.now -= timedelta(seconds=10)  # a line of the book is written ten seconds later
    return book.add(body)


def facts(book: Book):
    return attempt_facts(book.state, plan_of(book.state).find_step("fire"), A)


def test_the_gauges_say_oil_and_revs_at_the_servers_second(runs: Book):
    line = take(runs, 3)
    assert line.body.line("") == "3 s 1310 rpm, 2.4 bar, sent by P1, N1"
    runs.live["k1"] = reads("k1", "64", "°C")
    take(runs, 4.2)
    tracks = {t.key: t.samples for t in facts(runs).tracks}
    assert tracks["oil"] == ((3.0, 2.4), (4.2, 2.4))
    assert tracks["coolant"] == ((4.2, 64.0),)
    assert facts(runs).stop is None
    assert facts(runs).pressure_at == 3.0


def test_low_pressure_on_a_gauge_that_sends_is_stop(runs: Book):
    take(runs, 3)
    runs.live["p1"] = reads("p1", "0.4", "bar")
    take(runs, 9)
    assert facts(runs).stop == "Oil pressure 0.4 bar, asked 1.0: key off"


def test_a_gauge_that_is_gone_says_nothing_and_silence_is_stop(runs: Book):
    """Revs go on, the oil gauge fell silent: twenty seconds later it is STOP, revs or not."""
    take(runs, 3)
    del runs.live["p1"]
    for second in (10, 20, 27):
        take(runs, second)
    assert facts(runs).stop == "No reading of the oil pressure for 20 s: key off"


def test_of_two_gauges_of_one_kind_neither_counts(runs: Book):
    """One hangs at the engine and one lies on the bench: nobody knows which is which."""
    runs.shop = runs.shop | {"p2": SHOP["p1"].model_copy(update={"id": "p2", "code": "P2"})}
    runs.live["p2"] = reads("p2", "3.0", "bar")
    line = take(runs, 3)
    assert line.body.samples[0].oil is None
    assert line.body.samples[0].sent == ("N1",)


def test_a_gauge_of_another_quantity_is_none(runs: Book):
    runs.live = {"m1": reads("m1", "2.4", "mm")}
    with pytest.raises(Refused, match="no gauge of the shop sends"):
        take(runs, 3)


def test_two_screens_write_one_moment(runs: Book):
    """The second screen asks half a second behind the first: one line."""
    take(runs, 3)
    with pytest.raises(Conflict):
        take(runs, 3.5)
    take(runs, 4)


def test_nothing_is_taken_once_the_key_is_off(runs: Book):
    runs.do("attempt ended", step="fire", attempt=A, after_s=4, reason="seen: runs")
    with pytest.raises(Conflict):
        take(runs, 5)
    with pytest.raises(NotFound):
        take(runs, 5, attempt="attempt-9")
    with pytest.raises(NotFound):
        take(runs, 5, step="crank")
