"""Another job on One, beside the engine: a disc tried and taken off again, shims chosen for the
release bearing, a bracket altered, a wire not proven yet, the steering shaft half locked, two
covers still in.
"""

from datetime import datetime, timedelta

from hollet.services.builds import make_build
from hollet.services.demo_gearbox import DUNLIN
from hollet.services.demo_script import DemoClock, Script
from hollet.services.workshop import Workshop

__all__ = ["clutch_and_shaft_of_one"]

FACTS = {
    "release_kind": "concentric slave in the bell",
    "bell_parts": "no",
    "same_family": "yes",
    "shaft_here": "yes",
    "column_airbag": "no",
    "belt_tensioner": "adjuster and pivot",
    "brake_pipe_here": "no",
}
LIMITS: tuple[tuple[str, str, str, dict[str, str]], ...] = (
    ("bearing_gap", "clutch maker's sheet", "7", {"lo": "1.50", "hi": "2.50", "target": "2.00"}),
    ("finger_level", "clutch maker's sheet", "6", {"hi": "0.60"}),
    ("shaft_engaged", "Dunlin workshop book", "212", {"lo": "18"}),
    ("shaft_clear", "Dunlin workshop book", "212", {"lo": "8"}),
    ("belt_give", "Dunlin workshop book", "54", {"lo": "9", "hi": "13"}),
)
TORQUES = (
    ("cover_bolts_clutch", ("22 N·m", "26 N·m"), 6),
    ("slave_line", ("14 N·m",), 1),
    ("column_joint", ("32 N·m",), 1),
    ("box_joint", ("32 N·m",), 1),
    ("shaft_bearing", ("10 N·m",), 2),
)


def clutch_and_shaft_of_one(workshop: Workshop, clock: DemoClock, now: datetime) -> None:
    """Two evenings: the clutch on the bench, then the shaft, until its first lock."""
    clock.now = (now - timedelta(days=3)).replace(hour=17, minute=20)
    build = make_build(
        workshop,
        sheets=["mating", "steer-belt-pipe"],
        name="One, clutch and steering",
        vehicle="One",
        about="Ostrel Dunlin 2.0, 1991, engine out on the stand",
        who="RT",
        facts=DUNLIN | FACTS,
    )
    script = Script(workshop, clock, build, "RT")
    for limit, source, page, figures in LIMITS:
        script.plan(None, act="limit", limit=limit, version=1, source=source, page=page, **figures)
    for joint, stages, bolts in TORQUES:
        source = "Dunlin workshop book p. 211"
        script.plan(None, act="joint", joint=joint, version=1, stage=list(stages), source=source)
        script.plan(None, act="count", joint=joint, version=2, bolts=bolts)
    _clutch(script)
    clock.now = (now - timedelta(days=2)).replace(hour=17, minute=40)
    _shaft(script)


