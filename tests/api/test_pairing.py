"""The door for devices of the local network, attacked: guessed at, replayed, called by other names."""

import ssl
import urllib.request
from http.client import HTTPSConnection
from pathlib import Path
from typing import Any
from urllib.error import HTTPError, URLError

import pytest
import trustme
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from werkzeug.test import TestResponse

from entrick.store.doors import GUESSES, LASTS, TRIES, WAIT
from entrick.web.http.app import create_app
from entrick.web.http.pairing import COOKIE, Pairing, local_address
from processes import on_the_network
from registers import fresh_store

HOST = "192.168.7.5:8400"
PHONE = {"REMOTE_ADDR": "192.168.7.9"}


class Clock:
    now = 1_800_000_000.0

    def __call__(self) -> float:
        return self.now


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def pairing(clock: Clock) -> Pairing:
    return Pairing("192.168.7.5", 8400, False, clock)


@pytest.fixture
def phone(tmp_path: Path, pairing: Pairing) -> FlaskClient:
    app = create_app(fresh_store(tmp_path / "r.db"), pairing=pairing)
    app.test_client_class = Phone
    return app.test_client()


class Phone(FlaskClient):
    """A device of the network that calls the desk by its address there."""

    def open(self, *args: Any, **said: Any) -> TestResponse:
        said.setdefault("base_url", f"http://{HOST}")
        said.setdefault("environ_base", PHONE)
        return super().open(*args, **said)


def typed(client: FlaskClient, code: str, origin: str = f"http://{HOST}") -> int:
    return client.post("/pair", data={"code": code}, headers={"Origin": origin}).status_code


def test_without_the_code_there_is_the_page_that_asks_for_it_and_nothing_else(
    phone: FlaskClient,
) -> None:
    for path in (
        "/",
        "/jobs/1",
        "/jobs/1/board",
        "/logbook",
        "/kits",
        "/no/such/page",
        "/board-worker.js",
        "/mark.svg",
    ):
        answer = phone.get(path)
        assert answer.status_code == 401
        assert "code of six figures" in answer.text
        assert "assets" not in answer.text
    for path in (
        "/api/jobs",
        "/api/kinds",
        "/api/register/export.zip",
        "/api/openapi.json",
        "/assets/index.js",
    ):
        assert phone.get(path).status_code == 401
    assert phone.post("/api/work", json={"text": ""}).status_code == 401
    assert phone.post("/api/jobs", json={"text": "units mm\n"}).status_code == 401
    assert "form-action 'self'" in phone.get("/pair").headers["Content-Security-Policy"]


def test_the_right_code_lets_a_device_in_and_the_desk_stays_as_strict_to_it(
    phone: FlaskClient, pairing: Pairing
) -> None:
    answer = phone.post("/pair", data={"code": f" {pairing.code[:3]} {pairing.code[3:]}"})
    assert answer.status_code == 303
    cookie = answer.headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Strict" in cookie
    assert phone.get("/api/jobs").status_code == 200
    assert phone.post("/api/work", json={"text": "units mm\n"}).status_code == 200
    # Host, Origin and the kind of body are looked at as before.
    assert (
        phone.post(
            "/api/work", json={"text": ""}, headers={"Origin": "http://elsewhere.test"}
        ).status_code
        == 403
    )
    assert phone.get("/api/jobs", headers={"Sec-Fetch-Site": "cross-site"}).status_code == 403
    assert phone.post("/api/work", data="text", content_type="text/plain").status_code == 415
    assert "form-action 'none'" in phone.get("/api/jobs").headers["Content-Security-Policy"]
    # The code itself is told at the desk alone.
    told = phone.get("/api/register/pairing").get_json()
    assert not any(told.values()), "neither the code nor who else was let in"
    assert phone.get("/api/register/pairing.svg").status_code == 404


