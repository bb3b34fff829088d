"""Fresh registers for tests, and the desk on one of them: to make one takes ten times as long as to take one that was
made."""

from __future__ import annotations

import atexit
import shutil
import tempfile
from functools import cache
from pathlib import Path

from flask import Flask

from entrick.store import Store, open_store
from entrick.web.http.app import create_app


@cache
def _empty() -> Path:
    folder = tempfile.mkdtemp(prefix="entrick-empty-")
    atexit.register(shutil.rmtree, folder, ignore_errors=True)
    path = Path(folder) / "register.db"
    open_store(path).close()
    return path


def fresh_store(path: Path) -> Store:
    """Open a register with nothing in it, in a file that is not there yet."""
    assert not path.exists(), path
    path.parent.mkdir(parents=True, exist_ok=True)
    return open_store(Path(shutil.copy(_empty(), path)))


@cache
def _desk() -> Flask:
    return create_app(open_store(_empty()))


def desk_on(store: Store) -> Flask:
    """Give the desk that works in this process, on another register from now on."""
    _desk().extensions["entrick.store"] = store
    return _desk()