def _clutch(script: Script) -> None:
    """The disc on its shaft and off again; the cover; two depths, and the shims between them."""
    script.done("parts_agree", "bell_bolts_mapped")
    script.write(
        3, kind="trial said", step="shaft_tried", fits="yes", words="free to the last tooth"
    )
    script.done("shaft_tried", minutes=4)
    script.write(3, kind="trial said", step="pilot_tried", fits="yes", words="")
    script.done("pilot_tried", minutes=3)
    script.seen("disc_in")
    script.done("disc_in")
    script.write(2, kind="decision", step="cover_tight", about="wrench", wrench="w2")
    for stage in (1, 2):
        for bolt in range(1, 7):
            script.write(
                0.5, kind="fastener", step="cover_tight", bolt=bolt, act="clicked", stage=stage
            )
    script.done("cover_tight", minutes=2)
    for k, depth in enumerate(("49.12", "49.16", "49.14"), 1):
        script.read("fingers_read", f"finger_{k}", depth, tool="t1")
    script.done("fingers_read", minutes=2)
    script.write(2, kind="decision", step="line_before_slave", about="wrench", wrench="w3")
    script.write(3, kind="fastener", step="line_before_slave", bolt=1, act="clicked", stage=1)
    script.done("line_before_slave", minutes=2)
    script.write(3, kind="trial said", step="slave_on_nose", fits="yes", words="")
    script.done("slave_on_nose", minutes=4)
    gap = "gap_and_shims"
    state = "bearing pushed fully back"
    script.read(gap, "bell_depth", "62.41", "62.42", tool="t1", state=state)
    script.read(gap, "finger_height", "49.14", "49.13", tool="t1", state="clutch bolted down")
    script.read(gap, "gap_bar", "10.003", "10.002", tool="m1", state="today")
    script.read(gap, "gap_plate", "0", tool="m1", state="today")
    script.write(
        4,
        kind="kit said",
        step=gap,
        pack="slave_shims",
        typed="0.25 x 2, 0.50, 1.00 x 2, 0.10",
        instrument="m1",
    )
    script.write(6, kind="pack put", step=gap, pack="slave_shims", shims=["1.00", "0.25"])
    script.read(gap, "bell_depth_again", "61.17", tool="t1", state=state)
    script.done(gap, minutes=3)
    _beside(script)


def _beside(script: Script) -> None:
    """A cover that stays in, a bracket altered, a wire joined and not proven."""
    script.write(
        2,
        kind="left open",
        step="gap_and_shims",
        item="bell_cloth",
        what="Cloth over the open bell",
        blocks="crank",
        undo="off, the bell looked into",
        sort="cover",
    )
    script.write(
        4,
        kind="altered",
        step="line_before_slave",
        altered="line-bracket",
        what="Bracket of the clutch line",
        differs="hole drawn out 4 mm towards the sill, so that the new line lies straight",
        held="its own bolt, a thick washer over the slot",
        undo="another bracket, one bolt",
    )
    for state in ("cut", "joined"):
        script.write(
            9,
            kind="wire mended",
            step="gap_and_shims",
            wire="reverse-lamp",
            place="on top of the bell, where the clip chafed it",
            which="reverse lamp, green/white",
            how="crimped",
            marker="yellow tape",
            sleeve_inner="3 mm",
            sleeve_length="40 mm",
            state=state,
        )


def _shaft(script: Script) -> None:
    """Off by its marks, looked at, in loose, and locked at the column."""
    script.done("wheel_straight", "shaft_off")
    for face in ("needles", "splines", "weld"):
        script.write(
            2,
            kind="finding",
            step="shaft_seen",
            part="steering_shaft",
            face=face,
            cleaning="washed",
            method="by hand" if face == "needles" else "eye",
        )
    script.done("shaft_seen", minutes=2)
    script.seen("shaft_loose_in")
    script.write(4, kind="trial said", step="shaft_loose_in", fits="yes", words="slides 30 mm")
    script.done("shaft_loose_in", minutes=4)
    place, state = "insertion_read", "wheels straight, body on its wheels"
    script.read(place, "in_box", "24.6", tool="t1", state=state)
    script.read(place, "in_column", "21.9", tool="t1", state=state)
    script.read(place, "beside", "14", tool="r1", state="at the nearest place of a whole turn")
    script.done(place, minutes=3)
    script.write(6, kind="trial said", step="full_lock_trial", fits="yes", words="both ways")
    script.done("full_lock_trial", minutes=3)
    lock = "joints_lock"
    undo = "old bolts out, new bolts and washers in by hand"
    script.write(8, kind="confirmed", step=lock, what=undo)
    script.write(1, kind="decision", step=lock, about="wrench", wrench="w2")
    script.write(
        2, kind="fastener", step=lock, joint="column_joint", bolt=1, act="clicked", stage=1
    )
    script.write(1, kind="fastener", step=lock, joint="column_joint", bolt=1, act="marked")
