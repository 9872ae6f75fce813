"""Left open and the gates: everything that must be cleared, by the first rung it blocks; what is
dangerous first, then what is wrong, open, not reached.
"""

from collections.abc import Sequence
from typing import Literal

from pydantic import BaseModel, ConfigDict

from hollet.core.book.bags import bag_contents
from hollet.core.book.captures import mismatches
from hollet.core.book.fluids import empty_fluids
from hollet.core.book.look_again import BY_DAY, looks_due
from hollet.core.book.passing import live_dangers
from hollet.core.book.removals import back_steps
from hollet.core.book.settings import disturbed_settings
from hollet.core.book.supports import held_up_by, support_view
from hollet.core.entries import BookState, Decision, LeftOpen, Line
from hollet.core.entries.status import SETTLED, StepStatus, plan_of, status_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.pieces import Opens
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.core.steps.inspection import open_parts, unseen_safety
from hollet.core.steps.results import results_of
from hollet.core.steps.run import attempts_of
from hollet.core.steps.tighten import doubted_bolts, joint_facts

__all__ = [
    "GATE_LINE",
    "SAFETY_RUNG",
    "GateAnswer",
    "OpenItem",
    "StageGroup",
    "dry_run_decision",
    "gate_answers",
    "left_open",
    "open_items",
    "stage_groups",
]

GATE_LINE = "The vehicle maker's manual, local codes and licensed practice go first."


Rank = Literal["danger", "wrong", "open", "not_reached"]
RANKS: tuple[Rank, ...] = ("danger", "wrong", "open", "not_reached")
RANK_OF: dict[str, Rank] = {
    "danger": "danger",
    "load": "danger",
    "result": "wrong",
    "part": "wrong",
    "capture": "wrong",
    "setting": "wrong",
    "lost": "wrong",
    "isolate": "wrong",
    "temporary": "open",
    "joint": "open",
    "empty": "open",
    "missing": "open",
    "look_again": "open",
    "step": "not_reached",
}
SAFETY_RUNG = {"fuel": "fuel_on"}
"""The rung that a safety-critical value or part shuts until it is replaced or inspected: fuel its
own, all others drive.
"""


class OpenItem(BaseModel):
    """One thing left open: what it is, the first rung it blocks, where it is cleared; how bad it
    is, and the box that ends a danger.

    `holds_up`: undoing it asks what carries that body now. `no_closer`: no step of the plan closes
    it.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    id: str
    kind: str
    what: str
    blocks: str
    step: str | None = None
    clear_at: str | None = None
    clear_number: str = ""
    step_number: str = ""
    stage: str = ""
    undo: str = ""
    since: str = ""
    who: str = ""
    open_for: str | None = None
    note: str | None = None
    assumed: bool = False
    sort: str = "other"
    where: str | None = None
    rank: Rank = "open"
    box: str | None = None
    holds_up: str | None = None
    no_closer: bool = False


class StageGroup(BaseModel):
    """Steps of one stage that are merely not reached: the stage, how many, and their items."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    stage: str
    words: str
    items: tuple[OpenItem, ...]


