"""What keeps a page on another site from using the desk: Host, Origin, and a strict Content-Security-Policy."""

from __future__ import annotations

import secrets
from urllib.parse import urlsplit

from flask import Flask, Response, abort, g, request

LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]", "::1"})
LARGEST_BODY = 512 * 1024


def _host(name: str) -> str:
    return (urlsplit(f"//{name}").hostname or "").lower()


def register(app: Flask) -> None:
    """Guard every request and answer."""
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_BODY

    @app.before_request
    def check() -> None:
        if _host(request.headers.get("Host", "")) not in LOOPBACK:
            abort(403, "The desk answers only to its own address on this machine.")
        if request.method in ("GET", "HEAD", "OPTIONS"):
            return
        origin = request.headers.get("Origin")
        if origin is not None and urlsplit(origin).netloc != request.headers.get("Host"):
            abort(403, "Changes are taken only from the desk's own pages.")
        if request.headers.get("Sec-Fetch-Site", "same-origin") not in ("same-origin", "none"):
            abort(403, "Changes are taken only from the desk's own pages.")
        if request.content_length and request.mimetype != "application/json":
            abort(415, "Send application/json.")

    @app.after_request
    def protect(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = (
            "default-src 'none'; script-src 'self'; connect-src 'self'; font-src 'self'; img-src 'self' data: blob:; "
            f"style-src 'self' 'nonce-{nonce()}'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
        )
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
        return response


def nonce() -> str:
    """Return the word that lets this answer's own style elements in, and no others."""
    if not hasattr(g, "nonce"):
        g.nonce = secrets.token_urlsafe(16)
    return str(g.nonce)
