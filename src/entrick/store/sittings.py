"""Sittings at the board: begun by a device, events appended by number and taken once, removed and
taken back."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass
from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from ..core.logbook.sitting import Event, Kind
from ..records import MOST_EVENTS, EventRecord, OrderRecord, SittingRecord, readable
from .jobs import UnknownJob, one_job, one_revision
from .models import FIRST, EventRow, JobOrder, SittingRow


class EventsDiffer(RuntimeError):
    """A device sends another event under a number that is taken: both are kept, where they are."""


@dataclass(frozen=True, slots=True)
class SittingView:
    """A sitting with what happened."""

    uid: str
    job: int
    revision: int
    schedule: str
    kit: str
    started_at: datetime
    rehearsed: bool
    removed: bool
    events: tuple[Event, ...]
    whose: int


def begin(  # noqa: PLR0913
    session: Session,
    uid: str,
    job_id: int,
    revision: int,
    schedule: str,
    started_at: datetime | None = None,
    rehearsed: bool = False,
    kit: str = "",
    whose: int = FIRST,
) -> SittingView:
    """Begin a sitting; one that is known already, as the answer got lost, is returned as it is.

    Raises
    ------
    UnknownJob
        There is no such job, or no such revision of it.
    EventsDiffer
        The name is that of somebody else's sitting.
    """
    row = session.scalar(select(SittingRow).where(SittingRow.uid == uid))
    if row is None:
        one_revision(session, job_id, revision)
        row = SittingRow(
            id=(session.scalar(select(func.max(SittingRow.id))) or 0) + 1,
            uid=uid,
            job_id=job_id,
            revision=revision,
            schedule=schedule,
            kit=kit,
            rehearsed=rehearsed,
            removed_at=None,
            started_at=started_at or datetime.now(UTC),
            person_id=whose,
        )
        session.add(row)
        session.flush()
    if row.person_id != whose:
        raise EventsDiffer("somebody else has begun a sitting under this name; begin another")
    return _view(row, _events(session, [row.id]).get(row.id, ()))


def append(session: Session, uid: str, events: Iterable[Event]) -> SittingView:
    """Append events to a sitting; what has been taken already is left alone.

    Raises
    ------
    UnknownJob
        There is no such sitting.
    EventsDiffer
        Another event stands under one of the numbers: another device works at the same sitting.
        Nothing is taken.
    """
    row = _row(session, uid)
    there = {event.number: event for event in _events(session, [row.id]).get(row.id, ())}
    fresh: dict[int, Event] = {}
    for event in events:
        known = there.get(event.number, fresh.get(event.number))
        if known is not None and known != event:
            raise EventsDiffer(
                f"event {event.number} of this sitting was recorded differently by another device"
            )
        if known is None:
            fresh[event.number] = event
    if len(there) + len(fresh) > MOST_EVENTS:
        raise EventsDiffer(f"a sitting holds at most {MOST_EVENTS} events; begin another")
    for event in fresh.values():
        EventRecord.model_validate(event)
    session.add_all(EventRow(sitting_id=row.id, **asdict(event)) for event in fresh.values())
    session.flush()
    return _view(row, tuple(sorted((there | fresh).values(), key=lambda event: event.number)))


def amend(
    session: Session, uid: str, kind: Kind, of: int, seconds: float, off: float, text: str
) -> SittingView:
    """Append a correction of an event, or that one is taken back, under the next number of a
    sitting.

    Raises
    ------
    UnknownJob
        There is no such sitting, or no such event in it.
    """
    row = _row(session, uid)
    there = {event.number: event for event in _events(session, [row.id]).get(row.id, ())}
    if of not in there:
        raise UnknownJob(f"there is no event {of} in this sitting")
    if max(there) >= MOST_EVENTS:
        raise EventsDiffer(f"a sitting holds at most {MOST_EVENTS} events; begin another")
    event = Event(max(there) + 1, kind, there[of].step, there[of].tool, seconds, off, text, of)
    return append(session, uid, [event])


def set_removed(session: Session, uid: str, removed: bool) -> None:
    """Take a sitting out of the logbook, or put it back."""
    _row(session, uid).removed_at = datetime.now(UTC) if removed else None


def one_sitting(session: Session, uid: str) -> SittingView:
    """Return a sitting.

    Raises
    ------
    UnknownJob
    """
    row = _row(session, uid)
    return _view(row, _events(session, [row.id]).get(row.id, ()))


@dataclass(frozen=True, slots=True)
class Logbook:
    """Sittings, the last first, and how many rows of them cannot be read any more."""

    sittings: list[SittingView]
    unread: int


def read_logbook(
    session: Session, job_id: int | None = None, removed: bool = False, whose: int | None = None
) -> Logbook:
    """Return sittings: all of them, or those of a job, or of a person."""
    chosen = select(SittingRow).order_by(SittingRow.started_at.desc(), SittingRow.id.desc())
    if job_id is not None:
        chosen = chosen.where(SittingRow.job_id == job_id)
    if whose is not None:
        chosen = chosen.where(SittingRow.person_id == whose)
    if not removed:
        chosen = chosen.where(SittingRow.removed_at.is_(None))
    every = session.scalars(chosen).all()
    rows = [row for row in every if readable(SittingRecord, row) is not None]
    events = _events(session, [row.id for row in rows])
    there = session.scalar(
        select(func.count())
        .select_from(EventRow)
        .where(EventRow.sitting_id.in_([row.id for row in rows]))
    )
    lost = (there or 0) - sum(map(len, events.values()))
    views = [_view(row, events.get(row.id, ())) for row in rows]
    return Logbook(views, len(every) - len(rows) + lost)


def list_sittings(
    session: Session, job_id: int | None = None, removed: bool = False, whose: int | None = None
) -> list[SittingView]:
    """Return the sittings of the logbook that can be read."""
    return read_logbook(session, job_id, removed, whose).sittings


def owner_of_sitting(session: Session, uid: str) -> int:
    """Return whose a sitting is.

    Raises
    ------
    UnknownJob
    """
    return _row(session, uid).person_id


def order_of(session: Session, job_id: int) -> OrderRecord:
    """Return in which order, and with which kit, a job is drawn."""
    row = session.get(JobOrder, job_id)
    return (row and readable(OrderRecord, row)) or OrderRecord()


def set_order(session: Session, job_id: int, **changed: str) -> None:
    """Keep in which order (`schedule`), or with which kit (`kit`, by name), a job is drawn.

    Raises
    ------
    UnknownJob
    """
    one_job(session, job_id)
    order = OrderRecord.model_validate(order_of(session, job_id).model_dump() | changed)
    session.merge(JobOrder(job_id=job_id, **order.model_dump()))


def state_of_sittings(session: Session, whose: int = FIRST) -> tuple[int, int, int]:
    """Return what changes whenever a person records, removes or takes back anything."""
    own = select(func.count(), func.count(SittingRow.removed_at))
    sittings, removed = session.execute(own.where(SittingRow.person_id == whose)).one()
    last = (
        select(func.max(EventRow.id))
        .join(SittingRow, SittingRow.id == EventRow.sitting_id)
        .where(SittingRow.person_id == whose)
    )
    return sittings, removed, session.scalar(last) or 0


def _row(session: Session, uid: str) -> SittingRow:
    row = session.scalar(select(SittingRow).where(SittingRow.uid == uid))
    if row is None:
        raise UnknownJob(f"there is no sitting {uid}")
    return row


def _events(session: Session, sittings: Sequence[int]) -> dict[int, tuple[Event, ...]]:
    found: dict[int, list[Event]] = {}
    # Rows as they are, not objects that could be changed: there are many of them.
    columns = [EventRow.sitting_id, *(getattr(EventRow, name) for name in EventRecord.model_fields)]
    wanted = select(*columns).where(EventRow.sitting_id.in_(sittings))
    for row in session.execute(wanted.order_by(EventRow.sitting_id, EventRow.number)):
        sitting_id, *values = row
        event = readable(EventRecord, dict(zip(EventRecord.model_fields, values, strict=True)))
        if event is not None:
            own = found.setdefault(sitting_id, [])
            own.append(Event(**event.model_dump()))
    return {sitting: tuple(events) for sitting, events in found.items()}


def _view(row: SittingRow, events: tuple[Event, ...]) -> SittingView:
    return SittingView(
        row.uid,
        row.job_id,
        row.revision,
        row.schedule,
        row.kit,
        row.started_at,
        row.rehearsed,
        row.removed_at is not None,
        events,
        row.person_id,
    )
