"""What all stand-ins share: who they are, their heartbeat, their faults, and how they are told what
to do. A stand-in is a pure machine in time: `tick` gives the bytes that go out.
"""

import random
from abc import ABC, abstractmethod
from collections.abc import Iterator

from hollet.core.errors import Refused
from hollet.devices.protocol import Begins, Bye, Ends, Hello, Here, Read, Samples, Zeroed, encode

__all__ = ["HEARTBEAT_S", "Standin", "figure_of"]

HEARTBEAT_S = 0.4
HELLO_S = 2.0
"""Whoever plugs in a serial line later hears who it is."""
AnySaid = Hello | Here | Read | Begins | Samples | Ends | Zeroed | Bye


def figure_of(value: float, places: int) -> str:
    """A figure as the line carries it."""
    text = f"{value:.{places}f}"
    return text.removeprefix("-") if float(text) == 0 else text


class Standin(ABC):
    """One small device. `seed` makes its noise and its faults the same each time."""

    commands = "battery N, silent S, garbage N, unit U, off"

    def __init__(self, hello: Hello, seed: int) -> None:
        self.hello = hello
        self.noise = random.Random(seed)
        self.battery = 71
        self.shows = "on"
        self.on = True
        self._now = 0.0
        self._next_beat = 0.0
        self._next_hello = HELLO_S
        self._silent_until = 0.0
        self._out: list[bytes] = [encode(hello)]

    def tick(self, seconds: float) -> bytes:
        """Let time pass, and return what is said meanwhile; a silent one says nothing."""
        self._now += seconds
        if self.on:
            self.live(seconds)
            if self._now >= self._next_beat:
                self._next_beat = self._now + HEARTBEAT_S
                self.say(Here(say="here", battery=self.battery))
                self.beat()
            if self._now >= self._next_hello:
                self._next_hello = self._now + HELLO_S
                self.say(self.hello)
        out, self._out = b"".join(self._out), []
        return b"" if self._now < self._silent_until else out

    def say(self, line: AnySaid) -> None:
        """Put a line out."""
        self._out.append(encode(line))

    @abstractmethod
    def live(self, seconds: float) -> None:
        """What it does by itself as time passes."""

    @abstractmethod
    def own(self, word: str, rest: list[str]) -> bool:
        """Do what only this kind knows; False where it does not know the word."""

    def beat(self) -> None:  # noqa: B027
        """What it says with each heartbeat; most say nothing more."""

    def busy(self) -> bool:
        """Whether it is in the middle of something that a script waits for."""
        return self._now < self._silent_until

    def do(self, command: str) -> None:
        """Carry out a command, such as `pull 50` or `silent 5`.

        Raises
        ------
        Refused
            `bad_command`: an unknown word, or a figure that cannot be read.
        """
        word, *rest = command.split() or [""]
        try:
            known = self._shared(word, rest) or self.own(word, rest)
        except (ValueError, IndexError) as error:
            raise Refused("bad_command", f"'{command}': {self.commands}", field="do") from error
        if not known:
            raise Refused("bad_command", f"'{command}': {self.commands}", field="do")

    def _shared(self, word: str, rest: list[str]) -> bool:
        if word == "battery":
            self.battery = max(0, min(100, int(rest[0])))
            self.say(Here(say="here", battery=self.battery))
        elif word == "silent":
            self._silent_until = self._now + float(rest[0])
        elif word == "garbage":
            self._out.extend(self._damaged(int(rest[0])))
        elif word == "unit":
            self.hello = self.hello.model_copy(update={"unit": rest[0]})
            self.say(self.hello)
        elif word == "off":
            self.say(Bye(say="bye"))
            self.on = False
        else:
            return False
        return True

    def _damaged(self, count: int) -> Iterator[bytes]:
        """Lines as a bad cable makes them."""
        for _ in range(count):
            size = self.noise.randint(1, 60)
            yield (
                bytes(self.noise.choice(b'{}",:0123456789abcdef\xff') for _ in range(size)) + b"\n"
            )
