"""Readings to take, and what is judged of them."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from hollet.core.procedure.words import Id, Part, Words

__all__ = ["How", "ReadingSpec", "ResultSpec", "Take"]


class ReadingSpec(Part):
    """One reading to take, with which kind of tool and about what to expect; the state of the part
    and the face it is read from.

    `nominal` is about what to expect, or `size` the limit whose target is the size of this vehicle;
    with neither nobody knows it beforehand.

    `at` places it on the drawing of the step; `twice` asks for a second reading; `changed_by` names
    steps after which it must be read again. `found` is the reading of the same before the work, and
    `pitch` what one turn of its adjuster does to it, `turned` the names of both ways. `first` is
    the reading that this one repeats after it has run, `rests` the limit that a step between two of
    them keeps once it has come to rest.
    """

    id: Id
    name: Words
    tool: str
    nominal: str | None = None
    size: Id | None = None
    place: str | None = None
    at: Annotated[tuple[Annotated[str, Field(max_length=40)], ...], Field(max_length=3)] = ()
    state: Annotated[str, Field(max_length=80)] | None = None
    datum: Annotated[str, Field(max_length=80)] | None = None
    twice: bool = False
    changed_by: tuple[Id, ...] = ()
    found: Id | None = None
    first: Id | None = None
    rests: Id | None = None
    pitch: Annotated[str, Field(max_length=20)] | None = None
    turned: tuple[Words, Words] = ("longer", "shorter")


How = Literal["largest", "smallest", "mean", "spread", "sum", "ends"]


class Take(Part):
    """What fills one field of a calculation: a reading, several readings, a fixed answer such as
    `= yes`; or a `size` of the vehicle, the target of a limit.
    """

    field: Annotated[str, Field(min_length=1, max_length=60)]
    of: Annotated[
        tuple[Annotated[str, Field(min_length=1, max_length=60)], ...], Field(max_length=60)
    ] = ()
    size: Id | None = None

    @model_validator(mode="after")
    def _one_source(self) -> "Take":
        if bool(self.of) == bool(self.size):
            raise ValueError("a field is filled by `of`, or by the `size` of the vehicle")
        return self

    def sources(self) -> tuple[str, ...]:
        """What it is filled with: ids of readings or of a size, or fixed answers."""
        return self.of or ((self.size,) if self.size else ())


class ResultSpec(Part):
    """What is judged: one reading; `minuend` - `subtrahend`; `how` of the readings `over`, less
    those of `less`; or what the calculation `calc` `gives`.

    `ends`: the smallest of `over` goes against the lower limit and the largest against the upper
    one, each less `less`.

    `through` is the result of the same step whose path this one goes on from: what is bad there
    makes this one bad. `at_once`: its readings hold together only as they were at one moment.
    `if_outside` is what is looked at before an outside is believed. `first` is the result that this
    one repeats after it has run: both stand side by side.
    """

    id: Id
    name: Words
    limit: Id
    through: Id | None = None
    if_outside: Words | None = None
    at_once: bool = False
    first: Id | None = None
    reading: Id | None = None
    minuend: Id | None = None
    subtrahend: Id | None = None
    how: How | None = None
    over: tuple[Id, ...] = ()
    less: tuple[Id, ...] = ()
    calc: Id | None = None
    takes: tuple[Take, ...] = ()
    gives: Annotated[str, Field(max_length=60)] | None = None

    def named(self) -> tuple[str, ...]:
        """The readings that it is made of, in order, each once."""
        taken = [name for take in self.takes for name in take.of if not name.startswith("=")]
        listed = (self.reading, self.minuend, self.subtrahend, *self.over, *self.less, *taken)
        return tuple(dict.fromkeys(name for name in listed if name))

    def inner(self) -> str | None:
        """The reading of what goes in, where it is one thing less one other."""
        return self.subtrahend or (self.less[0] if self.how and len(self.less) == 1 else None)

    def with_inner(self, reading: str) -> "ResultSpec":
        """The same of another part that goes in."""
        own = {"subtrahend": reading} if self.subtrahend else {"less": (reading,)}
        return self.model_copy(update=own)

    def outer(self) -> tuple[str, ...]:
        """The readings of what it goes into."""
        return (self.minuend,) if self.minuend else self.over

    def sizes(self) -> tuple[str, ...]:
        """The sizes of the vehicle that it is made of."""
        return tuple(dict.fromkeys(take.size for take in self.takes if take.size is not None))
