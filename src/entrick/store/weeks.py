"""What everybody did since some day, for whoever runs the office: sittings, answers, saves, and
what waits to be checked."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import ColumnElement, exists, func, select
from sqlalchemy.orm import Session

from .models import JobSummary, PracticeRow, Revision, SignatureRow, SittingRow


@dataclass(frozen=True, slots=True)
class Week:
    """What a person did: sittings at the board, answers in practice and the share that was right,
    revisions saved, and how many of their newest nobody has checked."""

    sittings: int = 0
    answers: int = 0
    share: float = 0.0
    saved: int = 0
    unchecked: int = 0


def weeks(session: Session, since: datetime) -> dict[int, Week]:
    """Return what everybody did since some moment, by number; who did nothing is not there.
    Rehearsed things nobody did."""

    def counted(of: type[SittingRow | Revision], *wanted: ColumnElement[bool]) -> dict[int, int]:
        rows = select(of.person_id, func.count()).where(*wanted).group_by(of.person_id)
        return {row[0]: row[1] for row in session.execute(rows)}

    answered = (
        select(PracticeRow.person_id, func.count(), func.avg(PracticeRow.share))
        .where(PracticeRow.answered_at >= since, PracticeRow.rehearsed.is_(False))
        .group_by(PracticeRow.person_id)
    )
    answers = {row[0]: (row[1], float(row[2])) for row in session.execute(answered)}
    sittings = counted(
        SittingRow,
        SittingRow.started_at >= since,
        SittingRow.rehearsed.is_(False),
        SittingRow.removed_at.is_(None),
    )
    saved = counted(Revision, Revision.saved_at >= since)
    unchecked = counted(
        Revision,
        exists().where(
            JobSummary.job_id == Revision.job_id,
            JobSummary.number == Revision.number,
            JobSummary.archived.is_(False),
        ),
        ~exists().where(
            SignatureRow.job_id == Revision.job_id,
            SignatureRow.number == Revision.number,
            SignatureRow.signed_as == "checked",
        ),
    )
    return {
        who: Week(
            sittings.get(who, 0),
            *answers.get(who, (0, 0.0)),
            saved.get(who, 0),
            unchecked.get(who, 0),
        )
        for who in {*sittings, *answers, *saved, *unchecked}
    }
