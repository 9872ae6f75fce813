"""Phones and tablets: paired with a code that this machine shows, known by a token, revocable at
any time.

The code is kept in memory only, lives ten minutes and dies with its first use. Wrong tries count
against the address they come from, and never against the code: a stranger cannot take it from the
owner. Of a token only the SHA-256 is stored.
"""

import hashlib
import secrets
import threading
from dataclasses import replace
from datetime import datetime, timedelta

from pydantic import BaseModel

from hollet.core.entries import DeviceEdited
from hollet.core.errors import NotFound, Refused
from hollet.services.workshop import SHOP, Workshop
from hollet.store.records import DeviceRecord

__all__ = [
    "DeviceView",
    "Paired",
    "Pairing",
    "PairingCode",
    "all_devices",
    "known_device",
    "revoke",
]

CODE_LIVES = timedelta(minutes=10)
MOST_TRIES = 5


class DeviceView(BaseModel):
    """One device."""

    id: str
    name: str
    made: str
    revoked: str | None


class PairingCode(BaseModel):
    """The code to type on the phone, until when it holds, and the address with the code in it as a
    QR drawing (SVG path).
    """

    code: str
    until: str
    url: str
    qr: str
    size: int


class Paired(BaseModel):
    """A device that was just paired; the token is told once."""

    device: DeviceView
    token: str


class Pairing:
    """The one pairing code of a running Hollet. Thread-safe."""

    def __init__(self, workshop: Workshop, address: str) -> None:
        self.workshop, self.address = workshop, address
        self._guard = threading.Lock()
        self._code: str | None = None
        self._until = datetime.min
        self._tries: dict[str, int] = {}

    def new_code(self) -> PairingCode:
        """A fresh code; the one before it is dead."""
        import segno

        with self._guard:
            self._code, self._tries = f"{secrets.randbelow(10**6):06d}", {}
            self._until = self.workshop.clock() + CODE_LIVES
            url = f"http://{self.address}/pair?code={self._code}"
            drawn = segno.make(url, error="m", boost_error=False)
            rows = [[bool(cell) for cell in row] for row in drawn.matrix]
            path = "".join(
                f"M{x + 2} {y + 2}h1v1h-1z"
                for y, row in enumerate(rows)
                for x, cell in enumerate(row)
                if cell
            )
            return PairingCode(
                code=self._code, until=self._until.isoformat(), url=url, qr=path, size=len(rows) + 4
            )

    def pair(self, code: str, name: str, who: str, peer: str) -> Paired:
        """Take the device at the address `peer` in.

        Raises
        ------
        Refused
            `bad_code`: wrong, used or too old; after five wrong tries from an address no code is
            right from there.
        """
        with self._guard:
            alive = self._code is not None and self.workshop.clock() < self._until
            tries = self._tries.get(peer, 0)
            given, wanted = code.strip().encode(), (self._code or "").encode()
            if not alive or tries >= MOST_TRIES or not secrets.compare_digest(given, wanted):
                self._tries[peer] = tries + 1
                raise Refused("bad_code", _wrong(alive, tries), field="code")
            self._code = None
        token = secrets.token_urlsafe(32)
        device = self.workshop.new_id()
        draft = self.workshop.draft(
            SHOP, DeviceEdited(device=device, name=name, state="paired"), who
        )
        record = DeviceRecord(device, name, _hash(token), self.workshop.now(), None)
        with self.workshop.store.write() as books:
            books.devices.put(record)
            books.log.append(draft)
        return Paired(device=_view(record), token=token)


def _wrong(alive: bool, tries: int) -> str:
    if not alive:
        return "there is no code that holds: show a new one on the workshop's computer"
    if tries >= MOST_TRIES:
        return "too many wrong codes from this device: show a new one on the workshop's computer"
    return "the code is not right"


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def _view(record: DeviceRecord) -> DeviceView:
    return DeviceView(id=record.id, name=record.name, made=record.made, revoked=record.revoked)


def all_devices(workshop: Workshop) -> tuple[DeviceView, ...]:
    """All devices, the newest first, revoked ones too."""
    with workshop.store.read() as books:
        newest = sorted(books.devices.all(), key=lambda d: d.made, reverse=True)
        return tuple(_view(record) for record in newest)


def known_device(workshop: Workshop, token: str) -> DeviceView | None:
    """The device with this token, if it is paired and not revoked."""
    wanted = _hash(token)
    with workshop.store.read() as books:
        found = next((d for d in books.devices.all() if d.token_hash == wanted), None)
        return _view(found) if found is not None and found.revoked is None else None


def revoke(workshop: Workshop, device: str, who: str) -> DeviceView:
    """The device may open Hollet no more, at once."""
    with workshop.store.write() as books:
        record = books.devices.get(device)
        if record is None:
            raise NotFound("device", device)
        if record.revoked is None:
            record = replace(record, revoked=workshop.now())
            books.devices.put(record)
            said = DeviceEdited(device=device, name=record.name, state="revoked")
            books.log.append(workshop.draft(SHOP, said, who))
    workshop.tell("", 0)  # its open channels look whether they may go on
    return _view(record)
