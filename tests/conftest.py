"""What all tests share."""

from __future__ import annotations

import gc
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing
from pathlib import Path

import pytest

import examples  # noqa: F401 - the profiles of hypothesis are loaded with it
from entrick.core import fault
from entrick.core.desk import Work, work_out
from entrick.core.summarize import summarize
from entrick.demo import sample_plans
from entrick.demo.jobs import load
from entrick.store import Store
from entrick.web.workers.pool import tune_gc
from postgres import Postgres, copied
from registers import fresh_store

tune_gc()  # as a worker does: what is remembered is looked through for cycles seldom

fault.NET = False  # a fault of the desk falls through to the test it happens in


def pytest_sessionfinish() -> None:
    """What is remembered is not looked through five times more for what nobody holds."""
    gc.freeze()


HEAD = "units mm\nsheet A3 landscape, scale 1:1, border 10\n"


@pytest.fixture(scope="session")
def work() -> Callable[[str], Work]:
    """Work out the statements of a millimetre plan."""
    return lambda rows: work_out(HEAD + rows)


@pytest.fixture(scope="session")
def samples() -> dict[str, str]:
    """The sample plans by file name."""
    return sample_plans()


@pytest.fixture(scope="session")
def sample_register(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A register with the sample jobs, made once; tests work on copies."""
    path = tmp_path_factory.mktemp("samples") / "register.db"
    store = fresh_store(path)
    load(store, summarize)
    store.close()
    return path


@pytest.fixture
def file_store(tmp_path: Path) -> Store:
    """An empty register in a file."""
    return fresh_store(tmp_path / "register.db")


@pytest.fixture(scope="session")
def postgres() -> Iterator[Postgres]:
    """A PostgreSQL server, started when a test first wants one."""
    server = Postgres()
    yield server
    server.stop()


@pytest.fixture
def fill(sample_register: Path) -> Callable[[Store], None]:
    """Put the sample jobs into an empty register."""

    def copy(store: Store) -> None:
        if store.file is None:
            copied(sample_register, store)
            return
        with (
            closing(sqlite3.connect(sample_register)) as samples,
            closing(sqlite3.connect(store.path)) as ours,
        ):
            samples.backup(ours)

    return copy
