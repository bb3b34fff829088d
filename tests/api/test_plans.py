"""Working out, editing, completing and exporting over HTTP; what is refused, and how."""

import json
import re

import pytest
from flask.testing import FlaskClient

from entrick.core.board.kits import STARTERS, write_kit
from entrick.core.moves import kinds
from entrick.store import Store
from entrick.web.http.app import create_app
from entrick.web.openapi import as_text

TEXT = (
    'plan "Part"\nunits mm\ngiven r = 20 "eye"\nO = datum\nA = point, 50 left of O\nB = point, 50 right of O\n'
    "# eyes\na = circle, centre A, radius r\nb = circle, centre B, radius 15\ntop = arc, radius 90, around a, around b, above\n"
    "low = arc, radius 90, beside a, beside b, below\nrim = line in, a > top > b > low\n"
)


def work(client: FlaskClient, text: str = TEXT, /, **edit: object) -> dict:  # type: ignore[type-arg]
    answer = client.post("/api/work", json={"text": text, **({"edit": edit} if edit else {})})
    assert answer.status_code == 200, answer.text
    return answer.json  # type: ignore[return-value]


def entry(done: dict, name: str) -> dict:  # type: ignore[type-arg]
    return next(e for e in done["entries"] if e["name"] == name)


def test_a_plan_worked_out_carries_all_a_person_sees(client: FlaskClient) -> None:
    done = work(client)
    assert done["givens"][0] | {"used_by": [8]} == done["givens"][0]
    assert entry(done, "top")["working"] == [
        "90 − 20 = 70: swing from A",
        "90 − 15 = 75: swing from B",
    ]
    assert entry(done, "top")["mistake"]
    assert [c["key"] for c in entry(done, "top")["clauses"]] == [
        "radius",
        "around",
        "around",
        "where",
    ]
    assert [e["comment"] for e in done["entries"] if e["comment"]] == ["eyes"]
    swing = next(s for s in done["steps"] if s["name"] == "top" and s["setting"])
    assert (swing["tool"], swing["setting"]["reading"], swing["setting"]["rounding"]) == (
        "compass",
        "70 mm",
        "stands on the graduation",
    )
    assert client.get(swing["setting"]["picture"]).mimetype == "image/svg+xml"
    assert len(swing["needle"]) == 2


def test_a_changed_given_moves_the_figure_and_keeps_the_choice(client: FlaskClient) -> None:
    done = work(client, op="given", line=3, value="1 in")
    assert 'given r = 1 in "eye"' in done["text"]
    assert done["givens"][0]["worth"] == "25.4"
    assert entry(done, "top")["working"][0] == "90 − 25.4 = 64.6: swing from A"
    assert [c["chosen"] for c in entry(done, "top")["candidates"]] == [
        c["words"] == ["above"] for c in entry(done, "top")["candidates"]
    ]


def test_a_given_that_cannot_be_read_is_kept_as_typed_and_can_be_mended(
    client: FlaskClient,
) -> None:
    broken = work(client, op="given", line=3, value="4 1/")
    assert broken["givens"][0]["value"] == "4 1/"
    assert "below the line" in broken["givens"][0]["error"]["message"]
    assert "mistake of its own" in entry(broken, "a")["error"]["message"]
    assert entry(broken, "b")["sentence"]
    mended = work(client, broken["text"], op="given", line=3, value="20")
    assert mended["text"] == work(client)["text"]


def test_candidates_are_chosen_by_letter(client: FlaskClient) -> None:
    open_text = TEXT.replace(", around a, around b, above", ", touching a, touching b")
    undecided = entry(work(client, open_text), "top")
    assert undecided["error"]["message"].startswith("8 arcs fit")
    assert [c["letter"] for c in undecided["candidates"]] == list("ABCDEFGH")
    assert all(c["marks"] for c in undecided["candidates"])
    for letter in "ADH":
        chosen = entry(work(client, open_text, op="choose", line=10, letter=letter), "top")
        assert next(c for c in chosen["candidates"] if c["chosen"])["letter"] == letter
    again = work(
        client,
        work(client, open_text, op="choose", line=10, letter="A")["text"],
        op="choose",
        line=10,
        letter="C",
    )
    assert len(entry(again, "top")["clauses"]) <= 5, "the words of the first choice are gone"


