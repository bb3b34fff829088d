"""People: who works here, who may come in, who signed what."""

from __future__ import annotations

import io
import zipfile
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from secrets import token_urlsafe
from typing import Annotated, Literal

from flask import g, request
from pydantic import Field

from ... import store
from ...core.office import NOBODY, ROLES, Role, deeds_of
from ...records import AskedNumber
from ...store import doors
from ...store.people import SIGNS
from ..answer import Answer, Refused
from ..base import Asked, Crossing
from ..http.pairing import COOKIE
from ..http.who import behind_a_proxy, here, me, sign_in
from ..operation import Operations
from ..secrets import hashed, is_right
from .saved import committed, the_store

Name = Annotated[str, Field(min_length=1, max_length=80, pattern=r"^\S[^\r\n]*$")]
Initials = Annotated[str, Field(min_length=1, max_length=6, pattern=r"^[^\s\"']+$")]
Secret = Annotated[str, Field(max_length=200)]


class PersonOut(Crossing):
    """Somebody who works here; `secret` where they say a PIN or passphrase to come in."""

    id: int
    name: str
    initials: str
    sign: str
    role: Role
    secret: bool
    left: bool


class RoleOut(Crossing):
    """A role: what it is called, and what it does."""

    key: Role
    told: str
    about: str


class HereOut(Crossing):
    """Who works here. `alone` where there is one person, and nothing is to be asked or said of
    people; `asks` where a PIN or passphrase is asked for; `you` is nought for nobody; `may` is
    what they may do at all."""

    alone: bool
    asks: bool
    you: int
    may: tuple[str, ...]
    roles: tuple[RoleOut, ...]
    people: tuple[PersonOut, ...]


class PersonPath(Asked):
    """A person by number."""

    person_id: AskedNumber


class SignInIn(Asked):
    """Who works here from now on, by number or by name or initials, and their PIN or passphrase
    where one is asked for."""

    person: AskedNumber | None = None
    called: Annotated[str, Field(max_length=80)] = ""
    secret: Secret = ""


class NewPersonIn(Asked):
    """Somebody who is to work here."""

    name: Name
    initials: Initials
    role: Role = "draws"


class ChangedPersonIn(Asked):
    """What somebody is called from now on; what is not said stays."""

    name: Name | None = None
    initials: Initials | None = None
    sign: Literal[SIGNS] | None = None  # type: ignore[valid-type]


class RoleIn(Asked):
    """The role somebody has from now on."""

    role: Role


class SecretIn(Asked):
    """The PIN or passphrase somebody says from now on."""

    secret: Secret


class OfficeDeviceOut(Crossing):
    """A browser that was let in: since when, when it was last here, who works at it."""

    key: str
    name: str
    address: str
    came_at: datetime
    seen_at: datetime
    person: str


class OfficeDevicesOut(Crossing):
    """Every browser that was let in, the last seen first."""

    devices: tuple[OfficeDeviceOut, ...]


class PersonWeekOut(Crossing):
    """What a person did in the last seven days; how many of their newest revisions nobody has
    checked."""

    person: int
    sittings: int
    answers: int
    share: float
    saved: int
    unchecked: int


class WeekOfAllOut(Crossing):
    """What everybody did in the last seven days."""

    people: tuple[PersonWeekOut, ...]


class OfficeDevicePath(Asked):
    """A browser that was let in."""

    key: Annotated[str, Field(pattern=r"^[0-9a-f]{32}$")]


people = Operations()


def shown(person: store.Person) -> PersonOut:
    """Return what is shown of a person: never more of a PIN than that there is one."""
    return PersonOut.from_core(person, secret=bool(person.secret))


@people.get("/people/here", deed="see who works here")
def who_works_here() -> HereOut:
    """Return who works here, and everybody who could: behind a proxy only to who has come in."""
    found = here()
    with the_store().reading() as session:
        told = found.person is not None or not behind_a_proxy()
        every = store.everybody(session) if told else []
    return HereOut(
        alone=found.alone,
        asks=not g.at_the_desk,
        you=found.id,
        may=deeds_of(found.role),
        roles=tuple(
            RoleOut(key=key, told=told, about=about) for key, (told, about) in ROLES.items()
        ),
        people=tuple(map(shown, every)),
    )


@people.post("/people/here", deed="see who works here")
def say_who_works_here(body: SignInIn) -> HereOut:
    """Say who works at this browser from now on: with a PIN or passphrase, except at the desk
    itself."""
    with the_store().reading() as session:
        if body.person is not None:
            person = store.one_person(session, body.person)
        else:
            person = store.called(session, body.called) or NOT_THERE
    if person.left:
        raise store.UnknownPerson(f"{person.initials} works here no more")
    if not g.at_the_desk:
        _check_secret(person, body.secret)
    if person is NOT_THERE:
        raise store.UnknownPerson(f"nobody is called {body.called} here")
    return _as(person.id)


NOT_THERE = store.Person(NOBODY, "", "", "", "draws", hashed(token_urlsafe()), False)
"""Looked at in the place of who is not there: it takes as long to say that a PIN is wrong."""


def _as(person: int | None) -> HereOut:
    g.joined = sign_in(person)
    committed()
    found = None
    if person is not None:
        with the_store().reading() as session:
            found = store.one_person(session, person)
    g.here = replace(here(), person=found)
    return who_works_here()


