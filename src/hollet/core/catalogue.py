"""All calculations by name: from this one table come `POST /api/compute/{name}`, `hollet compute
NAME` and the list of bench tools.
"""

from typing import Any

from pydantic import ValidationError

from hollet.core.errors import NotFound, Refused
from hollet.core.registry import CALCULATIONS, as_door

__all__ = ["compute", "names"]


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
        code = (
            "not_a_finite_number"
            if first["type"] in ("missing", "finite_number", "float_type")
            else "bad_input"
        )
        raise Refused(code, f"'{field}': {first['msg']}", field=field) from error
    return as_door(entry.run(given))


def _load() -> None:
    """Import the families, which register themselves on the first use and not at start-up."""
    from hollet.core import budgets, buying, pairs, slips, verdicts  # noqa: F401
    from hollet.core.fitting import heating, lengths, pairing, shims, valve_shims  # noqa: F401
    from hollet.core.lifting import bearing, links, slings  # noqa: F401
    from hollet.core.measuring import (  # noqa: F401
        alignment,
        belts,
        bores,
        compression,
        conversions,
        driveline,
        electrics,
        flow,
        fluids,
        gaps,
        gears,
        ignition,
        journals,
        mixing,
        pinion,
        rings,
        springs,
        steering,
        suspension,
        valves,
    )
    from hollet.core.running import rules, watch  # noqa: F401
    from hollet.core.scheduling import pace, plans  # noqa: F401
    from hollet.core.tightening import (  # noqa: F401
        adapters,
        even,
        generic,
        patterns,
        preload,
        rounds,
        trace,
    )
