"""What is carried from one unit to another: one row a part, its fate, its steps off and on."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Literal

from hollet.core.procedure.words import Id, Part, Rung, Words

if TYPE_CHECKING:
    from hollet.core.procedure.sheet import Sheet

__all__ = ["FATES", "PLACES", "Fate", "Row", "RowPlace", "RowsAsked", "row_laws"]

Fate = Literal["moved", "renewed", "stays", "left out"]
FATES: dict[Fate, str] = {
    "moved": "moved over",
    "renewed": "renewed",
    "stays": "stays where it is",
    "left out": "left out, blanked",
}
RowPlace = Literal["old", "vehicle", "bench", "away", "by hand", "final"]
PLACES: dict[RowPlace, str] = {
    "old": "on the old one",
    "vehicle": "in the vehicle",
    "bench": "on the bench",
    "away": "away",
    "by hand": "on the new one, by hand",
    "final": "on the new one, final",
}
RowsAsked = Literal["show", "decide", "close"]
"""What a step does with the rows: shows them, is done when every fate is decided, or when every one
of them is settled.
"""


class Row(Part):
    """A part that hangs on the old unit: what usually becomes of it, what goes with it, why it
    comes where it comes, the first rung that is shut without it, the steps that take it off and
    make it final.
    """

    id: Id
    part: Words
    usual: Literal["moved", "renewed", "stays"]
    goes_with: Words | None = None
    why: Words | None = None
    blocks: Rung
    off_at: Id | None = None
    on_at: Id


def row_laws(rows: tuple[Row, ...], sheet: "Sheet") -> Iterator[tuple[str, int, str]]:
    """Its steps are there: the key, the place of the row, and why."""
    for k, row in enumerate(rows):
        for key, name in (("off_at", row.off_at), ("on_at", row.on_at)):
            if name is not None and sheet.find_step(name) is None:
                yield key, k, f"'{row.id}': '{name}' is no step here"
