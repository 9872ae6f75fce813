"""What each bench shows: one model a kind, made from the facts of the build.

Screens draw these and compute nothing.
"""

from collections.abc import Callable, Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from hollet.core.book.around import AroundWords, around_now, around_words
from hollet.core.book.bags import BagContent, bag_contents, next_bag, recent_hand
from hollet.core.book.captures import CaptureView, captures_of, compares_of
from hollet.core.book.complete import bare_openings, clash, not_open_any_more, obstacles
from hollet.core.book.gates import (
    GateAnswer,
    OpenItem,
    dry_run_decision,
    gate_answers,
    left_open,
    open_items,
)
from hollet.core.book.passing import (
    Danger,
    Obstacle,
    Waiting,
    box_of,
    current_step,
    guards,
    kind_of_box,
    live_dangers,
    not_pressed,
    reason_keys,
    waiting_for,
)
from hollet.core.book.photos import PhotoView, photos_of
from hollet.core.book.removals import puts_back
from hollet.core.book.secure import is_stopped
from hollet.core.book.settings import Keeping, keeps_of
from hollet.core.book.supports import support_view
from hollet.core.book.windows import Chance, chances
from hollet.core.checking import standing
from hollet.core.entries import BookState, Confirmed, Key, Line, PlanEdited, Reading
from hollet.core.entries.status import SETTLED, StepStatus, plan_of, statuses, whole_of
from hollet.core.errors import Refused
from hollet.core.findings import (
    CLEANING,
    CONFIDENCE,
    DISPOSITIONS,
    METHODS,
    SURFACES,
    FindingCode,
    codes_for,
)
from hollet.core.instruments import Instrument, combine, reading_share, single_reading_U
from hollet.core.limits import SAFETY_NAMES, Judgement, Limit, judge
from hollet.core.procedure.joints import Joint
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.procedure.kinds.remove import RemoveStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.procedure.pieces import BagLine, Caution, PartNeed, Role
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.schools import Extra
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.core.quantities.parse import parse
from hollet.core.quantities.quantity import decimal_text, exact
from hollet.core.steps.inspection import (
    REPLACED,
    STAYS_IN,
    InspectionFacts,
    explanations,
    inspection_facts,
)
from hollet.core.steps.measure import ReadingFacts, ResultFacts, readings_of, results_of
from hollet.core.steps.run import (
    AttemptFacts,
    RestFacts,
    attempts_of,
    burst_limit,
    cranked_s,
    isolated_again,
    rest_of,
)
from hollet.core.steps.said import SaidFigure, said_figures
from hollet.core.steps.tighten import JointFacts, doubted_bolts, joint_facts
from hollet.core.steps.wrenches import Setting, setting_for, stage_ask, wrench_holds
from hollet.core.view import View
from hollet.screens.as_taken import Follower, TakenView, followers, taken_of
from hollet.screens.plandesk import Gear
from hollet.screens.sentences import LogLine, line_of

__all__ = ["Bench", "BookView", "bench_of", "book_view"]


class StageRow(View):
    """One of the nine stages with its counts."""

    id: str
    name: str
    done: int
    total: int


class StepRow(View):
    """One step on the strip."""

    id: str
    number: str
    short: str
    title: str
    stage: str
    kind: str
    status: str
    waits: bool


class Resume(View):
    """Where the mechanic stopped, in one line, what hangs or is dangerous, and what is
    left loose.
    """

    title: str
    line: str
    hangs: str
    loose: str
    since: str


class BookView(View):
    """The frame round every bench of a build."""

    stages: tuple[StageRow, ...]
    steps: tuple[StepRow, ...]
    current: str
    written: tuple[LogLine, ...]
    left_open: tuple[OpenItem, ...]
    resume: Resume | None
    head: int
    title: str
    carried: str
    carried_stays: bool
    dangers: tuple[Danger, ...]
    stopped: bool
    around: tuple[str, ...]


class ToolNeed(View):
    """A tool that the step needs, and whether the shop has it."""

    name: str
    state: str


class FluidView(View):
    """A fluid that may run out here, or whose circuit stays closed, and whether it is drained."""

    name: str
    words: str
    drained: bool
    stays_closed: bool


