"""The HTTP side: an application factory, one blueprint per resource, problem+json errors, the built front end."""

from .app import create_app

__all__ = ["create_app"]
