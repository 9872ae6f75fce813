"""What becomes of a part that hangs on the old unit, and where it is."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.hand import Hand
from hollet.core.entries import BookState, RowSaid, StepBody
from hollet.core.entries.base import Own
from hollet.core.entries.status import plan_of, status_of
from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.rows import FATES, Fate, RowPlace

__all__ = ["RowSaidAct"]

Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)]
LEAST_WORDS = 3


class RowSaidAct(Act[RowSaid], StepBody):
    """A fate is said with a reason where it differs from the usual, or nothing crosses; final is
    said of a row only once the step that makes it so is done.
    """

    body: ClassVar = RowSaid
    kind: Literal["row said"]
    row: Own
    fate: Fate
    where: RowPlace
    place: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    why: Annotated[Text, Field(default="")]

    def accepted(self, state: BookState, hand: Hand) -> RowSaid:
        step_named(state, self.step)
        plan = plan_of(state)
        row = next((row for row in plan.row if row.id == self.row), None)
        if row is None:
            raise NotFound("row", self.row)
        crosses = self.fate in ("moved", "renewed")
        if (self.fate != row.usual or not crosses) and len(self.why) < LEAST_WORDS:
            words = f"{row.part}: usually {FATES[row.usual]}. Say why now: {FATES[self.fate]}"
            raise Refused("no_words", words, field="why")
        if not crosses and self.where in ("by hand", "final"):
            words = f"{row.part}: {FATES[self.fate]}, so it is not on the new one"
            raise Refused("bad_entry", words, field="where")
        if self.where in ("bench", "away") and len(self.place) < LEAST_WORDS:
            words = f"{row.part}: say where it lies, or who has it until when"
            raise Refused("no_words", words, field="place")
        on = plan.find_step(row.on_at)
        if self.where == "final" and (on is None or status_of(state, on).status != "done"):
            at = f"{on.number} {on.title}" if on is not None else row.on_at
            raise Refused("not_final", f"{row.part}: {at} is not done", field="where")
        return self.filled(part=row.part)
