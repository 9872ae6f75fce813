"""Which shims bring a gap inside: every sum of the kit in the drawer, judged like the result
itself, and the one that the exact choice takes.
"""

from collections import Counter
from collections.abc import Sequence
from math import floor
from typing import Literal

from pydantic import computed_field

from hollet.core.entries import BookState, Entry, KitPiece, KitSaid, PackPut, Reading
from hollet.core.errors import Refused
from hollet.core.fitting.kits import sums_of
from hollet.core.fitting.shims import QUANTA, ChooseShims, ShimOf, choose_shims
from hollet.core.instruments import Instrument
from hollet.core.limits import Judgement, Limit
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.packs import Pack
from hollet.core.procedure.results import ResultSpec
from hollet.core.quantities.quantity import Quantities, Quantity, canonical, decimal_text
from hollet.core.steps.packs import pack_put, tried
from hollet.core.steps.readings import latest, spread_of
from hollet.core.steps.results import ResultFacts, result_of, result_with
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["PackChoice", "SumRow", "pack_choices", "pieces_of"]

MOST_ROWS = 10


class SumRow(View):
    """One sum of the kit: its pieces, thickest first, and the gap with them in."""

    total: float
    total_text: str
    pieces: tuple[str, ...]
    words: str
    judgement: Judgement
    best: bool
    lies_in: bool


class PackChoice(View):
    """The choice of one pack: the gap without it, the kit, the sums, and what is proposed;
    `refusal` says why nothing is, `outdated` what was done to the chain since it was measured.
    """

    id: str
    name: str
    result: str
    sketch: Literal["bell", "plain"]
    labels: tuple[str, str]
    limit: Limit
    bare: Judgement | None
    kit: tuple[KitPiece, ...]
    kit_words: str
    measured_with: str | None
    rows: tuple[SumRow, ...]
    more: int
    best: SumRow | None
    refusal: str | None
    one_more: str
    put: tuple[KitPiece, ...]
    put_words: str | None
    chooses: bool
    outdated: tuple[str, ...]
    check: str | None

    @computed_field
    @property
    def title(self) -> str:
        """What is so, in one line."""
        if self.put_words is not None and not self.chooses:
            return f"{self.name}: {self.put_words}"
        if self.wants_kit:
            return f"{self.name}: what lies in the drawer?"
        if self.best is None:
            return "No sum of your shims is inside" if self.rows else self.name
        pieces = " and ".join(self.best.pieces)
        if self.best.judgement.verdict != "inside":
            return f"{pieces or 'No shim'} by the sum, and not proven yet"
        if not pieces:
            return f"{self.limit.name}: inside without a shim"
        return f"{pieces} {'bring' if len(self.best.pieces) > 1 else 'brings'} it in"

    @computed_field
    @property
    def line(self) -> str:
        """Its limit, and how many sums the drawer makes."""
        sums = len(self.rows) + self.more
        source = self.limit.source or "assumed"
        made = f", {counted(sums, 'sum')}" if sums else ""
        return f"{self.limit.name} {self.limit.words()}, {source}{made}"

    @computed_field
    @property
    def wants_kit(self) -> bool:
        """Whether nobody has said what lies in the drawer."""
        return not self.kit


def pack_choices(
    state: BookState, step: BaseStep, tools: Sequence[Instrument]
) -> tuple[PackChoice, ...]:
    """The choices of a step, one a pack."""
    specs = {spec.id: spec for spec in step.results()}
    return tuple(_choice(state, step, pack, specs[pack.result], tools) for pack in step.packs())


def kit_of(state: BookState, step: str, pack: Pack) -> KitSaid | None:
    """What lies in the drawer, as it was said last."""
    said = state.newest(KitSaid, "pack", f"{step}/{pack.id}")
    return said.body if said is not None else None


def pieces_of(kit: KitSaid, stack: Sequence[int]) -> tuple[KitPiece, ...]:
    """The pieces of a kit that a stack of thicknesses (whole tenths of a micrometre) takes."""
    wanted = Counter(stack)
    return tuple(
        piece.model_copy(update={"count": wanted[_quanta(piece)]})
        for piece in kit.pieces
        if wanted[_quanta(piece)]
    )


def _quanta(piece: KitPiece) -> int:
    return round(canonical(piece.thickness, "length", "thickness") * QUANTA)


def _choice(
    state: BookState, step: BaseStep, pack: Pack, spec: ResultSpec, tools: Sequence[Instrument]
) -> PackChoice:
    facts = result_of(state, step, spec, tools)
    kit, put = kit_of(state, step.id, pack), pack_put(state, step.id, pack)
    rows, more = _rows(state, step, pack, spec, kit, tools, facts, put.body if put else None)
    read = [e for name in spec.named() if (e := latest(state, name)) is not None]
    stack, refusal, one_more = _best(read, pack, kit, facts, rows)
    rows = tuple(
        row.model_copy(update={"best": stack is not None and round(row.total * QUANTA) == stack})
        for row in rows
    )
    check = next((r for r in step.readings() if pack.check and r.id == pack.check.reading), None)
    return PackChoice(
        id=pack.id,
        name=pack.name,
        result=pack.result,
        sketch=pack.sketch,
        labels=pack.labels,
        limit=facts.limit,
        bare=facts.bare,
        kit=kit.pieces if kit else (),
        kit_words=_kit_words(kit),
        measured_with=kit.instrument.code if kit and kit.instrument else None,
        rows=rows,
        more=more,
        best=next((row for row in rows if row.best), None),
        refusal=refusal,
        one_more=one_more,
        put=put.body.pieces if put else (),
        put_words=_put_words(put.body, facts) if put else None,
        chooses=facts.chooses,
        outdated=facts.warnings,
        check=check.name if check is not None else None,
    )


