"""Faults on one screen: the one in hand with its tests and what is left of its causes, the
suspects, the symptoms to choose from.
"""

from collections.abc import Sequence

from hollet.core.book.faults import FaultFacts, changed_last, faults_of
from hollet.core.book.gates import gate_answers
from hollet.core.entries import BookState
from hollet.core.instruments import Instrument
from hollet.core.procedure.words import RUNGS
from hollet.core.view import View
from hollet.core.words import counted

__all__ = ["FaultsView", "faults_view"]


class SymptomChoice(View):
    """A symptom to choose."""

    id: str
    name: str


class SymptomGroup(View):
    """Symptoms by the rung at which they show."""

    name: str
    symptoms: tuple[SymptomChoice, ...]


class FaultsView(View):
    """The title; faults, those followed up first; the first suspects; the symptoms by rung."""

    title: str
    faults: tuple[FaultFacts, ...]
    suspects: tuple[str, ...]
    groups: tuple[SymptomGroup, ...]


def faults_view(state: BookState, tools: Sequence[Instrument]) -> FaultsView:
    """Everything about what is wrong on a build."""
    shut = [gate.rung for gate in gate_answers(state, tools) if gate.shut]
    faults = faults_of(state, shut)
    groups = []
    for rung, words in RUNGS.items():
        mine = [s for s in state.lore.symptom if s.rungs[0] == rung]
        if mine:
            listed = tuple(SymptomChoice(id=s.id, name=s.name) for s in mine)
            groups.append(SymptomGroup(name=words, symptoms=listed))
    return FaultsView(
        title=_title(faults), faults=faults, suspects=changed_last(state), groups=tuple(groups)
    )


def _title(faults: Sequence[FaultFacts]) -> str:
    found = [f for f in faults if not f.ended]
    if not found:
        return "What is wrong?"
    first = found[0]
    if first.stopped:
        return f"{first.name}: stopped"
    return f"{first.name}: {counted(len(first.causes), 'cause')} left"
