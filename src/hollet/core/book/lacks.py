"""What a step of each kind lacks itself: looks, figures, readings, bolts, a passed attempt."""

from collections.abc import Callable, Sequence
from typing import Any

from hollet.core.entries import BookState, Confirmed
from hollet.core.entries.status import SETTLED, plan_of, selection_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.procedure.hunt import hunt_list
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.procedure.sheet import Step
from hollet.core.steps.inspection import unfinished
from hollet.core.steps.pattern import pattern_of
from hollet.core.steps.readings import readings_of
from hollet.core.steps.results import results_of
from hollet.core.steps.rows import rows_of
from hollet.core.steps.run import attempts_of
from hollet.core.steps.said import said_figures
from hollet.core.steps.tighten import joint_facts, joint_in_hand
from hollet.core.words import counted

__all__ = ["own_lacks"]


def own_lacks(state: BookState, step: Step, tools: Sequence[Instrument]) -> str | None:
    """What the kind of the step asks for and has not got, in words; None where nothing is."""
    ask = OWN.get(type(step))
    return ask(state, step, tools) if ask is not None else None


def _inspect_lacks(state: BookState, step: InspectStep, tools: Sequence[Instrument]) -> str | None:
    return unfinished(state, step)


def _check_lacks(state: BookState, step: CheckStep, tools: Sequence[Instrument]) -> str | None:
    """Of a step that sources the figures: what the coming stage needs and has not got."""
    missing = next(
        (figure.name for figure in said_figures(state, step) if figure.words is None), None
    )
    if missing is not None:
        return f"not said: {missing}"
    pattern = pattern_of(state, step)
    if pattern is not None and not pattern.right:
        return f"the pattern is not right: {pattern.words or 'nobody has said where it bears'}"
    rows = _rows_lack(state, step)
    if rows is not None or not step.hunts:
        return rows
    settled = {name for name, known in statuses(state).items() if known.status in SETTLED} | {
        step.id
    }
    stage = next(
        (s.stage for s in plan_of(state).step if s.id not in settled and s.stage != step.stage),
        None,
    )
    coming = [
        item
        for item in hunt_list(selection_of(state), settled, {}, set())
        if item.kind in ("figure", "torque", "amount") and item.stage == stage
    ]
    first = ", ".join(f"{item.name} ({item.state})" for item in coming[:3])
    return (
        f"to find for {coming[0].stage_name}: {counted(len(coming), 'figure')}, first {first}"
        if coming
        else None
    )


def _rows_lack(state: BookState, step: CheckStep) -> str | None:
    """A row whose fate nobody has decided; at the end, one that is not settled."""
    for row in rows_of(state) if step.rows in ("decide", "close") else ():
        if not row.decided:
            return f"nobody has decided: {row.part}, {row.words}"
        if step.rows == "close" and not row.settled:
            return f"not settled: {row.part}, {row.words}"
    return None


def _measure_lacks(state: BookState, step: MeasureStep, tools: Sequence[Instrument]) -> str | None:
    results = results_of(state, step, tools)
    choosing = {r.id for r in results if r.chooses}
    later = {p.check.reading for p in step.packs() if p.check and p.result in choosing}
    unread = (r.name for r in step.reading if not state.live("reading", r.id) and r.id not in later)
    missing = next(unread, None)
    if missing is not None:
        return f"{missing} is not read"
    once = next((r for r in readings_of(state, step) if r.ask_again), None)
    if once is not None:
        return f"{once.name}: read it a second time, there is no going back after it"
    undecided = next(
        (r for r in results if r.open and (r.chooses or r.disposition in (None, "measure_again"))),
        None,
    )
    if undecided is None:
        return None
    if undecided.chooses:
        asked = "which part goes into it" if step.pairs else "which shims lie in it"
        return f"{undecided.name}: say {asked}"
    if undecided.judgement.verdict == "no_limit" and undecided.refusal is None:
        return f"{undecided.name}: no figure is given to judge it by, put it into the limit book"
    return (
        f"{undecided.name} is {undecided.judgement.words}"
        if undecided.refusal is None
        else f"{undecided.name}: {undecided.refusal}"
    )


def _tighten_lacks(state: BookState, step: TightenStep, tools: Sequence[Instrument]) -> str | None:
    joint = joint_in_hand(state, step)
    facts = joint_facts(state, joint) if joint else None
    if facts is not None and facts.proves:
        return f"nobody has seen yet: {facts.condition}"
    if facts is None or not (facts.begun and facts.final):
        return f"not final: {facts.progress if facts else step.joint}"
    return None


def _run_lacks(state: BookState, step: RunStep, tools: Sequence[Instrument]) -> str | None:
    return None if any(a.passed for a in attempts_of(state, step)) else "no attempt has passed"


def _fill_lacks(state: BookState, step: FillStep, tools: Sequence[Instrument]) -> str | None:
    if not state.live("reading", step.id):
        return "the amount is not entered"
    seen = any(x.body.what == step.level for x in state.each(Confirmed, "step", step.id))
    return None if seen else f"not looked at: {step.level}"


OWN: dict[type, Callable[[BookState, Any, Sequence[Instrument]], str | None]] = {
    CheckStep: _check_lacks,
    InspectStep: _inspect_lacks,
    MeasureStep: _measure_lacks,
    TightenStep: _tighten_lacks,
    RunStep: _run_lacks,
    FillStep: _fill_lacks,
}
