"""An application on a database of its own."""

from collections.abc import Callable, Iterator

import pytest
from flask.testing import FlaskClient

from entrick.store import Store, open_store
from registers import desk_on

BOTH = {"test_register", "test_sittings", "test_kits", "test_class_sets", "test_practice"}
"""Tests of what is kept: they run on a file and on a server."""


def pytest_generate_tests(metafunc: pytest.Metafunc) -> None:
    on_both = (
        metafunc.module.__name__.rpartition(".")[2] in BOTH and "store" in metafunc.fixturenames
    )
    if on_both and not any(mark.name == "file_only" for mark in metafunc.definition.iter_markers()):
        metafunc.parametrize("store", ["file", "server"], indirect=True)


@pytest.fixture
def store(request: pytest.FixtureRequest) -> Iterator[Store]:
    if getattr(request, "param", "file") == "file":
        yield request.getfixturevalue("file_store")
        return
    store = open_store(request.getfixturevalue("postgres").register())
    yield store
    store.close()


@pytest.fixture
def client(store: Store, fill: Callable[[Store], None]) -> Iterator[FlaskClient]:
    fill(store)
    with desk_on(store).test_client() as client:
        client.environ_base["HTTP_HOST"] = "127.0.0.1:8400"
        yield client
