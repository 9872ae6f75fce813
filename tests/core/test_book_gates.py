"""Left open and the gates: what blocks a rung blocks all above it; doing, skipping, reopening,
bags.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hollet.core.book.gates import gate_answers, stage_groups
from hollet.core.book.one_open import OpenItem
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.words import RUNGS
from tests.support import SMALL, Book, small_sheet, tools


def test_fresh_build_is_shut_from_the_first_rung(book: Book):
    """Nothing is open on a build that has only been made."""
    answers = [book.gate(rung).answer for rung in RUNGS]
    assert answers == ["shut"] * 7
    assert [i.id for i in book.gate("power_on").items] == ["step:lead_on"]


@given(
    st.sets(
        st.sampled_from(
            [
                "lead",
                "head_out",
                "bore",
                "ring",
                "head_in",
                "cover_on",
                "oil_in",
                "water",
                "lead_on",
                "crank",
                "fire",
                "again",
            ]
        )
    )
)
def test_shut_goes_upwards(skipped: set):
    """Whatever is passed over: above a shut rung there is no open one."""
    book = Book(small_sheet(), tools())
    for step in sorted(skipped):
        book.do("skipped", step=step, reason="for this test")
    answers = [book.gate(rung).answer for rung in RUNGS]
    first = answers.index("shut") if "shut" in answers else 7
    assert all(a == "shut" for a in answers[first:])
    blocked = {book.open()[i] for i in book.open()} - {"nothing"}
    assert (first == 7) == (not blocked)


def test_each_open_item_names_its_rung(book: Book):
    """Temporary states, steps, results, missing values: each with the first rung it blocks."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    book.read("ring", "ring", "0.45 0.55", tool="f1")
    items = book.open()
    assert (items["lead"], items["coil"], items["result:ring/g"], items["step:again"]) == (
        "power_on",
        "fire",
        "crank",
        "nothing",
    )


def test_open_for_one_rung_blocks_only_the_later_one(book: Book):
    """The coil off is checked at crank and blocks fire."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    assert book.gate("crank").check_open == ("Coil off",)
    assert "coil" not in {i.id for i in book.gate("crank").items}
    assert "coil" in {i.id for i in book.gate("fire").items}


def test_undone_too_early_shuts_the_rung_that_needs_it_open(book: Book):
    """The coil plugged in before cranking shuts crank; passed over, cranking no longer asks."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    book.do("undone", item="coil")
    assert book.open()["undone:coil"] == "crank"
    assert "Coil off: it must be so for crank, and was undone" in book.gate("crank").reasons
    book.do("skipped", step="crank", reason="turned over by hand")
    assert "undone:coil" not in book.open()


def test_item_is_cleared_where_it_is_undone(book: Book):
    """An item leads to the step that undoes it, and that step is not listed twice."""
    book.do("confirmed", step="lead", what="Extinguisher at hand")
    book.do("done", step="lead")
    items = book.gate("power_on").items
    assert [(i.id, i.clear_at) for i in items] == [("lead", "lead_on")]


def test_undone_by_hand_and_opened_again(book: Book):
    """Undone closes it; left open again it counts again."""
    book.do(
        "left open",
        step="bore",
        item="rag",
        what="Rag in port 3",
        blocks="crank",
        undo="take it out",
    )
    assert book.left() == ["Rag in port 3"]
    book.do("undone", item="rag")
    assert book.left() == []
    book.do("left open", step="bore", item="rag", what="Rag in port 3")
    assert book.left() == ["Rag in port 3"]
    with pytest.raises(NotFound):
        book.do("undone", item="nothing")


@pytest.mark.parametrize(
    ("more", "code"),
    [({"count": 1}, "count_mismatch"), ({"count": 3, "blocks": "drive"}, "weaker")],
)
def test_what_is_open_is_not_said_anew_as_less(book: Book, more: dict, code: str):
    """Three rags stay three, and shut what they shut, till they are counted out."""
    rag = {"step": "bore", "item": "rag", "what": "Rag", "sort": "cover"}
    book.do("left open", **rag, count=3, blocks="crank")
    book.refuse(code, "left open", **{**rag, "blocks": "crank", **more})
    book.do("left open", **rag, count=4, blocks="crank")
    book.refuse("count_mismatch", "undone", item="rag", out=3)
    book.do("undone", item="rag", out=4)
    book.do("left open", **rag, count=1, blocks="drive")
    assert book.left() == ["Rag"]


