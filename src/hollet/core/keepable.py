"""Text that can be kept: no half characters, no NUL."""

from typing import Any

from pydantic_core import PydanticCustomError

__all__ = ["keepable"]


def keepable(data: Any) -> Any:
    """What a screen sent, as it came; refused where a text of it cannot be kept."""
    if isinstance(data, str) and not _kept(data):
        raise PydanticCustomError(
            "text_unkeepable", "holds a sign that cannot be kept: type it anew"
        )
    if isinstance(data, dict):
        for key, value in data.items():
            keepable(key)
            keepable(value)
    elif isinstance(data, list | tuple):
        for item in data:
            keepable(item)
    return data


def _kept(text: str) -> bool:
    return (text.isascii() and "\0" not in text) or not any(
        sign == "\0" or "\ud800" <= sign <= "\udfff" for sign in text
    )
