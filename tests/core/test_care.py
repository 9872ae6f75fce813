"""Sealer that skins, seals that are home, covers that are counted: what no tick brings back."""

import tomllib
from typing import Any

import pytest

from hollet.core.entries.status import plan_of, statuses
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

CLOSED = """
[[limit]]
id = "even"
name = "Seal, depths round about"
dimension = "length"
unit = "mm"
hi = "0.20"
source = "seal maker"

[[step]]
id = "opened_up"
stage = "take_down"
kind = "check"
title = "Opened up"
do = "Off."
[[step.opens]]
id = "rags"
what = "Rag in a port"
blocks = "crank"
undo = "out, counted"
sort = "cover"
count = 3

[[step]]
id = "closed"
stage = "build_up"
kind = "fit"
title = "Closed"
do = "Bead, seal, cover."
closes = ["rags"]
[[step.lays]]
id = "bead"
kind = "sealer"
what = "one bead"
where = "inside the holes"
open = "10 min"
[[step.seats]]
id = "lip"
kind = "seal"
what = "front seal"
way = "lip to the oil"
home = "the tone changes"
even = "even"

[[step]]
id = "oil_on"
stage = "wake"
kind = "check"
title = "Oil on"
do = "In."
"""
WAY, HOME = "front seal: lip to the oil", "front seal home: the tone changes"
RAG = "Rag in a port"
IN_TIME = "one bead: closed and drawn to the end in time"


@pytest.fixture
def book() -> Book:
    """Opened up, three rags in."""
    text = SMALL + CLOSED
    found = Book(read_sheet(tomllib.loads(text), text), tools())
    found.do("done", step="opened_up")
    return found


def lacks(book: Book) -> list[str]:
    return [o.words for o in book.in_the_way("closed")]


def all_but(book: Book, *left: str) -> None:
    """Everything at the step, but what is named."""
    if "bead" not in left:
        book.do("laid on", step="closed", laid="bead")
    for box in (WAY, HOME):
        if box not in left:
            book.do("confirmed", step="closed", what=box)
    if "depths" not in left:
        depths(book, "4.20 4.25 4.20 4.20")
    if "rags" not in left:
        book.do("counted out", step="closed", item="rags", out=3)


def depths(book: Book, typed: str) -> None:
    book.do("seat read", step="closed", seat="lip", typed=typed, instrument="c1")


def test_all_of_it_closes(book: Book):
    all_but(book)
    assert lacks(book) == []
    book.do("done", step="closed")
    assert RAG not in book.left()


@pytest.mark.parametrize(
    ("left", "words", "by_reason"),
    [
        ("bead", "not on yet: one bead, inside the holes", True),
        (WAY, f"not seen: {WAY}", False),
        (HOME, f"not seen: {HOME}", False),
        ("depths", "front seal: its depth is not read round about", True),
        ("rags", "count them out: Rag in a port, 3 went in", False),
    ],
)
def test_each_of_it_holds(book: Book, left: str, words: str, by_reason: bool):
    """What lies on order alone goes by a reason; eyes and counts do not."""
    all_but(book, left)
    assert lacks(book) == [words]
    assert book.in_the_way("closed")[0].by_reason == by_reason
    if not by_reason:
        with pytest.raises(Refused):
            book.do("done", step="closed", reason="it is done later, on purpose")
    assert statuses(book.state)["closed"].status != "done"


def test_a_bead_skins(book: Book):
    """Past its time it is laid anew, or somebody says that it was closed in time."""
    all_but(book)
    book.later(0.5)
    assert lacks(book) == ["it has skinned, off with it and laid anew: one bead"]
    with pytest.raises(Refused):
        book.do("done", step="closed", reason="nobody can see it in there")
    book.do("confirmed", step="closed", what=IN_TIME)
    assert lacks(book) == []
    book.do("laid on", step="closed", laid="bead")
    book.later(0.5)
    assert lacks(book) == ["it has skinned, off with it and laid anew: one bead"]
    book.do("laid on", step="closed", laid="bead")
    assert lacks(book) == []


@pytest.mark.parametrize("out", [0, 2])
def test_a_rag_stays_in(book: Book, out: int):
    all_but(book, "rags")
    book.do("counted out", step="closed", item="rags", out=out)
    assert lacks(book) == [f"{3 - out} of 3 still in: Rag in a port"]
    with pytest.raises(Refused):
        book.do("done", step="closed", reason="it is done later, on purpose")


def test_more_out_than_in(book: Book):
    with pytest.raises(Refused, match="3 went in"):
        book.do("counted out", step="closed", item="rags", out=4)
    with pytest.raises(NotFound):
        book.do("counted out", step="closed", item="spanners", out=1)


@pytest.mark.parametrize(("out", "taken"), [(None, False), (2, False), (4, False), (3, True)])
def test_undone_by_hand_is_counted_too(book: Book, out: int | None, taken: bool):
    """The ledger is no way round the count."""
    if taken:
        book.do("undone", item="rags", out=out)
    else:
        with pytest.raises(Refused, match="3 went in"):
            book.do("undone", item="rags", out=out)
    assert (RAG in book.left()) != taken


def test_counted_before_they_went_in_again(book: Book):
    """A count of yesterday is none of the rags that went in since."""
    book.do("counted out", step="closed", item="rags", out=3)
    book.do("reopened", step="opened_up")
    book.do("done", step="opened_up")
    assert "count them out: Rag in a port, 3 went in" in lacks(book)


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("4.20 4.60 4.20 4.20", "front seal: its depths differ too much"),
        ("4.20 4.38 4.20 4.20", "front seal: its depths, too close"),
    ],
)
def test_a_seal_askew(book: Book, typed: str, words: str):
    all_but(book, "depths")
    depths(book, typed)
    assert lacks(book)[0].startswith(words)


