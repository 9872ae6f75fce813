"""Caps drawn down one after the other: both bolts of a cap through all stages, then what is proven
before the next; and joints that one step takes out together.
"""

import pytest

from hollet.core.book.complete import lacking
from hollet.core.errors import Refused
from hollet.core.procedure.facts import Known
from tests.support import SMALL, Book, small_sheet, tools

PROOF = "The rod slides, and the crank turns"
CAPS = SMALL.replace(
    'layout = { kind = "head", columns = 3 }\npattern = "crosswise"',
    'layout = { kind = "points", points = { a = [0, 0], b = [0, 1], c = [1, 0], d = [1, 1] } }\n'
    'pattern = "order"\norder = ["a", "b", "c", "d"]\ngroup = [["a", "b"], ["c", "d"]]\n'
    f'in_turn = true\nbetween = "{PROOF}"',
).replace('fastener = "6 x M10"', 'fastener = "4 x M9"')


@pytest.fixture
def book() -> Book:
    """Two caps of two bolts, three stages, the wrench chosen."""
    made = Book(small_sheet(CAPS), tools())
    made.do("started", step="head_in", reason="bore measured at the shop")
    made.wrench()
    return made


def draw(book: Book, *bolts: int) -> None:
    """Each of the bolts once, in this order, as the joint leads."""
    for bolt in bolts:
        assert book.joint().next_bolt == bolt
        book.click(bolt)


def test_one_cap_through_all_its_stages_first(book: Book):
    """1 2, 1 2, 1 2; and not a bolt of the next before the proof is pressed."""
    draw(book, 1, 2, 1, 2, 1, 2)
    facts = book.joint()
    assert [bolt.stage for bolt in facts.bolts] == [3, 3, 0, 0]
    assert (facts.next_bolt, facts.proves) == (None, True)
    assert facts.condition == f"{PROOF} (a and b)"
    assert facts.waits == f"the next waits: {PROOF} (a and b)"
    with pytest.raises(Refused):
        book.click(3)


def test_the_proof_is_of_this_cap(book: Book):
    """Pressed too early it proves nothing; pressed after the last pull it opens the next cap, and
    that one has a proof of its own before the joint is final.
    """
    draw(book, 1, 2)
    book.do("confirmed", step="head_in", what=f"{PROOF} (a and b)")
    draw(book, 1, 2, 1, 2)
    assert book.joint().proves
    book.do("confirmed", step="head_in", what=f"{PROOF} (a and b)")
    draw(book, 3, 4, 3, 4, 3, 4)
    facts = book.joint()
    assert all(bolt.final for bolt in facts.bolts)
    assert (facts.final, facts.condition) == (False, f"{PROOF} (c and d)")
    step = book.state.plan.find_step("head_in")
    assert lacking(book.state, step, tuple(book.shop.values()), book.time) is not None
    book.do("confirmed", step="head_in", what=f"{PROOF} (c and d)")
    assert book.joint().final


def test_a_cap_pulled_again_is_proven_again(book: Book):
    """A bolt of a proven cap that is drawn again takes the proof with it."""
    draw(book, 1, 2, 1, 2, 1, 2)
    book.do("confirmed", step="head_in", what=f"{PROOF} (a and b)")
    assert book.joint().next_bolt == 3
    book.do("fastener", step="head_in", bolt=1, act="state", tightness="loosened again")
    assert book.joint().next_bolt == 1


TOGETHER = SMALL.replace(
    'bag = [{ count = 6, size = "M10", length = "90" }]\njoint = "head"',
    'bag = [{ count = 6, size = "M10", length = "90", joint = "head" }, '
    '{ count = 6, size = "M8", length = "30", joint = "cover" }]',
).replace('after = [{ step = "lead", because = "it is live", kind = "safety" }]\n', "")


def test_one_step_takes_two_joints_out():
    """Both are out once it is done; each keeps what was pulled since for itself."""
    book = Book(small_sheet(TOGETHER), tools())
    assert book.state.plan.find_step("head_out").takes_out() == ("head", "cover")
    book.do("done", step="head_out")
    done = list(book.state.entries.values())[-1].body
    assert set(done.joints) == {"head", "cover"}
    for name in ("head", "cover"):
        assert {bolt.tightness for bolt in book.joint(name).bolts} == {"out"}


@pytest.mark.parametrize(
    ("facts", "answer"),
    [
        ({}, "unknown"),
        ({"drive": "rear"}, "yes"),
        ({"drive": "front", "steering": "power"}, "yes"),
        ({"drive": "front", "steering": "none"}, "no"),
        ({"drive": "front"}, "unknown"),
        ({"steering": "power"}, "yes"),
    ],
)
def test_one_of_several_conditions_is_enough(facts, answer):
    """Wanted by either: any one that holds decides, one that is not known leaves it open, and only
    all that fail leave it out.
    """
    text = SMALL.replace(
        'id = "water"',
        'id = "water"\nwhen = [{ fact = "a", one_of = ["rear"] }]\n'
        'or_when = [[{ fact = "b", one_of = ["power"] }]]',
    ).replace(
        "[[limit]]",
        '[[option]]\nid = "a"\nname = "Driven"\nvalue = ["rear", "front"]\n\n'
        '[[option]]\nid = "b"\nname = "Steering"\nvalue = ["power", "none"]\n\n[[limit]]',
        1,
    )
    step = small_sheet(text).find_step("water")
    known = {{"drive": "a", "steering": "b"}[k]: v for k, v in facts.items()}
    assert step.wanted(Known(facts=known)).answer == answer
