"""What an earlier build of the same vehicle says of a step: its figures, marks, concessions."""

from collections.abc import Iterator, Sequence

from hollet.core.book.captures import captures_of
from hollet.core.book.changed import altered
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.steps.results import results_of
from hollet.core.view import View

__all__ = ["LastLine", "last_lines"]


class LastLine(View):
    """One thing said at a step then, `at` its title: `key` names the result or what was kept,
    `figure` its value with the unit, `build` and `day` where and when.
    """

    step: str
    at: str
    key: str
    what: str
    figure: str
    words: str
    build: str
    name: str
    day: str


def last_lines(
    state: BookState, tools: Sequence[Instrument], build: str, name: str
) -> tuple[LastLine, ...]:
    """All that a build has to say to the next one, in the order of its plan."""
    return tuple(_lines(state, tools, build, name))


def _lines(
    state: BookState, tools: Sequence[Instrument], build: str, name: str
) -> Iterator[LastLine]:
    own = {"build": build, "name": name}
    for step in plan_of(state).step:
        for result in results_of(state, step, tools):
            judged = result.judgement
            if judged.value is None:
                continue
            read = [state.entries[r].time[:10] for r in result.readings if r in state.entries]
            accepted = ", accepted in writing" if result.conceded else ""
            yield LastLine(
                step=step.id,
                at=step.title,
                key=result.id,
                what=result.name,
                figure=f"{judged.value_text} {judged.unit}".strip(),
                words=f"{judged.words}{accepted}",
                day=max(read, default=""),
                **own,
            )
        for kept in captures_of(state, step):
            if kept.state in ("kept", "same", "differs"):
                yield LastLine(
                    step=step.id,
                    at=step.title,
                    key=kept.id,
                    what=kept.what,
                    figure="",
                    words=kept.words,
                    day=kept.time[:10],
                    **own,
                )
    for part in altered(state):
        yield LastLine(
            step=part.step,
            at="altered",
            key=part.id,
            what=part.what,
            figure="",
            words=f"{part.differs}; comes off: {part.undo}",
            day="",
            **own,
        )
