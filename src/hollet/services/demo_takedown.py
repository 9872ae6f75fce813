"""What the demo writes while the engine of One comes out: moves in order, what was kept as found,
supports and one stop.
"""

from typing import Any

__all__ = [
    "AFTER_STEP",
    "AS_FOUND",
    "ENGINE_OF_TWO",
    "LIFTS",
    "NEW_BOLTS",
    "PINS",
    "SAID",
    "TAKE_DOWN",
    "UNDER_TWO",
]

IN_THE_WAY = {"because": "it is in the way of the next", "reason_kind": "access closes"}
SPILLS = {"because": "it would spill", "reason_kind": "spill"}
LIVE = {"because": "it would be live or move", "reason_kind": "safety"}
NEW_BOLTS = ("head_bolts_tight", "rod_bolts_tight")
"""Joints whose bolts are used once: the old ones stay in their bag."""

Move = str | tuple[str, str, str | None, dict[str, str] | None]
TAKE_DOWN: tuple[tuple[int, tuple[Move, ...]], ...] = (
    (23, ("limits_read", "weight_known", "tools_laid", "soak_evening", "bay_photographed")),
    (
        22,
        (
            "battery_off",
            "vehicle_raised",
            "fuel_capped",
            "engine_oil_out",
            "coolant_out",
            "bonnet_off",
            ("Washer tank", "2 m6x16", "in the crate", None),
            ("Air filter box", "3 m6x20; 4 clips", "on the shelf", IN_THE_WAY),
            ("Intake hose", "2 hose clips", "on the shelf", IN_THE_WAY),
            (
                "Fan cowl",
                "3 m6x12; 1 m6x20, long one under the top hose",
                "in the crate",
                IN_THE_WAY,
            ),
            ("Fan", "4 m6x16", "in the crate", IN_THE_WAY),
            ("Fan belt", "", "hung up on wire", None),
            ("Upper water hose", "2 hose clips", "in the crate", SPILLS),
            ("Lower water hose", "2 hose clips", "in the crate", SPILLS),
            "radiator_off",
            "bay_stripped",
            "throttle_off",
            "servo_hose_off",
            ("Heater hoses", "4 hose clips", "in the crate", SPILLS),
            ("Throttle cable bracket", "2 m6x20", "hung up on wire", IN_THE_WAY),
            "wires_off",
            ("Oil pressure switch", "1 m10x1", "in the crate", LIVE),
            "slave_aside",
            "spark_isolated",
        ),
    ),
    (
        21,
        (
            ("Starter heat shield", "3 m8x16", "in the crate", IN_THE_WAY),
            "exhaust_pipe_off",
            ("Exhaust bracket at the gearbox", "2 m8x25; 1 m8x40 p3", "in the crate", IN_THE_WAY),
            "starter_off",
            "earths_off",
            "links_below_off",
            "earth_strap_at_the_bulkhead",
            ("Tin cover under the bell housing", "4 m6x12", "in the crate", IN_THE_WAY),
            "gearbox_held",
            "lift_points_on",
            "bell_bolts_out",
            ("Right mount heat shield", "2 m8x16", "in the crate", IN_THE_WAY),
            "mounts_undone",
            "engine_up",
            "unit_set_down",
            "cover_off",
        ),
    ),
    (
        20,
        (
            "inlet_off",
            ("Heat shield over the manifold", "3 m8x20", "on the shelf", IN_THE_WAY),
            "exhaust_off",
            (
                "Alternator",
                "2 m8x35; 1 m8x90, special: with a long collar",
                "on the shelf",
                IN_THE_WAY,
            ),
            ("Alternator bracket", "2 m10x40; 1 m10x25 p3", "in the crate", IN_THE_WAY),
            ("Thermostat housing", "2 m8x25; 1 m8x60 p2", "in the crate", None),
            ("Water pipe along the block", "2 m6x16", "hung up on wire", IN_THE_WAY),
            ("Dipstick tube", "1 m6x16", "in the crate", IN_THE_WAY),
            ("Distributor cap and leads", "2 clips", "in the crate", None),
            "plugs_out",
            "rocker_cover_off",
            "lash_found",
            "chain_held",
            "rocker_off",
            "chain_wheel_off",
        ),
    ),
    (19, ("head_bolts_out", "head_off", "sump_off", "pistons_out")),
)

SAID = {
    "unit_weight": "142 kg",
    "gear_rating": "300 kg",
    "hook_height": "2050 mm",
    "height_needed": "1780 mm",
    "earths_found": "3 pc",
    "box_weight": "46 kg",
    "box_jack": "500 kg",
    "leaves_left": "7 pc",
    "leaves_right": "7 pc",
}
"""What was said before a lift: One's engine without the gearbox, arm drawn out one hole, the unit
over the wing; Two's gearbox with its transfer case.
"""

