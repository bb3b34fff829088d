"""Who works here: found out for every request, and asked before anything is done.

At a desk used alone it is always the one person there is. Where there are several, a browser says
who works at it by its cookie: at the desk itself by one press, from the network with a PIN or a
passphrase."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from flask import Response, current_app, g, request
from pydantic import ValidationError
from sqlalchemy.orm import Session

from ... import store
from ...core.office import NOBODY, Role, may
from ...store import doors
from ..answer import Refused
from ..operation import Operation, not_understood
from ..register.saved import the_store
from .pairing import COOKIE, device_name

OWNERS: Mapping[str, Callable[[Session, Any], int]] = {
    "job_id": store.owner_of_job,
    "uid": store.owner_of_sitting,
    "set_id": store.owner_of_set,
    "person_id": lambda session, said: store.one_person(session, said).id,
}
"""By the name of a part of an address, whose it is what is asked for there."""


@dataclass(frozen=True, slots=True)
class Here:
    """Who works here: the person, if anybody said so; whether nobody else could be meant."""

    person: store.Person | None
    alone: bool

    @property
    def id(self) -> int:
        """The number of the person; `NOBODY` where nobody said."""
        return self.person.id if self.person else NOBODY

    @property
    def role(self) -> Role | None:
        """The role of the person; None where nobody said."""
        return self.person.role if self.person else None


def find() -> None:
    """Find out who works here, for the request at hand."""
    g.here = _found()


def here() -> Here:
    """Return who works here."""
    result: Here = g.here
    return result


def me() -> int:
    """Return the number of whoever works here."""
    return here().id


def behind_a_proxy() -> bool:
    """Tell whether the desk stands behind a proxy: then nobody sits at it."""
    return bool(current_app.extensions["entrick.behind_proxy"])


def _found() -> Here:
    now = datetime.now(UTC)
    token = request.cookies.get(COOKIE)
    with the_store().reading() as session:
        first, *others = store.everybody(session, most=2)
        alone = not others
        if alone and not behind_a_proxy():
            return Here(first, alone)
        device = doors.device_of(session, token, now)
        person = None
        if device is not None and device.person is not None:
            person = store.one_person(session, device.person)
    if device is not None and token and doors.is_stale(device, now):
        with the_store().writing() as session:
            doors.seen(session, token, now)
    return Here(None if person is None or person.left else person, alone)


def allowed(deed: str, whose: int | None = None) -> bool:
    """Tell whether whoever works here may do something, to what is theirs where nothing else is
    said."""
    found = here()
    return may(deed, found.role, found.id, found.id if whose is None else whose)


def require(deed: str, whose: int | None = None) -> None:
    """Refuse what whoever works here may not do.

    Parameters
    ----------
    deed : str
        See `core.office.may`.
    whose : int, optional
        Whose it is what it is done to; one's own where it is not given.

    Raises
    ------
    Refused
    """
    if allowed(deed, whose):
        return
    role = here().role
    if role is None:
        raise Refused(401, "Who works here?", "Say who works here first.")
    raise Refused(403, "Not yours to do", _words(deed, role))


def _words(deed: str, role: str) -> str:
    if may(deed, "runs", 1, 2):
        return f"Whoever {role} may not {deed} of others; ask whoever runs the office."
    return f"Whoever {role} may {deed} of their own alone."


def whose(operation: Operation, said: Mapping[str, Any]) -> int | None:
    """Return whose it is what an operation is asked to be done to; None where it is nothing of
    anybody.

    What the address names decides. Only where it names nothing, and the operation itself takes a
    person, is it whoever is asked for.

    Raises
    ------
    UnknownJob, UnknownSet, UnknownPerson
    """
    # Read as the operation reads it: what is written otherwise is no other thing.
    parts = {"path": said, "query": request.args.to_dict()}
    named: dict[str, Any] = {}
    for part in ("query", "path"):
        if part in operation.takes:
            try:
                named |= operation.takes[part].model_validate(parts[part]).model_dump()
            except ValidationError as error:
                raise not_understood(error) from None
    for name, owner in OWNERS.items():
        if name in said:
            with the_store().reading() as session:
                return owner(session, named[name])
    asked: int | None = named.get("person")
    return asked


def sign_in(person: int | None) -> Callable[[Response], Response]:
    """Put down who works at this browser from now on, and return what gives it its cookie."""
    now = datetime.now(UTC)
    token = request.cookies.get(COOKIE)
    with the_store().writing() as session:
        known = doors.device_of(session, token, now)
        if known is None or token is None:
            token = doors.let_in(session, device_name(), request.remote_addr or "", False, now)
        given = doors.sign_in(session, token, person, now)

    def with_cookie(response: Response) -> Response:
        response.set_cookie(
            COOKIE, given, httponly=True, samesite="Strict", secure=request.is_secure, path="/"
        )
        return response

    return with_cookie
