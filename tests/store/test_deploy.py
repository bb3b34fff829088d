"""What stands in deploy/ is what the desk understands: tried here as far as it can be without those programs."""

from __future__ import annotations

import http.client
import re
import shlex
import shutil
import subprocess
from collections.abc import Iterator
from configparser import ConfigParser
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from threading import Thread
from typing import Any

import pytest
import yaml

from entrick.cli.serving import serve
from processes import NAME, Process

DEPLOY = Path(__file__).parents[2] / "deploy"
UNIT = DEPLOY / "entrick@.service"


def started(command: str, **values: str) -> dict[str, Any]:
    """Return what a command that serves a desk comes to: options the desk does not know are refused."""
    for name, value in values.items():
        command = command.replace(name, value)
    return serve.make_context("serve", shlex.split(command)).params


def test_the_unit_starts_a_desk_behind_its_proxy() -> None:
    unit = ConfigParser(strict=False, interpolation=None)
    unit.optionxform = str  # type: ignore[assignment,method-assign]
    unit.read(UNIT)
    program, _, options = unit["Service"]["ExecStart"].partition(" serve ")
    assert program.endswith("/entrick")
    values = {
        "%i": "8401",
        "${ENTRICK_NAME}": NAME,
        "${ENTRICK_DATABASE}": "postgresql+psycopg://entrick@/entrick",
    }
    found = started(options, **values)
    assert (found["port"], found["behind_proxy"], found["name"]) == (8401, "127.0.0.1", NAME)
    assert unit["Service"]["NoNewPrivileges"] == "yes"
    if shutil.which("systemd-analyze"):
        told = subprocess.run(
            ["systemd-analyze", "verify", UNIT], capture_output=True, text=True, check=False
        )
        assert "Unknown" not in told.stderr


def test_the_compose_file_starts_two_desks_that_answer_to_the_proxy_of_it() -> None:
    compose = yaml.safe_load((DEPLOY / "compose.yaml").read_text("utf-8"))
    services = compose["services"]
    proxy = services["proxy"]["networks"]["office"]["ipv4_address"]
    for desk in ("desk", "desk2"):
        found = started("--listen 0.0.0.0 --port 8400 " + services[desk]["command"])
        assert found["behind_proxy"] == proxy
        assert found["database"].startswith("postgresql+psycopg://")
    assert (DEPLOY / services["desk"]["build"]["dockerfile"].removeprefix("deploy/")).is_file()
    named = re.findall(r"server (\S+):8400;", (DEPLOY / "nginx-compose.conf").read_text("utf-8"))
    assert named == ["desk", "desk2"]
    assert "ports" not in services["desk"], "nobody comes to a desk but through the proxy"


@contextmanager
def standing_in(conf: Path, desk: int, scheme: str = "https") -> Iterator[int]:
    """Stand in for the proxy: it sends what the example sends, and nothing else of whoever asks."""
    rows = re.findall(r"proxy_set_header (\S+) (\S+);", conf.read_text("utf-8"))
    values = {"$host": NAME, "$remote_addr": "10.1.2.3", "$scheme": scheme, '""': ""}

    class Stand(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            link = http.client.HTTPConnection("127.0.0.1", desk, timeout=60)
            said = {name: values[value] for name, value in rows if values[value]}
            link.request("GET", self.path, headers=said)
            answer = link.getresponse()
            body = answer.read()
            self.send_response(answer.status)
            self.send_header("Content-Length", str(len(body)))
            self.end_headers()
            self.wfile.write(body)

        def log_message(self, *_: Any) -> None:
            return

    server = ThreadingHTTPServer(("127.0.0.1", 0), Stand)
    Thread(target=server.serve_forever, daemon=True).start()
    yield server.server_address[1]
    server.shutdown()
    server.server_close()


@pytest.mark.parametrize("conf", ["nginx.conf", "nginx-compose.conf"])
def test_the_proxy_of_the_example_is_let_through_and_nobody_beside_it(
    tmp_path: Path, conf: str
) -> None:
    desk = Process(str(tmp_path / "r.db"))
    try:
        with standing_in(DEPLOY / conf, desk.port) as port:

            def asked(path: str) -> int:
                link = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
                link.request("GET", path)
                return link.getresponse().status

            assert asked("/") == 200
            assert asked("/api/people/here") == 200
            assert asked("/api/jobs") == 401, (
                "behind a proxy one person alone says a passphrase, too"
            )
        beside = http.client.HTTPConnection("127.0.0.1", desk.port, timeout=60)
        beside.request("GET", "/api/jobs")
        assert beside.getresponse().status == 403
    finally:
        desk.stop()
    if shutil.which("nginx"):
        whole = f"events {{}}\nhttp {{ include {DEPLOY / conf}; }}\n"
        (tmp_path / "nginx.conf").write_text(whole, "utf-8")
        told = subprocess.run(
            ["nginx", "-t", "-c", tmp_path / "nginx.conf"],
            capture_output=True,
            text=True,
            check=False,
        )
        assert "unknown directive" not in told.stderr
