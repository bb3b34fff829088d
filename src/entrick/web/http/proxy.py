"""A reverse proxy in front of the desk: what it says of whoever asks is believed of it alone."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from werkzeug.middleware.proxy_fix import ProxyFix

Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]

FORWARDED = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_PROTO", "HTTP_X_FORWARDED_HOST")


@dataclass(frozen=True, slots=True)
class Proxy:
    """The proxy before the desk.

    Attributes
    ----------
    address : str
        From which it asks.
    name : str
        By which the desk is called from outside, with the port where there is one.
    """

    address: str
    name: str

    def around(self, app: Wsgi) -> Wsgi:
        """Return an application that answers to the proxy alone, and takes from it who asks."""
        forwarded = ProxyFix(app, x_for=1, x_proto=1, x_host=1)

        def answer(environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
            if environ.get("REMOTE_ADDR") != self.address or FORWARDED[0] not in environ:
                headers = [("Content-Type", "text/plain; charset=utf-8")]
                start("403 Forbidden", headers)
                return [b"The desk answers to its proxy alone.\n"]
            return forwarded(environ, start)

        return answer
