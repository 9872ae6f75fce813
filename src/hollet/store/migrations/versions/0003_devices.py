"""Phones and tablets that may open this Hollet over the workshop network."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    """A table for devices; the log is not touched."""
    op.create_table(
        "device",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("token_hash", sa.Text, nullable=False, unique=True),
        sa.Column("made", sa.Text, nullable=False),
        sa.Column("revoked", sa.Text, nullable=True),
    )
