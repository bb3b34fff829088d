"""A register on a PostgreSQL server, for an office whose desks run on several machines or in
several processes. What only a file can do (copies, snapshots, salvage) is the server's business
there."""

from __future__ import annotations

from sqlalchemy import Connection, Engine, create_engine, event, inspect, text
from sqlalchemy.engine import make_url
from sqlalchemy.exc import ArgumentError, NoSuchModuleError

from .soundness import known_versions
from .trouble import RegisterTrouble

SCHEME = "postgresql+psycopg"

LOCK = 0x656E7472
"""The number of the advisory lock that whoever saves holds until it is saved."""

PATIENCE_MS = 2000
"""How long a save waits for another's lock."""


def is_url(where: object) -> bool:
    """Tell whether a place is the address of a server, and not a file."""
    return "://" in str(where)


def shown(where: str) -> str:
    """Return the address of a server as it may be shown: without what lets one in."""
    try:
        return make_url(where).render_as_string(hide_password=True)
    except ArgumentError:
        return "the database"


def engine_of(where: str) -> Engine:
    """Return the engine of a register on a server.

    Raises
    ------
    RegisterTrouble
        Where the address is none, or what speaks to the server is not installed.
    """
    try:
        url = make_url(where)
        if url.drivername != SCHEME:
            raise RegisterTrouble("unreachable", shown(where), f"an address begins {SCHEME}://")
        engine = create_engine(url, pool_size=10, max_overflow=30, pool_pre_ping=True)
    except (ArgumentError, NoSuchModuleError) as error:
        raise RegisterTrouble("unreachable", shown(where), str(error)) from error
    except ModuleNotFoundError as error:
        message = "install it with entrick[postgresql]"
        raise RegisterTrouble("unreachable", shown(where), message) from error
    event.listen(engine, "begin", _begin)
    return engine


def version_of(engine: Engine, where: str) -> str:
    """Return the migration a register stands at, empty for a database without tables.

    Raises
    ------
    RegisterTrouble
        Of a newer version, or no register at all.
    """
    with engine.connect() as connection:
        names = set(inspect(connection).get_table_names())
        if not names:
            return ""
        if "alembic_version" not in names:
            raise RegisterTrouble("foreign", shown(where))
        version = connection.scalar(text("SELECT version_num FROM alembic_version"))
        # A first start that was ended while it made its tables leaves this one empty.
        result = str(version or "")
    if result and result not in known_versions():
        raise RegisterTrouble("newer", shown(where))
    return result


def _begin(connection: Connection) -> None:
    """Whoever saves comes one at a time, as with a file: numbers are given once, and nothing is
    saved over what was not seen. Whoever reads sees one state all the time."""
    if connection.get_execution_options().get("writing", False):
        connection.exec_driver_sql(f"SET LOCAL lock_timeout = {PATIENCE_MS}")
        connection.exec_driver_sql(f"SELECT pg_advisory_xact_lock({LOCK})")
    else:
        connection.exec_driver_sql("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
