"""Log lines in words: what a person did, as the log and the band Written show it."""

from collections.abc import Callable
from typing import Any

from pydantic import BaseModel, ConfigDict, computed_field

from hollet.core.entries import Body, BookState, Entry, Fastener, Key, Line, Strike
from hollet.core.entries.status import plan_of
from hollet.core.limits import Judgement
from hollet.core.steps.bolt import act_verdict

__all__ = ["LogLine", "line_of"]


class LogLine(BaseModel):
    """One line of the log for the eye."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    seq: int
    time: str
    bench_time: str
    who: str
    kind: str
    step: str | None
    step_number: str
    text: str

    @computed_field
    @property
    def conceded(self) -> bool:
        """Whether something outside was accepted in writing."""
        return self.kind == "concession"

    verdict: str = ""
    side: str | None = None
    verdict_words: str = ""
    assumed: bool = False
    struck_by: str | None = None
    struck_reason: str | None = None
    struck_time: str | None = None
    photo: str | None = None
    sound: str | None = None
    clip: str | None = None
    hash: str = ""
    strikable: bool = True


def line_of(state: BookState, entry: Line, mark: str = "") -> LogLine:
    """The line of one entry, struck or not, with its `mark` in the chain; remembered while neither
    its strike nor the thing that it names moved on.
    """
    titled = entry.body.titled()
    made_of = (entry.id in state.struck, state.seen.get(titled, 0), mark)
    return state.remembered(("line", entry.id), made_of, lambda: _line_of(state, entry, mark))


def _line_of(state: BookState, entry: Line, mark: str) -> LogLine:
    body, step_id = entry.body, entry.body.at()
    step = plan_of(state).find_step(step_id) if step_id else None
    number = step.number if step else ("no longer in the plan" if step_id else "")
    strike = _strike_of(state, entry)
    judged = JUDGED[type(body)](state, entry) if type(body) in JUDGED else None
    return LogLine(
        id=entry.id,
        seq=entry.seq,
        time=entry.time,
        bench_time=entry.bench_time,
        who=entry.who,
        kind=entry.kind,
        step=step_id,
        step_number=number,
        text=body.line(_title(state, body.titled())),
        verdict=judged.verdict if judged else "",
        side=judged.side if judged else None,
        verdict_words=judged.words.split(",")[0] if judged else "",
        assumed=judged.assumed if judged else False,
        struck_by=strike.who if strike else None,
        struck_reason=strike.body.reason if strike else None,
        struck_time=strike.time if strike else None,
        strikable=body.strikable and strike is None,
        sound=body.shown_sound(),
        clip=body.shown_clip(),
        hash=mark,
        photo=body.shown_photo(),
    )


def _strike_of(state: BookState, entry: Line) -> Entry[Strike] | None:
    if entry.id not in state.struck:
        return None
    return next(s for s in state.each(Strike, "log") if s.body.entry == entry.id)


def _pulled(state: BookState, entry: Entry[Fastener]) -> Judgement | None:
    """How one act on a bolt is judged by its joint."""
    joint = plan_of(state).find_joint(entry.body.joint)
    return act_verdict(joint, entry) if joint is not None else None


JUDGED: dict[type[Body], Callable[[BookState, Entry[Any]], Judgement | None]] = {Fastener: _pulled}
"""Kinds whose line shows a verdict."""


def _title(state: BookState, key: Key) -> str:
    """The name of a thing in the words of the plan, or its id where the plan has it no longer."""
    return TITLES[key.place](state, key.name)


def _step(state: BookState, name: str) -> str:
    step = plan_of(state).find_step(name)
    return step.title if step else name


def _reading(state: BookState, name: str) -> str:
    specs = (spec for step in plan_of(state).step for spec in step.readings())
    return next((spec.name for spec in specs if spec.id == name), _step(state, name))


def _opened(state: BookState, name: str) -> str:
    """What was left open, in its own words."""
    for entry in reversed(state.live("open", name)):
        known = next((item.what for item in entry.body.opened() if item.id == name), None)
        if known:
            return known
    return name


def _line(state: BookState, name: str) -> str:
    target = state.entries.get(name)
    return str(target.seq) if target else "?"


TITLES: dict[str, Callable[[BookState, str], str]] = {
    "step": _step,
    "reading": _reading,
    "open": _opened,
    "line": _line,
}
