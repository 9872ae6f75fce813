"""What is still missing before a step can be called done."""

from collections.abc import Sequence

from hollet.core.book.bags import bag_contents, short_of
from hollet.core.book.captures import compares_of, uncaptured
from hollet.core.book.fold import BookState
from hollet.core.book.gates import left_open
from hollet.core.book.inspection import unfinished
from hollet.core.book.measure import readings_of, results_of
from hollet.core.book.removals import puts_back
from hollet.core.book.run import attempts_of
from hollet.core.book.status import plan_of
from hollet.core.book.tighten import joint_facts
from hollet.core.book.windows import chances
from hollet.core.instruments import Instrument
from hollet.core.procedure.schools import agreement_state
from hollet.core.procedure.sheet import FillStep, InspectStep, MeasureStep, RunStep, Step, TightenStep

__all__ = ["bare_openings", "clash", "lacking", "not_open_any_more"]


def clash(state: BookState, step: Step) -> str | None:
    """The words of the first parts at this step that do not go together, or None."""
    plan = plan_of(state)
    found = (agreement_state(agreement, plan.parts) for agreement in plan.agreement if agreement.step == step.id)
    return next((state.words for state in found if state.state == "clash"), None)


def not_open_any_more(state: BookState, step: Step) -> tuple[str, ...]:
    """What must be open, off or held while this step is done, and is not: the battery lead put on again, the pump live."""
    if not step.requires:
        return ()
    now = {item.id for item in left_open(state)}
    names = {item.id: item.what for s in plan_of(state).step for item in s.opens}
    return tuple(names.get(item, item) for item in step.requires if item not in now)


def bare_openings(state: BookState) -> tuple[str, ...]:
    """What stands open and has no cover in it."""
    return tuple(item.what for item in left_open(state) if item.sort == "open_port")


def lacking(state: BookState, step: Step, tools: Sequence[Instrument] = ()) -> str | None:
    """The first thing missing, in words, or None when the step can be called done."""
    live = state.of_step(step.id)
    if step.caution is not None and step.caution.confirm and not any(x.kind == "confirmed" and x.body.what == step.caution.confirm for x in live):
        return f"not confirmed: {step.caution.confirm}"
    needed = not_open_any_more(state, step)
    if needed:
        return f"it must be so before this step, and is not: {needed[0]}"
    missing_capture = uncaptured(state, step)
    if missing_capture is not None:
        return f"not kept as found: {missing_capture.what}. {missing_capture.because}; after this step the chance is gone"
    if step.lifts:
        for measured in (s for s in plan_of(state).step if isinstance(s, MeasureStep)):
            bad = next((r for r in results_of(state, measured, tools) if r.limit.safety == "lifting" and r.judgement.verdict in ("outside", "too_close")), None)
            if bad is not None:
                return f"not ready to lift: {bad.name} is {bad.judgement.words}"
    if step.dusty and bare_openings(state):
        return f"no grinding or cutting while this is open: {bare_openings(state)[0]}"
    short = short_of(bag_contents(state), puts_back(plan_of(state), step))
    if short is not None:
        return short
    unlike = next((c for c in compares_of(state, step) if c.state in ("kept", "differs")), None)
    if unlike is not None:
        return f"{unlike.what}: " + ("not compared yet" if unlike.state == "kept" else f"not as found, {unlike.compared}")
    clashing = clash(state, step)
    if clashing is not None:
        return clashing
    chance = next((c for c in chances(state, step) if c.state in ("open", "no step")), None)
    if chance is not None:
        return f"after this nobody reaches it: {chance.thing}, {chance.because}"
    if isinstance(step, InspectStep):
        unseen = unfinished(state, step)
        if unseen is not None:
            return unseen
    if isinstance(step, MeasureStep):
        missing = [r.name for r in step.reading if not state.live(f"reading:{r.id}")]
        if missing:
            return f"{missing[0]} is not read"
        once = next((r for r in readings_of(state, step) if r.ask_again), None)
        if once is not None:
            return f"{once.name}: read it a second time, there is no going back after it"
        undecided = [r for r in results_of(state, step, tools) if r.open and r.disposition in (None, "measure_again") and r.judgement.verdict != "no_limit"]
        if undecided:
            return f"{undecided[0].name} is {undecided[0].judgement.words}" if undecided[0].refusal is None else f"{undecided[0].name}: {undecided[0].refusal}"
    if isinstance(step, TightenStep):
        joint = plan_of(state).find_joint(step.joint)
        facts = joint_facts(state, joint) if joint else None
        if facts is None or not facts.begun or not facts.final:
            return f"not final: {facts.progress if facts else step.joint}"
    if isinstance(step, RunStep) and not any(a.passed for a in attempts_of(state, step)):
        return "no attempt has passed"
    if isinstance(step, FillStep):
        if not state.live(f"reading:{step.id}"):
            return "the amount is not entered"
        if not any(x.kind == "confirmed" and x.body.what == step.level for x in live):
            return f"not looked at: {step.level}"
    return None
