"""Serving on this machine only."""

from __future__ import annotations

import asyncio
import logging
import resource
import signal
import socket
import ssl
import threading
import time
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import UTC, datetime
from html import escape
from pathlib import Path
from typing import Any

import platformdirs

from ...demo.jobs import load
from ...store import RegisterTrouble, Store, Where, open_store, salvage, snapshots_of
from ...store.doors import device_of
from ..register.keeper import Keeper
from ..workers.forward import SUMMARIZE
from ..workers.pool import Workers, tune_gc
from .app import create_app
from .listening import Listener, Sockets, serving
from .pairing import Pairing
from .proxy import Proxy

AGAIN = 2.0
"""Seconds between two tries to open a register that could not be opened."""

Start = Callable[..., Any]


def default_register() -> Path:
    """Return where the register lies when nothing else is said."""
    return Path(platformdirs.user_data_dir("entrick")) / "register.db"


def opened(path: Where) -> tuple[Store, str]:
    """Open a register; a damaged file is set aside, and what can be read of it salvaged.

    Returns
    -------
    store : Store
    notice : str
        What was done, empty where nothing had to be.
    """
    try:
        return open_store(path), ""
    except RegisterTrouble as error:
        # A file whose heading is gone looks like no register at all, and may be one.
        if isinstance(path, str) or error.cause not in ("damaged", "foreign"):
            raise
        try:
            store, saved = salvage(path)
        except LookupError:
            raise error from None
    snapshots = sorted(snapshots_of(path).glob("*.db"))
    newest = f" The last snapshot is {snapshots[-1]}." if snapshots else ""
    words = (
        f"The register was damaged. It was set aside as {saved.aside}, unchanged; "
        f"{saved.came['job']} jobs with {saved.came['revision']} revisions, "
        f"{saved.came['sitting']} sittings, {saved.came['kit']} kits and "
        f"{saved.came['practice_answer']} answers were salvaged. {saved.told()} See "
        f"{saved.report}.{newest}"
    )
    return store, words


class Door:
    """The WSGI application: the desk once the register is open, until then a plain page that says
    why it is not."""

    def __init__(
        self,
        path: Where,
        demo: bool,
        workers: Workers,
        pairing: Pairing | None = None,
        proxy: Proxy | None = None,
    ) -> None:
        self.path, self.demo, self.workers = path, demo, workers
        self.pairing, self.proxy = pairing, proxy
        self.lock = threading.Lock()
        self.desk: Callable[[dict[str, Any], Start], Iterable[bytes]] | None = None
        self.store: Store | None = None
        self.keeper: Keeper | None = None
        self.trouble: RegisterTrouble | None = None
        self.tried = 0.0

    def open(self) -> None:
        """Try to open the register, unless that was tried a moment ago."""
        with self.lock:
            if self.desk is not None or time.monotonic() - self.tried < AGAIN:
                return
            try:
                store, notice = opened(self.path)
            except RegisterTrouble as error:
                if self.trouble is None or self.trouble.cause != error.cause:
                    print(f"Not opened: {error}", flush=True)
                self.trouble, self.tried = error, time.monotonic()
                return
            if notice:
                print(notice, flush=True)
            if self.demo:
                count = load(store, lambda text: self.workers.do(SUMMARIZE, text))
                print(
                    f"{count} sample jobs entered" if count else "the register is kept as it was",
                    flush=True,
                )
                # Nobody has to wait for them.
                threading.Thread(target=_load_rest, args=(store,), daemon=True).start()
            self.store, self.keeper = store, Keeper(store, self.workers)
            self.keeper.start()
            self.desk = create_app(store, self.workers, notice, self.pairing, self.proxy)

    def knows(self, cookie: str) -> bool:
        """Tell whether somebody works at the browser whose cookie this is."""
        if self.store is None:
            return False
        try:
            with self.store.reading() as session:
                device = device_of(session, cookie, datetime.now(UTC))
        except RegisterTrouble:
            return False  # the desk itself says why
        return device is not None and device.person is not None

    def close(self) -> None:
        """Leave everything tidy."""
        if self.keeper:
            self.keeper.stop()
        self.workers.close()
        if self.store:
            self.store.close()

    def __call__(self, environ: dict[str, Any], start: Start) -> Iterable[bytes]:
        if self.desk is None:
            self.open()
        if self.desk is not None:
            return self.desk(environ, start)
        assert self.trouble is not None
        said = [self.trouble.told + ".", self.trouble.safe, self.trouble.todo]
        page = (
            '<!doctype html><html lang="en"><meta charset="utf-8"><title>Entrick: the register is '
            "not open</title>"
            "<h1>The register is not open</h1>"
            + "".join(f"<p>{escape(row)}</p>" for row in said)
            + "<p>Reload this page to try again.</p></html>"
        )
        headers = [
            ("Content-Type", "text/html; charset=utf-8"),
            ("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'"),
            ("X-Content-Type-Options", "nosniff"),
            ("Retry-After", "5"),
        ]
        start("503 Service Unavailable", headers)
        return [page.encode()]