class BenchBase(View):
    """What all benches share.

    `may_pass`: a reason may pass what is in the way (`pass_words`, with keys that give it);
    `may_happen`: a danger is in the way, and that it
    has happened can be told. `other_box` is pressed when the step was done in another way.
    """

    step: str
    number: str
    title: str
    stage: str
    stage_name: str
    do: str
    why: str | None
    caution: Caution | None
    box: str | None
    confirmed: bool
    confirmed_by: str
    status: StepStatus
    settled: bool
    lacking: str | None
    obstacles: tuple[Obstacle, ...]
    dangers: tuple[Danger, ...]
    waited_for: tuple[str, ...]
    other_box: str | None
    may_pass: bool
    pass_words: str
    pass_keys: tuple[str, ...]
    may_happen: bool
    skip_keys: tuple[str, ...]
    chance_keys: tuple[str, ...]
    capture_keys: tuple[str, ...]
    clash: str | None
    gear: tuple[ToolNeed, ...]
    people: tuple[Role, ...]
    parts: tuple[PartNeed, ...]
    hours: tuple[float, float] | None
    chances: tuple[Chance, ...]
    ahead: tuple[str, ...]
    extras: tuple[Extra, ...]
    waits: tuple[Waiting, ...]
    blocks: str
    opens: tuple[str, ...]
    closes: tuple[str, ...]
    next: tuple[str, ...]
    following: str | None
    captures: tuple[CaptureView, ...]
    compares: tuple[CaptureView, ...]
    refit_bags: tuple[BagContent, ...]
    keeps: tuple[Keeping, ...]
    fluids: tuple[FluidView, ...]
    hidden: tuple[str, ...]
    needed_open: tuple[str, ...]
    around: tuple[AroundWords, ...]
    photos: tuple[PhotoView, ...]
    lifts: bool
    seen: int
    now: str
    primary: str
    lines: tuple[LogLine, ...]


class CheckBench(BenchBase):
    """Tick it; with the figures that must be said first."""

    kind: Literal["check"] = "check"
    asks: tuple[SaidFigure, ...] = ()
    taken: tuple[TakenView, ...] = ()
    followers: tuple[Follower, ...] = ()


class PartCodes(View):
    """The terms that belong to a kind of face."""

    on: str
    codes: tuple[FindingCode, ...]


class InspectBench(BenchBase):
    """Face by face; what each may show, and what was found."""

    kind: Literal["inspect"] = "inspect"
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


class RemoveBench(BenchBase):
    """Take it off, fasteners into a bag."""

    kind: Literal["remove"] = "remove"
    proposed: tuple[BagLine, ...]
    next_bag: int
    bags: tuple[BagContent, ...]
    bagged: tuple[BagContent, ...]
    recent: tuple[BagLine, ...]
    places: tuple[str, ...]
    bag_keys: tuple[str, ...]


class ToolChoice(View):
    """A tool of the shop for a kind of reading, with what it can do here."""

    id: str
    code: str
    name: str
    kind: str
    unit: str
    dimension: str
    U_text: str
    setting: str | None
    words: str
    can: bool


class MeasureBench(BenchBase):
    """Read it, judge it, decide. `large` is the result to show large: the one that the newest
    reading belongs to. `asked_state`: what the sheet asks
    for, said once a sitting with one press and never filled in as said."""

    kind: Literal["measure"] = "measure"
    readings: tuple[ReadingFacts, ...]
    results: tuple[ResultFacts, ...]
    tools: tuple[ToolChoice, ...]
    next_reading: str | None
    large: str | None
    asked_state: str | None
    draw: str | None
    rework: str | None
    replace: str | None


class WrenchChoice(View):
    """A wrench for this joint: what to set, and whether it may be used."""

    id: str
    code: str
    name: str
    words: str
    usable: bool
    holds: bool


class TightenBench(BenchBase):
    """One bolt at a time."""

    kind: Literal["tighten"] = "tighten"
    joint: JointFacts
    layout: str
    sides: tuple[str, str] | None
    fastener: str
    treatment: str | None
    source: str | None
    setting: Setting | None
    wrenches: tuple[WrenchChoice, ...]
    wide: str | None
    bolt_keys: tuple[str, ...]
    doubts: tuple[str, ...]


