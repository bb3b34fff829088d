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


def test_marks_are_kept_decided_and_told_over_weeks(client: FlaskClient) -> None:
    text = made(client, 2)
    kept = client.post("/api/sets", json={"set": text}).json
    assert kept is not None
    count = len(json.loads(text)["papers"][0]["questions"])
    answers = f"student,{','.join(str(n + 1) for n in range(count))}\n1{',a blot' * count}\n"
    body = {"set": text, "answers": answers, "set_id": kept["id"]}
    for _ in range(2):  # marked again, it is the same student's
        assert client.post("/api/practice/set/marks", json=body).status_code == 200
    at = f"/api/sets/{kept['id']}/marks"
    (paper,) = client.get(at).json["papers"]  # type: ignore[index]
    assert (paper["student"], paper["total"], paper["of"]) == ("1", 0, count)
    waiting = paper["waits"][0]
    assert "a blot" in waiting["told"]
    decided = client.patch(
        at, json={"student": "1", "question": waiting["question"], "share": 0.5}
    ).json
    assert decided is not None
    assert decided["total"] == 0.5
    assert len(decided["waits"]) == len(paper["waits"]) - 1
    record = client.get("/api/class-record").json
    assert record is not None
    assert [student["who"] for student in record["students"]] == ["1"]
    assert record["shares"] == [0.5]
    assert "class,all" in record["csv"]
    none = client.patch(at, json={"student": "7", "question": 1, "share": 1})
    assert none.status_code == 404
    assert client.post("/api/practice/set/marks", json={**body, "set_id": 99}).status_code == 404


def test_new_parts_choices_and_lists_are_given(client: FlaskClient) -> None:
    topics = client.get("/api/practice/topics").json["topics"]  # type: ignore[index]
    assert len(topics) >= 12
    part = client.post("/api/practice/part", json={"topic": topics[0]["key"], "seed": 3}).json
    assert part is not None
    assert part["text"].startswith(f'plan "{part["title"]}"')
    assert client.post("/api/practice/part", json={"topic": "x", "seed": 3}).status_code == 409
    choices = client.get("/api/practice/set/choices").json
    assert choices is not None
    assert [grade["key"] for grade in choices["grades"]] == ["0", "1", "2", "3", "4"]
    names = client.post("/api/practice/set/names", json={"text": "Ada\nBen\n"}).json
    assert names == {"names": ["Ada", "Ben"]}
    sheet = client.post("/api/practice/set/answers", json={"set": made(client, 1)})
    assert sheet.text.startswith("student,name,1")
