"""The demo: a script of entries that goes through the services with an injected clock, never around
them.

Harrow Moss rescue post, three light pick-ups of a made-up make. Times count back from the moment it
is made.
"""

from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from hollet.core.book.order_back import Choices
from hollet.core.errors import Conflict
from hollet.core.procedure.fasteners import read_fasteners
from hollet.services.builds import bench, cards, make_build
from hollet.services.demo_axle import axle_of_two
from hollet.services.demo_fitting import clutch_and_shaft_of_one
from hollet.services.demo_gearbox import DUNLIN, gearbox_of_two
from hollet.services.demo_inspection import engine_inspected, gearbox_inspected
from hollet.services.demo_measuring import engine_figures, engine_measured, lash_found
from hollet.services.demo_parts import (
    gasket_set_came,
    gasket_set_ordered,
    money_of_two,
    pipe_and_switch,
    shaft_ordered,
    shop_calendar,
)
from hollet.services.demo_script import DemoClock, Script
from hollet.services.demo_shop import fill_shop, tools_tried
from hollet.services.demo_springs import springs_of_three
from hollet.services.demo_takedown import AFTER_STEP, TAKE_DOWN
from hollet.services.takedown import take_rebuild
from hollet.services.tools import set_gauge
from hollet.services.workshop import Workshop
from hollet.store.records import ShopRecord

__all__ = ["fill_demo", "make_demo"]

PISTONS = (
    ("83.958", "83.957", "83.958"),
    ("83.955", "83.956", "83.955"),
    ("83.960", "83.959", "83.960"),
    ("83.957", "83.958", "83.957"),
)
BORES = (
    ("84.006", "84.005", "84.006"),
    ("0.022 mm", "0.023 mm", "0.022 mm"),
    ("84.005", "84.005", "84.004"),
    ("84.003", "84.004", "84.003"),
)
BORES_LOW = ("84.002", "84.006", "84.002", "84.001")
NOT_WANTED = {
    "clutch_while_out": "Disc has half its life, one careful owner.",
    "rear_seal_while_out": "New two years ago, when the box was out, and dry.",
    "stem_seals": "Renewed with the guides, 8000 km ago.",
}
GAPS = ("0.35 0.40", "0.35 0.40", "0.35 0.40", "0.35 0.40")


def make_demo(folder: Path, now: datetime | None = None, *, box_open: bool = True) -> None:
    """Make the demo data in an empty folder; its times count back from `now` (UTC).

    Not `box_open`: the gearbox of Two still hangs.
    """
    workshop = Workshop(folder)
    try:
        fill_demo(workshop, now, box_open=box_open)
    finally:
        workshop.close()


def fill_demo(workshop: Workshop, now: datetime | None = None, *, box_open: bool = True) -> None:
    """Put the demo into an empty Hollet; refused (`not_empty`) when there are builds already."""
    if cards(workshop):
        raise Conflict(
            "there are builds here already: the demo goes into an empty Hollet only",
            reason_code="not_empty",
        )
    now, real = now or datetime.now(UTC), workshop.clock
    clock = DemoClock(now - timedelta(days=23))
    workshop.clock = clock
    try:
        with workshop.store.write() as books:
            books.shop.put(ShopRecord(1, "Harrow Moss rescue post", "Europe/London", "GBP", 1))
        fill_shop(workshop)
        _engine_of_one(workshop, clock, now)
        springs_of_three(workshop, clock, now)
        clutch_and_shaft_of_one(workshop, clock, now)
        axle_of_two(workshop, clock, now)
        clock.now = (
            (now - timedelta(days=3)).replace(hour=18, minute=5)
            if box_open
            else now - timedelta(hours=46)
        )
        script = gearbox_of_two(workshop, clock)
        if box_open:
            gearbox_inspected(script, (now - timedelta(days=1)).replace(hour=9, minute=10))
            shaft_ordered(script)
            money_of_two(script)
        clock.now = max(clock.now, now - timedelta(hours=1))
        shop_calendar(workshop, now)
    finally:
        workshop.clock = real


def _engine_of_one(workshop: Workshop, clock: DemoClock, now: datetime) -> None:
    build = make_build(
        workshop,
        sheets=["powertrain-up", "top-end", "engine-measured"],
        name="One: engine out, top end",
        vehicle="One",
        about="Ostrel Dunlin 2.0, 1991, engine out on the stand",
        who="MK",
        facts=DUNLIN | {"lash_by": "shims"},
    )
    script = Script(workshop, clock, build, "MK")
    _planned(script)
    _take_down(script, now)
    clock.now = (now - timedelta(days=12)).replace(hour=18, minute=5)
    engine_inspected(script)
    gasket_set_ordered(script)
    engine_figures(script)
    for extra, reason in NOT_WANTED.items():
        script.plan(reason, act="extra", extra=extra, wanted=False)
    _measurements(script)
    tools_tried(workshop)
    clock.now = (now - timedelta(days=6)).replace(hour=12, minute=10)
    pipe_and_switch(script)
    clock.now = (now - timedelta(days=5)).replace(hour=17, minute=30)
    gasket_set_came(script)
    script.done("parts_here", "holes_dry", "valves_tight", "faces_clean", "pistons_in")
    _rods(script)
    clock.now = min((now - timedelta(days=1)).replace(hour=18, minute=0), now - timedelta(hours=5))
    _sump(script)
    script.done("head_on")
    _head_bolts(script, now)


