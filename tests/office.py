"""An office of several people to be tried in tests: who works there, and what is whose."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from flask import Flask
from flask.testing import FlaskClient
from werkzeug.test import TestResponse

from entrick.core.board.kits import STARTERS, write_kit
from entrick.core.logbook.sitting import Event
from entrick.core.office import EVERYBODY, Role
from entrick.store import (
    AnswerView,
    Store,
    add_job,
    add_person,
    add_set,
    append,
    begin,
    change_person,
    hand_over,
    keep_marks,
    put_answer,
    put_kit,
    take_out,
)
from entrick.web.http.app import create_app
from registers import desk_on, fresh_store

RUNS, DRAWS, CHECKS, OTHER, LEFT = 1, 2, 3, 4, 5
"""Who works here: whoever runs the office, two who draw, one who checks, one who has left."""

ROLES: dict[int, Role] = {RUNS: "runs", DRAWS: "draws", CHECKS: "checks", OTHER: "draws"}
PLAN = 'plan "Lever {who}"\ndrawing OY-{who:03}\nunits mm\nO = datum\nc = circle, centre O, radius 12\nrim = line in, c\n'
KIT = write_kit(next(iter(STARTERS.values())))
ANYBODYS = 9
"""The job that is everybody's; jobs 1 to 4 belong to the people of that number."""


def uid(who: int) -> str:
    """Return the name of the sitting of a person."""
    return f"{who:08x}"


def office(path: Path) -> Store:
    """Make an office in which everybody has a job, a sitting, an answer, a kit and a set."""
    store = fresh_store(path)
    office_in(store)
    return store


def office_in(store: Store) -> None:
    """Make that office in a register in which nothing is yet."""
    with store.writing() as session:
        change_person(session, RUNS, "Ostler", "OS")
        add_person(session, "Brindle", "BR", "draws")
        add_person(session, "Tarn", "TA", "checks")
        add_person(session, "Wick", "WI", "draws")
        add_person(session, "Gone", "GO", "draws")
        for who in ROLES:
            job = add_job(session, PLAN.format(who=who), by=who)
            begin(session, uid(who), job.id, 1, "written", whose=who)
            append(session, uid(who), [Event(1, "done", 3, "compass", 20.0)])
            put_kit(session, f"of {who}", KIT, usual=True, whose=who)
            made = add_set(session, f"Set of {who}", 1, "{}", whose=who)
            marked = {"rule": "sum", "share": 1.0, "slip": "", "waits": ""}
            keep_marks(session, made.id, [{"student": "a", "name": "A", "answers": [marked]}])
            put_answer(session, answer(who))
        job = add_job(session, PLAN.format(who=ANYBODYS), by=RUNS)
        hand_over(session, job.id, EVERYBODY)
        take_out(session, LEFT)


def answer(who: int) -> AnswerView:
    """Return an answer a person gave in practice."""
    from datetime import UTC, datetime

    return AnswerView(
        uid(who), datetime(2026, 3, 2, tzinfo=UTC), "OY-001", f"rule {who}", 1.0, (), (), whose=who
    )


class Desk(FlaskClient):
    """A browser at the desk itself."""

    def open(self, *args: Any, **said: Any) -> TestResponse:
        said.setdefault("base_url", "http://127.0.0.1:8400")
        said.setdefault("environ_base", {"REMOTE_ADDR": "127.0.0.1"})
        return super().open(*args, **said)


@contextmanager
def at_the_desk(store: Store, who: int | None, **options: Any) -> Iterator[FlaskClient]:
    """Give a browser at which somebody works; nobody where none is named."""
    yield browser_at(create_app(store, **options) if options else desk_on(store), who)


def browser_at(app: Flask, who: int | None) -> FlaskClient:
    """Return a browser at which somebody works; nobody where none is named."""
    app.test_client_class = Desk
    client = app.test_client()
    if who is not None:
        assert client.post("/api/people/here", json={"person": who}).status_code == 200
    return client
