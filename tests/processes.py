"""Desks that are processes of their own, asked as a reverse proxy asks them."""

from __future__ import annotations

import http.client
import json
import re
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

NAME = "desk.yard.test"


def free_port() -> int:
    """Return a port nobody listens at."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


@dataclass
class OnTheNetwork:
    """A desk that lets other devices in, with the code it shows."""

    process: subprocess.Popen[str]
    port: int
    code: str
    said: str


@contextmanager
def on_the_network(database: Path, address: str, *more: str) -> Iterator[OnTheNetwork]:
    """Start a desk that listens on an address of this machine as well, until it is done with."""
    port = free_port()
    command = [sys.executable, "-m", "entrick.cli", "serve", "--port", str(port)]
    command += ["--database", str(database), "--lan", "--lan-address", address, *more]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as desk:
        assert desk.stdout is not None
        said = ""
        try:
            while not (found := re.search(r"code (\d{6})", said)):
                row = desk.stdout.readline()
                assert row, f"it has ended: {said}"
                said += row
            yield OnTheNetwork(desk, port, found[1], said)
        finally:
            desk.terminate()
            desk.wait(30)


class Process:
    """A desk behind a proxy at 127.0.0.1, of which this is the stand-in."""

    def __init__(self, database: str, *more: str) -> None:
        self.port = free_port()
        command = [
            sys.executable,
            "-m",
            "entrick.cli",
            "serve",
            "--port",
            str(self.port),
            "--database",
            database,
        ]
        command += ["--behind-proxy", "127.0.0.1", "--name", NAME, *more]
        self.desk = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        assert self.desk.stdout is not None
        while "Entrick is at" not in (row := self.desk.stdout.readline()):
            assert self.desk.poll() is None, row

    def ask(
        self, method: str, path: str, body: Any = None, cookie: str = "", **headers: str
    ) -> tuple[int, Any, str]:
        """Ask as the proxy does; return the status, what comes back, and a cookie that was set."""
        said = {
            "Host": NAME,
            "X-Forwarded-For": "10.1.2.3",
            "X-Forwarded-Proto": "https",
            "X-Forwarded-Host": NAME,
            "Content-Type": "application/json",
            "Cookie": cookie,
        }
        said |= {name.replace("_", "-"): value for name, value in headers.items()}
        link = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        try:
            link.request(method, path, None if body is None else json.dumps(body), said)
            answer = link.getresponse()
            told = answer.read()
            given = (answer.getheader("Set-Cookie") or "").partition(";")[0]
            is_json = "json" in (answer.getheader("Content-Type") or "")
            return answer.status, json.loads(told) if is_json and told else told, given
        finally:
            link.close()

    def sign_in(self, person: int, secret: str) -> str:
        """Sign somebody in, and return the cookie."""
        status, told, cookie = self.ask(
            "POST", "/api/people/here", {"person": person, "secret": secret}
        )
        assert status == 200, told
        return cookie

    def stop(self, kill: bool = False) -> None:
        """End."""
        if self.desk.poll() is None:
            (self.desk.kill if kill else self.desk.terminate)()
        self.desk.wait(30)
        time.sleep(0)
