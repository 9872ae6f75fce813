"""What is looked at on one walk round a unit that is in: place by place, each thing by its kind."""

from typing import Literal

from hollet.core.procedure.words import Id, Part, Words

__all__ = ["SWEPT", "Sweep", "SweepKind"]

SweepKind = Literal["trapped", "crimped", "clip", "on", "connected", "in", "out", "clear"]
SWEPT: dict[SweepKind, tuple[str, str]] = {
    "trapped": ("free", "trapped"),
    "crimped": ("whole", "crimped"),
    "clip": ("on its clip", "off its clip"),
    "on": ("on, both ends", "off"),
    "connected": ("connected", "not connected"),
    "in": ("in", "not in"),
    "out": ("out", "still in"),
    "clear": ("clear", "touches"),
}
"""How a thing of each kind is found: as it should be, and as it should not."""


class Sweep(Part):
    """One thing at one place of the walk."""

    id: Id
    at: Words
    what: Words
    kind: SweepKind
