"""The gearbox of Two opened: a layshaft bearing broke up, its chips are traced through everything
the oil reached, and each part decided.
"""

from datetime import datetime
from typing import Any

from hollet.services.builds import bench
from hollet.services.demo_script import Script

__all__ = ["engine_inspected", "faces_seen", "gearbox_inspected"]

Look = tuple[str, int, str]
"""Code, grade, and in which state it was seen."""
DEBRIS: dict[str, dict[str, Look]] = {
    "lay_front": {
        "rollers": ("spall", 3, "washed"),
        "cage": ("chipped", 3, "washed"),
        "inner": ("spall", 2, "washed"),
        "outer": ("dent", 3, "washed"),
        "seat": ("fret", 1, "polished"),
    },
    "lay_gears": {"drive": ("dent", 1, "washed")},
    "box_magnet": {"magnet": ("chips", 3, "as it came"), "oil": ("chips", 2, "as it came")},
    "lay_rear": {"rollers": ("dent", 2, "washed"), "outer": ("dent", 1, "washed")},
    "main_front": {"outer": ("dent", 1, "washed")},
    "tc_bearings": {"turn": ("notchy", 1, "washed"), "races": ("dent", 1, "washed")},
}
DECIDED: tuple[tuple[str, str, str, float | None, float | None], ...] = (
    ("lay_front", "replace", "It broke up, nothing to think about.", 48, None),
    (
        "lay_rear",
        "replace",
        "Dents all round from the chips, half a day to come back for it.",
        44,
        None,
    ),
    (
        "main_front",
        "replace_open",
        "One dent only, but the box is open and the bearing is cheap.",
        62,
        None,
    ),
    ("box_magnet", "clean", "Cleaned, oil renewed, looked at again after 500 km.", 4, None),
    ("lay_gears", "watch", "Two light dents on one tooth, stoned flat. 3000 km a year.", None, 700),
    ("tc_bearings", "deeper", "Light catch in one place. Open the transfer case or not?", 96, 900),
)
MEASURED = (("synchro_gaps", "ring_12", "0.95"), ("synchro_gaps", "ring_34", "0.85"))
RINGS: dict[str, dict[str, Look]] = {
    "hub_34": {"ring": ("step", 2, "washed"), "cone": ("polished", 1, "washed")},
    "forks": {"pads": ("step", 1, "washed")},
}
OUTSIDE: dict[str, dict[str, Look]] = {
    "box_shell": {"plug": ("chips", 2, "as it came")},
    "box_seals": {"output": ("brittle", 1, "wiped")},
}
ENGINE: dict[str, dict[str, Look]] = {
    "cylinder_2": {"thrust": ("polished", 2, "washed")},
    "skirt_3": {"thrust": ("scuff", 1, "washed")},
    "block_face": {"bolts": ("corrosion", 1, "washed")},
}
BESIDE = (
    ("outside diameter", "47 mm", "47 mm", True),
    ("bore", "20 mm", "20 mm", True),
    ("width", "14 mm", "15.25 mm", False),
)


def engine_inspected(script: Script) -> None:
    """Faces and bores of the engine: one bore polished on its thrust side and honed, a skirt to be
    watched, threads chased.
    """
    for step in ("mounts_seen", "rear_seal_seen"):
        faces_seen(script, step, {})
    faces_seen(script, "faces_seen", ENGINE)
    decided = (
        ("cylinder_2", "rework", "Honed with the others, as long as the lip is there."),
        ("skirt_3", "watch", "Fine lines only, the nail does not catch."),
        ("block_face", "clean", "Brush and chaser, then look once more."),
    )
    for part, choice, reason in decided:
        script.decide("faces_seen", part, choice, reason, wait=1)
    script.write(
        9,
        kind="part put right",
        step="faces_seen",
        part="cylinder_2",
        how="honed, 40 strokes, washed with hot water and soap",
    )
    script.write(
        2,
        kind="part put right",
        step="faces_seen",
        part="block_face",
        how="chased and blown out, threads bright",
    )
    faces_seen(script, "rods_seen", {})
    script.done("mounts_seen", "rear_seal_seen", "faces_seen", "rods_seen")


def gearbox_inspected(script: Script, morning: datetime) -> None:
    """From the bell bolts to the bench: opened, traced, seen face by face, decided; one thing left
    to decide.
    """
    _to_the_bench(script)
    script.done(
        "box_on_bench",
        "shaft_play_felt",
        "covers_off",
        "selectors_out",
        "shafts_out",
        "bearings_off",
        minutes=14,
    )
    script.clock.now = morning
    _outside_seen(script)
    _debris_traced(script)
    _causes_weighed(script)
    faces_seen(script, "gears_seen", RINGS)
    script.decide(
        "gears_seen",
        "hub_34",
        "replace",
        "The ring tips are worn to one side, 3rd crunched for a year.",
        wait=3,
        price=74,
    )
    script.decide("gears_seen", "forks", "reuse", "0.1 mm step, the book allows 0.4.", wait=2)
    script.done("gears_seen")
    for step, reading, typed in MEASURED:
        script.read(step, reading, typed, tool="f1", wait=3)


