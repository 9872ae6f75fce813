"""The bench of a step that is ticked."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.book.sweeping import SweepFacts, sweep_of
from hollet.core.entries import BookState
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.steps.pattern import PatternFacts, pattern_of
from hollet.core.steps.rows import RowFacts, half_words, rows_of
from hollet.core.steps.said import SaidFigure, said_figures
from hollet.core.view import View
from hollet.screens.as_taken import Follower, TakenView, followers, taken_of
from hollet.screens.benches.base import BenchBase

__all__ = ["CheckBench", "check_bench"]


class CheckBench(View):
    """Tick it; with the figures that must be said first."""

    kind: Literal["check"] = "check"
    base: BenchBase
    primary: str
    asks: tuple[SaidFigure, ...] = ()
    taken: tuple[TakenView, ...] = ()
    followers: tuple[Follower, ...] = ()
    pattern: PatternFacts | None = None
    rows: tuple[RowFacts, ...] = ()
    rows_words: str | None = None
    sweep: SweepFacts | None = None


def check_bench(
    state: BookState, step: CheckStep, tools: Sequence[Instrument], base: BenchBase
) -> CheckBench:
    return CheckBench(
        base=base,
        primary=step.pressed(),
        asks=said_figures(state, step),
        taken=taken_of(state, step),
        followers=followers(state, step),
        pattern=pattern_of(state, step),
        rows=rows_of(state) if step.rows else (),
        sweep=sweep_of(state, step),
        rows_words=half_words(rows_of(state)) if step.rows else None,
    )
