"""A group that is put together loose, brought to its place, and locked in an order."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field

from hollet.core.procedure.words import Id, Part, Words

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["Adjuster", "Group", "Way", "group_laws"]


class Adjuster(Part):
    """What sets the place, and is no lock: it slides, turns, or takes a stack of shims."""

    name: Words
    how: Literal["slides", "turns", "stack"]
    sets: Words


class Way(Part):
    """How a result of the place moves as the adjuster goes its positive way: with it, or against
    it.
    """

    result: Id
    way: Literal["with", "against"]


class Group(Part):
    """Members of a step that tightens, in the order in which they are locked: its own joint first,
    then `then`.

    `hand` is the step at which all of them go in by hand, `set_by` those that find the place and
    prove it. A lock counts only after them: what was tight before held the place that was to be
    found. `shut` says what the first lock takes away, `towards` which way the adjuster goes
    positive; `last` is done after the last lock. `along` are its joints as they lie from left to
    right, `ends` what stands at both sides.
    """

    hand: Id
    set_by: Annotated[tuple[Id, ...], Field(min_length=1, max_length=6)]
    then: Annotated[tuple[Id, ...], Field(max_length=8)] = ()
    adjust: Annotated[tuple[Adjuster, ...], Field(min_length=1, max_length=4)]
    shut: Words
    ways: Annotated[tuple[Way, ...], Field(max_length=8)] = ()
    towards: Words | None = None
    along: Annotated[tuple[Id, ...], Field(max_length=9)] = ()
    ends: tuple[Words, Words] | None = None
    last: Words | None = None


def group_laws(
    group: Group, own: str, after: set[str], sheet: "Sheet"
) -> Iterator[tuple[str, str]]:
    """Its steps and joints exist, its step waits for what finds the place, and a way names a length
    that is judged there.
    """
    steps = {step.id: step for step in sheet.step}
    for name in (group.hand, *group.set_by):
        if name not in steps:
            yield "group", f"'{name}' is not a step of this sheet"
        elif name not in after and name != group.hand:
            yield "group", f"it does not wait for '{name}', which finds its place"
    for name in (*group.then, *group.along):
        if sheet.find_joint(name) is None or (name == own and name in group.then):
            yield "group", f"'{name}' is not another joint of this sheet"
    judged = {r.id: r for name in group.set_by if name in steps for r in steps[name].results()}
    for way in group.ways:
        limit = sheet.find_limit(judged[way.result].limit) if way.result in judged else None
        if limit is None or limit.dimension != "length":
            yield "group", f"'{way.result}' is no length that a step of its place judges"