def _planned(script: Script) -> None:
    """Ways chosen, parts said, and one step that no sheet has."""
    script.plan(
        "The box was out two years ago, only the engine burns oil.",
        act="way",
        school="way_out",
        way="alone",
    )
    script.plan(
        "Borrowed till Saturday week, the roof has no beam.", act="way", school="hold", way="hoist"
    )
    script.plan("Same flywheel and box as before.", act="part", part="flywheel", option="flat")
    script.plan(None, act="part", part="ring_gear", option="fine teeth")
    _torques(script)
    script.plan(
        "TR remembered it from Three.",
        act="put_in",
        title="Earth strap at the bulkhead",
        stage="take_down",
        behind="starter_off",
        hours=[0.1, 0.2],
        do="Behind the head, one bolt to the bulkhead. Tie it up, so that it is found again.",
        keep=False,
        before=[
            {
                "step": "engine_up",
                "because": "it is torn off as the engine rises",
                "kind": "access closes",
            }
        ],
    )


def _torques(script: Script) -> None:
    """What the book says of the exhaust lash and of the small joints."""
    script.plan(
        None,
        act="limit",
        limit="lash_exhaust",
        version=1,
        lo="0.20",
        hi="0.30",
        target="0.25",
        source="Dunlin workshop book",
        page="71",
    )
    for joint, stages, page in (
        ("sump_bolts", ("6 N·m", "10 N·m"), "90"),
        ("cam_wheel_bolt", ("48 N·m",), "92"),
        ("rocker_cover_bolts", ("8 N·m",), "93"),
    ):
        script.plan(
            None,
            act="joint",
            joint=joint,
            version=1,
            stage=list(stages),
            source=f"Dunlin workshop book p. {page}",
        )


def _take_down(script: Script, now: datetime) -> None:
    """Four evenings: steps of the sheets, and between them what no sheet names; then the order back
    is taken over.
    """
    for days, moves in TAKE_DOWN:
        script.clock.now = (now - timedelta(days=days)).replace(hour=17, minute=40)
        for move in moves:
            if isinstance(move, str):
                if move == "lash_found":
                    lash_found(script)
                script.done(move)
                for entry in AFTER_STEP.get(move, ()):
                    script.write(1, **entry)
                continue
            what, lines, place, because = move
            edit: dict[str, Any] = {
                "kind": "removed",
                "removal": slug(what),
                "what": what,
                "place": place,
                "on_stand": days <= 20,
            }
            if lines:
                edit |= {
                    "bag": script.next_bag(),
                    "lines": [read_fasteners(line).model_dump() for line in lines.split(";")],
                }
            script.write(6, **edit, **(because or {}))
    script.clock.now = (now - timedelta(days=18)).replace(hour=18, minute=30)
    why = {slug("Fan cowl"): "the cowl goes in over the fan, never the other way"}
    take_rebuild(
        script.workshop,
        script.build,
        Choices(because=why),
        who="MK",
        entry_id=script.workshop.new_id(),
    )


def slug(what: str) -> str:
    """An id for a removal of the demo."""
    return "".join(c if c.isalnum() else "-" for c in what.casefold())


def _measurements(script: Script) -> None:
    script.read("head_flatness", "head_gap", "0.04", "0.05", "0.04", tool="e1")
    script.done("head_flatness")
    for number, typed in enumerate(PISTONS, start=1):
        script.read("bores", f"piston_{number}", *typed, tool="m3", state="clean, 20 °C")
    set_gauge(script.workshop, "b1", "m3", "84.000 mm", who="MK")
    for number, typed in enumerate(BORES, start=1):
        script.read("bores", f"bore_{number}", *typed, tool="b1", state="clean, 20 °C")
    for number, text in enumerate(BORES_LOW, start=1):
        script.read("bores", f"bore_{number}_low", text, tool="b1", state="clean, 20 °C")
    script.write(
        6,
        kind="concession",
        step="bores",
        result="clearance_2",
        name="MK",
        recheck="at 1000 km",
        reason="Rescue pick-up, 3000 km a year. New pistons only with a rebore. "
        "Look at the oil use at 1000 km.",
    )
    script.done("bores")
    for number, gap in enumerate(GAPS, start=1):
        script.read("ring_gaps", f"gap_{number}", gap, tool="f1")
        script.read("second_gaps", f"second_gaps_{number}", gap, tool="f1")
        script.read("rail_gaps", f"rail_gaps_{number}", "0.45 0.50", tool="f1")
    script.done("ring_gaps", "second_gaps", "rail_gaps")
    engine_measured(script)


def _rods(script: Script) -> None:
    step = "rod_bolts_tight"
    script.before(step)
    script.write(kind="decision", step=step, about="wrench", wrench="w2")
    for first in (1, 3, 5, 7):  # one cap at a time, both nuts through both stages
        for bolt in (first, first + 1, first, first + 1):
            script.write(1, kind="fastener", step=step, bolt=bolt, act="clicked")
        facts: Any = bench(script.workshop, script.build, step)
        script.write(2, kind="confirmed", step=step, what=facts.joint.condition)
    script.done(step)


def _sump(script: Script) -> None:
    """Eighteen small bolts from the middle outward, twice round."""
    step = "sump_on"
    script.before(step)
    script.chances(step)
    script.write(kind="decision", step=step, about="wrench", wrench="w3")
    for bolt in (*range(1, 19), *range(1, 19)):
        script.write(0.5, kind="fastener", step=step, bolt=bolt, act="clicked")
    script.done(step)


def _head_bolts(script: Script, now: datetime) -> None:
    """Stage 1 whole; in stage 2 bolt 4 got too much, and bolt 6 is next when the phone rings."""
    step = "head_bolts_tight"
    script.before(step)
    script.write(
        kind="decision",
        step=step,
        about="wrench",
        wrench="w2",
        adapter={"length": "60 mm", "angle": "0"},
    )
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
