"""Gauges of one figure: dial indicator, micrometer, bore gauge, level, scale, timing light,
ohmmeter, and the gauges of a first start.
"""

from typing import NamedTuple

from hollet.devices.protocol import Hello, Read, Zeroed
from hollet.devices.standins.base import Standin, figure_of

__all__ = ["GAUGES", "Gauge"]


class Kind(NamedTuple):
    """What a gauge measures: unit, range, resolution, how far it scatters, whether it is zeroed."""

    name: str
    measures: str
    unit: str
    lo: str
    hi: str
    resolution: str
    scatter: float
    zeroes: bool = False


GAUGES = {
    "dial": Kind("Stand-in dial indicator", "length", "mm", "-10", "10", "0.001", 0.0005, True),
    "micrometer": Kind("Stand-in micrometer", "length", "mm", "0", "150", "0.001", 0.0008),
    "bore": Kind("Stand-in bore gauge", "length", "mm", "-1", "1", "0.001", 0.001, True),
    "timing": Kind("Stand-in timing light", "angle", "deg", "-60", "60", "0.1", 0.2),
    "oil": Kind("Stand-in oil gauge", "pressure", "bar", "0", "10", "0.1", 0.05),
    "coolant": Kind("Stand-in coolant gauge", "temperature", "°C", "-40", "150", "1", 0.3),
    "exhaust": Kind("Stand-in exhaust gauge", "temperature", "°C", "0", "1100", "1", 2.0),
    "revs": Kind("Stand-in rev counter", "speed", "rpm", "0", "9000", "10", 8.0),
    "ohm": Kind("Stand-in low-ohm meter", "resistance", "mΩ", "0", "2000", "0.1", 0.05),
    "level": Kind("Stand-in level", "angle", "deg", "-90", "90", "0.1", 0.05),
    "scale": Kind("Stand-in scale", "mass", "g", "0", "5000", "0.1", 0.05),
}


class Gauge(Standin):
    """`set 71.984`, `press`, `zero`, `offset 0.02`, `drift 0.001`: it shows what is set, scattered,
    shifted by its offset and by what it drifts in a minute.
    """

    commands = "set V, press, hold V, zero, offset V, drift V; " + Standin.commands

    def __init__(self, kind: str, device: str, seed: int) -> None:
        of = GAUGES[kind]
        self.places = len(of.resolution.partition(".")[2])
        self.scatter = of.scatter
        self.true = self.offset = self.drift = self.datum = self._age = 0.0
        self._settles = 0.0
        hello = Hello.model_validate(
            {
                "say": "hello",
                "hollet": 1,
                "id": device,
                "name": of.name,
                "measures": of.measures,
                "unit": of.unit,
                "lo": of.lo,
                "hi": of.hi,
                "resolution": of.resolution,
                "zeroes": of.zeroes,
            }
        )
        super().__init__(hello, seed)

    def live(self, seconds: float) -> None:
        self._age += seconds
        self._settles = max(0.0, self._settles - seconds)

    def beat(self) -> None:
        self._read(pressed=False)

    def own(self, word: str, rest: list[str]) -> bool:
        if word in ("set", "hold"):
            self.true = float(rest[0])
            self._settles = 0.3
            if word == "hold":  # at rest already, and its button is pressed
                self._settles = 0.0
                self._read(pressed=True)
        elif word == "press":
            self._read(pressed=True)
        elif word == "zero":
            self.datum = self._shown()
            self.say(Zeroed(say="zeroed"))
        elif word == "offset":
            self.offset = float(rest[0])
        elif word == "drift":
            self.drift = float(rest[0])
        else:
            return False
        return True

    def busy(self) -> bool:
        return self._settles > 0 or super().busy()

    def _shown(self) -> float:
        drifted = self.drift * self._age / 60
        return self.true + self.offset + drifted + self.noise.gauss(0, self.scatter)

    def _read(self, *, pressed: bool) -> None:
        value = figure_of(self._shown() - self.datum, self.places)
        self.shows = f"{value} {self.hello.unit}"
        self.say(
            Read(
                say="read",
                value=value,
                unit=self.hello.unit,
                stable=self._settles <= 0,
                pressed=pressed,
            )
        )
