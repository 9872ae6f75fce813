"""What stands on a printed sheet, apart from how it is drawn."""

from dataclasses import dataclass

__all__ = ["SheetRow", "SheetStep"]


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
