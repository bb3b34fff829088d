"""What keeps a page on another site from using the desk: Host, Origin, and a strict
Content-Security-Policy."""

from __future__ import annotations

import ipaddress
import secrets
from urllib.parse import urlsplit

from flask import Flask, Response, abort, current_app, g, request

from . import who
from .pairing import COOKIE, PAIR, knock, the_pairing
from .proxy import Proxy

LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]", "::1"})
LARGEST_BODY = 512 * 1024
SMALLEST_BODY = 1024
"""Bytes somebody may send who has not typed the code yet."""

LARGEST_ZIP = 256 * 2**20
"""Bytes of a register that is imported."""

IMPORT = "/api/register/import"

LARGER = {
    "/api/practice/set/": 64 * 2**20,
    "/api/read-back": 5 * 2**20,
    "/api/look": 56 * 2**20,
}
"""Bytes of the set of a whole class with its answers, of a drawing that is read back, and of a
picture of a sheet as it is sent."""


def _host(name: str) -> str:
    try:
        return (urlsplit(f"//{name}").hostname or "").lower()
    except ValueError:
        return ""


def is_here(peer: str | None) -> bool:
    """Tell whether whoever asks sits at this machine."""
    try:
        return ipaddress.ip_address(peer or "").is_loopback
    except ValueError:
        return False


def _netloc(address: str) -> str:
    try:
        return urlsplit(address).netloc
    except ValueError:
        return ""


def register(app: Flask) -> None:
    """Guard every request and answer."""

    @app.before_request
    def check() -> Response | None:
        _check_door()
        origin, site = (
            request.headers.get("Origin"),
            request.headers.get("Sec-Fetch-Site", "same-origin"),
        )
        looking = request.method in ("GET", "HEAD", "OPTIONS")
        # Looking at the pages costs nothing; whatever the API works out or gives away is for the
        # desk's own pages.
        if looking and not request.path.startswith("/api/"):
            return stranger()
        if site not in ("same-origin", "none") or (
            origin is not None and _netloc(origin) != request.host
        ):
            abort(403, "The desk is used only from its own pages.")
        answer = stranger()
        if answer is not None or request.path == PAIR:
            return answer
        who.find()
        if looking:
            return None
        large = request.path == IMPORT
        others = (size for path, size in LARGER.items() if request.path.startswith(path))
        request.max_content_length = LARGEST_ZIP if large else next(others, LARGEST_BODY)
        wanted = "application/zip" if large else "application/json"
        if (
            request.content_length or request.headers.get("Transfer-Encoding")
        ) and request.mimetype != wanted:
            abort(415, f"Send {wanted}.")
        if not large:
            _read_json()
        return None

    def stranger() -> Response | None:
        """Answer a device of the network that has not typed the code."""
        pairing = the_pairing()
        if g.at_the_desk or pairing is None or pairing.lets_in(request.cookies.get(COOKIE)):
            return None
        request.max_content_length = SMALLEST_BODY
        return knock()

    @app.after_request
    def protect(response: Response) -> Response:
        if g.get("joined"):
            response = g.joined(response)
        # The page that asks for the code is the only one with a form that is sent, and has to say
        # where from.
        forms = "'self'" if g.get("asks", False) else "'none'"
        response.headers["Content-Security-Policy"] = (
            "default-src 'none'; script-src 'self'; worker-src 'self'; connect-src 'self'; "
            "font-src 'self'; "
            "img-src 'self' data: blob:; media-src data:; "
            f"style-src 'self' 'nonce-{nonce()}'; base-uri 'none'; form-action {forms}; "
            "frame-ancestors 'none'"
        )
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = (
            "same-origin" if g.get("asks", False) else "no-referrer"
        )
        response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
        return response


def _check_door() -> None:
    """Refuse whoever comes by a door that is none, and note whether they sit at the desk."""
    said = request.headers.get("Host", "")
    proxy: Proxy | None = current_app.extensions["entrick.behind_proxy"]
    if proxy is not None:
        g.at_the_desk = False
        if request.host != proxy.name:
            abort(403, "The desk answers only to the name it is called by.")
        return
    pairing = the_pairing()
    g.at_the_desk = _host(said) in LOOPBACK and is_here(request.remote_addr)
    if not g.at_the_desk and (pairing is None or said != pairing.netloc):
        abort(403, "The desk answers only to its own address on this machine.")


def _read_json() -> None:
    """Read the body here, where one that is nested beyond reading can be told."""
    try:
        request.get_json(silent=True)
    except RecursionError:
        abort(422, "The body is nested too deeply.")


def nonce() -> str:
    """Return the word that lets this answer's own style elements in, and no others."""
    if not hasattr(g, "nonce"):
        g.nonce = secrets.token_urlsafe(16)
    return str(g.nonce)
