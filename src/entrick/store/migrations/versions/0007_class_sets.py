"""Sets for a class."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    """Add the table."""
    op.create_table(
        "class_set",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("title", sa.Text, nullable=False),
        sa.Column("students", sa.Integer, nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.Column("removed_at", sa.DateTime),
        sa.Column("digest", sa.Text, nullable=False),
    )


def downgrade() -> None:
    """Take it away."""
    op.drop_table("class_set")
