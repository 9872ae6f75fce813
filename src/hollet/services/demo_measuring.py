"""The engine of One measured through: four bores mapped, five mains by strip, eight rod shells; one
too close, one outside, one accepted.
"""

from hollet.services.demo_script import Script

__all__ = ["engine_figures", "engine_measured", "lash_found"]

NOT_HERE = ("main_journals", "rod_sides", "deck", "deck_flat", "crank_runout_m", "lobes_seen")
FIGURES: tuple[tuple[str, dict[str, str]], ...] = (
    ("bore_taper", {"hi": "0.030"}),
    ("bore_round", {"hi": "0.020"}),
    ("bore_worn", {"hi": "0.080"}),
    ("main_strip", {"lo": "0.015", "hi": "0.075", "target": "0.040"}),
    ("bore_size", {"target": "84.000"}),
    ("shell_wall_size", {"target": "1.500"}),
    ("second_ring_gap", {"lo": "0.25", "hi": "0.45"}),
    ("rail_gap", {"lo": "0.20", "hi": "0.70"}),
    ("rod_wall", {"lo": "1.485", "hi": "1.505", "target": "1.496"}),
    ("rod_wall_pair", {"hi": "0.040"}),
)
MAP: dict[int, tuple[str, ...]] = {
    1: ("84.006", "84.009", "84.004", "84.007", "84.002", "84.003"),
    2: ("84.020", "84.041", "84.014", "84.024", "84.006", "84.009"),
    3: ("84.004", "84.006", "84.003", "84.004", "84.002", "84.002"),
    4: ("84.003", "84.006", "84.003", "84.005", "84.001", "84.002"),
}
"""Top, mid and low, each along the crank and across it."""
STRIPS = (
    ("0.038", "0.044"),
    ("0.044", "0.044"),
    ("0.051", "0.051"),
    ("0.051", "0.063"),
    ("0.044", "0.051"),
)
"""Smallest clearance at the widest place of the strip, largest at its narrowest."""
SHELLS = (("1.496", "1.495"), ("1.497", "1.494"), ("1.495", "1.470"), ("1.496", "1.496"))


LASH = {
    f"{cylinder}_{side}": "0.15 0.20" if (cylinder, side) == (3, "out") else typed
    for cylinder in range(1, 5)
    for side, typed in (("in", "0.20 0.25"), ("out", "0.25 0.30"))
}


def engine_figures(script: Script) -> None:
    """What the book says, and which of the sheet's steps this engine does not need: the crank stays
    in.
    """
    for limit, said in FIGURES:
        script.plan(
            None,
            act="limit",
            limit=limit,
            version=1,
            source="Dunlin workshop book",
            page="22",
            **said,
        )
    for step in NOT_HERE:
        script.plan(
            "The crank stays in, only the strip goes under the caps.", act="retire", step=step
        )


def lash_found(script: Script) -> None:
    """As found, cold, before anything is loosened: one exhaust valve tight, all are set later."""
    for valve, typed in LASH.items():
        script.read("lash_found", f"lash_{valve}", typed, tool="f1", wait=1)
        script.write(
            1, kind="disposition", step="lash_found", result=f"lash_{valve}_r", choice="rework"
        )


def engine_measured(script: Script) -> None:
    """Cylinder 2 tapers more than the book allows and is accepted with its clearance; main 4 is too
    close to call; one shell is worn out.
    """
    for cylinder, figures in MAP.items():
        places = [
            f"{depth}_{axis}" for depth in ("top", "mid", "low") for axis in ("along", "across")
        ]
        for place, typed in zip(places, figures, strict=True):
            script.read("bore_maps", f"b{cylinder}_{place}", typed, tool="b1", wait=1)
    script.write(
        4,
        kind="concession",
        step="bore_maps",
        result="taper_2",
        name="MK",
        recheck="at 1000 km",
        reason="Worn at the top only, the new rings seal lower. "
        "Goes with the clearance accepted for this bore.",
    )
    script.write(
        1,
        kind="disposition",
        step="bore_maps",
        result="round_2",
        choice="measure_again",
        note="with the better gauge of TR",
    )
    for main, widths in enumerate(STRIPS, start=1):
        for place, width in zip(("", "_thin"), widths, strict=True):
            script.read("main_strips", f"strip_{main}{place}", width, tool="g1", wait=2)
    for rod, pair in enumerate(SHELLS, start=1):
        for half, typed in zip(("upper", "lower"), pair, strict=True):
            script.read("rod_shells", f"s{rod}_{half}", typed, tool="m1", wait=1)
    script.write(
        2,
        kind="disposition",
        step="rod_shells",
        result="s3_lower_r",
        choice="replace",
        note="the pair, same grade",
    )
