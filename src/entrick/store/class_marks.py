"""Marks of the sets of a class, as they were given: one for each student of a set, the last."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from .class_sets import UnknownSet
from .models import FIRST, ClassMarkRow, ClassSetRow


class UnknownMark(LookupError):
    """There is no such mark in the register."""


@dataclass(frozen=True, slots=True)
class MarkView:
    """The marks of one student: of each answer its rule, its share, the slip it showed, and, where
    it could not be read, what is told of it."""

    set_id: int
    student: str
    name: str
    marked_at: datetime
    answers: tuple[Mapping[str, Any], ...]


def _view(row: ClassMarkRow) -> MarkView:
    return MarkView(
        row.set_id, row.student, row.name, row.marked_at, tuple(json.loads(row.answers))
    )


def keep_marks(session: Session, set_id: int, students: Sequence[Mapping[str, Any]]) -> None:
    """Keep the marks of a set; a student's that are there already are given anew.

    Raises
    ------
    UnknownSet
    """
    if session.get(ClassSetRow, set_id) is None:
        raise UnknownSet(f"there is no set {set_id} in the register")
    now = datetime.now(UTC)
    for each in students:
        row = _row(session, set_id, each["student"])
        if row is None:
            number = (session.scalar(select(func.max(ClassMarkRow.id))) or 0) + 1
            row = ClassMarkRow(id=number, set_id=set_id, student=each["student"], first_at=now)
            session.add(row)
        row.name, row.marked_at = each["name"], now
        row.answers = json.dumps(each["answers"], ensure_ascii=False)
        session.flush()


def decide(session: Session, set_id: int, student: str, question: int, share: float) -> MarkView:
    """Give the mark of an answer that could not be read.

    Raises
    ------
    UnknownMark
    """
    row = _row(session, set_id, student)
    answers = json.loads(row.answers) if row is not None else []
    if row is None or not 1 <= question <= len(answers):
        raise UnknownMark(f"student {student} has no answer {question} in set {set_id}")
    answers[question - 1] |= {"share": share, "waits": ""}
    row.answers = json.dumps(answers, ensure_ascii=False)
    session.flush()
    return _view(row)


def marks_of(session: Session, set_id: int) -> list[MarkView]:
    """Return the marks of a set, in the order they came."""
    found = select(ClassMarkRow).where(ClassMarkRow.set_id == set_id).order_by(ClassMarkRow.id)
    return [_view(row) for row in session.scalars(found)]


def all_marks(session: Session, whose: int = FIRST) -> list[MarkView]:
    """Return the marks of every set of a person that is not put away, each with when it was first
    given."""
    found = (
        select(ClassMarkRow)
        .join(ClassSetRow, ClassSetRow.id == ClassMarkRow.set_id)
        .where(ClassSetRow.removed_at.is_(None), ClassSetRow.person_id == whose)
        .order_by(ClassMarkRow.first_at, ClassMarkRow.id)
    )
    views = []
    for row in session.scalars(found):
        view = _view(row)
        views.append(MarkView(view.set_id, view.student, view.name, row.first_at, view.answers))
    return views


def _row(session: Session, set_id: int, student: str) -> ClassMarkRow | None:
    return session.scalar(
        select(ClassMarkRow).where(ClassMarkRow.set_id == set_id, ClassMarkRow.student == student)
    )