def _to_the_bench(script: Script) -> None:
    """The box comes off its jack onto four blocks; two stands and timber take the engine."""
    script.done("bell_bolts_out", "box_out", minutes=15)
    jack = {
        "kind": "supported",
        "support": "t5",
        "support_kind": "jack",
        "carries": "gearbox",
        "point": "gearbox, front of the case",
    }
    script.write(5, **jack, gone=True)
    script.write(
        1,
        kind="supported",
        support="t6",
        support_kind="cradle",
        carries="gearbox",
        point="bench, four blocks",
        ground="hard",
    )
    for support, kind, point in (
        ("t7", "stand", "bell housing"),
        ("t8", "timber", "rails of the block"),
    ):
        script.write(
            1,
            kind="supported",
            support=support,
            support_kind=kind,
            carries="engine",
            point=point,
            ground="hard",
        )
    script.write(
        1,
        kind="supported",
        support="engine_held-engine-jack-1",
        support_kind="jack",
        carries="engine",
        point="bell housing",
        gone=True,
    )


def _outside_seen(script: Script) -> None:
    faces_seen(script, "box_outside_seen", OUTSIDE)
    faces_seen(script, "release_seen", {})
    script.decide(
        "box_outside_seen",
        "box_shell",
        "deeper",
        "Bearing steel on the plug: open the box.",
        wait=2,
    )
    script.decide(
        "box_outside_seen", "box_shell", "clean", "Opened, traced; case washed out.", wait=1
    )
    script.write(
        1,
        kind="part put right",
        step="box_outside_seen",
        part="box_shell",
        how="washed twice, magnet bright",
    )
    script.write(
        1, kind="finding", step="box_outside_seen", part="box_shell", face="plug", cleaning="washed"
    )
    script.decide(
        "box_outside_seen",
        "box_seals",
        "replace_open",
        "30 years old and stiff; the box is open.",
        wait=1,
        price=8,
    )
    script.done("box_outside_seen", "release_seen")


def _debris_traced(script: Script) -> None:
    script.write(8, kind="traced", step="debris_traced", station="lay_front")
    faces_seen(script, "debris_traced", DEBRIS)
    before = next(part for part in DECIDED if part[0] == "lay_gears")
    script.decide("debris_traced", before[0], "reuse", "Drive side is clean as a whistle.", wait=4)
    for part, choice, reason, price, wrong in DECIDED:
        script.decide("debris_traced", part, choice, reason, wait=3, price=price, wrong=wrong)
    for feature, old, new, same in BESIDE:
        script.write(
            2,
            kind="laid beside",
            step="debris_traced",
            part="lay_front",
            feature=feature,
            old=old,
            new=new,
            same=same,
        )


def _causes_weighed(script: Script) -> None:
    """Two explanations, with what speaks for each and against it."""
    script.write(
        2,
        kind="cause",
        cause="oil",
        what="Run low on oil: the level plug was dry",
        step="debris_traced",
    )
    script.write(
        1, kind="evidence", cause="oil", sort="for", text="1.1 L came out, 2.0 L belong in"
    )
    script.write(
        1, kind="evidence", cause="oil", sort="against", text="No heat tint on any gear or seat"
    )
    script.write(
        1,
        kind="evidence",
        cause="oil",
        sort="would settle",
        text="Where the oil went: rear seal dry, vent wet. Look at the vent hose",
    )
    script.write(
        1,
        kind="cause",
        cause="fit",
        what="Bearing loose on its seat from the last rebuild",
        step="debris_traced",
    )
    script.write(1, kind="evidence", cause="fit", sort="for", text="Fretting on the seat, grade 1")
    script.write(
        1,
        kind="evidence",
        cause="fit",
        sort="varied",
        text="Other make of bearing at the last rebuild",
    )
    script.write(1, kind="evidence", cause="fit", sort="changed", text="Other oil at the same time")


def faces_seen(script: Script, step: str, found: dict[str, dict[str, Look]]) -> None:
    """Every face of a step is seen: what `found` names, and nothing on the others."""
    facts: Any = bench(script.workshop, script.build, step)
    for part in facts.inspection.parts:
        for face in part.faces:
            look = found.get(part.id, {}).get(face.id)
            seen = (
                {"code": look[0], "grade": look[1], "cleaning": look[2]}
                if look
                else {"cleaning": "washed"}
            )
            script.write(
                1,
                kind="finding",
                step=step,
                part=part.id,
                face=face.id,
                method="lamp from the side" if look else "eye",
                **seen,
            )
