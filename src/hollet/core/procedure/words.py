"""Words that sheets are made of: the nine stages, the seven rungs, ids, and the base of every part
of a sheet.
"""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

__all__ = [
    "DANGERS",
    "KINDS_OF_REASON",
    "KIND_WORDS",
    "RUNGS",
    "SEATINGS",
    "SIGNS",
    "STAGES",
    "STAGE_RANK",
    "THREADS",
    "TIES",
    "VEHICLE_STATES",
    "WIRE_STATES",
    "Carried",
    "Ground",
    "Hours",
    "Id",
    "Money",
    "MoveWay",
    "Part",
    "Prose",
    "ReasonKind",
    "ReasonOrigin",
    "Rung",
    "Seating",
    "Sign",
    "Stage",
    "SupportKind",
    "ThreadState",
    "TieKind",
    "VehicleState",
    "WireState",
    "Words",
]

STAGES = {
    "plan": "Plan",
    "take_down": "Take down",
    "inspect": "Inspect",
    "order": "Order",
    "prepare": "Prepare",
    "build_up": "Build up",
    "fit_in": "Fit in",
    "wake": "Wake",
    "settle": "Settle",
}
STAGE_RANK = {stage: k for k, stage in enumerate(STAGES)}
RUNGS = {
    "power_on": "Power on",
    "crank": "Crank",
    "fuel_on": "Fuel on",
    "fire": "Fire",
    "run_on": "Run on",
    "gear": "Gear",
    "drive": "Drive",
}
Stage = Literal[
    "plan", "take_down", "inspect", "order", "prepare", "build_up", "fit_in", "wake", "settle"
]
Rung = Literal["power_on", "crank", "fuel_on", "fire", "run_on", "gear", "drive", "nothing"]
ReasonKind = Literal[
    "access closes",
    "safety",
    "setting kept",
    "contamination",
    "load needed",
    "stored energy",
    "drying",
    "spill",
]
KINDS_OF_REASON = (
    "access closes",
    "safety",
    "setting kept",
    "contamination",
    "load needed",
    "stored energy",
    "drying",
    "spill",
)
DANGERS = ("safety", "load needed", "stored energy")
"""Kinds of reason that nothing passes but the thing itself; a spill of fuel or brake fluid is one
too.
"""
ReasonOrigin = Literal["sheet", "said", "turned", "assumed"]
"""Where a reason comes from: the sheet, somebody's word, a take-down reason turned round, or only
the order in which things came off.
"""
SupportKind = Literal[
    "stand", "jack", "hook", "cradle", "cart", "wheels", "ramp", "timber", "helper", "mounts"
]
KIND_WORDS: dict[SupportKind, str] = {
    "stand": "stand",
    "jack": "jack",
    "hook": "hook",
    "cradle": "cradle",
    "cart": "cart",
    "wheels": "its own wheel",
    "ramp": "ramp",
    "timber": "timber",
    "helper": "a helper's hands",
    "mounts": "its own mounts",
}
Carried = Literal["vehicle", "engine", "gearbox", "powertrain", "axle", "hub", "other"]
MoveWay = Literal["up", "down", "in", "out", "left", "right", "nose up", "nose down"]
TieKind = Literal[
    "battery",
    "fuel",
    "engine_oil",
    "coolant",
    "box_oil",
    "clutch",
    "throttle",
    "cruise",
    "servo_hose",
    "loom",
    "earths",
    "starter_lead",
    "steering_pump",
    "aircon",
    "exhaust",
    "propeller_shafts",
    "drive_shafts",
    "gear_lever",
    "speed_drive",
    "links_below",
    "in_the_way",
    "bell",
    "mounts",
]
TIES: dict[TieKind, str] = {
    "battery": "battery lead",
    "fuel": "fuel feed and return",
    "engine_oil": "engine oil and its lines",
    "coolant": "coolant and heater hoses",
    "box_oil": "gearbox oil and its lines",
    "clutch": "clutch actuation",
    "throttle": "throttle",
    "cruise": "cruise rod and choke",
    "servo_hose": "vacuum and brake-servo hoses",
    "loom": "loom, senders, switches",
    "earths": "earth straps",
    "starter_lead": "starter and alternator leads",
    "steering_pump": "steering pump",
    "aircon": "air-conditioning compressor",
    "exhaust": "exhaust",
    "propeller_shafts": "propeller shafts",
    "drive_shafts": "drive shafts",
    "gear_lever": "gear lever, shift rods, selector cables",
    "speed_drive": "speedometer drive",
    "links_below": "roll bar, steering link, member below",
    "in_the_way": "fan, radiator, bonnet",
    "bell": "bell-housing bolts",
    "mounts": "mounts",
}
"""What ties a unit to the vehicle, in the order in which it is walked round."""
VehicleState = Literal["ride height", "assembled", "warm", "cranking", "driven", "cold"]
VEHICLE_STATES = {
    "ride height": "it is read with the vehicle on its wheels at ride height",
    "assembled": "it is read before anything is taken off",
    "warm": "its figures are for a warm engine",
    "cranking": "it is read while the starter turns",
    "driven": "it is looked at after a drive",
    "cold": "it is looked at cold, once it has been hot",
}
Ground = Literal["hard", "soft", "slope", "unknown"]
Id = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]{0,59}$")]
Words = Annotated[str, Field(min_length=1, max_length=400)]
Prose = Annotated[str, Field(min_length=1, max_length=2000)]
Hours = tuple[Annotated[float, Field(ge=0, le=500)], Annotated[float, Field(ge=0, le=500)]]
Money = tuple[Annotated[float, Field(ge=0, le=1e6)], Annotated[float, Field(ge=0, le=1e6)]]


class Part(BaseModel):
    """Base of everything in a sheet: unknown keys are a mistake, not a note; no number that is not
    finite.
    """

    model_config = ConfigDict(
        frozen=True,
        extra="forbid",
        allow_inf_nan=False,
        json_schema_serialization_defaults_required=True,
    )


Sign = Literal["heard", "seen", "read", "felt"]
SIGNS: dict[Sign, str] = {
    "heard": "click heard",
    "seen": "seen by a second person",
    "read": "read on the scale",
    "felt": "by feel, arm and length",
}
"""How somebody knows that a bolt got what it was to get."""

Seating = Literal["taper", "ball", "flat"]
SEATINGS: dict[Seating, str] = {"taper": "taper", "ball": "ball", "flat": "flat, with its washer"}
"""The face on which a wheel nut or bolt sits."""

ThreadState = Literal["clean", "chased", "insert", "new", "wet", "damaged"]
THREADS: dict[ThreadState, str] = {
    "clean": "clean, and dry where the hole is blind",
    "chased": "chased, blown out, clean",
    "insert": "with a thread insert",
    "new": "new, larger size",
    "wet": "oil or water stands in a blind hole",
    "damaged": "pulled, or a bolt sticks on its way",
}
"""How the threads of a joint are before it is drawn."""

WireState = Literal["cut", "joined", "sleeved", "proven", "tied"]
WIRE_STATES: dict[WireState, str] = {
    "cut": "cut, its end bare",
    "joined": "joined, not proven",
    "sleeved": "sleeved, not proven",
    "proven": "proven, its ties loose",
    "tied": "proven and tied",
}
"""How far a wire is mended, in the order of the work."""