@pytest.mark.parametrize(
    ("edit", "row", "expected"),
    [
        (
            {"op": "clause", "line": 9, "clause": 1, "text": "diameter 24"},
            9,
            "b = circle, centre B, diameter 24",
        ),
        (
            {"op": "clause", "line": 10, "clause": 3, "text": ""},
            10,
            "top = arc, radius 90, around a, around b",
        ),
        (
            {"op": "line", "line": 4, "text": "O=datum,middle of sheet"},
            4,
            "O = datum, middle of sheet",
        ),
        ({"op": "insert", "after": 12, "text": "bore = line in, a"}, 13, "bore = line in, a"),
        ({"op": "insert", "after": 0, "text": "two\nlines"}, 1, "two lines"),
        ({"op": "delete", "line": 7}, 7, "a = circle, centre A, radius r"),
        ({"op": "move", "line": 9, "to": 8}, 8, "b = circle, centre B, radius 15"),
    ],
)
def test_edits(client: FlaskClient, edit: dict, row: int, expected: str) -> None:  # type: ignore[type-arg]
    assert work(client, **edit)["text"].splitlines()[row - 1] == expected


@pytest.mark.parametrize(
    ("edit", "status"),
    [
        ({"op": "delete", "line": 99}, 409),
        ({"op": "clause", "line": 3, "clause": 0, "text": "x"}, 409),
        ({"op": "choose", "line": 10, "letter": "G"}, 409),
        ({"op": "given", "line": 4, "value": "3"}, 409),
        ({"op": "choose", "line": 10, "letter": "ZZ"}, 422),
        ({"op": "fly"}, 422),
        ({"op": "line", "line": 1, "text": "x" * 5000}, 422),
    ],
)
def test_edits_that_do_not_fit_are_refused_in_words(
    client: FlaskClient, edit: dict, status: int
) -> None:  # type: ignore[type-arg]
    answer = client.post("/api/work", json={"text": TEXT, "edit": edit})
    assert answer.status_code == status
    assert answer.mimetype == "application/problem+json"
    assert answer.json["title"]  # type: ignore[index]


def test_a_line_that_cannot_be_read_stands_among_the_others(client: FlaskClient) -> None:
    done = work(client, TEXT + "what is this\n")
    last = done["entries"][-1]
    assert (last["text"], last["kind"]) == ("what is this", "")
    assert "starts with a name" in last["error"]["message"]
    assert "rim" in [e["name"] for e in done["entries"]]


def test_the_vocabulary_is_what_the_kinds_declare(client: FlaskClient) -> None:
    told = client.get("/api/kinds").json["kinds"]  # type: ignore[index]
    assert [k["name"] for k in told] == list(kinds())
    for kind in told:
        for form, declared in zip(kind["forms"], kinds()[kind["name"]].forms, strict=True):
            assert [p if isinstance(p, str) else p["name"] for p in form["parts"]] == [
                p.text if hasattr(p, "text") else p.name for p in declared.parts
            ]


def test_completion(client: FlaskClient) -> None:
    answer = client.post(
        "/api/complete", json={"text": TEXT, "after": 12, "row": "x = circle, centre "}
    ).json
    assert {"A", "B", "O"} <= {c["adds"] for c in answer["completions"]}  # type: ignore[index]


@pytest.mark.parametrize(
    ("format", "starts"),
    [
        ("pdf", b"%PDF"),
        ("svg", b"<svg"),
        ("dxf", b"  0\nSECTION"),
        ("csv", b"step,"),
        ("entrick", b"plan "),
    ],
)
def test_every_file_is_offered_by_name(client: FlaskClient, format: str, starts: bytes) -> None:
    answer = client.post(f"/api/export/{format}", json={"text": TEXT})
    assert answer.status_code == 200
    assert answer.data.startswith(starts)
    assert answer.headers["Content-Disposition"] == f'attachment; filename="Part.{format}"'


