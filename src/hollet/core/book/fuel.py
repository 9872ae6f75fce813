"""What is in the tank: which fuel, since when, what nose and jar say of it, and whether a pump may
see it.

Rules of thumb, always marked assumed: petrol keeps about half a year, stored full and stabilised a
year, diesel a year; a sour or varnish smell, water, layers or rust in a jar on white paper say more
than any date.
"""

from datetime import date
from typing import Literal

from pydantic import computed_field

from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.entries import BookState, Done, Entry, FluidMoved, FuelTold
from hollet.core.entries.status import plan_of
from hollet.core.procedure.closings import fills_of
from hollet.core.procedure.words import RUNGS
from hollet.core.view import View

__all__ = ["Tank", "fuel_items", "fuel_shuts", "tank_of"]

KEEPS_DAYS = {"petrol": 180, "diesel": 365, "other": 180}
STORED_DAYS = 365
"""How long a fuel keeps, and one that was put in to be stored: rules of thumb."""


class Tank(View):
    """What is in it as it was told last, the verdict and why; `told` is nothing where nobody has
    said anything since fuel was moved.
    """

    told: FuelTold | None
    verdict: Literal["not told", "sound", "old", "wrong", "not known"]
    words: str

    @computed_field
    @property
    def shuts(self) -> bool:
        """Whether it comes out, or is looked at, before a pump sees it."""
        return self.verdict in ("wrong", "not known")


def tank_of(state: BookState, today: date) -> Tank:
    """What is in the tank, judged on that day."""
    told = state.newest(FuelTold, "fluid", "fuel")
    struck = state.struck_of(FuelTold, "fluid", "fuel")
    if any(told is None or e.seq > told.seq for e in struck):
        words = "what was told last was struck: say what is in the tank"
        return Tank(told=told and told.body, verdict="not known", words=words)
    if told is None:
        return Tank(told=None, verdict="not told", words="")
    moved = [e for e in state.each(FluidMoved, "fluid", "fuel") if e.seq > told.seq]
    if moved:
        way = "came out" if moved[-1].body.way == "out" else "was poured on"
        words = f"fuel {way} since it was told: say what is in the tank now"
        return Tank(told=told.body, verdict="not known", words=words)
    if any(done > told.seq for done in (*_by_steps(state, drains=True), *_by_steps(state))):
        words = "a step drained or filled it since it was told: say what is in the tank now"
        return Tank(told=told.body, verdict="not known", words=words)
    mixed = _mixed(state, told)
    if mixed:
        return Tank(told=told.body, verdict="wrong", words=mixed)
    return _judged(told.body, today)


def fuel_items(state: BookState) -> list[OpenItem]:
    """Fuel that must not reach the pump, by the day of the last line of the log."""
    last = next(iter(state.last_lines(50)), None)
    if last is None:
        return []
    tank = tank_of(state, date.fromisoformat(last.time[:10]))
    if not tank.shuts:
        return []
    return [
        open_item(
            id="fuel:tank",
            kind="fuel",
            what=f"Fuel in the tank: {tank.words}",
            blocks="fuel_on",
            undo="out, or looked at, and told again under fluids and leaks",
        )
    ]


def fuel_shuts(state: BookState, rung: str, today: date) -> str | None:
    """Why fuel that has aged since the last line of the log keeps a rung shut today."""
    rungs = list(RUNGS)
    if rungs.index(rung) < rungs.index("fuel_on"):
        return None
    tank = tank_of(state, today)
    return f"Fuel in the tank: {tank.words}" if tank.shuts else None


def _by_steps(state: BookState, *, drains: bool = False) -> list[int]:
    """The lines with which steps of the plan filled the tank, or drained it."""
    plan = plan_of(state)
    steps = [
        step
        for fluid in plan.fluid
        if fluid.kind == "fuel"
        for step in (
            [s for s in plan.step if fluid.id in s.drains] if drains else fills_of(plan, fluid)
        )
    ]
    return [e.seq for step in steps for e in state.each(Done, "step", step.id)]


def _mixed(state: BookState, told: Entry[FuelTold]) -> str:
    """Another fuel than the one before, of which nothing came out."""
    before = [e for e in state.each(FuelTold, "fluid", "fuel") if e.seq < told.seq]
    other = next((e for e in reversed(before) if e.body.fuel != told.body.fuel), None)
    if other is None:
        return ""
    out = (
        e.body.way == "out"
        for e in state.each(FluidMoved, "fluid", "fuel")
        if other.seq < e.seq < told.seq
    )
    drained = _by_steps(state, drains=True)
    if any(out) or any(other.seq < done < told.seq for done in drained):
        return ""
    return (
        f"{told.body.fuel} where {other.body.fuel} was, and nothing came out: out with both, "
        "then line and filter"
    )


def _judged(told: FuelTold, today: date) -> Tank:
    found = [word for word in (told.nose, told.jar) if word in ("sour", "water", "layers", "rust")]
    if found:
        words = f"{' and '.join(found)}: it comes out before a pump sees it, the filter with it"
        return Tank(told=told, verdict="wrong", words=words)
    looked = told.nose == "fresh" and told.jar == "clear"
    if not told.since:
        known = "of unknown age, smells fresh and is clear" if looked else ""
        words = known or "of unknown age: smell it, and look at a jar of it on white paper"
        return Tank(told=told, verdict="old" if looked else "not known", words=words)
    age = (today - date.fromisoformat(told.since)).days
    keeps = max(KEEPS_DAYS[told.fuel], STORED_DAYS if told.storage else 0)
    stored = " put in to be stored" if told.storage else ""
    if age <= keeps:
        words = f"{told.fuel}{stored}, {age} days old"
        return Tank(told=told, verdict="sound", words=words)
    since = f"{told.fuel}{stored}, {age} days old, keeps about {keeps} (assumed)"
    if looked:
        words = f"{since}; it smells fresh and is clear"
        return Tank(told=told, verdict="old", words=words)
    words = f"{since}: smell it, and look at a jar of it on white paper, or let it out"
    return Tank(told=told, verdict="not known", words=words)
