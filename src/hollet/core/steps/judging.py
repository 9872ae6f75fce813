"""How one result is judged: by its value, by both ends of several readings, and by each source."""

from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.instruments import Spread, combine
from hollet.core.limits import (
    Judgement,
    Limit,
    judge,
    judge_lower_end,
)
from hollet.core.procedure.results import ResultSpec

__all__ = [
    "FIGURES",
    "SourceVerdict",
    "by_source",
    "check_clearance",
    "end_counts",
    "judged_by_all",
]

FIGURES = ("lo", "hi", "target")


class SourceVerdict(BaseModel):
    """How a result is judged by one of several sources of its limit, and whether that one is in
    force.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    source: str
    asks: str
    verdict: str
    side: str | None
    words: str
    in_force: bool


def check_clearance(limit: Limit, readings: int, value: float) -> None:
    """What goes in is smaller than its bore, or one of the two figures is wrong."""
    if readings == 2 and limit.dimension == "length" and "clearance" in limit.id and value <= 0:
        raise Refused(
            "negative_clearance",
            "what goes in is not smaller than its bore: which of the two figures is wrong?",
        )


def _span(spec: ResultSpec, means: dict[str, float]) -> tuple[str, str]:
    """The smallest and the largest of the readings that are looked at from both ends."""
    return min(spec.over, key=lambda n: means[n]), max(spec.over, key=lambda n: means[n])


def _ends(
    spec: ResultSpec,
    means: dict[str, float],
    spreads: dict[str, Spread],
    limit: Limit,
    working: tuple[str, ...] = (),
    digits: int = 0,
) -> tuple[Judgement, Judgement]:
    """The smallest against the lower limit, and the largest against the upper one."""
    less = sum(means[name] for name in spec.less)
    ends = [
        (
            means[name] - less,
            combine([(1, spreads[name]), *((-1, spreads[other]) for other in spec.less)])[2],
        )
        for name in _span(spec, means)
    ]
    low, high = (
        judge(v, u, limit.model_copy(update={side: None}), working, digits)
        for (v, u), side in zip(ends, ("hi", "lo"), strict=True)
    )
    return low, high


def _urgency(judgement: Judgement) -> tuple[int, float]:
    order = ("outside", "too_close", "inside")
    return order.index(judgement.verdict) if judgement.verdict in order else len(order), _room(
        judgement
    )


def end_counts(
    spec: ResultSpec, means: dict[str, float], spreads: dict[str, Spread], limit: Limit
) -> dict[str, float]:
    """How often each reading counts at the end that decides."""
    low, high = _ends(spec, means, spreads, limit)
    at = _span(spec, means)[
        0 if limit.hi is None or (limit.lo is not None and _urgency(low) < _urgency(high)) else 1
    ]
    return {at: 1.0} | dict.fromkeys(spec.less, -1.0)


def judged_by_all(
    spec: ResultSpec,
    means: dict[str, float],
    spreads: dict[str, Spread],
    parts: Sequence[tuple[float, Spread]],
    value: float,
    limit: Limit,
    working: tuple[str, ...],
    digits: int,
) -> Judgement:
    """The verdict: on the value; on a lower end; or on both ends, the smallest against the lower
    limit and the largest against the upper one.
    """
    big_u = combine(parts)[2]
    if any(spread.bound for _, spread in parts):
        if len(parts) == 1:
            return judge_lower_end(value, big_u, limit, working, digits)
        return judge(value, big_u, limit, working, digits).model_copy(
            update={
                "verdict": "too_close",
                "words": "one leaf alone is the lower end of a gap",
                "needs": None,
            }
        )
    if spec.how != "ends":
        return judge(value, big_u, limit, working, digits)
    low, high = _ends(spec, means, spreads, limit, working, digits)
    if limit.lo is None or limit.hi is None:
        return high if limit.lo is None else low
    worse = min((low, high), key=_urgency)
    whole = judge(
        worse.value,
        worse.U,
        limit,
        (
            *working,
            (
                f"smallest {low.value_text} against the lower limit, largest {high.value_text} "
                "against the upper"
            ),
        ),
        digits,
    )
    return whole.model_copy(
        update={
            "verdict": worse.verdict,
            "side": worse.side,
            "words": worse.words,
            "needs": worse.needs,
        }
    )


def _room(judged: Judgement) -> float:
    """How far a value lies from the one limit that it was judged by."""
    edge = judged.lo if judged.lo is not None else judged.hi
    return abs((judged.value or 0.0) - (edge or 0.0))


def by_source(limit: Limit, value: float, big_u: float) -> tuple[SourceVerdict, ...]:
    """What each source would say, where more than one has spoken."""
    found = []
    for answer in limit.answers if len(limit.answers) > 1 else ():
        said = limit.as_said(answer)
        judged = judge(value, big_u, said)
        page = f", p. {answer.page}" if answer.page else ""
        found.append(
            SourceVerdict(
                source=f"{answer.source}{page}",
                asks=said.words(),
                verdict=judged.verdict,
                side=judged.side,
                words=judged.words,
                in_force=limit.in_force(answer),
            )
        )
    return tuple(found)
