"""What is still missing before a step can be called done."""

from collections.abc import Callable, Sequence
from typing import Any

from hollet.core.book.bags import bag_contents, short_of
from hollet.core.book.boxes import box_of, not_pressed
from hollet.core.book.captures import compares_of, uncaptured
from hollet.core.book.care import uncared
from hollet.core.book.ledger import left_open
from hollet.core.book.loads import not_carried
from hollet.core.book.looked import unlooked
from hollet.core.book.machined import machine_orders
from hollet.core.book.needs import lacking_part, state_words
from hollet.core.book.openers import missing_opener
from hollet.core.book.orders import orders
from hollet.core.book.passing import Obstacle, reason_keys, unsettled_before
from hollet.core.book.provisional import provisional
from hollet.core.book.removals import puts_back
from hollet.core.book.windows import chances
from hollet.core.entries import BookState, Confirmed
from hollet.core.entries.status import SETTLED, plan_of, selection_of, status_of, statuses
from hollet.core.instruments import Instrument
from hollet.core.procedure.hunt import hunt_list
from hollet.core.procedure.kinds.check import CheckStep
from hollet.core.procedure.kinds.fill import FillStep
from hollet.core.procedure.kinds.inspect import InspectStep
from hollet.core.procedure.kinds.measure import MeasureStep
from hollet.core.procedure.kinds.run import RunStep
from hollet.core.procedure.kinds.tighten import TightenStep
from hollet.core.procedure.schools import agreement_state
from hollet.core.procedure.sheet import Step
from hollet.core.steps.creeping import creeping
from hollet.core.steps.inspection import unfinished
from hollet.core.steps.lifting import UNSAID, lift_of
from hollet.core.steps.moving import moving_of
from hollet.core.steps.pattern import pattern_of
from hollet.core.steps.readings import readings_of
from hollet.core.steps.results import results_of
from hollet.core.steps.rows import rows_of
from hollet.core.steps.run import attempts_of
from hollet.core.steps.said import not_enough, said_figures
from hollet.core.steps.tighten import joint_facts, joint_in_hand
from hollet.core.words import counted

__all__ = ["bare_openings", "clash", "lacking", "not_open_any_more", "obstacles"]


def clash(state: BookState, step: Step) -> str | None:
    """The words of the first parts at this step that do not go together, or None."""
    plan = plan_of(state)
    found = (
        agreement_state(agreement, plan.parts)
        for agreement in plan.agreement
        if agreement.step == step.id
    )
    return next((state.words for state in found if state.state == "clash"), None)


def not_open_any_more(state: BookState, step: Step) -> tuple[str, ...]:
    """What must be open, off or held while this step is done, and is not: the battery lead put on
    again, the pump live.
    """
    if not step.requires:
        return ()
    now = {item.id for item in left_open(state)}
    names = {item.id: item.what for s in plan_of(state).step for item in s.opens}
    return tuple(names.get(item, item) for item in step.requires if item not in now)


def bare_openings(state: BookState) -> tuple[str, ...]:
    """What stands open and has no cover in it."""
    return tuple(item.what for item in left_open(state) if item.sort == "open_port")


def obstacles(
    state: BookState, step: Step, tools: Sequence[Instrument], now: str
) -> tuple[Obstacle, ...]:
    """Everything in the way of calling the step done, what no reason passes first: dangers, its
    box, its load; then order, then what it lacks itself.
    """
    found = unsettled_before(state, step, now)
    dangers, order = [o for o in found if o.by != "reason"], [o for o in found if o.by == "reason"]
    return (
        *dangers,
        *_guarded(state, step, tools, now),
        *provisional(state, step),
        *uncared(state, step, now),
        *_creeping(state, step, tools),
        *unlooked(state, step, now),
        *order,
        *_around(state, step),
        *_machined(state, step, tools),
        *_own(state, step, tools),
    )


def lacking(state: BookState, step: Step, tools: Sequence[Instrument], now: str) -> str | None:
    """The first thing missing of the step itself, in words, or None when nothing is; what it waits
    for is told apart.
    """
    return next(
        (
            o.words
            for o in obstacles(state, step, tools, now)
            if o.code not in ("danger", "must_wait")
        ),
        None,
    )


