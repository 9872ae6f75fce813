"""The shop of the demo: its gear, its tools, and how they were checked and tried."""

from hollet.core.entries import GearEdited
from hollet.services.gear import edit_gear
from hollet.services.tools import check_tool, edit_tool, presets, try_tool
from hollet.services.workshop import Workshop

__all__ = ["fill_shop", "tools_tried"]

GEAR = (
    ("axle stands", "owned", None, None),
    ("trolley jack", "owned", None, None),
    ("wheel chocks", "owned", None, None),
    ("timber", "owned", None, None),
    ("engine hoist", "borrowed", "Brackwater garage", None),
    ("rated sling", "owned", None, None),
    ("guide studs", "owned", None, None),
    ("ring compressor", "borrowed", "TR", None),
    ("seal driver", "owned", None, None),
    ("bearing puller", "broken", None, None),
    ("transmission jack", "missing", None, None),
    ("circlip pliers", "owned", None, None),
)
TOOLS: tuple[tuple[str, str, str, dict[str, str]], ...] = (
    ("c1", "C1", "digital caliper 150 mm, outside jaws", {}),
    (
        "m3",
        "M3",
        "micrometer 75-100 mm, 0.001",
        {"mpe": "0.002", "zero_error": "0.002", "checked": "2026-02-10", "source": "certificate"},
    ),
    (
        "b1",
        "B1",
        "bore gauge 50-150 mm, 0.002",
        {"mpe": "0.003", "setting_s": "0.001", "source": "certificate"},
    ),
    (
        "m2",
        "M2",
        "micrometer 0-25 mm, 0.001",
        {"lo": "25", "hi": "50", "name": "micrometer 25-50 mm, 0.001"},
    ),
    ("m1", "M1", "micrometer 0-25 mm, 0.001", {}),
    ("g1", "G1", "plastic thread gauge strip", {"lo": "0.02", "hi": "0.2"}),
    ("d1", "D1", "dial indicator 0.01 mm, within one turn", {"lo": "0"}),
    ("f1", "F1", "feeler leaves, 0.05 mm steps", {}),
    ("f2", "F2", "feeler leaves, 0.01 mm steps", {}),
    ("e1", "E1", "straight edge 500 mm + feeler, 0.01 mm steps", {}),
    ("t1", "T1", "caliper, inside jaws or depth rod", {"name": "depth rod 150 mm"}),
    ("r1", "R1", "steel rule 300 mm", {"hi": "1000", "name": "steel rule 1 m"}),
    ("r2", "R2", "steel rule 300 mm", {"hi": "5000", "mpe": "1", "name": "steel tape 5 m"}),
    ("a1", "A1", "digital angle gauge 0.1°", {}),
    ("v1", "V1", "multimeter on low ohms", {}),
    ("v2", "V2", "DC voltmeter, 20 V range", {}),
    ("i1", "I1", "clamp-on ammeter, direct current, 400 A", {}),
    ("j1", "J1", "measuring jug 5 L", {}),
    ("w1", "W1", "click torque wrench 40-200 N·m", {}),
    ("w2", "W2", "click torque wrench 20-100 N·m", {}),
    ("w3", "W3", "click torque wrench 5-25 N·m", {}),
    ("w4", "W4", "indicating torque wrench 20-120 N·m", {}),
    ("w6", "W6", "indicating torque wrench with angle, 10-200 N·m", {"device": "W6-0001"}),
    ("d2", "D2", "dial indicator 0.01 mm, within one turn", {"device": "D2-0001"}),
    ("p1", "P1", "oil pressure gauge with line, 0-10 bar", {"device": "P1-0001"}),
    ("k1", "K1", "coolant thermometer with sender, 0-150 °C", {"device": "K1-0001"}),
    ("n1", "N1", "rev counter, 0-9000 1/min", {"device": "N1-0001"}),
    ("l1", "L1", "timing light", {}),
)
PIN = {
    "MK": [
        "22.001",
        "22.000",
        "22.001",
        "22.002",
        "22.001",
        "22.000",
        "22.001",
        "22.001",
        "22.002",
        "22.000",
    ],
    "TR": [
        "22.000",
        "22.003",
        "22.001",
        "21.999",
        "22.002",
        "22.004",
        "22.000",
        "22.002",
        "22.001",
        "21.998",
    ],
}


def fill_shop(workshop: Workshop) -> None:
    """The gear and the tools, two of them held against a standard."""
    for name, state, whose, back_by in GEAR:
        said = GearEdited.model_validate(
            {"name": name, "state": state, "whose": whose, "back_by": back_by}
        )
        edit_gear(workshop, said, version=0, who="MK")
    known = {preset["name"]: preset for preset in presets()}
    for tool_id, code, name, own in TOOLS:
        edit_tool(
            workshop, {**known[name], "id": tool_id, "code": code, **own}, who="MK", version=0
        )
    check_tool(
        workshop,
        "m1",
        standard="gauge block",
        nominal="10",
        typed=["10.001", "10.000", "10.001"],
        keep_offset=False,
        who="MK",
    )
    check_tool(
        workshop,
        "m3",
        standard="setting rod",
        nominal="75",
        typed=["75.001", "75.000", "75.001"],
        keep_offset=False,
        who="MK",
    )


def tools_tried(workshop: Workshop) -> None:
    """The caliper fell and fails at its block; two pairs of hands read the same pin ten times with
    the small micrometer.
    """
    check_tool(
        workshop,
        "c1",
        standard="gauge block",
        nominal="25",
        typed=["25.05", "25.06", "25.05"],
        keep_offset=False,
        who="TR",
    )
    for who, pin in PIN.items():
        try_tool(workshop, "m1", thing="piston pin", typed=pin, who=who)
