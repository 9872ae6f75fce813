"""A torque wrench with an angle sensor, and the bolt that it is on.

The bolt runs down free, gets snug, and climbs straight; pulled on from a torque that it has, it
holds until it breaks loose a little above it. What is wrong with it is told beside the pull: it
yields at so many degrees, bottoms, is crossed, slips and grips, or strips.
"""

import math
from dataclasses import dataclass

from hollet.core.errors import Refused
from hollet.devices.protocol import Begins, Ends, Hello, Samples
from hollet.devices.standins.base import Standin, figure_of

__all__ = ["Bolt", "Wrench"]

RATE = 1000
BATCH = 20
TURNS_DEG_S = 45.0
FREE_NM, FREE_DEG = 1.5, 40.0
CLIMB = 0.75
"""N·m by degree of a bolt that holds on."""
FLEX = 0.03
"""Degrees by N·m that the wrench itself gives before the bolt moves."""
LOOSE_SHARE, LOOSE_DEG = 0.03, 1.2
NOISE_NM, NOISE_DEG = 0.25, 0.03
FAULTS = ("yields", "strips", "bottoms", "crossed", "grips")


@dataclass(frozen=True, slots=True)
class Bolt:
    """What is pulled on: the torque that it has, how it climbs, and what goes wrong from where."""

    has: float = 0.0
    climb: float = CLIMB
    fault: str = ""
    at: float = 0.0

    def torque(self, turned: float) -> float:
        """N·m once it has turned so far from where it moves, or from where it is snug."""
        before = self.has + self.climb * min(turned, self.at if self.fault else turned)
        on = max(0.0, turned - self.at)
        if self.fault == "grips":
            return self.has + self.climb * turned + 0.12 * self.has * math.sin(turned * 1.4)
        return (
            before
            + {
                "": 0.0,
                "yields": 0.2 * self.climb * on,
                "strips": -0.6 * self.climb * on,
                "bottoms": 3.0 * self.climb * on,
                "crossed": self.climb * on,
            }[self.fault]
        )


class Wrench(Standin):
    """`pull 50`, `pull 50 from 25`, `turn 90 from 80`, with a fault behind: `yields 63`."""

    commands = (
        "pull N·m [from N·m], turn DEG from N·m; then yields|strips|bottoms DEG, crossed or grips; "
        + Standin.commands
    )

    def __init__(
        self, device: str, seed: int, name: str = "Stand-in wrench", unit: str = "N·m"
    ) -> None:
        hello = Hello(
            say="hello",
            hollet=1,
            id=device,
            name=name,
            measures="torque",
            unit=unit,
            lo="5",
            hi="200",
            resolution="0.1",
            traces=True,
        )
        super().__init__(hello, seed)
        self._left: list[tuple[float, float]] = []
        self._count = 0
        self._peak = 0.0

    def busy(self) -> bool:
        return bool(self._left) or super().busy()

    def own(self, word: str, rest: list[str]) -> bool:
        if word not in ("pull", "turn"):
            return False
        figure, rest = float(rest[0]), rest[1:]
        has = 0.0
        if rest[:1] == ["from"]:
            has, rest = float(rest[1]), rest[2:]
        fault = rest[0] if rest else ""
        if fault and fault not in FAULTS:
            raise Refused("bad_command", f"'{fault}': {', '.join(FAULTS)}", field="do")
        bolt = Bolt(has, CLIMB, fault, float(rest[1]) if len(rest) > 1 else 0.0)
        self._left = self.samples(bolt, turn=figure) if word == "turn" else self._to(bolt, figure)
        self._count, self._peak = 0, 0.0
        self.say(Begins(say="begins", rate=RATE, unit=self.hello.unit))
        return True

    def _to(self, bolt: Bolt, torque: float) -> list[tuple[float, float]]:
        """Samples up to the torque at which the hand stops."""
        found = self.samples(bolt, turn=max(20.0, (torque - bolt.has) / bolt.climb + 15))
        end = next((k for k, (_, t) in enumerate(found) if t >= torque), len(found) - 1)
        return found[: end + 1]

    def samples(self, bolt: Bolt, *, turn: float) -> list[tuple[float, float]]:
        """Angle and torque at each thousandth of a second."""
        step, found, angle = TURNS_DEG_S / RATE, [], 0.0
        if not bolt.has:
            free = 220.0 if bolt.fault == "crossed" else FREE_DEG
            drag = 9.0 if bolt.fault == "crossed" else FREE_NM
            while angle < free:
                found.append((angle, drag))
                angle += step * 4
        wind = bolt.has * (1 + LOOSE_SHARE)
        for k in range(int(wind)):
            found.append((angle + FLEX * k, float(k)))
        angle, turned = angle + FLEX * wind, 0.0
        while turned <= turn:
            loose = wind - bolt.has
            over = loose * math.exp(-turned / LOOSE_DEG)
            found.append((angle + turned, bolt.torque(turned) + over))
            turned += step
        return [
            (a + self.noise.gauss(0, NOISE_DEG), t + self.noise.gauss(0, NOISE_NM))
            for a, t in found
        ]

    def live(self, seconds: float) -> None:
        if not self._left:
            return
        due, self._left = self._split(round(seconds * RATE))
        for k in range(0, len(due), BATCH):
            part = due[k : k + BATCH]
            self.say(
                Samples(
                    say="samples",
                    n=self._count,
                    torque=tuple(round(t, 2) for _, t in part),
                    angle=tuple(round(a, 2) for a, _ in part),
                )
            )
            self._count += len(part)
            self._peak = max(self._peak, *(t for _, t in part))
            self._end = part[-1][0]
        self.shows = f"{figure_of(self._peak, 1)} {self.hello.unit}"
        if not self._left:
            self.say(
                Ends(
                    say="ends",
                    value=figure_of(self._peak, 1),
                    unit=self.hello.unit,
                    angle=figure_of(self._end, 1),
                )
            )

    def _split(self, count: int) -> tuple[list[tuple[float, float]], list[tuple[float, float]]]:
        return self._left[:count], self._left[count:]
