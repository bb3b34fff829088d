"""A digest beside every revision, so that damage shows; what the register lists, beside every job."""

import sqlalchemy as sa
from alembic import op

from entrick.store.digest import digest_of
from entrick.store.models import Base

revision = "0002"
down_revision = "0001"

FOLDED = sa.Text().with_variant(sa.Text(collation="NOCASE"), "sqlite")


def upgrade() -> None:
    """Add the digests of what is there, and an empty table of summaries: they are worked out again."""
    op.add_column("revision", sa.Column("digest", sa.Text, nullable=False, server_default=""))
    table = sa.table(
        "revision",
        *(
            sa.column(name)
            for name in ("id", "job_id", "number", "based_on", "text", "note", "saved_at", "digest")
        ),
    )
    connection = op.get_bind()
    rows = connection.execute(
        sa.text("SELECT id, job_id, number, based_on, text, note, saved_at FROM revision")
    )
    for row in rows.fetchall():
        digest = digest_of(Base.metadata.tables["revision"], dict(row._mapping))
        connection.execute(table.update().where(table.c.id == row.id).values(digest=digest))
    op.create_table(
        "summary",
        sa.Column(
            "job_id", sa.Integer, sa.ForeignKey("job.id", ondelete="CASCADE"), primary_key=True
        ),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("core", sa.Text, nullable=False),
        sa.Column("title", FOLDED, nullable=False),
        sa.Column("drawing", FOLDED, nullable=False),
        sa.Column("unit", sa.Text, nullable=False),
        sa.Column("scale", sa.Text, nullable=False),
        sa.Column("mistakes", sa.Integer, nullable=False),
        sa.Column("outlines", sa.Integer, nullable=False),
        sa.Column("trouble", sa.Text, nullable=False),
        sa.Column("thumbnail", sa.Text, nullable=False),
        sa.Column("worked_at", sa.DateTime, nullable=False),
        sa.Column("archived", sa.Boolean, nullable=False),
    )
    for name in ("worked_at", "title", "drawing"):
        op.create_index(f"ix_summary_{name}", "summary", ["archived", name])


def downgrade() -> None:
    """Take them away."""
    op.drop_table("summary")
    op.drop_column("revision", "digest")
