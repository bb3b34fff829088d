"""Sittings at the board with what happened in them; in which order the steps of a job are done; kits by name."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    """Add the tables."""
    op.create_table(
        "job_order",
        sa.Column(
            "job_id", sa.Integer, sa.ForeignKey("job.id", ondelete="CASCADE"), primary_key=True
        ),
        sa.Column("schedule", sa.Text, nullable=False),
    )
    op.create_table(
        "sitting",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("uid", sa.Text, nullable=False, unique=True),
        sa.Column(
            "job_id",
            sa.Integer,
            sa.ForeignKey("job.id", ondelete="RESTRICT"),
            nullable=False,
            index=True,
        ),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("schedule", sa.Text, nullable=False),
        sa.Column("started_at", sa.DateTime, nullable=False),
        sa.Column("rehearsed", sa.Boolean, nullable=False),
        sa.Column("removed_at", sa.DateTime),
    )
    op.create_table(
        "sitting_event",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "sitting_id",
            sa.Integer,
            sa.ForeignKey("sitting.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("kind", sa.Text, nullable=False),
        sa.Column("step", sa.Integer, nullable=False),
        sa.Column("tool", sa.Text, nullable=False),
        sa.Column("seconds", sa.Float, nullable=False),
        sa.Column("off", sa.Float, nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("of", sa.Integer, nullable=False),
        sa.UniqueConstraint("sitting_id", "number", name="uq_sitting_event_number"),
    )

    op.create_table(
        "kit",
        sa.Column("name", sa.Text, primary_key=True),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("usual", sa.Boolean, nullable=False),
    )


def downgrade() -> None:
    """Take them away."""
    op.drop_table("kit")
    op.drop_table("sitting_event")
    op.drop_table("sitting")
    op.drop_table("job_order")
