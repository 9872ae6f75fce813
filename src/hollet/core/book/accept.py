"""Whether the build accepts an entry, and the facts it carries: edit in, body out.

Nothing is written here.
"""

from collections.abc import Callable
from typing import Any

from hollet.core.book import edits as e
from hollet.core.book import entries as b
from hollet.core.book.complete import obstacles
from hollet.core.book.fold import BookState
from hollet.core.book.gates import dry_run_decision, gate_answers
from hollet.core.book.hand import Hand
from hollet.core.book.inspecting import INSPECT
from hollet.core.book.measure import (
    odd_question,
    pair_question,
    read_leaves,
    read_text,
    result_of,
    slip_input,
    tool_question,
)
from hollet.core.book.passing import Obstacle, kind_of_box, not_pressed, passed_by_words
from hollet.core.book.run import attempt_facts, attempts_of, burst_limit, cranked_s, rest_of
from hollet.core.book.spoken import spoken_notes, spoken_reason
from hollet.core.book.status import SETTLED, plan_of, status_of, whole_of
from hollet.core.book.supports import held_up_by
from hollet.core.book.takedown import TAKE_DOWN, step_named
from hollet.core.book.tighten import (
    OVER,
    BoltFacts,
    JointFacts,
    joint_facts,
    quantity_of,
    setting_for,
    stage_ask,
    tolerance_of,
)
from hollet.core.errors import Conflict, NotFound, Refused
from hollet.core.instruments import Instrument, leaf_share, may_give
from hollet.core.limits import Limit
from hollet.core.procedure.sheet import (
    CheckStep,
    FillStep,
    Joint,
    MeasureStep,
    ReadingSpec,
    Release,
    RemoveStep,
    ResultSpec,
    RunStep,
    Step,
)
from hollet.core.quantities.parse import Parsed, measured, parse
from hollet.core.quantities.quantity import Measured, Quantity, canonical, decimal_text
from hollet.core.running import DRY_RUN_S, DryRun, dry_run_request
from hollet.core.slips import SlipCheck, question, slip_check

__all__ = ["NEVER_LATE", "accept"]

LONGEST_ADAPTER_MM = 2000.0
NEVER_LATE = (
    "reading",
    "note",
    "left open",
    "samples",
    "attempt ended",
    "removed",
    "photo",
    "supported",
    "vehicle stands",
    "stopped",
    "secured",
    "gone on",
    "surroundings",
    "finding",
    "face added",
    "cause",
    "evidence",
    "happened",
)


def accept(state: BookState, edit: Any, hand: Hand) -> b.Body:
    """The body to write for an edit.

    Raises
    ------
    Refused
        In one sentence with the field: `danger`, `box`, `load`, `must_wait`, `not_complete`,
        `not_final`, `no_reason`, `odd_figure`,
        `already_struck`, `stage_waits`, `shut`, and the parser's own codes.
    NotFound
        The step, reading, result, bolt, tool or entry does not exist.
    """
    return ACCEPT[edit.kind](state, edit, hand)


def _tool(hand: Hand, tool_id: str) -> Instrument:
    if tool_id not in hand.tools or hand.tools[tool_id].retired:
        raise NotFound("tool", tool_id)
    tool = hand.tools[tool_id]
    if tool.set_with is not None and tool.set_with.id in hand.tools:
        return tool.model_copy(
            update={"set_with": tool.set_with.model_copy(update={"set_with": None})}
        )
    return tool


