"""What ships of the shop's own knowledge, from the files in `known/`, checked as it is read."""

import tomllib
from functools import cache
from importlib.resources import files

from hollet.core.lore import Lore

__all__ = ["lore"]


@cache
def lore() -> Lore:
    """All of it, read once.

    Raises
    ------
    pydantic.ValidationError
        A file that ships says something that cannot be: which field, and what would be right.
    """
    data: dict[str, object] = {}
    for file in sorted(files("hollet.library").joinpath("known").iterdir(), key=lambda f: f.name):
        if file.name.endswith(".toml"):
            data |= tomllib.loads(file.read_text("utf-8"))
    return Lore.model_validate(data)
