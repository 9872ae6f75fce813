"""One Hollet a folder: a lock held by the operating system, so that no crash leaves it behind."""

import fcntl
import os
from datetime import UTC, datetime
from pathlib import Path

from hollet.core.errors import Unavailable

__all__ = ["FolderLock"]

NAME = "hollet.lock"


class FolderLock:
    """Holds a folder until it is let go or the process ends."""

    def __init__(self, folder: Path) -> None:
        """Take the folder.

        Raises
        ------
        Unavailable
            `folder_in_use`: another Hollet has it, and which.
        """
        self._file = (folder / NAME).open("a+", encoding="utf-8")
        try:
            fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError as error:
            self._file.seek(0)
            holder = self._file.read().strip() or "another process"
            self._file.close()
            raise Unavailable(
                f"another Hollet has {folder} open ({holder}): stop it first, or use another "
                "folder with --data",
                reason_code="folder_in_use",
            ) from error
        self._file.truncate(0)
        self._file.write(f"process {os.getpid()} since {datetime.now(UTC):%Y-%m-%d %H:%M} UTC")
        self._file.flush()

    def release(self) -> None:
        """Let the folder go."""
        self._file.close()
