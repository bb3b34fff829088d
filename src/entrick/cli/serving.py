"""The command that serves the desk. It loads as little as it can before the workers are on their
way."""

from __future__ import annotations

import gc
from pathlib import Path

import click

from .where import Register

_PEM = click.Path(exists=True, dir_okay=False, path_type=Path)


@click.command()
@click.option("--port", default=8400, show_default=True)
@click.option(
    "--database",
    type=Register(),
    default=None,
    help="The register: an SQLite file, or postgresql+psycopg://…",
)
@click.option("--demo", is_flag=True, help="Load the sample jobs into an empty register.")
@click.option(
    "--lan",
    is_flag=True,
    help="Let phones and tablets of the local network in, by a code that is printed.",
)
@click.option(
    "--lan-address", metavar="ADDRESS", help="Which address of this machine, where it has several."
)
@click.option(
    "--cert", type=_PEM, help="Certificate chain of one's own, PEM, for --lan; goes with --key."
)
@click.option("--key", type=_PEM, help="Its private key, PEM.")
@click.option(
    "--behind-proxy",
    metavar="ADDRESS",
    help="Answer to the reverse proxy at this address alone, and believe what it says of who asks.",
)
@click.option(
    "--name", metavar="NAME", help="By which the desk is called through the proxy, host[:port]."
)
@click.option(
    "--listen",
    metavar="ADDRESS",
    default="127.0.0.1",
    show_default=True,
    help="Where the proxy finds it; goes with --behind-proxy.",
)
def serve(  # noqa: PLR0913
    port: int,
    database: Path | str | None,
    demo: bool,
    lan: bool,
    lan_address: str | None,
    cert: Path | None,
    key: Path | None,
    behind_proxy: str | None,
    name: str | None,
    listen: str,
) -> None:
    """Serve the desk on 127.0.0.1; with --lan to the local network as well."""
    if (cert is None) != (key is None):
        raise click.UsageError("--cert and --key go together")
    if not lan and (cert or lan_address):
        raise click.UsageError("--lan-address, --cert and --key go with --lan")
    if (behind_proxy is None) != (name is None):
        raise click.UsageError("--behind-proxy and --name go together")
    if behind_proxy is None and listen != "127.0.0.1":
        raise click.UsageError("--listen goes with --behind-proxy: the desk is for this machine")
    if behind_proxy and lan:
        raise click.UsageError("--lan and --behind-proxy are two doors: open one of them")
    # What is loaded stays: looking through it for cycles again and again would take a tenth of the
    # start.
    gc.disable()
    # The workers first: they get ready while the rest is loaded.
    from ..web.workers.pool import Workers

    workers = Workers()
    from ..web.http.pairing import local_address
    from ..web.http.proxy import Proxy
    from ..web.http.serve import Doors, Network, run

    try:
        network = Network(local_address(lan_address), cert, key) if lan else None
    except ValueError as error:
        workers.close()
        raise click.UsageError(str(error)) from error
    proxy = Proxy(behind_proxy, name) if behind_proxy and name else None
    run(workers, port, database, demo, Doors(network, proxy, listen))