@pytest.mark.parametrize(
    ("typed", "tool", "words"),
    [
        ("4.20", "c1", "three to eight depths"),
        ("", "c1", "at least 1 character"),
        ("4.2 4.2 900", "c1", "gives 0 to 150"),
        ("4.2 4.2 x", "c1", "x"),
        ("4.2 4.2 4.2", "w1", "reads no depth"),
    ],
)
def test_depths_that_are_none(book: Book, typed: str, tool: str, words: str):
    with pytest.raises(ValueError if not typed else Refused, match=words):
        book.do("seat read", step="closed", seat="lip", typed=typed, instrument=tool)
    assert book.bench("closed").base.seats[0].depths is None


def test_opened_again_is_looked_at_again(book: Book):
    all_but(book)
    book.do("done", step="closed")
    with pytest.raises(Refused, match="is done: open it again first"):
        book.do("laid on", step="closed", laid="bead")
    book.do("reopened", step="closed")
    assert f"not seen: {WAY}" in lacks(book)
    assert "not on yet: one bead, inside the holes" in lacks(book)


def care(book: Book, **act: Any) -> None:
    book.plan("care", step="closed", **act)


def test_said_by_hand(book: Book):
    """One line each: which way, what is laid on, what is home, that it is a trial."""
    care(book, what="orient", sort="arrow", says="arrow to the front", where="the sticker")
    care(
        book,
        what="lay",
        sort="locker",
        says="locker on the threads",
        open="5 min",
        cure="2 h",
        waits="oil_on",
    )
    care(book, what="seat", sort="plug", says="dish outwards", where="level with the face")
    care(book, what="trial", says="both ends reach")
    bench = book.bench("closed").base
    assert bench.orients[0].misleads == "the sticker"
    assert [x.what for x in bench.lays] == ["one bead", "locker on the threads"]
    assert bench.seats[1].home_box == "plug home: level with the face"
    assert bench.trial.proves == "both ends reach"
    step = plan_of(book.state).find_step("oil_on")
    assert [(a.kind, a.lasts, a.how) for a in step.after] == [("drying", "2 h", "cures")]
    assert "nobody has said what it proved: both ends reach" in lacks(book)


@pytest.mark.parametrize(
    ("act", "words"),
    [
        ({"what": "orient", "sort": "upwards", "says": "this way"}, "is none of arrow"),
        ({"what": "lay", "sort": "sealer", "says": "a bead", "open": "soon"}, "soon"),
        ({"what": "lay", "sort": "sealer", "says": "a bead", "open": "0 min"}, "more than nothing"),
        ({"what": "seat", "sort": "seal", "says": "lip in"}, "that it is home"),
        ({"what": "lay", "sort": "sealer", "says": "a bead", "waits": "opened_up"}, "."),
    ],
)
def test_lines_that_say_nothing(book: Book, act: dict[str, str], words: str):
    with pytest.raises(Refused, match=words):
        care(book, **act)


def test_this_first(book: Book):
    """Into the plan before the step in hand; why is asked, and what came off waits for it."""
    all_but(book)
    book.do("done", step="closed")
    offered = [row.step for row in book.bench("oil_on").base.comes_off.steps]
    assert offered == ["closed"]
    book.plan("this_first", step="oil_on", title="Drain plug washer", off=["closed"])
    book.do("reopened", step="closed", reason="off again for another part")
    steps = {s.title: s for s in plan_of(book.state).step}
    new = steps["Drain plug washer"]
    assert {new.id} <= {link.step for link in steps["Oil on"].after}
    assert {new.id} <= {link.step for link in steps["Closed"].after}
    waits = [o.words for o in book.in_the_way("oil_on")]
    assert any("Drain plug washer" in words for words in waits)
    with pytest.raises(NotFound):
        book.plan("this_first", step="oil_on", title="Another part", off=["nothing"])
    with pytest.raises(Refused, match="put nothing on"):
        book.plan("this_first", step="oil_on", title="Another part", off=["head_out"])


WATCH = """
[[step]]
id = "spark"
stage = "prepare"
kind = "check"
title = "Welded"
do = "Weld."

[[step]]
id = "watch"
stage = "prepare"
kind = "wait"
title = "Watch"
do = "Look."
after = [{ step = "spark", because = "embers", kind = "drying", how = "cools", lasts = "1 h" }]

[[step]]
id = "coat"
stage = "prepare"
kind = "check"
title = "Coated"
do = "Paint."
after = [{ step = "watch", because = "solvent meets embers", kind = "safety" }]
"""


def test_every_spark_starts_the_watch_anew():
    """A watch that was over is none after another spark; nor is what stood on it free."""
    text = SMALL + WATCH
    book = Book(read_sheet(tomllib.loads(text), text), tools())
    book.do("done", step="spark")
    with pytest.raises(Refused, match="embers"):
        book.do("done", step="watch")
    book.later(1.1)
    book.do("done", step="watch")
    assert book.in_the_way("coat") == ()
    book.do("reopened", step="spark")
    assert "embers" in book.in_the_way("coat")[0].words
    book.do("done", step="spark")
    assert statuses(book.state)["watch"].doubt == "its time begins anew: embers"
    with pytest.raises(Refused, match="embers"):
        book.do("done", step="coat", reason="it is cold by hand now")
    book.later(1.1)
    book.do("done", step="watch")
    book.do("done", step="coat")
