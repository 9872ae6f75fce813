"""How a result is summed up of its readings and of the sizes of the vehicle."""

from collections.abc import Iterable, Mapping
from typing import NamedTuple

from hollet.core.entries import Entry, Reading
from hollet.core.errors import Refused
from hollet.core.instruments import Spread, combine
from hollet.core.limits import Judgement, Limit
from hollet.core.procedure.formulas import evaluate, sensitivities
from hollet.core.procedure.results import ResultSpec
from hollet.core.steps.judging import end_counts, judged_by_all
from hollet.core.steps.packs import Lying
from hollet.core.steps.readings import reading_mean, spread_of
from hollet.core.steps.working import digits_read, working_of

__all__ = ["Sum", "summed"]


class Sum(NamedTuple):
    """A result as it is summed up: readings with their spreads, shares and counts, the value before
    any shim, the words, how finely it was read, the sizes of the vehicle in it; `refusal`: why it
    has no spread, `advice` what its calculation says is next.
    """

    spec: ResultSpec
    limit: Limit
    means: dict[str, float]
    spreads: dict[str, Spread]
    parts: list[tuple[float, Spread]]
    value: float
    working: tuple[str, ...]
    digits: int
    sizes: tuple[Limit, ...]
    counts: dict[str, float]
    advice: str | None = None
    refusal: str | None = None

    def judged(
        self,
        parts: list[tuple[float, Spread]],
        value: float,
        words: tuple[str, ...],
        *,
        guessed: bool = False,
    ) -> Judgement:
        """The verdict on a value of these parts."""
        found = judged_by_all(
            self.spec, self.means, self.spreads, parts, value, self.limit, words, self.digits
        )
        return _as_sure(found, self.sizes, guessed=guessed)

    def with_shims(self, shims: Lying) -> tuple[list[tuple[float, Spread]], float, Judgement]:
        """The parts, the value and the verdict with these shims in."""
        parts, value = [*self.parts, *shims.parts], self.value - shims.total
        total = f"with the shims: U = {combine(parts)[2]:.4f} mm"
        words = (*self.working, *shims.words, *((total,) if shims.parts else ()))
        return parts, value, self.judged(parts, value, words, guessed=shims.printed)


def summed(
    spec: ResultSpec,
    limit: Limit,
    taken: Mapping[str, Entry[Reading]],
    sizes: Mapping[str, Limit],
) -> Sum:
    """The sum of a result whose readings are all taken; raises what its calculation refuses, and
    `size_not_known`.
    """
    means = {name: reading_mean(entry) for name, entry in taken.items()}
    means |= {name: _size(size) for name, size in sizes.items()}
    value, formula, advice = evaluate(spec, means)
    bare = Sum(spec, limit, means, {}, [], value, (), 0, tuple(sizes.values()), {}, advice)
    try:
        spreads = {name: spread_of(entry) for name, entry in taken.items()}
    except Refused as refusal:
        return bare._replace(refusal=refusal.message)
    counts = _counts(spec, means, spreads, limit)
    parts = [(c, spreads[name]) for name, c in counts.items()]
    working = (
        *(_size_words(size) for size in sizes.values()),
        *working_of(parts, list(taken.values()), limit, formula),
    )
    return bare._replace(
        spreads=spreads,
        counts=counts,
        parts=parts,
        working=working,
        digits=digits_read(taken.values(), limit),
    )


def _size(limit: Limit) -> float:
    """A size in its canonical unit; refused where nobody gave it, or where sources disagree."""
    value = limit.figure("target")
    if value is None or limit.conflict:
        why = "is not given" if value is None else "differs between its sources"
        raise Refused(
            "size_not_known", f"{limit.name} {why}: say it in the limit book", field=limit.id
        )
    return value


def _size_words(limit: Limit) -> str:
    """A size as it goes into the sum, and where it comes from."""
    page = f" p. {limit.page}" if limit.page else ""
    said = f"{limit.source}{page}" if limit.source else limit.own or "assumed"
    return f"{limit.name}: {limit.target} {limit.unit} ({said})"


def _counts(
    spec: ResultSpec, means: dict[str, float], spreads: dict[str, Spread], limit: Limit
) -> dict[str, float]:
    """How much each reading counts in the result; a size is exact and has no share in it."""
    ends = spec.how == "ends"
    found = end_counts(spec, means, spreads, limit) if ends else sensitivities(spec, means)
    return {name: count for name, count in found.items() if name in spreads}


def _as_sure(judgement: Judgement, sizes: Iterable[Limit], *, guessed: bool = False) -> Judgement:
    """The verdict is assumed where a size in its sum has no source, or a shim is taken as printed:
    inside of a guess is one.
    """
    guessed = guessed or judgement.assumed or any(size.source is None for size in sizes)
    return judgement.model_copy(update={"assumed": guessed})
