"""Marks of sets for a class."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    """Add the table."""
    op.create_table(
        "class_mark",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("set_id", sa.Integer, sa.ForeignKey("class_set.id"), nullable=False),
        sa.Column("student", sa.Text, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("first_at", sa.DateTime, nullable=False),
        sa.Column("marked_at", sa.DateTime, nullable=False),
        sa.Column("answers", sa.Text, nullable=False),
        sa.Column("digest", sa.Text, nullable=False),
        sa.UniqueConstraint("set_id", "student"),
    )


def downgrade() -> None:
    """Take it away."""
    op.drop_table("class_mark")
