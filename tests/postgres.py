"""A PostgreSQL server of the tests' own: Debian's, on a socket in a temporary folder, ended with them."""

from __future__ import annotations

import os
import shutil
import subprocess
import tempfile
import uuid
from pathlib import Path

from sqlalchemy import create_engine, text

from entrick.store import Store, open_store
from entrick.store.models import Base

SERVER = "postgres"
"""The account of the server: as root it does not run."""


def binaries() -> Path:
    """Return the folder of the newest server that is installed."""
    found = sorted(
        Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda each: int(each.parts[-3])
    )
    assert found, "there is no PostgreSQL server: make test installs one"
    return found[-1].parent


def copied(file: Path, store: Store) -> None:
    """Put every row of a register in a file into one on a server."""
    with open_store(file).reading() as here, store.writing() as there:
        tables = [*Base.metadata.sorted_tables]
        for table in reversed(tables):
            there.execute(table.delete())
        for table in tables:
            rows = [dict(row) for row in here.execute(table.select()).mappings()]
            if rows:
                there.execute(table.insert(), rows)
            if rows and "id" in table.columns:
                last = max(row["id"] for row in rows)
                there.execute(
                    text(f"SELECT setval(pg_get_serial_sequence('{table.name}', 'id'), {last})")
                )


class Postgres:
    """A server that listens on a socket alone, and forgets everything when it ends."""

    def __init__(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="entrick-pg-", dir="/tmp"))
        data = self.folder / "data"
        data.mkdir()
        if os.geteuid() == 0:
            for each in (self.folder, data):
                shutil.chown(each, SERVER, SERVER)
        self._run(
            "initdb",
            "-D",
            data,
            "-A",
            "trust",
            "-U",
            SERVER,
            "-E",
            "UTF8",
            "--locale=C.UTF-8",
            "--no-sync",
        )
        options = f"-c listen_addresses='' -c unix_socket_directories={self.folder} -c fsync=off -c max_connections=200"
        self._run("pg_ctl", "-D", data, "-l", self.folder / "log", "-w", "-o", options, "start")
        self._made = 0

    def _run(self, program: str, *arguments: object) -> None:
        command = [str(binaries() / program), *map(str, arguments)]
        if os.geteuid() == 0:
            command = [
                "setpriv",
                f"--reuid={SERVER}",
                f"--regid={SERVER}",
                "--init-groups",
                *command,
            ]
        done = subprocess.run(
            command, cwd=self.folder, capture_output=True, text=True, check=False, timeout=120
        )
        assert done.returncode == 0, done.stdout + done.stderr

    def url(self, name: str) -> str:
        """Return the address of a database by name."""
        return f"postgresql+psycopg://{SERVER}@/{name}?host={self.folder}"

    def fresh(self) -> str:
        """Return the address of an empty database."""
        return self._create("")

    def register(self) -> str:
        """Return the address of a register in which nothing is yet, made as a copy of one."""
        if not self._made:
            self._create("", "entrick_template")
            open_store(self.url("entrick_template")).close()
            self._made = 1
        return self._create("TEMPLATE entrick_template")

    def _create(self, how: str, name: str = "") -> str:
        name = name or f"r{uuid.uuid4().hex}"
        engine = create_engine(self.url("postgres"), isolation_level="AUTOCOMMIT")
        with engine.connect() as connection:
            connection.execute(text(f"CREATE DATABASE {name} {how}"))
        engine.dispose()
        return self.url(name)

    def stop(self) -> None:
        """End, and leave nothing."""
        self._run("pg_ctl", "-D", self.folder / "data", "-m", "immediate", "-w", "stop")
        shutil.rmtree(self.folder, ignore_errors=True)