class FillBench(BenchBase):
    """A fluid, its amount and its level."""

    kind: Literal["fill"] = "fill"
    fluid: str
    amount: Limit
    judgement: Judgement
    typed: tuple[str, ...]
    level: str
    level_seen: bool
    tools: tuple[ToolChoice, ...]
    coolant: bool
    dry_run_s: float | None


class RunBench(BenchBase):
    """One rung of the first start.

    `isolate_at_once`: one press may name all that is isolated, by whoever named it last
    (`isolated_by`).
    """

    kind: Literal["run"] = "run"
    rung: str
    rung_name: str
    rungs: tuple[GateAnswer, ...]
    gate: GateAnswer
    isolate: tuple[str, ...]
    expect: str
    watch: tuple[str, ...]
    limit_s: float | None
    limit_words: str
    assumed: bool
    attempts: tuple[AttemptFacts, ...]
    running: AttemptFacts | None
    cranked_s: float
    total_s: float | None
    still_runs: str | None
    suspects: tuple[str, ...]
    gate_keys: tuple[str, ...]
    rest: RestFacts | None
    isolate_at_once: bool
    isolated_by: str
    gauge_unit: str


Bench = Annotated[
    CheckBench | InspectBench | RemoveBench | MeasureBench | TightenBench | FillBench | RunBench,
    Field(discriminator="kind"),
]


def book_view(state: BookState, now: str) -> BookView:
    """The strip, the last lines and what is left open, at the moment `now` (UTC, ISO 8601)."""
    plan = plan_of(state)
    known = statuses(state)
    rows = tuple(
        StepRow(
            id=s.id,
            number=s.number,
            short=s.short or s.title,
            title=s.title,
            stage=s.stage,
            kind=s.kind,
            status=known[s.id].status,
            waits=bool(waiting_for(state, s.id, now, known)),
        )
        for s in plan.step
    )
    stages = tuple(
        StageRow(
            id=stage,
            name=name,
            done=sum(r.stage == stage and r.status in SETTLED for r in rows),
            total=sum(r.stage == stage for r in rows),
        )
        for stage, name in STAGES.items()
    )
    support = support_view(state)
    newest = [e for i in state.order[-60:] if (e := state.entries[i]).body.strikes() is None][-3:]
    return BookView(
        stages=stages,
        steps=rows,
        current=current_step(state, now, known),
        written=tuple(line_of(state, e) for e in newest),
        left_open=left_open(state),
        resume=_resume(state, known, now),
        head=state.head,
        title=plan.title,
        carried=support.line if support.bodies else "",
        carried_stays=support.stays,
        dangers=live_dangers(state),
        stopped=is_stopped(state),
        around=around_now(state),
    )


def _resume(state: BookState, known: dict[str, StepStatus], now: str) -> Resume | None:
    last = state.last
    if last is None or last == state.newest(PlanEdited, "plan"):
        return None
    plan = plan_of(state)
    step = plan.find_step(current_step(state, now, known))
    assert step is not None
    title, line = _where(state, step, known)
    joint = plan.find_joint(next(iter(step.tightens()), None))
    if joint is not None:
        facts = joint_facts(state, joint)
        if facts.begun and facts.next_bolt and facts.next_stage:
            title = f"You stopped at bolt {facts.next_bolt}, stage {facts.next_stage}"
            done = [b.number for b in facts.bolts if b.stage >= facts.next_stage]
            whole = f"Bolts 1 to {done[-1]} have stage {facts.next_stage}. " if done else ""
            line = f"{whole}Bolt {facts.next_bolt} is not pulled in this stage."
    left = [item for item in left_open(state) if item.kind not in ("danger", "load")]
    loose = f"Left open: {'; '.join(item.what for item in left[:3])}" + (
        f" and {len(left) - 3} more." if len(left) > 3 else "."
    )
    return Resume(
        title=title,
        line=line,
        hangs=_hangs(state),
        loose=loose if left else "Nothing is left open.",
        since=last.time,
    )


def _where(state: BookState, step: Step, known: dict[str, StepStatus]) -> tuple[str, str]:
    """The step begun, else the last one really done, and what comes next."""
    here = f"{step.number} {step.short or step.title}"
    if known[step.id].status == "begun":
        return f"You stopped at {here}", known[step.id].doubt or "This step is not done."
    done = [
        (state.entries[s.entry].seq, name)
        for name, s in known.items()
        if s.status == "done" and s.entry
    ]
    last = plan_of(state).find_step(max(done)[1]) if done else None
    if last is None:
        return f"Next is {here}", "Nothing is done yet."
    return f"Last done: {last.number} {last.short or last.title}", f"Next is {here}."