LIFTS: dict[str, dict[str, Any]] = {
    "lift_points_on": {
        "what": "Engine without its gearbox",
        "mass": "142 kg",
        "mass_from": "book",
        "legs": 2,
        "leg": "600 mm",
        "apart": "480 mm",
        "hook": "1780 mm",
        "reach": "2050 mm",
        "elements": [
            {"name": "hoist, arm out one hole", "limit": "300 kg", "where": "top"},
            {
                "name": "lifting eyes",
                "limit": "400 kg",
                "left": 0.7,
                "why": "pulled at a slant",
                "where": "leg",
            },
            {"name": "sling S2", "limit": "500 kg", "where": "leg"},
        ],
    },
    "box_out": {
        "what": "Gearbox with its transfer case",
        "mass": "46 kg",
        "mass_from": "weighed",
        "legs": 1,
        "elements": [
            {"name": "gearbox jack", "limit": "500 kg", "where": "top"},
            {"name": "strap round the case", "limit": "250 kg", "where": "leg"},
        ],
    },
}
"""How a unit hangs or stands on its jack, said before the lift."""

AS_FOUND: dict[str, dict[str, Any]] = {
    "bay_photo": {"picture": "bay"},
    "bell_map": {"picture": "bay"},
    "shaft_straight": {"strokes": 4, "place": "white paint across column, joint and box shaft"},
    "forks_phase": {"picture": "starter"},
    "bonnet_marks": {"strokes": 3, "place": "felt pen round both hinge plates"},
    "loom_map": {
        "wires": [
            {"terminal": "temperature sender", "colour": "green/yellow"},
            {"terminal": "oil pressure switch", "colour": "black/white"},
            {"terminal": "coil +", "colour": "black"},
            {"terminal": "coil -", "colour": "green"},
            {"terminal": "fan switch", "colour": "green/yellow", "note": "the thicker one"},
        ],
        "words": "tape flags A to E on the loom",
    },
    "starter_wires": {
        "picture": "starter",
        "wires": [
            {"terminal": "B", "colour": "black, thick"},
            {"terminal": "50", "colour": "red/white"},
            {"terminal": "lower stud", "colour": "brown"},
        ],
    },
    "chain_marks": {"strokes": 2, "place": "white paint on link 1 and on the wheel"},
    "rocker_photo": {"picture": "rockers"},
    "prop_mark": {"strokes": 3, "place": "punch dots, flange and yoke"},
    "front_prop_mark": {"strokes": 2, "place": "paint over both flanges"},
    "fork_photo": {"picture": "forks", "words": "offset fork to the rear"},
    "pad_marks": {"strokes": 3, "place": "paint over pad and plate", "words": "thick end to rear"},
    "hose_runs": {"picture": "spring", "words": "hose inside the frame, cable above"},
    "leaf_order": {"picture": "leaves", "words": "seven leaves, laid as they lay"},
    "shim_under": {"place": "one bag a bearing", "words": "each tied to its bearing"},
    "shim_length": {"typed": "1.24 mm", "words": "three shims together"},
    "floor_photo": {"picture": "axle", "words": "grey film, no flakes"},
    "pattern_photo": {"picture": "teeth"},
    "side_packs": {"typed": "1.80 mm", "words": "pinion side; far side 2.10"},
    "head_shim": {"typed": "1.52 mm", "words": "one piece, tied to the pinion"},
    "piston_marks": {
        "strokes": 4,
        "place": "as many strokes as the cylinder's number, on the rod, towards the front",
        "words": "caps stay with their rods",
    },
}

PINS: dict[str, tuple[tuple[int, float, float, str], ...]] = {
    "bay": (
        (1, 0.2, 0.35, "battery"),
        (2, 0.8, 0.35, "washer tank"),
        (3, 0.5, 0.85, "fan cowl"),
        (4, 0.3, 0.78, "loom over the frame"),
    ),
    "starter": ((1, 0.34, 0.26, "B"), (2, 0.58, 0.26, "50"), (3, 0.47, 0.26, "lower stud")),
    "rockers": (
        (1, 0.14, 0.32, "1 inlet"),
        (2, 0.24, 0.7, "1 exhaust"),
        (3, 0.19, 0.51, "oil hole, this pedestal"),
    ),
    "forks": (
        (1, 0.25, 0.5, "1 and 2"),
        (2, 0.5, 0.45, "3 and 4, offset to the rear"),
        (3, 0.76, 0.5, "5"),
    ),
    "bell": (
        (1, 0.3, 0.26, ""),
        (2, 0.5, 0.14, "strap here"),
        (3, 0.7, 0.26, ""),
        (4, 0.72, 0.7, "long"),
        (5, 0.5, 0.86, ""),
        (6, 0.27, 0.7, "long"),
    ),
}


