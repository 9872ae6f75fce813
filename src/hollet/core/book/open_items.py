"""Everything open, each with the rung it blocks: steps, results, parts, values not given."""

from collections.abc import Sequence

from hollet.core.book.bags import bag_contents
from hollet.core.book.captures import mismatches
from hollet.core.book.concessions import owner_of, without_word
from hollet.core.book.faults import fault_items
from hollet.core.book.fuel import fuel_items
from hollet.core.book.leaks import leak_items
from hollet.core.book.ledger import left_open, temporary_items
from hollet.core.book.machined import machine_orders
from hollet.core.book.needs import fitted_unproven
from hollet.core.book.one_open import OpenItem, open_item
from hollet.core.book.settings import disturbed_settings
from hollet.core.book.sweeping import sweep_items
from hollet.core.book.ties import tie_items
from hollet.core.entries import BookState
from hollet.core.entries.status import SETTLED, StepStatus, plan_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import RUNGS
from hollet.core.safety import shut_by
from hollet.core.steps.doubted import doubted_bolts
from hollet.core.steps.inspection import open_parts, unseen_safety
from hollet.core.steps.results import results_of
from hollet.core.steps.run import attempts_of

__all__ = ["open_items"]

"""The rung that a safety-critical value or part shuts until it is replaced or inspected: fuel its
own, all others drive.
"""


def open_items(state: BookState, tools: Sequence[Instrument] = ()) -> tuple[OpenItem, ...]:
    """Everything open: dangers, steps, temporary states, empty systems, joints, results, parts and
    missing values, each with the rung it blocks; remembered by log and tools.
    """
    made_of = (state.head, tuple((tool.id, tool.version) for tool in tools))
    return state.remembered(("open_items",), made_of, lambda: _open_items(state, tools))


def _open_items(state: BookState, tools: Sequence[Instrument]) -> tuple[OpenItem, ...]:
    plan, known = plan_of(state), statuses(state)
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
                open_item(
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
    found += _unproven(state)
    found += _by_doubted_wrench(state, tools)
    found += _machined_in_doubt(state, tools)
    found += _without_word(state)
    found += [*leak_items(state), *fuel_items(state)]
    found += fault_items(state)
    found += _taken_back(state)
    found += tie_items(state)
    found += sweep_items(state)
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
        open_item(
            id=f"part:{step.id}/{part.id}",
            kind="part",
            what=words,
            step=step.id,
            step_number=step.number,
            stage=step.stage,
            undo="say when it is done",
            blocks=shut_by(part.safety) if part.barred and part.safety else rung,
        )
        for part, words in parts.items()
    ]


def _taken_back(state: BookState) -> list[OpenItem]:
    """Rungs that had passed, and whose attempt is stopped by what was told or sent since."""
    plan, found = plan_of(state), []
    for step in plan.step:
        run = step.as_run()
        tried = attempts_of(state, run) if run is not None else ()
        if any(a.passed for a in tried) or not any(a.said_passed for a in tried):
            continue
        last = next(a for a in reversed(tried) if a.said_passed)
        found.append(
            open_item(
                id=f"run:{step.id}",
                kind="run",
                what=f"{step.title}: it had passed, and is stopped by what was told since",
                note=last.stop,
                blocks=blocks_of(plan, step),
                step=step.id,
                step_number=step.number,
                stage=step.stage,
                undo="find the cause, and let it pass once more",
                who=last.who,
            )
        )
    return found


def _unproven(state: BookState) -> list[OpenItem]:
    """Parts that went in and were not free, or were taken in writing and keep a rung shut."""
    return [
        open_item(
            id=f"need:{part.need}:{part.step}",
            kind="part",
            what=part.words,
            blocks=part.blocks,
            step=part.step,
            step_number=part.number,
            stage=part.stage,
            undo="compare it on the parts desk",
        )
        for part in fitted_unproven(state)
    ]


def _by_doubted_wrench(state: BookState, tools: Sequence[Instrument]) -> list[OpenItem]:
    """Bolts as they are now that were pulled with a wrench found wrong at its check since."""
    found = []
    plan = plan_of(state)
    locks = [(s, name) for s in plan.step for name in s.tightens()]
    for step, name in locks:
        joint = plan.find_joint(name)
        doubts = doubted_bolts(state, joint, tools) if joint is not None else {}
        if joint is not None and doubts:
            bolts = ", ".join(str(number) for number in sorted(doubts))
            found.append(
                open_item(
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


def _machined_in_doubt(state: BookState, tools: Sequence[Instrument]) -> list[OpenItem]:
    """Machine work that was measured with a tool found wrong since."""
    plan, found = plan_of(state), []
    for work in machine_orders(state, tools):
        step = plan.find_step(work.step)
        if work.doubt is not None:
            found.append(
                open_item(
                    id=f"machine:{work.work}",
                    kind="part",
                    what=f"{work.part}: {work.words}",
                    blocks=blocks_of(plan, step) if step else "crank",
                    step=work.step,
                    step_number=step.number if step else "",
                    stage=step.stage if step else "",
                    undo="measure it again",
                )
            )
    return found


def _without_word(state: BookState) -> list[OpenItem]:
    """Concessions on somebody else's vehicle: driven only once the owner has agreed."""
    plan, found = plan_of(state), []
    for conceded in without_word(state):
        step = plan.find_step(conceded.step)
        found.append(
            open_item(
                id=f"word:{conceded.entry}",
                kind="word",
                what=f"{conceded.what}: {owner_of(state)} has not agreed yet",
                blocks="drive",
                step=conceded.step,
                step_number=step.number if step else "",
                stage=step.stage if step else "",
                undo="write the owner's word",
                who=conceded.by,
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
            open_item(
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
            open_item(
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
                open_item(
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
    open_now = {item.id for item in temporary_items(state)}
    return [
        open_item(
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
        # a safety figure that is not proven shuts its rung, wherever its step stands
        free = blocks == "nothing" and safety != "lifting"
        if safety is not None and (barred or passed or free):
            blocks = shut_by(safety)
        found.append(
            open_item(
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
        open_item(
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
