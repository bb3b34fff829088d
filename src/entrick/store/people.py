"""People: who works here, in which role, by which PIN or passphrase."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import cast

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from ..core.office import Role
from ..records import LARGEST_ID
from .about import count
from .models import (
    FIRST,
    ClassMarkRow,
    ClassSetRow,
    DeviceRow,
    EventRow,
    Job,
    KitRow,
    PersonRow,
    PracticeRow,
    SittingRow,
)

MOST_PEOPLE = 2000
SIGNS = (
    "circle",
    "square",
    "triangle",
    "diamond",
    "cross",
    "plus",
    "ring",
    "bar",
    "half",
    "hexagon",
)
"""Marks by which people are told apart without a colour."""


class UnknownPerson(LookupError):
    """There is no such person, or none any more."""


class NotSo(ValueError):
    """What cannot be done with a person; says why."""


@dataclass(frozen=True, slots=True)
class Person:
    """Somebody who works here; `left` where they do no more, `secret` the hash of their PIN."""

    id: int
    name: str
    initials: str
    sign: str
    role: Role
    secret: str
    left: bool

    @property
    def told(self) -> str:
        """What they are called: by name, or as who has left by initials."""
        return self.name or self.initials


def begin_people(session: Session) -> None:
    """Make the first person where nobody is, without a word: at a desk used alone nobody asks."""
    if session.get(PersonRow, FIRST) is None:
        session.add(_row(FIRST, "", "", "runs", SIGNS[0]))
        session.flush()


def everybody(session: Session, left: bool = False, most: int | None = None) -> list[Person]:
    """Return who works here, in the order in which they came, the first of so many; those who have
    left as well."""
    chosen = select(PersonRow).order_by(PersonRow.id).limit(most)
    if not left:
        chosen = chosen.where(PersonRow.left_at.is_(None))
    return [_view(row) for row in session.scalars(chosen)]


def one_person(session: Session, person_id: int) -> Person:
    """Return a person, also one who has left.

    Raises
    ------
    UnknownPerson
    """
    return _view(_found(session, person_id))


def called(session: Session, name: str) -> Person | None:
    """Return who works here and is called by a name, or by initials; None where nobody is."""
    small = name.strip().casefold()
    found = [
        each
        for each in everybody(session)
        if small and small in (each.name.casefold(), each.initials.casefold())
    ]
    return found[0] if found else None


def add_person(session: Session, name: str, initials: str, role: Role) -> Person:
    """Let somebody work here from now on.

    Raises
    ------
    NotSo
        Where there are too many, or the name or the initials are somebody else's.
    """
    there = everybody(session, left=True)
    if len(there) >= MOST_PEOPLE:
        raise NotSo(f"an office holds at most {MOST_PEOPLE} people, those who left among them")
    _check_names(there, name, initials)
    return come_in(session, name, initials, role)


def come_in(session: Session, name: str, initials: str, role: Role, left: bool = False) -> Person:
    """Put down somebody as they are told elsewhere, also who has left there."""
    number = (session.scalar(select(func.max(PersonRow.id))) or 0) + 1
    row = _row(number, name, initials, role, SIGNS[(number - 1) % len(SIGNS)])
    row.left_at = datetime.now(UTC) if left else None
    session.add(row)
    session.flush()
    return _view(row)


def change_person(
    session: Session,
    person_id: int,
    name: str | None = None,
    initials: str | None = None,
    sign: str | None = None,
) -> Person:
    """Put down anew what somebody is called.

    Raises
    ------
    UnknownPerson, NotSo
    """
    row = _here(session, person_id)
    others = [each for each in everybody(session, left=True) if each.id != person_id]
    _check_names(others, name or "", initials or "")
    row.name = name if name is not None else row.name
    row.initials = initials if initials is not None else row.initials
    row.sign = sign if sign is not None else row.sign
    session.flush()
    return _view(row)


def give_role(session: Session, person_id: int, role: Role) -> Person:
    """Give somebody a role.

    Raises
    ------
    UnknownPerson, NotSo
        Where nobody would run the office any more.
    """
    row = _here(session, person_id)
    if role != "runs":
        _check_run(session, person_id)
    row.role = role
    session.flush()
    return _view(row)


def set_secret(session: Session, person_id: int, secret: str) -> None:
    """Keep the hash of somebody's PIN or passphrase, empty for none; whoever came in by the last
    has to say the new one."""
    _here(session, person_id).secret = secret
    session.execute(
        update(DeviceRow).where(DeviceRow.person_id == person_id).values(person_id=None, until=None)
    )
    session.flush()


def take_out(session: Session, person_id: int) -> None:
    """Let somebody work here no more: jobs and signatures stay, by initials; logbook, practice and
    kits, which nobody else may see, are taken away.

    Raises
    ------
    UnknownPerson, NotSo
    """
    row = _here(session, person_id)
    _check_run(session, person_id)
    session.execute(
        update(DeviceRow).where(DeviceRow.person_id == person_id).values(person_id=None, until=None)
    )
    for job in session.scalars(select(Job).where(Job.person_id == person_id)):
        job.person_id = None
    _take_things(session, person_id)
    row.name, row.secret, row.left_at = "", "", datetime.now(UTC)
    session.flush()


def _take_things(session: Session, person_id: int) -> None:
    """Take away what a person alone may see."""
    sittings = select(SittingRow.id).where(SittingRow.person_id == person_id)
    sets = select(ClassSetRow.id).where(ClassSetRow.person_id == person_id)
    for model, wanted in (
        (EventRow, EventRow.sitting_id.in_(sittings)),
        (SittingRow, SittingRow.person_id == person_id),
        (PracticeRow, PracticeRow.person_id == person_id),
        (KitRow, KitRow.person_id == person_id),
        (ClassMarkRow, ClassMarkRow.set_id.in_(sets)),
        (ClassSetRow, ClassSetRow.person_id == person_id),
    ):
        taken = session.execute(delete(model).where(wanted))
        count(session, model.__tablename__, -taken.rowcount)  # type: ignore[attr-defined]


def is_alone(session: Session) -> bool:
    """Tell whether one person works here, and nothing is to be asked or said of people."""
    here = select(func.count()).select_from(PersonRow).where(PersonRow.left_at.is_(None))
    return (session.scalar(here) or 0) <= 1


def _check_names(others: list[Person], name: str, initials: str) -> None:
    for message, own, taken in (
        ("name", name, [each.name for each in others]),
        ("initials", initials, [each.initials for each in others]),
    ):
        if own and own.casefold() in (each.casefold() for each in taken):
            raise NotSo(
                f"somebody has the {message} {own} already: drawings could not be told apart"
            )


def _check_run(session: Session, person_id: int) -> None:
    running = select(PersonRow.id).where(
        PersonRow.role == "runs", PersonRow.left_at.is_(None), PersonRow.id != person_id
    )
    if session.scalar(running.limit(1)) is None:
        raise NotSo("somebody has to run the office: give another that role first")


def _found(session: Session, person_id: int) -> PersonRow:
    row = session.get(PersonRow, person_id) if 0 < person_id <= LARGEST_ID else None
    if row is None:
        raise UnknownPerson(f"there is no person {person_id} in this office")
    return row


def _here(session: Session, person_id: int) -> PersonRow:
    row = _found(session, person_id)
    if row.left_at is not None:
        raise UnknownPerson(f"{row.initials} works here no more")
    return row


def _row(number: int, name: str, initials: str, role: Role, sign: str) -> PersonRow:
    return PersonRow(
        id=number,
        name=name,
        initials=initials,
        sign=sign,
        role=role,
        secret="",
        joined_at=datetime.now(UTC),
        left_at=None,
    )


def _view(row: PersonRow) -> Person:
    role = cast(Role, row.role)
    gone = row.left_at is not None
    return Person(row.id, row.name, row.initials, row.sign, role, row.secret, gone)
