"""What everybody did since some day, for whoever runs the office: sittings, answers, saves, and
what waits to be checked."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import and_, exists, func, select
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
    sittings = dict(
        session.execute(
            select(SittingRow.person_id, func.count())
            .where(
                SittingRow.started_at >= since,
                SittingRow.rehearsed.is_(False),
                SittingRow.removed_at.is_(None),
            )
            .group_by(SittingRow.person_id)
        )
        .tuples()
        .all()
    )
    answers = {
        who: (count, share)
        for who, count, share in session.execute(
            select(PracticeRow.person_id, func.count(), func.avg(PracticeRow.share))
            .where(PracticeRow.answered_at >= since, PracticeRow.rehearsed.is_(False))
            .group_by(PracticeRow.person_id)
        )
    }
    saved = dict(
        session.execute(
            select(Revision.person_id, func.count())
            .where(Revision.saved_at >= since)
            .group_by(Revision.person_id)
        )
        .tuples()
        .all()
    )
    unchecked = dict(
        session.execute(
            select(Revision.person_id, func.count())
            .join(
                JobSummary,
                and_(JobSummary.job_id == Revision.job_id, JobSummary.number == Revision.number),
            )
            .where(
                JobSummary.archived.is_(False),
                ~exists().where(
                    SignatureRow.job_id == Revision.job_id,
                    SignatureRow.number == Revision.number,
                    SignatureRow.signed_as == "checked",
                ),
            )
            .group_by(Revision.person_id)
        )
        .tuples()
        .all()
    )
    found = {}
    for who in {*sittings, *answers, *saved, *unchecked}:
        count, share = answers.get(who, (0, 0.0))
        waits = unchecked.get(who, 0)
        found[who] = Week(sittings.get(who, 0), count, float(share), saved.get(who, 0), waits)
    return found
