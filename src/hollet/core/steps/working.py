"""The lines of arithmetic of a result, with the user's own figures, and how finely it is shown."""

from collections.abc import Iterable, Sequence

from hollet.core.entries import Entry, Reading
from hollet.core.instruments import Spread, combine
from hollet.core.limits import Limit
from hollet.core.quantities.quantity import round9
from hollet.core.quantities.units import CANONICAL, find_unit
from hollet.core.steps.proof import NEARLY

__all__ = ["FEW_LINES", "digits_read", "working_of"]

FEW_LINES = 6


def digits_read(taken: Iterable[Entry[Reading]], limit: Limit) -> int:
    """How finely the figures were read: decimals of the tool's resolution, or as typed, in the unit
    of the limit.
    """
    unit = find_unit(limit.unit)
    most = 0
    for entry in taken:
        tool = entry.body.instrument
        if (
            tool is None
            or unit is None
            or unit.offset
            or find_unit(tool.unit) is None
            or tool.dimension != unit.dimension
        ):
            continue
        step = tool.figure("resolution") / float(unit.factor)
        read = next((k for k in range(7) if round9(step * 10**k) >= 1), 6) if step else 0
        same = all(q.unit == limit.unit for q in entry.body.values)
        typed = max(len(str(q.value).partition(".")[2]) for q in entry.body.values) if same else 0
        most = max(
            most, min(read, 4) if not same else min(max(typed, 0), read + 1) if typed else read
        )
    return most


def working_of(
    parts: Sequence[tuple[float, Spread]],
    taken: Sequence[Entry[Reading]],
    limit: Limit,
    formula: tuple[str, ...],
) -> tuple[str, ...]:
    unit = CANONICAL[
        limit.dimension
    ]  # the figures below are canonical, whatever unit the limit is written in
    lines = []
    for entry in taken:
        body = entry.body
        tool = body.tool()
        line = f"{tool.code}: {', '.join(body.typed)}"
        if body.deviation_from:
            line += f" from the setting {body.deviation_from.value}"
        if body.no_go:
            line += f", not {', '.join(str(q.value) for q in body.no_go)}"
        if tool.figure("offset"):
            line += f", known offset {tool.offset} {tool.unit} taken off"
        if tool.set_with is not None and tool.set_with.figure("offset"):
            line += (
                f", and {tool.set_with.offset} {tool.set_with.unit} of {tool.set_with.code}, "
                "with which it was set"
            )
        lines.append(line)
    if len(lines) > FEW_LINES:
        tools = ", ".join(dict.fromkeys(entry.body.tool().code for entry in taken))
        lines = [f"{len(lines)} readings with {tools}"]
    lines += [
        line if line[-1:].isalpha() or len(taken) != 2 else f"{line} {unit}" for line in formula
    ]
    counted = [(c, spread) for c, spread in parts if c]
    for c, spread in counted[:FEW_LINES]:
        times = "" if abs(abs(c) - 1) < NEARLY else f"counts {abs(c):.3g} times: "
        lines.append(
            times
            + "   ".join(
                f"{share.name} {share.u:.4f}" for share in (*spread.own, *spread.setting) if share.u
            )
        )
    chains: dict[str, float] = {}
    for c, spread in counted:
        chains[spread.chain] = chains.get(spread.chain, 0.0) + c
    zero = counted[0][1].zero.u if counted else 0.0
    if len(counted) > 1 and len(chains) == 1 and abs(next(iter(chains.values()))) < NEARLY:
        lines.append(f"zero error {zero:.4f} is shared by all readings (one setting): it cancels")
        if counted[0][1].setting and len({spread.setting_chain for _, spread in counted}) == 1:
            lines.append("so does what the gauge was set with")
    elif any(spread.zero.u for _, spread in counted):
        lines.append(
            "   ".join(f"zero error {spread.zero.u:.4f}" for _, spread in counted[:FEW_LINES])
            + ": not shared, it counts"
        )
    u_c, k, big_u = combine(parts)
    lines.append(f"u = {u_c:.4f}, k = {k:.2f}, U = {big_u:.4f} {unit}")
    return tuple(lines)