def _guarded(state: BookState, step: Step, tools: Sequence[Instrument], now: str) -> list[Obstacle]:
    """What no reason passes: the caution's box, what must be so for this step, the load, lifting
    gear that is not good.
    """
    found = []
    load = not_carried(state, step)
    if load is not None:
        found.append(Obstacle(code="load", words=load, by="load"))
    needed = not_open_any_more(state, step)
    if needed:
        found.append(
            Obstacle(
                code="needed",
                words=f"it must be so before this step, and is not: {needed[0]}",
                by="nothing",
            )
        )
    for said in (s for s in plan_of(state).step if s.id == step.id or step.lifts):
        short = not_enough(state, said)
        if short is not None:
            found.append(
                Obstacle(
                    code="lifting",
                    words=short if said.id == step.id else f"not ready to lift: {short}",
                    by="nothing",
                )
            )
            break
    unsaid = next(
        (
            f
            for s in plan_of(state).step
            if step.lifts and s.figures() and status_of(state, s).status == "done"
            for f in said_figures(state, s)
            if f.words is None
        ),
        None,
    )
    if unsaid is not None:
        found.append(_order("lifting", f"not ready to lift, not said any more: {unsaid.name}"))
    found += _not_ready(state, step, tools, now)
    found += _on_its_way(state, step, now)
    box = box_of(step)
    if box is not None and not_pressed(state, step, box, now):
        found.append(Obstacle(code="box", words=f"not confirmed: {box}", by="press", box=box))
    return found


def _not_ready(
    state: BookState, step: Step, tools: Sequence[Instrument], now: str
) -> list[Obstacle]:
    """What stands against a lift: how it hangs, and gear that is not good."""
    if not step.lifts:
        return []
    lift = lift_of(state, step, now)
    unsaid = () if step.by_hand else (UNSAID,)
    against = unsaid if lift is None else lift.stops[:1]
    judged = (r for measured in plan_of(state).step for r in results_of(state, measured, tools))
    bad = next(
        (
            f"{r.name} is {r.judgement.words}"
            for r in judged
            if r.limit.safety == "lifting" and r.judgement.verdict in ("outside", "too_close")
        ),
        None,
    )
    return [
        Obstacle(code="lifting", words=f"not ready to lift: {words}", by="nothing")
        for words in (*against, *((bad,) if bad else ()))
    ]


def _creeping(state: BookState, step: Step, tools: Sequence[Instrument]) -> list[Obstacle]:
    """Figures that are read again until they rest, and do not yet."""
    moving = next((c for c in creeping(state, step, tools) if c.word != "rests"), None)
    if moving is None:
        return []
    return [_order("creeps", f"{moving.name}: {moving.word}, {moving.detail}")]


def _on_its_way(state: BookState, step: Step, now: str) -> list[Obstacle]:
    """A unit that touches, or whose watchers have not spoken since it moved, is not in."""
    facts = moving_of(state, step, now) if step.moves is not None else None
    if facts is None or facts.moves == 0:
        return []
    if facts.against:
        words = f"it is on its way: {facts.against}"
        return [Obstacle(code="moving", words=words, by="nothing")]
    left = [axis for axis in facts.to_go if not axis.there]
    if not left:
        return []
    axis = left[0]
    far = f"{axis.left:g} {axis.unit} {axis.way} still to go" if axis.known else f"{axis.way}: ?"
    return [_order("moving", f"not there: {far}")]


def _order(code: str, words: str, kind: str = "unfinished") -> Obstacle:
    return Obstacle(code=code, words=words, by="reason", keys=reason_keys(kind))


def _around(state: BookState, step: Step) -> list[Obstacle]:
    """What any kind of step may lack: captures, covers, bags, marks compared, parts that agree,
    last chances.
    """
    found = []
    kept = uncaptured(state, step)
    if kept is not None:
        found.append(
            _order(
                "capture",
                f"not kept as found: {kept.what}. {kept.because}; after this step the chance is "
                "gone",
                "capture",
            )
        )
    if step.dusty and bare_openings(state):
        found.append(
            _order(
                "dust",
                f"no grinding or cutting while this is open: {bare_openings(state)[0]}",
                "contamination",
            )
        )
    short = short_of(bag_contents(state), puts_back(plan_of(state), step))
    if short is not None:
        found.append(_order("short", short))
    unlike = next((c for c in compares_of(state, step) if c.state in ("kept", "differs")), None)
    if unlike is not None:
        found.append(
            _order(
                "compare",
                f"{unlike.what}: "
                + (
                    "not compared yet"
                    if unlike.state == "kept"
                    else f"not as found, {unlike.compared}"
                ),
            )
        )
    part = lacking_part(state, step)
    if part is not None:
        words = f"{part.name} is not free for it: {state_words(part, orders(state))}"
        if part.safety:
            found.append(Obstacle(code="part", words=words, by="nothing"))
        else:
            found.append(_order("part", words, "part"))
    missing = missing_opener(state, step)
    if missing is not None:
        found.append(_order("opener", f"{missing} is missing", "opener"))
    clashing = clash(state, step)
    if clashing is not None:
        found.append(_order("clash", clashing))
    chance = next((c for c in chances(state, step) if c.state in ("open", "no step")), None)
    if chance is not None:
        found.append(
            _order(
                "last_chance",
                f"after this nobody reaches it: {chance.thing}, {chance.because}",
                "last_chance",
            )
        )
    return found


