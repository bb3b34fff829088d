"""Opening the database: SQLite with a write-ahead log, foreign keys on, brought up to date by Alembic."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy import Connection, Engine, create_engine, event, text
from sqlalchemy.orm import Session

MIGRATIONS = Path(__file__).with_name("migrations")


@dataclass(frozen=True)
class Store:
    """A database ready for use."""

    engine: Engine

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """Open a session that only reads."""
        with Session(self.engine) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """Open a session that holds the write lock from its start; all of it is saved, or nothing."""
        with Session(self.engine.execution_options(writing=True)) as session, session.begin():
            yield session


def open_store(path: Path) -> Store:
    """Open a database file, making it and its folder if need be, and migrate it.

    Parameters
    ----------
    path : Path

    Returns
    -------
    Store
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{path}")
    event.listen(engine, "connect", _prepare)
    event.listen(engine, "begin", _begin)
    if not _is_current(engine):
        _migrate(engine)
    return Store(engine)


def _is_current(engine: Engine) -> bool:
    """Tell whether the newest migration has been made; asking costs less than loading Alembic to find out."""
    newest = max(path.name for path in (MIGRATIONS / "versions").glob("[0-9]*.py")).partition("_")[0]
    with engine.connect() as connection:
        if not connection.dialect.has_table(connection, "alembic_version"):
            return False
        return bool(connection.scalar(text("SELECT version_num FROM alembic_version")) == newest)


def _migrate(engine: Engine) -> None:
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.execution_options(writing=True).connect() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _prepare(connection: sqlite3.Connection, _: object) -> None:
    # Transactions are begun by _begin below, so that a save can take the write lock first.
    connection.isolation_level = None
    for pragma in ("journal_mode=WAL", "foreign_keys=ON", "busy_timeout=5000", "synchronous=FULL"):
        connection.execute(f"PRAGMA {pragma}")


def _begin(connection: Connection) -> None:
    writing = connection.get_execution_options().get("writing", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")