class GateAnswer(BaseModel):
    """May I? `shut`, `limited` (with its limit) or `nothing left open`; `items` are what shuts this
    rung itself, the worst first.

    `first` are those that are dangerous, wrong or open; `not_reached` groups the steps by stage.
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    rung: str
    name: str
    answer: str
    limit: str | None = None
    reasons: tuple[str, ...] = ()
    items: tuple[OpenItem, ...] = ()
    first: tuple[OpenItem, ...] = ()
    not_reached: tuple[StageGroup, ...] = ()
    check_open: tuple[str, ...] = ()


def left_open(state: BookState) -> tuple[OpenItem, ...]:
    """Live dangers, what is carried by nobody knows what, temporary states, empty systems, joints
    begun and not final, what to look at again: the ledger of the plate.
    """
    return (
        *_dangers(state),
        *_temporary(state),
        *_empty(state),
        *_joints(state),
        *_look_again(state),
    )


def _look_again(state: BookState) -> list[OpenItem]:
    return [
        _item(
            id=f"look:{due.step}",
            kind="look_again",
            what=due.words,
            blocks="nothing",
            step=due.step,
            step_number=due.number,
            clear_at=due.step,
            clear_number=due.number,
            undo="look again by day",
            box=BY_DAY,
            since=due.since,
            who=due.who,
        )
        for due in looks_due(state)
    ]


def _item(**facts: object) -> OpenItem:
    return OpenItem.model_validate({"rank": RANK_OF[str(facts["kind"])], **facts})


def _dangers(state: BookState) -> list[OpenItem]:
    found = [
        _item(
            id=f"danger:{d.step}:{d.clear_at}",
            kind="danger",
            what=f"{d.title}: {d.words}",
            blocks=d.blocks,
            step=d.step,
            step_number=d.number,
            clear_at=d.clear_at,
            undo=d.box,
            box=d.box,
            since=d.since,
            who=d.who,
        )
        for d in live_dangers(state)
    ]
    found += [
        _item(
            id=f"load:{body.body}",
            kind="load",
            what=f"{body.name}: nobody said what carries it",
            blocks="crank",
            undo="say what carries it",
        )
        for body in support_view(state).bodies
        if not body.known
    ]
    return found


def _temporary(state: BookState) -> tuple[OpenItem, ...]:
    plan = plan_of(state)
    found = []
    for item_id, entries in state.names("open"):
        opener = entries[-1]
        if item_id in opener.body.closed():
            continue
        by_hand = opened_by_hand(state, item_id)
        item = opened_item(state, item_id)
        step = plan.find_step(opener.body.at())
        closer = next((s for s in plan.step if item_id in s.closes), None)
        if closer is None and by_hand is not None and step is not None:
            closer = plan.find_step(by_hand.closes_at) or plan.find_step(
                next(iter(back_steps(plan, step)), None)
            )
        found.append(
            _item(
                id=item_id,
                kind="temporary",
                clear_at=closer.id if closer else None,
                no_closer=closer is None and by_hand is None,
                clear_number=closer.number if closer else "",
                what=item.what,
                blocks=item.blocks,
                step=opener.body.at(),
                undo=item.undo,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                since=opener.time,
                who=opener.who,
                open_for=item.open_for,
                note=item.if_left,
                sort=item.sort,
                where=item.where,
                holds_up=_holds_up(state, opener, item),
            )
        )
    return tuple(sorted(found, key=lambda i: i.since))


def opened_by_hand(state: BookState, item_id: str) -> LeftOpen | None:
    """What was left open by hand, where it was a hand that opened it last."""
    left = state.newest(LeftOpen, "open", item_id)
    return left.body if left is not None and left == state.live("open", item_id)[-1] else None


def opened_item(state: BookState, item_id: str) -> Opens:
    """What is open, as the step or the hand that opened it last said it."""
    opener = state.live("open", item_id)[-1].body
    return next(item for item in opener.opened() if item.id == item_id)


def _holds_up(state: BookState, opener: Line, item: Opens) -> str | None:
    """The body that undoing this item asks about: what its step set on something, or whatever is
    blocked or held.
    """
    step = opener.body.at()
    bodies = held_up_by(state, step) if step and not opened_by_hand(state, item.id) else ()
    return bodies[0] if bodies else "other" if item.sort == "block" else None


def _empty(state: BookState) -> list[OpenItem]:
    """Fluids that are out; where the step that fills it is still to come and blocks no later rung,
    that step says so itself.
    """
    plan = plan_of(state)
    found = []
    for empty in empty_fluids(state):
        drained, fills = plan.find_step(empty.drained_at), plan.find_step(empty.filled_at)
        found.append(
            _item(
                id=f"empty:{empty.fluid}",
                kind="empty",
                what=f"{empty.name}: drained and not filled",
                blocks=empty.blocks,
                step=empty.drained_at,
                step_number=drained.number if drained else "",
                stage=drained.stage if drained else "",
                clear_at=fills.id if fills else None,
                clear_number=fills.number if fills else "",
                undo="fill it",
                since=empty.since,
                who=empty.who,
                no_closer=fills is None,
            )
        )
    return found


def _joints(state: BookState) -> tuple[OpenItem, ...]:
    """Joints begun and not final, and joints whose tightening was passed over: nothing else says
    that they hold.
    """
    plan = plan_of(state)
    found = []
    for joint in plan.joint:
        facts = joint_facts(state, joint)
        step = next((s for s in plan.step if joint.id in s.tightens()), None)
        status = status_of(state, step) if step is not None else None
        passed = (
            status is not None
            and status.status in ("done", "skipped", "not_applicable")
            and not (facts.begun and facts.final)
        )
        if facts.final if facts.begun else not passed:
            continue
        live = state.live("joint", joint.id)
        since, who = (
            (live[0].time, live[0].who)
            if live
            else (status.time, status.who)
            if status is not None
            else ("", "")
        )
        found.append(
            _item(
                id=f"joint:{joint.id}",
                kind="joint",
                what=f"{joint.name}, {facts.progress}" + ("" if facts.begun else ", passed over"),
                since=since,
                who=who,
                blocks=blocks_of(plan, step) if step else "crank",
                step=step.id if step else None,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                undo=joint.wait_for or "tighten to the last stage",
            )
        )
    return tuple(found)


def open_items(
    state: BookState, tools: Sequence[Instrument] = (), known: dict[str, StepStatus] | None = None
) -> tuple[OpenItem, ...]:
    """Everything open: dangers, steps, temporary states, empty systems, joints, results, parts and
    missing values, each with the rung it blocks.
    """
    plan = plan_of(state)
    known = known or statuses(state)
    found = list(left_open(state))
    for step in plan.step:
        status = known[step.id]
        rung = blocks_of(plan, step)
        said = any(
            i.blocks == rung and step.id in (i.clear_at, i.step if i.kind == "joint" else None)
            for i in found
        )
        if status.status not in SETTLED and not said:
            found.append(
                _item(
                    id=f"step:{step.id}",
                    kind="step",
                    what=step.title,
                    blocks=rung,
                    step=step.id,
                    step_number=step.number,
                    stage=step.stage,
                    note=status.doubt,
                )
            )
        found += _results(state, step, tools, status)
        found += _parts(state, step.as_inspection(), status)
    found += [i for step in plan.step for i in _missing(state, step, known[step.id])]
    found += _undone_too_early(state, known)
    found += _not_as_found(state)
    found += _by_doubted_wrench(state, tools)
    return tuple(found)


def _parts(state: BookState, step: InspectStep | None, status: StepStatus) -> list[OpenItem]:
    """Parts that are bad or not looked at; a step passed over says nothing of one that is safety
    critical.
    """
    if step is None:
        return []
    parts = dict(open_parts(state, step)) if status.status != "not_there" else {}
    if status.status in ("skipped", "not_applicable"):
        known = {part.id for part in parts}
        parts |= {p: words for p, words in unseen_safety(state, step) if p.id not in known}
    rung = blocks_of(plan_of(state), step)
    return [
        _item(
            id=f"part:{step.id}/{part.id}",
            kind="part",
            what=words,
            step=step.id,
            step_number=step.number,
            stage=step.stage,
            undo="say when it is done",
            blocks=SAFETY_RUNG.get(part.safety, "drive") if part.barred and part.safety else rung,
        )
        for part, words in parts.items()
    ]


def _by_doubted_wrench(state: BookState, tools: Sequence[Instrument]) -> list[OpenItem]:
    """Bolts as they are now that were pulled with a wrench found wrong at its check since."""
    found = []
    for step in (plan := plan_of(state)).step:
        joint = plan.find_joint(next(iter(step.tightens()), None))
        doubts = doubted_bolts(state, joint, tools) if joint is not None else {}
        if joint is not None and doubts:
            bolts = ", ".join(str(number) for number in sorted(doubts))
            found.append(
                _item(
                    id=f"wrench:{joint.id}",
                    kind="joint",
                    what=(
                        f"{joint.name}: {next(iter(doubts.values()))}, bolt {bolts} pulled with it"
                    ),
                    blocks=blocks_of(plan, step),
                    step=step.id,
                    step_number=step.number,
                    stage=step.stage,
                    undo="pull them anew with a wrench that is good",
                )
            )
    return found


def _not_as_found(state: BookState) -> list[OpenItem]:
    """Marks that did not line up at refit, settings disturbed and not set anew, fasteners lost and
    not replaced.
    """
    plan = plan_of(state)
    found = []
    for view in mismatches(state):
        step = plan.find_step(view.compare_at) or plan.find_step(view.step)
        found.append(
            _item(
                id=f"capture:{view.id}",
                kind="capture",
                what=f"{view.what}: not as found, {view.compared}",
                blocks=blocks_of(plan, step) if step else "crank",
                step=step.id if step else None,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                undo="put it right and compare again",
                who=view.who,
            )
        )
    for entry in disturbed_settings(state):
        body, step = entry.body, plan.find_step(entry.body.step)
        found.append(
            _item(
                id=f"setting:{body.setting}",
                kind="setting",
                what=f"{body.what} was loosened: {body.holds} is lost",
                blocks=body.blocks,
                step=body.step,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                undo="set it anew",
                since=entry.time,
                who=entry.who,
            )
        )
    for content in bag_contents(state):
        if content.missing:
            back = next(
                (s for s in plan.step if content.owner in s.refits), None
            ) or plan.find_step(content.step)
            found.append(
                _item(
                    id=f"lost:{content.bag}",
                    kind="lost",
                    what=f"{content.missing} of {content.pieces} lost from bag {content.bag}, "
                    f"{content.what}",
                    blocks=blocks_of(plan, back) if back else "crank",
                    step=back.id if back else None,
                    step_number=back.number if back else "",
                    stage=back.stage if back else "",
                    undo="the same size and grade in their place",
                )
            )
    return found


def _undone_too_early(state: BookState, known: dict[str, StepStatus]) -> list[OpenItem]:
    """What must be open for a rung that is still to come, and was undone already: the coil plugged
    in before cranking.
    """
    plan = plan_of(state)
    runs = [run for step in plan.step if (run := step.as_run()) is not None]
    to_come = {run.rung for run in runs if known[run.id].status not in SETTLED}
    open_now = {item.id for item in _temporary(state)}
    return [
        _item(
            id=f"undone:{item.id}",
            kind="isolate",
            blocks=item.open_for,
            step=step.id,
            step_number=step.number,
            stage=step.stage,
            what=f"{item.what}: it must be so for {RUNGS[item.open_for].lower()}, and was undone",
        )
        for step in plan.step
        for item in step.opens
        if item.open_for in to_come and state.live("open", item.id) and item.id not in open_now
    ]


def _results(
    state: BookState, step: Step, tools: Sequence[Instrument], status: StepStatus
) -> list[OpenItem]:
    """Results that are not proven good.

    A step passed over says nothing of a safety-critical value: it stays.
    """
    passed = status.status in ("skipped", "not_applicable")
    found = []
    for result in results_of(state, step, tools):
        judged, safety = result.judgement, result.limit.safety
        if (
            judged.verdict == "not_read"
            and not result.refusal
            and (
                status.status not in SETTLED
                or status.status == "not_there"
                or (passed and safety is None)
            )
        ):
            continue  # the step itself is open and says so
        if passed and safety is None and not result.readings:
            continue
        barred = result.conceded and safety is not None and not result.licensed
        if not result.open and not barred:
            continue
        if judged.verdict == "no_limit":
            continue  # what is not given says so itself
        blocks = blocks_of(plan_of(state), step)
        if safety is not None and (barred or passed):
            blocks = SAFETY_RUNG.get(safety, "drive")
        found.append(
            _item(
                id=f"result:{step.id}/{result.id}",
                kind="result",
                blocks=blocks,
                step=step.id,
                what=f"{result.name} {judged.value_text} {judged.unit}: {judged.words}".replace(
                    "  ", " "
                ),
                step_number=step.number,
                stage=step.stage,
                note=result.lapsed or result.refusal,
                assumed=judged.assumed,
            )
        )
    return found


def _missing(state: BookState, step: Step, status: StepStatus) -> list[OpenItem]:
    """Values that the step needs and nobody has given yet; a step done does not settle them, what
    was measured stays unjudged.
    """
    plan = plan_of(state)
    passed = status.status in ("skipped", "not_applicable", "not_there")
    names = step.must_have(passed=passed, settled=status.status in SETTLED)
    limits = [
        limit
        for limit in plan.limit
        if limit.id in names and not limit.given and limit.target is None
    ]
    return [
        _item(
            id=f"limit:{step.id}/{limit.id}",
            kind="missing",
            what=f"{limit.name}: value not given",
            blocks=blocks_of(plan, step),
            step=step.id,
            step_number=step.number,
            stage=step.stage,
        )
        for limit in limits
    ]


def dry_run_decision(state: BookState) -> float | None:
    """Seconds of the one run without coolant that was decided in writing and not used
    yet, or None.
    """
    plan = plan_of(state)
    for step in plan.step:
        if not step.cools():
            continue
        decided = [e for e in state.each(Decision, "step", step.id) if e.body.about == "dry_run"]
        if decided:
            runs = (
                a
                for s in plan.step
                if (run := s.as_run()) is not None and run.rung == "fire"
                for a in attempts_of(state, run)
            )
            if not any(a.started >= decided[-1].time for a in runs):
                return float(decided[-1].body.seconds or 0.0)
    return None


def gate_answers(
    state: BookState, tools: Sequence[Instrument] = (), items: tuple[OpenItem, ...] | None = None
) -> tuple[GateAnswer, ...]:
    """The seven rungs in order; what blocks a rung blocks all above it."""
    plan = plan_of(state)
    items = open_items(state, tools) if items is None else items
    dry = dry_run_decision(state)
    coolant = {f"step:{step.id}" for step in plan.step if step.cools()}
    coolant |= {f"empty:{fluid.id}" for fluid in plan.fluid if fluid.kind == "coolant"}
    answers = []
    below: list[OpenItem] = []
    for rung, name in RUNGS.items():
        own = [item for item in items if item.blocks == rung]
        own.sort(
            key=lambda i: (RANKS.index(i.rank), i.clear_number or i.step_number or "9.99", i.kind)
        )
        reasons = [*below, *own]
        must_be_open = tuple(item.what for item in items if item.open_for == rung)
        if not reasons:
            answer, limit = "nothing left open", None
            runs = (run for s in plan.step if (run := s.as_run()) is not None)
            for step in runs:
                if step.rung == rung and rung == "run_on":
                    held = plan.find_limit(step.time_limit)
                    if held and held.hi:
                        answer, limit = "limited", f"{held.hi} {held.unit} at most"
        elif rung == "fire" and dry is not None and all(item.id in coolant for item in reasons):
            answer, limit = (
                "limited",
                f"one run of {dry:g} s at most without coolant, then a full cool-down",
            )
        else:
            answer, limit = "shut", None
        words = tuple(item.what for item in sorted(reasons, key=lambda i: RANKS.index(i.rank))[:40])
        answers.append(
            GateAnswer(
                rung=rung,
                name=name,
                answer=answer,
                limit=limit,
                reasons=words,
                items=tuple(own),
                check_open=must_be_open,
                first=tuple(i for i in own if i.rank != "not_reached"),
                not_reached=stage_groups(own),
            )
        )
        below += own
    return tuple(answers)


def stage_groups(items: Sequence[OpenItem]) -> tuple[StageGroup, ...]:
    """The steps among some items that are merely not reached, by stage."""
    found = []
    for stage, name in STAGES.items():
        own = tuple(item for item in items if item.rank == "not_reached" and item.stage == stage)
        if own:
            found.append(
                StageGroup(
                    stage=stage,
                    words=f"{name}: {len(own)} {'step' if len(own) == 1 else 'steps'}",
                    items=own,
                )
            )
    return tuple(found)
