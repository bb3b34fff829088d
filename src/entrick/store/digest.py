"""A digest of everything one row says: written beside it, so that a changed byte on the disk
shows."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime
from functools import cache
from typing import Any, cast

from sqlalchemy import Boolean, Column, Float, Table, event, inspect

from .models import Base, Moment

STAMP = "%Y-%m-%d %H:%M:%S.%f"
"""How a time stands in the database, in UTC."""

DIGEST = "digest"

COUNTED = frozenset({"revision", "sitting_event", "practice_answer", "signature"})
"""Tables whose rows are told apart by what they say: their number is SQLite's own affair."""


def kept() -> Sequence[Table]:
    """Return every table whose rows carry a digest, those that others refer to first."""
    return [table for table in Base.metadata.sorted_tables if DIGEST in table.columns]


@cache
def covered(table: Table) -> tuple[Column[Any], ...]:
    """Return the columns of a table that its digest covers."""
    unsaid = {DIGEST, "id"} if table.name in COUNTED else {DIGEST}
    return tuple(column for column in table.columns if column.name not in unsaid)


@cache
def _ways(table: Table) -> tuple[tuple[str, Callable[[Any], Any]], ...]:
    """Return for each column that is covered how its values are written down."""
    ways: dict[type, Callable[[Any], Any]] = {Boolean: int, Float: float, Moment: _stamp}
    return tuple(
        (
            column.name,
            next((way for kind, way in ways.items() if isinstance(column.type, kind)), _as_it_is),
        )
        for column in covered(table)
    )


def _as_it_is(value: Any) -> Any:
    return value


def _stamp(value: Any) -> str:
    if isinstance(value, str):
        return value
    if not isinstance(value, datetime):
        raise TypeError(f"{value!r} is no time")
    aware = value if value.tzinfo is None else value.astimezone(UTC)
    return aware.strftime(STAMP)


def digest_of(table: Table, row: Mapping[str, Any]) -> str:
    """Return the digest of a row (SHA-256, hexadecimal).

    Parameters
    ----------
    table : Table
    row : mapping
        From column to value, as Python or as SQLite has it.

    Raises
    ------
    TypeError, ValueError
        Where a value is none of its column.
    """
    # The digests of revisions are older than those of the others.
    name = [] if table.name == "revision" else [table.name]
    # A row of an older version says nothing of what has been added since.
    values = ((way, row[column]) for column, way in _ways(table) if column in row)
    said = [*name, *(None if value is None else way(value) for way, value in values)]
    text = json.dumps(said, ensure_ascii=False)
    return hashlib.sha256(text.encode("utf-8", "surrogatepass")).hexdigest()


def as_python(column: Column[Any], value: Any) -> Any:
    """Return a value as a row is made of it.

    Raises
    ------
    ValueError
        Where it is none of its column.
    """
    if value is None:
        return None
    if isinstance(column.type, Moment):
        return datetime.strptime(value, STAMP).replace(tzinfo=UTC)
    if isinstance(column.type, Boolean):
        return bool(value)
    return float(value) if isinstance(column.type, Float) else value


UNNUMBERED = frozenset({"class_set", "class_mark"})
"""Tables whose rows were once saved before they had their number: their digests say none."""


def is_sound(table: Table, row: Mapping[str, Any]) -> bool:
    """Tell whether a row is what was saved."""
    said = [row, {**row, "id": None}] if table.name in UNNUMBERED else [row]
    try:
        return any(digest_of(table, each) == row[DIGEST] for each in said)
    except (TypeError, ValueError):
        return False


def table_of(row: Base) -> Table:
    """Return the table a row is of."""
    return cast(Table, inspect(type(row)).local_table)


@event.listens_for(Base, "before_insert", propagate=True)
@event.listens_for(Base, "before_update", propagate=True)
def _digest(_: object, __: object, row: Base) -> None:
    table = table_of(row)
    if DIGEST in table.columns:
        values = {column.name: getattr(row, column.name) for column in covered(table)}
        setattr(row, DIGEST, digest_of(table, values))
