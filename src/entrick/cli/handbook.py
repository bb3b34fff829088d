"""The guide to the plan language, as one document."""

from __future__ import annotations

from pathlib import Path

import click

from .net import Bounded


@click.command(cls=Bounded)
@click.option("-o", "--output", type=click.Path(dir_okay=False, path_type=Path), help="Where to.")
def handbook(output: Path | None) -> None:
    """Write the guide to the plan language, with every kind, as Markdown."""
    from ..core.handbook import whole

    if output is None:
        click.echo(whole(), nl=False)
    else:
        output.write_text(whole(), "utf-8")
