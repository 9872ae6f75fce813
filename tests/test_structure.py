"""How the house is built: what the core may use, that a door asks one service, and that nothing
branches on kinds.

Each check takes text, so that a breach can be planted and is seen to fail.
"""

import ast
from collections.abc import Iterator
from pathlib import Path

import pytest

from hollet.core.acts.kinds import ACTS
from hollet.core.entries.kinds import KINDS
from hollet.core.procedure.kinds import STEP_KINDS

SRC = Path(__file__).parents[1] / "src" / "hollet"
PURE = {
    "abc",
    "bisect",
    "cmath",
    "collections",
    "dataclasses",
    "datetime",
    "decimal",
    "fractions",
    "functools",
    "graphlib",
    "heapq",
    "itertools",
    "math",
    "hashlib",
    "re",
    "statistics",
    "types",
    "typing",
}
PACKAGES = {"pydantic", "pydantic_core", "hollet"}
INSIDE = {"scipy.special", "ortools.sat.python"}
"""Heavy packages: inside the functions that use them only."""
EFFECTS = {"open", "input", "print", "eval", "exec", "__import__", "breakpoint"}
CLOCKS = {"now", "today", "utcnow", "fromtimestamp"}
STEP_CLASSES = {
    "BaseStep",
    "CheckStep",
    "FillStep",
    "InspectStep",
    "MeasureStep",
    "RemoveStep",
    "RunStep",
    "TightenStep",
}
KIND_CLASSES = STEP_CLASSES | {c.__name__ for c in (*KINDS.values(), *ACTS.values())}
KIND_WORDS = set(KINDS) | (set(STEP_KINDS) - {"fill"})


def imported(tree: ast.AST) -> Iterator[tuple[int, str]]:
    """Every module that is imported, with its line."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            yield from ((node.lineno, name.name) for name in node.names)
        elif isinstance(node, ast.ImportFrom):
            yield node.lineno, node.module or ""


def core_breaches(text: str) -> list[str]:
    """What a module of the core uses and may not."""
    tree = ast.parse(text)
    top = {node.lineno for node in tree.body if isinstance(node, ast.Import | ast.ImportFrom)}
    found = []
    for line, name in imported(tree):
        inside = name in INSIDE and line not in top
        if name.split(".")[0] not in PURE | PACKAGES and not inside:
            found.append(f"{line}: imports {name}")
    for node in ast.walk(tree):
        if isinstance(node, ast.Call):
            called = ast.unparse(node.func)
            if called in EFFECTS or called.split(".")[-1] in CLOCKS:
                found.append(f"{node.lineno}: calls {called}")
    return found


def services_asked(text: str) -> list[str]:
    """Routes that ask more than one service."""
    tree = ast.parse(text)
    names = {
        alias.asname or alias.name
        for node in ast.walk(tree)
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("hollet.services")
        for alias in node.names
    }
    found = []
    for node in ast.walk(tree):
        if not isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            continue
        if not any("router" in ast.unparse(by) for by in node.decorator_list):
            continue
        asked = [
            ast.unparse(call.func)
            for call in ast.walk(node)
            if isinstance(call, ast.Call) and ast.unparse(call.func).split(".")[0] in names
        ]
        if len(asked) > 1:
            found.append(f"{node.name}: {', '.join(asked)}")
    return found


def chains(text: str) -> list[str]:
    """Places that ask which kind of step, entry or act something is."""
    found = []
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.Call) and ast.unparse(node.func) == "isinstance":
            asked = {name.id for name in ast.walk(node.args[1]) if isinstance(name, ast.Name)}
            if asked & KIND_CLASSES:
                found.append(f"{node.lineno}: isinstance of {', '.join(asked & KIND_CLASSES)}")
        if isinstance(node, ast.Compare) and ast.unparse(node.left).split(".")[-1] == "kind":
            words = {c.value for c in ast.walk(node) if isinstance(c, ast.Constant)}
            if words & KIND_WORDS and not ast.unparse(node.left).startswith("self."):
                found.append(f"{node.lineno}: {ast.unparse(node)}")
    return found


def too_long(text: str) -> list[str]:
    """A module of more than 400 lines, and functions whose body has more than 60."""
    found = ["module"] if len(text.splitlines()) > 400 else []
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            body = node.body[1:] if ast.get_docstring(node) and node.body[1:] else node.body
            if (body[-1].end_lineno or 0) - body[0].lineno + 1 > 60:
                found.append(node.name)
    return found


def modules(*rooms: str) -> list[Path]:
    """The modules of some rooms."""
    return sorted(path for room in rooms for path in (SRC / room).rglob("*.py"))


def test_the_core_uses_what_is_allowed():
    """Standard library without effects, and two packages; the heavy one inside functions."""
    assert {
        str(p): b for p in modules("core", "screens") if (b := core_breaches(p.read_text()))
    } == {}


@pytest.mark.parametrize(
    "breach",
    [
        "from datetime import datetime\nnow = datetime.now()",
        "text = open('x').read()",
        "import uuid",
        "import subprocess",
        "import numpy",
        "import urllib.request",
        "from sqlalchemy import select",
        "import os",
        "from scipy.special import stdtrit",
        "def f():\n    import time",
    ],
)
def test_a_planted_breach_is_seen(breach: str):
    """Each of these in the core would be found."""
    assert len(core_breaches("import math\n" + breach)) == 1


def test_only_the_store_speaks_to_the_database():
    """No SQL anywhere else; the services see the store through its protocols."""
    rooms = modules("cli", "web", "services", "screens", "exchange", "library", "core")
    named = {
        str(p): name
        for p in rooms
        for _, name in imported(ast.parse(p.read_text()))
        if name.startswith(("sqlalchemy", "alembic"))
    }
    assert named == {}


def test_a_route_asks_one_service():
    """Parse, one call, return; a route that asks two is found."""
    routes = modules("web/routers")
    assert [found for p in routes for found in services_asked(p.read_text())] == []
    planted = (
        "from hollet.services import a, b\n@router.get('/')\ndef both():\n    return a.x() + b.y()"
    )
    assert services_asked(planted) == ["both: a.x, b.y"]


def test_nothing_branches_on_kinds():
    """What differs between kinds is a method, or a table keyed by kind."""
    rooms = modules("core", "screens", "services", "web", "exchange", "store", "cli")
    assert {str(p): c for p in rooms if (c := chains(p.read_text()))} == {}
    assert len(chains("if isinstance(step, RunStep | FillStep): pass")) == 1
    assert len(chains("x = entry.kind in ('done', 'note')")) == 1


def test_nothing_is_longer_than_a_screen_or_two():
    """Modules and functions are split by meaning before they are too long to be read at once."""
    rooms = ("core", "screens", "services", "web", "exchange", "store", "cli", "library")
    long = {str(p): found for p in modules(*rooms) if (found := too_long(p.read_text()))}
    assert long == {}
    planted = "def long():\n    'Long.'\n" + "    x = 1\n" * 61
    assert too_long(planted) == ["long"]
    assert too_long(planted.replace("    x = 1\n", "", 1)) == []
    assert too_long("x = 1\n" * 401) == ["module"]
