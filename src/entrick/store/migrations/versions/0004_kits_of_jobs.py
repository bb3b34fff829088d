"""With which kit a job is drawn, and a sitting was."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    """Add the columns."""
    for table in ("job_order", "sitting"):
        op.add_column(table, sa.Column("kit", sa.Text, nullable=False, server_default=""))


def downgrade() -> None:
    """Take them away."""
    for table in ("job_order", "sitting"):
        op.drop_column(table, "kit")
