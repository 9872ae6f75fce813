"""Who may open this Hollet: this machine always; over the workshop network only when it was opened
to it, and only paired devices.
"""

import ipaddress
import time
from collections import OrderedDict
from collections.abc import Callable
from http.cookies import CookieError, SimpleCookie

from starlette.types import ASGIApp, Receive, Scope, Send

from hollet.web.problems import answer

__all__ = ["COOKIE", "Access", "Bucket", "Gatekeeper"]

COOKIE = "hollet_device"
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]", "testserver"})
MAX_BODY = 60_000_000
MOST = {"/api/photos": 26_000_000, "/api/archives": 310_000_000}
OPEN_TO_ALL = ("/api/pair",)
LOCAL_ONLY = ("/api/devices",)


class Bucket:
    """At most `burst` requests at once and `rate` a second from each address; the oldest addresses
    are forgotten.
    """

    def __init__(
        self, rate: float, burst: float, clock: Callable[[], float] = time.monotonic
    ) -> None:
        self.rate, self.burst, self.clock = rate, burst, clock
        self._left: OrderedDict[str, tuple[float, float]] = OrderedDict()

    def take(self, peer: str) -> bool:
        """Whether one more request is let in."""
        now = self.clock()
        left, last = self._left.pop(peer, (self.burst, now))
        left = min(self.burst, left + (now - last) * self.rate)
        self._left[peer] = (left - 1 if left >= 1 else left, now)
        while len(self._left) > 500:
            self._left.popitem(last=False)
        return left >= 1


class Access:
    """Over which addresses Hollet may be opened besides this machine's own, and how a device is
    known.
    """

    def __init__(
        self,
        addresses: frozenset[str] = frozenset(),
        known: Callable[[str], bool] = lambda token: False,
    ) -> None:
        self.addresses, self.known = addresses, known
        self.requests, self.pairing = Bucket(30, 300), Bucket(1 / 6, 10)


class Gatekeeper:
    """Refuses other hosts (DNS rebinding), bodies that are too large, devices that are not paired,
    and floods.
    """

    def __init__(self, app: ASGIApp, access: Access) -> None:
        self.app, self.access = app, access

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] in ("http", "websocket"):
            refusal = self._refusal(scope)
            if refusal is not None and scope["type"] == "websocket":
                await send({"type": "websocket.close", "code": 1008, "reason": refusal[1]})
                return
            if refusal is not None:
                await answer(*refusal)(scope, receive, send)
                return
        await self.app(scope, receive, send)

    def _refusal(self, scope: Scope) -> tuple[int, str, str] | None:
        headers = dict(scope["headers"])
        place = headers.get(b"host", b"").decode("latin-1")
        host, origin = (
            place.rsplit(":", 1)[0],
            headers.get(b"origin", b"").decode("latin-1").split("//")[-1],
        )
        peer, path = (scope.get("client") or ("", 0))[0], scope["path"]
        local = host in LOCAL_HOSTS and _this_machine(peer)
        if not local and host not in self.access.addresses:
            return (
                403,
                "foreign_host",
                "Hollet answers only to its own address, 127.0.0.1 on this machine",
            )
        if origin and origin != place:
            return 403, "foreign_host", "this page was not opened from Hollet's own address"
        length = headers.get(b"content-length", b"0")
        most = MOST.get(path, MAX_BODY)
        if length.isdigit() and int(length) > most:
            return 413, "too_large", f"what was sent is larger than {most // 1_000_000} MB"
        return None if local else self._device(headers, peer, path)

    def _device(
        self, headers: dict[bytes, bytes], peer: str, path: str
    ) -> tuple[int, str, str] | None:
        if not self.access.requests.take(peer) or (
            path in OPEN_TO_ALL and not self.access.pairing.take(peer)
        ):
            return 429, "too_many", "too many requests from this device: wait a minute"
        if path.startswith(LOCAL_ONLY):
            return (
                403,
                "this_machine_only",
                "devices are paired and revoked on the workshop's computer",
            )
        if not path.startswith(("/api/", "/ws/")) or path in OPEN_TO_ALL:
            return None
        if not self.access.known(_token(headers)):
            return (
                401,
                "not_paired",
                (
                    "this device is not paired: on the workshop's computer open Phones and scan "
                    "the "
                    "code"
                ),
            )
        return None


def _this_machine(peer: str) -> bool:
    try:
        return ipaddress.ip_address(peer).is_loopback
    except ValueError:
        return peer == "testclient"


def _token(headers: dict[bytes, bytes]) -> str:
    try:
        cookie = SimpleCookie(headers.get(b"cookie", b"").decode("latin-1"))
    except CookieError:
        return ""
    return cookie[COOKIE].value if COOKIE in cookie else ""
