"""Every calculation is a pure function from one input model to one result model, registered by name.

From this one table come `POST /api/compute/{name}`, `hollet compute NAME` and the list of bench tools.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

from hollet.core.errors import NotFound, Refused
from hollet.core.quantities.quantity import Quantities, Quantity, canonical, canonicals

__all__ = ["CALCULATIONS", "Calculation", "Counted", "Input", "Result", "calculation", "compute", "names"]


class Input(BaseModel):
    """Base of all input models; unknown fields are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    def figure(self, field: str) -> float:
        """A field in the canonical unit of its dimension; refuses `not_a_finite_number` and `dimension_mismatch`."""
        return canonical(getattr(self, field), self._dimension(field), field)

    def positive(self, field: str) -> float:
        """Like `figure`, refused (`not_positive`) unless above zero."""
        found = self.figure(field)
        if found <= 0:
            raise Refused("not_positive", f"'{field}' must be above zero", field=field)
        return found

    def figures(self, field: str) -> list[float]:
        """Like `figure`, of a field with several figures."""
        return canonicals(getattr(self, field), self._dimension(field), field)

    @classmethod
    def _dimension(cls, field: str) -> str:
        extra = cls.model_fields[field].json_schema_extra
        assert isinstance(extra, dict), field
        return str(extra["dimension"])


class Result(BaseModel):
    """Base of all results; `working` is the arithmetic with the caller's own figures."""

    model_config = ConfigDict(frozen=True)
    working: tuple[str, ...] = ()


class Counted(BaseModel):
    """Whole numbers that count places, such as `position` or `order`."""

    model_config = ConfigDict(frozen=True)
    value: tuple[int, ...]
    unit: str


@dataclass(frozen=True, slots=True)
class Calculation:
    """One registered calculation."""

    name: str
    title: str
    takes: type[Input]
    gives: type[Result]
    run: Callable[[Any], Result]


CALCULATIONS: dict[str, Calculation] = {}
In = TypeVar("In", bound=Input)
Out = TypeVar("Out", bound=Result)


def calculation(title: str) -> Callable[[Callable[[In], Out]], Callable[[In], Out]]:
    """Register a function under its own name."""

    def register(function: Callable[[In], Out]) -> Callable[[In], Out]:
        hints = {key: value for key, value in function.__annotations__.items() if key != "return"}
        (takes,) = hints.values()
        gives = function.__annotations__["return"]
        CALCULATIONS[function.__name__] = Calculation(function.__name__, title, takes, gives, function)
        return function

    return register


def names() -> list[str]:
    """The names of all calculations, sorted."""
    _load()
    return sorted(CALCULATIONS)


def compute(name: str, data: dict[str, Any]) -> dict[str, Any]:
    """Run one calculation on JSON-like data and give JSON-like data back.

    Raises
    ------
    NotFound
        No calculation has that name.
    Refused
        The calculation's own reason codes, or `bad_input` with the field.
    """
    _load()
    if name not in CALCULATIONS:
        raise NotFound("calculation", name)
    entry = CALCULATIONS[name]
    try:
        given = entry.takes.model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        field = ".".join(str(part) for part in first["loc"]) or "input"
        code = "not_a_finite_number" if first["type"] in ("missing", "finite_number", "float_type") else "bad_input"
        raise Refused(code, f"'{field}': {first['msg']}", field=field) from error
    return as_door(entry.run(given))


def as_door(result: Result) -> dict[str, Any]:
    """A result in the form of every door: each figure as `{"value", "unit"}`, other answers as `{"value"}`."""
    door: dict[str, Any] = {}
    for key in type(result).model_fields:
        value = getattr(result, key)
        if key == "working":
            door[key] = list(value)
        elif isinstance(value, dict):
            door |= {name: _leaf(item) for name, item in value.items()}
        elif value is not None:
            door[key] = _leaf(value)
    return door


def _leaf(value: Any) -> dict[str, Any]:
    if isinstance(value, Quantity | Quantities):
        return value.model_dump()
    if isinstance(value, Counted):
        return {"value": list(value.value), "unit": value.unit}
    if isinstance(value, float):
        return {"value": "infinity" if math.isinf(value) else value, "unit": "1"}
    if isinstance(value, tuple):
        return {"value": list(value)} | ({"unit": "1"} if any(isinstance(item, float) for item in value) else {})
    return {"value": value}


def _load() -> None:
    """Import the families, which register themselves on the first use and not at start-up."""
    from hollet.core import running, verdicts  # noqa: F401
    from hollet.core.fitting import lengths  # noqa: F401
    from hollet.core.measuring import (  # noqa: F401
        alignment,
        belts,
        bores,
        compression,
        driveline,
        electrics,
        fluids,
        gaps,
        gears,
        ignition,
        journals,
        steering,
        suspension,
        valves,
    )  # fmt: skip
    from hollet.core.quantities import convert  # noqa: F401
    from hollet.core.tightening import adapters, generic, patterns  # noqa: F401
