"""What can go wrong, branched by what the caller can do about it.

HolletError
  Refused        the input is wrong: say which field and what would be right
  NotFound       the thing named does not exist here
  Conflict       the thing has moved on since the caller looked: look again
  Unavailable    Hollet itself cannot do it now (disk, newer database)
"""

__all__ = ["Conflict", "HolletError", "NotFound", "Refused", "Unavailable"]


class HolletError(Exception):
    """Root of all errors that a caller can act on."""

    def __init__(
        self, message: str, *, reason_code: str = "refused", field: str | None = None
    ) -> None:
        super().__init__(message)
        self.message = message
        self.reason_code = reason_code
        self.field = field


class Refused(HolletError):
    """The input cannot be taken; `reason_code` is stable, the message says what would be right."""

    def __init__(self, reason_code: str, message: str, *, field: str | None = None) -> None:
        super().__init__(message, reason_code=reason_code, field=field)


class NotFound(HolletError):
    """There is no such build, step, joint, sheet or calculation."""

    def __init__(self, what: str, name: str) -> None:
        super().__init__(f"there is no {what} '{name}'", reason_code="not_found", field=what)


class Conflict(HolletError):
    """The subject has moved on; `newer` lists the lines written since the caller looked."""

    def __init__(
        self, message: str, *, reason_code: str = "moved_on", newer: tuple[str, ...] = ()
    ) -> None:
        super().__init__(message, reason_code=reason_code)
        self.newer = newer


class Unavailable(HolletError):
    """Hollet cannot serve this now; the message says what to do."""

    def __init__(self, message: str, *, reason_code: str = "unavailable") -> None:
        super().__init__(message, reason_code=reason_code)
