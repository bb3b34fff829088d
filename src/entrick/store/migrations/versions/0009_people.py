"""People: whose a job, a sitting, an answer, a kit and a set is; who saved and who signed a revision.

What is there already belongs to the first person, who is made here without a word."""

from datetime import UTC, datetime

import sqlalchemy as sa
from alembic import op

from entrick.store.digest import digest_of
from entrick.store.models import FIRST, Base

revision = "0009"
down_revision = "0008"

OWNED = ("job", "revision", "sitting", "practice_answer", "class_set")
INDEXED = ("sitting", "practice_answer")


def upgrade() -> None:
    """Add the people, and whose everything is."""
    op.create_table(
        "person",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("initials", sa.Text, nullable=False),
        sa.Column("sign", sa.Text, nullable=False),
        sa.Column("role", sa.Text, nullable=False),
        sa.Column("secret", sa.Text, nullable=False),
        sa.Column("joined_at", sa.DateTime, nullable=False),
        sa.Column("left_at", sa.DateTime),
        sa.Column("digest", sa.Text, nullable=False),
    )
    first = {
        "id": FIRST,
        "name": "",
        "initials": "",
        "sign": "circle",
        "role": "runs",
        "secret": "",
        "joined_at": datetime.now(UTC).replace(tzinfo=None),
        "left_at": None,
    }
    person = Base.metadata.tables["person"]
    digest = digest_of(person, first)
    op.get_bind().execute(sa.insert(person).values(first | {"digest": digest}))
    for name in OWNED:
        whose = sa.Column(
            "person_id",
            sa.Integer,
            sa.ForeignKey("person.id", name=f"fk_{name}_person"),
            nullable=name == "job",
            server_default=str(FIRST),
        )
        if op.get_bind().dialect.name == "sqlite":
            # A digest is the last thing on a row: the table is made anew, and it stays so.
            with op.batch_alter_table(name, recreate="always") as table:
                table.add_column(whose, insert_before="digest")
        else:
            op.add_column(name, whose)
        with op.batch_alter_table(name) as table:
            table.alter_column("person_id", server_default=None)
        if name in INDEXED:
            op.create_index(f"ix_{name}_person_id", name, ["person_id"])
    _kits()
    # The rows of the class were once signed before they had their numbers.
    for name in (*OWNED, "kit", "class_mark"):
        _sign(Base.metadata.tables[name])
    _more_tables()


def _kits() -> None:
    op.rename_table("kit", "kit_before")
    op.create_table(
        "kit",
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id"), primary_key=True),
        sa.Column("name", sa.Text, primary_key=True),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("usual", sa.Boolean, nullable=False),
        sa.Column("digest", sa.Text, nullable=False),
    )
    op.execute(f"INSERT INTO kit SELECT {FIRST}, name, text, usual, digest FROM kit_before")
    op.drop_table("kit_before")


def _sign(table: sa.Table) -> None:
    """Write the digests anew: they cover whose a row is as well."""
    connection = op.get_bind()
    keys = list(table.primary_key.columns)
    columns = ", ".join(f'"{column.name}"' for column in table.columns)
    for row in (
        connection.execute(sa.text(f'SELECT {columns} FROM "{table.name}"')).mappings().all()
    ):
        chosen = [key == row[key.name] for key in keys]
        said = {DIGEST: digest_of(table, dict(row))}
        connection.execute(sa.update(table).where(*chosen).values(said))


DIGEST = "digest"


def _more_tables() -> None:
    op.create_table(
        "signature",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "job_id",
            sa.Integer,
            sa.ForeignKey("job.id", ondelete="RESTRICT"),
            nullable=False,
            index=True,
        ),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("signed_as", sa.Text, nullable=False),
        sa.Column("signed_at", sa.DateTime, nullable=False),
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id"), nullable=False),
        sa.Column("digest", sa.Text, nullable=False),
        sa.UniqueConstraint("job_id", "number", "signed_as", name="uq_signature"),
    )
    op.create_table(
        "device",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("key", sa.Text, nullable=False, unique=True),
        sa.Column("token", sa.Text, nullable=False, unique=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("address", sa.Text, nullable=False),
        sa.Column("let_in", sa.Boolean, nullable=False),
        sa.Column("came_at", sa.DateTime, nullable=False),
        sa.Column("seen_at", sa.DateTime, nullable=False),
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id")),
        sa.Column("until", sa.DateTime),
    )
    op.create_table(
        "door",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("code", sa.Text, nullable=False),
        sa.Column("until", sa.DateTime, nullable=False),
        sa.Column("guesses", sa.Integer, nullable=False),
        sa.Column("wrong", sa.Integer, nullable=False),
        sa.Column("last", sa.Text, nullable=False),
    )
    op.create_table(
        "guesser",
        sa.Column("who", sa.Text, primary_key=True),
        sa.Column("wrong", sa.Integer, nullable=False),
        sa.Column("times", sa.Integer, nullable=False),
        sa.Column("until", sa.DateTime, nullable=False),
        sa.Column("seen_at", sa.DateTime, nullable=False),
    )


def downgrade() -> None:
    """Take them away: what belonged to several is one person's again."""
    for name in ("guesser", "door", "device", "signature"):
        op.drop_table(name)
    op.rename_table("kit", "kit_before")
    op.create_table(
        "kit",
        sa.Column("name", sa.Text, primary_key=True),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("usual", sa.Boolean, nullable=False),
        sa.Column("digest", sa.Text, nullable=False),
    )
    op.execute(
        f"INSERT INTO kit SELECT name, text, usual, digest FROM kit_before WHERE person_id = {FIRST}"
    )
    op.drop_table("kit_before")
    for name in INDEXED:
        op.drop_index(f"ix_{name}_person_id", name)
    for name in OWNED:
        with op.batch_alter_table(name) as table:
            table.drop_column("person_id")
    op.drop_table("person")
