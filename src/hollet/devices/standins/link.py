"""The lines over which a stand-in speaks: WebSocket, TCP, a serial line, or a pseudo terminal that
passes for one.
"""

import os
import socket
import tty
from contextlib import ExitStack
from typing import Protocol

from hollet.core.errors import Refused, Unavailable

__all__ = ["Link", "open_link"]


class Link(Protocol):
    """Where lines go out."""

    name: str

    def send(self, data: bytes) -> None:
        """Send whole lines; raises `Unavailable` where the other end is gone."""
        ...

    def close(self) -> None:
        """Hang up."""
        ...


class TcpLink:
    """`tcp://host:port`."""

    def __init__(self, address: str) -> None:
        host, _, port = address.removeprefix("tcp://").rpartition(":")
        self.name = address
        self._socket = socket.create_connection((host or "127.0.0.1", int(port)), timeout=5)

    def send(self, data: bytes) -> None:
        try:
            self._socket.sendall(data)
        except OSError as error:
            raise Unavailable(f"{self.name} is gone") from error

    def close(self) -> None:
        self._socket.close()


class WebLink:
    """`ws://host:port`, at the door of the instruments."""

    def __init__(self, address: str) -> None:
        from websockets.sync.client import connect

        self.name = address.rstrip("/") + "/ws/device"
        self._open = ExitStack()
        self._socket = self._open.enter_context(connect(self.name, open_timeout=5))

    def send(self, data: bytes) -> None:
        from websockets.exceptions import ConnectionClosed

        try:
            for line in data.splitlines():
                self._socket.send(line)
        except ConnectionClosed as error:
            said = error.rcvd.reason if error.rcvd is not None else ""
            raise Unavailable(f"{self.name} hung up{f': {said}' if said else ''}") from error

    def close(self) -> None:
        self._open.close()


class FileLink:
    """A serial line by its path, or `pty`: a pseudo terminal, whose name is told."""

    def __init__(self, path: str) -> None:
        if path == "pty":
            self._file, other = os.openpty()
            tty.setraw(other)
            self.name = os.ttyname(other)
        else:
            self.name = path
            self._file = os.open(path, os.O_WRONLY | os.O_NOCTTY)

    def send(self, data: bytes) -> None:
        try:
            os.write(self._file, data)
        except OSError as error:
            raise Unavailable(f"{self.name} is gone") from error

    def close(self) -> None:
        os.close(self._file)


def open_link(address: str) -> Link:
    """The line to an address.

    Raises
    ------
    Unavailable
        Nobody answers there.
    Refused
        `bad_address`: neither ws://, tcp://, a path, nor pty.
    """
    try:
        if address.startswith("ws://"):
            return WebLink(address)
        if address.startswith("tcp://"):
            return TcpLink(address)
        if address == "pty" or address.startswith("/"):
            return FileLink(address)
    except (OSError, TimeoutError) as error:
        raise Unavailable(f"nobody answers at {address}: start Hollet first") from error
    raise Refused(
        "bad_address",
        f"'{address}': ws://127.0.0.1:8765, tcp://127.0.0.1:8766, a serial line such as "
        "/dev/ttyUSB0, or pty",
        field="to",
    )
