"""The doors of the instruments: one that they speak through, and one at which screens listen.

A device comes over a WebSocket, over TCP or over a serial line; each hands its lines to the same
feed. Whatever does not say hello in its first line is cut off: no web page can pass for a device.
"""

import asyncio
import contextlib
import ipaddress
import logging
import threading
from collections.abc import Callable

from fastapi import FastAPI, WebSocket, WebSocketDisconnect
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from hollet.devices.feed import Feed, Spot
from hollet.devices.protocol import LONGEST
from hollet.services.feed import heard, look, watch
from hollet.services.workshop import Workshop
from hollet.web.access import TOKEN, Access

__all__ = ["listen_serial", "listen_tcp", "open_doors"]

EVERY_S = 0.1
AT_LEAST_S = 0.5
"""How often a screen is told of what changed, and that nothing did: so it sees silence."""


class SpotIn(BaseModel):
    """Where a screen waits, and for which tool."""

    model_config = ConfigDict(extra="forbid")
    build: str = Field(max_length=64)
    step: str = Field(max_length=80)
    about: str = Field(max_length=80)
    tool: str = Field(max_length=64)


def open_doors(app: FastAPI, workshop: Workshop, feed: Feed, access: Access) -> None:
    """The two WebSockets."""

    @app.websocket("/ws/device")
    async def device(socket: WebSocket) -> None:
        """An instrument speaks: one line a message."""
        await socket.accept()
        peer = socket.client.host if socket.client else ""
        key = feed.open(local=_local(peer))
        try:
            while True:
                message = await socket.receive()
                if message["type"] == "websocket.disconnect":
                    break
                raw = message.get("bytes") or (message.get("text") or "").encode()
                for line in raw.splitlines():
                    refused = await asyncio.to_thread(heard, feed, key, line)
                    if refused is not None:
                        await socket.close(1008, refused[:120])
                        return
        finally:
            feed.close(key)

    @app.websocket("/ws/feed")
    async def listen(socket: WebSocket) -> None:
        """A screen listens: it says where it waits, and is told what is heard."""
        token = socket.scope.get(TOKEN)
        await socket.accept()
        ear = _Ear(feed, f"{id(socket):x}")
        reader = asyncio.create_task(ear.follow(socket))
        seen, told = -1, 0.0
        try:
            while not reader.done():
                if token is not None and not access.known(token):
                    await socket.close(1008, "not_paired")
                    break
                now = feed.seconds()
                if feed.version != seen or now - told >= AT_LEAST_S or ear.moved:
                    seen, told, ear.moved = feed.version, now, False
                    view = await asyncio.to_thread(look, workshop, feed, ear.spot)
                    await socket.send_text(view.model_dump_json())
                await asyncio.wait({reader}, timeout=EVERY_S)
        except (WebSocketDisconnect, RuntimeError):
            reader.cancel()  # the screen went away while it was being told
        finally:
            watch(feed, ear.screen, None)


class _Ear:
    """One listening screen, and the spot at which it waits."""

    def __init__(self, feed: Feed, screen: str) -> None:
        self.feed, self.screen = feed, screen
        self.spot: Spot | None = None
        self.moved = False

    async def follow(self, socket: WebSocket) -> None:
        """Take in where it waits, until it goes or says what cannot be read."""
        with contextlib.suppress(WebSocketDisconnect, ValidationError):
            while True:
                text = await socket.receive_text()
                said = SpotIn.model_validate_json(text) if text.strip() else None
                self.spot = Spot(**said.model_dump()) if said is not None else None
                watch(self.feed, self.screen, self.spot)
                self.moved = True


def _local(peer: str) -> bool:
    try:
        return ipaddress.ip_address(peer).is_loopback
    except ValueError:
        return False


async def listen_tcp(feed: Feed, port: int, host: str) -> asyncio.Server:
    """Take devices in over TCP, each line ended by a line feed."""

    async def serve(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        peer = writer.get_extra_info("peername") or ("",)
        key = feed.open(local=_local(str(peer[0])))
        try:
            while line := await reader.readline():
                refused = await asyncio.to_thread(heard, feed, key, line.rstrip(b"\r\n"))
                if refused is not None:
                    writer.write(refused.encode() + b"\n")
                    break
        except (ValueError, ConnectionError) as error:
            logging.getLogger("uvicorn.error").info("a device was cut off: %s", error)
        finally:
            feed.close(key)
            writer.close()

    return await asyncio.start_server(serve, host, port, limit=LONGEST * 2)


def listen_serial(feed: Feed, path: str, ended: threading.Event) -> threading.Thread:
    """Listen at a serial line in a thread of its own, and again after it was unplugged."""
    import serial

    def run() -> None:
        while not ended.is_set():
            with contextlib.suppress(OSError), serial.Serial(path, 115_200, timeout=0.5) as port:
                _serial_lines(feed, port.read_until, ended)
            ended.wait(1.0)

    thread = threading.Thread(target=run, name=f"serial {path}", daemon=True)
    thread.start()
    return thread


def _serial_lines(
    feed: Feed, read_until: Callable[[bytes, int], bytes], ended: threading.Event
) -> None:
    """Hand on whole lines; a part of one waits for its rest."""
    key, rest = feed.open(local=True), b""
    try:
        while not ended.is_set():
            rest += read_until(b"\n", LONGEST + 1)
            if not rest.endswith(b"\n") and len(rest) <= LONGEST:
                continue
            refused = heard(feed, key, rest.rstrip(b"\r\n"))
            rest = b""
            if refused is not None:
                feed.close(key)
                key = feed.open(local=True)
    finally:
        feed.close(key)
