"""Opening the database: SQLite with a write-ahead log, foreign keys on, or a PostgreSQL server;
brought up to date by Alembic."""

from __future__ import annotations

import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy import Connection, Engine, create_engine, event, inspect
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session

from .about import begin_about
from .listing import fill
from .models import Base
from .people import begin_people
from .server import engine_of, is_url, shown, version_of
from .soundness import MIGRATIONS, examine, known_versions
from .trouble import RegisterTrouble, cause_of

LEAST_ROOM = 1_000_000
"""Free bytes without which a register is not opened: there would be no room for one save."""

PATIENCE = 2.0
"""Seconds a save waits for somebody else's lock."""


@dataclass(frozen=True)
class Store:
    """A database ready for use; `url` where it stands on a server, and not in a file."""

    engine: Engine
    file: Path | None
    url: str = ""

    @property
    def path(self) -> Path:
        """The file.

        Raises
        ------
        RegisterTrouble
            Where it stands on a server: what only a file can do is the server's business.
        """
        if self.file is None:
            raise RegisterTrouble("server", self.told)
        return self.file

    @property
    def told(self) -> str:
        """Where it stands, as it may be shown."""
        return shown(self.url) if self.file is None else str(self.file)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """Open a session that only reads.

        Raises
        ------
        RegisterTrouble
            Where the register cannot be reached any more.
        """
        with self._in_words(), Session(self.engine) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """Open a session that holds the write lock from its start; all of it is saved, or nothing.

        Raises
        ------
        RegisterTrouble
            Where somebody else holds the lock, the disk is full, or the file cannot be written to:
            nothing is saved.
        """
        writing = self.engine.execution_options(writing=True)
        with self._in_words(), Session(writing) as session, session.begin():
            yield session

    @contextmanager
    def _in_words(self) -> Iterator[None]:
        """Tell in words what is wrong with the register, where that is known."""
        try:
            yield
        except OperationalError as error:
            cause = cause_of(error)
            if cause is None:
                raise
            raise RegisterTrouble(cause, self.told) from error

    def close(self) -> None:
        """Leave the named file alone as the data: what is in the log goes into it."""
        self.engine.dispose()
        if self.file is None or not self.file.exists():
            return
        connection = sqlite3.connect(self.path, timeout=PATIENCE)
        try:
            connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        finally:
            connection.close()


Where = Path | str
"""A file, or the address of a server."""


def open_store(where: Where, name: str = "") -> Store:
    """Open a register, making its file and folder if need be, and migrate it.

    Parameters
    ----------
    where : Path or str
        A file, or ``postgresql+psycopg://…``.
    name : str
        By which a fresh register is to be known, where it takes the place of another.

    Returns
    -------
    Store

    Raises
    ------
    RegisterTrouble
        Before anything is written, where the file is damaged, locked, read-only, of a newer version
        or no register.
    """
    return _open_served(str(where), name) if is_url(where) else _open_file(Path(where), name)


def _open_served(where: str, name: str) -> Store:
    engine = engine_of(where)
    store = Store(engine, None, where)
    try:
        version = version_of(engine, where)
        if version != known_versions()[-1]:
            _migrate(engine) if version else _make(engine)
        _begin_with(store, name)
    except OperationalError as error:
        engine.dispose()
        cause = cause_of(error) or "unreachable"
        raise RegisterTrouble(cause, store.told, str(error.orig).splitlines()[0]) from error
    except RegisterTrouble:
        engine.dispose()
        raise
    return store


def _begin_with(store: Store, name: str) -> None:
    with store.writing() as session:
        # What comes after it is counted.
        begin_about(session, name)
        begin_people(session)
        fill(session)


def _open_file(path: Path, name: str) -> Store:
    _make_private(path)
    version = examine(path)
    if shutil.disk_usage(path.parent).free < LEAST_ROOM:
        raise RegisterTrouble("full", path)
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": PATIENCE})
    event.listen(engine, "connect", _prepare)
    event.listen(engine, "begin", _begin)
    store = Store(engine, path)
    try:
        if version != known_versions()[-1]:
            _migrate(engine) if version else _make(engine)
            examine(path)
        _begin_with(store, name)
    except OperationalError as error:
        engine.dispose()
        raise RegisterTrouble(cause_of(error) or "unreachable", path, str(error.orig)) from error
    except RegisterTrouble:
        engine.dispose()
        raise
    return store


def _make_private(path: Path) -> None:
    """Make the file, and the folder where there is none, for their owner alone; SQLite's own files
    follow the file."""
    try:
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        os.close(os.open(path, os.O_RDWR | os.O_CREAT, 0o600))
        path.chmod(0o600)
    except PermissionError as error:
        raise RegisterTrouble("read-only", path) from error
    except OSError as error:
        raise RegisterTrouble(
            "full" if error.errno == 28 else "unreachable", path, str(error.strerror)
        ) from error


def _make(engine: Engine) -> None:
    """Give a new register its tables, as they are today."""
    from alembic.migration import MigrationContext
    from alembic.script import ScriptDirectory

    with engine.execution_options(writing=True).begin() as connection:
        # Whoever else has begun it meanwhile has made them.
        if set(inspect(connection).get_table_names()) <= {"alembic_version"}:
            Base.metadata.create_all(connection)
            MigrationContext.configure(connection).stamp(ScriptDirectory(str(MIGRATIONS)), "head")


def _migrate(engine: Engine) -> None:
    """Bring a register of an older version up to date."""
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.execution_options(writing=True).connect() as connection:
        if engine.dialect.name == "sqlite":
            # A table that is made anew is dropped first, and with it would go what refers to it.
            raw = connection.connection.dbapi_connection
            assert raw is not None
            raw.execute("PRAGMA foreign_keys=OFF")
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
        connection.invalidate()


def _prepare(connection: sqlite3.Connection, _: object) -> None:
    # Transactions are begun by _begin below, so that a save can take the write lock first.
    connection.isolation_level = None
    # What was taken away is gone from the disk too, so that salvage does not find it again.
    pragmas = ("journal_mode=WAL", "foreign_keys=ON", "synchronous=FULL", "secure_delete=ON")
    for pragma in pragmas:
        connection.execute(f"PRAGMA {pragma}")


def _begin(connection: Connection) -> None:
    writing = connection.get_execution_options().get("writing", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")
