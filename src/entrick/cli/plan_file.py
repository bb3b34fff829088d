"""A plan's file and a kit, as commands take them."""

from __future__ import annotations

from pathlib import Path

import click

from ..core.board.kit import Kit
from ..core.board.kits import STARTERS, kit_named, read_kit
from ..core.desk import Work, work_out


def worked_out(file: Path, kit: Kit | None = None) -> Work:
    try:
        return work_out(file.read_text("utf-8"), kit)
    except UnicodeDecodeError as error:
        raise click.ClickException(f"{file} is not UTF-8 text") from error
    except ValueError as error:
        raise click.ClickException(str(error)) from error


def _kit(_: click.Context, __: click.Parameter, said: str | None) -> Kit | None:
    if said is None:
        return None
    try:
        return read_kit(Path(said).read_text("utf-8")) if Path(said).is_file() else kit_named(said)
    except (ValueError, OSError) as error:
        raise click.BadParameter(str(error)) from error


KIT = click.option(
    "--kit",
    callback=_kit,
    metavar="FILE",
    help=f"A kit, from a file or one of {', '.join(STARTERS)}.",
)
FILE = click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
