"""A mistake in a sheet, named with its line, its field and what would be right."""

import re
from typing import Any

from hollet.core.errors import Refused

__all__ = ["line_of", "mistake", "plain"]

STEP_KINDS = {
    "check",
    "connect",
    "fit",
    "inspect",
    "wait",
    "remove",
    "measure",
    "tighten",
    "fill",
    "run",
}


def plain(error: Any) -> str:
    """A validator's message as one sentence with what would be right."""
    kind, context = error["type"], error.get("ctx", {})
    if kind == "missing":
        return "this must be given"
    if kind == "extra_forbidden":
        return "this key is not known here: check its spelling"
    if kind == "literal_error":
        return f"must be {context.get('expected')}, not {error.get('input')!r}"
    if kind == "union_tag_invalid":
        return f"kind must be one of {', '.join(sorted(STEP_KINDS))}, not '{context.get('tag')}'"
    if kind == "union_tag_not_found":
        return (
            "kind must be given: check, remove, measure, tighten, fill, run, connect, fit, "
            "inspect or wait"
        )
    if kind == "string_pattern_mismatch":
        return f"{error.get('input')!r} must be lower-case letters, digits, - or _, at most 60"
    if kind == "value_error":
        return str(context["error"])
    return str(error["msg"])


def mistake(text: str, path: tuple[Any, ...], message: str) -> Refused:
    """The refusal for a mistake at `path`, such as ("step", 3, "after", 0, "because")."""
    field = (
        ".".join(str(part + 1) if isinstance(part, int) else str(part) for part in path) or "sheet"
    )
    line = line_of(text, path)
    return Refused(
        "sheet_mistake",
        f"line {line}, {field}: {message}" if line else f"{field}: {message}",
        field=field,
    )


def line_of(text: str, path: tuple[Any, ...]) -> int | None:
    """The line (from 1) on which `path` stands in a TOML text, or that of its table when the key is
    missing.
    """
    lines = text.splitlines()
    if not lines or not path:
        return None
    first, last = 0, len(lines)
    name = str(path[0])
    if len(path) > 1 and isinstance(path[1], int):
        heads = [
            k
            for k, line in enumerate(lines)
            if re.match(rf"\s*\[\[\s*{re.escape(name)}\s*\]\]", line)
        ]
        if path[1] < len(heads):
            first = heads[path[1]]
            ends = [
                k
                for k, line in enumerate(lines)
                if k > first and re.match(r"\s*\[+\s*\w+\s*\]+", line)
            ]
            last = ends[0] if ends else last
    for key in reversed([part for part in path[1:] if isinstance(part, str)] or [name]):
        for k in range(first, last):
            if re.match(rf"\s*(\[+[\w.]*\.)?{re.escape(key)}\b\s*(=|\]+)", lines[k]) or re.search(
                rf"[{{,]\s*{re.escape(key)}\s*=", lines[k]
            ):
                return k + 1
    return first + 1
