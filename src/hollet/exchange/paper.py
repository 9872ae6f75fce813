"""What stands on a printed sheet, apart from how it is drawn."""

from dataclasses import dataclass

__all__ = [
    "CardBolt",
    "CardJoint",
    "CardStage",
    "Label",
    "ListGroup",
    "ListRow",
    "SheetRow",
    "SheetStep",
    "TorqueCard",
]


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


@dataclass(frozen=True, slots=True)
class CardStage:
    """One round of a joint: what each bolt gets, and what each wrench is set to for it."""

    gets: str
    settings: tuple[str, ...]
    by_torque: bool


@dataclass(frozen=True, slots=True)
class CardBolt:
    """A bolt of the drawing: its number in the order of tightening, and its place (y is up)."""

    number: int
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class CardJoint:
    """Another joint of the same unit, in one line."""

    name: str
    gets: str
    set_to: str
    how: str
    source: str
    assumed: bool


@dataclass(frozen=True, slots=True)
class TorqueCard:
    """All that hangs over the axle: one joint drawn, its rounds, its boxes, and the joints beside
    it.
    """

    title: str
    about: str
    head: str
    bolts: tuple[CardBolt, ...]
    is_round: bool
    sides: tuple[str, str] | None
    columns: tuple[str, ...]
    stages: tuple[CardStage, ...]
    notes: tuple[str, ...]
    assumed: tuple[str, ...]
    joints: tuple[CardJoint, ...]
    caution: str


@dataclass(frozen=True, slots=True)
class Label:
    """A label: its large mark, what it is, what is in it, and the address that its code opens."""

    mark: str
    what: str
    lines: str
    address: str | None = None
