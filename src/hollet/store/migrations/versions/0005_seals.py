"""Seals over what is kept, and by which rule a line is hashed."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    """Old lines keep rule 1; the table of the log is not rebuilt. What stands is sealed when it is
    opened for the first time.
    """
    op.add_column("entry", sa.Column("rule", sa.Integer, nullable=False, server_default="1"))
    op.create_table(
        "seal",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("mark", sa.Text, nullable=False),
    )
