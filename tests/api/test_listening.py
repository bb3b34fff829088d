"""The server of both doors, held by whoever wants to: idle, slow and large keep nobody out."""

import socket
import ssl
import urllib.request
from collections.abc import Iterator
from contextlib import ExitStack
from pathlib import Path

import pytest
import trustme

from entrick.web.http import listening
from entrick.web.http.app import create_app
from entrick.web.http.pairing import Pairing
from entrick.web.http.serve import Network, check_certificate
from registers import fresh_store
from serving import Serving

IDLE = 200
"""Connections that say nothing; ten were enough once."""


class Doors:
    """Both doors of a desk, the network's with a certificate or without."""

    def __init__(self, folder: Path, secure: bool) -> None:
        authority = trustme.CA()
        own = authority.issue_cert("127.0.0.2")
        own.cert_chain_pems[0].write_to_path(str(folder / "c.pem"))
        own.private_key_pem.write_to_path(str(folder / "k.pem"))
        self.trust = ssl.create_default_context()
        authority.configure_trust(self.trust)
        self.secure = secure
        self.pairing = Pairing("127.0.0.2", 0, secure)
        app = create_app(fresh_store(folder / "r.db"), pairing=self.pairing)
        self.strange = False
        cert = (folder / "c.pem", folder / "k.pem") if secure else None
        self.serving = Serving(app, pairing=self.pairing, cert=cert)

    def knock(self) -> socket.socket:
        return socket.create_connection(("127.0.0.2", self.serving.network), timeout=30)

    def spoken(self) -> socket.socket:
        """Return a connection to the network's door, with what is to be agreed on agreed."""
        bare = self.knock()
        return self.trust.wrap_socket(bare, server_hostname="127.0.0.2") if self.secure else bare

    def asked(self, sent: bytes) -> bytes:
        """Send something to the network's door, and return how the answer begins."""
        with self.spoken() as connection:
            connection.sendall(sent)
            return connection.recv(4096)


@pytest.fixture(params=[False, True], ids=["plain", "certificate"])
def doors(
    request: pytest.FixtureRequest, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> Iterator[Doors]:
    made = Doors(tmp_path, request.param)
    # Both doors are loopback addresses here: who is strange is said by the test.
    monkeypatch.setattr(listening, "is_here", lambda _: not made.strange)
    yield made
    made.serving.stop()


def answers(address: str) -> None:
    """The desk answers, before anybody who holds a connection is let go on a quiet machine."""
    with urllib.request.urlopen(f"{address}/api/jobs", timeout=60) as answer:
        assert answer.status == 200


def test_silent_connections_keep_nobody_out_at_either_door(doors: Doors) -> None:
    answers(doors.serving.address)
    with ExitStack() as stack:
        for _ in range(IDLE):
            stack.enter_context(doors.knock())
            here = socket.create_connection(("127.0.0.1", doors.serving.port))
            stack.enter_context(here)
            here.sendall(b"GET /api/jobs HT")
        answers(doors.serving.address)
        assert doors.asked(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n").startswith(b"HTTP/1.1 403")


def test_who_does_not_come_to_terms_about_the_certificate_is_let_go(
    doors: Doors, monkeypatch: pytest.MonkeyPatch
) -> None:
    if not doors.secure:
        return
    with doors.knock() as silent:
        silent.settimeout(30)
        assert silent.recv(1) == b"", "the door was closed"


def test_what_a_stranger_sends_is_refused_at_its_head(doors: Doors) -> None:
    doors.strange = True
    head = b"POST /api/work HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\n"
    answer = doors.asked(head + b"Content-Length: 60000000\r\n\r\n")
    assert answer.startswith(b"HTTP/1.1 413"), "before a byte of it was sent"
    pieces = head + b"Transfer-Encoding: chunked\r\n\r\n" + b"1000\r\n" + b"x" * 0x1000 + b"\r\n"
    assert doors.asked(pieces).startswith(b"HTTP/1.1 413")
    doors.strange = False
    assert doors.asked(head + b"Content-Length: 99999999999999999999\r\n\r\n").startswith(
        b"HTTP/1.1 413"
    )


def test_a_body_that_does_not_come_holds_no_thread(
    doors: Doors, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(listening, "IDLE", 1.0)
    head = b"POST /api/work HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n"
    with ExitStack() as stack:
        slow = [stack.enter_context(doors.spoken()) for _ in range(60)]
        for connection in slow:
            connection.sendall(head + b"{")
        answers(doors.serving.address)  # though there are more of them than threads
        told = slow[0].recv(100)
        assert told.startswith(b"HTTP/1.1 408") or not told, (
            "let go, with a word where there is time"
        )


def test_a_body_in_pieces_is_read_as_one(doors: Doors) -> None:
    port = doors.serving.port
    with socket.create_connection(("127.0.0.1", port), timeout=30) as connection:
        head = f"POST /api/work HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Type: application/json\r\n"
        connection.sendall(head.encode() + b"Transfer-Encoding: chunked\r\n\r\n")
        for piece in (b'{"text": ', b'"O = datum"}'):
            connection.sendall(f"{len(piece):x}\r\n".encode() + piece + b"\r\n")
        connection.sendall(b"0\r\n\r\n")
        assert connection.recv(4096).startswith(b"HTTP/1.1 200")


def test_a_certificate_that_is_none_or_of_another_key_is_told_as_such(tmp_path: Path) -> None:
    authority = trustme.CA()
    one, other = authority.issue_cert("127.0.0.2"), authority.issue_cert("127.0.0.2")
    one.cert_chain_pems[0].write_to_path(str(tmp_path / "c.pem"))
    other.private_key_pem.write_to_path(str(tmp_path / "k.pem"))
    (tmp_path / "none.pem").write_bytes(b"no certificate")
    for cert in ("c.pem", "none.pem", "nowhere.pem"):
        with pytest.raises(SystemExit, match="are no certificate"):
            check_certificate(Network("127.0.0.2", tmp_path / cert, tmp_path / "k.pem"))
