"""Sets for a class, as they were made: papers and key, marked from when answers come back."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ..records import LARGEST_ID
from .models import FIRST, ClassSetRow

MOST_SETS = 500
"""Sets a register holds, those put away as well."""


class TooManySets(RuntimeError):
    """There are as many sets as a register holds."""


class UnknownSet(LookupError):
    """There is no such set in the register."""


@dataclass(frozen=True, slots=True)
class SetView:
    """A set as it is listed; its text is fetched by itself."""

    id: int
    title: str
    students: int
    made_at: datetime
    removed: bool
    whose: int


def _view(row: ClassSetRow) -> SetView:
    removed = row.removed_at is not None
    return SetView(row.id, row.title, row.students, row.made_at, removed, row.person_id)


def list_sets(session: Session, whose: int = FIRST) -> list[SetView]:
    """Return every set of a person, last made first."""
    own = select(ClassSetRow).where(ClassSetRow.person_id == whose)
    return [_view(row) for row in session.scalars(own.order_by(ClassSetRow.id.desc()))]


def add_set(session: Session, title: str, students: int, text: str, whose: int = FIRST) -> SetView:
    """Keep a set of whoever made it.

    Raises
    ------
    TooManySets
    """
    if (session.scalar(select(func.count(ClassSetRow.id))) or 0) >= MOST_SETS:
        raise TooManySets(f"a register holds at most {MOST_SETS} sets")
    row = ClassSetRow(
        # The digest covers the number: it is not left to the database.
        id=(session.scalar(select(func.max(ClassSetRow.id))) or 0) + 1,
        title=title,
        students=students,
        text=text,
        made_at=datetime.now(UTC),
        person_id=whose,
    )
    session.add(row)
    session.flush()
    return _view(row)


def set_text(session: Session, set_id: int) -> str:
    """Return a set as it was made.

    Raises
    ------
    UnknownSet
    """
    return _row(session, set_id).text


def put_set_away(session: Session, set_id: int, removed: bool) -> SetView:
    """Put a set away, or back."""
    row = _row(session, set_id)
    row.removed_at = datetime.now(UTC) if removed else None
    session.flush()
    return _view(row)


def owner_of_set(session: Session, set_id: int) -> int:
    """Return whose a set is.

    Raises
    ------
    UnknownSet
    """
    return _row(session, set_id).person_id


def _row(session: Session, set_id: int) -> ClassSetRow:
    row = session.get(ClassSetRow, set_id) if set_id <= LARGEST_ID else None
    if row is None:
        raise UnknownSet(f"there is no set {set_id} in the register")
    return row
