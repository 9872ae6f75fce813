"""In which currency the shop counts."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    """A column, empty until somebody says it; the log is not touched."""
    op.add_column("shop", sa.Column("currency", sa.Text, nullable=False, server_default=""))
