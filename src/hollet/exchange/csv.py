"""CSV out; cells that a spreadsheet would run are neutralised with a leading apostrophe."""

import csv
import io
from collections.abc import Iterable, Sequence

__all__ = ["table"]


def table(head: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A table as CSV text, comma separated, CRLF, UTF-8.

    Examples
    --------
    >>> table(["a"], [["=1+1"], [-2.5]])
    "a\\r\\n'=1+1\\r\\n-2.5\\r\\n"
    """
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(head)
    writer.writerows([[_safe(cell) for cell in row] for row in rows])
    return out.getvalue()


def _safe(cell: object) -> object:
    return f"'{cell}" if isinstance(cell, str) and cell[:1] in ("=", "+", "-", "@", "\t", "\r") else cell
