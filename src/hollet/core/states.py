"""The state in which something was read, against the state for which its figure holds: hot against
20 °C, loaded against unloaded.
"""

import re

__all__ = ["state_conflict", "temperature_of"]

OPPOSITES: tuple[tuple[str, ...], ...] = (
    ("hot", "cold"),
    ("warm", "cold"),
    ("loaded", "unloaded"),
    ("compressed", "free"),
    ("compressed", "at rest"),
    ("dry", "oiled"),
    ("dry", "wet"),
    ("clean", "dirty"),
    ("clean", "oily"),
    ("torqued", "loose"),
    ("tight", "loose"),
    ("vacuum connected", "vacuum off"),
    ("vacuum on", "vacuum off"),
    ("full", "empty"),
    ("running", "standing"),
    ("engine running", "engine off"),
)
"""Words that cannot both be so; each is looked for as a whole word."""
WARM_C = 10.0
"""Further apart than this two temperatures are two states: 10 K move 84 mm of iron by 0.01 mm."""


def temperature_of(text: str) -> float | None:
    """The temperature that a state names, in °C; hot, warm and cold without a figure name none."""
    found = re.search(
        r"(-?\d+(?:[.,]\d+)?)\s*(°\s*[CF]|deg\s*[CF])\b", text.replace("\u2212", "-"), re.IGNORECASE
    )
    if found is None:
        return None
    value = float(found.group(1).replace(",", "."))
    return (value - 32) / 1.8 if found.group(2)[-1].upper() == "F" else value


def _has(text: str, words: str) -> bool:
    return re.search(rf"(?<![\w-]){re.escape(words)}(?![\w-])", text, re.IGNORECASE) is not None


def state_conflict(said: str | None, asked: str | None) -> str | None:
    """What of two states cannot both be so, in words, or None: temperatures more than 10 K apart,
    or opposite words.
    """
    if not said or not asked:
        return None
    here, there = temperature_of(said), temperature_of(asked)
    if here is not None and there is not None and abs(here - there) > WARM_C:
        return f"read {said}, and the figure holds for {asked}"
    if (
        here is None
        and there is not None
        and there < 40
        and (_has(said, "hot") or _has(said, "warm"))
    ):
        return f"read {said}, and the figure holds for {asked}"
    if here is not None and there is None and here >= 40 and _has(asked, "cold"):
        return f"read {said}, and the figure holds for {asked}"
    for pair in OPPOSITES:
        for one, other in (pair, pair[::-1]):
            if _has(said, one) and _has(asked, other):
                return f"read {said}, and the figure holds for {asked}"
    return None