def _check_secret(person: store.Person, secret: str) -> None:
    """Refuse a wrong PIN; wrong ones are counted for the browser, or the address, and for the
    person."""
    now = datetime.now(UTC)
    if not person.secret:
        message = (
            f"{person.told} has no PIN yet: it is set at the desk, or by whoever runs the office"
        )
        raise Refused(403, "No PIN yet", message)
    with the_store().reading() as session:
        device = doors.device_of(session, request.cookies.get(COOKIE), now)
    at = f"device {device.key}" if device else f"signing in from {request.remote_addr}"
    guessers = (at, f"person {person.id}")
    try:
        with the_store().reading() as session:
            for each in guessers:
                doors.check_waiting(session, each, "PINs", now)
    except doors.Waits as error:
        after = {"Retry-After": str(round(error.seconds) + 1)}
        raise Refused(429, "Too many wrong PINs", str(error), headers=after) from error
    right = is_right(person.secret, secret)
    with the_store().writing() as session:
        for each in guessers:
            if right:
                doors.forgive(session, each)
            else:
                doors.note_wrong(session, each, now)
    if not right:
        raise Refused(403, "Not the PIN", "That is not the PIN or passphrase of this person.")


@people.delete("/people/here", deed="see who works here")
def nobody_works_here() -> HereOut:
    """Say that nobody works at this browser any more."""
    return _as(None)


@people.post("/people", status=201, deed="run the office")
def add_person(body: NewPersonIn) -> PersonOut:
    """Let somebody work here from now on."""
    with the_store().writing() as session:
        first = store.one_person(session, me())
        if not first.name:
            message = "say what you are called first: drawings are told apart by it"
            raise Refused(409, "Who are you?", message)
        found = store.add_person(session, body.name.strip(), body.initials, body.role)
    committed()
    if here().alone:
        # From now on it is asked who works here: at this browser it is known.
        g.joined = sign_in(me())
    return shown(found)


@people.get("/people/week", deed="run the office")
def week_of_all() -> WeekOfAllOut:
    """Return what everybody did in the last seven days."""
    with the_store().reading() as session:
        found = store.weeks(session, datetime.now(UTC) - timedelta(days=7))
        there = [each.id for each in store.everybody(session)]
    none = store.Week()
    return WeekOfAllOut(
        people=tuple(PersonWeekOut.from_core(found.get(who, none), person=who) for who in there)
    )


@people.get("/people/devices", deed="run the office")
def office_devices() -> OfficeDevicesOut:
    """Return every browser that was let in; to one of them only where there are several people."""
    _check_devices()
    with the_store().reading() as session:
        found = doors.devices(session, datetime.now(UTC))
        names = {each.id: each.told for each in store.everybody(session)}
    return OfficeDevicesOut(
        devices=tuple(
            OfficeDeviceOut.from_core(each, person=names.get(each.person or NOBODY, ""))
            for each in found
        )
    )


@people.delete("/people/devices/<key>", deed="run the office")
def send_device_away(path: OfficeDevicePath) -> OfficeDevicesOut:
    """Let a browser in no more."""
    _check_devices()
    with the_store().writing() as session:
        doors.send_away(session, path.key)
    committed()
    return office_devices()


def _check_devices() -> None:
    """Refuse what a device that typed the code may not know of others, where whoever came in by it
    is taken for the one person there is."""
    if here().alone and not g.at_the_desk and not behind_a_proxy():
        raise Refused(403, "At the desk alone", "which devices came in is told at the desk itself")


@people.patch("/people/<person_id>", deed="change a person")
def change_person(path: PersonPath, body: ChangedPersonIn) -> PersonOut:
    """Put down anew what somebody is called."""
    with the_store().writing() as session:
        found = store.change_person(session, path.person_id, body.name, body.initials, body.sign)
    committed()
    return shown(found)


@people.put("/people/<person_id>/role", deed="run the office")
def give_role(path: PersonPath, body: RoleIn) -> PersonOut:
    """Give somebody a role."""
    with the_store().writing() as session:
        found = store.give_role(session, path.person_id, body.role)
    committed()
    return shown(found)


@people.put("/people/<person_id>/secret", deed="change a person")
def set_secret(path: PersonPath, body: SecretIn) -> PersonOut:
    """Set somebody's PIN or passphrase; an empty one takes it away. Browsers at which they work
    ask anew."""
    if not body.secret and behind_a_proxy():
        raise Refused(409, "A PIN is needed", "behind a proxy everybody says a passphrase")
    kept = hashed(body.secret) if body.secret else ""
    with the_store().writing() as session:
        store.set_secret(session, path.person_id, kept)
        found = store.one_person(session, path.person_id)
    committed()
    if path.person_id == me() and not here().alone:
        g.joined = sign_in(me())
    return shown(found)


@people.delete("/people/<person_id>", deed="run the office")
def take_person_out(path: PersonPath) -> HereOut:
    """Let somebody work here no more: jobs stay, signed by initials; logbook, practice and kits are
    taken away."""
    with the_store().writing() as session:
        store.take_out(session, path.person_id)
    committed()
    return who_works_here()


@people.get("/people/<person_id>/export.zip", deed="take a person's things away")
def export_person(path: PersonPath) -> Answer:
    """Return what is somebody's own as open files: jobs, logbook, practice, kits."""
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as file:
        store.export_person(the_store(), store.Zip(file), path.person_id)
    disposition = {"Content-Disposition": 'attachment; filename="person.zip"'}
    return Answer(kept.getvalue(), "application/zip", disposition)
