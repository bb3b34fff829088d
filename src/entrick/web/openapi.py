"""Writes the OpenAPI document the front end's types are generated from, or checks that it is current."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

from ..store import open_store
from .app import create_app


def document() -> str:
    """Return the OpenAPI document as stable text."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(open_store(Path(folder) / "register.db"))
        answer = app.test_client().get("/api/openapi.json", headers={"Host": "127.0.0.1"})
    return json.dumps(answer.get_json(), indent=1, sort_keys=True) + "\n"


def main(arguments: list[str]) -> int:
    """Write to the named file, or with ``--check`` compare with it."""
    path = Path(arguments[-1])
    if "--check" not in arguments:
        path.write_text(document(), "utf-8")
        return 0
    if path.read_text("utf-8") == document():
        return 0
    print(f"{path} is not what the application serves: run make types", file=sys.stderr)
    return 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