def _started(state: BookState, edit: e.StartedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    spoken = edit.spoken if edit.reason is None else None  # words win over a voice
    reason = edit.reason or spoken_reason(state, step, spoken)
    passed = (
        [
            o
            for o in obstacles(state, step, hand.listed, hand.now)
            if o.code in ("danger", "must_wait")
        ]
        if reason is not None
        else []
    )
    held = next((o for o in passed if o.by != "reason"), None)
    if held is not None:
        raise _held(step, held, "reason")
    return b.Started(
        step=step.id, reason=reason, passed=tuple(o.words for o in passed), spoken=spoken
    )


def _done(state: BookState, edit: e.DoneEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    if status_of(state, step).status in ("done", "not_there"):
        raise Conflict(
            f"{step.number} is already done: nothing was written", reason_code="already_done"
        )
    found = obstacles(state, step, hand.listed, hand.now)
    never = next((o for o in found if o.by != "reason"), None)
    if never is not None:
        raise _held(step, never, "reason")
    spoken = edit.spoken if edit.reason is None else None
    said = edit.reason or spoken_reason(state, step, spoken)
    if found and said is None:
        raise _held(step, found[0], "reason")
    if found and all(o.code != "must_wait" for o in found):
        box = kind_of_box(state, step)
        if box is not None and not_pressed(state, step, box, hand.now):
            raise _held(
                step,
                Obstacle(code="box", words=f"not confirmed: {box}", by="press", box=box),
                "reason",
            )
    begun = [
        x.body for x in state.of_step(step.id) if x.kind == "started" and x.body.reason
    ]  # what was passed to begin was passed to be done
    reason = said or (begun[-1].reason if begun else None)
    passed = (*(o.words for o in found), *(words for body in begun for words in body.passed))
    return b.Done(
        step=step.id,
        reason=reason,
        passed=passed,
        spoken=spoken,
        opens=step.opens,
        closes=step.closes,
        carries=step.carries,
        releases=step.releases,
        joint=step.joint if isinstance(step, RemoveStep) else None,
    )


def _held(step: Step, obstacle: Obstacle, field: str) -> Refused:
    """The refusal for what stands in the way: what is so, and what alone passes it."""
    code = {"danger": "danger", "box": "box", "load": "load", "must_wait": "must_wait"}.get(
        obstacle.code, "not_complete"
    )
    return Refused(
        code,
        f"{step.number} {obstacle.words}. {passed_by_words(obstacle)}"
        if code == "must_wait"
        else f"{step.number}: {obstacle.words}. {passed_by_words(obstacle)}",
        field=field,
    )


def _happened(state: BookState, edit: e.HappenedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    if status_of(state, step).status in SETTLED:
        raise Conflict(
            f"{step.number} is already done: nothing was written", reason_code="already_done"
        )
    without = tuple(
        o.words for o in obstacles(state, step, hand.listed, hand.now) if o.by != "reason"
    )
    if not without:
        raise Refused(
            "nothing_live",
            f"{step.number}: nothing dangerous stands before it. Call it done, or give a reason",
            field="step",
        )
    return b.Happened(
        step=step.id,
        without=without,
        opens=step.opens,
        carries=step.carries,
        releases=step.releases,
    )


def _said(state: BookState, edit: e.SaidEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    ask = (
        next((a for a in step.asks if a.id == edit.figure), None)
        if isinstance(step, CheckStep)
        else None
    )
    if ask is None:
        raise NotFound("figure", edit.figure)
    value = measured(edit.typed, ask.dimension, ask.unit, "typed")
    if value.figure(ask.dimension) <= 0:
        raise Refused(
            "bad_number",
            f"{ask.name}: '{edit.typed}' must be more than nothing, such as 480 {ask.unit}",
            field="typed",
        )
    if ask.usual is not None and not edit.sure:
        low, high = (measured(bound, ask.dimension, ask.unit, "typed") for bound in ask.usual)
        check = SlipCheck(
            typed=edit.typed,
            unit=ask.unit,
            tool_range=[Quantity(value=x.value, unit=x.unit) for x in (low, high)],
        )
        found = slip_check(check)
        if found.ask:
            raise Refused(
                "odd_figure",
                f"{ask.name}: {question(check, found)} As a rule it is {low.value} to "
                f"{high.value} {ask.unit}",
                field="typed",
            )
    return b.Said(step=step.id, figure=ask.id, name=ask.name, value=value)


def _not_there(state: BookState, edit: e.NotThereEdit, hand: Hand) -> b.Body:
    step = whole_of(state).find_step(edit.step)
    if step is None:
        raise NotFound("step", edit.step)
    if status_of(state, step).status in ("done", "not_there"):
        raise Conflict(f"{step.number} is already done", reason_code="already_done")
    return b.NotThere(step=step.id, thing=edit.thing, looked=edit.looked)


def _reopened(state: BookState, edit: e.ReopenedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    if status_of(state, step).status not in SETTLED:
        raise Conflict(
            f"{step.number} is not done, so it cannot be reopened", reason_code="not_done"
        )
    return b.Reopened(step=step.id, reason=edit.reason)


def _skipped(state: BookState, edit: e.SkippedEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    if status_of(state, step).status in SETTLED:
        raise Conflict(f"{step.number} is already done or passed over", reason_code="already_done")
    spoken = edit.spoken if edit.reason is None else None
    reason = edit.reason or spoken_reason(state, step, spoken)
    if reason is None:
        raise Refused(
            "no_reason",
            f"{step.number}: say why it is passed over, by a key or in words",
            field="reason",
        )
    return b.Skipped(step=step.id, reason=reason, not_applicable=edit.not_applicable, spoken=spoken)


def _confirmed(state: BookState, edit: e.ConfirmedEdit, hand: Hand) -> b.Body:
    return b.Confirmed(step=step_named(state, edit.step).id, what=edit.what)


def _reading(state: BookState, edit: e.ReadingEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    spec = _spec(state, step, edit.reading)
    tool = _tool(hand, edit.instrument)
    if not may_give(spec.tool, tool.kind):
        raise Refused(
            "wrong_tool",
            f"{spec.name} is read with a {spec.tool}, not with {tool.code}, a {tool.kind}",
            field="instrument",
        )
    direct = _direct_limit(state, step, edit.reading)
    values: list[Quantity] = []
    no_go: list[Quantity] = []
    setting, asked = None, tool_question(tool)
    for text in edit.typed:
        if tool.kind == "feeler":
            leaf, goes, does_not = read_leaves(text, edit.unit, tool.dimension)
            leaf_share(
                tool,
                float(goes.nominal or 0),
                float(does_not.nominal)
                if does_not is not None and does_not.nominal is not None
                else None,
            )
            parsed, no_go = (
                goes,
                [*no_go, *([_as_read(does_not, edit.unit)] if does_not is not None else [])],
            )
            asked = asked or odd_question(state, step, spec, leaf, edit.unit, tool, direct)
        else:
            parsed, base = read_text(text, tool, edit.unit, tool.dimension)
            setting = base or setting
            asked = asked or odd_question(state, step, spec, text, edit.unit, tool, direct)
            value = (
                float(parsed.nominal or 0)
                + (float(str(base.value)) if base else 0.0)
                - tool.known_offset()
            )
            asked = asked or pair_question(state, step, spec.id, value)
        values.append(_as_read(parsed, edit.unit))
    if asked and not edit.sure:
        raise Refused("odd_figure", asked, field="typed")
    return b.Reading(
        step=step.id,
        reading=edit.reading,
        typed=edit.typed,
        unit=edit.unit,
        values=tuple(values),
        no_go=tuple(no_go),
        deviation_from=setting,
        instrument=tool,
        state=edit.state,
        datum=edit.datum,
        sure=edit.sure,
    )


def _as_read(parsed: Parsed, unit: str) -> Quantity:
    """A figure as parsed, in its canonical unit."""
    return Quantity(value=decimal_text(parsed.nominal or 0), unit=parsed.unit or unit)


def _direct_limit(state: BookState, step: Step, reading: str) -> Limit | None:
    if isinstance(step, FillStep):
        return plan_of(state).find_limit(step.amount)
    named = (r.limit for r in getattr(step, "result", ()) if r.reading == reading)
    return plan_of(state).find_limit(next(named, None))


def _spec(state: BookState, step: Step, reading: str) -> ReadingSpec:
    if isinstance(step, MeasureStep):
        for spec in step.reading:
            if spec.id == reading:
                return spec
    if isinstance(step, FillStep) and reading == step.id:
        limit = plan_of(state).find_limit(step.amount)
        expected = (limit.target or limit.hi or limit.lo) if limit else None
        return ReadingSpec(
            id=step.id,
            name=step.fluid,
            tool="jug",
            nominal=f"{expected or 0} {limit.unit if limit else 'L'}",
        )
    raise NotFound("reading", reading)


def _result(state: BookState, step_id: str, result: str) -> tuple[MeasureStep, ResultSpec]:
    step = step_named(state, step_id)
    if isinstance(step, MeasureStep):
        for spec in step.result:
            if spec.id == result:
                return step, spec
    raise NotFound("result", result)


def _concession(state: BookState, edit: e.ConcessionEdit, hand: Hand) -> b.Body:
    step, spec = _result(state, edit.step, edit.result)
    facts = result_of(state, step, spec, hand.listed)
    if facts.judgement.verdict == "inside":
        raise Refused(
            "not_outside", f"{facts.name} is inside: there is nothing to accept", field="result"
        )
    if facts.limit.safety == "lifting":
        raise Refused(
            "never_conceded",
            f"{facts.name}: lifting gear outside its limit is never accepted, it is replaced",
            field="result",
        )
    if not facts.readings:
        raise Refused("not_complete", f"{facts.name} is not read yet", field="result")
    return b.Concession(
        step=step.id,
        result=spec.id,
        readings=facts.readings,
        value=facts.judgement.value_text,
        limit=facts.limit,
        reason=edit.reason,
        name=edit.name,
        use=edit.use,
        licensed=edit.licensed,
        recheck=edit.recheck,
    )


def _disposition(state: BookState, edit: e.DispositionEdit, hand: Hand) -> b.Body:
    step, spec = _result(state, edit.step, edit.result)
    return b.Disposition(step=step.id, result=spec.id, choice=edit.choice, note=edit.note)


def _joint(state: BookState, step: Step) -> tuple[Joint, JointFacts]:
    joint = plan_of(state).find_joint(getattr(step, "joint", None))
    if joint is None:
        raise NotFound("joint", step.id)
    return joint, joint_facts(state, joint)


def _fastener(state: BookState, edit: e.FastenerEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    joint, facts = _joint(state, step)
    if edit.bolt > len(facts.bolts):
        raise NotFound("bolt", str(edit.bolt))
    loosens = edit.act == "state" and edit.tightness == "loosened again"
    if not loosens:
        _not_held(state, step, hand)
    bolt = facts.bolts[edit.bolt - 1]
    if edit.act in ("marked", "locked"):
        return b.Fastener(
            step=step.id,
            joint=joint.id,
            bolt=edit.bolt,
            act=edit.act,
            tightness="torqued",
            note=edit.note,
        )
    if edit.act == "fresh":
        if bolt.tightness != "out":
            raise Refused(
                "not_out",
                f"bolt {edit.bolt} is {bolt.tightness}: take it out first, then a fresh one "
                "goes in",
                field="act",
            )
        return b.Fastener(
            step=step.id,
            joint=joint.id,
            bolt=edit.bolt,
            act="fresh",
            tightness="out",
            note=edit.note,
        )
    if edit.act == "state":
        if edit.tightness is None or edit.tightness == "torqued":
            raise Refused(
                "bad_entry",
                "'tightness' must be a state such as snug, cinched or loosened again",
                field="tightness",
            )
        if bolt.over and edit.tightness not in ("out", "loosened again"):
            raise _over(joint, bolt)
        return b.Fastener(
            step=step.id,
            joint=joint.id,
            bolt=edit.bolt,
            act="state",
            tightness=edit.tightness,
            note=edit.note,
        )
    return _torqued(step, joint, facts, edit)


def _not_held(state: BookState, step: Step, hand: Hand) -> None:
    """Refuse whatever is written at a step that waits: dangers always, order until the step is
    begun out of it with a reason.
    """
    for obstacle in obstacles(state, step, hand.listed, hand.now):
        if obstacle.by not in ("reason", "nothing") or obstacle.code in ("needed", "must_wait"):
            raise _held(step, obstacle, "step")


def _over(joint: Joint, bolt: BoltFacts) -> Refused:
    said = joint.put_right.over or OVER
    return Refused(
        "over",
        f"bolt {bolt.number} got more than was asked ({bolt.gets}): {said[0].lower()}{said[1:]}",
        field="bolt",
    )


def _torqued(step: Step, joint: Joint, facts: JointFacts, edit: e.FastenerEdit) -> b.Body:
    bolt = facts.bolts[edit.bolt - 1]
    stage = edit.stage or facts.next_stage or bolt.stage
    again = bolt.stage == stage and bolt.stage > 0
    if bolt.over and (again or not bolt.passed_over):
        raise _over(joint, bolt)
    if not again:
        if facts.next_stage is None:
            raise Refused(
                "stage_waits", facts.waits or "every bolt has its last stage", field="stage"
            )
        turn = stage == facts.next_stage and (
            edit.bolt == facts.next_bolt or (edit.sure and bolt.stage == stage - 1)
        )
        if not turn:
            raise Conflict(
                f"bolt {edit.bolt} is at stage {bolt.stage}; next is bolt {facts.next_bolt}, "
                f"stage {facts.next_stage}"
            )
    kind, asked, _ = stage_ask(joint, stage)
    if asked is None:
        raise Refused(
            "torque_not_given",
            f"the torque of stage {stage} is not given yet: write it into the limit book first",
            field="stage",
        )
    percent, assumed = tolerance_of(joint)
    unit = "deg" if kind == "angle" else "N·m"
    wrench, adapter = facts.wrench, facts.adapter
    set_to = gets = added = None
    typed = edit.typed
    if kind == "angle" and again and (edit.more or bolt.more is not None):
        had = asked - float(bolt.more or 0)
        turned = _one_figure(edit.typed, kind, unit) if edit.typed is not None else asked - had
        added, gets = quantity_of(turned, unit), quantity_of(had + turned, unit)
    elif edit.act == "clicked":
        setting = setting_for(joint, stage, wrench, adapter)
        if kind == "torque" and (setting.set_to is None or setting.gets is None):
            raise Refused(
                "wrench_unfit", setting.refusal or "choose a wrench first", field="wrench"
            )
        if (
            kind == "torque"
            and wrench is not None
            and not wrench_holds(wrench, percent)
            and facts.wrench_reason is None
        ):
            raise Refused(
                "wrench_wide",
                f"{wrench.code} holds ±{wrench.mpe_percent} %, the joint asks "
                f"±{decimal_text(percent)} %: "
                "another wrench, or go on with a reason",
                field="wrench",
            )
        set_to = quantity_of(setting.set_to, unit) if setting.set_to is not None else None
        gets = quantity_of(setting.gets if setting.gets is not None else asked, unit)
        if edit.typed is not None:  # the wrench stood at another figure than it should have
            stood = _one_figure(edit.typed, kind, unit)
            _asked_figure(edit, wrench, kind, setting.set_to or asked, unit)
            ratio = setting.gets / setting.set_to if setting.gets and setting.set_to else 1.0
            set_to, gets = (
                quantity_of(stood, unit) if kind == "torque" else None,
                quantity_of(stood * ratio, unit),
            )
    else:
        _asked_figure(edit, wrench, kind, asked, unit)
        gets = quantity_of(_one_figure(edit.typed or "", kind, unit), unit)
    return b.Fastener(
        step=step.id,
        joint=joint.id,
        bolt=edit.bolt,
        act=edit.act,
        tightness="torqued",
        stage=stage,
        asked=quantity_of(asked, unit),
        tolerance_percent=percent,
        tolerance_assumed=assumed,
        set_to=set_to,
        gets=gets,
        added=added,
        typed=typed,
        wrench=wrench if kind == "torque" else None,
        adapter=adapter if kind == "torque" else None,
        note=edit.note,
    )


def _asked_figure(
    edit: e.FastenerEdit, wrench: Instrument | None, kind: str, asked: float, unit: str
) -> None:
    """A question about a torque that the wrench cannot give, or that another unit would explain; an
    angle far from what is asked is asked too.
    """
    if edit.as_typed or not (edit.typed or "").strip():
        return
    expected = quantity_of(asked, unit)
    if kind == "torque" and wrench is not None:
        check = slip_input(
            edit.typed or "", unit, wrench.model_copy(update={"setting": None}), expected, "asked"
        ).model_copy(update={"resolution": None})
    else:
        check = SlipCheck.model_validate(
            {
                "typed": edit.typed,
                "unit": unit,
                "expected": expected,
                "known": "asked" if kind == "torque" else "roughly",
            }
        )
    found = slip_check(check)
    if found.ask and found.slip != "none":
        raise Refused("odd_figure", question(check, found), field="typed")
    if (
        found.ask
        and wrench is not None
        and kind == "torque"
        and not wrench.covers(canonical(found.read_as, "torque", "typed"))
    ):
        raise Refused(
            "odd_figure",
            f"{edit.typed}: {wrench.code} gives {wrench.lo} to {wrench.hi} {wrench.unit}. Is it "
            "right?",
            field="typed",
        )


def _one_figure(text: str, dimension: str, unit: str) -> float:
    parsed = parse(text, dimension, unit)
    if parsed.kind != "single" or parsed.nominal is None or parsed.nominal <= 0:
        raise Refused(
            "bad_number", f"'{text}': type one figure above zero, such as 50 Nm", field="typed"
        )
    return float(parsed.nominal)


def wrench_holds(wrench: Instrument, percent: float) -> bool:
    """Whether the wrench's permissible deviation fits into the joint's tolerance."""
    return wrench.mpe_percent is None or float(wrench.mpe_percent) <= percent


def _left_open(state: BookState, edit: e.LeftOpenEdit, hand: Hand) -> b.Body:
    if edit.closes_at is not None:
        step_named(state, edit.closes_at)
    return b.LeftOpen(
        step=step_named(state, edit.step).id,
        item=edit.item,
        what=edit.what,
        blocks=edit.blocks,
        undo=edit.undo,
        sort=edit.sort,
        where=edit.where,
        closes_at=edit.closes_at,
    )


def _undone(state: BookState, edit: e.UndoneEdit, hand: Hand) -> b.Body:
    entries = state.opened.get(edit.item)
    if not entries:
        raise NotFound("open item", edit.item)
    opener = entries[-1].body
    item = next((o for o in getattr(opener, "opens", ()) if o.id == edit.item), opener)
    bodies = (
        held_up_by(state, opener.step)
        if getattr(opener, "step", None) and getattr(opener, "opens", ())
        else ()
    )
    if edit.now_on is None and (bodies or getattr(item, "sort", "other") == "block"):
        what = f"the {bodies[0]}" if bodies else "it"
        raise Refused(
            "carried_by_what", f"{item.what}: say what carries {what} now", field="now_on"
        )
    if bodies and edit.now_on is not None and edit.now_on.body not in bodies:
        raise Refused(
            "carried_by_what",
            f"{item.what}: say what carries the {bodies[0]} now, not the {edit.now_on.body}",
            field="now_on",
        )
    now_on = (edit.now_on,) if edit.now_on is not None else ()
    return b.Undone(
        item=edit.item,
        note=edit.note,
        carries=now_on,
        releases=tuple(Release(body=c.body) for c in now_on),
    )


def _note(state: BookState, edit: e.NoteEdit, hand: Hand) -> b.Body:
    return b.Note(step=edit.step, text=edit.text)


def _spoken(state: BookState, edit: e.SpokenEdit, hand: Hand) -> b.Body:
    if edit.step is not None:
        step_named(state, edit.step)
    return b.Spoken(step=edit.step, sound=edit.sound)


def _worded(state: BookState, edit: e.WordedEdit, hand: Hand) -> b.Body:
    if all(note.entry != edit.spoken for note in spoken_notes(state)):
        raise NotFound("spoken note", edit.spoken)
    return b.Worded(spoken=edit.spoken, text=edit.text)


def _decision(state: BookState, edit: e.DecisionEdit, hand: Hand) -> b.Body:
    step = step_named(state, edit.step)
    if edit.about == "dry_run":
        dry_run_request(
            DryRun(
                seconds=Quantity(value=edit.seconds, unit="s"),
                accepted=edit.reason is not None,
                limit=Quantity(value=DRY_RUN_S, unit="s"),
            )
        )
        return b.Decision(step=step.id, about="dry_run", seconds=edit.seconds, reason=edit.reason)
    if edit.about == "last_chance":
        if all(chance.thing != edit.thing for chance in step.last_chance):
            raise NotFound("last chance", str(edit.thing))
        if edit.reason is None and not edit.done_here:
            raise Refused("no_reason", "to let a last chance go give the reason", field="reason")
        return b.Decision(
            step=step.id,
            about="last_chance",
            thing=edit.thing,
            done_here=edit.done_here,
            reason=edit.reason,
        )
    if edit.about == "capture":
        if all(capture.id != edit.thing for capture in step.capture):
            raise NotFound("capture", str(edit.thing))
        if edit.reason is None:
            raise Refused(
                "no_reason",
                "to go on without it give the reason: the chance is gone after this step",
                field="reason",
            )
        return b.Decision(step=step.id, about="capture", thing=edit.thing, reason=edit.reason)
    if edit.about == "empty":
        if edit.thing not in step.drains:
            raise NotFound("fluid", str(edit.thing))
        if edit.reason is None:
            raise Refused("no_reason", "say why it stays empty", field="reason")
        return b.Decision(step=step.id, about="empty", thing=edit.thing, reason=edit.reason)
    joint, _ = _joint(state, step)
    if edit.about == "wrench":
        wrench = _tool(hand, edit.wrench or "")
        if "wrench" not in wrench.kind:
            raise Refused(
                "wrench_unfit",
                f"{wrench.code} is a {wrench.kind}, not a torque wrench",
                field="wrench",
            )
        return b.Decision(
            step=step.id,
            about="wrench",
            joint=joint.id,
            wrench=wrench,
            adapter=_adapter(edit.adapter),
            reason=edit.reason,
        )
    if edit.reason is None or edit.bolt is None or edit.stage is None:
        raise Refused(
            "no_reason",
            "to pass over a bolt name the bolt, the stage and the reason",
            field="reason",
        )
    return b.Decision(
        step=step.id,
        about="pass_over",
        joint=joint.id,
        bolt=edit.bolt,
        stage=edit.stage,
        reason=edit.reason,
    )


def _adapter(edit: e.AdapterEdit | None) -> b.Adapter | None:
    """An adapter as typed, with its units; one of no length is none."""
    if edit is None:
        return None
    length, angle = (
        measured(edit.length, "length", "mm", "adapter.length"),
        measured(edit.angle, "angle", "deg", "adapter.angle"),
    )
    if not 0 <= length.figure("length") <= LONGEST_ADAPTER_MM:
        raise Refused(
            "bad_number",
            f"'{edit.length}': the length of an adapter is 0 to {LONGEST_ADAPTER_MM:g} mm",
            field="adapter.length",
        )
    return b.Adapter(length=length, angle=angle) if length.figure("length") else None


def _run_step(state: BookState, step_id: str) -> RunStep:
    step = step_named(state, step_id)
    if not isinstance(step, RunStep):
        raise Refused("bad_entry", f"{step.number} is not a rung of the first start", field="step")
    return step


def _attempt_started(state: BookState, edit: e.AttemptStartedEdit, hand: Hand) -> b.Body:
    step = _run_step(state, edit.step)
    earlier = attempts_of(state, step)
    if any(not a.ended for a in earlier):
        raise Conflict(
            "an attempt is still running: turn the key off first", reason_code="still_running"
        )
    if earlier and earlier[-1].stop and not earlier[-1].cause and step.rung in ("fire", "run_on"):
        raise Refused(
            "no_cause",
            f"attempt {earlier[-1].number} was stopped: write its cause and what was changed "
            "before "
            "firing again",
            field="cause",
        )
    plan = plan_of(state)
    limit = plan.find_limit(step.time_limit)
    seconds = limit.figure("hi") if limit else None
    if seconds is None:
        raise Refused(
            "no_limit",
            "the time allowed is not given yet: enter it in the limit book first",
            field="time_limit",
        )
    total = plan.find_limit(step.total_limit)
    most = total.figure("hi") if total else None
    if most is not None and cranked_s(earlier) >= most and edit.reason is None:
        raise Refused(
            "look_first",
            f"{decimal_text(most)} s of cranking without oil pressure: stop and look for the "
            "cause; "
            "to go on, give a reason",
            field="reason",
        )
    resting = rest_of(state, step, hand.now)
    if resting is not None and edit.reason is None:
        raise Refused(
            "rest",
            f"let the starter rest: {resting[1]:.0f} s left of {resting[0].rest_s:g} "
            f"s{', assumed' if resting[0].assumed else ''}; "
            "to go on now, give a reason",
            field="reason",
        )
    seconds = burst_limit(seconds, most, earlier)
    gate = next(g for g in gate_answers(state, hand.listed) if g.rung == step.rung)
    if gate.answer == "shut" and edit.reason is None:
        raise Refused("shut", f"{gate.name} is shut: {gate.reasons[0]}", field="reason")
    dry = dry_run_decision(state)
    if gate.answer == "limited" and step.rung == "fire" and dry is not None:
        seconds = min(seconds, dry)
    missing = [what for what in step.isolate if what not in edit.isolated]
    if missing:
        raise Refused("not_isolated", f"not confirmed: {missing[0]}", field="isolated")
    number = sum(len(runs) for runs in state.runs.values()) + 1
    return b.AttemptStarted(
        step=step.id,
        attempt=edit.attempt,
        rung=step.rung,
        number=number,
        isolated=edit.isolated,
        expected=step.expect,
        limit_s=seconds,
        gate=gate.answer,
        gate_reasons=gate.reasons if gate.answer == "shut" else (),
        reason=edit.reason,
    )


def _known_attempt(state: BookState, step: RunStep, attempt: str) -> None:
    if attempt not in state.runs.get(step.id, []):
        raise NotFound("attempt", attempt)


USUAL_GAUGE_BAR = (0.0, 8.0)
"""Span of an oil pressure gauge where the shop has none: usual for such gauges."""


def _typed(text: str | None, dimension: str, unit: str, field: str) -> Measured | None:
    return (
        measured(text, dimension, unit, f"samples.{field}")
        if text is not None and text.strip()
        else None
    )


def _gauge(hand: Hand) -> Instrument | None:
    """The pressure gauge of the shop: a bare figure takes its unit."""
    return next(
        (tool for tool in hand.listed if tool.kind == "pressure gauge" and not tool.retired), None
    )


def _oil_question(text: str, gauge: Instrument | None) -> str | None:
    """A question about an oil pressure that the gauge cannot show: a bare figure in another unit, a
    decimal place.
    """
    if gauge is not None:
        check = slip_input(text, gauge.unit, gauge, None, "roughly").model_copy(
            update={"resolution": None, "setting": None, "travel": None}
        )
    else:
        span = [{"value": edge, "unit": "bar"} for edge in USUAL_GAUGE_BAR]
        check = SlipCheck.model_validate({"typed": text, "unit": "bar", "tool_range": span})
    found = slip_check(check)
    return question(check, found) if found.ask else None


def _samples(state: BookState, edit: e.SamplesEdit, hand: Hand) -> b.Body:
    step = _run_step(state, edit.step)
    _known_attempt(state, step, edit.attempt)
    gauge = _gauge(hand)
    samples = []
    for s in edit.samples:
        oil = _typed(s.oil, "pressure", gauge.unit if gauge is not None else "bar", "oil")
        asked = _oil_question(s.oil or "", gauge) if oil is not None and not s.as_typed else None
        samples.append(
            b.RunSample(
                t=s.t,
                rpm=_typed(s.rpm, "speed", "rpm", "rpm"),
                oil=oil,
                coolant=_typed(s.coolant, "temperature", "°C", "coolant"),
                timing=_typed(s.timing, "angle", "deg", "timing"),
                timing_state=s.timing_state,
                lamp_out=s.lamp_out,
                seen=s.seen,
                asked=asked,
            )
        )
    return b.Samples(step=step.id, attempt=edit.attempt, samples=tuple(samples))


def _attempt_ended(state: BookState, edit: e.AttemptEndedEdit, hand: Hand) -> b.Body:
    step = _run_step(state, edit.step)
    _known_attempt(state, step, edit.attempt)
    facts = attempt_facts(state, step, edit.attempt)
    if facts.ended and not (edit.cause and edit.change):
        raise Conflict("the key of this attempt is already off", reason_code="already_ended")
    if edit.passed and (
        facts.stop or any(not d.met and d.at_s < edit.after_s for d in facts.deadlines)
    ):
        raise Refused(
            "not_passed",
            "something asked for was not entered or was over its limit, so this attempt cannot "
            "pass",
            field="passed",
        )
    if edit.passed and not facts.expected_seen:
        raise Refused(
            "not_passed",
            "oil pressure was not entered and the lamp was not seen out: silence is no pass",
            field="passed",
        )
    turned = max(edit.after_s, facts.last_s)  # what was sampled was running
    return b.AttemptEnded(
        step=step.id,
        attempt=edit.attempt,
        after_s=turned,
        reason=edit.reason,
        passed=edit.passed,
        cause=edit.cause,
        change=edit.change,
    )


def _strike(state: BookState, edit: e.StrikeEdit, hand: Hand) -> b.Body:
    target = state.entries.get(edit.entry)
    if target is None:
        raise NotFound("line", edit.entry)
    if target.kind in ("strike", "plan edited"):
        raise Refused(
            "not_strikable",
            f"line {target.seq} cannot be struck: it is edited back instead",
            field="entry",
        )
    if edit.entry in state.struck:
        raise Conflict(f"line {target.seq} is already struck", reason_code="already_struck")
    return b.Strike(entry=edit.entry, reason=edit.reason)


ACCEPT: dict[str, Callable[[BookState, Any, Hand], b.Body]] = {
    "started": _started,
    "done": _done,
    "happened": _happened,
    "said": _said,
    "not there": _not_there,
    "reopened": _reopened,
    "skipped": _skipped,
    "confirmed": _confirmed,
    "reading": _reading,
    "concession": _concession,
    "disposition": _disposition,
    "fastener": _fastener,
    "left open": _left_open,
    "undone": _undone,
    "note": _note,
    "spoken": _spoken,
    "worded": _worded,
    "decision": _decision,
    "attempt started": _attempt_started,
    "samples": _samples,
    "attempt ended": _attempt_ended,
    "strike": _strike,
    **TAKE_DOWN,
    **INSPECT,
}
