"""The bench of one rung of the first start."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.acts.gauges import GAUGES
from hollet.core.book.faults import changed_last
from hollet.core.book.gates import GateAnswer, dry_run_decision, gate_answers
from hollet.core.book.open_items import open_items
from hollet.core.book.passing import reason_keys
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.faults import Rhythm
from hollet.core.instruments import Instrument
from hollet.core.lore import Lore
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.words import RUNGS
from hollet.core.steps.attempt import AttemptFacts
from hollet.core.steps.cooling import CoolDown, cool_down
from hollet.core.steps.run import attempts_of
from hollet.core.steps.starter import RestFacts, burst_limit, cranked_s, isolated_again, rest_of
from hollet.core.view import View
from hollet.screens.benches.base import BenchBase

__all__ = ["RunBench", "run_bench"]


class NoisePlaces(View):
    """A rhythm, and where noises of that rhythm are usually heard."""

    rhythm: Rhythm
    places: tuple[str, ...]


class RunBench(View):
    """One rung of the first start.

    `isolate_at_once`: one press may name all that is isolated, by whoever named it last
    (`isolated_by`).
    """

    kind: Literal["run"] = "run"
    base: BenchBase
    primary: str
    rung: str
    rung_name: str
    rungs: tuple[GateAnswer, ...]
    gate: GateAnswer
    isolate: tuple[str, ...]
    expect: str
    watch: tuple[str, ...]
    limit_s: float | None
    limit_words: str
    assumed: bool
    attempts: tuple[AttemptFacts, ...]
    running: AttemptFacts | None
    cranked_s: float
    total_s: float | None
    still_runs: str | None
    suspects: tuple[str, ...]
    gate_keys: tuple[str, ...]
    rest: RestFacts | None
    cooling: CoolDown | None
    isolate_at_once: bool
    isolated_by: str
    gauge_unit: str
    gauges: tuple[str, ...]
    noises: tuple[NoisePlaces, ...]


def run_bench(
    state: BookState, step: RunStep, tools: Sequence[Instrument], base: BenchBase
) -> RunBench:
    plan = plan_of(state)
    items = open_items(state, tools)
    answers = gate_answers(state, tools, items)
    gate = next(a for a in answers if a.rung == step.rung)
    attempts = attempts_of(state, step)
    limit = plan.find_limit(step.time_limit)
    total = plan.find_limit(step.total_limit)
    most = limit.figure("hi") if limit else None
    if gate.answer == "limited" and step.rung == "fire" and most is not None:
        most = min(most, dry_run_decision(state) or most)
    if most is not None:
        most = burst_limit(most, total.figure("hi") if total else None, attempts)
    now = base.now
    resting, (at_once, by) = rest_of(state, step, now), isolated_again(state, step, now)
    gauge = next(
        (tool for tool in tools if tool.kind == "pressure gauge" and not tool.retired), None
    )
    used = [
        plan.find_limit(n)
        for n in (step.time_limit, step.pressure, step.pressure_by, step.coolant)
        if n
    ]
    return RunBench(
        base=base,
        primary=f"{RUNGS[step.rung]} now",
        rung=step.rung,
        rung_name=RUNGS[step.rung],
        rungs=answers,
        gate=gate,
        isolate=step.isolate,
        expect=step.expect,
        watch=step.watch,
        limit_s=most,
        limit_words=limit.words() if limit else "not given",
        assumed=any(x is not None and x.source is None for x in used),
        attempts=attempts,
        running=next((a for a in attempts if not a.ended), None),
        cranked_s=cranked_s(attempts),
        total_s=total.figure("hi") if total else None,
        still_runs=step.still_runs,
        suspects=changed_last(state),
        gate_keys=reason_keys("gate"),
        cooling=cool_down(state, step, now),
        rest=resting[0] if resting is not None else None,
        isolate_at_once=at_once,
        isolated_by=by,
        noises=noise_places(state.lore),
        gauge_unit=gauge.unit if gauge is not None else "bar",
        gauges=tuple(
            tool.id
            for tool in tools
            if tool.device is not None
            and not tool.retired
            and tool.kind in {kind for _, kind, _ in GAUGES}
        ),
    )


def noise_places(lore: Lore) -> tuple[NoisePlaces, ...]:
    """Every rhythm of the tree of noises with its places, as the tree has them."""
    tree = lore.symptom_of("noise")
    found: dict[Rhythm, dict[str, None]] = {}
    for cause in tree.cause if tree is not None else ():
        if cause.rhythm is not None:
            found.setdefault(cause.rhythm, {})[cause.place] = None
    return tuple(NoisePlaces(rhythm=r, places=tuple(p)) for r, p in found.items())
