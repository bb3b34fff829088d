"""HTTP as it should be: what is sent is understood or refused in words, whatever it is."""

import json

import pytest
import schemathesis
from flask.testing import FlaskClient
from hypothesis import given

from entrick.store import Store, add_job
from entrick.web.http.app import create_app
from examples import examples

HUGE = 2**64


def test_numbers_beyond_all_registers_are_not_there(client: FlaskClient) -> None:
    for path in (
        f"/api/jobs/{HUGE}",
        f"/api/jobs/{HUGE}/revisions",
        f"/api/jobs/1/revisions/{HUGE}",
        f"/api/jobs/{2**63}/thumbnail.svg",
    ):
        answer = client.get(path)
        assert answer.status_code in (404, 422), path
        assert answer.mimetype == "application/problem+json"
    assert client.get(f"/jobs/{HUGE}").status_code in (200, 404, 503)
    for copy_of in (0, -1, HUGE, 1.5, "x"):
        assert client.post("/api/jobs", json={"copy_of": copy_of}).status_code in (404, 422)
    for line in (HUGE, -HUGE, 2**40):
        assert (
            client.post(
                "/api/work", json={"text": "", "edit": {"op": "delete", "line": line}}
            ).status_code
            == 422
        )
    assert (
        client.post("/api/jobs/1/revisions", json={"text": "", "based_on": HUGE}).status_code == 422
    )


@pytest.mark.parametrize("depth", [100, 990, 5000, 200_000])
def test_a_body_nested_however_deep_is_refused(client: FlaskClient, depth: int) -> None:
    for body in (
        "[" * depth + "]" * depth,
        '{"text":' * depth + "1" + "}" * depth,
        '{"text": ' + "[" * depth + "]" * depth + "}",
    ):
        if len(body) < 500_000:
            answer = client.post("/api/work", data=body, content_type="application/json")
            assert answer.status_code in (400, 422), depth


@pytest.mark.parametrize(
    "body",
    [
        b"\xff\xfe{}",
        b'{"text": "\xe9"}',
        b'{"text": "\\ud800"}',
        b"",
        b"nonsense",
        b'{"text": NaN}',
    ],
)
def test_what_is_no_json_text_is_refused(client: FlaskClient, body: bytes) -> None:
    assert client.post("/api/work", data=body, content_type="application/json").status_code in (
        400,
        422,
    )


def test_a_field_nobody_knows_is_refused(client: FlaskClient) -> None:
    for path, body in (
        ("/api/work", {"text": "", "txet": ""}),
        ("/api/work", {"text": "", "edit": {"op": "delete", "line": 1, "lines": 2}}),
        ("/api/jobs", {"titel": "x"}),
        ("/api/jobs/1/revisions", {"text": "", "based_on": 1, "force": True}),
        ("/api/export/pdf", {"text": "", "page": "A4"}),
    ):
        answer = client.post(path, json=body)
        assert answer.status_code == 422, path
        assert answer.json is not None
        assert answer.json["fields"]
    assert client.get("/api/jobs?archive=true").status_code == 422


def test_another_method_is_told_which_there_are(client: FlaskClient) -> None:
    for method, path, allowed in (
        ("GET", "/api/work", "POST"),
        ("DELETE", "/api/jobs/1", "PATCH"),
        ("PUT", "/api/jobs", "POST"),
    ):
        answer = client.open(path, method=method, json={})
        assert answer.status_code == 405
        assert allowed in answer.headers["Allow"]
        assert answer.mimetype == "application/problem+json"


@pytest.mark.parametrize(
    "path",
    [
        "/api/jobs",
        "/api/jobs/1/thumbnail.svg",
        "/api/pictures/setting.svg?tool=rule&value=9&unit=mm",
        "/api/register/export.zip",
        "/api/kinds",
    ],
)
def test_pages_of_other_sites_get_nothing(client: FlaskClient, path: str) -> None:
    for site in ("cross-site", "same-site"):
        assert client.get(path, headers={"Sec-Fetch-Site": site}).status_code == 403
    assert client.get(path, headers={"Sec-Fetch-Site": "same-origin"}).status_code == 200
    assert client.get(path, headers={"Origin": "http://127.0.0.1:9999"}).status_code == 403
    for host in (
        "[::1",
        "evil.example",
        "127.0.0.1.evil.example",
        "",
        "a]b",
        "127.0.0.1:8400@evil.example",
    ):
        assert client.get(path, headers={"Host": host}).status_code == 403


