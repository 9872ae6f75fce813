"""The engine of One measured through: four bores mapped, five mains by strip, eight rod shells; one
too close, one outside, one accepted.
"""

from hollet.services.demo_script import Script

__all__ = ["engine_figures", "engine_measured"]

NOT_HERE = ("main_journals", "rod_sides", "deck", "lash")
FIGURES: tuple[tuple[str, dict[str, str]], ...] = (
    ("bore_taper", {"hi": "0.030"}),
    ("bore_round", {"hi": "0.020"}),
    ("bore_worn", {"hi": "0.080"}),
    ("main_strip", {"lo": "0.015", "hi": "0.075", "target": "0.040"}),
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
STRIPS = ("0.038", "0.044", "0.051", "0.063", "0.044")
SHELLS = (("1.496", "1.495"), ("1.497", "1.494"), ("1.495", "1.470"), ("1.496", "1.496"))


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
    for main, typed in enumerate(STRIPS, start=1):
        script.read("main_strips", f"strip_{main}", typed, tool="g1", wait=4)
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
