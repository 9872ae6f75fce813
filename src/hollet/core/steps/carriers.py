"""A carrier between its two packs: the backlash as it is read, and what moving one shim does to it.

What one pack gets the other gives, so that the preload stays. How far the backlash goes with a shim
is a rule of thumb until the first move has taught it (reference: `backlash_shim_move`).
"""

from collections.abc import Sequence
from math import hypot

from pydantic import computed_field

from hollet.core.entries import BookState, CarrierSet, Entry
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.limits import Limit
from hollet.core.measuring.gears import (
    USUAL_FACTOR,
    BacklashShimMove,
    BacklashShimMoveResult,
    backlash_shim_move,
)
from hollet.core.procedure.carriers import Carrier
from hollet.core.procedure.kinds import BaseStep
from hollet.core.quantities.quantity import Quantity, decimal_text, round9
from hollet.core.steps.results import result_of
from hollet.core.view import View

__all__ = ["CarrierFacts", "carrier_of", "packs_of"]

STEP_MM = 0.05
"""Steps in which such shims are usually sold; assumed."""
LEAST_FACTOR, MOST_FACTOR = 0.4, 1.1
"""Between which a learnt factor is believed: gears of 3 to 4 : 1 give 0.69 to 0.86."""
SURE_SHARE = 0.3
"""A factor whose uncertainty is more than this share of it teaches nothing."""
SAME_MM = 0.005


class Round(View):
    """Packs as they lay in, and the backlash that was read with them."""

    near: str
    far: str
    lash: str | None


class CarrierFacts(View):
    """Both packs, the mean backlash (mm) read with them, the factor (backlash over shim) and where
    it comes from, and the move that brings the backlash to the middle; `total_moved` says that the
    preload is another one, `refusal` why no move is given.
    """

    near_name: str
    far_name: str
    near: str | None
    far: str | None
    total: str | None
    measured_with: str | None
    limit: Limit
    lash: float | None
    lash_text: str | None
    verdict: str
    ready: bool
    target_text: str | None
    factor: float
    factor_words: str
    move: float | None
    move_text: str | None
    near_after: str | None
    far_after: str | None
    predicted: str | None
    total_moved: str | None
    refusal: str | None
    rounds: tuple[Round, ...]
    working: tuple[str, ...]

    @computed_field
    @property
    def wants_packs(self) -> bool:
        """Whether nobody has said which packs lie in."""
        return self.near is None

    @computed_field
    @property
    def is_set(self) -> bool:
        """Whether the backlash is inside with the packs that lie in."""
        return self.ready and self.verdict == "inside"

    @computed_field
    @property
    def title(self) -> str:
        """What is so, in one line."""
        if self.wants_packs:
            return "Which packs lie in?"
        if not self.ready:
            return "Shims moved: read the backlash again"
        if self.refusal is not None:
            return self.refusal
        if self.verdict == "inside" or self.move_text is None:
            return f"Backlash {self.lash_text}: inside"
        side = self.near_name if (self.move or 0) > 0 else self.far_name
        return f"Move {_text(abs(self.move or 0))} mm to the {side}"


def packs_of(state: BookState, step: str) -> Entry[CarrierSet] | None:
    """The packs that lie in, as they were said last."""
    return state.newest(CarrierSet, "step", step)


def carrier_of(
    state: BookState, step: BaseStep, tools: Sequence[Instrument]
) -> CarrierFacts | None:
    """The carrier of a step, or None where none is set there."""
    carrier = step.carrier_set()
    if carrier is None:
        return None
    spec = next(spec for spec in step.results() if spec.id == carrier.result)
    facts = result_of(state, step, spec, tools)
    sets = [e for e in state.each(CarrierSet, "step", step.id) if e.body.step == step.id]
    put = sets[-1].body if sets else None
    judged = facts.judgement
    lash = judged.value if facts.readings else None
    ready = put is not None and lash is not None and facts.held is None
    factor, factor_words = _factor(sets, lash if ready else None, judged.U)
    found, refusal = None, None
    if ready and put is not None and lash is not None:
        found, refusal = _move(put, lash, facts.limit, factor)
        if found is not None and not found.move.value:
            exact = _text(float(found.move_exact.value or 0), 3)
            found, near = None, facts.judgement.verdict == "inside"
            words = f"no step of {STEP_MM:g} mm brings it nearer: exactly it is {exact} mm"
            refusal = None if near else words
    return CarrierFacts(
        near_name=carrier.near,
        far_name=carrier.far,
        near=_text(put.near.figure("length")) if put else None,
        far=_text(put.far.figure("length")) if put else None,
        total=_text(_total(put)) if put else None,
        measured_with=put.instrument.code if put and put.instrument else None,
        limit=facts.limit,
        lash=lash,
        lash_text=f"{judged.value_text} {judged.unit}" if lash is not None else None,
        verdict=judged.verdict,
        ready=ready,
        factor=factor,
        factor_words=factor_words,
        total_moved=_total_moved(sets),
        refusal=refusal,
        rounds=_rounds(sets, lash if ready else None),
        **_told(carrier, found, facts.limit),
    )


