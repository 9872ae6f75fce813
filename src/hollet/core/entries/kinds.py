"""Every kind of entry by its word in the log."""

from typing import Any

from hollet.core.entries import (
    around,
    asked,
    bolts,
    calendar,
    care,
    changed,
    decided,
    faults,
    fluids,
    gears,
    inspected,
    lifting,
    looks,
    machine,
    money,
    moving,
    opened,
    openers,
    packs,
    parts,
    plans,
    readings,
    rows,
    runs,
    settled,
    shop,
    sought,
    stock,
    sums,
    takedown,
    ties,
    told,
    work,
)
from hollet.core.entries.base import Body

__all__ = ["KINDS", "lifted"]

FAMILIES = (
    plans,
    work,
    readings,
    packs,
    gears,
    care,
    changed,
    sums,
    rows,
    bolts,
    lifting,
    looks,
    fluids,
    moving,
    faults,
    settled,
    opened,
    takedown,
    ties,
    told,
    decided,
    runs,
    around,
    inspected,
    parts,
    money,
    sought,
    machine,
    asked,
    openers,
    calendar,
    stock,
    shop,
)
KINDS: dict[str, type[Body]] = {
    found.called: found
    for family in FAMILIES
    for name in family.__all__
    if issubclass(found := getattr(family, name), Body) and found.called
}


def lifted(kind: str, version: int, body: dict[str, Any]) -> dict[str, Any]:
    """A body as it was kept, in today's form."""
    known = KINDS[kind]
    return known.lift(version, body) if version < known.version else body
