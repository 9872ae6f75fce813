"""The rear leaf springs of Three: new leaves and U-bolts are in, it drove 102 km, and then
one nut had left its mark.
"""

from datetime import datetime, timedelta
from typing import Any

from hollet.services.builds import bench, make_build
from hollet.services.demo_inspection import faces_seen
from hollet.services.demo_script import DemoClock, Script
from hollet.services.workshop import Workshop

__all__ = ["springs_of_three"]

LIMITS: tuple[tuple[str, dict[str, str]], ...] = (
    ("height_f", {"lo": "610", "hi": "640"}),
    ("height_r", {"lo": "625", "hi": "665"}),
    ("height_side", {"hi": "12"}),
    ("height_size", {"target": "630"}),
    ("axle_square", {"lo": "-5", "hi": "5"}),
    ("pinion_slope", {"lo": "2.0", "hi": "5.0"}),
    ("arch_pair", {"hi": "8"}),
    ("heights_rest", {"lo": "-2", "hi": "2"}),
)
TORQUES: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("u_bolts_left", ("45 N·m", "80 N·m", "110 N·m")),
    ("u_bolts_right", ("45 N·m", "80 N·m", "110 N·m")),
    ("spring_eyes", ("95 N·m",)),
    ("centre_bolts", ("42 N·m",)),
    ("damper_eyes", ("60 N·m",)),
    ("wheel_nuts", ("50 N·m", "100 N·m")),
)
WAYS = (
    ("leaf_kind", "leaves", "Two leaves came with the last convoy, no springs."),
    ("sides", "one", "The other spring keeps the axle where it is."),
    ("bush_by", "press", "TR has the screw tool."),
    ("bush_stuff", "rubber", "Quiet, and it moves by itself."),
    ("u_final", "weight_on", "The nuts are reached from the pit."),
)
HEIGHTS = {"fl": "624", "fr": "622"}
FOUND = {"rl": "606", "rr": "631"}
NOW = {"rl": "655", "rr": "651"}
CREPT = (("creep_l", "641"), ("creep_r", "650"))
AFTER_WHEELS = ("wheels_on", "vehicle_lowered")


def springs_of_three(workshop: Workshop, clock: DemoClock, now: datetime) -> None:
    """From the first look to the wheels on the ground, 102 km, and one mark that parted."""
    clock.now = (now - timedelta(days=16)).replace(hour=17, minute=30)
    build = make_build(
        workshop,
        sheets=["rear-leaf-springs"],
        name="Three: rear leaf springs",
        vehicle="Three",
        about="Ostrel Dunlin 2.0, 1991, rear left spring cracked, two leaves new",
        who="TR",
        facts={"load_valve": "no", "drive": "four"},
    )
    script = Script(workshop, clock, build, "TR")
    _figures(script)
    script.done("limits_read", "spring_codes", "soak_evening")
    clock.now = (now - timedelta(days=15)).replace(hour=9, minute=0)
    _as_found(script)
    _apart(script)
    clock.now = (now - timedelta(days=12)).replace(hour=9, minute=0)
    _together(script)
    clock.now = (now - timedelta(days=11)).replace(hour=17, minute=0)
    _on_wheels(script)
    clock.now = now - timedelta(hours=3)
    _looked_again(script)


def _figures(script: Script) -> None:
    for school, way, reason in WAYS:
        script.plan(reason, act="way", school=school, way=way)
    for limit, said in LIMITS:
        script.plan(
            None, act="limit", limit=limit, version=1, source="spring maker's sheet", **said
        )
    for joint, stages in TORQUES:
        script.plan(
            None,
            act="joint",
            joint=joint,
            version=1,
            stage=list(stages),
            source="spring maker's sheet",
        )


def _heights(script: Script, step: str, rear: dict[str, str], suffix: str) -> None:
    for corner, typed in (HEIGHTS | rear).items():
        script.read(step, f"h_{corner}{suffix}", typed, tool="r1", state="rolled, nobody in it")
    _accept(script, step, "measure_again" if step == "heights_creep" else "rework")
    script.done(step)


def _accept(script: Script, step: str, choice: str) -> None:
    """What lies outside as found is what the job is for."""
    facts: Any = bench(script.workshop, script.build, step)
    for result in facts.results:
        if result.asks_decision:
            script.write(1, kind="disposition", step=step, result=result.id, choice=choice)


