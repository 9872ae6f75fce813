"""Prints the share of tests in all code lines: non-blank, non-comment lines of .py, .ts
and .vue; styles are no code, in a file of their own or in a component.
"""

import re
import subprocess
import sys
from pathlib import Path

GENERATED = re.compile(r"/migrations/|\.d\.ts$|/api/schema\.ts$|eslint\.config")
TEST = re.compile(r"^tests/|\.test\.ts$|src/testing\.ts$")
STYLE = re.compile(r"<style.*?</style>", re.S)
COMMENT = re.compile(r"^\s*(#|//|\*|/\*|<!--)")


def lines(path: Path) -> int:
    """Non-blank, non-comment lines of a file."""
    text = (
        STYLE.sub("", path.read_text("utf-8")) if path.suffix == ".vue" else path.read_text("utf-8")
    )
    return sum(1 for line in text.splitlines() if line.strip() and not COMMENT.match(line))


def main() -> int:
    """Count, print, and fail when the share leaves 25 to 33.4 %."""
    listed = subprocess.run(
        ["git", "ls-files", "-co", "--exclude-standard"], capture_output=True, text=True, check=True
    )
    files = [
        Path(name)
        for name in listed.stdout.splitlines()
        if Path(name).suffix in (".py", ".ts", ".vue")
    ]
    files = [path for path in files if path.is_file() and not GENERATED.search(f"/{path}")]
    tests = sum(lines(p) for p in files if TEST.search(str(p)))
    total = sum(lines(p) for p in files)
    share = 100 * tests / total
    print(
        f"tests are {share:.1f} % of all code lines ({tests} of {total}); between 25 and 33.4 % "
        "is right"
    )
    return 0 if 25 <= share <= 33.4 else 1


if __name__ == "__main__":
    sys.exit(main())
