"""What is shown of a unit on its way."""

from hollet.core.procedure.words import MoveWay
from hollet.core.steps.halfway import Half
from hollet.core.view import View

__all__ = ["Gap", "MovingFacts", "ToGo", "Voice"]


class ToGo(View):
    """One axis: which way and how far it still has to go; `known`: every move was told with its
    amount.
    """

    way: MoveWay
    left: float
    unit: str
    there: bool
    known: bool


class Voice(View):
    """One watcher: what was said since the last move, and how wide the gap is."""

    who: str
    point: str
    said: str
    verdict: str
    missing: bool
    at: str


class Gap(View):
    """The nearest gap: how wide (mm), how sure, the least allowed, and the verdict in words."""

    who: str
    between: str
    mm: float
    U: float
    least: float | None
    verdict: str
    words: str


class MovingFacts(View):
    """The moves of a step: the last one and how to go back; each voice; `open` are the ways that
    may be moved, `shut` is why the others may not; `against`: why it is not in; `at_once`:
    same again and all clear is one press. `half`: it is stopped short on purpose.
    """

    title: str
    last: MoveWay | None
    last_by: str
    last_at: str
    last_who: str
    back: MoveWay | None
    word: str
    voices: tuple[Voice, ...]
    next_voice: str | None
    to_go: tuple[ToGo, ...]
    gap: Gap | None
    more_gaps: int
    open: tuple[MoveWay, ...]
    shut: str
    against: str
    at_once: bool
    half: Half | None
    touching: str
    moves: int
    pitch: float | None
