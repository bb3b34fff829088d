"""Answers given in practice."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    """Add the table."""
    op.create_table(
        "practice_answer",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.Text, nullable=False, unique=True),
        sa.Column("answered_at", sa.DateTime, nullable=False),
        sa.Column("part", sa.Text, nullable=False),
        sa.Column("rule", sa.Text, nullable=False),
        sa.Column("share", sa.Float, nullable=False),
        sa.Column("slips", sa.Text, nullable=False),
        sa.Column("chances", sa.Text, nullable=False),
        sa.Column("hints", sa.Integer, nullable=False),
        sa.Column("rehearsed", sa.Boolean, nullable=False),
    )


def downgrade() -> None:
    """Take it away."""
    op.drop_table("practice_answer")
