"""Is the file sound? Looked at before it is written to for the first time."""

from __future__ import annotations

import sqlite3
import struct
from functools import cache
from pathlib import Path
from typing import Any

from sqlalchemy import Column, Table, Text, create_engine

from .about import ROWS
from .digest import covered, is_sound, kept
from .models import Base
from .trouble import RegisterTrouble, cause_of

MIGRATIONS = Path(__file__).with_name("migrations")


def known_versions() -> list[str]:
    """Return the migrations this version of the desk knows, oldest first."""
    return sorted(
        path.name.partition("_")[0] for path in (MIGRATIONS / "versions").glob("[0-9]*.py")
    )


def version_of(connection: sqlite3.Connection) -> str:
    """Return the migration a database stands at, empty for one without tables."""
    names = {
        name
        for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    }
    if not names:
        return ""
    if "alembic_version" not in names:
        raise sqlite3.DatabaseError("file is not a database of ours")
    row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
    return str(row[0]) if row else ""


def examine(path: Path) -> str:
    """Look at a register without writing to it.

    Returns
    -------
    str
        The migration it stands at; empty for a new or empty file.

    Raises
    ------
    RegisterTrouble
        Locked, damaged, of a newer version, or no register at all.
    """
    if not path.exists() or path.stat().st_size == 0:
        return ""
    _check_log(path)
    try:
        connection = sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True, timeout=2)
    except sqlite3.Error as error:
        raise RegisterTrouble("unreachable", path, str(error)) from error
    try:
        version = version_of(connection)
        if version and version not in known_versions():
            raise RegisterTrouble("newer", path)
        wrong = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
        if wrong != "ok":
            raise RegisterTrouble("damaged", path, str(wrong).splitlines()[-1])
        _check_shape(connection, path, version)
        _check_rows(connection, path, version)
        return version
    except sqlite3.Error as error:
        raise RegisterTrouble(cause_of(error) or "foreign", path, str(error)) from error
    except UnicodeDecodeError as error:
        raise RegisterTrouble("damaged", path, "a text in it is none any more") from error
    finally:
        connection.close()


def _check_log(path: Path) -> None:
    """Refuse a log that is broken off before a save that was finished: SQLite would take it for the
    end of the log.

    (Checksums of the write-ahead log: "Database File Format", sqlite.org.)
    """
    log = path.with_name(path.name + "-wal")
    data = log.read_bytes() if log.exists() else b""
    if len(data) < 32:
        return
    size, order = int.from_bytes(data[8:12], "big"), "<>"[data[3] & 1]
    if data[:3] != b"\x37\x7f\x06" or not 512 <= size <= 65536:
        raise RegisterTrouble("damaged", path, "its log has lost its heading")
    sums = _summed(data[:24], order, (0, 0))
    broken = False
    for at in range(32, len(data) - size - 23, size + 24):
        head, page = data[at : at + 24], data[at + 24 : at + 24 + size]
        if head[8:16] != data[16:24]:
            broken = True  # zeroed, or left from before the log was begun anew
            continue
        if broken and int.from_bytes(head[4:8], "big"):
            raise RegisterTrouble("damaged", path, "its log is broken off before the last save")
        sums = _summed(page, order, _summed(head[:8], order, sums))
        broken = broken or sums != struct.unpack(">II", head[16:24])


def _summed(data: bytes, order: str, sums: tuple[int, int]) -> tuple[int, int]:
    first, second = sums
    words = iter(struct.unpack(f"{order}{len(data) // 4}I", data))
    for one, other in zip(words, words, strict=True):
        first = (first + one + second) & 0xFFFFFFFF
        second = (second + other + first) & 0xFFFFFFFF
    return first, second


Shape = frozenset[tuple[object, ...]]


