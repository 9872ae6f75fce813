"""One act on one bolt."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Share, StepBody, Tightness, measured_once
from hollet.core.entries.sent import Sent, Trace
from hollet.core.instruments import Instrument
from hollet.core.procedure.words import SEATINGS, SIGNS, THREADS, Seating, Sign, ThreadState
from hollet.core.quantities.quantity import (
    Measured,
    Quantity,
    canonical,
    decimal_text,
    exact,
    round9,
)

__all__ = ["Adapter", "Fastener", "SeatingSaid", "SignSaid", "ThreadsSaid"]

WENT = {
    "ok": "",
    "short": "",
    "yield": "yields",
    "torque_falling": "its torque falls",
    "bottoming": "climbs steeply",
    "stick_slip": "slips and grips",
    "early": "turns hard before it is snug",
    "gaps": "not seen whole",
}


def trace_words(trace: Trace) -> str:
    """What a pull showed, such as "yields at 63°"; nothing where it was healthy."""
    at = "" if trace.at is None else f" at {decimal_text(float(str(trace.at.value)), 0)}°"
    return WENT[trace.verdict] + at if WENT[trace.verdict] else ""


class SignSaid(StepBody):
    """How the bolts of a joint are confirmed from now on; `words`: who saw it, or which arm and how
    long.
    """

    called: ClassVar = "sign said"

    joint: str
    name: Annotated[str, Field(max_length=120)]
    sign: Sign
    words: Annotated[str, Field(max_length=120)] = ""

    def subject(self) -> Key:
        return Key("joint", self.joint)

    def line(self, title: str) -> str:
        return f"{self.name}: {SIGNS[self.sign]}" + (f", {self.words}" if self.words else "")


class Adapter(Body):
    """A crowfoot or the like: its length in the plane of rotation, and its angle (0
    straight out).
    """

    length: Measured
    angle: Measured


def lift_adapter(body: dict[str, Any]) -> dict[str, Any]:
    """An adapter whose figures were bare numbers, in mm and degrees."""
    old = body.get("adapter")
    if old is None:
        return body
    length, angle = measured_once(old["length"], "mm"), measured_once(old["angle"], "deg")
    return {**body, "adapter": {"length": length, "angle": angle}}


class ThreadsSaid(StepBody):
    """How the threads of a joint are; of one bolt's hole alone where it is named."""

    called: ClassVar = "threads said"

    joint: str
    name: Annotated[str, Field(max_length=120)]
    threads: ThreadState
    bolt: Annotated[int, Field(ge=1, le=200)] | None = None

    def subject(self) -> Key:
        return Key("joint", self.joint)

    def line(self, title: str) -> str:
        where = f", hole {self.bolt}" if self.bolt is not None else ", threads"
        return f"{self.name}{where}: {THREADS[self.threads]}"


class SeatingSaid(StepBody):
    """How the nuts or bolts of a wheel sit, how the wheel is made for them, and what centres it."""

    called: ClassVar = "seating said"

    joint: str
    name: Annotated[str, Field(max_length=120)]
    nut: Seating
    wheel: Seating
    centred: Literal["nuts", "hub"]

    def subject(self) -> Key:
        return Key("joint", self.joint)

    def line(self, title: str) -> str:
        return (
            f"{self.name}: {SEATINGS[self.nut]}, the wheel {SEATINGS[self.wheel]}, centred by the "
            f"{self.centred}"
        )


class Fastener(StepBody):
    """One act on one bolt, with the torque asked, the wrench and what the bolt got; `fresh`: a new
    one in its place.

    `sign`: how that is known. `free`: how long the bolt was while free, where it was drawn by its
    length; `set_to` is then its length as it stands. `turning`: `gets` is the torque at which
    it keeps turning. `added` is what was turned in this act on top of what an angle stage
    had before; `gets` is then the whole. `sent`: a wrench said so itself, `trace` is how the pull
    went, its samples lie in the file with the hash `traced`.
    """

    called: ClassVar = "fastener"
    is_ground: ClassVar = True
    touches: ClassVar = True
    version: ClassVar = 2

    joint: str
    bolt: Annotated[int, Field(ge=1, le=200)]
    act: Literal["clicked", "read", "sent", "state", "marked", "locked", "fresh"]
    tightness: Tightness
    stage: Annotated[int, Field(ge=1, le=8)] | None = None
    asked: Quantity | None = None
    tolerance_percent: Share | None = None
    tolerance_assumed: bool = False
    set_to: Quantity | None = None
    gets: Quantity | None = None
    free: Measured | None = None
    turning: bool = False
    added: Quantity | None = None
    typed: str | None = None
    wrench: Instrument | None = None
    adapter: Adapter | None = None
    sign: Sign | None = None
    sent: Sent | None = None
    trace: Trace | None = None
    traced: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")] | None = None
    note: str | None = None

    def subject(self) -> Key:
        return Key("joint", self.joint)

    def shown_trace(self) -> str | None:
        return self.traced

    def moment(self, written: str) -> str:
        """When the bolt was pulled: when the wrench was heard, else when it was written."""
        return self.sent.heard if self.sent is not None else written

    def line(self, title: str) -> str:
        sign = f", {SIGNS[self.sign]}" if self.sign not in (None, "heard") else ""
        return f"bolt {self.bolt}{self._act()}{sign}" + (f", {self.note}" if self.note else "")

    def _act(self) -> str:
        told = {
            "marked": " marked",
            "locked": " locked",
            "fresh": ": a fresh one in its place",
            "state": f", stage {self.stage}: {self.tightness}"
            if self.stage
            else f" {self.tightness}",
            "read": f", stage {self.stage}: {self._read()}",
            "sent": f", stage {self.stage}: {self._sent()}",
        }
        return told.get(self.act) or f", stage {self.stage}: {self._pulled()}"

    def _read(self) -> str:
        if self.turning:
            return f"keeps turning at {self.typed}"
        if self.gets is None or self.gets.unit != "mm":
            return f"read {self.typed}"
        longer = f"longer by {decimal_text(round9(canonical(self.gets, 'length', 'gets')))} mm"
        return longer + (f", {self.free.typed} free, {self.typed} drawn" if self.free else "")

    def _sent(self) -> str:
        sent = self.sent
        device = (sent.tool or sent.device) if sent is not None else ""
        went = trace_words(self.trace) if self.trace is not None else ""
        got = (self.typed or "").replace(" deg", "°")
        return f"{got}, sent by {device}" + (f", {went}" if went else "")

    def _pulled(self) -> str:
        assert self.gets is not None, "a bolt that clicked got something"
        angle = self.gets.unit == "deg"
        got = exact(self.gets, "angle" if angle else "torque", "gets")
        figure = decimal_text(float(got), 0 if angle else 1) + ("°" if angle else " N·m")
        if self.added is not None:
            more = decimal_text(float(exact(self.added, "angle", "added")))
            return f"turned {more}° more, {figure} in all"
        if self.set_to is None:
            return f"turned {figure}"
        return f"wrench {self.set_to.value}, bolt {figure.removesuffix(' N·m')}"

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        return lift_adapter(body)
