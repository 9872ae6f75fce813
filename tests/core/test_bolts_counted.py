"""How many bolts a joint has: a sheet for any vehicle guesses, somebody counts; a guess is never
final, and another number begins the joint anew.
"""

import pytest
from pydantic import ValidationError

from hollet.core.book.complete import lacking
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.joints import Joint, Layout
from tests.support import ACT, SMALL, Book, small_sheet, tools

ANY = SMALL.replace("[sheet]", "[sheet]\nany_vehicle = true", 1)
ONE_STAGE = ({"torque": "30 Nm"},)


def joint_of(**own) -> Joint:
    """A joint of a circle of six, unless said otherwise."""
    base = {
        "id": "lid",
        "name": "Lid bolts",
        "layout": {"kind": "circle", "n": 6},
        "pattern": "star",
        "stage": ONE_STAGE,
        "fastener": "6 x M8",
        "counted": False,
    }
    return Joint.model_validate({**base, **own})


def points(n: int) -> dict[str, tuple[float, float]]:
    """Bolts in a row, by letters."""
    return {chr(97 + k): (float(k), 0.0) for k in range(n)}


@pytest.fixture
def book() -> Book:
    """The head of a sheet for any vehicle, its wrench chosen, with nothing before it."""
    book = Book(small_sheet(ANY), tools())
    book.do("started", step="head_in", reason="bore measured at the shop")
    book.wrench()
    return book


def pulled(book: Book, rounds: int = 3) -> None:
    """Every bolt of the head through its rounds: two by torque, one by angle."""
    for _ in range(rounds):
        for _ in range(len(book.joint().bolts)):
            book.click(book.joint().next_bolt)


def held(book: Book) -> str | None:
    """What the step of the head still lacks."""
    step = book.state.plan.find_step("head_in")
    return lacking(book.state, step, tuple(book.shop.values()), book.time)


def test_a_guess_is_never_final(book: Book):
    """Six of six pulled, and nobody has counted: not final at the bench, in the ledger and for the
    step; one count makes it so, without a bolt pulled again.
    """
    pulled(book)
    facts = book.joint()
    assert all(bolt.final for bolt in facts.bolts)
    assert (facts.final, facts.next_bolt) == (False, None)
    assert facts.waits == "Head bolts: count them before they are called final"
    words = "6 bolts" not in facts.progress and "nobody has counted them" in facts.progress
    assert words
    assert "nobody has counted" in str(held(book))
    assert any("nobody has counted" in what for what in book.left())
    book.plan("count", joint="head", version=facts.version, bolts=6)
    assert book.joint().final
    assert held(book) is None
    assert not any("Head bolts" in what for what in book.left())


def test_a_sheet_of_one_vehicle_knows_its_bolts():
    """Nobody is asked to count what the book of this engine says."""
    assert Book(small_sheet(SMALL), tools()).joint().counted


def test_another_number_begins_anew(book: Book):
    """Two rounds on six bolts, then eight are counted: what was bolt 3 is nobody knows which, so
    none of them was pulled; the log says it.
    """
    pulled(book, 2)
    assert book.joint().next_stage == 3
    line = book.plan("count", joint="head", version=1, bolts=8, sure=True)
    facts = book.joint()
    assert (len(facts.bolts), facts.begun, facts.next_stage) == (8, False, 1)
    assert "Head bolts: 8 bolts counted, not 6" in [c.words(None) for c in line.body.changes]
    pulled(book)
    assert book.joint().final


def test_the_same_number_keeps_what_was_pulled(book: Book):
    """Counted in the middle of the work: the next bolt stays the next."""
    book.click(1)
    book.click(2)
    book.plan("count", joint="head", version=1, bolts=6)
    assert (book.joint().next_bolt, book.joint().next_stage) == (3, 1)


def test_two_who_count(book: Book):
    """The second one is told to look again, and so is who counts a joint that is not there."""
    book.plan("count", joint="head", version=1, bolts=6)
    with pytest.raises(Conflict, match="edited by somebody else"):
        book.plan("count", joint="head", version=1, bolts=8, sure=True)
    with pytest.raises(NotFound):
        book.plan("count", joint="nothing", version=1, bolts=8)


def test_a_torque_edited_leaves_the_count(book: Book):
    """A figure that changes is no count, and a count is no figure."""
    book.plan("joint", joint="head", version=1, stage=["26 Nm", "50 Nm", "90 deg"], source="book")
    assert not book.joint().counted
    book.plan("count", joint="head", version=2, bolts=6)
    stages = [stage.text for stage in book.joint().stages]
    assert "26" in stages[0]
    assert book.joint().counted


