"""Listening at both doors, this machine's and the network's, by one server: whoever is idle or slow
holds a connection, and nothing else.

A request comes to the desk when all of it is there. Its head is looked at first: what a device
that has not typed the code sends is not read but for the code itself; every phase has its time."""

from __future__ import annotations

import asyncio
import socket
import tempfile
from collections.abc import Awaitable, Callable, MutableMapping
from dataclasses import dataclass
from http.cookies import CookieError, SimpleCookie
from pathlib import Path
from threading import Event
from typing import Any

from a2wsgi import WSGIMiddleware
from hypercorn.asyncio import serve
from hypercorn.config import Config

from .guard import SMALLEST_BODY, is_here
from .pairing import COOKIE, Pairing

Scope = MutableMapping[str, Any]
Message = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]

THREADS = 40
"""Requests in hand or waiting for their turn; a thread that waits costs next to nothing."""

LARGEST_BODY = 2**28 + 2**20
IN_MEMORY = 2**20
"""Bytes of a body that are kept in memory while it comes; more lies in a file meanwhile."""

WAITING = 256
"""Connections the system holds until they are taken."""

IDLE = 15.0
"""Seconds in which something has to come, of a head, a body, or the next request."""

HANDSHAKE = 5.0
"""Seconds in which a device has to come to terms about the certificate."""

SLOWEST = 20_000.0
"""Bytes a second that a body comes by at least, from its first on, when `IDLE` is over."""

GONE = "entrick.gone"
"""Under this a request says whether whoever sent it has left."""


@dataclass(frozen=True, slots=True)
class Sockets:
    """What is listened at: this machine's door, and the network's with its certificate, if any."""

    here: int
    network: int | None = None
    cert: Path | None = None
    key: Path | None = None


class TooLong(Exception):
    """A body that is larger than whoever sends it may send, or comes too slowly."""

    def __init__(self, status: int, told: str) -> None:
        super().__init__(told)
        self.status, self.told = status, told


