"""What is not as it left the works: nothing of it is forgotten, and what may not stay does not."""

import tomllib

import pytest

from hollet.core.book.changed import changed
from hollet.core.entries import PartReturned
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.read import read_sheet
from tests.support import SMALL, Book, tools

LOOK = """
[[step]]
id = "look"
stage = "inspect"
kind = "inspect"
title = "Loom looked at"
do = "Look."

[[step.part]]
id = "loom"
name = "Loom"
face = [{ id = "run", name = "run", on = "wire" }]

[[step.part]]
id = "hose"
name = "Brake hose"
safety = "brakes"
face = [{ id = "run", name = "run", on = "plastic" }]

[[step]]
id = "bracket_on"
stage = "build_up"
kind = "fit"
title = "Bracket on"
do = "On."
parts = [{ name = "alternator" }]
"""
WIRE = {"wire": "w1", "place": "120 mm from the plug", "which": "green and black", "how": "crimped"}
ALTERED = {
    "altered": "b1",
    "what": "bracket",
    "differs": "bent by hand",
    "held": "two bolts M8",
    "undo": "bend it back by the photo",
}


@pytest.fixture
def book() -> Book:
    text = SMALL + LOOK
    return Book(read_sheet(tomllib.loads(text), text), tools())


def wire(book: Book, state: str, proof: str = "") -> None:
    book.do("wire mended", step="look", **WIRE, state=state, proof=proof)


def strange(book: Book, part: str = "loom") -> None:
    book.do(
        "finding", step="look", part=part, face="run", code="strange", grade=2, words="a splice"
    )


def test_a_wire_from_cut_to_tied(book: Book):
    """Bare it shuts power, joined it shuts the drive; its ties are the last of it."""
    wire(book, "cut")
    assert book.open()["wire:w1"] == "power_on"
    wire(book, "joined")
    assert book.open()["wire:w1"] == "drive"
    with pytest.raises(Refused, match="ties stay off till it is proven"):
        wire(book, "tied")
    with pytest.raises(Refused, match="say how it was proven"):
        wire(book, "proven")
    wire(book, "proven", "end to end, moved")
    assert "wire green and black, 120 mm from the plug: proven, its ties loose" in book.left()
    wire(book, "tied")
    assert "wire:w1" not in book.open()
    assert changed(book.state).wires[0].proof == "end to end, moved"


def test_a_wire_joined_anew_is_proven_anew(book: Book):
    for state, proof in (("joined", ""), ("proven", "end to end"), ("tied", ""), ("joined", "")):
        wire(book, state, proof)
    with pytest.raises(Refused, match="ties stay off"):
        wire(book, "tied")


def test_a_wire_whose_proof_was_struck_is_not_proven_by_its_ties(book: Book):
    """Nor by a join that was struck."""
    wire(book, "joined")
    joined = book.state.last.id
    wire(book, "proven", "end to end")
    proof = book.state.last.id
    wire(book, "tied")
    book.do("strike", entry=proof, reason="was not tried at all")
    assert book.open()["wire:w1"] == "drive"
    assert changed(book.state).wires[0].words == "joined, not proven"
    book.do("strike", entry=joined, reason="another wire")
    assert changed(book.state).wires[0].words == "joined, not proven"


@pytest.mark.parametrize("state", ["proven", "tied"])
def test_a_wire_nobody_joined(book: Book, state: str):
    with pytest.raises(Refused):
        wire(book, state, "seen")
    wire(book, "cut")
    with pytest.raises(Refused):
        wire(book, state, "seen")


@pytest.mark.parametrize("inner", ["0", "-3", "wide"])
def test_a_sleeve_that_is_none(book: Book, inner: str):
    with pytest.raises(Refused):
        book.do("wire mended", step="look", **WIRE, state="joined", sleeve_inner=inner)
    assert changed(book.state).wires == ()


def test_a_part_changed_for_one_that_went_back(book: Book):
    """The bracket was bent for an alternator; another alternator asks whether it still fits."""
    book.do("altered", step="bracket_on", **ALTERED, for_need="alternator")
    assert changed(book.state).altered[0].asked is None
    back = PartReturned(refusal="r1", need="alternator", part="alternator", now="sent back")
    book.add(back)
    asked = changed(book.state).altered[0].asked
    assert asked == "alternator went back: does bracket still fit?"
    assert "altered:b1" in book.open()
    book.do("altered", step="bracket_on", **ALTERED, for_need="alternator")
    assert "altered:b1" not in book.open()


def test_changed_for_a_part_nobody_wants(book: Book):
    with pytest.raises(NotFound):
        book.do("altered", step="bracket_on", **ALTERED, for_need="turbine")


