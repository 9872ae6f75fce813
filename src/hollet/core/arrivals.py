"""Parts that are bought: of which sort one is, and how much of it is compared before it is free.

The sorts ship as data (`lore`): oils, gaskets, pins and washers are free once kind and count are
seen to be right; shafts, bearings and what else must fit go feature by feature.
"""

import re
from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

__all__ = ["ArrivalRule", "Care", "PartSort", "Shape", "sort_of"]

PartSort = Literal[
    "fluid",
    "gasket",
    "pin",
    "washer",
    "clip",
    "seal",
    "bolt",
    "nut",
    "shaft",
    "bearing",
    "shell",
    "gear",
    "pipe",
    "hose",
    "disc",
    "spring",
    "joint",
    "bush",
    "switch",
    "shim",
    "stuff",
    "filter",
    "other",
]
Care = Literal["press", "features"]
Shape = Literal["pipe", "bolt", "shaft", "disc", "hose", "seal", "gasket", "box"]


class ArrivalRule(BaseModel):
    """One sort of part: its name, the words by which a typed one is known, how it is drawn, how
    much of it is compared (`care`), and what of it.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")
    sort: PartSort
    name: str
    care: Care
    shape: Shape
    words: tuple[str, ...] = ()
    feature: tuple[str, ...] = Field(min_length=1)


def sort_of(name: str, rules: Sequence[ArrivalRule]) -> PartSort:
    """The sort of a part by its name: that of the last word that names one, since the last says
    what the thing is ("bearing seal" is a seal).

    Examples
    --------
    >>> rule = {"name": "", "care": "press", "shape": "box", "feature": ("size",)}
    >>> seal = ArrivalRule(sort="seal", words=("seal",), **rule)
    >>> bolt = ArrivalRule(sort="bolt", words=("bolt",), **rule)
    >>> sort_of("2 bolts for the seal", (seal, bolt)), sort_of("lamp", (seal, bolt))
    ('seal', 'other')
    """
    found: PartSort = "other"
    for word in re.findall(r"[a-z]+", name.casefold()):
        stem = word.removesuffix("s") if not word.endswith("ss") else word
        found = next((r.sort for r in rules if stem in r.words or word in r.words), found)
    return found