def _machined(state: BookState, step: Step, tools: Sequence[Instrument]) -> list[Obstacle]:
    """Machine work for it that was measured with a tool found wrong since."""
    doubted = (w for w in machine_orders(state, tools) if w.step == step.id and w.doubt)
    return [_order("part", f"{w.part}: {w.words}", "part") for w in doubted]


def _own(state: BookState, step: Step, tools: Sequence[Instrument]) -> list[Obstacle]:
    """What the kind of the step asks for."""
    ask = OWN.get(type(step))
    words = ask(state, step, tools) if ask is not None else None
    return [_order("unfinished", words)] if words is not None else []


def _inspect_lacks(state: BookState, step: InspectStep, tools: Sequence[Instrument]) -> str | None:
    return unfinished(state, step)


def _check_lacks(state: BookState, step: CheckStep, tools: Sequence[Instrument]) -> str | None:
    """Of a step that sources the figures: what the coming stage needs and has not got."""
    missing = next(
        (figure.name for figure in said_figures(state, step) if figure.words is None), None
    )
    if missing is not None:
        return f"not said: {missing}"
    pattern = pattern_of(state, step)
    if pattern is not None and not pattern.right:
        return f"the pattern is not right: {pattern.words or 'nobody has said where it bears'}"
    rows = _rows_lack(state, step)
    if rows is not None or not step.hunts:
        return rows
    settled = {name for name, known in statuses(state).items() if known.status in SETTLED} | {
        step.id
    }
    stage = next(
        (s.stage for s in plan_of(state).step if s.id not in settled and s.stage != step.stage),
        None,
    )
    coming = [
        item
        for item in hunt_list(selection_of(state), settled, {}, set())
        if item.kind in ("figure", "torque", "amount") and item.stage == stage
    ]
    first = ", ".join(f"{item.name} ({item.state})" for item in coming[:3])
    return (
        f"to find for {coming[0].stage_name}: {counted(len(coming), 'figure')}, first {first}"
        if coming
        else None
    )


def _rows_lack(state: BookState, step: CheckStep) -> str | None:
    """A row whose fate nobody has decided; at the end, one that is not settled."""
    for row in rows_of(state) if step.rows in ("decide", "close") else ():
        if not row.decided:
            return f"nobody has decided: {row.part}, {row.words}"
        if step.rows == "close" and not row.settled:
            return f"not settled: {row.part}, {row.words}"
    return None


def _measure_lacks(state: BookState, step: MeasureStep, tools: Sequence[Instrument]) -> str | None:
    results = results_of(state, step, tools)
    choosing = {r.id for r in results if r.chooses}
    later = {p.check.reading for p in step.packs() if p.check and p.result in choosing}
    unread = (r.name for r in step.reading if not state.live("reading", r.id) and r.id not in later)
    missing = next(unread, None)
    if missing is not None:
        return f"{missing} is not read"
    once = next((r for r in readings_of(state, step) if r.ask_again), None)
    if once is not None:
        return f"{once.name}: read it a second time, there is no going back after it"
    undecided = next(
        (r for r in results if r.open and (r.chooses or r.disposition in (None, "measure_again"))),
        None,
    )
    if undecided is None:
        return None
    if undecided.chooses:
        asked = "which part goes into it" if step.pairs else "which shims lie in it"
        return f"{undecided.name}: say {asked}"
    if undecided.judgement.verdict == "no_limit" and undecided.refusal is None:
        return f"{undecided.name}: no figure is given to judge it by, put it into the limit book"
    return (
        f"{undecided.name} is {undecided.judgement.words}"
        if undecided.refusal is None
        else f"{undecided.name}: {undecided.refusal}"
    )


def _tighten_lacks(state: BookState, step: TightenStep, tools: Sequence[Instrument]) -> str | None:
    joint = joint_in_hand(state, step)
    facts = joint_facts(state, joint) if joint else None
    if facts is not None and facts.proves:
        return f"nobody has seen yet: {facts.condition}"
    if facts is None or not (facts.begun and facts.final):
        return f"not final: {facts.progress if facts else step.joint}"
    return None


def _run_lacks(state: BookState, step: RunStep, tools: Sequence[Instrument]) -> str | None:
    return None if any(a.passed for a in attempts_of(state, step)) else "no attempt has passed"


def _fill_lacks(state: BookState, step: FillStep, tools: Sequence[Instrument]) -> str | None:
    if not state.live("reading", step.id):
        return "the amount is not entered"
    seen = any(x.body.what == step.level for x in state.each(Confirmed, "step", step.id))
    return None if seen else f"not looked at: {step.level}"


OWN: dict[type, Callable[[BookState, Any, Sequence[Instrument]], str | None]] = {
    CheckStep: _check_lacks,
    InspectStep: _inspect_lacks,
    MeasureStep: _measure_lacks,
    TightenStep: _tighten_lacks,
    RunStep: _run_lacks,
    FillStep: _fill_lacks,
}
