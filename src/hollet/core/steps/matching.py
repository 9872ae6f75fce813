"""Which piston goes into which bore: the exact choice, each pair judged, what a swap would cost."""

from collections.abc import Sequence

from pydantic import computed_field

from hollet.core.entries import BookState, Pair
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.fitting.pairing import PairPistons, pair_pistons
from hollet.core.instruments import Instrument
from hollet.core.limits import Judgement, Limit
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.packs import Pairs
from hollet.core.procedure.results import ResultSpec
from hollet.core.quantities.quantity import Quantities, Quantity
from hollet.core.steps.pairs import pairs_taken
from hollet.core.steps.readings import latest, reading_mean
from hollet.core.steps.results import judged_pair, specs_of
from hollet.core.view import View

__all__ = ["MatchChoice", "match_choice", "pairs_by"]


class PairLane(View):
    """One bore, and every part that could go into it, each judged; `best` is the proposed one,
    `lies_in` the one that was taken.
    """

    result: str
    name: str
    outer_text: str
    options: tuple["PairOption", ...]


class PairOption(View):
    """One part in one bore."""

    inner: str
    name: str
    judgement: Judgement
    best: bool
    lies_in: bool


class MatchChoice(View):
    """All lanes, and the proposal; `refusal` says why there is none."""

    outer: str
    inner: str
    limit: Limit
    lanes: tuple[PairLane, ...]
    refusal: str | None
    chooses: bool
    ready: bool
    working: tuple[str, ...]

    @computed_field
    @property
    def title(self) -> str:
        """What is so, in one line."""
        if not self.ready:
            return f"Every {self.outer} and every {self.inner} first"
        if not self.chooses:
            return "Matched"
        if self.refusal is not None:
            return f"No matching of these {self.inner}s is inside"
        own = sum(
            o.best and k == n for k, ln in enumerate(self.lanes) for n, o in enumerate(ln.options)
        )
        if own == len(self.lanes):
            return f"Each {self.inner} stays with its own {self.outer}"
        return f"{len(self.lanes) - own} of {len(self.lanes)} change places"


def match_choice(
    state: BookState, step: BaseStep, tools: Sequence[Instrument]
) -> MatchChoice | None:
    """The matching of a step, or None where nothing is matched."""
    pairs = step.matched()
    if pairs is None:
        return None
    specs = _specs(step, pairs)
    limit = plan_of(state).find_limit(specs[0].limit)
    assert limit is not None
    taken = pairs_taken(state, step.id)
    found = taken.body.pairs if taken is not None else ()
    lies = {pair.result: pair.inner for pair in found}
    grid = [
        [judged_pair(state, step, spec, inner, tools) for inner in _inners(specs)] for spec in specs
    ]
    ready = all(judged is not None for row in grid for judged in row)
    best, refusal, working = _best(state, specs, limit, grid) if ready else ({}, None, ())
    names = _names(state, specs)
    lanes = tuple(
        PairLane(
            result=spec.id,
            name=spec.name,
            outer_text=f"{pairs.outer} {k}",
            options=tuple(
                PairOption(
                    inner=inner,
                    name=names[inner],
                    judgement=judged,
                    best=best.get(spec.id) == inner,
                    lies_in=lies.get(spec.id) == inner,
                )
                for inner, judged in zip(_inners(specs), row, strict=True)
                if judged is not None
            ),
        )
        for k, (spec, row) in enumerate(zip(specs, grid, strict=True), 1)
    )
    return MatchChoice(
        outer=pairs.outer,
        inner=pairs.inner,
        limit=limit,
        lanes=lanes,
        refusal=refusal,
        chooses=any(pair_open(state, step, spec.id, found) for spec in specs),
        ready=ready,
        working=working,
    )


def pair_open(state: BookState, step: BaseStep, result: str, found: Sequence[Pair]) -> bool:
    """Whether it is still to be said what goes into one bore."""
    pair = next((pair for pair in found if pair.result == result), None)
    if pair is None:
        return True
    spec = next(spec for spec in step.results() if spec.id == result).with_inner(pair.inner)
    now = tuple(entry.id for name in spec.named() if (entry := latest(state, name)) is not None)
    return now != pair.readings


def pairs_by(state: BookState, step: BaseStep, inners: Sequence[str]) -> tuple[Pair, ...]:
    """The pairs with these parts, in the order of the bores; refused (`pairs_wrong`) where one is
    named twice, or one that nobody read.
    """
    pairs = step.matched()
    specs = _specs(step, pairs) if pairs is not None else []
    known = _inners(specs)
    if sorted(inners) != sorted(known):
        words = "each of them goes into one, and none into two"
        raise Refused("pairs_wrong", words, field="inners")
    names, found = _names(state, specs), []
    for spec, inner in zip(specs, inners, strict=True):
        entries = [latest(state, name) for name in spec.with_inner(inner).named()]
        if any(entry is None for entry in entries):
            raise Refused("not_complete", f"{spec.name}: read both first", field="inners")
        found.append(
            Pair(
                result=spec.id,
                outer=spec.name,
                inner=inner,
                inner_name=names[inner],
                readings=tuple(entry.id for entry in entries if entry is not None),
            )
        )
    return tuple(found)


def _specs(step: BaseStep, pairs: Pairs) -> list[ResultSpec]:
    known = {spec.id: spec for spec in step.results()}
    return [known[name] for name in pairs.results]


def _inners(specs: Sequence[ResultSpec]) -> list[str]:
    return [str(spec.inner()) for spec in specs]


def _names(state: BookState, specs: Sequence[ResultSpec]) -> dict[str, str]:
    plan = plan_of(state)
    return {r.id: r.name for spec in specs for r in specs_of(plan, spec)}


def _best(
    state: BookState,
    specs: Sequence[ResultSpec],
    limit: Limit,
    grid: Sequence[Sequence[Judgement | None]],
) -> tuple[dict[str, str], str | None, tuple[str, ...]]:
    """The exact choice: aimed at the target or the middle, inside the limits less the widest
    uncertainty.
    """
    lo, hi, target = limit.figure("lo"), limit.figure("hi"), limit.figure("target")
    if lo is None or hi is None:
        return {}, f"{limit.name}: both ends of its limit are asked for", ()
    wide = max((j.U or 0.0 for row in grid for j in row if j is not None), default=0.0)
    inner = [_mean(state, (name,)) for name in _inners(specs)]
    outer = [_mean(state, spec.outer()) for spec in specs]
    mm = {
        "target_clearance": target if target is not None else (lo + hi) / 2,
        "lower_limit": lo + wide,
        "upper_limit": hi - wide,
    }
    try:
        found = pair_pistons(
            PairPistons(
                bores=Quantities(value=list(outer), unit="mm"),
                pistons=Quantities(value=list(inner), unit="mm"),
                **{name: Quantity(value=v, unit="mm") for name, v in mm.items()},
            )
        )
    except Refused as refusal:
        return {}, refusal.message, ()
    names = _inners(specs)
    taken = {s.id: names[k - 1] for s, k in zip(specs, found.assignment.value, strict=True)}
    return taken, None, found.working


def _mean(state: BookState, names: Sequence[str]) -> float:
    figures = [reading_mean(entry) for name in names if (entry := latest(state, name)) is not None]
    return sum(figures) / len(figures)