def test_earlier_hands(book: Book):
    """Undecided, kept in writing, or a step with its rung."""
    strange(book)
    row = changed(book.state).earlier[0]
    assert (row.what, row.choice) == ("Loom, run, a splice", None)
    assert changed(book.state).open == 1
    book.do(
        "earlier kept",
        step="look",
        part="loom",
        face="run",
        held="glue sleeve",
        why="it was proven under load",
    )
    row = changed(book.state).earlier[0]
    assert (row.choice, row.words) == (
        "keep",
        "stays, held by glue sleeve: it was proven under load",
    )
    book.plan(
        "put_in", title="Splice out", do="Out.", stage="prepare", blocks="drive", mends=row.key
    )
    row = changed(book.state).earlier[0]
    assert row.choice == "step"
    assert book.open()[f"step:{row.at}"] == "drive"
    assert plan_of(book.state).find_step(row.at).mends == "look/loom/run"


def test_earlier_hands_on_a_brake_hose(book: Book):
    """What earlier hands did to a safety part does not stay by a line of writing."""
    strange(book, "hose")
    with pytest.raises(Refused, match="brakes"):
        book.do(
            "earlier kept",
            step="look",
            part="hose",
            face="run",
            held="a clamp",
            why="it held so far",
        )
    assert changed(book.state).earlier[0].choice is None


def test_nothing_strange_nothing_kept(book: Book):
    with pytest.raises(NotFound):
        book.do(
            "earlier kept",
            step="look",
            part="loom",
            face="run",
            held="tape",
            why="looks good to me",
        )


def left(book: Book, blocks: str = "drive", sort: str = "stand_in") -> None:
    book.do("left open", step="look", item="i1", what="resistor", blocks=blocks, sort=sort)


def keep(book: Book, safety: str = "none") -> None:
    book.do(
        "kept so",
        step="look",
        item="i1",
        bears="5 W",
        why="the sensor is not made now",
        safety=safety,
    )


def test_a_stand_in_kept_in_writing(book: Book):
    left(book)
    assert not changed(book.state).stand_ins[0].kept
    keep(book)
    assert "resistor" not in book.left()
    assert changed(book.state).stand_ins[0].kept == "the sensor is not made now"
    book.do("strike", entry=book.state.last.id, reason="it goes out after all")
    assert "resistor" in book.left()


@pytest.mark.parametrize("safety", ["brakes", "steering", "fuel", "restraints", "lifting"])
def test_nothing_stands_in_for_a_brake(book: Book, safety: str):
    left(book)
    with pytest.raises(Refused):
        keep(book, safety)
    assert "resistor" in book.left()


@pytest.mark.parametrize(
    ("blocks", "sort"),
    [("crank", "stand_in"), ("fire", "stand_in"), ("drive", "cover"), ("drive", "block")],
)
def test_what_may_not_stay(book: Book, blocks: str, sort: str):
    left(book, blocks, sort)
    with pytest.raises(Refused):
        keep(book)


def test_a_stand_in_of_the_sheet_does_not_stay(book: Book):
    """What a sheet opens is closed by the sheet."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    with pytest.raises(Refused):
        book.do(
            "kept so",
            step="look",
            item="coil",
            bears="all",
            why="it never hurt anybody",
            safety="none",
        )


def empty(book: Book, bolt: int, note: str | None) -> None:
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.do(
        "fastener",
        step="head_in",
        bolt=bolt,
        act="state",
        tightness="left out on purpose",
        note=note,
    )


def test_a_bolt_left_empty_for_a_later_part(book: Book):
    """The others go on; the joint is final only once it is in."""
    empty(book, 2, "the lifting eye")
    assert book.joint().progress.endswith("1 left empty on purpose")
    book.wrench()
    for stage in range(3):
        for bolt in (1, 3, 4, 5, 6):
            assert book.joint().next_bolt == bolt, stage
            book.do("fastener", step="head_in", bolt=bolt, act="clicked", as_typed=True)
    assert book.joint().waits == "bolt 2 is left empty for the lifting eye"
    assert not book.joint().final
    assert changed(book.state).empty[0].what.endswith("for the lifting eye")
    book.do("fastener", step="head_in", bolt=2, act="state", tightness="by hand")
    assert (book.joint().next_bolt, book.joint().next_stage) == (2, 1)


@pytest.mark.parametrize("note", [None, "", " x "])
def test_left_empty_for_nothing(book: Book, note: str | None):
    with pytest.raises(Refused, match="say what its hole is left empty for"):
        empty(book, 2, note)
