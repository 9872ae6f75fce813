"""What a part may be safety-critical for, and the rung that it keeps shut."""

from typing import Literal

__all__ = ["SAFETY_NAMES", "Safety", "shut_by", "shut_words"]

Safety = Literal[
    "steering", "brakes", "suspension", "wheels", "shafts", "fuel", "restraints", "lifting"
]
"""What a part or limit may be safety-critical for: outside or bad, a rung stays shut until it is
replaced or inspected.
"""
SAFETY_NAMES: dict[str, str] = {
    "none": "nothing of these",
    "steering": "steering",
    "brakes": "brakes",
    "suspension": "suspension or a spring",
    "wheels": "wheels or hubs",
    "shafts": "drive shafts",
    "fuel": "fuel",
    "restraints": "belts or airbags",
}
"""What a part added by hand is asked about; lifting gear is no part of the vehicle."""


def shut_by(safety: str) -> str:
    """The rung that a safety part shuts until it is replaced or inspected."""
    return "fuel_on" if safety == "fuel" else "drive"


def shut_words(safety: str) -> str:
    """What stays shut because of a safety part, as a mechanic says it; worn lifting gear keeps a
    lift from being ready.
    """
    return {"fuel": "fuel on", "lifting": "ready to lift"}.get(safety, "drive")
