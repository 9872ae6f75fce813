"""A small sample of faults planted in the core, with a fixed seed: how many does the suite see?

Each fault is one change of one place: a comparison turned, `all` for `any`, `and` for `or`, plus
for minus, a `not` taken out; in a copy of the project. Not part of CI: it takes a while.
"""

import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[1]
CORE = Path("src/hollet/core")
SEED = 20260301
GOAL = 0.92
SWAPS: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
}


@dataclass(frozen=True)
class Fault:
    """One changed place: in which module and line, and the whole text with it."""

    path: Path
    line: int
    was: str
    now: str
    text: str


def changed(node: ast.AST) -> ast.AST | None:
    """The node with a fault in it, or None where there is nothing to change."""
    if isinstance(node, ast.Compare) and type(node.ops[0]) in SWAPS:
        return ast.Compare(node.left, [SWAPS[type(node.ops[0])](), *node.ops[1:]], node.comparators)
    if isinstance(node, ast.BoolOp):
        other = ast.Or() if isinstance(node.op, ast.And) else ast.And()
        return ast.BoolOp(other, node.values)
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        return node.operand
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
        other_name = {"all": "any", "any": "all", "min": "max", "max": "min"}.get(node.func.id)
        if other_name:
            return ast.Call(ast.Name(other_name, ast.Load()), node.args, node.keywords)
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Add | ast.Sub):
        turned = ast.Sub() if isinstance(node.op, ast.Add) else ast.Add()
        return ast.BinOp(node.left, turned, node.right)
    return None


def faults(path: Path) -> Iterator[Fault]:
    """Every fault that can be planted in a module, but for those in its head and its types."""
    text = (ROOT / path).read_text("utf-8")
    tree = ast.parse(text)
    for function in ast.walk(tree):
        if not isinstance(function, ast.FunctionDef):
            continue
        for statement in function.body:
            for node in ast.walk(statement):
                new = changed(node)
                if new is None or not hasattr(node, "end_col_offset"):
                    continue
                was, now = ast.get_source_segment(text, node), ast.unparse(new)
                if was and node.lineno == node.end_lineno:
                    rows = text.splitlines(keepends=True)
                    row = rows[node.lineno - 1]
                    head = row.encode()[: node.col_offset].decode()
                    tail = row.encode()[node.end_col_offset :].decode()
                    rows[node.lineno - 1] = f"{head}({now}){tail}"
                    yield Fault(path, node.lineno, was, now, "".join(rows))


def seen(copy: Path, fault: Fault) -> bool:
    """Whether the suite of the core, then that of the services, fails with the fault."""
    target = copy / fault.path
    kept = target.read_text("utf-8")
    target.write_text(fault.text, "utf-8")
    try:
        for tests in ("tests/core", "tests/services tests/library"):
            command = [sys.executable, "-m", "pytest", *tests.split(), "-x", "-q", "-n", "2"]
            command += ["-p", "no:playwright", "-p", "no:benchmark", "-p", "no:cacheprovider"]
            done = subprocess.run(
                command, cwd=copy, capture_output=True, timeout=900, env=environment(copy)
            )
            if done.returncode != 0:
                return True
        return False
    finally:
        target.write_text(kept, "utf-8")


def environment(copy: Path) -> dict[str, str]:
    """The copy's own sources, before those that are installed."""
    return {**os.environ, "PYTHONPATH": str(copy / "src")}


def main(count: int) -> int:
    """Plant `count` faults one after the other; say which were not seen."""
    modules = sorted(path.relative_to(ROOT) for path in (ROOT / CORE).rglob("*.py"))
    every = [fault for path in modules for fault in faults(path)]
    chosen = random.Random(SEED).sample(every, count)
    missed = []
    with tempfile.TemporaryDirectory() as name:
        copy = Path(name) / "hollet"
        shutil.copytree(
            ROOT, copy, ignore=shutil.ignore_patterns(".git", ".venv", "node_modules", "demo-data")
        )
        for number, fault in enumerate(chosen, 1):
            good = seen(copy, fault)
            if not good:
                missed.append(fault)
            words = f"{fault.path}:{fault.line}: {fault.was} -> {fault.now}"
            print(f"{number}/{count} {'seen' if good else 'NOT SEEN'} {words}", flush=True)
    share = 1 - len(missed) / count
    print(f"{share:.0%} of {count} faults seen (goal {GOAL:.0%}), of {len(every)} possible ones")
    return 0 if share >= GOAL else 1


if __name__ == "__main__":
    sys.exit(main(int(sys.argv[1]) if len(sys.argv) > 1 else 60))
