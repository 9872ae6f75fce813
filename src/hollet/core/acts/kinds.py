"""Every act by the word of its kind, and the union of what a hand may send."""

from typing import TYPE_CHECKING, Annotated, Any, Union, get_args

from pydantic import Field

from hollet.core.acts import (
    around,
    asked,
    bolts,
    care,
    changed,
    decided,
    faults,
    fluids,
    gauges,
    gears,
    inspected,
    joints,
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
    sent,
    settled,
    shims,
    sought,
    sums,
    takedown,
    ties,
    told,
    work,
)
from hollet.core.acts.base import Act
from hollet.core.acts.hand import Hand
from hollet.core.entries import Body, BookState

__all__ = ["ACTS", "AnyAct", "accept"]

FAMILIES = (
    work,
    readings,
    packs,
    shims,
    gears,
    care,
    changed,
    sums,
    rows,
    bolts,
    joints,
    lifting,
    looks,
    fluids,
    moving,
    faults,
    settled,
    sent,
    opened,
    takedown,
    ties,
    told,
    decided,
    runs,
    gauges,
    around,
    inspected,
    parts,
    money,
    sought,
    machine,
    asked,
    openers,
    plans,
)


def _word(act: type[Act[Any]]) -> str:
    (word,) = get_args(act.model_fields["kind"].annotation)
    return str(word)


ACTS: dict[str, type[Act[Any]]] = {
    _word(act): act
    for family in FAMILIES
    for name in family.__all__
    if isinstance(act := getattr(family, name), type) and issubclass(act, Act)
}

if TYPE_CHECKING:
    AnyAct = Act[Any]
else:
    AnyAct = Annotated[Union[tuple(ACTS.values())], Field(discriminator="kind")]  # noqa: UP007


def accept(state: BookState, act: Act[Any], hand: Hand) -> Body:
    """The body to write for an act; raises what `Act.accepted` says."""
    body: Body = act.accepted(state, hand)
    return body
