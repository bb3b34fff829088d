"""Alembic's entry point: migrates the connection `open_store` hands over."""

from alembic import context

from entrick.store.models import Base

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=Base.metadata,
    render_as_batch=True,
)
with context.begin_transaction():
    context.run_migrations()