@pytest.mark.parametrize(
    ("layout", "pattern", "bolts", "order"),
    [
        ({"kind": "circle", "n": 6}, "star", 5, ["1", "3", "5", "2", "4"]),
        ({"kind": "circle", "n": 6}, "star", 2, ["1", "2"]),
        ({"kind": "circles", "n": 3, "of": 2}, "star", 8, list("13245768")),
        ({"kind": "head", "columns": 3}, "crosswise", 4, ["A1", "B1", "A2", "B2"]),
        ({"kind": "points", "points": points(4)}, "order", 5, ["3", "2", "4", "1", "5"]),
        ({"kind": "points", "points": points(4)}, "order", 6, ["3", "4", "2", "5", "1", "6"]),
    ],
)
def test_what_is_drawn_for_another_number(layout, pattern, bolts, order):
    """A circle keeps its star and a head its rows; of others nobody knows the places: a row, from
    the middle outward.
    """
    first = tuple(layout["points"]) if "points" in layout else ()
    joint = joint_of(layout=layout, pattern=pattern, order=first).drawn_for(bolts)
    found = joint.sequence()
    assert len(found) == bolts == len(set(found))
    if layout["kind"] != "head":
        assert sorted(found) == sorted(order)
        assert found[0] == order[0]
    assert joint.counted
    assert set(joint.layout.places()) == set(found)


