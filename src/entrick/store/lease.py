"""What one process of several does alone: whoever holds the lease does it, the others wait until it
has run out."""

from __future__ import annotations

from datetime import datetime, timedelta

from sqlalchemy.orm import Session

from .models import About

LEASE = "lease of "


def take_lease(session: Session, what: str, who: str, now: datetime, lasts: timedelta) -> bool:
    """Take a lease, or hold it for longer; tell whether it is had.

    Parameters
    ----------
    session : Session
        A writing one.
    what : str
        What is done alone.
    who : str
        A name no other process has.
    now : datetime
    lasts : timedelta
        After which another may take it, unless it is held for longer.
    """
    row = session.get(About, LEASE + what)
    if row is not None:
        holder, _, until = row.said.partition(" ")
        if holder != who and datetime.fromisoformat(until) > now:
            return False
    holding = f"{who} {(now + lasts).isoformat()}"
    if row is None:
        session.add(About(name=LEASE + what, said=holding))
    else:
        row.said = holding
    session.flush()
    return True
