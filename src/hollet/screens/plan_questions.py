"""What the plan desk asks: schools, facts of the vehicle, extras, and parts that must agree."""

from collections.abc import Mapping, Set

from pydantic import computed_field

from hollet.core.procedure.plan import Plan, known_of
from hollet.core.procedure.schools import Agreement, Extra, School, agreement_state, possible
from hollet.core.view import View

__all__ = [
    "AgreementView",
    "ExtraView",
    "FactView",
    "Gear",
    "SchoolView",
    "agreement_view",
    "fact_views",
    "school_view",
]


class Gear(View):
    """What the shop has: tool names (casefold) with their state, and the kinds of its measuring
    tools.
    """

    tools: Mapping[str, str] = {}
    instruments: frozenset[str] = frozenset()

    def lacking(self) -> tuple[str, ...]:
        """Tools known to be missing, broken or lent."""
        return tuple(
            name for name, state in self.tools.items() if state in ("missing", "broken", "lent")
        )


class WayView(View):
    """One way of a school, and whether it can be gone here."""

    id: str
    name: str
    does: str
    tools: tuple[str, ...]
    people: int
    hours: tuple[float, float]
    money: tuple[float, float]
    risks: str
    suits: str
    held_by: str | None
    sketch: str | None
    possible: bool
    because: tuple[str, ...]
    steps: int


class SchoolView(View):
    """One school: `chosen` by somebody, or only `in_force` as Hollet's pick; `fixed` says what was
    begun.
    """

    id: str
    question: str
    ways: tuple[WayView, ...]
    pick: str
    because: str
    chosen: str | None
    in_force: str
    fixed: str | None


class FactView(View):
    """One fact that decides something here."""

    id: str
    name: str
    values: tuple[str, ...]
    value: str | None
    decides: tuple[str, ...]


class ExtraView(View):
    """While you are in there: the cost now, the cost later, and the answer."""

    extra: Extra
    number: str
    wanted: bool | None


class AgreementView(View):
    """Parts that must agree, with what is known of each."""

    agreement: Agreement
    number: str
    options: dict[str, str]
    state: str
    words: str

    @computed_field
    @property
    def agrees(self) -> bool:
        """Whether the parts as chosen go together."""
        return self.state == "agrees"

    @computed_field
    @property
    def clashes(self) -> bool:
        """Whether they do not, whatever else is answered."""
        return self.state == "clash"


def school_view(whole: Plan, school: School, settled: Set[str], gear: Gear) -> SchoolView:
    known = known_of(whole)
    ways = []
    for way in school.way:
        found = possible(way, known, gear.lacking())
        count = sum(
            any(c.school == school.id and way.id in c.one_of for c in step.conditions())
            for step in whole.step
        )
        ways.append(
            WayView(
                possible=found.answer,
                because=found.because,
                steps=count,
                **way.model_dump(exclude={"needs"}),
            )
        )
    in_force = whole.ways.get(school.id, school.pick)
    begun = next(
        (
            s
            for s in whole.step
            if s.id in settled
            and any(c.school == school.id and in_force in c.one_of for c in s.conditions())
        ),
        None,
    )
    return SchoolView(
        id=school.id,
        question=school.question,
        ways=tuple(ways),
        pick=school.pick,
        because=school.because,
        chosen=whole.ways.get(school.id),
        in_force=in_force,
        fixed=f"{begun.number} {begun.title}" if begun else None,
    )


def fact_views(whole: Plan, numbers: Mapping[str, str]) -> tuple[FactView, ...]:
    known = whole.all_facts()
    return tuple(
        FactView(
            id=fact,
            name=known[fact].name,
            values=known[fact].value,
            value=whole.facts.get(fact),
            decides=tuple(numbers[s] for s in steps),
        )
        for fact, steps in whole.asked_facts().items()
        if fact in known
    )


def agreement_view(agreement: Agreement, plan: Plan, numbers: Mapping[str, str]) -> AgreementView:
    found = agreement_state(agreement, plan.parts)
    options = {part.id: plan.parts[part.id] for part in agreement.part if part.id in plan.parts}
    return AgreementView(
        agreement=agreement,
        number=numbers.get(agreement.step, ""),
        options=options,
        state=found.state,
        words=found.words,
    )
