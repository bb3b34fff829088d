"""The door for phones and tablets of the local network: a code of six figures, typed once, for one
run of the desk.

Nothing of this is there unless the desk was asked to listen on the network. A device that has typed
the code carries a cookie signed for this run; everybody else is shown the page that asks for the
code, and nothing else."""

from __future__ import annotations

import hashlib
import io
import ipaddress
import secrets
import socket
import threading
import time
from collections.abc import Callable
from html import escape

import segno
from flask import Blueprint, Response, abort, current_app, g, request
from itsdangerous import BadSignature, Signer

COOKIE = "entrick_device"
FIGURES = 6

TRIES = 5
"""Wrong codes after which the door waits."""

WAIT = 60.0
"""Seconds it waits then; twice as long each time it comes to that again."""

PAIR = "/pair"


class Waits(Exception):
    """Too many wrong codes: nobody is let in for some seconds, whatever is typed."""

    def __init__(self, seconds: float) -> None:
        super().__init__(f"too many wrong codes: wait {seconds:.0f} seconds")
        self.seconds = seconds


class Pairing:
    """Who may come in from the network.

    Parameters
    ----------
    host : str
        The address of this machine the network is let in by.
    port : int
    secure : bool
        Whether it is served with a certificate.
    clock : callable
        Seconds that never run backwards.
    """

    def __init__(
        self, host: str, port: int, secure: bool, clock: Callable[[], float] = time.monotonic
    ) -> None:
        shown = f"[{host}]" if ":" in host else host
        self.netloc, self.secure = f"{shown}:{port}", secure
        self.address = f"http{'s' if secure else ''}://{self.netloc}/"
        self.code = f"{secrets.randbelow(10**FIGURES):0{FIGURES}}"
        self._signer = Signer(
            secrets.token_bytes(32), salt="entrick-device", digest_method=hashlib.sha256
        )
        self._clock, self._lock = clock, threading.Lock()
        self._wrong, self._times, self._until = 0, 0, 0.0

    def lets_in(self, cookie: str | None) -> bool:
        """Tell whether a cookie was given by this run."""
        try:
            self._signer.unsign(cookie or "")
        except BadSignature:
            return False
        return True

    def cookie_for(self, code: str) -> str | None:
        """Return a cookie for the right code, None for a wrong one.

        Raises
        ------
        Waits
        """
        with self._lock:
            left = self._until - self._clock()
            if left > 0:
                raise Waits(left)
            if secrets.compare_digest(code.encode(), self.code.encode()):
                self._wrong = self._times = 0
                return self._signer.sign(secrets.token_hex(16)).decode()
            self._wrong += 1
            if self._wrong >= TRIES:
                self._wrong, self._times = 0, self._times + 1
                self._until = self._clock() + WAIT * 2 ** (self._times - 1)
            return None

    def picture(self) -> bytes:
        """Return the address as a QR picture, SVG."""
        stream = io.BytesIO()
        segno.make(self.address, error="m").save(
            stream, kind="svg", scale=5, border=2, xmldecl=False
        )
        return stream.getvalue()

    def told(self) -> str:
        """Return what is printed when the desk starts: address, QR picture and code."""
        stream = io.StringIO()
        segno.make(self.address, error="m").terminal(out=stream, compact=True)
        shown = f"    {self.address}\n\n{stream.getvalue()}\n    code {self.code}\n"
        return f"For a phone or tablet of this network:\n\n{shown}"


def local_address(said: str | None = None) -> str:
    """Return the address by which the local network reaches this machine.

    Parameters
    ----------
    said : str, optional
        One of this machine's, where it has several.

    Raises
    ------
    ValueError
        In words, where there is none or it is not of a local network.
    """
    address = said
    if address is None:
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
            try:
                # Nothing is sent: this only asks which of its addresses the machine would use (RFC
                # 5737 test address).
                probe.connect(("192.0.2.1", 9))
            except OSError as error:
                raise ValueError(
                    "this machine is in no network: name an address of it with --lan-address"
                ) from error
            address = str(probe.getsockname()[0])
    try:
        found = ipaddress.ip_address(address)
    except ValueError as error:
        raise ValueError(f"{address} is no address") from error
    if not (found.is_private or found.is_loopback or found.is_link_local) or found.is_unspecified:
        raise ValueError(
            f"{address} is not an address of a local network; the desk is not for the open one"
        )
    return address


door = Blueprint("door", __name__)


def the_pairing() -> Pairing | None:
    """Return the door of this run; None where the desk listens on this machine alone."""
    found: Pairing | None = current_app.extensions["entrick.pairing"]
    return found


def knock() -> Response | None:
    """Answer whoever comes from the network without the cookie: with the page that asks for the
    code, or not at all."""
    if request.path == PAIR:
        return None
    if request.path.startswith(("/api/", "/assets/")):
        abort(401, "This device has not typed the code yet.")
    return _page("", 401)


@door.get(PAIR)
def ask() -> Response:
    """Return the page that asks for the code."""
    if the_pairing() is None:
        abort(404)
    return _page("", 200)


@door.post(PAIR)
def pair() -> Response:
    """Let a device in that types the right code."""
    pairing = the_pairing()
    if pairing is None:
        abort(404)
    try:
        cookie = pairing.cookie_for("".join(request.form.get("code", "").split())[:20])
    except Waits as error:
        response = _page(
            f"There were too many wrong codes. Wait {error.seconds:.0f} seconds, and try again.",
            429,
        )
        response.headers["Retry-After"] = str(round(error.seconds) + 1)
        return response
    if cookie is None:
        return _page("That is not the code the desk shows.", 403)
    response = Response(status=303, headers={"Location": "/"})
    response.set_cookie(
        COOKIE, cookie, httponly=True, samesite="Strict", secure=pairing.secure, path="/"
    )
    return response


def _page(told: str, status: int) -> Response:
    from .guard import nonce

    pairing = the_pairing()
    assert pairing is not None
    lost = (
        ""
        if pairing.secure
        else (
            "<p>Without a certificate a browser keeps no page: once a sitting has begun here, "
            "what you record is kept even "
            "while the desk is away, but a reload then shows nothing until it is back. Started "
            "with its own --cert and "
            "--key, the desk can be reloaded as well.</p>"
        )
    )
    text = (
        '<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" '
        'content="width=device-width">'
        f'<title>Entrick: the code</title><style nonce="{nonce()}">body{{font:1.25rem/1.4 '
        "sans-serif;max-width:34rem;"
        "margin:2rem auto;padding:0 "
        "1rem;color:#23241f;background:#fbf9f0}input,button{font:inherit;padding:.5rem;"
        "letter-spacing:.2em;max-width:12rem}button{letter-spacing:0}</style><h1>Entrick</h1>"
        f'<p role="alert">{escape(told)}</p>'
        f'<form method="post" action="{PAIR}"><p><label for="code">The code of six figures the '
        "desk shows</label></p>"
        '<p><input id="code" name="code" inputmode="numeric" autocomplete="one-time-code" '
        'maxlength="12" required '
        "autofocus> <button>Come in</button></p></form>" + lost + "</html>"
    )
    g.asks = True
    return Response(text, status, mimetype="text/html")
