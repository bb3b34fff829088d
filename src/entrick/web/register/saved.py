"""The register of this application, and what has been saved with the request at hand."""

from __future__ import annotations

from typing import cast

from flask import current_app, g

from ... import store


def the_store() -> store.Store:
    """Return the register of this application."""
    return cast(store.Store, current_app.extensions["entrick.store"])


def committed() -> None:
    """Note that what was sent with this request is saved: whatever happens to the answer, it must
    not say otherwise."""
    g.committed = True


def what_is_saved() -> str:
    """Tell whether what was sent with this request is saved."""
    return "What was sent is saved." if getattr(g, "committed", False) else "Nothing was saved."
