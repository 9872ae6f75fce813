"""What stands on a printed sheet, apart from how it is drawn."""

from dataclasses import dataclass

__all__ = ["ListGroup", "ListRow", "SheetRow", "SheetStep"]


@dataclass(frozen=True, slots=True)
class SheetRow:
    """One reading to take: its name, state and datum, about what to expect, the kind of tool, what
    is allowed, what was read.
    """

    name: str
    note: str
    expected: str
    tool: str
    allowed: str
    read: str


@dataclass(frozen=True, slots=True)
class SheetStep:
    """One measuring step."""

    number: str
    title: str
    do: str
    caution: str
    rows: tuple[SheetRow, ...]


@dataclass(frozen=True, slots=True)
class ListRow:
    """One line to tick: what, a word below it, and what stands at the right."""

    what: str
    small: str = ""
    right: str = ""
    box: bool = True


@dataclass(frozen=True, slots=True)
class ListGroup:
    """Lines under one head."""

    title: str
    rows: tuple[ListRow, ...]
