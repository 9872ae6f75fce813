"""What all benches share."""

from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

from pydantic import computed_field

from hollet.core.book.around import AroundWords, around_now, around_words
from hollet.core.book.bags import BagContent, bag_contents
from hollet.core.book.boxes import box_of, guards, kind_of_box, not_pressed
from hollet.core.book.captures import CaptureView, captures_of, compares_of
from hollet.core.book.care import CountFacts, LaidFacts, SeatFacts, WarmFacts
from hollet.core.book.clips import ClipView, clips_of
from hollet.core.book.complete import bare_openings, clash, not_open_any_more, obstacles
from hollet.core.book.dangers import Danger, live_dangers
from hollet.core.book.debts import DebtGroup
from hollet.core.book.hanging import Hanging, hanging_at
from hollet.core.book.last_time import LastLine
from hollet.core.book.looked import Looks
from hollet.core.book.needs import needs, state_words
from hollet.core.book.openers import Opener, openers
from hollet.core.book.orders import orders
from hollet.core.book.passing import Obstacle, Waiting, reason_keys, waiting_for
from hollet.core.book.photos import PhotoView, photos_of
from hollet.core.book.provisional import OrientFacts, TrialFacts, on_trial, orients_of, trial_of
from hollet.core.book.ready import Ready
from hollet.core.book.removals import puts_back
from hollet.core.book.settings import Keeping, keeps_of
from hollet.core.book.sought import Kept, kept_places
from hollet.core.book.sums import KeptSum
from hollet.core.book.windows import Chance, chances
from hollet.core.calendar.clock import Pace
from hollet.core.entries import BookState, Confirmed, Key, Line
from hollet.core.entries.status import SETTLED, StepStatus, plan_of, statuses, whole_of
from hollet.core.instruments import Instrument
from hollet.core.procedure.pieces import Caution, Role
from hollet.core.procedure.plan import Plan
from hollet.core.procedure.schools import Extra
from hollet.core.procedure.sheet import Step, blocks_of
from hollet.core.procedure.words import RUNGS, STAGES
from hollet.core.steps.lifting import LiftFacts
from hollet.core.steps.moving_views import MovingFacts
from hollet.core.view import View
from hollet.screens.benches.by_hand import (
    AgainRow,
    ComesOff,
    DepthTool,
    again_at,
    care_at,
    comes_off,
)
from hollet.screens.clockline import ClockLine, clock_line
from hollet.screens.closing import NoteRow
from hollet.screens.plan_questions import Gear
from hollet.screens.sentences import LogLine, line_of

__all__ = ["BenchBase", "Known", "base_of"]


class Known(NamedTuple):
    """What a bench knows beyond its own log: the paces of the shop, what was noted for next time,
    what earlier builds of the vehicle say.
    """

    paces: Mapping[str, Pace] = {}
    notes: Sequence[NoteRow] = ()
    last: Sequence[LastLine] = ()


class ToolNeed(View):
    """A tool that the step needs, and whether the shop has it."""

    name: str
    state: str

    @computed_field
    @property
    def owned(self) -> bool:
        """Whether the shop has it."""
        return self.state == "owned"


class PartLine(View):
    """A part that the step needs: how many, and whether that many are free for it, in words."""

    need: str
    name: str
    count: int
    free: bool
    words: str


class FluidView(View):
    """A fluid that may run out here, or whose circuit stays closed, and whether it is drained."""

    name: str
    words: str
    drained: bool
    stays_closed: bool


class BenchBase(View):
    """What all benches share.

    `obstacles` are what is in the way; `other_box` is pressed when the step was done in another
    way.
    """

    step: str
    number: str
    title: str
    stage: str
    do: str
    why: str | None
    caution: Caution | None
    box: str | None
    confirmed: bool
    confirmed_by: str
    status: StepStatus
    obstacles: tuple[Obstacle, ...]
    dangers: tuple[Danger, ...]
    waited_for: tuple[str, ...]
    other_box: str | None
    clash: str | None
    gear: tuple[ToolNeed, ...]
    people: tuple[Role, ...]
    parts: tuple[PartLine, ...]
    hours: tuple[float, float] | None
    chances: tuple[Chance, ...]
    ahead: tuple[str, ...]
    extras: tuple[Extra, ...]
    waits: tuple[Waiting, ...]
    blocks: str | None
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
    hanging: Hanging | None
    photos: tuple[PhotoView, ...]
    clips: tuple[ClipView, ...]
    lifts: bool
    seen: int
    now: str
    lines: tuple[LogLine, ...]
    clock: ClockLine
    notes: tuple[NoteRow, ...]
    last_time: tuple[LastLine, ...]
    openers: tuple[Opener, ...]
    kept: tuple[Kept, ...]
    trial: TrialFacts | None
    on_trial: tuple[str, ...]
    orients: tuple[OrientFacts, ...]
    again: tuple[AgainRow, ...]
    lays: tuple[LaidFacts, ...]
    seats: tuple[SeatFacts, ...]
    warms: tuple[WarmFacts, ...]
    sums: tuple[KeptSum, ...]
    counts: tuple[CountFacts, ...]
    depth_tools: tuple[DepthTool, ...]
    comes_off: ComesOff
    behind: DebtGroup | None
    looks: Looks | None
    lift: LiftFacts | None
    ready: Ready | None
    moves_unit: bool
    moving: MovingFacts | None
    skip_keys: tuple[str, ...] = reason_keys("skip")
    chance_keys: tuple[str, ...] = reason_keys("last_chance")
    capture_keys: tuple[str, ...] = reason_keys("capture")

    @computed_field
    @property
    def stage_name(self) -> str:
        """The stage as it is called."""
        return STAGES[self.stage]

    @computed_field
    @property
    def taking_down(self) -> bool:
        """Whether things come off here."""
        return self.stage == "take_down"

    @computed_field
    @property
    def settled(self) -> bool:
        """Whether it is done, or said not to be needed."""
        return self.status.status in SETTLED

    @computed_field
    @property
    def lacking(self) -> str | None:
        """What it still needs, in words."""
        own = (o.words for o in self.obstacles if o.code not in ("danger", "must_wait"))
        return next(own, None)

    @computed_field
    @property
    def may_pass(self) -> bool:
        """Whether a reason passes all that is in the way."""
        return bool(self.obstacles) and all(o.by_reason for o in self.obstacles)

    @computed_field
    @property
    def pass_words(self) -> str:
        """What is passed by a reason."""
        return self.obstacles[0].words if self.obstacles else ""

    @computed_field
    @property
    def pass_keys(self) -> tuple[str, ...]:
        """Reasons that one key gives."""
        return self.obstacles[0].keys if self.obstacles else ()

    @computed_field
    @property
    def may_happen(self) -> bool:
        """Whether a danger is in the way, so that it can be told that it has happened."""
        return not self.settled and any(o.by == "thing" for o in self.obstacles)


