"""The shims that lie in a gap: how much they take off it, how sure their thickness is, and what
keeps the result from being judged.

A measured shim has the spread of its tool. One taken as printed has half of its last printed digit
at least, and whatever is judged with it is assumed.
"""

from collections.abc import Sequence
from math import hypot
from typing import NamedTuple

from hollet.core.entries import BookState, Entry, KitPiece, KitSaid, PackPut
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, Share, Spread, combine, reading_share
from hollet.core.procedure.packs import Pack
from hollet.core.quantities.quantity import canonical, decimal_text, round9
from hollet.core.steps.proof import in_doubt
from hollet.core.steps.readings import latest, reading_mean, spread_of
from hollet.core.verdicts import rectangular

__all__ = ["Lying", "lying", "pack_put", "spread_of_piece", "tried"]


PRINTED = "thickness as printed"


class Lying(NamedTuple):
    """What lies in: its parts of the sum (how often, with which spread), whether a thickness is
    only printed, the words of the sum; and what holds the verdict.
    """

    total: float
    parts: tuple[tuple[float, Spread], ...]
    printed: bool
    words: tuple[str, ...]
    held: str | None = None
    chooses: bool = False


def pack_put(state: BookState, step: str, pack: Pack) -> Entry[PackPut] | None:
    """What was put in last."""
    return state.newest(PackPut, "pack", f"{step}/{pack.id}")


def spread_of_piece(piece: KitPiece, tool: Instrument | None) -> Spread:
    """What is known of the thickness of one shim, in mm."""
    value = canonical(piece.thickness, "length", "thickness")
    if tool is not None:
        try:
            return reading_share(tool, [value])
        except Refused:  # a tool whose repeatability nobody knows proves no more than the print
            tool = None
    half = canonical(piece.last, "length", "last") / 2
    share = Share(PRINTED, rectangular(half))
    return Spread(value, (share,), Share("zero error", 0.0), f"shim {piece.typed}")


def tried(pieces: Sequence[KitPiece], tool: Instrument | None) -> Lying:
    """What these pieces would take off the gap."""
    parts, printed = [], False
    for piece in pieces:
        spread = spread_of_piece(piece, tool)
        printed |= spread.own[0].name == PRINTED
        if piece.count:
            parts.append((-float(piece.count), spread))
    total = -sum(c * spread.value for c, spread in parts)
    sizes = " + ".join(p.typed for p in pieces for _ in range(p.count))
    as_ = "as printed, assumed" if printed else f"with {tool.code}" if tool else ""
    words = (f"less {sizes} of shims, {as_}",) if parts else ("no shim in it",)
    return Lying(total, tuple(parts), printed and bool(parts), words)


def lying(
    state: BookState,
    step: str,
    pack: Pack,
    readings: Sequence[str],
    bare_too_small: bool,
    tools: Sequence[Instrument],
) -> Lying:
    """What lies in the gap whose readings are these; held where nobody said so since they were
    taken, or where the reading with the pack in shows another one.
    """
    put = pack_put(state, step, pack)
    if put is None:
        held = None if bare_too_small else "not judged: nobody has said which shims lie in it"
        return Lying(0.0, (), False, (), held, chooses=not bare_too_small)
    found = tried(put.body.pieces, put.body.instrument)
    if put.body.readings != tuple(readings):
        held = "read anew since the shims went in: say again which lie in it"
        return found._replace(held=held, chooses=True)
    kits = (e for e in state.each(KitSaid, "pack", f"{step}/{pack.id}") if e.seq < put.seq)
    kit = max(kits, key=lambda e: e.seq, default=None)
    doubt = in_doubt(kit, put.body.instrument, tools) if kit is not None else None
    if doubt is not None:
        return found._replace(held=f"tool in doubt: {doubt}, and the shims were measured with it")
    return found._replace(held=_not_shown(state, pack, put, found))


def _not_shown(state: BookState, pack: Pack, put: Entry[PackPut], found: Lying) -> str | None:
    """What the reading with the pack in says against it."""
    if pack.check is None:
        return None
    again, first = latest(state, pack.check.reading), latest(state, pack.check.of)
    if again is None or again.seq < put.seq:
        return "not judged: read it once more with these shims in"
    if first is None:
        return None
    wanted = reading_mean(first) - found.total
    apart = reading_mean(again) - wanted
    parts = [(1.0, spread_of(first)), *found.parts]
    most = hypot(combine([(1.0, spread_of(again))])[2], combine(parts)[2])
    if round9(abs(apart)) <= round9(most):
        return None
    return (
        f"with the shims in it reads {decimal_text(round9(reading_mean(again)), 3)}, and by them "
        f"it must read {decimal_text(round9(wanted), 3)}: are these the shims that lie in it?"
    )
