"""Shims of valves at their step: which goes where, in which order a hand does it, and whether the
lash came out as it was promised.
"""

import re
from collections.abc import Sequence

from pydantic import computed_field

from hollet.core.entries import BookState, Entry, Reading, ShimMove, ShimsChanged, ShimsRead
from hollet.core.errors import Refused
from hollet.core.fitting.valve_shims import (
    QUANTA,
    NewSizes,
    Place,
    Reshuffle,
    ValveNow,
    place_shims,
    reshuffle_shims,
)
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds import BaseStep
from hollet.core.procedure.packs import ShimmedValves
from hollet.core.procedure.results import ResultSpec
from hollet.core.quantities.quantity import (
    Quantities,
    Quantity,
    canonical,
    decimal_text,
    round9,
)
from hollet.core.steps.readings import latest, reading_mean, spread_of
from hollet.core.steps.results import ResultFacts, result_of
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["SwapRow", "ValveShims", "moves_of", "shims_now", "valve_shims"]


OWN = "its own"


class SwapRow(View):
    """One valve: lash and shim as they are, the shim that goes in, where it comes from, and the
    lash promised; after it was read again, what it became.
    """

    number: int
    name: str
    reading: str
    lash: str
    verdict: str
    side: str | None
    shim: str
    source: str
    new: str
    promised: str
    became: str | None
    kept: bool | None

    @computed_field
    @property
    def moves(self) -> bool:
        """Whether its shim is another one afterwards."""
        return self.source not in ("", OWN)


class ValveShims(View):
    """The whole table, the moves in their order, what has to be bought; `refusal` says why there is
    none.
    """

    name: str
    rows: tuple[SwapRow, ...]
    moves: tuple[str, ...]
    buy: tuple[str, ...]
    outside: int
    refusal: str | None
    read: bool
    shims: tuple[str, ...]
    spares: tuple[str, ...]
    sizes: tuple[str, ...]
    measured_with: str | None
    changed: bool

    @computed_field
    @property
    def title(self) -> str:
        """What is so, in one line."""
        if self.changed:
            missing = sum(row.became is None for row in self.rows if row.moves)
            if missing:
                return f"Changed: {counted(missing, 'valve')} to read again"
            wrong = [row.name for row in self.rows if row.kept is False]
            if wrong:
                return f"{wrong[0]} is not what was promised: is it the shim that was meant?"
            return "Every lash came out as promised"
        if not self.read:
            return f"{self.name}: how thick are they?"
        if self.refusal is not None:
            return self.name
        if not self.moves:
            return "Every shim stays where it is"
        new = f"{counted(len(self.buy), 'new shim')}" if self.buy else "no new shim"
        moved = sum(row.moves for row in self.rows)
        return f"{counted(moved, 'valve')} to change about, {new}"


def shims_now(state: BookState, step: BaseStep) -> dict[str, Quantity] | None:
    """The shim that lies in each valve, by its reading: as read, and changed about since."""
    valves = step.shimmed()
    said = state.newest(ShimsRead, "step", step.id)
    if valves is None or said is None or len(said.body.shims) != len(valves.lash):
        return None
    found = {
        name: Quantity(value=shim.value, unit=shim.unit)
        for name, shim in zip(valves.lash, said.body.shims, strict=True)
    }
    for change in state.each(ShimsChanged, "step", step.id):
        if change.seq > said.seq:
            found |= {move.reading: move.new for move in change.body.moves}
    return found


def moves_of(state: BookState, step: BaseStep, tools: Sequence[Instrument]) -> tuple[ShimMove, ...]:
    """The valves whose shim is changed by the table as it stands; raises what `reshuffle_shims`
    refuses.
    """
    table = valve_shims(state, step, tools)
    if table is not None and table.changed:
        words = "they are changed already: read every valve that was changed once more"
        raise Refused("already_done", words, field="step")
    if table is None or table.refusal is not None or not table.read:
        refusal = table.refusal if table is not None else None
        raise Refused("no_table", refusal or "say first how thick the shims are", field="step")
    by_reading = _by_reading(step)
    now = shims_now(state, step) or {}
    return tuple(
        ShimMove(
            reading=row.reading,
            result=by_reading[row.reading].id,
            name=row.name,
            source=row.source,
            old=now[row.reading],
            new=Quantity(value=row.new, unit="mm"),
            promised=Quantity(value=row.promised, unit="mm"),
        )
        for row in table.rows
        if row.moves
    )


