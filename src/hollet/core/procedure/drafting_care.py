"""What a hand says of a step in one line, as changes of the plan."""

from collections.abc import Set

from hollet.core.errors import NotFound, Refused
from hollet.core.procedure.care import LAID_KINDS, SEAT_KINDS, Laid, Seat
from hollet.core.procedure.changes import CareChange, Change, ReasonChange, RowIn, StepIn
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.numbering import Numbering, new_id
from hollet.core.procedure.pieces import REASON_TO_SAY, After
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.planacts import CareAct, RowAct, ThisFirstAct
from hollet.core.procedure.provisional import ORIENT_KINDS, Orient, Trial
from hollet.core.procedure.rows import Row
from hollet.core.procedure.sheet import Step
from hollet.core.procedure.words import STAGE_RANK
from hollet.core.quantities.parse import measured

__all__ = ["draft_care", "draft_row", "draft_this_first"]

MOST = 8
MOST_ROWS = 60
SORTS = {"orient": tuple(ORIENT_KINDS), "lay": tuple(LAID_KINDS), "seat": tuple(SEAT_KINDS)}


def draft_care(plan: Plan, act: CareAct, done: Set[str], who: str) -> tuple[Change, ...]:
    """The changes that it makes.

    Raises
    ------
    Refused
        `bad_entry`: an unknown sort, one too many, no time, a step that is done or has its trial.
    NotFound
        The step, or the one that waits.
    """
    step = _step(plan, act.step)
    if step.id in done:
        words = f"{step.number} is done: open it again, then say it"
        raise Refused("bad_entry", words, field="step")
    if act.what in SORTS and act.sort not in SORTS[act.what]:
        words = f"'{act.sort}' is none of {', '.join(SORTS[act.what])}"
        raise Refused("bad_entry", words, field="sort")
    if max(len(step.orient), len(step.lays), len(step.seats)) >= MOST:
        raise Refused("bad_entry", f"{step.number} has {MOST} of them already", field="what")
    made = _made(step, act)
    return (made, *_cures(plan, step, act, who))


def _made(step: Step, act: CareAct) -> CareChange:
    """The piece that is added to the step."""
    taken = {*(o.id for o in step.orient), *(x.id for x in step.lays), *(s.id for s in step.seats)}
    name = new_id(act.says, taken)
    if act.what == "orient":
        piece = {"id": name, "kind": act.sort, "how": act.says, "second": act.second}
        more = {"misleads": act.where} if act.where else {}
        return CareChange(step=step.id, orient=Orient.model_validate(piece | more))
    if act.what == "seat":
        if not act.where:
            raise Refused("bad_entry", "say what tells that it is home", field="where")
        piece = {"id": name, "kind": act.sort, "what": act.sort, "way": act.says, "home": act.where}
        return CareChange(step=step.id, seat=Seat.model_validate(piece))
    if act.what == "lay":
        _time(act.open, "min", "open")
        piece = {"id": name, "kind": act.sort, "what": act.says, "where": act.where or step.title}
        more = {"open": act.open} if act.open else {}
        return CareChange(step=step.id, laid=Laid.model_validate(piece | more))
    if step.trial is not None:
        raise Refused("bad_entry", f"{step.number} is a dry fit already", field="what")
    proved = Trial(proves=act.says, apart=act.where or "it comes apart again before it is done")
    return CareChange(step=step.id, trial=proved)


def _cures(plan: Plan, step: Step, act: CareAct, who: str) -> tuple[Change, ...]:
    """What waits until it has cured."""
    if act.what != "lay" or not act.waits:
        return ()
    _time(act.cure, "h", "cure")
    later = _step(plan, act.waits)
    if step.id in (later.id, *(link.step for link in later.after)):
        words = f"{later.number} waits for {step.number} already"
        raise Refused("bad_entry", words, field="waits")
    link = After(
        step=step.id,
        because=f"{act.says} cures first",
        kind="drying",
        how="cures",
        lasts=act.cure or None,
        origin="said",
        said_by=who,
    )
    return (ReasonChange(step=later.id, after=link),)


def _time(text: str, unit: str, field: str) -> None:
    """Refuse what is no time above nothing."""
    if text and measured(text, "time", unit, field).figure("time") <= 0:
        words = f"'{text}': a time is more than nothing, such as 10 {unit}"
        raise Refused("bad_entry", words, field=field)


def draft_row(plan: Plan, act: RowAct, done: Set[str]) -> tuple[Change, ...]:
    """A row more; it shuts what the step shuts at which it is final, and comes off where the others
    do.

    Raises
    ------
    Refused
        `bad_entry`: one too many, the same part again, a step that is done or at which nothing goes
        on.
    NotFound
        The step.
    """
    on = _step(plan, act.on_at)
    if len(plan.row) >= MOST_ROWS:
        raise Refused("bad_entry", f"there are {MOST_ROWS} rows already", field="part")
    if any(row.part.casefold() == act.part.casefold() for row in plan.row):
        raise Refused("bad_entry", f"{act.part}: it has its row", field="part")
    if on.id in done:
        words = f"{on.number} {on.title} is done: name a step to come"
        raise Refused("bad_entry", words, field="on_at")
    if STAGE_RANK[on.stage] < STAGE_RANK["prepare"]:
        words = f"{on.number} {on.title} puts nothing on: name a step of the build"
        raise Refused("bad_entry", words, field="on_at")
    rung = on.blocked(plan.first)
    off = next((row.off_at for row in plan.row if row.off_at is not None), None)
    row = Row(
        id=new_id(act.part, {row.id for row in plan.row}),
        part=act.part,
        usual=act.usual,
        blocks="drive" if rung == "nothing" else rung,
        off_at=off,
        on_at=on.id,
    )
    return (RowIn(row=row),)


def draft_this_first(plan: Plan, act: ThisFirstAct, done: Set[str], who: str) -> tuple[Change, ...]:
    """A step put in before the one in hand, with a reason that is still to be said; what comes off
    again for it waits for it too.
    """
    hand, off = _step(plan, act.step), [_step(plan, name) for name in act.off]
    taken = next((s for s in off if STAGE_RANK[s.stage] < STAGE_RANK["prepare"]), None)
    if taken is not None:
        words = f"{taken.number} {taken.title} put nothing on: only what was put on comes off again"
        raise Refused("not_put_on", words, field="off")
    later = {hand.id, *(step.id for step in off)}
    first = next(step for step in plan.step if step.id in later)
    steps = [step for step in plan.step if step.stage == first.stage]
    before = steps[: [step.id for step in steps].index(first.id)]
    new = CheckStep(
        id=new_id(act.title, {step.id for step in plan.step}),
        stage=first.stage,
        kind="check",
        title=act.title,
        short=act.title[:24],
        do=act.title,
        blocks=hand.blocks,
    )
    behind = before[-1] if before else None
    numbering = Numbering(step.number or "" for step in plan.step)
    number = (
        numbering.behind(behind.number or "")
        if behind is not None
        else numbering.first(first.stage)
    )
    new = new.model_copy(update={"number": number})
    changes: list[Change] = [StepIn(step=new, behind=behind.id if behind is not None else None)]
    for name in dict.fromkeys((hand.id, *act.off)):
        link = After(
            step=new.id,
            because=REASON_TO_SAY if name == hand.id else f"off again for {act.title}",
            kind="access closes",
            assumed=name == hand.id,
            origin="said",
            said_by=who,
        )
        changes.append(ReasonChange(step=name, after=link))
    return tuple(changes)


def _step(plan: Plan, name: str) -> Step:
    step = plan.find_step(name)
    if step is None:
        raise NotFound("step", name)
    return step
