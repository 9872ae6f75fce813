"""The rear axle of Two on the bench: its carrier set between two packs, one shim moved across, the
pattern not read yet.
"""

from datetime import datetime, timedelta

from hollet.services.builds import make_build
from hollet.services.demo_gearbox import DUNLIN
from hollet.services.demo_script import DemoClock, Script
from hollet.services.workshop import Workshop

__all__ = ["axle_of_two"]

BOOK = "Dunlin workshop book"
LIMITS: tuple[tuple[str, str, dict[str, str]], ...] = (
    ("backlash", "131", {"lo": "0.10", "hi": "0.22", "target": "0.16"}),
    ("backlash_spread", "131", {"hi": "0.07"}),
    ("crown_runout_limit", "131", {"hi": "0.05"}),
    ("carrier_end_play", "132", {"hi": "0.05"}),
    ("turn_found", "133", {"lo": "1.0", "hi": "3.5"}),
    ("preload_found", "133", {"lo": "0.8", "hi": "2.0"}),
    ("pinion_turn_trial", "133", {"lo": "0.9", "hi": "1.6"}),
    ("turn_added", "133", {"lo": "0.2", "hi": "0.6"}),
    ("chain_match", "130", {"lo": "-0.02", "hi": "0.02"}),
)
SHIM_AND_BEARING = {
    "shim_old": ("1.521", "1.520"),
    "height_old": ("22.513", "22.514"),
    "shim_new": ("1.536", "1.535"),
    "height_new": ("22.500", "22.501"),
}
CLEAN = {
    "crown_wheel": ("drive", "coast", "roots", "bolts"),
    "axle_pinion": ("drive", "coast", "splines"),
    "carrier_l": ("rollers", "cage", "inner", "outer", "seat"),
    "carrier_r": ("rollers", "cage", "inner", "outer", "seat"),
    "pinion_head": ("rollers", "inner", "outer"),
    "pinion_tail": ("rollers", "inner", "outer"),
    "spider": ("teeth", "washers", "pin"),
    "axle_floor": ("floor", "plug"),
}


def axle_of_two(workshop: Workshop, clock: DemoClock, now: datetime) -> None:
    """Two evenings: taken down as far as its bearings; then the carrier between its packs."""
    clock.now = (now - timedelta(days=6)).replace(hour=17, minute=10)
    build = make_build(
        workshop,
        sheets=["diff-set"],
        name="Two: rear axle",
        vehicle="Two",
        about="Ostrel Dunlin 2.0, 1991, axle on the bench, hums at 70",
        who="TR",
        facts=DUNLIN | {"side_adjust": "shims", "case_spreader": "not needed"},
    )
    script = Script(workshop, clock, build, "TR")
    for limit, page, figures in LIMITS:
        script.plan(None, act="limit", limit=limit, version=1, source=BOOK, page=page, **figures)
    script.plan(
        None,
        act="joint",
        joint="crown_bolts",
        version=1,
        stage=["40 N·m", "60 N·m"],
        source=f"{BOOK} p. 130",
    )
    script.plan(None, act="count", joint="crown_bolts", version=2, bolts=10)
    script.plan(
        "Old pair, and nobody here has a depth bar.", act="way", school="depth_way", way="old_shim"
    )
    _apart(script)
    clock.now = (now - timedelta(days=4)).replace(hour=17, minute=30)
    _carrier(script)


def _lash(script: Script, step: str, stem: str, *typed: str) -> None:
    for place, text in enumerate(typed, 1):
        script.read(step, f"{stem}{place}", text, tool="d1", state="caps at torque")


def _apart(script: Script) -> None:
    """What is gone when it is apart is read first."""
    for step in (
        "diff_figures",
        "diff_tools",
        "axle_oil_out",
        "axle_cover_off",
    ):
        script.done(step)
    _lash(script, "backlash_found", "backlash_f", "0.15", "0.17", "0.16")
    script.done("backlash_found", "pattern_found")
    script.read("crown_runout", "crown", "0.03", tool="d1")
    script.done("crown_runout", "axle_bare")
    script.write(kind="skipped", step="turn_found", reason="no indicating wrench this small here")
    script.done("caps_marked", "carrier_out")
    script.write(
        kind="skipped", step="preload_found_m", reason="no indicating wrench this small here"
    )
    script.done("pinion_drawn", "diff_bearings_off", "diff_washed")
    for part, faces in CLEAN.items():
        for face in faces:
            script.write(
                1,
                kind="finding",
                step="axle_gears_seen",
                part=part,
                face=face,
                cleaning="washed",
                method="eye",
            )
    script.done("axle_gears_seen")
    script.write(
        kind="skipped", step="diff_seats_read", reason="no shine in any seat, the races never spun"
    )


def _carrier(script: Script) -> None:
    """Too much backlash with the packs as found: one shim goes across, and it is read anew."""
    script.done("diff_parts_here", "found_wanted")
    script.seen("crown_on")
    script.write(kind="out of the oven", step="crown_on", warm="crown_hot", out="95", needed="60")
    for warm in script.step_view("crown_on").base.warms:
        script.write(1, kind="confirmed", step="crown_on", what=warm.box)
    script.write(2, kind="decision", step="crown_on", about="wrench", wrench="w2")
    for stage in (1, 2):
        for bolt in range(1, 11):
            script.write(
                0.5, kind="fastener", step="crown_on", bolt=bolt, act="clicked", stage=stage
            )
    for bolt in range(1, 11):
        script.write(0.3, kind="fastener", step="crown_on", bolt=bolt, act="locked")
    script.done("crown_on")
    for step, words in (("trial_bearings_in", "slides by hand"), ("pinion_trial", "no catch")):
        script.write(3, kind="trial said", step=step, fits="yes", words=words)
        script.done(step)
    for reading, typed in SHIM_AND_BEARING.items():
        state = "turned, under the same weight" if reading.startswith("height") else None
        script.read("shim_matched", reading, *typed, tool="m1", state=state)
    script.done("shim_matched")
    script.write(
        kind="skipped", step="pinion_preload_trial", reason="no indicating wrench this small here"
    )
    script.write(3, kind="trial said", step="carrier_trial", fits="yes", words="turns freely")
    script.done("carrier_trial")
    step = "backlash_set"
    script.read("zero_play", "end_play", "0.01", tool="d1", state="caps at torque")
    script.done("zero_play")
    _lash(script, step, "lash_", "0.25", "0.27", "0.26")
    script.write(
        3, kind="carrier set", step=step, near="1.80", far="2.10", instrument="m1", as_read=True
    )
    script.write(9, kind="carrier set", step=step, near="1.66", far="2.24", instrument="m1")
    _lash(script, step, "lash_", "0.15", "0.17", "0.16")
    script.done(step)
