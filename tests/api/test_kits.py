"""Kits through the API: kept, made usual, taken away; what each lack changes; settings are read on the kit."""

import json

import pytest
from flask.testing import FlaskClient

from entrick.core.board.kits import STARTERS, write_kit
from entrick.demo import sample_plans

BARE = write_kit(STARTERS["bare"])
PLAN = (
    "units mm\nsheet A3\nO = datum\nl = line, through O, at 37°\nm = line, through O, square to l\n"
    "c = circle, centre O, radius 2\n"
)


def kits(client: FlaskClient) -> dict[str, bool]:
    answer = client.get("/api/kits").json
    assert answer is not None
    return {kit["name"]: kit["usual"] for kit in answer["kits"]}


def test_kits_are_kept_made_usual_one_at_a_time_and_taken_away(client: FlaskClient) -> None:
    assert list(kits(client)) == list(STARTERS)
    for name in ("mine", "the yard’s"):
        assert (
            client.put(
                f"/api/kits/{name.replace('’', ' ')}", json={"text": BARE, "usual": True}
            ).status_code
            == 200
        )
    assert [name for name, usual in kits(client).items() if usual] == ["the yard s"]
    assert client.delete("/api/kits/the yard s").status_code == 200
    assert "the yard s" not in kits(client)
    assert not any(kits(client).values())


@pytest.mark.parametrize(
    ("name", "text", "status", "words"),
    [
        ("bare", BARE, 409, "comes with the desk"),
        ("mine", "{}", 409, "this is no kit"),
        ("mine", json.dumps({"entrick_kit": 1, "unit": "ell"}), 409, "mm or in"),
        ("a/b", BARE, 404, ""),
        ("x" * 61, BARE, 422, ""),
    ],
)
def test_what_is_no_kit_is_refused_in_words(
    client: FlaskClient, name: str, text: str, status: int, words: str
) -> None:
    answer = client.put(f"/api/kits/{name}", json={"text": text})
    assert answer.status_code in (status, 405)
    assert words in answer.text


def test_what_a_kit_lacks_changes_the_job_and_what_it_has_does_not(client: FlaskClient) -> None:
    lacks = client.post("/api/lacks", json={"text": PLAN, "kit": BARE}).json
    assert lacks is not None
    told = {lack["told"]: lack for lack in lacks["lacks"]}
    assert list(told) == ["no set squares", "no protractor", "no compass that goes below R3"]
    assert told["no set squares"]["more"] > 0
    assert any("along" in step for step in told["no protractor"]["instead"])
    full = client.post(
        "/api/lacks", json={"text": PLAN, "kit": write_kit(STARTERS["drafting-table"])}
    ).json
    assert full == {"lacks": []}


@pytest.mark.parametrize("kit", list(STARTERS))
def test_settings_are_read_on_the_kit(client: FlaskClient, kit: str) -> None:
    text = next(text for name, text in sample_plans().items() if "OY-014" in name)
    steps = client.post("/api/work", json={"text": text, "kit": write_kit(STARTERS[kit])}).json[
        "steps"
    ]  # type: ignore[index]
    readings = [
        step["setting"]["reading"]
        for step in steps
        if step["setting"] and not step["setting"]["is_angle"]
    ]
    assert all(STARTERS[kit].unit.value in reading.split() for reading in readings)
    assert client.post("/api/work", json={"text": text, "kit": "no kit"}).status_code == 409