def _in(
    support: str,
    kind: str,
    carries: str,
    point: str,
    padding: str | None = None,
    ground: str = "hard",
) -> dict[str, Any]:
    return {
        "kind": "supported",
        "support": support,
        "support_kind": kind,
        "carries": carries,
        "point": point,
        "padding": padding,
        "ground": ground,
    }


def _away(support: str, kind: str, carries: str, point: str) -> dict[str, Any]:
    return {**_in(support, kind, carries, point), "gone": True}


WHEELS_OFF_GROUND = tuple(
    _away(f"vehicle_raised-vehicle-wheels-{k}", "wheels", "vehicle", "on the ground")
    for k in (1, 2)
)
"""The whole vehicle is up: four stands, no wheel touches."""
AFTER_STEP: dict[str, tuple[dict[str, Any], ...]] = {
    "vehicle_raised": (
        _in("s1", "stand", "vehicle", "frame, front left", "rubber"),
        _in("s2", "stand", "vehicle", "frame, front right", "rubber"),
        _in("s3", "stand", "vehicle", "frame, rear left", "timber"),
        _in("s4", "stand", "vehicle", "frame, rear right", "timber"),
        *WHEELS_OFF_GROUND,
        {
            "kind": "vehicle stands",
            "rolls": False,
            "steers": True,
            "brakes": True,
            "starts": False,
            "bay": "bay 1",
        },
    ),
    "wires_off": (
        {
            "kind": "left open",
            "step": "wires_off",
            "item": "temp-sender",
            "what": "Temperature sender wire",
            "blocks": "fire",
            "undo": "push it on, flag A",
            "sort": "disconnected",
            "where": "taped to the loom",
        },
    ),
    "exhaust_pipe_off": (
        {
            "kind": "tried",
            "step": "exhaust_pipe_off",
            "part": "Lowest nut of the pipe flange",
            "rung": "soak",
            "time": "1440 min",
            "came": False,
        },
        {
            "kind": "tried",
            "step": "exhaust_pipe_off",
            "part": "Lowest nut of the pipe flange",
            "rung": "counter_hold",
            "time": "6 min",
            "came": False,
            "near": ["seal"],
        },
        {
            "kind": "tried",
            "step": "exhaust_pipe_off",
            "part": "Lowest nut of the pipe flange",
            "rung": "work",
            "time": "8 min",
            "came": True,
            "near": ["seal"],
        },
    ),
    "gearbox_held": (
        _in("g1", "stand", "gearbox", "gearbox, front of the case", "timber"),
        _in("g2", "timber", "gearbox", "gearbox tail"),
        _away("gearbox_held-gearbox-jack-1", "jack", "gearbox", "gearbox tail"),
    ),
    "lift_points_on": (
        _in("h1", "hook", "engine", "front lifting eye"),
        _in("h2", "hook", "engine", "rear lifting eye"),
    ),
    "mounts_undone": (
        {
            "kind": "stopped",
            "why": "a storm",
            "step": "engine_up",
            "going": "up",
            "near_miss": "the door slammed against the hoist",
            "people_left": 1,
        },
        {"kind": "surroundings", "around": ["wind", "dark"]},
        {
            "kind": "secured",
            "item": "people",
            "what": "Everybody out from under, hands out of the gap",
        },
        {
            "kind": "secured",
            "item": "weather",
            "what": "Bonnet and doors shut or tied, tarp over the bay",
        },
        {"kind": "gone on", "note": "two hours later, doors wedged"},
        {"kind": "surroundings", "around": []},
    ),
    "unit_set_down": (
        _in("e1", "cradle", "engine", "rails of the block", "timber"),
        _away("h1", "hook", "engine", "front lifting eye"),
        _away("h2", "hook", "engine", "rear lifting eye"),
    ),
}

UNDER_TWO: tuple[dict[str, Any], ...] = (
    _in("t1", "stand", "vehicle", "frame, front left", "timber"),
    _in("t2", "stand", "vehicle", "frame, front right", "timber"),
    _in("t3", "stand", "vehicle", "frame, rear left", "timber"),
    _in("t4", "stand", "vehicle", "frame, rear right", "timber"),
    *WHEELS_OFF_GROUND,
    _in("t5", "jack", "gearbox", "gearbox, front of the case", "timber"),
    {
        "kind": "vehicle stands",
        "rolls": False,
        "steers": True,
        "brakes": True,
        "starts": False,
        "bay": "bay 2",
    },
)
"""What stands under Two: the gearbox hangs on a jack alone, which may not stay so overnight."""

ENGINE_OF_TWO: tuple[dict[str, Any], ...] = (
    _in("engine_held-engine-jack-1", "jack", "engine", "rails of the block", "timber"),
    _in("engine_held-engine-timber-1", "timber", "engine", "bell housing"),
)
"""Where the jack and the timber stand that hold the engine of Two at the rear."""
