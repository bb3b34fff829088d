"""Who may come in: the code of the door, devices and who works at them, and wrong guesses counted.

All of it stands in the database, so that every process that serves the register knows it."""

from __future__ import annotations

import hashlib
import secrets
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from .models import DeviceRow, DoorRow, GuesserRow

FIGURES = 6

TRIES = 5
"""Wrong guesses after which whoever made them waits."""

WAIT = 60.0
"""Seconds they wait then; twice as long each time it comes to that again."""

LASTS = 600.0
"""Seconds a code is good for."""

GUESSES = 30
"""Wrong codes from anywhere after which there is another code."""

MOST_GUESSERS = 1000
"""Guessers that are counted; of more the oldest are forgotten, and the code changes before that
helps anybody."""

FORGOTTEN = timedelta(days=1)
"""After which a guesser who came no more is forgotten."""

MOST_DEVICES = 5000

SIGNED_IN = timedelta(hours=12)
"""How long somebody works at a device without being asked again; begun anew while they do."""

KEPT = timedelta(days=60)
"""Days after which a device that was not here any more is forgotten."""

FRESH = timedelta(minutes=5)
"""How old what is known of a device may be before it is put down anew."""


@dataclass(frozen=True, slots=True)
class Device:
    """A browser that was let in, and who works at it."""

    key: str
    name: str
    address: str
    let_in: bool
    came_at: datetime
    seen_at: datetime
    person: int | None


@dataclass(frozen=True, slots=True)
class Door:
    """The code that is good now, for how many seconds yet, and what there was of wrong ones."""

    code: str
    seconds: int
    wrong: int
    last: str


class Waits(Exception):
    """Too many wrong guesses: nothing is looked at for some seconds, whatever is said."""

    def __init__(self, seconds: float, what: str) -> None:
        super().__init__(f"too many wrong {what}: wait {seconds:.0f} seconds")
        self.seconds = seconds


# The door.


def the_door(session: Session, now: datetime) -> Door:
    """Return the code that is good now; another where the last has come to its end."""
    row = _door(session, now)
    seconds = max(0, round((row.until - now).total_seconds()))
    return Door(row.code, seconds, row.wrong, row.last)


def renew_code(session: Session, now: datetime) -> None:
    """Take another code, good from now on."""
    _renew(_door(session, now), now)


def is_code(session: Session, code: str, address: str, now: datetime) -> bool:
    """Tell whether a code is the right one; wrong ones are counted by address.

    Raises
    ------
    Waits
    """
    who = f"address {address}"
    check_waiting(session, who, "codes", now)
    row = _door(session, now)
    if secrets.compare_digest(code.encode(), row.code.encode()):
        forgive(session, who)
        return True
    note_wrong(session, who, now)
    row.wrong, row.last, row.guesses = row.wrong + 1, address, row.guesses + 1
    if row.guesses >= GUESSES:
        _renew(row, now)
    return False


def _door(session: Session, now: datetime) -> DoorRow:
    row = session.get(DoorRow, 1)
    if row is None:
        row = DoorRow(id=1, code="", until=now, guesses=0, wrong=0, last="")
        session.add(row)
    if row.until <= now:
        _renew(row, now)
    session.flush()
    return row


def _renew(row: DoorRow, now: datetime) -> None:
    row.code = f"{secrets.randbelow(10**FIGURES):0{FIGURES}}"
    row.until, row.guesses = now + timedelta(seconds=LASTS), 0


# Guessers.


def check_waiting(session: Session, who: str, what: str, now: datetime) -> None:
    """Refuse whoever has guessed wrong too often a moment ago.

    Raises
    ------
    Waits
    """
    row = session.get(GuesserRow, who)
    if row is not None and row.until > now:
        raise Waits((row.until - now).total_seconds(), what)


