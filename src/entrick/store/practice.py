"""Answers given in practice: written once, read as a whole, forgotten when asked to."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from .about import count
from .models import FIRST, PracticeRow

MOST_ANSWERS = 20_000
"""Answers that are looked back at, the last ones."""


@dataclass(frozen=True, slots=True)
class AnswerView:
    """An answer as it is kept: with `uid` it is taken once, however often it is sent."""

    uid: str
    at: datetime
    part: str
    rule: str
    share: float
    slips: tuple[str, ...]
    chances: tuple[str, ...]
    hints: int = 0
    rehearsed: bool = False
    whose: int = FIRST


def put_answer(session: Session, answer: AnswerView) -> None:
    """Keep an answer; one that is known already is left alone."""
    if session.scalar(select(PracticeRow.id).where(PracticeRow.uid == answer.uid)) is not None:
        return
    session.add(
        PracticeRow(
            uid=answer.uid,
            answered_at=answer.at,
            part=answer.part,
            rule=answer.rule,
            share=answer.share,
            slips="\n".join(answer.slips),
            chances="\n".join(answer.chances),
            hints=answer.hints,
            rehearsed=answer.rehearsed,
            person_id=answer.whose,
        )
    )


def list_answers(session: Session, whose: int = FIRST) -> list[AnswerView]:
    """Return what a person answered, in order."""
    own = select(PracticeRow).where(PracticeRow.person_id == whose)
    rows = session.scalars(own.order_by(PracticeRow.id.desc()).limit(MOST_ANSWERS)).all()
    return [
        AnswerView(
            row.uid,
            row.answered_at,
            row.part,
            row.rule,
            row.share,
            tuple(filter(None, row.slips.split("\n"))),
            tuple(filter(None, row.chances.split("\n"))),
            row.hints,
            row.rehearsed,
            row.person_id,
        )
        for row in reversed(rows)
    ]


def forget_answers(session: Session, whose: int = FIRST) -> None:
    """Take every answer of a person away."""
    taken = session.execute(delete(PracticeRow).where(PracticeRow.person_id == whose))
    count(session, PracticeRow.__tablename__, -taken.rowcount)  # type: ignore[attr-defined]
