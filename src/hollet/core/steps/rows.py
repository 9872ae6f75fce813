"""The rows of an exchange: what becomes of each, where it is tonight, what is only half moved."""

from pydantic import computed_field

from hollet.core.entries import BookState, RowSaid
from hollet.core.entries.status import last_word, plan_of, status_of
from hollet.core.procedure.rows import FATES, PLACES, Fate, Row, RowPlace
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["RowFacts", "half_words", "rows_of"]

HALF = ("bench", "away", "by hand")


class RowFacts(View):
    """One row: its fate, decided or only usual, and where it is; `half`: off the old one and not
    final on the new; `settled`: nothing more is asked of it.
    """

    id: str
    part: str
    usual: Fate
    fate: Fate
    decided: bool
    where: RowPlace
    place: str
    why: str
    goes_with: str | None
    because: str | None
    blocks: str
    at: str
    at_name: str
    half: bool
    settled: bool
    passed: bool

    @computed_field
    @property
    def words(self) -> str:
        """How it stands, in words."""
        fate = FATES[self.fate] + ("" if self.decided else ", assumed")
        place = f", {self.place}" if self.place else ""
        return f"{fate}; {PLACES[self.where]}{place}"


def rows_of(state: BookState) -> tuple[RowFacts, ...]:
    """Every row of the plan, in its working order."""
    return state.remembered(("rows",), state.head, lambda: tuple(_rows(state)))


def _rows(state: BookState) -> list[RowFacts]:
    return [_row(state, row) for row in plan_of(state).row]


def _row(state: BookState, row: Row) -> RowFacts:
    plan = plan_of(state)
    said = state.newest(RowSaid, "row", row.id)
    on, off = plan.find_step(row.on_at), plan.find_step(row.off_at)
    on_status = status_of(state, on) if on is not None else None
    done = on_status is not None and on_status.status == "done"
    done_at = last_word(state, row.on_at)
    fate: Fate = said.body.fate if said is not None else row.usual
    crosses = fate in ("moved", "renewed")
    where: RowPlace = said.body.where if said is not None else "old"
    if said is None and off is not None and status_of(state, off).status == "done":
        where = "bench"
    newer = done and done_at is not None and (said is None or done_at.seq > said.seq)
    if crosses and (newer or (where == "final" and done)):
        where = "final"
    elif where == "final":
        where = "by hand"  # its step is open again
    decided = said is not None or (crosses and where == "final")
    place = said.body.place if said is not None and where == said.body.where else ""
    if said is None and where == "bench":
        place = "nobody has said where"
    return RowFacts(
        id=row.id,
        part=row.part,
        usual=row.usual,
        fate=fate,
        decided=decided,
        where=where,
        place=place,
        why=said.body.why if said is not None else "",
        goes_with=row.goes_with,
        because=row.why,
        blocks=row.blocks,
        at=row.on_at,
        at_name=f"{on.number} {on.title}" if on is not None else "",
        half=crosses and where in HALF,
        settled=where == "final" if crosses else decided,
        passed=on_status is not None and on_status.status in ("skipped", "not_applicable"),
    )


def half_words(rows: tuple[RowFacts, ...]) -> str | None:
    """How the exchange stands, as the first words when work stops."""
    if not any(row.half for row in rows):
        return None
    told = [
        (sum(row.where == place and not row.settled for row in rows), words)
        for place, words in PLACES.items()
    ]
    final = sum(row.settled for row in rows)
    parts = [f"{many} {words}" for many, words in told if many]
    return f"half moved: {', '.join(parts)}; {counted(final, 'row')} settled"
