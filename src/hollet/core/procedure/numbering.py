"""Shown numbers of steps: 2.11, and 2.11a for one put in behind it. Given once, never to two."""

import re
from collections.abc import Iterable, Iterator, Sequence, Set
from itertools import chain
from typing import Protocol, Self, TypeVar

from hollet.core.procedure.words import STAGE_RANK, Stage

__all__ = ["LETTERS", "Numbering", "new_id", "numbered"]

LETTERS = "abcdefghijklmnopqrstuvwxyz"


class _Numbered(Protocol):
    @property
    def number(self) -> str | None: ...
    @property
    def stage(self) -> Stage: ...
    def model_copy(self, *, update: dict[str, str]) -> Self: ...


S = TypeVar("S", bound=_Numbered)


class Numbering:
    """The numbers that are in use, and the next ones to give."""

    def __init__(self, used: Iterable[str]) -> None:
        self._used = set(used)

    def take(self, number: str) -> str:
        """This number, or where it is given already the same with a letter."""
        return self._give(chain((number,), _lettered(number)))

    def behind(self, number: str) -> str:
        """The number of a step put in behind the one with this number: the same with a letter."""
        return self._give(_lettered(number.rstrip(LETTERS)))

    def first(self, stage: Stage) -> str:
        """The number of a step put in before all others of its stage, such as 2.00a."""
        return self.behind(f"{STAGE_RANK[stage] + 1}.00")

    def plain(self, stage: Stage, least: int = 1) -> str:
        """The next number of a stage without a letter, from `least` on."""
        return self._give(f"{STAGE_RANK[stage] + 1}.{k:02d}" for k in range(least, least + 2000))

    def _give(self, numbers: Iterable[str]) -> str:
        found = next(number for number in numbers if number not in self._used)
        self._used.add(found)
        return found


def _lettered(number: str) -> Iterator[str]:
    yield from (number + a for a in LETTERS)
    yield from (number + a + b for a in LETTERS for b in LETTERS)


def numbered(steps: Sequence[S]) -> tuple[S, ...]:
    """Each step with a number of its own: one that has one keeps it, a second with the same gets a
    letter; the others count within their stage, past what is taken.
    """
    given = [step.number for step in steps if step.number]
    used, kept = Numbering(given), Numbering(())
    counts: dict[str, int] = {}
    found: list[S] = []
    for step in steps:
        counts[step.stage] = counts.get(step.stage, 0) + 1
        if step.number:
            number = kept.take(step.number)
            number = number if number == step.number else used.behind(step.number)
        else:
            number = used.plain(step.stage, counts[step.stage])
        same = number == step.number
        found.append(step if same else step.model_copy(update={"number": number}))
    return tuple(found)


def new_id(title: str, taken: Set[str]) -> str:
    """An id made of a title, that is not taken."""
    base = re.sub(r"[^a-z0-9]+", "_", title.lower()).strip("_")[:48] or "step"
    names = [base, *(f"{base}_{k}" for k in range(2, len(taken) + 3))]
    return str(next(name for name in names if name not in taken))
