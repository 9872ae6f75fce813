"""Terms of one sum are different things: a shim is no sister of the bearing that it lies under."""

import tomllib

import pytest

from hollet.core.procedure.read import read_sheet
from hollet.library.shelf import sheet_text
from tests.support import SMALL, Book, tool, tools

TERMS = """
[[limit]]
id = "chain"
name = "Old less new"
dimension = "length"
unit = "mm"
lo = "-0.02"
hi = "0.02"
source = "book p. 9"

[[step]]
id = "match"
stage = "build_up"
kind = "measure"
title = "Matched"
do = "Measure."
reading = [
  { id = "shim_old", name = "Old shim", tool = "micrometer" },
  { id = "bearing_old", name = "Old bearing", tool = "micrometer" },
  { id = "ring_old", name = "Old ring", tool = "micrometer" },
  { id = "shim_new", name = "New shim", tool = "micrometer" },
  { id = "bearing_new", name = "New bearing", tool = "micrometer" },
  { id = "ring_new", name = "New ring", tool = "micrometer" },
]

[[step.result]]
id = "c_r"
name = "Chain"
limit = "chain"
how = "sum"
over = ["shim_old", "bearing_old", "ring_old"]
less = ["shim_new", "bearing_new", "ring_new"]
"""


@pytest.fixture
def book() -> Book:
    fine = tool("f1", "micrometer", lo="0", hi="25", mpe="0.002", resolution="0.001", s="0.001")
    text = SMALL + TERMS
    return Book(read_sheet(tomllib.loads(text), text), {**tools(), "f1": fine})


def test_a_shim_is_not_held_against_bearings(book: Book):
    """1.52 beside 22.51 and 22.40 is no slip: nothing is asked."""
    for name, text in (("bearing_old", "22.513"), ("ring_old", "22.401"), ("bearing_new", "22.5")):
        book.do("reading", step="match", reading=name, typed=[text], unit="mm", instrument="f1")
    book.do(
        "reading", step="match", reading="shim_new", typed=["1.536"], unit="mm", instrument="f1"
    )


def test_head_and_tail_of_a_pinion_have_their_own_limit():
    text = sheet_text("diff-set")
    sheet = read_sheet(tomllib.loads(text), text)
    results = {r.id: r.limit for r in sheet.find_step("diff_seats_read").results()}
    assert results["seat_head_r"] != results["seat_tail_r"]
