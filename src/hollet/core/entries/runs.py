"""Attempts at a rung: begun, sampled, ended."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from hollet.core.entries.base import Body, Key, Reason, Seconds, Short, StepBody, measured_once
from hollet.core.faults import Rhythm
from hollet.core.procedure.words import Rung
from hollet.core.quantities.quantity import Measured
from hollet.core.run_sheet import NAMES, About

__all__ = ["AttemptEnded", "AttemptStarted", "RunSample", "RunTold", "Samples"]


class AttemptStarted(StepBody):
    """One try on the ladder begins."""

    called: ClassVar = "attempt started"

    attempt: str
    rung: Rung
    number: int = 1
    isolated: tuple[Short, ...] = ()
    expected: str = ""
    limit_s: Seconds
    gate: Literal["shut", "limited", "nothing left open"] = "nothing left open"
    gate_reasons: tuple[str, ...] = ()
    reason: Reason | None = None

    def subject(self) -> Key:
        return Key("run", self.attempt)

    def line(self, title: str) -> str:
        shut = f", gate shut: {self.reason}" if self.gate == "shut" else ""
        return f"attempt {self.number}, {title}{shut}"


class RunSample(Body):
    """One moment of an attempt; `t` in s since its start; what nobody entered is absent.

    `asked`: the question that a figure raised and nobody answered. `sent`: the gauges that said so
    themselves, by their codes.
    """

    t: Annotated[Seconds, Field(ge=0, le=86400)]
    rpm: Measured | None = None
    oil: Measured | None = None
    coolant: Measured | None = None
    timing: Measured | None = None
    timing_state: Annotated[str, Field(max_length=40)] | None = None
    lamp_out: bool = False
    seen: Literal["leak", "fuel leak", "noise", "smoke", "glow", "fire"] | None = None
    asked: Annotated[str, Field(max_length=400)] | None = None
    sent: Annotated[tuple[Short, ...], Field(max_length=8)] = ()

    def words(self) -> str:
        """What one moment says, each figure with its unit."""
        figures = (self.rpm, self.oil, self.coolant, self.timing)
        said = [f"{f.value} {f.unit}" for f in figures if f is not None]
        said += ([self.seen] if self.seen else []) + (["lamp out"] if self.lamp_out else [])
        asked = f" (asked: {self.asked})" if self.asked else ""
        sent = f", sent by {', '.join(self.sent)}" if self.sent else ""
        return f"{self.t:.0f} s {', '.join(said)}{sent}{asked}"


OLD_SAMPLE = {
    "rpm": ("rpm", "rpm"),
    "oil_kpa": ("oil", "kPa"),
    "coolant_c": ("coolant", "°C"),
    "timing_deg": ("timing", "deg"),
}


class Samples(StepBody):
    """Samples of an attempt, many in one."""

    called: ClassVar = "samples"
    version: ClassVar = 2
    never_late: ClassVar = True

    attempt: str
    samples: Annotated[tuple[RunSample, ...], Field(min_length=1, max_length=3600)]

    def subject(self) -> Key:
        return Key("run", self.attempt)

    def line(self, title: str) -> str:
        return "; ".join(sample.words() for sample in self.samples[:4])

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        """Figures of a moment with their units; the one text of all told no figure by itself."""
        return {**body, "samples": [_lift_sample(old) for old in body["samples"]]}


def _lift_sample(old: dict[str, Any]) -> dict[str, Any]:
    kept = {key: value for key, value in old.items() if key not in OLD_SAMPLE and key != "typed"}
    figures = {name: measured_once(old.get(key), unit) for key, (name, unit) in OLD_SAMPLE.items()}
    return kept | {name: figure for name, figure in figures.items() if figure is not None}


class AttemptEnded(StepBody):
    """The key is off: after how long, why, and whether the rung was passed."""

    called: ClassVar = "attempt ended"
    never_late: ClassVar = True

    attempt: str
    after_s: Annotated[Seconds, Field(ge=0, le=86400)]
    reason: Reason
    passed: bool = False
    cause: str | None = None
    change: str | None = None

    def subject(self) -> Key:
        return Key("run", self.attempt)

    def line(self, title: str) -> str:
        passed = ", passed" if self.passed else ""
        cause = f". Cause: {self.cause}; changed: {self.change}" if self.cause else ""
        return f"key off after {self.after_s:.1f} s, {self.reason}{passed}{cause}"


class RunTold(StepBody):
    """One row of the run sheet: what somebody saw or heard, at which second (None: after the key
    was off), what it usually comes from, and whether that stops it.
    """

    called: ClassVar = "run told"
    never_late: ClassVar = True

    attempt: str
    about: About
    word: Short
    t: Annotated[Seconds, Field(ge=0, le=86400)] | None = None
    rhythm: Rhythm | None = None
    place: Annotated[str, Field(max_length=60)] = ""
    leads: Annotated[tuple[str, ...], Field(max_length=40)] = ()
    stops: bool = False

    def subject(self) -> Key:
        return Key("run", self.attempt)

    def words(self) -> str:
        """What was told, in words."""
        where = ", ".join(text for text in (self.rhythm or "", self.place) if text)
        return f"{self.word}: {where}" if where else self.word

    def line(self, title: str) -> str:
        at = f"{self.t:.0f} s " if self.t is not None else ""
        return f"{at}{NAMES[self.about].lower()}: {self.words()}" + (", stop" if self.stops else "")
