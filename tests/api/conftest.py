"""An application on a database of its own."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from entrick.store import Store, open_store
from entrick.web.http.app import create_app


@pytest.fixture
def store(tmp_path: Path) -> Store:
    return open_store(tmp_path / "register.db")


@pytest.fixture
def client(store: Store, fill: Callable[[Store], None]) -> Iterator[FlaskClient]:
    fill(store)
    app = create_app(store)
    with app.test_client() as client:
        client.environ_base["HTTP_HOST"] = "127.0.0.1:8400"
        yield client