def base_of(
    state: BookState,
    step: Step,
    gear: Gear,
    tools: Sequence[Instrument],
    now: str,
    known: Known,
) -> BenchBase:
    plan = plan_of(state)
    standing = statuses(state)
    box, found = box_of(step), obstacles(state, step, tools, now)
    presses = state.each(Confirmed, "step", step.id)
    press = next((e for e in reversed(presses) if e.body.what == box), None)
    later = [
        s for s in plan.step[plan.step.index(step) + 1 :] if standing[s.id].status not in SETTLED
    ]
    opened, back = {o.id: o.what for s in plan.step for o in s.opens}, puts_back(plan, step)
    return BenchBase(
        clock=clock_line(state, step, known.paces),
        **_beside(state, step, known),
        **care_at(state, step, tools, now),
        comes_off=comes_off(state, step, standing),
        step=step.id,
        number=step.number,
        title=step.title,
        stage=step.stage,
        do=step.do,
        why=step.why,
        caution=step.caution,
        status=standing[step.id],
        obstacles=found,
        dangers=tuple(d for d in live_dangers(state) if d.step == step.id),
        other_box=kind_of_box(state, step),
        waited_for=tuple(
            f"{s.title}: {link.because}" for s, link in guards(whole_of(state), step.id)
        ),
        clash=clash(state, step),
        gear=tuple(
            ToolNeed(name=tool, state=gear.tools.get(tool.casefold(), "not in the list yet"))
            for tool in step.tools
        ),
        people=step.people,
        parts=_parts(state, step),
        hours=step.hours,
        chances=chances(state, step),
        ahead=_ahead(state, later, step),
        extras=tuple(x for x in plan.extra if x.at == step.id and x.id not in plan.extras),
        box=box,
        confirmed=box is None or not not_pressed(state, step, box, now),
        confirmed_by=press.who if press else "",
        waits=waiting_for(state, step.id, now),
        blocks=RUNGS.get(blocks_of(plan, step)),
        opens=tuple(o.what for o in step.opens),
        closes=tuple(opened.get(c, c) for c in step.closes),
        next=tuple(f"{s.number} {s.title}" for s in later[:3]),
        following=later[0].id if later else None,
        refit_bags=tuple(c for c in bag_contents(state) if c.owner in back),
        fluids=_fluids(plan, step, standing),
        needed_open=not_open_any_more(state, step),
        around=around_words(state.lore, around_now(state), step, bool(bare_openings(state))),
        lifts=step.lifts and not step.by_hand,
        seen=state.seen.get(Key("step", step.id), 0),
        now=now,
        lines=tuple(line_of(state, e) for e in _all_of_step(state, step.id)[-12:]),
    )


def _beside(state: BookState, step: Step, known: Known) -> dict[str, Any]:
    """What is worth knowing before it: notes, what opens things, what lies where, what is on trial,
    what points one way.
    """
    return {
        "last_time": tuple(line for line in known.last if line.step == step.id),
        "notes": tuple(n for n in known.notes if n.step == step.id and step.title == n.title),
        "openers": tuple(o for o in openers(state) if o.name in step.opened_with),
        "kept": tuple(k for k in kept_places(state) if k.step == step.id),
        "trial": trial_of(state, step),
        "on_trial": on_trial(state, step),
        "orients": orients_of(state, step),
        "again": again_at(state, step),
        "hidden": step.hidden,
        "hanging": hanging_at(state, step),
        "photos": photos_of(state, step.id),
        "clips": clips_of(state, step.id),
        "keeps": keeps_of(state, step),
        "captures": captures_of(state, step),
        "compares": compares_of(state, step),
    }


def _parts(state: BookState, step: Step) -> tuple[PartLine, ...]:
    """What the step needs of parts, and how each stands."""
    placed = orders(state)
    return tuple(
        PartLine(
            need=need.id,
            name=need.name,
            count=reason.count,
            free=reason.met,
            words="free" if reason.met else state_words(need, placed),
        )
        for need in needs(state)
        for reason in need.reasons
        if reason.step == step.id
    )


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
