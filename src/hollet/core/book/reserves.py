"""How likely a part is needed that may be bought ahead, from the readings that bear on it."""

import math
import re

from hollet.core.buying import chance_by_readings
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.errors import NotFound, Refused
from hollet.core.quantities.parse import parse
from hollet.core.steps.results import results_of

__all__ = ["chance_beyond"]


def _above(value: float, edge: float, spread: float) -> float:
    """The chance that the true value lies above an edge: normal, with half the expanded
    uncertainty as its deviation; certain where the tool's spread is nothing.
    """
    if spread <= 0:
        return 1.0 if value > edge else 0.0
    return 0.5 * (1 + math.erf((value - edge) / (spread / 2) / math.sqrt(2)))


def chance_beyond(state: BookState, limit_id: str, beyond: str) -> tuple[float, tuple[str, ...]]:
    """The chance (0 to 1) that any figure judged by a limit lies beyond (`over 2.4`, `under 1.1`),
    with its working: what was read by its own uncertainty, what is not read by the share of those
    beyond so far (rule of succession).

    Raises
    ------
    NotFound
        No such limit.
    Refused
        `bad_edge` for no figure; `nothing_read` where no reading bears on it.
    """
    limit = plan_of(state).find_limit(limit_id)
    if limit is None:
        raise NotFound("limit", limit_id)
    found = re.fullmatch(r"\s*(over|above|under|below)?\s*(.+?)\s*", beyond, re.IGNORECASE)
    figure = parse(found[2], limit.dimension, limit.unit) if found is not None else None
    if found is None or figure is None or figure.nominal is None:
        words = f"beyond which figure is it needed? Such as over 2.4 {limit.unit}"
        raise Refused("bad_edge", words, field="beyond")
    edge, under = float(figure.nominal), (found[1] or "").casefold() in ("under", "below")
    said: list[float] = []
    unread = 0
    for step in plan_of(state).step:
        for result in results_of(state, step):
            if result.limit.id != limit.id:
                continue
            value, spread = result.judgement.value, result.judgement.U
            if value is None or spread is None:
                unread += 1
                continue
            above = _above(value, edge, spread)
            said.append(1 - above if under else above)
    if not said:
        words = f"nothing was read of {limit.name} yet: press hardly, perhaps or likely"
        raise Refused("nothing_read", words, field="limit")
    share = chance_by_readings(round(sum(said)), len(said))
    none_of_read = math.prod(1 - chance for chance in said)
    chance = 1 - none_of_read * (1 - share) ** unread
    side = "under" if under else "over"
    lines = [f"{len(said)} read, {round(sum(said))} of them {side} {found[2]}"]
    if unread:
        lines.append(f"{unread} not read yet: each {share:.2f} by the share so far")
    lines.append(f"chance that any is {side}: {chance:.2f}")
    return chance, tuple(lines)
