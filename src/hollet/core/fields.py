"""The fields of a calculation's input: a figure with the dimension it must have, so that a form can
ask for it in the right unit.
"""

from typing import Annotated, Any

from pydantic import Field

from hollet.core.quantities.quantity import Quantities, Quantity

__all__ = [
    "Advance",
    "Angle",
    "Angles",
    "Area",
    "Current",
    "Density",
    "Expansion",
    "Force",
    "Length",
    "Lengths",
    "Mass",
    "Percent",
    "Power",
    "Pressure",
    "Pressures",
    "Ratio",
    "Resistance",
    "SpecificHeat",
    "Speed",
    "Stiffness",
    "Temperature",
    "Temperatures",
    "Threads",
    "Time",
    "Times",
    "Torque",
    "Torques",
    "TorsionalRate",
    "Unbalance",
    "Viscosity",
    "Voltage",
    "Volume",
    "WarmingRate",
    "one_of",
]

Advance = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "advance"})]
Angle = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "angle"})]
Angles = Annotated[Quantities | None, Field(json_schema_extra={"dimension": "angle"})]
Area = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "area"})]
Current = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "current"})]
Density = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "density"})]
Expansion = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "expansion"})]
Force = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "force"})]
Length = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "length"})]
Lengths = Annotated[Quantities | None, Field(json_schema_extra={"dimension": "length"})]
Mass = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "mass"})]
Percent = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "percent"})]
Power = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "power"})]
Pressure = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "pressure"})]
Pressures = Annotated[Quantities | None, Field(json_schema_extra={"dimension": "pressure"})]
Ratio = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "ratio"})]
Resistance = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "resistance"})]
SpecificHeat = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "specific heat"})]
Speed = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "speed"})]
Stiffness = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "stiffness"})]
Temperature = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "temperature"})]
Temperatures = Annotated[Quantities | None, Field(json_schema_extra={"dimension": "temperature"})]
Threads = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "threads"})]
Time = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "time"})]
Times = Annotated[Quantities | None, Field(json_schema_extra={"dimension": "time"})]
Torque = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "torque"})]
Torques = Annotated[Quantities | None, Field(json_schema_extra={"dimension": "torque"})]
TorsionalRate = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "torsional rate"})]
Unbalance = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "unbalance"})]
Viscosity = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "viscosity"})]
Voltage = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "voltage"})]
Volume = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "volume"})]
WarmingRate = Annotated[Quantity | None, Field(json_schema_extra={"dimension": "warming rate"})]


def one_of(*options: str) -> Any:
    """A text field that takes one of these words; the calculation itself refuses others, with its
    own code.
    """
    return Field(json_schema_extra={"options": list(options)})
