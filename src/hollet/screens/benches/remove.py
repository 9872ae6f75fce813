"""The bench at which something comes off."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.book.bags import BagContent, bag_contents, next_bag, recent_hand
from hollet.core.book.passing import reason_keys
from hollet.core.entries import BookState
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.remove import RemoveStep
from hollet.core.procedure.pieces import BagLine
from hollet.core.view import View
from hollet.screens.benches.base import BenchBase

__all__ = ["RemoveBench", "remove_bench"]


class RemoveBench(View):
    """Take it off, fasteners into a bag; `usual`: the sheet proposes what is usual, nobody counted
    it.
    """

    kind: Literal["remove"] = "remove"
    base: BenchBase
    primary: str
    proposed: tuple[BagLine, ...]
    usual: bool
    next_bag: int
    bags: tuple[BagContent, ...]
    bagged: tuple[BagContent, ...]
    recent: tuple[BagLine, ...]
    places: tuple[str, ...]
    bag_keys: tuple[str, ...]


def remove_bench(
    state: BookState, step: RemoveStep, tools: Sequence[Instrument], base: BenchBase
) -> RemoveBench:
    bags = bag_contents(state)
    sizes, places = recent_hand(state)
    return RemoveBench(
        base=base,
        primary=step.pressed(),
        proposed=step.bagged(),
        usual=any(spec.counted is False for spec in step.bag_specs()),
        next_bag=next_bag(bags),
        bags=bags,
        recent=sizes,
        places=places,
        bag_keys=reason_keys("bag"),
        bagged=tuple(bag for bag in bags if bag.owner == step.id),
    )
