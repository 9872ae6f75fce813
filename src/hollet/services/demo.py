"""The demo: a script of entries that goes through the services with an injected clock, never around them.

Harrow Moss rescue post, three light pick-ups of a made-up make. Times count back from the moment it is made.
"""

from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from hollet.core.book.edits import Edit
from hollet.core.errors import Conflict
from hollet.services.builds import bench, cards, make_build
from hollet.services.logging import Sent, write_entry
from hollet.services.tools import edit_tool, presets, set_gauge
from hollet.services.workshop import Workshop, utc_text
from hollet.store.models import ShopRow

__all__ = ["fill_demo", "make_demo"]

EDIT: TypeAdapter[Any] = TypeAdapter(Edit)
TOOLS: tuple[tuple[str, str, str, dict[str, str]], ...] = (
    ("c1", "C1", "digital caliper 150 mm, outside jaws", {}),
    ("m3", "M3", "micrometer 75-100 mm, 0.001", {"mpe": "0.002", "zero_error": "0.002", "checked": "2026-02-10", "source": "certificate"}),
    ("b1", "B1", "bore gauge 50-150 mm, 0.002", {"mpe": "0.003", "setting_s": "0.001", "source": "certificate"}),
    ("f1", "F1", "feeler leaves, 0.05 mm steps", {}),
    ("e1", "E1", "straight edge 500 mm + feeler, 0.01 mm steps", {}),
    ("j1", "J1", "measuring jug 5 L", {}),
    ("w1", "W1", "click torque wrench 40-200 N·m", {}),
    ("w2", "W2", "click torque wrench 20-100 N·m", {}),
    ("w3", "W3", "click torque wrench 5-25 N·m", {}),
    ("w4", "W4", "indicating torque wrench 20-120 N·m", {}),
)
PISTONS = (("83.958", "83.957", "83.958"), ("83.955", "83.956", "83.955"), ("83.960", "83.959", "83.960"), ("83.957", "83.958", "83.957"))
BORES = (("84.006", "84.005", "84.006"), ("0.022 mm", "0.023 mm", "0.022 mm"), ("84.005", "84.005", "84.004"), ("84.003", "84.004", "84.003"))
GAPS = ("0.35", "0.35", "0.40", "0.35")


class DemoClock:
    """A clock that the script turns."""

    def __init__(self, now: datetime) -> None:
        self.now = now

    def __call__(self) -> datetime:
        return self.now


class Script:
    """Writes entries of one build, each a little after the last."""

    def __init__(self, workshop: Workshop, clock: DemoClock, build: str, who: str) -> None:
        self.workshop, self.clock, self.build, self.who = workshop, clock, build, who

    def write(self, minutes: float = 2.0, **edit: Any) -> str:
        """One entry; returns its id."""
        self.clock.now += timedelta(minutes=minutes)
        entry_id = self.workshop.new_id()
        sent = Sent(id=entry_id, who=self.who, bench_time=utc_text(self.clock.now), seen=10**9)
        write_entry(self.workshop, self.build, sent, EDIT.validate_python(edit))
        return entry_id

    def done(self, *steps: str, minutes: float = 12.0) -> None:
        """Steps confirmed where they ask for it, bagged where they have fasteners, and done."""
        for step in steps:
            view = bench(self.workshop, self.build, step)
            if view.caution and view.caution.confirm:
                self.write(kind="confirmed", step=step, what=view.caution.confirm)
            if view.kind == "remove" and view.proposed:
                lines = [line.model_dump() for line in view.proposed]
                self.write(kind="bagged", step=step, bag=view.next_bag, lines=lines, place="tray A")
            self.write(minutes, kind="done", step=step)


def make_demo(folder: Path, now: datetime | None = None) -> None:
    """Make the demo data in an empty folder; its times count back from `now` (UTC)."""
    workshop = Workshop(folder)
    try:
        fill_demo(workshop, now)
    finally:
        workshop.close()


def fill_demo(workshop: Workshop, now: datetime | None = None) -> None:
    """Put the demo into an empty Hollet; refused (`not_empty`) when there are builds already."""
    if cards(workshop):
        raise Conflict("there are builds here already: the demo goes into an empty Hollet only", reason_code="not_empty")
    now, real = now or datetime.now(UTC), workshop.clock
    clock = DemoClock(now - timedelta(days=23))
    workshop.clock = clock
    try:
        with workshop.database.write() as session:
            shop = session.get(ShopRow, 1)
            assert shop is not None
            shop.name, shop.time_zone = "Harrow Moss rescue post", "Europe/London"
        _tools(workshop)
        _engine_of_one(workshop, clock, now)
        clock.now = now - timedelta(hours=30)
        _spare_engine(workshop, clock)
    finally:
        workshop.clock = real


