"""Left open and the gates: everything that must be cleared, by the first rung it blocks."""

from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict

from hollet.core.book.bags import bag_contents
from hollet.core.book.captures import mismatches
from hollet.core.book.fold import BookState
from hollet.core.book.inspection import open_parts
from hollet.core.book.measure import results_of
from hollet.core.book.run import attempts_of
from hollet.core.book.settings import disturbed_settings
from hollet.core.book.status import SETTLED, StepStatus, plan_of, statuses
from hollet.core.book.tighten import joint_facts
from hollet.core.instruments import Instrument
from hollet.core.procedure.sheet import RUNGS, FillStep, InspectStep, MeasureStep, RunStep, Step, TightenStep, blocks_of

__all__ = ["GATE_LINE", "GateAnswer", "OpenItem", "gate_answers", "left_open", "open_items"]

GATE_LINE = "The vehicle maker's manual, local codes and licensed practice go first."


class OpenItem(BaseModel):
    """One thing left open: what it is, the first rung it blocks, where it is cleared."""

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


class GateAnswer(BaseModel):
    """May I? `shut`, `limited` (with its limit) or `nothing left open`; `first` are the items that shut this rung itself."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)
    rung: str
    name: str
    answer: str
    limit: str | None = None
    reasons: tuple[str, ...] = ()
    items: tuple[OpenItem, ...] = ()
    check_open: tuple[str, ...] = ()


def left_open(state: BookState) -> tuple[OpenItem, ...]:
    """Temporary states and joints begun and not final: the ledger of the plate."""
    return (*_temporary(state), *_joints(state))


def _temporary(state: BookState) -> tuple[OpenItem, ...]:
    plan = plan_of(state)
    found = []
    for item_id, entries in state.opened.items():
        opener = None
        for entry in entries:
            closes = entry.kind == "undone" or (entry.kind == "done" and item_id in entry.body.closes)
            opener = None if closes else entry
        if opener is None:
            continue
        body = opener.body
        item = next(o for o in body.opens if o.id == item_id) if opener.kind == "done" else body
        step = plan.find_step(body.step)
        closer = next((s for s in plan.step if item_id in s.closes), step)
        found.append(OpenItem(id=item_id, kind="temporary", clear_at=closer.id if closer else None,
                              clear_number=closer.number if closer else "", what=item.what, blocks=item.blocks, step=body.step, undo=item.undo,
                              step_number=step.number if step else "", stage=step.stage if step else "", since=opener.time,
                              who=opener.who, open_for=item.open_for, note=getattr(item, "if_left", None),
                              sort=item.sort, where=item.where))  # fmt: skip
    return tuple(sorted(found, key=lambda i: i.since))


def _joints(state: BookState) -> tuple[OpenItem, ...]:
    plan = plan_of(state)
    found = []
    for joint in plan.joint:
        facts = joint_facts(state, joint)
        if not facts.begun or facts.final:
            continue
        step = next((s for s in plan.step if isinstance(s, TightenStep) and s.joint == joint.id), None)
        first = state.live(f"joint:{joint.id}")[0]
        found.append(OpenItem(id=f"joint:{joint.id}", kind="joint", what=f"{joint.name}, {facts.progress}", since=first.time,
                              blocks=blocks_of(step) if step else "crank", step=step.id if step else None,
                              step_number=step.number if step else "", stage=step.stage if step else "",
                              undo=joint.wait_for or "tighten to the last stage", who=first.who))  # fmt: skip
    return tuple(found)


def open_items(
    state: BookState, tools: Sequence[Instrument] = (), known: dict[str, StepStatus] | None = None
) -> tuple[OpenItem, ...]:
    """Everything open: steps, temporary states, joints, results and missing values, each with the rung it blocks."""
    plan = plan_of(state)
    known = known or statuses(state)
    found = list(left_open(state))
    for step in plan.step:
        status = known[step.id]
        said = any(i.blocks == blocks_of(step) and step.id in (i.clear_at, i.step if i.kind == "joint" else None) for i in found)
        if status.status not in SETTLED and not said:
            found.append(OpenItem(id=f"step:{step.id}", kind="step", what=step.title, blocks=blocks_of(step), step=step.id,
                                  step_number=step.number, stage=step.stage, note=status.doubt))  # fmt: skip
        if isinstance(step, MeasureStep) and status.status not in ("skipped", "not_applicable"):
            found += _results(state, step, tools, status)
        if isinstance(step, InspectStep):
            found += [OpenItem(id=f"part:{step.id}/{part.id}", kind="part", what=words, blocks=blocks_of(step), step=step.id, step_number=step.number,
                               stage=step.stage, undo="say when it is done") for part, words in open_parts(state, step)]  # fmt: skip
    found += [i for step in plan.step for i in _missing(state, step) if known[step.id].status not in SETTLED]
    found += _undone_too_early(state, known)
    found += _not_as_found(state)
    return tuple(found)


def _not_as_found(state: BookState) -> list[OpenItem]:
    """Marks that did not line up at refit, settings disturbed and not set anew, fasteners lost and not replaced."""
    plan = plan_of(state)
    found = []
    for view in mismatches(state):
        step = plan.find_step(view.compare_at) or plan.find_step(view.step)
        found.append(OpenItem(id=f"capture:{view.id}", kind="capture", what=f"{view.what}: not as found, {view.compared}", blocks=blocks_of(step) if step else "crank",
                              step=step.id if step else None, step_number=step.number if step else "", stage=step.stage if step else "",
                              undo="put it right and compare again", who=view.who))  # fmt: skip
    for entry in disturbed_settings(state):
        body, step = entry.body, plan.find_step(entry.body.step)
        found.append(OpenItem(id=f"setting:{body.setting}", kind="setting", what=f"{body.what} was loosened: {body.holds} is lost", blocks=body.blocks,
                              step=body.step, step_number=step.number if step else "", stage=step.stage if step else "", undo="set it anew",
                              since=entry.time, who=entry.who))  # fmt: skip
    for content in bag_contents(state):
        if content.missing:
            back = next((s for s in plan.step if content.owner in s.refits), None) or plan.find_step(content.step)
            found.append(OpenItem(id=f"lost:{content.bag}", kind="lost", what=f"{content.missing} of {content.pieces} lost from bag {content.bag}, {content.what}",
                                  blocks=blocks_of(back) if back else "crank", step=back.id if back else None, step_number=back.number if back else "",
                                  stage=back.stage if back else "", undo="the same size and grade in their place"))  # fmt: skip
    return found


def _undone_too_early(state: BookState, known: dict[str, StepStatus]) -> list[OpenItem]:
    """What must be open for a rung that is still to come, and was undone already: the coil plugged in before cranking."""
    plan = plan_of(state)
    to_come = {step.rung for step in plan.step if isinstance(step, RunStep) and known[step.id].status not in SETTLED}
    open_now = {item.id for item in _temporary(state)}
    return [
        OpenItem(id=f"undone:{item.id}", kind="isolate", blocks=item.open_for, step=step.id, step_number=step.number, stage=step.stage,
                 what=f"{item.what}: it must be so for {RUNGS[item.open_for].lower()}, and was undone")
        for step in plan.step for item in step.opens
        if item.open_for in to_come and state.opened.get(item.id) and item.id not in open_now
    ]  # fmt: skip


def _results(state: BookState, step: MeasureStep, tools: Sequence[Instrument], status: StepStatus) -> list[OpenItem]:
    found = []
    for result in results_of(state, step, tools):
        judged = result.judgement
        if judged.verdict == "not_read" and not result.refusal and status.status not in SETTLED:
            continue  # the step itself is open and says so
        barred = result.conceded and result.limit.safety is not None and not result.licensed
        if not result.open and not barred:
            continue
        if judged.verdict == "no_limit":
            continue
        blocks = blocks_of(step)
        if barred:
            blocks = "fuel_on" if result.limit.safety == "fuel" else "drive"
        found.append(OpenItem(id=f"result:{step.id}/{result.id}", kind="result", blocks=blocks, step=step.id,
                              what=f"{result.name} {judged.value_text} {judged.unit}: {judged.words}".replace("  ", " "),
                              step_number=step.number, stage=step.stage, note=result.lapsed or result.refusal,
                              assumed=judged.assumed))  # fmt: skip
    return found


def _missing(state: BookState, step: Step) -> list[OpenItem]:
    """Values that the step needs and nobody has given yet."""
    plan = plan_of(state)
    if isinstance(step, MeasureStep):
        names = [result.limit for result in step.result]
    elif isinstance(step, RunStep):
        names = [n for n in (step.time_limit, step.pressure, step.pressure_by, step.coolant) if n]
    elif isinstance(step, FillStep):
        names = [step.amount]
    else:
        names = []
    limits = [limit for limit in plan.limit if limit.id in names and not limit.given and limit.target is None]
    return [OpenItem(id=f"limit:{step.id}/{limit.id}", kind="missing", what=f"{limit.name}: value not given", blocks=blocks_of(step),
                     step=step.id, step_number=step.number, stage=step.stage) for limit in limits]  # fmt: skip


def dry_run_decision(state: BookState) -> float | None:
    """Seconds of the one run without coolant that was decided in writing and not used yet, or None."""
    plan = plan_of(state)
    for step in plan.step:
        if not isinstance(step, FillStep) or not step.coolant:
            continue
        decided = [e for e in state.of_step(step.id) if e.kind == "decision" and e.body.about == "dry_run"]
        if decided:
            runs = (a for s in plan.step if isinstance(s, RunStep) and s.rung == "fire" for a in attempts_of(state, s))
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
    coolant = {f"step:{step.id}" for step in plan.step if isinstance(step, FillStep) and step.coolant}
    answers = []
    below: list[OpenItem] = []
    for rung, name in RUNGS.items():
        own = [item for item in items if item.blocks == rung]
        own.sort(key=lambda i: (i.clear_number or i.step_number or "9.99", i.kind))
        reasons = [*below, *own]
        must_be_open = tuple(item.what for item in items if item.open_for == rung)
        if not reasons:
            answer, limit = "nothing left open", None
            for step in plan.step:
                if isinstance(step, RunStep) and step.rung == rung and rung == "run_on":
                    held = plan.find_limit(step.time_limit)
                    if held and held.hi:
                        answer, limit = "limited", f"{held.hi} {held.unit} at most"
        elif rung == "fire" and dry is not None and all(item.id in coolant for item in reasons):
            answer, limit = "limited", f"one run of {dry:g} s at most without coolant, then a full cool-down"
        else:
            answer, limit = "shut", None
        words = tuple(item.what for item in reasons[:40])
        answers.append(GateAnswer(rung=rung, name=name, answer=answer, limit=limit, reasons=words, items=tuple(own), check_open=must_be_open))
        below += own
    return tuple(answers)

