"""Sets for a class, kept in the register."""

import json

from flask.testing import FlaskClient

PLAN = 'plan "Cap"\nunits mm\nO = datum\ngiven d = Ø62\nc = circle, centre O, diameter d\nrim = line in, c\n'


def made(client: FlaskClient, students: int) -> str:
    whole = None
    for student in range(1, students + 1):
        asked = {"title": "Caps", "texts": [PLAN], "student": student, "count": 4, "seed": 3}
        part = client.post("/api/practice/set-part", json=asked).json
        if whole is None:
            whole = part
        else:
            whole["papers"] += part["papers"]  # type: ignore[index]
    return json.dumps(whole)


def test_a_set_is_kept_listed_opened_and_put_away_and_back(client: FlaskClient) -> None:
    text = made(client, 2)
    kept = client.post("/api/sets", json={"set": text})
    assert kept.status_code == 201
    assert (kept.json["title"], kept.json["students"]) == ("Caps", 2)  # type: ignore[index]
    at = f"/api/sets/{kept.json['id']}"  # type: ignore[index]
    assert client.get(at).json["set"] == text  # type: ignore[index]
    assert client.patch(at, json={"removed": True}).json["removed"]  # type: ignore[index]
    assert [each["removed"] for each in client.get("/api/sets").json["sets"]] == [True]  # type: ignore[index]
    assert not client.patch(at, json={"removed": False}).json["removed"]  # type: ignore[index]


def test_what_is_no_set_is_not_kept(client: FlaskClient) -> None:
    refused = client.post("/api/sets", json={"set": '{"entrick_set": 1, "papers": 3}'})
    assert refused.status_code == 409
    assert "set" in refused.json["detail"]  # type: ignore[index]
    assert client.get("/api/sets").json["sets"] == []  # type: ignore[index]
    for number in (1, 99):
        assert client.get(f"/api/sets/{number}").status_code == 404
        assert client.patch(f"/api/sets/{number}", json={"removed": True}).status_code == 404
