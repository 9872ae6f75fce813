"""Draws `docs/house.svg` from the code: the layers and the rooms of the core, in the order that the
import check holds, and what each room says of itself.
"""

import ast
import sys
import tomllib
from html import escape
from pathlib import Path

ROOT = Path(__file__).parents[1]
PICTURE = Path(__file__).with_name("house.svg")
WIDTH, BAND, ROOM = 960, 28, 28


def contracts() -> tuple[list[list[str]], list[list[str]]]:
    """The layers and the rooms of the core, from the doors down; those that stand beside each other
    in one row.
    """
    held = tomllib.loads((ROOT / "pyproject.toml").read_text("utf-8"))["tool"]["importlinter"]
    layers, rooms = (
        [[name.strip() for name in row.split("|")] for row in contract["layers"]]
        for contract in held["contracts"]
        if contract["type"] == "layers"
    )
    return layers, rooms


def about(module: str) -> str:
    """The first sentence of what a room says of itself."""
    path = ROOT / "src" / module.replace(".", "/")
    file = path / "__init__.py" if path.is_dir() else path.with_suffix(".py")
    words = ast.get_docstring(ast.parse(file.read_text("utf-8"))) or ""
    return " ".join(words.split("\n\n")[0].split()).split(". ")[0].rstrip(".")


def shorten(text: str, letters: int) -> str:
    """As much of a sentence as there is room for."""
    return text if len(text) <= letters else f"{text[: letters - 1].rsplit(' ', 1)[0]} …"


def row(y: int, height: int, modules: list[str], indent: int) -> str:
    """One row of rooms side by side, each with its name and what it is."""
    wide = (WIDTH - indent - 20) / len(modules)
    parts = []
    for k, module in enumerate(modules):
        x = indent + k * wide
        words = shorten(about(module), int((wide - 130) / 6.1)) if len(modules) == 1 else ""
        name = module.rsplit(".", 1)[-1]
        parts.append(
            f'<rect x="{x:.0f}" y="{y}" width="{wide - 6:.0f}" height="{height - 6}" '
            'fill="#fff" stroke="#333"/>'
            f'<text x="{x + 10:.0f}" y="{y + 15}" font-weight="700">{escape(name)}</text>'
        )
        if words:
            parts.append(f'<text x="{x + 120:.0f}" y="{y + 15}" fill="#444">{escape(words)}</text>')
    return "".join(parts)


def drawn() -> str:
    """The picture."""
    layers, rooms = contracts()
    y, parts = 10, []
    for names in layers:
        parts.append(row(y, BAND, names, 20))
        y += BAND
    for names in rooms:
        parts.append(row(y, ROOM, names, 60))
        y += ROOM
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {y + 10}" '
        'font-family="sans-serif" font-size="12">'
    )
    return f'{head}<rect width="100%" height="100%" fill="#eee"/>{"".join(parts)}</svg>\n'


if __name__ == "__main__":
    sys.exit(PICTURE.write_text(drawn(), "utf-8") == 0)