def _load_rest(store: Store) -> None:
    """Load what of the demo is made up and takes a while."""
    from ...demo.practice import load_practice
    from ...demo.sittings import load_sittings

    load_sittings(store)
    load_practice(store)


@dataclass(frozen=True, slots=True)
class Network:
    """How the local network is let in: by which address of this machine, with which certificate."""

    address: str
    cert: Path | None = None
    key: Path | None = None


@dataclass(frozen=True, slots=True)
class Doors:
    """By which doors others than this machine come in: the local network, or a proxy; and where the
    proxy finds the desk."""

    network: Network | None = None
    proxy: Proxy | None = None
    listen: str = "127.0.0.1"


def check_certificate(network: Network) -> None:
    """Refuse a certificate that is none, or is not of its key.

    Raises
    ------
    SystemExit
        In words.
    """
    if network.cert is None or network.key is None:
        return
    try:
        ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER).load_cert_chain(
            network.cert, network.key, password=lambda: ""
        )
    except (ssl.SSLError, OSError, ValueError) as error:
        raise SystemExit(
            f"{network.cert} and {network.key} are no certificate, as PEM, with its own key, or "
            f"the key is locked: {getattr(error, 'reason', None) or error}"
        ) from error


def _bound(address: str, port: int) -> socket.socket:
    """Return a socket at an address of this machine.

    Raises
    ------
    SystemExit
        In words, where it cannot be had.
    """
    try:
        return socket.create_server((address, port), backlog=256)
    except OSError as error:
        raise SystemExit(
            f"port {port} cannot be used ({error.strerror}): name another with --port"
        ) from error


def run(
    workers: Workers, port: int, database: Where | None, demo: bool, doors: Doors = Doors()
) -> None:
    """Open the database and serve until stopped.

    Parameters
    ----------
    workers : Workers
        Who works plans out; they are let go at the end.
    port : int
    database : Path, str or None
        A file, or the address of a server; the user's own data folder when None.
    demo : bool
        Whether sample jobs are loaded into an empty register.
    doors : Doors
        By which others come in; none where nothing is said.
    """
    logging.basicConfig(level=logging.WARNING, format="%(asctime)s %(name)s %(message)s")
    threading.Thread(target=workers.warm, daemon=True).start()
    network = doors.network
    pairing = Pairing(network.address, port, network.cert is not None) if network else None
    door = Door(database or default_register(), demo, workers, pairing, doors.proxy)
    # Idle connections of others keep nobody out as long as there are descriptors for them.
    _, most = resource.getrlimit(resource.RLIMIT_NOFILE)
    resource.setrlimit(resource.RLIMIT_NOFILE, (most, most))
    try:
        if network is not None:
            check_certificate(network)
        with _bound(doors.listen, port) as here:
            if network is None or pairing is None:
                asyncio.run(_serve(door, port, Sockets(here.detach())))
                return
            with _bound(network.address, port) as there:
                sockets = Sockets(here.detach(), there.detach(), network.cert, network.key)
                asyncio.run(_serve(door, port, sockets, pairing))
    finally:
        door.close()


def _listener(door: Door, pairing: Pairing | None) -> Listener:
    return Listener(door, pairing, door.knows if door.proxy is not None else None)


async def _serve(door: Door, port: int, sockets: Sockets, pairing: Pairing | None = None) -> None:
    loop, ended = asyncio.get_running_loop(), asyncio.Event()
    for sign in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(sign, ended.set)
    await loop.run_in_executor(None, door.open)
    tune_gc()
    listening = asyncio.create_task(serving(_listener(door, pairing), sockets, ended))
    print(f"Entrick is at http://127.0.0.1:{port}/  (Ctrl+C stops it)", flush=True)
    if pairing is not None:
        print(pairing.told(), flush=True)
    await listening
