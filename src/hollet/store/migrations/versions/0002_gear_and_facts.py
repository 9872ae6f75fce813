"""Tools that do not measure, and the facts of a vehicle."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    """A table for gear, a column for facts; the log is not touched."""
    op.create_table(
        "gear",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("state", sa.Text, nullable=False),
        sa.Column("whose", sa.Text, nullable=True),
        sa.Column("back_by", sa.Text, nullable=True),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.add_column("vehicle", sa.Column("facts", sa.Text, nullable=False, server_default="{}"))
