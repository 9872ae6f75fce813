"""The limit book: every figure of a build with its state, where it is used, and which tool of the
shop can decide it at all.
"""

from collections.abc import Sequence

from pydantic import computed_field

from hollet.core.book.asking import AnswerFacts, answers_on
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of
from hollet.core.errors import Refused
from hollet.core.instruments import Instrument, Spread, combine, reading_share
from hollet.core.limits import Judgement, Limit, judge, rounded_up
from hollet.core.procedure.formulas import sensitivities
from hollet.core.procedure.hunt import limits_used
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.results import ReadingSpec, ResultSpec
from hollet.core.procedure.sheet import Step
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text
from hollet.core.quantities.units import find_unit
from hollet.core.steps.readings import expected_figure
from hollet.core.steps.results import results_of, sizes_of
from hollet.core.steps.wrenches import ASSUMED_TOLERANCE
from hollet.core.view import View

__all__ = ["FigureRow", "LimitBook", "SourceRow", "ToolFit", "limit_book"]

APART = 1e-4
"""Readings are set apart by this much of their unit, so that none ties with another for the
largest.
"""


class ToolFit(View):
    """The best tools of the shop for a limit: `share` is 2 U over the band (None for a one-sided
    limit), `fits` whether they
    can ever prove "inside"."""

    words: str
    share: float | None = None
    fits: bool


class SourceRow(View):
    """What one source says, whether it is the one in force, and how the reading, where there is
    just one, is judged by it.
    """

    source: str
    page: str | None
    lo: str | None
    hi: str | None
    target: str | None
    words: str
    bar: Judgement
    in_force: bool


class JudgedRow(View):
    """One result judged by the figure."""

    name: str
    judgement: Judgement


class FigureRow(View):
    """One figure: `kind` limit or joint; `state` given, assumed, not given, own, conflict."""

    id: str
    kind: str
    name: str
    condition: str
    words: str
    tolerance: str | None = None
    unit: str
    state: str
    source: str
    steps: tuple[str, ...]
    first_step: str | None
    stage: str
    limit: Limit | None = None
    joint: Joint | None = None
    fit: ToolFit | None = None
    sources: tuple[SourceRow, ...] = ()
    both: Judgement | None = None
    both_words: str = ""
    judged: tuple[JudgedRow, ...] = ()
    answered: tuple[AnswerFacts, ...] = ()

    @computed_field
    @property
    def conflict(self) -> bool:
        """Whether its sources disagree."""
        return self.state == "conflict"

    @computed_field
    @property
    def guessed(self) -> bool:
        """Whether nobody read it anywhere."""
        return self.state == "assumed"

    @computed_field
    @property
    def given(self) -> bool:
        """Whether there is a figure at all."""
        return self.state != "not given"

    @computed_field
    @property
    def decided(self) -> bool:
        """Whether the mechanic decided it himself."""
        return self.state == "own"


class LimitBook(View):
    """All figures in the order of the steps that need them, and how many are in each state."""

    rows: tuple[FigureRow, ...]
    counts: dict[str, int]


def limit_book(state: BookState, tools: Sequence[Instrument]) -> LimitBook:
    """The limit book of a build."""
    plan = plan_of(state)
    used: dict[str, list[Step]] = {}
    joints: dict[str, list[Step]] = {}
    for step in plan.step:
        for name in limits_used(step):
            used.setdefault(name, []).append(step)
        for joint in step.tightens():
            joints.setdefault(joint, []).append(step)
    place = {step.id: k for k, step in enumerate(plan.step)}
    rows = [_limit_row(state, plan, limit, used.get(limit.id, []), tools) for limit in plan.limit]
    rows += [_joint_row(joint, joints.get(joint.id, []), tools) for joint in plan.joint]
    rows.sort(key=lambda row: (place.get(row.first_step or "", len(place)), row.name))
    counts = {
        name: sum(row.state == name for row in rows)
        for name in ("conflict", "not given", "assumed", "own", "given")
    }
    counts["no tool"] = sum(row.fit is not None and not row.fit.fits for row in rows)
    return LimitBook(rows=tuple(rows), counts=counts)


def _state(limit: Limit) -> str:
    if limit.conflict:
        return "conflict"
    if not limit.given and limit.target is None:
        return "not given"
    return "own" if limit.own else "given" if limit.source else "assumed"


def _limit_row(
    state: BookState, plan: Plan, limit: Limit, steps: Sequence[Step], tools: Sequence[Instrument]
) -> FigureRow:
    judged = tuple(
        JudgedRow(name=r.name, judgement=r.judgement)
        for s in steps
        for r in results_of(state, s, tools)
        if r.limit.id == limit.id and r.readings
    )
    value, big_u = (
        (judged[0].judgement.value, judged[0].judgement.U) if len(judged) == 1 else (None, None)
    )
    sources = tuple(
        SourceRow(
            source=a.source,
            page=a.page,
            lo=a.lo,
            hi=a.hi,
            target=a.target,
            words=limit.as_said(a).words(),
            bar=judge(value, big_u, limit.as_said(a)),
            in_force=limit.in_force(a),
        )
        for a in limit.answers
    )
    both = limit.common()
    where = f"{limit.source}{f', p. {limit.page}' if limit.page else ''}" if limit.source else ""
    aim = f"{limit.target} {limit.unit}" if limit.target and not limit.given else limit.words()
    return FigureRow(
        id=limit.id,
        kind="limit",
        name=limit.name,
        condition=limit.condition or "",
        words=aim,
        unit=limit.unit,
        state=_state(limit),
        source=where,
        steps=tuple(s.number for s in steps),
        first_step=steps[0].id if steps else None,
        stage=steps[0].stage if steps else "",
        limit=limit,
        fit=_fit(plan, limit, steps, tools),
        sources=sources,
        judged=judged,
        both=judge(value, big_u, both) if both else None,
        both_words=both.words() if both else "they leave nothing in common",
        answered=answers_on(state, "limit", limit.id),
    )