def test_five_wrong_codes_and_the_door_waits_even_for_the_right_one(
    phone: FlaskClient, pairing: Pairing, clock: Clock
) -> None:
    wrong = f"{(int(pairing.code) + 1) % 1_000_000:06}"
    for _ in range(TRIES):
        assert typed(phone, wrong) == 403
    assert typed(phone, pairing.code) == 429
    assert int(phone.post("/pair", data={"code": pairing.code}).headers["Retry-After"]) >= WAIT
    clock.now += WAIT - 1
    assert typed(phone, pairing.code) == 429
    clock.now += 2
    for _ in range(TRIES):
        assert typed(phone, wrong) == 403
    clock.now += WAIT + 1
    assert typed(phone, pairing.code) == 429, "the second time it waits twice as long"
    clock.now += WAIT
    assert typed(phone, pairing.code) == 303


def test_wrong_codes_of_one_keep_nobody_else_out_and_are_told_at_the_desk(
    phone: FlaskClient, pairing: Pairing
) -> None:
    wrong = f"{(int(pairing.code) + 1) % 1_000_000:06}"
    for _ in range(TRIES):
        assert typed(phone, wrong) == 403
    assert typed(phone, pairing.code) == 429
    assert pairing.cookie_for(pairing.code, "192.168.7.10") is not None
    assert pairing.knocks == "5 wrong codes were typed, the last from 192.168.7.9."
    code = pairing.code
    for number in range(GUESSES):
        pairing.cookie_for(wrong, f"192.168.8.{number}")
    assert pairing.code != code, "many who guess guess at nothing"


def test_a_code_is_good_for_ten_minutes(phone: FlaskClient, pairing: Pairing, clock: Clock) -> None:
    code = pairing.code
    clock.now += LASTS - 1
    assert pairing.cookie_for(code) is not None
    assert pairing.seconds == 1
    clock.now += 1
    assert pairing.code != code
    assert pairing.cookie_for(code) is None


def test_a_device_is_listed_at_the_desk_and_can_be_sent_away(
    phone: FlaskClient, pairing: Pairing
) -> None:
    phone.post("/pair", data={"code": pairing.code}, headers={"User-Agent": "Mozilla (iPad; CPU)"})
    assert phone.get("/api/jobs").status_code == 200
    desk = phone.application.test_client()
    here = {"base_url": "http://127.0.0.1:8400", "environ_base": {"REMOTE_ADDR": "127.0.0.1"}}
    told = desk.get("/api/register/pairing", **here).get_json()
    (device,) = told["devices"]
    assert (device["name"], device["address"]) == ("iPad", PHONE["REMOTE_ADDR"])
    assert phone.delete(f"/api/register/devices/{device['key']}").status_code == 404, (
        "only at the desk"
    )
    after = desk.delete(f"/api/register/devices/{device['key']}", **here)
    assert after.get_json()["devices"] == []
    assert phone.get("/api/jobs").status_code == 401
    assert desk.post("/api/register/pairing/code", **here).get_json()["code"] != told["code"]


@pytest.mark.parametrize(
    "host", ["192.168.7.5:8401", "192.168.7.5", "127.0.0.1:8400", "localhost", "desk.test:8400", ""]
)
def test_under_another_name_nobody_is_let_in(
    phone: FlaskClient, pairing: Pairing, host: str
) -> None:
    assert typed(phone, pairing.code) == 303
    assert phone.get("/api/jobs", headers={"Host": host}).status_code == 403
    assert phone.get("/", headers={"Host": host}).status_code == 403


