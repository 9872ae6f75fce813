"""What each bench shows: one model a kind, made from the facts of the build.

Screens draw these and compute nothing."""

from collections.abc import Callable, Sequence
from typing import Annotated, Any

from pydantic import Field

from hollet.core.entries import BookState
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.procedure.kinds.remove import RemoveStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.procedure.sheet import Step
from hollet.screens.benches.base import BenchBase, Known, base_of
from hollet.screens.benches.check import CheckBench, check_bench
from hollet.screens.benches.fill import FillBench, fill_bench
from hollet.screens.benches.inspect import InspectBench, inspect_bench
from hollet.screens.benches.measure import MeasureBench, measure_bench
from hollet.screens.benches.remove import RemoveBench, remove_bench
from hollet.screens.benches.run import RunBench, run_bench
from hollet.screens.benches.tighten import TightenBench, tighten_bench
from hollet.screens.plan_questions import Gear

__all__ = ["Bench", "bench_of"]

Bench = Annotated[
    CheckBench | InspectBench | RemoveBench | MeasureBench | TightenBench | FillBench | RunBench,
    Field(discriminator="kind"),
]


def bench_of(
    state: BookState,
    step: Step,
    tools: Sequence[Instrument],
    gear: Gear,
    now: str,
    known: Known | None = None,
) -> Bench:
    """The bench of one step at the moment `now` (UTC, ISO 8601), with what is `known` beyond its
    own log.
    """
    base = base_of(state, step, gear, tools, now, known or Known())
    return BENCHES[type(step)](state, step, tools, base)


BENCHES: dict[type[Any], Callable[[BookState, Any, Sequence[Instrument], BenchBase], Bench]] = {
    CheckStep: check_bench,
    InspectStep: inspect_bench,
    RemoveStep: remove_bench,
    MeasureStep: measure_bench,
    TightenStep: tighten_bench,
    FillStep: fill_bench,
    RunStep: run_bench,
}
