"""The store's troubles by their names: full, read only, busy, damaged; each with what to do."""

import errno

from hollet.core.errors import Unavailable

__all__ = ["trouble"]

WORDS: dict[str, tuple[str, str]] = {
    "full": (
        "disk_full",
        "the disk is full: nothing was written. Free some space, then send it again",
    ),
    "readonly": (
        "read_only",
        "the data folder cannot be written to: nothing was written. Give this user the right to "
        "it, then send it again",
    ),
    "locked": (
        "busy",
        "another program holds the database: nothing was written. Wait a moment, then send it "
        "again",
    ),
    "damaged": (
        "damaged",
        "the database cannot be read: stop Hollet, look with 'hollet verify', and restore a backup",
    ),
}
SIGNS = (
    ("disk is full", "full"),
    ("disk i/o error", "full"),
    ("readonly", "readonly"),
    ("unable to open", "readonly"),
    ("locked", "locked"),
    ("malformed", "damaged"),
    ("not a database", "damaged"),
)
ERRNO = {
    errno.ENOSPC: "full",
    errno.EDQUOT: "full",
    errno.EROFS: "readonly",
    errno.EACCES: "readonly",
    errno.EPERM: "readonly",
}


def trouble(error: BaseException) -> Unavailable:
    """What stands behind an error of the disk or the database, in one sentence."""
    text = str(getattr(error, "orig", None) or error).lower()
    known = ERRNO.get(getattr(error, "errno", None) or 0)
    sign = known or next((name for mark, name in SIGNS if mark in text), None)
    if sign is None:
        return Unavailable(f"the data folder gives an error ({error}): nothing was written")
    code, words = WORDS[sign]
    return Unavailable(words, reason_code=code)
