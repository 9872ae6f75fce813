"""What somebody does to a data folder past Hollet."""

import sqlite3
from contextlib import closing
from pathlib import Path

from hollet.store.database import FILE


def doctored(folder: Path, *statements: str) -> None:
    """Change a database as no Hollet would."""
    with closing(sqlite3.connect(folder / FILE)) as connection, connection:
        connection.execute("DROP TRIGGER entry_no_update")
        connection.execute("DROP TRIGGER entry_no_delete")
        for statement in statements:
            connection.execute(statement)
        connection.execute(
            "CREATE TRIGGER entry_no_update BEFORE UPDATE ON entry "
            "BEGIN SELECT RAISE(ABORT, 'the log is only added to'); END"
        )
        connection.execute(
            "CREATE TRIGGER entry_no_delete BEFORE DELETE ON entry "
            "BEGIN SELECT RAISE(ABORT, 'the log is only added to'); END"
        )
