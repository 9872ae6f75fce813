"""The instruments that speak for themselves: what each says now, and what waits to be taken."""

import time
from collections.abc import Mapping

from hollet.core.entries.status import plan_of
from hollet.core.instruments import Instrument
from hollet.core.sent import SentValue
from hollet.core.steps.tighten import JointFacts, joint_facts
from hollet.core.steps.wrenches import lever_of, snug_of
from hollet.core.tightening.pull import read_pull
from hollet.core.view import View
from hollet.devices.feed import SILENT_S, Connection, Event, Feed, Spot
from hollet.screens.benches.trace import PullView, pull_view
from hollet.services.devices import known_device
from hollet.services.names import build_names
from hollet.services.traces import keep_trace
from hollet.services.workshop import Workshop

__all__ = ["FeedView", "InstrumentView", "SentView", "attach", "heard", "look", "watch"]


class InstrumentView(View):
    """A device at the end of a line: which tool of the shop it is, whether it speaks, what it reads
    now; `hold`: why nothing of it is taken.
    """

    id: str
    name: str
    tool: str | None
    code: str | None
    measures: str
    unit: str
    reads: str
    battery: int | None
    here: bool
    silent: bool
    pulling: bool
    hold: str
    words: str


class SentView(View):
    """Something that was sent: for the spot where it belongs; asked where several wait for it.
    `may`: it can be taken, if with its trouble.
    """

    id: str
    tool: str | None
    code: str
    words: str
    trouble: str
    may: bool
    spots: tuple[str, ...]


class FeedView(View):
    """All that is heard, for one screen."""

    version: int
    instruments: tuple[InstrumentView, ...]
    sent: tuple[SentView, ...]
    pull: PullView | None


def attach(workshop: Workshop) -> Feed:
    """Give the running workshop its ears."""

    def tool_of(device: str) -> str | None:
        tools = workshop.tools().values()
        return next((t.id for t in tools if t.device == device and not t.retired), None)

    feed = Feed(
        time.monotonic,
        workshop.now,
        lambda token: bool(token) and known_device(workshop, token) is not None,
        lambda data: keep_trace(workshop, data),
        tool_of,
    )
    workshop.sent = lambda: _values(feed)
    workshop.live = feed.live
    return feed


def _values(feed: Feed) -> Mapping[str, SentValue]:
    return {name: event.value for name, event in feed.events().items()}


def heard(feed: Feed, key: str, raw: bytes) -> str | None:
    """A line of a device; what is answered before it is cut off."""
    return feed.heard(key, raw)


def watch(feed: Feed, screen: str, spot: Spot | None) -> None:
    """Which tool a screen waits for, and where."""
    feed.watch(screen, spot)


def look(workshop: Workshop, feed: Feed, spot: Spot | None) -> FeedView:
    """What a screen shows of the instruments; the pull that runs on the tool it waits for."""
    lines = feed.look()
    now = feed.seconds()
    if spot is not None and spot.build not in build_names(workshop):
        spot = None  # a screen of a build that is gone: it still hears which instruments are there
    return FeedView(
        version=feed.version,
        instruments=tuple(_instrument(workshop, feed, line, now) for line in lines),
        sent=_waiting(workshop, feed, spot),
        pull=_pull(workshop, lines, spot),
    )


def _waiting(workshop: Workshop, feed: Feed, spot: Spot | None) -> tuple[SentView, ...]:
    """What was sent and stands in no line of the build on the screen."""
    events = feed.events()
    if spot is None or not events:
        return ()
    with workshop.held(spot.build) as state:
        taken = {name for name in events if name in state.entries}
    tools = workshop.tools()
    return tuple(_sent(event, tools) for name, event in events.items() if name not in taken)


def _instrument(workshop: Workshop, feed: Feed, line: Connection, now: float) -> InstrumentView:
    hello = line.hello
    assert hello is not None, "only lines with a device are looked at"
    tool = workshop.tools().get(feed.tool_of(hello.id) or "")
    here, age = line.gone is None, now - line.heard
    silent = here and age > SILENT_S
    name = tool.code if tool is not None else hello.name
    hold = ""
    if not here:
        hold = f"{name} is unplugged or out of reach: hold"
    elif silent:
        hold = f"{name} is silent: hold"
    elif feed.twins(line):
        hold = f"two devices say that they are {hello.id}: switch one off"
    rests = line.reads
    battery = f", battery {line.battery} %" if line.battery is not None else ""
    return InstrumentView(
        id=hello.id,
        name=hello.name,
        tool=tool.id if tool is not None else None,
        code=tool.code if tool is not None else None,
        measures=hello.measures,
        unit=hello.unit,
        reads=f"{rests.value} {rests.unit}" if rests is not None and not hold else "",
        battery=line.battery,
        here=here,
        silent=silent,
        pulling=line.pulling is not None,
        hold=hold,
        words=line.trouble or (hold if hold else f"{name} sends{battery}"),
    )


def _sent(event: Event, tools: Mapping[str, Instrument]) -> SentView:
    value = event.value
    tool = tools.get(value.tool or "")
    angle = f", {value.angle.value}°" if value.angle is not None else ""
    return SentView(
        id=value.id,
        tool=value.tool,
        code=tool.code if tool is not None else value.device,
        words=f"{value.value.value} {value.value.unit}{angle}",
        trouble=value.trouble,
        may=not value.trouble or value.pull is not None,
        spots=tuple(f"{spot.build}/{spot.step}/{spot.about}" for spot in event.spots),
    )


def _pull(workshop: Workshop, lines: tuple[Connection, ...], spot: Spot | None) -> PullView | None:
    """The pull on the tool that a screen waits for, read as far as it went."""
    if spot is None:
        return None
    tool = workshop.tools().get(spot.tool)
    line = next((n for n in lines if n.hello and tool and n.hello.id == tool.device), None)
    pulling = line.pulling if line is not None else None
    if pulling is None or tool is None:
        return None
    with workshop.held(spot.build) as state:
        joint = plan_of(state).find_joint(spot.about)
        stage = joint_facts(state, joint).next_stage if joint is not None else None
        if joint is None or stage is None:
            return None
        ratio = _ratio(tool, joint_facts(state, joint))
        if ratio is None:
            return None
        angle, torque = tuple(pulling.angle), tuple(t / ratio for t in pulling.torque)
    length = min(len(angle), len(torque))
    raw = angle[:length], torque[:length]
    return pull_view(joint, stage, read_pull(*raw, *snug_of(joint, stage)), raw)


def _ratio(tool: Instrument, facts: JointFacts) -> float | None:
    """What the wrench shows for each newton metre at the bolt; None where its length is not known:
    the bench says so, and nothing is drawn as if it were.
    """
    if facts.adapter is None:
        return 1.0
    return lever_of(tool, facts.adapter) if tool.grip_mm else None
