"""What the sheets of a build say now and did not say when its plan was made. The build keeps its
own plan; nothing of it is changed by a newer sheet.
"""

from collections.abc import Iterator

from hollet.core.procedure.joints import Joint
from hollet.core.procedure.pieces import After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import RUNGS
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["News", "news_of"]

TOLD = ("do", "after", "caution", "blocks", "number")
"""What of a step is told in its own words, and what never counts."""
ASPECTS = {
    "opens": "what it opens",
    "closes": "what it closes",
    "carries": "what carries what",
    "releases": "what carries what",
    "unties": "what it parts",
    "drains": "what it drains",
    "bag": "its fasteners",
    "reading": "its readings",
    "result": "its results",
    "capture": "what to keep as found",
    "last_chance": "last chances",
    "stuck": "what to do where it is stuck",
    "part": "its parts and faces",
    "when": "when it is needed",
    "or_when": "when it is needed",
}


class News(View):
    """One thing that a newer sheet says: about which step of the build, if it has it; `safety`
    where people or the engine can be hurt without it.
    """

    step: str | None
    number: str
    words: str
    safety: bool


def news_of(made: Plan, here: Plan, now: Plan) -> tuple[News, ...]:
    """What the sheets say now (`now`), other than when the plan was made (`made`) and other than
    the build's own plan has it (`here`); what can hurt first.
    """
    found = (*_steps(made, here, now), *_limits(made, here, now), *_joints(made, here, now))
    return tuple(sorted(found, key=lambda news: not news.safety))


def _steps(made: Plan, here: Plan, now: Plan) -> Iterator[News]:
    for step in now.step:
        old, own = made.find_step(step.id), here.find_step(step.id)
        if old is None and own is None:
            safe = step.caution is not None or any(a.kind == "safety" for a in step.after)
            words = f"New step: {step.title}. {step.do}"
            yield News(step=None, number="", words=words, safety=safe)
        elif old is not None and own is not None:
            yield from _changed(old, own, step, now)
    for step in made.step:
        if now.find_step(step.id) is None and here.find_step(step.id) is not None:
            words = f"{step.title}: no longer in the sheet"
            yield _news(here, step.id, words, safety=False)


def _news(here: Plan, step_id: str, words: str, *, safety: bool) -> News:
    own = here.find_step(step_id)
    return News(step=step_id, number=own.number if own else "", words=words, safety=safety)


def _changed(old: Step, own: Step, step: Step, now: Plan) -> Iterator[News]:
    def news(words: str, *, safety: bool = False) -> News:
        return News(step=own.id, number=own.number, words=f"{own.title}: {words}", safety=safety)

    for link in _new_links(old, own, step):
        other = now.find_step(link.step)
        if other is not None:
            hurts = link.kind == "safety"
            yield news(f"waits for {other.title}, because {link.because}", safety=hurts)
    if step.caution is not None and step.caution not in (old.caution, own.caution):
        yield news(f"take care: {step.caution.text} {step.caution.why}", safety=True)
    if step.blocks not in (old.blocks, own.blocks) and step.blocks is not None:
        yield news(f"keeps {RUNGS.get(step.blocks, step.blocks).lower()} shut until it is done")
    if step.do not in (old.do, own.do):
        yield news(f"now says: {step.do}")
    said, was = step.model_dump(exclude=set(TOLD)), old.model_dump(exclude=set(TOLD))
    mine = own.model_dump(exclude=set(TOLD))
    others = [
        name for key, name in ASPECTS.items() if said.get(key) not in (was.get(key), mine.get(key))
    ]
    if others:
        yield news(f"other than before: {', '.join(dict.fromkeys(others))}")


def _new_links(old: Step, own: Step, step: Step) -> Iterator[After]:
    known = {link.step for link in (*old.after, *own.after)}
    yield from (link for link in step.after if link.step not in known)


def _limits(made: Plan, here: Plan, now: Plan) -> Iterator[News]:
    for limit in now.limit:
        old, own = made.find_limit(limit.id), here.find_limit(limit.id)
        if own is None or old is None or not limit.given:
            continue
        if limit.words() not in (old.words(), own.words()):
            source = f" ({limit.source})" if limit.source else ", assumed"
            words = f"{limit.name}: {limit.words()}{source}, here {own.words()}"
            yield News(step=None, number="", words=words, safety=limit.safety is not None)


def _joints(made: Plan, here: Plan, now: Plan) -> Iterator[News]:
    for joint in now.joint:
        old, own = made.find_joint(joint.id), here.find_joint(joint.id)
        if own is None or old is None:
            continue
        told = [words for words in (_order(old, own, joint), _stages(old, own, joint)) if words]
        if told:
            words = f"{joint.name}: {'; '.join(told)}"
            yield News(step=None, number="", words=words, safety=joint.safety is not None)


def _order(old: Joint, own: Joint, joint: Joint) -> str | None:
    drawn = [
        (sorted(j.layout.names()), j.sequence(), j.group, j.in_turn) for j in (joint, old, own)
    ]
    if drawn[0] in drawn[1:]:
        return None
    if len(drawn[0][0]) != len(drawn[2][0]):
        return f"{counted(len(drawn[0][0]), 'bolt')}, here {len(drawn[2][0])}"
    return "another order: " + ", ".join(joint.sequence())


def _stages(old: Joint, own: Joint, joint: Joint) -> str | None:
    asked = [", ".join(s.asked() for s in j.stage) for j in (joint, old, own)]
    return None if asked[0] in asked[1:] else f"{asked[0]}, here {asked[2]}"