def test_a_cookie_of_another_register_or_made_up_lets_nobody_in(
    phone: FlaskClient, pairing: Pairing, tmp_path: Path
) -> None:
    other = Pairing("192.168.7.5", 8400, False)
    other.stand_in(fresh_store(tmp_path / "other.db"))
    replayed = other.cookie_for(other.code)
    assert replayed is not None
    own = pairing.cookie_for(pairing.code)
    assert own is not None
    for cookie in (
        replayed,
        own[:-1],
        own.swapcase(),
        "",
        "." * 40,
        "x" * 4000,
        own[:20] + replayed[20:],
    ):
        phone.set_cookie(COOKIE, cookie, domain="192.168.7.5")
        assert phone.get("/api/jobs").status_code == 401, cookie
    phone.set_cookie(COOKIE, own, domain="192.168.7.5")
    assert phone.get("/api/jobs").status_code == 200


def test_a_code_typed_by_another_site_or_a_large_body_is_refused(
    phone: FlaskClient, pairing: Pairing
) -> None:
    assert typed(phone, pairing.code, "http://elsewhere.test") == 403
    assert phone.post("/pair", data={"code": "1" * 5000}).status_code in (403, 413)
    assert typed(phone, pairing.code) == 303


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.text(max_size=30))
def test_whatever_is_typed_only_the_code_is_right(
    phone: FlaskClient, pairing: Pairing, code: str
) -> None:
    pairing.renew()
    assert (pairing.cookie_for(code, code) is not None) == (code == pairing.code)


def test_without_being_asked_the_desk_is_for_this_machine_alone(tmp_path: Path) -> None:
    client = create_app(fresh_store(tmp_path / "r.db")).test_client()
    assert client.get("/pair").status_code == 404
    assert client.post("/pair", data={"code": "1"}).status_code in (404, 415)
    assert client.get("/", headers={"Host": HOST}, environ_base=PHONE).status_code == 403
    assert client.get("/", headers={"Host": "127.0.0.1"}, environ_base=PHONE).status_code == 403
    assert client.get("/", headers={"Host": "127.0.0.1"}).status_code in (200, 503)


@pytest.mark.parametrize("address", ["8.8.8.8", "0.0.0.0", "desk", "::", "2001:4860::8888"])
def test_an_address_of_the_open_network_is_refused(address: str) -> None:
    with pytest.raises(ValueError, match=r"address"):
        local_address(address)
    assert local_address("192.168.1.4") == "192.168.1.4"


@pytest.mark.parametrize("secure", [False, True], ids=["plain", "certificate"])
def test_the_desk_as_it_is_started_lets_a_device_in_by_its_code(
    tmp_path: Path, secure: bool
) -> None:
    """Over a second loopback address of this machine, so that nothing listens on its network."""
    authority = trustme.CA()
    own = authority.issue_cert("127.0.0.2")
    own.cert_chain_pems[0].write_to_path(str(tmp_path / "c.pem"))
    own.private_key_pem.write_to_path(str(tmp_path / "k.pem"))
    more = ["--cert", str(tmp_path / "c.pem"), "--key", str(tmp_path / "k.pem")] if secure else []
    with on_the_network(tmp_path / "r.db", "127.0.0.2", *more) as desk:
        address = f"http{'s' if secure else ''}://127.0.0.2:{desk.port}/"
        assert address in desk.said
        trust = ssl.create_default_context()
        authority.configure_trust(trust)
        with pytest.raises(HTTPError) as refused:
            urllib.request.urlopen(address, context=trust if secure else None, timeout=30)
        assert refused.value.code == 401
        opener = urllib.request.build_opener(
            urllib.request.HTTPCookieProcessor(),
            *([urllib.request.HTTPSHandler(context=trust)] if secure else []),
        )
        with opener.open(f"{address}pair", f"code={desk.code}".encode(), timeout=30) as answer:
            assert answer.status == 200
            assert "Entrick" in answer.read().decode()
        with opener.open(f"{address}api/jobs", timeout=30) as answer:
            assert answer.status == 200
        if secure:
            plain = HTTPSConnection(
                "127.0.0.2", desk.port, context=ssl.create_default_context(), timeout=30
            )
            with pytest.raises((ssl.SSLError, URLError)):
                plain.request("GET", "/")
