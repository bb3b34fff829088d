"""The description of the API itself."""

from __future__ import annotations

from ..answer import Answer
from ..operation import Operations

document = Operations()


@document.get("/openapi.json")
def describe_api() -> Answer:
    """Return the OpenAPI document of the desk."""
    # It describes the register's operations as well, which a worker has no other use for.
    from ..openapi import as_text

    return Answer(as_text().encode())
