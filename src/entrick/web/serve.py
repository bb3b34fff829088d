"""Serving on this machine only."""

from __future__ import annotations

import gc
from pathlib import Path

import platformdirs
import waitress

from ..demo import load
from ..store import open_store
from .app import create_app


def settle_memory() -> None:
    """Look for unused cycles seldom: what the desk keeps from one answer to the next holds none."""
    gc.freeze()
    gc.set_threshold(50_000, 20, 100)


def run(port: int, database: Path | None, demo: bool) -> None:
    """Open the database and serve until stopped.

    Parameters
    ----------
    port : int
    database : Path or None
        The user's own data folder when None.
    demo : bool
        Whether sample jobs are loaded into an empty register.
    """
    store = open_store(database or Path(platformdirs.user_data_dir("entrick")) / "register.db")
    if demo:
        count = load(store)
        print(f"{count} sample jobs entered" if count else "the register is kept as it was", flush=True)
    settle_memory()
    try:
        server = waitress.create_server(create_app(store), host="127.0.0.1", port=port, threads=8, ident=None)
    except OSError as error:
        raise SystemExit(f"port {port} cannot be used ({error.strerror}): name another with --port") from error
    print(f"Entrick is at http://127.0.0.1:{port}/  (Ctrl+C stops it)", flush=True)
    server.run()
