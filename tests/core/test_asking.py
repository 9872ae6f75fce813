"""Questions to somebody: the facts that go along as they stood, and answers that settle nothing."""

import pytest

from hollet.core.book.asking import answers_on, questions, subject_of
from hollet.core.errors import Conflict, NotFound
from hollet.screens.limitbook import limit_book
from tests.support import Book, small_sheet, tools


@pytest.fixture
def book() -> Book:
    """A small build with one gap read outside."""
    made = Book(small_sheet(), tools())
    made.do("reading", step="ring", reading="ring", typed=["0.60 0.65"], unit="mm", instrument="f1")
    return made


def ask(book: Book, **more: object) -> None:
    """One question about the gap."""
    said = {"question": "q1", "sort": "result", "about": "ring/g", "ask": "Is 0.6 too much here?"}
    book.do("question asked", **{**said, **more})


def test_the_facts_go_along_as_they_stood(book: Book):
    """Value, verdict, limit with source, reading with tool; read again later they stay."""
    ask(book, to="the builder", tried="measured twice, square in the bore")
    (asked,) = questions(book.state)
    text = "\n".join(asked.facts)
    assert asked.title == "Gap"
    assert "outside" in text
    assert "at most 0.50 mm" in text
    assert "assumed, no source" in text
    assert "F1" in text
    book.do("reading", step="ring", reading="ring", typed=["0.30 0.35"], unit="mm", instrument="f1")
    assert "\n".join(questions(book.state)[0].facts) == text


def test_an_answer_settles_nothing(book: Book):
    """The result stays outside and open, whoever says that it is fine."""
    ask(book)
    before = [i for i in book.open() if "ring" in i]
    said = {"question": "q1", "name": "The builder", "text": "That will do, I ran 0.7."}
    book.do("question answered", trust="has done this one", **said)
    assert [i for i in book.open() if "ring" in i] == before
    (answer,) = answers_on(book.state, "result", "ring/g")
    assert (answer.name, answer.trust) == ("The builder", "has done this one")
    with pytest.raises(NotFound):
        book.do("question answered", trust="knows the work", **{**said, "question": "q9"})


@pytest.mark.parametrize(
    ("sort", "about", "holds"),
    [
        ("step", "ring", "Ring"),
        ("limit", "clearance", "0.030 to 0.070 mm (book p. 1)"),
        ("fault", "c1", "too little oil"),
        ("order", "o1", "1 × washer"),
        ("part", "washer", "to order"),
    ],
)
def test_everything_can_be_asked_about(book: Book, sort, about, holds):
    """Each with the facts of its own kind."""
    book.do("part wanted", typed="1 x washer", step="again", safety="none")
    if sort == "order":
        lines = [{"need": "washer", "count": 1}]
        book.do("ordered", order="o1", supplier="Rook", lines=lines)
    book.do("cause", cause="c1", what="too little oil", step="ring")
    found = subject_of(book.state, sort, about)
    assert holds in "\n".join((found.title, *found.facts))


@pytest.mark.parametrize("sort", ["step", "result", "limit", "finding", "fault", "order", "part"])
def test_nothing_is_asked_about_nothing(book: Book, sort):
    with pytest.raises(NotFound):
        ask(book, sort=sort, about="not/there")


def test_a_question_is_asked_once(book: Book):
    ask(book)
    with pytest.raises(Conflict):
        ask(book)
    with pytest.raises(NotFound):
        ask(book, question="q2", photos=["0" * 64])


def test_an_answer_stands_beside_its_limit_and_changes_nothing(book: Book):
    """The limit book offers it as a source; the limit stays assumed till somebody says so."""
    ask(book, sort="limit", about="gap")
    said = {"question": "q1", "name": "The builder", "text": "0.6 at the most, for this bore."}
    book.do("question answered", trust="has the book open", **said)
    row = next(r for r in limit_book(book.state, ()).rows if r.id == "gap")
    assert [a.text for a in row.answered] == ["0.6 at the most, for this bore."]
    assert (row.state, row.words) == ("assumed", "at most 0.50 mm")
