"""What a register knows of itself: its own name, by which browsers tell it from others, and how
many rows every table holds, so that it shows when some are missing."""

from __future__ import annotations

import uuid
from collections import Counter

from sqlalchemy import event, func, select
from sqlalchemy.orm import Session

from .digest import DIGEST, kept, table_of
from .models import About, Base

NAME = "name"
ROWS = "rows of "

_COUNTS = "entrick.counts"


def counted() -> list[str]:
    """Return the names of the tables whose rows are counted."""
    return [table.name for table in kept() if table.name != About.__tablename__]


def name_of(session: Session) -> str:
    """Return the name of a register, which no other has."""
    row = session.get(About, NAME)
    return row.said if row else ""


def begin_about(session: Session, name: str = "") -> None:
    """Give a register its name, and count what is there, where that has not been done."""
    said = set(session.scalars(select(About.name)))
    if NAME not in said:
        session.add(About(name=NAME, said=name or uuid.uuid4().hex))
    for table in kept():
        if table.name in counted() and ROWS + table.name not in said:
            there = session.scalar(select(func.count()).select_from(table)) or 0
            session.add(About(name=ROWS + table.name, said=str(there)))
    session.flush()


def count(session: Session, table: str, more: int) -> None:
    """Note that a table has so many rows more; those that are added and taken away one by one are
    noted by themselves."""
    session.info.setdefault(_COUNTS, Counter())[table] += more


@event.listens_for(Session, "after_flush")
def _count(session: Session, _: object) -> None:
    for rows, more in ((session.new, 1), (session.deleted, -1)):
        for row in rows:
            if isinstance(row, Base) and not isinstance(row, About):
                table = table_of(row)
                if DIGEST in table.columns:
                    count(session, table.name, more)


@event.listens_for(Session, "before_commit")
def _write_counts(session: Session) -> None:
    session.flush()
    counts: Counter[str] = session.info.pop(_COUNTS, Counter())
    for table, more in counts.items():
        row = session.get(About, ROWS + table)
        if row is not None and more:
            row.said = str(int(row.said) + more)
    session.flush()


@event.listens_for(Session, "after_rollback")
def _forget_counts(session: Session) -> None:
    session.info.pop(_COUNTS, None)
