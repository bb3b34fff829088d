"""Jobs and revisions."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Make the first two tables."""
    op.create_table(
        "job",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("archived_at", sa.DateTime),
    )
    op.create_table(
        "revision",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "job_id",
            sa.Integer,
            sa.ForeignKey("job.id", ondelete="RESTRICT"),
            nullable=False,
            index=True,
        ),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("based_on", sa.Integer),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("note", sa.Text, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("job_id", "number", name="uq_revision_job_number"),
    )


def downgrade() -> None:
    """Take them away."""
    op.drop_table("revision")
    op.drop_table("job")