def _hangs(state: BookState) -> str:
    """What is dangerous to come back to: dangers that are live, loads that hang or of which nobody
    knows what carries them.
    """
    said = [f"{danger.title}: {danger.words}" for danger in live_dangers(state)]
    said += [
        f"{body.name}: {body.because}"
        for body in support_view(state).bodies
        if body.hangs or not body.known
    ]
    return ". ".join(said)


def bench_of(
    state: BookState, step: Step, tools: Sequence[Instrument], gear: Gear, now: str
) -> Bench:
    """The bench of one step at the moment `now` (UTC, ISO 8601)."""
    return BENCHES[type(step)](state, step, tools, _base(state, step, gear, tools, now))


def _base(
    state: BookState, step: Step, gear: Gear, tools: Sequence[Instrument], now: str
) -> dict[str, Any]:
    plan = plan_of(state)
    known = statuses(state)
    box, found = box_of(step), obstacles(state, step, tools, now)
    presses = state.each(Confirmed, "step", step.id)
    press = next((e for e in reversed(presses) if e.body.what == box), None)
    later = [s for s in plan.step[plan.step.index(step) + 1 :] if known[s.id].status not in SETTLED]
    opened, back = {o.id: o.what for s in plan.step for o in s.opens}, puts_back(plan, step)
    return {
        "step": step.id,
        "number": step.number,
        "title": step.title,
        "stage": step.stage,
        "stage_name": STAGES[step.stage],
        "do": step.do,
        "why": step.why,
        "caution": step.caution,
        "status": known[step.id],
        "settled": known[step.id].status in SETTLED,
        "lacking": next((o.words for o in found if o.code not in ("danger", "must_wait")), None),
        "obstacles": found,
        "dangers": tuple(d for d in live_dangers(state) if d.step == step.id),
        "other_box": kind_of_box(state, step),
        "skip_keys": reason_keys("skip"),
        "chance_keys": reason_keys("last_chance"),
        "capture_keys": reason_keys("capture"),
        "may_pass": bool(found) and all(o.by == "reason" for o in found),
        "may_happen": any(o.by == "thing" for o in found) and known[step.id].status not in SETTLED,
        "pass_words": found[0].words if found else "",
        "pass_keys": found[0].keys if found else (),
        "waited_for": tuple(
            f"{s.title}: {link.because}" for s, link in guards(whole_of(state), step.id)
        ),
        "clash": clash(state, step),
        "gear": tuple(
            ToolNeed(name=tool, state=gear.tools.get(tool.casefold(), "not in the list yet"))
            for tool in step.tools
        ),
        "people": step.people,
        "parts": step.parts,
        "hours": step.hours,
        "chances": chances(state, step),
        "ahead": _ahead(state, later, step),
        "extras": tuple(x for x in plan.extra if x.at == step.id and x.id not in plan.extras),
        "box": box,
        "confirmed": box is None or not not_pressed(state, step, box, now),
        "confirmed_by": press.who if press else "",
        "waits": waiting_for(state, step.id, now, known),
        "blocks": RUNGS.get(blocks_of(plan, step), "nothing"),
        "opens": tuple(o.what for o in step.opens),
        "closes": tuple(opened.get(c, c) for c in step.closes),
        "next": tuple(f"{s.number} {s.title}" for s in later[:3]),
        "following": later[0].id if later else None,
        "captures": captures_of(state, step),
        "compares": compares_of(state, step),
        "keeps": keeps_of(state, step),
        "refit_bags": tuple(c for c in bag_contents(state) if c.owner in back),
        "fluids": _fluids(plan, step, known),
        "hidden": step.hidden,
        "needed_open": not_open_any_more(state, step),
        "around": around_words(around_now(state), step, bool(bare_openings(state))),
        "photos": photos_of(state, step.id),
        "lifts": step.lifts,
        "seen": state.seen.get(Key("step", step.id), 0),
        "now": now,
        "primary": step.pressed(),
        "lines": tuple(line_of(state, e) for e in _all_of_step(state, step.id)[-12:]),
    }