@pytest.mark.parametrize(
    ("bolts", "order", "across"),
    [(8, "26371548", 4), (6, "251436", 3), (4, "1324", 2), (7, "4352617", 7)],
)
def test_rows_of_caps_stay_two_rows(bolts: int, order: str, across: int):
    """Eight where ten are usual: four caps of two, both bolts of a cap beside each other, from the
    middle cap outward; an odd number is no row of caps and stands in one row.
    """
    two = {str(k + 1): (float(k % 5), float(k // 5)) for k in range(10)}
    caps = joint_of(
        layout={"kind": "points", "points": two},
        pattern="order",
        order=("3", "8", "2", "7", "4", "9", "1", "6", "5", "10"),
    )
    found = caps.drawn_for(bolts)
    assert "".join(found.sequence()) == order
    assert len({x for x, _ in found.layout.places().values()}) == across


@pytest.mark.parametrize(("bolts", "order"), [(5, "32415"), (6, "342516")])
def test_a_row_goes_from_the_middle_outward(bolts, order):
    """The middle first, then the next nearest, left before right."""
    joint = joint_of(
        layout={"kind": "points", "points": points(4)}, pattern="order", order=tuple("abcd")
    )
    assert "".join(joint.drawn_for(bolts).sequence()) == order


@pytest.mark.parametrize(
    ("layout", "bolts"),
    [
        ({"kind": "head", "columns": 3}, 7),
        ({"kind": "head", "columns": 3}, 2),
        ({"kind": "head", "columns": 3}, 26),
        ({"kind": "circles", "n": 4, "of": 2}, 7),
        ({"kind": "circles", "n": 4, "of": 2}, 4),
        ({"kind": "circle", "n": 6}, 49),
    ],
)
def test_what_it_cannot_be(layout, bolts):
    """An odd head, unlike circles, more than can be drawn: one sentence, nothing changed."""
    pattern = "crosswise" if layout["kind"] == "head" else "star"
    joint = joint_of(layout=layout, pattern=pattern)
    with pytest.raises(Refused, match=f"Lid bolts cannot be {bolts}") as refusal:
        joint.drawn_for(bolts)
    assert (refusal.value.reason_code, refusal.value.field) == ("count_odd", "bolts")


def test_groups_by_name_are_not_guessed():
    """Caps whose bolts are named keep their number; another one is for the sheet to say."""
    joint = joint_of(
        layout={"kind": "points", "points": points(4)},
        pattern="order",
        order=tuple("abcd"),
        group=(("a", "b"), ("c", "d")),
    )
    assert joint.drawn_for(4).counted
    with pytest.raises(Refused, match="in groups by name, 4 in all"):
        joint.drawn_for(6)


def test_circles_stand_side_by_side():
    """Two like circles: eight names, each circle by itself in the order, drawn apart."""
    layout = Layout(kind="circles", n=4, of=2)
    joint = joint_of(layout=layout.model_dump())
    assert joint.sequence() == ["1", "3", "2", "4", "5", "7", "6", "8"]
    assert joint.groups() == ((1, 2, 3, 4), (5, 6, 7, 8))
    places = layout.places()
    first, second = ([places[str(k)] for k in ks] for ks in ((1, 2, 3, 4), (5, 6, 7, 8)))
    for (x, y), (further, level) in zip(first, second, strict=True):
        assert further - x == pytest.approx(2.6)
        assert level == pytest.approx(y)


@pytest.mark.parametrize("typed", [True, "6", 6.0, 6.5, 0, -6, 193, None])
def test_a_count_is_a_whole_number(typed):
    """Nothing that only turns into one: *true* is no bolt."""
    with pytest.raises(ValidationError):
        ACT.validate_python({"act": "count", "joint": "head", "version": 1, "bolts": typed})


@pytest.mark.parametrize("bolts", [1, 4, 8, 60])
def test_another_number_than_drawn_is_asked_about(book: Book, bolts: int):
    """1 for 10, 60 for 6: a slip would call a joint final with nine bolts as found. Asked once, and
    nothing is changed till it is said again.
    """
    with pytest.raises(Refused) as refusal:
        book.plan("count", joint="head", version=1, bolts=bolts)
    assert refusal.value.reason_code in ("count_asked", "count_odd")
    assert (len(book.joint().bolts), book.joint().counted) == (6, False)


def off(count: int, size: str = "M10", length: str = "90") -> Book:
    """A build of the vehicle's own sheet, with so many of the head's bolts in a bag."""
    book = Book(small_sheet(SMALL), tools())
    line = {"count": count, "size": size, "length": length}
    book.do("bagged", step="head_out", bag=1, lines=[line])
    return book


def test_a_bag_that_agrees_says_nothing():
    """Six off, six drawn: known; it is told how many went into bags."""
    facts = off(6).joint()
    assert (facts.counted, facts.bagged) == (True, 6)


@pytest.mark.parametrize("count", [5, 7, 12])
def test_a_bag_that_holds_another_number(count):
    """Not as many came off as are drawn: somebody counts, though the sheet is of this vehicle."""
    book = off(count)
    facts = book.joint()
    assert (facts.counted, facts.bagged) == (False, count)
    assert f"{count} came off into bags, 6 are drawn: count them" in facts.progress
    book.plan("count", joint="head", version=facts.version, bolts=6)
    assert book.joint().counted


def test_a_struck_bag_asks_nothing():
    """The wrong bag taken back: what the sheet of this vehicle draws is believed again."""
    book = off(7)
    assert not book.joint().counted
    book.do("strike", entry=list(book.state.entries.values())[-1].id, reason="another bag")
    assert (book.joint().counted, book.joint().bagged) == (True, None)


def test_a_second_bag_makes_it_right():
    """Four in one bag and two in the next are the six that are drawn."""
    book = off(4)
    assert not book.joint().counted
    book.do("bagged", step="head_out", bag=2, lines=[{"count": 2, "size": "M10", "length": "110"}])
    assert book.joint().counted


TWO_JOINTS = SMALL.replace(
    'bag = [{ count = 6, size = "M10", length = "90" }]\njoint = "head"',
    'bag = [{ count = 6, size = "M10", length = "90", joint = "head" }, '
    '{ count = 6, size = "M8", length = "30", joint = "cover" }]',
)


@pytest.mark.parametrize(
    ("lines", "head", "cover"),
    [
        ([("M10", "90", 6), ("M8", "30", 6)], 6, 6),
        ([("m10", "90", 5), ("M8", "30", 6)], 5, 6),
        ([("M10", "90", 6), ("M6", "30", 2)], None, None),
        ([("M10", "95", 6)], None, None),
    ],
)
def test_a_bag_of_two_joints_tells_them_by_size(lines, head, cover):
    """By size and length; where a line fits neither, nobody says whose it is."""
    book = Book(small_sheet(TWO_JOINTS), tools())
    told = [{"size": size, "length": length, "count": n} for size, length, n in lines]
    book.do("bagged", step="head_out", bag=1, lines=told)
    assert (book.joint().bagged, book.joint("cover").bagged) == (head, cover)


def test_what_is_usual_is_proposed_as_usual():
    """The bag of a sheet for any vehicle says that nobody counted it; that of this vehicle does
    not.
    """
    usual = {
        any_vehicle: [spec.counted for spec in book.state.plan.find_step("head_out").bag_specs()]
        for any_vehicle, book in (
            (True, Book(small_sheet(ANY), tools())),
            (False, Book(small_sheet(SMALL), tools())),
        )
    }
    assert usual == {True: [False], False: [None]}
