"""What the instruments of the shop say: who is there, what each reads, what was sent to be taken.

Held in memory by the one server. Time comes in as two callables: seconds that only go forward, and
the clock as UTC text. Thread-safe: lines come from the threads of serial ports and sockets.
"""

import gzip
import threading
import uuid
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, field

from hollet.core.errors import Refused
from hollet.core.quantities.quantity import Quantity, canonical, decimal_text, round9
from hollet.core.sent import SentPull, SentValue
from hollet.devices.protocol import (
    AnyLine,
    Begins,
    Bye,
    Ends,
    Hello,
    Here,
    Read,
    Samples,
    Trouble,
    Zeroed,
    read_line,
)

__all__ = ["SILENT_S", "Connection", "Event", "Feed", "Spot", "trace_text"]

SILENT_S = 2.0
"""A device speaks at least twice a second; after this it is silent: nothing of it is believed."""
LIVES_S = 600.0
MOST_EVENTS, MOST_DAMAGED, MOST_PULLED = 200, 50, 180_000
GONE_S = 60.0
MOST_LINES = 64
"""Devices that may be on at once."""
EMPTY_PERCENT = 5


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a screen waits for a tool: the build, the step, and the reading or joint there."""

    build: str
    step: str
    about: str
    tool: str


@dataclass(slots=True)
class Pulling:
    """A pull that runs: its samples in N·m and degrees."""

    rate: int
    unit: str
    began: str
    damaged: int
    angle: list[float] = field(default_factory=list)
    torque: list[float] = field(default_factory=list)
    lost: bool = False


@dataclass(slots=True)
class Connection:
    """One device at one end of a line; `local`: over a cable or from this machine itself."""

    key: str
    local: bool
    heard: float
    hello: Hello | None = None
    reads: Read | None = None
    battery: int | None = None
    zeroed: str | None = None
    trouble: str = ""
    damaged: int = 0
    gone: float | None = None
    pulling: Pulling | None = None


@dataclass(frozen=True, slots=True)
class Event:
    """Something sent to be taken, and where it goes: empty where several wait for it, or nobody."""

    value: SentValue
    at: float
    spots: tuple[Spot, ...]


def trace_text(angle: list[float], torque: list[float], rate: int) -> bytes:
    """The samples of a pull as they are kept: a table in gzip, the same bytes for the same pull."""
    head = f"# one line a sample, {rate} a second\nangle_deg,torque_Nm\n"
    rows = "\n".join(f"{a:.2f},{t:.3f}" for a, t in zip(angle, torque, strict=True))
    return gzip.compress((head + rows + "\n").encode(), mtime=0)


class Feed:
    """All that is heard. `known` says whether a token is of a paired device, `keep` writes the
    bytes of a trace and names them.
    """

    def __init__(
        self,
        seconds: Callable[[], float],
        now: Callable[[], str],
        known: Callable[[str], bool],
        keep: Callable[[bytes], str],
        tool_of: Callable[[str], str | None],
    ) -> None:
        self.seconds, self.now = seconds, now
        self.known, self.keep, self.tool_of = known, keep, tool_of
        self._guard = threading.RLock()
        self._lines: OrderedDict[str, Connection] = OrderedDict()
        self._events: OrderedDict[str, Event] = OrderedDict()
        self._watching: dict[str, Spot] = {}
        self.version = 0

    def open(self, *, local: bool) -> str:
        """A line is there; returns its key."""
        with self._guard:
            key = uuid.uuid4().hex
            self._lines[key] = Connection(key, local, self.seconds())
            self.version += 1
            return key

    def close(self, key: str) -> None:
        """The line is gone: unplugged, or out of reach. What was being pulled is not lost."""
        with self._guard:
            line = self._lines.get(key)
            if line is None or line.gone is not None:
                return
            line.gone = self.seconds()
            self._broken_off(line, "was cut off")
            self.version += 1

    def heard(self, key: str, raw: bytes) -> str | None:
        """Take in one line. Returns what is answered where the device may not go on: it is to be
        cut off.
        """
        with self._guard:
            line = self._lines[key]
            self.version += 1
            try:
                said = read_line(raw)
            except Refused as damaged:
                line.damaged += 1
                line.trouble = damaged.message
                if line.hello is None:
                    return "say hello first"
                return "too many damaged lines" if line.damaged >= MOST_DAMAGED else None
            line.heard = self.seconds()
            if line.hello is None and not isinstance(said, Hello):
                return "say hello first"
            return self._take(line, said, raw.decode().strip())

    def _take(self, line: Connection, said: AnyLine, raw: str) -> str | None:
        match said:
            case Hello():
                if not line.local and not self.known(said.token or ""):
                    return "not paired: pair this device on the workshop's computer"
                return self._greeted(line, said)
            case Here():
                line.battery = said.battery if said.battery is not None else line.battery
            case Zeroed():
                line.zeroed = self.now()
            case Trouble():
                line.trouble = said.words
            case Bye():
                return "bye"
            case Read():
                line.reads = said
                if said.pressed:
                    self._sent(line, said.value, said.unit, said.angle, raw, _unrest(said))
            case Begins():
                self._broken_off(line, "began another pull")
                self._begun(line, said)
            case Samples():
                self._samples(line, said)
            case Ends():
                self._ended(line, said, raw)
        return None

    def _greeted(self, line: Connection, said: Hello) -> str | None:
        if _end(said, "1") is None:
            return f"{said.unit} is no {said.measures}"
        if sum(other.gone is None for other in self._lines.values()) > MOST_LINES:
            return "too many devices: switch one off"
        if said != line.hello:  # said again on a serial line, it changes nothing
            self._broken_off(line, "said that it is another")
            line.hello, line.reads, line.zeroed, line.trouble = said, None, None, ""
        return None

    def _begun(self, line: Connection, said: Begins) -> None:
        assert line.hello is not None, "nothing begins before hello"
        if said.unit != line.hello.unit or line.hello.measures != "torque":
            line.trouble = f"a pull in {said.unit} from what reads {line.hello.unit}: no trace"
        else:
            line.pulling = Pulling(said.rate, said.unit, self.now(), line.damaged)

    def _samples(self, line: Connection, said: Samples) -> None:
        pull = line.pulling
        if pull is None:
            return
        pull.lost = pull.lost or said.n != len(pull.torque)
        if len(pull.torque) + len(said.torque) > MOST_PULLED:
            pull.lost = True
            return
        factor = canonical(Quantity(value="1", unit=pull.unit), "torque", "unit")
        pull.torque.extend(t * factor for t in said.torque)
        pull.angle.extend(said.angle)

    def _ended(self, line: Connection, said: Ends, raw: str) -> None:
        pull, line.pulling = line.pulling, None
        kept, trouble = None, ""
        if pull is not None and pull.torque:
            pull.lost = pull.lost or line.damaged != pull.damaged
            file = self.keep(trace_text(pull.angle, pull.torque, pull.rate))
            kept = SentPull(tuple(pull.angle), tuple(pull.torque), file, pull.lost)
        elif line.hello is not None and line.hello.traces:
            trouble = (
                f"{line.hello.name} pulled to {said.value} {said.unit}, and its samples did not "
                "come: nobody knows how it went. Read the bolt in another way"
            )
        began = pull.began if pull is not None else ""
        self._sent(line, said.value, said.unit, said.angle, raw, trouble, kept, began)

    def _broken_off(self, line: Connection, how: str) -> None:
        """A pull that never ended: the bolt got something, and nobody knows how much."""
        pull, line.pulling = line.pulling, None
        if pull is None or not pull.torque or line.hello is None:
            return
        peak = decimal_text(round9(max(pull.torque)), 1)
        words = (
            f"{line.hello.name} {how} in the middle of a pull, at {peak} N·m: the bolt got that or "
            "more. Loosen it and pull it anew, or read it with another wrench"
        )
        file = self.keep(trace_text(pull.angle, pull.torque, pull.rate))
        kept = SentPull(tuple(pull.angle), tuple(pull.torque), file, lost=True)
        self._sent(line, peak, "N·m", None, "", words, kept, pull.began)

    def _sent(
        self,
        line: Connection,
        value: str,
        unit: str,
        angle: str | None,
        raw: str,
        trouble: str,
        pull: SentPull | None = None,
        began: str = "",
    ) -> None:
        assert line.hello is not None, "nothing is taken before hello"
        tool = self.tool_of(line.hello.id)
        spots = {spot for spot in self._watching.values() if spot.tool == tool}
        sent = SentValue(
            id=str(_uuid7()),
            device=line.hello.id,
            tool=tool,
            heard=self.now(),
            raw=raw[:400],
            value=Quantity(value=value, unit=unit),
            angle=Quantity(value=angle, unit="deg") if angle is not None else None,
            pull=pull,
            trouble=trouble or self._held(line, value, unit),
            began=began,
        )
        self._events[sent.id] = Event(sent, self.seconds(), tuple(spots))
        while len(self._events) > MOST_EVENTS:
            self._events.popitem(last=False)

    def _held(self, line: Connection, value: str, unit: str) -> str:
        """Why what it sent cannot be taken, or nothing."""
        hello = line.hello
        assert hello is not None
        if self._twins(line):
            return f"two devices say that they are {hello.id}: switch one off, then send it again"
        if line.battery is not None and line.battery <= EMPTY_PERCENT:
            return f"{hello.name}: its battery is empty, what it reads now may be wrong"
        if hello.zeroes and line.zeroed is None:
            return f"{hello.name} was not zeroed since it is on: zero it, then send it again"
        try:
            got = canonical(Quantity(value=value, unit=unit), hello.measures, "value")
        except Refused:
            return f"{hello.name} sent {value} {unit}: that is no {hello.measures}"
        low, high = _end(hello, hello.lo), _end(hello, hello.hi)
        if unit != hello.unit:
            return f"{hello.name} sent {unit} and reads in {hello.unit}: set it, then send it again"
        if (low is not None and got < low) or (high is not None and got > high):
            ends = f"{hello.lo or ''} to {hello.hi or ''} {hello.unit}"
            return f"{hello.name} sent {value} {unit}: it reads {ends}"
        return ""

    def _twins(self, line: Connection) -> bool:
        own = line.hello.id if line.hello is not None else ""
        others = (other for other in self._lines.values() if other is not line)
        return any(
            other.gone is None and other.hello is not None and other.hello.id == own
            for other in others
        )

    def twins(self, line: Connection) -> bool:
        """Whether another device that is there says the same of itself."""
        with self._guard:
            return self._twins(line)

    def look(self) -> tuple[Connection, ...]:
        """All lines with a device at their end; one that is gone stays for a minute."""
        with self._guard:
            now = self.seconds()
            for line in tuple(self._lines.values()):
                if line.gone is not None and now - line.gone > GONE_S:
                    del self._lines[line.key]
                elif line.pulling is not None and now - line.heard > SILENT_S:
                    self._broken_off(line, "fell silent")
                    self.version += 1
            back = {n.hello.id for n in self._lines.values() if n.hello and n.gone is None}
            return tuple(
                line
                for line in self._lines.values()
                if line.hello is not None and (line.gone is None or line.hello.id not in back)
            )

    def events(self) -> dict[str, Event]:
        """What was sent and may still be taken, the oldest first."""
        with self._guard:
            now = self.seconds()
            for name, event in tuple(self._events.items()):
                if now - event.at > LIVES_S:
                    del self._events[name]
            return dict(self._events)

    def live(self) -> dict[str, SentValue]:
        """What each tool reads now, whose device is there, speaks, is at rest and can be believed;
        of a silent one nothing.
        """
        with self._guard:
            now, found = self.seconds(), {}
            for line in self._lines.values():
                hello, reads = line.hello, line.reads
                tool = self.tool_of(hello.id) if hello is not None else None
                if hello is None or reads is None or tool is None or line.gone is not None:
                    continue
                if now - line.heard > SILENT_S or not reads.stable:
                    continue
                if self._held(line, reads.value, reads.unit):
                    continue
                found[tool] = SentValue(
                    id=line.key,
                    device=hello.id,
                    tool=tool,
                    heard=self.now(),
                    raw="",
                    value=Quantity(value=reads.value, unit=reads.unit),
                )
            return found

    def watch(self, screen: str, spot: Spot | None) -> None:
        """A screen waits for a tool at this spot, or no more."""
        with self._guard:
            if spot is None:
                self._watching.pop(screen, None)
            else:
                self._watching[screen] = spot


def _unrest(said: Read) -> str:
    return "" if said.stable else "it was not at rest when its button was pressed: send it again"


def _end(hello: Hello, text: str | None) -> float | None:
    """A figure of a device, canonical; None without one, or where its unit does not fit."""
    if text is None:
        return None
    try:
        return canonical(Quantity(value=text, unit=hello.unit), hello.measures, "range")
    except Refused:
        return None


def _uuid7() -> object:
    import uuid_utils

    return uuid_utils.uuid7()
