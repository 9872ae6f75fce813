"""Who may open this Hollet: this machine always; over the workshop network only when it was opened
to it, and only paired devices. And what each answer tells the browser to refuse.
"""

import ipaddress
import re
import time
from collections import OrderedDict
from collections.abc import Callable
from http.cookies import CookieError, SimpleCookie

from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from hollet.web.problems import answer

__all__ = ["COOKIE", "TOKEN", "Access", "Bucket", "Gatekeeper"]

COOKIE = "hollet_device"
TOKEN = "hollet.token"
"""Where the scope of a request keeps the token of its device; absent on this machine."""
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})
PLACE = re.compile(r"(\[::1\]|[0-9A-Za-z.-]{1,253})(?::([0-9]{1,5}))?")
MAX_BODY = 60_000_000
MOST = {"/api/photos": 26_000_000, "/api/archives": 310_000_000, "/api/pair": 1_000}
OPEN_TO_ALL = ("/api/pair",)
LOCAL_ONLY = ("/api/devices",)
GUARDED = ("/api/", "/ws/", "/openapi")
SCHEMES = {"http": "http", "https": "https", "ws": "http", "wss": "https"}
POLICY = (
    "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
    "font-src 'self' data:; img-src 'self' data: blob:; media-src 'self' blob:; "
    "connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; "
    "frame-ancestors 'none'"
)
HEADERS = (
    (b"content-security-policy", POLICY.encode()),
    (b"x-frame-options", b"DENY"),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
)


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
    """Over which addresses (host:port) Hollet may be opened besides this machine's own, and how a
    device is known.
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
        if scope["type"] not in ("http", "websocket"):
            await self.app(scope, receive, send)
            return
        refusal = self._refusal(scope)
        if refusal is not None and scope["type"] == "websocket":
            await send({"type": "websocket.close", "code": 1008, "reason": refusal[1]})
            return
        guarded = _with_headers(send)
        if refusal is not None:
            await answer(*refusal)(scope, receive, guarded)
            return
        await self.app(scope, _counted(scope, receive), guarded)

    def _refusal(self, scope: Scope) -> tuple[int, str, str] | None:
        headers = dict(scope["headers"])
        place = headers.get(b"host", b"").decode("latin-1")
        origin = headers.get(b"origin", b"").decode("latin-1")
        peer, path = (scope.get("client") or ("", 0))[0], scope["path"]
        local = _names_this_machine(place, scope) and _this_machine(peer)
        if not local and place not in self.access.addresses:
            return (
                403,
                "foreign_host",
                "Hollet answers only to its own address, 127.0.0.1 on this machine",
            )
        if origin and origin != f"{SCHEMES[scope['scheme']]}://{place}":
            return 403, "foreign_host", "this page was not opened from Hollet's own address"
        length, most = headers.get(b"content-length", b"0"), _most(path)
        if length.isdigit() and int(length) > most:
            return 413, "too_large", _too_large(most)
        return None if local else self._device(scope, headers, peer, path)

    def _device(
        self, scope: Scope, headers: dict[bytes, bytes], peer: str, path: str
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
        if not path.startswith(GUARDED) or path in OPEN_TO_ALL:
            return None
        token = _token(headers)
        if not self.access.known(token):
            return (
                401,
                "not_paired",
                "this device is not paired: on the workshop's computer open Phones and scan the "
                "code",
            )
        scope[TOKEN] = token
        return None


def _with_headers(send: Send) -> Send:
    """Tell the browser with every answer what it must not do with it."""

    async def guarded(message: Message) -> None:
        if message["type"] == "http.response.start":
            own = {name for name, _ in HEADERS}
            kept = [(name, value) for name, value in message["headers"] if name not in own]
            message = {**message, "headers": [*kept, *HEADERS]}
        await send(message)

    return guarded


def _counted(scope: Scope, receive: Receive) -> Receive:
    """Count the bytes of a body as they come, whatever was said of its length."""
    most, had = _most(scope["path"]), 0

    async def counting() -> Message:
        nonlocal had
        message = await receive()
        had += len(message.get("body", b"")) if message["type"] == "http.request" else 0
        if had > most:
            raise HTTPException(413, _too_large(most))
        return message

    return counting


def _most(path: str) -> int:
    return MOST.get(path, MAX_BODY)


def _too_large(most: int) -> str:
    size = f"{most // 1_000_000} MB" if most >= 1_000_000 else f"{most // 1000} kB"
    return f"what was sent is larger than {size}"


def _names_this_machine(place: str, scope: Scope) -> bool:
    """Whether the host header names this machine, and the port at which it was reached."""
    named = PLACE.fullmatch(place)
    if named is None or named[1] not in LOCAL_HOSTS:
        return False
    server = scope.get("server") or ("", None)
    return server[1] is None or int(named[2] or 80) == server[1]


def _this_machine(peer: str) -> bool:
    try:
        return ipaddress.ip_address(peer).is_loopback
    except ValueError:
        return False


def _token(headers: dict[bytes, bytes]) -> str:
    try:
        cookie = SimpleCookie(headers.get(b"cookie", b"").decode("latin-1"))
    except CookieError:
        return ""
    return cookie[COOKIE].value if COOKIE in cookie else ""
