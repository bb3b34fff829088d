"""A digest beside every row, and what a register knows of itself."""

import sqlalchemy as sa
from alembic import op

from entrick.store.digest import digest_of
from entrick.store.models import Base

revision = "0006"
down_revision = "0005"

KEYS = {
    "job": "id",
    "job_order": "job_id",
    "sitting": "id",
    "sitting_event": "id",
    "kit": "name",
    "practice_answer": "id",
}


def upgrade() -> None:
    """Add the digests of what is there; names and counts are written when the register is opened."""
    connection = op.get_bind()
    for name, key in KEYS.items():
        op.add_column(name, sa.Column("digest", sa.Text, nullable=False, server_default=""))
        table = Base.metadata.tables[name]
        rows = connection.execute(sa.text(f"SELECT * FROM {name}")).mappings().all()
        for row in rows:
            connection.execute(
                sa.text(f"UPDATE {name} SET digest = :digest WHERE {key} = :key"),
                {"digest": digest_of(table, dict(row)), "key": row[key]},
            )
    op.create_table(
        "about",
        sa.Column("name", sa.Text, primary_key=True),
        sa.Column("said", sa.Text, nullable=False),
        sa.Column("digest", sa.Text, nullable=False),
    )


def downgrade() -> None:
    """Take them away."""
    op.drop_table("about")
    for name in KEYS:
        op.drop_column(name, "digest")
