"""A build's plan: sheets combined, the vehicle's facts and the choices made, and what of it applies, with the reason why.

The whole plan keeps every step that a sheet brings; `select` gives the steps that apply. Numbers are given once to the
whole plan, so that a fact changed later renames nothing.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from pydantic import Field

from hollet.core.errors import Refused
from hollet.core.limits import Limit, SourceAnswer
from hollet.core.procedure.facts import Condition, Known, applies
from hollet.core.procedure.precedence import contradiction, in_order
from hollet.core.procedure.schools import Agreement, Extra, School
from hollet.core.procedure.sheet import BaseStep, InspectStep, Sheet, Step, numbered
from hollet.core.procedure.words import Id

__all__ = ["LeftOut", "Plan", "Selection", "combine_sheets", "known_of", "select"]


class Plan(Sheet):
    """Sheets combined, with the facts, choices and answers of one build; `retired` steps keep their id and number."""

    sheets: tuple[Id, ...] = ()
    facts: dict[str, str] = Field(default_factory=dict)
    ways: dict[str, str] = Field(default_factory=dict)
    extras: dict[str, bool] = Field(default_factory=dict)
    parts: dict[str, str] = Field(default_factory=dict)
    retired: tuple[Id, ...] = ()

    def asked_facts(self) -> dict[str, list[str]]:
        """The facts on which something of this plan depends, each with the ids of the steps it decides."""
        found: dict[str, list[str]] = {}
        for step in self.step:
            for condition in (*step.when, *(c for part in step.parts for c in part.when)):
                if condition.fact:
                    found.setdefault(condition.fact, []).append(step.id)
        others: list[Condition] = [c for school in self.school for c in (*school.when, *(n for way in school.way for n in way.needs))]
        others += [c for extra in self.extra for c in extra.when] + [c for agreement in self.agreement for c in agreement.when]
        others += [c for variant in self.variant for c in variant.when]
        for condition in others:
            if condition.fact:
                found.setdefault(condition.fact, [])
        return found


@dataclass(frozen=True, slots=True)
class LeftOut:
    """A step that does not apply, and why."""

    step: Step
    because: str


@dataclass(frozen=True, slots=True)
class Selection:
    """What applies: the plan with those steps, what was left out, and steps kept though a fact is not known yet."""

    plan: Plan
    left_out: tuple[LeftOut, ...]
    perhaps: dict[str, str]
    shown_because: dict[str, str]


def combine_sheets(sheets: Sequence[Sheet], facts: dict[str, str] | None = None) -> Plan:
    """One plan of several sheets; a step that two of them bring is there once, with the reasons of both.

    Raises
    ------
    Refused
        `contradiction`: the sheets' reasons cannot all be kept, with the chain; `no_sheet`.
    """
    if not sheets:
        raise Refused("no_sheet", "choose at least one sheet", field="sheets")
    steps: dict[str, Any] = {}
    for sheet in sheets:
        for step in sheet.step:
            bare = step.model_copy(update={"number": ""})
            steps[step.id] = _both(steps[step.id], bare) if step.id in steps else bare
    listed = tuple(steps.values())
    found = contradiction(listed)
    if found:
        raise Refused("contradiction", f"the sheets contradict each other: {found.words()}", field="sheets")
    limits: dict[str, Limit] = {}
    for sheet in sheets:
        for limit in sheet.limit:
            limits[limit.id] = _two_sources(limits[limit.id], limit) if limit.id in limits else limit
    first = sheets[0]
    return Plan(
        id=first.id if len(sheets) == 1 else "+".join(s.id for s in sheets)[:60].replace("+", "_"),
        title=first.title if len(sheets) == 1 else ", with ".join(s.title.split(":")[0] for s in sheets)[:400],
        about=" ".join(s.about for s in sheets)[:2000], source=first.source, version=first.version,
        look_in=_once(name for s in sheets for name in s.look_in), option=_by_id(f for s in sheets for f in s.option),
        school=_by_id(x for s in sheets for x in s.school), extra=_by_id(x for s in sheets for x in s.extra),
        agreement=_by_id(x for s in sheets for x in s.agreement), limit=tuple(limits.values()),
        variant=tuple(v for s in sheets for v in s.variant), joint=_by_id(j for s in sheets for j in s.joint),
        setting=_by_id(x for s in sheets for x in s.setting), fluid=_by_id(x for s in sheets for x in s.fluid), trace=_by_id(x for s in sheets for x in s.trace),
        step=numbered(in_order(listed)), sheets=tuple(s.id for s in sheets), facts=facts or {},
    )  # fmt: skip


def _once(items: Iterable[Any]) -> tuple[Any, ...]:
    return tuple(dict.fromkeys(items))


def _by_id(items: Iterable[Any]) -> tuple[Any, ...]:
    found: dict[str, Any] = {}
    for item in items:
        found.setdefault(item.id, item)
    return tuple(found.values())


def _both(a: BaseStep, b: BaseStep) -> BaseStep:
    """A step of two sheets: the words of the first, the reasons, openings, closings, windows, needs and parts to be looked at of both."""
    if a.kind != b.kind or a.stage != b.stage:  # type: ignore[attr-defined]
        raise Refused("contradiction", f"two sheets mean different things by the step '{a.id}'", field="sheets")
    after = {link.step: link for link in (*b.after, *a.after)}
    return a.model_copy(update={
        "after": tuple(after.values()), "opens": _by_id((*a.opens, *b.opens)), "closes": _once((*a.closes, *b.closes)),
        "tools": _once((*a.tools, *b.tools)), "parts": _once((*a.parts, *b.parts)),
        "last_chance": tuple({c.thing: c for c in (*b.last_chance, *a.last_chance)}.values()), "capture": _by_id((*a.capture, *b.capture)),
        **({"part": _by_id((*a.part, *b.part)), "trace": a.trace or b.trace} if isinstance(a, InspectStep) and isinstance(b, InspectStep) else {}),
        **{key: _once((*getattr(a, key), *getattr(b, key))) for key in ("compares", "refits", "requires", "keeps", "holds", "drains", "hidden")},
    })  # fmt: skip


def _two_sources(a: Limit, b: Limit) -> Limit:
    """Two sheets on one figure: the first is in force, both answers are kept side by side."""
    if (a.lo, a.hi, a.target) == (b.lo, b.hi, b.target) or not (b.given or b.target):
        return a
    if not (a.given or a.target):
        return b
    said = [SourceAnswer(source=x.source or "no source", page=x.page, lo=x.lo, hi=x.hi, target=x.target) for x in (a, b)]
    return a.model_copy(update={"answers": _once((*a.answers, *said))})


def known_of(plan: Plan) -> Known:
    """What is known in this plan; a school nobody chose yet counts as Hollet's pick."""
    names = {fact.id: fact.name for fact in plan.all_facts().values()}
    names |= {school.id: school.question for school in plan.school} | {extra.id: extra.thing for extra in plan.extra}
    names |= {f"{school.id}.{way.id}": way.name for school in plan.school for way in school.way}
    names |= {part.id: part.name for agreement in plan.agreement for part in agreement.part}
    ways = {school.id: plan.ways.get(school.id, school.pick) for school in plan.school}
    return Known(plan.facts, ways, plan.extras, plan.parts, names)


