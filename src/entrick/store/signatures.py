"""Signatures: who checked and who approved a revision."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.office import SignedAs, Standing, check_signing
from .jobs import one_job, one_revision
from .models import SignatureRow
from .people import is_alone


@dataclass(frozen=True, slots=True)
class Signature:
    """A signature under a revision, by the number of who gave it."""

    number: int
    signed_as: SignedAs
    who: int
    at: datetime


def sign(session: Session, job_id: int, number: int, what: SignedAs, who: int) -> Signature:
    """Sign a revision.

    Raises
    ------
    UnknownJob, NotToBeSigned
    """
    check_signing(what, who, standing(session, job_id, number), is_alone(session))
    row = SignatureRow(
        job_id=job_id,
        number=number,
        signed_as=what,
        signed_at=datetime.now(UTC),
        person_id=who,
    )
    session.add(row)
    session.flush()
    return _view(row)


def standing(session: Session, job_id: int, number: int) -> Standing:
    """Return how a revision stands.

    Raises
    ------
    UnknownJob
    """
    revision = one_revision(session, job_id, number)
    there = [each.signed_as for each in signatures(session, job_id) if each.number == number]
    newest = one_job(session, job_id).newest.number
    return Standing(revision.saved_by, number, newest, there)


def signatures(session: Session, job_id: int) -> list[Signature]:
    """Return every signature under the revisions of a job."""
    rows = select(SignatureRow).where(SignatureRow.job_id == job_id).order_by(SignatureRow.id)
    return [_view(row) for row in session.scalars(rows)]


def keep_signatures(session: Session, job_id: int, found: Iterable[Signature]) -> None:
    """Put down signatures that came with a job."""
    for each in found:
        session.add(
            SignatureRow(
                job_id=job_id,
                number=each.number,
                signed_as=each.signed_as,
                signed_at=each.at,
                person_id=each.who,
            )
        )
    session.flush()


def _view(row: SignatureRow) -> Signature:
    return Signature(row.number, cast(SignedAs, row.signed_as), row.person_id, row.signed_at)
