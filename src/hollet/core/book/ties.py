"""The register of ties: every wire, hose, cable, line and rod that was parted, where it is tucked,
how its end is known, whether it is back and whether that is proven.
"""

from collections.abc import Iterator, Sequence
from typing import Literal

from pydantic import computed_field

from hollet.core.book.captures import captures_of
from hollet.core.book.last_look import is_after, last_look
from hollet.core.book.ledger import temporary_items
from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.book.removals import back_steps
from hollet.core.entries import BookState, Done, Entry, Line, TieProven, TieTold
from hollet.core.entries.status import SETTLED, last_as, plan_of, status_of
from hollet.core.procedure.pieces import Opens
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import TieKind
from hollet.core.view import View

__all__ = ["LINES", "TieRow", "find_tie", "tie_items", "ties"]

TieState = Literal["off", "back", "proven", "wrong"]
LINES: frozenset[TieKind] = frozenset(
    (
        "battery",
        "fuel",
        "clutch",
        "throttle",
        "cruise",
        "servo_hose",
        "loom",
        "earths",
        "starter_lead",
        "steering_pump",
        "aircon",
        "speed_drive",
    )
)
"""Ties that are wires, hoses, cables, lines or rods: an end that can be put on the wrong way."""


class TieRow(View):
    """One line. `kept` is what was kept as found where it was parted; `at_id` is the step that
    connects it. Where it may be taken for another (`alike`), a pull proves its seat and not its
    place.
    """

    item: str
    what: str
    step: str | None
    number: str
    state: TieState
    tucked: str
    label: str
    alike: str
    route: str
    hangs: bool
    kept: tuple[str, ...]
    at_id: str | None
    at_words: str
    proof: str
    blocks: str
    who: str

    @computed_field
    @property
    def words(self) -> str:
        """How it stands, in words."""
        if self.state == "off":
            return (
                f"off, connected at {self.at_words}" if self.at_words else "off, no step puts it on"
            )
        if self.state == "back":
            return "back, not proven" + (f", looks like {self.alike}" if self.alike else "")
        return self.proof

    @computed_field
    @property
    def unproven(self) -> bool:
        """Whether it is back and nobody has pulled, seen or measured it, or found it wrong."""
        return self.state in ("back", "wrong")


def ties(state: BookState) -> tuple[TieRow, ...]:
    """All lines that were parted, in the order in which they were."""
    return state.remembered(("ties",), state.head, lambda: tuple(_rows(state)))


def find_tie(state: BookState, item: str) -> TieRow | None:
    """The line with this id."""
    return next((row for row in ties(state) if row.item == item), None)


def tie_items(state: BookState) -> list[OpenItem]:
    """Lines that are back in the wrong place or not home, and those that may be taken for another
    and are not proven: each keeps the rung shut that it shut while it was off.
    """
    return [
        open_item(
            id=f"tie:{row.item}",
            kind="tie",
            what=f"{row.what}: {row.words}",
            blocks=row.blocks,
            step=row.at_id,
            step_number=row.number,
            undo="put it right, and prove it in the register of ties",
        )
        for row in ties(state)
        if row.state == "wrong" or (row.state == "back" and row.alike)
    ]


def _rows(state: BookState) -> Iterator[TieRow]:
    plan = plan_of(state)
    told: set[str] = set()
    by_hand = {i.id: plan.find_step(i.clear_at) for i in temporary_items(state)}
    for item, entries in state.names("open"):
        opener = next(
            (e for e in reversed(entries) if item in (o.id for o in e.body.opened())), None
        )
        if opener is None:
            continue
        spec = next(o for o in opener.body.opened() if o.id == item)
        step = plan.find_step(opener.body.at())
        if not _is_line(spec, step):
            continue
        if step is not None:
            told.add(step.id)
        closer = next((s for s in plan.step if item in s.closes), None) or by_hand.get(item)
        shut = entries[-1] if item in entries[-1].body.closed() else None
        yield _row(
            state, item, spec.what, spec.blocks, opener, step, closer, shut, spec.where or ""
        )
    for step in plan.step:
        done = last_as(state, step.id, Done)
        if step.id in told or done is None or not LINES.intersection(step.unties):
            continue
        back = [s for name in back_steps(plan, step) if (s := plan.find_step(name)) is not None]
        on = bool(back) and all(status_of(state, s).status in SETTLED for s in back)
        shut = last_as(state, back[-1].id, Done) if on else None
        closer = back[-1] if back else None
        blocks = blocks_of(plan, closer) if closer is not None else "nothing"
        yield _row(state, f"at-{step.id}", step.title, blocks, done, step, closer, shut, "")


def _is_line(spec: Opens, step: Step | None) -> bool:
    """Whether what is open is the end of a line, or the line itself tied aside."""
    if spec.sort == "disconnected":
        return True
    parts = step is not None and bool(LINES.intersection(step.unties))
    return parts and spec.sort in ("tied", "cap")


def _row(
    state: BookState,
    item: str,
    what: str,
    blocks: str,
    opener: Line,
    step: Step | None,
    closer: Step | None,
    shut: Line | None,
    where: str,
) -> TieRow:
    said = [e.body for e in state.each(TieTold, "tie", item)]
    looked = last_look(state.each(TieProven, "tie", item), state.struck_of(TieProven, "tie", item))
    proof = looked if looked is not None and _counts(looked, shut) else None
    now: TieState = "off" if shut is None else "back"
    words = ""
    if proof is not None:
        now = "proven" if proof.body.right else "wrong"
        found = proof.body.how if proof.body.right else f"{proof.body.how}: NOT right"
        words = f"{found}, {proof.body.words}" if proof.body.words else found
    kept = captures_of(state, step) if step is not None else ()
    return TieRow(
        item=item,
        what=what,
        step=step.id if step is not None else None,
        number=step.number if step is not None else "",
        state=now,
        tucked=_last([where, *(told.tucked for told in said)]),
        label=_last([told.label for told in said]),
        alike=_last([told.alike for told in said]),
        route=_last([told.route for told in said]),
        hangs=next((told.hangs for told in reversed(said) if told.hangs is not None), False),
        kept=tuple(f"{c.what}: {c.words}" for c in kept if c.state in ("kept", "same", "differs")),
        at_id=closer.id if closer is not None else None,
        at_words=f"{closer.number} {closer.title}" if closer is not None else "",
        proof=words,
        blocks=blocks,
        who=(proof or opener).who,
    )


def _counts(looked: Entry[TieProven], shut: Line | None) -> bool:
    """Whether a proof is one of the line as it is now: one that says wrong needs no clock."""
    if shut is None:
        return False
    return is_after(looked, shut) if looked.body.right else looked.seq > shut.seq


def _last(told: Sequence[str]) -> str:
    """What was said last: saying nothing of it takes nothing back."""
    return next((text.strip() for text in reversed(told) if text.strip()), "")
