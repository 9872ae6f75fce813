"""The closing card of an evening: what was done, what it cost in lost time, what should have been
said earlier; and the desk of pace and lost time.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from hollet.core.book.ledger import left_open
from hollet.core.calendar.clock import WORK_KINDS, Pace, Pause, pace_of, pauses
from hollet.core.calendar.laying import minutes_words
from hollet.core.entries import (
    BookState,
    Done,
    Line,
    NextTimeNoted,
    PartRefused,
    PauseSaid,
    SearchEnded,
)
from hollet.core.entries.status import plan_of
from hollet.core.entries.told import PAUSE_CAUSES
from hollet.core.procedure.pieces import REASON_TO_SAY
from hollet.core.view import View
from hollet.core.words import counted
from hollet.screens.clockline import PaceView, pace_view
from hollet.screens.partsdesk import StepName

__all__ = [
    "ClosingBuild",
    "ClosingView",
    "Evening",
    "NoteRow",
    "PaceDesk",
    "closing_build",
    "closing_view",
    "next_notes",
    "pace_desk",
]

NO_LOSS = ("work", "break")


class PauseRow(View):
    """A gap of this evening, and what it was."""

    build: str
    name: str
    after: str
    at: str
    minutes: int
    number: str
    cause: str | None


class AskRow(View):
    """Something that cost time or went wrong: where should it have been said? `note` is the id of
    the answer, `before` the step at which it happened.
    """

    note: str
    build: str
    name: str
    what: str
    minutes: int
    before: str | None
    said: str


class WhyRow(View):
    """A step that was put in before the one in hand, and nobody has said yet why it comes first."""

    step: str
    waits_for: str
    what: str


class ClosingBuild(View):
    """What one build brings to the card."""

    build: str
    name: str
    done: tuple[str, ...]
    loose: int
    pauses: tuple[PauseRow, ...]
    asks: tuple[AskRow, ...]
    whys: tuple[WhyRow, ...]
    steps: tuple[StepName, ...]


class ClosingView(View):
    """The card of an evening."""

    title: str
    builds: tuple[ClosingBuild, ...]
    causes: tuple[str, ...]
    lost: int


@dataclass(frozen=True, slots=True)
class Evening:
    """Since when it counts (ISO 8601), and which notes stand for next time, by their id."""

    since: str
    said: Mapping[str, str]


def _note_id(entry: Line) -> str:
    return f"n{entry.id.replace('-', '')}"[:60]


def closing_build(state: BookState, build: str, name: str, evening: Evening) -> ClosingBuild | None:
    """The part of one build; None where nothing was written since."""
    plan = plan_of(state)
    today = [e for e in state.since(0) if e.time >= evening.since and e.id not in state.struck]
    if not today:
        return None
    gaps = [
        _pause(state, build, name, pause)
        for step in plan.step
        for pause in pauses(state, step)
        if pause.end >= evening.since
    ]
    return ClosingBuild(
        build=build,
        name=name,
        done=tuple(
            e.body.line(_title(state, e)) for e in state.all(Done) if e.time >= evening.since
        ),
        loose=len(left_open(state)),
        pauses=tuple(gaps),
        asks=tuple(_asks(state, build, name, today, evening)),
        whys=_whys(state),
        steps=tuple(
            StepName(id=s.id, name=f"{s.number} {s.short or s.title}", title=s.title)
            for s in plan.step
        ),
    )


def _whys(state: BookState) -> tuple[WhyRow, ...]:
    """Reasons that are still to be said."""
    plan = plan_of(state)
    return tuple(
        WhyRow(
            step=step.id,
            waits_for=first.id,
            what=f"{first.title} came before {step.number} {step.title}. Why?",
        )
        for step in plan.step
        for link in step.after
        if link.because == REASON_TO_SAY and (first := plan.find_step(link.step)) is not None
    )


def _title(state: BookState, entry: Line) -> str:
    step = plan_of(state).find_step(entry.body.at())
    return f"{step.number} {step.title}" if step is not None else ""


def _pause(state: BookState, build: str, name: str, pause: Pause) -> PauseRow:
    return PauseRow(
        build=build,
        name=name,
        after=pause.after,
        at=pause.start,
        minutes=round(pause.minutes),
        number=pause.number,
        cause=pause.cause,
    )


def _asks(
    state: BookState, build: str, name: str, today: Sequence[Line], evening: Evening
) -> list[AskRow]:
    """Lost time, searches and refused parts of this evening, each asked once."""
    alive = {entry.id for entry in today}
    found: list[tuple[Line, str, int, str | None]] = []
    for lost in state.all(PauseSaid):
        if lost.id in alive and lost.body.cause not in NO_LOSS:
            line = state.entries.get(lost.body.after)
            at = line.body.at() if line is not None else None
            found.append((lost, f"lost, {lost.body.cause}", lost.body.minutes, at))
    for search in state.all(SearchEnded):
        if search.id in alive:
            found.append(
                (search, f"looked for {search.body.what}", search.body.minutes, search.body.step)
            )
    for refused in state.all(PartRefused):
        if refused.id in alive:
            found.append((refused, f"refused: {refused.body.part}, {refused.body.wrong}", 0, None))
    return [
        AskRow(
            note=_note_id(entry),
            build=build,
            name=name,
            what=what,
            minutes=minutes,
            before=before,
            said=evening.said.get(_note_id(entry), ""),
        )
        for entry, what, minutes, before in found
    ]


def closing_view(builds: Sequence[ClosingBuild]) -> ClosingView:
    """The card over all builds of the evening."""
    lost = sum(
        row.minutes
        for build in builds
        for row in build.pauses
        if row.cause is not None and row.cause not in NO_LOSS
    )
    unsaid = sum(row.cause is None for build in builds for row in build.pauses)
    title = "Nothing was written this evening"
    if builds:
        done = sum(len(build.done) for build in builds)
        title = f"{counted(done, 'step')} done" if done else "No step was finished"
        title += f", {minutes_words(lost)} lost" if lost else ""
        title += f", {counted(unsaid, 'pause')} not said" if unsaid else ""
    return ClosingView(title=title, builds=tuple(builds), causes=PAUSE_CAUSES, lost=lost)


class PaceStep(View):
    """How the range stood after so many jobs, and the job that made it so."""

    lo: float
    hi: float
    ratio: float


class PaceRow(View):
    """The pace of one kind of work, and how it narrowed."""

    pace: PaceView
    steps: tuple[PaceStep, ...]


class LostRow(View):
    """Time lost to one cause, over all builds."""

    cause: str
    minutes: int
    words: str


class NoteRow(View):
    """What stands before a step next time."""

    note: str
    step: str
    title: str
    text: str
    minutes: int
    build_name: str


class PaceDesk(View):
    """Pace by kind of work, lost time by cause, notes for next time."""

    title: str
    kinds: tuple[PaceRow, ...]
    lost: tuple[LostRow, ...]
    notes: tuple[NoteRow, ...]


LAST_JOBS = 6
"""More finished jobs are drawn as the first and the last five."""


def _steps(pace: Pace) -> tuple[PaceStep, ...]:
    found = []
    for k, ratio in enumerate(pace.ratios):
        then = pace_of(pace.kind, pace.ratios[: k + 1])
        found.append(PaceStep(lo=round(then.lo, 2), hi=round(then.hi, 2), ratio=round(ratio, 2)))
    if len(found) > LAST_JOBS:
        found = [found[0], *found[-(LAST_JOBS - 1) :]]
    return tuple(found)


def next_notes(shop: BookState) -> tuple[NoteRow, ...]:
    """What stands before steps next time, the newest of each note."""
    return tuple(
        NoteRow(
            note=e.body.note,
            step=e.body.step,
            title=e.body.title,
            text=e.body.text,
            minutes=e.body.minutes,
            build_name=e.body.build_name,
        )
        for e in shop.newest_of(NextTimeNoted, "next")
        if not e.body.gone
    )


def pace_desk(
    paces: Mapping[str, Pace], states: Sequence[Mapping[str, float]], notes: tuple[NoteRow, ...]
) -> PaceDesk:
    """The desk; `states` are minutes lost by cause, one a build."""
    total: dict[str, float] = {}
    for lost in states:
        for cause, minutes in lost.items():
            if cause not in NO_LOSS:
                total[cause] = total.get(cause, 0.0) + minutes
    rows = sorted(total.items(), key=lambda item: -item[1])
    jobs = sum(pace.jobs for pace in paces.values())
    sum_words = minutes_words(round(sum(total.values()))) if sum(total.values()) else "nothing"
    return PaceDesk(
        title=f"{counted(jobs, 'job')} finished, {sum_words} lost",
        kinds=tuple(
            PaceRow(pace=pace_view(paces[kind]), steps=_steps(paces[kind]))
            for kind in WORK_KINDS
            if kind in paces
        ),
        lost=tuple(
            LostRow(cause=cause, minutes=round(minutes), words=minutes_words(round(minutes)))
            for cause, minutes in rows
        ),
        notes=notes,
    )
