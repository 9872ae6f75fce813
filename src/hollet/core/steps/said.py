"""Figures that a step asks for before it is done: what a unit weighs, what the gear carries, how
high the hook reaches.
"""

from hollet.core.entries import BookState, Said
from hollet.core.entries.status import plan_of
from hollet.core.procedure.kinds.base import BaseStep
from hollet.core.procedure.kinds.check import Ask
from hollet.core.quantities.quantity import Measured
from hollet.core.view import View

__all__ = ["SaidFigure", "not_enough", "said_figures", "weights_said"]


class SaidFigure(View):
    """One figure: its name and unit, as typed and in words when somebody said it, by whom, and what
    it is too small or too large for.
    """

    id: str
    name: str
    unit: str
    words: str | None
    typed: str | None
    who: str
    problem: str | None


def said_figures(state: BookState, step: BaseStep) -> tuple[SaidFigure, ...]:
    """What the step asks for, in the order of the sheet, with what was said last."""
    return tuple(_figure(state, step, ask) for ask in step.figures())


def not_enough(state: BookState, step: BaseStep) -> str | None:
    """The first figure of the step that another one forbids, in words: gear that carries less than
    the unit weighs.
    """
    return next((figure.problem for figure in said_figures(state, step) if figure.problem), None)


def weights_said(state: BookState) -> tuple[tuple[str, float], ...]:
    """What units were said to weigh, by name, in kg: the masses that gear has to carry."""
    asked = plan_of(state).derived("asks", plan_of(state).step, _asks)
    carried = {ask.at_least for ask in asked.values() if ask.dimension == "mass"}
    found = ((asked[name].name, _value(state, asked[name])) for name in carried if name in asked)
    return tuple(
        sorted((name, value.figure("mass") / 1000) for name, value in found if value is not None)
    )


def _asks(steps: tuple[BaseStep, ...]) -> dict[str, Ask]:
    return {ask.id: ask for step in steps for ask in step.figures()}


def _value(state: BookState, ask: Ask) -> Measured | None:
    said = state.newest(Said, "said", ask.id)
    return said.body.value if said else None


def _words(value: Measured) -> str:
    return f"{value.value} {value.unit}"


def _figure(state: BookState, step: BaseStep, ask: Ask) -> SaidFigure:
    said = state.newest(Said, "said", ask.id)
    value = _value(state, ask)
    problem, asked = None, plan_of(state).derived("asks", plan_of(state).step, _asks)
    for bound, words in ((ask.at_least, "less"), (ask.at_most, "more")):
        other = asked.get(bound or "")
        limit = _value(state, other) if other is not None else None
        if value is None or limit is None or other is None:
            continue
        apart = value.figure(ask.dimension) - limit.figure(other.dimension)
        if (apart < 0) if words == "less" else (apart > 0):
            problem = f"{ask.name}, {_words(value)}, is {words} than {other.name}, {_words(limit)}"
    return SaidFigure(
        id=ask.id,
        name=ask.name,
        unit=ask.unit,
        words=_words(value) if value else None,
        typed=value.typed if value else None,
        who=said.who if said else "",
        problem=problem,
    )