def _kit_words(kit: KitSaid | None) -> str:
    if kit is None:
        return "nobody has said what lies in the drawer"
    pieces = sum(piece.count for piece in kit.pieces)
    how = f"measured with {kit.instrument.code}" if kit.instrument else "as printed, assumed"
    return f"{counted(pieces, 'shim')} in the drawer, {how}"


def _put_words(put: PackPut, facts: ResultFacts) -> str:
    sizes = " + ".join(p.typed for p in put.pieces for _ in range(p.count)) or "no shim"
    return f"{sizes} in: {facts.judgement.value_text} {facts.judgement.unit}"


def _rows(
    state: BookState,
    step: BaseStep,
    pack: Pack,
    spec: ResultSpec,
    kit: KitSaid | None,
    tools: Sequence[Instrument],
    facts: ResultFacts,
    put: PackPut | None,
) -> tuple[tuple[SumRow, ...], int]:
    """The sums that come near the slot, at most ten, and how many others there are."""
    bare = facts.bare
    if kit is None or bare is None or bare.value is None or not facts.limit.given:
        return (), 0
    low, high = _window(bare)
    band = max(high - low, 0.001)
    gap = round(bare.value * QUANTA)
    upto = gap - floor((low - band) * QUANTA)
    sums = sums_of({_quanta(p): p.count for p in kit.pieces}, pack.most, max(upto, 0))
    near = [total for total in sums if gap - total <= (high + band) * QUANTA]
    shown = near if len(sums) > MOST_ROWS else list(sums)
    middle = gap - (low + high) / 2 * QUANTA
    kept = sorted(sorted(shown, key=lambda total: abs(total - middle))[:MOST_ROWS])
    lies = round(tried(put.pieces, None).total * QUANTA) if put is not None else None
    rows = []
    for total in kept:
        pieces = pieces_of(kit, sums[total])
        with_it = result_with(state, step, spec, tools, tried(pieces, kit.instrument))
        rows.append(_row(total, pieces, with_it.judgement, lies_in=lies == total))
    return tuple(rows), len(sums) - len(kept)


def _row(total: int, pieces: Sequence[KitPiece], judgement: Judgement, *, lies_in: bool) -> SumRow:
    sizes = tuple(p.typed for p in reversed(pieces) for _ in range(p.count))
    return SumRow(
        total=total / QUANTA,
        total_text=decimal_text(total / QUANTA, 2),
        pieces=sizes,
        words=counted(len(sizes), "pc") if sizes else "none",
        judgement=judgement,
        best=False,
        lies_in=lies_in,
    )


def _window(bare: Judgement) -> tuple[float, float]:
    """The two ends of the slot; a gap without an upper limit may stay as it is, one without a lower
    one may close.
    """
    value = bare.value or 0.0
    low = bare.lo if bare.lo is not None else min(0.0, bare.hi or 0.0)
    high = bare.hi if bare.hi is not None else max(value, low)
    return low, high


def _best(
    read: Sequence[Entry[Reading]],
    pack: Pack,
    kit: KitSaid | None,
    facts: ResultFacts,
    rows: Sequence[SumRow],
) -> tuple[int | None, str | None, str]:
    """The sum that the exact choice takes, or why there is none; and the one more that is too much.

    The uncertainty of the thickest pack that is looked at guards the window, so that what is
    proposed is inside with its own.
    """
    bare = facts.bare
    if kit is None or bare is None or bare.value is None or bare.U is None:
        return None, facts.refusal, ""
    if any(spread_of(e).bound for e in read):
        return None, "one leaf alone is the lower end of a gap: say also which does not go in", ""
    if not facts.limit.given:
        return None, f"{facts.limit.name}: no figure is given to choose by", ""
    low, high = _window(bare)
    spread = max((row.judgement.U or 0.0 for row in rows), default=bare.U)
    mm = {name: Quantity(value=v, unit="mm") for name, v in _figures(bare.value, low, high)}
    try:
        found = choose_shims(
            ChooseShims(
                **mm,
                kit=tuple(ShimOf(thickness=p.thickness, count=p.count) for p in kit.pieces),
                max_stack=pack.most,
                aim=pack.aim,
                U=Quantity(value=spread, unit="mm"),
            )
        )
    except Refused as refusal:
        return None, refusal.message, ""
    shims: Quantities = found.shims
    return round(sum(float(v or 0) for v in shims.value) * QUANTA), None, found.one_more


def _figures(value: float, low: float, high: float) -> tuple[tuple[str, float], ...]:
    return ("gap", value), ("min_gap", low), ("max_gap", high)
