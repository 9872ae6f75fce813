"""Readings as a table: out as CSV, in again in one go, and as a sheet of paper to fill in at the
machine.
"""

import hashlib
from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict, ValidationError

from hollet.core.acts.kinds import accept
from hollet.core.acts.readings import ReadingAct
from hollet.core.entries import Body, BookState
from hollet.core.entries.status import plan_of
from hollet.core.errors import HolletError, NotFound, Refused
from hollet.core.limits import Limit
from hollet.core.procedure.results import ReadingSpec
from hollet.core.procedure.sheet import Step
from hollet.core.steps.readings import ReadingFacts, expected_of, latest, readings_of
from hollet.exchange.csv import read_table, table
from hollet.exchange.paper import SheetRow, SheetStep
from hollet.services.workshop import Workshop

__all__ = ["ReadIn", "read_readings", "readings_csv", "sheet_pdf"]

HEAD = (
    "id",
    "step",
    "number",
    "name",
    "expected",
    "kind",
    "typed",
    "unit",
    "tool",
    "state",
    "datum",
    "sure",
    "value",
    "time",
    "who",
)
READ = ("id", "typed", "unit", "tool", "state", "datum", "sure")


class ReadIn(BaseModel):
    """How many readings were written, and how many rows said nothing new."""

    model_config = ConfigDict(frozen=True)
    written: int
    unchanged: int


def _steps(state: BookState, step: str | None) -> list[Step]:
    found = [s for s in plan_of(state).step if s.readings() and step in (None, s.id)]
    if step is not None and not found:
        raise NotFound("measuring step", step)
    return found


def readings_csv(workshop: Workshop, build: str, step: str | None = None) -> str:
    """Every reading of a build or of one step, taken or not, as CSV; repeats are parted by `;`."""
    with workshop.held(build) as state:
        rows = []
        for s in _steps(state, step):
            for spec, facts in zip(s.readings(), readings_of(state, s), strict=True):
                entry = latest(state, spec.id)
                body = entry.body if entry else None
                rows.append(
                    [
                        spec.id,
                        s.id,
                        s.number,
                        spec.name,
                        expected_of(plan_of(state), spec) or "",
                        spec.tool,
                        "; ".join(body.typed) if body else "",
                        body.unit if body else "",
                        facts.tool or "",
                        (body.state if body else spec.state) or "",
                        (body.datum if body else spec.datum) or "",
                        "yes" if body and body.sure else "",
                        facts.value_text,
                        entry.time if entry else "",
                        entry.who if entry else "",
                    ]
                )
        return table(HEAD, rows)


def read_readings(workshop: Workshop, build: str, text: str, *, who: str) -> ReadIn:
    """Write the readings of a table: all or none. Rows without a figure, and rows that say what
    stands there already, are passed over.

    Raises
    ------
    Refused
        With the line: a reading or tool that is not there, a figure that cannot be read, or one
        that is hardly possible and not marked `sure`.
    """
    rows = [(line, row) for line, row in read_table(text, READ) if row.get("typed")]
    with workshop.held(build) as state:
        tools = workshop.tools_of(who)
        codes = {tool.code.casefold(): tool for tool in tools.values() if not tool.retired}
        specs = {spec.id: (s, spec) for s in _steps(state, None) for spec in s.readings()}
        hand = workshop.hand(who)
        bodies: list[Body] = []
        unchanged = 0
        for line, row in rows:
            if row["id"] not in specs:
                raise Refused(
                    "bad_file",
                    f"line {line}: there is no reading '{row['id']}' in this build",
                    field="id",
                )
            step, spec = specs[row["id"]]
            tool = codes.get(row.get("tool", "").casefold())
            if tool is None:
                raise Refused(
                    "bad_file",
                    f"line {line}: the shop has no tool '{row.get('tool', '')}'; write its code",
                    field="tool",
                )
            typed = tuple(piece.strip() for piece in row["typed"].split(";") if piece.strip())
            if _stands(state, spec, typed, tool.id):
                unchanged += 1
                continue
            try:
                edit = ReadingAct(
                    kind="reading",
                    step=step.id,
                    reading=spec.id,
                    typed=typed,
                    unit=row.get("unit") or tool.unit,
                    instrument=tool.id,
                    state=row.get("state") or None,
                    datum=row.get("datum") or None,
                    sure=row.get("sure", "").casefold() == "yes",
                )
                body = accept(state, edit, hand)
                bodies.append(body.model_copy(update={"tabled": True}))
            except ValidationError as error:
                raise Refused(
                    "bad_file", f"line {line}: {error.errors()[0]['msg']}", field="typed"
                ) from error
            except HolletError as refusal:
                more = ", or write yes under sure" if refusal.reason_code == "odd_figure" else ""
                raise Refused(
                    refusal.reason_code,
                    f"line {line}: {refusal.message}{more}",
                    field=refusal.field,
                ) from refusal
        sent = hashlib.sha256(text.encode()).hexdigest()
        workshop.write_all(
            build,
            state,
            [workshop.draft(build, body, who, sent=sent) for body in bodies],
        )
        return ReadIn(written=len(bodies), unchanged=unchanged)


def _stands(state: BookState, spec: ReadingSpec, typed: Sequence[str], tool: str) -> bool:
    """Whether the reading in force says just this."""
    entry = latest(state, spec.id)
    return (
        entry is not None
        and entry.body.typed == tuple(typed)
        and entry.body.instrument is not None
        and entry.body.instrument.id == tool
    )


def sheet_pdf(
    workshop: Workshop, build: str, about: tuple[str, str], step: str | None, printed: str
) -> bytes:
    """The measuring sheet of one step, or of all that are not read through, as PDF.

    Parameters
    ----------
    about : name of the build, and what is said of it.
    """
    from hollet.exchange.sheets_pdf import (
        measuring_sheet,
    )  # reportlab is slow to import and seldom needed

    with workshop.held(build) as state:
        found = []
        for s in _steps(state, step):
            facts = readings_of(state, s)
            if step is None and all(r.entry for r in facts):
                continue
            allowed = {
                r.reading: plan_of(state).find_limit(r.limit) for r in s.results() if r.reading
            }
            rows = tuple(
                _row(expected_of(plan_of(state), spec), spec, reading, allowed.get(spec.id))
                for spec, reading in zip(s.readings(), facts, strict=True)
            )
            found.append(
                SheetStep(
                    number=s.number,
                    title=s.title,
                    do=s.do,
                    caution=s.caution.text if s.caution else "",
                    rows=rows,
                )
            )
        if not found:
            raise Refused(
                "nothing_to_print",
                "every reading of this build is taken: nothing is left to write on paper",
                field="step",
            )
        return measuring_sheet(*about, printed, found)


def _row(
    expected: str | None, spec: ReadingSpec, facts: ReadingFacts, limit: Limit | None
) -> SheetRow:
    note = ", ".join(
        text
        for text in (
            spec.place,
            spec.state,
            f"from {spec.datum}" if spec.datum else None,
            "twice" if spec.twice else None,
        )
        if text
    )
    return SheetRow(
        name=spec.name,
        note=note,
        expected=expected or "",
        tool=spec.tool,
        allowed=limit.words() if limit and limit.given else "",
        read=f"{facts.value_text} {facts.unit}" if facts.entry else "",
    )
