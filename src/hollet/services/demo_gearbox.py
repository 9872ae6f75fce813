"""The gearbox of Two: figures still to hunt, one source against another, and it is nearly free."""

from datetime import timedelta

from hollet.services.builds import make_build
from hollet.services.demo_script import DemoClock, Script
from hollet.services.demo_takedown import ENGINE_OF_TWO, PINS, UNDER_TWO
from hollet.services.workshop import Workshop

__all__ = ["DUNLIN", "gearbox_of_two"]

DUNLIN = {
    "drive": "four",
    "transfer_case": "yes",
    "ignition": "electronic",
    "clutch": "hydraulic",
    "fuel_feed": "injection",
    "speed_cable": "yes",
    "power_steering": "no",
    "cruise_control": "no",
    "air_conditioning": "no",
}


def gearbox_of_two(workshop: Workshop, clock: DemoClock) -> Script:
    """Just begun: the way chosen, figures still to hunt, tools to borrow, one source against
    another.
    """
    build = make_build(
        workshop,
        sheets=["gearbox-out", "gearbox-opened"],
        name="Two: gearbox",
        vehicle="Two",
        about="Ostrel Dunlin 2.0, 1991, on the lift, chips in the oil",
        who="TR",
        facts=DUNLIN,
    )
    script = Script(workshop, clock, build, "TR")
    script.plan(
        "The post lends us its jack for the weekend.",
        act="way",
        school="box_lift",
        way="transmission_jack",
    )
    script.plan(
        None,
        act="limit",
        limit="gearbox_oil",
        version=1,
        lo="1.9",
        hi="2.1",
        target="2.0",
        source="Dunlin workshop book",
        page="31",
    )
    script.plan(
        None,
        act="limit",
        limit="lay_float_limit",
        version=1,
        lo="0.10",
        hi="0.28",
        target="0.15",
        source="Dunlin workshop book",
        page="61",
    )
    script.plan(
        None,
        act="answer",
        limit="lay_float_limit",
        version=2,
        lo="0.05",
        hi="0.18",
        target="0.10",
        source="bearing sheet",
        page="4",
    )
    script.plan(
        "Measured on three boxes, all quiet.",
        act="limit",
        limit="synchro_gap",
        version=1,
        lo="0.8",
        own=True,
    )
    script.done("limits_read", "box_weighed", "soak_evening")
    _box_comes_out(script)
    return script


def _box_comes_out(script: Script) -> None:
    """The gearbox is nearly free: at the bell bolts the lamp gives out."""
    script.clock.now += timedelta(hours=16)  # the oil has had its night
    script.done("battery_off", "vehicle_raised")
    for entry in UNDER_TWO:
        script.write(1, **entry)
    script.done(
        "box_oil_out",
        "levers_off",
        "prop_shaft_off",
        "front_prop_off",
        "speed_cable_off",
        "slave_aside",
        "starter_off",
        "earths_off",
        "box_ties_off",
        "engine_held",
        minutes=7,
    )
    for entry in ENGINE_OF_TWO:
        script.write(1, **entry)
    script.done("box_strapped", "box_mount_off", minutes=7)
    script.picture("bell", "Bell housing from behind", "bell_bolts_out", PINS["bell"])