def _told(
    carrier: Carrier, found: BacklashShimMoveResult | None, limit: Limit
) -> dict[str, str | float | tuple[str, ...] | None]:
    """The move in words: from which side to which, and what to expect."""
    target = _target(limit)
    told: dict[str, str | float | tuple[str, ...] | None] = dict.fromkeys(
        ("move", "move_text", "near_after", "far_after", "predicted")
    )
    told["target_text"] = f"{_text(target)} mm" if target is not None else None
    told["working"] = ()
    if found is not None:
        move = float(found.move.value or 0)
        out, to = (carrier.far, carrier.near) if move > 0 else (carrier.near, carrier.far)
        told |= {
            "move": move,
            "move_text": f"{_text(abs(move))} mm from the {out} to the {to}" if move else None,
            "near_after": _text(float(found.pack_pinion_side.value or 0)),
            "far_after": _text(float(found.pack_far_side.value or 0)),
            "predicted": f"{_text(float(found.predicted_backlash.value or 0), 3)} mm",
            "working": found.working,
        }
    return told


def _text(value: float, digits: int = 2) -> str:
    """A length in mm, as finely as it is known."""
    fine = decimal_text(round9(value), 4)
    shown = fine.rstrip("0").split(".")[-1] if "." in fine else ""
    return decimal_text(round9(value), max(digits, len(shown)))


def _total(put: CarrierSet) -> float:
    return put.near.figure("length") + put.far.figure("length")


def _target(limit: Limit) -> float | None:
    """What the backlash is brought to: the figure that is aimed at, else the middle."""
    lo, hi, target = (limit.figure(name) for name in ("lo", "hi", "target"))
    if target is not None:
        return target
    return (lo + hi) / 2 if lo is not None and hi is not None else None


def _move(
    put: CarrierSet, lash: float, limit: Limit, factor: float
) -> tuple[BacklashShimMoveResult | None, str | None]:
    """The move to the middle, or why there is none."""
    target = _target(limit)
    if target is None:
        return None, f"{limit.name}: no figure is given to set it by"
    figures = {
        "backlash": lash,
        "target": target,
        "pack_pinion_side": put.near.figure("length"),
        "pack_far_side": put.far.figure("length"),
        "shim_step": STEP_MM,
    }
    mm = {name: Quantity(value=value, unit="mm") for name, value in figures.items()}
    try:
        asked = BacklashShimMove(**mm, factor=Quantity(value=factor, unit="1"))
        return backlash_shim_move(asked), None
    except Refused as refusal:
        return None, refusal.message


def _factor(
    sets: Sequence[Entry[CarrierSet]], lash: float | None, u: float | None
) -> tuple[float, str]:
    """The factor that the last move has taught, else the usual one; and where it comes from."""
    usual = float(USUAL_FACTOR.value or 0)
    words = f"{usual:g}, rule of thumb: the first move teaches it"
    if len(sets) < 2:
        return usual, words
    before, move = sets[-1].body.before, _near(sets[-1]) - _near(sets[-2])
    if lash is None or before is None or u is None or not round9(move):
        return usual, words
    found = (lash - float(before.value or 0)) / move
    if hypot(u, u) > SURE_SHARE * abs(found * move):
        return usual, f"{usual:g}, rule of thumb: the last move was too small to teach it"
    if not LEAST_FACTOR <= found <= MOST_FACTOR:
        return usual, (
            f"{usual:g}, rule of thumb. By the last move it would be {found:.2f}, which no such "
            "gear has: measure both packs and read the backlash again"
        )
    return found, f"{found:.2f}, learnt from the last move"


def _near(entry: Entry[CarrierSet]) -> float:
    return entry.body.near.figure("length")


def _total_moved(sets: Sequence[Entry[CarrierSet]]) -> str | None:
    """That both packs together are another thickness than at first: the preload is another one."""
    if len(sets) < 2:
        return None
    more = round9(_total(sets[-1].body) - _total(sets[-2].body))
    if abs(more) < SAME_MM:
        return None
    way = "thicker" if more > 0 else "thinner"
    return f"both packs together are {_text(abs(more))} mm {way} than before: another preload"


def _rounds(sets: Sequence[Entry[CarrierSet]], lash: float | None) -> tuple[Round, ...]:
    """Every pair of packs, with what was read with it: what the next one was said by."""
    read = [e.body.before for e in sets[1:]]
    texts = [_text(float(q.value or 0), 3) if q is not None else None for q in read]
    texts.append(_text(lash, 3) if lash is not None else None)
    return tuple(
        Round(
            near=_text(e.body.near.figure("length")),
            far=_text(e.body.far.figure("length")),
            lash=text,
        )
        for e, text in zip(sets, texts, strict=bool(sets))
    )