def _as_found(script: Script) -> None:
    _heights(script, "heights_found", FOUND, "_0")
    for side, typed in (("l", "2402"), ("r", "2404")):
        script.read("axle_square_found", f"square_{side}0", typed, tool="r2")
    _accept(script, "axle_square_found", "rework")
    script.read("pinion_angle_found", "pinion_0", "3.4", tool="a1", unit="deg")
    _accept(script, "pinion_angle_found", "rework")
    script.done("axle_square_found", "pinion_angle_found", "spring_marked")


def _apart(script: Script) -> None:
    script.done(
        "vehicle_raised",
        "axle_on_jack",
        "wheels_off",
        "catch_stand",
        "axle_ties_leaf",
        "dampers_leaf_off",
        "spring_unloaded_leaf",
        "u_bolts_off",
        "spring_off",
        "pack_free",
    )
    faces_seen(script, "leaves_seen", {"spring_l": {"main": ("crack", 3, "washed")}})
    script.decide(
        "leaves_seen", "spring_l", "replace", "Cracked from the centre hole: main and second new."
    )
    for what in ("eye width", "bore", "thickness", "length to the hole"):
        script.write(
            1,
            kind="laid beside",
            step="leaves_seen",
            part="spring_l",
            feature=what,
            old="as the old one",
            new="as the old one",
            same=True,
        )
    faces_seen(script, "perches_seen", {})
    script.done("leaves_seen", "perches_seen", "springs_here", "leaves_clean")


def _pulled(script: Script, step: str, wrench: str, bolts: int, *, mark: bool = False) -> None:
    """A joint drawn down, round by round, each bolt marked where the sheet asks for it."""
    script.before(step)
    script.write(kind="decision", step=step, about="wrench", wrench=wrench)
    facts: Any = bench(script.workshop, script.build, step)
    caution = facts.base.caution
    if caution and caution.confirm:
        script.write(kind="confirmed", step=step, what=caution.confirm)
    joint = facts.joint
    if not joint.counted:
        script.plan(None, act="count", joint=joint.id, version=joint.version, bolts=bolts)
    for _ in joint.stages:
        condition = bench(script.workshop, script.build, step).joint.condition  # type: ignore[union-attr]
        if condition:
            script.write(1, kind="confirmed", step=step, what=condition)
        for bolt in range(1, bolts + 1):
            script.write(0.5, kind="fastener", step=step, bolt=bolt, act="clicked")
    for bolt in range(1, bolts + 1) if mark else ():
        script.write(0.2, kind="fastener", step=step, bolt=bolt, act="marked")
    script.done(step)


def _together(script: Script) -> None:
    script.done("bushes_pressed", "bushes_leaf")
    _pulled(script, "pack_built", "w2", 2)
    for side, typed in (("l", "182"), ("r", "177")):
        script.read("pair_compared", f"arch_{side}", typed, tool="r1")
    _accept(script, "pair_compared", "measure_again")
    how = "main and second leaf new, pack closed, arch beside the right one"
    script.write(1, kind="part put right", step="leaves_seen", part="spring_l", how=how)
    script.done(
        "pair_compared",
        "spring_in_leaf",
        "axle_home",
        "u_bolts_hand",
        "u_bolts_first",
        "dampers_leaf_on",
        "axle_ties_leaf_on",
        "side_two",
    )


def _on_wheels(script: Script) -> None:
    script.done(*AFTER_WHEELS)
    script.write(1, kind="odometer said", typed="61240")
    _pulled(script, "wheels_tight", "w1", 10)
    _pulled(script, "u_bolts_final", "w1", 4, mark=True)
    _pulled(script, "u_bolts_final_right", "w1", 4, mark=True)
    _pulled(script, "eyes_final", "w1", 6, mark=True)
    _pulled(script, "damper_eyes_final", "w1", 2)
    _heights(script, "heights", NOW, "")
    for side, typed in (("l", "2403"), ("r", "2403")):
        script.read("leaf_readings", f"square_{side}", typed, tool="r2")
    script.read("leaf_readings", "pinion_now", "3.5", tool="a1", unit="deg")
    _accept(script, "leaf_readings", "measure_again")
    script.done("leaf_readings")
    script.write(
        2, kind="note", text="Out of the gate, back on Saturday. U-bolts and nuts again at 100 km."
    )


def _looked_again(script: Script) -> None:
    script.write(2, kind="note", text="102 km. Looked at the marks before anything is pulled.")
    script.write(1, kind="odometer said", typed="61342")
    script.write(
        2,
        kind="fastener",
        step="u_bolts_final_right",
        bolt=2,
        act="state",
        tightness="loosened again",
        note="it has left its mark by a pen stroke",
    )
    for reading, typed in CREPT:
        script.read("heights_creep", reading, typed, tool="r1", state="rolled, nobody in it")
