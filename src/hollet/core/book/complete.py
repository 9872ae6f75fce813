"""What is still missing before a step can be called done."""

from collections.abc import Sequence

from hollet.core.book.bags import bag_contents, short_of
from hollet.core.book.boxes import box_of, not_pressed
from hollet.core.book.captures import compares_of, uncaptured
from hollet.core.book.care import uncared
from hollet.core.book.hanging import not_connected
from hollet.core.book.lacks import own_lacks
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
from hollet.core.book.sweeping import not_swept
from hollet.core.book.windows import chances
from hollet.core.entries import BookState
from hollet.core.entries.status import plan_of, status_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.schools import agreement_state
from hollet.core.procedure.sheet import Step
from hollet.core.steps.creeping import creeping
from hollet.core.steps.driving import not_yet
from hollet.core.steps.lifting import UNSAID, lift_of
from hollet.core.steps.moving import moving_of
from hollet.core.steps.results import results_of
from hollet.core.steps.said import not_enough, said_figures

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
        *_after_running(state, step, tools, now),
        *unlooked(state, step, now),
        *not_swept(state, step),
        *not_connected(state, step),
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


def _after_running(
    state: BookState, step: Step, tools: Sequence[Instrument], now: str
) -> list[Obstacle]:
    """A drive or a heat that nothing says; figures read again that do not rest yet."""
    still = not_yet(state, step, now)
    moving = next((c for c in creeping(state, step, tools) if c.word != "rests"), None)
    return [
        *([_order("not_yet", still)] if still else ()),
        *([_order("creeps", f"{moving.name}: {moving.word}, {moving.detail}")] if moving else ()),
    ]


def _on_its_way(state: BookState, step: Step, now: str) -> list[Obstacle]:
    """A unit that touches, or whose watchers have not spoken since it moved, is not in."""
    facts = moving_of(state, step, now) if step.moves is not None else None
    if facts is None or (facts.moves == 0 and facts.half is None):
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
    words = own_lacks(state, step, tools)
    return [_order("unfinished", words)] if words is not None else []
