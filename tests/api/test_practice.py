"""Practice through the API: a round, hints, answers kept once, what comes sooner, sets for a class."""

import csv
import io
import json
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient

from entrick.core.desk import work_out
from entrick.core.plan.writer import write_plan
from entrick.core.practice.ask import questions
from entrick.core.practice.keys import answer_of
from entrick.core.summarize import summarize
from entrick.demo import sample_plans
from entrick.demo.jobs import load
from entrick.demo.practice import HABITS, load_practice
from entrick.store import Store, list_answers

LINK = next(text for name, text in sample_plans().items() if "OY-014" in name)


Given = dict[str, Any]


def asked(client: FlaskClient, keys: tuple[str, ...] = (), **said: object) -> Given:
    answer = client.post(
        "/api/practice/next", json={"text": LINK, "seed": 4, "asked": keys, **said}
    )
    assert answer.status_code == 200, answer.text
    return answer.json or {}


def given(client: FlaskClient, next_: Given, said: str, uid: str = "0" * 16, hints: int = 0) -> Any:
    about = {"text": next_["text"], "seed": next_["seed"], "key": next_["question"]["key"]}
    body = {"uid": uid, **about, "said": said, "hints": hints}
    return client.post("/api/practice/answers", json=body)


def right(next_: Given) -> str:
    found = questions(work_out(next_["text"]), next_["seed"])
    question = next(q for q in found if q.key == next_["question"]["key"])
    return answer_of(question).removesuffix("°")


def a_round(client: FlaskClient, says: Callable[[Given], str], **said: object) -> list[Given]:
    """Go through a round of ten, and return what was asked."""
    done: list[Given] = []
    for number in range(10):
        found = asked(client, tuple(each["question"]["key"] for each in done), **said)
        given(client, found, says(found), f"{number:016x}")
        done.append(found)
    return done


def test_a_round_asks_without_telling_and_takes_new_givens(
    client: FlaskClient, store: Store
) -> None:
    done = a_round(client, right)
    assert done[0]["text"] != LINK
    assert "right" not in done[0]["question"]
    assert "slips" not in json.dumps(done)
    with store.reading() as session:
        assert [each.share for each in list_answers(session)] == [1.0] * 10
    assert asked(client, varied=False)["text"] == LINK


def test_what_was_wrong_comes_back_after_two_others_with_other_numbers(client: FlaskClient) -> None:
    first = asked(client)
    done = a_round(
        client,
        lambda found: (
            "1" if found == first and found["question"]["sort"] != "order" else right(found)
        ),
    )
    keys = [each["question"]["key"] for each in done]
    places = [n for n, key in enumerate(keys) if key == keys[0]]
    assert places[:3] == [0, 3, 9]
    assert [each["question"]["again"] for each in done] == [n in (3, 9) for n in range(10)]
    assert done[3]["text"] != done[0]["text"]


def test_by_lot_nothing_is_asked_twice(client: FlaskClient) -> None:
    keys = [each["question"]["key"] for each in a_round(client, right, spaced=False)]
    assert len(set(keys)) == 10


def test_an_answer_is_judged_named_and_kept_once(client: FlaskClient, store: Store) -> None:
    text = write_plan(work_out(LINK).plan)
    question = next(q for q in questions(work_out(text), 4) if q.rule == "locus" and q.setting)
    about = {"text": text, "seed": 4, "question": {"key": question.key}}
    value = float(right(about).split()[0])
    for _ in range(2):
        found = given(client, about, f"{value * 2:g}").json
    assert found["share"] == 0
    assert "scale forgotten" in [slip["key"] for slip in found["slips"]]
    assert found["right"] == right(about)
    with store.reading() as session:
        (kept,) = list_answers(session)
    assert (kept.rule, kept.share, kept.rehearsed) == ("locus", 0.0, False)
    assert kept.slips[0] in kept.chances
    record = client.get("/api/practice").json
    assert record is not None
    assert [s["rule"] for s in record["standings"]] == ["locus"]
    assert record["standings"][0]["weighs"] == 1
    assert record["slips"][0]["times"] == 1
    assert client.delete("/api/practice").json["standings"] == []


