"""Commands on the register: backup, restore, export, import."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import click

from .net import Told
from .where import Register

DATABASE = click.option(
    "--database",
    type=Register(),
    default=None,
    help="The register, a file or postgresql+psycopg://…; the usual one if not said.",
)


def registered(database: Path | str | None) -> Path | str:
    from ..web.http.serve import default_register

    return database or default_register()


def _file(database: Path | str | None) -> Path:
    """Return the file of a register.

    Raises
    ------
    RegisterTrouble
        Where it stands on a server.
    """
    from ..store import RegisterTrouble
    from ..store.server import shown

    where = registered(database)
    if isinstance(where, str):
        raise RegisterTrouble("server", shown(where))
    return where


@contextmanager
def told_of_register() -> Iterator[None]:
    """Say what is wrong with a register in one line."""
    from ..store import ArchiveError, NotSo, RegisterTrouble, UnknownPerson

    try:
        yield
    except (RegisterTrouble, ArchiveError, NotSo, UnknownPerson) as error:
        raise click.ClickException(str(error)) from error
    except OSError as error:
        raise click.ClickException(f"{error.filename}: {error.strerror}") from error


@click.command(cls=Told)
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@DATABASE
def backup(file: Path, database: Path | str | None) -> None:
    """Write a copy of the register to FILE, also while the desk is used."""
    from ..store import backup as copy

    with told_of_register():
        copy(_file(database), file)
    click.echo(f"{file} holds the register as it is now")


@click.command(cls=Told)
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@DATABASE
def restore(file: Path, database: Path | str | None) -> None:
    """Put the backup FILE in the place of the register, which is kept as a snapshot first."""
    from ..store import restore as put_back

    with told_of_register():
        kept = put_back(file, _file(database))
    click.echo(
        f"the register is as it was in {file}"
        + (f"; as it was before, it is in {kept}" if kept else "")
    )


@click.command("export", cls=Told)
@click.argument("folder", type=click.Path(file_okay=False, path_type=Path))
@DATABASE
def export_(folder: Path, database: Path | str | None) -> None:
    """Write every job with its history to FOLDER as open files."""
    from ..store import Folder, export_register, open_store

    if folder.exists() and any(folder.iterdir()):
        raise click.ClickException(f"{folder} is not empty: name a new folder")
    with told_of_register():
        store = open_store(registered(database))
        count = export_register(store, Folder(folder))
        store.close()
    click.echo(f"{count} jobs written to {folder}")


@click.command("import", cls=Told)
@click.argument("folder", type=click.Path(exists=True, file_okay=False, path_type=Path))
@DATABASE
def import_(folder: Path, database: Path | str | None) -> None:
    """Enter every job of an exported FOLDER, all or none."""
    from ..store import Folder, import_register, open_store

    with told_of_register():
        store = open_store(registered(database))
        came = import_register(store, Folder(folder))
        store.close()
    click.echo(
        f"{came.jobs} jobs entered" + (f", {came.known} were there already" if came.known else "")
    )