def _fit(
    plan: Plan, limit: Limit, steps: Sequence[Step], tools: Sequence[Instrument]
) -> ToolFit | None:
    parts = _readings(plan, limit, steps)
    if not parts:
        return None
    best: list[Instrument] = []
    shares: list[tuple[float, Spread]] = []
    for kind, nominal, c in parts:
        usable = [
            t
            for t in tools
            if not t.retired and t.kind == kind and t.s is not None and t.covers(nominal)
        ]
        scored = [(combine([(1, reading_share(tool, [nominal]))])[2], tool) for tool in usable]
        if not scored:
            return ToolFit(words=f"no {kind} that reaches {decimal_text(nominal)}", fits=False)
        tool = min(scored, key=lambda pair: pair[0])[1]
        best.append(tool)
        shares.append((c, reading_share(tool, [nominal])))
    big_u = combine(shares)[2]
    unit = find_unit(limit.unit)
    assert unit is not None
    codes = ", ".join(dict.fromkeys(tool.code for tool in best))
    shown = f"{codes} ±{rounded_up(big_u / float(unit.factor))} {limit.unit}"
    lo, hi = limit.figure("lo"), limit.figure("hi")
    if lo is None and hi is None:
        return ToolFit(words=shown, fits=True)
    share = 2 * big_u / (hi - lo) if lo is not None and hi is not None and hi > lo else None
    if lo is None and hi is not None and hi > 0 and not unit.offset:
        share = (
            big_u / hi
        )  # what starts at nothing can be proven inside only below the limit less U
    fits = share is None or share <= 1
    return ToolFit(words=shown if fits else f"{shown}: too wide", share=share, fits=fits)


def _readings(plan: Plan, limit: Limit, steps: Sequence[Step]) -> list[tuple[str, float, float]]:
    """Kind of tool, nominal value and how much it counts, of each reading of the first result
    judged by the limit.
    """
    for step in steps:
        if step.pours() is not None:
            value = limit.figure("target") or limit.figure("hi") or limit.figure("lo")
            return [("jug", value, 1.0)] if value else []
        spec = {r.id: r for r in step.readings()}
        for result in step.results():
            if result.limit == limit.id and all(name in spec for name in result.named()):
                return _counted(plan, result, spec)
    return []


def _counted(
    plan: Plan, result: ResultSpec, spec: dict[str, ReadingSpec]
) -> list[tuple[str, float, float]]:
    """The tool, value and weight of each reading that counts in a result."""
    values = {n: expected_figure(plan, spec[n]) for n in result.named()}
    sizes = {n: limit.figure("target") or 1.0 for n, limit in sizes_of(plan, result).items()}
    apart = {n: v + k * APART for k, (n, v) in enumerate(values.items())}
    try:
        counts = sensitivities(result, apart | sizes)
    except Refused:
        return []
    return [(spec[n].tool, values[n], counts[n]) for n in values if counts[n]]


def _joint_row(joint: Joint, steps: Sequence[Step], tools: Sequence[Instrument]) -> FigureRow:
    stages = tuple(f"+{stage.angle}" if stage.angle else stage.asked() for stage in joint.stage)
    missing = not all(stage.given() for stage in joint.stage)
    state = (
        "not given" if missing else "own" if joint.own else "given" if joint.source else "assumed"
    )
    return FigureRow(
        id=joint.id,
        kind="joint",
        name=joint.name,
        condition=joint.treatment or "",
        words=", ".join(stages),
        tolerance=joint.tolerance or f"±{ASSUMED_TOLERANCE:g} % assumed",
        unit="N·m",
        state=state,
        source=joint.source or "",
        steps=tuple(s.number for s in steps),
        first_step=steps[0].id if steps else None,
        stage=steps[0].stage if steps else "",
        joint=joint,
        fit=_wrench_fit(joint, tools),
    )


def _wrench_fit(joint: Joint, tools: Sequence[Instrument]) -> ToolFit | None:
    """The wrench with the smallest permissible deviation that reaches all torques of the joint."""
    torques = [
        float(parse(stage.torque, "torque").nominal or 0) for stage in joint.stage if stage.torque
    ]
    if not torques:
        return None
    percent = (
        float(parse(joint.tolerance, "percent", "%").nominal or 0)
        if joint.tolerance
        else ASSUMED_TOLERANCE
    )
    able = []
    for tool in tools:
        full = (
            float(parse(tool.hi or "0", "torque", tool.unit).nominal or 0)
            if "wrench" in tool.kind and not tool.retired
            else 0.0
        )
        if full and all(0.2 * full <= torque <= full for torque in torques):
            able.append(tool)
    if not able:
        return ToolFit(words="no wrench for all stages", fits=False)
    best = min(able, key=lambda t: float(t.mpe_percent or 0))
    deviation = float(best.mpe_percent or 0)
    return ToolFit(
        words=f"{best.code} ±{best.mpe_percent} %",
        share=deviation / percent if percent else None,
        fits=deviation <= percent,
    )