def test_a_name_for_a_file_cannot_break_out_of_its_header(client: FlaskClient) -> None:
    answer = client.post("/api/export/svg", json={"text": 'plan "../../x; y"\nO = datum\n'})
    assert answer.headers["Content-Disposition"] == 'attachment; filename="x-y.svg"'
    unknown = client.post("/api/export/exe", json={"text": TEXT})
    assert unknown.status_code == 404
    assert "pdf, svg, dxf" in unknown.json["detail"]  # type: ignore[index]


@pytest.mark.parametrize(
    "query",
    [
        "tool=compass&value=1e9&unit=mm",
        "tool=compass&value=3&unit=ell",
        "tool=compass&value=3&unit=mm&graduation=0",
        "tool=compass&value=3&unit=mm&graduation=1/0",
    ],
)
def test_pictures_of_nonsense_are_refused(client: FlaskClient, query: str) -> None:
    assert client.get(f"/api/pictures/setting.svg?{query}").status_code == 422


def test_only_this_machine_and_the_desks_own_pages_are_answered(client: FlaskClient) -> None:
    assert client.get("/api/jobs", headers={"Host": "desk.example"}).status_code == 403
    assert client.get("/api/jobs", headers={"Host": "localhost:8400"}).status_code == 200
    body = {"text": TEXT}
    here = {"Host": "127.0.0.1:8400"}
    assert (
        client.post(
            "/api/work", json=body, headers=here | {"Origin": "http://127.0.0.1:8400"}
        ).status_code
        == 200
    )
    for origin in ("http://evil.example", "null", "http://127.0.0.1:9999"):
        assert (
            client.post("/api/work", json=body, headers=here | {"Origin": origin}).status_code
            == 403
        )
    assert (
        client.post(
            "/api/work", json=body, headers=here | {"Sec-Fetch-Site": "cross-site"}
        ).status_code
        == 403
    )
    assert (
        client.post("/api/work", data=json.dumps(body), content_type="text/plain").status_code
        == 415
    )


def test_sizes_are_bounded(client: FlaskClient) -> None:
    assert client.post("/api/work", json={"text": "x" * 600_000}).status_code == 413
    assert client.post("/api/work", json={"text": "x" * 150_000}).status_code == 422
    assert client.post("/api/work", json={"text": "#\n" * 1500}).status_code == 413
    assert client.post("/api/jobs", json={"text": "#\n" * 1500}).status_code == 413
    assert client.post("/api/export/pdf", json={"text": "#\n" * 1500}).status_code == 413
    assert (
        client.post("/api/complete", json={"text": "#\n" * 1500, "after": 1, "row": ""}).status_code
        == 413
    )


def test_every_answer_carries_the_strict_policy(client: FlaskClient) -> None:
    for path in ("/api/jobs", "/api/nothing", "/"):
        policy = client.get(path).headers["Content-Security-Policy"]
        assert "default-src 'none'" in policy
        assert "unsafe" not in policy
        assert "frame-ancestors 'none'" in policy


