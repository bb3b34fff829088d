"""A desk that really listens, in a thread of the test's own process."""

from __future__ import annotations

import asyncio
import socket
import threading
from pathlib import Path
from typing import Any

from entrick.web.http.listening import Listener, Sockets, serving
from entrick.web.http.pairing import Pairing


class Serving:
    """A server on a port of this machine, until it is stopped; the same port again where one is named."""

    def __init__(
        self,
        desk: Any,
        port: int = 0,
        pairing: Pairing | None = None,
        cert: tuple[Path, Path] | None = None,
    ) -> None:
        bound = socket.create_server(("127.0.0.1", port))
        self.port = int(bound.getsockname()[1])
        self.address = f"http://127.0.0.1:{self.port}"
        sockets = Sockets(bound.detach())
        self.network = 0
        if pairing is not None:
            other = socket.create_server(("127.0.0.2", port or self.port))
            self.network = int(other.getsockname()[1])
            sockets = Sockets(sockets.here, other.detach(), *(cert or (None, None)))
        self._loop = asyncio.new_event_loop()
        self._ended = asyncio.Event()
        listener = Listener(desk, pairing)

        def run() -> None:
            asyncio.set_event_loop(self._loop)
            self._loop.run_until_complete(serving(listener, sockets, self._ended))
            self._loop.close()

        self._thread = threading.Thread(target=run, daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """End, and let everybody go."""
        self._loop.call_soon_threadsafe(self._ended.set)
        self._thread.join(10)