def shape_of(connection: sqlite3.Connection) -> Shape:
    """Return what a database is made of: tables with their columns and what they refer to, indexes,
    and whatever else there is."""
    shape: set[tuple[object, ...]] = set()
    parts = connection.execute(
        "SELECT type, name, tbl_name FROM sqlite_master WHERE name NOT LIKE 'sqlite_%'"
    ).fetchall()
    for sort, name, table in parts:
        said: list[object] = []
        if sort == "table":
            columns = connection.execute(f'PRAGMA table_info("{name}")')
            said += [
                (cid, column, _sort(kind), bool(pk)) for cid, column, kind, _, _, pk in columns
            ]
            others = connection.execute(f'PRAGMA foreign_key_list("{name}")')
            said += sorted((other, own, theirs) for _, _, other, own, theirs, *_ in others)
            unique = connection.execute(f'PRAGMA index_list("{name}")')
            said.append(sum(bool(is_unique) for _, _, is_unique, *_ in unique))
        elif sort == "index":
            said += connection.execute(f'PRAGMA index_info("{name}")').fetchall()
        shape.add((sort, name, table, *said))
    return frozenset(shape)


def _sort(kind: str) -> str:
    """Return the sort of a column: SQLite keeps all broken numbers alike, whatever they are
    called."""
    return "REAL" if any(word in kind.upper() for word in ("REAL", "FLOA", "DOUB")) else kind


@cache
def expected_shape() -> Shape:
    """Return what a register of today is made of."""
    engine = create_engine("sqlite://")
    with engine.begin() as connection:
        Base.metadata.create_all(connection)
        connection.exec_driver_sql(
            "CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL, "
            "CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num))"
        )
        shape = shape_of(connection.connection.dbapi_connection)  # type: ignore[arg-type]
    engine.dispose()
    return shape


def _check_shape(connection: sqlite3.Connection, path: Path, version: str) -> None:
    """Refuse what is built otherwise than a register: with triggers it would do what nobody asked
    for."""
    if version and version != known_versions()[-1]:
        # An older one is looked at again when it has been brought up to date.
        odd = {part for part in shape_of(connection) if part[0] not in ("table", "index")}
        missing: set[tuple[object, ...]] = set()
    elif version:
        there, wanted = shape_of(connection), expected_shape()
        odd, missing = set(there - wanted), set(wanted - there)
    else:
        return
    for message, parts in (("it holds", odd), ("it lacks, or has otherwise,", missing)):
        for sort, name, *_ in sorted(parts, key=str)[:1]:
            raise RegisterTrouble("damaged", path, f"{message} the {sort} {name}")


def _check_rows(connection: sqlite3.Connection, path: Path, version: str) -> None:
    """Refuse a register in which a row is not what was saved, or is missing."""
    tables = [] if version < "0002" else [Base.metadata.tables["revision"]]
    # A register of an older version has not every table yet.
    there = {name for (name,) in connection.execute("SELECT name FROM sqlite_master")}
    for table in kept() if version >= "0006" else tables:
        if table.name not in there:
            continue
        rows = connection.execute(f'SELECT * FROM "{table.name}"')
        names = [column[0] for column in rows.description]
        count = 0
        for values in rows:
            count += 1
            row = dict(zip(names, values, strict=True))
            if not is_sound(table, row):
                message = ", ".join(
                    f"{column.name} {row[column.name]}" for column in _naming(table)
                )
                raise RegisterTrouble(
                    "damaged", path, f"{table.name}, {message}: not what was saved"
                )
        if version >= "0006":
            _check_count(connection, path, table.name, count)


def _naming(table: Table) -> list[Column[Any]]:
    """Return the columns by which a row is told apart from others."""
    return [column for column in covered(table) if not isinstance(column.type, Text)][:2]


def _check_count(connection: sqlite3.Connection, path: Path, table: str, count: int) -> None:
    noted = connection.execute("SELECT said FROM about WHERE name = ?", (ROWS + table,)).fetchone()
    if noted is not None and int(noted[0]) != count:
        message = f"{noted[0]} rows of {table} were saved, and {count} are there"
        raise RegisterTrouble("damaged", path, message)
