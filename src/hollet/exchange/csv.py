"""CSV out; cells that a spreadsheet would run are neutralised with a leading apostrophe."""

import csv
import io
from collections.abc import Iterable, Sequence

from hollet.core.errors import Refused

__all__ = ["read_table", "table"]


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
    return (
        f"'{cell}"
        if isinstance(cell, str) and cell[:1] in ("=", "+", "-", "@", "\t", "\r")
        else cell
    )


def read_table(text: str, wanted: Sequence[str]) -> list[tuple[int, dict[str, str]]]:
    """The rows of a CSV text with the number of their line; a leading apostrophe before a sign is
    taken off again.

    Raises
    ------
    Refused
        `bad_file`: no head line, a column nobody knows, a row with too many cells, more than 5,000
        rows.
    """
    reader = csv.DictReader(io.StringIO(text.removeprefix("\ufeff")))
    try:
        head = [name.strip() for name in reader.fieldnames or ()]
        if "id" not in head:
            raise Refused(
                "bad_file",
                f"the first line must name the columns, with id among them: {', '.join(wanted)}",
                field="file",
            )
        reader.fieldnames = head
        found: list[tuple[int, dict[str, str]]] = []
        for row in reader:
            if None in row:
                raise Refused(
                    "bad_file",
                    f"line {reader.line_num} has more cells than the first line names",
                    field="file",
                )
            if len(found) == 5000:
                raise Refused("bad_file", "the file has more than 5,000 lines", field="file")
            found.append(
                (reader.line_num, {key: _unsafe(value or "") for key, value in row.items() if key})
            )
    except csv.Error as error:
        raise Refused("bad_file", f"not readable as CSV: {error}", field="file") from error
    return found


def _unsafe(cell: str) -> str:
    return (
        cell[1:].strip() if cell[:1] == "'" and cell[1:2] in ("=", "+", "-", "@") else cell.strip()
    )
