"""Questions to somebody as a page and as paper, and the slip that goes back with a refused part."""

from pydantic import BaseModel

from hollet.core.book.asking import QuestionFacts, questions, subject_of
from hollet.core.book.needs import arrival_for, needs
from hollet.core.book.photos import PhotoView, all_photos
from hollet.core.entries.asked import TRUSTS, AboutSort
from hollet.core.errors import NotFound
from hollet.core.saying import day_due
from hollet.exchange.letter_pdf import LetterPart, letter_pdf
from hollet.services.photos import photo_path
from hollet.services.workshop import Workshop

__all__ = ["AskView", "ask_view", "question_pdf", "return_slip"]


class AskView(BaseModel):
    """What a question would carry, the photos to choose from, and all questions so far."""

    title: str
    facts: tuple[str, ...]
    step: str | None
    photos: tuple[PhotoView, ...]
    questions: tuple[QuestionFacts, ...]
    trusts: tuple[str, ...]


def ask_view(workshop: Workshop, build: str, sort: AboutSort | None, about: str) -> AskView:
    """The page of questions; `sort` none shows those that were asked."""
    tools = tuple(workshop.tools().values())
    with workshop.held(build) as state:
        asked = questions(state)
        if sort is None:
            return AskView(title="", facts=(), step=None, photos=(), questions=asked, trusts=TRUSTS)
        found = subject_of(state, sort, about, tools)
        return AskView(
            title=found.title,
            facts=found.facts,
            step=found.step,
            photos=all_photos(state),
            questions=asked,
            trusts=TRUSTS,
        )


def question_pdf(workshop: Workshop, build: str, question: str) -> bytes:
    """One question with its facts and photos, and the answers so far; raises NotFound."""
    with workshop.held(build) as state:
        found = next((q for q in questions(state) if q.question == question), None)
    if found is None:
        raise NotFound("question", question)
    photos = tuple(photo_path(workshop, photo) for photo in found.photos)
    parts = [LetterPart("The question", (found.ask,))]
    parts += [LetterPart("What is known", found.facts)]
    parts += [LetterPart("What was tried", (found.tried,))] if found.tried else []
    parts += [LetterPart("Photos", (), photos)] if photos else []
    parts += [LetterPart(f"Answer: {a.name}, who {a.trust}", (a.text,)) for a in found.answers]
    about = f"asked by {found.who}" + (f" to {found.to}" if found.to else "")
    return letter_pdf(found.title, about, _printed(workshop), parts)


def return_slip(workshop: Workshop, build: str, refusal: str) -> bytes:
    """The slip for a refused part: what is wrong, feature by feature, and until when; raises
    NotFound.
    """
    with workshop.held(build) as state:
        every = (item for need in needs(state) for item in need.refused)
        item = next((item for item in every if item.entry == refusal), None)
        if item is None:
            raise NotFound("refused part", refusal)
        features = arrival_for(state, item.need, item.order).features
    differs = tuple(
        f"{f.feature}: old {f.old}, new {f.new}. {f.words}" for f in features if f.differs
    )
    until = (f"back by {day_due(item.back_by)}",) if item.back_by else ("back by: ask",)
    photos = (photo_path(workshop, item.photo),) if item.photo else ()
    parts = [
        LetterPart("What goes back", (f"{item.count} x {item.name}", *until)),
        LetterPart("What is wrong with it", (item.wrong, *differs)),
    ]
    parts += [LetterPart("Photo", (), photos)] if photos else []
    return letter_pdf(f"Return to {item.supplier}", item.name, _printed(workshop), parts)


def _printed(workshop: Workshop) -> str:
    return workshop.local().strftime("%Y-%m-%d %H:%M")
