"""`hollet device`: a stand-in for an instrument, as a process of its own."""

import sys
import threading
import time
from collections import deque
from collections.abc import Callable
from pathlib import Path
from typing import Annotated

import typer

from hollet.core.errors import HolletError, Unavailable
from hollet.devices.standins.base import Standin
from hollet.devices.standins.gauge import GAUGES, Gauge
from hollet.devices.standins.link import Link, open_link
from hollet.devices.standins.page import serve_page
from hollet.devices.standins.wrench import Wrench

__all__ = ["device", "made", "run_script"]

TICK_S = 0.02
KEYS = (
    "pull 25",
    "pull 50 from 25",
    "pull 80 from 50",
    "turn 90 from 80",
    "turn 90 from 80 yields 63",
)
GAUGE_KEYS = ("press", "zero")


def made(kind: str, device: str, seed: int) -> Standin:
    """The stand-in of a kind."""
    return Wrench(device, seed) if kind == "wrench" else Gauge(kind, device, seed)


def run_script(
    standin: Standin,
    link: Link,
    commands: deque[str],
    ended: Callable[[], bool],
    sleep: Callable[[float], None] = time.sleep,
) -> None:
    """Let a stand-in live: it does one command after the other, and says what it has to say, until
    it is off or `ended`.
    """
    wait = 0.0
    while standin.on and not ended():
        if commands and not standin.busy() and wait <= 0:
            command = commands.popleft()
            if command.startswith("wait "):
                wait = float(command.split()[1])
            elif command.strip():
                standin.do(command)
        link.send(standin.tick(TICK_S))
        wait -= TICK_S
        sleep(TICK_S)
    link.send(standin.tick(0))


def device(
    kind: Annotated[str, typer.Argument(help=f"wrench, {', '.join(GAUGES)}")],
    to: Annotated[str, typer.Option(help="ws://, tcp://, a serial line, or pty.")] = (
        "ws://127.0.0.1:8765"
    ),
    device_id: Annotated[str, typer.Option("--id", help="By which id it speaks.")] = "",
    seed: Annotated[int, typer.Option(help="Makes its noise the same each time.")] = 1,
    script: Annotated[
        Path | None, typer.Option(help="A file of commands, one a line; else they are typed.")
    ] = None,
    page: Annotated[
        int | None, typer.Option(help="Serve a page with its dial and keys here.")
    ] = None,
) -> None:
    """A stand-in for an instrument: torque wrench, gauge, light, meter or scale."""
    if kind != "wrench" and kind not in GAUGES:
        typer.echo(f"'{kind}' is none of: wrench, {', '.join(GAUGES)}", err=True)
        raise typer.Exit(1)
    standin = made(kind, device_id or f"{kind}-1", seed)
    commands: deque[str] = deque(script.read_text("utf-8").splitlines() if script else ())
    done = threading.Event()

    def about() -> dict[str, str]:
        names = {"name": standin.hello.name, "id": standin.hello.id}
        return {**names, "commands": standin.commands, "shows": standin.shows}

    server = (
        serve_page(page, about, standin.do, KEYS if kind == "wrench" else GAUGE_KEYS)
        if page
        else None
    )
    try:
        link = open_link(to)
        typer.echo(f"{standin.hello.id} speaks to {link.name}. Commands: {standin.commands}")
        if script is None and page is None:
            _typed(commands, done)
        run_script(
            standin,
            link,
            commands,
            lambda: done.is_set() or bool(script and _rests(standin, commands)),
        )
        link.close()
    except (Unavailable, HolletError) as error:
        typer.echo(error.message, err=True)
        raise typer.Exit(1) from error
    finally:
        if server is not None:
            server.shutdown()


def _rests(standin: Standin, commands: deque[str]) -> bool:
    """Whether a script is at its end."""
    return not commands and not standin.busy()


def _typed(commands: deque[str], done: threading.Event) -> None:
    """Take commands from the terminal, until it is closed."""

    def read() -> None:
        for line in sys.stdin:
            commands.append(line)
        done.set()

    threading.Thread(target=read, daemon=True).start()
