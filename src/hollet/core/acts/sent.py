"""What an instrument has sent, taken by the bench that waited for it: the figure is the
instrument's, the bolt or reading the core's. Two screens that take the same event write one line.
"""

from collections.abc import Sequence
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from hollet.core.acts.base import Act, step_named
from hollet.core.acts.bolts import FastenerAct, joint_of
from hollet.core.acts.hand import Hand
from hollet.core.acts.readings import ReadingAct
from hollet.core.entries import BookState, Entry, Fastener, Reading, StepBody
from hollet.core.entries.sent import Sent, Trace
from hollet.core.errors import Conflict, Refused
from hollet.core.procedure.joints import READ_OFF, Joint
from hollet.core.quantities.quantity import canonical, decimal_text, quantity_of, round9
from hollet.core.sent import SentValue
from hollet.core.steps.tighten import JointFacts
from hollet.core.steps.wrenches import lever_of, snug_of, stage_ask
from hollet.core.tightening.pull import Pull, read_pull

__all__ = ["SentPullAct", "SentReadingAct"]

EVERY, MOST = 1, 200
"""Degrees between the torques that a line keeps of a pull, and how many: its file has them all."""
Event = Annotated[str, Field(min_length=8, max_length=64)]


class SentPullAct(Act[Fastener], StepBody):
    """A pull as the wrench sent it, for the bolt that is next; `bolt` where it was another: at the
    stage in hand, or once more at the one that it has.
    """

    body: ClassVar = Fastener
    by_device: ClassVar = True
    kind: Literal["sent pull"]
    event: Event
    joint: Annotated[str, Field(max_length=60)] | None = None
    bolt: Annotated[int, Field(ge=1, le=200)] | None = None

    def sent_events(self) -> tuple[str, ...]:
        return (self.event,)

    def accepted(self, state: BookState, hand: Hand) -> Fastener:
        joint, facts = joint_of(state, step_named(state, self.step), self.joint)
        acts = state.each(Fastener, "joint", joint.id)
        value = _taken(self.event, hand, _used(state))
        self._own_wrench(facts, value, hand)
        self._not_passed(acts, value)
        self._whose(facts, acts)
        number = self.bolt or facts.next_bolt
        if number is None or (facts.next_stage is None and self.bolt is None):
            waits = facts.waits or f"{joint.name}: every bolt has its last stage"
            raise Refused("stage_waits", waits, field="bolt")
        reached = facts.bolts[number - 1].stage if number <= len(facts.bolts) else 0
        behind = facts.next_stage is not None and reached < facts.next_stage
        stage = facts.next_stage if behind else reached
        if not stage:
            raise Refused("stage_waits", facts.waits or "no stage is next", field="bolt")
        pull = _read(joint, facts, stage, value)
        typed = _figure(joint, stage, value, pull)
        more = self.bolt is not None and facts.bolts[number - 1].more is not None
        said = FastenerAct(
            kind="fastener",
            step=self.step,
            joint=joint.id,
            bolt=number,
            act="read",
            stage=stage,
            typed=typed,
            more=more,
            sure=self.bolt is not None,
            as_typed=True,
        ).accepted(state, hand)
        trace = _trace(pull) if pull is not None else None
        file = value.pull.file if value.pull is not None else None
        own: dict[str, object] = {"act": "sent", "sign": None, "sent": _sent(value, hand)}
        own |= {"trace": trace, "traced": file, "note": value.trouble or None}
        return said.model_copy(update=own)

    def _own_wrench(self, facts: JointFacts, value: SentValue, hand: Hand) -> None:
        if facts.wrench is not None and facts.wrench.id == value.tool:
            return
        sender = hand.tools.get(value.tool or "")
        in_hand = facts.wrench.code if facts.wrench is not None else "no wrench"
        words = f"{sender.code if sender else value.device} sent this, and {in_hand} is in hand"
        raise Refused(
            "other_wrench", f"{words}: take the wrench that pulls, then pull", field="wrench"
        )

    def _not_passed(self, acts: Sequence[Entry[Fastener]], value: SentValue) -> None:
        """Refuse what was pulled before somebody wrote the bolt on another way: it may be the same
        pull, and the next bolt never had it.
        """
        newest = max((e.body.moment(e.time) for e in acts), default="")
        if newest > (value.began or value.heard) and self.bolt is None:
            raise Conflict(
                "a bolt was written while this was pulled, or after: say whose pull it was, or "
                "pull the next anew",
                reason_code="moved_on",
            )

    def _whose(self, facts: JointFacts, acts: Sequence[Entry[Fastener]]) -> None:
        """Ask, after a pull that got too little: it was pulled on with a second stroke, or the next
        bolt was pulled. Nobody but the hand knows, and either guess would be a bolt never pulled.
        """
        newest = max(acts, key=lambda e: e.seq, default=None)
        if self.bolt is not None or newest is None or newest.body.sent is None:
            return
        last = facts.bolts[newest.body.bolt - 1]
        if last.verdict == "outside" and last.side == "low" and not last.passed_over:
            words = f"bolt {last.number} has {last.gets}, too little: was it pulled on, or was it "
            other = f"bolt {facts.next_bolt}" if facts.next_bolt is not None else "another"
            raise Refused("whose", f"{words}{other}? Say which bolt", field="bolt")


