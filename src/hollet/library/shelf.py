"""What ships with Hollet: procedure sheets and instrument presets."""

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

__all__ = ["instrument_presets", "sheet_names", "sheet_text"]


@cache
def sheet_names() -> tuple[str, ...]:
    """Ids of the shipped sheets."""
    folder = files("hollet.library").joinpath("sheets")
    return tuple(
        sorted(f.name.removesuffix(".toml") for f in folder.iterdir() if f.name.endswith(".toml"))
    )


@cache
def sheet_text(name: str) -> str:
    """The TOML text of a shipped sheet; raises KeyError when there is none of that name."""
    if name not in sheet_names():
        raise KeyError(name)
    return files("hollet.library").joinpath("sheets", f"{name}.toml").read_text("utf-8")


@cache
def instrument_presets() -> tuple[dict[str, Any], ...]:
    """Typical tools, as figures to start from."""
    return tuple(
        tomllib.loads(files("hollet.library").joinpath("instruments.toml").read_text("utf-8"))[
            "preset"
        ]
    )