def _tools(workshop: Workshop) -> None:
    known = {preset["name"]: preset for preset in presets()}
    for tool_id, code, name, own in TOOLS:
        edit_tool(workshop, {**known[name], "id": tool_id, "code": code, **own}, who="MK", version=0)


def _engine_of_one(workshop: Workshop, clock: DemoClock, now: datetime) -> None:
    build = make_build(workshop, sheets=["top-end"], name="One: engine, top end", vehicle="One",
                       about="Ostrel Dunlin 2.0, 1991, engine out on the stand", who="MK")  # fmt: skip
    script = Script(workshop, clock, build, "MK")
    for days, steps in _take_down():
        clock.now = (now - timedelta(days=days)).replace(hour=17, minute=40)
        script.done(*steps)
    clock.now = (now - timedelta(days=12)).replace(hour=18, minute=5)
    script.done("faces_seen")
    _measurements(script)
    clock.now = (now - timedelta(days=5)).replace(hour=17, minute=30)
    script.done("parts_here", "holes_dry", "faces_clean", "pistons_in")
    _rods(script)
    clock.now = min((now - timedelta(days=1)).replace(hour=18, minute=0), now - timedelta(hours=5))
    script.done("sump_on", "head_on")
    _head_bolts(script, now)


def _take_down() -> Iterator[tuple[int, tuple[str, ...]]]:
    yield 22, ("limits_read", "tools_laid", "battery_off", "fuel_capped", "fluids_out", "coil_off")
    yield 20, ("inlet_off", "exhaust_off", "chain_held", "rocker_off")
    yield 19, ("head_bolts_out", "head_off", "sump_off", "pistons_out")


def _measurements(script: Script) -> None:
    script.write(kind="reading", step="head_flatness", reading="head_gap", typed=["0.04", "0.05", "0.04"], unit="mm", instrument="e1")
    script.done("head_flatness")
    for number, typed in enumerate(PISTONS, start=1):
        script.write(kind="reading", step="bores", reading=f"piston_{number}", typed=list(typed), unit="mm", instrument="m3", state="clean, 20 °C")
    set_gauge(script.workshop, "b1", "m3", "84.000 mm", who="MK")
    for number, typed in enumerate(BORES, start=1):
        script.write(kind="reading", step="bores", reading=f"bore_{number}", typed=list(typed), unit="mm", instrument="b1", state="clean, 20 °C")
    script.write(6, kind="concession", step="bores", result="clearance_2", name="MK", recheck="at 1000 km",
                 reason="Rescue pick-up, 3000 km a year. New pistons only with a rebore. Look at the oil use at 1000 km.")  # fmt: skip
    script.done("bores")
    for number, gap in enumerate(GAPS, start=1):
        script.write(kind="reading", step="ring_gaps", reading=f"gap_{number}", typed=[gap], unit="mm", instrument="f1")
    script.done("ring_gaps")


def _rods(script: Script) -> None:
    step = "rod_bolts_tight"
    script.write(kind="decision", step=step, about="wrench", wrench="w2")
    for _ in range(16):
        script.write(1, kind="fastener", step=step, bolt=bench(script.workshop, script.build, step).joint.next_bolt, act="clicked")  # type: ignore[union-attr]
    script.done(step)


def _head_bolts(script: Script, now: datetime) -> None:
    """Stage 1 whole; in stage 2 bolt 4 got too much, and bolt 6 is next when the phone rings."""
    step = "head_bolts_tight"
    script.write(kind="decision", step=step, about="wrench", wrench="w2", adapter={"length": 60, "angle": 0})
    for bolt in range(1, 11):
        script.write(1, kind="fastener", step=step, bolt=bolt, act="clicked")
    script.clock.now = now - timedelta(minutes=55)
    for bolt in (1, 2, 3):
        script.write(1, kind="fastener", step=step, bolt=bolt, act="clicked")
    wrong = script.write(1, kind="fastener", step=step, bolt=4, act="clicked")
    script.write(1, kind="strike", entry=wrong, reason="the wrench stood at 50")
    script.write(1, kind="fastener", step=step, bolt=4, act="clicked", typed="50")
    script.clock.now = now - timedelta(minutes=48)
    script.write(1, kind="fastener", step=step, bolt=5, act="clicked")


def _spare_engine(workshop: Workshop, clock: DemoClock) -> None:
    build = make_build(workshop, sheets=["top-end"], name="Spare engine: top end", vehicle="Spare engine",
                       about="Ostrel Dunlin 2.0, on the bench under the window", who="TR")  # fmt: skip
    Script(workshop, clock, build, "TR").done("limits_read")
