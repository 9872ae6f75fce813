"""What is read off the bolt itself: how much longer it got, at what torque it keeps turning."""

from typing import NamedTuple

from hollet.core.errors import Refused
from hollet.core.instruments import Instrument
from hollet.core.procedure.joints import READ_OFF
from hollet.core.quantities.parse import measured
from hollet.core.quantities.quantity import (
    Measured,
    Quantity,
    canonical,
    decimal_text,
    quantity_of,
    round9,
)
from hollet.core.slips import question, slip_check, slip_input
from hollet.core.steps.wrenches import OFFERS, can_give

__all__ = ["ReadOff", "ReadOffResult", "read_off"]


FAR = 2
"""How often the length that is asked a bolt may have grown by before it is asked about (a bolt that
yields grows, a slip of the finger grows more).
"""


class ReadOff(NamedTuple):
    """One reading off a bolt as typed: of which stage kind, the length while it was free, and what
    is asked; `sure`: it is right as typed.
    """

    kind: str
    typed: str
    free: str | None
    asked: Quantity
    sure: bool


class ReadOffResult(NamedTuple):
    """What the bolt got; its length free and drawn where two were measured."""

    gets: Quantity
    free: Measured | None
    drawn: Quantity | None


def read_off(said: ReadOff, tool: Instrument | None) -> ReadOffResult:
    """What a bolt got, read off it with a tool that can: the torque at which it keeps turning, in
    N·m; or, in mm, its length now less its length while free, or what a dial shows that was set to
    zero on it while it was free.

    Raises
    ------
    Refused
        `wrench_unfit` without such a tool, `free_needed`, `not_longer`, `odd_figure`, `bad_number`
        and what `parse` refuses.
    """
    if tool is None or not can_give(said.kind, tool):
        words = f"{READ_OFF[said.kind]}: choose what it is read with: {OFFERS[said.kind]}"
        raise Refused("wrench_unfit", words, field="wrench")
    shows = _figure(said.typed, tool, "typed")
    if tool.dimension == "torque" or tool.kind == "dial indicator":
        _odd(said, tool, said.typed, said.asked)
        return ReadOffResult(quantity_of(shows.figure(tool.dimension), said.asked.unit), None, None)
    if not (said.free or "").strip():
        words = f"how long was the bolt while it was free? {tool.code} measures it before and after"
        raise Refused("free_needed", words, field="free")
    free = _figure(said.free or "", tool, "free")
    was, now = free.figure("length"), shows.figure("length")
    longer = round9(now - was)
    if longer <= 0:
        words = f"{said.typed} drawn is not longer than {said.free} free: measure both again"
        raise Refused("not_longer", words, field="typed")
    asked = canonical(said.asked, "length", "asked")
    if longer > asked * FAR and not said.sure:
        words = f"{decimal_text(longer)} mm longer, and {decimal_text(asked)} are asked"
        raise Refused("odd_figure", f"{words}: are both lengths right?", field="typed")
    _odd(said, tool, said.typed, quantity_of(was + asked, "mm"))
    return ReadOffResult(quantity_of(longer, "mm"), free, quantity_of(now, "mm"))


def _figure(text: str, tool: Instrument, field: str) -> Measured:
    found = measured(text, tool.dimension, tool.unit, field)
    if found.figure(tool.dimension) <= 0:
        raise Refused("bad_number", f"'{text}' must be a figure above zero", field=field)
    return found


def _odd(said: ReadOff, tool: Instrument, typed: str, expected: Quantity) -> None:
    if said.sure:
        return
    check = slip_input(typed, tool.unit, tool, expected, "asked")
    found = slip_check(check)
    if found.ask and found.slip != "none":
        raise Refused("odd_figure", question(check, found), field="typed")
    shown = canonical(found.read_as, tool.dimension, "typed")
    if not tool.covers(shown):
        words = f"{typed}: {tool.code} gives {tool.lo} to {tool.hi} {tool.unit}. Is it right?"
        raise Refused("odd_figure", words, field="typed")