def test_a_fault_after_the_commit_does_not_say_that_nothing_was_saved(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fall(_: object) -> None:
        raise ZeroDivisionError("while answering")

    monkeypatch.setattr("entrick.web.register.jobs._job", fall)
    answer = client.post("/api/jobs", json={"text": 'plan "Saved"\n'})
    assert answer.status_code == 500
    assert "What was sent is saved" in answer.json["detail"]  # type: ignore[index]
    monkeypatch.undo()
    assert client.get("/api/jobs?search=Saved").json["total"] == 1  # type: ignore[index]
    monkeypatch.setattr("entrick.web.register.jobs.tidied", fall)
    assert (
        "Nothing was saved" in client.post("/api/jobs", json={"text": "x = datum"}).json["detail"]
    )  # type: ignore[index]


def test_whatever_text_may_be_saved_may_be_listed_opened_exported_archived_and_copied(
    client: FlaskClient,
) -> None:
    odd = [
        "O = datum\nz = run, from O\n",
        "rim = line in, " + ">".join(["a"] * 790) + "\n",
        "\n".join("x = line in, " + ">".join(["a"] * 700) for _ in range(69)),
        'plan "a\x01b"\n\x00\ud7ff\u2028',
        "# " + "é" * 49_000,
        "# kept\n" + "(" * 1500,
        "",
        "\r\r\n\ufeff",
    ]
    for text in odd:
        entered = client.post("/api/jobs", json={"text": text})
        assert entered.status_code == 201, text[:40]
        number = entered.json["id"]  # type: ignore[index]
        newest = client.get(f"/api/jobs/{number}").json["newest"]  # type: ignore[index]
        assert client.post("/api/work", json={"text": newest["text"]}).status_code == 200
        assert (
            client.post("/api/export/entrick", json={"text": newest["text"]}).text == newest["text"]
        )
        assert client.post("/api/jobs", json={"copy_of": number}).status_code == 201
        assert (
            client.post(
                f"/api/jobs/{number}/revisions", json={"text": newest["text"], "based_on": 1}
            ).status_code
            == 201
        )
        assert client.patch(f"/api/jobs/{number}", json={"archived": True}).status_code == 200
    assert client.get("/api/jobs?size=200").status_code == 200
    assert client.get("/api/jobs?archived=true").json["total"] == len(odd)  # type: ignore[index]


def test_a_plan_too_large_is_refused_and_not_half_saved(client: FlaskClient) -> None:
    before = client.get("/api/jobs").json["total"]  # type: ignore[index]
    assert client.post("/api/jobs", json={"text": "x = datum\n" * 1001}).status_code == 413
    assert (
        client.post("/api/jobs/1/revisions", json={"text": "#\n" * 1500, "based_on": 1}).status_code
        == 413
    )
    assert client.get("/api/jobs").json["total"] == before  # type: ignore[index]
    assert client.get("/api/jobs/1").json["newest"]["number"] == 1  # type: ignore[index]


def test_a_fuzzer_that_knows_the_schema_finds_nothing(store: Store) -> None:
    """Whatever is sent: a status, a type and a body the document declares, and never a fault."""
    with store.writing() as session:
        add_job(
            session, 'plan "One"\nO = datum\nc = circle, centre O, radius 9\nrim = line in, c\n'
        )
    app = create_app(store)
    plain = app.wsgi_app
    # The desk asks where somebody sits; the fuzzer calls it without any network.
    app.wsgi_app = lambda environ, start: plain({**environ, "REMOTE_ADDR": "127.0.0.1"}, start)  # type: ignore[method-assign]
    schema = schemathesis.openapi.from_wsgi(
        "/api/openapi.json", app, headers={"Host": "127.0.0.1:8400"}
    ).exclude(path="/api/register/import")
    # Once there are several people, who works here has to be said: theirs come last.
    operations = [found.ok() for found in schema.get_all_operations()]
    for operation in sorted(operations, key=lambda each: each.path.startswith("/api/people")):

        @examples(5)
        @given(case=operation.as_strategy())
        def attack(case: schemathesis.Case) -> None:
            case.call_and_validate(headers={"Host": "127.0.0.1:8400"})

        attack()


def test_the_document_declares_problems(client: FlaskClient) -> None:
    document = client.get("/api/openapi.json").json
    assert document is not None
    for path, methods in document["paths"].items():
        for method, said in methods.items():
            assert {"404", "405", "422", "500", "503"} <= said["responses"].keys(), (path, method)
            assert "application/problem+json" in json.dumps(said["responses"]["422"])
