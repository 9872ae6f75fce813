"""Money: budget, ways, the owner's word, what is bought ahead, and the sums behind them."""

import pytest
from pydantic import ValidationError

from hollet.core.book.concessions import concessions, without_word
from hollet.core.book.needs import need_named
from hollet.core.buying import BuyAhead, FetchTrip, buy_ahead, fetch_trip
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.screens.costs import money_of
from hollet.screens.moneydesk import money_desk
from tests.support import Book, small_sheet, tools

WAYS = [
    {"how": "do it", "price": 0, "days": 2, "because": "needs a press"},
    {"how": "send it out", "price": 85, "days": 9},
]


@pytest.fixture
def book() -> Book:
    """A small build."""
    return Book(small_sheet(), tools())


def bought(book: Book, price: float, count: int = 1) -> None:
    """A part wanted and ordered at a price."""
    book.do("part wanted", typed="1 x water pump", step="again", safety="none")
    lines = [{"need": "water_pump", "count": count, "price": price}]
    book.do("ordered", order="o1", supplier="Rook", lines=lines)


def conceded(book: Book) -> str:
    """A gap outside its limit accepted in writing; the line's id."""
    book.do("reading", step="ring", reading="ring", typed=["0.60 0.65"], unit="mm", instrument="f1")
    reason = "it ran like this for years, looked at again at the next service"
    said = {"reason": reason, "name": "MK"}
    book.do("concession", step="ring", result="g", **said)
    return concessions(book.state)[0].entry


@pytest.mark.parametrize(
    ("price", "chance", "days", "a_day", "later", "better"),
    [
        (4.2, 0.4, 6, 0, 1.68, "now" if 4.2 <= 1.68 else "later"),
        (4.2, 0.4, 6, 5, 13.68, "now"),
        (100, 0.1, 10, 20, 30.0, "later"),
        (30, 1.0, 0, 0, 30.0, "now"),
        (0, 0.0, 400, 9, 0.0, "now"),
    ],
)
def test_what_waiting_costs_on_average(price, chance, days, a_day, later, better):
    """p (price + days x a day) by hand; bought now is the price."""
    found = buy_ahead(BuyAhead(price=price, chance=chance, wait_days=days, a_day=a_day))
    assert found.now == price
    assert found.later == pytest.approx(later)
    assert found.better == better
    assert len(found.working) == 2


def test_what_comes_back_makes_buying_now_cheaper():
    """40 paid, 30 back in six of ten: 22 on average."""
    found = buy_ahead(BuyAhead(price=40, chance=0.4, wait_days=3, a_day=4, resale=30))
    assert found.now == pytest.approx(22)


@pytest.mark.parametrize(
    ("figures", "code"),
    [
        ({"price": -1, "chance": 0.4, "wait_days": 1}, "negative_money"),
        ({"price": 1, "chance": 1.1, "wait_days": 1}, "bad_chance"),
        ({"price": 1, "chance": 0.4, "wait_days": -1}, "negative_wait"),
    ],
)
def test_bad_sums_are_refused(figures, code):
    """With the figure that is wrong."""
    with pytest.raises(Refused) as refusal:
        buy_ahead(BuyAhead(**figures))
    assert refusal.value.reason_code == code
    assert refusal.value.field


def test_the_way_there_and_back():
    """90 km at 60: 90 min one way; it closes in 80, so it is too late; 250 km of fuel reach."""
    trip = {"distance_km": 90, "speed_km_h": 60, "tank_reaches_km": 250, "closes_in_min": 80}
    found = fetch_trip(FetchTrip(**trip, stops_min=20))
    assert (found.way_km, found.away_min) == (180, 215)
    assert found.leave_within_min == pytest.approx(-20)
    assert not found.in_time
    assert found.to_spare_km == pytest.approx(20)
    assert found.fuel_enough
    assert "it closes before you are there" in found.working


