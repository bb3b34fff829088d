"""The application factory."""

from __future__ import annotations

from collections.abc import Callable

from flask import Flask, Response, request
from werkzeug.exceptions import NotFound

from ...store import Store
from .. import register
from ..operation import Operation
from ..workers.forward import as_response, as_sent, forwarded
from ..workers.pool import InProcess, Pool
from . import guard, pages, problems, who
from .pairing import Pairing, door
from .proxy import Proxy


def create_app(
    store: Store,
    workers: Pool | None = None,
    notice: str = "",
    pairing: Pairing | None = None,
    proxy: Proxy | None = None,
) -> Flask:
    """Make the application for a store.

    Parameters
    ----------
    store : Store
        Already opened and migrated.
    workers : Pool, optional
        Who works plans out; they are worked out on the spot when not given.
    notice : str
        What whoever keeps the register should know.
    pairing : Pairing, optional
        Who may come in from the local network; nobody when not given.
    proxy : Proxy, optional
        What stands between the desk and everybody, where something does.
    """
    app = Flask(__name__, static_folder=None)
    app.extensions["entrick.store"] = store
    app.extensions["entrick.workers"] = workers or InProcess()
    app.extensions["entrick.notice"] = notice
    app.extensions["entrick.pairing"] = pairing
    app.extensions["entrick.behind_proxy"] = proxy
    if pairing is not None:
        pairing.stand_in(store)
    if proxy is not None:
        app.wsgi_app = proxy.around(app.wsgi_app)  # type: ignore[assignment,method-assign]
    guard.register(app)
    problems.register(app)
    for operation in register.operations():
        app.add_url_rule(
            operation.address, operation.name, _view(operation), methods=[operation.method]
        )
    app.register_blueprint(pages.pages)
    app.register_blueprint(door)

    @app.before_request
    def beyond_the_routes() -> Response | None:
        """Send on to the workers what the register has no operation for: they know what is worked
        out, and it need not be loaded here. What is no operation either is a page, or none."""
        if not isinstance(request.routing_exception, NotFound):
            return None
        if request.path.startswith("/api/"):
            who.require("work things out")
            return forwarded()
        looking = request.method in ("GET", "HEAD") and not request.path.startswith("/assets/")
        return pages.at(request.path) if looking else None

    return app


def _view(operation: Operation) -> Callable[..., Response]:
    def view(**said: object) -> Response:
        who.require(operation.deed, who.whose(operation, said) if who.here().person else None)
        found = operation.answer(as_sent("body" in operation.takes))
        return found if isinstance(found, Response) else as_response(found)

    return view