def _fluids(plan: Plan, step: Step, known: dict[str, StepStatus]) -> tuple[FluidView, ...]:
    """What still runs out at this step; drained once a step that drains it is done."""
    found = []
    for fluid in plan.fluid:
        if fluid.id not in step.holds:
            continue
        drains = [s for s in plan.step if fluid.id in s.drains]
        drained = bool(drains) and any(known[s.id].status == "done" for s in drains)
        amount = f"{fluid.amount} " if fluid.amount else ""
        if fluid.stays_closed:
            words = f"{fluid.name}: the circuit stays closed, nothing is opened"
        elif drained:
            words = f"{fluid.name}: drained, the rest runs out {fluid.runs_out}"
        else:
            words = f"{fluid.name} still in, {amount}runs out {fluid.runs_out}: tray under it first"
        found.append(
            FluidView(
                name=fluid.name, words=words, drained=drained, stays_closed=fluid.stays_closed
            )
        )
    return tuple(found)


def _ahead(state: BookState, later: Sequence[Step], step: Step) -> tuple[str, ...]:
    """Last chances of the step that comes next, announced one step early."""
    if not later:
        return ()
    waiting = [
        c.thing
        for c in chances(state, later[0])
        if c.state in ("open", "no step") and c.step != step.id
    ]
    return tuple(f"last chance before {later[0].number}: {thing}" for thing in waiting)


def _all_of_step(state: BookState, step: str) -> list[Line]:
    struck = [e for i in state.struck if (e := state.entries[i]).body.at() == step]
    return sorted([*state.of_step(step), *struck], key=lambda e: e.seq)