class Listener:
    """The desk as the server calls it.

    Parameters
    ----------
    desk : callable
        WSGI.
    pairing : Pairing, optional
        Who may come in from the network.
    knows : callable, optional
        Tells by a cookie whether somebody has come in, where everybody comes through a proxy.
    """

    def __init__(
        self,
        desk: Any,
        pairing: Pairing | None = None,
        knows: Callable[[str], bool] | None = None,
    ) -> None:
        self._desk = WSGIMiddleware(desk, workers=THREADS)
        self._pairing, self._knows = pairing, knows

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer a request; begin and end with the server."""
        if scope["type"] == "lifespan":
            await _live(receive, send)
            return
        if scope["type"] != "http":
            await send({"type": "websocket.close"})
            return
        try:
            body = await self._body(scope, receive)
        except TooLong as error:
            await _refuse(send, error)
            return
        scope[GONE] = gone = Event()
        scope["headers"] = _measured(scope["headers"], body)
        watch = asyncio.create_task(_watched(receive, gone))
        try:
            with body:
                await self._desk(scope, _given(body, gone), send)  # type: ignore[arg-type]
        finally:
            watch.cancel()

    async def _body(self, scope: Scope, receive: Receive) -> tempfile.SpooledTemporaryFile[bytes]:
        most = LARGEST_BODY if self._is_known(scope) else SMALLEST_BODY
        said = next((v for k, v in scope["headers"] if k == b"content-length"), b"0")
        if not said.isdigit() or int(said[:18]) > most:
            raise TooLong(413, "The body is larger than may be sent.")
        clock = asyncio.get_running_loop().time
        began, size = clock(), 0
        result = tempfile.SpooledTemporaryFile[bytes](max_size=IN_MEMORY)
        more = True
        while more:
            left = began + IDLE + size / SLOWEST - clock()
            try:
                message = await asyncio.wait_for(receive(), min(IDLE, max(0.0, left)))
            except TimeoutError:
                result.close()
                raise TooLong(408, "The body came too slowly.") from None
            if message["type"] == "http.disconnect":
                result.close()
                raise TooLong(400, "Whoever sent this has left.")
            size += len(message.get("body", b""))
            if size > most:
                result.close()
                raise TooLong(413, "The body is larger than may be sent.")
            result.write(message.get("body", b""))
            more = message.get("more_body", False)
        result.seek(0)
        return result

    def _is_known(self, scope: Scope) -> bool:
        """Tell whether a request comes from this machine, or from a device that was let in; through
        a proxy, from somebody who has come in."""
        if self._knows is None and is_here((scope.get("client") or ("",))[0]):
            return True
        cookies = b"; ".join(value for name, value in scope["headers"] if name == b"cookie")
        try:
            cookie = SimpleCookie(cookies.decode("latin-1")).get(COOKIE)
        except CookieError:
            return False
        if cookie is None:
            return False
        if self._knows is not None:
            return self._knows(cookie.value)
        return self._pairing is not None and self._pairing.lets_in(cookie.value)


def _measured(headers: list[tuple[bytes, bytes]], body: Any) -> list[tuple[bytes, bytes]]:
    """Return headers that say how large a body is that came in pieces."""
    if not any(name == b"transfer-encoding" for name, _ in headers):
        return headers
    size = str(body.seek(0, 2)).encode()
    body.seek(0)
    others = [each for each in headers if each[0] not in (b"transfer-encoding", b"content-length")]
    return [*others, (b"content-length", size)]


def _given(body: tempfile.SpooledTemporaryFile[bytes], gone: Event) -> Receive:
    """Return what hands a body over that is there already."""

    async def receive() -> Message:
        if gone.is_set():
            return {"type": "http.disconnect"}
        block = body.read(65536)
        return {"type": "http.request", "body": block, "more_body": bool(block)}

    return receive


async def _watched(receive: Receive, gone: Event) -> None:
    """Note when whoever waits for the answer leaves."""
    while (await receive())["type"] != "http.disconnect":
        pass
    gone.set()


async def _refuse(send: Send, error: TooLong) -> None:
    text = f"{error.told}\n".encode()
    headers = [(b"content-type", b"text/plain; charset=utf-8"), (b"connection", b"close")]
    await send({"type": "http.response.start", "status": error.status, "headers": headers})
    await send({"type": "http.response.body", "body": text})


async def _live(receive: Receive, send: Send) -> None:
    while True:
        message = await receive()
        await send({"type": f"{message['type']}.complete"})
        if message["type"] == "lifespan.shutdown":
            return


async def serving(listener: Listener, sockets: Sockets, ended: asyncio.Event) -> None:
    """Serve until told to end.

    Parameters
    ----------
    listener : Listener
    sockets : Sockets
        Bound already.
    ended : asyncio.Event
    """
    config = Config()
    config.include_server_header = False
    config.accesslog = config.errorlog = None
    config.h11_max_incomplete_size = 2**16
    config.keep_alive_timeout = IDLE
    config.ssl_handshake_timeout = HANDSHAKE
    config.graceful_timeout = config.shutdown_timeout = 1.0
    config.alpn_protocols = ["http/1.1"]
    # One connection is taken at a time: where descriptors run out, asyncio tries again as often as
    # it takes connections at a time, each time.
    config.backlog = 1
    here, network = f"fd://{sockets.here}", f"fd://{sockets.network}"
    if sockets.cert is not None:
        config.certfile, config.keyfile = str(sockets.cert), str(sockets.key)
        config.bind, config.insecure_bind = [network], [here]
    else:
        config.bind = [here] if sockets.network is None else [here, network]
    doors = [socket.fromfd(each, -1, -1) for each in (sockets.here, sockets.network) if each]
    waiting = asyncio.create_task(_keep_waiting(doors))
    try:
        await serve(listener, config, shutdown_trigger=ended.wait, mode="asgi")  # type: ignore[arg-type]
    finally:
        waiting.cancel()
        for door in doors:
            door.close()


async def _keep_waiting(doors: list[socket.socket]) -> None:
    """Let the system hold who has not been taken yet, in spite of what asyncio asks it for once it
    begins."""
    while True:
        for door in doors:
            door.listen(WAITING)
        await asyncio.sleep(1.0)
