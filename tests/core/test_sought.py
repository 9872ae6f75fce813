"""Small things: put by, looked for with a limit, given up, found; and what opens things."""

from datetime import timedelta

import pytest

from hollet.core.book.needs import need_named
from hollet.core.book.openers import openers
from hollet.core.book.sought import kept_places, searches
from hollet.core.calendar.clock import lost_time
from hollet.core.errors import Conflict, NotFound
from tests.support import SMALL, Book, small_sheet, tools


@pytest.fixture
def book() -> Book:
    """A build in which cranking needs the radio's code."""
    text = SMALL.replace(
        'id = "lead"\nstage', 'id = "lead"\nopened_with = ["radio code"]\nstage', 1
    )
    return Book(small_sheet(text), tools())


def looked(book: Book, minutes: int) -> None:
    """Time goes by."""
    book.now += timedelta(minutes=minutes)


def running(book: Book):
    """The searches that go on now."""
    return searches(book.state, book.now.isoformat())


def test_where_it_was_put_is_where_it_was_seen_last(book: Book):
    book.do("put by", what="Woodruff key", where="in the tin by the vice", step="ring")
    (kept,) = kept_places(book.state)
    assert (kept.where, kept.step) == ("in the tin by the vice", "ring")
    book.do("search begun", what="woodruff  key", limit_min=20)
    (search,) = running(book)
    assert search.last_seen == "in the tin by the vice"
    assert kept_places(book.state) == ()


def test_a_search_has_an_end(book: Book):
    """Nineteen minutes go on; twenty are over. Given up: a new one is wanted for its step."""
    book.do("search begun", what="circlip 24", step="ring", count=2)
    looked(book, 19)
    assert [s.over for s in running(book)] == [False]
    looked(book, 1)
    (search,) = running(book)
    assert (search.over, search.words) == (True, "20 min, the 20 are over: order a new one?")
    book.do("search ended", thing="circlip_24", instead="wire, for a trial only")
    assert running(book) == ()
    need = need_named(book.state, "circlip_24")
    assert need is not None
    assert (need.left, need.first and need.first.step) == (2, "ring")
    assert "instead of it wire" in need.reasons[0].why
    assert lost_time(book.state) == {"search": 20}
    (held,) = [o for o in book.in_the_way("ring") if o.code == "part"]
    assert held.words == "circlip 24 is not free for it: to order"


def test_found_after_all_nothing_is_wanted(book: Book):
    """Whether it is said as found or as put by."""
    book.do("search begun", what="circlip 24", step="ring")
    looked(book, 5)
    book.do("search ended", thing="circlip_24")
    assert need_named(book.state, "circlip_24") is not None
    book.do("put by", what="circlip 24", where="it was in the bag")
    assert need_named(book.state, "circlip_24") is None
    book.do("search begun", what="circlip 24")
    book.do("search ended", thing="circlip_24", where="on the floor")
    assert [k.where for k in kept_places(book.state)] == ["on the floor"]
    assert need_named(book.state, "circlip_24") is None


def test_one_search_at_a_time(book: Book):
    book.do("search begun", what="circlip 24")
    with pytest.raises(Conflict):
        book.do("search begun", what="Circlip 24")
    with pytest.raises(NotFound):
        book.do("search ended", thing="other")
    book.refuse("bad_entry", "search ended", thing="circlip_24", where="   ")


def test_given_up_without_a_new_one(book: Book):
    book.do("search begun", what="old label", step="ring")
    book.do("search ended", thing="old_label", reorder=False)
    assert need_named(book.state, "old_label") is None


def test_what_opens_a_thing_is_asked_and_holds_only_its_step(book: Book):
    """Not said: nothing is held. Missing: that step alone, and a reason passes it."""
    (opener,) = openers(book.state)
    assert (opener.name, opener.answer, opener.step) == ("radio code", "", "lead")
    assert not [o for o in book.in_the_way("lead") if o.code == "opener"]
    book.do("opener said", name="radio code", answer="missing")
    (held,) = [o for o in book.in_the_way("lead") if o.code == "opener"]
    assert (held.words, held.by) == ("radio code is missing", "reason")
    assert not [o for o in book.in_the_way("ring") if o.code == "opener"]
    book.do("opener said", name="radio code", answer="here", where="in the glove box")
    assert not [o for o in book.in_the_way("lead") if o.code == "opener"]
    with pytest.raises(NotFound):
        book.do("opener said", name="wheel-lock key", answer="here")