def valve_shims(state: BookState, step: BaseStep, tools: Sequence[Instrument]) -> ValveShims | None:
    """The table of a step, or None where no shims are changed at it."""
    valves = step.shimmed()
    if valves is None:
        return None
    said = state.newest(ShimsRead, "step", step.id)
    change = state.newest(ShimsChanged, "step", step.id)
    if change is not None and (said is None or said.seq < change.seq):
        reread = _after_change(state, step, valves, change, tools)
        if reread is not None:
            return _with_words(valves, said, reread, changed=True)
    now, specs = shims_now(state, step), _by_reading(step)
    facts = [result_of(state, step, specs[name], tools) for name in valves.lash]
    rows = [_row(k, valves.lash[k], specs, f, now) for k, f in enumerate(facts)]
    if now is None:
        return _with_words(valves, said, rows)
    try:
        return _solved(state, valves, said, rows, facts, now)
    except Refused as refusal:
        names = {str(row.number): row.name for row in rows}
        words = re.sub(r"^valve (\d+)", lambda m: names.get(m[1], m[0]), refusal.message)
        if refusal.reason_code == "no_size_in_grid":
            widest = max(facts, key=lambda f: f.judgement.U or 0.0).judgement
            words += (
                f" for sure, with ±{widest.U_text} of the lash: two leaves closer to each other "
                "leave more room"
            )
        return _with_words(valves, said, rows, refusal=words)


def _by_reading(step: BaseStep) -> dict[str, ResultSpec]:
    """The results that judge one reading by itself, by that reading."""
    return {r.reading: r for r in step.results() if r.reading}


def _with_words(
    valves: ShimmedValves,
    said: Entry[ShimsRead] | None,
    rows: Sequence[SwapRow],
    *,
    refusal: str | None = None,
    changed: bool = False,
    moves: tuple[str, ...] = (),
    buy: tuple[str, ...] = (),
    outside: int = 0,
) -> ValveShims:
    return ValveShims(
        name=valves.name,
        rows=tuple(rows),
        moves=moves,
        buy=buy,
        outside=outside,
        refusal=refusal,
        read=said is not None,
        shims=tuple(m.shown() for m in said.body.shims) if said else (),
        spares=tuple(m.shown() for m in said.body.spares) if said else (),
        sizes=tuple(m.shown() for m in said.body.sizes) if said else (),
        measured_with=said.body.instrument.code if said and said.body.instrument else None,
        changed=changed,
    )


def _row(
    k: int,
    reading: str,
    specs: dict[str, ResultSpec],
    facts: ResultFacts,
    now: dict[str, Quantity] | None,
) -> SwapRow:
    return SwapRow(
        number=k + 1,
        name=specs[reading].name,
        reading=reading,
        lash=facts.judgement.value_text,
        verdict=facts.judgement.verdict,
        side=facts.judgement.side,
        shim=_mm(now[reading]) if now else "",
        source="",
        new="",
        promised="",
        became=None,
        kept=None,
    )


def _mm(figure: Quantity) -> str:
    return _plain(canonical(figure, "length", "shim"))


def _plain(mm: float) -> str:
    """A thickness with hundredths at least, as shims are marked."""
    text = decimal_text(round9(mm))
    return decimal_text(round9(mm), 2) if len(text.partition(".")[2]) < 2 else text


def _solved(
    state: BookState,
    valves: ShimmedValves,
    said: Entry[ShimsRead] | None,
    rows: Sequence[SwapRow],
    facts: Sequence[ResultFacts],
    now: dict[str, Quantity],
) -> ValveShims:
    """The exact choice, with limits drawn in by the uncertainty of each lash."""
    assert said is not None
    first, last, step = (Quantity(value=m.value, unit=m.unit) for m in said.body.sizes)
    spares = [
        canonical(Quantity(value=m.value, unit=m.unit), "length", "spares")
        for m in said.body.spares
    ]
    asked = Reshuffle(
        valves=tuple(_now(state, valves.lash[k], f, now) for k, f in enumerate(facts)),
        spare_shims=Quantities(value=list(spares), unit="mm"),
        new_sizes=NewSizes(**{"from": first, "to": last, "step": step}),
    )
    places, found = place_shims(asked), reshuffle_shims(asked)
    names = {str(row.number): row.name for row in rows}
    return _with_words(
        valves,
        said,
        [_placed(row, place, names) for row, place in zip(rows, places, strict=True)],
        moves=tuple(NUMBERS.sub(lambda m: names.get(m[0], m[0]), line) for line in found.moves),
        buy=tuple(f"{_plain(float(str(v)))} mm" for v in found.buy.value),
        outside=int(float(str(found.out_of_limits_before.value))),
    )