def test_hints_say_more_each_and_cost_a_quarter(client: FlaskClient) -> None:
    found = next(
        each for seed in range(20) if (each := asked(client, seed=seed))["question"]["hints"] >= 1
    )
    count = found["question"]["hints"]
    body = {"text": found["text"], "seed": found["seed"], "key": found["question"]["key"]}
    told = [
        client.post("/api/practice/hint", json={**body, "number": n + 1}).json["told"]
        for n in range(count)
    ]
    assert all(told)
    none = client.post("/api/practice/hint", json={**body, "number": count + 1})
    assert none.status_code == 404
    assert given(client, found, right(found), hints=2).json["share"] == 0.5


@pytest.mark.parametrize(
    ("change", "status"),
    [
        ({"key": "no:such"}, 404),
        ({"said": "a lot"}, 409),
        ({"seed": -1}, 422),
        ({"text": "units mm\n"}, 404),
    ],
)
def test_what_cannot_be_judged_is_told(
    client: FlaskClient, change: dict[str, Any], status: int
) -> None:
    key = next(q.key for q in questions(work_out(LINK), 4) if q.sort == "length")
    body = {"uid": "0" * 16, "text": LINK, "seed": 4, "key": key, "said": "1", **change}
    assert client.post("/api/practice/answers", json=body).status_code == status
    assert client.get("/api/practice").json["standings"] == []  # type: ignore[index]


def test_a_plan_with_mistakes_or_nothing_in_it_is_not_asked_about(client: FlaskClient) -> None:
    for text in ("units mm\n", "units mm\nO = datum\nc = circle, centre Q, radius 3\n"):
        answer = client.post("/api/practice/next", json={"text": text, "seed": 1})
        assert answer.status_code == 409
        assert answer.json["detail"]  # type: ignore[index]


def test_an_instrument_opens_to_what_is_typed(client: FlaskClient) -> None:
    for said, there in (("3 1/4", True), ("44 mm", True), ("", False), ("a lot", False)):
        answer = client.post(
            "/api/practice/opened", json={"said": said, "tool": "compass", "unit": "mm"}
        ).json
        assert answer is not None
        assert bool(answer["picture"]) == there
        if there:
            assert client.get(answer["picture"]).status_code == 200


def test_a_class_gets_its_papers_and_is_marked(client: FlaskClient) -> None:
    whole: dict[str, Any] = {}
    for student in range(1, 4):
        body = {"title": "A class", "texts": [LINK], "student": student, "count": 6, "seed": 2}
        part = json.loads(client.post("/api/practice/set-part", json=body).data)
        whole = whole or {**part, "papers": []}
        whole["papers"] += part["papers"]
    text = json.dumps(whole)
    for key in (False, True):
        pdf = client.post("/api/practice/set/papers", json={"set": text, "key": key})
        assert pdf.data.startswith(b"%PDF")
    answers = "student,1,2,3,4,5,6\n1,0,0,0,0,0,0\n2,,,,,,\n"
    found = client.post("/api/practice/set/marks", json={"set": text, "answers": answers}).json
    assert found is not None
    assert [row["student"] for row in csv.DictReader(io.StringIO(found["csv"]))] == ["1", "2"]
    assert [paper["total"] for paper in found["papers"]] == [0, 0]
    told = client.post("/api/practice/set/marks", json={"set": text, "answers": "student,1\n9,1\n"})
    assert told.status_code == 409
    assert "no paper for 9" in told.text
    assert client.post("/api/practice/set/papers", json={"set": "{}"}).status_code == 409


def test_the_made_up_rounds_say_so_and_show_the_habits_they_were_made_with(
    client: FlaskClient, store: Store
) -> None:
    load(store, summarize)
    assert load_practice(store) > 50
    assert load_practice(store) == 0
    record = client.get("/api/practice").json
    assert record is not None
    assert record["rehearsed"]
    assert {slip["slip"] for slip in record["slips"][:3]} <= set(HABITS)
    assert len(record["days"]) >= 6
