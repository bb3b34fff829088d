"""The door for phones and tablets of the local network: a code of six figures, typed once within
ten minutes.

Nothing of this is there unless the desk was asked to listen on the network. A device that has
typed the code carries a cookie, is listed at the desk, and can be sent away there; everybody else
is shown the page that asks for the code, and nothing else. What is known of it stands in the
register (`store/doors.py`): several processes may serve one."""

from __future__ import annotations

import io
import ipaddress
import socket
import time
from collections.abc import Callable
from datetime import UTC, datetime
from html import escape

import segno
from flask import Blueprint, Response, abort, current_app, g, request

from ...store import doors
from ...store.database import Store
from ...store.doors import LASTS, Waits

COOKIE = "entrick_device"

PAIR = "/pair"


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
        Seconds since 1970.
    """

    def __init__(
        self, host: str, port: int, secure: bool, clock: Callable[[], float] = time.time
    ) -> None:
        shown = f"[{host}]" if ":" in host else host
        self.netloc, self.secure = f"{shown}:{port}", secure
        self.address = f"http{'s' if secure else ''}://{self.netloc}/"
        self._clock = clock
        self._store: Store | None = None

    def stand_in(self, store: Store) -> None:
        """Say in which register stands who may come in."""
        self._store = store

    @property
    def store(self) -> Store:
        """The register."""
        if self._store is None:
            raise RuntimeError("there is no register yet in which this could stand")
        return self._store

    @property
    def now(self) -> datetime:
        """What time it is."""
        return datetime.fromtimestamp(self._clock(), UTC)

    def renew(self) -> None:
        """Take another code, good from now on."""
        with self.store.writing() as session:
            doors.renew_code(session, self.now)

    @property
    def door(self) -> doors.Door:
        """The code that is good now, for how long, and what there was of wrong ones."""
        with self.store.writing() as session:
            return doors.the_door(session, self.now)

    @property
    def code(self) -> str:
        """The code that is good now; another one where the last has come to its end."""
        return self.door.code

    @property
    def seconds(self) -> int:
        """How long the code is good for yet."""
        return self.door.seconds

    def lets_in(self, cookie: str | None) -> bool:
        """Tell whether a cookie was given to a device that typed the code and was not sent away."""
        if self._store is None:
            return False
        with self.store.reading() as session:
            device = doors.device_of(session, cookie, self.now)
        return device is not None and device.let_in

    def cookie_for(self, code: str, address: str = "", name: str = "a device") -> str | None:
        """Return a cookie for the right code, None for a wrong one.

        Parameters
        ----------
        code : str
        address : str
            Whose it is: wrong ones are counted by it.
        name : str
            By which the device is listed.

        Raises
        ------
        Waits
        """
        with self.store.writing() as session:
            if not doors.is_code(session, code, address, self.now):
                return None
            return doors.let_in(session, name, address, True, self.now)

    @property
    def devices(self) -> tuple[doors.Device, ...]:
        """Every device that may come in from the network."""
        with self.store.reading() as session:
            return tuple(each for each in doors.devices(session, self.now) if each.let_in)

    def send_away(self, key: str) -> None:
        """Let a device in no more, unless it types a code again."""
        with self.store.writing() as session:
            doors.send_away(session, key)

    @property
    def knocks(self) -> str:
        """What is to be said at the desk of wrong codes; empty where there were none."""
        door = self.door
        if not door.wrong:
            return ""
        words = "1 wrong code was" if door.wrong == 1 else f"{door.wrong} wrong codes were"
        return f"{words} typed, the last from {door.last}."

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
        shown = (
            f"    {self.address}\n\n{stream.getvalue()}\n    code {self.code}, good for "
            f"{LASTS / 60:.0f} minutes; the page at the board has the next one\n"
        )
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
    pairing: Pairing | None = current_app.extensions["entrick.pairing"]
    return pairing


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
        code = "".join(request.form.get("code", "").split())[:20]
        cookie = pairing.cookie_for(code, request.remote_addr or "", device_name())
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


KNOWN = ("iPad", "iPhone", "Android", "Windows", "Macintosh", "Linux")
"""What browsers say of the machine they run on."""


def device_name() -> str:
    """Return by which name a device is listed: what its browser says of it, in a word."""
    said = request.headers.get("User-Agent", "")
    return next((word for word in KNOWN if word in said), "a device")


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
