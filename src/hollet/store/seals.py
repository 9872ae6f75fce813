"""Seals: marks that only this Hollet can make, over what it keeps.

The head of each chain has a small file of its own beside the database, and each record a row in the
table of seals. Both are made with a key that lies outside the data folder, so that a log cut short,
an older copy put in its place and a record changed past Hollet show. It is a guard against
accidents and copies, not against the owner, who has the key.
"""

import hashlib
import hmac
import json
import os
import secrets
from contextlib import suppress
from dataclasses import asdict, astuple, dataclass
from pathlib import Path

from hollet.core.errors import Unavailable
from hollet.store.records import Record

__all__ = ["HEADS", "Head", "SealKey", "Torn", "head_of", "key_file", "keep_head", "record_text"]

KEY_BYTES = 32
PLACE = 512
"""Bytes for one seal of a head; a file holds two."""
HEADS = "heads"
"""The folder of the chains' heads within the data folder."""


@dataclass(frozen=True, slots=True)
class Torn:
    """A record that is not as Hollet left it."""

    table: str
    id: str
    what: str


@dataclass(frozen=True, slots=True)
class Head:
    """Up to which line a chain was sealed."""

    seq: int
    hash: str


def key_file() -> Path:
    """Where the key lies: named by HOLLET_KEY, or among the user's own settings."""
    named = os.environ.get("HOLLET_KEY")
    home = os.environ.get("XDG_CONFIG_HOME") or Path.home() / ".config"
    return Path(named) if named else Path(home) / "hollet" / "seal.key"


class SealKey:
    """The key of this machine and user; made when there is none."""

    def __init__(self, file: Path) -> None:
        try:
            if not file.exists():
                _make_key(file)
            self._key = bytes.fromhex(file.read_text().strip())
            if len(self._key) != KEY_BYTES:
                raise ValueError(f"it must hold {KEY_BYTES} bytes in hex")
        except (OSError, ValueError) as error:
            raise Unavailable(
                f"the key of the seals, {file}, cannot be made or read ({error}): give this user "
                "the right to it, or name another file in HOLLET_KEY",
                reason_code="no_seal_key",
            ) from error
        self.name = hashlib.sha256(self._key).hexdigest()[:8]

    def mark(self, text: str) -> str:
        """The seal of a text: which key, the mark made with it, and the plain hash of the text."""
        own = hmac.new(self._key, text.encode(), hashlib.sha256).hexdigest()
        return f"{self.name}:{own}:{hashlib.sha256(text.encode()).hexdigest()}"

    def fits(self, text: str, mark: str) -> bool:
        """Whether a seal is the text's; of a seal made with another machine's key only the hash can
        be looked at.
        """
        if mark.startswith(f"{self.name}:"):
            return hmac.compare_digest(mark, self.mark(text))
        return mark.rpartition(":")[2] == hashlib.sha256(text.encode()).hexdigest()


def _make_key(file: Path) -> None:
    """A new key, whole or not at all; where another Hollet made one in this moment, that one."""
    file.parent.mkdir(parents=True, exist_ok=True)
    part = file.with_name(f"{file.name}.{os.getpid()}")
    try:
        descriptor = os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
        with os.fdopen(descriptor, "w") as made:
            made.write(secrets.token_hex(KEY_BYTES))
        with suppress(FileExistsError):
            os.link(part, file)
    finally:
        part.unlink(missing_ok=True)


def record_text(table: str, record: Record) -> str:
    """The text of a record that is sealed: its table, then every field in order."""
    return json.dumps([table, *astuple(record)], ensure_ascii=False)


def keep_head(folder: Path, key: SealKey, chain: str, head: Head) -> None:
    """Seal the head of a chain in the one of its two places that the seal before it is not in: cut
    short by a power cut, the one before still stands. The disk need not have it before the line is
    acknowledged: a seal may lie behind its chain, never before it.
    """
    data = json.dumps({**asdict(head), "seal": key.mark(_head_text(chain, head))})
    descriptor = os.open(folder / HEADS / chain, os.O_WRONLY | os.O_CREAT, 0o644)
    try:
        os.pwrite(descriptor, data.ljust(PLACE - 1).encode() + b"\n", head.seq % 2 * PLACE)
    finally:
        os.close(descriptor)


def head_of(folder: Path, key: SealKey, chain: str) -> Head | None:
    """The sealed head of a chain; None where there is none, Unavailable where none is ours."""
    try:
        written = (folder / HEADS / chain).read_bytes()
    except FileNotFoundError:
        return None
    except OSError as error:
        raise _not_ours(chain) from error
    places = (written[:PLACE], written[PLACE:])
    found = [head for place in places if (head := _read_head(key, chain, place)) is not None]
    if not found:
        raise _not_ours(chain)
    return max(found, key=lambda head: head.seq)


def _read_head(key: SealKey, chain: str, place: bytes) -> Head | None:
    try:
        data = json.loads(place)
        head = Head(int(data["seq"]), str(data["hash"]))
        return head if key.fits(_head_text(chain, head), str(data["seal"])) else None
    except (ValueError, KeyError, TypeError):  # torn, or written by another hand
        return None


def _not_ours(chain: str) -> Unavailable:
    return Unavailable(
        f"the seal of the log {chain} was changed: look with 'hollet verify'",
        reason_code="seal_changed",
    )


def _head_text(chain: str, head: Head) -> str:
    return json.dumps(["head", chain, head.seq, head.hash])
