"""Commands on the people of an office: who works there, and the passphrase by which one comes in
where nobody sits at the desk itself."""

from __future__ import annotations

import sys
from contextlib import closing
from pathlib import Path
from typing import TYPE_CHECKING

import click

from .net import Told
from .register import DATABASE, registered, told_of_register

if TYPE_CHECKING:
    from ..store import Store

ROLE = click.Choice(["draws", "checks", "runs"])


@click.group()
def people() -> None:
    """The people of an office."""


def _opened(database: Path | str | None) -> closing[Store]:
    from ..store import open_store

    return closing(open_store(registered(database)))


@people.command("list", cls=Told)
@DATABASE
def list_(database: Path | str | None) -> None:
    """List who works here."""
    from ..store import everybody

    with told_of_register(), _opened(database) as store, store.reading() as session:
        for each in everybody(session, left=True):
            secret = "has left" if each.left else "PIN set" if each.secret else "no PIN"
            click.echo(f"{each.id:4}  {each.initials:6} {each.role:7} {secret:9} {each.name}")


@people.command("name", cls=Told)
@click.argument("number", type=int)
@click.argument("name")
@click.argument("initials")
@DATABASE
def name_(number: int, name: str, initials: str, database: Path | str | None) -> None:
    """Say what person NUMBER is called; the first one is number 1."""
    from ..store import change_person

    with told_of_register(), _opened(database) as store, store.writing() as session:
        change_person(session, number, name, initials)
    click.echo(f"person {number} is {name}, {initials}")


@people.command("add", cls=Told)
@click.argument("name")
@click.argument("initials")
@click.option("--role", type=ROLE, default="draws", show_default=True)
@DATABASE
def add(name: str, initials: str, role: str, database: Path | str | None) -> None:
    """Let somebody work here."""
    from ..store import add_person

    with told_of_register(), _opened(database) as store, store.writing() as session:
        found = add_person(session, name, initials, role)  # type: ignore[arg-type]
    click.echo(f"{name} is person {found.id}")


@people.command("secret", cls=Told)
@click.argument("number", type=int)
@DATABASE
def secret(number: int, database: Path | str | None) -> None:
    """Set the PIN or passphrase of person NUMBER: it is asked for, or read from standard input."""
    from ..store import set_secret
    from ..web.answer import Refused
    from ..web.secrets import hashed

    said = click.prompt("PIN of six figures, or passphrase", hide_input=sys.stdin.isatty())
    try:
        kept = hashed(said)
    except Refused as error:
        raise click.ClickException(error.detail) from error
    with told_of_register(), _opened(database) as store, store.writing() as session:
        set_secret(session, number, kept)
    click.echo(f"it is set for person {number}")
