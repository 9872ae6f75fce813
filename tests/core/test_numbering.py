"""Shown numbers: given once, in order, never to two steps."""

import pytest

from hollet.core.entries import BookState, PlanEdited
from hollet.core.entries.status import plan_of
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.numbering import Numbering
from hollet.library.lore import lore
from tests.support import SMALL, Book, small_sheet, tools


def test_a_number_that_is_taken_gets_a_letter():
    """Twice the same, then past the alphabet."""
    numbering = Numbering(["6.01"])
    assert [numbering.take("6.02") for _ in range(3)] == ["6.02", "6.02a", "6.02b"]
    assert numbering.behind("6.02b") == "6.02c"
    many = [numbering.behind("6.01") for _ in range(28)]
    assert (many[0], many[25], many[26], many[27]) == ("6.01a", "6.01z", "6.01aa", "6.01ab")
    assert numbering.first("take_down") == "2.00a"
    assert numbering.plain("build_up") == "6.03"


@pytest.mark.parametrize(
    ("given", "shown"),
    [
        ({}, None),
        ({"second": "6.01"}, {"first": "6.02", "second": "6.01"}),
        ({"first": "6.02"}, {"first": "6.02", "second": "6.03"}),
        ({"first": "6.02", "second": "6.02"}, {"first": "6.02", "second": "6.02a"}),
        ({"first": "6.02a", "second": "6.02a"}, {"first": "6.02a", "second": "6.02b"}),
    ],
)
def test_no_two_steps_of_a_sheet_share_a_number(given, shown):
    """Given by the sheet, counted, or both: every number is of one step."""
    plain = small_sheet()
    first, second = [step.id for step in plain.step if step.stage == "build_up"][:2]
    text = SMALL
    for name, number in given.items():
        step = first if name == "first" else second
        text = text.replace(f'id = "{step}"', f'id = "{step}"\nnumber = "{number}"', 1)
    sheet = small_sheet(text)
    numbers = [step.number for step in sheet.step]
    assert len(set(numbers)) == len(numbers)
    if shown:
        known = {step.id: step.number for step in sheet.step}
        assert {"first": known[first], "second": known[second]} == shown
    combined = [step.number for step in combine_sheets([sheet]).step]
    assert len(set(combined)) == len(combined)


def test_an_old_build_with_doubles_opens():
    """A plan kept with the same number twice: the second is shown with a letter, in log and plan
    alike, and what is put in behind either has a number of its own.
    """
    plan = combine_sheets([small_sheet()])
    first, second = [step.id for step in plan.step if step.stage == "build_up"][:2]
    data = plan.model_dump(mode="json", exclude_none=True)
    for step in data["step"]:
        if step["id"] in (first, second):
            step["number"] = "6.01"
    body = PlanEdited.model_validate({"what": "made", "sheet": data})
    book = Book(small_sheet(), tools())
    book.state, book.seq = BookState(lore()), 0
    book.add(body)
    known = {step.id: step.number for step in plan_of(book.state).step}
    assert (known[first], known[second]) == ("6.01", "6.01a")