def select(plan: Plan) -> Selection:
    """The steps, limits, schools, extras and agreements that apply; unknown facts leave a step in, marked so."""
    known = known_of(plan)
    steps, out, perhaps, shown = [], [], {}, {}
    gone = set(plan.retired)
    for step in plan.step:
        if step.id in gone:
            out.append(LeftOut(step, "taken out of this plan"))
            continue
        found = applies(step.when, known)
        if found.answer == "no":
            out.append(LeftOut(step, "; ".join(found.because)))
            continue
        if found.answer == "unknown":
            perhaps[step.id] = "; ".join(found.because)
        elif found.because:
            shown[step.id] = "; ".join(found.because)
        if step.parts:
            kept = tuple(part for part in step.parts if applies(part.when, known).answer != "no")
            step = step if kept == step.parts else step.model_copy(update={"parts": kept})
        steps.append(step)

    def that_apply(items: tuple[Any, ...]) -> tuple[Any, ...]:
        return tuple(item for item in items if applies(item.when, known).answer != "no")

    schools: tuple[School, ...] = that_apply(plan.school)
    extras: tuple[Extra, ...] = that_apply(plan.extra)
    agreements: tuple[Agreement, ...] = that_apply(plan.agreement)
    here = {step.id for step in steps}
    chosen = plan.model_copy(update={
        "step": tuple(steps), "limit": _variants(plan, known), "school": schools,
        "extra": tuple(extra for extra in extras if extra.at in here),
        "agreement": tuple(a for a in agreements if a.step in here),
    })  # fmt: skip
    return Selection(chosen, tuple(out), perhaps, shown)


def _variants(plan: Plan, known: Known) -> tuple[Limit, ...]:
    if not plan.variant:
        return plan.limit
    found = []
    for limit in plan.limit:
        variant = next((v for v in plan.variant if v.limit == limit.id and applies(v.when, known).answer == "yes"), None)
        if variant is not None and limit.own is None and not limit.settled:
            because = "; ".join(applies(variant.when, known).because)
            condition = f"{limit.condition}, {because}" if limit.condition else because
            limit = limit.model_copy(update={"lo": variant.lo, "hi": variant.hi, "target": variant.target,
                                             "source": variant.source, "condition": condition})  # fmt: skip
        found.append(limit)
    return tuple(found)