@pytest.mark.parametrize(
    ("figure", "value", "code"),
    [
        ("distance_km", 0, "no_way"),
        ("speed_km_h", -5, "no_way"),
        ("closes_in_min", -1, "negative_time"),
        ("reserve_km", -1, "negative_range"),
    ],
)
def test_no_trip_without_a_way(figure, value, code):
    trip = {"distance_km": 9, "speed_km_h": 60, "tank_reaches_km": 250, "closes_in_min": 80}
    with pytest.raises(Refused) as refusal:
        fetch_trip(FetchTrip(**{**trip, figure: value}))
    assert refusal.value.reason_code == code


def test_the_budget_against_what_is_sure_and_the_worst(book: Book):
    """120 of 200 ordered; a part that may be needed for 90 would go over it."""
    book.do("budget set", money=200, name="TR")
    bought(book, 120)
    money = money_of(book.state)
    assert (money.sure, money.left) == (120, 80)
    assert money.budget_words == "80.00 left of 200.00"
    book.do(
        "reserve weighed", name="shim kit", price=90, wait_days=4, a_day=0, **PERHAPS, buy=False
    )
    assert money_of(book.state).budget_words == "80.00 left of 200.00, at worst 10.00 over"
    book.do("budget set", money=100, name="TR")
    assert money_of(book.state).budget_words == "20.00 over the budget of 100.00"


PERHAPS = {"chance": "perhaps"}


def test_a_way_counts_once_it_is_taken(book: Book):
    """Weighed costs nothing; taken needs a reason, and then its price is sure."""
    book.do("way weighed", way="w1", what="press the bearings", options=WAYS)
    assert money_of(book.state).decided == 0
    book.refuse("reason_thin", "way weighed", way="w1", what="press", options=WAYS, chosen=1)
    why = "easy to ruin without a press"
    book.do("way weighed", way="w1", what="press", options=WAYS, chosen=1, because=why)
    money = money_of(book.state)
    assert money.decided == 85
    assert "decided: press, send it out, 85.00" in money.working
    twice = [WAYS[0], WAYS[0]]
    book.refuse("twice", "way weighed", way="w2", what="press", options=twice)


def test_paid_and_sold(book: Book):
    """What was paid stands beside what was ordered; what was sold comes off."""
    bought(book, 120)
    book.do("paid", order="o1", money=50)
    money = money_of(book.state, sold=30.0)
    assert (money.ordered, money.paid, money.sold, money.sure) == (120, 50, 30, 90)
    with pytest.raises(NotFound):
        book.do("paid", order="none", money=5)


def test_bought_ahead_is_a_part_that_no_step_waits_for(book: Book):
    """0.4 of (6 + 5 days at 4): 10.40 on average against 6 now."""
    said = {"name": "shim 2.4", "price": 3, "count": 2, "wait_days": 5, "a_day": 4}
    book.do("reserve weighed", **said, **PERHAPS, buy=True)
    found = need_named(book.state, "shim_2_4")
    assert found is not None
    assert (found.left, found.blocks, found.reasons[0].step) == (2, "nothing", None)
    row = money_desk(book.state, 0).reserves[0]
    assert (row.now, row.later, row.buy) == (6, 10.4, True)
    assert row.working[0] == "perhaps: 0.4, assumed"
    assert money_of(book.state).to_order == 6


def test_the_chance_comes_from_the_readings(book: Book):
    """Nothing read: a key is asked for. One gap of one read, far under and far over the edge."""
    hangs = {"limit": "gap", "buy": False, "price": 4, "wait_days": 6, "a_day": 1}
    book.refuse("nothing_read", "reserve weighed", name="ring", **hangs, beyond="over 0.5 mm")
    book.do("reading", step="ring", reading="ring", typed=["0.30 0.35"], unit="mm", instrument="f1")
    book.do("reserve weighed", name="ring", **hangs, beyond="over 0.5 mm")
    row = money_desk(book.state, 0).reserves[0]
    assert row.later == pytest.approx(0, abs=0.01)
    book.do("reserve weighed", name="ring", **hangs, beyond="under 0.5 mm")
    assert money_desk(book.state, 0).reserves[0].later == pytest.approx(10, abs=0.01)
    book.refuse("bad_edge", "reserve weighed", name="ring", **hangs, beyond="2 to 3 mm")
    book.refuse("bad_chance", "reserve weighed", name="ring", **hangs, chance="likely")


