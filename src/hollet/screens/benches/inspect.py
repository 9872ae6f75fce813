"""The bench at which parts are looked at, face by face."""

from collections.abc import Sequence
from typing import Literal

from hollet.core.entries import BookState
from hollet.core.findings import (
    CLEANING,
    CONFIDENCE,
    DISPOSITIONS,
    METHODS,
    SURFACES,
    FindingCode,
)
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.safety import SAFETY_NAMES
from hollet.core.steps.causes import explanations
from hollet.core.steps.inspection import inspection_facts
from hollet.core.steps.parts import REPLACED, STAYS_IN, InspectionFacts
from hollet.core.view import View
from hollet.screens.benches.base import BenchBase

__all__ = ["InspectBench", "inspect_bench"]


class PartCodes(View):
    """The terms that belong to a kind of face."""

    on: str
    codes: tuple[FindingCode, ...]


class InspectBench(View):
    """Face by face; what each may show, and what was found."""

    kind: Literal["inspect"] = "inspect"
    base: BenchBase
    primary: str
    inspection: InspectionFacts
    codes: tuple[PartCodes, ...]
    cleaning: tuple[str, ...]
    confidence: tuple[str, ...]
    methods: tuple[str, ...]
    dispositions: dict[str, str]
    replaced: tuple[str, ...]
    stays_in: tuple[str, ...]
    surfaces: dict[str, str]
    safety: dict[str, str]
    causes: tuple[str, ...]


def inspect_bench(
    state: BookState, step: InspectStep, tools: Sequence[Instrument], base: BenchBase
) -> InspectBench:
    facts = inspection_facts(state, step)
    surfaces = dict.fromkeys(face.on for part in facts.parts for face in part.faces)
    return InspectBench(
        base=base,
        primary=step.pressed(),
        inspection=facts,
        codes=tuple(PartCodes(on=on, codes=state.lore.codes_for(on)) for on in surfaces),
        cleaning=CLEANING,
        confidence=CONFIDENCE,
        methods=METHODS,
        dispositions=DISPOSITIONS,
        replaced=REPLACED,
        stays_in=STAYS_IN,
        surfaces=SURFACES,
        safety=SAFETY_NAMES,
        causes=explanations(state),
    )