def _check(
    state: BookState, step: CheckStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> CheckBench:
    return CheckBench(
        **base,
        asks=said_figures(state, step),
        taken=taken_of(state, step),
        followers=followers(state, step),
    )


def _inspect(
    state: BookState, step: InspectStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> InspectBench:
    facts = inspection_facts(state, step)
    surfaces = dict.fromkeys(face.on for part in facts.parts for face in part.faces)
    return InspectBench(
        **base,
        inspection=facts,
        codes=tuple(PartCodes(on=on, codes=codes_for(on)) for on in surfaces),
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


def _remove(
    state: BookState, step: RemoveStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> RemoveBench:
    bags = bag_contents(state)
    sizes, places = recent_hand(state)
    return RemoveBench(
        **base,
        proposed=step.bag,
        next_bag=next_bag(bags),
        bags=bags,
        recent=sizes,
        places=places,
        bag_keys=reason_keys("bag"),
        bagged=tuple(bag for bag in bags if bag.owner == step.id),
    )


def _tool_choice(tool: Instrument, value: float, limit: Limit | None) -> ToolChoice:
    """What a tool can do near a value: its uncertainty there, and why it cannot, where
    it cannot.
    """
    words, u_text, can = "no usual repeatability: read three times", "", False
    if tool.s is not None:
        big_u = single_reading_U(tool, value)
        u_text, can, words = f"±{decimal_text(big_u, 4)}", True, tool.name
        lo, hi = (limit.figure("lo"), limit.figure("hi")) if limit else (None, None)
        if lo is not None and hi is not None and 2 * big_u > hi - lo:
            words, can = "too wide: it can never prove inside", False
    if value and not tool.covers(value):
        words, can = f"range {tool.lo} to {tool.hi} {tool.unit}", False
    stands = standing(tool)
    if stands.sign == "outside":
        words, can = stands.words, False
    return ToolChoice(
        id=tool.id,
        code=tool.code,
        name=tool.name,
        kind=tool.kind,
        unit=tool.unit,
        dimension=tool.dimension,
        U_text=u_text,
        setting=tool.setting,
        words=words,
        can=can,
    )


def _measure(
    state: BookState, step: MeasureStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> MeasureBench:
    readings = readings_of(state, step, tools)
    shop = {tool.id: tool for tool in tools}
    choices: dict[str, ToolChoice] = {}
    for spec, reading in zip(step.reading, readings, strict=True):
        nominal = float(parse(spec.nominal).nominal or 0)
        for name in reading.tools:
            choices.setdefault(name, _tool_choice(shop[name], nominal, None))
    results = results_of(state, step, tools)
    alone = {
        r.readings[0]: r.judgement for r in results if len(r.readings) == 1
    }  # a reading that is judged by itself shows its verdict on the drawing
    readings = tuple(
        r.model_copy(update={"verdict": alone[r.entry].verdict, "side": alone[r.entry].side})
        if r.entry in alone
        else r
        for r in readings
    )
    return MeasureBench(
        **base | {"primary": f"{step.short or step.title}: done"},
        readings=readings,
        results=results,
        tools=tuple(choices.values()),
        next_reading=next((r.id for r in readings if r.entry is None), None),
        large=_largest(state, step, results),
        asked_state=_asked_state(step, results),
        draw=step.draw,
        rework=step.rework,
        replace=step.replace,
    )


def _largest(state: BookState, step: MeasureStep, results: Sequence[ResultFacts]) -> str | None:
    """The result that the newest reading of the step belongs to; one already read before one that
    still lacks a figure.
    """
    newest = state.newest(Reading, "step", step.id)
    own = [spec.id for spec in step.result if newest and newest.body.reading in spec.named()]
    read = {r.id for r in results if r.readings}
    return next((name for name in own if name in read), own[0] if own else None)


def _asked_state(step: MeasureStep, results: Sequence[ResultFacts]) -> str | None:
    """The state that the sheet asks for in this step, where it is one."""
    asked = {
        state
        for state in (*(r.state for r in step.reading), *(r.limit.condition for r in results))
        if state
    }
    return asked.pop() if len(asked) == 1 else None


def _tighten(
    state: BookState, step: TightenStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> TightenBench:
    joint = plan_of(state).find_joint(step.joint)
    assert joint is not None
    facts = joint_facts(state, joint)
    stage = facts.next_stage or max(1, min((b.stage for b in facts.bolts), default=1))
    wrenches = []
    for tool in tools:
        if tool.retired or "wrench" not in tool.kind:
            continue
        kind = stage_ask(joint, stage)[0]
        setting = setting_for(joint, stage, tool, facts.adapter)
        words = setting.refusal or (
            f"set {setting.figure} {setting.unit}, holds ±{tool.mpe_percent} %"
            if kind == "torque"
            else "angle"
        )
        wrenches.append(
            WrenchChoice(
                id=tool.id,
                code=tool.code,
                name=tool.name,
                words=words,
                usable=setting.refusal is None,
                holds=wrench_holds(tool, facts.tolerance),
            )
        )
    wide = None
    if (
        facts.wrench is not None
        and not wrench_holds(facts.wrench, facts.tolerance)
        and facts.wrench_reason is None
    ):
        wide = (
            f"{facts.wrench.code} holds ±{facts.wrench.mpe_percent} %, the joint asks "
            f"±{decimal_text(facts.tolerance)} %"
        )
    primary = "It clicked"
    if facts.next_stage and stage_ask(joint, facts.next_stage)[0] == "angle":
        primary = "Turned"
    elif facts.to_mark:
        primary = "Marked"
    elif facts.final:
        primary = f"{step.short or step.title}: done"
    return TightenBench(
        **base
        | {
            "primary": primary,
            "seen": max(base["seen"], state.seen.get(Key("joint", joint.id), 0)),
        },
        joint=facts,
        layout=joint.layout.kind,
        sides=joint.sides,
        fastener=joint.fastener,
        treatment=joint.treatment,
        source=joint.source,
        setting=setting_for(joint, facts.next_stage, facts.wrench, facts.adapter)
        if facts.next_stage
        else None,
        wrenches=tuple(wrenches),
        wide=wide,
        bolt_keys=reason_keys("bolt"),
        doubts=_doubted(state, joint, tools),
    )


def _doubted(state: BookState, joint: Joint, tools: Sequence[Instrument]) -> tuple[str, ...]:
    """Bolts pulled with a wrench found wrong since, in one line for each fault."""
    faults: dict[str, list[str]] = {}
    for bolt, words in sorted(doubted_bolts(state, joint, tools).items()):
        faults.setdefault(words, []).append(str(bolt))
    return tuple(
        (
            f"{'Bolt' if len(bolts) == 1 else 'Bolts'} {', '.join(bolts)}: {words}. Pull anew with "
            "a wrench that is good"
        )
        for words, bolts in faults.items()
    )


def _fill(
    state: BookState, step: FillStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> FillBench:
    limit = plan_of(state).find_limit(step.amount)
    assert limit is not None
    read = state.newest(Reading, "reading", step.id)
    judgement = judge(None, None, limit)
    if read is not None:
        tool = read.body.tool()
        typed = [float(exact(q, tool.dimension, "values")) for q in read.body.values]
        try:
            spread = reading_share(tool, typed)
            judgement = judge(spread.value, combine([(1, spread)])[2], limit)
        except Refused:
            judgement = judge(sum(typed) / len(typed), None, limit)
    seen = any(e.body.what == step.level for e in state.each(Confirmed, "step", step.id))
    expected = limit.figure("target") or limit.figure("hi") or 0.0
    return FillBench(
        **base | {"primary": f"{step.fluid}: in and level"},
        fluid=step.fluid,
        amount=limit,
        judgement=judgement,
        typed=read.body.typed if read else (),
        level=step.level,
        level_seen=seen,
        coolant=step.coolant,
        tools=tuple(
            _tool_choice(tool, expected, limit)
            for tool in tools
            if tool.kind == "jug" and not tool.retired
        ),
        dry_run_s=dry_run_decision(state) if step.coolant else None,
    )


def _run(
    state: BookState, step: RunStep, tools: Sequence[Instrument], base: dict[str, Any]
) -> RunBench:
    plan = plan_of(state)
    items = open_items(state, tools)
    answers = gate_answers(state, tools, items)
    gate = next(a for a in answers if a.rung == step.rung)
    attempts = attempts_of(state, step)
    limit = plan.find_limit(step.time_limit)
    total = plan.find_limit(step.total_limit)
    most = limit.figure("hi") if limit else None
    if gate.answer == "limited" and step.rung == "fire" and most is not None:
        most = min(most, dry_run_decision(state) or most)
    if most is not None:
        most = burst_limit(most, total.figure("hi") if total else None, attempts)
    now = base["now"]
    resting, (at_once, by) = rest_of(state, step, now), isolated_again(state, step, now)
    gauge = next(
        (tool for tool in tools if tool.kind == "pressure gauge" and not tool.retired), None
    )
    used = [
        plan.find_limit(n)
        for n in (step.time_limit, step.pressure, step.pressure_by, step.coolant)
        if n
    ]
    return RunBench(
        **base | {"primary": f"{RUNGS[step.rung]} now"},
        rung=step.rung,
        rung_name=RUNGS[step.rung],
        rungs=answers,
        gate=gate,
        isolate=step.isolate,
        expect=step.expect,
        watch=step.watch,
        limit_s=most,
        limit_words=limit.words() if limit else "not given",
        assumed=any(x is not None and x.source is None for x in used),
        attempts=attempts,
        running=next((a for a in attempts if not a.ended), None),
        cranked_s=cranked_s(attempts),
        total_s=total.figure("hi") if total else None,
        still_runs=step.still_runs,
        suspects=_suspects(state, items),
        gate_keys=reason_keys("gate"),
        rest=resting[0] if resting is not None else None,
        isolate_at_once=at_once,
        isolated_by=by,
        gauge_unit=gauge.unit if gauge is not None else "bar",
    )


def _suspects(state: BookState, items: tuple[OpenItem, ...]) -> tuple[str, ...]:
    """First suspects when something is wrong: what was changed last, then the temporary items still
    in.
    """
    plan = plan_of(state)
    changed = []
    for entry in state.last_lines(80):
        step = plan.find_step(entry.body.at())
        done = entry.body.stands().status == "done"
        if done and step is not None and step.as_run() is None and not step.readings():
            changed.append(f"{step.number} {step.title}")
    temporary = [item.what for item in items if item.kind == "temporary"]
    return tuple(changed[:3] + temporary[:5])


BENCHES: dict[
    type[Any], Callable[[BookState, Any, Sequence[Instrument], dict[str, Any]], Bench]
] = {
    CheckStep: _check,
    InspectStep: _inspect,
    RemoveStep: _remove,
    MeasureStep: _measure,
    TightenStep: _tighten,
    FillStep: _fill,
    RunStep: _run,
}