def test_a_concession_waits_for_the_owner(book: Book):
    """Nobody's vehicle but one's own: nothing waits. Somebody else's: drive is shut till the word
    is there, and a strike opens it again.
    """
    line = conceded(book)
    assert without_word(book.state) == ()
    book.do("owner said", word="s", sort="standard", what="as new", name="TR", how="by phone")
    assert [c.entry for c in without_word(book.state)] == [line]
    assert book.open()[f"word:{line}"] == "drive"
    said = {"sort": "concession", "what": "agreed", "name": "TR", "how": "in a letter"}
    word = book.do("owner said", word="a", about=line, **said)
    assert without_word(book.state) == ()
    book.do("strike", entry=word.id, reason="typed at the wrong part")
    assert [c.entry for c in without_word(book.state)] == [line]


@pytest.mark.parametrize(
    ("said", "code"),
    [
        ({"sort": "sold", "what": "the old pump"}, "no_price"),
        ({"sort": "extra", "what": "new hoses", "day": "someday"}, "bad_day"),
        ({"sort": "extra", "what": "new hoses", "day": "in 3 days"}, "bad_day"),
    ],
)
def test_a_word_has_its_price_and_its_day(book: Book, said, code):
    book.refuse(code, "owner said", word="w", name="TR", how="at the bench", **said)


def test_a_word_answers_a_concession_that_is_there(book: Book):
    """Not one that nobody made."""
    said = {"sort": "concession", "what": "agreed", "name": "TR", "how": "by phone"}
    with pytest.raises(NotFound):
        book.do("owner said", word="a", about="nothing", **said)


def test_a_word_is_written_once(book: Book):
    """Another word under its id would hide the first: it is refused, the first struck by hand."""
    said = {"sort": "extra", "what": "new hoses", "name": "TR", "how": "by phone"}
    first = book.do("owner said", word="w", **said)
    with pytest.raises(Conflict):
        book.do("owner said", word="w", **{**said, "what": "something else"})
    book.do("strike", entry=first.id, reason="it was another vehicle")
    book.do("owner said", word="w", **said)
    assert [w.what for w in money_desk(book.state, 0).words] == ["new hoses"]


@pytest.mark.parametrize("money", [True, -1, 2e6, "much", float("nan")])
def test_a_price_is_a_number(book: Book, money):
    """Neither a word nor a yes; nothing is written."""
    head = book.state.head
    with pytest.raises(ValidationError):
        book.do("budget set", money=money, name="TR")
    assert book.state.head == head


def test_a_way_that_is_ordered_is_not_counted_twice(book: Book):
    """85 decided, then 85 ordered: 85 in all, once it is said."""
    why = "easy to ruin without a press"
    said = {"way": "w1", "what": "press", "options": WAYS, "because": why}
    book.refuse("bad_entry", "way weighed", **said, ordered=True)
    book.do("way weighed", **said, chosen=1)
    bought(book, 85)
    assert money_of(book.state).sure == 170
    book.do("way weighed", **said, chosen=1, ordered=True)
    assert money_of(book.state).sure == 85


def test_a_reading_that_moves_the_chance_says_so(book: Book):
    """Weighed at nothing beyond; read again over the edge, it is to be weighed anew; struck, the
    readings are gone.
    """
    hangs = {"limit": "gap", "beyond": "over 0.5 mm", "price": 4, "wait_days": 6, "a_day": 1}
    first = book.read("ring", "ring", "0.30 0.35", tool="f1")
    book.do("reserve weighed", name="ring", **hangs, buy=False)
    assert money_desk(book.state, 0).reserves[0].moved == ""
    second = book.read("ring", "ring", "0.60 0.65", tool="f1", sure=True)
    assert money_desk(book.state, 0).reserves[0].moved.endswith("weigh it again")
    for line in (first, second):
        book.do("strike", entry=line.id, reason="typed at the wrong bench")
    assert "are gone" in money_desk(book.state, 0).reserves[0].moved