NUMBERS = re.compile(r"\b\d+\b")
"""The numbers of valves in the words of a move."""


def _placed(row: SwapRow, place: Place, names: dict[str, str]) -> SwapRow:
    """A row with what the choice says of it."""
    source = NUMBERS.sub(
        lambda m: names.get(m[0], m[0]), place.source.replace("from valve", "from")
    )
    return row.model_copy(
        update={
            "source": source,
            "new": _plain(place.size / QUANTA),
            "promised": _plain(place.lash / QUANTA),
        }
    )


def _now(state: BookState, reading: str, facts: ResultFacts, now: dict[str, Quantity]) -> ValveNow:
    judged, entry = facts.judgement, latest(state, reading)
    if facts.held is not None:
        raise Refused("not_complete", f"{facts.name}: {facts.held}", field=reading)
    if entry is not None and judged.U is not None and spread_of(entry).bound:
        words = f"{facts.name}: one leaf alone is the lower end, say also which does not go in"
        raise Refused("not_complete", words, field=reading)
    if judged.value is None or judged.U is None:
        raise Refused("not_complete", f"{facts.name}: read its lash first", field=reading)
    if judged.lo is None or judged.hi is None:
        words = f"{facts.limit.name}: both ends of its limit are asked for"
        raise Refused("no_limit", words, field=reading)
    low, high = judged.lo + judged.U, judged.hi - judged.U
    if low > high:
        words = (
            f"{facts.name}: ±{judged.U_text} leaves nothing of {facts.limit.words()}: a finer "
            "leaf, one that goes in and the next that does not"
        )
        raise Refused("window_empty", words, field=reading)
    mm = {"lash": judged.value, "lower_limit": low, "upper_limit": high}
    return ValveNow(
        shim=now[reading], **{name: Quantity(value=v, unit="mm") for name, v in mm.items()}
    )


def _after_change(
    state: BookState,
    step: BaseStep,
    valves: ShimmedValves,
    change: Entry[ShimsChanged],
    tools: Sequence[Instrument],
) -> tuple[SwapRow, ...] | None:
    """The table as it was done, with what each lash became; None once another round is asked for:
    every valve read again, and one of them outside.
    """
    moved = {move.reading: move for move in change.body.moves}
    specs = _by_reading(step)
    rows, all_read, bad = [], True, False
    for k, reading in enumerate(valves.lash):
        facts, entry = result_of(state, step, specs[reading], tools), latest(state, reading)
        move = moved.get(reading)
        again = entry is not None and entry.seq > change.seq
        all_read &= move is None or again
        bad |= facts.judgement.verdict != "inside"
        rows.append(_became(k, specs[reading].name, facts, move, entry if again else None))
    return None if all_read and bad and not _surprise(rows) else tuple(rows)


def _surprise(rows: Sequence[SwapRow]) -> bool:
    return any(row.kept is False for row in rows)


def _became(
    k: int, name: str, facts: ResultFacts, move: ShimMove | None, entry: Entry[Reading] | None
) -> SwapRow:
    became, kept = None, None
    if move is not None and entry is not None:
        lash, promised = reading_mean(entry), canonical(move.promised, "length", "promised")
        became = facts.judgement.value_text
        kept = abs(lash - promised) <= 2 * (facts.judgement.U or 0.0) + 1e-9
    return SwapRow(
        number=k + 1,
        name=name,
        reading=move.reading if move else "",
        lash=facts.judgement.value_text,
        verdict=facts.judgement.verdict,
        side=facts.judgement.side,
        shim=_mm(move.old) if move else "",
        source=move.source if move else OWN,
        new=_mm(move.new) if move else "",
        promised=_mm(move.promised) if move else "",
        became=became,
        kept=kept,
    )