def note_wrong(session: Session, who: str, now: datetime) -> None:
    """Count a wrong guess."""
    row = session.get(GuesserRow, who)
    if row is None:
        row = GuesserRow(who=who, wrong=0, times=0, until=now, seen_at=now)
        session.add(row)
    row.wrong, row.seen_at = row.wrong + 1, now
    if row.wrong >= TRIES:
        row.wrong, row.times = 0, row.times + 1
        row.until = now + timedelta(seconds=WAIT * 2 ** min(row.times - 1, 10))
    session.flush()
    session.execute(delete(GuesserRow).where(GuesserRow.seen_at < now - FORGOTTEN))
    there = session.scalar(select(func.count()).select_from(GuesserRow)) or 0
    if there > MOST_GUESSERS:
        oldest = select(GuesserRow.who).order_by(GuesserRow.seen_at).limit(there - MOST_GUESSERS)
        session.execute(delete(GuesserRow).where(GuesserRow.who.in_(oldest)))


def forgive(session: Session, who: str) -> None:
    """Count anew: what was said was right."""
    session.execute(delete(GuesserRow).where(GuesserRow.who == who))


# Devices.


def let_in(session: Session, name: str, address: str, by_code: bool, now: datetime) -> str:
    """Let a device in, and return what its cookie is to say."""
    token = secrets.token_urlsafe(32)
    session.execute(delete(DeviceRow).where(DeviceRow.seen_at < now - KEPT))
    there = session.scalar(select(func.count()).select_from(DeviceRow)) or 0
    if there >= MOST_DEVICES:
        oldest = select(DeviceRow.id).order_by(DeviceRow.seen_at).limit(there - MOST_DEVICES + 1)
        session.execute(delete(DeviceRow).where(DeviceRow.id.in_(oldest)))
    session.add(
        DeviceRow(
            key=secrets.token_hex(16),
            token=_hashed(token),
            name=name[:60],
            address=address[:60],
            let_in=by_code,
            came_at=now,
            seen_at=now,
            person_id=None,
            until=None,
        )
    )
    session.flush()
    return token


def device_of(session: Session, token: str | None, now: datetime) -> Device | None:
    """Return the device a cookie belongs to, with who works at it now; None where none does."""
    row = _device(session, token)
    return None if row is None else _view(row, now)


def is_stale(device: Device, now: datetime) -> bool:
    """Tell whether it is to be put down again that a device was here."""
    return now - device.seen_at > FRESH


def seen(session: Session, token: str, now: datetime) -> None:
    """Put down that a device was here; who works at it goes on doing so."""
    row = _device(session, token)
    if row is not None:
        row.seen_at = now
        if row.until is not None and row.until > now:
            row.until = now + SIGNED_IN


def sign_in(session: Session, token: str, person: int | None, now: datetime) -> str:
    """Put down who works at a device from now on, None for nobody, and return what its cookie is to
    say from now on: what it said before may be known to somebody else."""
    row = _device(session, token)
    if row is None:
        return token
    fresh = secrets.token_urlsafe(32)
    row.token, row.seen_at = _hashed(fresh), now
    row.person_id, row.until = person, now + SIGNED_IN if person is not None else None
    return fresh


def devices(session: Session, now: datetime) -> list[Device]:
    """Return every device that was let in, the last seen first."""
    rows = session.scalars(select(DeviceRow).order_by(DeviceRow.seen_at.desc(), DeviceRow.id))
    return [_view(row, now) for row in rows]


def send_away(session: Session, key: str) -> None:
    """Let a device in no more, unless it comes in anew."""
    session.execute(delete(DeviceRow).where(DeviceRow.key == key))


def _device(session: Session, token: str | None) -> DeviceRow | None:
    if not token or len(token) > 200:
        return None
    return session.scalar(select(DeviceRow).where(DeviceRow.token == _hashed(token)))


def _hashed(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def _view(row: DeviceRow, now: datetime) -> Device:
    works = row.until is not None and row.until > now
    person = row.person_id if works else None
    return Device(row.key, row.name, row.address, row.let_in, row.came_at, row.seen_at, person)
