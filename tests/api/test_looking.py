"""Pictures of finished sheets over HTTP: looked at within bounds, refused in words, marked for a class."""

import base64
import json

import pytest
from flask.testing import FlaskClient

from entrick.core.classroom.sets import own_variant
from entrick.core.desk import work_out
from entrick.core.look.by_hand import drawn_by_hand
from entrick.demo import sample_plans
from entrick.devices.digitiser import digitised
from entrick.devices.scanner import scan
from entrick.web.operation import Sent
from entrick.web.workers.forward import ANSWER
from entrick.web.workers.pool import LOOKING, TooMuchWork, Workers

LINK = sample_plans()["OY-014-paddle-pawl-link.entrick"]


def posted(client: FlaskClient, address: str, **body: object) -> tuple[int, dict[str, object]]:
    answer = client.post(f"/api/look{address}", json={"text": LINK, **body})
    assert answer.json is not None
    return answer.status_code, answer.json


def test_sheets_to_try_are_drawn_and_looked_at(client: FlaskClient) -> None:
    for which, within in (("sound", True), ("slipped", False)):
        _, sample = posted(client, "/sample", which=which)
        status, looked = posted(client, "", picture=sample["picture"])
        assert status == 200
        assert looked["within"] is within, looked["sentence"]
        assert bool(looked["slips"]) is not within
        assert str(looked["picture"]).startswith("data:image/jpeg;base64,")
        assert len(looked["rows"]) == 6  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("picture", "words"),
    [(b"no picture", "save it as PNG, JPEG or TIFF"), (b"", "the file is empty")],
)
def test_what_cannot_be_looked_at_is_refused_in_words(
    client: FlaskClient, picture: bytes, words: str
) -> None:
    status, told = posted(client, "", picture=base64.b64encode(picture).decode())
    assert status == 409
    assert words in str(told["detail"])


def test_a_plan_without_an_outline_or_a_border_has_no_sheet_to_look_at(client: FlaskClient) -> None:
    sheet = drawn_by_hand(work_out(LINK), 1)
    picture = base64.b64encode(scan(sheet, dpi=100)).decode()
    answer = client.post("/api/look", json={"text": "O = datum\n", "picture": picture})
    assert answer.status_code == 409
    bare = "\n".join(
        "sheet A4 landscape, scale 1:2, border 0" if row.startswith("sheet") else row
        for row in LINK.splitlines()
    )
    answer = client.post("/api/look", json={"text": bare, "picture": picture})
    assert "no border and title strip" in answer.json["detail"]  # type: ignore[index]


def test_the_sheet_of_a_student_is_held_against_the_givens_that_student_has(
    client: FlaskClient,
) -> None:
    own = own_variant(LINK, 4, 7)
    assert own is not None
    picture = base64.b64encode(scan(drawn_by_hand(own, 3), dpi=150)).decode()
    status, looked = posted(client, "", picture=picture, student=4, seed=7)
    assert status == 200
    assert looked["within"] is True, looked["sentence"]
    marks = looked["marks"]
    assert isinstance(marks, dict)
    assert marks["whole"] == marks["most"] == 20


def test_measured_places_are_looked_at_and_a_bad_table_is_told_by_its_row(
    client: FlaskClient,
) -> None:
    status, found = posted(client, "/places", table=digitised(drawn_by_hand(work_out(LINK), 1)))
    assert status == 200
    assert found["sentence"] == "Everything measured is within a hand."
    status, told = posted(client, "/places", table="x,y,piece\n1,high,top\n")
    assert status == 409
    assert "row 2" in str(told["detail"])


def test_marks_of_a_class_are_a_table_in_which_no_cell_does_anything(client: FlaskClient) -> None:
    parts = {"accuracy": 9, "tangency": 4, "weight": 2, "completeness": 3, "centring": 0.5}
    students = [
        {"student": "=1+1", "marks": parts, "said": "Everything is within the tolerance."},
        {"student": "B", "marks": None, "said": "the file is empty"},
    ]
    answer = client.post("/api/look/marks.csv", json={"students": students})
    rows = answer.text.split("\r\n")
    assert rows[1].startswith("'=1+1,9.0,4.0,2.0,3.0,0.5,18.5,")
    assert rows[2] == "B,,,,,,,the file is empty"


def test_a_picture_is_looked_at_within_the_bounds_of_a_worker() -> None:
    """It may take more than a plan, and not more than so much."""
    pool = Workers()
    try:
        sheet = drawn_by_hand(work_out(LINK), 1)
        picture = base64.b64encode(scan(sheet, dpi=100)).decode()
        body = json.dumps({"text": LINK, "picture": picture}).encode()
        sent = Sent("POST", "/api/look", body=body)
        assert pool.do(ANSWER, sent, {}, bounds=LOOKING).status == 200
        with pytest.raises(TooMuchWork):
            pool.do(eval, "bytearray(2 * 2**30)", bounds=LOOKING)
    finally:
        pool.close()


def test_a_picture_that_did_not_arrive_whole_is_refused(client: FlaskClient) -> None:
    status, told = posted(client, "", picture="abcde")
    assert status == 409
    assert "did not arrive whole" in str(told["detail"])
