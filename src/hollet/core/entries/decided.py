"""A choice with its reason."""

from collections.abc import Callable
from typing import Any, ClassVar, Literal

from hollet.core.entries.base import Key, Reason, Seconds, StepBody
from hollet.core.entries.bolts import Adapter, lift_adapter
from hollet.core.instruments import Instrument

__all__ = ["Decision"]


class Decision(StepBody):
    """A choice with its reason: the wrench for a joint, a bolt passed over, one dry run, a last
    chance or a capture let go, a fluid left out.
    """

    called: ClassVar = "decision"
    version: ClassVar = 2

    about: Literal["wrench", "pass_over", "dry_run", "last_chance", "capture", "empty"]
    joint: str | None = None
    thing: str | None = None
    done_here: bool = False
    bolt: int | None = None
    stage: int | None = None
    wrench: Instrument | None = None
    adapter: Adapter | None = None
    seconds: Seconds | None = None
    reason: Reason | None = None

    def subject(self) -> Key:
        return Key("joint", f"{self.joint}" if self.joint else f"step:{self.step}")

    def line(self, title: str) -> str:
        why = f": {self.reason}" if self.reason else ""
        if self.done_here:
            return f"seen before it closes: {self.thing}"
        told: dict[str, Callable[[], str]] = {
            "wrench": self._wrench,
            "last_chance": lambda: f"last chance let go, {self.thing}",
            "capture": lambda: "gone on without keeping it as found",
            "dry_run": lambda: f"one run of {self.seconds:g} s without coolant decided",
            "empty": lambda: f"left empty, {self.thing}",
            "pass_over": lambda: f"bolt {self.bolt} passed over at stage {self.stage}",
        }
        return told[self.about]() + why

    def _wrench(self) -> str:
        code = self.wrench.code if self.wrench is not None else "?"
        if self.adapter is None:
            return f"wrench {code}"
        length, angle = self.adapter.length, self.adapter.angle
        return f"wrench {code} with an adapter of {length.value} {length.unit} at {angle.value}°"

    @classmethod
    def lift(cls, version: int, body: dict[str, Any]) -> dict[str, Any]:
        return lift_adapter(body)
