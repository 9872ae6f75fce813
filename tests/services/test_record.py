"""The record of a build: computed from its log, on the screen and on paper, for the owner without
the notes.
"""

import io

import pytest
from pypdf import PdfReader

from hollet.screens.record import record_view
from hollet.services import builds
from hollet.services.demo import make_demo
from hollet.services.record import record, record_paper
from hollet.services.workshop import Workshop
from tests.support import Book, small_sheet, tools


@pytest.fixture(scope="module")
def shop(tmp_path_factory):
    folder = tmp_path_factory.mktemp("record")
    make_demo(folder)
    made = Workshop(folder)
    yield made
    made.close()


def build_of(shop: Workshop, name: str) -> str:
    return next(card.id for card in builds.cards(shop) if card.name.startswith(name))


def section(view, title: str):
    return next(s for s in view.sections if s.title == title)


def test_a_build_that_is_not_settled_says_so_first(shop: Workshop):
    view = record(shop, build_of(shop, "Three"))
    assert not view.settled
    assert view.title.startswith("Not settled: ")
    assert view.sections[0].title == "Open"
    assert any("U-bolts, right" in row.what for row in view.sections[0].rows)
    assert any("not done" in row.what for row in view.sections[0].rows)


def test_figures_stand_first_and_last(shop: Workshop):
    rows = section(record(shop, build_of(shop, "Three")), "Figures, first and last").rows
    again = next(row for row in rows if row.what == "Rear left, again")
    assert again.right == "655 → 641.0 mm"
    assert "625 to 665 mm" in again.small


def test_what_was_accepted_and_struck_is_told(shop: Workshop):
    view = record(shop, build_of(shop, "One: engine"))
    assert section(view, "Accepted in writing").rows
    struck = section(view, "Struck, and why").rows
    assert struck
    assert all(row.small for row in struck)


def test_the_owner_gets_no_notes_and_no_struck_lines(shop: Workshop):
    build = build_of(shop, "Three")
    titles = [s.title for s in record(shop, build, owner=True).sections]
    assert "Notes" not in titles
    assert "Struck, and why" not in titles
    text = _text(record_paper(shop, build, owner=True))
    assert "102 km. Looked at the marks" not in text
    assert "102 km. Looked at the marks" in _text(record_paper(shop, build))


def test_the_paper_cuts_nothing_off(shop: Workshop):
    """Long words go on as many lines as they need, every page is numbered, no glyph is missing."""
    view = record(shop, build_of(shop, "One: engine"))
    text = _text(record_paper(shop, build_of(shop, "One: engine")))
    squeezed = "".join(text.split())
    for part in view.sections:
        for row in part.rows:
            assert "".join(row.what.split()) in squeezed, row.what
    pages = len(PdfReader(io.BytesIO(record_paper(shop, build_of(shop, "One: engine")))).pages)
    assert f"page {pages} of {pages}" in text
    assert "The vehicle maker's manual" in text


def _text(paper: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(paper)).pages)


def test_nothing_open_and_nothing_due_is_settled():
    """Every step of the small build is said not to be there: only then it is settled."""
    book = Book(small_sheet(), tools())
    before = record_view(book.state, (), book.time)
    assert not before.settled
    book.absent(*(step.id for step in book.state.plan.step))
    after = record_view(book.state, (), book.time)
    assert after.settled == (after.sections[0].rows == ())
    book.do("symptom said", fault="fault-0001", symptom="pulls")
    assert not record_view(book.state, (), book.time).settled


def test_a_fault_and_a_leak_stand_in_the_record():
    book = Book(small_sheet(), tools())
    book.do("symptom said", fault="fault-0001", symptom="smoke", words="white, stays when warm")
    book.do("leak seen", fluid="oil", name="Sump", joint="gasket", grade="drop")
    rows = section(record_view(book.state, (), book.time), "Leaks and faults").rows
    assert [(r.what, r.right) for r in rows] == [("Sump", "drips"), ("Smoke", "not found yet")]