def test_missing_value_blocks():
    """A limit without a figure is a missing value on the rung of its step."""
    book = Book(
        small_sheet(
            SMALL.replace(
                'id = "gap"\nname = "Gap"\ndimension = "length"\nunit = "mm"\nhi = "0.50"',
                'id = "gap"\nname = "Gap"\ndimension = "length"\nunit = "mm"',
            )
        ),
        tools(),
    )
    assert book.open()["limit:ring/gap"] == "crank"


def test_done_waits_for_its_reasons(book: Book):
    """A step that must wait for order's sake is refused with what and why; with a reason it is done
    out of order.
    """
    with pytest.raises(Refused) as refusal:
        book.do("done", step="head_in")
    assert refusal.value.reason_code == "must_wait"
    assert "3.01 Bore: the head closes it" in refusal.value.message
    book.do("done", step="head_in", reason="it can still be reached from here")
    assert book.bench("head_in").base.status.reason == "it can still be reached from here"


@pytest.mark.parametrize(
    ("step", "words"),
    [
        ("bore", "Piston is not read"),
        ("cover_on", "not final"),
        ("oil_in", "amount is not entered"),
        ("crank", "no attempt has passed"),
    ],
)
def test_incomplete_steps_are_not_done(book: Book, step: str, words: str):
    """Each kind of step says what it still lacks."""
    with pytest.raises(Refused) as refusal:
        book.do("done", step=step)
    assert refusal.value.reason_code == "not_complete"
    assert words in refusal.value.message


def test_level_is_looked_at(book: Book):
    """The amount alone does not fill: the level must have been seen."""
    book.read("oil_in", "oil_in", "4.2", tool="j1")
    with pytest.raises(Refused) as refusal:
        book.do("done", step="oil_in")
    assert "At the mark" in refusal.value.message
    book.do("confirmed", step="oil_in", what="At the mark")
    book.do("done", step="oil_in")
    assert book.bench("oil_in").judgement.verdict == "inside"


def test_done_twice_and_skipped_after_done(book: Book):
    """A second done is a conflict and writes nothing."""
    book.do("done", step="again")
    for kind, more in (("done", {}), ("skipped", {"reason": "not needed"})):
        with pytest.raises(Conflict) as conflict:
            book.do(kind, step="again", **more)
        assert conflict.value.reason_code == "already_done"


def test_reopened_keeps_both(book: Book):
    """Reopened counts as begun; the done stays readable; done again works."""
    with pytest.raises(Conflict):
        book.do("reopened", step="again", reason="look again")
    book.do("done", step="again")
    book.do("reopened", step="again", reason="look again")
    assert book.bench("again").base.status.status == "begun"
    assert [line.kind for line in book.bench("again").base.lines] == ["done", "reopened"]
    book.do("done", step="again")
    assert book.bench("again").base.status.status == "done"


@pytest.mark.parametrize(("flag", "status"), [(False, "skipped"), (True, "not_applicable")])
def test_skipped_and_not_applicable(book: Book, flag: bool, status: str):
    """Both need a reason and settle the step."""
    book.do("skipped", step="ring", reason="rings are new", not_applicable=flag)
    assert book.bench("ring").base.status.status == status
    assert "step:ring" not in book.open()


def test_struck_reading_reopens_its_step(book: Book):
    """A done measurement that loses a reading counts as not done, and says why."""
    reading = book.read("ring", "ring", "0.30 0.35", tool="f1")
    book.do("done", step="ring")
    book.do("strike", entry=reading.id, reason="wrong place")
    assert book.bench("ring").base.status.status == "begun"
    assert "struck" in book.bench("ring").base.status.doubt
    assert "step:ring" in book.open()


