"""Registers as older versions of the desk left them: their own tables, with rows and digests written by hand."""

import hashlib
import json
import sqlite3
from collections.abc import Mapping
from contextlib import closing
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine

from entrick.store.soundness import MIGRATIONS

AT = "2026-03-02 08:30:00.000000"
TEXT = "O = datum\nc = circle, centre O, radius 12\n"
KIT = "pencil 0.5\n"

ROWS: list[tuple[str, str, dict[str, Any], tuple[str, ...]]] = [
    ("0001", "job", {"id": 4, "created_at": AT, "archived_at": None}, ()),
    (
        "0001",
        "revision",
        {
            "id": 9,
            "job_id": 4,
            "number": 1,
            "based_on": None,
            "text": TEXT,
            "note": "",
            "saved_at": AT,
        },
        ("id",),
    ),
    (
        "0004",
        "sitting",
        {
            "id": 1,
            "uid": "aaaaaaaa",
            "job_id": 4,
            "revision": 1,
            "schedule": "written",
            "started_at": AT,
            "rehearsed": 0,
            "removed_at": None,
            "kit": "",
        },
        (),
    ),
    ("0003", "kit", {"name": "own", "text": "", "usual": 1}, ()),
    (
        "0005",
        "practice_answer",
        {
            "id": 3,
            "uid": "bbbbbbbb",
            "answered_at": AT,
            "part": "OY-001",
            "rule": "sum",
            "share": 1.0,
            "slips": "",
            "chances": "",
            "hints": 0,
            "rehearsed": 0,
        },
        ("id",),
    ),
    (
        "0007",
        "class_set",
        {
            "id": 2,
            "title": "Week 1",
            "students": 3,
            "text": "{}",
            "made_at": AT,
            "removed_at": None,
        },
        (),
    ),
]
"""From which version on there is such a row, its table, what it says, and what its digest does not cover."""


def older_register(path: Path, version: str, more: int = 0) -> None:
    """Make a register as a version of the desk left it: one job, and whatever that version kept besides; with so many
    revisions more."""
    engine = create_engine(f"sqlite:///{path}")
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.connect() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, version)
    engine.dispose()
    with closing(sqlite3.connect(path)) as connection:
        revision = ROWS[1][2]
        numbered = [{**revision, "id": 9 + n, "number": 1 + n} for n in range(1, more + 1)]
        for since, table, row, uncovered in [
            *ROWS,
            *(("0001", "revision", each, ("id",)) for each in numbered),
        ]:
            if version < since:
                continue
            digests = "0002" if table == "revision" else "0006"
            said = dict(row)
            if version >= digests:
                # Sets and marks were signed before they had a number; of others it was left out.
                numberless = {**row, "id": None} if table.startswith("class") else row
                said["digest"] = _digest(table, numberless, uncovered)
            names = ", ".join(f'"{name}"' for name in said)
            marks = ", ".join("?" * len(said))
            connection.execute(f"INSERT INTO {table} ({names}) VALUES ({marks})", [*said.values()])
        connection.commit()


def _digest(table: str, row: Mapping[str, Any], uncovered: tuple[str, ...]) -> str:
    covered = [value for name, value in row.items() if name not in uncovered]
    said = [*([] if table == "revision" else [table]), *covered]
    return hashlib.sha256(json.dumps(said, ensure_ascii=False).encode()).hexdigest()
