"""The first tables, and the triggers that keep the log insert-only."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Make all tables; UPDATE and DELETE on `entry` are refused by the database itself."""
    op.create_table(
        "shop",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("time_zone", sa.Text, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.create_table(
        "vehicle",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("about", sa.Text, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.create_table(
        "build",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("vehicle", sa.Text, sa.ForeignKey("vehicle.id"), nullable=False),
        sa.Column("made", sa.Text, nullable=False),
        sa.Column("plan", sa.Text, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.create_table(
        "instrument",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("tool", sa.Text, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.create_table(
        "sheet",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("title", sa.Text, nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.create_table(
        "entry",
        sa.Column("id", sa.Text, primary_key=True),
        sa.Column("chain", sa.Text, nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("time", sa.Text, nullable=False),
        sa.Column("bench_time", sa.Text, nullable=False),
        sa.Column("who", sa.Text, nullable=False),
        sa.Column("kind", sa.Text, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("body", sa.Text, nullable=False),
        sa.Column("strikes", sa.Text, nullable=True),
        sa.Column("hash", sa.Text, nullable=False),
        sa.Column("sent", sa.Text, nullable=False),
        sa.UniqueConstraint("chain", "seq", name="uq_entry_chain_seq"),
    )
    for verb in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER entry_no_{verb.lower()} BEFORE {verb} ON entry "
            "BEGIN SELECT RAISE(ABORT, 'the log is only added to'); END"
        )