def test_bags_are_numbered_once(book: Book):
    """A bag number used for another step is refused; the same step may add to its bag."""
    line = [{"count": 6, "size": "M10", "length": "90"}]
    book.do("bagged", step="head_out", bag=1, lines=line, place="tray A")
    book.do("bagged", step="head_out", bag=1, lines=line)
    with pytest.raises(Refused) as refusal:
        book.do("bagged", step="lead", bag=1, lines=line)
    assert refusal.value.reason_code == "bag_taken"
    assert book.bench("head_out").next_bag == 2
    assert [b.pieces for b in book.bench("head_out").bagged] == [12]


def test_where_am_i(book: Book):
    """First the first open step; then the one last worked on; after it is done the next that waits
    for nothing.
    """
    assert book.view().current == "lead"
    book.read("ring", "ring", "0.30 0.35", tool="f1")
    assert book.view().current == "ring"
    book.do("done", step="ring")
    assert book.view().current == "lead"


def test_strip_counts(book: Book):
    """The strip counts done steps by stage and marks those that wait."""
    book.do("done", step="again")
    stages = {s.id: (s.done, s.total) for s in book.view().stages}
    assert stages["settle"] == (1, 1)
    assert stages["plan"] == (0, 0)
    assert {row.id for row in book.view().steps if row.waits} == {"head_out", "head_in"}


def test_unknown_step(book: Book):
    """An entry to a step that is not in the plan is not found."""
    with pytest.raises(NotFound):
        book.do("done", step="nothing")


def test_items_of_a_rung_stand_in_the_order_to_clear(book: Book):
    """What is cleared at an earlier step comes first; what has no step of its own comes last."""
    book.do("left open", step="cover_on", item="rag", what="Rag in the inlet", blocks="crank")
    book.do("left open", step="head_out", item="wire", what="Wire tied up", blocks="crank")
    for rung in RUNGS:
        items = book.gate(rung).items
        for rank in {item.rank for item in items}:
            own = [i.clear_number or i.step_number or "9.99" for i in items if i.rank == rank]
            assert own == sorted(own), rung
    crank = [item.id for item in book.gate("crank").items if item.id in ("rag", "wire")]
    assert crank == ["wire", "rag"]


def test_a_burst_limits_the_burst_and_not_the_rung():
    """With nothing left open cranking is free, however long one burst may be; only *run on* has a
    limit of its own.
    """
    state = Book(small_sheet(), tools()).state
    free = {answer.rung: answer for answer in gate_answers(state, (), ())}
    assert (free["crank"].answer, free["crank"].limit) == ("nothing left open", None)
    assert all(not a.shut and not a.items for a in free.values())


def test_steps_not_reached_are_grouped_by_their_stage():
    """Each stage with its own steps, counted; what is dangerous, wrong or open stands by itself."""

    def item(number: int, stage: str, rank: str) -> OpenItem:
        return OpenItem(
            id=f"i{number}", kind="step", what="x", blocks="fire", stage=stage, rank=rank
        )

    found = stage_groups(
        [
            item(1, "fit_in", "not_reached"),
            item(2, "build_up", "not_reached"),
            item(3, "fit_in", "not_reached"),
            item(4, "fit_in", "danger"),
            item(5, "wake", "open"),
        ]
    )
    assert [(g.stage, g.words, [i.id for i in g.items]) for g in found] == [
        ("build_up", "Build up: 1 step", ["i2"]),
        ("fit_in", "Fit in: 2 steps", ["i1", "i3"]),
    ]
    assert stage_groups([item(4, "fit_in", "danger")]) == ()


def test_what_is_below_shuts_what_is_above():
    """Ranked the worst first; a rung that nothing blocks is shut by what stands before it."""
    made = Book(small_sheet(), tools())

    def item(name: str, blocks: str, rank: str) -> OpenItem:
        return OpenItem(id=name, kind="temporary", what=name, blocks=blocks, rank=rank)

    items = (item("wire", "crank", "open"), item("spring", "crank", "danger"))
    answers = {a.rung: a for a in gate_answers(made.state, (), items)}
    assert [i.id for i in answers["crank"].items] == ["spring", "wire"]
    assert answers["power_on"].answer == "nothing left open"
    assert (answers["drive"].shut, answers["drive"].items) == (True, ())
    assert answers["drive"].reasons == ("spring", "wire")
