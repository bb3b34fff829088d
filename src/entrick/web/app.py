"""The application factory."""

from __future__ import annotations

from flask_openapi3 import Info

from ..store import Store
from . import guard, problems
from .documented import Documented
from .hands import Doer, Here
from .jobs import jobs
from .kits import kits
from .logbook import logbook
from .pages import pages
from .pairing import Pairing, door
from .plans import plans
from .practice import practice
from .register import register


def create_app(store: Store, hands: Doer | None = None, notice: str = "", pairing: Pairing | None = None) -> Documented:
    """Make the application for a store.

    Parameters
    ----------
    store : Store
        Already opened and migrated.
    hands : Doer, optional
        Who works plans out; on the spot when not given.
    notice : str
        What whoever keeps the register should know.
    pairing : Pairing, optional
        Who may come in from the local network; nobody when not given.

    Returns
    -------
    Documented
        A Flask application that also serves its OpenAPI document at ``/api/openapi.json``.
    """
    app = Documented(
        __name__,
        info=Info(title="Entrick", version="1"),
        doc_prefix="/api",
        security_schemes={},
        static_folder=None,
        validation_error_model=problems.Problem,
        validation_error_callback=problems.invalid,
    )
    app.extensions["entrick.store"] = store
    app.extensions["entrick.hands"] = hands or Here()
    app.extensions["entrick.notice"] = notice
    app.extensions["entrick.pairing"] = pairing
    guard.register(app)
    problems.register(app)
    app.register_routes(plans)
    app.register_routes(jobs)
    app.register_routes(register)
    app.register_routes(logbook)
    app.register_routes(kits)
    app.register_routes(practice)
    app.register_blueprint(pages)
    app.register_blueprint(door)
    return app
