"""Sheets: those that ship and the user's own, read, listed, checked and kept."""

import re
import tomllib
from functools import lru_cache

from pydantic import BaseModel, computed_field

from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.procedure.combining import combine_sheets
from hollet.core.procedure.facts import Fact
from hollet.core.procedure.laws.breach import Breach
from hollet.core.procedure.laws.check import breaches, refuse_unsafe
from hollet.core.procedure.read import read_sheet
from hollet.core.procedure.sheet import Sheet
from hollet.core.words import counted
from hollet.library.shelf import sheet_names, sheet_text
from hollet.services.workshop import Workshop
from hollet.store.records import SheetRecord

__all__ = [
    "SheetCard",
    "SheetLook",
    "find_sheet",
    "keep_sheet",
    "look_at_sheet",
    "parse_sheet",
    "save_sheet",
    "sheet_cards",
]

DEEPEST = 40
"""More dots in one key, and reading it takes a time that grows with their square."""
PARTS = re.compile(r"[\s=,{}\[\]\"']+")

MAX_SHEET = 1_000_000
_shipped: dict[str, Sheet] = {}


class SheetCard(BaseModel):
    """A sheet to make a build from, and the facts on which it depends."""

    id: str
    title: str
    about: str
    steps: int
    hours: tuple[float, float]
    shipped: bool
    facts: tuple[Fact, ...]
    learnt: tuple[str, ...]


class SheetLook(BaseModel):
    """A sheet as the laws see it, before it is kept: all that it breaks, what can hurt first."""

    title: str
    breaches: tuple[Breach, ...]

    @computed_field
    @property
    def refused(self) -> bool:
        """Whether it breaks a law of safety, so that it is not kept."""
        return any(breach.safety for breach in self.breaches)

    @computed_field
    @property
    def words(self) -> str:
        """In one line, whether it keeps the laws."""
        if not self.breaches:
            return f"{self.title}: every law is kept"
        unsafe = sum(breach.safety for breach in self.breaches)
        broken = f"{self.title}: {counted(len(self.breaches), 'breach', 'breaches')}"
        return (
            f"{broken}, {unsafe} of safety: not taken" if unsafe else f"{broken}, taken with them"
        )


def look_at_sheet(text: str) -> SheetLook:
    """What a sheet breaks; refused only where it cannot be read."""
    sheet = parse_sheet(text)
    return SheetLook(title=sheet.title, breaches=breaches(sheet, text))


def parse_sheet(text: str) -> Sheet:
    """A sheet from TOML text; refused with line, field and what would be right."""
    if len(text.encode()) > MAX_SHEET:
        raise Refused(
            "too_large",
            f"the sheet is larger than {MAX_SHEET // 1000} kB: a sheet is text, a few hundred "
            "lines",
            field="text",
        )
    if any(part.count(".") > DEEPEST for part in PARTS.split(text)):
        raise Refused("sheet_mistake", "the sheet is nested too deeply", field="text")
    try:
        data = tomllib.loads(text)
    except ValueError as error:  # a mistake of TOML, or a number of thousands of digits
        raise Refused("sheet_mistake", f"not readable as TOML: {error}", field="text") from error
    except RecursionError as error:
        raise Refused("sheet_mistake", "the sheet is nested too deeply", field="text") from error
    return read_sheet(data, text)


def _ships(name: str) -> Sheet:
    if name not in _shipped:
        _shipped[name] = parse_sheet(sheet_text(name))
    return _shipped[name]


@lru_cache(maxsize=512)
def _card(text: str, shipped: bool) -> SheetCard:
    """Worked out once for a text, as every view of the Shop shows them all."""
    sheet = parse_sheet(text)
    plan = combine_sheets([sheet])
    known = sheet.all_facts()
    hours = [step.hours for step in sheet.step if step.hours]
    return SheetCard(
        id=sheet.id,
        title=sheet.title,
        about=sheet.about,
        steps=len(sheet.step),
        shipped=shipped,
        hours=(sum(lo for lo, _ in hours), sum(hi for _, hi in hours)),
        facts=tuple(known[f] for f in plan.asked_facts()),
        learnt=tuple(
            f"{found.what} ({found.who}, {found.on.isoformat()}, {found.build})"
            for found in sheet.learnt
        ),
    )


def sheet_cards(workshop: Workshop) -> tuple[SheetCard, ...]:
    """Shipped and own sheets."""
    with workshop.store.read() as books:
        own = [record.text for record in books.sheets.all()]
    return (
        *(_card(sheet_text(name), True) for name in sheet_names()),
        *(_card(text, False) for text in own),
    )


def save_sheet(workshop: Workshop, text: str) -> SheetCard:
    """Check and keep an uploaded sheet; nothing is kept of one with a mistake, or of one that
    breaks a law of safety.
    """
    sheet = parse_sheet(text)
    refuse_unsafe(breaches(sheet, text))
    if sheet.id in sheet_names():
        raise Conflict(
            f"the id '{sheet.id}' belongs to a sheet that ships: give yours another id",
            reason_code="id_used",
        )
    return keep_sheet(workshop, text)


def keep_sheet(workshop: Workshop, text: str) -> SheetCard:
    """Keep the text of an own sheet, new or in place of the one with its id."""
    sheet = parse_sheet(text)
    with workshop.store.write() as books:
        old = books.sheets.get(sheet.id)
        books.sheets.put(SheetRecord(sheet.id, sheet.title, text, old.version + 1 if old else 1))
    return _card(text, False)


def find_sheet(workshop: Workshop, sheet_id: str, *, missing_ok: bool = False) -> Sheet | None:
    """The sheet with this id; NotFound, or None with `missing_ok`, when there is none."""
    if sheet_id in sheet_names():
        return _ships(sheet_id)
    with workshop.store.read() as books:
        record = books.sheets.get(sheet_id)
        if record is None:
            if missing_ok:
                return None
            raise NotFound("sheet", sheet_id)
        return parse_sheet(record.text)