class SentReadingAct(Act[Reading], StepBody):
    """Repeats of one reading as its tool sent them."""

    body: ClassVar = Reading
    by_device: ClassVar = True
    kind: Literal["sent reading"]
    events: Annotated[tuple[Event, ...], Field(min_length=1, max_length=50)]
    reading: str
    instrument: str
    state: Annotated[str, Field(max_length=80)] | None = None
    datum: Annotated[str, Field(max_length=80)] | None = None
    sure: bool = False

    def sent_events(self) -> tuple[str, ...]:
        return self.events

    def accepted(self, state: BookState, hand: Hand) -> Reading:
        if len(set(self.events)) != len(self.events):
            raise Refused("sent_twice", "one press is one repeat: press again", field="events")
        used = _used(state)
        values = [_taken(event, hand, used) for event in self.events]
        tool = hand.tools.get(self.instrument)
        for value in values:
            if tool is None or value.tool != tool.id:
                other = hand.tools.get(value.tool or "")
                sender = other.code if other is not None else value.device
                code = tool.code if tool is not None else "no tool"
                words = f"{sender} sent this, and {code} is in hand: choose the one that measures"
                raise Refused("other_tool", words, field="instrument")
            if value.value.unit != tool.unit:
                words = f"{tool.code} is kept in {tool.unit} and sent {value.value.unit}: set it"
                raise Refused("other_unit", f"{words}, then send it again", field="unit")
        assert tool is not None, "there is one event or more"
        said = ReadingAct(
            kind="reading",
            step=self.step,
            reading=self.reading,
            typed=tuple(str(value.value.value) for value in values),
            unit=tool.unit,
            instrument=tool.id,
            state=self.state,
            datum=self.datum,
            sure=self.sure,
        ).accepted(state, hand)
        return said.model_copy(update={"sent": tuple(_sent(value, hand) for value in values)})


def _used(state: BookState) -> frozenset[str]:
    """The events that live lines of the build were made of, whatever reading or joint took them."""
    pulls = (e.body.sent for e in state.all(Fastener))
    reads = (sent for e in state.all(Reading) for sent in e.body.sent)
    return frozenset(one.event for one in (*pulls, *reads) if one is not None)


def _taken(event: str, hand: Hand, used: frozenset[str]) -> SentValue:
    """What was sent, if it is still there and taken by nobody. A reading that is not whole is sent
    again; a pull has happened: it is written with its trouble, and proves nothing.
    """
    if event in used:
        raise Conflict("this was taken already, on another screen", reason_code="taken")
    value = hand.sent.get(event)
    if value is None:
        words = "what the instrument sent is no longer here: send it again, or type it"
        raise Refused("sent_gone", words, field="event")
    if value.trouble and value.pull is None:
        raise Refused("not_taken", value.trouble, field="event")
    if value.tool is None:
        words = f"{value.device} is no tool of this shop yet: say under Tools which one it is"
        raise Refused("unknown_device", words, field="event")
    return value


def _read(joint: Joint, facts: JointFacts, stage: int, value: SentValue) -> Pull | None:
    pull = value.pull
    if pull is None:
        return None
    ratio = lever_of(facts.wrench, facts.adapter) if facts.wrench is not None else 1.0
    torque = [t / ratio for t in pull.torque]
    found = read_pull(pull.angle, torque, *snug_of(joint, stage))
    return found._replace(verdict="gaps") if pull.lost or value.trouble else found


def _figure(joint: Joint, stage: int, value: SentValue, pull: Pull | None) -> str:
    """What the bolt got, as text with its unit: the torque, or the angle from where it was snug."""
    kind, _, text = stage_ask(joint, stage)
    if kind == "feel" or kind in READ_OFF:
        words = f"stage {stage} {'asks for no torque' if kind == 'feel' else 'is read'}: {text}"
        raise Refused("no_figure", words, field="event")
    if kind == "torque":
        return f"{value.value.value} {value.value.unit}"
    if pull is not None and pull.snug_at is None:
        had = decimal_text(round9(snug_of(joint, stage)[0]), 0)
        words = (
            f"the pull reached {decimal_text(pull.peak, 0)} N·m and the bolt holds {had} or more"
        )
        raise Refused("not_turned", f"{words}: it has not turned. Pull on", field="event")
    if pull is not None:
        return f"{decimal_text(pull.turned, 1)} deg"
    if value.angle is None:
        words = f"{value.device} sends no angle: turn by the gauge or the mark, and press Turned"
        raise Refused("no_angle", words, field="event")
    return f"{decimal_text(canonical(value.angle, 'angle', 'angle'), 1)} deg"


def _sent(value: SentValue, hand: Hand) -> Sent:
    tool = hand.tools[value.tool or ""].code
    return Sent(event=value.id, device=value.device, tool=tool, heard=value.heard, raw=value.raw)


def _trace(pull: Pull) -> Trace:
    def some(figure: float | None, unit: str, places: int) -> dict[str, str] | None:
        return None if figure is None else {"value": decimal_text(figure, places), "unit": unit}

    return Trace.model_validate(
        {
            "verdict": pull.verdict,
            "at": some(pull.at, "deg", 0),
            "climb": some(pull.climb, "1", 3),
            "before": some(pull.before, "1", 3),
            "turned": some(pull.turned, "deg", 1),
            "peak": some(pull.peak, "N·m", 1),
            "snug": some(pull.snug, "N·m", 1),
            "every": quantity_of(EVERY, "deg"),
            "curve": [some(torque, "N·m", 1) for torque in pull.curve[::EVERY][:MOST]],
        }
    )
