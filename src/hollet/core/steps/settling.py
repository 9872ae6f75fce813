"""Which tools of the shop would settle a result."""

from collections.abc import Sequence

from hollet.core.instruments import Instrument, Spread, combine, reading_share, single_reading_U
from hollet.core.limits import Limit, judge
from hollet.core.steps.working import FEW_LINES

__all__ = ["settling_tools"]


def settling_tools(
    kinds: Sequence[str],
    parts: Sequence[tuple[float, Spread]],
    limit: Limit,
    tools: Sequence[Instrument],
    value: float,
) -> tuple[str, ...]:
    """Which tools of the shop would bring a verdict at this value: one in place of one reading,
    else the best for each.

    Parameters
    ----------
    kinds : the kind of tool that each part asks for, in the order of `parts`.
    value : the result, canonical unit.
    """
    fitting = [
        [
            t
            for t in tools
            if not t.retired and t.kind == kind and t.s is not None and t.covers(spread.value)
        ]
        for kind, (_, spread) in zip(kinds, parts, strict=True)
    ]

    def decides(trial: Sequence[tuple[float, Spread]]) -> bool:
        return judge(value, combine(trial)[2], limit).verdict in ("inside", "outside")

    found = []
    for index, (c, spread) in enumerate(parts[:FEW_LINES]):
        for tool in fitting[index]:
            for n in (1, 3):
                trial = [*parts[:index], (c, _as_if(tool, spread.value, n)), *parts[index + 1 :]]
                if decides(trial):
                    found.append(tool.code if n == 1 else f"{tool.code}, read {n} times")
                    break
    if found or len(parts) == 1 or not all(fitting):
        return tuple(dict.fromkeys(found))
    best = [
        min(listed, key=lambda t: single_reading_U(t, spread.value))
        for listed, (_, spread) in zip(fitting, parts, strict=True)
    ]
    for n in (1, 3):
        if decides(
            [
                (c, _as_if(tool, spread.value, n))
                for tool, (c, spread) in zip(best, parts, strict=True)
            ]
        ):
            codes = " and ".join(dict.fromkeys(tool.code for tool in best))
            return (codes + ("" if n == 1 else f", each read {n} times"),)
    return ()


def _as_if(tool: Instrument, value: float, n: int) -> Spread:
    """What `n` repeats with a tool would be worth if they gave `value`."""
    return reading_share(tool, [value + tool.known_offset()] * n)
