"""Every calculation is a pure function from one input model to one result model, registered by
name; `catalogue` runs them.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import Quantities, Quantity, canonical, canonicals

__all__ = ["CALCULATIONS", "Calculation", "Counted", "Input", "Result", "as_door", "calculation"]


class Input(BaseModel):
    """Base of all input models; unknown fields are refused."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    def figure(self, field: str) -> float:
        """A field in the canonical unit of its dimension; refuses `not_a_finite_number` and
        `dimension_mismatch`.
        """
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
        CALCULATIONS[function.__name__] = Calculation(
            function.__name__, title, takes, gives, function
        )
        return function

    return register


def as_door(result: Result) -> dict[str, Any]:
    """A result in the form of every door: each figure as `{"value", "unit"}`, other answers as
    `{"value"}`.
    """
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
        return {"value": list(value)} | (
            {"unit": "1"} if any(isinstance(item, float) for item in value) else {}
        )
    return {"value": value}
