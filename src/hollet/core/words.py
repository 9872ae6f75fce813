"""How many of something, in words."""

__all__ = ["capital", "counted"]


def counted(number: int, one: str, many: str | None = None) -> str:
    """Such as "1 step" and "12 steps".

    Examples
    --------
    >>> counted(1, "step"), counted(0, "step"), counted(2, "loss", "losses")
    ('1 step', '0 steps', '2 losses')
    """
    return f"{number} {one if number == 1 else many or one + 's'}"


def capital(words: str) -> str:
    """With a large first letter."""
    return words[:1].upper() + words[1:]