def test_a_fault_is_said_without_its_insides(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fall(_: str) -> None:
        raise ZeroDivisionError("secret")

    monkeypatch.setattr("entrick.web.operations.plans.work_out", fall)
    answer = client.post("/api/work", json={"text": TEXT})
    assert answer.status_code == 500
    assert "secret" not in answer.text


def test_the_openapi_document_is_served_and_the_one_the_types_come_from(
    client: FlaskClient,
) -> None:
    served = client.get("/api/openapi.json").json
    assert {"/api/work", "/api/jobs/{job_id}/revisions", "/api/kinds"} <= set(served["paths"])  # type: ignore[index]
    with open("frontend/openapi.json", encoding="utf-8") as file:
        assert file.read() == as_text(), "run make types"
    named = set(re.findall(r'"#/components/schemas/(\w+)"', json.dumps(served)))
    assert "Problem" in named
    assert named <= set(served["components"]["schemas"])  # type: ignore[index]
    assert len(json.dumps(served["paths"])) < 230_000, "what is the same everywhere is said once"  # type: ignore[index]


def test_layers_the_asker_has_are_not_sent_again(client: FlaskClient) -> None:
    first = client.post("/api/work", json={"text": TEXT}).json["sheet_drawing"]["layers"]
    known = [layer["key"] for layer in first]
    again = client.post("/api/work", json={"text": TEXT, "known": known[1:]}).json["sheet_drawing"][
        "layers"
    ]
    assert [layer["key"] for layer in again] == known
    assert [layer["marks"] is None for layer in again] == [False] + [True] * (len(known) - 1)
    assert again[0] == first[0]


def test_an_edit_that_is_not_understood_leaves_the_plan_and_says_why(client: FlaskClient) -> None:
    answer = client.post(
        "/api/work", json={"text": TEXT, "edit": {"op": "new given", "text": "nonsense"}}
    ).json
    assert "write a letter" in answer["refused"]
    assert answer["text"] == client.post("/api/work", json={"text": TEXT}).json["text"]


def test_what_is_put_at_the_end_is_told_by_its_line(client: FlaskClient) -> None:
    edit = {"op": "append", "text": "zz = point, 3 right of O,\nyy = point, 4 right of O, >"}
    answer = client.post("/api/work", json={"text": TEXT, "edit": edit}).json
    assert answer["text"].endswith("zz = point, 3 right of O\nyy = point, 4 right of O\n")
    assert [entry["name"] for entry in answer["entries"] if entry["line"] == answer["at"]] == ["yy"]


def test_a_row_is_begun_and_picked_into_by_the_desk(client: FlaskClient) -> None:
    row = client.post("/api/complete", json={"text": TEXT, "row": "", "begin": "line in"}).json[
        "row"
    ]
    assert row.endswith("= line in, ")
    row = client.post(
        "/api/complete", json={"text": TEXT, "row": row, "begin": "line in", "pick": "a"}
    ).json["row"]
    row = client.post("/api/complete", json={"text": TEXT, "row": row, "pick": "b"}).json["row"]
    assert row.endswith("= line in, a > b")


def test_the_document_has_every_operation_by_a_name_of_its_own(store: Store) -> None:
    app = create_app(store)
    routes = {
        re.sub(r"<(\w+)>", r"{\1}", rule.rule)
        for rule in app.url_map.iter_rules()
        if rule.rule.startswith("/api/")
    }
    document = app.test_client().get("/api/openapi.json", headers={"Host": "127.0.0.1"}).json
    assert document is not None
    assert routes < set(document["paths"])
    named = [
        each["operationId"] for methods in document["paths"].values() for each in methods.values()
    ]
    assert len(named) == len(set(named))


def test_an_address_is_answered_by_what_it_takes(client: FlaskClient) -> None:
    """Whoever answers, the register or a worker: nothing there, and not like this, are two things."""
    for path, allowed in (("/api/work", {"POST"}), ("/api/kits", {"GET", "HEAD", "OPTIONS"})):
        wrong = client.delete(path)
        assert wrong.status_code == 405
        assert set(wrong.headers["Allow"].split(", ")) == allowed
    assert client.get("/api/nothing").status_code == 404


@pytest.mark.parametrize("within", [0, -1, 11])
def test_a_tolerance_that_is_none_is_told_in_words(client: FlaskClient, within: float) -> None:
    body = {"text": TEXT, "ovals": "arcs", "within": within}
    answer = client.post("/api/export/dxf", json=body)
    assert answer.status_code == 422
    assert answer.json is not None
    assert "more than 0 and at most 10 mm" in answer.json["detail"]


def test_the_proof_is_of_the_sheet_as_it_is_drawn(client: FlaskClient) -> None:
    """Steps are numbered in the order the drafter sees, and settings read on the kit at hand."""
    plain = client.post("/api/proof", json={"text": TEXT})
    bare = client.post("/api/proof", json={"text": TEXT, "kit": write_kit(STARTERS["bare"])})
    other = client.post("/api/proof", json={"text": TEXT, "schedule": "settings"})
    assert plain.status_code == bare.status_code == other.status_code == 200
    assert client.post("/api/proof", json={"text": TEXT, "kit": "{}"}).status_code == 409
